"""The learner's word: each asked check true or out, which way, and by how much."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.messages import practising as say
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit

_FIELD_PX: Final = 70


@dataclass(frozen=True, slots=True)
class Question:
    """One asked check as its row shows it.

    Attributes
    ----------
    allowed : str
        What is allowed, as one sees it.
    ways : (str, str)
        Above what is wanted, and below it.
    angular : bool
        Whether one says in degrees how far; else in mm.
    out : bool or None
        What is said; ``None`` for nothing yet.
    amount : float or None
        How far, as it is asked, with its sign; ``None`` where no figure was named.
    """

    check: str
    name: str
    allowed: str
    ways: tuple[str, str]
    angular: bool
    out: bool | None
    amount: float | None


class QuestionRow(QWidget):
    """One check: its name, true or out, and of what is out which way and how far.

    Signals
    -------
    said : object
        ``True`` out, ``False`` true, ``None`` taken back.
    amount_said : object
        How far off, signed, as it is asked; ``None`` for no figure.
    """

    said = pyqtSignal(object)
    amount_said = pyqtSignal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._question: Question | None = None
        self.name, self._allowed = label("heading", wrap=False), label("soft", wrap=False)
        self.true, self.out = QPushButton(say.TRUE), QPushButton(say.OUT)
        group = QButtonGroup(self)
        group.setExclusive(False)
        head = QHBoxLayout()
        head.setSpacing(6)
        head.addWidget(self.name)
        head.addWidget(self._allowed)
        head.addStretch(1)
        for button, out in ((self.true, False), (self.out, True)):
            button.setObjectName("tool")
            button.setCheckable(True)
            button.clicked.connect(lambda on, out=out: self.said.emit(out if on else None))
            group.addButton(button)
            head.addWidget(button)
        self.way = QComboBox()
        self.way.activated.connect(self._on_way)
        self.amount = QuantityEdit()
        self.amount.setToolTip(say.HOW_FAR)
        self.amount.line.setMaximumWidth(_FIELD_PX)
        self.amount.value_changed.connect(self._on_amount)
        self.amount.line.editingFinished.connect(self.finish)
        self._far = QWidget()
        row = QHBoxLayout(self._far)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.way, 1)
        row.addWidget(label("soft", say.BY, wrap=False))
        row.addWidget(self.amount)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 1, 0, 1)
        box.setSpacing(2)
        box.addLayout(head)
        box.addWidget(self._far)

    def show_question(self, question: Question, unit: LengthUnit) -> None:
        """Show it as it is answered so far."""
        self._question = question
        self.name.setText(question.name)
        self._allowed.setText(question.allowed)
        self.true.setChecked(question.out is False)
        self.out.setChecked(question.out is True)
        for button, words in ((self.true, say.TRUE), (self.out, say.OUT)):
            button.setAccessibleName(f"{question.name}: {words}")
        self._far.setVisible(question.out is True)
        if tuple(self.way.itemText(i) for i in range(self.way.count())) != question.ways:
            self.way.clear()
            self.way.addItems(question.ways)
        self.way.setAccessibleName(f"{question.name}, {say.OUT}")
        if question.amount is not None:
            self.way.setCurrentIndex(0 if question.amount > 0 else 1)
        self.amount.set_kind(angular=question.angular, unit=unit)
        self.amount.line.setAccessibleName(f"{question.name}: {say.HOW_FAR}")
        if question.amount is None:
            self.amount.set_value(None)
        else:
            self.amount.set_value(abs(question.amount))

    def _on_way(self, index: int) -> None:
        if self._question is not None and self._question.amount is not None:
            self._say(abs(self._question.amount), index)

    def _on_amount(self, amount: float) -> None:
        self._say(abs(amount), self.way.currentIndex())

    def finish(self) -> None:
        """What stands in the field counts, as when the cursor leaves it; an empty field takes the figure back."""
        question = self._question
        if question is None or question.out is not True:
            return
        if not self.amount.line.text().strip():
            if question.amount is not None:
                self.amount_said.emit(None)
        elif self.amount.line.isModified():
            self.amount.take()

    def _say(self, amount: float, way: int) -> None:
        self.amount_said.emit(amount if way == 0 else -amount)


class WordsCard(Card):
    """All that is asked, and the button that ends it.

    Signals
    -------
    said : str, object
        A check with ``True`` out, ``False`` true, ``None`` taken back.
    amount_said : str, object
        A check with how far off, as it is asked.
    done : (nothing)
        That is the learner's word.
    """

    said = pyqtSignal(str, object)
    amount_said = pyqtSignal(str, object)
    done = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.SAY_OF_EACH, "act")
        self.answer = label("answer")
        self.column.addWidget(self.answer)
        self._rows = QGridLayout()
        self._rows.setSpacing(0)
        self.column.addLayout(self._rows)
        self.rows: dict[str, QuestionRow] = {}
        self.finish = QPushButton(say.MY_WORD)
        self.finish.setObjectName("primary")
        self.finish.setShortcut(say.MY_WORD_KEY)
        self.finish.setToolTip(f"{say.MY_WORD} (Ctrl+Enter)")
        self.finish.clicked.connect(self._on_done)
        self.column.addWidget(self.finish)

    def show_questions(
        self, answer: str, questions: tuple[Question, ...], unit: LengthUnit, *, ready: bool
    ) -> None:
        """Show them; `ready` when something was said."""
        self.answer.setText(answer)
        if tuple(self.rows) != tuple(one.check for one in questions):
            for row in self.rows.values():
                self._rows.removeWidget(row)
                row.deleteLater()
            self.rows = {}
            for number, one in enumerate(questions):
                row = QuestionRow()
                row.said.connect(lambda out, check=one.check: self.said.emit(check, out))
                row.amount_said.connect(
                    lambda amount, check=one.check: self.amount_said.emit(check, amount)
                )
                self.rows[one.check] = row
                self._rows.addWidget(row, number, 0)
        for one in questions:
            self.rows[one.check].show_question(one, unit)
        self.finish.setEnabled(ready)

    def _on_done(self) -> None:
        for row in self.rows.values():
            row.finish()
        self.done.emit()
