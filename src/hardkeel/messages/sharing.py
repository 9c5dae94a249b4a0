"""What readings have in common, in the builder's words: what is supposed of it, what was found, what it is read for."""

import math
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.messages.names import body_name, called, mark_name, sentence_case
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.judging import Judgement, SharedFound
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import Incidence, Offset, Reading, Tilt

HEAD: Final = "What your readings may share"
WHY: Final = (
    "An error that several readings have in common does not show in their scatter. "
    "What is said here is sought together with everything else; 0 means it can't be."
)
SQUARED_TO: Final = "Stabilizer and fin are set square to"
SQUARED_WORDS: Final = {"fore": "the fore part", "line": "the line from nose to tail"}
# the prior, its unit, and its sentence around the figure
PRIORS: Final[tuple[tuple[str, str, str], ...]] = (
    ("mark", "mm", "My marks sit where they should to within"),
    ("gauge", "deg", "The gauge was zeroed on the datum to within"),
    ("gauge_seat", "deg", "It sits on each part to within"),
    ("level", "deg", "My level is true to within"),
    ("tape_zero", "mm", "The tape's hook is good to within"),
    ("tape_stretch", "mm", "In a metre the tape is right to within"),
    ("bend_y", "mm", "The tail may bend sideways by"),
    ("bend_z", "mm", "and up or down by"),
)
OFF: Final = "Nothing is supposed to be shared: each reading errs by itself"
SUPPOSE: Final = "Suppose what is usual"
SUPPOSE_NOTHING: Final = "Suppose that nothing is shared"
FOUND: Final = "Found in your readings"
SEEK: Final = "Seek what they share"
DO_NOT_FIT: Final = "The readings do not fit together"
EDIT: Final = "say what readings share"
SQUARED_EDIT: Final = "say what the tail is square to"
_USUAL_CAUSES: Final = (
    "A mark beside its place, a gauge that was not zeroed, a tape's hook or a tail that bent could do it: "
    "let them be sought under Tools."
)
_OTHER_CAUSES: Final = (
    "A tool is worse than it is counted, a mark lies far off, or something moved between readings."
)
_SLIPS: Final = 0.04  # of the readings: as many as careful people misread or write down wrong
_RARELY: Final = 2.33  # sigmas of a count, exceeded once in a hundred
_PER_METRE: Final = 1000.0
_PERCENT: Final = 100.0


def and_more(count: int) -> str:
    """``And 2 more, under Tools.``."""
    return f"And {count} more, under Tools."


def fit_sentence(judgement: Judgement) -> str:
    """That the readings do not fit together as their tools promise; empty where they do."""
    goodness, shared = judgement.goodness, judgement.net.survey.shared
    causes = _OTHER_CAUSES if shared is not None and shared.mark > 0 else _USUAL_CAUSES
    if goodness.poor:
        return (
            f"They fit {decimal(goodness.factor, 1)} times worse than your tools promise. {causes}"
        )
    many, aside = len(judgement.readings), len(judgement.outliers)
    if aside > _SLIPS * many + _RARELY * math.sqrt(_SLIPS * many) + 1:
        return f"{aside} of {many} readings do not fit the rest: too many to be slips. {causes}"
    return ""


def findings(survey: Survey, judgement: Judgement, unit: LengthUnit) -> list[str]:
    """What the readings share beyond doubt, a sentence each; the whole airframe's first, marks last."""
    found = [one for one in judgement.shared if one.found]
    found.sort(key=lambda one: _ORDER.index(one.what))
    return [found_sentence(survey, one, unit) for one in found]


_ORDER: Final = (
    "bend_y", "bend_z", "gauge", "level", "tape_zero", "tape_stretch", "gauge_seat", "mark",
)  # fmt: skip


