"""Where longerons and stringers run through the formers, and at what slope.

Plane of a former: (y, z), airframe axes, mm; starboard.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.fuselage.contours import edges_of
from hardkeel.fuselage.inside import inside_skins, ring_inside
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage, Longeron, Member
from hardkeel.fuselage.surface import is_shaped
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

_STEPS: Final = (
    256  # of a slope: a notch is up to a hundredth wider than it must be, and cut anew less often
)
_FAR_MM: Final = 1e5
_CENTRE: Final = (0.0, 180.0)


@dataclass(frozen=True, slots=True)
class Seat:
    """Where a stringer lies against a former's edge.

    Attributes
    ----------
    at : (float, float)
        The middle of its outer face.
    out : (float, float)
        Square to the edge there, outward, of length 1.
    """

    at: tuple[float, float]
    out: tuple[float, float]


def stringer_seat(member: Member, inner: BaseGeometry, hand: int = 1) -> Seat | None:
    """Where a stringer lies on the starboard side of a former's wood, on the port side with a hand of −1.

    By its angle from the former's middle, or by its share of the girth from the crown; flush with the chord under its
    own width.  ``None`` where the wood has no edge there.
    """
    ring = ring_inside(inner, hand)
    if ring is None:
        return None
    arc = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(ring, axis=0).T))])
    along = (
        arc[-1] * (1 - member.angle / 180)
        if member.by_girth
        else _arc_at_angle(ring, arc, member.angle)
    )
    if along is None:
        return None
    half = (member.section or (0.0, 0.0))[1] / 2
    ends = np.clip(np.array([along - half, along + half]), 0.0, arc[-1])
    (y0, z0), (y1, z1) = (tuple(np.interp(e, arc, ring[:, i]) for i in (0, 1)) for e in ends)
    if member.angle in _CENTRE:
        up = 1.0 if member.angle == 0.0 else -1.0
        z = max(z0, z1) if up < 0 else min(z0, z1)
        return Seat((0.0, float(z)), (0.0, up))
    size = math.hypot(y1 - y0, z1 - z0) or 1.0
    out = (z1 - z0) / size, (y0 - y1) / size
    return Seat((float((y0 + y1) / 2) * hand, float((z0 + z1) / 2)), (out[0] * hand, out[1]))


def _arc_at_angle(ring: Array, arc: Array, angle: float) -> float | None:
    """Arc from the keel to where the ray at an angle from straight up leaves the wood for good."""
    middle = (ring[0, 1] + ring[-1, 1]) / 2
    way = math.radians(angle)
    across = ring[:, 0] * math.cos(way) - (ring[:, 1] - middle) * math.sin(way)
    ahead = ring[:, 0] * math.sin(way) + (ring[:, 1] - middle) * math.cos(way)
    crossed = np.nonzero((across[:-1] <= 0) != (across[1:] <= 0))[0]
    best: tuple[float, float] | None = None
    for i in crossed.tolist():
        share = across[i] / (across[i] - across[i + 1])
        out = float(ahead[i] + share * (ahead[i + 1] - ahead[i]))
        if out >= 0 and (best is None or out > best[0]):
            best = out, float(arc[i] + share * (arc[i + 1] - arc[i]))
    if best is not None:
        return best[1]
    return float(arc[-1]) if angle == _CENTRE[0] else 0.0 if angle == _CENTRE[1] else None


def longeron_corner(
    longeron: Longeron, inner: BaseGeometry, hand: int = 1, edges: tuple[float, float] | None = None
) -> tuple[float, float] | None:
    """Where a longeron's outer corner lies, on the starboard side: in a box's corner, else on the wood's round edge.

    From the corner of what the wood fills it is sunk along the diagonal until it touches; ``None`` without wood.

    Parameters
    ----------
    edges : (float, float), optional
        Heights at which flat sides end under deck and belly, mm.
    """
    if inner.is_empty:
        return None
    left, low, right, high = inner.bounds
    if edges is not None:
        low, high = max(low, edges[0]), min(high, edges[1])
    y, z = (right if hand > 0 else -left), low if longeron.is_lower else high
    up = 1.0 if longeron.is_lower else -1.0
    far = max(right - left, high - low) * 2
    line = shapely.LineString([(hand * y, z), (hand * (y - far), z + up * far)])
    touched = shapely.get_coordinates(inner.intersection(line))
    if not len(touched):
        return None
    first = touched[np.argmin(np.abs(np.abs(touched[:, 1] - z)))]
    return float(first[0]), float(first[1])


@lru_cache(maxsize=16)
def slopes_of(fuselage: Fuselage) -> dict[str, tuple[tuple[str, tuple[float, float]], ...]]:
    """At every former, how what runs through it moves outward and up per mm aft, by its id.

    Longerons are named ``longeron`` and their id.  Rounded away from level to a two-hundred-and-fifty-sixth.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    found: dict[str, list[tuple[str, tuple[float, float]]]] = {
        one.id: [] for one in fuselage.formers
    }
    formers = sorted(fuselage.formers, key=lambda one: one.station)
    if len(fuselage.stations) < 2:  # noqa: PLR2004  nothing leans
        return dict.fromkeys(found, ())
    shaped = is_shaped(fuselage)
    loft = loft_of(fuselage)
    for longeron in fuselage.longerons:
        name = f"longeron {longeron.id}"
        if shaped:
            places = [
                longeron_corner(longeron, inside_skins(fuselage, one), edges=edges_of(one))
                for one in formers
            ]
            _add(found, name, formers, places)
            continue
        z = loft.edge(lower=longeron.is_lower)
        for one in formers:
            y = float(loft.half_width.slope(one.station)), float(z.slope(one.station))
            found[one.id].append((name, (_rounded(y[0]), _rounded(y[1]))))
    for member in fuselage.framed.members:
        if member.kind == "stringer":
            first, last = fuselage.span(member)
            under = [one for one in formers if first <= one.station <= last]
            seats = [stringer_seat(member, inside_skins(fuselage, one)) for one in under]
            _add(found, member.id, under, [seat.at if seat is not None else None for seat in seats])
    return {name: tuple(ways) for name, ways in found.items()}


