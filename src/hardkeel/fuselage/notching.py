"""What members take out of a former where they pass it: notches at its edge, holes in its wood.

Plane of the former: (y, z), airframe axes, mm.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.contours import edges_of
from hardkeel.fuselage.inside import ring_inside, skins_at
from hardkeel.fuselage.members.kind import kinds_with, member_kind
from hardkeel.fuselage.methods import methods_with
from hardkeel.fuselage.model import Former, Fuselage, Longeron, Member, Method
from hardkeel.fuselage.running import longeron_corner, lying, seats_along, slanted, slopes_of
from hardkeel.fuselage.standing import faces_of
from hardkeel.geometry.polygons import BaseGeometry, shapely

Sort = Literal["notch", "hole", "gap"]
_OPEN_MM: Final = 2.0  # a notch reaches this far over the edge, so that it is open there
_SHOULDER_MM: Final = 1.5  # of wood left at full height beside a stringer
_SHORTEST_SCALLOP_MM: Final = 4.0
_HOLLOW_STEPS: Final = 17
_HAIR_MM: Final = 1e-6
_HEIGHTS: Final = 9  # at which a side is looked at along a tab


@dataclass(frozen=True, slots=True)
class Passage:
    """Wood that a member takes from a former.

    Attributes
    ----------
    ref : str
        The member's or longeron's id.
    sort : str
        ``notch`` at the edge, ``hole`` in the wood, ``gap`` where a crutch parts it on purpose.
    stick : BaseGeometry, optional
        Of a notch what lies in it at the station, without the room that the slope and the way in want.
    """

    ref: str
    kind: str
    sort: Sort
    shape: BaseGeometry
    stick: BaseGeometry | None = None


@dataclass(frozen=True, slots=True)
class Around:
    """What of a fuselage decides how one of its formers is cut.

    Attributes
    ----------
    skins : (side, top, bottom)
        mm.
    members : tuple of Member
        That pass it, without where they end.
    slopes : tuple of (id, (dy/dx, dz/dx))
        How what runs through it moves outward and up.
    faces : (float, float)
        Its front and rear face from its station, mm.
    scallop : float
        Hollow between stringers, mm.
    halved : bool
        It is cut on the centre line, because of how it is built there or because it is to be.
    edges : (float, float), optional
        Heights at which flat sides end, mm.
    """

    skins: tuple[float, float, float]
    longerons: tuple[Longeron, ...] = ()
    members: tuple[Member, ...] = ()
    slopes: tuple[tuple[str, tuple[float, float]], ...] = ()
    faces: tuple[float, float] = (0.0, 0.0)
    scallop: float = 0.0
    halved: bool = False
    edges: tuple[float, float] | None = None

    def slope(self, ref: str) -> tuple[float, float]:
        """How one moves, level where it is not known."""
        return dict(self.slopes).get(ref, (0.0, 0.0))


def around_of(fuselage: Fuselage, former: Former) -> Around:
    """What surrounds a former in its fuselage.

    Raises
    ------
    BadInput
        When an outline of its fuselage crosses itself.
    """
    return Around(
        skins_at(fuselage, former),
        fuselage.longerons,
        passing(fuselage, former),
        slopes_of(fuselage.drawn).get(former.id, ()),
        _faces(fuselage, former),
        fuselage.framed.scallop,
        former.split or _built(fuselage, former) in methods_with("halved"),
        edges_of(former) if former.section is not None else None,
    )


def _built(fuselage: Fuselage, former: Former) -> Method | None:
    return fuselage.method_at(former.station) if fuselage.former(former.id) is not None else None


def _faces(fuselage: Fuselage, former: Former) -> tuple[float, float]:
    front, rear = faces_of(fuselage, former)
    return round(front - former.station, 3), round(rear - former.station, 3)


def crossing(fuselage: Fuselage, former: Former) -> tuple[Member, ...]:
    """Members that pass a former."""
    members = fuselage.framed.members
    if not members:
        return ()
    stations = {name: stop.station for name, stop in fuselage.stations}
    return tuple(member for member in members if _passes(stations, former, member))


def passing(fuselage: Fuselage, former: Former) -> tuple[Member, ...]:
    """Members that pass a former, without where they end: that is not this former's concern."""
    there = (
        member_kind(member.kind).placed(fuselage, member, former)
        for member in crossing(fuselage, former)
    )
    return tuple(
        member if member.kind == "key" else lying(member) for member in there if member is not None
    )


def _passes(stations: dict[str, float], former: Former, member: Member) -> bool:
    kind = member_kind(member.kind)
    if kind.runs == "former":
        return member.from_ == former.id
    if not kind.passes:
        return False
    if kind.runs == "route":
        return bool(member.route) and member.route[0][0] <= former.station <= member.route[-1][0]
    first = stations[member.from_] if member.from_ else min(stations.values())
    last = stations[member.to] if member.to else max(stations.values())
    if kind.runs == "to" and member.station is not None:
        first = min(member.station, last)
    return first <= former.station <= last - member.short


def passages_of(around: Around, inner: BaseGeometry) -> list[Passage]:
    """What longerons and members take out of a former whose edge is `inner`."""
    if inner.is_empty:
        return []
    found = list(_corner_notches(inner, around))
    found += _stringer_notches(inner, around)
    for member in around.members:
        kind = member_kind(member.kind)
        found += [
            Passage(member.id, member.kind, kind.sort, shape) for shape in kind.takes(member, inner)
        ]
    found += _scallops(around, inner)
    return found


