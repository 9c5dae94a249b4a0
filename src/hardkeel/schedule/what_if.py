"""What would help: the same steps with one more of something, an evening more, a faster glue."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Final, Literal

from hardkeel.schedule.evenings import upcoming
from hardkeel.schedule.model import BenchTime, Evening, Step, local_time
from hardkeel.schedule.planning import EveningPlan
from hardkeel.schedule.tonight import plan_tonight

Kind = Literal["resource", "evening", "glue"]
_EACH_S: Final = 0.8
SLOW: Final = "slow epoxy"
FASTER: Final = "30-minute epoxy"
FASTER_HANDLE_MINUTES: Final = 120.0  # an epoxy of 30 minutes: by experience, its sheet goes before
FASTER_CURE_MINUTES: Final = 720.0


@dataclass(frozen=True, slots=True)
class Otherwise:
    """One thing that would be otherwise.

    Attributes
    ----------
    what : str
        The resource there would be one more of; the glue that would be a faster one.
    day : date, optional
        Of the evening; tomorrow where it is not said.
    """

    kind: Kind
    what: str = ""
    day: date | None = None


@dataclass(frozen=True, slots=True)
class WhatIf:
    """One thing that would be otherwise, and the plan that it would make."""

    kind: Kind
    what: str
    plan: EveningPlan


def otherwise_of(steps: Sequence[Step]) -> tuple[Otherwise, ...]:
    """All that can be wondered about: one more of each thing that is scarce, an evening, a faster glue."""
    open_ = [step for step in steps if step.state == "open"]
    scarce = [
        Otherwise("resource", name) for name in sorted({n for step in open_ for n in step.needs})
    ]
    glue = [Otherwise("glue", SLOW)] if any(step.glue == SLOW for step in open_) else []
    return (*scarce, Otherwise("evening"), *glue)


def bench_otherwise(
    bench: BenchTime | None, one: Otherwise, now: datetime, minutes: int
) -> BenchTime:
    """The bench with that.

    Parameters
    ----------
    now : datetime
        Local; an evening more begins at the same hour.
    minutes : int
        How long the evening would be.
    """
    held = bench or BenchTime()
    if one.kind == "resource":
        count = held.resources.get(one.what, 1) + 1
        return held.but(resources={**held.resources, one.what: count})
    if one.kind == "evening":
        ahead = (one.day - now.date()).days if one.day is not None else 1
        return _an_evening_more(held, now, minutes, ahead)
    return held


def steps_otherwise(steps: Sequence[Step], one: Otherwise) -> tuple[Step, ...]:
    """The steps with that: those that are open take the faster glue."""
    if one.kind != "glue":
        return tuple(steps)
    return tuple(
        step.but(
            glue=FASTER, handle_minutes=FASTER_HANDLE_MINUTES, cure_minutes=FASTER_CURE_MINUTES
        )
        if step.glue == one.what and step.state == "open"
        else step
        for step in steps
    )


def plan_otherwise(  # noqa: PLR0913  all of it is the builder's
    steps: Sequence[Step],
    bench: BenchTime | None,
    one: Otherwise,
    now: datetime,
    minutes: int,
    *,
    limit: float = _EACH_S,
    stopped: Callable[[], bool] = lambda: False,
) -> WhatIf:
    """The plan it would make, not searched for long."""
    changed, time = steps_otherwise(steps, one), bench_otherwise(bench, one, now, minutes)
    tonight = plan_tonight(changed, time, now, minutes, limit, stopped=stopped)
    return WhatIf(one.kind, one.what, tonight.plan)


def what_ifs(
    steps: Sequence[Step],
    bench: BenchTime | None,
    now: datetime,
    minutes: int,
    stopped: Callable[[], bool] = lambda: False,
) -> tuple[WhatIf, ...]:
    """Plans for each thing that may help."""
    found = []
    for one in otherwise_of(steps):
        if stopped():
            break
        found.append(plan_otherwise(steps, bench, one, now, minutes, stopped=stopped))
    return tuple(found)


def _an_evening_more(bench: BenchTime, now: datetime, minutes: int, ahead: int) -> BenchTime:
    """So many days ahead, too, from the same hour: a single date, not one in every week."""
    from_ = now + timedelta(days=ahead)
    made = Evening(
        start=from_.replace(second=0, microsecond=0).isoformat(timespec="minutes"), minutes=minutes
    )
    end = from_ + timedelta(minutes=minutes)
    day = from_.date().isoformat()
    others = [
        one
        for one in upcoming(bench, now)
        if one.start.startswith(day)
        and (
            local_time(one.start) >= end
            or local_time(one.start) + timedelta(minutes=one.minutes) <= from_
        )
    ]
    evenings = sorted((*others, made), key=lambda one: one.start)
    return bench.but(days={**bench.days, day: tuple(evenings)})
