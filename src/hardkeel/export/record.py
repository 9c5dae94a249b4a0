"""The PDF record: what was measured, what it says, what was done; for the club and the next owner."""

import io
from collections.abc import Mapping
from types import MappingProxyType
from typing import Any, Final

from hardkeel import __version__
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.air_story import air_story
from hardkeel.export.drawing import space_drawing, view_drawing
from hardkeel.export.frame_story import frame_story
from hardkeel.export.layout_story import layout_story
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.photo_story import photo_story
from hardkeel.export.plan_story import plan_story
from hardkeel.export.stationery import (
    INK,
    REGULAR,
    WIDTH,
    Canvas,
    Flowable,
    KeepTogether,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Styles,
    Table,
    mm,
    register_fonts,
    ruled_table,
    safe,
)
from hardkeel.export.tail_story import tail_story
from hardkeel.logbook.entries import measured_again, total_hours, with_timed
from hardkeel.messages.advice import (
    format_reading,
    format_residual,
    headline,
    seat_advice,
    suspect_sentence,
)
from hardkeel.messages.in_the_round import FROM_PORT_AHEAD
from hardkeel.messages.log import entry_text
from hardkeel.messages.names import PHASE_WORDS, check_name, reading_name
from hardkeel.messages.safety import SAFETY
from hardkeel.messages.sharing import FOUND, findings, fit_sentence
from hardkeel.messages.verdicts import (
    format_doubt,
    format_value,
    format_wanted,
    verdict_word,
    way_off,
)
from hardkeel.picture.frame_in_space import in_space
from hardkeel.picture.truing import picture_of
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement

_FACTOR: Final = 10.0


def record_pdf(
    build: Build,
    judgement: Judgement,
    unit: LengthUnit,
    attached: Mapping[str, bytes] = MappingProxyType({}),
    paper: str = "A4",
) -> bytes:
    """The record as the bytes of a PDF with real text.

    Parameters
    ----------
    attached : mapping of str to bytes
        Photos that the build names; of one that is not here the figures stand alone.
    """
    register_fonts()
    styles = Styles()
    out = io.BytesIO()
    wide, tall = (size * mm for size in PAPERS[paper])
    document = SimpleDocTemplate(
        out,
        pagesize=(wide, tall),
        leftMargin=18 * mm,
        rightMargin=18 * mm,
        topMargin=16 * mm,
        bottomMargin=18 * mm,
        title=f"{build.name or 'Build'}: truing record",
        author="Hard Keel",
        subject="Truing record",
        invariant=1,
    )
    story = [
        *_head(build, judgement, styles),
        *_views(build, judgement, styles),
        *_checks(build, judgement, unit, styles),
        *air_story(build, judgement, unit, styles),
        *_seats(build, judgement, unit, styles),
        *_readings(build, judgement, unit, styles),
        *photo_story(build, judgement, unit, styles, attached),
        *layout_story(build, unit, styles),
        *frame_story(build, unit, styles),
        *tail_story(build, unit, styles),
        *plan_story(build, styles),
        *_log(build, styles, unit),
        Spacer(1, 6 * mm),
        Paragraph(SAFETY, styles.small),
    ]

    def foot(canvas: Canvas, page: Any) -> None:
        canvas.setFont(REGULAR, 8)
        canvas.setFillColor(INK)
        canvas.drawString(18 * mm, 10 * mm, f"{build.name or 'Build'} · Hard Keel {__version__}")
        canvas.drawRightString(wide - 18 * mm, 10 * mm, f"page {page.page}")

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


def _head(build: Build, judgement: Judgement, styles: Styles) -> list[Flowable]:
    phase = PHASE_WORDS[judgement.phase] if judgement.phase else "all phases"
    taken = [reading.taken for reading in judgement.readings if reading.taken]
    day = f", last reading {max(taken)[:10]}" if taken else ""
    hours = total_hours(with_timed(build.sessions, build.log))
    worked = f", {hours:.1f} h at the bench" if hours else ""
    return [
        Paragraph(safe(build.name or "Unnamed build"), styles.title),
        Paragraph(f"Truing record, {phase}{day}{worked}", styles.text),
        Spacer(1, 3 * mm),
        Paragraph(safe(headline(build.surveyed, judgement)), styles.answer),
    ]


