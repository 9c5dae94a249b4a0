"""What the exercise's page shows, as plain values; nothing of the truth is in them."""

from collections.abc import Sequence

from hardkeel.base.units import LengthUnit, shortest
from hardkeel.messages import practising as say
from hardkeel.messages.advice import format_difference, format_reading
from hardkeel.messages.names import body_name, check_name, reading_name, sentence_case, tool_name
from hardkeel.messages.verdicts import is_told_in_mm, ways_alone
from hardkeel.picture.truing import Picture, Stroke, held_strokes, picture_of
from hardkeel.practice.exercise import Exercise
from hardkeel.project.practice import PracticeSection
from hardkeel.survey.model import Survey, bodies_of
from hardkeel.survey.reaching import error_at_reach_mm, error_from_reach
from hardkeel.survey.readings import Reading
from hardkeel.ui.stages.practice.words_card import Question
from hardkeel.ui.widgets.cells import Row

_DOUBT_COLUMN = 5


def questions(
    exercise: Exercise, section: PracticeSection, unit: LengthUnit
) -> tuple[Question, ...]:
    """What is asked, as it is answered so far."""
    survey = exercise.build.surveyed
    found = []
    for check in exercise.checks:
        if check.id not in section.asked:
            continue
        word = section.said.get(check.id)
        in_mm = is_told_in_mm(survey, check)
        off = word.off if word is not None else None
        found.append(
            Question(
                check.id,
                check_name(survey, check),
                say.allowed_words(survey, check, unit),
                ways_alone(survey, check),
                not in_mm,
                word.out if word is not None else None,
                error_at_reach_mm(survey, check.off_by(off)) if in_mm and off is not None else off,
            )
        )
    return tuple(found)


def error_meant(exercise: Exercise, check_id: str, amount: float) -> float | None:
    """What the learner's figure is as the check's error: it was asked in mm at the tip where it is seen there."""
    check = next(one for one in exercise.checks if one.id == check_id)
    survey = exercise.build.surveyed
    if not is_told_in_mm(survey, check):
        return amount
    return error_from_reach(survey, check, amount)


def tools_of(exercise: Exercise) -> tuple[tuple[str, str], ...]:
    """Kinds of readings that there is a tool for, with their tools' names."""
    survey = exercise.build.surveyed
    found: dict[str, str] = {}
    for one in exercise.bare.pool.readings:
        found.setdefault(one.kind, tool_name(survey, one))
    return tuple(found.items())


def parts_of(survey: Survey) -> tuple[tuple[str, str], ...]:
    """All parts, then each of them."""
    named = [(one.id, sentence_case(body_name(survey, one.id))) for one in survey.bodies]
    return (("", sentence_case(say.ALL_PARTS)), *named)


def places(exercise: Exercise, tool: str, part: str) -> tuple[Row, ...]:
    """Where a tool can be read on a part; keys are numbers in the pool."""
    survey = exercise.build.surveyed
    return tuple(
        Row(
            str(number),
            (say.place_name(survey, one), shortest(exercise.spent([one]))),
            tip=sentence_case(reading_name(survey, one)),
            typed=False,
            cell_colours={1: "soft"},
        )
        for number, one in enumerate(exercise.bare.pool.readings)
        if one.kind == tool and (not part or part in bodies_of(survey, one))
    )


def taken_rows(exercise: Exercise, taken: Sequence[Reading], unit: LengthUnit) -> tuple[Row, ...]:
    """What was read: what a true airframe would show, what the tool shows, how far that differs."""
    survey = exercise.build.surveyed
    rows = []
    for one, wanted in zip(taken, exercise.if_true(taken) if taken else (), strict=True):
        name = sentence_case(reading_name(survey, one))
        rows.append(
            Row(
                one.id,
                (
                    one.id,
                    name,
                    format_reading(survey, one.but(value=wanted), unit),
                    format_reading(survey, one, unit),
                    format_difference(survey, one, one.value - wanted, unit),
                    say.DOUBTED if one.ignored else "",
                ),
                colour="soft" if one.ignored else "ink",
                tip=f"{one.id}: {name}",
                struck=one.ignored,
                typed=False,
                cell_colours={0: "soft", 2: "soft", _DOUBT_COLUMN: "soft"},
            )
        )
    return tuple(rows)


def drawing(exercise: Exercise, taken: Sequence[Reading]) -> Picture:
    """The model as drawn, with the strings of what was read."""
    plain = picture_of(exercise.build, exercise.bare, 1.0)
    strings = [stroke for one in taken for stroke in held(exercise, one)]
    return Picture((*plain.strokes, *strings))


def held(exercise: Exercise, reading: Reading) -> tuple[Stroke, ...]:
    """Where a reading is held."""
    return held_strokes(exercise.build, exercise.bare, 1.0, reading)
