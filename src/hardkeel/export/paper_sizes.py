"""Sizes of paper, mm: ISO 216, and ANSI/ASME Y14.1 letter where inches are at home."""

from typing import Final

from hardkeel.base.units import LengthUnit

PAPERS: Final[dict[str, tuple[float, float]]] = {
    "A4": (210.0, 297.0),
    "Letter": (215.9, 279.4),
    "A3": (297.0, 420.0),
}


def paper_for(unit: LengthUnit) -> str:
    """What lies in the printer of a builder who measures so, until another is chosen."""
    return "Letter" if unit == "in" else "A4"
