"""What the finder says."""

from typing import Final

TITLE: Final = "What do you want to do?"
TYPE_IT: Final = "a word or two of it: print, decalage, inches, Sallow…"
LIST: Final = "What can be done"
HEADS: Final = ("", "where", "keys")
NOTHING: Final = "Nothing here is called that."
HERE: Final = "on this page"
ON_THE_RAIL: Final = "on the rail"
IN_THE_HEADER: Final = "at the top"
FIND: Final = "Find what to do…"
LIGHT_OR_DARK: Final = "Light or dark"


def within(menu: str, submenu: str) -> str:
    """``Build, Text size``."""
    return f"{menu}, {submenu}"


def tab_of(stage: str) -> str:
    """``in True``."""
    return f"in {stage}"
