"""Names of bodies, marks, readings and checks as a builder would say them."""

from collections.abc import Mapping
from typing import Final

from hardkeel.base.units import shortest
from hardkeel.survey.checking import Check
from hardkeel.survey.instruments import read_over, tool_of
from hardkeel.survey.model import FUSELAGE, Body, InstrumentKind, Mark, Survey
from hardkeel.survey.readings import (
    AngleAt,
    Distance,
    DistanceDifference,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
)
from hardkeel.survey.roles import is_panel

_BODIES: Final = {
    "stab": "stabilizer",
    "canard": "foreplane",
    "thrust": "thrust line",
    "vee": "V-tail",
    "vee_port": "V port",
    "vee_starboard": "V starboard",
}
_WORDS: Final = {"le": "leading edge", "te": "trailing edge", "stab": "stabilizer", "canard": "foreplane", "ctr": "centre"}  # fmt: skip
# leading and trailing edge stay short where many are read in a list
_SHORT: Final = {
    "stab": "stabilizer",
    "canard": "foreplane",
    "vee": "V",
    "mid": "middle",
    "le": "LE",
    "te": "TE",
}
_MARKS: Final = {
    "nose_foot": "nose underside",
    "longeron_port": "upper longeron port",
    "longeron_starboard": "upper longeron starboard",
}
INSTRUMENT_NAMES: Final[dict[InstrumentKind, str]] = {
    "tape": "tape",
    "line": "line with a sliding mark",
    "trammel": "stick with a ring",
    "height-stand": "height stand",
    "stand-pair": "two equal stands",
    "incidence-gauge": "incidence gauge",
    "level": "level",
    "digital-level": "digital level",
    "water-level": "water level",
    "laser": "centre-line laser",
    "square": "square",
    "eye": "the eye from the nose",
}
_SIDES: Final = ("port", "starboard", "centre")
_CHECKS: Final = {
    "incidence": "{body} incidence",
    "yaw": "{body} square",
    "roll": "{body} level",
    "roll_to_wing": "{body} to wing",
    "offset": "{body} centred",
    "twist_difference": "{body} twist",
    "decalage": "Decalage",
    "fin_yaw": "{body} straight",
    "fin_lean_to_stab": "{body} upright",
    "fins_toe": "Fins' toe",
    "vee_yaw": "{body} square",
    "vee_tilt": "Halves level to wing",
    "vee_angle": "Halves' spread",
    "vee_incidence_difference": "Halves alike",
    "down": "Down thrust",
    "side": "Side thrust",
    "gap": "{body} gap",
    "stagger": "{body} stagger",
}
# of a panel on one side: its roll is its dihedral
_OF_PANELS: Final = {"roll": "{body} dihedral", "offset": "{body} home"}
KINDS: Final = {
    "distance": "distance",
    "distance-difference": "difference of two distances",
    "height": "height over the board",
    "incidence": "incidence",
    "tilt": "tilt against level",
    "offset": "off the centre plane",
    "angle": "angle",
}
TOOLS: Final = {
    "distance": "tape",
    "distance-difference": "line",
    "height": "height stand",
    "incidence": "incidence gauge",
    "tilt": "level",
    "offset": "centre-line laser",
    "angle": "square",
}
PHASE_WORDS: Final = {"dry": "dry fit", "wet": "glue wet", "cured": "cured"}


def tool_name(survey: Survey, reading: Reading) -> str:
    """What a reading is taken with: the builder's own tool, or what its kind wants."""
    tool = tool_of(survey, reading)
    if tool is None:
        return TOOLS[reading.kind]
    return tool.label or INSTRUMENT_NAMES[tool.kind]


def sentence_case(text: str) -> str:
    """First letter large, the rest as it is."""
    return text[:1].upper() + text[1:]


def body_name(survey: Survey, body_id: str) -> str:
    """``stabilizer`` for ``stab``; the builder's own label where there is one."""
    body: Body | None = survey.body(body_id)
    if body is not None and body.label:
        return body.label
    if body is not None and body.role == "vee":
        side = body_id.rpartition("_")[2]
        if side in _SIDES:
            return f"V {side}"
    of, outer, side = body_id.rpartition("_outer_")
    if outer and side in _SIDES:
        return f"{side} outer panel" if of == "wing" else f"{surface_name(of)}'s {side} outer panel"
    return _BODIES.get(body_id, body_id.replace("_", " ").replace("-", " "))


def surface_name(surface_id: str) -> str:
    """``stabilizer`` for ``stab``; what a builder has named goes by that."""
    return _BODIES.get(surface_id, surface_id.replace("_", " "))


def mark_name(survey: Survey, mark_id: str) -> str:
    """What the builder calls a mark, or what its id says: ``wing tip TE port``."""
    mark = survey.mark(mark_id)
    return called(mark) if mark is not None else _spelled(mark_id, _SHORT)


def called(mark: Mark) -> str:
    """The same of a mark at hand."""
    return mark.label or mark_words(mark)


