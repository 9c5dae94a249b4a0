"""A stick as its neighbours cut it: a strip along a line, its length and the angles of its cuts."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely

_HAIR: Final = 1e-6  # mm: a facet shorter than this is none
_ALONG: Final = 1e-4  # of a right angle: a face that runs along the stick
_STRAIGHT_MM: Final = 1e-7
_CRUMB_MM2: Final = 1e-3


@dataclass(frozen=True, slots=True)
class Strip:
    """A stick in the plane of its drawing.

    Attributes
    ----------
    outline : ring of points
        As it is cut.
    length : float
        The longest extent of the outline along its axis, mm.
    ends : (tuple, tuple)
        At its start and at its end: angles between the axis and each face of the cut, degrees, 90 for
        square; a pointed end has two.
    """

    outline: tuple[Point2, ...]
    length: float
    ends: tuple[tuple[float, ...], tuple[float, ...]]


def strip_in(
    room: BaseGeometry, start: Point2, end: Point2, width: float, number: int = 0
) -> Strip | None:
    """The strip along a line, cut by the room that it lies in; ``None`` where nothing is left.

    Parameters
    ----------
    number : int
        Which of the parts, the largest first, where the room is in several.
    """
    parts = strips_in(room, start, end, width)
    return parts[number] if number < len(parts) else None


def strips_in(room: BaseGeometry, start: Point2, end: Point2, width: float) -> tuple[Strip, ...]:
    """Every part of the strip along a line, the largest first."""
    run, rise = end[0] - start[0], end[1] - start[1]
    length = math.hypot(run, rise)
    along, out = (run / length, rise / length), width / 2
    side, far = (-along[1] * out, along[0] * out), 2 * width + length
    strip = [
        (
            at[0] + way * far * along[0] + hand * side[0],
            at[1] + way * far * along[1] + hand * side[1],
        )
        for at, way, hand in ((start, -1, 1), (start, -1, -1), (end, 1, -1), (end, 1, 1))
    ]
    cut = room.intersection(shapely.Polygon(strip))
    pieces = [
        one
        for one in shapely.get_parts(cut)
        if one.geom_type == "Polygon" and one.area > _CRUMB_MM2
    ]
    pieces.sort(key=lambda one: -one.area)
    return tuple(strip_along(one, start, along) for one in pieces)


def strip_along(piece: BaseGeometry, start: Point2, along: Point2) -> Strip:
    """A piece measured along an axis."""
    # points on a straight stretch would make one cut look like two
    outline = list(piece.simplify(_STRAIGHT_MM).exterior.coords)[:-1]
    reach = [(s - start[0]) * along[0] + (z - start[1]) * along[1] for s, z in outline]
    ends = facets_of(outline, reach, along)
    return Strip(tuple(outline), max(reach) - min(reach), ends)


def facets_of(
    outline: Sequence[Point2], reach: Sequence[float], along: Point2
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Angles of the cut faces at the front and at the rear, the upright's first."""
    middle = (max(reach) + min(reach)) / 2
    found: tuple[list[tuple[bool, float]], list[tuple[bool, float]]] = ([], [])
    ring = [*outline, outline[0]]
    for i, (a, b) in enumerate(pairwise(ring)):
        ds, dz = b[0] - a[0], b[1] - a[1]
        size = math.hypot(ds, dz)
        if size < _HAIR:
            continue
        cross = abs(along[0] * dz - along[1] * ds) / size
        if cross < _ALONG:
            continue  # a long side
        angle = math.degrees(math.asin(min(1.0, cross)))
        at = (reach[i] + reach[(i + 1) % len(reach)]) / 2
        is_lying = abs(ds) > _HAIR * size
        found[at > middle].append((is_lying, angle))
    front, rear = (tuple(angle for _, angle in sorted(end)) for end in found)
    return front, rear
