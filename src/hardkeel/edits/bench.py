"""Pure edits of the time at the bench: evenings, what is scarce, timers, a step begun."""

from collections.abc import Sequence
from datetime import date, datetime

from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import dated, with_week
from hardkeel.schedule.model import BenchTime, Evening, Step, TimerKind
from hardkeel.schedule.tasks import check_evenings
from hardkeel.schedule.timers import gone_off, timer, with_timers
from hardkeel.schedule.what_if import Otherwise, bench_otherwise, steps_otherwise

LONGEST_TIMER_MINUTES = 14 * 24 * 60.0


def _bench(build: Build) -> BenchTime:
    return build.bench or BenchTime()


@edit
def set_evenings(build: Build, evenings: Sequence[Evening]) -> Build:
    """Say when the builder is at the bench.

    Raises
    ------
    BadInput
        When they are out of order or lie in one another.
    """
    bench = _bench(build).but(evenings=tuple(evenings))
    check_evenings(bench)
    return build.but(bench=bench)


@edit
def set_day(build: Build, day: date, evenings: Sequence[Evening] | None, now: datetime) -> Build:
    """Say when the builder is at the bench on a single date: not at all without evenings; ``None``: as in any week.

    Parameters
    ----------
    now : datetime
        Local: the week goes on from there, where the diary does not hold it yet.

    Raises
    ------
    BadInput
        When they are not on that date, are out of order or lie in one another.
    """
    bench = with_week(_bench(build), now)
    days = {one: held for one, held in bench.days.items() if one != day.isoformat()}
    if evenings is not None:
        days[day.isoformat()] = tuple(evenings)
    changed = bench.but(days=dict(sorted(days.items())))
    check_evenings(dated(changed))
    return build.but(bench=changed)


@edit
def set_resource(build: Build, name: str, count: int) -> Build:
    """Say how many boards, jigs, clamps there are.

    Raises
    ------
    BadInput
        When it is no count.
    """
    bench = _bench(build)
    return build.but(bench=bench.but(resources={**bench.resources, name: count}))


@edit
def take_otherwise(
    build: Build, one: Otherwise, steps: Sequence[Step], now: datetime, minutes: int
) -> Build:
    """Take what was wondered about: an evening more, one more of a thing, the faster glue for what is still open.

    Parameters
    ----------
    steps : sequence of Step
        All steps, laid out or not yet: they are laid out where the glue is another.
    now : datetime
        Local.
    """
    changed = steps_otherwise(steps, one)
    bench = bench_otherwise(with_week(_bench(build), now), one, now, minutes)
    if changed != tuple(steps):
        return build.but(steps=changed)
    check_evenings(dated(bench))
    return build.but(bench=bench)


@edit
def start_timer(build: Build, kind: TimerKind, title: str, minutes: float, now: datetime) -> Build:
    """Start a timer of the builder's own, or a pot life.

    Raises
    ------
    BadInput
        When the minutes are no time.
    """
    if not 0 < minutes <= LONGEST_TIMER_MINUTES:
        raise BadInput("timer", f"{minutes:g} minutes is no time to wait")
    bench = _bench(build)
    used = {one.id for one in bench.timers}
    number = 1
    while f"{kind} {number}" in used:
        number += 1
    made = timer(f"{kind} {number}", kind, now, minutes, title=title)
    return build.but(bench=bench.but(timers=with_timers(bench.timers, (made,), now)))


@edit
def set_tool_place(build: Build, tool: str, place: str) -> Build:
    """Write down where a tool lies; nothing written is forgotten."""
    bench = _bench(build)
    places = {name: at for name, at in bench.places.items() if name != tool}
    if place.strip():
        places[tool] = place.strip()
    return build.but(bench=bench.but(places=places))


@edit
def stop_timer(build: Build, name: str) -> Build:
    """Strike a timer out."""
    bench = _bench(build)
    timers = tuple(one for one in bench.timers if one.id != name)
    return build.but(bench=bench.but(timers=timers))


@edit
def told_timers(build: Build, now: datetime) -> Build:
    """What went off until now has been told."""
    bench = _bench(build)
    late = {one.id for one in gone_off(bench.timers, now)}
    if not late:
        return build
    timers = tuple(one.but(told=True) if one.id in late else one for one in bench.timers)
    return build.but(bench=bench.but(timers=timers))
