"""Which evenings come: those in the diary that are not over, then the same week again and again."""

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta
from itertools import islice
from typing import Final

from hardkeel.schedule.model import BenchTime, Evening, local_time

# Where the builder has not said: two evenings in the week and the morning at its end.
USUAL_WEEK: Final = ((1, "19:00", 120), (3, "19:00", 120), (5, "10:00", 180))
AHEAD: Final = 40  # evenings that are planned on


def week_of(bench: BenchTime | None) -> tuple[tuple[int, str, int], ...]:
    """Weekday (Monday is 0), clock time and minutes of each evening of a usual week."""
    if bench is None or not bench.evenings:
        return USUAL_WEEK
    found = {}
    for evening in bench.evenings:
        start = local_time(evening.start)
        found[start.weekday()] = (start.weekday(), f"{start:%H:%M}", evening.minutes)
    return tuple(sorted(found.values()))


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
    found: list[Evening] = []
    after = now
    for evening in bench.evenings if bench is not None else ():
        start = local_time(evening.start)
        end = start + timedelta(minutes=evening.minutes)
        if end > now:
            found.append(_from(max(start, now), end))
            after = end
    found += islice(evenings_of(week_of(bench), after), max(0, count - len(found)))
    return tuple(found[:count])


def with_tonight(evenings: Sequence[Evening], now: datetime, minutes: int) -> tuple[Evening, ...]:
    """The time there is from now on, then the evenings that begin once it is over."""
    end = now + timedelta(minutes=minutes)
    later = [one for one in evenings if local_time(one.start) >= end]
    return (_from(now, end), *later)


def _from(start: datetime, end: datetime) -> Evening:
    whole = start.replace(second=0, microsecond=0)
    minutes = max(1, round((end - whole).total_seconds() / 60))
    return Evening(start=whole.isoformat(timespec="minutes"), minutes=minutes)
