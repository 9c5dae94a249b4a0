"""An exercise once more: the same from the start, or as it stands after the learner's correction."""

from collections.abc import Iterator

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.practice.courses import tools_of
from hardkeel.practice.exercise import Exercise, untouched
from hardkeel.practice.stories.after import AFTER
from hardkeel.project.model import Build
from hardkeel.project.practice import PracticeSection
from hardkeel.survey.columns import POSE


def the_same_again(build: Build, section: PracticeSection) -> Build:
    """Nothing read and nothing said yet."""
    return build.but(
        practice=section.but(taken=(), said={}, told=False),
        survey=untouched(build.surveyed, tools_of(section.course)),
        log=(),
    )


def as_said(exercise: Exercise) -> Array:
    """The airframe as the learner has it: each part that is called out by so much turned by it, shape (n,)."""
    unknowns = np.zeros(exercise.hidden.net.columns.size)
    for at, by in _turns_said(exercise):
        unknowns[at] += by
    return unknowns


def corrected(exercise: Exercise) -> Build:
    """The airframe with each part turned back by the learner's own figures, to be read anew.

    A check that was called out by so much is undone by the unknown of its body that it feels most.
    """
    columns = exercise.hidden.net.columns
    unknowns = exercise.hidden.unknowns.copy()
    for at, by in _turns_said(exercise):
        unknowns[at] -= by
    bodies = {
        body: {name: float(unknowns[start + i]) for i, name in enumerate(columns.names[body])}
        for body, start in columns.start.items()
        if body in exercise.truth.bodies
    }
    truth = exercise.truth.but(bodies=bodies, story=AFTER)
    return the_same_again(exercise.build, exercise.section.but(sealed=truth.sealed()))


def _turns_said(exercise: Exercise) -> Iterator[tuple[int, float]]:
    """Which unknown each word turns, and by how much, mm or degrees."""
    columns = exercise.hidden.net.columns
    for rule in exercise.asked:
        word = exercise.section.said.get(rule.id)
        if word is None or not word.out or not word.off:
            continue
        mine = [at for name in POSE if (at := columns.column(rule.body, name)) is not None]
        at = max(mine, key=lambda one: abs(float(rule.slope[one])))
        yield at, word.off / float(rule.slope[at])
