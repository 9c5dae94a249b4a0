"""Log entries, written by the builder or by the app, and sessions at the bench.

Times are ISO text with a zone, as they stand in the file; the clock is always passed in.
"""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Annotated, Final, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator

EntryKind = Literal["note", "readings", "verdict", "correction", "change"]
_ONE_SITTING: Final = timedelta(minutes=45)
_SECONDS_PER_HOUR: Final = 3600.0


class _Kept(BaseModel):
    model_config = ConfigDict(frozen=True, extra="allow", strict=True)


class Entry(_Kept):
    """One dated line of the log.

    Attributes
    ----------
    at : str
        ISO time.
    by : {"builder", "app"}
    count : int or None
        For ``readings``: how many were taken in that sitting.
    """

    at: str
    by: Literal["builder", "app"] = "builder"
    kind: EntryKind = "note"
    text: str
    phase: str | None = None
    count: int | None = None

    @field_validator("at")
    @classmethod
    def _is_iso(cls, text: str) -> str:
        datetime.fromisoformat(text)
        return text


class Session(_Kept):
    """Time at the bench, in hours, on a day."""

    day: Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    hours: Annotated[float, Field(gt=0, le=24, allow_inf_nan=False)]
    note: str | None = None


def add_entry(log: Sequence[Entry], entry: Entry) -> tuple[Entry, ...]:
    """The log with one entry more."""
    return (*log, entry)


def count_reading(log: Sequence[Entry], at: datetime, phase: str | None) -> tuple[Entry, ...]:
    """Note that a reading was taken; readings of one sitting share one entry."""
    if log:
        last = log[-1]
        fresh = at - _moment(last) < _ONE_SITTING
        if last.kind == "readings" and last.phase == phase and fresh:
            count = (last.count or 1) + 1
            changed = Entry(
                at=at.isoformat(),
                by="app",
                kind="readings",
                phase=phase,
                count=count,
                text=f"Took {count} readings",
            )
            return (*log[:-1], changed)
    entry = Entry(
        at=at.isoformat(), by="app", kind="readings", phase=phase, count=1, text="Took a reading"
    )
    return (*log, entry)


def total_hours(sessions: Iterable[Session]) -> float:
    """Hours at the bench altogether."""
    return sum(session.hours for session in sessions)


def add_time(
    sessions: Sequence[Session], day: str, hours: float, note: str | None = None
) -> tuple[Session, ...]:
    """Add hours to a day; a day that is there already grows, up to its 24 hours."""
    for i, session in enumerate(sessions):
        if session.day == day:
            grown = Session(
                day=day, hours=min(24.0, session.hours + hours), note=note or session.note
            )
            return (*sessions[:i], grown, *sessions[i + 1 :])
    return tuple(sorted((*sessions, Session(day=day, hours=hours, note=note)), key=lambda s: s.day))


def matching(log: Iterable[Entry], words: str, kinds: frozenset[str] = frozenset()) -> list[Entry]:
    """Entries that hold every word and are of one of the kinds (all kinds if none are given)."""
    wanted = words.casefold().split()
    return [
        entry
        for entry in log
        if (not kinds or entry.kind in kinds)
        and all(
            word in f"{entry.text} {entry.at} {entry.phase or ''}".casefold() for word in wanted
        )
    ]


def _moment(entry: Entry) -> datetime:
    moment = datetime.fromisoformat(entry.at)
    return moment if moment.tzinfo else moment.astimezone()


def local_day(moment: datetime) -> str:
    """The day of a moment, as sessions name it."""
    return moment.date().isoformat()


def hours_between(start: datetime, end: datetime) -> float:
    """Hours from start to end."""
    return (end - start).total_seconds() / _SECONDS_PER_HOUR
