"""Outlines of formers from a DXF drawing."""

import math
import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.storage.dxf import Lettering, drawn_in

_TOUCH_MM: Final = 0.05  # ends nearer than this are joined
_SLACK_MM: Final = 0.2  # ends up to here are joined too, and told: drawn by eye
_CELL_MM: Final = 2.0  # more than the slack
_LEAST_AREA_MM2: Final = 25.0
_MOST_PIECES: Final = 20_000
_SHEET_MM: Final = 205.0  # the long side of the smallest paper that plans are drawn on
_SHEET_MARGIN: Final = 1.12  # a sheet's border is larger than what is drawn on it by at least this
_NOT_CALLED: Final = 3
_BETWEEN_WORDS: Final = re.compile(r"[\s,;:()]+")

Ring = tuple[Point2, ...]


@dataclass(frozen=True, slots=True)
class Outline:
    """A closed line of a drawing, mm.

    Attributes
    ----------
    name : str
        Its layer.
    gap : float
        The widest gap that had to be closed, mm; 0 where all its ends met.
    texts : tuple of str
        What is written inside it.
    block : str
        The block that it came in; empty where in none.
    border : bool
        Whether it is the border of the sheet.
    """

    name: str
    ring: Ring
    area: float
    gap: float = 0.0
    texts: tuple[str, ...] = ()
    block: str = ""
    border: bool = False


def read_outlines(
    path: Path, step: Callable[[int, int], object] = lambda _done, _total: None
) -> tuple[Outline, ...]:
    """Closed lines of what is to be seen in a drawing, the largest first; a sheet's border comes last.

    Polylines, circles, ellipses, splines, chains of lines and arcs that close, and all of these in
    blocks; what lies on a layer that is off or frozen is left out, and a line drawn twice counts once.

    Parameters
    ----------
    step : callable
        Told how many lines have been read of about how many; raises where the work is to be left off.

    Raises
    ------
    BadInput
        When the file is no DXF drawing or holds no closed line.
    """
    closed: list[Outline] = []
    loose: dict[str, list[list[Point2]]] = {}
    letterings: list[Lettering] = []
    blocks: dict[tuple[int, int], str] = {}
    for drawn in drawn_in(path, step):
        if isinstance(drawn, Lettering):
            letterings.append(drawn)
            continue
        layer, points = drawn.layer, drawn.points
        if drawn.block:
            blocks |= {_cell(point): drawn.block for point in (points[0], points[-1])}
        if math.dist(points[0], points[-1]) <= _TOUCH_MM and len(points) > 3:  # noqa: PLR2004
            closed.append(_outline(layer, points[:-1], 0.0))
        else:
            loose.setdefault(layer, []).append(points)
    if sum(map(len, loose.values())) > _MOST_PIECES:
        raise BadInput(path.name, f"holds more than {_MOST_PIECES} pieces of line")
    for layer, pieces in loose.items():
        closed += [_outline(layer, ring, gap) for ring, gap in _chained(_once(pieces))]
    found = [one for one in _once_each(closed) if one.area >= _LEAST_AREA_MM2]
    if not found:
        raise BadInput(path.name, "holds no closed line that could be a former")
    boxes = [_box(one.ring) for one in found]
    whole = tuple(
        f(sides) for f, sides in zip((min, min, max, max), zip(*boxes, strict=True), strict=True)
    )
    # only what encloses all else can be the sheet's border
    around = {id(one) for one, box in zip(found, boxes, strict=True) if box == whole}
    borders = {id(one) for one in found if id(one) in around and _is_border(one, found)}
    found.sort(key=lambda one: (id(one) in borders, -one.area))
    sheet = [replace(one, block=_block_of(one, blocks), border=id(one) in borders) for one in found]
    within = _lettered(sheet, letterings)
    return tuple(replace(one, texts=tuple(within[i])) for i, one in enumerate(sheet))


def apart(outlines: Sequence[Outline]) -> tuple[Outline, ...]:
    """The outlines that lie in no other one, the sheet's border left out: what could be a former each."""
    sheet = [one for one in outlines if not one.border] or list(outlines)
    shapes = [shapely.Polygon(one.ring) for one in sheet]
    boxes = [_box(one.ring) for one in sheet]
    tree = shapely.STRtree([shapely.box(*box) for box in boxes])
    outer = []
    for i, one in enumerate(sheet):
        spot = (
            shapely.Point(one.ring[0]) if not shapes[i].is_valid else shapes[i].point_on_surface()
        )
        around = (
            j
            for j in tree.query(shapely.box(*boxes[i]), predicate="covered_by")
            if j != i and sheet[j].area > one.area
        )
        if not any(shapes[j].is_valid and shapes[j].contains(spot) for j in around):
            outer.append(one)
    return tuple(outer)


