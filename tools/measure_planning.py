"""How far plans of evenings are proven within ten seconds: ``python tools/measure_planning.py [BUILDS]``.

Random step graphs of 40, 80 and 150 steps over evenings of an hour and a half to two and a half; beside each figure
the list order alone.
"""

import random
import sys
import time
from datetime import datetime

from hardkeel.schedule.listing import best_list
from hardkeel.schedule.model import BenchTime, Evening, Step
from hardkeel.schedule.planning import plan_evenings
from hardkeel.schedule.tasks import problem_of

_SIZES = (40, 80, 150)
_BUILDS = 4
_EVENINGS = 8
_CURED = 0.2  # of the steps wait until what comes before is cured


def main(builds: int) -> None:
    """Print how many were proven, the gap of the rest, and how long it took."""
    for size in _SIZES:
        proven = sooner = 0
        gaps, seconds = [], []
        for seed in range(builds):
            steps, bench = _random(size, random.Random(seed))
            begun = time.monotonic()
            plan = plan_evenings(steps, bench)
            seconds.append(time.monotonic() - begun)
            problem = problem_of(steps, bench)
            listed = best_list(problem)
            start = problem.moment(problem.evenings[0][0])
            proven += plan.proven
            if plan.finish is not None and plan.soonest is not None:
                gaps.append(_minutes(start, plan.finish) / _minutes(start, plan.soonest) - 1)
                sooner += plan.finish < problem.moment(listed.finish(problem))
        print(
            f"{size} steps, {builds} builds: proven {proven}, widest gap to the bound {max(gaps):.2%}, "
            f"sooner than the best list {sooner}, {min(seconds):.1f} to {max(seconds):.1f} s"
        )


def _minutes(start: datetime, end: datetime) -> float:
    return (end - start).total_seconds() / 60


def _random(count: int, rng: random.Random) -> tuple[tuple[Step, ...], BenchTime]:
    steps = []
    for i in range(count):
        near = range(max(0, i - 8), i)
        before = rng.sample(near, k=min(i, rng.choice([0, 1, 1, 2])))
        steps.append(
            Step(
                id=f"s{i}",
                after=tuple(f"s{j}" for j in before),
                hands_minutes=float(rng.choice([0, 5, 10, 15, 20, 30, 45, 60])),
                handle_minutes=float(rng.choice([0, 0, 20, 30, 480])),
                cure_minutes=float(rng.choice([0, 0, 720, 1440])),
                needs=rng.choice([(), (), ("board",), ("clamps",), ("board", "clamps")]),
                needs_cure=rng.random() < _CURED,
            )
        )
    evenings = tuple(
        Evening(start=f"2026-10-{2 + 2 * k:02d}T19:00", minutes=rng.choice([90, 120, 150]))
        for k in range(_EVENINGS)
    )
    return tuple(steps), BenchTime(evenings=evenings, resources={"board": 1, "clamps": 2})


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _BUILDS)
