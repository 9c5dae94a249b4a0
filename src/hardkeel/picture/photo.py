"""The airframe over a photo: as it should stand, and as it is believed to stand with the error enlarged."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.values import Point
from hardkeel.fuselage.hull import corner_lines
from hardkeel.geometry.rotation import Array
from hardkeel.picture.truing import body_ring, body_verdict
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, Verdict
from hardkeel.survey.sighting import photo_view

_PIECES: Final = 8  # of a straight edge: the lens bends it
Pixel = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Outline:
    """A body's edge in a photo, pixels, closed.

    Attributes
    ----------
    verdict : Verdict, optional
        The worst of its checks; ``None`` for where it should stand.
    """

    body: str
    points: tuple[Pixel, ...]
    verdict: Verdict | None = None


@dataclass(frozen=True, slots=True)
class OverPhoto:
    """What lies over a photo.

    Attributes
    ----------
    wanted, estimated : tuple of Outline
        As it should stand, and as it is believed to stand.
    hull : tuple of tuple of (u, v)
        The fuselage's longerons as drawn.
    marks : dict of str to (u, v)
        Where each mark is believed to fall, the error not enlarged.
    """

    wanted: tuple[Outline, ...] = ()
    estimated: tuple[Outline, ...] = ()
    hull: tuple[tuple[Pixel, ...], ...] = ()
    marks: tuple[tuple[str, Pixel], ...] = ()


def over_photo(build: Build, judgement: Judgement, photo_id: str, factor: float) -> OverPhoto:
    """Project a build into a photo; nothing where the photo is not in use.

    Parameters
    ----------
    factor : float
        How many times the error is enlarged.
    """
    view = photo_view(judgement, photo_id)
    if view is None:
        return OverPhoto()
    survey = build.surveyed

    def seen(points: Array) -> tuple[Pixel, ...]:
        pixels = view.project(points)
        return tuple((float(u), float(v)) for u, v in pixels if np.isfinite(u) and np.isfinite(v))

    wanted, estimated = [], []
    for body in survey.bodies:
        if body.id == FUSELAGE:
            continue
        ring = _fine(body_ring(survey, body))
        placer = judgement.net.placer_of([(body.id, at) for at in ring])
        placed = placer.place(judgement.solution.unknowns).airframe
        design = np.array(ring)
        wanted.append(Outline(body.id, seen(design)))
        shown = design + factor * (placed - design)
        estimated.append(Outline(body.id, seen(shown), body_verdict(judgement, body.id)))
    marks = judgement.solution.placed.airframe
    pixels = view.project(marks)
    return OverPhoto(
        tuple(wanted),
        tuple(estimated),
        tuple(seen(line) for line in corner_lines(build.fuselage)),
        tuple(
            (mark.id, (float(u), float(v)))
            for mark, (u, v) in zip(survey.marks, pixels, strict=True)
            if np.isfinite(u) and np.isfinite(v)
        ),
    )


def _fine(ring: tuple[Point, ...]) -> list[Point]:
    found: list[Point] = []
    for i, start in enumerate(ring):
        end = ring[(i + 1) % len(ring)]
        for k in range(_PIECES):
            share = k / _PIECES
            x, y, z = (a + (b - a) * share for a, b in zip(start, end, strict=True))
            found.append((x, y, z))
    return found
