"""What a calendar says of the bench."""

from typing import Final

from hardkeel.messages.bench import TIMER_ENDS
from hardkeel.messages.steps import title_of
from hardkeel.schedule.model import Timer

UNNAMED: Final = "The model"
WRITE: Final = "Write the calendar…"
WHERE: Final = "Where shall the calendar go?"
FILES: Final = "iCalendar (*.ics)"


def evening_title(name: str, count: int) -> str:
    """``Kettlewick 1280: 4 steps``."""
    return f"{name}: 1 step" if count == 1 else f"{name}: {count} steps"


def timer_title(timer: Timer) -> str:
    """What goes off."""
    return f"{title_of(timer) or timer.id}: {TIMER_ENDS[timer.kind]}"


def written(name: str) -> str:
    """``The calendar is in ….``."""
    return f"The calendar is in {name}."


def not_written(fault: object) -> str:
    """``No calendar: ….``."""
    return f"No calendar: {fault}."
