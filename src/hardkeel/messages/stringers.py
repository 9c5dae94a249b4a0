"""Stringers in words."""

from typing import Final

from hardkeel.fuselage.model import Member

STRINGERS: Final = "Stringers"
SPREAD: Final = "Spread them round"
SPREAD_WHY: Final = "At equal distances round the girth, in notches of every former between two; in the place of those there are."
FIGURES: Final = {
    "around": "how many round",
    "deep": "deep",
    "wide": "wide",
    "scallop": "hollow between",
}
SCALLOP_TIP: Final = "Formers' edges are hollowed by so much between stringers: the covering touches none of them. 0 for none."
BY_GIRTH: Final = "along the girth"
BY_GIRTH_TIP: Final = "Its angle is a share of the girth from the crown, 90 half way down, instead of a turn about the former's middle"


def stringers_edit(key: str) -> str:
    """The step's name for undo."""
    return f"set {FIGURES.get(key, key)} of the stringers"


def stringers_answer(stringers: tuple[Member, ...]) -> str:
    """``12 round``: how many lie on a former, both sides counted."""
    count = sum(1 if one.angle in (0.0, 180.0) else 2 for one in stringers)
    return f"{count} round" if count else ""
