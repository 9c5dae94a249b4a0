"""All sheets of a build that are printed, page by page, and what each page shows in short."""

import hashlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from hardkeel.airframe.framing import build_pieces
from hardkeel.airframe.tails import tail_pieces
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.building_plan import drawings_of
from hardkeel.export.framing import paper_pieces
from hardkeel.export.paper import LaidPage, Page, Step, pages_of
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.export.plan_strips import strips_plans
from hardkeel.export.template_pages import template_pages
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import prints as say
from hardkeel.project.model import Build

_GRAIN_MM: Final = 0.05  # what of a change a print shows
_SHORT: Final = 16


@dataclass(frozen=True, slots=True)
class PrintSheet:
    """A sheet of the set.

    Attributes
    ----------
    key : str
        ``side``, ``board``, ``pieces``, a surface's id.
    drawn : tuple of PlanDrawing
        As they are drawn, before they are turned for their pages.
    marks : tuple of str
        What each page shows, in short: alike where the print is.
    figures : mapping of str to float
        What it shows by name, mm; an outline as its length all round.
    """

    key: str
    drawn: tuple[PlanDrawing, ...]
    pages: tuple[LaidPage, ...]
    marks: tuple[str, ...]
    figures: dict[str, float]


def print_sheets(
    build: Build,
    unit: LengthUnit,
    page: Page,
    step: Step | None = None,
    left_out: Callable[[BadInput], object] = lambda _why: None,
) -> tuple[PrintSheet, ...]:
    """All sheets: drawings to build over in the order of work, then pieces to cut out.

    Parameters
    ----------
    step : callable, optional
        Told how far it is; may raise `GivenUp`.
    left_out : callable
        Told why something can't be drawn yet.
    """
    by_key: dict[str, list[PlanDrawing]] = {}
    for drawing in drawings_of(build, unit, page.room, left_out):
        by_key.setdefault(_whole_name(drawing.name, build), []).append(drawing)
    found = []
    count = len(by_key) + 2
    for number, (key, drawings) in enumerate(by_key.items(), start=1):
        figures = {name: v for one in drawings for name, v in one.figures.items()}
        found.append(_sheet(key, drawings, figures, page))
        if step is not None:
            step(number, count)
    trim = build.fuselage.framed.trim if build.fuselage is not None else 0.0
    pieces_of_frame = fuselage_pieces(build, left_out)
    strips = strips_plans(pieces_of_frame, unit, page.room)
    if strips:
        found.append(_sheet("strips", strips, {}, page))
    for key, pieces in (
        ("pieces", pieces_of_frame),
        ("tail-pieces", tail_pieces_of(build, left_out)),
    ):
        plates = template_pages(pieces, page.room, unit, trim)
        if plates:
            rings = {say.outline_of(one.name): one.polygon.length for one in pieces}
            found.append(_sheet(key, plates, rings, page))
    return tuple(found)


def _whole_name(name: str, build: Build) -> str:
    """A list's second page belongs to its first; a surface may well be called ``fin-2``."""
    if any(surface.id == name for surface in build.tail):
        return name
    return name.rstrip("0123456789").rstrip("-")


def fuselage_pieces(
    build: Build, left_out: Callable[[BadInput], object] = lambda _why: None
) -> tuple[FlatPiece, ...]:
    """What of the fuselage is cut out of paper; nothing where it can't be framed yet."""
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2 or not fuselage.sections:  # noqa: PLR2004  no loft
        return ()
    try:
        return (*build_pieces(build), *paper_pieces(fuselage))
    except BadInput as why:
        left_out(why)
        return ()


def tail_pieces_of(
    build: Build, left_out: Callable[[BadInput], object] = lambda _why: None
) -> tuple[FlatPiece, ...]:
    """What of the tail is; nothing where a figure is missing."""
    try:
        return tail_pieces(build)
    except BadInput as why:
        left_out(why)
        return ()


def _sheet(
    key: str, drawn: Sequence[PlanDrawing], figures: dict[str, float], page: Page
) -> PrintSheet:
    pages = pages_of(drawn, page)
    pages = tuple(
        replace(one, number=number, of=len(pages)) for number, one in enumerate(pages, start=1)
    )
    marks = tuple(page_mark(one, page) for one in pages)
    return PrintSheet(key, tuple(drawn), pages, marks, figures)


def page_mark(laid: LaidPage, page: Page) -> str:
    """What a page shows, in short; alike for two pages whose prints nobody could tell apart.

    Where words stand does not count, nor the lines that lead to them: only that they are there.
    """
    tile, room = laid.tile, page.room
    told = [f"{page.paper} {page.correction[0]:.5f} {page.correction[1]:.5f}"]
    drawn = laid.drawn
    lines = [(one.layer, one.points, one.closed) for one in drawn.lines if one.layer != "TEXT"]
    words = [(one.at, one.text) for one in drawn.words]
    for layer, points, closed in lines:
        whole = shapely.LineString([*points, *points[: 1 if closed else 0]])
        seen = shapely.clip_by_rect(whole, tile.u, tile.v, tile.u + room[0], tile.v + room[1])
        if not seen.is_empty:
            at = shapely.get_coordinates(seen) - (tile.u, tile.v)
            told.append(f"{layer} {(at / _GRAIN_MM).round().astype(int).tolist()}")
    told += [
        text
        for (u, v), text in words
        if tile.u <= u <= tile.u + room[0] and tile.v <= v <= tile.v + room[1]
    ]
    return hashlib.sha256("\n".join(sorted(told)).encode("utf-8")).hexdigest()[:_SHORT]
