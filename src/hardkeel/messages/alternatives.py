"""Both stories of a check that is in doubt, and what decides between them."""

from hardkeel.base.units import LengthUnit
from hardkeel.messages.names import check_name
from hardkeel.messages.sharing import limit_words
from hardkeel.messages.sight import told_id
from hardkeel.messages.verdicts import format_doubt, format_value, verdict_sentence, way_off
from hardkeel.survey.alternatives import Alternative
from hardkeel.survey.checking import Check, verdict_of
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import Survey
from hardkeel.survey.rigging import deciding


def check_sentence(survey: Survey, judgement: Judgement, check: Check, unit: LengthUnit) -> str:
    """A check in one line: its verdict, both stories where it is in doubt, or that it lies at the edge."""
    doubt = alternative_of(judgement, check)
    if doubt is not None:
        return _both_stories(survey, judgement, check, doubt, unit)
    if check.edge:
        return (
            f"{check_name(survey, check)} lies at the limit, {format_value(check, unit)} "
            f"{format_doubt(check, unit)}: correct it or accept it."
        )
    told = verdict_sentence(survey, check, unit)
    rule = next((one for one in judgement.rules if one.id == check.id), None)
    if check.verdict != "unsure" or rule is None or not judgement.measured:
        return told
    limit = limit_words(survey, judgement, rule)
    return f"{told} What limits it: {limit}." if limit else told


def alternative_of(judgement: Judgement, check: Check) -> Alternative | None:
    """The likeliest story that turned this check's verdict."""
    return next((one for one in judgement.alternatives if check.id in one.checks), None)


def _both_stories(
    survey: Survey, judgement: Judgement, check: Check, doubt: Alternative, unit: LengthUnit
) -> str:
    name = check_name(survey, check)
    own = verdict_of(check.error, check.sigma, check.tolerance)
    here = f"{name} is out: {way_off(survey, check, unit)}" if own == "out" else f"{name} is true"
    names = [told_id(survey, one) for one in deciding(judgement, doubt)]
    if not names:
        return f"{here}, but not beyond doubt: measure more."
    which = " or ".join(f"“{one}”" for one in names[:2])
    verb = "are" if len(names) > 1 else "is"
    odds = max(1, round(1 / doubt.odds)) if doubt.odds < 1 else 1
    return f"{here}, unless {which} {verb} wrong (1 to {odds}): take it again."
