"""The finished outside of a fuselage at a station, as a closed line: box, superellipse, or as it was drawn.

Plane of the former: (y, z), airframe axes, mm.  A contour is symmetric unless it was drawn otherwise; it is walked
from the keel by starboard to the crown.
"""

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.fuselage.model import Former, SectionShape
from hardkeel.geometry.polygons import BaseGeometry, affinity, shapely
from hardkeel.geometry.rotation import Array

_FLAT_MM: Final = 0.003  # how far a chord may lie off the line that it stands for
_ROUNDS: Final = 14
_ROUND, _BOXY, _HALVINGS = 2.0, 50.0, 40
_FIRST: Final = 33
_ARC_MM: Final = 0.006
_THINNEST_MM: Final = 0.05


def contour_of(former: Former) -> tuple[Point2, ...]:
    """The outside contour, one ring from the keel by starboard and back by port, true to 0.01 mm.

    Raises
    ------
    BadInput
        When its own outline crosses itself, or its widest line lies outside it.
    """
    ring = _drawn(former) if former.outline else _symmetric(former)
    return tuple((float(y), float(z)) for y, z in ring)


def half_of(former: Former) -> Array:
    """The starboard half from keel to crown, shape (k, 2), mm.

    Raises
    ------
    BadInput
        As `contour_of`.
    """
    return _half(former.but(cutouts=(), template=None, lightened=False))


def girth_of(former: Former) -> float:
    """The length all round, mm."""
    ring = np.array(contour_of(former))
    return float(np.sum(np.hypot(*(np.roll(ring, -1, axis=0) - ring).T)))


def area_of(former: Former) -> float:
    """What the contour encloses, mm²."""
    y, z = np.array(contour_of(former)).T
    return float(abs(np.sum(y * np.roll(z, -1) - z * np.roll(y, -1))) / 2)


def widest_of(former: Former) -> float:
    """Height of a former's widest line, mm; of a box its middle."""
    said = former.section.widest if former.section is not None else None
    return said if said is not None else (former.bottom + former.top) / 2


def shoulder_of(former: Former, *, above: bool) -> Point2:
    """Where a round contour passes between its side and its end: both shares alike; mm, starboard."""
    shape = former.section or SectionShape()
    power, end = (shape.top, former.top) if above else (shape.bottom, former.bottom)
    share = 0.5 ** (1 / power)
    widest = widest_of(former)
    return former.half_width * share, widest + share * (end - widest)


def fullness_through(former: Former, at: Point2, *, above: bool) -> float:
    """The exponent whose contour passes through a point: from 1, a diamond, over 2, an oval, to 50, a box."""
    y, z = at
    widest, end = widest_of(former), former.top if above else former.bottom
    if former.half_width <= 0 or end == widest:
        return _ROUND
    shares = np.clip([abs(y) / former.half_width, (z - widest) / (end - widest)], 1e-3, 1 - 1e-3)
    low, high = 1.0, _BOXY
    for _ in range(_HALVINGS):  # the sum of powers falls as the exponent grows
        middle = (low + high) / 2
        low, high = (middle, high) if float(np.sum(shares**middle)) > 1 else (low, middle)
    return (low + high) / 2


def shape_between(
    a: Former, b: Former, share: float, low: float, high: float
) -> SectionShape | None:
    """The section shape of a former from `low` to `high` mm that stands a share of the way from one to another.

    ``None`` where neither is round; where one alone is, as that one.
    """
    round_ones = [one for one in (a, b) if one.section is not None]
    if not round_ones:
        return None
    first, last = round_ones[0], round_ones[-1]
    part = min(1.0, max(0.0, share))

    def mixed(value: Callable[[Former], float]) -> float:
        return value(first) + part * (value(last) - value(first))

    def widest_share(one: Former) -> float:
        return (widest_of(one) - one.bottom) / (one.top - one.bottom)

    return SectionShape(
        widest=low + mixed(widest_share) * (high - low),
        top=mixed(lambda one: one.section.top if one.section is not None else _ROUND),
        bottom=mixed(lambda one: one.section.bottom if one.section is not None else _ROUND),
    )


def skinned(half: Array, side: float, top: float, bottom: float) -> BaseGeometry:
    """What lies inside skins of these thicknesses, square to a convex contour whose starboard half is given.

    A skin is as thick as its side wants and blends round the corner, as an ellipse rolled along inside does: where the
    outward normal is n the wood stands off by the ellipse's support √((side·n_y)² + (top·n_z)²).

    Parameters
    ----------
    half : Array
        Shape (k, 2), from keel to crown.
    """
    run = np.diff(half, axis=0)
    size = np.hypot(*run.T)
    normals = np.column_stack([run[:, 1], -run[:, 0]]) / np.maximum(size, 1e-12)[:, None]
    thick = np.where(normals[:, 1] > 0, top, bottom)
    reach = np.hypot(side * normals[:, 0], thick * normals[:, 1])
    by = np.divide(
        np.column_stack([side**2 * normals[:, 0], thick**2 * normals[:, 1]]),
        reach[:, None],
        out=np.zeros_like(normals),
        where=reach[:, None] > 0,
    )
    # each edge goes inward by itself: what lies behind all of them is inside
    ends = np.vstack([half[:-1] - by, half[-1:] - by[-1:]])
    starts = np.vstack([half[:1] - by[:1], half[1:] - by])
    walked = np.empty((2 * len(ends), 2))
    walked[0::2], walked[1::2] = starts, ends
    mirrored = walked[::-1] * (-1.0, 1.0)
    shape: BaseGeometry = shapely.Polygon(np.vstack([walked, mirrored])).buffer(0)
    parts = list(shapely.get_parts(shape))
    return max(parts, key=lambda one: one.area) if parts else shapely.Polygon()


