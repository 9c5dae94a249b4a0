"""The paper desk with nothing on it: what to do first."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.messages import layout as say
from hardkeel.ui.widgets.card import label


class EmptyPaper(QWidget):
    """Asks for a plan on paper.

    Signals
    -------
    scan_wanted, sample_wanted : (nothing)
        Open a scan; lay the made-up page here.
    """

    scan_wanted = pyqtSignal()
    sample_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.open = QPushButton(say.OPEN_A_SCAN)
        self.open.setObjectName("primary")
        self.sample = QPushButton(say.LAY_THE_SAMPLE)
        column = QVBoxLayout(self)
        column.setContentsMargins(34, 26, 34, 20)
        column.setSpacing(12)
        column.addWidget(label("big", say.IS_THERE_A_PLAN))
        column.addWidget(
            label(
                "soft",
                say.HOW_TO_SCAN,
            )
        )
        row = QHBoxLayout()
        row.addWidget(self.open)
        row.addWidget(self.sample)
        row.addStretch(1)
        column.addLayout(row)
        column.addStretch(1)
        self.open.clicked.connect(self.scan_wanted)
        self.sample.clicked.connect(self.sample_wanted)
