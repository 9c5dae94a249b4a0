"""What to do with the time there is: the plan's first evening, its long cures last, what must not be begun and why."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from types import MappingProxyType

from hardkeel.schedule.evenings import upcoming, with_tonight
from hardkeel.schedule.model import BenchTime, Step, local_time
from hardkeel.schedule.planning import EveningPlan, Planned, plan_evenings
from hardkeel.schedule.timers import underway

Span = tuple[datetime, datetime]


@dataclass(frozen=True, slots=True)
class Tonight:
    """An evening and the plan that it is the first of.

    Attributes
    ----------
    start, end : datetime
        Local.
    steps : tuple of Planned
        In order; what is being done comes first.
    lying : tuple of Planned
        What was glued before and may not be handled yet.
    """

    start: datetime
    end: datetime
    steps: tuple[Planned, ...]
    plan: EveningPlan
    lying: tuple[Planned, ...] = ()

    @property
    def last_glue(self) -> Planned | None:
        """The last step with glue."""
        return next((one for one in reversed(self.steps) if one.step.glue), None)


def plan_tonight(  # noqa: PLR0913  all of it is the builder's
    steps: Sequence[Step],
    bench: BenchTime | None,
    now: datetime,
    minutes: int,
    limit: float,
    *,
    stopped: Callable[[], bool] = lambda: False,
    kept: Mapping[str, datetime] = MappingProxyType({}),
) -> Tonight:
    """Plan from now (local) with so many minutes tonight.

    Parameters
    ----------
    kept : mapping of str to datetime
        When steps were to begin by the plan before: what need not move stays.

    Raises
    ------
    BadInput
        Steps that wait for each other or for what is not there.
    """
    start = now.replace(second=0, microsecond=0)
    evenings = with_tonight(upcoming(bench, start), start, max(1, minutes))
    held = bench or BenchTime()
    resources = held.resources
    time = BenchTime(evenings=evenings, resources=resources)
    steps_now = underway(steps, held.timers)
    plan = plan_evenings(steps_now, time, limit, stopped=stopped, kept=kept, first_spent=True)
    end = start + timedelta(minutes=minutes)
    plan = long_cures_last(plan, end, resources, begun_of(steps_now))
    first = (one for one in plan.steps if one.evening == 0)
    begun = begun_of(steps)
    doing = {one.step.id for one in begun}
    lying = tuple(
        one for one in begun_of(steps_now) if one.step.id not in doing and one.handle > start
    )
    return Tonight(start, end, (*begun, *first), plan, lying)


def begun_of(steps: Sequence[Step]) -> tuple[Planned, ...]:
    """The steps that are being done, as if they were planned for when they were begun."""
    return tuple(
        _begun(step) for step in steps if step.state == "doing" and step.started is not None
    )


def _begun(step: Step) -> Planned:
    start = local_time(step.started or "")
    end = start + timedelta(minutes=step.hands_minutes)
    handle = end + timedelta(minutes=step.handle_minutes)
    cure = end + timedelta(minutes=max(step.handle_minutes, step.cure_minutes))
    return Planned(step, 0, start, end, handle, cure)


def long_cures_last(
    plan: EveningPlan, end: datetime, resources: dict[str, int], begun: Sequence[Planned] = ()
) -> EveningPlan:
    """The same plan with the first evening's steps in the order of their cures, where nothing later is the worse for it.

    Then what cures overnight does not lie in the way of what is left of the evening, and a hand that comes late to the
    end of it has begun no glue in haste.

    Parameters
    ----------
    begun : sequence of Planned
        What is under way: it has its hands, and what waits for it stays where it was planned.
    """
    first = [one for one in plan.steps if one.evening == 0]
    later = [one for one in plan.steps if one.evening != 0]
    if not first:
        return plan
    moved = _by_cure(first, min(one.start for one in first), end, resources, begun)
    if moved is None or max(one.end for one in moved) > max(one.end for one in first):
        return plan
    if not _leaves_later_alone(moved, later) or _over((*begun, *moved, *later), resources):
        return plan
    steps = tuple(sorted((*moved, *later), key=lambda one: one.start))
    return replace(plan, steps=steps)


def _by_cure(
    first: Sequence[Planned],
    start: datetime,
    end: datetime,
    resources: dict[str, int],
    begun: Sequence[Planned],
) -> list[Planned] | None:
    busy = [(one.start, one.end) for one in begun]
    waited = {one.step.id for one in begun}
    placed: list[Planned] = []
    left = list(first)
    at = start
    while left:
        ids = {one.step.id for one in left}
        free = [one for one in left if not ids & set(one.step.after)]
        ready = {
            # what waits for something under way stays where it was planned at the soonest
            one.step.id: max(
                one.start if waited & set(one.step.after) else start,
                _ready(one, placed, start, first, resources),
            )
            for one in free
        }
        soon = [one for one in free if ready[one.step.id] <= at] or [
            min(free, key=lambda one: ready[one.step.id])
        ]
        chosen = min(soon, key=lambda one: (one.cure - one.end, one.start))
        begin = _hands_free(max(at, ready[chosen.step.id]), chosen.end - chosen.start, busy)
        if begin + (chosen.end - chosen.start) > end:
            return None
        placed.append(_moved(chosen, begin))
        at = max(at, placed[-1].end)
        left.remove(chosen)
    return placed


def _hands_free(at: datetime, length: timedelta, busy: Sequence[Span]) -> datetime:
    """The first minute from which the hands are free for so long."""
    for begin, end in sorted(busy):
        if length and begin < at + length and end > at:
            at = end
    return at


def _ready(
    one: Planned,
    placed: Sequence[Planned],
    start: datetime,
    first: Sequence[Planned],
    resources: dict[str, int],
) -> datetime:
    """When what it waits for lets it begin; what stood before tonight let it begin where it was planned."""
    there = {two.step.id: two for two in placed}
    ready = start
    for name in one.step.needs:  # what is under way may hold it until the first of tonight takes it
        ready = max(ready, min(two.start for two in first if name in two.step.needs))
    for before in one.step.after:
        if before in there:
            found = there[before]
            ready = max(ready, found.cure if one.step.needs_cure else found.handle)
    for two in placed:
        shared = set(one.step.needs) & set(two.step.needs)
        if any(_count(one, name) + _count(two, name) > resources.get(name, 1) for name in shared):
            ready = max(ready, _held_until(two))
    return ready


def _leaves_later_alone(moved: Sequence[Planned], later: Sequence[Planned]) -> bool:
    by_id = {one.step.id: one for one in moved}
    for one in later:
        for before in one.step.after:
            found = by_id.get(before)
            if found is None:
                continue
            if one.start < (found.cure if one.step.needs_cure else found.handle):
                return False
    return True


def _over(steps: Sequence[Planned], resources: dict[str, int]) -> bool:
    """Whether more of something is held at once than there is, by all that hold it together."""
    return any(
        sum(_count(two, name) for two in steps if two.start <= one.start < _held_until(two))
        > resources.get(name, 1)
        for one in steps
        for name in one.step.needs
    )


def _count(one: Planned, name: str) -> int:
    return one.step.needs.count(name)


def _held_until(one: Planned) -> datetime:
    return one.cure if one.step.holds_until == "cure" else one.handle


def _moved(one: Planned, start: datetime) -> Planned:
    by = start - one.start
    return replace(one, start=start, end=one.end + by, handle=one.handle + by, cure=one.cure + by)
