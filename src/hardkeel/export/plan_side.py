"""The building plan of stick sides: developed, as they are pinned down, once for the pair."""

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Final

from hardkeel.base.units import LengthUnit
from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import SMALL_MM, PlanDrawing, beside
from hardkeel.export.plan_stations import draw_stations
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.sticks import LongeronStrip, longeron_strips_of, sticks_of
from hardkeel.messages import building_plan as say

_PIN_EVERY_MM: Final = 60.0
_PIN_MM: Final = 1.2  # half a pin's cross
_PIN_OFF_MM: Final = 1.6  # of its middle beside the wood
_SQUARE_DEG: Final = 0.3


def side_plan(fuselage: Fuselage, unit: LengthUnit) -> PlanDrawing | None:
    """Stick sides with longerons, sticks numbered as in the cut list, angles, pins and stations; ``None`` without any.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    sections = sections_with(fuselage, "sticks")
    if not sections:
        return None
    drawing = PlanDrawing("side")
    strips = longeron_strips_of(fuselage)
    for strip in strips:
        drawing.line("OUTLINE", [*strip.outside, *reversed(strip.inside)], closed=True)
    sticks = sticks_of(fuselage)
    names = {part.key: part.name for part in cut_list_of(fuselage) if part.kind in _STICKS}
    for stick in sticks:
        drawing.line("STICKS", stick.outline, closed=True)
    for strip in strips:
        for u, v in _pins(strip):
            drawing.pin((u, v), _PIN_MM)
    for stick in sticks:
        drawing.point_out(stick.outline, say.short_name(names[stick.key]))
    for stick in sticks:
        for end, angles in enumerate(stick.ends):
            told = [angle for angle in angles if abs(90 - angle) > _SQUARE_DEG]
            if told:
                text = " / ".join(f"{angle:.1f}°" for angle in told)
                drawing.label(_at_end(stick.outline, upper=bool(end)), text, SMALL_MM)
    _stations(drawing, fuselage, unit)
    return drawing


_STICKS: Final = ("upright", "diagonal")


def _stations(drawing: PlanDrawing, fuselage: Fuselage, unit: LengthUnit) -> None:
    """Stations along the developed side, the datum line, and which way it lies."""
    loft = loft_of(fuselage)
    developed = dict(zip(loft.names, loft.developed().tolist(), strict=True))
    for section in sections_with(fuselage, "sticks"):
        first, last = loft.names.index(section.from_), loft.names.index(section.to)
        stops = [(name, developed[name]) for name in loft.names[first : last + 1]]
        low = draw_stations(drawing, stops, unit)
        start, end = stops[0][1], stops[-1][1]
        drawing.line("CENTRE", [(start - 8, 0.0), (end + 8, 0.0)])
        drawing.front((start, low - 8), say.FRONT_AND_FACE)


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
