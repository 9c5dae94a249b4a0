"""Steps and evenings as the planner sees them: whole minutes from the first evening's midnight, and indices."""

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, time, timedelta
from typing import Final, Literal

from hardkeel.base.errors import BadInput
from hardkeel.schedule.model import BenchTime, Step, local_time
from hardkeel.schedule.ordering import check_steps, ordered

DAY: Final = 24 * 60
Why = Literal["long", "scarce", "follows", "crowded"]


@dataclass(frozen=True, slots=True)
class Impossible:
    """A step that no evening can hold.

    Attributes
    ----------
    why : str
        ``long``: more hands than the longest evening; ``scarce``: more of `what` than there is; ``follows`` the
        step `what`; ``crowded``: what is long enough for it is taken, and later evenings are not.
    """

    step: Step
    why: Why
    what: str = ""
    wanted: int = 0
    there: int = 0


@dataclass(frozen=True, slots=True)
class Task:
    """An open step.

    Attributes
    ----------
    hands, handle, cure : int
        Minutes: busy; from the start until it can be handled; until it is cured.
    holds : int
        Minutes from the start for which it keeps what it needs.
    after : tuple of (index, minutes)
        Starts no sooner than that task's start and so many minutes.
    ready : int
        Minute before which it can't start: what is under way must be firm or cured.
    """

    step: Step
    hands: int
    handle: int
    cure: int
    holds: int
    needs: tuple[tuple[str, int], ...]
    after: tuple[tuple[int, int], ...]
    ready: int


@dataclass(frozen=True, slots=True)
class Underway:
    """What a step that is being done takes: its hands' minutes and what it holds."""

    start: int
    hands: int
    holds: int
    needs: tuple[tuple[str, int], ...]


@dataclass(frozen=True)
class Problem:
    """All that is to be planned.

    Attributes
    ----------
    zero : datetime
        Minute 0.
    evenings : tuple of (start, end)
        The given ones; `evening` goes on with ones like the last, a day apart.
    first_spent : bool
        The first evening is spent at the bench whatever the plan: it is not one that could be saved.
    """

    zero: datetime
    evenings: tuple[tuple[int, int], ...]
    capacity: dict[str, int]
    tasks: tuple[Task, ...]
    underway: tuple[Underway, ...]
    impossible: tuple[Impossible, ...]
    first_spent: bool = False
    children: tuple[tuple[tuple[int, int], ...], ...] = field(init=False)

    def __post_init__(self) -> None:
        found: list[list[tuple[int, int]]] = [[] for _ in self.tasks]
        for i, task in enumerate(self.tasks):
            for before, lag in task.after:
                found[before].append((i, lag))
        object.__setattr__(self, "children", tuple(tuple(one) for one in found))

    def evening(self, number: int) -> tuple[int, int]:
        """Start and end of an evening, also past the given ones."""
        given = len(self.evenings)
        if number < given:
            return self.evenings[number]
        start, end = self.evenings[-1]
        later = (number - given + 1) * DAY
        return start + later, end + later

    def spent(self, evenings: Iterable[int]) -> int:
        """How many evenings a plan costs that has tasks in these."""
        return len(set(evenings) - ({0} if self.first_spent else set()))

    def moment(self, minute: int) -> datetime:
        """The time on the wall."""
        return self.zero + timedelta(minutes=minute)


def problem_of(
    steps: Sequence[Step], bench: BenchTime | None, *, first_spent: bool = False
) -> Problem:
    """What is to be planned of steps and evenings.

    Raises
    ------
    BadInput
        No evenings, evenings out of order, steps that wait for each other, unknown ids, a step that is being done
        and does not say since when.
    """
    check_steps(steps)
    if bench is None or not bench.evenings:
        raise BadInput("bench.evenings", "is missing: there is no evening to plan on")
    zero = local_time(bench.evenings[0].start).replace(hour=0, minute=0)
    evenings = _spans(bench, zero)
    in_order = ordered(steps)
    wanted = [step for step in in_order if step.state == "open"]
    impossible = tuple(_impossible(wanted, bench, max(end - start for start, end in evenings)))
    found = problem_without(in_order, bench, zero, evenings, impossible)
    return replace(found, first_spent=first_spent)


