"""A booklet: pages of half the paper's size, laid two to a side so that the stack folds in the middle."""

from collections.abc import Iterator
from typing import Any, Final

from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import Canvas, mm

_LEAF: Final = 4  # pages of a sheet, both sides of it


def half_of(paper: str) -> tuple[float, float]:
    """A page of a booklet that is printed on this paper, mm: half of it, upright."""
    wide, tall = PAPERS[paper]
    return tall / 2, wide


def leaves(count: int) -> Iterator[tuple[int | None, int | None]]:
    """Which pages lie side by side, left and right, on each side of each sheet in turn, from 0 on; ``None`` for an empty one."""
    whole = -(-count // _LEAF) * _LEAF

    def page(number: int) -> int | None:
        return number if number < count else None

    for sheet in range(whole // _LEAF):
        first, last = 2 * sheet, whole - 1 - 2 * sheet
        yield page(last), page(first)
        yield page(first + 1), page(last - 1)


class BookletCanvas(Canvas):
    """Keeps its pages, and lays them two to a side when it is saved.

    Each page is a form of its own; what lays text on it knows nothing of that.
    """

    def __init__(self, file: Any, *, pagesize: Any = None, **more: Any) -> None:
        super().__init__(file, pagesize=pagesize, **more)
        self._half = pagesize
        self._done = 0
        self._begin()

    def _begin(self) -> None:
        self.beginForm(f"page{self._done}", 0, 0, *self._half)

    def showPage(self) -> None:  # noqa: N802  reportlab's own name
        """The page is done."""
        self.endForm()
        self._done += 1
        self._begin()

    def save(self) -> None:
        """Lay all pages on their sheets, and write."""
        self.endForm()
        wide, tall = self._half
        for left, right in leaves(self._done):
            self.setPageSize((2 * wide, tall))
            for number, at in ((left, 0.0), (right, wide)):
                if number is not None:
                    self.saveState()
                    self.translate(at, 0)
                    self.doForm(f"page{number}")
                    self.restoreState()
            super().showPage()
        super().save()


MARGIN: Final = 12 * mm
