"""The one model of a table: cells over a frozen snapshot, for every list that shows and takes text."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, Qt
from PyQt6.QtGui import QFont, QFontMetrics

from hardkeel.ui.theme import Theme

_PX: Final = 14
_DRESS: Final[dict[int, Literal["text", "tip", "side", "colour", "font"]]] = {
    int(Qt.ItemDataRole.DisplayRole): "text",
    int(Qt.ItemDataRole.EditRole): "text",
    int(Qt.ItemDataRole.ToolTipRole): "tip",
    int(Qt.ItemDataRole.TextAlignmentRole): "side",
    int(Qt.ItemDataRole.ForegroundRole): "colour",
    int(Qt.ItemDataRole.FontRole): "font",
}


@dataclass(frozen=True, slots=True)
class Column:
    """A column.

    Attributes
    ----------
    right : bool
        It holds figures.
    typed : bool
        It can be typed into, in rows that can.
    top : bool
        Its cells stand at the top of rows that go over several lines.
    """

    head: str
    right: bool = False
    typed: bool = False
    top: bool = False

    @property
    def side(self) -> Qt.AlignmentFlag:
        """Where its text stands."""
        across = Qt.AlignmentFlag.AlignRight if self.right else Qt.AlignmentFlag.AlignLeft
        return across | (Qt.AlignmentFlag.AlignTop if self.top else Qt.AlignmentFlag.AlignVCenter)


@dataclass(frozen=True, slots=True)
class Row:
    """A row.

    Attributes
    ----------
    key : str
        What it is, for who hears of it.
    colour, cell_colours : str, dict of int to str
        Names in the palette: of the row, and of single columns.
    tip : str
        What a pointer is told.
    weight : int
        Of its letters: 400 is plain.
    struck : bool
        Struck through.
    typed : bool
        Whether it can be typed into where its column can.
    """

    key: str
    cells: tuple[str, ...]
    colour: str = "ink"
    tip: str = ""
    weight: int = 400
    struck: bool = False
    typed: bool = True
    cell_colours: dict[int, str] = field(default_factory=dict)


def _shared(a: tuple[Row, ...], b: tuple[Row, ...]) -> int:
    """How many rows from the top have the same keys."""
    count = 0
    for one, other in zip(a, b, strict=False):
        if one.key != other.key:
            break
        count += 1
    return count


class CellsModel(QAbstractTableModel):
    """Rows of text.

    Parameters
    ----------
    edit : callable, optional
        Given a row's key, the column and the text typed; tells whether it was taken.
    """

    def __init__(
        self,
        columns: Sequence[Column],
        theme: Theme,
        edit: Callable[[str, int, str], bool] = lambda _key, _column, _text: False,
        parent: QObject | None = None,
    ) -> None:
        super().__init__(parent)
        self._columns = tuple(columns)
        self._theme = theme
        self._edit = edit
        self._rows: tuple[Row, ...] = ()

    def show_rows(self, rows: Sequence[Row], theme: Theme) -> None:
        """Show another snapshot; a view keeps its place and selection as far as the rows are the same."""
        made, before = tuple(rows), len(self._rows)
        themed, self._theme = theme is not self._theme, theme
        same = _shared(made, self._rows)
        if not same:
            self.beginResetModel()
            self._rows = made
            self.endResetModel()
            return
        if before > same:
            self.beginRemoveRows(QModelIndex(), same, before - 1)
            self._rows = self._rows[:same]
            self.endRemoveRows()
        if len(made) > same:
            self.beginInsertRows(QModelIndex(), same, len(made) - 1)
            self._rows += made[same:]
            self.endInsertRows()
        other = [i for i in range(same) if made[i] != self._rows[i]]
        if themed:
            other = list(range(same))
        self._rows = made
        if other:
            last = self.index(other[-1], len(self._columns) - 1)
            self.dataChanged.emit(self.index(other[0], 0), last)

    def row(self, number: int) -> Row | None:
        """The row with this number."""
        return self._rows[number] if 0 <= number < len(self._rows) else None

    def number_of(self, key: str) -> int:
        """The number of the row with this key; −1 where there is none."""
        return next((i for i, row in enumerate(self._rows) if row.key == key), -1)

    def text_width(self, column: int) -> int:
        """How wide the widest text of a column is, pixels."""
        if not self._rows:
            return 0
        metrics = {
            row.weight: QFontMetrics(self._theme.font(_PX, weight=row.weight)) for row in self._rows
        }
        return max(metrics[row.weight].horizontalAdvance(row.cells[column]) for row in self._rows)

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
            return self._columns[section].side
        return None

    def flags(self, index: QModelIndex) -> Qt.ItemFlag:
        """What is typed can be edited."""
        flags = super().flags(index)
        row = self.row(index.row())
        if row is not None and row.typed and self._columns[index.column()].typed:
            flags |= Qt.ItemFlag.ItemIsEditable
        return flags

    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        """Text and dress of a cell."""
        restyle = _DRESS.get(role)  # painting asks for some thousand roles, most of them not ours
        row = self.row(index.row()) if restyle is not None and index.isValid() else None
        if row is None or restyle is None:
            return None
        column = index.column()
        match restyle:
            case "text":
                return row.cells[column]
            case "tip":
                return row.tip or None
            case "side":
                return self._columns[column].side
            case "colour":
                return self._theme.colour(row.cell_colours.get(column, row.colour))
            case "font":
                return self._font(row)

    def _font(self, row: Row) -> QFont:
        font = self._theme.font(_PX, weight=row.weight)
        if row.struck:
            font = QFont(font)  # a copy: fonts are shared
            font.setStrikeOut(True)
        return font

    def setData(
        self, index: QModelIndex, value: object, role: int = Qt.ItemDataRole.EditRole
    ) -> bool:
        """Hand the text on."""
        row = self.row(index.row())
        if row is None or role != Qt.ItemDataRole.EditRole:
            return False
        text = str(value).strip()
        return text == row.cells[index.column()] or self._edit(row.key, index.column(), text)
