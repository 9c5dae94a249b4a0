"""The paper desk with nothing on it: what to do first."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.ui.kit.card import label


class EmptyDesk(QWidget):
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
        self.open = QPushButton("Open a scan or photo…")
        self.open.setObjectName("primary")
        self.sample = QPushButton("Lay the made-up page here")
        column = QVBoxLayout(self)
        column.setContentsMargins(34, 26, 34, 20)
        column.setSpacing(12)
        column.addWidget(label("big", "Is there a plan on paper?"))
        column.addWidget(
            label(
                "soft",
                "Scan it flat at 150 dpi or more, or take a photo of it. A known length puts it to "
                "scale, a second across it finds a print that is stretched, four known points find "
                "one that is askew. Then click along its lines, and they become your airframe.",
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
