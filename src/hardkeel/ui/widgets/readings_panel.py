"""The list of readings with its heading: phases, how many, what moved."""

from typing import Final

from PyQt6.QtCore import QAbstractItemModel, QModelIndex, Qt, pyqtSignal
from PyQt6.QtGui import QAction, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QPushButton,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from hardkeel.messages import true as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.own_colour import OwnColour

_ROW_PX: Final = 25
_ONE_LINE_PX: Final = 240  # the longest usual name
_VALUE_COLUMN: Final = 2
_NOTE_COLUMN: Final = 4


class _Table(QTableView):
    """A table that tells when its width has changed, scroll bar and all."""

    resized = pyqtSignal()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.resized.emit()


class ReadingsPanel(QWidget):
    """Readings of a phase; it shows whatever model it is given.

    Signals
    -------
    phase_picked : str
        Another phase.
    row_pointed : int
        The pointer or the cursor is on this row; −1 for none.
    row_started : int
        Enter or double click on a row.
    row_clicked : int
        One click on a row.
    ignore_asked, delete_asked : int
        For a row.
    """

    phase_picked = pyqtSignal(str)
    row_pointed = pyqtSignal(int)
    row_started = pyqtSignal(int)
    row_clicked = pyqtSignal(int)
    ignore_asked = pyqtSignal(int)
    delete_asked = pyqtSignal(int)

    def __init__(
        self, theme: Theme, phases: tuple[tuple[str, str], ...], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setObjectName("desk")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._title = QLabel()
        self._title.setObjectName("heading")
        self._count = QLabel()
        self._count.setObjectName("soft")
        self.moved = QLabel()
        self.moved.setObjectName("soft")
        head = QHBoxLayout()
        head.setContentsMargins(12, 5, 8, 1)
        head.setSpacing(8)
        head.addWidget(self._title)
        head.addWidget(self._count)
        head.addStretch(1)
        head.addWidget(self.moved)
        self._phases: dict[str, QPushButton] = {}
        for phase, words in phases:
            button = QPushButton(words)
            button.setObjectName("plain")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, phase=phase: self.phase_picked.emit(phase))
            self._phases[phase] = button
            head.addWidget(button)
        self._head = head
        self._theme = theme
        self.table = _Table()
        self._dress_table()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addLayout(head)
        box.addWidget(self.table)
        self.set_theme(theme)

    def _dress_table(self) -> None:
        table = self.table
        table.setShowGrid(False)
        table.resized.connect(self._fit_columns)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        table.setEditTriggers(QAbstractItemView.EditTrigger.EditKeyPressed)
        table.setMouseTracking(True)
        table.setTabKeyNavigation(False)
        table.setWordWrap(True)
        table.setItemDelegate(OwnColour(table))
        table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        table.setContextMenuPolicy(Qt.ContextMenuPolicy.ActionsContextMenu)
        table.setAccessibleName(say.READINGS)
        for header in (table.verticalHeader(), table.horizontalHeader()):
            if header is not None:
                header.hide()
        table.entered.connect(lambda index: self.row_pointed.emit(index.row()))
        table.clicked.connect(lambda index: self.row_clicked.emit(index.row()))
        table.doubleClicked.connect(self._on_started)
        table.activated.connect(self._on_started)
        for words, key, slot in (
            (say.USE_OR_NOT, Qt.Key.Key_Space, self._on_ignore),
            (say.STRIKE_OUT, Qt.Key.Key_Delete, self._on_delete),
        ):
            action = QAction(words, table)
            action.setShortcut(QKeySequence(key))
            action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
            action.triggered.connect(slot)
            table.addAction(action)

    def put_in_head(self, widget: QWidget) -> None:
        """Put something of the page's own behind the phases."""
        self._head.addWidget(widget)

    def set_model(self, model: QAbstractItemModel) -> None:
        """Show this model and size the columns."""
        self.table.setModel(model)
        selection = self.table.selectionModel()
        if selection is not None:
            selection.currentRowChanged.connect(
                lambda now, _before: self.row_pointed.emit(now.row())
            )
        header = self.table.horizontalHeader()
        if header is not None:
            header.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
            header.setMinimumSectionSize(20)
            model.modelReset.connect(self.table.scrollToTop)
        self._fit_columns()

    def _fit_columns(self) -> None:
        """What was held gets the room; its note gives way first."""
        header, view = self.table.horizontalHeader(), self.table.viewport()
        if header is None or view is None or header.count() <= _NOTE_COLUMN:
            return
        px = self._theme.px
        number, value, off = px(46), px(84), px(70)
        room = view.width() - number - value - off
        note = max(0, min(px(250), room - px(250)))
        for column, width in enumerate((number, room - note, value, off, note)):
            header.resizeSection(column, width)
        rows = self.table.verticalHeader()
        if rows is not None:  # a name that would be cut goes on to a second line
            lines = 1 if room - note >= px(_ONE_LINE_PX) else 1.75
            rows.setDefaultSectionSize(px(_ROW_PX * lines))
            self.table.scrollTo(self.table.currentIndex())

    def set_theme(self, theme: Theme) -> None:
        """Rows as tall as the text wants."""
        self._theme = theme
        self._fit_columns()

    def show_heading(self, phase: str, count: str, moved: str, shown: frozenset[str]) -> None:
        """Say which phase is shown, how many readings it has, and what moved since the one before."""
        self._title.setText(say.READINGS)
        self._count.setText(count)
        self.moved.setText(moved)
        self.moved.setToolTip(moved)
        for name, button in self._phases.items():
            button.setChecked(name == phase)
            button.setVisible(name in shown)

    def point_at(self, row: int) -> None:
        """Bring a row into view and make it the current one."""
        model = self.table.model()
        if model is None or row < 0:
            return
        index = model.index(row, 1)
        self.table.setCurrentIndex(index)
        self.table.scrollTo(index)

    def edit_value(self, row: int) -> None:
        """Open the value of a row for typing."""
        model = self.table.model()
        if model is not None:
            self.table.setFocus()
            self.table.edit(model.index(row, _VALUE_COLUMN))

    def _on_started(self, index: QModelIndex) -> None:
        self.row_started.emit(index.row())

    def _on_ignore(self) -> None:
        self.ignore_asked.emit(self.table.currentIndex().row())

    def _on_delete(self) -> None:
        self.delete_asked.emit(self.table.currentIndex().row())
