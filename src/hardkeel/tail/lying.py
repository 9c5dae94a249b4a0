"""How a drawn surface lies on its sheet: half or whole, its span along which side."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.tail.model import TailSurface

_ROOT_SHARE: Final = 0.5  # of its deepest chord: a half's straight root is as long at least
_ALIKE_SHARE: Final = 0.012  # of its size, that both hands of a whole surface may differ by
_ALIKE_MM: Final = 0.6
_USUAL_REACH: Final = 2.0  # half a span in chords
_MOST_ASKEW: Final = math.radians(8.0)  # a sheet lies on the glass, or in a picture, hardly worse
_END_SHARE: Final = 0.1  # of its span, that a root lies from its end
_STRAIGHT_MM: Final = 0.3
_SIZE_COUNTS: Final = 0.3  # beside its shape: what is drawn may be another size than what was there
_A_HALF_IS_USUAL: Final = 0.1


@dataclass(frozen=True, slots=True)
class Lying:
    """A drawn surface laid out as ours are: x aft, the root along x, y outward.

    Attributes
    ----------
    ring : tuple of (x, y)
        Of one half.
    whole : bool
        Whether both halves were drawn; the starboard one was taken.
    sideways : bool
        Whether its span ran along the sheet; its leading edge was taken to be up.
    turn, middle, under, corner
        How it was brought there: turned by so much (radians) that the root lies along x, the whole one's middle line,
        whether it was turned over, and the root's foremost point.
    """

    ring: tuple[Point2, ...]
    whole: bool
    sideways: bool
    turn: float = 0.0
    middle: float = 0.0
    under: bool = False
    corner: Point2 = (0.0, 0.0)

    def carried(self, points: Array) -> Array:
        """Other places of the same sheet, shape (n, 2), laid out with it: x aft of the root's leading edge, y outward."""
        moved = np.asarray(points, dtype=float).reshape(-1, 2)
        if self.sideways:
            moved = np.column_stack([-moved[:, 1], moved[:, 0]])
        moved = _rotated(moved, self.turn)
        moved = moved - np.array([0.0, self.middle])
        if self.under:
            moved = moved * np.array([1.0, -1.0])
        moved = moved - np.array(self.corner)
        if self.whole:
            moved[:, 1] = np.abs(moved[:, 1])
        return np.asarray(moved)


def laid_out(ring: tuple[Point2, ...], surface: TailSurface) -> Lying:
    """How an outline off a sheet is meant, by its straight root or its two alike hands, and the surface's own shape.

    Raises
    ------
    BadInput
        When it has neither a straight root nor two hands alike.
    """
    if len(ring) < 3:  # noqa: PLR2004  nothing is enclosed
        raise BadInput("", "an outline needs three points at least")
    points = np.array(ring, dtype=float)
    reach = (surface.span or 2 * _USUAL_REACH * (surface.root_chord or 1.0)) / 2
    found: list[tuple[float, Lying]] = []
    for sideways in (False, True):
        # turned so that what was up on the sheet is ahead
        laid = np.column_stack([-points[:, 1], points[:, 0]]) if sideways else points
        for whole in (False, True):
            turn = 0.0 if whole else _askew(laid)
            if turn is None:
                continue
            turned = _rotated(laid, turn)
            half = _cut(turned) if whole else turned
            if half is None:
                continue
            deep, wide = np.ptp(half[:, 0]), np.ptp(half[:, 1])
            if min(deep, wide) <= 0:
                continue
            slender = math.log(wide / deep / (reach / (surface.root_chord or reach)))
            size = math.log(wide / reach)
            cost = abs(slender) + _SIZE_COUNTS * abs(size) + _A_HALF_IS_USUAL * (whole + sideways)
            found.append((cost, _laid(half, turned, turn, whole=whole, sideways=sideways)))
    if not found:
        raise BadInput("", "it has no straight root, and its two hands are not alike: no surface")
    return min(found, key=lambda one: one[0])[1]


def _laid(half: Array, turned: Array, turn: float, *, whole: bool, sideways: bool) -> Lying:
    """A half with its root down and its foremost root point at the corner."""
    middle = float(turned[:, 1].min() + turned[:, 1].max()) / 2 if whole else 0.0

    def along(edge: float) -> float:
        there = half[np.abs(half[:, 1] - edge) < _STRAIGHT_MM, 0]
        return float(np.ptp(there)) if len(there) > 1 else 0.0

    under = along(float(half[:, 1].max())) > along(float(half[:, 1].min()))
    flipped = half * np.array([1.0, -1.0]) if under else half
    low = float(flipped[:, 1].min())
    front = float(flipped[np.abs(flipped[:, 1] - low) < _STRAIGHT_MM, 0].min())
    spots = tuple((float(x - front), float(y - low)) for x, y in flipped)
    return Lying(spots, whole, sideways, turn, middle, under, (front, low))


def _askew(points: Array) -> float | None:
    """By how much a half must turn so that its root lies along x, radians; ``None`` where it has no straight root.

    The root is a straight side at one of its ends, near enough along x and long enough for one.
    """
    plain = np.array(shapely.Polygon(points).simplify(_STRAIGHT_MM).exterior.coords)
    deep, low, high = float(np.ptp(points[:, 0])), points[:, 1].min(), points[:, 1].max()
    best: tuple[float, float] | None = None
    for (x0, y0), (x1, y1) in pairwise(plain.tolist()):
        long, at = math.hypot(x1 - x0, y1 - y0), (y0 + y1) / 2
        way = math.atan2(y1 - y0, x1 - x0)
        way -= math.pi * round(way / math.pi)
        outermost = min(at - low, high - at) <= _END_SHARE * (high - low)
        if abs(way) > _MOST_ASKEW or long < _ROOT_SHARE * deep or not outermost:
            continue
        if best is None or long > best[0]:
            best = long, -way
    return None if best is None else best[1]


def _rotated(points: Array, turn: float) -> Array:
    cos, sin = math.cos(turn), math.sin(turn)
    return np.asarray(points @ np.array([[cos, sin], [-sin, cos]]))


def _cut(points: Array) -> Array | None:
    """The half above the middle of a surface whose two hands are alike; ``None`` where they are not."""
    outline = shapely.Polygon(points)
    if not outline.is_valid or outline.is_empty:
        return None
    low_x, low, high_x, high = outline.bounds
    middle = (low + high) / 2
    mirrored = np.column_stack([points[:, 0], 2 * middle - points[:, 1]])
    size = max(high_x - low_x, high - low)
    off = outline.exterior.hausdorff_distance(shapely.Polygon(mirrored).exterior)
    if off > max(_ALIKE_MM, _ALIKE_SHARE * size):
        return None
    half = outline.intersection(shapely.box(low_x - 1, middle, high_x + 1, high + 1))
    if half.geom_type != "Polygon":
        return None
    return np.asarray(np.array(half.exterior.coords)[:-1] - np.array([0.0, middle]))
