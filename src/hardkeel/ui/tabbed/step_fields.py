"""What the builder may set of a step: its minutes, its glue, what to look for before it, a note."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QLineEdit, QWidget

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
        for field, words in (
            (self.minutes.line, say.HANDS), (self.glue, say.GLUE), (self.hold, say.LOOK_FOR),
            (self.needs, say.NEEDS), (self.note, say.NOTE),
        ):  # fmt: skip
            field.setAccessibleName(words)
        self.put_pair(0, label("soft", say.HANDS, wrap=False), self.minutes)
        self.put_pair(1, label("soft", say.GLUE, wrap=False), self.glue)
        for field, words in (
            (self.hold, say.LOOK_FOR),
            (self.needs, say.NEEDS),
            (self.note, say.NOTE),
        ):
            self.put_across(label("soft", words, wrap=False))
            self.put_across(field)
        self.minutes.value_changed.connect(lambda value: self.changed.emit("hands_minutes", value))
        self.glue.activated.connect(
            lambda _row: self.changed.emit("glue", self.glue.currentData() or None)
        )
        self.hold.editingFinished.connect(lambda: self._on_words(self.hold, "hold"))
        self.note.editingFinished.connect(lambda: self._on_words(self.note, "note"))
        self.needs.editingFinished.connect(self._on_needs)

    def show_step(self, step: Step) -> None:
        """What it has now."""
        self.minutes.set_value(step.hands_minutes)
        kind = step.glue or ""
        if self.glue.findData(kind) < 0:  # one of the builder's own, from the file
            self.glue.addItem(kind, kind)
        self.glue.setCurrentIndex(self.glue.findData(kind))
        self.hold.setText(hold_of(step))
        self.note.setText(step.note)
        self.needs.setText(", ".join(step.needs))
        for line in (self.hold, self.needs, self.note):
            line.setModified(False)
        self.show_values(say.by_hand_words(step))

    def _on_words(self, line: QLineEdit, name: str) -> None:
        if line.isModified():
            line.setModified(False)
            self.changed.emit(name, line.text().strip())

    def _on_needs(self) -> None:
        """A list with commas: the board, twice named two of it."""
        if self.needs.isModified():
            self.needs.setModified(False)
            names = (one.strip() for one in self.needs.text().split(","))
            self.changed.emit("needs", tuple(one for one in names if one))