def called(outlines: Sequence[Outline], names: Sequence[str]) -> dict[str, Outline]:
    """Of the names those that one outline bears and no other, with that outline.

    A text names what its first word is (``F4 3 mm ply``); a text outranks a block, a block a layer.
    """
    found: dict[str, Outline] = {}
    for name in names:
        ranked = [(_rank(one, name.casefold()), one) for one in outlines]
        best = min((rank for rank, _ in ranked), default=_NOT_CALLED)
        bearing = [one for rank, one in ranked if rank == best]
        if best < _NOT_CALLED and len(bearing) == 1:
            found[name] = bearing[0]
    borne = [id(one) for one in found.values()]
    return {name: one for name, one in found.items() if borne.count(id(one)) == 1}


def _rank(one: Outline, wanted: str) -> int:
    """How surely an outline bears a name: 0 by a text, 1 by its block, 2 by its layer, `_NOT_CALLED` where by none."""
    for rank, labels in enumerate((one.texts, (one.block,), (one.name,))):
        if any(wanted in (label.casefold(), first_word(label)) for label in labels):
            return rank
    return _NOT_CALLED


def first_word(label: str) -> str:
    """The first word of a lettering, in small letters."""
    return _BETWEEN_WORDS.split(label.casefold().strip())[0]


def _lettered(outlines: Sequence[Outline], letterings: Sequence[Lettering]) -> list[list[str]]:
    """For each outline that lies in no other one the texts that begin inside it, in a hole of it too."""
    within: list[list[str]] = [[] for _ in outlines]
    if not letterings:
        return within
    shapes = [shapely.Polygon(one.ring) for one in outlines]
    outer = {id(one) for one in apart(outlines)}
    tree = shapely.STRtree(shapes)
    for lettering in letterings:
        spot = shapely.Point(lettering.at)
        for i in tree.query(spot):
            if id(outlines[i]) in outer and shapes[i].is_valid and shapes[i].contains(spot):
                within[i].append(lettering.text)
    return within


def _block_of(one: Outline, blocks: dict[tuple[int, int], str]) -> str:
    found = [blocks[cell] for cell in map(_cell, one.ring) if cell in blocks]
    return max(sorted(set(found)), key=found.count, default="")


