"""What would break, part, not fit or not go in, before anything is cut: where, and by how much.

Plane of a former: (y, z), airframe axes, mm.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations, pairwise
from typing import Final, Literal

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.fuselage.cutting import Carved, carve, sizable
from hardkeel.fuselage.flatwork import inner_half, plate_pieces
from hardkeel.fuselage.fronting import unlanded
from hardkeel.fuselage.members import kinds_with
from hardkeel.fuselage.model import Former, Fuselage, Longeron
from hardkeel.fuselage.notching import Around, Passage, around_of
from hardkeel.fuselage.openings import rings_of, tray_of
from hardkeel.fuselage.routing import met_by
from hardkeel.fuselage.sheeted import Side
from hardkeel.geometry.polygons import BaseGeometry, shapely

Trouble = Literal[
    "nothing",
    "parted",
    "opened",
    "thin",
    "meet",
    "neck",
    "unfit",
    "crowded",
    "barred",
    "outside",
    "unlanded",
    "caught",
    "unseated",
    "wide",
]
_DEFAULT_FORMER_MM: Final = 3.0
_HAIR: Final = 1e-6
_LOOKED_AT, _HEIGHTS = 7, 41  # places along a plate, heights that are tried
_FAR_MM: Final = 1e5
_TOUCHES_MM: Final = 1e-4
_ALONG_EDGE: Final = (0.02, 0.25, 0.5, 0.75, 0.98)
_OUTWARD: Final = {"port": (-1, 0), "starboard": (1, 0), "above": (0, 1), "below": (0, -1)}
_SURE_MM: Final = 0.05  # a neck is told to this
_FITS: Final = 0.999  # share of a longeron's notch that must lie in the wood


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that is wrong with a former as it is drawn.

    Attributes
    ----------
    kind : str
        ``nothing`` is left · ``parted`` into more pieces than meant · ``opened``: a hole runs out over
        the edge · ``thin``: less than the wanted web beside a hole · ``meet``: two notches or holes ·
        ``neck``: the wood narrows · ``unfit``: a longeron is too large for it · ``crowded``: it stands in
        the next · ``barred``: something can't be put in past it · ``outside``: a plate behind it lies
        outside the skin; `left` then has where it may lie, ``low`` and ``high`` · ``unlanded``: a canopy's
        edge, `other`, lies so far from it, and no former is nearer · ``caught``: a guide runs into `other` behind
        it, at the station `figure` · ``unseated``: no tray lies under a servo or strap at the station `figure`, or
        it reaches over the edge of `other` · ``wide``: a bracket lacks so much room between the sides at its rear end.
    ref, other : str
        What does it, and with what.
    figure : float
        mm left, or lacking for ``unfit``, ``crowded`` and ``barred``; pieces for ``parted``.
    left : tuple of (str, float)
        For a hole the wood to ``port``, ``starboard``, ``above`` and ``below``, mm, 0 where it is open.
    at : (y, z), optional
        Where.
    """

    former: str
    kind: Trouble
    ref: str = ""
    other: str = ""
    figure: float = 0.0
    left: tuple[tuple[str, float], ...] = ()
    at: Point2 | None = None


