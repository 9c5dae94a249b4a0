"""The card beside Frame's benches that says what is wrong with the formers."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.inspecting import Finding
from hardkeel.messages import findings as findings_say
from hardkeel.messages import frame as say
from hardkeel.ui.widgets.card import Card, label


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
        self.answer.setText(findings_say.finding_title(first))
        self.more.setText(findings_say.finding_sentence(first, unit, web))
        self.rest.setText(say.more_findings(len(findings) - 1))
        self.rest.setVisible(len(findings) > 1)
