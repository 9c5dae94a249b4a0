"""What was done, told as done: a log tells deeds, not orders."""

import re
from typing import Final

from hardkeel.base.units import LengthUnit
from hardkeel.messages.advice import step_sentence
from hardkeel.survey.model import Survey
from hardkeel.survey.seat_step import SeatStep

# the verbs of our own orders at a seat, in the order's form and as a deed
_DONE: Final = {
    "hold": "held",
    "lean": "leant",
    "lower": "lowered",
    "raise": "raised",
    "make": "made",
    "open": "opened",
    "pack": "packed",
    "fill": "filled",
    "put": "put",
    "sand": "sanded",
    "slide": "slid",
    "take": "took",
}
_VERB: Final = re.compile(rf"(^|; |, )({'|'.join(_DONE)})\b", re.IGNORECASE)


def seat_deed(survey: Survey, body: str, step: SeatStep, unit: LengthUnit) -> str:
    """One step at a seat, done: ``Sanded 0.4 mm off the port front.``."""
    match step.act:
        case "untwist":
            return "Took the twist out of the panel with heat."
        case "leave":
            return "Left it: what was left was finer than hands can do."
        case "place":
            return "Said where it is held."
        case "again":
            return "Measured again: it was more than any seat is out."
        case _:
            return _VERB.sub(_past, step_sentence(survey, body, step, unit))


def step_deed(title: str, minutes: float | None) -> str:
    """A step of the work, done: ``Done: glue the fin's joints (25 min)``."""
    told = f"Done: {title[:1].lower()}{title[1:]}"
    return f"{told} ({minutes:.0f} min)" if minutes else told


def _past(found: re.Match[str]) -> str:
    before, verb = found[1], found[2]
    done = _DONE[verb.lower()]
    return before + (done.capitalize() if verb[0].isupper() else done)
