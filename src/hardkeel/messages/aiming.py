"""What the stabilizer is to be true to, and what comes of correcting both seats at once."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_small_length
from hardkeel.messages.names import body_name, check_name, contact_name, sentence_case
from hardkeel.messages.verdicts import format_value
from hardkeel.survey.attribution import BY_PACKING
from hardkeel.survey.correcting import packed_along
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import DATUM, Survey
from hardkeel.survey.roles import role_in, turn_of

AIM: Final = "Tail true to"
AT_WING: Final = "wing"
AIMS: Final = ((DATUM, "the keel line"), (AT_WING, "the wing as it stands"))
_OF_BOTH: Final = ("decalage", "roll_to_wing", "vee_tilt")


def aim_edit(aim: str) -> str:
    """The step's name for undo."""
    return "tail true to the wing" if aim != DATUM else "tail true to the keel line"


def _where(survey: Survey, body: str) -> str:
    """Where a seat is packed: under a contact, at a firewall behind it."""
    held = survey.body(body)
    return "behind" if held is not None and packed_along(held).axis == 0 else "under"


def together_words(survey: Survey, judgement: Judgement, unit: LengthUnit) -> str:
    """Both seats at once, wing before stabilizer, and what their common checks will be; empty for one seat."""
    joint = judgement.together
    if joint is None:
        return ""
    way = joint.only_shims
    # what packing does not mend (a fin that stands across the line) is told on its own card
    packed = {
        body
        for check in judgement.checks
        if check.verdict == "out" and check.kind in BY_PACKING
        for body in judgement.charged[check.id]
    }
    bodies = [one for one in dict.fromkeys(body for body, _, _ in way.moves) if one in packed]
    if len(bodies) < 2:  # noqa: PLR2004  one seat has its own card
        return ""
    bodies.sort(key=lambda body: turn_of(role_in(survey, body)))
    fitted = {one.body for one in judgement.corrections if one.fitted is not None}
    told = []
    for body in bodies:
        if body in fitted:  # no shims there: holes, struts, a prop under a tip
            told.append(f"{sentence_case(body_name(survey, body))}: as its own card says.")
            continue
        packs = [
            f"{format_small_length(mm, unit)} {_where(survey, body)} the {contact_name(survey, body, contact)}"
            for one, contact, mm in way.moves
            if one == body and mm > 0
        ]
        told.append(f"{sentence_case(body_name(survey, body))}: {', '.join(packs) or 'leave it'}.")
    after = [
        f"{check_name(survey, check).lower()} {format_value(check, unit)}"
        for check in way.checks
        if check.kind in _OF_BOTH
    ]
    return f"All at once, with shims. {' '.join(told)} Then {', '.join(after)}."
