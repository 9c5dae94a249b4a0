"""The thrust line in words: its figures, and where the bolts go so that the spinner stays on the centre line."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_small_length
from hardkeel.fuselage.engine import ThrustLine
from hardkeel.fuselage.model import Engine

MOTOR: Final = "Motor and thrust line"
PUT_ON: Final = "Put a motor on"
TAKE_OFF: Final = "Take it off"
FIGURES: Final = {
    "down": "down",
    "side": "to starboard",
    "reach": "prop ahead",
    "z": "prop height",
    "across": "bolts across",
    "up": "bolts up",
    "disc": "prop size",
}
ANGLES: Final = frozenset({"down", "side"})
_SEEN_MM: Final = 0.05


def bolts_words(engine: Engine, line: ThrustLine, unit: LengthUnit) -> str:
    """Where the cross of the bolts goes: ``Move the cross of the bolts 1.6 mm to port and 2.1 mm up``."""
    told = []
    aside, up = line.cross[1], line.cross[2] - engine.z
    if abs(aside) >= _SEEN_MM:
        side = "starboard" if aside > 0 else "port"
        told.append(f"{format_small_length(abs(aside), unit)} to {side}")
    if abs(up) >= _SEEN_MM:
        told.append(f"{format_small_length(abs(up), unit)} {'up' if up > 0 else 'down'}")
    if not told:
        return "The cross of the bolts lies on the centre line, as high as the propeller's middle."
    moved = " and ".join(told)
    return f"Move the cross of the bolts {moved}: then the spinner stays on the centre line."
