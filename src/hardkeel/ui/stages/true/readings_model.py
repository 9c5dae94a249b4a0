"""Readings as a table: what, value, how it fits, and a word about it."""

from collections.abc import Callable
from dataclasses import dataclass
from enum import IntEnum
from typing import Final, Literal

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, Qt
from PyQt6.QtGui import QFont

from hardkeel.ui.theme import Theme

State = Literal["fits", "doubtful", "ignored", "wanted"]


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """One row, in the builder's units.

    Attributes
    ----------
    id : str
        Of the reading, or of the plan's entry for one not yet taken.
    state : str
        ``fits``, ``doubtful`` (set aside), ``ignored`` or ``wanted`` (not yet taken).
    """

    id: str
    what: str
    value: str
    residual: str
    note: str
    state: State


def _shared(a: tuple[ReadingRow, ...], b: tuple[ReadingRow, ...]) -> int:
    """How many rows from the top are the same readings."""
    count = 0
    for one, other in zip(a, b, strict=False):
        if one.id != other.id:
            break
        count += 1
    return count


class Column(IntEnum):
    """Columns in order."""

    ID = 0
    WHAT = 1
    VALUE = 2
    RESIDUAL = 3
    NOTE = 4


_HEADINGS: Final = ("", "Reading", "Value", "Off", "")
_RIGHT: Final = (Column.VALUE, Column.RESIDUAL)


class ReadingsModel(QAbstractTableModel):
    """A frozen list of rows; a typed value goes out through a callback.

    Parameters
    ----------
    edit_value : callable
        Given a reading's id and the text typed; tells whether it was taken.
    """

    def __init__(
        self, edit_value: Callable[[str, str], bool], theme: Theme, parent: QObject | None = None
    ) -> None:
        super().__init__(parent)
        self._rows: tuple[ReadingRow, ...] = ()
        self._edit_value = edit_value
        self._theme = theme

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.layoutChanged.emit()

    def show_rows(self, rows: tuple[ReadingRow, ...]) -> None:
        """Show another snapshot; the view keeps its place as far as the rows are the same ones."""
        same = _shared(rows, self._rows)
        if not same:
            self.beginResetModel()
            self._rows = rows
            self.endResetModel()
            return
        if len(self._rows) > same:
            self.beginRemoveRows(QModelIndex(), same, len(self._rows) - 1)
            self._rows = self._rows[:same]
            self.endRemoveRows()
        if len(rows) > same:
            self.beginInsertRows(QModelIndex(), same, len(rows) - 1)
            self._rows += rows[same:]
            self.endInsertRows()
        self._rows = rows
        self.dataChanged.emit(self.index(0, 0), self.index(same - 1, len(Column) - 1))

    def row(self, number: int) -> ReadingRow | None:
        """The row with this number."""
        return self._rows[number] if 0 <= number < len(self._rows) else None

    def number_of(self, reading: str) -> int:
        """The row number of a reading; −1 where it is not shown."""
        return next((i for i, row in enumerate(self._rows) if row.id == reading), -1)

    def rowCount(self, parent: QModelIndex = QModelIndex()) -> int:
        """How many rows."""
        return 0 if parent.isValid() else len(self._rows)

    def columnCount(self, parent: QModelIndex = QModelIndex()) -> int:
        """How many columns."""
        return 0 if parent.isValid() else len(Column)

    def headerData(
        self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole
    ) -> object:
        """Column headings."""
        if orientation != Qt.Orientation.Horizontal:
            return None
        if role == Qt.ItemDataRole.DisplayRole and 0 <= section < len(_HEADINGS):
            return _HEADINGS[section]
        if role == Qt.ItemDataRole.TextAlignmentRole and section in _RIGHT:
            return Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        return None

    def flags(self, index: QModelIndex) -> Qt.ItemFlag:
        """Values of readings that were taken can be typed over."""
        flags = super().flags(index)
        row = self.row(index.row())
        if row is not None and index.column() == Column.VALUE and row.state != "wanted":
            flags |= Qt.ItemFlag.ItemIsEditable
        return flags

    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        """Text and dress of a cell."""
        row = self.row(index.row()) if index.isValid() else None
        if row is None:
            return None
        match role:
            case Qt.ItemDataRole.DisplayRole | Qt.ItemDataRole.EditRole:
                number = str(index.row() + 1) if row.state != "wanted" else "·"
                return (number, row.what, row.value, row.residual, row.note)[index.column()]
            case Qt.ItemDataRole.TextAlignmentRole:
                side = (
                    Qt.AlignmentFlag.AlignRight
                    if index.column() in _RIGHT
                    else Qt.AlignmentFlag.AlignLeft
                )
                return side | Qt.AlignmentFlag.AlignVCenter
            case Qt.ItemDataRole.ForegroundRole:
                return self._theme.colour(self._colour(row, index.column()))
            case Qt.ItemDataRole.FontRole:
                return self._font(row)
            case Qt.ItemDataRole.ToolTipRole:
                return f"{row.id}: {row.what}  {row.note}".strip()
            case _:
                return None

    def setData(
        self, index: QModelIndex, value: object, role: int = Qt.ItemDataRole.EditRole
    ) -> bool:
        """Hand a typed value on."""
        row = self.row(index.row())
        if row is None or role != Qt.ItemDataRole.EditRole or index.column() != Column.VALUE:
            return False
        return self._edit_value(row.id, str(value))

    def _colour(self, row: ReadingRow, column: int) -> str:
        if row.state == "doubtful":
            return "out"
        if row.state in ("ignored", "wanted") or column in (Column.ID, Column.NOTE):
            return "soft"
        return "ink"

    def _font(self, row: ReadingRow) -> QFont:
        font = self._theme.font(14, weight=600 if row.state == "doubtful" else 400)
        font.setStrikeOut(row.state == "ignored")
        return font
