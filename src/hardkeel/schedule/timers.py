"""What runs while the hands are off: pot lives, handling, cures.

Times carry their zone, so that a night with a clock change in it is as long as it is.
"""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta, timezone
from typing import Final

from hardkeel.schedule.model import Step, Timer, TimerKind

_KEPT: Final = timedelta(days=14)  # how long one that went off is remembered


def timer(
    name: str,
    kind: TimerKind,
    at: datetime,
    minutes: float,
    *,
    step: Step | None = None,
    title: str = "",
) -> Timer:
    """A timer that begins now; a time without a zone is the wall's."""
    at = at if at.tzinfo is not None else at.astimezone()
    at = at.astimezone(
        timezone(at.utcoffset() or timedelta())
    )  # minutes, not what a changed clock shows
    ends = at + timedelta(minutes=minutes)
    return Timer(
        id=name,
        step=step.id if step is not None else "",
        kind=kind,
        title=step.title if step is not None else title,
        key=step.key if step is not None else "",
        about=step.about if step is not None else (),
        started=at.isoformat(timespec="seconds"),
        ends=ends.isoformat(timespec="seconds"),
    )


def timers_of(step: Step, at: datetime) -> tuple[Timer, ...]:
    """Those that begin when the hands leave a step; a cure that is no longer than the handling is one with it."""
    found = []
    if step.handle_minutes:
        found.append(timer(f"{step.id} handle", "handle", at, step.handle_minutes, step=step))
    if step.cure_minutes > step.handle_minutes:
        found.append(timer(f"{step.id} cure", "cure", at, step.cure_minutes, step=step))
    return tuple(found)


def running(timers: Iterable[Timer], now: datetime) -> tuple[Timer, ...]:
    """Those that still run, the next to go off first."""
    return tuple(sorted((one for one in timers if one.over > now), key=lambda one: one.over))


def gone_off(timers: Iterable[Timer], now: datetime) -> tuple[Timer, ...]:
    """Those that went off and were not told, in the order in which they did."""
    late = (one for one in timers if one.over <= now and not one.told)
    return tuple(sorted(late, key=lambda one: one.over))


def with_timers(timers: Sequence[Timer], more: Sequence[Timer], now: datetime) -> tuple[Timer, ...]:
    """These and more; one with the same id gives way, and so does what went off long ago."""
    now = now if now.tzinfo is not None else now.astimezone()
    ids = {one.id for one in more}
    kept = (one for one in timers if one.id not in ids and one.over > now - _KEPT)
    return (*kept, *more)


def underway(steps: Sequence[Step], timers: Sequence[Timer]) -> tuple[Step, ...]:
    """The steps as a plan wants them: one that was done and may still cure is under way since its hands began."""
    begun = {one.step: datetime.fromisoformat(one.started) for one in timers if one.step}
    return tuple(
        step.but(
            state="doing",
            started=(begun[step.id] - timedelta(minutes=step.hands_minutes)).isoformat(
                timespec="minutes"
            ),
        )
        if step.state == "done" and step.id in begun
        else step
        for step in steps
    )
