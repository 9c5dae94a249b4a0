"""How a figure far from what is usual is asked about."""

from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import both_units, shortest
from hardkeel.messages.names import surface_name
from hardkeel.project.unusual import Oddity

_FIELDS: Final = {
    "le_x": "leading edge at the root",
    "sweep_le": "sweep of the leading edge",
    "x": "place",
    "z": "height",
    "y": "distance from the middle",
    "at": "place",
    "between": "place along the fuselage",
    "skin": "sheet",
    "section": "stick",
    "sticks": "stick",
    "target_percent": "place of the balance point on the mean chord",
    "web": "wood beside a hole",
}


def asked_about(oddity: Oddity) -> str:
    """The question beside the field: the same again is taken."""
    return f"{_odd(oddity)}: if that is so, enter it once more"


def looked_at(found: Sequence[Oddity]) -> str:
    """What is told of a file that holds such figures; empty where there are none."""
    if not found:
        return ""
    more = f" So are {len(found) - 1} more figures." if len(found) > 2 else ""  # noqa: PLR2004
    more = " So is one more figure." if len(found) == 2 else more  # noqa: PLR2004
    return f"{_odd(found[0])}: look whether that is so.{more}"


def _odd(oddity: Oddity) -> str:
    usual = oddity.usual
    name = _FIELDS.get(oddity.field, oddity.field.replace("_", " "))
    span = f"usual is {shortest(usual.least)} to {shortest(usual.most)} {usual.unit}".replace(
        " °", "°"
    )
    if usual.unit == "mm":
        value = both_units(oddity.value)
    else:
        value = f"{shortest(oddity.value)} {usual.unit}".replace(" °", "°")
    return f"{surface_name(oddity.owner)}: {name} {value} is unusual ({span})"
