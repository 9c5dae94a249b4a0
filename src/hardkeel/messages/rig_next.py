"""The one thing to do at a stage of rigging."""

from hardkeel.base.units import LengthUnit
from hardkeel.messages.advice import (
    AT_THE_EDGE,
    DOUBT_IS_LEFT,
    HANGS_ON_IT,
    next_step,
    reading_step,
    urgent_step,
)
from hardkeel.messages.locks import check_why
from hardkeel.messages.names import body_name, check_name, reading_name, sentence_case
from hardkeel.messages.next_steps import NextStep
from hardkeel.messages.safety import GLUE_CAUTION
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.rigging import decides_on_stage, ends_stage, next_on_stage


def stage_step(survey: Survey, judgement: Judgement, body: str, unit: LengthUnit) -> NextStep:
    """The one thing to do at the stage of rigging that is in hand."""
    if judgement.phase == "wet" and survey.gluing is not None:
        return next_step(survey, judgement, unit)
    urgent = urgent_step(survey, judgement, body, unit)
    if urgent is not None:
        return urgent
    name = "fuselage" if body == FUSELAGE else body_name(survey, body)
    found = next_on_stage(judgement, body)
    if body in survey.locked:
        return NextStep("on", f"The {name} is glued", "Go on with the next stage.", body=body)
    if found:
        return reading_step(survey, judgement, found[0], unit)
    if body == FUSELAGE:
        return NextStep("on", "How the fuselage stands is known", "Go on with the wing.", body=body)
    return _decided(survey, judgement, body) or _ending(survey, judgement, body)


def _decided(survey: Survey, judgement: Judgement, body: str) -> NextStep | None:
    """A reading on which a verdict hangs, or what is out; ``None`` where nothing is."""
    again = decides_on_stage(judgement, body)
    if again is not None:
        title = sentence_case(reading_name(survey, again))
        return NextStep("reading", title, HANGS_ON_IT, again)
    out = [check for check in judgement.checks_on(body) if check.verdict == "out"]
    if out:
        names = ", ".join(check_name(survey, check).lower() for check in out)
        return NextStep(
            "correct",
            f"Correct the {body_name(survey, body)}",
            f"Known, and out: {names}.",
            body=body,
        )
    return None


def _ending(survey: Survey, judgement: Judgement, body: str) -> NextStep:
    """All that can be read of a stage is read, and nothing of it is out."""
    name = body_name(survey, body)
    check = ends_stage(judgement, body)
    if check is not None:
        title = sentence_case(reading_name(survey, check))
        return NextStep("reading", title, check_why(survey, judgement, check), check)
    open_ = [c for c in judgement.checks if c.body == body and c.verdict == "unsure"]
    if any(not check.edge for check in open_):
        names = ", ".join(check_name(survey, check).lower() for check in open_)
        return NextStep(
            "lock", f"Your tools can't decide the {name}", f"Left open: {names}.", body=body
        )
    why = f"{AT_THE_EDGE}, or glue it as it stands." if open_ else "All of it is true."
    hung = {check for doubt in judgement.alternatives for check in doubt.checks}
    if any(check.id in hung for check in open_):
        why = DOUBT_IS_LEFT
    return NextStep("lock", f"Glue the {name} and lock it", f"{why} {GLUE_CAUTION}", body=body)
