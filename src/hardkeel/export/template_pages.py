"""Templates to cut out: what is alike once with its count, laid on as few pages as they fit, no word over a line."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from hardkeel.base.units import LengthUnit
from hardkeel.base.values import Point2
from hardkeel.export.piece_label import Arrow, Label, footprint, labelled, write_label
from hardkeel.export.plan_drawing import SMALL_MM, LayerName, PlanDrawing, readable
from hardkeel.joinery.alike import Alike, gathered
from hardkeel.joinery.flat import FlatPiece, Mark, Ring
from hardkeel.joinery.nesting import Placed, nested
from hardkeel.messages import sheets as say

_GAP_MM: Final = 5.0
_COARSE: Final = 3.0  # by how much smaller pieces are laid than they are
_EDGE_MM: Final = 2.0
_OVERLAP_MM: Final = 10.0
_MOST_IN_A_ROW: Final = 12
_ROLL_MM: Final = 900.0  # of a roll's length filled at a time: a longer one is slow to fill
_CROSS_MM: Final = 1.5
_ROUND: Final = 0.01  # how little a round hole's radius may vary
_PLANK_MM: Final = 1.8

_Laid = tuple[Alike, Label]
Move = Callable[[Ring], Ring]


def template_pages(
    pieces: Sequence[FlatPiece], room: tuple[float, float], unit: LengthUnit, trim: float = 0.0
) -> tuple[PlanDrawing, ...]:
    """Pages, and drawings over several pages for what is longer than one.

    Parameters
    ----------
    room : (float, float)
        What a page has to draw on, mm.
    trim : float
        How far outside each edge a line is drawn to cut along first, mm; none at 0.
    """
    if trim > 0:
        pieces = [_with_trim(piece, trim) for piece in pieces]
    wide, tall = room[0], min(room[1], max(_ROLL_MM, room[0]))
    laid = [(one, _label(one, unit)) for one in gathered(pieces)]
    feet = {
        number: FlatPiece(one.piece.name, one.piece.kind, str(number), footprint(one.piece, label))
        for number, (one, label) in enumerate(laid)
    }
    rows = {number: _row(foot.size, (wide, tall)) for number, foot in feet.items()}
    found = [_by_itself(laid[number]) for number, row in rows.items() if row is None]
    left = {number: row for number, row in rows.items() if row is not None}
    for row in sorted(set(left.values()), reverse=True):
        mine = {number for number, one in left.items() if one == row}
        if not mine:
            continue
        # what is smaller fills what the long ones leave
        smaller = {n for n, one in left.items() if one[0] < row[0]}
        size = _sheet_size(row, (wide, tall))
        inside = (size[0] - 2 * _EDGE_MM, size[1] - 2 * _EDGE_MM)
        for placed in _nested([feet[n] for n in sorted(mine | smaller)], inside):
            on = {int(one.piece.part) for one in placed}
            if on & mine:
                found.append(_page(placed, laid))
                for number in on:
                    left.pop(number)
    return tuple(
        _named(drawing, say.page_of_pieces(number)) for number, drawing in enumerate(found, start=1)
    )


def _with_trim(piece: FlatPiece, trim: float) -> FlatPiece:
    """With a line round it, so much outside its edge."""
    round_it = piece.polygon.buffer(trim, join_style="mitre").exterior
    ring = tuple((float(u), float(v)) for u, v in round_it.coords[:-1])
    return replace(piece, marks=(*piece.marks, Mark("drawn", ring, closed=True)))


def _nested(feet: Sequence[FlatPiece], room: tuple[float, float]) -> Iterator[tuple[Placed, ...]]:
    """Sheets with what lies on them; looked for at a smaller scale, for paper wants no cabinet maker's fit."""
    by_part = {foot.part: foot for foot in feet}
    small = [
        replace(foot, outline=tuple((u / _COARSE, v / _COARSE) for u, v in foot.outline))
        for foot in feet
    ]
    size = (room[0] / _COARSE, room[1] / _COARSE)
    for sheet in nested(small, size, _GAP_MM / _COARSE):
        yield tuple(
            Placed(by_part[one.piece.part], one.turn, _COARSE * one.u, _COARSE * one.v)
            for one in sheet.placed
        )


def _row(size: tuple[float, float], room: tuple[float, float]) -> tuple[int, int] | None:
    """How many pages in a row a piece takes, and along which side of them; ``None`` where one row is too narrow."""
    long, broad = max(size), min(size)
    ways = []
    for side in (0, 1):
        along, across = room[side], room[1 - side]
        if broad <= across - 2 * _EDGE_MM:
            over = long + 2 * _EDGE_MM - _OVERLAP_MM
            ways.append((max(1, math.ceil(over / (along - _OVERLAP_MM) - 1e-9)), side))
    if not ways or min(ways)[0] > _MOST_IN_A_ROW:
        return None
    count, side = min(ways)
    return (count, side) if count > 1 else (1, 0)


