"""The sticks of open sides: uprights and diagonals as they are cut, laid out flat as they will be bent.

The drawing is (s, z): along the developed station, up the height, mm.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise
from typing import Final, Literal

from hardkeel.base.values import Point2
from hardkeel.fuselage.contours import edges_of
from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import Bracing, Fuselage, Section
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.strips import strip_in

Kind = Literal["upright", "diagonal"]
_HAIR: Final = 1e-6  # mm: a facet shorter than this is none


@dataclass(frozen=True, slots=True)
class Stick:
    """A stick of one side, to be cut twice.

    Attributes
    ----------
    section : (float, float)
        Across the side, and as seen in the drawing, mm.
    outline : tuple of (s, z)
        As it is cut.
    length : float
        The longest extent of the outline along its axis, mm.
    ends : (tuple, tuple)
        At its lower or front end, and at the other: angles between the axis and each face of the cut,
        degrees, 90 for square; a pointed end has two, the upright's first.
    key : str
        What it is called wherever it is remembered: by its stops, so that another's coming or going
        leaves it.
    section_from : str
        The stop at which its section of the fuselage begins.
    """

    kind: Kind
    section: tuple[float, float]
    outline: tuple[Point2, ...]
    length: float
    ends: tuple[tuple[float, ...], tuple[float, ...]]
    key: str = ""
    section_from: str = ""


class _Edge:
    """The inside edge of a longeron: its outside line moved inward by its depth, square to it."""

    def __init__(self, points: Sequence[Point2], inward: float) -> None:
        self.outside = tuple(points)
        lines = [_moved(a, b, inward) for a, b in pairwise(points)]
        self._slopes = [slope for slope, _ in lines]
        self._lines = lines
        self.kinks = [
            _meet(one, other, at[0])
            for one, other, at in zip(lines, lines[1:], points[1:], strict=False)
        ]

    def z(self, s: float) -> float:
        """Its height at a place along the side."""
        i = sum(1 for kink in self.kinks if kink[0] < s)
        slope, rise = self._lines[i]
        return slope * s + rise

    def between(self, a: float, b: float) -> list[Point2]:
        """Its points from a to b, kinks included."""
        inner = [kink for kink in self.kinks if a < kink[0] < b]
        return [(a, self.z(a)), *inner, (b, self.z(b))]


def _moved(a: Point2, b: Point2, inward: float) -> tuple[float, float]:
    """Slope and height at 0 of the line through two points, moved square to itself; up is positive."""
    slope = (b[1] - a[1]) / (b[0] - a[0])
    return slope, a[1] - slope * a[0] + inward * math.hypot(1.0, slope)


def _meet(one: tuple[float, float], other: tuple[float, float], near: float) -> Point2:
    """Where two lines meet; over `near` where they are one."""
    if abs(one[0] - other[0]) < 1e-12:  # noqa: PLR2004  one straight line
        return near, one[0] * near + one[1]
    s = (other[1] - one[1]) / (one[0] - other[0])
    return s, one[0] * s + one[1]


@dataclass(frozen=True, slots=True)
class _Drawing:
    """An open section laid out flat: inside edges, and the faces of its uprights.

    Attributes
    ----------
    names : tuple of str
        Of its stations.
    faces : tuple of (s, s)
        Front and rear face of the upright at each.
    """

    lower: _Edge
    upper: _Edge
    names: tuple[str, ...]
    faces: tuple[tuple[float, float], ...]

    def room(self, number: int) -> float:
        """The least height between the inside edges at an upright, mm."""
        return min(self.upper.z(s) - self.lower.z(s) for s in self.faces[number])


@lru_cache(maxsize=16)
def sticks_of(fuselage: Fuselage) -> tuple[Stick, ...]:
    """Every stick of one side's open sections, from nose to tail: uprights, then diagonals of each.

    Where the longerons leave no room there is none; `closed_stations` says where.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft, bracing = loft_of(fuselage), fuselage.bracing
    if bracing is None:
        return ()
    found: list[Stick] = []
    for section in sections_with(fuselage, "sticks"):
        sticks = _sticks(_drawn(fuselage, loft, section, bracing), bracing)
        found += (replace(stick, section_from=section.from_) for stick in sticks)
    return tuple(found)


