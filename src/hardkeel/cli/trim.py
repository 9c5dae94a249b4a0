"""``hardkeel trim``: neutral point, margin, the decalage that trims, and what each error does in the air."""

import argparse
from typing import Any

from hardkeel.airframe.flights import build_trim, effects_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.cli.options import as_text, unit_of
from hardkeel.messages import air as say
from hardkeel.messages.names import check_name
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.readings import Phase
from hardkeel.trim.flying import Lifting, Trim, arm_of

Json = dict[str, Any]
_PERCENT = 100.0


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """What an error does in the air."""
    build = loaded.build
    if not build.wings:
        raise BadInput("wings", "is missing: nothing flies")
    phase = parsed.phase
    return (
        as_text(trim_json(build, phase))
        if parsed.json
        else trim_table(build, phase, unit_of(parsed))
    )


def trim_json(build: Build, phase: Phase | None) -> Json:
    """The contract's figures; what can't be had is null.

    Raises
    ------
    BadInput
        When the survey can't be adjusted.
    """
    judgement = judge_survey(build.survey, phase) if build.survey is not None else None
    checks = judgement.checks if judgement is not None else ()
    decalage = next((check.value for check in checks if check.id == "decalage"), None)
    trim = build_trim(build, decalage)
    craft = trim.craft
    found: Json = {
        "wing": _lifting(craft.wing),
        "stab": _named(craft.stab, arm=trim.stab_arm, volume=trim.stab_volume),
        "fin": _named(craft.fin, arm=trim.fin_arm),
        "fins": [_named(one, arm=arm_of(craft, one)) for one in craft.fins],
        "neutral_point_percent": _percent(trim.neutral_point),
        "static_margin_percent": _percent(trim.margin),
        "fuselage_takes_percent": _percent(trim.body_takes),
        "static_margin_with_fuselage_percent": _percent(trim.margin_with_body),
        "foreplane_wake_takes_percent": _percent(trim.wake_takes),
        "lift_coefficient": trim.lift_coefficient,
        "speed": trim.speed,
        "decalage_now": craft.decalage,
        "decalage_to_trim": trim.decalage_to_trim,
    }
    if judgement is not None:
        found["effects"] = [
            {"check": one.check, **dict(one.figures), "sigma": one.sigma}
            for one in effects_of(trim, checks)
        ]
    return found


def _named(one: Lifting | None, **more: float | None) -> Json | None:
    found = _lifting(one, **more)
    return found | {"id": one.id, "role": one.role} if one is not None and found else found


def _lifting(one: Lifting | None, **more: float | None) -> Json | None:
    if one is None:
        return None
    return {
        "area": one.area,
        "aspect_ratio": one.aspect_ratio,
        "lift_slope": one.lift_slope,
        "mean_chord": one.mean_chord,
        "centre_x": one.centre_x,
        **more,
    }


def _percent(share: float | None) -> float | None:
    return share * _PERCENT if share is not None else None


def trim_table(build: Build, phase: Phase | None, unit: LengthUnit) -> str:
    """The same for reading."""
    judgement = judge_survey(build.survey, phase) if build.survey is not None else None
    checks = judgement.checks if judgement is not None else ()
    decalage = next((check.value for check in checks if check.id == "decalage"), None)
    trim: Trim = build_trim(build, decalage)
    lines = [*say.trim_lines(trim), ""]
    by_id = {check.id: check for check in checks}
    for effect in effects_of(trim, checks):
        check = by_id[effect.check]
        if check.doubt > check.tolerance:
            continue  # nothing is known of it yet
        lines.append(f"{check_name(build.surveyed, check)}: {say.effect_sentence(effect, unit)}")
    lines += ["", say.fuselage_note(trim), *say.validity_notes(trim)]
    return "\n".join(lines) + "\n"
