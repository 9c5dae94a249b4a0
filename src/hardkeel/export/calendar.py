"""Plan and timers as iCalendar (RFC 5545): an event an evening with its steps, one for each glue that is through."""

from collections import defaultdict
from collections.abc import Iterable
from datetime import UTC as _UTC
from datetime import datetime
from typing import Final

from hardkeel import __version__
from hardkeel.messages import calendar as say
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.schedule.model import Timer
from hardkeel.schedule.planning import EveningPlan, Planned

_LINE: Final = 75  # octets, by the RFC
_LOCAL: Final = "%Y%m%dT%H%M%S"


def calendar_text(build: Build, plan: EveningPlan, timers: Iterable[Timer], now: datetime) -> str:
    """The calendar; times of evenings are local without zone (floating), timers carry UTC.

    Parameters
    ----------
    now : datetime
        With its zone: when it was written.
    """
    stamp = _utc(now)
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", f"PRODID:-//Hard Keel//{__version__}//EN"]
    evenings: dict[int, list[Planned]] = defaultdict(list)
    for one in plan.steps:
        evenings[one.evening].append(one)
    name = build.name or say.UNNAMED
    for number, steps in sorted(evenings.items()):
        start, end = min(one.start for one in steps), max(one.end for one in steps)
        told = "\n".join(f"{one.start:%H:%M} {step_title(one.step)}" for one in steps)
        lines += _event(
            f"evening-{number}-{start:{_LOCAL}}",
            stamp,
            (f"DTSTART:{start:{_LOCAL}}", f"DTEND:{end:{_LOCAL}}"),
            say.evening_title(name, len(steps)),
            told,
        )
    for timer in timers:
        over = _utc(timer.over)
        lines += _event(
            f"timer-{timer.id}-{over}",
            stamp,
            (f"DTSTART:{over}",),
            say.timer_title(timer),
            "",
            alarm=True,
        )
    lines.append("END:VCALENDAR")
    return "".join(_folded(line) + "\r\n" for line in lines)


def _event(
    uid: str, stamp: str, times: tuple[str, ...], title: str, told: str, *, alarm: bool = False
) -> list[str]:
    lines = [
        "BEGIN:VEVENT",
        f"UID:{uid.replace(' ', '-')}@hardkeel",
        f"DTSTAMP:{stamp}",
        *times,
        f"SUMMARY:{_escaped(title)}",
    ]
    if told:
        lines.append(f"DESCRIPTION:{_escaped(told)}")
    if alarm:
        lines += [
            "BEGIN:VALARM",
            "ACTION:DISPLAY",
            f"DESCRIPTION:{_escaped(title)}",
            "TRIGGER:PT0S",
            "END:VALARM",
        ]
    return [*lines, "END:VEVENT"]


def _utc(moment: datetime) -> str:
    from_utc = moment.astimezone() if moment.tzinfo is None else moment
    return f"{datetime.fromtimestamp(from_utc.timestamp(), tz=_UTC):{_LOCAL}}Z"


def _escaped(text: str) -> str:
    """Text by the RFC: backslash, semicolon, comma and newline."""
    for plain, written in (("\\", "\\\\"), (";", "\\;"), (",", "\\,"), ("\n", "\\n")):
        text = text.replace(plain, written)
    return text


def _folded(line: str) -> str:
    """No line is longer than 75 octets, and none is cut within a letter."""
    parts: list[str] = []
    part = ""
    for letter in line:
        if len((part + letter).encode()) > (_LINE if not parts else _LINE - 1):
            parts.append(part)
            part = ""
        part += letter
    return "\r\n ".join((*parts, part))
