"""What the keel line shows, as plain values: the airframe as drawn, each part's worst check in words."""

from hardkeel.base.units import LengthUnit
from hardkeel.messages.names import body_name, sentence_case
from hardkeel.messages.verdicts import standing_words
from hardkeel.picture.truing import body_verdict, keel_strokes
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.roles import role_of, turn_of
from hardkeel.ui.shell.keel_line import Keel, PartState


def keel_of(build: Build, judgement: Judgement, unit: LengthUnit) -> Keel:
    """The keel line: the airframe as drawn, with each part's worst check in words."""
    survey = build.surveyed
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
