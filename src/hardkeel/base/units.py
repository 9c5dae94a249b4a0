"""Lengths and angles as builders write them.

Inside the program every length is in millimetres and every angle in degrees; inches and fractions
exist only here and where this is called, at the edge.
"""

import math
import re
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, Literal

from hardkeel.base.errors import BadInput

LengthUnit = Literal["mm", "in"]

_DECIMALS: Final = re.compile(r"(?<=\d)\.(?=\d)")
_MARK = ["."]  # what decimals are written with; the window says what the reader's language has
MM_PER_INCH: Final = 25.4  # exact, by definition of the inch
FINEST_FRACTION: Final = 64
LONGEST_MM: Final = 1e6
_LONGEST_ENTRY: Final = 40
# a comma with three digits behind it: thousands to one builder, tenths to the next
_GROUPED = re.compile(r"(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])")

_UNITS: Final = {
    "": None,
    "mm": 1.0,
    "cm": 10.0,
    "m": 1000.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    "inches": MM_PER_INCH,
    '"': MM_PER_INCH,
    "ft": 12 * MM_PER_INCH,
    "foot": 12 * MM_PER_INCH,
    "feet": 12 * MM_PER_INCH,
    "'": 12 * MM_PER_INCH,
    "thou": MM_PER_INCH / 1000,
    "mil": MM_PER_INCH / 1000,
    "mils": MM_PER_INCH / 1000,
}
_PLAIN = re.compile(r"(?P<number>\d+(?:\.\d*)?|\.\d+)\s*(?P<unit>[a-z]*|\"|')")
_FRACTION = re.compile(
    r"(?:(?P<whole>\d+)\s*[-\s+]\s*)?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)\s*(?P<unit>[a-z]*|\")"
)
_FEET = re.compile(r"(?P<feet>\d+)\s*(?:'|ft)\s*-?\s*(?P<rest>.+)")

_ANGLE = re.compile(
    r"(?P<sign>[+-]?)\s*(?:(?P<deg>\d+(?:\.\d*)?|\.\d+)(?!\s*/))?(?:[-\s]*(?P<top>\d+)\s*/\s*(?P<bottom>\d+))?"
    r"\s*(?:°|deg|degrees?)?(?:\s*(?P<min>\d+(?:\.\d*)?)\s*')?(?:\s*(?P<sec>\d+(?:\.\d*)?)\s*\")?"
)


@dataclass(frozen=True, slots=True)
class Understood:
    """A length that was read from text.

    Attributes
    ----------
    mm : float
        The length.
    as_text : str
        What was understood, in both units, to show beside the field.
    """

    mm: float
    as_text: str


def parse_length(text: str, bare: LengthUnit = "mm") -> Understood:
    """Read a length.

    Parameters
    ----------
    text : str
        ``12.5``, ``12.5 mm``, ``1/2``, ``1-3/16"``, ``1 3/16 in``, ``3/32``, ``1' 2-1/2"`` …; a comma
        is taken for a decimal point.
    bare : {"mm", "in"}
        The unit of a plain number without one.  A bare fraction is always inches: nobody
        writes millimetres that way.

    Raises
    ------
    BadInput
        With a sentence that says what would be understood.
    """
    cleaned = _bounded(text)
    sign = 1.0
    if cleaned[:1] in "+-" and cleaned:
        sign = -1.0 if cleaned[0] == "-" else 1.0
        cleaned = cleaned[1:].lstrip()
    mm = sign * _unsigned_mm(cleaned, text, bare)
    if not abs(mm) < LONGEST_MM:
        raise BadInput("", f"{text.strip()} is longer than anything on a bench")
    return Understood(mm, both_units(mm))


def parse_place(text: str, bare: LengthUnit = "mm") -> tuple[float, float]:
    """Read a place on a sheet, two lengths: ``50, 70``; in mm.

    Raises
    ------
    BadInput
        When it is not two lengths.
    """
    parts = text.replace(";", ",").split(",")
    if len(parts) != 2:  # noqa: PLR2004  x and y
        raise BadInput("", f"“{text.strip()}”: write its place like 50, 70")
    x, y = (parse_length(part, bare).mm for part in parts)
    return x, y


