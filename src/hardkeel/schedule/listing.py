"""Plans by list: steps put down one after another where they first fit, the order shaken and mended; and what none beats.

Serial schedule generation after R. Kolisch, "Serial and parallel resource-constrained project scheduling methods
revisited", European Journal of Operational Research 90 (1996), over evenings instead of one long day.
"""

import bisect
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.schedule.tasks import Problem, Task

_FARTHEST: Final = 4000  # evenings past the given ones: eleven years of them is no plan
_ROUNDS: Final = 250
_SEED: Final = 20


@dataclass(frozen=True, slots=True)
class Listed:
    """A sound plan: the start of each task, minutes, and its evening."""

    starts: tuple[int, ...]
    evenings: tuple[int, ...]

    def finish(self, problem: Problem) -> int:
        """When the last hands are free."""
        return max(
            start + task.hands for start, task in zip(self.starts, problem.tasks, strict=True)
        )

    def worth(self, problem: Problem) -> tuple[int, int, int]:
        """Finish, evenings used, sum of starts: less is better, the first figure first."""
        return self.finish(problem), problem.spent(self.evenings), sum(self.starts)


class NoRoom(Exception):
    """A task that no evening left can hold."""

    def __init__(self, task: int) -> None:
        self.task = task
        super().__init__(str(task))


