"""Names of bodies, marks, readings and checks as a builder would say them."""

from typing import Final

from hardkeel.survey.checking import Check
from hardkeel.survey.model import (
    AngleAt,
    Body,
    Contact,
    Distance,
    DistanceDifference,
    Height,
    Incidence,
    Offset,
    Reading,
    Survey,
    Tilt,
)

_BODIES: Final = {"stab": "stabilizer"}
_WORDS: Final = {"le": "leading edge", "te": "trailing edge", "stab": "stabilizer", "ctr": "centre"}
_SIDES: Final = ("port", "starboard", "centre")
_CHECKS: Final = {
    "incidence": "{body} incidence",
    "yaw": "{body} square",
    "roll": "{body} level",
    "roll_to_wing": "{body} to wing",
    "offset": "{body} centred",
    "twist_difference": "{body} twist",
    "decalage": "Decalage",
    "fin_yaw": "Fin straight",
    "fin_lean_to_stab": "Fin upright",
}
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
    "offset": "centreline laser",
    "angle": "square",
}
PHASE_WORDS: Final = {"dry": "dry fit", "wet": "glue wet", "cured": "cured"}


def sentence_case(text: str) -> str:
    """First letter large, the rest as it is."""
    return text[:1].upper() + text[1:]


def body_name(survey: Survey, body_id: str) -> str:
    """``stabilizer`` for ``stab``; the builder's own label where there is one."""
    body: Body | None = survey.body(body_id)
    if body is not None and body.label:
        return body.label
    return _BODIES.get(body_id, body_id.replace("_", " ").replace("-", " "))


def mark_name(survey: Survey, mark_id: str) -> str:
    """A mark's label, or its id in words: ``wing tip trailing edge port``."""
    mark = survey.mark(mark_id)
    if mark is not None and mark.label:
        return mark.label
    return _spelled(mark_id)


def contact_name(contact: Contact) -> str:
    """Where a contact is on its seat: ``port front``."""
    return contact.label or _spelled(contact.id)


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
            return f"level, {_pair(name(reading.from_), name(reading.to), ' to ')}"
        case Offset():
            return f"{name(reading.mark)} off the centreline"
        case AngleAt():
            return f"angle at {name(reading.at)}: {name(reading.from_)}, {name(reading.to)}"
        case Incidence():
            return _incidence_name(survey, reading)


def _pair(first: str, second: str, between: str) -> str:
    """Two like marks without saying twice what they share: ``wing tip le, port less starboard``."""
    a, b = first.split(), second.split()
    shared = 0
    while shared < min(len(a), len(b)) - 1 and a[shared] == b[shared]:
        shared += 1
    if not shared:
        return f"{first}{between}{second}"
    return f"{' '.join(a[:shared])}, {' '.join(a[shared:])}{between}{' '.join(b[shared:])}"


def _incidence_name(survey: Survey, reading: Incidence) -> str:
    where = "centre" if reading.side == "centre" else f"{reading.side} {reading.span_fraction:.2g}"
    against = ", by gravity" if reading.zero == "level" else ""
    return f"incidence, {body_name(survey, reading.body)} {where}{against}"


def check_name(survey: Survey, check: Check) -> str:
    """``Stabilizer level``."""
    name = _CHECKS.get(check.kind, check.id.replace("_", " "))
    return sentence_case(name.format(body=sentence_case(body_name(survey, check.body))))


def _spelled(identifier: str) -> str:
    words = identifier.replace("-", "_").split("_")
    side = [word for word in words if word in _SIDES]
    rest = [_WORDS.get(word, word) for word in words if word not in _SIDES]
    return " ".join([*rest, *side]) or identifier
