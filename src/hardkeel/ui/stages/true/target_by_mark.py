"""One more target, laid by a mark of the builder's own: which, how, how far its face lies over it."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.messages import targets as say
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.folded import Folded


class TargetByMark(Folded):
    """Folded until it is wanted.

    Signals
    -------
    wanted : str, str, float
        The mark, the way, and how far the label's face lies over the mark, mm.
    """

    wanted = pyqtSignal(str, str, float)

    def __init__(self, unit: LengthUnit) -> None:
        super().__init__(say.BY_MARK)
        self.mark, self.way = QComboBox(), QComboBox()
        self.over = QuantityEdit(unit=unit)
        self.lay = QPushButton(say.BY_LAY)
        self.lay.setObjectName("tool")
        for way, words in say.BY_WAYS.items():
            self.way.addItem(words, way)
        self.over.set_value(0.0)
        for widget, words in (
            (self.mark, say.BY_WHICH),
            (self.way, say.BY_WAY),
            (self.over.line, say.BY_OVER),
        ):
            widget.setAccessibleName(words)
        for words, field in (
            (say.BY_WHICH, self.mark),
            (say.BY_WAY, self.way),
            (say.BY_OVER, self.over),
        ):
            self.put_across(label("soft", words))
            self.put_across(field)
        self.put_across(self.lay)
        self.put_across(label("soft", say.BY_WHY))
        self.lay.clicked.connect(self._on_lay)
        self.way.currentIndexChanged.connect(self._on_way)

    def show_marks(self, names: Sequence[tuple[str, str]]) -> None:
        """Which marks there are: id and what it is called."""
        kept = self.mark.currentData()
        self.mark.clear()
        for mark, said in names:
            self.mark.addItem(said, mark)
        self.mark.setCurrentIndex(max(self.mark.findData(kept), 0))
        self.lay.setEnabled(bool(names))

    def _on_way(self) -> None:
        """A flag and a foot lie on no face."""
        self.over.setEnabled(self.way.currentData() in say.BY_ON_WOOD)

    def _on_lay(self) -> None:
        self.wanted.emit(self.mark.currentData(), self.way.currentData(), self.over.value or 0.0)
