"""A group of fields folded under a line that says its values."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from hardkeel.ui.widgets.fold_line import FoldLine


class Folded(QWidget):
    """A line with a name and what it comes to; a press unfolds the fields.

    Signals
    -------
    opened : (nothing)
        It was unfolded by hand.
    """

    opened = pyqtSignal()

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._first = 0
        self.line = FoldLine(name, rim=0)  # its card has one
        self.line.toggled.connect(self._on_toggled)
        self.fields = QWidget()
        self.grid = QGridLayout(self.fields)
        self.grid.setContentsMargins(14, 2, 6, 6)
        self.grid.setVerticalSpacing(3)
        self.grid.setHorizontalSpacing(8)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 2)
        box.setSpacing(0)
        box.addWidget(self.line)
        box.addWidget(self.fields)
        self.fields.hide()

    def show_values(self, words: str) -> None:
        """What its fields come to."""
        self.line.show_value(words)

    def put_across(self, widget: QWidget) -> None:
        """A widget over the whole width, in a row of its own."""
        self.grid.addWidget(widget, self.grid.rowCount(), 0, 1, 4)

    def put_pair(self, number: int, words: QWidget, field: QWidget) -> None:
        """The next of the fields, two to a row, each behind its words."""
        row = self._first + number // 2
        column = 2 * (number % 2)
        self.grid.addWidget(words, row, column, Qt.AlignmentFlag.AlignTop)
        self.grid.addWidget(field, row, column + 1, Qt.AlignmentFlag.AlignTop)

    def begin_pairs(self) -> None:
        """Pairs stand below what is there."""
        self._first = self.grid.rowCount()

    def fold(self, *, away: bool) -> None:
        """Fold it away, or unfold it."""
        self.line.setChecked(not away)

    def _on_toggled(self, is_open: bool) -> None:  # noqa: FBT001  a signal's slot
        self.fields.setVisible(is_open)
        if is_open:
            self.opened.emit()
