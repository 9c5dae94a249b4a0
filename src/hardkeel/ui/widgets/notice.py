"""A strip under the keel line that says what happened and offers the way out; it asks for nothing."""

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QWidget

Answer = tuple[str, Callable[[], object]]


class Notice(QFrame):
    """One sentence with its answers."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setProperty("edge", "out")
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 7, 12, 7)
        self._text = QLabel()
        self._text.setWordWrap(True)
        self._text.setTextFormat(Qt.TextFormat.PlainText)
        self._row.addWidget(self._text, 1)
        self._buttons: list[QPushButton] = []
        self.hide()

    @property
    def text(self) -> str:
        """What it says."""
        return self._text.text()

    @property
    def buttons(self) -> list[QPushButton]:
        """The answers that it offers."""
        return list(self._buttons)

    def tell(self, text: str, *answers: Answer) -> None:
        """Say something, or nothing any more; every answer, and “All right”, takes the strip away first."""
        self._text.setText(text)
        self.setVisible(bool(text))
        for button in self._buttons:
            self._row.removeWidget(button)
            button.deleteLater()
        self._buttons = []
        for words, action in (*answers, ("All right" if not answers else "Not now", lambda: None)):
            button = QPushButton(words)
            button.clicked.connect(lambda _on, action=action: self._answer(action))
            self._row.addWidget(button)
            self._buttons.append(button)

    def _answer(self, action: Callable[[], object]) -> None:
        self.hide()
        action()
