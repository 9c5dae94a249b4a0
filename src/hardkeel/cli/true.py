"""``hardkeel true``: what is out of true, and by how much."""

import argparse

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.cli.options import as_text, unit_of
from hardkeel.logbook.entries import measured_again
from hardkeel.messages.advice import (
    format_reading,
    format_residual,
    headline,
    next_step,
    seat_advice,
    suspect_sentence,
)
from hardkeel.messages.alternatives import alternative_of, check_sentence
from hardkeel.messages.names import PHASE_WORDS, check_name, reading_name
from hardkeel.messages.sharing import findings, fit_sentence
from hardkeel.messages.sight import TOO_FEW, clicked_words, view_words
from hardkeel.messages.verdicts import format_doubt, format_value, verdict_word, way_off
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.sighting import photo_view
from hardkeel.survey.telling import as_json

_NAME_WIDTH = 44


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """The judgement of the survey."""
    build = loaded.build
    if build.survey is None:
        raise BadInput("survey", "is missing: there are no readings to adjust")
    judgement = judge_survey(build.survey, parsed.phase)
    return (
        as_text(as_json(judgement))
        if parsed.json
        else true_table(build, judgement, unit_of(parsed))
    )


def true_table(build: Build, judgement: Judgement, unit: LengthUnit) -> str:
    """Checks, doubts, corrections, the next reading, and every reading with its residual."""
    survey = build.surveyed
    phase = PHASE_WORDS[judgement.phase] if judgement.phase else "all phases"
    lines = [f"{build.name or 'Unnamed build'}, {phase}: {headline(survey, judgement)}", ""]
    for check in judgement.checks:
        text = f"  {check_name(survey, check):<28}{format_value(check, unit):>10} {format_doubt(check, unit):<10}"
        verdict = verdict_word(check)
        told = f"{verdict}: {way_off(survey, check, unit)}" if check.verdict == "out" else verdict
        if check.edge:
            told = f"{verdict}: correct it or accept it"
        lines.append(text + told)
    lines += _section(
        "What they share",
        [one for one in (fit_sentence(judgement), *findings(survey, judgement, unit)) if one],
    )
    lines += _section(
        "Doubts", [suspect_sentence(survey, judgement, s, unit) for s in judgement.outliers]
    )
    lines += _section(
        "Not beyond doubt",
        [
            check_sentence(survey, judgement, check, unit)
            for check in judgement.checks
            if alternative_of(judgement, check) is not None
        ],
    )
    for correction in judgement.corrections:
        again = measured_again(build.log, correction.body)
        advice = seat_advice(survey, judgement, correction, "sanding", unit, insisted=again)
        if advice.needed:
            do = list(advice.do)
            if correction.fitted is None and advice.chosen:
                shims = seat_advice(survey, judgement, correction, "shims", unit, insisted=again)
                do += ["Or, with shims only:", *shims.do]
            lines += _section(advice.title, [line for line in (*do, advice.then) if line])
    step = next_step(survey, judgement, unit)
    lines += _section("Next", [f"{step.title}. {step.why}"])
    lines += _section("Photos", _photos(build, judgement, unit))
    lines += _section("Readings", _readings(build, judgement, unit))
    return "\n".join(lines) + "\n"


def _section(title: str, lines: list[str]) -> list[str]:
    return ["", title, *(f"  {line}" for line in lines)] if lines else []


def _photos(build: Build, judgement: Judgement, unit: LengthUnit) -> list[str]:
    """Each photo with what is clicked in it."""
    lines = []
    for photo in build.surveyed.photos:
        clicks = [one for one in judgement.sightings if one.photo == photo.id and not one.ignored]
        view = photo_view(judgement, photo.id)
        lines.append(clicked_words(photo.id, len(clicks)))
        lines.append(view_words(view, unit) if view is not None else TOO_FEW)
    return lines


def _readings(build: Build, judgement: Judgement, unit: LengthUnit) -> list[str]:
    rows = []
    for reading, fit in zip(judgement.readings, judgement.fits, strict=True):
        name = f"{reading.id:<5}{reading_name(build.surveyed, reading)}"
        noticed = "nothing checks it"
        if fit.noticed_from < float("inf"):
            angular = reading.kind in ("incidence", "tilt", "angle")
            amount = (
                format_angle(fit.noticed_from) if angular else format_length(fit.noticed_from, unit)
            )
            noticed = f"noticed from {amount}"
        state = ("" if fit.used else "  not used") + ("  simulated" if reading.simulated else "")
        rows.append(
            f"{name:<{_NAME_WIDTH + 20}}{format_reading(build.surveyed, reading, unit):>11}"
            f"{format_residual(build.surveyed, reading, fit, unit):>10}  {noticed}{state}"
        )
    return rows
