"""What does not follow by itself, and what is offered."""

from typing import Final

from hardkeel.airframe.standing import BOTTOM, MIDDLE, TOP, LeftBehind
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages.names import sentence_case, surface_name

NOT_FOLLOWED: Final = "Left behind"
IT_STAYS: Final = "It stays there"
_OF: Final = {TOP: "top", BOTTOM: "bottom", MIDDLE: "middle"}


def behind_sentence(one: LeftBehind, unit: LengthUnit) -> str:
    """``The wing lies 6.0 mm inside the top at F4, which rose by 6.0 mm.``."""
    name = sentence_case(f"the {surface_name(one.surface)}")
    what = f"the {_OF[one.on]} at {one.former}" if one.on in _OF else f"the {surface_name(one.on)}"
    moved = format_length(abs(one.by), unit)
    way = "rose" if one.by > 0 else "sank"
    if one.on == MIDDLE:
        return f"{name} stayed where it was; {what} {way} by {moved}."
    side = "inside" if (one.over < 0) == (one.on != BOTTOM) else "clear of"
    return (
        f"{name} lies {format_length(abs(one.over), unit)} {side} {what}, which {way} by {moved}."
    )


def offer_words(one: LeftBehind, unit: LengthUnit) -> str:
    """``Raise it by 6.0 mm``."""
    way = "Raise" if one.by > 0 else "Lower"
    return f"{way} it by {format_length(abs(one.by), unit)}"


def offer_edit(one: LeftBehind) -> str:
    """The step's name for undo."""
    way = "raise" if one.by > 0 else "lower"
    return f"{way} the {surface_name(one.surface)} with the fuselage"
