"""Cards beside the photo: what to click now, what it says, what to take next."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QPushButton

from hardkeel.ui.kit.card import Card, label
from hardkeel.ui.kit.flow import FlowLayout
from hardkeel.ui.stages.true.mark_map import MarkMap
from hardkeel.ui.theme import Theme
from hardkeel.voice import sight as say


class ClickCard(Card):
    """The mark to click now, and where it is.

    Signals
    -------
    skipped, struck : (nothing)
        It can't be seen; the picked click away.
    """

    skipped = pyqtSignal()
    struck = pyqtSignal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(say.NEXT_MARK, "act")
        self.title, self.why = label("answer"), label("soft")
        self.map = MarkMap(theme)
        self.skip, self.strike = QPushButton(say.CANT_SEE), QPushButton(say.TAKE_BACK)
        for button in (self.skip, self.strike):
            button.setObjectName("tool")
        self.snapping = QCheckBox(say.SNAPPING)
        self.snapping.setChecked(True)
        row = FlowLayout(gap=4)
        row.addWidget(self.skip)
        row.addWidget(self.strike)
        for widget in (self.title, self.map, self.why):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        self.column.addWidget(self.snapping)
        self.skip.clicked.connect(self.skipped)
        self.strike.clicked.connect(self.struck)

    def show_click(self, title: str, why: str, *, skips: bool, strikes: bool) -> None:
        """Say it."""
        self.title.setText(title)
        self.why.setText(why)
        self.skip.setVisible(skips)
        self.strike.setVisible(strikes)
