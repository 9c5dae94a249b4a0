"""The cards beside Frame's benches: what to do now, what is wrong, which wood to buy."""

from collections.abc import Sequence
from dataclasses import dataclass

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.inspecting import Finding
from hardkeel.ui.kit.card import Card, label
from hardkeel.voice import frame as say


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
        super().__init__(say.NOW, "act")
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


class FindingCard(Card):
    """The worst that is wrong with the formers, with its figure and the way out.

    Signals
    -------
    shown : str
        The former is to be shown.
    """

    shown = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(say.LOOK_INTO)
        self.answer, self.more, self.rest = label("answer"), label("soft"), label("soft")
        self.show_it = QPushButton(say.SHOW_ME)
        self.show_it.setObjectName("tool")
        self.show_it.clicked.connect(lambda: self.shown.emit(self._former))
        self._former = ""
        row = QHBoxLayout()
        row.addWidget(self.show_it)
        row.addStretch(1)
        for widget in (self.answer, self.more, self.rest):
            self.column.addWidget(widget)
        self.column.addLayout(row)

    def show_findings(self, findings: Sequence[Finding], web: float, unit: LengthUnit) -> None:
        """Name the first, and how many more there are."""
        self.set_edge("out" if findings else "")
        self.show_it.setVisible(bool(findings))
        if not findings:
            self.eyebrow.setText(say.FORMERS)
            self.answer.setText(say.ALL_SOUND)
            self.more.setText(say.ALL_SOUND_WHY)
            self.rest.hide()
            return
        first = findings[0]
        self._former = first.former
        self.eyebrow.setText(f"{say.LOOK_INTO}: {first.former}")
        self.answer.setText(say.finding_title(first))
        self.more.setText(say.finding_sentence(first, unit, web))
        self.rest.setText(say.more_findings(len(findings) - 1))
        self.rest.setVisible(len(findings) > 1)


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
        self.answer.setVisible(bool(answer))
        self.lines.setText("\n".join(lines))
        self.lines.setVisible(bool(lines))
        self.setVisible(bool(answer or lines))
