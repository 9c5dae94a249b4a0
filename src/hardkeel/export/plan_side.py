"""The building plan of stick sides: developed, as they are pinned down, once for the pair."""

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.airframe.framing import seat_marks
from hardkeel.airframe.parts import woods_of
from hardkeel.balance.model import Wing
from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import SMALL_MM, PlanDrawing, beside
from hardkeel.export.plan_stations import draw_stations
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.gussets import gusset_places
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.sheeted import doublers_of
from hardkeel.fuselage.sticks import LongeronStrip, Stick, longeron_strips_of, sticks_of
from hardkeel.messages import building_plan as say
from hardkeel.messages.names import surface_name
from hardkeel.project.model import Build

STICKS: Final = ("upright", "diagonal")
_PIN_EVERY_MM: Final = 60.0
_PIN_MM: Final = 1.2  # half a pin's cross
_PIN_OFF_MM: Final = 1.6  # of its middle beside the wood
_SQUARE_DEG: Final = 0.3


def side_plan(build: Build, unit: LengthUnit) -> PlanDrawing | None:
    """Stick sides with all that is glued on them, numbered as in the cut list; ``None`` without any.

    Longerons, sticks, gussets, doublers (behind the sticks), where wings sit, angles, pins, stations with their offsets.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    fuselage = build.fuselage or Fuselage()
    sections = sections_with(fuselage, "sticks")
    if not sections:
        return None
    drawing = PlanDrawing("side")
    strips, sticks = longeron_strips_of(fuselage), sticks_of(fuselage)
    for strip in strips:
        drawing.line("OUTLINE", [*strip.outside, *reversed(strip.inside)], closed=True)
    for stick in sticks:
        drawing.line("STICKS", stick.outline, closed=True)
    glued_on = _draw_glued_on(drawing, fuselage)
    for strip in strips:
        for u, v in _pins(strip):
            drawing.pin((u, v), _PIN_MM)
    _stations(drawing, fuselage, strips, unit)
    _name_sticks(drawing, fuselage, sticks)
    _seats(drawing, fuselage, build.wings)
    for longeron in fuselage.longerons:
        words = say.longeron_words(
            longeron.id, _wood(build, longeron.material), longeron.section, unit
        )
        for strip in strips:
            if strip.is_lower == longeron.is_lower:
                drawing.label(_along(strip), words, SMALL_MM)
    for words, ring in glued_on:
        drawing.point_out(ring, words, SMALL_MM)
    return drawing


def _wood(build: Build, material: str | None) -> str:
    wood = woods_of(build).get(material or "")
    return wood.name if wood is not None else material or ""


def _along(strip: LongeronStrip) -> list[tuple[Point2, float]]:
    """Places outside of a longeron for its name, along it."""
    sign = -1.0 if strip.is_lower else 1.0
    found = []
    for (u0, v0), (u1, v1) in pairwise(strip.outside):
        way = math.atan2(v1 - v0, u1 - u0)
        for share in (0.5, 0.35, 0.65):
            u, v = u0 + share * (u1 - u0), v0 + share * (v1 - v0)
            for off in (2.2, 4.6):
                at = (u - sign * off * math.sin(way), v + sign * off * math.cos(way))
                found.append((at, math.degrees(way)))
    return found


def _draw_glued_on(
    drawing: PlanDrawing, fuselage: Fuselage
) -> list[tuple[str, tuple[Point2, ...]]]:
    """Gussets, and doublers behind the sticks; what is to be written beside each."""
    told = []
    for place in gusset_places(fuselage):
        drawing.line("GUSSETS", place.ring, closed=True)
        told.append((say.short_name(place.name.replace("_", " ")), place.ring))
    low, high = drawing.bounds[0], drawing.bounds[2]
    for piece in doublers_of(fuselage):
        if piece.bounds[2] <= low or piece.bounds[0] >= high:  # on sheet sides ahead of the sticks
            continue
        for ring in (piece.outline, *piece.holes):
            drawing.line("OUTLINE", ring, closed=True, hidden=True)
        told.append((say.inside_of_it(piece.name.replace("_", " ")), piece.outline))
    return told


def _name_sticks(drawing: PlanDrawing, fuselage: Fuselage, sticks: tuple[Stick, ...]) -> None:
    """Their numbers of the cut list, then the angles of their ends where they are not square."""
    names = {part.key: part.name for part in cut_list_of(fuselage) if part.kind in STICKS}
    for stick in sticks:
        drawing.figures[names[stick.key]] = stick.length
        drawing.point_out(stick.outline, say.short_name(names[stick.key]))
    for stick in sticks:
        for end, angles in enumerate(stick.ends):
            told = [angle for angle in angles if abs(90 - angle) > _SQUARE_DEG]
            if told:
                text = " / ".join(f"{decimal(angle, 1)}°" for angle in told)
                drawing.label(_at_end(stick.outline, upper=bool(end)), text, SMALL_MM)


def _seats(drawing: PlanDrawing, fuselage: Fuselage, wings: tuple[Wing, ...]) -> None:
    """Where wings sit on the sides, with the angle to the datum."""
    along = [u for line in drawing.lines if line.layer == "STICKS" for u, _ in line.points]
    low, high = min(along, default=0.0), max(along, default=0.0)
    for wing, mark in seat_marks(fuselage, wings):
        (u0, v0), (u1, v1) = mark.points[0], mark.points[-1]
        if u1 <= low or u0 >= high:  # on sheet ahead of the sticks, or behind them
            continue
        drawing.line("DIMENSIONS", mark.points)
        way = math.degrees(math.atan2(v1 - v0, u1 - u0))
        text = say.seat_of(surface_name(wing.id), format_angle(wing.incidence, 1))
        places = [
            ((u0 + t * (u1 - u0), v0 + t * (v1 - v0) + off), way)
            for off in (2.4, -2.4, 4.4, -4.4)
            for t in (0.5, 0.35, 0.65, 0.2, 0.8)
        ]
        drawing.label(places, text, SMALL_MM)


def _stations(
    drawing: PlanDrawing,
    fuselage: Fuselage,
    strips: tuple[LongeronStrip, ...],
    unit: LengthUnit,
) -> None:
    """Stations along the developed side with the heights of both edges, the datum line, and which way it lies."""
    loft = loft_of(fuselage)
    developed = dict(zip(loft.names, loft.developed().tolist(), strict=True))
    for section in sections_with(fuselage, "sticks"):
        first, last = loft.names.index(section.from_), loft.names.index(section.to)
        stops = [(name, developed[name]) for name in loft.names[first : last + 1]]
        for name, at in stops:
            drawing.figures[say.station_of(name)] = at
        start, end = stops[0][1], stops[-1][1]
        rows = [
            (
                say.UPPER_EDGE if not strip.is_lower else say.LOWER_EDGE,
                [format_length(_height(strip, at), unit) for _, at in stops],
            )
            for strip in sorted(strips, key=lambda one: one.is_lower)
            if start - 1 <= strip.outside[0][0] <= end and strip.outside[-1][0] <= end + 1
        ]
        low = draw_stations(drawing, stops, unit, rows)
        drawing.line("CENTRE", [(start - 8, 0.0), (end + 8, 0.0)])
        drawing.label([((end + 16, 1.8), 0.0), ((end + 16, -1.8), 0.0)], say.DATUM, SMALL_MM)
        drawing.front((start, low - 6), say.FRONT_AND_FACE)
        for number, words in enumerate(say.ORDER_OF_SIDES, start=1):
            drawing.write((start, low - 6 - 4.5 * number), words, anchor="start")


def _height(strip: LongeronStrip, at: float) -> float:
    """Of a longeron's outer edge over the datum at a place along the side, mm."""
    us, vs = zip(*strip.outside, strict=True)
    return float(np.interp(at, us, vs))