@dataclass(frozen=True, slots=True)
class LongeronStrip:
    """A longeron of one open section in the drawing: its outside line and its inside edge, (s, z) mm."""

    is_lower: bool
    section_from: str
    outside: tuple[Point2, ...]
    inside: tuple[Point2, ...]


def longeron_strips_of(fuselage: Fuselage) -> tuple[LongeronStrip, ...]:
    """The longerons of every open section as they are pinned down.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft, bracing = loft_of(fuselage), fuselage.bracing or Bracing()
    found: list[LongeronStrip] = []
    for section in sections_with(fuselage, "sticks"):
        drawn = _drawn(fuselage, loft, section, bracing)
        for is_lower, edge in ((False, drawn.upper), (True, drawn.lower)):
            start, end = edge.outside[0][0], edge.outside[-1][0]
            inside = tuple(edge.between(start, end))
            found.append(LongeronStrip(is_lower, section.from_, edge.outside, inside))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Corner:
    """A corner of an open bay in which no diagonal ends.

    Attributes
    ----------
    before, behind : str
        The bay's stops.
    at : (s, z)
        Where upright and longeron meet, mm.
    angle : float
        Between the upright's face and the longeron's inside edge, degrees.
    along, up : float
        How long the two run in this bay, mm.
    slope : float
        By how much the longeron's edge rises for each mm into the bay.
    """

    before: str
    behind: str
    at: Point2
    angle: float
    along: float
    up: float
    slope: float


def free_corners_of(fuselage: Fuselage) -> tuple[Corner, ...]:
    """Corners of open bays without a diagonal's end, from nose to tail, lower before upper.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft, bracing = loft_of(fuselage), fuselage.bracing or Bracing()
    found: list[Corner] = []
    for section in sections_with(fuselage, "sticks"):
        found += _free_corners(_drawn(fuselage, loft, section, bracing), bracing)
    return tuple(found)


def _free_corners(drawn: _Drawing, bracing: Bracing) -> Iterator[Corner]:
    braced = bracing.diagonal is not None and bracing.pattern != "none"
    for number, ((_, a), (b, _)) in enumerate(pairwise(drawn.faces)):
        if b - a <= _HAIR or min(drawn.room(number), drawn.room(number + 1)) <= _HAIR:
            continue
        rises = number % 2 == 0
        for edge, is_lower in ((drawn.lower, True), (drawn.upper, False)):
            for s, is_front in ((a, True), (b, False)):
                # a rising diagonal ends at the lower front and the upper rear corner
                taken = braced and (bracing.pattern == "crossed" or (is_lower == is_front) == rises)
                if taken:
                    continue
                other = b if is_front else a
                line = edge.between(a, b)
                near = line[1] if is_front else line[-2]
                run, rise = abs(near[0] - s), near[1] - edge.z(s)
                tilt = math.degrees(math.atan2(rise, run))
                up = drawn.upper.z(s) - drawn.lower.z(s)
                yield Corner(
                    drawn.names[number],
                    drawn.names[number + 1],
                    (s, edge.z(s)),
                    90 - tilt if is_lower else 90 + tilt,
                    abs(other - s),
                    up,
                    rise / run,
                )