def parse_angle(text: str) -> float:
    """Read an angle in degrees: ``2.1``, ``2.1°``, ``-0.3 deg``, ``1°30'``, ``2°15'30"``, ``½°``, ``2 1/2``.

    Raises
    ------
    BadInput
        When it is not an angle between −180 and 180 degrees.
    """
    match = _ANGLE.fullmatch(_bounded(text))
    none = match is None or not any(match[key] for key in ("deg", "top", "min", "sec"))
    if match is None or none or not int(match["bottom"] or 1):
        raise BadInput("", f"“{text.strip()}” is not an angle; write it like 2.1 or −0.3")
    degrees = (
        float(match["deg"] or 0) + float(match["min"] or 0) / 60 + float(match["sec"] or 0) / 3600
    )
    if match["bottom"] is not None:
        degrees += int(match["top"]) / int(match["bottom"])
    if degrees > 180:  # noqa: PLR2004  half a turn
        raise BadInput("", f"{text.strip()} is more than half a turn")
    return -degrees if match["sign"] == "-" else degrees


def parse_number(text: str) -> float:
    """Read a plain number: ``168``, ``30.5``; a comma is taken for a decimal point.

    Raises
    ------
    BadInput
        When it is none.
    """
    cleaned = _bounded(text).rstrip("g% ")
    if re.fullmatch(r"[+-]?(\d+(\.\d*)?|\.\d+)", cleaned) is None:
        raise BadInput("", f"“{text.strip()}” is not a number")
    value = float(cleaned)
    if not abs(value) < LONGEST_MM:
        raise BadInput("", f"{text.strip()} is too large")
    return value


def write_decimals_with(mark: str) -> None:
    """Write decimals with this mark from now on, as the reader's language does: ``.`` or ``,``.

    For what is read by people; files and commands keep the point, for they never say otherwise.
    """
    _MARK[0] = mark if mark in (".", ",") else "."


def marked(text: str) -> str:
    """A sentence that was written with points, its decimals as the reader writes them."""
    return _DECIMALS.sub(_MARK[0], text) if _MARK[0] != "." else text


def decimal(value: float, digits: int, *, signed: bool = False) -> str:
    """A figure with so many decimals: ``30.5``; signed ``+30.5``."""
    text = f"{value:+.{digits}f}" if signed else f"{value:.{digits}f}"
    return text.replace(".", _MARK[0])


def shortest(value: float, figures: int = 6) -> str:
    """A figure as short as it can be written with so many figures: ``0.2``, ``12``."""
    return f"{value:.{figures}g}".replace(".", _MARK[0])


def format_length(mm: float, unit: LengthUnit, digits: int = 1) -> str:
    """A length with its unit: ``231.5 mm`` or ``9.114″``; `digits` counts decimals of mm."""
    if unit == "mm":
        return f"{_no_minus_zero(mm, digits)} mm"
    return f"{_no_minus_zero(mm / MM_PER_INCH, digits + 2)}″"


def format_size(sides_mm: Iterable[float], unit: LengthUnit) -> str:
    """The sides of a part or a strip, the unit once: ``60.0 × 3.0 mm``, ``2.362 × 0.118″``."""
    told = [format_length(side, unit).removesuffix("″").removesuffix(" mm") for side in sides_mm]
    return " × ".join(told) + ("″" if unit == "in" else " mm")


def format_area(mm2: float, unit: LengthUnit) -> str:
    """An area: ``12.3 cm²`` or ``1.91 in²``."""
    if unit == "mm":
        return f"{_no_minus_zero(mm2 / 100, 1)} cm²"
    return f"{_no_minus_zero(mm2 / MM_PER_INCH**2, 2)} in²"


def format_small_length(mm: float, unit: LengthUnit) -> str:
    """A correction: ``0.6 mm``, or decimal inches with the nearest 64th beside: ``0.024″ (1/32)``."""
    if unit == "mm":
        return format_length(mm, "mm")
    sixty_fourths = nearest_fraction(mm)
    return f"{format_length(mm, 'in')} ({sixty_fourths})"