def tabs_of(
    members: tuple[Member, ...], inner: BaseGeometry, side_thickness: float
) -> list[BaseGeometry]:
    """Tabs by which a former is keyed into the sides, through their doublers."""
    if inner.is_empty:
        return []
    left, low, right, high = inner.bounds
    through = sum(m.thickness or 0.0 for m in members if m.kind in kinds_with("doubler"))
    middle = (low + high) / 2
    found: list[BaseGeometry] = []
    for member in members:
        if member.kind == "key" and member.height is not None:
            a, b = middle - member.height / 2, middle + member.height / 2
            port, starboard = _sides_within(inner, a, b)
            found.append(shapely.box(left - side_thickness, a, port + through, b))
            found.append(shapely.box(starboard - through, a, right + side_thickness, b))
    return found


def _sides_within(inner: BaseGeometry, a: float, b: float) -> tuple[float, float]:
    """How far in both sides come between two heights: a tab that ended before would leave a thin point beside it."""
    left, low, right, high = inner.bounds
    port, starboard = [left], [right]
    for z in np.linspace(max(a, low + _HAIR_MM), min(b, high - _HAIR_MM), _HEIGHTS):
        across = inner.intersection(shapely.LineString([(left - 1, z), (right + 1, z)]))
        if not across.is_empty:
            port.append(across.bounds[0])
            starboard.append(across.bounds[2])
    return max(port), min(starboard)


def stringer_hands(member: Member) -> tuple[int, ...]:
    """The sides on which a stringer lies: one on the centre line, else both, starboard first."""
    return (1,) if member.angle in (0.0, 180.0) else (1, -1)


def _slanting(around: Around) -> tuple[Member, ...]:
    return tuple(one for one in around.members if one.kind in kinds_with("slanting"))


def _stringer_notches(inner: BaseGeometry, around: Around) -> Iterator[Passage]:
    """Notches as deep as stringers, square to the edge, and the stringers in them: all of a side at once."""
    stringers = _slanting(around)
    known = dict(around.slopes)
    for hand in (1, -1) if stringers else ():
        mine = [one for one in stringers if hand in stringer_hands(one)]
        seats = seats_along(ring_inside(inner, hand), mine, hand)
        there = [one for one, is_there in zip(mine, seats.there, strict=True) if is_there]
        if not there:
            continue
        at, out = seats.at[seats.there], seats.out[seats.there]
        sizes = np.array([one.section or (0.0, 0.0) for one in there])
        deep, wide = sizes[:, :1] * out, sizes[:, 1:] / 2
        along = wide * np.column_stack([-out[:, 1], out[:, 0]])
        corners = np.stack([at - along - deep, at + along - deep, at + along, at - along], axis=1)
        slopes = np.array([known.get(one.id, (0.0, 0.0)) for one in there]) * (float(hand), 1.0)
        taken = slanted(corners, slopes, around.faces, _OPEN_MM * out)
        sticks = shapely.polygons(corners)
        for one, notch, stick in zip(there, taken, sticks, strict=True):
            yield Passage(one.id, one.kind, "notch", notch, stick)


def _corner_notches(inner: BaseGeometry, around: Around) -> Iterator[Passage]:
    """Corners taken out for longerons, starboard and port; on a round section they are sunk until they touch."""
    there, corners, slopes, outs = [], [], [], []
    for longeron in around.longerons:
        across, deep = longeron.section
        up = 1.0 if longeron.is_lower else -1.0
        dy, dz = around.slope(f"longeron {longeron.id}")
        for hand in (1, -1):
            corner = longeron_corner(longeron, inner, hand, around.edges)
            if corner is None:
                continue
            y, z = corner
            inward, other = y - hand * across, z + up * deep
            there.append(longeron)
            corners.append([(inward, other), (y, other), (y, z), (inward, z)])
            slopes.append((hand * dy, dz))
            outs.append((hand * _OPEN_MM, -up * _OPEN_MM))
    if not there:
        return
    at = np.array(corners)
    taken = slanted(at, np.array(slopes), around.faces, np.array(outs))
    for longeron, notch, stick in zip(there, taken, shapely.polygons(at), strict=True):
        yield Passage(longeron.id, "longeron", "notch", notch, stick)


def _scallops(around: Around, inner: BaseGeometry) -> Iterator[Passage]:
    """Hollows of a former's edge between neighbouring stringers, deepest in their middle."""
    if around.scallop <= 0:
        return
    stringers = _slanting(around)
    for hand in (1, -1):
        ring = ring_inside(inner, hand)
        if ring is None:
            continue
        line = shapely.LineString(ring)
        seats = seats_along(ring, stringers, hand)
        places = sorted(
            (line.project(shapely.Point(hand * at[0], at[1])), (one.section or (0.0, 0.0))[1])
            for one, at, there in zip(stringers, seats.at, seats.there, strict=True)
            if there
        )
        for (a, wide_a), (b, wide_b) in pairwise(places):
            start, end = a + wide_a / 2 + _SHOULDER_MM, b - wide_b / 2 - _SHOULDER_MM
            if end - start > _SHORTEST_SCALLOP_MM:
                yield Passage(
                    "", "scallop", "notch", _hollow(line, start, end, around.scallop, hand)
                )


def _hollow(line: BaseGeometry, start: float, end: float, deep: float, hand: int) -> BaseGeometry:
    share = np.linspace(0.0, 1.0, _HOLLOW_STEPS)
    points = shapely.get_coordinates(line.interpolate(start + share * (end - start)))
    run = np.gradient(points, axis=0)
    inward = np.column_stack([-run[:, 1], run[:, 0]]) / np.maximum(np.hypot(*run.T), 1e-9)[:, None]
    inner = points + (deep * np.sin(np.pi * share))[:, None] * inward
    outer = points - _OPEN_MM * inward
    found = shapely.Polygon(np.vstack([inner, outer[::-1]]) * (float(hand), 1.0))
    return found if found.is_valid else found.buffer(0)
