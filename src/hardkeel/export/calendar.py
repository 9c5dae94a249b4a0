"""Plan and timers as iCalendar (RFC 5545): an event an evening with its steps, one for each glue that is through."""

from collections import defaultdict
from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from typing import TYPE_CHECKING, Final

from hardkeel import __version__
from hardkeel.base.late import late
from hardkeel.messages import calendar as say
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.schedule.model import Timer
from hardkeel.schedule.planning import EveningPlan, Planned

if TYPE_CHECKING:
    import icalendar
else:
    icalendar = late("icalendar")

_LOCAL: Final = "%Y%m%dT%H%M%S"


def calendar_text(build: Build, plan: EveningPlan, timers: Iterable[Timer], now: datetime) -> str:
    """The calendar; times of evenings are local without zone (floating), timers carry UTC.

    Parameters
    ----------
    now : datetime
        With its zone: when it was written.
    """
    calendar = icalendar.Calendar()
    calendar.add("version", "2.0")
    calendar.add("prodid", f"-//Hard Keel//{__version__}//EN")
    evenings: dict[int, list[Planned]] = defaultdict(list)
    for one in plan.steps:
        evenings[one.evening].append(one)
    name = build.name or say.UNNAMED
    for number, steps in sorted(evenings.items()):
        start, end = min(one.start for one in steps), max(one.end for one in steps)
        title = say.evening_title(name, len(steps))
        event = _event(f"evening-{number}-{start:{_LOCAL}}", now, start, title)
        event.add("dtend", end)
        told = "\n".join(f"{one.start:%H:%M} {step_title(one.step)}" for one in steps)
        event.add("description", told)
        calendar.add_component(event)
    for timer in timers:
        over, title = _utc(timer.over), say.timer_title(timer)
        event = _event(f"timer-{timer.id}-{over:{_LOCAL}}Z", now, over, title)
        alarm = icalendar.Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", title)
        alarm.add("trigger", timedelta(0))
        event.add_component(alarm)
        calendar.add_component(event)
    text: bytes = calendar.to_ical(sorted=False)
    return text.decode("utf-8")


def _event(uid: str, now: datetime, start: datetime, title: str) -> "icalendar.Event":
    event = icalendar.Event()
    event.add("uid", f"{uid.replace(' ', '-')}@hardkeel")
    event.add("dtstamp", _utc(now))
    event.add("dtstart", start)
    event.add("summary", title)
    return event


def _utc(moment: datetime) -> datetime:
    aware = moment.astimezone() if moment.tzinfo is None else moment
    return datetime.fromtimestamp(aware.timestamp(), tz=UTC).replace(microsecond=0)
