"""Where longerons and stringers run through the formers, and at what slope.

Plane of a former: (y, z), airframe axes, mm; starboard.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.fuselage.contours import bare, edges_of
from hardkeel.fuselage.inside import inside_skins, ring_inside, skins_at, wood_inside
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage, Longeron, Member
from hardkeel.fuselage.surface import is_shaped
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import weights

_STEPS: Final = (
    256  # of a slope: a notch is up to a hundredth wider than it must be, and cut anew less often
)
_CROWN, _KEEL = 0.0, 180.0  # degrees of a stringer on the centre line
_HAIR: Final = 1e-12
_HAIR_MM: Final = 1e-3
_WIDENED: Final = 12


@dataclass(frozen=True, slots=True)
class Seats:
    """Where stringers lie against a former's edge, on one side.

    Attributes
    ----------
    there : Array of bool
        Shape (m,), whether the wood has an edge where each would lie.
    at : Array
        Shape (m, 2), the middles of their outer faces.
    out : Array
        Shape (m, 2), square to the edge there, outward, of length 1.
    """

    there: np.ndarray[tuple[int], np.dtype[np.bool_]]
    at: Array
    out: Array


@lru_cache(maxsize=1024)
def seats_on(
    former: Former, skins: tuple[float, float, float], stringers: tuple[Member, ...], hand: int
) -> Seats:
    """Where stringers lie on the starboard side of a former's wood, on the port side with a hand of −1.

    By their angle from the former's middle, or by their share of the girth from the crown; flush with the chord under
    their own width.
    """
    return seats_along(ring_inside(wood_inside(former, skins), hand), stringers, hand)


def seats_along(ring: Array | None, stringers: Sequence[Member], hand: int = 1) -> Seats:
    """The same along half of a wood's edge, as `inside.ring_inside` gives it; nowhere without one."""
    count = len(stringers)
    if ring is None or not count:
        return Seats(np.zeros(count, dtype=bool), np.zeros((count, 2)), np.zeros((count, 2)))
    arc = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(ring, axis=0).T))])
    angles = np.array([one.angle for one in stringers])
    along = arc[-1] * (1 - angles / 180)
    there = np.ones(count, dtype=bool)
    for i, one in enumerate(stringers):
        if not one.by_girth:
            found = _arc_at_angle(ring, arc, one.angle)
            there[i] = found is not None
            along[i] = found or 0.0
    half = np.array([(one.section or (0.0, 0.0))[1] / 2 for one in stringers])
    crown, keel = angles == _CROWN, angles == _KEEL
    reach, ends = half.copy(), [np.zeros((count, 2))] * 2
    # round a corner a chord as wide as the stringer spans more of the edge
    for _ in range(_WIDENED):
        ends = [
            np.column_stack([np.interp(end, arc, ring[:, i]) for i in (0, 1)])
            for end in (np.clip(along - reach, 0.0, None), np.clip(along + reach, None, arc[-1]))
        ]
        chord = np.hypot(*(ends[1] - ends[0]).T)
        chord = np.where(crown, 2 * ends[0][:, 0], np.where(keel, 2 * ends[1][:, 0], chord))
        short = chord < 2 * half - _HAIR_MM
        if not short.any():
            break
        reach = np.where(
            short, reach * np.clip(2 * half / np.maximum(chord, _HAIR), 1.0, 2.0), reach
        )
    run = ends[1] - ends[0]
    size = np.maximum(np.hypot(*run.T), _HAIR)[:, None]
    out = np.column_stack([run[:, 1], -run[:, 0]]) / size
    at = (ends[0] + ends[1]) / 2
    for middle, up, inward in ((crown, 1.0, np.minimum), (keel, -1.0, np.maximum)):
        at[middle, 0], out[middle] = 0.0, (0.0, up)
        at[middle, 1] = inward(ends[0][middle, 1], ends[1][middle, 1])
    return Seats(there, at * (float(hand), 1.0), out * (float(hand), 1.0))


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
    return float(arc[-1]) if angle == _CROWN else 0.0 if angle == _KEEL else None


@lru_cache(maxsize=2048)
def lying(member: Member) -> Member:
    """A member without where it ends: how it lies on a former does not hang on that."""
    return member.but(from_=None, to=None, short=0.0)


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
    for first, last, members in _by_span(fuselage):
        under = [one for one in formers if first <= one.station <= last]
        if not under:
            continue
        stringers = tuple(lying(one) for one in members)
        seats = [seats_on(bare(one), skins_at(fuselage, one), stringers, 1) for one in under]
        there = np.array([one.there for one in seats])
        at = np.array([one.at for one in seats])
        x = tuple(one.station for one in under)
        slopes = np.tensordot(weights(x, x, 1), at, axes=1)
        for k, member in enumerate(members):
            if there[:, k].all():
                for one, slope in zip(under, slopes[:, k], strict=True):
                    found[one.id].append((member.id, _both_rounded(slope)))
            else:
                places = [
                    (float(row[k, 0]), float(row[k, 1])) if here[k] else None
                    for row, here in zip(at, there, strict=True)
                ]
                _add(found, member.id, under, places)
    return {name: tuple(ways) for name, ways in found.items()}


