"""The bench in words: tonight, what runs, what must wait and why, the weeks to come."""

import math
from collections.abc import Mapping, Sequence
from datetime import date, datetime, timedelta
from types import MappingProxyType
from typing import Final

from hardkeel.airframe.orders.craft import cautions_of, jig_of, tools_of
from hardkeel.messages.names import sentence_case
from hardkeel.messages.plan import clock_words, day_words, finish_words, minutes_words, proof_words
from hardkeel.messages.safety import GLUE_CAUTION
from hardkeel.messages.steps import hold_of, instead_of, step_title, title_of, why_not
from hardkeel.schedule.model import Evening, Step, Timer, local_time
from hardkeel.schedule.ordering import Standing
from hardkeel.schedule.planning import EveningPlan, Planned
from hardkeel.schedule.tonight import Tonight
from hardkeel.schedule.what_if import WhatIf

TONIGHT: Final = "Tonight"
NOWHERE: Final[Mapping[str, str]] = MappingProxyType({})
WHICH_TOOL: Final = "a tool…"
WHERE_IT_LIES: Final = "where it lies"
PLACE_EDIT: Final = "say where a tool lies"
EVENINGS: Final = "Evenings"
I_HAVE: Final = "I have"
RUNNING: Final = "Glue running"
NOT_YET: Final = "Not yet"
LAY_OUT: Final = "Lay out, and look that it is dry"
NOW: Final = "Now"
BEGIN: Final = "Begin (Enter)"
DONE: Final = "Done (Enter)"
ALL_RIGHT: Final = "All right"
STOP_LOOKING: Final = "leave it at that"
LOOKING: Final = "looking for a sooner one…"
NOTHING_TONIGHT: Final = "Nothing can be begun tonight"
NOTHING_TO_DO: Final = "All steps are done"
NO_MODEL: Final = "Describe the model, and its steps follow"
NO_STEPS: Final = "There are no steps yet: lay out a fuselage or a tail, and they follow from it."
ARMS_LENGTH: Final = "arm's length (F11)"
ARMS_KEYS: Final = (
    "Space or Enter: done, next     Backspace: undo     R: say it again     Esc: back to the bench"
)
ARMS_KEYS_READING: Final = (
    "Figures: what it reads     Space or Enter: taken, next     Backspace: undo     "
    "R: say it again     Esc: back to the drawing"
)
NOT_NEEDED: Final = "not needed"
NOT_NEEDED_TIP: Final = "Strike out the timer that ends first"
NO_TIMER: Final = "no glue is running"
OWN_TIMER: Final = "egg timer, minutes"
START: Final = "start"
STRIP_KEY: Final = (
    "filled: hands busy     green: glue at work     a frame alone: an evening not needed"
)
_MINUTE_S: Final = 60
_SECONDS_COUNT_S: Final = 600  # from ten minutes down they are told
_DAYS: Final = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
DAY_NAMES: Final = _DAYS
NO_DAY: Final = "One day in the week at least: there is no plan without an evening."
OWN_TITLE: Final = "egg timer"
DAY_LETTERS: Final = ("Mo", "Tu", "We", "Th", "Fr", "Sa", "Su")
TIMER_ENDS: Final = {
    "pot": "the glue is past working",
    "handle": "may be handled",
    "cure": "is through",
    "look": "look again and wipe what has oozed out while it is soft",
    "own": "is up",
}
_TIMER_WAITS: Final = {
    "pot": "until the glue is past working",
    "handle": "until it may be handled",
    "cure": "until it is through",
    "look": "until you look at it again",
    "own": "to go",
}


def tonight_title(start: datetime, minutes: int) -> str:
    """``Friday until 21:00, two hours``."""
    hours = {60: "one hour", 120: "two hours", 180: "three hours", 240: "four hours"}
    day = _DAYS[start.weekday()]
    if minutes <= 0:
        return f"{day}: the time is over"
    end = clock_words(start + timedelta(minutes=minutes))
    return f"{day} until {end}, {hours.get(minutes, minutes_words(minutes))}"


def tonight_line(tonight: Tonight) -> str:
    """What matters about the evening's order."""
    glue = tonight.last_glue
    if glue is None:
        return "No glue tonight: nothing has to lie still afterwards."
    title = _plain(glue.step)
    at, latest = (
        clock_words(glue.start),
        clock_words(tonight.end - (glue.end - glue.start)),
    )
    told = (
        f"The last glue at {at} and no later: {title}"
        if at == latest
        else f"The last glue at {at}, by {latest} at the latest: {title}"
    )
    if glue.handle.date() != glue.start.date():
        told += "; it must lie still until morning"
    return f"{told}."


def _plain(step: Step) -> str:
    title = step_title(step)
    return title[:1].lower() + title[1:]


