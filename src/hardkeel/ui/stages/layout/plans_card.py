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
    join_wanted : str
        The sheet on the desk shows some of this one too.
    crease_wanted : (nothing)
        Beyond a crease the sheet on the desk lies otherwise.
    """

    plan_picked = pyqtSignal(str)
    scan_wanted = pyqtSignal()
    join_wanted = pyqtSignal(str)
    crease_wanted = pyqtSignal()

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
        self.join, self.crease = QPushButton(), QPushButton(say.BEYOND_A_CREASE)
        self.crease.setToolTip(say.CREASE_TIP)
        self.join.setToolTip(say.JOIN_TIP)
        self._other = ""
        more_of = QHBoxLayout()
        for button in (self.join, self.crease):
            button.setObjectName("tool")
            more_of.addWidget(button)
        more_of.addStretch(1)
        self.column.addLayout(more_of)
        self.join.clicked.connect(lambda: self.join_wanted.emit(self._other))
        self.crease.clicked.connect(self.crease_wanted)
        self.plans.activated.connect(lambda _row: self.plan_picked.emit(self.plans.currentText()))

    def show_plans(self, names: list[str], now: str, before: str) -> None:
        """Offer these sheets, one of them on the desk; `before` is one that it may go on from, or empty."""
        self._other = before
        self.join.setText(say.goes_on_from(before))
        self.join.setVisible(bool(before))
        self.plans.clear()
        self.plans.addItems(names)
        self.plans.setCurrentText(now)
