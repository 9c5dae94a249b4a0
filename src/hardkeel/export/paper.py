"""Plates on paper at true size: PDF pages, tiled where a page is too small, with bars that tell the scale."""

import io
import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.export.paper_sizes import PAPERS, ROLLS
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.export.plan_pages import draw_plan
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.messages import building_plan as plan_say
from hardkeel.messages import sheets as say

Step = Callable[[int, int], None]
BAR_MM: Final = 100.0
_BAR_THICK_MM: Final = 0.8
_MARGIN_MM: Final = 10.0
_HEAD_MM: Final = 24.0
_FOOT_MM: Final = 10.0
OVERLAP_MM: Final = 10.0
_GRID_MM: Final = 10.0
_EDGE_MM: Final = 7.0  # printers leave the outermost five white
_CROSS_MM: Final = 4.0


@dataclass(frozen=True, slots=True)
class Page:
    """A page to draw on.

    Attributes
    ----------
    correction : (float, float)
        How many millimetres this printer makes of one, across and along the page; the drawing is
        divided by it.
    """

    paper: str = "A4"
    correction: tuple[float, float] = (1.0, 1.0)

    @property
    def size(self) -> tuple[float, float]:
        """Of the paper, mm; of a roll the longest page that is cut off it."""
        return (PAPERS | ROLLS)[self.paper]

    @property
    def is_roll(self) -> bool:
        """Whether a page is as long as its drawing wants."""
        return self.paper in ROLLS

    @property
    def room(self) -> tuple[float, float]:
        """What there is to draw on, in the drawing's millimetres."""
        wide, tall = self.size
        return (
            (wide - 2 * _MARGIN_MM) * self.correction[0],
            (tall - 2 * _MARGIN_MM - _HEAD_MM - _FOOT_MM) * self.correction[1],
        )

    def tall_for(self, drawn: "PlanDrawing") -> float:
        """How tall a page is, mm: of a roll as tall as its drawing wants."""
        tall = self.size[1]
        if not self.is_roll:
            return tall
        wants = drawn.size[1] / self.correction[1] + 2 * _MARGIN_MM + _HEAD_MM + _FOOT_MM
        return min(tall, max(wants + _GRID_MM, BAR_MM + _HEAD_MM + 2 * _FOOT_MM + 2 * _MARGIN_MM))


@dataclass(frozen=True, slots=True)
class Tile:
    """A part of a plate on a page of its own: its number along and up, and the corner where it begins, mm."""

    column: int
    row: int
    u: float
    v: float


def tiles_of(plate: PlanDrawing, room: tuple[float, float]) -> tuple[list[Tile], int, int]:
    """Tiles that cover a plate, neighbours sharing `OVERLAP_MM`; how many along, and how many up.

    Where that costs no page they begin on a round figure: a drawing that has changed at one end keeps its other pages.
    """
    left, low, right, high = plate.bounds
    steps = room[0] - OVERLAP_MM, room[1] - OVERLAP_MM

    def counted(size: float, step: float) -> int:
        return max(1, math.ceil((size - OVERLAP_MM) / step - 1e-9))

    columns, rows = counted(right - left, steps[0]), counted(high - low, steps[1])
    round_left, round_low = (math.floor(one / _GRID_MM) * _GRID_MM for one in (left, low))
    if counted(right - round_left, steps[0]) == columns:
        left = round_left
    if rows == 1:  # at the head of the page, where one begins to read
        low = min(low, math.ceil(high / _GRID_MM) * _GRID_MM - room[1])
    elif counted(high - round_low, steps[1]) == rows:
        low = round_low
    found = [
        Tile(c, r, left + c * steps[0], low + r * steps[1])
        for r in range(rows)
        for c in range(columns)
    ]
    return found, columns, rows


@dataclass(frozen=True, slots=True)
class LaidPage:
    """A page of a drawing.

    Attributes
    ----------
    drawn : PlanDrawing
        Turned as it lies on its pages.
    number, of : int
        Of all pages that are printed together, from 1 on, left to right and up, and how many they are.
    used : tuple of (column, row)
        The tiles that something is drawn on: the others are no pages.
    """

    drawn: PlanDrawing
    tile: Tile
    count: tuple[int, int]
    number: int
    of: int
    used: tuple[tuple[int, int], ...]


