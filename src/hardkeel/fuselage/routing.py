"""A guide's way through the fuselage: a batten through given places; where it turns, what it meets, where it comes out.

Airframe axes, mm.  A tube of plastic or a cable's sheath lies as a thin batten does between the places that hold it:
natural cubics over the station.  What a bend costs: a cable that turns by θ in all rubs by exp(μθ) (the capstan
equation, L. Euler 1769), however tight; so the turn is told beside the tightest radius.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.flatwork import inner_half
from hardkeel.fuselage.members.kind import kinds_with
from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.running import longeron_line
from hardkeel.fuselage.sheeted import Side
from hardkeel.fuselage.stringers import stringer_points
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

_STEP_MM: Final = 1.0
_MOST_STEPS: Final = 4000
_STRAIGHT_MM: Final = 1e5  # a larger radius is none
_RUBS: Final = 0.2  # steel in nylon and the like, as tables of friction have it


@dataclass(frozen=True, slots=True)
class Way:
    """How a guide runs.

    Attributes
    ----------
    length : float
        mm.
    radius, at : float
        The tightest bend, infinite where it is straight, and the station where it is.
    turn : float
        By how much it turns in all, degrees.
    pull : float
        How many times as hard as a straight one it is to pull.
    """

    length: float
    radius: float
    at: float
    turn: float
    pull: float


@dataclass(frozen=True, slots=True)
class Exit:
    """Where a guide leaves the inside.

    Attributes
    ----------
    face : str
        ``port``, ``starboard``, ``top`` or ``bottom``.
    place : (x, y, z)
    slot : float
        How long the slot is that it needs there, mm: its diameter over the sine of the angle at which it comes through.
    """

    face: str
    place: tuple[float, float, float]
    slot: float


def line_of(member: Member) -> tuple[NaturalCubic, NaturalCubic]:
    """To starboard and up, over the station."""
    places = np.array(member.route, dtype=float)
    return NaturalCubic(places[:, 0], places[:, 1]), NaturalCubic(places[:, 0], places[:, 2])


def places_of(member: Member) -> Array:
    """The way as points, shape (n, 3), a millimetre apart along the fuselage or so."""
    first, last = member.route[0][0], member.route[-1][0]
    count = int(min(max(math.ceil((last - first) / _STEP_MM), 2), _MOST_STEPS)) + 1
    x = np.linspace(first, last, count)
    across, up = line_of(member)
    return np.column_stack([x, across.value(x), up.value(x)])


@lru_cache(maxsize=64)
def way_of(member: Member) -> Way:
    """How a guide runs from its first place to its last."""
    x = places_of(member)[:, 0]
    across, up = line_of(member)
    speed = np.column_stack([np.ones_like(x), across.slope(x), up.slope(x)])
    bent = np.column_stack([np.zeros_like(x), across.bend(x), up.bend(x)])
    fast = np.linalg.norm(speed, axis=1)
    curvature = np.linalg.norm(np.cross(speed, bent), axis=1) / fast**3
    tightest = int(np.argmax(curvature))
    radius = 1 / curvature[tightest] if curvature[tightest] > 1 / _STRAIGHT_MM else math.inf
    length = float(np.trapezoid(fast, x))
    turn = float(np.trapezoid(curvature * fast, x))
    return Way(
        length, float(radius), float(x[tightest]), math.degrees(turn), math.exp(_RUBS * turn)
    )


def at_former(member: Member, station: float, thickness: float) -> Member | None:
    """A guide as it passes a former: its place there, and in `section` how far its hole is drawn out by its slant.

    ``None`` where it does not reach so far.
    """
    first, last = member.route[0][0], member.route[-1][0]
    if not first <= station <= last:
        return None
    across, up = line_of(member)
    return member.but(
        y=round(float(across.value(station)), 4),
        z=round(float(up.value(station)), 4),
        slant=(
            round(abs(float(across.slope(station))) * thickness, 4),
            round(abs(float(up.slope(station))) * thickness, 4),
        ),
        route=(),
    )


def exits_of(fuselage: Fuselage, member: Member) -> tuple[Exit, ...]:
    """Where it comes through side, top or bottom, from its first place to its last.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    side = Side(fuselage)
    points = places_of(member)
    stations = fuselage.stations
    points = points[
        (points[:, 0] >= stations[0][1].station) & (points[:, 0] <= stations[-1][1].station)
    ]
    if len(points) < 2:  # noqa: PLR2004  it does not run inside
        return ()
    x, y, z = points.T
    low = np.asarray(side.loft.bottom.value(x)) + fuselage.bottom_skin
    high = np.asarray(side.loft.top.value(x)) - fuselage.top_skin
    half = np.array([float(inner_half(side, x[i : i + 1], float(z[i]))[0]) for i in range(len(x))])
    room = {"starboard": half - y, "port": half + y, "top": high - z, "bottom": z - low}
    inside = np.all([gap > 0 for gap in room.values()], axis=0)
    found = []
    for i in np.flatnonzero(inside[1:] != inside[:-1]):
        out = i + 1 if inside[i] else i
        face = min(room, key=lambda name: float(room[name][out]))
        gap = room[face]
        share = float(gap[i] / (gap[i] - gap[i + 1])) if gap[i] != gap[i + 1] else 0.0
        place = points[i] + share * (points[i + 1] - points[i])
        run = points[i + 1] - points[i]
        lies = np.array([run[0], 0.0, run[2]]) if face in ("port", "starboard") else run * (1, 1, 0)
        cross = math.sqrt(max(1 - float(lies @ lies) / float(run @ run), 1e-6))
        found.append(
            Exit(
                face,
                (float(place[0]), float(place[1]), float(place[2])),
                (member.diameter or 0.0) / cross,
            )
        )
    return tuple(found)


