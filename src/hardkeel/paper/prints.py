"""What was printed last of each sheet, and which of its pages are out of date since."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from pydantic import Field

from hardkeel.base.values import Text, Value

_FELT_MM = 0.05  # less is a hair of the print itself


class Printed(Value):
    """The last print of a sheet; our own key.

    Attributes
    ----------
    sheet : str
        Which: ``side``, ``board``, ``pieces``, a surface's id.
    at : str
        When, local, to the minute.
    count : int
        How often it was printed.
    pages : tuple of str
        What each page showed, in short; empty for one that was never printed.
    figures : mapping of str to float
        What the whole sheet showed, by name in words, mm.
    """

    sheet: Text
    paper: Text
    at: Text
    count: int = 1
    pages: tuple[str, ...] = ()
    figures: dict[str, float] = Field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class SheetStanding:
    """How a sheet's last print stands to what it shows now.

    Attributes
    ----------
    stale : tuple of int
        Pages to print, counted from 1.
    pages : int
        How many it has.
    printed : Printed or None
        Its last print; ``None`` where it was never printed, or on other paper.
    changed : mapping of str to (before, now)
        Figures that have changed since, mm; ``None`` for what is not there.
    """

    stale: tuple[int, ...]
    pages: int
    printed: Printed | None
    changed: Mapping[str, tuple[float | None, float | None]]

    @property
    def is_right(self) -> bool:
        """Whether all that lies printed is still right."""
        return not self.stale


def standing_of(
    printed: Printed | None, paper: str, pages: Sequence[str], figures: Mapping[str, float]
) -> SheetStanding:
    """Compare a sheet with its last print.

    Parameters
    ----------
    pages : sequence of str
        What each page shows now, in short.
    """
    if printed is None or printed.paper != paper:
        every = tuple(range(1, len(pages) + 1))
        return SheetStanding(every, len(pages), None, {})
    old = printed.pages if len(printed.pages) == len(pages) else ("",) * len(pages)
    stale = tuple(
        number
        for number, (was, now) in enumerate(zip(old, pages, strict=True), start=1)
        if was != now
    )
    return SheetStanding(stale, len(pages), printed, changed_between(printed.figures, figures))


def changed_between(
    before: Mapping[str, float], now: Mapping[str, float]
) -> dict[str, tuple[float | None, float | None]]:
    """Figures that differ by more than a print shows, with both values, in the order in which they are now."""
    names = [*now, *(name for name in before if name not in now)]
    both = {name: (before.get(name), now.get(name)) for name in names}
    return {
        name: (was, value)
        for name, (was, value) in both.items()
        if was is None or value is None or abs(was - value) > _FELT_MM
    }


def noted(
    before: Printed | None,
    made: Printed,
    numbers: Collection[int],
) -> Printed:
    """The last print of a sheet once some of its pages were printed.

    Parameters
    ----------
    made : Printed
        The sheet as it is now, all its pages.
    numbers : collection of int
        Those that were printed, counted from 1; the others stay as they lie.
    """
    lies: tuple[str, ...] = ("",) * len(made.pages)
    count = 1
    if before is not None:
        count = before.count + 1
        if before.paper == made.paper and len(before.pages) == len(made.pages):
            lies = before.pages
    pages = tuple(
        now if number in numbers else was
        for number, (was, now) in enumerate(zip(lies, made.pages, strict=True), start=1)
    )
    whole = pages == made.pages
    figures = made.figures if whole or before is None else before.figures
    return made.but(count=count, pages=pages, figures=figures)