def pages_of(plates: Sequence[PlanDrawing], page: Page) -> tuple[LaidPage, ...]:
    """The pages of drawings, each turned so that it takes the fewest; a tile with nothing on it is none."""
    found: list[LaidPage] = []
    for plate in plates:
        ways = [_used(one, page.room) for one in (plate, plate.upright())]
        turned, tiles, count = min(
            ways, key=lambda way: (len(way[1]), way[0].size[1] if page.is_roll else 0.0)
        )
        used = tuple((tile.column, tile.row) for tile in tiles)
        found += [
            LaidPage(turned, tile, count, number, len(tiles), used)
            for number, tile in enumerate(tiles, start=1)
        ]
    return tuple(found)


def _used(
    plate: PlanDrawing, room: tuple[float, float]
) -> tuple[PlanDrawing, list[Tile], tuple[int, int]]:
    """A plate with the tiles that something is drawn on beyond what their neighbours show, too."""
    tiles, columns, rows = tiles_of(plate, room)
    if len(tiles) == 1:
        return plate, tiles, (columns, rows)
    things = shapely.STRtree(things_of(plate))
    kept = []
    for tile in tiles:
        half = OVERLAP_MM / 2
        box = shapely.box(
            tile.u + half * (tile.column > 0),
            tile.v + half * (tile.row > 0),
            tile.u + room[0] - half * (tile.column < columns - 1),
            tile.v + room[1] - half * (tile.row < rows - 1),
        )
        if len(things.query(box, predicate="intersects")):
            kept.append(tile)
    return plate, kept, (columns, rows)


def things_of(plate: PlanDrawing) -> list[BaseGeometry]:
    """Everything that is drawn, as lines and boxes of words."""
    shapes = [
        shapely.LineString([*one.points, *one.points[: 1 if one.closed else 0]])
        for one in plate.lines
    ]
    return [*shapes, *(words.box for words in plate.words)]


def templates_pdf(
    plates: Sequence[PlanDrawing], title: str, page: Page, step: Step | None = None
) -> bytes:
    """All plates, a page or more each; as `pages_pdf`."""
    return pages_pdf(pages_of(plates, page), title, page, step)


def pages_pdf(pages: Sequence[LaidPage], title: str, page: Page, step: Step | None = None) -> bytes:
    """Pages for the printer.

    Parameters
    ----------
    step : callable, optional
        Told how many pages are drawn and how many there are; may raise `GivenUp`.
    """
    register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1, pageCompression=1)
    canvas.setTitle(title)
    canvas.setAuthor("Hard Keel")
    for number, laid in enumerate(pages, start=1):
        _draw_page(canvas, laid, title, page)
        canvas.showPage()
        if step is not None:
            step(number, len(pages))
    canvas.save()
    return out.getvalue()


def _draw_page(canvas: Canvas, laid: LaidPage, title: str, page: Page) -> None:
    plate, tile, count = laid.drawn, laid.tile, laid.count
    wide, tall = page.size[0], page.tall_for(plate)
    fx, fy = page.correction
    canvas.setPageSize((wide * mm, tall * mm))
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    room = page.room
    x0, y0 = _MARGIN_MM, _MARGIN_MM + _FOOT_MM

    def at(u: float, v: float) -> tuple[float, float]:
        return ((x0 + (u - tile.u) / fx) * mm, (y0 + (v - tile.v) / fy) * mm)

    canvas.saveState()
    clip = canvas.beginPath()
    clip.rect(x0 * mm, y0 * mm, room[0] / fx * mm, room[1] / fy * mm)
    canvas.clipPath(clip, stroke=0, fill=0)
    draw_plan(canvas, plate, at, (tile.u, tile.v, tile.u + room[0], tile.v + room[1]))
    canvas.restoreState()
    if count != (1, 1):
        _draw_crosses(canvas, tile, count, room, at)
    _draw_head(canvas, laid, title, page)


