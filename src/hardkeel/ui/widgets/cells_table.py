"""A table view in the house's dress."""

from PyQt6.QtCore import QAbstractItemModel, QModelIndex, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QAbstractItemView, QHeaderView, QTableView, QWidget

from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.own_colour import OwnColour

_ROW_PX = 27


class CellsTable(QTableView):
    """Rows to read, pick and type into.

    Signals
    -------
    row_picked : int
    started : int
        Enter, Space or a double click on a row.
    struck : int
        Delete on a row.
    """

    row_picked = pyqtSignal(int)
    started = pyqtSignal(int)
    struck = pyqtSignal(int)

    def __init__(
        self, model: QAbstractItemModel, theme: Theme, stretch: int, name: str,
        parent: QWidget | None = None,
    ) -> None:  # fmt: skip
        super().__init__(parent)
        self._stretch = stretch
        self.setModel(model)
        self.setShowGrid(False)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setEditTriggers(
            QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.DoubleClicked
            | QAbstractItemView.EditTrigger.AnyKeyPressed
        )
        self.setTabKeyNavigation(False)
        self.setWordWrap(False)
        self.setItemDelegate(OwnColour(self))
        self.setAccessibleName(name)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        down, across = self.verticalHeader(), self.horizontalHeader()
        if down is not None:
            down.hide()
        if across is not None:
            across.setHighlightSections(False)
            across.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            across.setSectionResizeMode(stretch, QHeaderView.ResizeMode.Stretch)
        picked = self.selectionModel()
        if picked is not None:
            picked.currentRowChanged.connect(lambda now, _before: self.row_picked.emit(now.row()))
        self.doubleClicked.connect(self._on_double)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Rows as tall as the text wants."""
        rows = self.verticalHeader()
        if rows is not None:
            rows.setDefaultSectionSize(theme.px(_ROW_PX))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter and Space start a row, Delete strikes it out; other keys type."""
        row = self.currentIndex().row()
        if event is None or row < 0:
            super().keyPressEvent(event)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.started.emit(row)
        elif event.key() == Qt.Key.Key_Delete:
            self.struck.emit(row)
        else:
            super().keyPressEvent(event)

    def _on_double(self, index: QModelIndex) -> None:
        model = self.model()
        if model is not None and not model.flags(index) & Qt.ItemFlag.ItemIsEditable:
            self.started.emit(index.row())
