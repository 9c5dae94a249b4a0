"""What readings share, as the builder says it: a sentence with its figure for each, and what the tail is square to."""

from collections.abc import Mapping

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import sharing as say
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit

_FIELD_PX = 96


class SharedCard(Card):
    """Priors of shared errors.

    Signals
    -------
    said : str, float
        Another figure for one of them, as it is shown.
    switched : bool
        The usual figures are supposed, or nothing at all.
    squared : str
        What stabilizer and fin are set square to.
    """

    said = pyqtSignal(str, float)
    switched = pyqtSignal(bool)
    squared = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(say.HEAD)
        self.answer = label("soft", say.WHY)
        self.switch = QPushButton(say.SUPPOSE)
        self.switch.clicked.connect(lambda: self.switched.emit(not self._on))
        self._on = False
        self.fields: dict[str, QuantityEdit] = {}
        self._rows = QWidget()
        column = QVBoxLayout(self._rows)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(3)
        for key, unit, words in say.PRIORS:
            field = QuantityEdit(angular=unit == "deg", digits=2)
            field.setFixedWidth(_FIELD_PX)
            field.line.setAccessibleName(words)
            field.value_changed.connect(lambda value, key=key: self.said.emit(key, value))
            self.fields[key] = field
            row = QHBoxLayout()
            row.setSpacing(8)
            row.addWidget(label("text", words), 1)
            row.addWidget(field)
            column.addLayout(row)
        self.to = QComboBox()
        self.to.setAccessibleName(say.SQUARED_TO)
        for key, words in say.SQUARED_WORDS.items():
            self.to.addItem(words, key)
        self.to.activated.connect(lambda _at: self.squared.emit(str(self.to.currentData())))
        column.addWidget(label("text", say.SQUARED_TO))
        column.addWidget(self.to)
        for widget in (self.answer, self._rows, self.switch):
            self.column.addWidget(widget)

    def show_priors(
        self, values: Mapping[str, float] | None, squared_to: str, unit: LengthUnit
    ) -> None:
        """Show these figures, as they are shown; ``None`` where nothing is supposed to be shared."""
        self._on = values is not None
        self.answer.setText(say.WHY if self._on else say.OFF)
        self._rows.setVisible(self._on)
        self.switch.setText(say.SUPPOSE_NOTHING if self._on else say.SUPPOSE)
        for key, kind, _ in say.PRIORS:
            field = self.fields[key]
            field.set_kind(angular=kind == "deg", unit=unit)
            field.set_value((values or {}).get(key, 0.0))
        self.to.setCurrentIndex(self.to.findData(squared_to))
