"""Paper: the very sheets, what of them is out of date since the last print, and one press that prints just that."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout

from hardkeel.base.units import LengthUnit
from hardkeel.export.paper_sizes import PAPERS, ROLLS
from hardkeel.messages import prints as say
from hardkeel.ui.stages.paper.paper_card import PaperCard
from hardkeel.ui.stages.paper.sheet_list import SheetsCard
from hardkeel.ui.stages.paper.sheet_view import SheetView
from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import Doing, NowCard

if TYPE_CHECKING:
    from hardkeel.ui.stages.paper.shown import SheetShown

_ENTER: Final = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class PaperPage(StagePage):
    """One sheet on the table, all of them in the list.

    Signals
    -------
    woken : (nothing)
        The page was turned to.
    unit_changed : (nothing)
        Lengths are written in another unit now.
    print_wanted : str, frozenset of int
        These pages of a sheet.
    forget_wanted : str
        A sheet's print is lost.
    look_wanted : str, int
        A page of a sheet is to be seen as the printer gets it.
    """

    woken = pyqtSignal()
    unit_changed = pyqtSignal()
    print_wanted = pyqtSignal(str, object)
    forget_wanted = pyqtSignal(str)
    look_wanted = pyqtSignal(str, int)

    def __init__(self, theme: Theme, unit: LengthUnit) -> None:
        super().__init__()
        self.unit: LengthUnit = unit
        self._theme = theme
        self._sheets: dict[str, SheetShown] = {}
        self._chosen, self._paper, self._on_table, self._piece = "", "", "", ""
        self._changed: dict[str, str] = {}
        self._pages: frozenset[int] = frozenset()
        self.view = SheetView(theme)
        self.under = label("soft")
        self.now, self.sheets = NowCard(), SheetsCard(theme)
        self.card = PaperCard((*PAPERS, *ROLLS), unit)
        self.all, self.lost = QPushButton(say.PRINT_ALL), QPushButton(say.FORGET)
        self.look = QPushButton(say.LOOK_AT_IT)
        for button in (self.look, self.all, self.lost):
            button.setObjectName("plain")
        self._lay_out(theme)
        self._connect()
        self.show_sheets((), say.LAYING_OUT, "")

    def _lay_out(self, theme: Theme) -> None:
        row = QHBoxLayout()
        row.addWidget(self.look)
        row.addWidget(self.all)
        row.addWidget(self.lost)
        row.addStretch(1)
        self.now.column.addLayout(row)
        self.left_out = label("warn")
        self.left_out.hide()
        self._cards = CardColumn((self.now, self.left_out, self.sheets, self.card), theme)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addWidget(self.view, 1)
        self.under.setContentsMargins(16, 6, 16, 10)
        left.addWidget(self.under)
        outer = QHBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        outer.addLayout(left, 1)
        outer.addWidget(self._cards)

    def _connect(self) -> None:
        self.view.page_picked.connect(self._on_page_picked)
        self.sheets.picked.connect(self.choose)
        self.now.asked.connect(lambda _key: self.print_wanted.emit(self._chosen, self._pages))
        self.all.clicked.connect(self._on_all)
        self.look.clicked.connect(self._on_look)
        self.lost.clicked.connect(lambda: self.forget_wanted.emit(self._chosen))

    @property
    def chosen(self) -> str:
        """The key of the sheet on the table."""
        return self._chosen

    @property
    def pages(self) -> frozenset[int]:
        """The pages that the button prints."""
        return self._pages

    def wake(self) -> None:
        """Get ready."""
        self.woken.emit()
        self.now.button.setFocus()

    def turn_to(self, place: str) -> None:
        """Put a sheet on the table, once it is there; behind a colon the piece whose pages are meant."""
        self._chosen, _, self._piece = place.partition(":")
        if self._chosen in self._sheets:
            self.choose(self._chosen)

    def set_unit(self, unit: LengthUnit) -> None:
        """Write lengths in another unit."""
        self.unit = unit
        self.card.set_unit(unit)
        self.unit_changed.emit()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.view.set_theme(theme)
        self.sheets.set_theme(theme)
        self._cards.set_theme(theme)

    def show_sheets(self, sheets: "Sequence[SheetShown]", nothing: str, paper: str) -> None:
        """Show all sheets; the one on the table stays there, else the first with something to print.

        Parameters
        ----------
        nothing : str
            What is said where there is none.
        """
        self._paper = paper
        self._sheets = {one.key: one for one in sheets}
        if self._chosen not in self._sheets:
            stale = [one for one in sheets if one.standing.printed and not one.standing.is_right]
            open_ = [one for one in sheets if not one.standing.is_right]
            first = next(iter([*stale, *open_, *sheets]), None)
            self._chosen = first.key if first is not None else ""
        self.view.setAccessibleDescription(nothing)
        for widget in (self.now, self.sheets):
            widget.setVisible(bool(sheets))
        self.sheets.show_sheets(sheets, self._chosen)
        if self._chosen:
            self._put_on_table(stay=True)
        else:
            self.view.show_boards(())
            self.under.setText("")

    def show_left_out(self, why: Sequence[str]) -> None:
        """What can't be drawn yet, and why."""
        self.left_out.setText(say.left_out_words(why))
        self.left_out.setVisible(bool(why))

    def choose(self, key: str) -> None:
        """Put a sheet on the table."""
        self._chosen = key
        self.sheets.show_sheets(tuple(self._sheets.values()), key)
        self._put_on_table(stay=False)

    def say_changed(self, words: dict[str, str]) -> None:
        """What has changed of each sheet since its print, in words."""
        self._changed = words
        self._say()

    def _put_on_table(self, *, stay: bool) -> None:
        shown = self._sheets[self._chosen]
        self.view.show_boards(shown.boards, stay=stay and self._on_table == self._chosen)
        self._on_table = self._chosen
        of_piece = shown.pages_with(self._piece) if self._piece else frozenset()
        self._pages = of_piece or frozenset(shown.standing.stale)
        self._piece = ""
        self.view.pick(self._pages)
        self.under.setText(say.foot_words(shown.standing.pages, self._paper))
        self.card.show_files(drawings=shown.is_drawing)
        self._say()

    def _say(self) -> None:
        """The one thing to do with this sheet, and why."""
        shown = self._sheets.get(self._chosen)
        if shown is None:
            return
        standing = shown.standing
        printed = standing.printed
        words = say.act_words(
            self._chosen, standing.stale, standing.pages, printed=printed is not None
        )
        why = []
        if printed is not None:
            why.append(say.when_words(printed.at, printed.count))
        if standing.stale:
            why.append(self._changed.get(self._chosen, ""))
        numbers = tuple(sorted(self._pages))
        button = say.print_button(numbers, standing.pages) if numbers else ""
        self.now.show_doing(Doing(words, " ".join(one for one in why if one), "", button, "print"))
        self.all.setVisible(len(numbers) < standing.pages)
        self.lost.setVisible(printed is not None)

    def _on_page_picked(self, number: int) -> None:
        self._pages ^= {number}
        self.view.pick(self._pages)
        self._say()

    def _on_look(self) -> None:
        """The first page that would be printed; once more, and the drawing is there again."""
        if self.view.shows_page:
            self.view.show_page(None)
        elif self._chosen:
            self.look_wanted.emit(self._chosen, min(self._pages, default=1))

    def _on_all(self) -> None:
        count = self._sheets[self._chosen].standing.pages
        self.print_wanted.emit(self._chosen, frozenset(range(1, count + 1)))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter prints what is to be printed."""
        typing = isinstance(self.focusWidget(), QLineEdit)
        if (
            event is not None
            and event.key() in _ENTER
            and not typing
            and self.now.button.isVisible()
        ):
            self.now.button.click()
            return
        super().keyPressEvent(event)
