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
    for one, other in itertools.combinations(plates, 2):
        if one.hinge is None and other.hinge is None:
            continue  # what stands still was fitted together
        worst: Clash | None = None
        for a, b in itertools.product(one.throws, other.throws):
            hit = _deepest(one, a, other, b)
            if hit is not None and (worst is None or hit[0] > worst.depth):
                worst = Clash((one.name, other.name), (a, b), *hit)
        if worst is not None:
            found.append(worst)
    return tuple(sorted(found, key=lambda clash: -clash.depth))


def _deepest(one: Plate, a: float, other: Plate, b: float) -> tuple[float, Point] | None:
    hits = [
        hit for hit in (_inside(one, a, other, b), _inside(other, b, one, a)) if hit is not None
    ]
    return max(hits, key=lambda hit: hit[0]) if hits else None


def _inside(walker: Plate, a: float, other: Plate, b: float) -> tuple[float, Point] | None:
    """The point of one plate's edges that stands deepest in another."""
    points = _turned(walker, a, _walk(walker))
    shape = shapely.Polygon(other.ring)
    shapely.prepare(shape)
    local = _back(other, b, points)
    flat = np.abs(local[:, 2]) < other.thickness / 2
    if not flat.any():
        return None
    within = np.zeros(len(points), dtype=bool)
    within[flat] = shapely.contains_xy(shape, local[flat, 0], local[flat, 1])
    if not within.any():
        return None
    edge = shape.exterior
    inner = np.flatnonzero(within)
    depths = [
        min(
            float(edge.distance(shapely.Point(*local[i, :2]))),
            other.thickness / 2 - abs(local[i, 2]),
        )
        for i in inner
    ]
    best = int(np.argmax(depths))
    x, y, z = points[inner[best]]
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
