"""The plan of evenings: the best list first, then proven; sound at every moment that it is left off."""

import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from types import MappingProxyType
from typing import Final

from hardkeel.schedule.listing import (
    Listed,
    NoRoom,
    best_list,
    by_list,
    finish_no_sooner,
    pulled_forward,
)
from hardkeel.schedule.model import BenchTime, Step
from hardkeel.schedule.ordering import ordered
from hardkeel.schedule.proving import Search, better, proved
from hardkeel.schedule.tasks import Impossible, Problem, problem_of, problem_without

LIMIT_S: Final = 10.0
_LIST_SHARE: Final = 0.2  # of the time at most


@dataclass(frozen=True, slots=True)
class Planned:
    """When one step is done.

    Attributes
    ----------
    end, handle, cure : datetime
        Hands free; it may be handled; it is cured.
    """

    step: Step
    evening: int
    start: datetime
    end: datetime
    handle: datetime
    cure: datetime


@dataclass(frozen=True, slots=True)
class EveningPlan:
    """The whole plan.

    Attributes
    ----------
    finish : datetime, optional
        End of the last hands; ``None`` where nothing is to do.
    soonest : datetime, optional
        A finish that no plan beats.
    more_evenings : int
        How many evenings past the given ones it reaches.
    """

    steps: tuple[Planned, ...]
    finish: datetime | None
    soonest: datetime | None
    evenings_used: int
    more_evenings: int
    proven: bool
    impossible: tuple[Impossible, ...]


def plan_evenings(  # noqa: PLR0913  all of it is the builder's
    steps: Sequence[Step],
    bench: BenchTime | None,
    limit: float = LIMIT_S,
    told: Callable[[EveningPlan], object] = lambda _plan: None,
    stopped: Callable[[], bool] = lambda: False,
    kept: Mapping[str, datetime] = MappingProxyType({}),
    *,
    first_spent: bool = False,
) -> EveningPlan:
    """Plan the open steps over the evenings.

    Parameters
    ----------
    limit : float
        Seconds.
    told : callable
        Hears of each better plan.
    stopped : callable
        Asked now and then; the best so far is given once it says so.
    kept : mapping of str to datetime
        When steps were to begin by an earlier plan: what need not move to another day stays, where finish and
        evenings are none the worse for it.
    first_spent : bool
        The first evening is spent at the bench anyway: it is not saved, and what can be done in it is.

    Raises
    ------
    BadInput
        No evenings, evenings out of order, a cycle, an id that is not there.
    """
    begun = time.monotonic()
    problem, listed = _listed(
        steps,
        bench,
        lambda: time.monotonic() < begun + _LIST_SHARE * limit and not stopped(),
        kept,
        first_spent=first_spent,
    )
    if listed is None:
        return EveningPlan((), None, None, 0, 0, proven=True, impossible=problem.impossible)
    bound = finish_no_sooner(problem, listed.finish(problem))
    told(plan_of(problem, listed, bound, proven=False))
    search = Search(
        begun + limit,
        lambda better: told(plan_of(problem, better, bound, proven=False)),
        stopped,
        days_of(problem, kept),
    )
    proof = proved(problem, listed, bound, search)
    listed = _sooner(problem, proof.listed, search.days)
    return plan_of(problem, listed, proof.bound, proven=proof.proven)


def _sooner(problem: Problem, listed: Listed, days: Mapping[int, date]) -> Listed:
    """The plan pulled forward where that is better: a search that was cut off leaves tasks later than need be.

    An evening that is spent at the bench anyway and would stand empty is reason enough, whatever was planned before.
    """
    pulled = pulled_forward(problem, listed)
    empty = problem.first_spent and 0 not in listed.evenings
    if better(problem, pulled, listed, days) or (empty and 0 in pulled.evenings):
        return pulled
    return listed


def list_evenings(steps: Sequence[Step], bench: BenchTime | None) -> EveningPlan:
    """The first good list, the same whenever it is asked for; sound, not proven, and no solver is needed.

    Raises
    ------
    BadInput
        As `plan_evenings`.
    """
    problem, listed = _listed(steps, bench, lambda: False, {})
    if listed is None:
        return EveningPlan((), None, None, 0, 0, proven=True, impossible=problem.impossible)
    bound = finish_no_sooner(problem, listed.finish(problem))
    return plan_of(problem, listed, bound, proven=False)


def days_of(problem: Problem, kept: Mapping[str, datetime]) -> dict[int, date]:
    """By task, the day on which it was to begin."""
    return {
        i: kept[task.step.id].date() for i, task in enumerate(problem.tasks) if task.step.id in kept
    }


def _as_kept(problem: Problem, listed: Listed, kept: Mapping[str, datetime]) -> Listed:
    """The list in the order of an earlier plan, where that is as good."""
    if not kept:
        return listed
    first, last = min(kept.values()), max(kept.values())
    order = [-(kept.get(task.step.id, last) - first).total_seconds() for task in problem.tasks]
    try:
        same = by_list(problem, order)
    except NoRoom:
        return listed
    return same if same.worth(problem)[:2] <= listed.worth(problem)[:2] else listed


def _listed(
    steps: Sequence[Step],
    bench: BenchTime | None,
    go_on: Callable[[], bool],
    kept: Mapping[str, datetime],
    *,
    first_spent: bool = False,
) -> tuple[Problem, Listed | None]:
    """The best list; a task for which no evening is long enough once the long ones are taken is given up."""
    problem = problem_of(steps, bench, first_spent=first_spent)
    while problem.tasks:
        try:
            return problem, _as_kept(problem, best_list(problem, go_on=go_on), kept)
        except NoRoom as fault:
            crowded = problem.tasks[fault.task].step
            gone = [*problem.impossible, Impossible(crowded, "crowded")]
            ids = {one.step.id for one in gone}
            for step in ordered(steps):
                before = next((one for one in step.after if one in ids), None)
                if step.state == "open" and step.id not in ids and before is not None:
                    ids.add(step.id)
                    gone.append(Impossible(step, "follows", before))
            assert bench is not None  # noqa: S101  problem_of has seen to it
            fewer = problem_without(
                ordered(steps), bench, problem.zero, problem.evenings, tuple(gone)
            )
            problem = replace(fewer, first_spent=first_spent)
    return problem, None


def plan_of(problem: Problem, listed: Listed, bound: int, *, proven: bool) -> EveningPlan:
    """A plan by its minutes as steps with times on the wall; `bound` is a finish that none beats, minutes."""
    planned = [
        Planned(
            task.step,
            evening,
            problem.moment(start),
            problem.moment(start + task.hands),
            problem.moment(start + task.handle),
            problem.moment(start + task.cure),
        )
        for task, start, evening in zip(problem.tasks, listed.starts, listed.evenings, strict=True)
    ]
    given = len(problem.evenings)
    return EveningPlan(
        tuple(sorted(planned, key=lambda one: one.start)),
        problem.moment(listed.finish(problem)),
        problem.moment(bound),
        len(set(listed.evenings)),
        max(0, max(listed.evenings) - given + 1),
        proven,
        problem.impossible,
    )
