"""Pieces on the practice board: told by their best lists, by who lacks the idea, by a coin: ``python -m tools.measure_pieces 60``."""

import sys

import numpy as np

from hardkeel.practice.pieces import PIECES
from hardkeel.practice.pieces.knowing import best_looks, minutes_of
from hardkeel.practice.pieces.task import Task, by_belief, by_best, marked, task_of


def main(count: int) -> None:
    """Print the table of docs/practice.md."""
    rng = np.random.default_rng(1)
    for kind in PIECES:
        tasks = [task_of(kind, seed) for seed in range(count)]
        lasts = [task_of(kind, seed, last=True) for seed in range(count)]
        best = float(np.median([minutes_of(one.piece, best_looks(one.piece)) for one in tasks]))
        given = float(np.median([one.minutes for one in tasks]))
        coin = sum(
            all(bool(rng.random() < 1 / 2) == one.is_out for one in task.lines) for task in tasks
        )
        true = sum(not any(one.is_out for one in task.lines) for task in tasks)
        counts = (_best(tasks), _belief(tasks), coin, true, _best(lasts), _belief(lasts))
        print(f"| {kind} | {best:g}, {given:g} | {' | '.join(map(str, counts))} |", flush=True)


def _best(tasks: list[Task]) -> int:
    return sum(
        all(
            one.is_right
            for one in marked(task, task.taken(best_looks(task.piece)), by_best(task))
        )
        for task in tasks
    )  # fmt: skip


def _belief(tasks: list[Task]) -> int:
    told = 0
    for task in tasks:
        said = by_belief(task)
        told += all(said[one.check].out == one.is_out for one in task.lines)
    return told


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 60)
