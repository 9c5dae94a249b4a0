"""The whole model from port, at full size: datum, wings and tails at their angles, thrust line, balance point."""

import math
from typing import TYPE_CHECKING, Final

import numpy as np

from hardkeel.balance.balancing import balance_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.export.plan_drawing import SMALL_MM, TEXT_MM, PlanDrawing
from hardkeel.export.plan_stations import draw_stations
from hardkeel.fuselage.engine import thrust_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages import building_plan as say
from hardkeel.messages.names import surface_name
from hardkeel.picture.truing import keel_strokes
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE

if TYPE_CHECKING:
    from hardkeel.balance.model import Wing
    from hardkeel.tail.model import TailSurface

_EVERY_MM: Final = 5.0
_SPOT_MM: Final = 3.0


def elevation_plan(build: Build, unit: LengthUnit) -> PlanDrawing | None:
    """The model from the side; ``None`` without a fuselage or anything that stands on it.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    fuselage = build.fuselage or Fuselage()
    placed: list[Wing | TailSurface] = [*build.wings, *(t for t in build.tail if not t.upright)]
    lying = [
        (one.id, one.le_x, one.z, one.root_chord, one.incidence)
        for one in placed
        if one.le_x is not None and one.z is not None and one.root_chord
    ]
    if not lying:
        return None
    drawing = PlanDrawing("elevation")
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    x = np.unique(np.concatenate([np.arange(first, last, _EVERY_MM), loft.stations]))
    top, low = loft.top.value(x), loft.bottom.value(x)
    ring = [
        *zip(x.tolist(), top.tolist(), strict=True),
        *reversed(list(zip(x.tolist(), low.tolist(), strict=True))),
    ]
    drawing.line("OUTLINE", ring, closed=True, open_=True)
    for former in fuselage.formers:
        at = former.station
        drawing.line("FORMERS", [(at, former.bottom), (at, former.top)])
    for stroke in keel_strokes(build):
        if stroke.role == "wanted" and stroke.ref != FUSELAGE:
            points = [(u, -v) for u, v in stroke.points]
            drawing.line("OUTLINE", points, closed=True, open_=True)
    drawing.line("CENTRE", [(first - 20, 0.0), (last + 20, 0.0)])
    stops = [(name, stop.station) for name, stop in fuselage.stations]
    lowest = draw_stations(drawing, stops, unit)
    told = [_chord(drawing, one, unit) for one in lying]
    _thrust(drawing, fuselage, first)
    _balance(drawing, build, unit)
    drawing.label(
        [((u, v), 0.0) for u in (last + 28, first - 28) for v in (1.8, -1.8)], say.DATUM, SMALL_MM
    )
    drawing.front((first, lowest - 6), say.FROM_PORT)
    for number, words in enumerate(told, start=1):
        drawing.write((first, lowest - 6 - 4.5 * number), words, anchor="start")
    return drawing


def _chord(
    drawing: PlanDrawing, placed: tuple[str, float, float, float, float], unit: LengthUnit
) -> str:
    """Draw a root chord at its angle about its middle; the words that say where both its ends lie."""
    name, le_x, z, chord, incidence = placed
    turn = math.radians(incidence)
    middle = le_x + chord / 2
    along, rise = chord / 2 * math.cos(turn), chord / 2 * math.sin(turn)
    lead, trail = (middle - along, z + rise), (middle + along, z - rise)
    drawing.line("DIMENSIONS", [lead, trail])
    way = math.degrees(math.atan2(trail[1] - lead[1], trail[0] - lead[0]))
    words = say.surface_at(surface_name(name), format_angle(incidence, 2))
    places = [
        ((middle + share * chord, z + off), way if abs(off) < 8 else 0.0)  # noqa: PLR2004  near it, along it
        for off in (4.0, -4.0, 6.5, -6.5, 10.0, -10.0, 14.0, -14.0, 20.0, -20.0, 30.0)
        for share in (0.0, -0.25, 0.25, -0.4, 0.4)
    ]
    drawing.label(places, words)
    return say.chord_words(
        words, [format_length(v, unit) for v in (lead[0], lead[1], trail[0], trail[1])]
    )


def _thrust(drawing: PlanDrawing, fuselage: Fuselage, first: float) -> None:
    line = thrust_of(fuselage)
    if line is None or fuselage.engine is None:
        return
    (x0, z0), (x1, z1) = (line.cross[0], line.cross[2]), (line.hub[0], line.hub[2])
    long = max(math.hypot(x1 - x0, z1 - z0), 1.0)
    reach = 30.0 / long
    drawing.line("CENTRE", [(x0 - reach * (x1 - x0), z0 - reach * (z1 - z0)), (x1, z1)])
    down, side = fuselage.engine.down, fuselage.engine.side
    words = say.thrust_words(format_angle(down, 1), format_angle(side, 1))
    ahead = min(x1, first) - len(words) * SMALL_MM / 3 - 4
    drawing.label(
        [((ahead, z1 + v), 0.0) for v in (3.0, -3.0, 6.0, -6.0, 10.0, -10.0)], words, SMALL_MM
    )


def _balance(drawing: PlanDrawing, build: Build, unit: LengthUnit) -> None:
    """Where it shall balance: a round with its quarters, on the datum."""
    if build.balance is None:
        return
    try:
        x = balance_of(build.masses, build.wings, build.balance).target_x
    except BadInput:  # nothing says where yet
        return
    turns = [2 * math.pi * i / 32 for i in range(32)]
    spot = [(x + _SPOT_MM * math.cos(t), _SPOT_MM * math.sin(t)) for t in turns]
    drawing.line("DIMENSIONS", spot, closed=True)
    drawing.line("DIMENSIONS", [(x - _SPOT_MM, 0.0), (x + _SPOT_MM, 0.0)])
    drawing.line("DIMENSIONS", [(x, -_SPOT_MM), (x, _SPOT_MM)])
    words = say.balances_at(format_length(x, unit))
    places = [
        ((x + aside, v), 0.0)
        for v in (-6.5, 6.5, -10.0, 10.0, -15.0)
        for aside in (0.0, 25.0, -25.0)
    ]
    drawing.label(places, words, TEXT_MM)
