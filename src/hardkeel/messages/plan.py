"""The plan of evenings in words: when what is done, what can't be, how sure the finish is."""

from datetime import datetime
from typing import Final

from hardkeel.messages.steps import step_title
from hardkeel.schedule.planning import EveningPlan, Planned
from hardkeel.schedule.tasks import Impossible

NOTHING: Final = "Nothing is to do."
LEFT_TO_DO: Final = "Left to do"
CAN_NOT: Final = "Not to be planned:"
MOST_OF_A_DAY: Final = 24 * 60
_DAYS: Final = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


def day_words(moment: datetime) -> str:
    """``Fri 2 Oct``."""
    return f"{_DAYS[moment.weekday()]} {moment.day} {_MONTHS[moment.month - 1]}"


_MONTHS: Final = (
    "Jan",
    "Feb",
    "Mar",
    "Apr",
    "May",
    "Jun",
    "Jul",
    "Aug",
    "Sep",
    "Oct",
    "Nov",
    "Dec",
)


def clock_words(moment: datetime) -> str:
    """``19:05``."""
    return f"{moment:%H:%M}"


def minutes_words(minutes: float) -> str:
    """``25 min``, ``1 h 10``, ``2 h``, ``1 day``."""
    whole = round(minutes)
    if whole < 60:  # noqa: PLR2004  an hour
        return f"{whole} min"
    hours, rest = divmod(whole, 60)
    if whole >= MOST_OF_A_DAY and not rest and not hours % 24:
        days = hours // 24
        return "1 day" if days == 1 else f"{days} days"
    return f"{hours} h" if not rest else f"{hours} h {rest:02d}"


def why_words(one: Impossible) -> str:
    """Why a step can't be planned."""
    match one.why:
        case "long":
            return f"its hands want {minutes_words(one.wanted)}, the longest evening has {minutes_words(one.there)}"
        case "scarce":
            return f"it wants {one.wanted} of {one.what}, there is {one.there}"
        case "follows":
            return f"it follows {one.what}"
        case _:
            return "no evening that is left is long enough for it"


def finish_words(plan: EveningPlan) -> str:
    """The answer in a line."""
    if plan.finish is None:
        return NOTHING
    evenings = "1 evening" if plan.evenings_used == 1 else f"{plan.evenings_used} evenings"
    told = f"Done {day_words(plan.finish)} at {clock_words(plan.finish)}, in {evenings}"
    if plan.more_evenings:
        more = "1 more" if plan.more_evenings == 1 else f"{plan.more_evenings} more"
        told += f", {more} than are in the diary"
    return f"{told}."


def proof_words(plan: EveningPlan) -> str:
    """How sure it is that it can't be sooner."""
    if plan.finish is None:
        return ""
    if plan.proven:
        return "No plan is sooner, none takes fewer evenings."
    if plan.soonest is not None and plan.soonest >= plan.finish:
        return "No plan is sooner; one with fewer evenings was not ruled out."
    if plan.soonest is not None:
        return f"Not before {day_words(plan.soonest)} at {clock_words(plan.soonest)}, whatever the plan."
    return ""


def planned_line(one: Planned) -> str:
    """``19:00 to 19:25  Glue formers …; may be handled 19:45, through Sat 3 Oct 07:25``."""
    told = f"{clock_words(one.start)} to {clock_words(one.end)}  {step_title(one.step)}"
    after = []
    if one.handle > one.end:
        after.append(f"firm {_when(one.handle, one.start)}")
    if one.cure > one.handle:
        after.append(f"through {_when(one.cure, one.start)}")
    return f"{told}; {', '.join(after)}" if after else told


def _when(moment: datetime, beside: datetime) -> str:
    if moment.date() == beside.date():
        return clock_words(moment)
    return f"{day_words(moment)} {clock_words(moment)}"
