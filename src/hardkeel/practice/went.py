"""An exercise that is over, gone through: each word against the truth, what readings were worth, the best use."""

from dataclasses import dataclass

from hardkeel.geometry.rotation import Array
from hardkeel.practice.again import as_said
from hardkeel.practice.exercise import Exercise, opened
from hardkeel.practice.replay import Step, all_known_after, best_steps, steps_of
from hardkeel.practice.scoring import Scored, scored
from hardkeel.practice.strategies import judged
from hardkeel.practice.worth import worth_of
from hardkeel.project.model import Build


@dataclass(frozen=True)
class Went:
    """What came of one.

    Attributes
    ----------
    steps, best : tuple of Step
        The learner's readings, and the best use of the minutes.
    worth : tuple of float
        By the learner's readings.
    known : float or None
        Minutes after which all that was asked was known.
    said, read : Array
        Shape (n,): the airframe as the learner has it, and as his readings have it.
    """

    exercise: Exercise
    lines: tuple[Scored, ...]
    steps: tuple[Step, ...]
    best: tuple[Step, ...]
    worth: tuple[float, ...]
    known: float | None
    said: Array
    read: Array

    @property
    def spent(self) -> float:
        """Minutes of all readings."""
        return self.exercise.spent(self.exercise.section.taken)


def went_of(build: Build) -> Went:
    """Go through it; takes a second or two.

    Raises
    ------
    BadInput
        When its truth belongs to it no more.
    """
    exercise = opened(build)
    taken = exercise.section.taken
    steps = steps_of(exercise, taken)
    judgement = judged(exercise, taken)
    lines = scored(exercise, {one.id: one for one in judgement.checks})
    number = all_known_after(steps, len(exercise.section.asked))
    return Went(
        exercise,
        lines,
        steps,
        best_steps(exercise),
        worth_of(exercise, taken),
        steps[number - 1].minutes if number is not None else None,
        as_said(exercise),
        judgement.solution.unknowns,
    )
