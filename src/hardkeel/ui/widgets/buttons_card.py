"""A card that asks a question and has its answers as buttons."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.ui.widgets.answers import Answers
from hardkeel.ui.widgets.card import Card, label


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
        self._answers = Answers()
        self._answers.given.connect(self.answered)
        self.column.addLayout(self._answers)
        self.column.addWidget(self.said)
        self.set_answers(answers)

    @property
    def buttons(self) -> dict[str, QPushButton]:
        """The answers by their keys."""
        return self._answers.buttons

    def set_answers(self, answers: Sequence[tuple[str, str]]) -> None:
        """Offer these, keys with words; those that are there already stay."""
        self._answers.offer(answers)

    def show_answer(self, key: str, said: str = "") -> None:
        """Which answer is given, and what follows from it."""
        self._answers.show_given(key)
        given = self.buttons.get(key)
        self.comes_to(given.text() if given is not None else "")
        self.said.setText(said)
        self.said.setVisible(bool(said))
