"""The sheet that goes to the model: numbered strings in the drawing, a box for each reading, wide enough for a pencil."""

from typing import Any, Final

from hardkeel.base.units import LengthUnit
from hardkeel.export.drawing import three_views
from hardkeel.export.stationery import (
    INK,
    REGULAR,
    Flowable,
    Paragraph,
    Spacer,
    Styles,
    mm,
    register_fonts,
    ruled_table,
    safe,
    sheet_pdf,
)
from hardkeel.messages import reading_form as say
from hardkeel.messages.advice import format_reading
from hardkeel.messages.names import reading_name, tool_name
from hardkeel.picture.truing import held_strokes, picture_of
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.reading_form import form_list

_MARGIN_MM: Final = 15.0
_BOX_MM: Final = 11.0  # high enough for a pencil and a cold hand


def rigging_form_pdf(build: Build, unit: LengthUnit, size: tuple[float, float]) -> bytes:
    """The list of `survey.sheet`, in its order, with what a true airframe would show.

    Parameters
    ----------
    size : (float, float)
        Of the paper, mm.

    Raises
    ------
    BadInput
        When the survey does not hang together.
    """
    register_fonts()
    styles = Styles()
    survey = build.surveyed
    listed = form_list(survey)
    wide = (size[0] - 2 * _MARGIN_MM) * mm
    story: list[Flowable] = [
        Paragraph(safe(build.name or say.UNNAMED), styles.title),
        Paragraph(safe(say.HOW if listed else say.NOTHING_TO_READ), styles.text),
        Spacer(1, 3 * mm),
    ]
    if listed:
        bare = build.but(survey=survey.but(readings=()))
        judged = judge_survey(bare.surveyed)
        picture = picture_of(bare, judged, 1.0)
        strings = [
            (reading.id, stroke)
            for reading in listed
            for stroke in held_strokes(bare, judged, 1.0, reading)[:1]
        ]
        story += three_views(picture, wide, (118 * mm, 44 * mm), REGULAR, strings)
        rows: list[list[Any]] = [list(say.HEADS)]
        rows += [
            [
                reading.id,
                Paragraph(safe(reading_name(survey, reading)), styles.small),
                tool_name(survey, reading),
                format_reading(survey, reading, unit),
                "",
                "",
            ]
            for reading in listed
        ]
        columns = [9 * mm, wide - 9 * mm - 30 * mm - 24 * mm - 64 * mm, 30 * mm, 24 * mm, 32 * mm, 32 * mm]  # fmt: skip
        table = ruled_table(rows, columns, (0, 3), whole=True)
        table.setStyle([("BOTTOMPADDING", (0, 1), (-1, -1), (_BOX_MM * mm - 10.5) / 2), ("TOPPADDING", (0, 1), (-1, -1), (_BOX_MM * mm - 10.5) / 2), ("BOX", (4, 0), (4, -1), 0.6, INK), ("BOX", (5, 0), (5, -1), 0.6, INK)])  # fmt: skip
        story += [
            Spacer(1, 4 * mm),
            table,
            Spacer(1, 3 * mm),
            Paragraph(safe(say.CAUTION), styles.small),
        ]
    return sheet_pdf(story, size, _MARGIN_MM, f"{build.name or say.UNNAMED}: {say.TITLE}")