def _once(pieces: list[list[Point2]]) -> list[list[Point2]]:
    """The pieces without those that another draws again, in either direction."""
    seen: set[tuple[tuple[int, int], ...]] = set()
    kept = []
    for piece in pieces:
        middle = piece[len(piece) // 2] if len(piece) > 2 else _half_way(piece)  # noqa: PLR2004
        ends = sorted((_cell(piece[0]), _cell(piece[-1])))
        key = (*ends, _cell(middle))
        if key not in seen and math.dist(piece[0], piece[-1]) + len(piece) > 2:  # noqa: PLR2004
            seen.add(key)
            kept.append(piece)
    return kept


def _half_way(piece: list[Point2]) -> Point2:
    return ((piece[0][0] + piece[-1][0]) / 2, (piece[0][1] + piece[-1][1]) / 2)


def _cell(point: Point2) -> tuple[int, int]:
    return (round(point[0] / (2 * _TOUCH_MM)), round(point[1] / (2 * _TOUCH_MM)))


def _chained(pieces: list[list[Point2]]) -> list[tuple[list[Point2], float]]:
    """Rings that pieces laid end to end enclose, each with its widest gap; what does not close is left out.

    Ends that touch are joined first; only what is then left over is joined over a small gap.
    """
    rings, left = _enclosed(pieces, _TOUCH_MM)
    more, _ = _enclosed(left, _SLACK_MM)
    return rings + more


def _enclosed(
    pieces: list[list[Point2]], reach: float
) -> tuple[list[tuple[list[Point2], float]], list[list[Point2]]]:
    """Rings of pieces whose ends lie within `reach` (mm) of one another, and the pieces in none.

    Where lines meet inside an outline (a centre line drawn across it) the whole outline and what it
    is divided into are all rings.
    """
    if not pieces:
        return [], []
    ends = [end for piece in pieces for end in (piece[0], piece[-1])]
    nodes = _nodes(ends, reach)
    joined = [
        _ended_at(piece, ends[nodes[2 * i]], ends[nodes[2 * i + 1]])
        for i, piece in enumerate(pieces)
    ]
    gaps: dict[Point2, float] = {}
    for end, node in zip(ends, nodes, strict=True):
        gaps[ends[node]] = max(gaps.get(ends[node], 0.0), math.dist(end, ends[node]))
    lines = [shapely.LineString(piece) for piece in joined]
    faces = shapely.get_parts(shapely.polygonize(lines))
    whole = shapely.get_parts(shapely.union_all(faces))
    rings = [list(face.exterior.coords)[:-1] for face in (*whole, *faces)]
    used = {edge for ring in rings for edge in _edges(ring)}
    left = [
        piece
        for piece, line in zip(pieces, joined, strict=True)
        if not used.intersection(_edges(line)[:1])
    ]
    return [(ring, _widest(ring, gaps)) for ring in rings], left


def _nodes(ends: list[Point2], reach: float) -> list[int]:
    """For each end the number of the end that stands for all those that hang together with it."""
    points = shapely.points(ends)
    tree = shapely.STRtree(points)
    node = list(range(len(ends)))

    def first(i: int) -> int:
        while node[i] != i:
            i = node[i]
        return i

    for a, b in tree.query(points, predicate="dwithin", distance=reach).T:
        low, high = sorted((first(int(a)), first(int(b))))
        node[high] = low
    return [first(i) for i in range(len(ends))]


def _ended_at(piece: list[Point2], start: Point2, end: Point2) -> list[Point2]:
    """A piece led to where its ends are joined: moved there over a touch, bridged over a gap."""
    head = [start] if math.dist(start, piece[0]) <= _TOUCH_MM else [start, piece[0]]
    tail = [end] if math.dist(end, piece[-1]) <= _TOUCH_MM else [piece[-1], end]
    return [*head, *piece[1:-1], *tail]


def _edges(line: list[Point2]) -> list[frozenset[Point2]]:
    return [frozenset(pair) for pair in pairwise(line)]


def _widest(ring: list[Point2], gaps: dict[Point2, float]) -> float:
    gap = max((gaps.get(point, 0.0) for point in ring), default=0.0)
    return gap if gap > _TOUCH_MM else 0.0


def _outline(layer: str, ring: Iterable[Point2], gap: float) -> Outline:
    points = tuple(ring)
    return Outline(layer, points, _area(points), gap)


def _once_each(outlines: list[Outline]) -> list[Outline]:
    """The outlines without those that lie on another: the same area about the same middle."""
    kept: list[Outline] = []
    near: dict[tuple[int, int], list[tuple[Outline, tuple[float, float, float, float]]]] = {}
    for one in outlines:
        box = _box(one.ring)
        # by the corner of their boxes: what lies on another has its corner in the same cell or the next
        column, row = (math.floor(value / _CELL_MM) for value in box[:2])
        cells = [(column + i, row + j) for i in (-1, 0, 1) for j in (-1, 0, 1)]
        if not any(
            math.isclose(one.area, other.area, rel_tol=1e-3)
            and all(abs(a - b) <= _SLACK_MM for a, b in zip(box, beside, strict=True))
            for cell in cells
            for other, beside in near.get(cell, ())
        ):
            kept.append(one)
            near.setdefault((column, row), []).append((one, box))
    return kept


def _is_border(one: Outline, outlines: list[Outline]) -> bool:
    """Whether it is the border of the sheet: an upright rectangle around all others, with room.

    A rectangular former around its opening is as large as a sheet only on the largest models.
    """
    left, low, right, high = _box(one.ring)
    if not math.isclose(one.area, (right - left) * (high - low), rel_tol=1e-3):
        return False
    others = [other for other in outlines if other is not one]
    inside = [
        box
        for box in (_box(other.ring) for other in others)
        if box[0] > left and box[1] > low and box[2] < right and box[3] < high
    ]
    if not inside or len(inside) < len(others):
        return False
    wide = max(box[2] for box in inside) - min(box[0] for box in inside)
    tall = max(box[3] for box in inside) - min(box[1] for box in inside)
    roomy = (right - left) > _SHEET_MARGIN * wide and (high - low) > _SHEET_MARGIN * tall
    return roomy and max(right - left, high - low) > _SHEET_MM


def _box(ring: Ring) -> tuple[float, float, float, float]:
    xs, ys = [p[0] for p in ring], [p[1] for p in ring]
    return min(xs), min(ys), max(xs), max(ys)


def _area(ring: Ring) -> float:
    pairs = zip(ring, [*ring[1:], ring[0]], strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2
