"""What stands in the record and on the rigging card, and what is said while all of it is written."""

from collections.abc import Sequence
from typing import Final

from hardkeel.messages.counting import number_of

THE_RECORD: Final = "the record"
THE_DIARY: Final = "the diary"
THE_LISTS: Final = "lists, the rigging sheet and the rigging card"
THE_TEMPLATES: Final = "the templates"
THE_TAIL: Final = "the tail's templates"
THE_PLAN: Final = "the building plan"
ALL_OF_IT: Final = "all of it to the folder"
UNNAMED: Final = "Unnamed build"
RIGGING_CARD: Final = "rigging card"
ALL_PHASES: Final = "all phases"
NOT_READ: Final = "not known"
CARD_COLUMNS: Final = ("Check", "Wanted", "Allowed", "Reached", "")
TOGETHER: Final = "Together"
ROUND: Final = "In the round"
VIEWS: Final = "From above; from behind; from port. Dashed: as drawn. Solid: as it stands, error shown × {:.0f}. Thick: out of true."


def card_line(phase: str, day: str, readings: int) -> str:
    """``dry fit, 34 readings, the last on 2026-10-03``."""
    told = [phase, number_of(readings, "reading")]
    if day:
        told.append(f"the last on {day}")
    return ", ".join(told)


def tools_line(tools: Sequence[tuple[str, int]]) -> str:
    """``Read with tape (12), incidence gauge (8).``; empty where nothing was read."""
    if not tools:
        return ""
    return f"Read with {', '.join(f'{name} ({count})' for name, count in tools)}."


def fits_line(readings: int, aside: int) -> str:
    """How the readings fit, where nothing worse is to be said."""
    if not readings:
        return ""
    if not aside:
        return f"All {readings} readings fit each other as their tools promise."
    return f"{number_of(readings - aside, 'reading')} of {readings} fit each other as their tools promise; {aside} set aside."
