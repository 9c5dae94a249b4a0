"""What the diary says beside the log's own lines."""

import unicodedata
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import decimal
from hardkeel.messages.counting import number_of
from hardkeel.messages.plan import day_words
from hardkeel.schedule.pace import ToGo

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
_NAMED: Final = 8
_ALL_TOLD: Final = ("true", "out")


def dropped_words(missing: Sequence[str]) -> str:
    """What could not be printed, by the characters' own names."""
    names = ", ".join(
        unicodedata.name(one, f"U+{ord(one):04X}").lower() for one in missing[:_NAMED]
    )
    more = f" and {len(missing) - _NAMED} more" if len(missing) > _NAMED else ""
    one = len(missing) == 1
    return (
        f"{number_of(len(missing), 'character')} could not be printed and {'stands' if one else 'stand'} as “?”: "
        f"{names}{more}. The build itself holds {'it' if one else 'them'}."
    )


def day_title(day: str, hours: float) -> str:
    """``Fri 2 Oct 2026, 2.5 h``."""
    moment = datetime.fromisoformat(day)
    told = f"{day_words(moment)} {moment.year}"
    return f"{told}, {decimal(hours, 1)} h" if hours else told


def to_go_words(left: ToGo) -> str:
    """``About 14 h of hands to go, ± 3 h, at your own pace.``; empty where nothing is."""
    if not left.hours:
        return ""
    pace = f"at your own pace ({left.timed} steps timed)" if left.own else "as steps are guessed"
    return f"About {left.hours:.0f} h of hands to go, ± {left.sigma:.0f} h, {pace}."


def total_words(hours: float, left: ToGo) -> str:
    """What was worked and what is left."""
    return f"{decimal(hours, 1)} h at the bench so far. {to_go_words(left)}".strip()


def was_words(figure: str, phase: str) -> str:
    """``was 1.71°``; ``was 1.71° at the dry fit`` where it was read at another time of the build."""
    return f"was {figure}, {phase}" if phase else f"was {figure}"


def found_lines(told: Mapping[str, Sequence[str]]) -> list[str]:
    """What a day's readings told, verdict by verdict; of what is not known yet only how much."""
    return [
        f"{verdict[:1].upper()}{verdict[1:]}: {', '.join(names)}."
        if len(names) <= _NAMED or verdict in _ALL_TOLD
        else f"{verdict[:1].upper()}{verdict[1:]}: {number_of(len(names), 'check')}."
        for verdict, names in told.items()
    ]