@lru_cache(maxsize=16)
def stringer_places(fuselage: Fuselage) -> dict[str, tuple[tuple[float, float, float], ...]]:
    """Where each stringer leaves each former's wood that it passes, (x, y, z), mm, on the starboard side, by station."""
    found: dict[str, tuple[tuple[float, float, float], ...]] = {}
    formers = sorted(fuselage.formers, key=lambda one: one.station)
    for first, last, members in _by_span(fuselage):
        under = [one for one in formers if first <= one.station <= last]
        stringers = tuple(lying(one) for one in members)
        seats = [seats_on(bare(one), skins_at(fuselage, one), stringers, 1) for one in under]
        for k, member in enumerate(members):
            found[member.id] = tuple(
                (one.station, float(seat.at[k, 0]), float(seat.at[k, 1]))
                for one, seat in zip(under, seats, strict=True)
                if seat.there[k]
            )
    return found


def longeron_line(fuselage: Fuselage, longeron: Longeron) -> tuple[tuple[float, float, float], ...]:
    """The middle of a longeron at each former that it lies in, (x, y, z), mm, on the starboard side, by station.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    across, deep = longeron.section
    up = 1.0 if longeron.is_lower else -1.0
    found = []
    for one in sorted(fuselage.formers, key=lambda one: one.station):
        edges = edges_of(one) if one.section is not None else None
        corner = longeron_corner(longeron, inside_skins(fuselage, one), edges=edges)
        if corner is not None:
            found.append((one.station, corner[0] - across / 2, corner[1] + up * deep / 2))
    return tuple(found)


def _by_span(fuselage: Fuselage) -> Iterator[tuple[float, float, tuple[Member, ...]]]:
    """Stringers that run between the same stations, together."""
    groups: dict[tuple[float, float], list[Member]] = {}
    for member in fuselage.framed.members:
        if member.kind == "stringer":
            groups.setdefault(fuselage.span(member), []).append(member)
    for (first, last), members in groups.items():
        yield first, last, tuple(members)


def _add(
    found: dict[str, list[tuple[str, tuple[float, float]]]],
    name: str,
    formers: Sequence[Former],
    places: Sequence[tuple[float, float] | None],
) -> None:
    there = [(one, place) for one, place in zip(formers, places, strict=True) if place is not None]
    if not there:
        return
    x = tuple(one.station for one, _ in there)
    slopes = weights(x, x, 1) @ np.array([place for _, place in there])
    for (one, _), slope in zip(there, slopes, strict=True):
        found[one.id].append((name, _both_rounded(slope)))


def _both_rounded(slope: Array) -> tuple[float, float]:
    return _rounded(float(slope[0])), _rounded(float(slope[1]))


def _rounded(slope: float) -> float:
    return math.copysign(math.ceil(abs(slope) * _STEPS - 1e-6) / _STEPS, slope) + 0.0


def slanted(
    corners: Array, slopes: Array, faces: tuple[float, float], opened: Array
) -> list[BaseGeometry]:
    """What sticks of a section take out of a sheet that they pass at a slope.

    A section stands square to its stick; the sheet's plane cuts it longer, and both of its faces cut it at other
    places.

    Parameters
    ----------
    corners : Array
        Shape (m, 4, 2), of each section about the place where it passes the station.
    slopes : Array
        Shape (m, 2), how it moves along y and z per mm of x.
    faces : (float, float)
        The sheet's front and rear face from the station, mm.
    opened : Array
        Shape (m, 2), which way and how far each is open to the edge; (0, 0) where it is not.
    """
    count = len(corners)
    if not count:
        return []
    way = np.column_stack([np.ones(count), slopes])
    way /= np.linalg.norm(way, axis=1)[:, None]
    middle = corners.mean(axis=1)
    turned = []
    for edge in (corners[:, 1] - corners[:, 0], corners[:, 3] - corners[:, 0]):
        size = np.hypot(*edge.T)[:, None]
        flat = np.column_stack([np.zeros(count), edge / np.maximum(size, _HAIR)])
        # the stick's own side, square to where it goes
        square = flat - way * np.sum(flat * way, axis=1)[:, None]
        turned.append(size * square / np.linalg.norm(square, axis=1)[:, None])
    found = []
    for a, b in ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)):
        corner = a * turned[0] + b * turned[1]
        in_plane = middle + (corner - way * (corner[:, :1] / way[:, :1]))[:, 1:]
        for face in faces:
            found += [in_plane + slopes * face, in_plane + slopes * face + opened]
    points = np.stack(found, axis=1)
    each = np.repeat(np.arange(count), points.shape[1])
    hulls = shapely.convex_hull(shapely.multipoints(points.reshape(-1, 2), indices=each))
    return list(hulls)
