"""Nose and tail pulled in, in words: how far, what holds them, what is soaked, what to read afterwards."""

from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_length
from hardkeel.fuselage.closing import Closing
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages.frame import stop_words

PULLING: Final = "Pulling in"
CLAMPS_OFF: Final = "clamps off, between the sides"
NOTE_IT: Final = "note what has sprung back"
# newtons on each side, by experience at the bench: what holds so much without creeping or denting the wood
_TAPE_HOLDS, _CLAMP_HOLDS = 8.0, 40.0


def pulling_lines(closing: Closing, fuselage: Fuselage, unit: LengthUnit) -> list[str]:
    """What pulling this end in takes, in the order of doing it."""
    at = stop_words(closing.stop)
    told = []
    if closing.breaking:
        told.append(f"{_listed(closing.breaking)}: breaks, soaked or not; see Bends for ways out.")
    if closing.soaked:
        told.append(
            f"Soak {_listed(closing.soaked)}: hot water, ten minutes for each millimetre it is thick. "
            "Clamp it over the dry formers with film between and leave it overnight; wet wood takes no glue."
        )
        low, high = closing.springs_to
        told.append(
            f"In the morning, clamps off: {format_length(low, unit)} to {format_length(high, unit)} between the "
            f"sides at {at} is what to expect."
        )
    told.append(
        f"Each side comes in {format_length(closing.inward, unit)} at {at}, to "
        f"{format_length(closing.width, unit)} between them{_holder(closing.force)}."
    )
    split = [former.id for former in fuselage.formers if former.split]
    if closing.end == "tail" and split:
        told.append(f"{_listed(tuple(split))}: half to each side, closed in the jig, glued last.")
    told.append(
        f"Pull both sides at once. Then read the centre mark at {at} off the line and both diagonals of the bay before it, under "
        "Square, and only then glue."
    )
    return told


def _holder(force: float | None) -> str:
    if force is None:
        return ""
    newtons = abs(force)
    if newtons < 1:
        return "; less than a newton holds each there: tape does"
    if newtons < _TAPE_HOLDS:
        by = "tape or a rubber band does"
    elif newtons < _CLAMP_HOLDS:
        by = "a clamp over scrap wood"
    else:
        by = "a threaded rod through both sides, turned home bit by bit"
    return f"; each pulls {decimal(newtons, 1)} N there: {by}"


def sprung_sentence(closing: Closing, width: float, unit: LengthUnit) -> str:
    """What was read with the clamps off against what was to be expected."""
    low, high = (format_length(one, unit) for one in closing.springs_to)
    then = {
        "less": "it has set better than expected; pull it in and glue",
        "expected": "as expected; pull it in and glue",
        "more": "it has sprung back further than expected; soak it once more, or the joints hold it for ever",
    }[closing.sprung(width)]
    read = format_length(width, unit)
    return (
        f"{closing.end}, clamps off: {read} between the sides ({low} to {high} expected): {then}."
    )


def _listed(names: tuple[str, ...]) -> str:
    return f"{', '.join(names[:-1])} and {names[-1]}" if len(names) > 1 else "".join(names)
