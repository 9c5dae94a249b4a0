"""Sheet sides laid out flat: blanks, doublers, corner strips, wing seats, and where two edges disagree.

The drawing is (s, z): along the developed station from the first one, up the height, mm.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.contours import contour_of, edges_of
from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.members import kinds_with
from hardkeel.fuselage.methods import methods_with, sections_with
from hardkeel.fuselage.model import Former, Fuselage, Member, Section
from hardkeel.fuselage.planking import planked_between
from hardkeel.fuselage.standing import faces_of
from hardkeel.fuselage.wrapping import hollow_of, wrap_of
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic, arc_length_at, arc_lengths
from hardkeel.joinery.flat import FlatPiece, Mark, Ring, cut_from, ring_of

REGISTER_MM: Final = 8.0  # width of the tab by which a crutch registers with a doubler
_BESIDE_MM: Final = 1e-3  # a corner's slopes are taken so far to each side of it
_LEAST_BEND_DEG: Final = 0.5  # less a side takes without being scored
_STEP_MM: Final = 4.0
_FEW: Final = 6  # places between two stops
_AGREE_MM: Final = 0.3  # edges that differ by less are pulled even by the glue
_EDGE_SHARE: Final = 0.15  # of a former's height: where the width at its top and bottom is taken


@dataclass(frozen=True, slots=True)
class EdgeLengths:
    """What the top and the bottom edge of a sheet side want in plan, mm, between two stations."""

    from_: str
    to: str
    top: float
    bottom: float

    @property
    def differ(self) -> float:
        """How much longer the top wants to be, mm."""
        return self.top - self.bottom


@dataclass(frozen=True, slots=True)
class CornerStrip:
    """One length of corner strip, between two formers, for one side.

    Attributes
    ----------
    edge : str
        ``upper`` or ``lower``.
    start, end : float
        Where it begins and stops, developed station, mm.
    """

    member: str
    edge: str
    between: tuple[str, str]
    start: float
    end: float

    @property
    def length(self) -> float:
        """From end to end, mm."""
        return self.end - self.start


class Side:
    """A side laid flat: places along it, its edges inside the skins.

    Where formers have round corners the side is what is straight between them; the sheeting over and
    under it goes round.
    """

    def __init__(self, fuselage: Fuselage) -> None:
        self.fuselage = fuselage
        self.loft: Loft = loft_of(fuselage)
        self.station = dict(zip(self.loft.names, self.loft.stations.tolist(), strict=True))
        self.wrap = wrap_of(fuselage)
        self.hollow = hollow_of(fuselage)
        self._corners = np.array([getattr(stop, "corner", 0.0) for _, stop in fuselage.stations])

    def corner(self, stations: Array) -> Array:
        """Radius of the section's corners, mm: straight from former to former."""
        return np.asarray(np.interp(stations, self.loft.stations, self._corners))

    def along(self, stations: Array) -> Array:
        """Developed stations, mm."""
        return arc_length_at((self.loft.half_width,), self.loft.stations, stations)

    def top(self, stations: Array) -> Array:
        """Height of the upper edge, mm."""
        if self.wrap is not None:
            skin = self.loft.top.value(stations) - self.fuselage.top_skin
            return np.asarray(np.minimum(self.wrap.at(stations).high, skin))
        corner = np.maximum(self.corner(stations), self.fuselage.top_skin)
        return np.asarray(self.loft.top.value(stations) - corner)

    def bottom(self, stations: Array) -> Array:
        """Height of the lower edge, mm."""
        if self.wrap is not None:
            skin = self.loft.bottom.value(stations) + self.fuselage.bottom_skin
            return np.asarray(np.maximum(self.wrap.at(stations).low, skin))
        corner = np.maximum(self.corner(stations), self.fuselage.bottom_skin)
        return np.asarray(self.loft.bottom.value(stations) + corner)

    def places(self, a: float, b: float) -> Array:
        """Stations from a to b, close enough that a chord leaves the curve by no hundredth."""
        knots = [a, *(x for x in self.loft.stations if a < x < b), b]
        pieces = [
            np.linspace(p, q, max(2, int((q - p) / _STEP_MM) + 2))[:-1] for p, q in pairwise(knots)
        ]
        return np.concatenate([*pieces, [b]])

    def few_places(self, x: Array) -> Array:
        """Stations over a stretch through which a fair line is drawn as well as through very many, shape (k,)."""
        ends = np.array([x.min(), x.max()])
        inner = [at for at in self.loft.stations if ends[0] < at < ends[1]]
        knots = np.array([ends[0], *inner, ends[1]]) if ends[1] > ends[0] else ends[:1]
        between = [np.linspace(a, b, _FEW)[:-1] for a, b in pairwise(knots)]
        return np.concatenate([*between, knots[-1:]])

    def strip(self, a: float, b: float, inset: float = 0.0) -> Ring:
        """The outline of the side from one station to another, its edges `inset` inside, mm."""
        x = self.places(a, b)
        low, high = self.flat_edges(x)
        s, low, high = self.along(x), low + inset, high - inset
        lower = list(zip(s.tolist(), low.tolist(), strict=True))
        upper = list(zip(s.tolist(), np.maximum(high, low).tolist(), strict=True))
        return ring_of([*lower, *reversed(upper)])

    def flat_edges(self, x: Array) -> tuple[Array, Array]:
        """Lower and upper edge as they lie flat: round sections are rolled out from their widest line, mm."""
        low, high = self.bottom(x), self.top(x)
        if self.wrap is None:
            return low, high
        wrapped = self.wrap.at(x)
        # where a thick skin takes more than the edge is high, the sheet ends with it
        return (
            wrapped.widest - wrapped.beneath + np.maximum(low - wrapped.low, 0.0),
            wrapped.widest + wrapped.above - np.maximum(wrapped.high - high, 0.0),
        )

    def line(self, station: float) -> Ring:
        """A station from edge to edge."""
        x = np.array([station])
        s = float(self.along(x)[0])
        low, high = self.flat_edges(x)
        return ((s, float(low[0])), (s, float(high[0])))


