"""The neutral drawing that every writer takes: closed and open lines on named layers, words, in mm, v up."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import groupby
from typing import Final, Literal

from hardkeel.base.units import LengthUnit
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import FlatPiece, Mark, Ring
from hardkeel.joinery.nesting import NestedSheet, Placed
from hardkeel.messages import sheets as say

LayerName = Literal["CUT", "HOLES", "MARKS", "CENTRE"]
LAYERS: Final[tuple[LayerName, ...]] = ("CUT", "HOLES", "MARKS", "CENTRE")
_CUT: Final = ("CUT", "HOLES")
TEXT_LAYER: Final = "WORDS"
_TEXT_MM: Final = 3.0
_PLANK_MM: Final = 1.8  # a number between two ticks 3 mm apart


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line of a drawing."""

    layer: LayerName
    points: Ring
    closed: bool = True


@dataclass(frozen=True, slots=True)
class Word:
    """A word in a drawing, its middle at a place; `size` in mm."""

    at: tuple[float, float]
    text: str
    size: float = _TEXT_MM


@dataclass(frozen=True, slots=True)
class Plate:
    """A drawing at full size with a name."""

    name: str
    strokes: tuple[Stroke, ...]
    words: tuple[Word, ...] = ()

    @property
    def runs(self) -> tuple[tuple[LayerName, tuple[Stroke, ...]], ...]:
        """The strokes in the order in which a cutter takes them, by runs of one layer.

        Marks come first; of what is cut each ring after all that lies within it, so that no piece is cut loose with
        a hole still to be made in it.
        """
        marked = [stroke for stroke in self.strokes if stroke.layer not in _CUT]
        cut = _inside_first([stroke for stroke in self.strokes if stroke.layer in _CUT])
        ordered = [*sorted(marked, key=lambda stroke: stroke.layer), *cut]
        return tuple(
            (layer, tuple(strokes)) for layer, strokes in groupby(ordered, key=lambda s: s.layer)
        )

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Least u and v, greatest u and v, mm."""
        us = [u for stroke in self.strokes for u, _ in stroke.points]
        vs = [v for stroke in self.strokes for _, v in stroke.points]
        return min(us), min(vs), max(us), max(vs)

    @property
    def size(self) -> tuple[float, float]:
        """Along u and along v, mm."""
        left, low, right, high = self.bounds
        return right - left, high - low


def _inside_first(strokes: list[Stroke]) -> list[Stroke]:
    """Closed rings, each behind all that lie within it, a piece with all of its own before the next; else as they came."""
    shapes = [shapely.Polygon(stroke.points) for stroke in strokes]
    tree = shapely.STRtree([shapely.Point(stroke.points[0]) for stroke in strokes])
    outermost = list(range(len(strokes)))
    for number in sorted(range(len(strokes)), key=lambda i: -shapes[i].area):
        if outermost[number] == number:  # in no larger one
            for i in tree.query(shapes[number], predicate="contains").tolist():
                if shapes[i].area < shapes[number].area:
                    outermost[i] = number
    order = sorted(range(len(strokes)), key=lambda i: (outermost[i], shapes[i].area))
    return [strokes[i] for i in order]


def plate_of(piece: FlatPiece, unit: LengthUnit, *, kerf: float = 0.0) -> Plate:
    """A piece with its lines, its name and its wood.

    Parameters
    ----------
    kerf : float
        What a cutter takes, mm: outlines grow and holes shrink by half of it.
    """
    left, low, right, high = piece.bounds
    words = [Word(((left + right) / 2, (low + high) / 2), say.piece_words(piece, unit))]
    words += _mark_words(piece)
    return Plate(piece.name.replace("_", " "), tuple(_strokes(piece, kerf)), tuple(words))


def _mark_words(piece: FlatPiece) -> Iterable[Word]:
    """Names of stations and numbers of planks, in the piece's own axes."""
    for mark in piece.marks:
        if mark.text and mark.role == "station":
            yield Word(mark.points[0], mark.text, _TEXT_MM * 0.8)
        elif mark.text and mark.role == "plank":
            yield Word(_beyond(mark), mark.text, _PLANK_MM)


def _beyond(mark: Mark) -> tuple[float, float]:
    """Where a tick's number stands: half its length behind its inner end."""
    (u, v), (p, q) = mark.points[0], mark.points[-1]
    return p + (p - u) / 2, q + (q - v) / 2


def _strokes(piece: FlatPiece, kerf: float) -> Iterable[Stroke]:
    outline, holes = grown(piece, kerf)
    yield Stroke("CUT", outline)
    for hole in holes:
        yield Stroke("HOLES", hole)
    for mark in piece.marks:
        layer: LayerName = "CENTRE" if mark.role == "centre" else "MARKS"
        yield Stroke(layer, mark.points, mark.closed)


def grown(piece: FlatPiece, kerf: float) -> tuple[Ring, tuple[Ring, ...]]:
    """Outline and holes for a cutter that takes `kerf`, so that what is left has the piece's size."""
    if kerf <= 0:
        return piece.outline, piece.holes
    wider = piece.polygon.buffer(kerf / 2, join_style="mitre")
    parts = [one for one in shapely.get_parts(wider) if one.geom_type == "Polygon"]
    kept = max(parts, key=lambda one: one.area)
    return _ring(kept.exterior.coords), tuple(_ring(hole.coords) for hole in kept.interiors)


def _ring(coords: object) -> Ring:
    points = [(float(u), float(v)) for u, v, *_ in coords]  # type: ignore[attr-defined]
    return tuple(points[:-1])


def nested_plate(sheet: NestedSheet, name: str, kerf: float) -> Plate:
    """A sheet of wood with its pieces, for a cutter."""
    strokes: list[Stroke] = []
    words: list[Word] = []
    for placed in sheet.placed:
        strokes += _laid(placed, placed.piece, kerf)
        left, low, right, high = placed.polygon.bounds
        words.append(Word(((left + right) / 2, (low + high) / 2), placed.piece.name))
        words += _placed_words(placed, placed.piece)
    return Plate(name, tuple(strokes), tuple(words))


def _placed_words(placed: Placed, piece: FlatPiece) -> Iterable[Word]:
    for word in _mark_words(piece):
        (at,) = placed.moved((word.at,))
        yield Word(at, word.text, word.size)


def _laid(placed: Placed, piece: FlatPiece, kerf: float) -> Iterable[Stroke]:
    for stroke in _strokes(piece, kerf):
        yield Stroke(stroke.layer, placed.moved(stroke.points), stroke.closed)
