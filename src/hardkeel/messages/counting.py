"""How many of a thing, in words that agree."""


def number_of(count: int, one: str, many: str = "") -> str:
    """``1 entry``, ``2 entries``."""
    return f"{count} {one if count == 1 else many or f'{one}s'}"
