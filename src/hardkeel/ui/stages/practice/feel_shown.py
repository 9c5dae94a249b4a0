"""What *By feel* shows, as plain values: the turned airframe, its checks as vials, its tools, causes."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.geometry.rotation import Array
from hardkeel.messages import practising as say
from hardkeel.messages.advice import format_difference, format_reading
from hardkeel.messages.air import effect_line
from hardkeel.messages.names import body_name, check_name, sentence_case
from hardkeel.messages.verdicts import VERDICT_WORDS, in_the_air, way_off
from hardkeel.picture.truing import (
    View,
    fuselage_strokes,
    project,
    rings_by,
    seen_corners,
    view_of_check,
)
from hardkeel.practice.feeling import ON_BENCH, Feel
from hardkeel.practice.symptoms import Cause
from hardkeel.survey.checking import Check
from hardkeel.trim.flying import effect_of
from hardkeel.ui.stages.practice.lamp_view import Ghosts, Scene
from hardkeel.ui.widgets.cells import Row
from hardkeel.ui.widgets.vial import VialValue

_VIEWS: Final[tuple[View, ...]] = ("behind", "plan", "side")
_TOOLS: Final = 12


def parts_of(feel: Feel) -> tuple[tuple[str, str], ...]:
    """What can be turned, and the bench."""
    survey = feel.judgement.net.survey
    return tuple(
        (
            body,
            sentence_case(say.ON_BENCH if body == ON_BENCH else body_name(survey, body)),
        )
        for body in feel.turns
    )


def vials(feel: Feel, unknowns: Array, unit: LengthUnit) -> tuple[VialValue, ...]:
    """Each check as it then is, what is out first, and what that does in the air."""
    survey, trim = feel.judgement.net.survey, feel.trim
    found = []
    for check in feel.checks(unknowns):
        effect = effect_of(trim, check, check.error, 0.0)
        out = check.verdict == "out"
        air = effect_line(effect, unit) if effect is not None else in_the_air(check)
        found.append(
            VialValue(
                id=check.id,
                name=check_name(survey, check),
                error=check.error / check.tolerance,
                sigma=0.0,
                verdict=check.verdict,
                text=_amount(check, unit),
                word=VERDICT_WORDS[check.verdict],
                sentence=_sentence(feel, check, unit),
                below=air if out else "",
            )
        )
    return tuple(sorted(found, key=lambda one: one.verdict != "out"))


def _amount(check: Check, unit: LengthUnit) -> str:
    return format_length(check.value, unit) if check.unit == "mm" else format_angle(check.value)


def _sentence(feel: Feel, check: Check, unit: LengthUnit) -> str:
    survey = feel.judgement.net.survey
    name = check_name(survey, check)
    if check.verdict == "out":
        return f"{name}: {way_off(survey, check, unit)}"
    return f"{name}: {VERDICT_WORDS['true']}"


def tool_rows(feel: Feel, unknowns: Array, unit: LengthUnit) -> tuple[Row, ...]:
    """What tools would show otherwise than on a true airframe."""
    survey = feel.judgement.net.survey
    return tuple(
        Row(
            str(number),
            (
                say.place_name(survey, one.reading),
                format_reading(survey, one.reading.but(value=one.true), unit),
                format_reading(survey, one.reading.but(value=one.shown), unit),
                format_difference(survey, one.reading, one.shown - one.true, unit),
            ),
            tip=say.place_name(survey, one.reading),
            typed=False,
            cell_colours={1: "soft"},
        )
        for number, one in enumerate(feel.tools(unknowns)[:_TOOLS])
    )


def scenes(feel: Feel, unknowns: Array, factor: float, unit: LengthUnit) -> tuple[Scene, ...]:
    """The three views, each part as turned over as drawn."""
    build, net = feel.build, feel.judgement.net
    survey = net.survey
    turned = rings_by(build, net, unknowns, factor)
    outlines = fuselage_strokes(build.fuselage) if build.fuselage is not None else []
    out = [one for one in feel.checks(unknowns) if one.verdict == "out"]
    found = []
    for view in _VIEWS:
        parts = []
        for body in survey.bodies:
            if body.id not in turned:
                continue
            corners = seen_corners(survey, body, turned[body.id][0], view)
            drawn = project(view, [turned[body.id][0][i] for i in corners])
            now = project(view, [turned[body.id][1][i] for i in corners])
            mine = [one for one in out if one.body == body.id and view_of_check(one.kind) == view]
            words = _sentence(feel, mine[0], unit) if mine else ""
            parts.append(Ghosts(body.id, now, drawn, (), asked=True, out=bool(mine), words=words))
        fuselage = tuple(
            one.points for one in outlines if one.view == view and one.role == "fuselage"
        )
        found.append(Scene(view, fuselage, tuple(parts)))
    return tuple(found)


def cause_lines(feel: Feel, causes: tuple[Cause, ...], unit: LengthUnit) -> list[tuple[str, str]]:
    """Each cause with what to read first."""
    survey = feel.judgement.net.survey
    return [
        (say.cause_words(survey, one, unit), say.first_words(survey, one, unit)) for one in causes
    ]