def found_sentence(survey: Survey, one: SharedFound, unit: LengthUnit) -> str:
    """``Your gauge reads 0.40° high (±0.05°).``."""
    value, sigma = one.value[0], one.sigma[0]
    high = "high" if value > 0 else "low"
    size = format_angle(abs(value))
    doubt = f"(±{format_angle(sigma)})"
    mm, mm_doubt = format_length(abs(value), unit), f"(±{format_length(sigma, unit)})"
    match one.what:
        case "gauge":
            return f"{_yours(survey, one.owner, 'gauge')} reads {size} {high} {doubt}."
        case "gauge_seat":
            return f"On the {body_name(survey, one.owner)} the gauge sits so that it reads {size} {high} {doubt}."
        case "level":
            way = "too much" if value > 0 else "too little"
            return f"{_yours(survey, one.owner, 'level')} shows {size} {way} {doubt}."
        case "tape_zero":
            way = "too much" if value > 0 else "too little"
            return f"{_yours(survey, one.owner, 'tape')} reads {mm} {way} at every length {mm_doubt}: its hook."
        case "tape_stretch":
            way = "long" if value > 0 else "short"
            return f"{_yours(survey, one.owner, 'tape')} reads {decimal(abs(value) * _PERCENT, 2)} % {way}."
        case "bend_y":
            side = "starboard" if value > 0 else "port"
            to = SQUARED_WORDS[survey.squared_to]
            return (
                f"The tail bends {mm} to {side} behind the wing {mm_doubt}: "
                f"stabilizer and fin are set square to {to}."
            )
        case "bend_z":
            way = "up" if value > 0 else "down"
            return f"The tail bends {mm} {way} behind the wing {mm_doubt}."
        case _:
            return _mark_sentence(survey, one, unit)


def _mark_sentence(survey: Survey, one: SharedFound, unit: LengthUnit) -> str:
    ways = (("aft", "forward"), ("to starboard", "to port"), ("up", "down"))
    axis = max(range(len(one.value)), key=lambda i: abs(one.value[i]) / one.sigma[i])
    way = ways[axis][0 if one.value[axis] > 0 else 1]
    off = format_length(abs(one.value[axis]), unit)
    return f"The mark {mark_name(survey, one.owner)} sits {off} {way} of its place (±{format_length(one.sigma[axis], unit)})."


def _yours(survey: Survey, tool_id: str, kind: str) -> str:
    tool = next((one for one in survey.instruments or () if one.id == tool_id), None)
    return sentence_case(tool.label) if tool is not None and tool.label else f"Your {kind}"


def settling_reason(reading: Reading) -> str:
    """What a reading that settles a shared error is taken for; empty for any other."""
    match reading:
        case Incidence() if reading.body == FUSELAGE and reading.zero == "datum":
            return "To tell a crooked gauge from a crooked wing."
        case Incidence() if reading.turned:
            return "To tell the gauge's own error from the part's."
        case Tilt() if reading.turned:
            return "To tell the level's own error from the part's."
        case Offset() if reading.along is not None:
            return "To tell a bent tail from one that is set crooked."
        case _:
            return ""


_LIMITS: Final = {
    "gauge": "how the gauge was zeroed: put it on the datum, or turn it end for end",
    "level": "the level's own error: turn it end for end",
    "tape_zero": "the tape's hook: read a length that the drawing tells",
    "tape_stretch": "the tape: read a length that the drawing tells",
    "bend_y": "how the tail bends sideways: a laser along the fore part, or a string over marks between nose and tail, tells",
    "bend_z": "how the tail bends up or down: read heights along the fuselage",
}


def limit_words(survey: Survey, judgement: Judgement, rule: CheckRule) -> str:
    """What keeps a check from being known better, where it is something that readings share; empty where none does."""
    limit = judgement.limit_of(rule)
    if limit is None:
        return ""
    what, owner = limit
    if what == "gauge_seat":
        name = body_name(survey, owner)
        return f"how the gauge sits on the {name}: read the heights of both its edges instead"
    if what == "mark":
        mark = survey.mark(owner)
        name = called(mark) if mark is not None else owner
        return f"where the mark {name} sits: measure its place anew, or read to another"
    return _LIMITS[what]


def prior_text(shared: Shared, key: str) -> float:
    """A prior as it is shown: a stretch in mm in a metre."""
    value = float(getattr(shared, key))
    return value * _PER_METRE if key == "tape_stretch" else value


def prior_kept(key: str, shown: float) -> float:
    """What was typed as it is kept."""
    return shown / _PER_METRE if key == "tape_stretch" else shown
