"""Answers as buttons in a row that breaks; one of them is down."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.ui.widgets.flow import FlowLayout


class Answers(FlowLayout):
    """Buttons by their keys.

    Signals
    -------
    given : str
        The key of the one that was pressed.
    """

    given = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(gap=6)
        self.buttons: dict[str, QPushButton] = {}

    def offer(self, answers: Sequence[tuple[str, str]]) -> None:
        """Offer these, keys with words; those that are there already stay."""
        if [key for key, _ in answers] == list(self.buttons):
            return
        for button in self.buttons.values():
            self.removeWidget(button)
            button.deleteLater()
        self.buttons = {}
        for key, words in answers:
            button = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, key=key: self.given.emit(key))
            self.buttons[key] = button
            self.addWidget(button)

    def show_given(self, key: str) -> None:
        """Which one is down."""
        for one, button in self.buttons.items():
            button.setChecked(one == key)
