"""What lies inside the skins of a section: the wood that a former may be, before anything passes it.

Plane of the former: (y, z), airframe axes, mm.
"""

import math
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.fuselage.contours import bare, contour_of, half_of, skinned
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.planking import is_planked, planked_between
from hardkeel.geometry.polygons import BaseGeometry, Polygon, affinity, shapely
from hardkeel.geometry.rotation import Array

Ring = tuple[Point2, ...]
_WAYS_ROUND: Final = 36


def blank_of(fuselage: Fuselage, former: Former) -> Ring:
    """What a former is cut from before anything passes it: the contour less its skins, mm; empty where nothing is left.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    inner = inside_skins(fuselage, former)
    part = max(shapely.get_parts(inner), key=lambda one: one.area, default=None)
    return _rounded(part.exterior.coords) if part is not None and not part.is_empty else ()


def inside_skins(fuselage: Fuselage, former: Former) -> BaseGeometry:
    """The section less side, top and bottom skins.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    return wood_inside(former, skins_at(fuselage, former))


def wood_inside(former: Former, skins: tuple[float, float, float]) -> BaseGeometry:
    """A former's contour less skins at its sides, top and bottom, mm.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    return _inside(bare(former), *skins)


def skins_at(fuselage: Fuselage, former: Former) -> tuple[float, float, float]:
    """What lies on a former at its sides, its top and its bottom, mm: planks where it is planked."""
    planking = fuselage.framed.planking
    if planking is not None and is_planked(fuselage, former):
        return (planking.thickness,) * 3
    return side_at(fuselage, former.station), fuselage.top_skin, fuselage.bottom_skin


def skins_along(fuselage: Fuselage, x: Array) -> tuple[Array, Array, Array]:
    """What lies at the sides, on top and beneath at stations, mm, each in the shape of x."""
    side = np.array([side_at(fuselage, float(at)) for at in x])
    top, bottom = np.full(len(x), fuselage.top_skin), np.full(len(x), fuselage.bottom_skin)
    planking = fuselage.framed.planking
    formers = planked_between(fuselage)
    if planking is not None and formers:
        under = (x >= formers[0].station) & (x <= formers[-1].station)
        side, top, bottom = (
            np.where(under, planking.thickness, one) for one in (side, top, bottom)
        )
    return side, top, bottom


@lru_cache(maxsize=512)
def _inside(former: Former, side: float, top: float, bottom: float) -> BaseGeometry:
    half = max(former.half_width - side, 0.0)
    low, high = former.bottom + bottom, former.top - top
    if half <= 0 or high <= low:
        return shapely.Polygon()
    if former.outline:
        shrunk = _without_skins(shapely.Polygon(contour_of(former)), side, top, bottom)
    elif former.corner or former.section is not None:
        shrunk = skinned(half_of(former), side, top, bottom)
    else:
        shrunk = shapely.Polygon(contour_of(former))
    return shrunk.intersection(shapely.box(-half, low, half, high))


def _without_skins(outside: Polygon, side: float, top: float, bottom: float) -> BaseGeometry:
    """A drawn section less its skins, each as thick as its side wants and blending round the corners.

    The wood may be where every point within the skin around it is still inside: the section moved by
    each way round an ellipse of the skins' thickness, and what all of these have in common.
    """
    if side == top == bottom:
        return outside.buffer(-side, quad_segs=_WAYS_ROUND)
    left = outside
    for i in range(_WAYS_ROUND):
        angle = 2 * math.pi * i / _WAYS_ROUND
        up = math.sin(angle)
        moved = affinity.translate(
            outside, side * math.cos(angle), up * (bottom if up > 0 else top)
        )
        left = left.intersection(moved)
    return left


def ring_inside(inner: BaseGeometry, hand: int = 1) -> Array | None:
    """Half of a wood's edge from the lowest point on the centre line to the highest, shape (k, 2).

    The starboard half, or the port half turned over with a hand of −1; ``None`` where it does not reach the centre.
    """
    if inner.is_empty:
        return None
    part = max(shapely.get_parts(inner), key=lambda one: one.area)
    return _half_ring(part.wkb, hand)


@lru_cache(maxsize=1024)
def _half_ring(wkb: bytes, hand: int) -> Array | None:
    shape = shapely.from_wkb(wkb)
    if hand < 0:
        shape = affinity.scale(shape, -1.0, 1.0, origin=(0.0, 0.0))
    ring = np.array(shapely.geometry.polygon.orient(shape).exterior.coords)[:-1]
    y = ring[:, 0]
    following = np.roll(ring, -1, axis=0)
    crossing = np.nonzero((y <= 0) != (following[:, 0] <= 0))[0]
    if len(crossing) < 2:  # noqa: PLR2004  in on one side, out on the other
        return None
    found = []
    for i in crossing.tolist():
        a, b = ring[i], following[i]
        share = a[0] / (a[0] - b[0])
        found.append((float(a[1] + share * (b[1] - a[1])), i))
    low, high = min(found), max(found)
    # anticlockwise from beneath by starboard
    count = (high[1] - low[1]) % len(ring)
    picked = [ring[(low[1] + 1 + k) % len(ring)] for k in range(count)]
    half = np.array([(0.0, low[0]), *picked, (0.0, high[0])])
    half.setflags(write=False)
    return half


def _rounded(coords: object) -> Ring:
    points = [(round(float(y), 4), round(float(z), 4)) for y, z, *_ in coords]  # type: ignore[attr-defined]
    return tuple(points[:-1] if points[0] == points[-1] else points)
