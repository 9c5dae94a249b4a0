"""How many of a thing, in words that agree."""

from typing import Final

_WORDS: Final = (
    "no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
)  # fmt: skip


def in_words(count: int) -> str:
    """``seven``; figures from thirteen on."""
    return _WORDS[count] if count < len(_WORDS) else str(count)


def number_of(count: int, one: str, many: str = "") -> str:
    """``1 entry``, ``2 entries``."""
    return f"{count} {one if count == 1 else many or f'{one}s'}"
