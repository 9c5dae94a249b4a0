"""A fuselage's frame as wood: its side laid flat, three views with every member, formers, sheets.

Axes: the side laid flat is (s, −z); *side* (x, −z), *above* (x, y), *section* (y, −z), mm.
"""

from collections.abc import Iterable, Iterator
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.airframe.framing import side_blanks
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.cutting import carve, shape_of
from hardkeel.fuselage.gussets import gusset_places
from hardkeel.fuselage.members import Seen, member_kind
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.notching import around_of
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.sheeted import Side
from hardkeel.fuselage.standing import faces_of
from hardkeel.fuselage.sticks import longeron_strips_of
from hardkeel.geometry.hull import Point2
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet
from hardkeel.picture.wood import WoodLabel, WoodLine, WoodPicture, WoodShape, down, tone_of
from hardkeel.project.model import Build

_PIN_OUT_MM: Final = 3.0
_PIN_EVERY_MM: Final = 70.0
_BETWEEN_MM: Final = 12.0
_NAME_MM: Final = 18.0


def laid_flat(build: Build) -> WoodPicture:
    """One side as it is pinned down: sheet blanks, longerons, sticks; what is not cut yet open.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    fuselage = build.fuselage or Fuselage()
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return WoodPicture()
    side = Side(fuselage)
    sides = side_blanks(build)
    shapes = [_flat_shape(piece) for piece in sides]
    lines = [
        WoodLine("seat", down((*mark.points, mark.points[0]) if mark.closed else mark.points))
        for piece in sides
        for mark in piece.marks
        if mark.role in ("member", "seat")
    ]
    woods = {longeron.is_lower: longeron for longeron in fuselage.longerons}
    for strip in longeron_strips_of(fuselage):
        longeron = woods.get(strip.is_lower)
        ring = down((*strip.outside, *reversed(strip.inside)))
        if longeron is not None:
            shapes.append(
                WoodShape(f"longeron {longeron.id}", ring, tone=tone_of(longeron.material))
            )
        else:
            lines.append(WoodLine("outline", down(strip.outside)))
        lines += _pins(down(strip.outside), up=not strip.is_lower)
    cut = build.listed.cut
    for part in cut_list_of(fuselage):
        if part.outline:
            done = part.key in cut and cut[part.key].pieces >= part.quantity
            shapes.append(
                WoodShape(
                    part.key,
                    down(part.outline),
                    grain=_along(part),
                    tone=tone_of(part.material),
                    made=done,
                )
            )
    shapes += [
        WoodShape(place.member.id, down(place.ring), tone=tone_of(place.member.material))
        for place in gusset_places(fuselage)
    ]
    labels: list[WoodLabel] = []
    low = min((v for _, v in (p for s in shapes for p in s.ring)), default=0.0)
    high = max((v for _, v in (p for s in shapes for p in s.ring)), default=0.0)
    for name, stop in fuselage.stations:
        at = float(side.along(np.array([stop.station]))[0])
        lines.append(WoodLine("station", ((at, low - 4), (at, high + 4)), name))
        labels.append(WoodLabel((at, high + 5), name.replace("_", " "), ref=name))
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels))


def _pins(line: tuple[Point2, ...], *, up: bool) -> Iterator[WoodLine]:
    """Beside the wood, every hand's breadth."""
    us, vs = np.array([p[0] for p in line]), np.array([p[1] for p in line])
    count = max(2, int((us[-1] - us[0]) / _PIN_EVERY_MM))
    out = -_PIN_OUT_MM if up else _PIN_OUT_MM
    for u in np.linspace(us[0], us[-1], 2 * count + 1)[1::2]:
        yield WoodLine("pin", ((float(u), float(np.interp(u, us, vs)) + out),))


def _along(part: CutPart) -> float:
    """Which way a stick's grain runs in the picture, degrees."""
    ring = part.outline
    edges = [(b[0] - a[0], -(b[1] - a[1])) for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)]
    du, dv = max(edges, key=lambda e: e[0] ** 2 + e[1] ** 2)
    return float(np.degrees(np.arctan2(dv, du)))


def _flat_shape(piece: FlatPiece) -> WoodShape:
    return WoodShape(
        piece.part,
        down(piece.outline),
        tuple(down(hole) for hole in piece.holes),
        grain=90.0 if piece.grain == "v" else 0.0,
        tone=tone_of(piece.material),
    )


