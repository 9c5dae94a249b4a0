"""How a guide runs and what that costs, in words."""

import math
from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.fuselage.routing import Exit, Way
from hardkeel.messages.frame import MEMBER_FIGURES


def place_figure(number: int, axis: str) -> str:
    """Of a guide's places, counted from the nose: ``place 2, over datum``."""
    return f"place {number + 1}, {MEMBER_FIGURES[axis]}"


ADD_A_PLACE: Final = "one more place"
TAKE_A_PLACE: Final = "one fewer"


def way_words(way: Way, exits: Sequence[Exit], unit: LengthUnit) -> str:
    """How a guide runs: its bends, what they cost, where it comes out."""
    told = [f"{format_length(way.length, unit)} long."]
    if math.isinf(way.radius):
        told.append("It runs straight.")
    else:
        told.append(
            f"Tightest at {format_length(way.at, unit)}: a radius of {format_length(way.radius, unit)}. "
            f"It turns by {format_angle(way.turn, 0)} in all: a cable pulls {decimal(way.pull, 2)} times as hard as straight."
        )
    for one in exits:
        x, _, z = one.place
        told.append(
            f"It comes through {_FACES[one.face]} at {format_length(x, unit)}, "
            f"{format_length(z, unit)} over datum: a slot {format_length(one.slot, unit)} long."
        )
    if not exits:
        told.append("Both its ends lie inside.")
    return " ".join(told)


_FACES: Final = {
    "port": "the port side",
    "starboard": "the starboard side",
    "top": "the top",
    "bottom": "the bottom",
}
