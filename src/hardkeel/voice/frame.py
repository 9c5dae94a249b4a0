"""What is cut and bent for a fuselage, in words."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, format_size
from hardkeel.fuselage.bending import Bend
from hardkeel.fuselage.buying import Purchase
from hardkeel.fuselage.cut_list import CutPart

_GOES: Final = {
    "dry": "bends dry",
    "soaked": "bends when soaked or steamed",
    "too tight": "breaks, soaked or not: laminate it, or cut kerfs",
    None: "of a wood that nothing is known of",
}


def bend_sentence(bend: Bend, unit: LengthUnit) -> str:
    """``side: 812 mm at 640 mm, 0.18 % strain, bends dry``."""
    if bend.radius is None or bend.at_station is None:
        return f"{bend.member}: straight"
    radius, place = format_length(bend.radius, unit, 0), format_length(bend.at_station, unit, 0)
    return f"{bend.member}: radius {radius} at {place}, {bend.strain:.2f} % strain, {_GOES[bend.verdict]}"


def closed_sentence(station: str, lacking: float, unit: LengthUnit) -> str:
    """``tail post: the longerons leave no room for a stick, 2.0 mm are lacking``."""
    name, more = station.replace("_", " "), format_length(lacking, unit)
    return f"{name}: the longerons leave no room for a stick, {more} are lacking"


def ends_words(part: CutPart) -> str:
    """The angles of both ends: ``88.9°, 87.5°``; both faces of a pointed one."""
    return ", ".join(" and ".join(format_angle(angle, 1) for angle in end) for end in part.ends)


def purchase_sentence(one: Purchase, unit: LengthUnit) -> str:
    """``4 of 5.0 × 5.0 mm balsa-medium, 915 mm: 6.1 % waste``."""
    size = format_size(one.section, unit)
    wood = f" {one.material}" if one.material else ""
    text = f"{one.pieces} of {size}{wood}, {format_length(one.stock, unit, 0)}: {one.waste:.1f} % waste"
    if one.pieces > one.at_least:
        text += f", {one.at_least} at the very least"
    return text + (f"; {one.joined} to be scarfed" if one.joined else "")