def _symmetric(former: Former) -> Array:
    half = half_of(former)
    mirrored = half[::-1] * (-1.0, 1.0)
    return np.vstack([half, mirrored[1:-1]])


@lru_cache(maxsize=512)
def _half(former: Former) -> Array:
    if former.outline:
        found = _starboard_of(_drawn(former))
    elif former.section is not None:
        found = _superelliptic(former, former.section)
    else:
        found = _boxed(former)
    found.setflags(write=False)  # shared by everyone who asks for the same former
    return found


def _superelliptic(former: Former, shape: SectionShape) -> Array:
    half, low, high = max(former.half_width, _THINNEST_MM), former.bottom, former.top
    widest = widest_of(former)
    if not low < widest < high:
        raise BadInput(f"{former.id}.section.widest", "lies outside its former")
    beneath = _quarter(half, widest - low, shape.bottom)[::-1] * (1.0, -1.0)
    above = _quarter(half, high - widest, shape.top)
    half_ring: Array = np.vstack([beneath, above[1:]]) + np.array((0.0, widest))
    return half_ring


def _quarter(wide: float, tall: float, power: float) -> Array:
    """A quarter of |y/wide|ⁿ + |z/tall|ⁿ = 1 from its side to its end, as many points as keep chords on it."""

    def at(turn: Array) -> Array:
        cos, sin = np.cos(turn), np.sin(turn)
        # by the angle of the point itself: even steps neither crowd at corners nor skip them
        size = (np.abs(cos) ** power + np.abs(sin) ** power) ** (-1 / power)
        return np.column_stack([wide * cos * size, tall * sin * size])

    turns = _fine(at, np.linspace(0.0, np.pi / 2, _FIRST))
    points = at(turns)
    points[0], points[-1] = (wide, 0.0), (0.0, tall)
    return points


def _fine(at: Callable[[Array], Array], turns: Array) -> Array:
    """Parameters between which no chord lies off the line."""
    for _ in range(_ROUNDS):
        points, middles = at(turns), (turns[:-1] + turns[1:]) / 2
        between = at(middles)
        chord = points[1:] - points[:-1]
        off = between - points[:-1]
        size = np.maximum(np.hypot(*chord.T), 1e-12)
        far = np.abs(chord[:, 0] * off[:, 1] - chord[:, 1] * off[:, 0]) / size > _FLAT_MM
        if not far.any():
            break
        turns = np.sort(np.concatenate([turns, middles[far]]))
    return turns


def _boxed(former: Former) -> Array:
    half, low, high = max(former.half_width, _THINNEST_MM), former.bottom, former.top
    radius = min(former.corner, half * 0.999, (high - low) / 2 * 0.999)
    if radius <= 0:
        return np.array([(0.0, low), (half, low), (half, high), (0.0, high)])
    # as many chords as keep them on the arc
    steps = math.ceil(np.pi / 4 / math.acos(1 - min(_ARC_MM / radius, 0.5)))
    turn = np.linspace(0.0, np.pi / 2, steps + 1)
    sine, cosine = radius * np.sin(turn), radius * np.cos(turn)
    beneath = np.column_stack([half - radius + sine, low + radius - cosine])
    above = np.column_stack([half - radius + cosine, high - radius + sine])
    return np.vstack([[(0.0, low)], beneath, above, [(0.0, high)]])


def _drawn(former: Former) -> Array:
    """An own outline, stretched to the former's figures, which may have been changed since."""
    own = shapely.Polygon(former.outline)
    if not own.is_valid or own.area <= 0:
        raise BadInput(f"{former.id}.outline", "crosses itself")
    left, low, right, high = own.bounds
    wide = 2 * former.half_width / (right - left)
    tall = (former.top - former.bottom) / (high - low)
    stretched = affinity.scale(own, wide, tall, origin=(left, low))
    moved = affinity.translate(stretched, -former.half_width - left, former.bottom - low)
    ring = np.array(shapely.geometry.polygon.orient(moved).exterior.coords)[:-1]
    start = int(np.argmin(ring[:, 1] + 1e-9 * np.abs(ring[:, 0])))
    return np.roll(ring, -start, axis=0)


def _starboard_of(ring: Array) -> Array:
    """The starboard half of a drawn ring, from where it crosses the centre line beneath to where it does above."""
    shape = shapely.Polygon(ring)
    _, low, right, high = shape.bounds
    clipped = shape.intersection(shapely.box(0.0, low - 1, right + 1, high + 1))
    part = max(shapely.get_parts(clipped), key=lambda one: one.area)
    points = np.array(shapely.geometry.polygon.orient(part).exterior.coords)[:-1]
    on_line = points[:, 0] < _FLAT_MM
    lowest = int(np.argmin(np.where(on_line, points[:, 1], np.inf)))
    walked = np.roll(points, -lowest, axis=0)
    last = int(np.argmax(np.where(walked[:, 0] < _FLAT_MM, walked[:, 1], -np.inf)))
    return walked[: last + 1]
