"""The edges of a flat frame: front, rear, tip and root, and what they leave between them for the bracing."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.flat import open_ring, sound
from hardkeel.joinery.strips import Strip, strip_along
from hardkeel.tail.model import TailBracing, TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x

PieceKind = Literal["edge", "tip", "centre", "root", "cross-piece", "diagonal"]
FAR: Final = 1e4
LEAST_MM2: Final = 4.0
USUAL_EDGE: Final = (8.0, 5.0)
_HAIR: Final = 1e-6


@dataclass(frozen=True, slots=True)
class FramePiece:
    """A stick or sheet of one half.

    Attributes
    ----------
    strip : Strip
        Its outline in the drawing, its length and the angles of its cuts.
    ends_at : (point, point)
        Where its middle line begins and ends.
    width : float
        As seen in the drawing, mm.
    whole : bool
        It lies across the middle: one piece, drawn by half.
    """

    kind: PieceKind
    panel: str
    strip: Strip
    ends_at: tuple[Point2, Point2]
    width: float
    key: str
    whole: bool = False


@dataclass(frozen=True)
class Shell:
    """The edges of a panel, with its tip and root, and what they leave between them."""

    name: str
    whole: BaseGeometry
    inside: BaseGeometry
    root: tuple[float, float]
    widths: tuple[float, float]
    edges: tuple[FramePiece, ...]


@lru_cache(maxsize=32)
def shells_of(surface: TailSurface) -> tuple[Shell, ...]:
    """The fixed panel's edges, then the moving one's where there is a hinge line.

    Raises
    ------
    BadInput
        When a figure is missing, or the edges leave nothing between them.
    """
    planform = planform_of(surface)
    outline = shapely.Polygon(planform.ring)
    lead = (surface.leading_edge or USUAL_EDGE)[0]
    trail = (surface.trailing_edge or USUAL_EDGE)[0]
    if surface.hinge_at_chord is None:
        return (_shell(surface, "fixed", outline, (lead, trail), 0.0),)
    controls = surface.controls
    gap = controls.gap / 2 if controls is not None else 0.0
    hinge = surface.hinge_edge or lead
    line = [(hinge_x(surface, y) or 0.0, y) for y in (-planform.half, 2 * planform.half)]
    ahead = shapely.Polygon(
        [(x - gap, y) for x, y in line] + [(-FAR, line[1][1]), (-FAR, line[0][1])]
    )
    behind = shapely.Polygon(
        [(x + gap, y) for x, y in line] + [(FAR, line[1][1]), (FAR, line[0][1])]
    )
    fixed = _shell(surface, "fixed", outline.intersection(ahead), (lead, hinge), 0.0)
    inner = controls.inner if controls is not None else 0.0
    moving = outline.intersection(behind).intersection(shapely.box(-FAR, inner, FAR, FAR))
    if moving.is_empty or moving.area <= LEAST_MM2:
        return (fixed,)
    return fixed, _shell(surface, "moving", moving, (hinge, trail), inner)


def _shell(
    surface: TailSurface, name: str, whole: BaseGeometry, widths: tuple[float, float], inner: float
) -> Shell:
    place = f"tail {surface.id}"
    if whole.is_empty or whole.geom_type != "Polygon":
        raise BadInput(f"{place}.hinge_at_chord", "leaves nothing of one side of the hinge line")
    bracing = surface.bracing or TailBracing()
    front, rear = widths
    pieces, taken = _edges(surface, name, whole, (inner, front, rear))
    inside = whole.difference(taken)
    root = _root(surface, name, inner, front, bracing)
    if root > inner + _HAIR:
        strip_box = shapely.box(-FAR, inner, FAR, root)
        pieces += _root_pieces(surface, name, inside.intersection(strip_box), (inner, root, front))
        inside = inside.difference(strip_box)
    inside = sound(inside)  # spikes of no width where strips meet
    if inside.is_empty:
        raise BadInput(f"{place}.leading_edge", "and the other edges leave nothing between them")
    return Shell(name, whole, inside, (inner, root), widths, tuple(pieces))


def _edges(
    surface: TailSurface, name: str, whole: BaseGeometry, sizes: tuple[float, float, float]
) -> tuple[list[FramePiece], BaseGeometry]:
    """Strips along front, rear and tip, each cut by those before it; and all of them as one shape."""
    inner, front, rear = sizes
    lines = _edge_lines(whole, inner, float(whole.bounds[3]), surface)
    pieces: list[FramePiece] = []
    taken = shapely.Polygon()
    edges: tuple[tuple[PieceKind, str, float], ...] = (
        ("edge", "front", front),
        ("edge", "rear", rear),
        ("tip", "tip", front),
    )
    for kind, words, wide in edges:
        line = lines[words]
        if len(line) < 2:  # noqa: PLR2004  a pointed tip
            continue
        band = shapely.LineString(_drawn_out(line)).buffer(
            wide, cap_style="flat", join_style="mitre", mitre_limit=4
        )
        wood = whole.intersection(band).difference(taken)
        if kind == "edge" and lines["tip"] and len(lines["tip"]) > 2:  # noqa: PLR2004  a curved tip
            # an edge ends where the tip's curve begins
            wood = wood.intersection(shapely.box(-FAR, -FAR, FAR, line[-1][1]))
        parts = _parts(wood)
        if not parts:
            continue
        part = max(parts, key=lambda one: float(one.area))
        taken = taken.union(part)
        start, end = line[0], line[-1]
        size = math.dist(start, end) or 1.0
        along = ((end[0] - start[0]) / size, (end[1] - start[1]) / size)
        strip = strip_along(part, start, along)
        if len(line) > 2:  # noqa: PLR2004  a curve: cut in place, as long as its outer line
            strip = replace(strip, length=float(shapely.LineString(line).length), ends=((), ()))
        key = f"{name} {words}" if kind == "tip" else f"{name} {words} edge"
        pieces.append(FramePiece(kind, name, strip, (start, end), wide, key))
    return pieces, taken


def _parts(shape: BaseGeometry) -> list[BaseGeometry]:
    return [
        one
        for one in shapely.get_parts(shape)
        if one.geom_type == "Polygon" and one.area > LEAST_MM2
    ]


def _root_pieces(
    surface: TailSurface, name: str, shape: BaseGeometry, sizes: tuple[float, float, float]
) -> Iterator[FramePiece]:
    """Centre sheet or root stick."""
    inner, root, front = sizes
    across = name == "fixed" and not surface.upright
    is_sheet = name == "fixed" and surface.centre / 2 > front
    words: PieceKind = "centre" if is_sheet else "root"
    middle = (inner + root) / 2
    for part in _parts(shape):
        left, _, right, _ = part.bounds
        strip = strip_along(part, (left, middle), (1.0, 0.0))
        ends = ((float(left), middle), (float(right), middle))
        width = (root - inner) * (2 if across else 1)
        yield FramePiece(words, name, strip, ends, width, f"{name} {words}", whole=across)


def _root(
    surface: TailSurface, name: str, inner: float, front: float, bracing: TailBracing
) -> float:
    """Where the wood at the root ends."""
    if name == "moving":
        return inner + front
    if surface.centre:
        return surface.centre / (1 if surface.upright else 2)
    # a root stick: a fin's stands whole on its seat, a stabilizer's lies across the middle
    return bracing.width if surface.upright else bracing.width / 2


def _edge_lines(
    whole: BaseGeometry, inner: float, outer: float, surface: TailSurface
) -> dict[str, list[Point2]]:
    """The outer lines of front, rear and tip, each as it is met going out."""
    ring = open_ring(shapely.geometry.polygon.orient(whole.simplify(1e-4)).exterior.coords)
    tip = surface.tip
    start = outer - tip.length if tip is not None and tip.shape != "block" else outer - _HAIR
    start = max(start, inner)
    ys = np.unique(np.concatenate([[p[1] for p in ring if p[1] <= start + _HAIR], [inner, start]]))
    ys = ys[(ys >= inner - _HAIR) & (ys <= start + _HAIR)]
    front, rear = [], []
    for y in ys:
        row = whole.intersection(shapely.LineString([(-FAR, y), (FAR, y)]))
        if row.is_empty:
            continue
        left, _, right, _ = row.bounds
        front.append((float(left), float(y)))
        rear.append((float(right), float(y)))
    front, rear = _thinned(front), _thinned(rear)
    far = [p for p in ring if p[1] > start + _HAIR]
    far.sort(key=lambda p: math.atan2(p[0] - (front[-1][0] + rear[-1][0]) / 2, p[1] - start))
    ends = [front[-1], *far, rear[-1]] if far else [front[-1], rear[-1]]
    return {"front": front, "rear": rear, "tip": [] if _are_one(ends) else _thinned(ends)}


def _are_one(points: list[Point2]) -> bool:
    return all(math.dist(points[0], p) < _HAIR * 10 for p in points)


def _thinned(points: list[Point2]) -> list[Point2]:
    if len(points) < 3:  # noqa: PLR2004  nothing between
        return points
    line = shapely.LineString(points).simplify(1e-3)
    return [(float(x), float(y)) for x, y in line.coords]


def _drawn_out(line: list[Point2]) -> list[Point2]:
    """A line drawn on beyond both ends, so that its band reaches the corners."""
    out = list(line)
    for at, near, place in ((0, 1, 0), (-1, -2, len(out) + 1)):
        a, b = line[at], line[near]
        size = math.dist(a, b) or 1.0
        far = 0.5 if len(line) > 2 else 20.0  # noqa: PLR2004  a curve goes no further
        out.insert(place, (a[0] + far * (a[0] - b[0]) / size, a[1] + far * (a[1] - b[1]) / size))
    return out
