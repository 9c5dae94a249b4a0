"""Cards beside the photo: what to click now, what it says, what to take next."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QPushButton

from hardkeel.messages import sight as say
from hardkeel.ui.stages.true.mark_map import MarkMap
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.flow import FlowLayout


class ClickCard(Card):
    """The mark to click now, and where it is.

    Signals
    -------
    skipped, struck : (nothing)
        It can't be seen; the picked click away.
    looked_again : (nothing)
        What could not be seen may be seen after all.
    """

    skipped = pyqtSignal()
    struck = pyqtSignal()
    looked_again = pyqtSignal()

    def __init__(self, theme: Theme) -> None:
        super().__init__(say.NEXT_MARK, "act")
        self.title, self.why = label("answer"), label("soft")
        self.map = MarkMap(theme)
        self.skip, self.strike = QPushButton(say.CANT_SEE), QPushButton(say.TAKE_BACK)
        self.again = QPushButton()
        self.again.hide()
        for button in (self.skip, self.strike, self.again):
            button.setObjectName("tool")
        self.snapping = QCheckBox(say.SNAPPING)
        self.snapping.setChecked(True)
        row = FlowLayout(gap=4)
        row.addWidget(self.skip)
        row.addWidget(self.strike)
        row.addWidget(self.again)
        for widget in (self.title, self.map, self.why):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        self.column.addWidget(self.snapping)
        self.skip.clicked.connect(self.skipped)
        self.strike.clicked.connect(self.struck)
        self.again.clicked.connect(self.looked_again)

    def show_unseen(self, count: int) -> None:
        """How many were said not to be seen."""
        self.again.setText(say.look_again_words(count))
        self.again.setVisible(bool(count))

    def show_click(self, title: str, why: str, *, skips: bool, strikes: bool) -> None:
        """Say it."""
        self.title.setText(title)
        self.why.setText(why)
        self.skip.setVisible(skips)
        self.strike.setVisible(strikes)
