"""A plain table of cells over a frozen snapshot, for lists that show and take text."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, Qt

from hardkeel.ui.theme import Theme

_RIGHT = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
_LEFT = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its heading, whether it holds figures, whether it can be typed into."""

    head: str
    right: bool = False
    typed: bool = False


@dataclass(frozen=True, slots=True)
class Row:
    """A row: its key, its cells, the palette colour of its text, and what a pointer is told."""

    key: str
    cells: tuple[str, ...]
    colour: str = "ink"
    tip: str = ""
    bold: bool = False
    cell_colours: dict[int, str] = field(default_factory=dict)


class CellsModel(QAbstractTableModel):
    """Rows of text; editing calls `edit` with the row's key, the column and the text."""

    def __init__(
        self,
        columns: Sequence[Column],
        theme: Theme,
        edit: Callable[[str, int, str], bool],
        parent: QObject | None = None,
    ) -> None:
        super().__init__(parent)
        self._columns = tuple(columns)
        self._theme = theme
        self._edit = edit
        self._rows: tuple[Row, ...] = ()

    def show_rows(self, rows: Sequence[Row], theme: Theme) -> None:
        """Show other rows; where their keys are the same the selection stays."""
        before = [row.key for row in self._rows]
        made = tuple(rows)
        if [row.key for row in made] == before and made:
            self._rows, self._theme = made, theme
            last = self.index(len(made) - 1, len(self._columns) - 1)
            self.dataChanged.emit(self.index(0, 0), last)
            return
        self.beginResetModel()
        self._rows, self._theme = made, theme
        self.endResetModel()

    def row(self, number: int) -> Row | None:
        """The row with this number."""
        return self._rows[number] if 0 <= number < len(self._rows) else None

    def number_of(self, key: str) -> int:
        """The number of the row with this key; −1 where there is none."""
        return next((i for i, row in enumerate(self._rows) if row.key == key), -1)

    def rowCount(self, parent: QModelIndex = QModelIndex()) -> int:
        """How many rows."""
        return 0 if parent.isValid() else len(self._rows)

    def columnCount(self, parent: QModelIndex = QModelIndex()) -> int:
        """How many columns."""
        return 0 if parent.isValid() else len(self._columns)

    def headerData(
        self,
        section: int,
        orientation: Qt.Orientation,
        role: int = Qt.ItemDataRole.DisplayRole,
    ) -> object:
        """Headings, over figures to the right."""
        if orientation != Qt.Orientation.Horizontal or not 0 <= section < len(self._columns):
            return None
        if role == Qt.ItemDataRole.DisplayRole:
            return self._columns[section].head
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return _RIGHT if self._columns[section].right else _LEFT
        return None

    def flags(self, index: QModelIndex) -> Qt.ItemFlag:
        """Typed columns can be edited."""
        flags = super().flags(index)
        if index.isValid() and self._columns[index.column()].typed:
            flags |= Qt.ItemFlag.ItemIsEditable
        return flags

    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        """Text and dress of a cell."""
        row = self.row(index.row()) if index.isValid() else None
        if row is None:
            return None
        column = index.column()
        match role:
            case Qt.ItemDataRole.DisplayRole | Qt.ItemDataRole.EditRole:
                return row.cells[column]
            case Qt.ItemDataRole.ToolTipRole:
                return row.tip or None
            case Qt.ItemDataRole.TextAlignmentRole:
                return _RIGHT if self._columns[column].right else _LEFT
            case Qt.ItemDataRole.ForegroundRole:
                return self._theme.colour(row.cell_colours.get(column, row.colour))
            case Qt.ItemDataRole.FontRole:
                return self._theme.font(14, weight=600 if row.bold else 400)
            case _:
                return None

    def setData(
        self, index: QModelIndex, value: object, role: int = Qt.ItemDataRole.EditRole
    ) -> bool:
        """Hand the text on."""
        row = self.row(index.row())
        if row is None or role != Qt.ItemDataRole.EditRole:
            return False
        text = str(value).strip()
        return text == row.cells[index.column()] or self._edit(row.key, index.column(), text)