def blanks_of(fuselage: Fuselage, seats: Sequence[Mark] = ()) -> tuple[FlatPiece, ...]:
    """Side blanks and doublers of every sheeted section, each to be cut once for each hand.

    Parameters
    ----------
    seats : sequence of Mark
        Lines on the side, in its own plane, that run where wings sit.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    side = Side(fuselage)
    found: list[FlatPiece] = []
    if fuselage.side_thickness > 0:
        for number, section in enumerate(sections_with(fuselage, "sheet"), start=1):
            found += _blanks(side, section, number, seats)
    return (*(one for one in found if one.outline), *doublers_of(fuselage))


def doublers_of(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """Doublers and tail doublers, each to be cut once for each hand."""
    doublers = [m for m in fuselage.framed.members if m.kind in kinds_with("doubler")]
    if not doublers:
        return ()
    side = Side(fuselage)
    made = (_doubler(side, member) for member in doublers)
    return tuple(piece for piece in made if piece.outline)


def _blanks(
    side: Side, section: Section, number: int, seats: Sequence[Mark]
) -> Iterator[FlatPiece]:
    fuselage = side.fuselage
    a, b = side.station[section.from_], side.station[section.to]
    name = "side" if number == 1 else f"side {number}"
    outline = side.strip(a, b)
    bent = bends_at_corners(fuselage)
    marks = [
        Mark("bend", side.line(stop.station), f"{stop_name}, bend {bent[stop_name]:.1f}°")
        if a < stop.station < b and stop_name in bent
        else Mark("station", side.line(stop.station), stop_name)
        for stop_name, stop in fuselage.stations
        if a <= stop.station <= b
    ]
    start, end = (float(s) for s in side.along(np.array([a, b])))
    marks += [mark for mark in seats if start <= mark.points[0][0] and mark.points[-1][0] <= end]
    marks += _doubler_marks(side, a, b)
    piece = FlatPiece(
        name=name,
        kind="side",
        part=f"side_{section.from_}_{section.to}",
        outline=outline,
        marks=tuple(marks),
        thickness=fuselage.side_thickness,
        material=fuselage.side_material,
        quantity=2,
        pair=True,
        grain="u",
    )
    piece = cut_from(
        piece, [*_slots(side, a, b), *_rod_holes(side, a, b), *_under_planks(side, piece)]
    )
    if not piece.outline:
        return
    crutch = next((m for m in fuselage.framed.members if m.kind == "crutch"), None)
    if section.method not in methods_with("parted") or crutch is None:
        yield piece
        return
    yield from _parted_at(piece, crutch)


def bends_at_corners(fuselage: Fuselage) -> dict[str, float]:
    """Formers at which the plan's line has a corner, and by how much a side is bent there, degrees: it is scored there."""
    curve = loft_of(fuselage).half_width
    found = {}
    for former in fuselage.formers:
        if "half_width" in former.line_corners:
            ahead, behind = (
                math.atan(float(curve.slope(former.station + aside)))
                for aside in (-_BESIDE_MM, _BESIDE_MM)
            )
            angle = abs(math.degrees(behind - ahead))
            if angle >= _LEAST_BEND_DEG:
                found[former.id] = angle
    return found


