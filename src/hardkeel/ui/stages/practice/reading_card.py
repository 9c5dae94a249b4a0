"""What can be read: a tool, a part, the places; each with its minutes."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton

from hardkeel.messages import practising as say
from hardkeel.ui.stages.practice.share_bar import ShareBar
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.answers import Answers
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

_TICKS: Final = 5  # minutes


class ReadingCard(Card):
    """Tools as buttons, the part, and the places where the tool in hand can be read.

    Signals
    -------
    tool_picked : str
    part_picked : str
        Empty for all parts.
    place_pointed : str
        A row is in hand; its key.
    read_wanted : str
        Read there now.
    """

    tool_picked = pyqtSignal(str)
    part_picked = pyqtSignal(str)
    place_pointed = pyqtSignal(str)
    read_wanted = pyqtSignal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(say.READ_WHAT)
        self.minutes = label("answer")
        self.bar = ShareBar(theme)
        self._tools = Answers()
        self._tools.given.connect(self.tool_picked)
        self.part = QComboBox()
        self.part.setAccessibleName(say.PART)
        self.part.activated.connect(lambda _i: self.part_picked.emit(self.part.currentData()))
        self.model = CellsModel((Column(""), Column("min", right=True)), theme, parent=self)
        self.table = CellsTable(self.model, theme, 0, say.CANDIDATES)
        self.table.setMinimumHeight(150)
        across = self.table.horizontalHeader()
        if across is not None:
            across.hide()
        self.table.row_picked.connect(self._on_row)
        self.table.started.connect(self._on_started)
        self.read = QPushButton(say.READ_IT)
        self.read.setToolTip(f"{say.READ_IT} (Enter)")
        self.read.clicked.connect(lambda: self._on_started(self.table.currentIndex().row()))
        row = QHBoxLayout()
        row.addWidget(self.part, 1)
        row.addWidget(self.read)
        self.column.addWidget(self.minutes)
        self.column.addWidget(self.bar)
        self.column.addLayout(self._tools)
        self.column.addLayout(row)
        self.column.addWidget(self.table, 1)

    @property
    def tools(self) -> dict[str, QPushButton]:
        """The tools by their kinds."""
        return self._tools.buttons

    @property
    def place(self) -> str:
        """The key of the row in hand; empty for none."""
        row = self.model.row(self.table.currentIndex().row())
        return row.key if row is not None else ""

    def show_tools(self, tools: Sequence[tuple[str, str]], chosen: str) -> None:
        """Offer these, keys with words."""
        self._tools.offer(tools)
        self._tools.show_given(chosen)

    def show_parts(self, parts: Sequence[tuple[str, str]], chosen: str) -> None:
        """Offer these, ids with names."""
        if [self.part.itemData(i) for i in range(self.part.count())] != [one for one, _ in parts]:
            self.part.clear()
            for part, name in parts:
                self.part.addItem(name, part)
        self.part.setCurrentIndex(max(0, self.part.findData(chosen)))

    def show_places(self, rows: Sequence[Row], theme: Theme) -> None:
        """Where the tool in hand can be read; the place in hand stays."""
        self.model.show_rows(rows, theme)
        if rows and self.table.currentIndex().row() < 0:
            self.table.selectRow(0)

    def show_minutes(self, words: str, spent: float, more: float, minutes: float) -> None:
        """What is spent, and what the reading in hand would take."""
        self.minutes.setText(words)
        self.bar.show_share(spent, minutes, more=more, ticks=_TICKS)
        self.bar.setAccessibleName(words)
        self.read.setEnabled(0 < more <= minutes - spent)
        self.read.setText(say.read_button(more or None))

    def _on_row(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self.place_pointed.emit(row.key)

    def _on_started(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self.read_wanted.emit(row.key)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.bar.set_theme(theme)
        self.table.set_theme(theme)
        self.table.setMinimumHeight(theme.px(150))
