"""Cards that say one thing: what to do now, and an answer with lines beneath it."""

from collections.abc import Sequence
from dataclasses import dataclass

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.messages.order import NOW
from hardkeel.ui.widgets.card import Card, label


@dataclass(frozen=True, slots=True)
class Doing:
    """The one thing to do now.

    Attributes
    ----------
    button : str
        What the button says; empty for none.
    key : str
        What it asks for.
    """

    answer: str
    why: str = ""
    caution: str = ""
    button: str = ""
    key: str = ""


class NowCard(Card):
    """What to do now, and why.

    Signals
    -------
    asked : str
        The button was pressed; the key of what it asks for.
    """

    asked = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(NOW, "act")
        self.answer, self.why, self.caution = label("answer"), label("soft"), label("soft")
        self.button = QPushButton()
        self.button.setObjectName("primary")
        self.button.clicked.connect(lambda: self.asked.emit(self._key))
        self._key = ""
        row = QHBoxLayout()
        row.addWidget(self.button)
        row.addStretch(1)
        for widget in (self.answer, self.why, self.caution):
            self.column.addWidget(widget)
        self.column.addLayout(row)

    def show_doing(self, doing: Doing) -> None:
        """Say it."""
        self._key = doing.key
        for widget, text in (
            (self.answer, doing.answer),
            (self.why, doing.why),
            (self.caution, doing.caution),
        ):
            widget.setText(text)
            widget.setVisible(bool(text))
        self.button.setText(doing.button)
        self.button.setVisible(bool(doing.button))


class LinesCard(Card):
    """An answer with lines beneath it."""

    def __init__(self, eyebrow: str) -> None:
        super().__init__(eyebrow)
        self.answer, self.lines = label("answer"), label("soft")
        self.column.addWidget(self.answer)
        self.column.addWidget(self.lines)

    def show_lines(self, answer: str, lines: Sequence[str]) -> None:
        """Say it; without an answer or lines only the rest is there."""
        self.answer.setText(answer)
        said_above = self.fold_line is not None and bool(
            lines
        )  # the line says it, but opens on something
        self.answer.setVisible(bool(answer) and not said_above)
        self.comes_to(answer)
        self.lines.setText("\n".join(lines))
        self.lines.setVisible(bool(lines))
        self.setVisible(bool(answer or lines))
