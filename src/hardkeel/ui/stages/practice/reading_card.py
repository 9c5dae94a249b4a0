"""What can be read: a tool, a part, the places; each with its minutes."""

from collections.abc import Sequence

from PyQt6.QtCore import QRectF, QSize, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton, QSizePolicy, QWidget

from hardkeel.messages import practising as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.flow import FlowLayout


class MinutesBar(QWidget):
    """Minutes spent of those there are, as a rule with its mark."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._spent, self._next, self._all = 0.0, 0.0, 1.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_minutes(self, spent: float, more: float, minutes: float) -> None:
        """`more` is what the reading in hand would take."""
        self._spent, self._next, self._all = spent, more, max(minutes, 1e-9)
        self.setAccessibleName(say.minutes_words(spent, minutes))
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A strip."""
        return QSize(self._theme.px(200), self._theme.px(12))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Spent filled, the next in outline, a tick each five minutes."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        scale = box.width() / self._all
        spent = min(self._spent, self._all) * scale
        painter.fillRect(QRectF(box.left(), box.top(), spent, box.height()), theme.colour("act"))
        more = min(self._spent + self._next, self._all) * scale - spent
        painter.fillRect(
            QRectF(box.left() + spent, box.top(), max(more, 0.0), box.height()),
            theme.colour("act_wash"),
        )
        painter.setPen(QPen(theme.colour("hair"), 1))
        for minute in range(5, int(self._all), 5):
            x = box.left() + minute * scale
            painter.drawLine(int(x), int(box.top()), int(x), int(box.bottom()))
        painter.setPen(QPen(theme.colour("soft"), 1))
        painter.drawRect(box)


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
        self.bar = MinutesBar(theme)
        self.tools: dict[str, QPushButton] = {}
        self._tools = FlowLayout(gap=5)
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
    def place(self) -> str:
        """The key of the row in hand; empty for none."""
        row = self.model.row(self.table.currentIndex().row())
        return row.key if row is not None else ""

    def show_tools(self, tools: Sequence[tuple[str, str]], chosen: str) -> None:
        """Offer these, keys with words."""
        if [key for key, _ in tools] != list(self.tools):
            for button in self.tools.values():
                self._tools.removeWidget(button)
                button.deleteLater()
            self.tools = {}
            for key, words in tools:
                button = QPushButton(words)
                button.setObjectName("tool")
                button.setCheckable(True)
                button.clicked.connect(lambda _on, key=key: self.tool_picked.emit(key))
                self.tools[key] = button
                self._tools.addWidget(button)
        for key, button in self.tools.items():
            button.setChecked(key == chosen)

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
        self.bar.show_minutes(spent, more, minutes)
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
