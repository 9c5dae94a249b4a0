"""The last stage of rigging: the rudder on its hinge line, free to move."""

from typing import Final

from hardkeel.airframe.tails import clashes_in, rudder_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages.next_steps import NextStep
from hardkeel.messages.tail import clash_sentences
from hardkeel.project.model import Build
from hardkeel.survey.model import RUDDER
from hardkeel.tail.controls import hinge_stations

IN_LINE: Final = "Looked along from behind, its edge lies in line with the fin when the servo stands in the middle"
FREE: Final = "it falls to either side by its own weight"


def rudder_step(build: Build, unit: LengthUnit) -> NextStep:
    """Hang it, or go on: how far it must swing, and what it touches on the way."""
    if RUDDER in build.surveyed.locked:
        return NextStep(
            "on",
            "The rudder is hung",
            "Rigging is done: when all has cured, read once more.",
            body=RUDDER,
        )
    lines = [f"{IN_LINE}; {FREE}."]
    swing = _swing(build, unit)
    if swing:
        lines.append(swing)
    return NextStep("lock", "Hang the rudder and lock it", " ".join(lines), body=RUDDER)


def _swing(build: Build, unit: LengthUnit) -> str:
    """How far its edge goes, and what is in the way; empty where the drawing does not say."""
    fin = rudder_of(build)
    if fin is None:
        return ""
    try:
        stations = hinge_stations(fin, build.profiles)
        clashes = [one for one in clashes_in(build) if any("rudder" in part for part in one.parts)]
    except BadInput:
        return ""
    widest = max(stations, key=lambda one: one.chord)
    sides = (
        format_length(widest.edge_up, unit) + " to each side"
        if widest.edge_up == widest.edge_down
        else f"{format_length(widest.edge_up, unit)} to starboard and {format_length(widest.edge_down, unit)} to port"
    )
    in_the_way = " ".join(clash_sentences(clashes, unit)) or "Nothing is in its way."
    return f"Its edge swings {sides} where it is widest. {in_the_way}"
