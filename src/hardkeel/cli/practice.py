"""``hardkeel practice``: exercises made, listed, and told when they are over."""

import argparse
from typing import Any

from hardkeel.base.errors import BadInput
from hardkeel.cli.options import as_text, unit_of
from hardkeel.demo.bench import practice_models
from hardkeel.export.exercise_sheet import exercise_sheet_pdf
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.messages import practice as say
from hardkeel.practice.courses import COURSES
from hardkeel.practice.exercise import Exercise, opened
from hardkeel.practice.making import Models, exercise_from
from hardkeel.practice.scoring import asked_truly
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.package import load, save

Json = dict[str, Any]


def run(parsed: argparse.Namespace) -> str:
    """One of the three."""
    asked = [parsed.list, parsed.reveal is not None, parsed.seed is not None]
    if sum(asked) != 1:
        raise BadInput("practice", "one of --list, --seed N --to FILE and --reveal FILE is wanted")
    if parsed.list:
        return "".join(f"{say.course_line(one)}\n" for one in COURSES.values())
    if parsed.reveal is not None:
        exercise = opened(load(parsed.reveal).build)
        _print(exercise, parsed)
        if parsed.json:
            return as_text(truth_json(exercise))
        lines = say.truth_lines(exercise, asked_truly(exercise), unit_of(parsed))
        return "\n".join(lines) + "\n"
    if parsed.to is None:
        raise BadInput("to", "is missing: where the exercise is written")
    if parsed.seed < 0:
        raise BadInput("seed", f"{parsed.seed} is less than 0")
    course = COURSES.get(parsed.course) if parsed.course is not None else None
    if parsed.course is not None and course is None:
        raise BadInput("course", f'no course "{parsed.course}"; there are {", ".join(COURSES)}')
    if parsed.last and course is None:
        raise BadInput("last", say.NO_LAST)
    models = practice_models()
    if parsed.hidden_in is not None:
        own = load(parsed.hidden_in).build
        models = Models([lambda: own])
    exercise = exercise_from(models, parsed.seed, parsed.grade, course=course, last=parsed.last)
    save(exercise.build, parsed.to)
    _print(exercise, parsed)
    return "\n".join(say.made_lines(str(parsed.to), exercise)) + "\n"


def _print(exercise: Exercise, parsed: argparse.Namespace) -> None:
    """Its sheets, where they are wanted."""
    if parsed.sheet is not None:
        data = exercise_sheet_pdf(exercise, unit_of(parsed), PAPERS[parsed.paper])
        write_atomically(parsed.sheet, data)


def truth_json(exercise: Exercise) -> Json:
    """The story's id, and the bodies as ``true`` prints them."""
    columns = exercise.hidden.net.columns
    unknowns = exercise.hidden.unknowns
    return {
        "story": exercise.truth.story,
        "bodies": {
            body: {name: float(unknowns[at + i]) for i, name in enumerate(columns.names[body])}
            for body, at in columns.start.items()
        },
        "bench": dict(exercise.truth.bench),
        "checks": [
            {"id": one.check, "value": one.value, "out": one.is_out}
            for one in asked_truly(exercise)
        ],
    }
