"""An exercise on paper for an evening at the club: readings and questions on one sheet, the solution on another."""

from typing import Any, Final

from hardkeel.base.units import LengthUnit
from hardkeel.export.drawing import three_views
from hardkeel.export.stationery import (
    REGULAR,
    Flowable,
    PageBreak,
    Paragraph,
    Spacer,
    Styles,
    mm,
    register_fonts,
    ruled_table,
    safe,
    sheet_pdf,
)
from hardkeel.messages import practice as say
from hardkeel.messages.advice import format_reading
from hardkeel.messages.names import check_name, reading_name, tool_name
from hardkeel.picture.truing import held_strokes, picture_of
from hardkeel.practice.exercise import Exercise
from hardkeel.practice.scoring import asked_truly
from hardkeel.practice.strategies import by_list, judged
from hardkeel.survey.readings import Reading

_MARGIN_MM: Final = 15.0
_MOST: Final = 26  # readings on a sheet
_SOLUTION_MM: Final = (70.0, 30.0, 30.0, 30.0)


def exercise_sheet_pdf(exercise: Exercise, unit: LengthUnit, size: tuple[float, float]) -> bytes:
    """Both sheets as the bytes of a PDF; the readings are those of the best use of the minutes.

    Parameters
    ----------
    size : (float, float)
        Of the paper, mm.
    """
    register_fonts()
    styles = Styles()
    taken = by_list(exercise).readings[:_MOST]
    story = [
        *_asked(exercise, taken, (unit, size), styles),
        PageBreak(),
        *_solved(exercise, taken, unit, styles),
    ]
    return sheet_pdf(story, size, _MARGIN_MM, f"{exercise.build.name}: {say.SHEET}")


def _asked(
    exercise: Exercise,
    taken: tuple[Reading, ...],
    paper: tuple[LengthUnit, tuple[float, float]],
    styles: Styles,
) -> list[Flowable]:
    """The model with its strings, what each reading should show and shows, and the questions."""
    unit, size = paper
    build, survey = exercise.build, exercise.build.surveyed
    wide = (size[0] - 2 * _MARGIN_MM) * mm
    bare = judged(exercise, ())
    picture = picture_of(build, bare, 1.0)
    strings = [
        (str(number), stroke)
        for number, one in enumerate(taken, start=1)
        for stroke in held_strokes(build, bare, 1.0, one)[:1]
    ]
    true = exercise.if_true(taken)
    rows: list[list[Any]] = [list(say.SHEET_HEADS)]
    rows += [
        [
            str(number),
            Paragraph(safe(reading_name(survey, one)), styles.small),
            tool_name(survey, one),
            format_reading(survey, one.but(value=wanted), unit),
            format_reading(survey, one, unit),
        ]
        for number, (one, wanted) in enumerate(zip(taken, true, strict=True), start=1)
    ]
    columns = [9 * mm, wide - 9 * mm - 32 * mm - 52 * mm, 32 * mm, 26 * mm, 26 * mm]
    checks = [one for one in exercise.checks if one.id in exercise.section.asked]
    return [
        Paragraph(safe(build.name), styles.title),
        Paragraph(safe(say.SHEET_HOW), styles.text),
        Spacer(1, 2 * mm),
        *three_views(picture, wide, (84 * mm, 38 * mm), REGULAR, strings),
        ruled_table(rows, columns, (0, 3, 4), whole=True),
        Spacer(1, 4 * mm),
        *(
            Paragraph(safe(say.question(check_name(survey, one), one, unit)), styles.text)
            for one in checks
        ),
    ]


def _solved(
    exercise: Exercise, taken: tuple[Reading, ...], unit: LengthUnit, styles: Styles
) -> list[Flowable]:
    """What was wrong, what each check really is, which readings were misread."""
    survey = exercise.build.surveyed
    checks = {one.id: one for one in exercise.checks}
    rows: list[list[Any]] = [list(say.SOLUTION_HEADS)]
    for line in asked_truly(exercise):
        check = checks[line.check]
        rows.append(
            [
                Paragraph(safe(check_name(survey, check)), styles.text),
                say.amount(check, check.target, unit),
                say.amount(check, line.value, unit),
                say.OUT if line.is_out else say.TRUE,
            ]
        )
    table = ruled_table(rows, [share * mm for share in _SOLUTION_MM], (1, 2))
    table.hAlign = "LEFT"
    misread = [number + 1 for number in range(len(taken)) if number in exercise.truth.slips]
    story = exercise.truth.story
    return [
        Paragraph(safe(f"{exercise.build.name}: {say.SOLUTION}"), styles.title),
        Spacer(1, 3 * mm),
        Paragraph(safe(say.STORIES[story]), styles.answer),
        Spacer(1, 4 * mm),
        table,
        Spacer(1, 4 * mm),
        *([Paragraph(safe(say.misread_words(misread)), styles.text)] if misread else []),
        Paragraph(safe(f"{say.TAKE_ALONG} {say.ALONG[story]}"), styles.text),
    ]
