"""What would help: the same steps with one more of something, an evening more, a faster glue."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final, Literal

from hardkeel.schedule.evenings import upcoming
from hardkeel.schedule.model import BenchTime, Evening, Step, local_time
from hardkeel.schedule.planning import EveningPlan
from hardkeel.schedule.tonight import plan_tonight

Kind = Literal["resource", "evening", "glue"]
_EACH_S: Final = 0.8
SLOW: Final = "slow epoxy"
FASTER_HANDLE_MINUTES: Final = 120.0  # an epoxy of 30 minutes: by experience, its sheet goes before
FASTER_CURE_MINUTES: Final = 720.0


@dataclass(frozen=True, slots=True)
class WhatIf:
    """One thing that would be otherwise, and the plan that it would make."""

    kind: Kind
    what: str
    plan: EveningPlan


def what_ifs(
    steps: Sequence[Step],
    bench: BenchTime | None,
    now: datetime,
    minutes: int,
    stopped: Callable[[], bool] = lambda: False,
) -> tuple[WhatIf, ...]:
    """Plans for each thing that may help, none searched for long."""
    held = bench or BenchTime()
    open_ = [step for step in steps if step.state == "open"]
    tries: list[tuple[Kind, str, Sequence[Step], BenchTime]] = []
    for name in sorted({name for step in open_ for name in step.needs}):
        more = {**held.resources, name: held.resources.get(name, 1) + 1}
        tries.append(("resource", name, steps, held.but(resources=more)))
    tries.append(("evening", "", steps, _an_evening_more(held, now, minutes)))
    if any(step.glue == SLOW for step in open_):
        faster = [
            step.but(handle_minutes=FASTER_HANDLE_MINUTES, cure_minutes=FASTER_CURE_MINUTES)
            if step.glue == SLOW
            else step
            for step in steps
        ]
        tries.append(("glue", SLOW, faster, held))
    found = []
    for kind, what, changed, time in tries:
        if stopped():
            break
        tonight = plan_tonight(changed, time, now, minutes, _EACH_S, stopped=stopped)
        found.append(WhatIf(kind, what, tonight.plan))
    return tuple(found)


def _an_evening_more(bench: BenchTime, now: datetime, minutes: int) -> BenchTime:
    """Tomorrow, too, from the same hour."""
    from_ = now + timedelta(days=1)
    made = Evening(
        start=from_.replace(second=0, microsecond=0).isoformat(timespec="minutes"), minutes=minutes
    )
    end = from_ + timedelta(minutes=minutes)
    others = [
        one
        for one in upcoming(bench, now)
        if local_time(one.start) >= end
        or local_time(one.start) + timedelta(minutes=one.minutes) <= from_
    ]
    evenings = sorted((*others, made), key=lambda one: one.start)
    return bench.but(evenings=tuple(evenings))
