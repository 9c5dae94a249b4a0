"""A card that asks a question and has its answers as buttons."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.flow import FlowLayout


class ButtonsCard(Card):
    """A question with its answers as buttons; the one that is given is down.

    Signals
    -------
    answered : str
        Its key.
    """

    answered = pyqtSignal(str)

    def __init__(self, question: str, answers: Sequence[tuple[str, str]]) -> None:
        super().__init__(question)
        self.said = label("soft")
        self.buttons: dict[str, QPushButton] = {}
        self._row = FlowLayout(gap=6)
        self.column.addLayout(self._row)
        self.column.addWidget(self.said)
        self.set_answers(answers)

    def set_answers(self, answers: Sequence[tuple[str, str]]) -> None:
        """Offer these, keys with words; those that are there already stay."""
        if [key for key, _ in answers] == list(self.buttons):
            return
        for button in self.buttons.values():
            self._row.removeWidget(button)
            button.deleteLater()
        self.buttons = {}
        for key, words in answers:
            button = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, key=key: self.answered.emit(key))
            self.buttons[key] = button
            self._row.addWidget(button)

    def show_answer(self, key: str, said: str = "") -> None:
        """Which answer is given, and what follows from it."""
        for one, button in self.buttons.items():
            button.setChecked(one == key)
        self.said.setText(said)
        self.said.setVisible(bool(said))
