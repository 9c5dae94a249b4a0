"""Crutch, keels, plates and trays, hatch frames, spacers and the plan of the board, as flat pieces.

Lying pieces are drawn in (x, y) of the airframe, standing ones in (x, z) or (y, z), mm.
"""

from collections.abc import Iterator
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.inside import skins_along
from hardkeel.fuselage.loft import former_at
from hardkeel.fuselage.members import both_sides, kinds_with, member_kind
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Board, Former, Fuselage, Member
from hardkeel.fuselage.openings import openings_in
from hardkeel.fuselage.sheeted import REGISTER_MM, Side, registers_of
from hardkeel.fuselage.standing import faces_of
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic
from hardkeel.joinery.flat import FlatPiece, Mark, cut_from, open_ring, ring_of, with_shape

_THINNEST_MM: Final = 0.5
_SAME_STATION_MM: Final = 0.5
_SPACER_WIDE_MM: Final = 30.0
_BOARD_MARGIN_MM: Final = 20.0
_SMALLEST_OPENING_MM2: Final = 60.0


def flatwork_of(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """Every flat piece that lies or stands inside the sides, formers apart.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    side = Side(fuselage)
    found: list[FlatPiece] = []
    for member in fuselage.framed.members:
        found += member_kind(member.kind).flat(side, member)
    return tuple(piece for piece in found if piece.outline)


def inner_half(side: Side, stations: Array, z: float, thick: float = 0.0) -> Array:
    """Half of what is free between the sides for something so thick at a height, doublers off, mm."""
    fuselage = side.fuselage
    if side.hollow is not None:
        free = side.hollow.half_width(stations, z, thick)
    else:
        sheet = np.array([side_at(fuselage, float(x)) for x in stations])
        free = side.loft.half_width.value(stations) - sheet
    low, high = side.bottom(stations), side.top(stations)
    for member in fuselage.framed.members:
        if member.kind in kinds_with("doubler"):
            first, last = fuselage.span(member)
            covered = (stations >= first) & (stations <= last - member.short)
            covered &= (z > low + member.inset) & (z < high - member.inset)
            free = np.where(covered, free - (member.thickness or 0.0), free)
    least: Array = np.maximum(np.asarray(free), 0.0)
    return least


def _both(stations: Array, half: Array) -> list[Point2]:
    """An outline from a half-width on each side of the centre line."""
    port = list(zip(stations.tolist(), (-half).tolist(), strict=True))
    starboard = list(zip(stations.tolist(), half.tolist(), strict=True))
    return [*port, *reversed(starboard)]


def crutch_piece(side: Side, member: Member) -> FlatPiece:
    """Both rails and the cross-pieces of a crutch, in one."""
    fuselage = side.fuselage
    a, b = fuselage.span(member)
    rail, thick = member.width or 0.0, member.thickness or 0.0
    stations = [stop.station for _, stop in fuselage.stations if a <= stop.station <= b]
    bays = [
        (one + rail / 2, other - rail / 2)
        for one, other in pairwise(stations)
        if other - one > rail
    ]
    # rails and openings asked for at once: a surface is slow to ask, whatever it is asked for
    x = np.unique(np.concatenate([side.places(a, b), np.ravel(bays)]))
    inside = inner_half(side, x, member.z, thick)
    half = inside
    if side.hollow is None:
        half = np.maximum(half, _THINNEST_MM)
    whole: BaseGeometry = shapely.Polygon(_both(x, half)).buffer(0)
    tabs = []
    for doubler in fuselage.framed.members:
        if doubler.kind in kinds_with("doubler"):
            for station in registers_of(fuselage, member, doubler):
                free = float(inner_half(side, np.array([station]), member.z)[0])
                reach = free + (doubler.thickness or 0.0)
                ends = station - REGISTER_MM / 2, station + REGISTER_MM / 2
                tabs.append(shapely.box(ends[0], -reach, ends[1], reach))
    whole = shapely.union_all([whole, *tabs])
    openings = [
        opening
        for one, other in bays
        for bay in [(x >= one) & (x <= other)]
        if (opening := _opening(x[bay], inside[bay] - rail)) is not None
    ]
    wood = whole.difference(shapely.union_all(openings))
    piece = FlatPiece(
        name=member.id,
        kind="crutch",
        part=member.id,
        outline=(),
        marks=(
            Mark("centre", ((a, 0.0), (b, 0.0))),
            *(
                Mark("station", ((stop.station, -rail), (stop.station, rail)), name)
                for name, stop in fuselage.stations
                if a <= stop.station <= b
            ),
        ),
        thickness=member.thickness or 0.0,
        material=member.material,
        grain="u",
    )
    return with_shape(piece, wood)


def _opening(x: Array, half: Array) -> BaseGeometry | None:
    """Between two cross-pieces and the rails; none where it is not worth cutting."""
    if float(half.max()) <= 0:
        return None
    opening = shapely.Polygon(_both(x, np.maximum(half, 0.0))).buffer(0)
    return opening if opening.area > _SMALLEST_OPENING_MM2 else None


def foot_of(side: Side, member: Member, x: Array) -> Array:
    """Height of a keel's lower edge at stations: on the skin beneath both of its faces, mm."""
    if side.hollow is not None:
        outer = abs(member.y) + (member.thickness or 0.0) / 2
        few = side.few_places(x)
        return np.asarray(NaturalCubic(few, side.hollow.foot(few, outer)).value(x))
    _, _, bottom = skins_along(side.fuselage, x)
    return np.asarray(side.loft.bottom.value(x)) + bottom


def keel_piece(side: Side, member: Member) -> FlatPiece:
    """A keel with its slots."""
    fuselage = side.fuselage
    a, b = fuselage.span(member)
    x = side.places(a, b)
    passed = [one for one in fuselage.formers if a <= one.station <= b]
    both = foot_of(side, member, np.concatenate([x, [one.station for one in passed]]))
    low, feet = both[: len(x)], both[len(x) :]
    tall = member.height or 0.0
    lower = list(zip(x.tolist(), low.tolist(), strict=True))
    upper = list(zip(x.tolist(), (low + tall).tolist(), strict=True))
    slots = []
    marks = []
    for former, under in zip(passed, feet, strict=True):
        front, rear = faces_of(fuselage, former)
        foot = float(under)
        slots.append(shapely.box(front, foot + tall / 2, rear, foot + 2 * tall))
        upright = (former.station, foot), (former.station, foot + tall / 2)
        marks.append(Mark("station", upright, former.id))
    piece = FlatPiece(
        name=member.id,
        kind="keel",
        part=member.id,
        outline=ring_of([*lower, *reversed(upper)]),
        marks=tuple(marks),
        thickness=member.thickness or 0.0,
        material=member.material,
        quantity=len(both_sides(member.y)),
        grain="u",
    )
    return cut_from(piece, slots)


def plate_pieces(side: Side, member: Member) -> Iterator[FlatPiece]:
    """From the rear face of one former to the front face of another, between the sides."""
    fuselage = side.fuselage
    a, b = fuselage.span(member)
    stations = dict(fuselage.stations)
    names = list(stations)
    before = stations[member.from_ or names[0]]
    behind = stations[member.to or names[-1]]
    if isinstance(before, Former):
        a = faces_of(fuselage, before)[1]
    if isinstance(behind, Former):
        b = faces_of(fuselage, behind)[0]
    if b <= a:
        return
    x = side.places(a, b)
    half = inner_half(side, x, member.z, member.thickness or 0.0)
    if member.width is not None:
        half = np.minimum(half, member.width / 2)
    outline = ring_of(_both(x, half))
    wood = shapely.Polygon(outline) if len(outline) > 2 else None  # noqa: PLR2004  an area
    holes = tuple(
        ring
        for ring in openings_in(fuselage, member)
        if wood is not None and wood.contains_properly(shapely.Polygon(ring))
    )
    yield FlatPiece(
        name=member.id,
        kind=member.kind,
        part=member.id,
        outline=outline,
        holes=holes,
        marks=(Mark("centre", ((a, 0.0), (b, 0.0))),),
        thickness=member.thickness or 0.0,
        material=member.material,
        grain="u",
    )


def hatch_frame_pieces(fuselage: Fuselage, member: Member) -> Iterator[FlatPiece]:
    """The glued frame below the sill, and its twin above it, which goes with the hatch."""
    station = member.station if member.station is not None else 0.0
    stations = fuselage.stations
    if not stations[0][1].station <= station <= stations[-1][1].station:
        return  # outside the fuselage there is nothing to frame
    near = [f for f in fuselage.formers if abs(f.station - station) < _SAME_STATION_MM]
    try:
        former = near[0] if near else former_at(fuselage, station, member.id)
    except BadInput:
        return  # on the tail post, or where the loft swings out of range
    shape = shape_of(
        fuselage.but(formers=(*(f for f in fuselage.formers if f not in near), former)), former
    )
    wood = shapely.union_all(
        [shapely.Polygon(rings[0], rings[1:]) for rings in shape.pieces]
    ).buffer(0)
    low, high = former.bottom - 1, former.top + 1
    half = former.half_width + fuselage.side_thickness + 1
    for name, a, b in (
        (f"{member.id}, glued", low, member.z),
        (f"{member.id}, on the hatch", member.z, high),
    ):
        if b <= a:
            continue
        for part in shapely.get_parts(wood.intersection(shapely.box(-half, a, half, b))):
            if part.geom_type == "Polygon" and part.area > _SMALLEST_OPENING_MM2:
                yield FlatPiece(
                    name=name,
                    kind="hatch-frame",
                    part=member.id,
                    outline=open_ring(part.exterior.coords),
                    holes=tuple(open_ring(hole.coords) for hole in part.interiors),
                    marks=(Mark("centre", ((0.0, part.bounds[1]), (0.0, part.bounds[3]))),),
                    thickness=member.thickness or 0.0,
                    material=member.material,
                    grain="u",
                )


def spacers_of(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """A pair of blocks for each former that stands over the board, as high as it stands, mm."""
    if fuselage.board is None:
        return ()
    return tuple(
        FlatPiece(
            name=f"spacer {one.id}",
            kind="spacer",
            part=f"spacer {one.id}",
            outline=(
                (0.0, 0.0),
                (_SPACER_WIDE_MM, 0.0),
                (_SPACER_WIDE_MM, one.spacer),
                (0.0, one.spacer),
            ),
            quantity=2,
        )
        for one in fitted_formers(fuselage)
        if one.spacer is not None and one.spacer > 0
    )


def board_plan_of(fuselage: Fuselage) -> FlatPiece | None:
    """What is drawn on the board: centre line, stations, where each former's edges and wires stand.

    On an inverted board starboard and port change sides, so y is turned over.
    """
    board: Board | None = fuselage.board
    if board is None or not fuselage.formers:
        return None
    hand = -1.0 if board.inverted else 1.0
    stations = fuselage.stations
    a, b = stations[0][1].station, stations[-1][1].station
    half = max(stop.half_width for _, stop in stations) + _BOARD_MARGIN_MM
    marks = [
        Mark("centre", ((a - _BOARD_MARGIN_MM, 0.0), (b + _BOARD_MARGIN_MM, 0.0)), "centre line")
    ]
    for former in fuselage.formers:
        wide = former.half_width - side_at(fuselage, former.station)
        front, rear = faces_of(fuselage, former)
        ring = ((front, -wide), (rear, -wide), (rear, wide), (front, wide))
        marks.append(Mark("member", ring, closed=True))
        x = former.station
        marks.append(Mark("station", ((x, -half), (x, half)), former.id))
    for member in fuselage.framed.members:
        if member.kind in kinds_with("threaded"):
            first, last = fuselage.span(member)
            marks += [
                Mark("drawn", ((first, hand * y), (last, hand * y)), member.id)
                for y in both_sides(member.y)
            ]
    edge = _BOARD_MARGIN_MM
    return FlatPiece(
        name="board",
        kind="board",
        part="board",
        outline=((a - edge, -half), (b + edge, -half), (b + edge, half), (a - edge, half)),
        marks=tuple(marks),
    )
