"""Which parts and marks the survey has, and the builder's own marks."""

from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QPushButton

from hardkeel.airframe.arranging import wanting
from hardkeel.airframe.bodies import bodies_of, marks_from
from hardkeel.messages import layout as say
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import body_name, mark_name, sentence_case
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE, OWN_TARGET
from hardkeel.ui.widgets.card import Card, label


class MarksCard(Card):
    """Puts wing and tail on where they are missing; takes marks and gives them up."""

    def __init__(self) -> None:
        super().__init__(say.WING_TAIL_AND_MARKS)
        self._says = label("soft")
        self.put_on = QPushButton(say.PUT_WING_AND_TAIL_ON)
        self.put_on.setObjectName("primary")
        self.mark = QLineEdit()
        self.mark.setAccessibleName("a mark of your own")
        self.mark.setPlaceholderText("a mark of your own: name, x, y, z")
        self.part = QLineEdit()
        self.part.setAccessibleName("a part of your own")
        self.part.setPlaceholderText("a part of your own: name, x, y, z, long, wide, angle")
        self.part.setToolTip(say.PART_TIP)
        self.own_marks = QComboBox()
        self.own_marks.setAccessibleName("your own marks")
        self.unmark = QPushButton(say.TAKE_THAT_MARK_AWAY)
        self.unmark.setObjectName("tool")
        for widget in (self._says, self.put_on, self.mark, self.part):
            self.column.addWidget(widget)
        row = QHBoxLayout()
        row.addWidget(self.own_marks, 1)
        row.addWidget(self.unmark)
        self.column.addLayout(row)

    def show_marks(self, build: Build, body: str) -> None:
        """Say which parts and marks there are; offer what is missing."""
        survey = build.surveyed
        drawn = {mark.id for mark in marks_from(build)}
        for_hands = [mark for mark in survey.marks if not mark.id.startswith(OWN_TARGET)]
        own = [mark for mark in for_hands if mark.id not in drawn]
        self.own_marks.clear()
        figures = {one.id for one in bodies_of(build)}
        parts = [one for one in survey.bodies if one.id not in figures]
        its = {one.id for one in parts}
        for mark in own:
            if mark.body not in its:  # a part's own go with it
                self.own_marks.addItem(mark_name(survey, mark.id), mark.id)
        for one in parts:
            self.own_marks.addItem(body_name(survey, one.id), (one.id,))
        self.own_marks.setCurrentIndex(self.own_marks.count() - 1)  # a slip is taken away at once
        for widget in (self.own_marks, self.unmark):
            widget.setVisible(self.own_marks.count() > 0)
        names = [body_name(survey, one.id) for one in survey.bodies if one.id != FUSELAGE]
        missing = not build.wings or wanting(build.tail)
        words = f"{', '.join(names) or say.ONLY_A_FUSELAGE_YET}. {number_of(len(for_hands), 'mark')} for truing"
        words += f", {len(own)} of your own." if own else "."
        self._says.setText(sentence_case(words))
        self.comes_to(number_of(len(for_hands), "mark"))
        self.put_on.setVisible(bool(missing))
        if missing:
            self.lay_open()
        self.mark.setVisible(bool(names))
        self.part.setVisible(bool(build.wings))
        on = body_name(survey, body) if body else "fuselage"
        self.mark.setToolTip(say.mark_belongs_to(on))
