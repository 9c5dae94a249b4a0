"""What can be read of a piece on the board, each with its minutes; Enter reads it."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.messages import pieces as words
from hardkeel.messages import practising as say
from hardkeel.ui.stages.practice.share_bar import ShareBar
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

_ROWS_PX: Final = 230


class LooksCard(Card):
    """Minutes, and the places.

    Signals
    -------
    pointed : int
        The row in hand.
    read_wanted : int
        Read there now.
    """

    pointed = pyqtSignal(int)
    read_wanted = pyqtSignal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__(say.READ_WHAT)
        self.minutes, self.bar = label("answer"), ShareBar(theme)
        columns = (Column(words.LOOK_HEADS[0]), Column(words.LOOK_HEADS[1], right=True))
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 0, words.LOOKS)
        self.table.setMinimumHeight(_ROWS_PX)
        across = self.table.horizontalHeader()
        if across is not None:
            across.hide()
        self.table.row_picked.connect(self.pointed)
        self.table.started.connect(self.read_wanted)
        self.read = QPushButton(say.READ_IT)
        self.read.setToolTip(f"{say.READ_IT} (Enter)")
        self.read.clicked.connect(lambda: self.read_wanted.emit(self.at))
        for part in (self.minutes, self.bar):
            self.column.addWidget(part)
        self.column.addWidget(self.table, 1)
        self.column.addWidget(self.read)

    @property
    def at(self) -> int:
        """The row in hand; −1 for none."""
        return self.table.currentIndex().row()

    def show_looks(self, rows: Sequence[Row], theme: Theme) -> None:
        """What there is."""
        self.model.show_rows(rows, theme)
        if rows and self.at < 0:
            self.table.selectRow(0)

    def show_minutes(self, line: str, spent: float, more: float, minutes: float) -> None:
        """What is spent, and what the reading in hand would take."""
        self.minutes.setText(line)
        self.bar.show_share(spent, minutes, more=more, ticks=1.0)
        self.bar.setAccessibleName(line)
        self.read.setEnabled(0 < more <= minutes - spent)
        self.read.setText(say.read_button(more or None))

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.bar.set_theme(theme)
        self.table.set_theme(theme)
        self.table.setMinimumHeight(theme.px(_ROWS_PX))