def former_picture(fuselage: Fuselage, former: Former) -> WoodPicture:
    """A former as it is cut, with the finished section around it and the wood that passes it.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    shape = shape_of(fuselage, former)
    tone = tone_of(former.material)
    shapes = [
        WoodShape(former.id, down(rings[0]), tuple(down(h) for h in rings[1:]), 0.0, tone)
        for rings in shape.pieces
    ]
    carved = carve(former, around_of(fuselage, former))
    members = {member.id: member for member in fuselage.framed.members}
    longerons = {longeron.id: longeron for longeron in fuselage.longerons}
    for void in carved.passages:
        if void.sort == "gap" or void.kind == "scallop":
            continue
        material = (
            members[void.ref].material if void.ref in members else longerons[void.ref].material
        )
        ref = void.ref if void.ref in members else f"longeron {void.ref}"
        stick = void.stick if void.stick is not None else void.shape
        inside = stick.intersection(carved.inner)
        for part in getattr(inside, "geoms", (inside,)):
            if part.geom_type == "Polygon" and not part.is_empty:
                ring = tuple((float(y), -float(z)) for y, z in part.exterior.coords)
                shapes.append(WoodShape(ref, ring, grain=None, tone=tone_of(material), faint=True))
    outside = down(shape.outside)
    low, high = min(z for _, z in outside), max(z for _, z in outside)
    lines = (
        WoodLine("outline", (*outside, outside[0])),
        WoodLine("centre", ((0.0, low - 5), (0.0, high + 5))),
    )
    return WoodPicture(tuple(shapes), lines)


def gallery(
    fuselage: Fuselage, troubled: frozenset[str] = frozenset(), aspect: float = 2.6
) -> WoodPicture:
    """All formers at one scale in rows, as they are cut; `troubled` ones are marked.

    Parameters
    ----------
    aspect : float
        Of the room that they are shown in, width over height.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    formers = list(fuselage.formers)
    if not formers:
        return WoodPicture()
    wide = max(2 * former.half_width for former in formers) + _BETWEEN_MM
    tall = max(former.top - former.bottom for former in formers) + _NAME_MM
    count = len(formers)
    rows = min(range(1, count + 1), key=lambda n: abs(-(-count // n) * wide / (n * tall) - aspect))
    columns = -(-count // rows)
    shapes: list[WoodShape] = []
    labels: list[WoodLabel] = []
    for i, former in enumerate(formers):
        row, column = divmod(i, columns)
        u, v = column * wide, row * tall
        middle = (former.top + former.bottom) / 2
        shape = shape_of(fuselage, former)
        for rings in shape.pieces:
            moved = [tuple((y + u, -z + middle + v) for y, z in ring) for ring in rings]
            shapes.append(
                WoodShape(former.id, moved[0], tuple(moved[1:]), 0.0, tone_of(former.material))
            )
        foot = v + (former.top - former.bottom) / 2 + 2
        labels.append(WoodLabel((u, foot), former.id, ref=former.id, warn=former.id in troubled))
    return WoodPicture(tuple(shapes), (), tuple(labels))


def side_view(build: Build) -> WoodPicture:
    """From port: formers on edge, every member where it runs."""
    fuselage = build.fuselage or Fuselage()
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return WoodPicture()
    side = Side(fuselage)
    first, last = float(side.loft.stations[0]), float(side.loft.stations[-1])
    x = side.places(first, last)
    top, low = side.loft.top.value(x), side.loft.bottom.value(x)
    ring = (*_line(x, -top), *reversed(_line(x, -low)))
    lines = [WoodLine("outline", (*ring, ring[0]))]
    lines += _seams(fuselage)
    shapes = list(_running_longerons(side, x))
    labels = []
    for former in fuselage.formers:
        front, rear = faces_of(fuselage, former)
        foot, head = former.bottom + fuselage.bottom_skin, former.top - fuselage.top_skin
        if head > foot:
            shapes.append(_box(former.id, (front, rear), (-head, -foot), 90.0, former.material))
        labels.append(WoodLabel((former.station, -former.bottom + 4), former.id, ref=former.id))
    for member in fuselage.framed.members:
        wood, wires = _seen(member_kind(member.kind).aside(side, member))
        shapes += wood
        lines += wires
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels))


def _seams(fuselage: Fuselage) -> Iterator[WoodLine]:
    """Where planks meet, from former to former, as they are seen from port."""
    planked = planks_of(fuselage)
    ends, reaching = dict(planked.ends), dict(planked.reaching)
    station = {one.id: one.station for one in fuselage.formers}
    for name, other in pairwise(planked.formers):
        for number in reaching[name]:
            here = ends[name][reaching[name].index(number) + 1]
            behind = sum(one <= number for one in reaching[other])
            there = ends[other][behind]
            yield WoodLine("seam", ((station[name], -here[1]), (station[other], -there[1])))


def _line(x: object, v: object) -> tuple[Point2, ...]:
    return tuple(zip(np.asarray(x).tolist(), np.asarray(v).tolist(), strict=True))


def _box(
    ref: str, us: tuple[float, float], vs: tuple[float, float], grain: float, material: str | None
) -> WoodShape:
    (a, b), (c, d) = us, vs
    return WoodShape(ref, ((a, c), (b, c), (b, d), (a, d)), grain=grain, tone=tone_of(material))


def _running_longerons(side: Side, x: object) -> Iterator[WoodShape]:
    stations = np.asarray(x)
    for longeron in side.fuselage.longerons:
        deep = longeron.section[1]
        if longeron.is_lower:
            skin = side.loft.bottom.value(stations) + side.fuselage.bottom_skin
            edge = np.maximum(skin, side.loft.lower_edge.value(stations))
            inner = edge + deep
        else:
            skin = side.loft.top.value(stations) - side.fuselage.top_skin
            edge = np.minimum(skin, side.loft.upper_edge.value(stations))
            inner = edge - deep
        ring = (*_line(stations, -edge), *reversed(_line(stations, -inner)))
        yield WoodShape(f"longeron {longeron.id}", ring, tone=tone_of(longeron.material))


def _seen(found: Iterable[Seen]) -> tuple[list[WoodShape], list[WoodLine]]:
    """Members as they are seen: what is of wood, and lines of wire."""
    shapes: list[WoodShape] = []
    lines: list[WoodLine] = []
    for one in found:
        points = tuple((float(u), float(v)) for u, v in one.points)
        if one.role == "wood":
            tone = tone_of(one.material)
            shapes.append(WoodShape(one.ref, points, one.holes, one.grain, tone, faint=one.faint))
        else:
            lines.append(WoodLine(one.role, points, one.ref))
    return shapes, lines


def view_from_above(build: Build) -> WoodPicture:
    """From above: sides with their thickness, doublers, crutch, plates, formers on edge."""
    fuselage = build.fuselage or Fuselage()
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return WoodPicture()
    side = Side(fuselage)
    first, last = float(side.loft.stations[0]), float(side.loft.stations[-1])
    x = side.places(first, last)
    half = np.maximum(side.loft.half_width.value(x), 0.0)
    inner = np.maximum(half - np.array([side_at(fuselage, float(at)) for at in x]), 0.0)
    shapes: list[WoodShape] = []
    lines = [WoodLine("centre", ((first - 10, 0.0), (last + 10, 0.0)))]
    if fuselage.side_thickness > 0:
        for hand in (-1, 1):
            ring = (*_line(x, hand * half), *reversed(_line(x, hand * inner)))
            shapes.append(WoodShape("side", ring, tone=tone_of(fuselage.side_material)))
    for member in fuselage.framed.members:
        wood, wires = _seen(member_kind(member.kind).above(side, member))
        shapes += wood
        lines += wires
    for former in fuselage.formers:
        front, rear = faces_of(fuselage, former)
        wide = max(former.half_width - side_at(fuselage, former.station), 0.5)
        shapes.append(_box(former.id, (front, rear), (-wide, wide), 90.0, former.material))
    return WoodPicture(tuple(shapes), tuple(lines))


def sheet_picture(sheet: NestedSheet) -> WoodPicture:
    """A sheet with the pieces on it."""
    edge = ((0.0, 0.0), (sheet.length, 0.0), (sheet.length, sheet.width), (0.0, sheet.width))
    shapes = [WoodShape("", edge, grain=0.0, tone=tone_of(sheet.material), made=False, faint=True)]
    labels = []
    for placed in sheet.placed:
        outline, holes = placed.moved(placed.piece.outline), placed.piece.holes
        shapes.append(
            WoodShape(
                placed.piece.part,
                outline,
                tuple(placed.moved(hole) for hole in holes),
                0.0,
                tone_of(sheet.material),
            )
        )
        u = (min(p[0] for p in outline) + max(p[0] for p in outline)) / 2
        v = (min(p[1] for p in outline) + max(p[1] for p in outline)) / 2
        wide = max(p[0] for p in outline) - min(p[0] for p in outline)
        name = placed.piece.name.replace("_", " ").replace(" panel", "")
        labels.append(WoodLabel((u, v), name, "right", placed.piece.part, within=wide))
    return WoodPicture(tuple(shapes), (), tuple(labels))
