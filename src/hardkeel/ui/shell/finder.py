"""The finder: everything that can be done now, by its name, with where it is and its keys."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QDialog,
    QLineEdit,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.messages import finder as say
from hardkeel.messages.shell import BUILD
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

_STEPS: Final = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}


@dataclass(frozen=True, slots=True)
class Deed:
    """Something that can be done.

    Attributes
    ----------
    where : str
        Where it is found without the finder.
    keys : str
        As Qt writes them; empty for none.
    """

    words: str
    where: str
    keys: str
    do: Callable[[], object]

    def is_called(self, text: str) -> bool:
        """Whether all that was typed is in its name or its place."""
        said = f"{self.words} {self.where}".lower()
        return all(one in said for one in text.lower().split())


def deeds_of_menu(menu: QMenu, name: str) -> Iterator[Deed]:
    """Everything in a menu and the menus in it that can be done now."""
    for action in menu.actions():
        below = action.menu()
        words = action.text().replace("&", "")
        if isinstance(below, QMenu):
            if action.isVisible():
                yield from deeds_of_menu(below, say.within(name, words))
        elif words and action.isEnabled() and action.isVisible():
            yield Deed(words, name, action.shortcut().toString(), action.trigger)


def deeds_of_buttons(
    buttons: Iterable[QAbstractButton], where: str, *, seen: bool = False
) -> Iterator[Deed]:
    """What these buttons do.

    Parameters
    ----------
    seen : bool
        Only those that are seen.
    """
    for button in buttons:
        words = button.text().replace("&", "").replace("\n", " ").strip() or button.accessibleName()
        if words and button.isEnabled() and (button.isVisible() or not seen):
            yield Deed(words, where, button.shortcut().toString(), button.click)


def all_deeds(
    page: QWidget | None,
    rail: Sequence[QAbstractButton],
    stages: Sequence[tuple[str, Mapping[str, QAbstractButton], Callable[[str], object]]],
    menu: QMenu,
) -> list[Deed]:
    """What can be done on the page seen, on the rail, in its stages and in the menu.

    Parameters
    ----------
    stages : sequence of (title, tabs, turn)
        The buttons of each stage's benches by key, and what turns to one.
    """
    tabs = {one for _, buttons, _ in stages for one in buttons.values()}
    here = page.findChildren(QPushButton) if page is not None else []
    found = list(deeds_of_buttons([one for one in here if one not in tabs], say.HERE, seen=True))
    found += deeds_of_buttons(rail, say.ON_THE_RAIL)
    for title, buttons, turn in stages:
        found += [
            Deed(tab.text(), say.tab_of(title), tab.shortcut().toString(), partial(turn, key))
            for key, tab in buttons.items()
        ]
    return [*found, *deeds_of_menu(menu, BUILD)]


def light_or_dark(toggle: Callable[[], object]) -> Deed:
    """The switch at the top."""
    return Deed(say.LIGHT_OR_DARK, say.IN_THE_HEADER, "", toggle)


class FinderDialog(QDialog):
    """A line to type in over a list; Enter does what is picked.

    Signals
    -------
    picked : Deed
        It is to be done, once this is closed.
    """

    picked = pyqtSignal(object)

    def __init__(self, deeds: Sequence[Deed], theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.TITLE)
        self._deeds, self._theme = tuple(deeds), theme
        self._found: tuple[Deed, ...] = ()
        self.line = QLineEdit()
        self.line.setPlaceholderText(say.TYPE_IT)
        self.line.setAccessibleName(say.TITLE)
        columns = [Column(head) for head in say.HEADS]
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 0, say.LIST, (1,))
        self.table.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.none = label("soft", say.NOTHING)
        box = QVBoxLayout(self)
        box.setContentsMargins(18, 14, 18, 14)
        for widget in (label("title", say.TITLE), self.line, self.none, self.table):
            box.addWidget(widget)
        self.resize(theme.px(620), theme.px(460))
        self.line.textChanged.connect(self._on_typed)
        self.line.returnPressed.connect(lambda: self._do(self.table.currentIndex().row()))
        self.table.started.connect(self._do)
        self.table.clicked.connect(lambda index: self._do(index.row()))
        self._on_typed("")
        apply_style(self)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Up and down walk through the list while the line keeps the cursor."""
        step = _STEPS.get(Qt.Key(event.key())) if event is not None else None
        if step is None:
            super().keyPressEvent(event)
            return
        row = self.table.currentIndex().row() + step
        self.table.selectRow(max(0, min(row, self.model.rowCount() - 1)))

    def _on_typed(self, text: str) -> None:
        self._found = tuple(one for one in self._deeds if one.is_called(text))
        rows = [
            Row(f"{i} {one.words}", (one.words, one.where, one.keys), typed=False, cell_colours={1: "soft", 2: "soft"})
            for i, one in enumerate(self._found)
        ]  # fmt: skip
        self.model.show_rows(rows, self._theme)
        self.none.setVisible(not rows)
        self.table.setVisible(bool(rows))
        if rows:
            self.table.selectRow(0)

    def _do(self, row: int) -> None:
        if 0 <= row < len(self._found):
            self.accept()
            self.picked.emit(self._found[row])
