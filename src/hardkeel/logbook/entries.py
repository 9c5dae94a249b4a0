"""Log entries, written by the builder or by the app, and sessions at the bench.

Times are ISO text with a zone, as they stand in the file; the clock is always passed in.
"""

from collections.abc import Callable, Iterable, Sequence
from datetime import datetime, timedelta
from typing import Annotated, Final, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator

from hardkeel.base.values import Finite, Text, Value
from hardkeel.survey.model import Verdict
from hardkeel.survey.seat_step import SeatStep

EntryKind = Literal["note", "readings", "verdict", "correction", "change"]
_ONE_SITTING: Final = timedelta(minutes=45)
_SECONDS_PER_HOUR: Final = 3600.0
_MINUTES_PER_HOUR: Final = 60.0


class _Kept(BaseModel):
    model_config = ConfigDict(frozen=True, extra="allow", strict=True)


class VerdictChange(Value):
    """A check that came to another verdict.

    Attributes
    ----------
    error : float
        How far it then was from what it should be: degrees or mm, as the check's kind has it.
    reach : float or None
        That error in mm where it is seen, at the tip or over the chord.
    """

    check: Text
    kind: Text
    body: Text
    was: Verdict
    now: Verdict
    error: Finite
    reach: Finite | None = None


class SeatDone(Value):
    """A seat that was corrected, and what was done at it."""

    body: Text
    steps: tuple[SeatStep, ...] = ()


class StepDone(Value):
    """A step that was done: its own title or the key of ours, and how long the hands were at it where that is known."""

    title: str = ""
    key: str = ""
    about: tuple[str, ...] = ()
    minutes: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None


class Figure(Value):
    """A reading as it was taken: its id, and what it showed, mm or degrees."""

    id: Text
    value: Finite
    unit: Literal["mm", "deg"] = "mm"


class Entry(_Kept):
    """One dated line of the log: ids and figures, worded when it is shown.

    Attributes
    ----------
    at : str
        ISO time.
    by : {"builder", "app"}
    text : str
        The builder's own words; files from before hold the app's sentences here too.
    count : int or None
        For ``readings``: how many were taken in that sitting.
    figures : tuple of Figure
        Those readings as they were taken, whatever became of them later; files from before have none.
    verdict, seat, step
        For ``verdict``, ``correction`` and ``change``: what changed, what was done.
    photos : tuple of str
        Names of images inside the build.
    """

    at: str
    by: Literal["builder", "app"] = "builder"
    kind: EntryKind = "note"
    text: str = ""
    phase: str | None = None
    count: int | None = None
    figures: tuple[Figure, ...] = ()
    verdict: VerdictChange | None = None
    seat: SeatDone | None = None
    step: StepDone | None = None
    photos: tuple[str, ...] = ()

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


def count_reading(
    log: Sequence[Entry], at: datetime, phase: str | None, figure: Figure | None = None
) -> tuple[Entry, ...]:
    """Note that a reading was taken; readings of one sitting share one entry."""
    mine = (figure,) if figure is not None else ()
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
                figures=(*last.figures, *mine),
            )
            return (*log[:-1], changed)
    entry = Entry(at=at.isoformat(), by="app", kind="readings", phase=phase, count=1, figures=mine)
    return (*log, entry)


def measured_again(log: Iterable[Entry], body: str) -> bool:
    """Whether the last thing done at a body's seat was to measure it again, since it was so far out."""
    seats = [entry.seat for entry in log if entry.seat is not None and entry.seat.body == body]
    return bool(seats) and any(step.act == "again" for step in seats[-1].steps)


def with_timed(sessions: Iterable[Session], log: Iterable[Entry]) -> tuple[Session, ...]:
    """The time at the bench by days: what was typed, and what the hands were timed at steps."""
    days = tuple(sessions)
    for entry in log:
        if entry.step is not None and entry.step.minutes:
            days = add_time(days, entry.at[:10], entry.step.minutes / _MINUTES_PER_HOUR)
    return days


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


def matching(
    log: Iterable[Entry],
    words: str,
    kinds: frozenset[str] = frozenset(),
    told: Callable[[Entry], str] = lambda entry: entry.text,
) -> list[Entry]:
    """Entries that hold every word and are of one of the kinds (all kinds if none are given).

    Parameters
    ----------
    told : callable
        What an entry says where it is shown.
    """
    wanted = words.casefold().split()

    def holds(entry: Entry) -> bool:
        text = f"{told(entry)} {entry.at} {entry.phase or ''}".casefold()
        return all(word in text for word in wanted)

    return [entry for entry in log if (not kinds or entry.kind in kinds) and holds(entry)]


def _moment(entry: Entry) -> datetime:
    moment = datetime.fromisoformat(entry.at)
    return moment if moment.tzinfo else moment.astimezone()


def local_day(moment: datetime) -> str:
    """The day of a moment, as sessions name it."""
    return moment.date().isoformat()
