"""Which of a build's sheets lies on the paper desk."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton

from hardkeel.messages import layout as say
from hardkeel.ui.widgets.card import Card


class PlansCard(Card):
    """The sheets to choose from, and one more.

    Signals
    -------
    plan_picked : str
    scan_wanted : (nothing)
    """

    plan_picked = pyqtSignal(str)
    scan_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.ON_THE_DESK)
        self.plans = QComboBox()
        self.plans.setAccessibleName("sheet on the desk")
        more = QPushButton(say.ANOTHER_SCAN)
        more.setObjectName("tool")
        more.clicked.connect(self.scan_wanted)
        row = QHBoxLayout()
        row.addWidget(self.plans, 1)
        row.addWidget(more)
        self.column.addLayout(row)
        self.plans.activated.connect(lambda _row: self.plan_picked.emit(self.plans.currentText()))

    def show_plans(self, names: list[str], now: str) -> None:
        """Offer these sheets, one of them on the desk."""
        self.plans.clear()
        self.plans.addItems(names)
        self.plans.setCurrentText(now)
