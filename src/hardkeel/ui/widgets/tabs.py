"""Several pages in one place, one at a time, with their names along the top."""

from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.ui.theme import apply_style


class Tabs(QWidget):
    """A bar of names over a stack; a page that was never looked at is made when it is first wanted.

    Parameters
    ----------
    names : sequence of (key, words)
    wanted : callable
        Called with a key when its name is pressed.
    keys : str
        Shortcut of the pages, a number following: ``Ctrl+Shift``.
    """

    def __init__(
        self, names: Sequence[tuple[str, str]], wanted: Callable[[str], object], keys: str
    ) -> None:
        super().__init__()
        self.buttons: dict[str, QPushButton] = {}
        self._group = QButtonGroup(self)
        self._bar = QWidget()
        self._bar.setObjectName("bar")
        self._bar.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self._bar)
        row.setContentsMargins(10, 3, 10, 2)
        row.setSpacing(6)
        for i, (key, words) in enumerate(names, start=1):
            button = QPushButton(words)
            button.setObjectName("plain")
            button.setCheckable(True)
            button.setShortcut(f"{keys}+{i}")
            button.setToolTip(f"{words} ({keys}+{i})")
            button.clicked.connect(lambda _on, key=key: wanted(key))
            self._group.addButton(button)
            self.buttons[key] = button
            row.addWidget(button)
        row.addStretch(1)
        self._stack = QStackedWidget()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._bar)
        column.addWidget(self._stack, 1)
        self.buttons[names[0][0]].setChecked(True)

    def add(self, page: QWidget) -> None:
        """Take a page in."""
        self._stack.addWidget(page)

    def show_page(self, key: str, page: QWidget) -> None:
        """Show a page that was taken in, dressed."""
        self.buttons[key].setChecked(True)
        apply_style(page)
        self._stack.setCurrentWidget(page)

    def apply_style(self) -> None:
        """Put the style sheet on the names and the page that is seen."""
        apply_style(self._bar)
        page = self._stack.currentWidget()
        if page is not None:
            apply_style(page)