def met_by(fuselage: Fuselage, member: Member) -> tuple[tuple[str, float], ...]:
    """What a guide runs into between formers, each with the first station where it does: strips, trays, other guides.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    points = places_of(member)
    radius = (member.diameter or 0.0) / 2
    found: dict[str, float] = {}
    for ref, near in _strips(fuselage, points):
        hit = np.flatnonzero(near < radius)
        if len(hit):
            found[ref] = min(found.get(ref, math.inf), float(points[hit[0], 0]))
    for other in fuselage.framed.members:
        if other.kind == "guide" and other.id != member.id and len(other.route) > 1:
            hit = np.flatnonzero(_apart(points, other) < radius + (other.diameter or 0.0) / 2)
            if len(hit):
                found[other.id] = float(points[hit[0], 0])
    for plate in (one for one in fuselage.framed.members if one.kind in kinds_with("plate")):
        hit = np.flatnonzero(_in_plate(fuselage, plate, points, radius))
        if len(hit):
            found[plate.id] = float(points[hit[0], 0])
    return tuple(sorted(found.items(), key=lambda one: one[1]))


def _apart(points: Array, other: Member) -> Array:
    """From each point to another guide, station by station; infinite where it does not run."""
    across, up = line_of(other)
    x = points[:, 0]
    apart = np.hypot(points[:, 1] - across.value(x), points[:, 2] - up.value(x))
    runs = (x >= other.route[0][0]) & (x <= other.route[-1][0])
    return np.where(runs, apart, np.inf)


def _in_plate(fuselage: Fuselage, plate: Member, points: Array, radius: float) -> Array:
    """Which points lie in a plate's wood, the guide's radius about it."""
    first, last = fuselage.span(plate)
    x, y, z = points.T
    there = (x > first) & (x < last)
    there &= np.abs(z - plate.z) < (plate.thickness or 0.0) / 2 + radius
    if plate.width is not None:
        there &= np.abs(y) < plate.width / 2 + radius
    return np.asarray(there)


def _sunk(
    places: tuple[tuple[float, float, float], ...], stringer: Member
) -> tuple[tuple[float, float, float], ...]:
    """The middle of a stringer that lies flush in the wood: half its depth inward, along its angle."""
    deep = (stringer.section or (0.0, 0.0))[0] / 2
    way = math.radians(stringer.angle)
    return tuple((x, y - deep * math.sin(way), z - deep * math.cos(way)) for x, y, z in places)


def _strips(fuselage: Fuselage, points: Array) -> Iterator[tuple[str, Array]]:
    """Longerons and stringers, with how far each point lies from their wood's edge at its station."""
    x, y, z = points.T
    lines = [
        (f"longeron_{one.id}", longeron_line(fuselage, one), one.section, (1, -1))
        for one in fuselage.longerons
    ]
    lines += [
        (one.id, _sunk(stringer_points(fuselage, one), one), one.section or (0.0, 0.0), (1, -1))
        for one in fuselage.framed.members
        if one.kind == "stringer"
    ]
    for ref, line, section, hands in lines:
        for (a, b), hand in ((pair, hand) for pair in pairwise(line) for hand in hands):
            if b[0] <= a[0]:
                continue
            there = (x >= a[0]) & (x <= b[0])
            share = (x - a[0]) / (b[0] - a[0])
            middle = (hand * (a[1] + share * (b[1] - a[1])), a[2] + share * (b[2] - a[2]))
            half = min(section) / 2  # what is told to meet does
            apart = np.hypot(y - middle[0], z - middle[1]) - half
            yield ref, np.where(there, apart, np.inf)
