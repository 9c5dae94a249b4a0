"""What is said of outlines taken from a drawing."""

from collections.abc import Sequence
from typing import Final

THE_DESK: Final = "The paper desk"
WHICH_OUTLINE: Final = "Which of these?"


def several_outlines(file: str, count: int, former: str) -> str:
    """``formers.dxf holds 7 outlines. Which one is F3?``."""
    return f"{file} holds {count} outlines. Which one is {former}?"


def give_it_to(former: str) -> str:
    """``Give it to F3``."""
    return f"Give it to {former}"


def give_each(names: Sequence[str]) -> str:
    """``Give each its own: F2, F3, F4``; many are counted."""
    few = 6
    if len(names) > few:
        return f"Give each of these {len(names)} its own"
    return f"Give each its own: {', '.join(names)}"


def called_otherwise(former: str, file: str, called: str) -> str:
    """``F3 got the outline that formers.dxf calls F4.``."""
    return f"{former} got the outline that {file} calls {called}."


def outline_edit(former: str, file: str) -> str:
    """``outline of F3 from F3.dxf``."""
    return f"outline of {former} from {file}"


def outlines_edit(file: str) -> str:
    """``outlines from formers.dxf``."""
    return f"outlines from {file}"


def outline_size(wide: str, tall: str) -> str:
    """``92 × 103 mm``."""
    return f"{wide} × {tall}"


def lettered_at(size: str, station: str) -> str:
    """``92 × 103 mm, at 281.7 mm``."""
    return f"{size}, at {station}"


def stands_elsewhere(file: str, rows: Sequence[tuple[str, str, str]]) -> str:
    """``formers.dxf letters F4 at 281.7 mm; it stands at 280.0 mm and was left there.``."""
    told = ", ".join(f"{name} at {lettered} (stands at {own})" for name, lettered, own in rows)
    left = "it was left there" if len(rows) == 1 else "they were left there"
    return f"{file} letters {told}; {left}."