def closed_stations(fuselage: Fuselage) -> tuple[tuple[str, float], ...]:
    """Stations of open sections where the longerons leave no room for a stick, and how much is lacking, mm.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft, bracing = loft_of(fuselage), fuselage.bracing or Bracing()
    found: dict[str, float] = {}
    for section in sections_with(fuselage, "sticks"):
        drawn = _drawn(fuselage, loft, section, bracing)
        for number, name in enumerate(drawn.names):
            if drawn.room(number) <= _HAIR:
                found[name] = -drawn.room(number)
    return tuple(found.items())


def _drawn(fuselage: Fuselage, loft: Loft, section: Section, bracing: Bracing) -> _Drawing:
    first, last = loft.names.index(section.from_), loft.names.index(section.to)
    developed = [float(s) for s in loft.developed()[first : last + 1]]
    stations = [stop for _, stop in fuselage.stations[first : last + 1]]
    depth = {longeron.is_lower: longeron.section[1] for longeron in fuselage.longerons}
    edges = [
        edges_of(stop) for stop in stations
    ]  # of flat sides under their deck, over their belly
    tops = [
        (s, min(stop.top - fuselage.top_skin, edge))
        for s, stop, (_, edge) in zip(developed, stations, edges, strict=True)
    ]
    lows = [
        (s, max(stop.bottom + fuselage.bottom_skin, edge))
        for s, stop, (edge, _) in zip(developed, stations, edges, strict=True)
    ]
    upper, lower = _Edge(tops, -depth.get(False, 0.0)), _Edge(lows, depth.get(True, 0.0))
    width = bracing.upright[1] if bracing.upright is not None else 0.0
    return _Drawing(lower, upper, loft.names[first : last + 1], tuple(_faces(developed, width)))


def _sticks(drawn: _Drawing, bracing: Bracing) -> Iterator[Stick]:
    lower, upper = drawn.lower, drawn.upper
    open_ = [drawn.room(i) > _HAIR for i in range(len(drawn.faces))]
    if bracing.upright is not None:
        for name, has_room, faces in zip(drawn.names, open_, drawn.faces, strict=True):
            if has_room:
                yield replace(
                    _upright(bracing.upright, faces, lower, upper),
                    key=f"upright {name} of {drawn.names[0]}",
                )
    if bracing.diagonal is None or bracing.pattern == "none":
        return
    for number, ((_, a), (b, _)) in enumerate(pairwise(drawn.faces)):
        if b - a <= _HAIR or not (open_[number] and open_[number + 1]):
            continue  # uprights that touch, or no room between the longerons
        rising = (True, False) if bracing.pattern == "crossed" else (number % 2 == 0,)
        for up in rising:
            stick = _diagonal(bracing.diagonal, (a, b), lower, upper, rises=up)
            if stick is not None:
                way = "rising" if up else "falling"
                names = f"{drawn.names[number]}–{drawn.names[number + 1]}"
                yield replace(stick, key=f"diagonal {names} {way}")


def _faces(developed: Sequence[float], width: float) -> list[tuple[float, float]]:
    """Front and rear face of each upright: centred, but the ends' outer faces lie on their stations."""
    half, last = width / 2, len(developed) - 1
    return [
        (s, s + width) if i == 0 else (s - width, s) if i == last else (s - half, s + half)
        for i, s in enumerate(developed)
    ]


def _upright(
    section: tuple[float, float], faces: tuple[float, float], lower: _Edge, upper: _Edge
) -> Stick:
    """A stick that stands square to the datum; under a kink it is cut along the line of its corners."""
    a, b = faces
    corners = ((a, lower.z(a)), (b, lower.z(b)), (b, upper.z(b)), (a, upper.z(a)))
    low, high = corners[:2], corners[2:]
    return Stick(
        "upright",
        section,
        corners,
        max(z for _, z in high) - min(z for _, z in low),
        ((_across(low[0], low[1]),), (_across(high[0], high[1]),)),
    )


def _across(a: Point2, b: Point2) -> float:
    """Between an upright's axis and a cut, degrees; 90 is square."""
    return 90 - math.degrees(math.atan(abs(b[1] - a[1]) / abs(b[0] - a[0])))


def _diagonal(
    section: tuple[float, float],
    bay: tuple[float, float],
    lower: _Edge,
    upper: _Edge,
    *,
    rises: bool,
) -> Stick | None:
    """The strip along a bay's diagonal, cut with the bay's outline; ``None`` where nothing is left."""
    a, b = bay
    ring = [*lower.between(a, b), *reversed(upper.between(a, b))]
    front, rear = (lower, upper) if rises else (upper, lower)
    start, end = (a, front.z(a)), (b, rear.z(b))
    cut = strip_in(shapely.Polygon(ring), start, end, section[1])
    if cut is None:
        return None
    return Stick("diagonal", section, cut.outline, cut.length, cut.ends)
