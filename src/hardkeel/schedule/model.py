"""A step of work and the evenings there are, as the file holds them: minutes, and ids of what comes before."""

from datetime import date, datetime, timedelta
from typing import Annotated, Final, Literal

from pydantic import Field, field_validator

from hardkeel.base.values import Text, Value

OWN: Final = "own"  # the stage of steps that the builder adds
# figures of a step that the builder may set, and that stay when the order is laid anew
BY_HAND: Final = frozenset(
    {
        "hands_minutes", "glue", "handle_minutes", "cure_minutes", "hold", "hazards", "needs", "no_return",
        "needs_cure", "tools", "wait_until", "wait_for",
    }
)  # fmt: skip
StepState = Literal["open", "doing", "done"]
Minutes = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


class Worded(Value):
    """What has words of the builder's own, or a key by which ours are found when they are shown.

    Attributes
    ----------
    title : str
        The builder's own words; empty where `key` says it.
    key : str
        Which of our sentences: ``frame.doublers``.
    about : tuple of str
        Ids that the sentence names, in their order.
    """

    title: str = ""
    key: str = ""
    about: tuple[str, ...] = ()


class Step(Worded):
    """One step.

    Attributes
    ----------
    after : tuple of str
        May not start before these are done.
    handle_minutes, cure_minutes : float
        After the hands are off: until it can be handled, and until it is through.
    needs : tuple of str
        What it occupies until it may be moved; twice named, two of it.
    holds_until : str
        Until when: it can be handled, or it is cured.
    hold : str
        What must be seen or read before the glue, in the builder's own words.
    looks : bool
        Something must be seen or read before it; what, follows from the key.
    no_return : bool
        Can't be undone afterwards.
    because, why : str
        The reason in the builder's own words; ours by its key, where the step's own key does not say it.
    needs_cure : bool
        The steps before must be cured, not only firm.
    took : float, optional
        Minutes that the hands were at it; our own addition to the file.
    note : str
        What the builder wants to remember of it; our own addition.
    tools : tuple of str
        What is to be laid out for it, where the builder says so; our own addition.
    wait_until, wait_for : str
        A date (ISO) before which it can't begin, and what it waits for: a part on order.  Our own additions.
    by_hand : tuple of str
        Which of its figures the builder has set: an order that is laid anew leaves them. Our own addition.
    """

    id: Text
    stage: str = ""
    parts: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    hands_minutes: Minutes = 0.0
    glue: str | None = None
    handle_minutes: Minutes = 0.0
    cure_minutes: Minutes = 0.0
    needs: tuple[str, ...] = ()
    holds_until: Literal["handle", "cure"] = "handle"
    hold: str = ""
    looks: bool = False
    no_return: bool = False
    because: str = ""
    why: str = ""
    hazards: tuple[str, ...] = ()
    state: StepState = "open"
    needs_cure: bool = False
    started: str | None = None
    took: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None
    note: str = ""
    tools: tuple[str, ...] = ()
    wait_until: str | None = None
    wait_for: str = ""
    by_hand: tuple[str, ...] = ()

    @field_validator("wait_until")
    @classmethod
    def _is_a_date(cls, text: str | None) -> str | None:
        if text:
            try:
                date.fromisoformat(text)
            except ValueError:
                raise ValueError("must be a date such as 2026-10-02") from None
        return text or None

    def waits_on(self, today: date) -> bool:
        """Whether what it waits for is not there yet."""
        return self.wait_until is not None and date.fromisoformat(self.wait_until) > today

    def as_it_was(self, was: "Step | None") -> "Step":
        """With what was done of it when it was laid before, and with what the builder has set of it."""
        if was is None:
            return self
        own = {name: getattr(was, name) for name in was.by_hand if name in BY_HAND}
        kept = {"state": was.state, "started": was.started, "took": was.took, "note": was.note}
        return self.but(**kept, **own, by_hand=was.by_hand)


def local_time(text: str) -> datetime:
    """A time on the wall of the shed: no zone, whole minutes; what a file says finer or elsewhere is put in these.

    Raises
    ------
    ValueError
        When it is no ISO time.
    """
    moment = datetime.fromisoformat(text)
    if moment.tzinfo is not None:
        moment = moment.astimezone().replace(tzinfo=None)
    return moment.replace(second=0, microsecond=0)


class Evening(Value):
    """A time at the bench: when it begins (local, whole minutes) and how long it is."""

    start: str
    minutes: Annotated[int, Field(gt=0, le=24 * 60)]

    @field_validator("start")
    @classmethod
    def _is_local(cls, text: str) -> str:
        moment = datetime.fromisoformat(text)
        if moment.tzinfo is not None or moment.second or moment.microsecond:
            raise ValueError("must be a local time in whole minutes, such as 2026-10-02T19:00")
        return text


TimerKind = Literal["pot", "handle", "cure", "look", "own"]


class Timer(Worded):
    """One timer.

    Attributes
    ----------
    step : str
        Id of the step that it belongs to; empty for one of the builder's own.
    started, ends : str
        ISO times with their zone.
    told : bool
        It went off and the builder was told.
    """

    id: Text
    step: str = ""
    kind: TimerKind = "own"
    started: str
    ends: str
    told: bool = False

    @field_validator("started", "ends")
    @classmethod
    def _has_its_zone(cls, text: str) -> str:
        if datetime.fromisoformat(text).tzinfo is None:
            raise ValueError("must be a time with its zone")
        return text

    @property
    def over(self) -> datetime:
        """When it goes off."""
        return datetime.fromisoformat(self.ends)

    def left(self, now: datetime) -> timedelta:
        """How long it still runs; less than nothing afterwards."""
        return self.over - now


class BenchTime(Value):
    """When the builder is at the bench, and how much there is of what is scarce; 1 of what is not named.

    Attributes
    ----------
    timers : tuple of Timer
        What runs, and what went off of late; our own addition to the file.
    days : mapping of str to tuple of Evening
        Single dates (ISO) that are other than the week: none is a day away from the bench.  Our own addition too.
    places : mapping of str to str
        Where tools lie, by their names.  Our own addition too.
    """

    evenings: tuple[Evening, ...] = ()
    resources: dict[str, Annotated[int, Field(ge=0, le=1000)]] = Field(default_factory=dict)
    timers: tuple[Timer, ...] = ()
    days: dict[str, tuple[Evening, ...]] = Field(default_factory=dict)
    places: dict[str, str] = Field(default_factory=dict)

    @field_validator("days")
    @classmethod
    def _are_on_their_date(
        cls, days: dict[str, tuple[Evening, ...]]
    ) -> dict[str, tuple[Evening, ...]]:
        for day, evenings in days.items():
            date.fromisoformat(day)
            for evening in evenings:
                if not evening.start.startswith(day):
                    raise ValueError(f"{evening.start} is not on {day}")
        return days
