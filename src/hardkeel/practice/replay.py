"""The best use of an exercise's minutes, step by step, and from which reading on the learner's own had told all."""

from collections.abc import Sequence
from dataclasses import dataclass

from hardkeel.practice.exercise import Exercise
from hardkeel.practice.strategies import by_list, judged, still_open
from hardkeel.survey.checking import Check
from hardkeel.survey.readings import Reading


@dataclass(frozen=True)
class Step:
    """One reading of a way through.

    Attributes
    ----------
    minutes : float
        Spent with it.
    checks : mapping of str to Check
        What is known of each asked check with it.
    settled : tuple of str
        Checks that it decided, not decided before.
    loosened : tuple of str
        Checks that it threw open again.
    """

    reading: Reading
    minutes: float
    checks: dict[str, Check]
    settled: tuple[str, ...]
    loosened: tuple[str, ...]


def steps_of(exercise: Exercise, readings: Sequence[Reading]) -> tuple[Step, ...]:
    """A way through, judged after each reading."""
    steps: list[Step] = []
    before = set(exercise.section.asked)
    for k in range(1, len(readings) + 1):
        taken = tuple(readings[:k])
        judgement = judged(exercise, taken)
        now = still_open(exercise, judgement)
        steps.append(
            Step(
                readings[k - 1],
                exercise.spent(taken),
                {one.id: one for one in judgement.checks if one.id in exercise.section.asked},
                tuple(one for one in exercise.section.asked if one in before - now),
                tuple(one for one in exercise.section.asked if one in now - before),
            )
        )
        before = now
    return tuple(steps)


def best_steps(exercise: Exercise) -> tuple[Step, ...]:
    """The best use of the minutes: the list that decides all that is asked, as `strategies.by_list` goes about it."""
    return steps_of(exercise, by_list(exercise).readings)


def all_known_after(steps: Sequence[Step], asked: int) -> int | None:
    """After how many readings all that was asked was decided, and stayed so; ``None`` where it never was."""
    known = None
    for number, step in enumerate(steps, start=1):
        decided = sum(one.verdict != "unsure" for one in step.checks.values())
        if decided < asked:
            known = None
        elif known is None:
            known = number
    return known
