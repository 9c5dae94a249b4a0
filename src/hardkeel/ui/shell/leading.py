"""What leads on from the first page: a painted button, opened by a click, Enter or Space."""

from PyQt6.QtCore import QEvent, QRectF, Qt
from PyQt6.QtGui import QEnterEvent, QKeyEvent, QPainter, QPen
from PyQt6.QtWidgets import QAbstractButton, QWidget

from hardkeel.ui.theme import Theme


class Leading(QAbstractButton):
    """Shows by its frame that it can be opened."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.theme = theme
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self.theme = theme
        self.updateGeometry()
        self.update()

    def enterEvent(self, event: QEnterEvent | None) -> None:
        """Show that it can be opened."""
        super().enterEvent(event)
        self.update()

    def leaveEvent(self, event: QEvent | None) -> None:
        """Rest again."""
        super().leaveEvent(event)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter opens it, as Space does."""
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)

    def paint_frame(self, painter: QPainter, box: QRectF) -> None:
        """A hair, or a line where it is in hand."""
        warm = self.hasFocus() or self.underMouse()
        painter.setPen(QPen(self.theme.colour("act" if warm else "hair"), 2.4 if warm else 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)
