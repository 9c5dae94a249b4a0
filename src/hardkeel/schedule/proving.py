"""The plan proven by OR-Tools' CP-SAT, which is read when it is first wanted: finish, then evenings, then starts.

One start for each task whose domain is the union over evenings, one Boolean a task and evening, a knapsack an
evening, no two tasks in the one pair of hands, and as much of a resource as there is.  Each solve is hinted by the
plan that the last one left.
"""

import threading
import time
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from datetime import date
from itertools import accumulate, pairwise
from typing import TYPE_CHECKING, Any, Final

from hardkeel.base.late import late
from hardkeel.schedule.listing import Listed, heads_of
from hardkeel.schedule.tasks import Problem

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
else:
    cp_model = late("ortools.sat.python.cp_model")

_WORKERS: Final = 4
_POLL_S: Final = 0.1
_LAST_SHARE: Final = 0.25  # of the time is kept for starts, which need no proof
_LEAST_S: Final = 0.3


@dataclass(frozen=True, slots=True)
class Proof:
    """A plan and how far it is proven.

    Attributes
    ----------
    bound : int
        A finish that no plan beats, minutes.
    """

    listed: Listed
    bound: int
    proven: bool


class _Model:
    """The constraints over the evenings up to a finish."""

    def __init__(self, problem: Problem, upper: int) -> None:
        self._problem = problem
        self.model = model = cp_model.CpModel()
        number = 0
        self.spans: list[tuple[int, int]] = []
        while problem.evening(number)[0] <= upper:
            self.spans.append(problem.evening(number))
            number += 1
        self.starts: list[Any] = []
        self.within: list[dict[int, Any]] = []
        heads = heads_of(problem)
        for i, task in enumerate(problem.tasks):
            windows = {
                n: (max(start, heads[i]), min(end, upper) - task.hands)
                for n, (start, end) in enumerate(self.spans)
                if max(start, heads[i]) <= min(end, upper) - task.hands
            }
            domain = cp_model.Domain.from_intervals([list(one) for one in windows.values()])
            at = model.new_int_var_from_domain(domain, f"start {i}")
            chosen = {n: model.new_bool_var(f"{i} in {n}") for n in windows}
            model.add_exactly_one(chosen.values())
            for n, (first, last) in windows.items():
                model.add(at >= first).only_enforce_if(chosen[n])
                model.add(at <= last).only_enforce_if(chosen[n])
            self.starts.append(at)
            self.within.append(chosen)
        for i, task in enumerate(problem.tasks):
            for before, lag in task.after:
                model.add(self.starts[i] >= self.starts[before] + lag)
        self._hands()
        self._resources()
        self.used = [model.new_bool_var(f"used {n}") for n in range(len(self.spans))]
        for chosen in self.within:
            for n, one in chosen.items():
                model.add_implication(one, self.used[n])
        # evenings that are used must hold all hands: it follows from the rest, and the solver sees it sooner so
        lengths = [end - start for start, end in self.spans]
        work = sum(task.hands for task in problem.tasks)
        model.add(sum(length * one for length, one in zip(lengths, self.used, strict=True)) >= work)
        self.saving = self.used[1:] if problem.first_spent else self.used
        if problem.first_spent:
            work, lengths = max(0, work - lengths[0]), lengths[1:]
        self.fewest = _fewest(lengths, work) if work else 0
        self.finish = model.new_int_var(0, upper, "finish")
        for at, task in zip(self.starts, problem.tasks, strict=True):
            model.add(self.finish >= at + task.hands)

    def _hands(self) -> None:
        problem, model = self._problem, self.model
        busy = [
            model.new_fixed_size_interval_var(at, task.hands, "")
            for at, task in zip(self.starts, problem.tasks, strict=True)
            if task.hands
        ]
        fixed = _joined(
            [(one.start, one.start + one.hands) for one in problem.underway if one.hands]
        )
        busy += [model.new_fixed_size_interval_var(start, end - start, "") for start, end in fixed]
        model.add_no_overlap(busy)
        for n, (start, end) in enumerate(self.spans):
            taken = sum(max(0, min(end, b) - max(start, a)) for a, b in fixed)
            held = [
                (task.hands, chosen[n])
                for task, chosen in zip(problem.tasks, self.within, strict=True)
                if n in chosen and task.hands
            ]
            if held:
                model.add(sum(hands * one for hands, one in held) <= end - start - taken)

    def _resources(self) -> None:
        problem, model = self._problem, self.model
        for name, there in problem.capacity.items():
            spans, demands = [], []
            for at, task in zip(self.starts, problem.tasks, strict=True):
                count = dict(task.needs).get(name, 0)
                if count and task.holds:
                    spans.append(model.new_fixed_size_interval_var(at, task.holds, ""))
                    demands.append(count)
            if not spans:
                continue
            for start, end, count in _profile(problem, name, there):
                spans.append(model.new_fixed_size_interval_var(start, end - start, ""))
                demands.append(count)
            model.add_cumulative(spans, demands, there)

    def on_their_day(self, days: Mapping[int, date]) -> list[Any]:
        """One Boolean for each task and evening of its day."""
        wall = [self._problem.moment(start).date() for start, _ in self.spans]
        return [
            one for i, day in days.items() for n, one in self.within[i].items() if wall[n] == day
        ]

    def hint(self, listed: Listed) -> None:
        """Begin from a plan."""
        used = set(listed.evenings)
        for at, start in zip(self.starts, listed.starts, strict=True):
            self.model.add_hint(at, start)
        for chosen, evening in zip(self.within, listed.evenings, strict=True):
            for n, one in chosen.items():
                self.model.add_hint(one, n == evening)
        for n, one in enumerate(self.used):
            self.model.add_hint(one, n in used)
        self.model.add_hint(self.finish, listed.finish(self._problem))


