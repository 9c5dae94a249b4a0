"""Sizes of paper, mm: ISO 216, ANSI/ASME Y14.1 letter and tabloid where inches are at home, and rolls by their width."""

from typing import Final

from hardkeel.base.units import LengthUnit

PAPERS: Final[dict[str, tuple[float, float]]] = {
    "A4": (210.0, 297.0),
    "Letter": (215.9, 279.4),
    "A3": (297.0, 420.0),
    "Tabloid": (279.4, 431.8),
}
DESK_PAPERS: Final = ("A4", "Letter")  # what most printers take
ROLL_LONG_MM: Final = 3000.0  # a page of a roll is cut off where its drawing ends, or here
ROLLS: Final[dict[str, tuple[float, float]]] = {
    "roll 610": (610.0, ROLL_LONG_MM),
    "roll 914": (914.0, ROLL_LONG_MM),
}


def paper_for(unit: LengthUnit) -> str:
    """What lies in the printer of a builder who measures so, until another is chosen."""
    return "Letter" if unit == "in" else "A4"
