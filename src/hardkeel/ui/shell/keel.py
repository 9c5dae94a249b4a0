"""What the keel line shows, as plain values: the airframe as drawn, each part's worst check in words."""

from hardkeel.base.units import LengthUnit
from hardkeel.messages import practising as say
from hardkeel.messages.names import body_name, sentence_case
from hardkeel.messages.verdicts import standing_words
from hardkeel.picture.truing import body_verdict, keel_strokes
from hardkeel.practice.standing import told_of
from hardkeel.project.model import Build
from hardkeel.project.practice import PracticeSection
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, Verdict
from hardkeel.survey.roles import role_of, turn_of
from hardkeel.ui.shell.keel_line import Keel, PartState


def keel_of(build: Build, judgement: Judgement, unit: LengthUnit) -> Keel:
    """The keel line: the airframe as drawn, with each part's worst check in words."""
    survey = build.surveyed
    if build.practice is not None:
        return Keel(keel_strokes(build), _in_practice(build, build.practice, judgement, unit))
    parts = tuple(
        PartState(
            body.id,
            sentence_case(body_name(survey, body.id)),
            body_verdict(judgement, body.id),
            standing_words(build.surveyed, judgement, body.id, unit),
        )
        for body in sorted(survey.bodies, key=lambda body: turn_of(role_of(body)))
        if body.id != FUSELAGE
    )
    return Keel(keel_strokes(build), parts, dict(build.listed.states))


def _in_practice(
    build: Build, section: PracticeSection, judgement: Judgement, unit: LengthUnit
) -> tuple[PartState, ...]:
    """Each part that is asked about with what was said of it; how it is only when it is over."""
    survey = build.surveyed
    told = {one.line.check: one for one in told_of(build, judgement)}
    parts = []
    for body in sorted(survey.bodies, key=lambda body: turn_of(role_of(body))):
        mine = [one for one in judgement.checks if one.body == body.id and one.id in section.asked]
        if not mine:
            continue
        verdict: Verdict | None = None
        words = say.said_words(mine, section)
        over = [told[one.id] for one in mine if one.id in told]
        if over:
            worst = max(
                over, key=lambda one: (one.line.is_out, one.outcome in ("missed", "called"))
            )
            verdict = "out" if worst.line.is_out else "true"
            check = next(one for one in mine if one.id == worst.line.check)
            words = say.part_words(worst, check, unit)
        name = sentence_case(body_name(survey, body.id))
        parts.append(PartState(body.id, name, verdict, words))
    return tuple(parts)