def step_under(one: Planned) -> str:
    """What stands beneath a step of the evening."""
    told = []
    if hold := hold_of(one.step):
        told.append(hold)
    if one.step.glue:
        told.append(
            f"{one.step.glue}: firm after {minutes_words((one.handle - one.end).total_seconds() / 60)}"
        )
    elif one.cure > one.end:
        told.append(f"lies {minutes_words((one.cure - one.end).total_seconds() / 60)}")
    if instead := instead_of(jig_of(one.step)):
        told.append(f"four hands, or {instead}")
    if one.step.needs:
        told.append(f"takes the {' and the '.join(dict.fromkeys(one.step.needs))}")
    return sentence_case("; ".join(told))


def large_under(one: Planned, *, doing: bool) -> str:
    """What stands under a step that is read from two metres."""
    minutes = minutes_words((one.end - one.start).total_seconds() / 60)
    told = f"Begun: {minutes}" if doing else f"Takes {minutes}"
    return f"{told}. {step_under(one)}" if step_under(one) else f"{told}."


def weeks_title(plan: EveningPlan) -> str:
    """``To the end of the list: six evenings, …``."""
    return finish_words(plan).removesuffix(".")


def weeks_proof(plan: EveningPlan, *, looking: bool) -> str:
    """How sure that is."""
    return LOOKING if looking and not plan.proven else proof_words(plan)


def blocked_lines(standing: Standing, count: int = 3) -> list[str]:
    """What must not be done yet, and why."""
    return [
        f"{sentence_case(_plain(step))}: {why_not(step, waits)}."
        for step, waits in standing.blocked[:count]
    ]


def at_another(step: Step, doing: Step) -> str:
    """Asked once where a step is begun while the hands are at another."""
    return (
        f"You are at another: {_plain(doing)}. Press again to begin with {_plain(step)} beside it."
    )


def begun_word(one: Planned) -> str:
    """``begun at 20:12``."""
    return f"begun at {clock_words(one.start)}"


def lies_under(one: Planned) -> str:
    """``Done; lies until 22:10``."""
    late = one.handle.date() != one.end.date()
    day = f"{day_words(one.handle)} " if late else ""
    return f"Done; lies until {day}{clock_words(one.handle)}"


def too_early(step: Step, waits: tuple[Step, ...]) -> str:
    """Asked once where a step is begun before its turn."""
    return (
        f"Not yet: {why_not(step, waits)}. Press again to begin with {_plain(step)} all the same."
    )


def tools_tonight(tonight: Tonight) -> tuple[str, ...]:
    """What to lay out for the evening, in the order in which it is wanted."""
    return tuple(dict.fromkeys(name for one in tonight.steps for name in tools_of(one.step)))


def lay_out_lines(
    tonight: Tonight, steps: Sequence[Step], now: datetime, places: Mapping[str, str] = NOWHERE
) -> list[str]:
    """What to have at hand before it begins, where it lies, and what must be dry."""
    glues = dict.fromkeys(one.step.glue for one in tonight.steps if one.step.glue)
    needs = dict.fromkeys(name for one in tonight.steps for name in one.step.needs)
    lines = []
    if needs:
        lines.append(f"At hand: {', '.join(needs)}.")
    if glues:
        caution = f" {GLUE_CAUTION}" if any("epoxy" in glue for glue in glues) else ""
        lines.append(f"Glue: {', '.join(glues)}.{caution}")
    by_id = {step.id: step for step in steps}
    for one in tonight.steps:
        waits = [
            by_id[name]
            for name in one.step.after
            if name in by_id and by_id[name].state == "doing" and one.start > now
        ]
        lines += [f"Dry before {_plain(one.step)}: {_plain(before)}." for before in waits]
    tools = [
        f"{name} ({places[name]})" if name in places else name for name in tools_tonight(tonight)
    ]
    if tools:
        lines.insert(0, f"Tools: {', '.join(tools)}.")
    hazards = dict.fromkeys(name for one in tonight.steps for name in cautions_of(one.step))
    if hazards:
        lines.append(f"Mind: {', '.join(hazards)}.")
    return lines


def countdown(left: timedelta) -> str:
    """``45 s``, ``9 min 40 s``, ``20 min``, ``2 h 05``, ``1 day 3 h``: never like a time of day."""
    seconds = max(0, int(left.total_seconds()))
    if seconds < _MINUTE_S:
        return f"{seconds} s"
    if seconds < _SECONDS_COUNT_S:
        return f"{seconds // 60} min {seconds % 60:02d} s"
    if seconds < 3600:  # noqa: PLR2004  an hour
        return f"{math.ceil(seconds / 60)} min"
    minutes = seconds // 60
    days, rest = divmod(minutes, 24 * 60)
    if days:
        return f"{'1 day' if days == 1 else f'{days} days'} {rest // 60} h"
    return f"{minutes // 60} h {minutes % 60:02d}"