def _fewest(lengths: list[int], work: int) -> int:
    """How many evenings hold so many minutes, the longest first; one where there is only something to start."""
    for count, held in enumerate(accumulate(sorted(lengths, reverse=True)), start=1):
        if held >= work:
            return count
    return len(lengths)


def _joined(spans: list[tuple[int, int]]) -> list[tuple[int, int]]:
    """Overlapping spans made one: what is under way stands, whatever it says of hands."""
    found: list[tuple[int, int]] = []
    for start, end in sorted(spans):
        if found and start < found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], end))
        else:
            found.append((start, end))
    return found


def _profile(problem: Problem, name: str, there: int) -> list[tuple[int, int, int]]:
    """What is under way holds of a resource over time, never more than there is."""
    held = [
        (one.start, one.start + one.holds, count)
        for one in problem.underway
        for needed, count in one.needs
        if needed == name and one.holds
    ]
    times = sorted({moment for start, end, _ in held for moment in (start, end)})
    found = []
    for start, end in pairwise(times):
        count = sum(count for a, b, count in held if a <= start and b >= end)
        if count:
            found.append((start, end, min(count, there)))
    return found


@dataclass(frozen=True, slots=True)
class Search:
    """How long a better plan is looked for, and who hears of it.

    Attributes
    ----------
    until : float
        By the monotonic clock.
    told : callable
        Hears of each better plan.
    stopped : callable
        Whether to leave off with what there is.
    days : mapping of int to date
        The day on which a task was to begin: as many as can be stay there, in place of the least sum of starts.
    """

    until: float
    told: Callable[[Listed], object]
    stopped: Callable[[], bool]
    days: Mapping[int, date] = field(default_factory=dict)


def proved(problem: Problem, listed: Listed, bound: int, search: Search) -> Proof:
    """Better the plan until it is proven or the time is over.

    Parameters
    ----------
    bound : int
        A finish that is known to be the least.
    """
    if listed.finish(problem) > bound:
        made = _Model(problem, listed.finish(problem))
        made.model.add(made.finish >= bound)
        made.model.minimize(made.finish)
        listed, found, _ = _solve(made, problem, listed, search)
        bound = max(bound, found)
    finish = listed.finish(problem)
    if finish > bound:
        return Proof(listed, bound, proven=False)
    listed, proven = _fewer_evenings(problem, listed, search)
    used = problem.spent(listed.evenings)
    if not search.stopped() and time.monotonic() + _LEAST_S < search.until:
        made = _Model(problem, finish)
        made.model.add(sum(made.saving) <= used)
        if search.days:
            made.model.maximize(sum(made.on_their_day(search.days)))
        else:
            made.model.minimize(sum(made.starts))
        share = time.monotonic() + max(_LEAST_S, _LAST_SHARE * (search.until - time.monotonic()))
        listed, _, _ = _solve(made, problem, listed, replace(search, until=share))
    return Proof(listed, bound, proven)


def better(problem: Problem, found: Listed, listed: Listed, days: Mapping[int, date]) -> bool:
    """Sooner, then fewer evenings, then more tasks on their day, then sooner starts."""

    def worth(one: Listed) -> tuple[int, int, int, int]:
        finish, evenings, starts = one.worth(problem)
        moved = sum(
            problem.moment(problem.evening(one.evenings[i])[0]).date() != day
            for i, day in days.items()
        )
        return finish, evenings, moved, starts

    return worth(found) < worth(listed)


def _fewer_evenings(problem: Problem, listed: Listed, search: Search) -> tuple[Listed, bool]:
    """One evening fewer, again and again, until that can't be: a plain question is sooner answered than a search."""
    while True:
        made = _Model(problem, listed.finish(problem))
        used = problem.spent(listed.evenings)
        if used <= made.fewest:
            return listed, True
        made.model.add(sum(made.saving) <= used - 1)
        better, _, sure = _solve(made, problem, listed, search)
        if better is listed:
            return listed, sure
        listed = better


def _solve(
    made: _Model, problem: Problem, listed: Listed, search: Search
) -> tuple[Listed, int, bool]:
    """The better plan, the bound of what was wanted, and whether it was proven."""
    seconds = search.until - time.monotonic()
    if seconds <= 0 or search.stopped():
        return listed, 0, False
    made.hint(listed)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = _WORKERS
    done = threading.Event()

    def watch() -> None:
        while not done.wait(_POLL_S):
            if search.stopped():
                solver.stop_search()
                return

    watcher = threading.Thread(target=watch, daemon=True)
    watcher.start()
    try:
        status = solver.solve(made.model)
    finally:
        done.set()
        watcher.join()
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return listed, 0, status == cp_model.INFEASIBLE
    found = Listed(
        tuple(int(solver.value(at)) for at in made.starts),
        tuple(
            next(n for n, one in chosen.items() if solver.boolean_value(one))
            for chosen in made.within
        ),
    )
    if better(problem, found, listed, search.days):
        listed = found
        search.told(listed)
    return listed, round(solver.best_objective_bound), status == cp_model.OPTIMAL
