"""A table view in the house's dress."""

from PyQt6.QtCore import QModelIndex, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QResizeEvent, QShowEvent
from PyQt6.QtWidgets import QAbstractItemView, QHeaderView, QTableView

from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.cells import CellsModel
from hardkeel.ui.widgets.own_colour import OwnColour

_ROW_PX = 27
_BESIDE_PX = 6  # as the style sheet leaves on either side of a text
_FOCUS_PX = 8  # what Qt keeps for the frame of a focus


class CellsTable(QTableView):
    """Rows to read, pick and type into; columns in `gives_way` hide first where there is no room.

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
        self,
        model: CellsModel,
        theme: Theme,
        stretch: int,
        name: str,
        gives_way: tuple[int, ...] = (),
    ) -> None:
        super().__init__()
        self._stretch = stretch
        self._gives_way = gives_way
        self._theme, self._cells = theme, model
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
            # by the texts themselves: Qt would dress every cell for it, at each change of theme and text
            across.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
            across.setSectionResizeMode(stretch, QHeaderView.ResizeMode.Stretch)
        picked = self.selectionModel()
        if picked is not None:
            picked.currentRowChanged.connect(lambda now, _before: self.row_picked.emit(now.row()))
        self.doubleClicked.connect(self._on_double)
        for changed in (
            model.modelReset,
            model.rowsInserted,
            model.rowsRemoved,
            model.dataChanged,
        ):
            changed.connect(self._fit)
        self.set_theme(theme)

    def minimumSizeHint(self) -> QSize:
        """Small: what has no room gives way."""
        return QSize(200, 80)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Hide columns that have no room, the least telling first."""
        super().resizeEvent(event)
        self._fit()

    def showEvent(self, event: QShowEvent | None) -> None:
        """What changed while nobody saw it is fitted now."""
        super().showEvent(event)
        self._fit()

    def _fit(self) -> None:
        """Hide what has no room; a table that is not seen is fitted when it is."""
        if not self.isVisible():
            return
        across, view = self.horizontalHeader(), self.viewport()
        if across is None or view is None:
            return
        beside = 2 * self._theme.across(_BESIDE_PX) + _FOCUS_PX
        wanted = [
            max(self._cells.text_width(i) + beside, across.sectionSizeHint(i))
            for i in range(across.count())
        ]
        hidden: set[int] = set()
        for column in self._gives_way:
            if sum(w for i, w in enumerate(wanted) if i not in hidden) <= view.width():
                break
            hidden.add(column)
        for column in self._gives_way:
            self.setColumnHidden(column, column in hidden)
        for column, width in enumerate(wanted):
            if column not in hidden and column != self._stretch:
                across.resizeSection(column, width)

    def set_theme(self, theme: Theme) -> None:
        """Rows as tall as the text wants."""
        self._theme = theme
        rows = self.verticalHeader()
        if rows is not None:
            rows.setDefaultSectionSize(theme.px(_ROW_PX))
        QTimer.singleShot(0, self._fit)  # once the style sheet has given the new text its size

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter and Space start a row, Delete strikes it out; other keys type."""
        row = self.currentIndex().row()
        # what an editor lets through (Enter among it) is still the editor's
        if event is None or row < 0 or self.state() == QAbstractItemView.State.EditingState:
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