def _under_planks(side: Side, piece: FlatPiece) -> Iterator[BaseGeometry]:
    """Where planks lie there is no sheet."""
    planked = planked_between(side.fuselage)
    if planked:
        ends = side.along(np.array([planked[0].station, planked[-1].station]))
        _, low, _, high = piece.bounds
        yield shapely.box(float(ends[0]), low - 1, float(ends[1]), high + 1)


def _parted_at(piece: FlatPiece, crutch: Member) -> Iterator[FlatPiece]:
    """The lower and the upper side of a crutch: its edge shows between them."""
    left, low, right, high = piece.bounds
    half = (crutch.thickness or 0.0) / 2
    for word, a, b in (("lower", low - 1, crutch.z - half), ("upper", crutch.z + half, high + 1)):
        if b <= a:
            continue
        other = shapely.box(left - 1, low - 2, right + 1, high + 2).difference(
            shapely.box(left - 1, a, right + 1, b)
        )
        marks = tuple(m for m in (_clipped(mark, a, b) for mark in piece.marks) if m)
        yield replace(cut_from(piece, [other]), name=f"{word} {piece.name}", marks=marks)


def _clipped(mark: Mark, low: float, high: float) -> Mark | None:
    """A station's line between two heights; other lines where they lie there already."""
    zs = [z for _, z in mark.points]
    if mark.role in ("station", "bend"):
        a, b = max(min(zs), low), min(max(zs), high)
        s = mark.points[0][0]
        return Mark(mark.role, ((s, a), (s, b)), mark.text) if b > a else None
    return mark if low <= min(zs) and max(zs) <= high else None


def _slots(side: Side, a: float, b: float) -> list[BaseGeometry]:
    """Slots that the tabs of keyed formers go through."""
    found: list[BaseGeometry] = []
    for member in side.fuselage.framed.members:
        former = side.fuselage.former(member.from_ or "") if member.kind == "key" else None
        if former is None or member.height is None or not a <= former.station <= b:
            continue
        front, rear = faces_of(side.fuselage, former)
        s = side.along(np.clip(np.array([front, rear]), a, b))
        low, high = former.bottom + side.fuselage.bottom_skin, former.top - side.fuselage.top_skin
        middle = (low + high) / 2
        found.append(
            shapely.box(
                float(s[0]), middle - member.height / 2, float(s[1]), middle + member.height / 2
            )
        )
    return found


def _rod_holes(side: Side, a: float, b: float) -> list[BaseGeometry]:
    found: list[BaseGeometry] = []
    for member in side.fuselage.framed.members:
        if member.kind == "rod" and member.station is not None and a <= member.station <= b:
            s = float(side.along(np.array([member.station]))[0])
            radius = (member.diameter or 0.0) / 2
            found.append(shapely.Point(s, member.z).buffer(radius, 16))
    return found


def _doubler_marks(side: Side, a: float, b: float) -> Iterator[Mark]:
    for member in side.fuselage.framed.members:
        if member.kind in kinds_with("doubler"):
            first, last = _doubler_ends(side, member)
            if first < b and last > a:
                ring = side.strip(max(first, a), min(last, b), member.inset)
                if ring:
                    yield Mark("member", ring, member.id, closed=True)


def _doubler_ends(side: Side, member: Member) -> tuple[float, float]:
    first, last = side.fuselage.span(member)
    return first, max(last - member.short, first + 1.0)


def _doubler(side: Side, member: Member) -> FlatPiece:
    first, last = _doubler_ends(side, member)
    piece = FlatPiece(
        name=member.id,
        kind=member.kind,
        part=member.id,
        outline=side.strip(first, last, member.inset),
        marks=tuple(
            Mark("station", side.line(stop.station), name)
            for name, stop in side.fuselage.stations
            if first <= stop.station <= last
        ),
        thickness=member.thickness or 0.0,
        material=member.material,
        quantity=2,
        pair=True,
        grain="u",
    )
    taken = [*_slots(side, first, last), *_rod_holes(side, first, last)]
    for crutch in side.fuselage.framed.members:
        if crutch.kind == "crutch":
            half = (crutch.thickness or 0.0) / 2
            for station in registers_of(side.fuselage, crutch, member):
                ends = np.array([station - REGISTER_MM / 2, station + REGISTER_MM / 2])
                s = side.along(ends)
                taken.append(
                    shapely.box(float(s[0]), crutch.z - half, float(s[1]), crutch.z + half)
                )
    return cut_from(piece, taken)


