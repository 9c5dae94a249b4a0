"""What is locked since when, and that it moved: the same words on strip, card, record and command."""

from collections.abc import Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import LengthUnit
from hardkeel.messages.counting import number_of
from hardkeel.messages.gluing import moved_words
from hardkeel.messages.names import body_name, reading_name, sentence_case
from hardkeel.messages.next_steps import NextStep
from hardkeel.messages.plan import clock_words, day_words
from hardkeel.survey.judging import Judgement
from hardkeel.survey.lock_watch import LockWatch
from hardkeel.survey.model import Survey, bodies_of
from hardkeel.survey.readings import Reading
from hardkeel.survey.rigging import in_question

_FEW: Final = 3
BEFORE_IT_MOVED: Final = "from before it moved: not used"


def moved_title(survey: Survey, watch: LockWatch) -> str:
    """``The lower wing has moved since it was locked``."""
    if watch.rivals:
        return f"The {body_name(survey, watch.body)} has moved since it was locked, or {_and(watch.rivals)} was bad"
    return f"The {body_name(survey, watch.body)} has moved since it was locked"


def moved_why(survey: Survey, watch: LockWatch, unit: LengthUnit) -> str:
    """By how much, by which readings, and what to do."""
    body = survey.body(watch.body)
    said = moved_words(body, watch.parts, unit) if body is not None else ""
    how = f"{sentence_case(said)}: " if said else ""
    left = number_of(len(watch.before), "reading")
    few = len(watch.read) <= _FEW
    read = _and(watch.read) if few else f"{len(watch.read)} readings since"
    other = f"this, or {_and(watch.rivals)} being bad, and " if watch.rivals else ""
    told = f"{how}{read} fit {other}nothing else."
    return f"{told} Unlock it and true it again: {left} from before no longer count."


def in_question_why(survey: Survey, watch: LockWatch) -> str:
    """Before it is known which of the two."""
    return f"Tells whether a reading is bad or the {body_name(survey, watch.body)} has moved since it was locked."


def check_why(survey: Survey, judgement: Judgement, check: Reading) -> str:
    """Why something is read at the end of a stage that is no question of it: asks of no lock that it does not touch."""
    touched = bodies_of(survey, check)
    names = [body_name(survey, one.body) for one in judgement.locks if one.body in touched]
    asked = (
        f"Does the {names[0]} still stand as when it was locked?"
        if len(names) == 1
        else f"Do the {_and(names)} still stand as when they were locked?"
    )
    return f"{asked} Read it before this is glued."


def _and(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def locked_when(since: str) -> str:
    """``Mon 30 Nov 20:15``."""
    moment = datetime.fromisoformat(since)
    return f"{day_words(moment)} {clock_words(moment)}"


def lock_step(
    survey: Survey, judgement: Judgement, stage: str, unit: LengthUnit
) -> NextStep | None:
    """What is locked and moved, or may have; not while glue is wet, which waits for nothing."""
    if judgement.phase == "wet" and survey.gluing is not None:
        return None
    for watch in judgement.moved:
        title, why = moved_title(survey, watch), moved_why(survey, watch, unit)
        return NextStep("moved", title, why, body=watch.body)
    found = in_question(judgement, stage)
    if found is None:
        return None
    watch, reading = found
    title = sentence_case(reading_name(survey, reading))
    return NextStep("reading", title, in_question_why(survey, watch), reading)
