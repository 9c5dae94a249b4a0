"""What members take out of a former where they pass it: notches at its edge, holes in its wood.

Plane of the former: (y, z), airframe axes, mm.
"""

import math
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.fuselage.members.kind import kinds_with, member_kind
from hardkeel.fuselage.model import Former, Fuselage, Longeron, Member
from hardkeel.geometry.polygons import BaseGeometry, Polygon, affinity, shapely

Sort = Literal["notch", "hole", "gap"]
_IN_WOOD: Final = 0.6  # share of a longeron's notch that must lie in the wood
_DEEPEST_MM: Final = 30.0
_SUNK_TO_MM: Final = 0.25
_FAR_MM: Final = 1e5


@dataclass(frozen=True, slots=True)
class Passage:
    """Wood that a member takes from a former.

    Attributes
    ----------
    ref : str
        The member's or longeron's id.
    sort : str
        ``notch`` at the edge, ``hole`` in the wood, ``gap`` where a crutch parts it on purpose.
    """

    ref: str
    kind: str
    sort: Sort
    shape: BaseGeometry


def crossing(fuselage: Fuselage, former: Former) -> tuple[Member, ...]:
    """Members that pass a former."""
    members = fuselage.framed.members
    if not members:
        return ()
    stations = {name: stop.station for name, stop in fuselage.stations}
    return tuple(member for member in members if _passes(stations, former, member))


def passing(fuselage: Fuselage, former: Former) -> tuple[Member, ...]:
    """Members that pass a former, without where they end: that is not this former's concern."""
    return tuple(
        member if member.kind == "key" else member.but(from_=None, to=None, short=0.0)
        for member in crossing(fuselage, former)
    )


def _passes(stations: dict[str, float], former: Former, member: Member) -> bool:
    kind = member_kind(member.kind)
    if kind.runs == "former":
        return member.from_ == former.id
    if not kind.passes:
        return False
    first = stations[member.from_] if member.from_ else min(stations.values())
    last = stations[member.to] if member.to else max(stations.values())
    if kind.runs == "to" and member.station is not None:
        first = min(member.station, last)
    return first <= former.station <= last - member.short


def passages_of(
    longerons: tuple[Longeron, ...], members: tuple[Member, ...], inner: BaseGeometry
) -> list[Passage]:
    """What longerons and members take out of a former whose edge is `inner`."""
    if inner.is_empty:
        return []
    found = [
        Passage(longeron.id, "longeron", "notch", notch)
        for longeron in longerons
        for notch in _corner_notches(longeron, inner)
    ]
    for member in members:
        kind = member_kind(member.kind)
        found += [
            Passage(member.id, member.kind, kind.sort, shape) for shape in kind.takes(member, inner)
        ]
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
            found.append(shapely.box(left - side_thickness, a, left + through, b))
            found.append(shapely.box(right - through, a, right + side_thickness, b))
    return found


def stringer_ways(angle: float) -> tuple[float, ...]:
    """Angles at which a stringer lies, degrees from straight up to starboard: one, or one on each side."""
    return (angle,) if angle in (0.0, 180.0) else (angle, -angle)


def stringer_place(angle: float, inner: BaseGeometry) -> tuple[float, float] | None:
    """Where the ray from a former's middle at an angle leaves its wood, (y, z); ``None`` if nowhere."""
    if inner.is_empty:
        return None
    _, low, _, high = inner.bounds
    middle = (low + high) / 2
    way = math.radians(angle)
    ray = shapely.LineString(
        [(0.0, middle), (_FAR_MM * math.sin(way), middle + _FAR_MM * math.cos(way))]
    )
    inside = inner.intersection(ray)
    if inside.is_empty:
        return None
    points = shapely.get_coordinates(inside)
    y, z = max(points.tolist(), key=lambda p: math.hypot(p[0], p[1] - middle))
    return float(y), float(z)


def _corner_notches(longeron: Longeron, inner: BaseGeometry) -> list[BaseGeometry]:
    """Corners taken out for a longeron; on a round section they sink in where they touch it."""
    left, low, right, high = inner.bounds
    across, deep = longeron.section
    upper = not longeron.is_lower
    z = high - deep if upper else low
    starboard = _sunk(inner, shapely.box(right - across, z, right, z + deep), 1, upper=upper)
    port = affinity.scale(starboard, -1.0, 1.0, origin=((left + right) / 2, 0.0))
    if inner.intersection(port).area < _IN_WOOD * across * deep:  # not alike on both sides
        port = _sunk(inner, shapely.box(left, z, left + across, z + deep), -1, upper=upper)
    return [starboard, port]


def _sunk(inner: BaseGeometry, square: Polygon, outward: int, *, upper: bool) -> BaseGeometry:
    """Move a notch along the diagonal until it lies in the wood of a round corner."""
    left, bottom, right, top = square.bounds

    def sunk_by(mm: float) -> BaseGeometry:
        y, z = -outward * mm, -mm if upper else mm
        return shapely.box(left + y, bottom + z, right + y, top + z)

    def held(place: BaseGeometry) -> bool:
        return bool(inner.intersection(place).area > _IN_WOOD * square.area)

    if held(square):
        return square
    low, high = 0.0, right - left + _DEEPEST_MM
    while high - low > _SUNK_TO_MM:  # deeper is always more in the wood: halve
        middle = (low + high) / 2
        low, high = (low, middle) if held(sunk_by(middle)) else (middle, high)
    found = sunk_by(high)
    return found if held(found) else square
