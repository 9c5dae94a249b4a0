"""The record's pages of Frame: what was cut, what to look into, how square it stands, the order of work."""

from typing import Any

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.export.cut_table import cut_table
from hardkeel.export.stationery import WIDTH, Flowable, Paragraph, Styles, mm, ruled_table, safe
from hardkeel.fuselage.curing import judge_frame
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.squaring import Squared
from hardkeel.messages import order as say_order
from hardkeel.messages.findings import finding_sentence, finding_title
from hardkeel.messages.names import PHASE_WORDS
from hardkeel.messages.square import (
    check_title,
    off_words,
    reading_words,
    sighted_words,
    squared_lines,
    value_words,
)
from hardkeel.messages.steps import step_title
from hardkeel.messages.verdicts import verdict_word
from hardkeel.project.model import Build


def frame_story(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """Everything of Frame that a build has; nothing where it has none."""
    fuselage = build.fuselage
    framed = [] if fuselage is None else _cut(fuselage, unit, styles)
    squared = [] if fuselage is None else _square(fuselage, unit, styles)
    return [*framed, *squared, *_order(build, styles)]


def _cut(fuselage: Fuselage, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    if fuselage.framing is None:
        return []
    try:
        parts = cut_list_of(fuselage)
    except BadInput:
        return []  # fewer than two stations: there is no frame to record
    wrong = [
        f"{one.former}: {finding_title(one)} {finding_sentence(one, unit, fuselage.framed.web)}"
        for one in findings_of(fuselage)
    ]
    story: list[Flowable] = []
    if parts:
        story += [Paragraph("Frame", styles.heading), cut_table(parts, "Member", unit, styles)]
    if wrong:
        story.append(Paragraph("Frame, to look into", styles.heading))
        story += [Paragraph(safe(text), styles.text) for text in wrong]
    return story


def _square(fuselage: Fuselage, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    if fuselage.squaring is None or not fuselage.squaring.readings:
        return []
    judged = judge_frame(fuselage)
    squared, said = judged.squared, squared_lines(judged, unit)
    return [
        Paragraph("Square", styles.heading),
        *(Paragraph(safe(text), styles.text) for text in said),
        _checks(squared, unit),
        *([Paragraph(safe(sighted_words(squared)), styles.text)] if squared.sightings else []),
        *(_readings(squared, unit, styles) if squared.readings else []),
    ]


def _checks(squared: Squared, unit: LengthUnit) -> Flowable:
    rows = [["Check", "Value", "Doubt", "Wanted", "Verdict"]]
    for check in squared.checks:
        told = [
            format_length(figure, unit) if check.unit == "mm" else format_angle(figure)
            for figure in (check.value, 2 * check.sigma, check.tolerance)
        ]
        value, doubt, tolerance = told
        rows.append([check_title(check), value, f"±{doubt}", f"±{tolerance}", verdict_word(check)])
    widths = [50 * mm, 24 * mm, 24 * mm, 24 * mm, WIDTH - 122 * mm]
    return ruled_table(rows, widths, (1, 2, 3))


def _readings(squared: Squared, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    rows: list[list[Any]] = [["", "Reading", "Value", "Residual", "w", "Phase", "Used"]]
    for reading, fit in zip(squared.readings, squared.fits, strict=True):
        rows.append(
            [
                reading.id,
                Paragraph(safe(reading_words(reading)), styles.small),
                value_words(reading, unit),
                off_words(reading, fit.residual, unit),
                decimal(fit.w, 1),
                PHASE_WORDS[reading.phase] if reading.phase else "",
                "yes" if fit.used else "no",
            ]
        )
    widths = [16 * mm, WIDTH - 114 * mm, 24 * mm, 22 * mm, 12 * mm, 26 * mm, 14 * mm]
    return [
        Paragraph("Readings of the frame", styles.heading),
        ruled_table(rows, widths, (2, 3, 4)),
    ]


def _order(build: Build, styles: Styles) -> list[Flowable]:
    if not build.steps:
        return []
    rows: list[list[Any]] = [["", "Step", "Hands", "Glue"]]
    for step in build.steps:
        more = say_order.hold_words(step)
        words = safe(step_title(step))
        if more:
            words += "<br/>" + safe(more).replace("\n", "<br/>")
        rows.append(
            [
                say_order.STATES[step.state],
                Paragraph(words, styles.small),
                say_order.minutes_words(step.hands_minutes),
                step.glue or "",
            ]
        )
    widths = [16 * mm, WIDTH - 76 * mm, 20 * mm, 40 * mm]
    return [
        Paragraph("Order of work", styles.heading),
        ruled_table(rows, widths, (2,)),
    ]
