"""Stations that a drawing of formers has lettered in its outlines: ``F4 at 281.7``, ``F6 sta. 11-1/2"``."""

import re
from collections.abc import Sequence
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, parse_length
from hardkeel.storage.outlines import Outline, first_word

_LETTERED: Final = re.compile(
    r"(?:\bat\b|@|\bsta(?:tion)?\b\.?|\bx\s*=)\s*[:=]?\s*"
    r"(?P<length>[-+]?\d[\d.,]*(?:[-\s]\d+/\d+|/\d+)?\s*(?:mm|cm|in\b|inch(?:es)?|\"|″)?)",
    re.IGNORECASE,
)


def station_of(texts: Sequence[str], bare: LengthUnit) -> float | None:
    """Where an outline's lettering says that it stands, mm; ``None`` where it says nothing, or two things.

    Parameters
    ----------
    bare : {"mm", "in"}
        The unit of a figure without one.
    """
    told = set()
    for text in texts:
        for found in _LETTERED.finditer(text):
            try:
                told.add(parse_length(found["length"].strip(" .,"), bare).mm)
            except BadInput:
                continue
    return told.pop() if len(told) == 1 else None


def lettered(outlines: Sequence[Outline], bare: LengthUnit) -> dict[str, tuple[Outline, float]]:
    """Names with their outline and station, by station, of what has both lettered in it.

    The name is the first word that is not the station's; what two outlines bear is left out, and so is all that
    stands at a station of another.
    """
    found: list[tuple[str, Outline, float]] = []
    for one in outlines:
        station = station_of(one.texts, bare)
        name = next((n for n in map(_name_in, one.texts) if n), "")
        if station is not None and name:
            found.append((name, one, station))
    names = [name.casefold() for name, _, _ in found]
    places = [station for _, _, station in found]
    alone = [
        (name, one, at)
        for name, one, at in found
        if names.count(name.casefold()) == 1 and places.count(at) == 1
    ]
    return {name: (one, at) for name, one, at in sorted(alone, key=lambda row: row[2])}


def _name_in(text: str) -> str:
    rest = _LETTERED.sub("", text).strip()
    folded = first_word(rest)
    return rest[: len(folded)].strip() if folded else ""
