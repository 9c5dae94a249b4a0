"""What is written on a template: inside the piece where it fits, else beside it; with arrows for grain and top."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import LETTER, LINE, SMALL_MM, TEXT_MM, PlanDrawing, readable
from hardkeel.geometry.polygons import BaseGeometry, affinity, shapely
from hardkeel.joinery.flat import FlatPiece

_PAD_MM: Final = 0.8
_BESIDE_MM: Final = 1.8
_CLEAR_MM: Final = 0.7  # of a label inside its piece from every line
_ARROW_MM: Final = 9.0
_HEAD_MM: Final = 1.2
_TRIES: Final = 9  # places along each side of a piece
_JOIN_MM: Final = 1.0
_PLAIN_MM: Final = 0.3


@dataclass(frozen=True, slots=True)
class Arrow:
    """A word with a way of the piece: the grain both ways, the top one way."""

    word: str
    way: Point2
    both: bool


@dataclass(frozen=True, slots=True)
class Label:
    """Lines of words and a row of arrows, about a place of the piece, turned by degrees."""

    lines: tuple[str, ...]
    arrows: tuple[Arrow, ...]
    at: Point2 = (0.0, 0.0)
    turn: float = 0.0
    small: bool = False

    @property
    def size(self) -> tuple[float, float]:
        """How wide and how high it is, mm."""
        letter = SMALL_MM if self.small else TEXT_MM
        rows = [len(line) * letter * LETTER for line in self.lines]
        if self.arrows:
            rows.append(sum(_arrow_wide(one) for one in self.arrows))
        tall = len(self.lines) * letter * LINE + (_arrow_tall(self) if self.arrows else 0.0)
        return max(rows) + 2 * _PAD_MM, tall + 2 * _PAD_MM

    @property
    def box(self) -> BaseGeometry:
        """What it covers."""
        wide, tall = self.size
        flat = shapely.box(-wide / 2, -tall / 2, wide / 2, tall / 2)
        turned = affinity.rotate(flat, self.turn, origin=(0.0, 0.0))
        return affinity.translate(turned, *self.at)


def _arrow_wide(arrow: Arrow) -> float:
    return len(arrow.word) * SMALL_MM * LETTER + _ARROW_MM + 3.0


def _arrow_tall(label: Label) -> float:
    """A row of arrows is as high as the ones that stand across the words."""
    upright = any(_across(one, label.turn) for one in label.arrows)
    return _ARROW_MM if upright else SMALL_MM * LINE


def _across(arrow: Arrow, turn: float) -> bool:
    way = math.degrees(math.atan2(arrow.way[1], arrow.way[0])) - turn
    return abs(math.sin(math.radians(way))) > 0.5  # noqa: PLR2004  nearer to across than to along


def labelled(piece: FlatPiece, lines: Sequence[str], arrows: Sequence[Arrow]) -> Label:
    """A label where it fits: inside, the larger type first, else beside the piece where both together are smallest."""
    shape = piece.polygon
    room = _room(piece)
    for small in (False, True):
        for turn in (0.0, 90.0):
            label = Label(tuple(lines), tuple(arrows), turn=turn, small=small)
            at = _inside(room, label.size[::-1] if turn else label.size)
            if at is not None:
                return Label(label.lines, label.arrows, at, turn, small)
    label = Label(tuple(lines), tuple(arrows), small=True)
    wide, tall = label.size
    around = [shape, *(shapely.LineString(m.line) for m in piece.marks if len(m.points) > 1)]
    left, low, right, high = shapely.union_all(around).bounds
    beneath = max(wide, right - left) * (high - low + tall)
    aside = (right - left + wide) * max(tall, high - low)
    if beneath <= aside:
        at = (left + wide / 2, low - _BESIDE_MM - tall / 2)
    else:
        at = (right + _BESIDE_MM + wide / 2, (low + high) / 2)
    return Label(label.lines, label.arrows, at, 0.0, small=True)


def _room(piece: FlatPiece) -> BaseGeometry:
    """Where on a piece there is neither an edge nor a line."""
    lines = [shapely.LineString(mark.line) for mark in piece.marks if len(mark.points) > 1]
    return piece.polygon.buffer(-_CLEAR_MM).difference(shapely.union_all(lines).buffer(_CLEAR_MM))


def place_inside(
    piece: FlatPiece, size_of: Callable[[float], tuple[float, float]], letters: Sequence[float]
) -> tuple[Point2, float, float] | None:
    """Where words fit within a piece, their turn and the height of their letters; ``None`` where they do nowhere.

    Parameters
    ----------
    size_of : callable
        How wide and high they are for a height of letters, mm.
    letters : sequence of float
        Heights to try, the most wanted first.
    """
    room = _room(piece)
    for letter in letters:
        wide, tall = size_of(letter)
        for turn, size in ((0.0, (wide, tall)), (90.0, (tall, wide))):
            at = _inside(room, size)
            if at is not None:
                return at, turn, letter
    return None


def _inside(room: BaseGeometry, size: tuple[float, float]) -> Point2 | None:
    """The place nearest to the middle where a box lies within some room."""
    if room.is_empty:
        return None
    wide, tall = size
    left, low, right, high = room.bounds
    if right - left < wide or high - low < tall:
        return None
    middle = room.centroid
    us = np.linspace(left + wide / 2, right - wide / 2, _TRIES)
    vs = np.linspace(low + tall / 2, high - tall / 2, _TRIES)
    places = [(float(u), float(v)) for u in us for v in vs]
    if left + wide / 2 <= middle.x <= right - wide / 2:
        places += [(middle.x, float(v)) for v in vs]
    places.sort(key=lambda p: math.hypot(p[0] - middle.x, p[1] - middle.y))
    for u, v in places:
        if room.contains(shapely.box(u - wide / 2, v - tall / 2, u + wide / 2, v + tall / 2)):
            return u, v
    return None


def footprint(piece: FlatPiece, label: Label) -> tuple[Point2, ...]:
    """The edge of what a piece takes on paper, its label and its lines with it."""
    shape = shapely.Polygon(piece.outline)
    lines = [
        shapely.LineString(mark.line).buffer(0.3) for mark in piece.marks if len(mark.points) > 1
    ]
    parts = [shape, label.box, *lines]
    whole = shapely.union_all(parts)
    for part in parts[1:]:
        if not part.intersects(shape):
            bridge = shapely.shortest_line(shape, part).buffer(_JOIN_MM)
            whole = shapely.union_all([whole, bridge])
    if whole.geom_type != "Polygon":
        whole = whole.convex_hull
    # a curve has hundreds of points: what is laid out need not follow each
    plain = whole.buffer(_PLAIN_MM).simplify(_PLAIN_MM)
    return tuple((float(u), float(v)) for u, v in plain.exterior.coords[:-1])


def write_label(drawing: PlanDrawing, label: Label, at: Point2, turned: float) -> None:
    """Write it with its middle at a place of the page, on a piece that lies turned by degrees."""
    turn = readable(label.turn + turned)
    letter = SMALL_MM if label.small else TEXT_MM
    _, tall = label.size
    along = (math.cos(math.radians(turn)), math.sin(math.radians(turn)))
    up = (-along[1], along[0])

    def spot(right: float, over: float) -> Point2:
        return at[0] + right * along[0] + over * up[0], at[1] + right * along[1] + over * up[1]

    words = len(label.lines) * letter * LINE
    over = tall / 2 - _PAD_MM - words
    drawing.write(spot(0.0, over + words / 2), "\n".join(label.lines), size=letter, turn=turn)
    if label.arrows:
        over -= _arrow_tall(label) / 2
        right = -sum(_arrow_wide(one) for one in label.arrows) / 2
        for arrow in label.arrows:
            long = len(arrow.word) * SMALL_MM * LETTER
            drawing.write(spot(right + long / 2, over), arrow.word, size=SMALL_MM, turn=turn)
            middle = spot(right + long + 1.0 + _ARROW_MM / 2, over)
            for line in _arrow_lines(arrow, middle, turned):
                drawing.line("TEXT", line)
            right += _arrow_wide(arrow)


def _arrow_lines(arrow: Arrow, middle: Point2, turned: float) -> Iterator[list[Point2]]:
    way = math.atan2(arrow.way[1], arrow.way[0]) + math.radians(turned)
    reach = _ARROW_MM / 2 - 0.5
    tip = (middle[0] + reach * math.cos(way), middle[1] + reach * math.sin(way))
    tail = (middle[0] - reach * math.cos(way), middle[1] - reach * math.sin(way))
    yield [tail, tip]
    for end, sign in ((tip, 1.0), (tail, -1.0))[: 2 if arrow.both else 1]:
        for lean in (2.6, -2.6):
            yield [
                end,
                (
                    end[0] + sign * _HEAD_MM * math.cos(way + lean),
                    end[1] + sign * _HEAD_MM * math.sin(way + lean),
                ),
            ]
