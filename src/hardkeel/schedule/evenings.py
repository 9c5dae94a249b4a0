"""Which evenings come: those in the diary that are not over, then the same week again and again."""

from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime, timedelta
from itertools import islice
from typing import Final

from hardkeel.schedule.model import BenchTime, Evening, local_time

# Where the builder has not said: two evenings in the week and the morning at its end.
USUAL_WEEK: Final = ((1, "19:00", 120), (3, "19:00", 120), (5, "10:00", 180))
AHEAD: Final = 40  # evenings that are planned on
_DATE: Final = len("2026-10-02")


def week_of(bench: BenchTime | None) -> tuple[tuple[int, str, int], ...]:
    """Weekday (Monday is 0), clock time and minutes of each evening of a usual week; single dates make no week."""
    found = {}
    for evening in bench.evenings if bench is not None else ():
        start = local_time(evening.start)
        found[start.weekday()] = (start.weekday(), f"{start:%H:%M}", evening.minutes)
    return tuple(sorted(found.values())) or USUAL_WEEK


def with_week(bench: BenchTime, now: datetime) -> BenchTime:
    """The same with the evenings of a usual week written down, where the diary holds none."""
    if bench.evenings:
        return bench
    return bench.but(evenings=tuple(islice(evenings_of(USUAL_WEEK, now), AHEAD)))


def dated(bench: BenchTime) -> BenchTime:
    """The evenings that stand in the diary, single dates among them."""
    evenings = [*_of_the_week(bench.evenings, bench), *_single(bench)]
    return bench.but(evenings=tuple(sorted(evenings, key=lambda one: one.start)))


def _of_the_week(evenings: Iterable[Evening], bench: BenchTime | None) -> Iterator[Evening]:
    """Those whose date is as any other of the week."""
    days = bench.days if bench is not None else {}
    return (one for one in evenings if one.start[:_DATE] not in days)


def _single(bench: BenchTime | None) -> list[Evening]:
    return [
        one for evenings in (bench.days if bench is not None else {}).values() for one in evenings
    ]


def evenings_of(week: Sequence[tuple[int, str, int]], since: datetime) -> Iterator[Evening]:
    """Evenings like a week's from a moment on (local), without end."""
    day = since.replace(hour=0, minute=0, second=0, microsecond=0)
    while week:
        for weekday, clock, minutes in week:
            if weekday == day.weekday():
                hour, minute = (int(part) for part in clock.split(":"))
                start = day.replace(hour=hour, minute=minute)
                if start >= since:
                    yield Evening(start=start.isoformat(timespec="minutes"), minutes=minutes)
        day += timedelta(days=1)


def upcoming(bench: BenchTime | None, now: datetime, count: int = AHEAD) -> tuple[Evening, ...]:
    """The next evenings, from `now` (local) on; of one that is under way what is left of it."""
    held = bench or BenchTime()
    after = max([now, *(_end(one) for one in held.evenings)])
    week = evenings_of(week_of(bench), after)
    found = [*held.evenings, *islice(week, count + len(held.days))]
    coming = sorted((*_of_the_week(found, bench), *_single(bench)), key=lambda one: one.start)
    there = [_from(max(local_time(one.start), now), _end(one)) for one in coming if _end(one) > now]
    return tuple(there[:count])


def _end(evening: Evening) -> datetime:
    return local_time(evening.start) + timedelta(minutes=evening.minutes)


def with_tonight(evenings: Sequence[Evening], now: datetime, minutes: int) -> tuple[Evening, ...]:
    """The time there is from now on, then the evenings that begin once it is over."""
    end = now + timedelta(minutes=minutes)
    later = [one for one in evenings if local_time(one.start) >= end]
    return (_from(now, end), *later)


def _from(start: datetime, end: datetime) -> Evening:
    whole = start.replace(second=0, microsecond=0)
    minutes = max(1, round((end - whole).total_seconds() / 60))
    return Evening(start=whole.isoformat(timespec="minutes"), minutes=minutes)
