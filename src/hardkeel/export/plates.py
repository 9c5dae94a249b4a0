"""What a cutter is given: a sheet of wood with its pieces as lines on named layers, in mm, v up, in the order of cutting."""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Final, Literal

from hardkeel.export.cutter_tags import tagged
from hardkeel.export.piece_label import place_inside
from hardkeel.export.plan_drawing import readable
from hardkeel.export.stroke_font import strokes_of, wide_of
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import FlatPiece, Mark, Ring
from hardkeel.joinery.nesting import NestedSheet
from hardkeel.messages import sheets as say

LayerName = Literal["CUT", "HOLES", "SCORE", "MARKS", "CENTRE", "TEXT"]
LAYERS: Final[tuple[LayerName, ...]] = ("CUT", "HOLES", "SCORE", "MARKS", "CENTRE", "TEXT")
_OF_ROLE: Final[dict[str, LayerName]] = {"centre": "CENTRE", "bend": "SCORE"}
_CUT: Final = ("CUT", "HOLES")
_LETTERS_MM: Final = (3.0, 2.2, 1.6, 1.1)  # of an engraved name, as large as fits
_MARK_MM: Final = 2.0
_CLEAR_MM: Final = 0.3
_IN_MM: Final = 5.0
_ASIDE_MM: Final = 2.2


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line of a drawing."""

    layer: LayerName
    points: Ring
    closed: bool = True


@dataclass(frozen=True, slots=True)
class Plate:
    """A drawing at full size with a name.

    Attributes
    ----------
    note : str
        What its file says of itself.
    tag : float
        How wide the gaps are that a cutter leaves in outlines, mm; none at 0.
    """

    name: str
    strokes: tuple[Stroke, ...]
    note: str = ""
    tag: float = 0.0

    @property
    def runs(self) -> tuple[tuple[LayerName, tuple[Stroke, ...]], ...]:
        """The strokes in the order in which a cutter takes them, by runs of one layer.

        Marks come first; of what is cut each ring after all that lies within it, so that no piece is cut loose with
        a hole still to be made in it.
        """
        marked = [stroke for stroke in self.strokes if stroke.layer not in _CUT]
        cut = _inside_first([stroke for stroke in self.strokes if stroke.layer in _CUT])
        if self.tag > 0:
            cut = [line for stroke in cut for line in _with_tags(stroke, self.tag)]
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


def _with_tags(stroke: Stroke, tag: float) -> list[Stroke]:
    """An outline with gaps; a hole's waste may fall."""
    if stroke.layer != "CUT":
        return [stroke]
    lines = tagged(stroke.points, tag)
    return [Stroke("CUT", line, closed=line == stroke.points) for line in lines]


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
        yield Stroke(_OF_ROLE.get(mark.role, "MARKS"), mark.points, mark.closed)


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


@dataclass(frozen=True, slots=True)
class CutterWay:
    """How a cutter is given its drawings.

    Attributes
    ----------
    kerf : float
        What it takes, mm: outlines grow and holes shrink by half of it; 0 leaves that to its own program.
    tag : float
        How wide the tags are that hold a piece in its sheet, mm; 0 for none.
    """

    kerf: float = 0.0
    tag: float = 0.0


def nested_plate(sheet: NestedSheet, name: str, way: CutterWay) -> Plate:
    """A sheet of wood with its pieces, for a cutter; names as lines, inside their piece where they fit."""
    strokes: list[Stroke] = []
    for placed in sheet.placed:
        piece, move = placed.piece, placed.move
        strokes += [
            replace(stroke, points=move(stroke.points))
            for stroke in _on_its_wood(piece, _strokes(piece, way.kerf))
        ]
        strokes += _engraved(piece, move, placed.turn)
    return Plate(
        name,
        tuple(strokes),
        note=say.cutter_note(way.kerf, way.tag),
        tag=way.tag + way.kerf if way.tag > 0 else 0.0,
    )


def _on_its_wood(piece: FlatPiece, strokes: Iterable[Stroke]) -> Iterable[Stroke]:
    """Lines that are drawn on a piece, cut off where its wood ends: beside it lies another's."""
    wood = piece.polygon
    for stroke in strokes:
        if stroke.layer in _CUT:
            yield stroke
            continue
        line = shapely.LineString([*stroke.points, *stroke.points[: 1 if stroke.closed else 0]])
        for part in shapely.get_parts(line.intersection(wood)):
            if part.geom_type == "LineString" and part.length > _CLEAR_MM:
                yield Stroke(
                    stroke.layer, tuple((float(u), float(v)) for u, v in part.coords), closed=False
                )


def _engraved(piece: FlatPiece, move: Callable[[Ring], Ring], turned: float) -> Iterable[Stroke]:
    """A piece's name and the words of its marks, as lines."""
    found = place_inside(piece, lambda size: (wide_of(piece.name, size), size), _LETTERS_MM)
    if found is not None:
        at, turn, size = found
        (there,) = move((at,))
        for line in strokes_of(piece.name, there, size, readable(turn + turned)):
            yield Stroke("TEXT", line, closed=False)
    wood = piece.polygon.buffer(-_CLEAR_MM)
    for mark in piece.marks:
        at = _beside_mark(mark)
        (there,) = move((at,))
        wide = wide_of(mark.text, _MARK_MM) / 2
        room = shapely.box(at[0] - wide, at[1] - wide, at[0] + wide, at[1] + wide)
        if mark.text and mark.role in ("station", "bend", "plank") and wood.contains(room):
            for line in strokes_of(mark.text, there, _MARK_MM):
                yield Stroke("TEXT", line, closed=False)


def _beside_mark(mark: Mark) -> tuple[float, float]:
    """Where a mark's word stands: a plank's behind its tick, a station's beside its line, a little way along it."""
    if mark.role == "plank":
        return _beyond(mark)
    (u, v), (p, q) = mark.points[0], mark.points[-1]
    long = max(math.hypot(p - u, q - v), 1e-9)
    along, aside = _IN_MM / long, _ASIDE_MM / long
    return u + along * (p - u) - aside * (q - v), v + along * (q - v) + aside * (p - u)