def waits_for(timer: Timer) -> str:
    """What a timer that runs is for."""
    name = title_of(timer)[:1].lower() + title_of(timer)[1:]
    return f"{_TIMER_WAITS[timer.kind]}: {name}" if name else _TIMER_WAITS[timer.kind]


def then_line(timer: Timer, now: datetime) -> str:
    """``at 21:10  tail post may be handled``."""
    over = local_time(timer.ends)
    here = local_time(now.isoformat())
    when = (
        f"at {clock_words(over)}"
        if over.date() == here.date()
        else f"{day_words(over)} {clock_words(over)}"
    )
    return f"{when}  {title_of(timer) or timer.id}: {TIMER_ENDS[timer.kind]}"


def went_off(timer: Timer) -> str:
    """What a timer that went off says."""
    over = local_time(timer.ends)
    return f"{day_words(over)} {clock_words(over)}: {title_of(timer) or timer.id} {TIMER_ENDS[timer.kind]}"


def begin_edit(step: Step) -> str:
    """The step's name for undo."""
    return f"begin: {_plain(step)}"


def done_edit(step: Step) -> str:
    """The step's name for undo."""
    return f"done: {_plain(step)}"


TOLD_EDIT: Final = "timers told"
EVENINGS_EDIT: Final = "other evenings"
STRIKE_EDIT: Final = "strike out a timer"
TIMER_EDIT: Final = "start a timer"


def resource_edit(name: str) -> str:
    """The step's name for undo."""
    return one_more(name)


def one_more(what: str) -> str:
    """``another board``, ``more clamps``."""
    return f"more {what}" if what.endswith("s") else f"another {what}"


def date_words(day: date, evenings: Sequence[Evening]) -> str:
    """``Sat 5 Dec 10:00, 4 h``; ``Thu 24 Dec: not at the bench``."""
    if not evenings:
        return f"{day_words(datetime(day.year, day.month, day.day))}: {AWAY}"  # noqa: DTZ001  a day
    return "; ".join(evening_words(one) for one in evenings)


def evening_words(evening: Evening) -> str:
    """``Fri 2 Oct 19:00, 2 h``."""
    start = local_time(evening.start)
    return f"{day_words(start)} {clock_words(start)}, {minutes_words(evening.minutes)}"


def what_if_line(what: str, was: EveningPlan, would: EveningPlan) -> str:
    """``Another board would save a day: done Sat 3 Oct.``."""
    if was.finish is None or would.finish is None:
        return ""
    sooner = (was.finish - would.finish).total_seconds() / 60
    if sooner <= 0:
        return f"{what} would save nothing."
    days = (was.finish.date() - would.finish.date()).days
    told = f"{days} days" if days > 1 else "a day" if days == 1 else minutes_words(sooner)
    return f"{what} would save {told}: done {day_words(would.finish)}."


_WHAT: Final = {
    "evening": "An evening tomorrow",
    "glue": "A 30-minute epoxy instead of the slow one",
}


def otherwise_words(kind: str, what: str) -> str:
    """What stands on a chip."""
    return {"resource": one_more(what), "evening": "another evening"}.get(kind, "a faster glue")


OTHERWISE: Final = "What if there were"
OTHERWISE_TIP: Final = (
    "Drag it over the evenings: the finish moves with it; let it fall there to take it. "
    "Or press once to see, twice to take."
)


def otherwise_edit(kind: str, what: str) -> str:
    """The step's name for undo."""
    return otherwise_words(kind, what)


def _what_if(one: WhatIf) -> str:
    return _WHAT.get(one.kind, sentence_case(one_more(one.what)))


def wonder_line(day: date | None, was: EveningPlan, one: WhatIf) -> str:
    """What it would do to the finish, while it hangs over the evenings."""
    words = _what_if(one)
    if one.kind == "evening" and day is not None:
        words = f"An evening on {day_words(datetime.combine(day, datetime.min.time()))}"
    return what_if_line(words, was, one.plan)


def what_if_lines(was: EveningPlan, found: Sequence[WhatIf]) -> list[str]:
    """What would help, the soonest finish first."""
    told = [
        (one.plan.finish, what_if_line(_what_if(one), was, one.plan))
        for one in found
        if one.plan.finish is not None
    ]
    return [line for _, line in sorted(told) if line]


WEEK: Final = "A usual week"
SCARCE: Final = "What there is of"
WEEK_HOW: Final = (
    "Tick the days on which you are at the bench; the plan goes on with the same week."
)
SINGLE_DATE: Final = "A single date"
SINGLE_HOW: Final = "A holiday, or a free Saturday: that date alone is other than its week."
AWAY: Final = "not at the bench"
AT_THE_BENCH: Final = "at the bench"
AS_ANY: Final = "as any week"
SINGLE_EDIT: Final = "a single date"
FROM_CLOCK: Final = "from"
FOR_MINUTES: Final = "minutes"
ONE_PAIR: Final = "one pair of hands"
