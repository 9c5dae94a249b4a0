"""What the builder may set of a step: its minutes, its glue, what to look for before it, what it takes and waits for, a note."""

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QLineEdit, QWidget

from hardkeel.airframe.orders.craft import tools_of
from hardkeel.glue.kinds import KINDS
from hardkeel.messages import order as say
from hardkeel.messages.steps import hold_of
from hardkeel.schedule.model import Step
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.folded import Folded


class StepFields(Folded):
    """Folded under a line; taken on Enter, or when a field is left.

    Signals
    -------
    changed : str, object
        A figure of the step, by its name, with its value.
    """

    changed = pyqtSignal(str, object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(say.CHANGE_IT, parent)
        self.minutes = QuantityEdit(plain="min")
        self.glue = QComboBox()
        self.glue.addItem(say.NO_GLUE, "")
        for kind in KINDS:
            self.glue.addItem(kind, kind)
        self.hold, self.needs, self.note = QLineEdit(), QLineEdit(), QLineEdit()
        self.tools, self.cautions = QLineEdit(), QLineEdit()
        self.waits_for, self.until = QLineEdit(), QLineEdit()
        self.until.setPlaceholderText(say.A_DATE)
        self._lists = {"needs": self.needs, "tools": self.tools, "hazards": self.cautions}
        self._words = {"hold": self.hold, "note": self.note, "wait_for": self.waits_for}
        self.put_pair(0, label("soft", say.HANDS, wrap=False), self.minutes)
        self.put_pair(1, label("soft", say.GLUE, wrap=False), self.glue)
        self.minutes.line.setAccessibleName(say.HANDS)
        self.glue.setAccessibleName(say.GLUE)
        for field, words in (
            (self.hold, say.LOOK_FOR),
            (self.needs, say.NEEDS),
            (self.tools, say.TOOLS),
            (self.cautions, say.CAUTIONS),
            (self.waits_for, say.WAITS_FOR),
            (self.until, say.WAITS_UNTIL),
            (self.note, say.NOTE),
        ):
            field.setAccessibleName(words)
            self.put_across(label("soft", words, wrap=False))
            self.put_across(field)
        self.minutes.value_changed.connect(lambda value: self.changed.emit("hands_minutes", value))
        self.glue.activated.connect(
            lambda _row: self.changed.emit("glue", self.glue.currentData() or None)
        )
        for name, line in (self._words | {"wait_until": self.until}).items():
            line.editingFinished.connect(partial(self._on_words, line, name))
        for name, line in self._lists.items():
            line.editingFinished.connect(partial(self._on_list, line, name))

    def show_step(self, step: Step) -> None:
        """What it has now."""
        self.minutes.set_value(step.hands_minutes)
        kind = step.glue or ""
        if self.glue.findData(kind) < 0:  # one of the builder's own, from the file
            self.glue.addItem(kind, kind)
        self.glue.setCurrentIndex(self.glue.findData(kind))
        self.hold.setText(hold_of(step))
        self.note.setText(step.note)
        self.waits_for.setText(step.wait_for)
        self.until.setText(step.wait_until or "")
        for line, names in (
            (self.needs, step.needs),
            (self.tools, tools_of(step)),
            (self.cautions, step.hazards),
        ):
            line.setText(", ".join(names))
        for line in (*self._words.values(), *self._lists.values(), self.until):
            line.setModified(False)
        self.show_values(say.by_hand_words(step))

    def _on_words(self, line: QLineEdit, name: str) -> None:
        if line.isModified():
            line.setModified(False)
            self.changed.emit(name, line.text().strip())

    def _on_list(self, line: QLineEdit, name: str) -> None:
        """A list with commas: the board, twice named two of it."""
        if line.isModified():
            line.setModified(False)
            names = (one.strip() for one in line.text().split(","))
            self.changed.emit(name, tuple(one for one in names if one))
