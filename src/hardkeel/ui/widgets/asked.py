"""A newcomer's question with its answer, where the question arises."""

from PyQt6.QtWidgets import QWidget

from hardkeel.messages.newcomer import Question
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.folded import Folded


class Asked(Folded):
    """The question as a line; a press shows the answer."""

    def __init__(self, question: Question, parent: QWidget | None = None) -> None:
        super().__init__(question.asked, parent)
        self.put_across(label("soft", question.answer))