class _Bench:
    """What is taken so far."""

    def __init__(self, problem: Problem, only: frozenset[int] | None) -> None:
        self._problem = problem
        self._only = only
        self._busy: list[tuple[int, int]] = []
        self._held: dict[str, list[tuple[int, int, int]]] = {name: [] for name in problem.capacity}
        for one in problem.underway:
            if one.hands:
                bisect.insort(self._busy, (one.start, one.start + one.hands))
            for name, count in one.needs:
                self._held[name].append((one.start, one.start + one.holds, count))

    def first_fit(self, task: Task, ready: int) -> tuple[int, int] | None:
        """Evening and minute where it first fits."""
        problem = self._problem
        last = len(problem.evenings) + _FARTHEST
        number = self._evening_at(ready)
        while number < last:
            start, end = problem.evening(number)
            if number >= len(problem.evenings) and end - start < task.hands:
                return None
            if self._only is not None and number not in self._only:
                if number > max(self._only):
                    return None
                number += 1
                continue
            at = self._in_span(task, max(ready, start), end - task.hands)
            if at is not None:
                return number, at
            number += 1
        return None

    def _evening_at(self, minute: int) -> int:
        """The first that is not over at a minute."""
        problem = self._problem
        given = len(problem.evenings)
        for number in range(given):
            if problem.evenings[number][1] >= minute:
                return number
        _, end = problem.evening(given - 1)
        return given - 1 + max(0, -((end - minute) // (24 * 60)))

    def _in_span(self, task: Task, at: int, latest: int) -> int | None:
        while at <= latest:
            later = self._free_from(task, at)
            if later == at:
                return at
            at = later
        return None

    def _free_from(self, task: Task, at: int) -> int:
        """The same minute where it fits, else a later one before which it does not."""
        if task.hands:
            i = bisect.bisect_left(self._busy, (at, at))
            for start, end in self._busy[max(0, i - 1) :]:
                if start >= at + task.hands:
                    break
                if end > at:
                    return end
        if task.holds:
            for name, count in task.needs:
                held = [one for one in self._held[name] if one[1] > at and one[0] < at + task.holds]
                for moment in {at, *(start for start, _, _ in held if start > at)}:
                    over = [one for one in held if one[0] <= moment < one[1]]
                    if sum(taken for _, _, taken in over) + count > self._problem.capacity[name]:
                        return min(end for _, end, _ in over)
        return at

    def take(self, task: Task, at: int) -> None:
        if task.hands:
            bisect.insort(self._busy, (at, at + task.hands))
        if task.holds:
            for name, count in task.needs:
                self._held[name].append((at, at + task.holds, count))


def by_list(
    problem: Problem, priority: Sequence[float], only: frozenset[int] | None = None
) -> Listed:
    """Put down what may be put down next, the highest priority first, each where it first fits.

    Parameters
    ----------
    only : frozenset of int, optional
        The evenings that may be used.

    Raises
    ------
    NoRoom
        When the evenings that are long enough are all taken.
    """
    bench = _Bench(problem, only)
    count = len(problem.tasks)
    waits = [len(task.after) for task in problem.tasks]
    ready = [max(task.ready, problem.evenings[0][0]) for task in problem.tasks]
    starts, evenings = [0] * count, [0] * count
    free = sorted((-priority[i], i) for i in range(count) if not waits[i])
    while free:
        _, i = free.pop(0)
        task = problem.tasks[i]
        found = bench.first_fit(task, ready[i])
        if found is None:
            raise NoRoom(i)
        evenings[i], starts[i] = found
        bench.take(task, starts[i])
        for child, lag in problem.children[i]:
            ready[child] = max(ready[child], starts[i] + lag)
            waits[child] -= 1
            if not waits[child]:
                bisect.insort(free, (-priority[child], child))
    return Listed(tuple(starts), tuple(evenings))


def pulled_forward(problem: Problem, listed: Listed) -> Listed:
    """The same plan with each task as soon as the ones before it let it, in no evening more; none starts later.

    Put down in the order of their starts, each finds at the latest the place that it had: those before it hold no
    minute after its start that they did not hold then.  Evenings that stand empty before the first task are tried, each
    in place of one that is used.
    """
    order = [-float(start) for start in listed.starts]
    spent = {0} if problem.first_spent else set()
    used = {*listed.evenings, *spent}
    best = min(listed, by_list(problem, order, frozenset(used)), key=_worth(problem))
    for sooner in sorted(set(range(min(listed.evenings))) - used):
        for left in sorted(used - spent, reverse=True):
            try:
                found = by_list(problem, order, frozenset(used - {left} | {sooner}))
            except NoRoom:
                continue
            best = min(best, found, key=_worth(problem))
    return best


def _worth(problem: Problem) -> Callable[[Listed], tuple[int, int, int]]:
    return lambda one: one.worth(problem)


def tails_of(problem: Problem) -> list[int]:
    """Minutes from each task's start to the last hands that wait for it, at least; calendars apart."""
    tails = [0] * len(problem.tasks)
    for i in reversed(range(len(problem.tasks))):
        behind = [lag + tails[child] for child, lag in problem.children[i]]
        tails[i] = max([problem.tasks[i].hands, *behind])
    return tails


def best_list(
    problem: Problem, *, rounds: int = _ROUNDS, go_on: Callable[[], bool] = lambda: True
) -> Listed:
    """The longest tail first, then the order shaken: the best of many lists.

    Raises
    ------
    NoRoom
        When not one of them finds room.
    """
    tails = tails_of(problem)
    rng = random.Random(_SEED)  # noqa: S311  the same plan each time
    scale = max([1, *tails])
    # what fits only the longest evenings is put down before the rest takes them
    last = problem.evenings[-1][1] - problem.evenings[-1][0]
    rigid = [2.0 * scale if task.hands > last else 0.0 for task in problem.tasks]
    best: Listed | None = None
    failed: NoRoom | None = None
    shaken = [tail + more for tail, more in zip(tails, rigid, strict=True)]
    kept = shaken
    for turn in range(rounds):
        if turn and not go_on():
            break
        try:
            found = by_list(problem, shaken)
        except NoRoom as fault:
            failed = fault
        else:
            if best is None or found.worth(problem) < best.worth(problem):
                best, kept = found, shaken
        width = scale * (0.02, 0.08, 0.3)[turn % 3]
        shaken = [one + rng.gauss(0, width) for one in kept]
    if best is None:
        raise failed or NoRoom(0)
    return best


def heads_of(problem: Problem) -> list[int]:
    """The minute before which no task can start: evenings and what comes before, other work apart."""
    heads = [0] * len(problem.tasks)
    for i, task in enumerate(problem.tasks):
        ready = max([task.ready, *(heads[before] + lag for before, lag in task.after)])
        heads[i] = _earliest(problem, task, ready)
    return heads


def _earliest(problem: Problem, task: Task, ready: int) -> int:
    number = 0
    while True:
        start, end = problem.evening(number)
        at = max(start, ready)
        if at + task.hands <= end:
            return at
        number += 1


def _latest(problem: Problem, task: Task, due: int, evenings: int) -> int | None:
    """The last minute at which it can start to have its hands free by `due`."""
    for number in reversed(range(evenings)):
        start, end = problem.evening(number)
        at = min(end, due) - task.hands
        if at >= start:
            return at
    return None


def finish_no_sooner(problem: Problem, upper: int) -> int:
    """A finish that no plan beats, minutes; `upper` is one that a plan has.

    For a finish each task has a window: its head forward, its deadline backward, both over the calendar.  Where the
    hands of all tasks within some window are more than the evening minutes in it the finish can't be had.
    """
    heads = heads_of(problem)
    tails = tails_of(problem)
    low = max(head + tail for head, tail in zip(heads, tails, strict=True))
    evenings = 0
    while problem.evening(evenings)[0] <= upper:
        evenings += 1
    free = _free_minutes(problem, evenings)
    high = upper
    while low < high:
        middle = (low + high) // 2
        if _can_be(problem, heads, middle, evenings, free):
            high = middle
        else:
            low = middle + 1
    return low


def _free_minutes(problem: Problem, evenings: int) -> tuple[np.ndarray, np.ndarray]:
    """Times and evening minutes gone by at each, without those of what is under way; straight in between."""
    times, gone = [0.0], [0.0]
    for number in range(evenings):
        start, end = problem.evening(number)
        taken = sorted(
            (max(start, one.start), min(end, one.start + one.hands))
            for one in problem.underway
            if one.start < end and one.start + one.hands > start
        )
        at = start
        for begin, stop in (*taken, (end, end)):
            if begin > at:
                times += [at, begin]
                gone += [gone[-1], gone[-1] + begin - at]
            at = max(at, stop)
    return np.array(times), np.array(gone)


def _can_be(
    problem: Problem,
    heads: list[int],
    finish: int,
    evenings: int,
    free: tuple[np.ndarray, np.ndarray],
) -> bool:
    count = len(problem.tasks)
    latest = [0] * count
    for i in reversed(range(count)):
        task = problem.tasks[i]
        due = finish
        for child, lag in problem.children[i]:
            due = min(due, latest[child] - lag + task.hands)
        at = _latest(problem, task, due, evenings)
        if at is None or at < heads[i]:
            return False
        latest[i] = at
    hands = np.array([task.hands for task in problem.tasks], dtype=float)
    opens = np.array(heads, dtype=float)
    closes = np.array(latest, dtype=float) + hands
    order = np.argsort(closes)
    ends = np.interp(closes[order], *free)
    for begin in np.unique(opens):
        work = np.cumsum(hands[order] * (opens[order] >= begin))
        there = ends - np.interp(begin, *free)
        if np.any((work > there + 1e-9) & (hands[order] > 0) & (opens[order] >= begin)):
            return False
    return True