def format_angle(degrees: float, digits: int = 2, *, signed: bool = False) -> str:
    """An angle with its sign where asked: ``1.90°``, ``+0.20°``."""
    text = _no_minus_zero(degrees, digits)
    if signed and round(degrees, digits) > 0:
        text = "+" + text
    return f"{text}°"


def nearest_fraction(mm: float) -> str:
    """The nearest 64th of an inch: ``9-7/64``, ``1/32``, ``0``."""
    exact = Fraction(round(mm / MM_PER_INCH * FINEST_FRACTION), FINEST_FRACTION)
    sign, exact = ("−", -exact) if exact < 0 else ("", exact)
    whole, rest = divmod(exact, 1)
    if rest == 0:
        return f"{sign}{whole}"
    return f"{sign}{whole}-{rest}" if whole else f"{sign}{rest}"


def both_units(mm: float) -> str:
    """What a field shows that it understood: ``30.16 mm = 1-3/16″``."""
    return f"{_no_minus_zero(mm, 2)} mm = {nearest_fraction(mm)}″"


def _bounded(text: str) -> str:
    """What was typed, made uniform; hundreds of digits are no figure.

    Raises
    ------
    BadInput
        When it is longer than any figure, or its comma may stand for thousands or for tenths.
    """
    if len(text) > _LONGEST_ENTRY:
        raise BadInput("", f"“{text[:12]}…” is too long for a figure")
    grouped = _GROUPED.search(text)
    if grouped:
        one = grouped[0]
        raise BadInput(
            "",
            f"{one} can be read two ways: write {one.replace(',', '')} or {one.replace(',', '.')}",
        )
    return _normalise(text)


def _normalise(text: str) -> str:
    out = []
    for char in text.strip().lower():
        if unicodedata.category(char) == "No" and "FRACTION" in unicodedata.name(char, ""):
            value = Fraction(unicodedata.numeric(char)).limit_denominator(FINEST_FRACTION)
            out.append(f" {value.numerator}/{value.denominator}")
        else:
            out.append(
                {
                    ",": ".",
                    "−": "-",
                    "–": "-",
                    "″": '"',
                    "”": '"',
                    "“": '"',
                    "′": "'",
                    "’": "'",
                }.get(char, char)
            )
    return "".join(out).replace("''", '"').strip().rstrip(".") if out else ""


def _unsigned_mm(cleaned: str, text: str, bare: LengthUnit) -> float:
    feet = _FEET.fullmatch(cleaned)
    if feet:
        return int(feet["feet"]) * 12 * MM_PER_INCH + _unsigned_mm(feet["rest"].strip(), text, "in")
    fraction = _FRACTION.fullmatch(cleaned)
    if fraction:
        return _fraction_mm(fraction, text)
    plain = _PLAIN.fullmatch(cleaned)
    if plain is None or plain["unit"] not in _UNITS:
        raise BadInput("", f"“{text.strip()}” is not a length; write it like 12.5 or 1-3/16″")
    factor = _UNITS[plain["unit"]] or (1.0 if bare == "mm" else MM_PER_INCH)
    return float(plain["number"]) * factor


def _fraction_mm(fraction: re.Match[str], text: str) -> float:
    unit, bottom = fraction["unit"], int(fraction["bottom"])
    if _UNITS.get(unit, 0.0) not in (None, MM_PER_INCH):
        raise BadInput("", f"“{text.strip()}”: fractions are read as inches only")
    if bottom == 0:
        raise BadInput("", f"“{text.strip()}”: a fraction can't have 0 below the line")
    inches = Fraction(int(fraction["whole"] or 0)) + Fraction(int(fraction["top"]), bottom)
    return float(inches) * MM_PER_INCH


def _no_minus_zero(value: float, digits: int) -> str:
    if not math.isfinite(value):
        return "–"
    text = f"{value:.{digits}f}"
    if float(text) == 0:
        text = text.lstrip("-")
    return text.replace("-", "−").replace(".", _MARK[0])
