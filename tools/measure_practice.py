"""Whether exercises are solved, and by whom: ``python -m tools.measure_practice [SEEDS] [LAST]``.

Of each grade SEEDS exercises; of each course LAST of its last, by learners with all ideas and without the course's own.
"""

import sys
import time
from collections import Counter
from typing import Final

import numpy as np

from hardkeel.demo.bench import practice_models
from hardkeel.practice.courses import COURSES, IDEAS
from hardkeel.practice.learners import Learner
from hardkeel.practice.making import exercise_from
from hardkeel.practice.strategies import by_list, by_next, is_solved

_SEEDS: Final = 60
_LAST: Final = 10


def main(seeds: int) -> None:
    """Print how many are solved, in how many minutes, and what was told."""
    for grade in (1, 2, 3):
        begun = time.monotonic()
        solved: Counter[str] = Counter()
        minutes: dict[str, list[float]] = {"next": [], "list": [], "given": []}
        told: Counter[str] = Counter()
        out = asked = trusting = 0
        for seed in range(seeds):
            exercise = exercise_from(practice_models(), seed, grade)
            told[exercise.truth.story] += 1
            asked += len(exercise.section.asked)
            out += sum(exercise.is_out(one) for one in exercise.section.asked)
            played = {"next": by_next(exercise), "list": by_list(exercise)}
            trusting += not any(exercise.is_out(one) for one in exercise.section.asked)
            rng = np.random.default_rng(seed)
            guessed = {one: bool(rng.random() < 0.5) for one in exercise.section.asked}
            solved["guess"] += is_solved(exercise, guessed)
            for name, one in played.items():
                solved[name] += is_solved(exercise, one.said)
            for name in ("next", "list"):
                minutes[name].append(played[name].minutes)
            minutes["given"].append(exercise.section.minutes)
            if not is_solved(exercise, played["next"].said):
                print(f"  grade {grade}, seed {seed}, {exercise.truth.story}: not by what is next")
        print(
            f"grade {grade}, {seeds} exercises, {asked} asked of which {out} out: solved by what is next {solved['next']}, "
            f"by the best list {solved['list']}, by guessing {solved['guess']}, by calling all true {trusting}; minutes "
            + ", ".join(f"{name} {np.median(values):.0f}" for name, values in minutes.items())
            + f"; {time.monotonic() - begun:.0f} s",
            flush=True,
        )
        print(f"  {dict(sorted(told.items()))}", flush=True)


def courses(seeds: int) -> None:
    """Print by course how many of its last exercises learners solve."""
    for course in COURSES.values():
        whole = lacking = 0
        for seed in range(seeds):
            exercise = exercise_from(practice_models(), seed, course=course, last=True)
            whole += is_solved(exercise, Learner(exercise).play().said)
            without = Learner(exercise, frozenset(IDEAS) - {course.idea})
            lacking += is_solved(exercise, without.play().said)
        print(
            f"course {course.id}, {seeds} last exercises: solved with all ideas {whole}, "
            f'without "{course.idea}" {lacking}',
            flush=True,
        )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _SEEDS)
    courses(int(sys.argv[2]) if len(sys.argv) > 2 else _LAST)
