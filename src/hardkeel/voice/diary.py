"""What the diary says beside the log's own lines."""

from datetime import datetime
from typing import Final

from hardkeel.schedule.pace import ToGo
from hardkeel.voice.plan import day_words

DIARY: Final = "build diary"
UNNAMED: Final = "Unnamed build"
BEFORE_AND_AFTER: Final = "Before and after the glue"
CHECK: Final = "Check"
NOT_KNOWN: Final = "not known"
WEIGHTS: Final = "Weights against the estimate"
PART: Final = "Part"
ESTIMATED: Final = "Estimated"
WEIGHED: Final = "Weighed"
DIFFERENCE: Final = "Difference"
GLUE: Final = "Glue and coupons"


def day_title(day: str, hours: float) -> str:
    """``Fri 2 Oct 2026, 2.5 h``."""
    moment = datetime.fromisoformat(day)
    told = f"{day_words(moment)} {moment.year}"
    return f"{told}, {hours:.1f} h" if hours else told


def to_go_words(left: ToGo) -> str:
    """``About 14 h of hands to go, ± 3 h, at your own pace.``; empty where nothing is."""
    if not left.hours:
        return ""
    pace = f"at your own pace ({left.timed} steps timed)" if left.own else "as steps are guessed"
    return f"About {left.hours:.0f} h of hands to go, ± {left.sigma:.0f} h, {pace}."


def total_words(hours: float, left: ToGo) -> str:
    """What was worked and what is left."""
    return f"{hours:.1f} h at the bench so far. {to_go_words(left)}".strip()