def mark_words(mark: Mark) -> str:
    """What a mark's id says, and the former that it is at."""
    words = _MARKS.get(mark.id) or _spelled(mark.id, _SHORT)
    return f"{mark.former} {words}" if mark.former else words


def contact_words(contact_id: str) -> str:
    """What a contact's id says; one that is on neither side is at the foot of something upright."""
    ahead, _, side = contact_id.partition("_")
    if ahead in ("upper", "lower") and side:
        return f"{ahead} {side} bolt"
    if contact_id == "tip_prop":
        return "tip"
    if ahead in ("front", "rear"):
        return f"{side} {ahead}" if side else f"{ahead} of the foot"
    return _spelled(contact_id, _WORDS)


def contact_name(survey: Survey, body_id: str, contact_id: str) -> str:
    """Where a contact is on its body's seat: ``port front``."""
    body = survey.body(body_id)
    contacts = body.seat.contacts if body is not None and body.seat is not None else ()
    label = next((contact.label for contact in contacts if contact.id == contact_id), None)
    return label or contact_words(contact_id)


def reading_name(survey: Survey, reading: Reading) -> str:
    """One line that says what was held where."""

    def name(mark: str) -> str:
        return mark_name(survey, mark)

    match reading:
        case Distance():
            return f"{name(reading.from_)} to {name(reading.to)}"
        case DistanceDifference():
            return f"{name(reading.from_)} to {_pair(name(reading.to[0]), name(reading.to[1]), ' less ')}"
        case Height():
            return f"height of {name(reading.mark)}"
        case Tilt():
            return _tilt_name(survey, reading)
        case Offset():
            return f"{name(reading.mark)} off {_line_name(survey, reading)}"
        case AngleAt():
            return f"angle at {name(reading.at)}: {name(reading.from_)}, {name(reading.to)}"
        case Incidence():
            return _incidence_name(survey, reading)
        case Gap():
            return f"{name(reading.from_)} to {name(reading.to)} along {reading.axis}"


def _line_name(survey: Survey, reading: Offset) -> str:
    """The centre line, or the string that it is read from."""
    if reading.along is None:
        return "the centre line"
    nose, tail = (mark_name(survey, one) for one in reading.along)
    return f"the string from {_pair(nose, tail, ' to ')}"


def _pair(first: str, second: str, between: str) -> str:
    """Two like marks without saying twice what they share: ``wing tip LE, port less starboard``."""
    a, b = first.split(), second.split()
    shared = 0
    while shared < min(len(a), len(b)) - 1 and a[shared] == b[shared]:
        shared += 1
    if not shared:
        return f"{first}{between}{second}"
    return f"{' '.join(a[:shared])}, {' '.join(a[shared:])}{between}{' '.join(b[shared:])}"


def _tilt_name(survey: Survey, reading: Tilt) -> str:
    """A level laid across, or how far one end stands over the other."""
    start, end = mark_name(survey, reading.from_), mark_name(survey, reading.to)
    if read_over(survey, reading) is not None:
        swapped = ", ends changed" if reading.turned else ""
        return f"{_pair(end, start, ' over ')}{swapped}"
    turned = " turned end for end" if reading.turned else ""
    return f"level{turned}, {_pair(start, end, ' to ')}"


def _incidence_name(survey: Survey, reading: Incidence) -> str:
    where = (
        "centre"
        if reading.side == "centre"
        else f"{reading.side} {shortest(reading.span_fraction, 2)}"
    )
    against = ", by gravity" if reading.zero == "level" else ""
    turned = ", gauge turned end for end" if reading.turned else ""
    if reading.body == FUSELAGE:
        on = "the fuselage" if reading.zero == "level" else "the datum"
        return f"incidence gauge on {on}{against}{turned}"
    return f"incidence, {body_name(survey, reading.body)} {where}{against}{turned}"


def check_name(survey: Survey, check: Check) -> str:
    """``Stabilizer level``."""
    return name_of_check(survey, check.id, check.kind, check.body)


def short_check_name(survey: Survey, check: Check) -> str:
    """The same where the body is named above it: ``Level``."""
    name = check_name(survey, check)
    own = sentence_case(body_name(survey, check.body)) + " "
    return sentence_case(name.removeprefix(own))


def name_of_check(survey: Survey, check_id: str, kind: str, body_id: str) -> str:
    """The same from its id, its kind and its body's id."""
    name = _CHECKS.get(kind, check_id.replace("_", " "))
    body = survey.body(body_id)
    if kind in _OF_PANELS and body is not None and is_panel(body):
        name = _OF_PANELS[kind]
    return sentence_case(name.format(body=sentence_case(body_name(survey, body_id))))


def _spelled(identifier: str, known: Mapping[str, str]) -> str:
    words = identifier.replace("-", "_").split("_")
    side = [word for word in words if word in _SIDES]
    rest = [known.get(word, word) for word in words if word not in _SIDES]
    return " ".join([*rest, *side]) or identifier
