"""Old and new figures side by side before a plan's picks are taken."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QDialog,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.edits.picks import FIGURES, Taking
from hardkeel.messages import paper as say
from hardkeel.messages import shell
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import label

_MOST_ROWS: Final = 14  # seen at once


class TakingDialog(QDialog):
    """What taking the picks adds, changes and leaves, stop by stop; accepted where they shall be taken."""

    def __init__(
        self,
        takings: Sequence[Taking],
        theme: Theme,
        unit: LengthUnit,
        good_to: str = "",
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.TAKE_THESE)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        box = QVBoxLayout(self)
        box.setContentsMargins(24, 20, 24, 18)
        box.setSpacing(12)
        box.addWidget(label("title", say.OLD_AND_NEW))
        if good_to:
            box.addWidget(label("soft", good_to))
        sheet = QWidget()
        self.grid = QGridLayout(sheet)
        self.grid.setHorizontalSpacing(22)
        self.grid.setVerticalSpacing(5)
        for column, words in enumerate(say.TAKING_HEADS):
            self.grid.addWidget(label("soft", words, wrap=False), 0, column)
        for row, taking in enumerate(takings, start=1):
            self._add(row, taking, unit)
        area = QScrollArea()
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setWidgetResizable(True)
        area.setWidget(sheet)
        seen = min(len(takings) + 1, _MOST_ROWS)
        area.setMinimumSize(sheet.sizeHint().width() + 24, seen * theme.px(25) + 12)
        box.addWidget(area, 1)
        self.back, self.take = QPushButton(shell.GO_BACK), QPushButton(say.TAKE_THEM)
        self.take.setObjectName("primary")
        self.take.setDefault(True)
        self.back.clicked.connect(self.reject)
        self.take.clicked.connect(self.accept)
        row_of = QHBoxLayout()
        row_of.addStretch(1)
        row_of.addWidget(self.back)
        row_of.addWidget(self.take)
        box.addLayout(row_of)
        apply_style(self)

    def _add(self, row: int, taking: Taking, unit: LengthUnit) -> None:
        kind = "soft" if taking.kind == "left" else ""
        cells = [say.stop_words(taking.stop), say.taking_words(taking)]
        for key in FIGURES:
            was = None if taking.was is None else float(getattr(taking.was, key))
            cells.append(say.old_and_new(was, float(getattr(taking.now, key)), unit))
        for column, words in enumerate(cells):
            self.grid.addWidget(label(kind, words, wrap=False), row, column)
