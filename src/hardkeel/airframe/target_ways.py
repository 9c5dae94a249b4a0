"""Labels laid by a mark of the builder's own: with a corner on it, as a flag beyond its edge, as a foot that hangs from it.

The middle of such a label is off the mark by what its size says; so it has a mark of its own, which follows the other.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.geometry.rotation import Array
from hardkeel.survey.model import (
    FUSELAGE,
    OWN_TARGET,
    Body,
    LaidBy,
    Mark,
    Survey,
    Target,
    role_of,
)

RIM: Final = 8 / 6  # of the black square, with its white rim
_CODES: Final = 100
_CORNERS: Final = 4  # of a panel
_ASIDE_MM: Final = 1.0  # from the middle line: on a side; and of a chord's marks from each other


@dataclass(frozen=True, slots=True)
class _Laid:
    suffix: str
    off: Point
    normal: Point


def laid_by(survey: Survey, by: LaidBy, size: float) -> tuple[list[Mark], list[Target]]:
    """The marks and targets of a label that is laid by a mark, numbered from the first free code.

    Parameters
    ----------
    size : float
        The side of the black square, mm.

    Raises
    ------
    BadInput
        When there is no such mark, it has such a label already, or no code is left.
    """
    at = survey.mark(by.mark)
    if at is None:
        raise BadInput("mark", f'no mark "{by.mark}"')
    used = {one.code for one in survey.targets}
    taken = {one.mark for one in survey.targets}
    free = (code for code in range(_CODES) if code not in used)
    marks, targets = [], []
    for one in _ways(survey, at, by, size):
        name = _named(by, one.suffix)
        if name in taken:
            raise BadInput("mark", "a label is laid by it in this way already")
        code = next(free, None)
        if code is None:
            raise BadInput("mark", f"all {_CODES} codes are used")
        marks.append(Mark(id=name, body=at.body, at=_moved(at.at, one.off)))
        targets.append(Target(code=code, mark=name, normal=one.normal, by=by))
    return marks, targets


def following(survey: Survey) -> Survey:
    """The survey with such labels where the marks now are that they were laid by; one whose mark is gone stays."""
    size = survey.target_size
    if size is None or all(one.by is None for one in survey.targets):
        return survey
    there = {one.id: one for one in survey.marks}
    places: dict[str, Point] = {}
    for target in survey.targets:
        by = there.get(target.by.mark) if target.by is not None else None
        if target.by is None or by is None:
            continue
        for one in _ways(survey, by, target.by, size):
            if _named(target.by, one.suffix) == target.mark:
                places[target.mark] = _moved(by.at, one.off)
    if all(there[mark].at == at for mark, at in places.items()):
        return survey
    return survey.but(marks=tuple(one.but(at=places.get(one.id, one.at)) for one in survey.marks))


def _named(by: LaidBy, suffix: str) -> str:
    return f"{OWN_TARGET}{by.way}_{by.mark}{suffix}"


def _ways(survey: Survey, mark: Mark, by: LaidBy, size: float) -> Iterator[_Laid]:
    """Where the middles lie of a mark, and what way they face."""
    half = RIM * size / 2
    ahead = _is_ahead(survey, mark)
    for suffix, (aft, out, normal) in _faces(survey, mark):
        beyond = -half if ahead else half
        match by.way:
            case "middle":
                yield _Laid(suffix, _off((normal, by.over)), normal)
            case "corner":
                yield _Laid(suffix, _off((normal, by.over), (aft, -beyond), (out, -half)), normal)
            case "flag":  # a sheet of paper in the surface's own plane
                yield _Laid(suffix, _off((aft, beyond)), normal)
            case "foot":
                facing = -1.0 if ahead else 1.0
                yield _Laid("", (0.0, 0.0, -half), (facing, 0.0, 0.0))
                return


def _faces(survey: Survey, mark: Mark) -> Iterator[tuple[str, tuple[Point, Point, Point]]]:
    """Which faces carry a label: both of a fin, the side that the mark is on, else the upper.

    Of each the ways aft and outward (up where it stands upright) in its plane, and its normal.
    """
    body = survey.body(mark.body)
    upright = ((1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
    if body is not None and role_of(body) == "fin":
        yield "_port", (*upright, (0.0, -1.0, 0.0))
        yield "_starboard", (*upright, (0.0, 1.0, 0.0))
    elif mark.body == FUSELAGE and abs(mark.at[1]) > _ASIDE_MM:
        yield "", (*upright, (0.0, math.copysign(1.0, mark.at[1]), 0.0))
    else:
        yield "", _lying(body, mark)


def _lying(body: Body | None, mark: Mark) -> tuple[Point, Point, Point]:
    """Of a lying face: its plane is that of the drawn corners nearest to the mark, with their incidence and dihedral."""
    side = math.copysign(1.0, mark.at[1])
    flat = ((1.0, 0.0, 0.0), (0.0, side, 0.0), (0.0, 0.0, 1.0))
    if body is None or not body.outline:
        return flat
    ring = np.array([one for one in body.outline if one[1] * side >= -_ASIDE_MM])
    near = ring[np.argsort(np.linalg.norm(ring - np.array(mark.at), axis=1))[:_CORNERS]]
    if len(near) < 3 or np.linalg.matrix_rank(near - near.mean(axis=0), tol=_ASIDE_MM) < 2:  # noqa: PLR2004  no plane
        return flat
    normal = np.linalg.svd(near - near.mean(axis=0))[2][-1]
    normal = normal if normal[2] > 0 else -normal
    aft = np.cross((0.0, 1.0, 0.0), normal)
    aft = aft / np.linalg.norm(aft)
    out = np.cross(normal, aft)
    out = out if out[1] * side > 0 else -out
    return _point(aft), _point(out), _point(normal)


def _is_ahead(survey: Survey, mark: Mark) -> bool:
    """Whether it lies before the middle of what is as far out (on a fin as high up): at a leading edge."""
    others = _places(survey, mark)
    body = survey.body(mark.body)
    across = 2 if body is not None and role_of(body) == "fin" else 1
    near = others[np.abs(others[:, across] - mark.at[across]) <= _ASIDE_MM]
    told = near if np.ptp(near[:, 0]) > 0 else others
    return mark.at[0] < float(np.ptp(told[:, 0]) / 2 + told[:, 0].min())


def _places(survey: Survey, mark: Mark) -> Array:
    return np.array(
        [
            one.at
            for one in survey.marks
            if one.body == mark.body and not one.id.startswith(OWN_TARGET)
        ]
        or [mark.at]
    )


def _moved(at: Point, off: Point) -> Point:
    x, y, z = (round(a + b, 2) for a, b in zip(at, off, strict=True))
    return x, y, z


def _off(*ways: tuple[Point, float]) -> Point:
    """So far along each of these ways."""
    return _point(sum((np.array(way) * by for way, by in ways), np.zeros(3)))


def _point(at: Array) -> Point:
    x, y, z = (float(one) for one in at)
    return x, y, z