def problem_without(
    steps: Sequence[Step],
    bench: BenchTime,
    zero: datetime,
    evenings: tuple[tuple[int, int], ...],
    impossible: tuple[Impossible, ...],
) -> Problem:
    """The problem of ordered steps without those that can't be done."""
    gone = {one.step.id for one in impossible}
    possible = [step for step in steps if step.state == "open" and step.id not in gone]
    index = {step.id: i for i, step in enumerate(possible)}
    doing = {step.id: (step, _since(step, zero)) for step in steps if step.state == "doing"}
    tasks = []
    for step in possible:
        after, ready = [], _awaited(step, zero)
        for before in step.after:
            if before in index:
                lag = _lags(possible[index[before]])[2 if step.needs_cure else 1]
                after.append((index[before], lag))
            elif before in doing:
                one, since = doing[before]
                ready = max(ready, since + _lags(one)[2 if step.needs_cure else 1])
        hands, handle, cure = _lags(step)
        holds = cure if step.holds_until == "cure" else handle
        tasks.append(Task(step, hands, handle, cure, holds, _needs(step), tuple(after), ready))
    underway = tuple(
        Underway(
            since, _lags(step)[0], _lags(step)[2 if step.holds_until == "cure" else 1], _needs(step)
        )
        for step, since in doing.values()
    )
    named = {name for step in steps for name in step.needs}
    capacity = {name: bench.resources.get(name, 1) for name in sorted(named)}
    return Problem(zero, evenings, capacity, tuple(tasks), underway, impossible)


def check_evenings(bench: BenchTime) -> None:
    """Raise on evenings out of order or one within another.

    Raises
    ------
    BadInput
        Naming the evening.
    """
    if bench.evenings:
        _spans(bench, local_time(bench.evenings[0].start).replace(hour=0, minute=0))


def _spans(bench: BenchTime, zero: datetime) -> tuple[tuple[int, int], ...]:
    found: list[tuple[int, int]] = []
    for i, evening in enumerate(bench.evenings):
        start = round((local_time(evening.start) - zero).total_seconds() / 60)
        if found and start < found[-1][1]:
            raise BadInput(
                f"bench.evenings[{i}].start", "begins before the evening before it is over"
            )
        found.append((start, start + evening.minutes))
    return tuple(found)


def _since(step: Step, zero: datetime) -> int:
    if step.started is None:
        raise BadInput("steps", f'"{step.id}" is being done but does not say since when')
    try:
        started = local_time(step.started)
    except ValueError:
        raise BadInput("steps", f'"{step.id}" was started at no time that can be read') from None
    return math.floor((started - zero).total_seconds() / 60)


def _awaited(step: Step, zero: datetime) -> int:
    """The minute at which the day begins on which what it waits for is there; 0 where it waits for nothing."""
    if step.wait_until is None:
        return 0
    there = datetime.combine(date.fromisoformat(step.wait_until), time())
    return max(0, round((there - zero).total_seconds() / 60))


def _lags(step: Step) -> tuple[int, int, int]:
    """Minutes from the start until the hands are free, it can be handled, it is cured; begun minutes count whole."""
    hands = math.ceil(step.hands_minutes)
    handle = math.ceil(step.handle_minutes)
    return hands, hands + handle, hands + max(handle, math.ceil(step.cure_minutes))


def _needs(step: Step) -> tuple[tuple[str, int], ...]:
    return tuple(sorted(Counter(step.needs).items()))


def _impossible(wanted: Sequence[Step], bench: BenchTime, longest: int) -> Iterable[Impossible]:
    gone: set[str] = set()
    for step in wanted:
        found = _why(step, bench, longest, gone)
        if found is not None:
            gone.add(step.id)
            yield found


def _why(step: Step, bench: BenchTime, longest: int, gone: set[str]) -> Impossible | None:
    hands = _lags(step)[0]
    if hands > longest:
        return Impossible(step, "long", wanted=hands, there=longest)
    for name, count in _needs(step):
        there = bench.resources.get(name, 1)
        if count > there:
            return Impossible(step, "scarce", name, count, there)
    for before in step.after:
        if before in gone:
            return Impossible(step, "follows", before)
    return None