def _add(
    found: dict[str, list[tuple[str, tuple[float, float]]]],
    name: str,
    formers: Sequence[Former],
    places: Sequence[tuple[float, float] | None],
) -> None:
    there = [(one, place) for one, place in zip(formers, places, strict=True) if place is not None]
    if not there:
        return
    x = np.array([one.station for one, _ in there])
    y, z = (NaturalCubic(x, np.array([place[i] for _, place in there])) for i in (0, 1))
    for one, ways in zip(
        (one for one, _ in there), np.column_stack([y.slope(x), z.slope(x)]), strict=True
    ):
        found[one.id].append((name, (_rounded(float(ways[0])), _rounded(float(ways[1])))))


def _rounded(slope: float) -> float:
    return math.copysign(math.ceil(abs(slope) * _STEPS - 1e-6) / _STEPS, slope) + 0.0


def slanted(
    corners: Array, slope: tuple[float, float], faces: tuple[float, float], opened: Array
) -> BaseGeometry:
    """What a stick of a section takes out of a sheet that it passes at a slope.

    The section stands square to the stick; the sheet's plane cuts it longer, and both of its faces cut it at other
    places.

    Parameters
    ----------
    corners : Array
        Shape (4, 2), of the section about the place where it passes the station.
    slope : (float, float)
        How it moves along y and z per mm of x.
    faces : (float, float)
        The sheet's front and rear face from the station, mm.
    opened : Array
        Shape (2,), which way and how far it is open to the edge; (0, 0) where it is not.
    """
    way = np.array([1.0, *slope])
    way /= np.linalg.norm(way)
    middle = corners.mean(axis=0)
    turned = []
    for edge in (corners[1] - corners[0], corners[3] - corners[0]):
        size = float(np.hypot(*edge))
        flat = np.array([0.0, *edge]) / max(size, 1e-12)
        square = flat - way * float(flat @ way)  # the stick's own side, square to where it goes
        turned.append(size * square / np.linalg.norm(square))
    points = []
    for a, b in ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)):
        corner = a * turned[0] + b * turned[1]
        in_plane = corner - way * corner[0] / way[0]
        points.append(middle + in_plane[1:])
    shapes = [
        np.array(points) + np.array(slope) * face + shift
        for face in faces
        for shift in (np.zeros(2), opened)
    ]
    return shapely.MultiPoint(np.vstack(shapes)).convex_hull
