"""While the glue sets: what it holds, what to read again, how long there is, what has moved."""

from typing import Final

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QSpinBox

from hardkeel.base.units import LengthUnit
from hardkeel.edits.truing import LONGEST_POT_LIFE
from hardkeel.messages import gluing as say
from hardkeel.messages.names import body_name
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, BackTo, Survey
from hardkeel.ui.document.document import Clock
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card import label

_TICK_MS: Final = 5_000
_USUAL: Final = 30  # minutes: a slow epoxy


class GluingCard(ButtonsCard):
    """What the glue holds, the pot life running, the short list, and what has moved since the dry fit.

    Signals
    -------
    mixed : float
        The glue is mixed and can be worked for so many minutes.
    brought_back : (nothing)
        What has moved was moved back.
    aimed : str
        Where it is to be brought back to.
    """

    mixed = pyqtSignal(float)
    brought_back = pyqtSignal()
    aimed = pyqtSignal(str)

    def __init__(self, clock: Clock) -> None:
        super().__init__(say.GLUED, ())
        self._clock = clock
        self._shown: tuple[Survey, Judgement, LengthUnit] | None = None
        self._asked: tuple[str, str] | None = None  # a body, and what was asked before it is glued
        self.time = label("big")
        self.minutes = QSpinBox()
        self.minutes.setRange(1, int(LONGEST_POT_LIFE))
        self.minutes.setValue(_USUAL)
        self.minutes.setSuffix(" min")
        self.minutes.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
        self.minutes.setAccessibleName(say.MINUTES)
        self.start = QPushButton(say.MIXED_NOW)
        self.start.setToolTip(say.MIXED_TIP)
        self.start.clicked.connect(lambda: self.mixed.emit(float(self.minutes.value())))
        row = QHBoxLayout()
        row.addWidget(label("soft", say.POT_LIFE, wrap=False))
        row.addWidget(self.minutes)
        row.addWidget(self.start)
        row.addStretch(1)
        self.list = label("soft")
        self.back = QPushButton(say.BROUGHT_BACK)
        self.back.setObjectName("primary")
        self.back.setToolTip(say.BROUGHT_TIP)
        self.back.clicked.connect(self.brought_back)
        self.where: dict[BackTo, QPushButton] = {}
        where = self._where_to()
        self.column.addLayout(where)
        self.column.insertWidget(2, self.time)
        self.column.insertLayout(3, row)
        self.column.addWidget(self.back)
        self.column.addWidget(self.list)
        self._row_parts = [
            item
            for line in (row, where)
            for i in range(line.count())
            if (item := line.itemAt(i)) is not None
        ]
        self._tick = QTimer(self)
        self._tick.setInterval(_TICK_MS)
        self._tick.setTimerType(Qt.TimerType.CoarseTimer)
        self._tick.timeout.connect(self.show_time)
        self.hide()

    def _where_to(self) -> QHBoxLayout:
        """Where what has moved is brought back to."""
        row = QHBoxLayout()
        row.addWidget(label("soft", say.BACK_TO, wrap=False))
        for key, words in say.WHERE_TO:
            button = self.where[key] = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, key=key: self.aimed.emit(key))
            row.addWidget(button)
        row.addStretch(1)
        return row

    def show_build(self, survey: Survey, judgement: Judgement, unit: LengthUnit) -> None:
        """A button for each body; what has moved in words."""
        self._shown = (survey, judgement, unit)
        self._asked = None
        bodies = [body.id for body in survey.bodies if body.id != FUSELAGE]
        answers = [("", say.NOTHING), *((one, body_name(survey, one)) for one in bodies)]
        self.set_answers(answers)
        gluing = survey.gluing
        for item in self._row_parts:
            widget = item.widget()
            if widget is not None:
                widget.setVisible(gluing is not None and judgement.phase == "wet")
        if gluing is not None and gluing.pot_life is not None and not self.minutes.hasFocus():
            self.minutes.setValue(round(gluing.pot_life))
        for key, button in self.where.items():
            button.setChecked(gluing is not None and gluing.back_to == key)
        listed = say.list_words(survey, judgement)
        self.list.setText(listed)
        self.list.setVisible(bool(listed))
        self.show_time()

    def ask(self, body: str, question: str) -> bool:
        """Ask before a body is glued; false where just this was asked, and the answer is yes."""
        if self._asked == (body, question):
            return False
        self._asked = (body, question)
        self.show_time()
        return True

    def show_time(self) -> None:
        """How long there is, and what to do in it."""
        if self._shown is None:
            return
        survey, judgement, unit = self._shown
        gluing = survey.gluing
        wet = gluing is not None and judgement.phase == "wet"
        left = gluing.minutes_left(self._clock()) if gluing is not None and wet else None
        self.back.setVisible(bool(say.to_bring_back(survey, judgement, left)))
        self.time.setText(say.time_words(left))
        self.time.setVisible(left is not None)
        said = say.movement_words(survey, judgement, unit, left)
        self.show_answer(gluing.body if gluing is not None else "", said or say.LEANS)
        if self._asked is not None:
            self.said.setText(self._asked[1])
        if left is not None and left > 0:
            self._tick.start()
        else:
            self._tick.stop()