def findings_of(fuselage: Fuselage) -> tuple[Finding, ...]:
    """Everything that is wrong with the formers, from nose to tail.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    found: list[Finding] = []
    formers = [stop for _, stop in fuselage.stations if isinstance(stop, Former)]
    for former in formers:
        found += _inspected(former, around_of(fuselage, former), fuselage.framed.web)
    found += _crowded(formers)
    found += _barred(fuselage, formers)
    found += _outside(fuselage, formers)
    found += _unlanded(fuselage)
    found += _caught(fuselage, formers)
    found += _unseated(fuselage, formers)
    found += _wide(fuselage, formers)
    order = {former.id: i for i, former in enumerate(formers)}
    return tuple(sorted(found, key=lambda one: order[one.former]))


@lru_cache(maxsize=512)
def _inspected(former: Former, around: Around, web: float) -> tuple[Finding, ...]:
    """What only this former and what passes it decide, so that it is looked at anew only when that is another."""
    carved = carve(former, around)
    if carved.wood.is_empty:
        return (Finding(former.id, "nothing"),)
    whole = carved.stock.difference(
        shapely.union_all([passage.shape for passage in carved.passages if passage.sort != "hole"])
    )
    found = [*_unfit(former, around.longerons, carved), *_holes(former, carved, whole, web)]
    found += _meeting(former, carved, web)
    found += _parted(former, carved)
    if not found:
        found += _necked(former, carved, web)
    return tuple(found)


def _unfit(former: Former, longerons: tuple[Longeron, ...], carved: Carved) -> Iterator[Finding]:
    left, low, right, high = carved.inner.bounds
    told: set[str] = set()
    for passage in carved.passages:
        if passage.kind != "longeron" or passage.ref in told:
            continue
        stick = passage.stick if passage.stick is not None else passage.shape
        inside = carved.inner.intersection(stick).area
        across, deep = next(one.section for one in longerons if one.id == passage.ref)
        lacking = max(across - (right - left) / 2, deep - (high - low) / 2)
        square = former.corner <= 0 and not former.outline and former.section is None
        if lacking > _HAIR or (square and inside < _FITS * stick.area):
            told.add(passage.ref)
            at = stick.centroid
            yield Finding(
                former.id, "unfit", passage.ref, figure=max(lacking, 0.0), at=(at.x, at.y)
            )


def _holes(former: Former, carved: Carved, whole: BaseGeometry, web: float) -> Iterator[Finding]:
    named = [(cut.id, hole) for cut, hole in carved.holes if cut.kind != "hatch"]
    named += [(passage.ref, passage.shape) for passage in carved.passages if passage.sort == "hole"]
    told: dict[str, Finding] = {}  # of a pair the worse
    for ref, hole in named:
        left = _left_around(hole, whole)
        least = min(mm for _, mm in left)
        if least >= web - _HAIR:
            continue
        kind: Trouble = "thin" if whole.contains(hole) else "opened"
        if kind == "opened":
            least = 0.0
        at = hole.centroid
        found = Finding(former.id, kind, ref, figure=least, left=left, at=(at.x, at.y))
        if ref not in told or found.figure < told[ref].figure:
            told[ref] = found
    yield from told.values()


def _left_around(hole: BaseGeometry, whole: BaseGeometry) -> tuple[tuple[str, float], ...]:
    """Wood straight out from each side of a hole; 0 where that side is not in the wood.

    Where the nearest edge lies aslant, past a corner, that is told beside the four.
    """
    low_y, low_z, high_y, high_z = hole.bounds
    corners = {
        "port": ((low_y, low_z), (low_y, high_z)),
        "starboard": ((high_y, low_z), (high_y, high_z)),
        "above": ((low_y, high_z), (high_y, high_z)),
        "below": ((low_y, low_z), (high_y, low_z)),
    }
    found = []
    for name, ends in corners.items():
        edge = shapely.LineString(ends)
        touching = hole.boundary.intersection(edge)
        # a round hole has but a point there
        line = edge if touching.length > _HAIR else shapely.LineString([touching.centroid] * 2)
        found.append((name, _beside(line, whole, _OUTWARD[name])))
    if whole.contains(hole):
        nearest = float(hole.distance(whole.boundary))
        if nearest < min(mm for _, mm in found) - _SURE_MM:
            found.append(("corner", nearest))
    return tuple(found)


def _beside(edge: BaseGeometry, whole: BaseGeometry, outward: tuple[int, int]) -> float:
    """The least wood straight outward from what of an edge lies in the wood, mm."""
    if edge.length <= _HAIR:
        places = [edge.centroid] if whole.covers(edge.centroid) else []
    else:
        parts = [one for one in shapely.get_parts(edge.intersection(whole)) if one.length > _HAIR]
        inside = max(parts, key=lambda one: one.length, default=None)
        places = (
            []
            if inside is None
            else [inside.interpolate(share, normalized=True) for share in _ALONG_EDGE]
        )
    return min((_outward_from(at, whole, outward) for at in places), default=0.0)


def _outward_from(at: BaseGeometry, whole: BaseGeometry, outward: tuple[int, int]) -> float:
    ray = shapely.LineString(
        [(at.x, at.y), (at.x + _FAR_MM * outward[0], at.y + _FAR_MM * outward[1])]
    )
    pieces = shapely.get_parts(ray.intersection(whole))
    return max((float(one.length) for one in pieces if one.distance(at) < _TOUCHES_MM), default=0.0)


def _meeting(former: Former, carved: Carved, web: float) -> Iterator[Finding]:
    """Notches and holes that come too near to each other; a doubler lies at the edge, and meets none."""
    lying: list[tuple[str, BaseGeometry]] = [
        (passage.ref, passage.shape) for passage in carved.passages if _counts(passage)
    ]
    lying += [(cut.id, hole) for cut, hole in carved.holes]
    told: set[frozenset[str]] = set()
    notches = {passage.ref for passage in carved.passages if passage.sort == "notch"}
    for (a, one), (b, other) in combinations(lying, 2):
        apart = one.distance(other)
        pair = frozenset((a, b))
        # a hole beside a notch is told with the hole, by how much wood is left around it
        if apart >= web - _HAIR or pair in told or (a in notches) != (b in notches):
            continue
        told.add(pair)
        at = (
            one.intersection(other).centroid
            if apart <= _HAIR
            else shapely.shortest_line(one, other).centroid
        )
        yield Finding(former.id, "meet", a, b, apart, at=(at.x, at.y))


def _counts(passage: Passage) -> bool:
    if passage.kind == "scallop":  # shallow, and beside the stringers on purpose
        return False
    return passage.sort != "gap" and passage.kind not in kinds_with("doubler")


def _parted(former: Former, carved: Carved) -> Iterator[Finding]:
    meant = carved.parts // carved.halves
    pieces = sizable(carved.wood)
    if len(pieces) <= meant:
        return
    by = ""
    for cut, hole in carved.holes:  # the one without which it holds together
        if len(sizable(carved.wood.union(hole.intersection(carved.stock)))) <= meant:
            by = cut.id
            break
    at = min(pieces, key=lambda piece: piece.area).representative_point()
    yield Finding(former.id, "parted", by, figure=float(len(pieces)), at=(at.x, at.y))


def _necked(former: Former, carved: Carved, web: float) -> Iterator[Finding]:
    """A place where the wood is narrower than the web: it falls apart when that much is taken off."""
    meant = len(sizable(carved.wood))

    def holds(width: float) -> bool:
        left = carved.wood.buffer(-width / 2, join_style="mitre")
        return not left.is_empty and len(sizable(left)) <= meant

    if web <= 0 or former.sticks is not None or holds(web - _HAIR):
        return
    low, high = 0.0, web
    while high - low > _SURE_MM:
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    thin = carved.wood.difference(carved.wood.buffer(-high / 2).buffer(high / 2 + _SURE_MM))
    pieces = shapely.get_parts(thin)
    at = max(pieces, key=lambda one: one.area).representative_point() if len(pieces) else None
    yield Finding(former.id, "neck", figure=low, at=(at.x, at.y) if at is not None else None)


def _crowded(formers: list[Former]) -> Iterator[Finding]:
    for before, former in pairwise(formers):
        thick = [one.thickness or _DEFAULT_FORMER_MM for one in (before, former)]
        lacking = sum(thick) / 2 - (former.station - before.station)
        if lacking > _HAIR:
            yield Finding(former.id, "crowded", before.id, figure=lacking)


def _barred(fuselage: Fuselage, formers: list[Former]) -> Iterator[Finding]:
    """A plate that must pass a former needs an opening there, as wide and as thick as it is."""
    for member in fuselage.framed.members:
        if member.kind not in kinds_with("plate") or member.width is None:
            continue
        first, last = fuselage.span(member)
        for former in formers:
            if not first + _HAIR < former.station < last - _HAIR:
                continue
            carved = carve(former, around_of(fuselage, former))
            half, thick = member.width / 2, (member.thickness or 0.0) / 2
            through = shapely.box(-half, member.z - thick, half, member.z + thick)
            wood = carved.wood.intersection(through)
            if wood.area > _HAIR:
                at = wood.centroid
                yield Finding(former.id, "barred", member.id, figure=member.width, at=(at.x, at.y))


def _outside(fuselage: Fuselage, formers: list[Former]) -> Iterator[Finding]:
    """A plate or tray whose height is nowhere inside the skin, with the heights at which it would be."""
    plates = [m for m in fuselage.framed.members if m.kind in kinds_with("plate")]
    if not plates or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return
    side = Side(fuselage)
    for member in plates:
        first, last = fuselage.span(member)
        before = next((one for one in reversed(formers) if one.station <= first), None)
        if before is None:
            continue
        x = np.linspace(first, last, _LOOKED_AT)
        thick = member.thickness or 0.0
        low = float(np.max(side.loft.bottom.value(x))) + fuselage.bottom_skin + thick / 2
        high = float(np.min(side.loft.top.value(x))) - fuselage.top_skin - thick / 2
        inside = low <= member.z <= high and (
            float(inner_half(side, x, member.z, thick).min()) > _HAIR
        )
        if not inside:
            heights = np.linspace(low, high, _HEIGHTS) if high > low else np.zeros(0)
            fits = [
                z for z in heights.tolist() if float(inner_half(side, x, z, thick).min()) > thick
            ]
            left = (("low", min(fits)), ("high", max(fits))) if fits else ()
            yield Finding(before.id, "outside", member.id, figure=member.z, left=left)


def _unlanded(fuselage: Fuselage) -> Iterator[Finding]:
    for member in fuselage.framed.members:
        if member.kind == "canopy":
            for edge, _, nearest, gap in unlanded(fuselage, member):
                yield Finding(nearest, "unlanded", member.id, edge, figure=gap)


def _ahead_of(formers: list[Former], station: float) -> str:
    """The former before a station, the first where it lies before them all."""
    before = [one.id for one in formers if one.station <= station]
    return before[-1] if before else formers[0].id


def _caught(fuselage: Fuselage, formers: list[Former]) -> Iterator[Finding]:
    guides = [one for one in fuselage.framed.members if one.kind == "guide"]
    if not guides or not formers or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return
    for member in guides:
        for ref, station in met_by(fuselage, member):
            yield Finding(_ahead_of(formers, station), "caught", member.id, ref, figure=station)


def _unseated(fuselage: Fuselage, formers: list[Former]) -> Iterator[Finding]:
    """A servo or a strap that is cut in no tray, or in part of one."""
    opened = [one for one in fuselage.framed.members if one.kind in kinds_with("opening")]
    if not opened or not formers or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return
    side = Side(fuselage)
    for member in opened:
        station = member.station or 0.0
        tray = tray_of(fuselage, member)
        held = () if tray is None else [p.polygon for p in plate_pieces(side, tray)]
        rings = [shapely.Polygon(ring) for ring in rings_of(member)]
        whole = [shapely.Polygon(shape.exterior) for shape in held]
        if not all(any(shape.contains_properly(ring) for shape in whole) for ring in rings):
            yield Finding(
                _ahead_of(formers, station),
                "unseated",
                member.id,
                tray.id if tray is not None else "",
                figure=station,
            )


def _wide(fuselage: Fuselage, formers: list[Former]) -> Iterator[Finding]:
    """A bracket of a tail wheel or skid that finds no room between the sides, or reaches past the last station."""
    brackets = [one for one in fuselage.framed.members if one.kind == "tail-bracket"]
    if not brackets or not formers or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return
    side = Side(fuselage)
    end = fuselage.stations[-1][1].station
    for member in brackets:
        station, half = member.station or 0.0, (member.height or 0.0) / 2
        ends = np.clip([station - half, station + half], fuselage.stations[0][1].station, end)
        low = float(np.max(side.loft.bottom.value(ends))) + fuselage.bottom_skin
        room = 2 * float(np.min(inner_half(side, ends, low + (member.thickness or 0.0) / 2)))
        lacking = max((member.width or 0.0) - room, station + half - end)
        if lacking > _SURE_MM:
            yield Finding(_ahead_of(formers, station), "wide", member.id, figure=lacking)
