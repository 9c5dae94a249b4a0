"""A layout that breaks its row when there is no more room, as words in a paragraph do."""

from PyQt6.QtCore import QPoint, QRect, QSize, Qt
from PyQt6.QtWidgets import QLayout, QLayoutItem, QWidget


class FlowLayout(QLayout):
    """Items side by side, `gap` pixels apart, on as many rows as they need."""

    def __init__(self, parent: QWidget | None = None, gap: int = 4) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._gap = gap
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem | None) -> None:  # noqa: N802  Qt's own name
        """Add at the end."""
        if item is not None:
            self._items.append(item)

    def count(self) -> int:
        """How many items."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:  # noqa: N802  Qt's own name
        """The item with this number."""
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:  # noqa: N802  Qt's own name
        """Take the item out."""
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:  # noqa: N802  Qt's own name
        """In none."""
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:  # noqa: N802  Qt's own name
        """The height depends on the width."""
        return True

    def heightForWidth(self, width: int) -> int:
        """Height of all rows."""
        return self._lay(QRect(0, 0, width, 0), move=False)

    def setGeometry(self, rect: QRect) -> None:  # noqa: N802  Qt's own name
        """Place the items."""
        super().setGeometry(rect)
        self._lay(rect, move=True)

    def sizeHint(self) -> QSize:
        """As small as it goes."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:  # noqa: N802  Qt's own name
        """The widest item."""
        size = QSize()
        for item in self._items:
            if not item.isEmpty():
                size = size.expandedTo(item.minimumSize())
        return size

    def _lay(self, rect: QRect, *, move: bool) -> int:
        x, y, row = rect.x(), rect.y(), 0
        for item in self._items:
            if item.isEmpty():
                continue  # a hidden widget takes no room
            size = item.sizeHint()
            if x + size.width() > rect.right() + 1 and row:
                x, y, row = rect.x(), y + row + self._gap, 0
            if move:
                item.setGeometry(QRect(QPoint(x, y), size))
            x += size.width() + self._gap
            row = max(row, size.height())
        return y + row - rect.y()
