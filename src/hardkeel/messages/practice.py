"""Exercises in words: what is asked, what was wrong, what is to be taken along."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, shortest
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import check_name

if TYPE_CHECKING:
    from collections.abc import Sequence

    from hardkeel.practice.courses import Course
    from hardkeel.practice.exercise import Exercise
    from hardkeel.practice.scoring import Line
    from hardkeel.survey.checking import Check

COURSES: Final = {
    "corners": "A tape across corners: what is swung, and which way",
    "bench": "A level on a bench that is not level",
    "enough": "When it is enough: a model may be true",
    "turned": "A gauge's own zero, and what turning it round tells",
    "hook": "A tape that begins a little late",
    "angles": "Decalage before incidence",
    "misread": "A reading that does not fit the others",
}
STORIES: Final = {
    "all-true": "Nothing was out.",
    "tipped": "The tail surface stood tipped.",
    "swung": "The tail surface was swung about its middle.",
    "wing-swung": "The wing was swung about its middle.",
    "tail-incidence": "The tail surface had another incidence than the drawing gives it.",
    "fin-leans": "The fin leaned.",
    "gauge-zero": "The incidence gauge was off by the same in all its readings. Nothing of the model was out for it.",
    "tape-hook": "The tape's hook was bent: all it read was off by the same. Nothing of the model was out for it.",
    "crooked-bench": "The bench was not level. Nothing of the model was out for it.",
    "mark-off": "A tip's mark sat beside its place. Nothing of the model was out for it.",
    "set-back": "The tail surface sat fore or aft of its place, square all the same. Nothing that was asked was out for it.",
    "hook-long": "The tape began late: all it read was off by the same. Nothing of the model was out for it.",
    "gauge-off": "The incidence gauge was far off, by the same in all its readings. Nothing of the model was out for it.",
    "misread": "A reading was misread. Nothing of the model was out for it.",
    "fin-off": "The fin stood off the fuselage's line.",
    "line-catches": "A line from one pin caught on something on its way. Nothing of the model was out for it.",
    "corrected": "It stood as your correction had left it.",
}
ALONG: Final = {
    "all-true": "True is an answer, too: stop when all that was asked is known.",
    "tipped": "A level on the tail and a level on the wing, on one bench: their difference is what flies.",
    "swung": "The tape from one mark on the fuselage to both tips: only the difference counts.",
    "wing-swung": "The tape from one mark on the fuselage to both tips: only the difference counts.",
    "tail-incidence": "Wing and tail by one gauge, one after the other: its zero falls out of the difference.",
    "fin-leans": "The fin is square to the stabilizer, not to the bench: read both.",
    "gauge-zero": "Turn the gauge round, or take differences: a zero says the same everywhere.",
    "tape-hook": "Both tips by one tape: a bent hook is in both, and falls out of the difference.",
    "crooked-bench": "Level the bench, or read the fuselage too: what leans alike is the bench.",
    "mark-off": "When one mark's readings fit nothing else, doubt the mark before the model.",
    "set-back": "One tip tells where a surface sits, both tips whether it is square: never the one without the other.",
    "hook-long": "Both tips by one tape: what it adds is in both, and falls out of the difference.",
    "gauge-off": "Wing and tail by one gauge, or one part with the gauge both ways round: then its zero drops out.",
    "misread": "What decides is read twice: where the two stand apart a third says which to doubt.",
    "fin-off": "A fin off its line is a rudder that is always given: sight along it, then measure both ends.",
    "line-catches": "Pluck a line before it is believed, and swing another from another pin.",
    "corrected": "Read again after a correction: it moves more than what it was meant for.",
}
SHEET: Final = "exercise"
SOLUTION: Final = "what was wrong"
SHEET_HOW: Final = "Nobody's own model. Each reading is numbered in the drawing; beside it stands what a true airframe would show. The bench may lean, a tool may have a zero of its own."
SOLUTION_HEADS: Final = ("Check", "Wanted", "Is", "")
OUT, TRUE = "out", "true"
TAKE_ALONG: Final = "To take along:"
SHEET_HEADS: Final = ("", "Reading", "Tool", "If true", "Shows")


def course_line(course: "Course") -> str:
    """``corners       up to 15 minutes   A tape across corners``."""
    return f"{course.id:<10} up to {shortest(course.minutes)} minutes   {COURSES[course.id]}"


NO_LAST: Final = "is of a course: say which by --course"


def made_lines(name: str, exercise: "Exercise") -> list[str]:
    """What was written, and what is asked; nothing of what hides."""
    section = exercise.section
    survey = exercise.build.surveyed
    asked = [check_name(survey, one) for one in exercise.checks if one.id in section.asked]
    return [
        f"{name}: {exercise.build.name}, {number_of(int(section.minutes), 'minute')} for readings.",
        f"Say of each whether it is out: {', '.join(asked)}.",
    ]


def amount(check: "Check", value: float, unit: LengthUnit) -> str:
    """A figure of a check in its unit."""
    return format_length(value, unit) if check.unit == "mm" else format_angle(value)


def question(name: str, check: "Check", unit: LengthUnit) -> str:
    """``Stabilizer square: out by more than 0.30°?  yes / no``."""
    allowed = amount(check, check.tolerance, unit)
    return f"{name}: is it off by more than {allowed}?    yes  /  no"


def misread_words(numbers: "Sequence[int]") -> str:
    """Which readings were misread."""
    said = ", ".join(str(one) for one in numbers)
    return f"Misread: {said}. The others fit each other without {'it' if len(numbers) == 1 else 'them'}."


def truth_lines(exercise: "Exercise", lines: "Sequence[Line]", unit: LengthUnit) -> list[str]:
    """What was wrong, each asked check as it really is, and what is to be taken along."""
    said = [STORIES[exercise.truth.story], ""]
    checks = {one.id: one for one in exercise.checks}
    for line in lines:
        check = checks[line.check]
        value = amount(check, line.value, unit)
        state = OUT if line.is_out else TRUE
        said.append(f"  {check_name(exercise.build.surveyed, check):<28}{value:>10}   {state}")
    return [*said, "", ALONG[exercise.truth.story]]
