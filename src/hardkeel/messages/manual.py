"""What is said around the manual."""

from typing import Final

MANUAL: Final = "Manual"
LOOK_FOR: Final = "Look for a word or two"
CHAPTERS: Final = "Chapters"
FINDS: Final = "Where it stands"
NOTHING_FOUND: Final = "Nothing of that stands here."
BACK: Final = "Back"


def find_words(title: str, heading: str, around: str) -> str:
    """``True, In the air: … what balance and decalage have to do …``."""
    place = title if heading == title else f"{title}, {heading}"
    return f"{place}: {around}"
