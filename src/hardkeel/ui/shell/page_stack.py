"""Pages of which one is seen: the window need be no larger than that one wants."""

from PyQt6.QtCore import QSize
from PyQt6.QtWidgets import QStackedWidget, QWidget


class PageStack(QStackedWidget):
    """As a stack of Qt's, but what is not seen takes no room: a page that was never dressed wants more than it will."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.currentChanged.connect(lambda _number: self.updateGeometry())

    def minimumSizeHint(self) -> QSize:
        """That of the page that is seen."""
        page = self.currentWidget()
        return page.minimumSizeHint() if page is not None else super().minimumSizeHint()
