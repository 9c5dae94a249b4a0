"""Panels of a wing in words."""

from typing import Final

from hardkeel.balance.model import Wing
from hardkeel.base.units import LengthUnit, format_length

PANELS: Final = "Panels"
ANOTHER_BREAK: Final = "A break"
ONE_BREAK_LESS: Final = "One break less"
COMES_OFF: Final = "what lies outside comes off"
FIGURES: Final = {"y": "break at", "dihedral": "rises then", "sweep": "runs aft then"}
_NUMBERS: Final = ("", "second ", "third ", "fourth ")


def figure_words(number: int, key: str) -> str:
    """``second break at``."""
    ordinal = _NUMBERS[number] if number < len(_NUMBERS) else f"{number + 1}. "
    return f"{ordinal}{FIGURES[key]}" if key == "y" else FIGURES[key]


def panels_words(wing: Wing, unit: LengthUnit) -> str:
    """How high the tips stand, and what that makes of a wing that has no break."""
    tip = format_length(wing.height(wing.span / 2), unit)
    if not wing.breaks:
        return f"One panel each side, its tip {tip} over the root."
    off = next((one for one in wing.breaks if one.comes_off), None)
    told = f"The tips stand {tip} over the root."
    if off is not None:
        told += " The outer panels are set by themselves: dihedral, square, incidence, home."
    return told


def edit_words(key: str) -> str:
    """The step's name for undo."""
    return {
        "y": "move a break",
        "dihedral": "set a panel's dihedral",
        "sweep": "set a panel's sweep",
    }[key]


ADD: Final = "put a break in the wing"
TAKE: Final = "take a break out of the wing"
OFF: Final = "let the outer panels come off"
ON: Final = "let the outer panels stay on"