def crosses_of(
    tile: Tile, count: tuple[int, int], room: tuple[float, float]
) -> Iterator[tuple[float, float]]:
    """Where a tile's registration crosses lie in the plate, mm: in the middle of each overlap, near its ends.

    Neighbours have the same ones, so that they can be laid over each other.
    """
    columns, rows = count
    half = OVERLAP_MM / 2
    along = (tile.v + OVERLAP_MM * 1.5, tile.v + room[1] - OVERLAP_MM * 1.5)
    for has, u in (
        (tile.column > 0, tile.u + half),
        (tile.column < columns - 1, tile.u + room[0] - half),
    ):
        if has:
            yield from ((u, v) for v in along)
    across = (tile.u + OVERLAP_MM * 1.5, tile.u + room[0] - OVERLAP_MM * 1.5)
    for has, v in ((tile.row > 0, tile.v + half), (tile.row < rows - 1, tile.v + room[1] - half)):
        if has:
            yield from ((u, v) for u in across)


def _draw_crosses(
    canvas: Canvas,
    tile: Tile,
    count: tuple[int, int],
    room: tuple[float, float],
    at: Callable[[float, float], tuple[float, float]],
) -> None:
    canvas.setLineWidth(0.3)
    for u, v in crosses_of(tile, count, room):
        x, y = at(u, v)
        reach = _CROSS_MM * mm
        canvas.line(x - reach, y, x + reach, y)
        canvas.line(x, y - reach, x, y + reach)
        canvas.circle(x, y, reach / 2, stroke=1, fill=0)


def _draw_head(canvas: Canvas, laid: LaidPage, title: str, page: Page) -> None:
    plate, count = laid.drawn, laid.count
    wide, tall = page.size[0], page.tall_for(plate)
    top = (tall - _MARGIN_MM) * mm
    canvas.setFont(BOLD, 14)
    name = plan_say.sheet_name(plate.name) if _is_plan(plate) else plate.name
    canvas.drawString(_MARGIN_MM * mm, top - 12, name)
    canvas.setFont(REGULAR, 8)
    told = [title, say.FULL_SIZE if _is_plan(plate) else say.SOLID_CUTS]
    if count != (1, 1):
        told[1] = say.tile_words(laid.number, laid.of)
    for i, text in enumerate(told):
        canvas.drawString(_MARGIN_MM * mm, top - 24 - 10 * i, text)
    if page.correction != (1.0, 1.0):
        canvas.drawString(_MARGIN_MM * mm, top - 44, say.corrected(*page.correction))
    if count != (1, 1):
        _draw_map(canvas, laid, ((wide - _MARGIN_MM) * mm, top))
    _draw_bars(canvas, page)


def _is_plan(plate: PlanDrawing) -> bool:
    """Whether something is built over it, rather than cut out of it."""
    return not any(one.layer == "CUT" for one in plate.lines)


def _draw_map(canvas: Canvas, laid: LaidPage, corner: tuple[float, float]) -> None:
    """All pages small, as they are laid together, this one filled."""
    columns, rows = laid.count
    cell = min(14.0 * mm / columns, 20.0 * mm / max(rows, 1) * 0.7, 6 * mm)
    x0, y0 = corner[0] - columns * cell, corner[1] - rows * cell
    canvas.setLineWidth(0.4)
    for column, row in laid.used:
        here = (column, row) == (laid.tile.column, laid.tile.row)
        canvas.rect(x0 + column * cell, y0 + row * cell, cell, cell, stroke=1, fill=int(here))


def _draw_bars(canvas: Canvas, page: Page) -> None:
    """A bar across and one along the page: on the print each measures 100 mm from end to end.

    They are filled, so that no line's width stands over their ends.
    """
    wide, _ = page.size
    fx, fy = page.correction
    x, y = _MARGIN_MM * mm, _MARGIN_MM * mm
    canvas.rect(x, y, BAR_MM / fx * mm, _BAR_THICK_MM * mm, stroke=0, fill=1)
    canvas.setFont(REGULAR, 7)
    canvas.drawString(x + (BAR_MM / fx + 3) * mm, y, say.MEASURES_100)
    x = (wide - _EDGE_MM) * mm
    low = (_MARGIN_MM + _FOOT_MM) * mm
    canvas.rect(x, low, _BAR_THICK_MM * mm, BAR_MM / fy * mm, stroke=0, fill=1)
