"""Which parts and marks the survey has, and the builder's own marks."""

from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QPushButton

from hardkeel.airframe.bodies import marks_from
from hardkeel.survey.model import FUSELAGE
from hardkeel.ui.kit.card import Card, label
from hardkeel.voice.names import body_name, mark_name, sentence_case

if TYPE_CHECKING:
    from hardkeel.build.model import Build


class MarksCard(Card):
    """Puts wing and tail on where they are missing; takes marks and gives them up."""

    def __init__(self) -> None:
        super().__init__("Wing, tail and marks")
        self._says = label("soft")
        self.put_on = QPushButton("Put wing and tail on")
        self.put_on.setObjectName("primary")
        self.mark = QLineEdit()
        self.mark.setAccessibleName("a mark of your own")
        self.mark.setPlaceholderText("a mark of your own: name, x, y, z")
        self.own_marks = QComboBox()
        self.own_marks.setAccessibleName("your own marks")
        self.unmark = QPushButton("Take that mark away")
        self.unmark.setObjectName("tool")
        for widget in (self._says, self.put_on, self.mark):
            self.column.addWidget(widget)
        row = QHBoxLayout()
        row.addWidget(self.own_marks, 1)
        row.addWidget(self.unmark)
        self.column.addLayout(row)

    def show_marks(self, build: "Build", body: str) -> None:
        """Say which parts and marks there are; offer what is missing."""
        survey = build.surveyed
        drawn = {mark.id for mark in marks_from(build)}
        own = [mark for mark in survey.marks if mark.id not in drawn]
        self.own_marks.clear()
        for mark in own:
            self.own_marks.addItem(mark_name(survey, mark.id), mark.id)
        for widget in (self.own_marks, self.unmark):
            widget.setVisible(bool(own))
        names = [body_name(survey, one.id) for one in survey.bodies if one.id != FUSELAGE]
        missing = not build.wings or {"stab", "fin"} - {tail.id for tail in build.tail}
        words = f"{', '.join(names) or 'Only a fuselage yet'}. {len(survey.marks)} marks for truing"
        words += f", {len(own)} of your own." if own else "."
        self._says.setText(sentence_case(words))
        self.put_on.setVisible(bool(missing))
        self.mark.setVisible(bool(names))
        on = body_name(survey, body) if body else "fuselage"
        self.mark.setToolTip(f"It belongs to the {on}. Lengths from the datum: aft, starboard, up.")