def _views(build: Build, judgement: Judgement, styles: Styles) -> list[Flowable]:
    picture = picture_of(build, judgement, _FACTOR)
    plan = view_drawing(picture, "plan", (WIDTH, 78 * mm), REGULAR)
    behind = view_drawing(picture, "behind", (WIDTH / 2 - 3 * mm, 38 * mm), REGULAR)
    side = view_drawing(picture, "side", (WIDTH / 2 - 3 * mm, 38 * mm), REGULAR)
    caption = (
        f"From above; from behind; from port. Dashed: as drawn. Solid: as it stands, error shown "
        f"× {_FACTOR:.0f}. Thick: out of true."
    )
    return [
        *_in_the_round(build, styles),
        plan,
        Table([[behind, side]], colWidths=[WIDTH / 2, WIDTH / 2]),
        Paragraph(caption, styles.small),
    ]


def _in_the_round(build: Build, styles: Styles) -> list[Flowable]:
    if build.fuselage is None or len(build.fuselage.stations) < 2:  # noqa: PLR2004  nothing stands in space
        return []
    try:
        drawing = space_drawing(in_space(build), (WIDTH, 62 * mm))
    except BadInput:
        return []  # an outline that crosses itself is told where the frame is
    return [drawing, Paragraph(FROM_PORT_AHEAD, styles.small)]


def _checks(build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    survey = build.surveyed
    if not judgement.checks:
        return [Paragraph("No checks yet: the build has no wing or tail described.", styles.text)]
    rows = [["Check", "Value", "Doubt", "Wanted", "Verdict"]]
    for check in judgement.checks:
        shape = verdict_word(check)
        if check.verdict == "out":
            shape = f"{shape.upper()}: {way_off(survey, check, unit)}"
        wanted = format_wanted(check, unit)
        rows.append(
            [
                check_name(survey, check),
                format_value(check, unit),
                format_doubt(check, unit),
                wanted,
                shape,
            ]
        )
    return [
        Paragraph("Checks", styles.heading),
        ruled_table(rows, [46 * mm, 20 * mm, 20 * mm, 28 * mm, WIDTH - 114 * mm], (1, 2, 3)),
    ]


def _seats(build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    survey = build.surveyed
    story: list[Flowable] = []
    for correction in judgement.corrections:
        again = measured_again(build.log, correction.body)
        sanding = seat_advice(survey, judgement, correction, "sanding", unit, insisted=again)
        shims = seat_advice(survey, judgement, correction, "shims", unit, insisted=again)
        if not sanding.needed:
            continue
        lines = (
            [" ".join(sanding.do) + " " + sanding.then]
            if correction.fitted is not None or not sanding.chosen
            else [
                "Only sanding: " + " ".join(sanding.do) + " " + sanding.then,
                "Only shims: " + " ".join(shims.do) + " " + shims.then,
            ]
        )
        story.append(
            KeepTogether(
                [
                    Paragraph(sanding.title, styles.heading),
                    *(Paragraph(safe(line), styles.text) for line in lines),
                ]
            )
        )
    shared = [one for one in (fit_sentence(judgement), *findings(survey, judgement, unit)) if one]
    if shared:
        story.append(Paragraph(FOUND, styles.heading))
        story += [Paragraph(safe(text), styles.text) for text in shared]
    alternatives = [suspect_sentence(survey, judgement, s, unit) for s in judgement.outliers]
    if alternatives:
        story.append(Paragraph("Doubts", styles.heading))
        story += [Paragraph(safe(text), styles.text) for text in alternatives]
    return story


def _readings(
    build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles
) -> list[Flowable]:
    if not judgement.readings:
        return []
    rows = [["", "Reading", "Value", "Residual", "w", "Taken", "Used"]]
    for reading, fit in zip(judgement.readings, judgement.fits, strict=True):
        name = Paragraph(safe(reading_name(build.surveyed, reading)), styles.small)
        taken = (reading.taken or "")[:16].replace("T", " ")
        row: list[Any] = [
            reading.id,
            name,
            format_reading(build.surveyed, reading, unit),
            format_residual(build.surveyed, reading, fit, unit),
            f"{fit.w:.1f}",
            taken,
            "simulated" if reading.simulated else "yes" if fit.used else "no",
        ]
        rows.append(row)
    widths = [12 * mm, WIDTH - 110 * mm, 22 * mm, 20 * mm, 12 * mm, 28 * mm, 16 * mm]
    return [Paragraph("Readings", styles.heading), ruled_table(rows, widths, (2, 3, 4))]


def _log(build: Build, styles: Styles, unit: LengthUnit) -> list[Flowable]:
    if not build.log:
        return []
    rows: list[list[Any]] = [["When", "Who", "What"]]
    for entry in build.log:
        text = Paragraph(safe(entry_text(build.surveyed, entry, unit)), styles.small)
        rows.append([entry.at[:16].replace("T", " "), entry.by, text])
    return [
        Paragraph("Log", styles.heading),
        ruled_table(rows, [28 * mm, 16 * mm, WIDTH - 44 * mm], ()),
    ]
