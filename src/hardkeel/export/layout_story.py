"""The record's pages of Lay out: figures of the fuselage, print check, balance, parts."""

from typing import Any

from hardkeel.airframe.hatches import depth_under
from hardkeel.balance.balancing import balance_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, format_length
from hardkeel.export.parts import parts_notes, parts_rows
from hardkeel.export.stationery import (
    WIDTH,
    Flowable,
    KeepTogether,
    Paragraph,
    Styles,
    mm,
    ruled_table,
    safe,
)
from hardkeel.fuselage.fairing import bumps_of
from hardkeel.messages.airframe import bump_sentence
from hardkeel.messages.balance import balance_sentence, bay_sentence, hatch_sentence
from hardkeel.messages.paper import cure_sentence, doubt_sentence, finding_sentence
from hardkeel.paper.audit import audit
from hardkeel.project.model import Build


def layout_story(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """Everything of Lay out that a build has; nothing where it has none."""
    return [
        *_fuselage(build, unit, styles),
        *_audits(build, unit, styles),
        *_balance(build, unit, styles),
        *_parts(build, unit, styles),
    ]


def _fuselage(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    fuselage = build.fuselage
    if fuselage is None or not fuselage.stations:
        return []
    rows = [["Station", "At", "Half-width", "Top", "Bottom"]]
    for name, stop in fuselage.stations:
        figures = (stop.station, stop.half_width, stop.top, stop.bottom)
        rows.append([name.replace("_", " "), *(format_length(f, unit) for f in figures)])
    bumps = [bump_sentence(bump, unit) for bump in bumps_of(fuselage)]
    return [
        Paragraph("Fuselage", styles.heading),
        ruled_table(rows, [34 * mm, 28 * mm, 28 * mm, 28 * mm, 28 * mm], (1, 2, 3, 4)),
        *(Paragraph(safe(text), styles.text) for text in bumps),
    ]


def _audits(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    story: list[Flowable] = []
    for sheet in build.audit:
        found = audit(sheet.pairs)
        said = [finding_sentence(found, unit), cure_sentence(found, unit)]
        said.append(doubt_sentence(sheet, found, unit))
        lines: list[Flowable] = [Paragraph(safe(f"Print check: {sheet.id}"), styles.heading)]
        lines += [Paragraph(safe(" ".join(text for text in said if text)), styles.text)]
        story.append(KeepTogether(lines))
    return story


def _balance(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    wanted = build.balance
    if wanted is None:
        return []
    try:
        found = balance_of(build.masses, build.wings, wanted)
    except BadInput:
        return []  # nothing weighs anything yet: there is nothing to record
    said = [
        balance_sentence(found, wanted, unit),
        bay_sentence(found, wanted, unit),
        hatch_sentence(wanted, depth_under(build.fuselage)),
        f"{found.mass:.0f} g all up, balance at {format_length(found.x, unit)}"
        + (
            f", {decimal(found.percent, 1)} % of the mean chord."
            if found.percent is not None
            else "."
        ),
    ]
    text = " ".join(part for part in said if part)
    return [
        KeepTogether([Paragraph("Balance", styles.heading), Paragraph(safe(text), styles.text)])
    ]


def _parts(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    rows: list[list[Any]] = list(parts_rows(build, unit))
    if len(rows) == 1:
        return []
    widths = [36 * mm, 26 * mm, 26 * mm, 14 * mm, WIDTH - 138 * mm, 16 * mm, 20 * mm]
    return [
        Paragraph("Parts", styles.heading),
        ruled_table(rows, widths, (4, 5)),
        *(Paragraph(safe(text), styles.text) for text in parts_notes(build)),
    ]