def _sheet_size(row: tuple[int, int], room: tuple[float, float]) -> tuple[float, float]:
    count, side = row
    along, across = room[side], room[1 - side]
    return count * along - (count - 1) * _OVERLAP_MM, across


def _named(drawing: PlanDrawing, name: str) -> PlanDrawing:
    return PlanDrawing(name, drawing.lines, drawing.words, drawing.figures)


def _label(one: Alike, unit: LengthUnit) -> Label:
    piece = one.piece
    lines = say.label_lines(one.names, piece, (one.drawn, one.turned_over), unit)
    arrows = []
    if piece.grain != "any":
        arrows.append(Arrow(say.GRAIN, (1.0, 0.0) if piece.grain == "u" else (0.0, 1.0), both=True))
    if piece.kind == "former":
        arrows.append(Arrow(say.TOP, (0.0, 1.0), both=False))
    return labelled(piece, lines, arrows)


def _by_itself(laid: _Laid) -> PlanDrawing:
    drawing = PlanDrawing("")
    one, label = laid
    _draw(drawing, one.piece, _as_it_is)
    write_label(drawing, label, label.at, 0.0)
    _name_marks(drawing, one.piece, _as_it_is)
    return drawing


def _as_it_is(ring: Ring) -> Ring:
    return ring


def _page(sheet: Sequence[Placed], laid: Sequence[_Laid]) -> PlanDrawing:
    drawing = PlanDrawing("")
    for placed in sheet:
        one, label = laid[int(placed.piece.part)]
        move = placed.move
        _draw(drawing, one.piece, move)
        write_label(drawing, label, move((label.at,))[0], placed.turn)
    for placed in sheet:  # once all of it lies, so that they find what is free
        _name_marks(drawing, laid[int(placed.piece.part)][0].piece, placed.move)
    return drawing


def _draw(drawing: PlanDrawing, piece: FlatPiece, moved: Move) -> None:
    """A piece where it lies: its edge, its holes with their middles, its marks with their words."""
    drawing.line("CUT", moved(piece.outline), closed=True, open_=True)
    for hole in piece.holes:
        drawing.line("HOLES", moved(hole), closed=True, open_=True)
    for middle in _middles(piece.holes):
        for reach in ((_CROSS_MM, 0.0), (0.0, _CROSS_MM)):
            ends = (
                (middle[0] - reach[0], middle[1] - reach[1]),
                (middle[0] + reach[0], middle[1] + reach[1]),
            )
            drawing.line("MARKS", moved(ends))
    for mark in piece.marks:
        layer: LayerName = "CENTRE" if mark.role == "centre" else "MARKS"
        drawing.line(layer, moved(mark.points), closed=mark.closed, open_=True)


def _name_marks(drawing: PlanDrawing, piece: FlatPiece, moved: Move) -> None:
    for mark in piece.marks:
        _name_mark(drawing, mark, moved)


def _name_mark(drawing: PlanDrawing, mark: Mark, moved: Move) -> None:
    """A plank's number behind its tick; other words along their line, where they lie over nothing."""
    if mark.text and mark.role == "plank":
        (u, v), (p, q) = mark.points[0], mark.points[-1]
        beyond = (p + (p - u) / 2, q + (q - v) / 2)
        drawing.write(moved((beyond,))[0], mark.text, size=_PLANK_MM)
    elif mark.text and mark.role != "centre" and len(mark.points) > 1:
        ends = moved((mark.points[0], mark.points[-1]))
        way = math.degrees(math.atan2(ends[1][1] - ends[0][1], ends[1][0] - ends[0][0]))
        across = (-math.sin(math.radians(way)), math.cos(math.radians(way)))
        off = 0.9 * SMALL_MM
        places = [
            (
                (
                    ends[0][0] + share * (ends[1][0] - ends[0][0]) + side * off * across[0],
                    ends[0][1] + share * (ends[1][1] - ends[0][1]) + side * off * across[1],
                ),
                readable(way),
            )
            for share in (0.15, 0.85, 0.3, 0.7, 0.5)
            for side in (1, -1)
        ]
        drawing.label(places, mark.text.replace("_", " "), SMALL_MM)


def _middles(holes: Sequence[Ring]) -> Iterator[Point2]:
    """Of round holes, where the drill is set."""
    for hole in holes:
        points = np.array(hole)
        middle = points.mean(axis=0)
        away = np.hypot(*(points - middle).T)
        if len(points) > 8 and away.max() - away.min() < _ROUND * away.mean():  # noqa: PLR2004  more than a box
            yield float(middle[0]), float(middle[1])
