"""Do moving parts touch?  Plates that turn about their hinge lines, held against each other in space.

A plate is a flat outline with a thickness; its edge is walked on both faces, and each point looked for in
the other plate.  Airframe axes, mm and degrees.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.values import Point
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array

_WALK_MM: Final = 1.5
_DEEPEST_STEPS: Final = 3


@dataclass(frozen=True)
class Plate:
    """A flat part.

    Attributes
    ----------
    ring : ring of (u, v)
        Its outline in its own plane.
    origin : Point
        Where (0, 0) of its plane lies.
    along, across : Point
        Directions of u and v, of unit length, square to each other.
    thickness : float
    hinge : (Point, Point), optional
        Two points of the line that it turns about; none for what stands still.
    throws : tuple of float
        Angles to try, degrees; positive turns by the right hand about the line from its first point.
    """

    name: str
    ring: tuple[Point2, ...]
    origin: Point
    along: Point
    across: Point
    thickness: float
    hinge: tuple[Point, Point] | None = None
    throws: tuple[float, ...] = (0.0,)


@dataclass(frozen=True, slots=True)
class Clash:
    """Two parts that touch.

    Attributes
    ----------
    throws : (float, float)
        Of both, degrees, at the worst.
    depth : float
        How far one stands in the other there, mm: what is to be cut away at least.
    at : Point
        Where.
    """

    parts: tuple[str, str]
    throws: tuple[float, float]
    depth: float
    at: Point


def clashes_of(plates: Sequence[Plate]) -> tuple[Clash, ...]:
    """Every pair that touches in any of its positions, at the worst of them; the deepest first."""
    found = []
    swung = [tuple(_Swung.to(plate, throw) for throw in plate.throws) for plate in plates]
    for (one, ones), (other, others) in itertools.combinations(zip(plates, swung, strict=True), 2):
        if one.hinge is None and other.hinge is None:
            continue  # what stands still was fitted together
        worst: Clash | None = None
        for a, b in itertools.product(ones, others):
            hit = _deepest(a, b) if a.may_touch(b) else None
            if hit is not None and (worst is None or hit[0] > worst.depth):
                worst = Clash((one.name, other.name), (a.throw, b.throw), *hit)
        if worst is not None:
            found.append(worst)
    return tuple(sorted(found, key=lambda clash: -clash.depth))


@dataclass(frozen=True, slots=True)
class _Swung:
    """A plate at one throw.

    Attributes
    ----------
    points : Array
        Along its edges, shape (n, 3), airframe axes, mm.
    low, high : Array
        Corners of the box around it, shape (3,).
    """

    plate: Plate
    throw: float
    points: Array
    low: Array
    high: Array

    @classmethod
    def to(cls, plate: Plate, throw: float) -> "_Swung":
        """A plate swung to a throw."""
        points = _turned(plate, throw, _walk(plate))
        return cls(plate, throw, points, points.min(axis=0), points.max(axis=0))

    def may_touch(self, other: "_Swung") -> bool:
        """Whether the boxes meet: all of a plate lies within the box of its edges."""
        return bool(np.all(self.low <= other.high) and np.all(other.low <= self.high))


def _deepest(one: _Swung, other: _Swung) -> tuple[float, Point] | None:
    hits = [hit for hit in (_inside(one, other), _inside(other, one)) if hit is not None]
    return max(hits, key=lambda hit: hit[0]) if hits else None


def _inside(walker: _Swung, standing: _Swung) -> tuple[float, Point] | None:
    """The point of one plate's edges that stands deepest in another."""
    other, near = standing.plate, np.all(walker.points >= standing.low, axis=1)
    points = walker.points[near & np.all(walker.points <= standing.high, axis=1)]
    local = _back(other, standing.throw, points)
    flat = np.abs(local[:, 2]) < other.thickness / 2
    points, local = points[flat], local[flat]
    if not len(points):
        return None
    shape = shapely.Polygon(other.ring)
    within = shapely.contains_xy(shape, local[:, 0], local[:, 1])
    if not within.any():
        return None
    points, local = points[within], local[within]
    to_edge = shapely.distance(shape.exterior, shapely.points(local[:, :2]))
    depths = np.minimum(to_edge, other.thickness / 2 - np.abs(local[:, 2]))
    best = int(np.argmax(depths))
    x, y, z = points[best]
    return float(depths[best]), (float(x), float(y), float(z))


def _walk(plate: Plate) -> Array:
    """Points along the outline, on both faces and between them; shape (n, 3) in airframe axes."""
    line = shapely.LinearRing(plate.ring).segmentize(_WALK_MM)
    flat = shapely.get_coordinates(line)
    u, v = np.array(plate.along), np.array(plate.across)
    normal = np.cross(u, v)
    base = np.array(plate.origin) + flat[:, :1] * u + flat[:, 1:2] * v
    heights = np.linspace(-0.5, 0.5, _DEEPEST_STEPS) * plate.thickness
    return np.concatenate([base + h * normal for h in heights])


def _rotation(plate: Plate, throw: float) -> tuple[Array, Array]:
    """Rotation about the hinge line (O. Rodrigues 1840): p → o + R(p − o)."""
    if plate.hinge is None or not throw:
        return np.eye(3), np.zeros(3)
    a, b = (np.array(end, dtype=float) for end in plate.hinge)
    x, y, z = (b - a) / np.linalg.norm(b - a)
    cross = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
    turn = math.radians(throw)
    return np.eye(3) + math.sin(turn) * cross + (1 - math.cos(turn)) * cross @ cross, a


def _turned(plate: Plate, throw: float, points: Array) -> Array:
    turn, about = _rotation(plate, throw)
    return np.asarray((points - about) @ turn.T + about)


def _back(plate: Plate, throw: float, points: Array) -> Array:
    """Points in a plate's own plane (u, v, height), the plate turned."""
    turn, about = _rotation(plate, throw)
    still = (points - about) @ turn + about - np.array(plate.origin)
    u, v = np.array(plate.along), np.array(plate.across)
    return np.column_stack([still @ u, still @ v, still @ np.cross(u, v)])
