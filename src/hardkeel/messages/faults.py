"""What went wrong, in words: faults carry a place in the file's own terms, and mm; a builder reads neither."""

import re
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, marked
from hardkeel.edits.steps import OutOfOrder
from hardkeel.messages.steps import out_of_order
from hardkeel.project.model import Build

# keys of figures that are no lengths: they are told as they stand
_PLAIN: Final = frozenset(
    {
        "at_chord", "count", "dihedral", "down", "elevator_fraction", "focal", "front", "hinge_at_chord", "incidence",
        "lift_coefficient", "mass", "minutes", "pieces", "pivot_at_chord", "quantity", "rear", "rudder_fraction", "side",
        "sigma", "span_fraction", "speed", "target_percent", "value", "washout", "yaw", "zero_lift",
    }
)  # fmt: skip
_SPOKEN: Final = {
    "half_width": "half-width",
    "hinge_at_chord": "the hinge's share of the chord",
    "pivot_at_chord": "the pivot's share of the chord",
    "le_x": "leading edge",
    "sweep_le": "sweep",
    "z": "height",
}
_MEMBERS: Final = {
    "formers": "former",
    "wings": "wing",
    "tail": "tail surface",
    "longerons": "longeron",
    "members": "member",
    "breaks": "break",
    "masses": "mass",
}
_PART: Final = re.compile(r"(\w+)(?:\[(\d+)\])?")
# a file's name has dots too: only a place that begins with a section of the build is walked
_SECTIONS: Final = frozenset(Build.model_fields)
_FIGURE: Final = re.compile(r"(?<=(?:than|most|east| not) )-?\d+(?:\.\d+)?(?:e[+-]?\d+)?")
_WITH_UNIT: Final = re.compile(r"(-?\d+(?:\.\d+)?) mm\b")


def told(fault: BadInput, unit: LengthUnit = "mm") -> str:
    """One sentence for the builder, without a full stop, lengths in his unit."""
    if isinstance(fault, OutOfOrder):
        return out_of_order(fault.step, fault.waits)
    place, text = fault.place, fault.fault
    key = _PART.findall(place)[-1][0] if _PART.findall(place) else ""
    if key and key not in _PLAIN and not re.search(r"\b(mm|degrees)\b", text):
        text = _FIGURE.sub(lambda found: format_length(float(found[0]), unit), text)
    if unit == "in":
        text = _WITH_UNIT.sub(lambda found: format_length(float(found[1]), unit), text)
    text = marked(text)
    name = _named(place)
    return f"{name} {text}" if name else text


def _named(place: str) -> str:
    """``fuselage.formers[2].half_width`` as ``former 3: half-width``."""
    if not place:
        return ""
    parts = _PART.findall(place)
    if " " in place or ("." in place and parts[0][0] not in _SECTIONS):
        return f"{place}:"
    owner = next(
        (
            f"{_MEMBERS[name]} {int(number) + 1}"
            for name, number in parts[::-1]
            if name in _MEMBERS and number
        ),
        "",
    )
    last, number = parts[-1]
    if last in _MEMBERS and number:
        return f"{owner}:"
    said = _SPOKEN.get(last, last.replace("_", " "))
    return f"{owner}: {said}" if owner else said
