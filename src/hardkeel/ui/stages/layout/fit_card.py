"""How a sheet on the paper desk lies: its scale, what checks it, and whether it is a photo."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.messages import desk_labels as label_say
from hardkeel.messages import layout as say
from hardkeel.messages.paper import fit_words
from hardkeel.paper.model import Plan
from hardkeel.ui.widgets.card import Card, label


class FitCard(Card):
    """What the known lengths and points say of the sheet.

    Signals
    -------
    photo_set : bool
        Whether perspective is to be taken out.
    labels_wanted, print_wanted : (nothing)
        Find the coded labels on it; print some.
    carry_wanted : (nothing)
        Hold its known lengths against the print.
    """

    photo_set = pyqtSignal(bool)
    labels_wanted = pyqtSignal()
    carry_wanted = pyqtSignal()
    print_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.HOW_THE_SHEET_LIES)
        self.photo = QCheckBox("a photo: take perspective out")
        self._says = label("answer")
        self._left = label("soft")
        for widget in (self._says, self._left, self.photo):
            self.column.addWidget(widget)
        self.find_labels, self.print_labels = (
            QPushButton(label_say.FIND_LABELS),
            QPushButton(label_say.PRINT_LABELS),
        )
        row = QHBoxLayout()
        for button in (self.find_labels, self.print_labels):
            button.setObjectName("tool")
            row.addWidget(button)
        row.addStretch(1)
        self.column.addLayout(row)
        self.carry = QPushButton(say.CARRY)
        self.carry.setObjectName("tool")
        self.carry.setToolTip(say.CARRY_TIP)
        self.carry.clicked.connect(self.carry_wanted)
        self.column.addWidget(self.carry)
        self.find_labels.clicked.connect(self.labels_wanted)
        self.print_labels.clicked.connect(self.print_wanted)
        self.photo.clicked.connect(self.photo_set)

    def show_fit(self, plan: Plan, dpi: float | None, unit: LengthUnit) -> None:
        """Show a plan; `dpi` as the scan says."""
        self.photo.setChecked(plan.photo)
        for button in (self.find_labels, self.print_labels):
            button.setVisible(plan.photo)
        self.carry.setVisible(bool(dpi) and not plan.photo and bool(plan.lengths))
        answer, left = fit_words(plan, dpi, unit)
        self._says.setText(answer)
        self._left.setText(left)
