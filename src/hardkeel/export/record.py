"""The PDF record: what was measured, what it says, what was done; for the club and the next owner."""

import io
from collections import Counter
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Any, Final

from hardkeel import __version__
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal
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
    PageBreak,
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
from hardkeel.messages import record as say
from hardkeel.messages.advice import (
    format_reading,
    format_residual,
    headline,
    seat_advice,
    suspect_sentence,
)
from hardkeel.messages.in_the_round import FROM_PORT_AHEAD
from hardkeel.messages.log import entry_text
from hardkeel.messages.names import (
    PHASE_WORDS,
    body_name,
    check_name,
    reading_name,
    tool_name,
)
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
from hardkeel.survey.checking import Check
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import Survey

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
        PageBreak(),
        *_in_the_round(build, styles),
        *_parts(build, judgement, unit, styles),
        *_found(build, judgement, unit, styles),
        *air_story(build, judgement, unit, styles),
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
    worked = f", {decimal(hours, 1)} h at the bench" if hours else ""
    return [
        Paragraph(safe(build.name or "Unnamed build"), styles.title),
        Paragraph(f"Truing record, {phase}{day}{worked}", styles.text),
        Spacer(1, 3 * mm),
        Paragraph(safe(headline(build.surveyed, judgement)), styles.answer),
        *(Paragraph(safe(text), styles.text) for text in _how_it_was_read(build, judgement)),
        Spacer(1, 3 * mm),
    ]


def _how_it_was_read(build: Build, judgement: Judgement) -> list[str]:
    """With which tools, and how what they said fits."""
    counted = Counter(tool_name(build.surveyed, reading) for reading in judgement.readings)
    fit = fit_sentence(judgement) or say.fits_line(
        len(judgement.readings), sum(not fit.used for fit in judgement.fits)
    )
    return [one for one in (say.tools_line(counted.most_common()), fit) if one]


def _views(build: Build, judgement: Judgement, styles: Styles) -> list[Flowable]:
    picture = picture_of(build, judgement, _FACTOR)
    plan = view_drawing(picture, "plan", (WIDTH, 112 * mm), REGULAR)
    behind = view_drawing(picture, "behind", (WIDTH / 2 - 3 * mm, 52 * mm), REGULAR)
    side = view_drawing(picture, "side", (WIDTH / 2 - 3 * mm, 52 * mm), REGULAR)
    return [
        plan,
        Table([[behind, side]], colWidths=[WIDTH / 2, WIDTH / 2]),
        Paragraph(say.VIEWS.format(_FACTOR), styles.small),
    ]


def _in_the_round(build: Build, styles: Styles) -> list[Flowable]:
    if build.fuselage is None or len(build.fuselage.stations) < 2:  # noqa: PLR2004  nothing stands in space
        return []
    try:
        drawing = space_drawing(in_space(build), (WIDTH, 62 * mm))
    except BadInput:
        return []  # an outline that crosses itself is told where the frame is
    return [
        Paragraph(say.ROUND, styles.heading),
        drawing,
        Paragraph(FROM_PORT_AHEAD, styles.small),
    ]


def _parts(build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """Part by part: its checks, and what is to be done at its seat."""
    survey = build.surveyed
    if not judgement.checks:
        return [Paragraph("No checks yet: the build has no wing or tail described.", styles.text)]
    story: list[Flowable] = []
    left = list(judgement.checks)
    for body in survey.bodies:
        mine = [check for check in left if check.body == body.id]
        left = [check for check in left if check not in mine]
        if mine:
            title = body_name(survey, body.id)
            story.append(
                KeepTogether(
                    [
                        Paragraph(safe(title[:1].upper() + title[1:]), styles.heading),
                        _checks(survey, mine, unit, styles),
                        *_seat(build, judgement, body.id, unit, styles),
                    ]
                )
            )
    if left:
        story.append(
            KeepTogether(
                [Paragraph(say.TOGETHER, styles.heading), _checks(survey, left, unit, styles)]
            )
        )
    return story


def _checks(survey: Survey, checks: Sequence[Check], unit: LengthUnit, styles: Styles) -> Flowable:
    rows: list[list[Any]] = [["Check", "Value", "Doubt", "Wanted", "Verdict"]]
    for check in checks:
        shape = verdict_word(check)
        if check.verdict == "out":
            shape = f"{shape.upper()}: {way_off(survey, check, unit)}"
        rows.append(
            [
                Paragraph(safe(check_name(survey, check)), styles.small),
                format_value(check, unit),
                format_doubt(check, unit),
                format_wanted(check, unit),
                Paragraph(safe(shape), styles.small),
            ]
        )
    widths = [40 * mm, 22 * mm, 22 * mm, 38 * mm, WIDTH - 122 * mm]
    return ruled_table(rows, widths, (1, 2, 3))


def _seat(
    build: Build, judgement: Judgement, body: str, unit: LengthUnit, styles: Styles
) -> list[Flowable]:
    survey = build.surveyed
    story: list[Flowable] = []
    for correction in judgement.corrections:
        if correction.body != body:
            continue
        again = measured_again(build.log, body)
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
        story += [Paragraph(safe(f"{sanding.title}. {lines[0]}"), styles.text)]
        story += [Paragraph(safe(line), styles.text) for line in lines[1:]]
    return story


def _found(build: Build, judgement: Judgement, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """What readings share, and what is doubted."""
    survey = build.surveyed
    story: list[Flowable] = []
    shared = list(findings(survey, judgement, unit))
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
            decimal(fit.w, 1),
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