def _pins(strip: LongeronStrip) -> Iterator[Point2]:
    """Pins along both faces of a longeron: one at each kink, and so often between that a batten lies to the line."""
    for line, away in ((strip.outside, -1.0), (strip.inside, 1.0)):
        sign = away if strip.is_lower else -away
        for (u0, v0), (u1, v1) in pairwise(line):
            long = math.hypot(u1 - u0, v1 - v0)
            count = max(1, math.ceil(long / _PIN_EVERY_MM))
            normal = (-(v1 - v0) / long, (u1 - u0) / long)
            for i in range(count):
                share = (i + 0.5) / count
                yield (
                    u0 + share * (u1 - u0) + sign * _PIN_OFF_MM * normal[0],
                    v0 + share * (v1 - v0) + sign * _PIN_OFF_MM * normal[1],
                )


def _at_end(outline: tuple[Point2, ...], *, upper: bool) -> list[tuple[Point2, float]]:
    """Places beside a stick's end, from near it inwards."""
    every = beside(outline, SMALL_MM)
    vs = [v for _, v in outline]
    us = [u for u, _ in outline]
    upright = max(vs) - min(vs) > max(us) - min(us)
    order = (lambda place: place[0][1]) if upright else (lambda place: place[0][0])
    return sorted(every, key=order, reverse=upper)