def registers_of(fuselage: Fuselage, crutch: Member, doubler: Member) -> tuple[float, ...]:
    """Stations where a tab of the crutch sits in a slot of the doubler: at every former under both."""
    a, b = fuselage.span(crutch)
    c, d = fuselage.span(doubler)
    first, last = max(a, c) + REGISTER_MM, min(b, d - doubler.short) - REGISTER_MM
    return tuple(one.station for one in fuselage.formers if first <= one.station <= last)


def corner_strips_of(fuselage: Fuselage) -> tuple[CornerStrip, ...]:
    """Every length of corner strip of one side, from former to former, the gaps off.

    Lengths are along the developed side; where a keyed former's slot reaches past its former's face
    the strip stops short of the slot.
    """
    side = Side(fuselage)
    formers = [stop for _, stop in fuselage.stations if isinstance(stop, Former)]
    found: list[CornerStrip] = []
    for member in fuselage.framed.members:
        if member.kind != "corner-strip":
            continue
        first, last = fuselage.span(member)
        inside = [one for one in formers if first <= one.station <= last]
        for before, behind in pairwise(inside):
            a, b = faces_of(fuselage, before)[1], faces_of(fuselage, behind)[0]
            s = side.along(np.array([a, b]))
            start, end = float(s[0]) + member.gap, float(s[1]) - member.gap
            if end > start:
                found += [
                    CornerStrip(member.id, edge, (before.id, behind.id), start, end)
                    for edge in ("upper", "lower")
                ]
    return tuple(found)


def edge_lengths_of(fuselage: Fuselage) -> tuple[EdgeLengths, ...]:
    """Sheet sides whose top and bottom edges want different lengths: such a side will not lie flat.

    The half-widths of the formers near their top and bottom give a spline each; a flat sheet can follow
    both only where they are equally long.
    """
    loft = loft_of(fuselage)
    stations = fuselage.stations
    rows = [_widths(stop) for _, stop in stations]
    curves = [NaturalCubic(loft.stations, np.array([row[i] for row in rows])) for i in (0, 1)]
    found: list[EdgeLengths] = []
    for section in sections_with(fuselage, "sheet") if fuselage.side_thickness > 0 else ():
        a, b = loft.names.index(section.from_), loft.names.index(section.to)
        top, bottom = (arc_lengths((curve,), loft.stations) for curve in curves)
        one = EdgeLengths(
            section.from_, section.to, float(top[b] - top[a]), float(bottom[b] - bottom[a])
        )
        if abs(one.differ) > _AGREE_MM:
            found.append(one)
    return tuple(found)


def _widths(stop: object) -> tuple[float, float]:
    """Half-width near the top and near the bottom of a stop, mm."""
    flat = isinstance(stop, Former) and edges_of(stop) != (stop.bottom, stop.top)
    if flat or not isinstance(stop, Former) or not (stop.outline or stop.section):
        half = float(stop.half_width)  # type: ignore[attr-defined]
        return half, half
    outside = shapely.Polygon(contour_of(stop))
    tall = stop.top - stop.bottom
    found: list[float] = []
    for z in (stop.top - _EDGE_SHARE * tall, stop.bottom + _EDGE_SHARE * tall):
        inside = outside.intersection(shapely.LineString([(-1e5, z), (1e5, z)]))
        left, _, right, _ = inside.bounds
        found.append((right - left) / 2)
    return found[0], found[1]


def seat_mark(side: Side, le_x: float, chord: float, z: float, incidence: float) -> Mark | None:
    """A wing's chord line on the side, where the side is; ``None`` where the side ends before it."""
    first, last = float(side.loft.stations[0]), float(side.loft.stations[-1])
    fore, aft = max(le_x, first), min(le_x + chord, last)
    if aft <= fore:
        return None
    slope = np.tan(np.radians(incidence))  # about the middle of the root, as the wing is placed
    x = np.array([fore, aft])
    s = side.along(x)
    points = [(float(s[i]), float(z - slope * (x[i] - le_x - chord / 2))) for i in (0, 1)]
    return Mark("seat", tuple(points))
