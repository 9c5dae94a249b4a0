"""The keel line with the build's name, the answer in a line, and the switches."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QMenu, QPushButton, QVBoxLayout, QWidget

from hardkeel.messages import shell as say
from hardkeel.ui.shell.keel_line import KeelLine
from hardkeel.ui.theme import Theme

_LEFT_PX = 226


class Header(QWidget):
    """The top of the window.

    Signals
    -------
    unit_toggled, theme_toggled : (nothing)
        A switch was pressed.
    body_picked : str
        A part on the keel line.
    """

    unit_toggled = pyqtSignal()
    theme_toggled = pyqtSignal()
    body_picked = pyqtSignal(str)

    def __init__(self, theme: Theme, menu: QMenu, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.keel = KeelLine(theme)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.keel)
        self._corner = QWidget(self.keel)
        column = QVBoxLayout(self._corner)
        column.setContentsMargins(16, 8, 0, 6)
        column.setSpacing(1)
        self._name = QLabel()
        self._name.setObjectName("title")
        self._state = QLabel()
        self._state.setObjectName("soft")
        self._answer = QLabel()
        self._answer.setObjectName("answer")
        self._answer.setWordWrap(True)
        for widget in (self._name, self._state, self._answer):
            column.addWidget(widget)
        column.addStretch(1)
        row = QHBoxLayout()
        row.setSpacing(2)
        self.menu_button = QPushButton(say.BUILD)
        self.menu_button.setObjectName("tool")
        self.menu_button.setMenu(menu)
        self.menu_button.setShortcut("Alt+B")
        self.menu_button.setToolTip(say.MENU_TIP)
        self.unit_button = QPushButton()
        self.unit_button.setToolTip(say.UNIT_TIP)
        self.theme_button = QPushButton()
        self.theme_button.setToolTip(say.LIGHT_OR_DARK)
        row.addWidget(self.menu_button)
        for button in (self.unit_button, self.theme_button):
            button.setObjectName("plain")
            row.addWidget(button)
        row.addStretch(1)
        column.addLayout(row)
        self.unit_button.clicked.connect(self.unit_toggled)
        self.theme_button.clicked.connect(self.theme_toggled)
        self.keel.body_picked.connect(self.body_picked)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.keel.set_theme(theme)
        self._corner.setGeometry(0, 0, theme.px(_LEFT_PX), self.keel.sizeHint().height() - 2)
        self.theme_button.setText(theme.name)
        self._show_name(self._name.toolTip())

    def show_build(self, name: str, state: str, answer: str, *, out: bool) -> None:
        """Show the build's name, how it stands on disk, and the answer; `out` when something is."""
        self._answer.setProperty("out", out)
        style = self._answer.style()
        if style is not None:
            style.unpolish(self._answer)
            style.polish(self._answer)
        self._show_name(name)
        self._state.setText(state)
        self._answer.setText(answer)

    def show_unit(self, unit: str) -> None:
        """Show which unit is used."""
        self.unit_button.setText("mm" if unit == "mm" else "inch")

    def _show_name(self, name: str) -> None:
        self._name.setToolTip(name)
        metrics = self._name.fontMetrics()
        room = self._corner.width() - 24
        self._name.setText(metrics.elidedText(name, Qt.TextElideMode.ElideRight, room))
