"""Where a builder begins: what was lately on the bench, and four doors."""

from pathlib import Path
from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from hardkeel.messages import shell as say
from hardkeel.messages.newcomer import WHO_SEES
from hardkeel.messages.safety import SAFETY
from hardkeel.ui.shell import door_pictures
from hardkeel.ui.shell.door import Door
from hardkeel.ui.shell.recent_card import Glance, RecentCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.asked import Asked
from hardkeel.ui.widgets.card import label

_LATELY: Final = 3  # of eight parts of the width


class BlankPage(QWidget):
    """Says what to go on with, or to begin with.

    Signals
    -------
    new_wanted, plan_wanted, open_wanted, demo_wanted, practice_wanted : (nothing)
        The ways to begin.
    recent_wanted : object
        A `Path` opened lately.
    """

    new_wanted = pyqtSignal()
    open_wanted = pyqtSignal()
    demo_wanted = pyqtSignal()
    plan_wanted = pyqtSignal()
    practice_wanted = pyqtSignal()
    recent_wanted = pyqtSignal(object)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.new = Door(say.DESCRIBE_MY_MODEL, say.DESCRIBE_WHY, door_pictures.described, theme)
        self.plan = Door(say.LAY_IT_OUT_FROM_A_PLAN, say.PLAN_WHY, door_pictures.from_a_plan, theme)
        self.practice = Door(say.PRACTISE, say.PRACTISE_WHY, door_pictures.practised, theme)
        self.demo = Door(say.LOOK_AT_THE_DEMO, say.DEMO_WHY, door_pictures.demos, theme)
        self.doors = (self.new, self.plan, self.practice, self.demo)
        self.open = QPushButton(say.OPEN_A_BUILD)
        self.begin = label("title", say.WHAT_IS_ON_THE_BENCH)
        self.cards: dict[Path, RecentCard] = {}
        self._lay_out()
        for door, signal in zip(
            self.doors,
            (self.new_wanted, self.plan_wanted, self.practice_wanted, self.demo_wanted),
            strict=True,
        ):
            door.clicked.connect(signal)
        self.open.clicked.connect(self.open_wanted)

    def _lay_out(self) -> None:
        self._lately = QWidget()
        column = QVBoxLayout(self._lately)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(10)
        column.addWidget(label("title", say.GO_ON_WITH))
        self._column = QVBoxLayout()
        self._column.setSpacing(10)
        column.addLayout(self._column)
        column.addStretch(1)
        begin = QVBoxLayout()
        begin.setSpacing(10)
        begin.addWidget(self.begin)
        grid = QGridLayout()
        grid.setSpacing(12)
        for i, door in enumerate(self.doors):
            grid.addWidget(door, i // 2, i % 2)
        begin.addLayout(grid, 1)
        both = QHBoxLayout()
        both.setSpacing(26)
        both.addWidget(self._lately, _LATELY)
        both.addLayout(begin, 8 - _LATELY)
        foot = QHBoxLayout()
        foot.addWidget(self.open)
        foot.addWidget(label("soft", SAFETY), 1)
        paper = QWidget()
        paper.setObjectName("paper")
        box = QVBoxLayout(paper)
        box.setContentsMargins(24, 16, 24, 12)
        box.setSpacing(12)
        box.addLayout(both, 1)
        box.addLayout(foot)
        box.addWidget(Asked(WHO_SEES))
        area = QScrollArea()
        area.setWidget(paper)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(area)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        for door in self.doors:
            door.set_theme(theme)
        for card in self.cards.values():
            card.set_theme(theme)

    def show_recent(self, glances: dict[Path, Glance]) -> None:
        """Offer builds that were lately on the bench, the newest first."""
        for card in self.cards.values():
            self._column.removeWidget(card)
            card.deleteLater()
        self.cards = {}
        for path, glance in glances.items():
            card = RecentCard(glance, self._theme)
            card.clicked.connect(lambda _on, path=path: self.recent_wanted.emit(path))
            self._column.addWidget(card)
            self.cards[path] = card
        self._lately.setVisible(bool(self.cards))
        self.begin.setText(say.OR_BEGIN if self.cards else say.WHAT_IS_ON_THE_BENCH)

    def show_glance(self, path: Path, glance: Glance) -> None:
        """Show what was found of one of them."""
        card = self.cards.get(path)
        if card is not None:
            card.show_glance(glance)
