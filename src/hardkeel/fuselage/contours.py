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
from hardkeel.fuselage.model import Former, SectionShape, TailPost
from hardkeel.geometry.polygons import BaseGeometry, affinity, shapely
from hardkeel.geometry.rotation import Array

_FLAT_MM: Final = 0.003  # how far a chord may lie off the line that it stands for
_ROUNDS: Final = 14
_ROUND, _BOXY, _HALVINGS = 2.0, 50.0, 40
_FIRST: Final = 33
_ARC_MM: Final = 0.006
_THINNEST_MM: Final = 0.05
_RING_MM: Final = 0.02


def contour_of(former: Former) -> tuple[Point2, ...]:
    """The outside contour, one ring from the keel by starboard and back by port, true to 0.01 mm.

    Raises
    ------
    BadInput
        When its own outline crosses itself, or its widest line lies outside it.
    """
    ring = _drawn(former) if former.outline else _symmetric(former)
    return tuple((y, z) for y, z in ring.tolist())


@lru_cache(maxsize=1024)
def bare(former: Former) -> Former:
    """A former without what is cut out of its middle, on which its edge does not hang."""
    return former.but(cutouts=(), template=None, lightened=False)


def half_of(former: Former) -> Array:
    """The starboard half from keel to crown, shape (k, 2), mm.

    Raises
    ------
    BadInput
        As `contour_of`.
    """
    return _half(bare(former))


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
    shape = former.section
    if shape is not None and shape.kind == "flat-sides":
        belly, deck = rises_of(former)
        return (former.bottom + belly + former.top - deck) / 2
    said = shape.widest if shape is not None else None
    return said if said is not None else (former.bottom + former.top) / 2


def edges_of(stop: Former | TailPost) -> tuple[float, float]:
    """Heights at which a stop's sides end, lower and upper, mm: of flat sides under the deck, else bottom and top."""
    shape = stop.section if isinstance(stop, Former) and not stop.outline else None
    if isinstance(stop, Former) and shape is not None and shape.kind == "flat-sides":
        belly, deck = rises_of(stop)
        return stop.bottom + belly, stop.top - deck
    return stop.bottom, stop.top


def has_deck(former: Former) -> bool:
    """Whether something stands over the edge of its sides."""
    return edges_of(former)[1] < former.top


def ring_diameter(former: Former) -> float | None:
    """Diameter of a former that is a round ring, mm; ``None`` of any other."""
    shape = former.section
    if shape is None or former.outline or shape.kind != "superellipse":
        return None
    middle = (former.bottom + former.top) / 2
    same = math.isclose(former.top - former.bottom, 2 * former.half_width, abs_tol=_RING_MM)
    even = math.isclose(widest_of(former), middle, abs_tol=_RING_MM)
    is_ring = same and even and shape.top == shape.bottom == _ROUND
    return 2 * former.half_width if is_ring else None


def rises_of(former: Former) -> tuple[float, float]:
    """How high belly and deck of a former with flat sides are, mm: together never more than it is."""
    shape = former.section or SectionShape()
    tall = former.top - former.bottom
    fits = min(1.0, tall / max(shape.belly + shape.deck, _THINNEST_MM))
    return shape.belly * fits, shape.deck * fits


def radius_of(half_width: float, rise: float) -> float | None:
    """Radius of the arc over flat sides, mm; ``None`` where it is flat, or more than a half circle."""
    return (half_width**2 + rise**2) / (2 * rise) if 0 < rise <= half_width else None


def rise_of(half_width: float, radius: float) -> float:
    """How high an arc of a radius stands over flat sides, mm; a half circle where the radius is no more than that."""
    return radius - math.sqrt(radius**2 - half_width**2) if radius > half_width else half_width


def shoulder_of(former: Former, *, above: bool) -> Point2:
    """Where a round contour passes between its side and its end: both shares alike; mm, starboard.

    Of flat sides it is their edge.
    """
    shape = former.section or SectionShape()
    if shape.kind == "flat-sides":
        belly, deck = rises_of(former)
        return former.half_width, former.top - deck if above else former.bottom + belly
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


def shape_enclosing(half: Array, widest: float) -> SectionShape:
    """The superellipse as wide, high and low as a contour, that encloses as much above its widest line and below it.

    Parameters
    ----------
    half : Array
        Shape (k, 2), the starboard half from keel to crown.
    """
    wide = float(half[:, 0].max())
    fulls = []
    for above in (True, False):
        part = half[half[:, 1] >= widest] if above else half[half[:, 1] <= widest]
        tall = abs(float((half[-1] if above else half[0])[1]) - widest)
        area = abs(float(np.trapezoid(part[:, 0], part[:, 1])))
        fulls.append(_power_of(area / max(wide * tall, _THINNEST_MM)))
    return SectionShape(widest=widest, top=fulls[0], bottom=fulls[1])


def _power_of(share: float) -> float:
    """The exponent whose quarter fills so much of its box: Γ(1+1/n)²/Γ(1+2/n), which rises with n (Dirichlet)."""
    low, high = 1.0, _BOXY
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        filled = math.gamma(1 + 1 / middle) ** 2 / math.gamma(1 + 2 / middle)
        low, high = (middle, high) if filled < share else (low, middle)
    return (low + high) / 2


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
        flat = former.section.kind == "flat-sides"
        found = _flat_sided(former) if flat else _superelliptic(former, former.section)
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


def _flat_sided(former: Former) -> Array:
    """Upright sides, an arc under and over them: of a circle up to a half circle, of an ellipse beyond."""
    half, low, high = max(former.half_width, _THINNEST_MM), former.bottom, former.top
    belly, deck = rises_of(former)
    beneath = _arc(half, belly)[::-1] * (1.0, -1.0) + np.array((0.0, low + belly))
    above = _arc(half, deck) + np.array((0.0, high - deck))
    same = bool(np.allclose(beneath[-1], above[0]))  # nothing is left of the side
    return np.vstack([beneath, above[1:] if same else above])


def _arc(half: float, rise: float) -> Array:
    """From an upright side's edge to the crown over it, shape (k, 2), the edge at (half, 0)."""
    if rise < _FLAT_MM:
        return np.array([(half, 0.0), (0.0, rise)])
    radius = radius_of(half, rise)
    if radius is None:
        return _quarter(half, rise, _ROUND)
    opened = math.atan2(half, radius - rise)
    steps = math.ceil(opened / 2 / math.acos(1 - min(_ARC_MM / 2 / radius, 0.5))) + 1
    turn = np.linspace(opened, 0.0, steps + 1)
    points = np.column_stack([radius * np.sin(turn), radius * np.cos(turn) - (radius - rise)])
    points[0], points[-1] = (half, 0.0), (0.0, rise)
    return points


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
