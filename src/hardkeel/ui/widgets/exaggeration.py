"""How many times the error is drawn: a slider that always shows its factor."""

from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QSlider, QWidget

from hardkeel.messages import true as say

FACTORS: Final = (1, 2, 5, 10, 20, 50)
_USUAL: Final = 3


class Exaggeration(QWidget):
    """The slider with its words.

    Signals
    -------
    factor_changed : int
        Another factor.
    """

    factor_changed = pyqtSignal(int)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, len(FACTORS) - 1)
        self.slider.setValue(_USUAL)
        self.slider.setPageStep(1)
        self.slider.setFixedWidth(110)
        self.slider.setAccessibleName(say.TIMES_SHOWN)
        self._words = QLabel()
        self._words.setObjectName("heading")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self._words)
        row.addWidget(self.slider)
        self.slider.valueChanged.connect(self._on_moved)
        self._show_words()

    @property
    def factor(self) -> int:
        """How many times the error is drawn."""
        return FACTORS[self.slider.value()]

    def _on_moved(self) -> None:
        self._show_words()
        self.factor_changed.emit(self.factor)

    def _show_words(self) -> None:
        self._words.setText(f"error shown × {self.factor}")
