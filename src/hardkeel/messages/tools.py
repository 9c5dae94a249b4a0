"""The builder's tools: what each is for, what it is worth, and what its own readings tell of it."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.messages.names import INSTRUMENT_NAMES, sentence_case
from hardkeel.messages.safety import LASER_CAUTION
from hardkeel.survey.instruments import Learned, ZeroError
from hardkeel.survey.model import Instrument, InstrumentKind

TOOLS: Final = "Tools"
WORTH: Final = "What your tools are worth"
HEADS: Final = ("tool", "counted as ±", "in doubt over 300 mm, five times as large", "")
COUNT_SO: Final = "Count it so"
TAKE_OFF: Final = "Take it off"
FROM: Final = "seen from"
STEP: Final = "shows steps of"
NOTHING_YET: Final = "Repeats tell what a tool is worth"
NOTHING_WHY: Final = (
    "Read three or four places twice, with the tool taken off and set anew in between. "
    "What they scatter by is the tool in your hand; an error that is the same every time does not show in it."
)
ALL_FITS: Final = "Your tools do what they are counted as"
HOW_TO: Final = "How they are used"
HOW: Final[dict[InstrumentKind, str]] = {
    "tape": "Tape: hold it at a pin, never at the hook, and read both ends.",
    "line": "Line: pinned at the tail, mark slid to one tip, swung to the other; what is missing is the reading.",
    "trammel": "Stick with a ring: ring set to one tip, swung to the other; stiff up to a metre.",
    "height-stand": "Height stand: pin brought to the mark from below, height read at the block.",
    "stand-pair": "Two equal stands under both tips: slide paper under the one that is short; its thickness is the reading.",
    "incidence-gauge": "Incidence gauge: zeroed on the datum, hung at right angles to the spar.",
    "level": "Level: across two like marks; turned end for end at one place it tells its own error.",
    "digital-level": "Digital level: the same; half a step is lost in what it shows.",
    "water-level": "Water level: no bubble in the hose, both ends read at the bottom of the bow.",
    "square": "Square: stood on a straight edge, read with a feeler at the far end.",
    "laser": f"Laser: along the centre line. {LASER_CAUTION}",
    "eye": "The eye: two edges in line, from the nose; what it is worth follows from how far off you stand and how long the shorter edge is.",
}


def tool_words(tool: Instrument) -> str:
    """``Water level``."""
    return sentence_case(tool.label or INSTRUMENT_NAMES[tool.kind])


def quantity(value: float, *, angular: bool, unit: LengthUnit) -> str:
    """A sigma with its unit, fine enough to tell two tools apart."""
    if angular:
        return format_angle(value)
    return format_length(value, unit, 2)


def learned_words(one: Learned, unit: LengthUnit) -> str:
    """``0.42 mm ± 0.12 from 6 repeats at 3 places (counted as 0.50 mm)``."""
    told = quantity(one.sigma, angular=one.angular, unit=unit)
    doubt = quantity(one.doubt, angular=one.angular, unit=unit)
    counted = quantity(one.counted, angular=one.angular, unit=unit)
    places = f"{one.places} places" if one.places > 1 else "one place"
    words = f"{told} ± {doubt}, from {one.readings} readings at {places} (counted as {counted})"
    if one.differs and one.usable > one.sigma:
        least = quantity(one.usable, angular=one.angular, unit=unit)
        return f"{words}; counted no finer than {least}: half of what it was"
    return words


def zero_words(zero: ZeroError) -> str:
    """``Shows 0.12° too much whichever way it lies``."""
    if not zero.noticeable:
        return f"its own error is within doubt: {format_angle(zero.error, signed=True)} ± {format_angle(zero.sigma)}"
    way = "too much" if zero.error > 0 else "too little"
    told = f"shows {format_angle(abs(zero.error))} {way} whichever way it lies, ± {format_angle(zero.sigma)}"
    if zero.pairs == 1:
        return f"{told}, by turning it at one place; turn it at another to be sure"
    if not zero.agree:
        return f"turned end for end at {zero.pairs} places it tells different things: one of those readings is wrong"
    return f"{told}, by turning it at {zero.pairs} places"


def worth_answer(
    tools: dict[str, Instrument], clear: list[Learned], zeros: list[ZeroError], unit: LengthUnit
) -> str:
    """The most telling thing about the tools, in a line."""
    if zeros:
        return f"{tool_words(tools[zeros[0].tool])} is out of true by {format_angle(abs(zeros[0].error))}"
    if clear:
        one = clear[0]
        finer = "better" if one.sigma < one.counted else "worse"
        told = quantity(one.sigma, angular=one.angular, unit=unit)
        return f"{tool_words(tools[one.tool])}: ±{told}, {finer} than counted"
    return ALL_FITS


def must_be_more(name: str) -> str:
    """``Tape: must be more than nothing``."""
    return f"{name}: it must be more than nothing"


def own_edit(name: str, *, had: bool) -> str:
    """The step's name for undo."""
    return f"own the {name.lower()}" if had else f"put the {name.lower()} away"


def count_edit(name: str) -> str:
    """The step's name for undo."""
    return f"count the {name.lower()} anew"


def take_off_edit(name: str) -> str:
    """The step's name for undo."""
    return f"take the error of the {name.lower()} off"
