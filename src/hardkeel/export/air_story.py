"""What a truing record says beyond the checks: the stages of rigging, what the glue has moved, what it does in the air."""

from hardkeel.airframe.flights import build_trim
from hardkeel.airframe.tails import rudder_of
from hardkeel.base.units import LengthUnit
from hardkeel.export.stationery import Flowable, KeepTogether, Paragraph, Styles, safe
from hardkeel.messages import air as say
from hardkeel.messages.gluing import movement_words
from hardkeel.messages.names import check_name
from hardkeel.messages.rigging import STAGES, stage_tip
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.rigging import rig_stages
from hardkeel.trim.flying import effect_of


def air_story(
    build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles
) -> list[Flowable]:
    """Headings with their lines; what there is nothing to say of is left out."""
    survey = build.surveyed
    hung = rudder_of(build) is not None
    stages = [stage_tip(survey, stage) for stage in rig_stages(judgement, rudder=hung)]
    moved = movement_words(survey, judgement, unit)
    parts = [
        (STAGES, stages if judgement.measured else []),
        (say.GLUE_MOVED, [moved] if judgement.movement else []),
        (say.IN_THE_AIR, _air(build, judgement, unit)),
    ]
    return [
        KeepTogether(
            [
                Paragraph(safe(heading), styles.heading),
                *(Paragraph(safe(line), styles.text) for line in lines),
            ]
        )
        for heading, lines in parts
        if lines
    ]


def _air(build: Build, judgement: Judgement, unit: LengthUnit) -> list[str]:
    decalage = judgement.check("decalage")
    known = decalage is not None and judgement.measured and decalage.doubt <= decalage.tolerance
    trim = build_trim(build, decalage.value if decalage is not None and known else None)
    if trim.neutral_point is None:
        return []
    lines = say.trim_lines(trim)
    for check in judgement.checks if judgement.measured else ():
        effect = effect_of(trim, check, check.error, check.doubt)
        edge = effect_of(trim, check, check.tolerance, 0.0)
        if effect is None or edge is None or check.doubt > check.tolerance:
            continue
        name = check_name(build.surveyed, check)
        lines.append(f"{name}: {say.effect_sentence(effect, unit)} {say.edge_sentence(edge, unit)}")
    return [*lines, say.fuselage_note(trim), *say.validity_notes(trim)]
