"""A surface that did not follow the fuselage, with what is offered."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.airframe.standing import LeftBehind
from hardkeel.base.units import LengthUnit
from hardkeel.messages import following as say
from hardkeel.ui.widgets.card import Card, label


class BehindCard(Card):
    """The first surface that was left behind, in words; hidden where all rest as they did.

    Signals
    -------
    taken : (nothing)
        Let it follow.
    left : (nothing)
        It stays where it is.
    """

    taken = pyqtSignal()
    left = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.NOT_FOLLOWED, "out")
        self._says = label("answer")
        self._take, self._leave = QPushButton(), QPushButton(say.IT_STAYS)
        self._take.setObjectName("primary")
        self._leave.setObjectName("tool")
        self._take.clicked.connect(self.taken)
        self._leave.clicked.connect(self.left)
        row = QHBoxLayout()
        row.addWidget(self._take)
        row.addWidget(self._leave)
        row.addStretch(1)
        self.column.addWidget(self._says)
        self.column.addLayout(row)
        self.hide()

    def show_behind(self, found: tuple[LeftBehind, ...], unit: LengthUnit) -> None:
        """Name the first of them."""
        self.setVisible(bool(found))
        if found:
            self._says.setText(say.behind_sentence(found[0], unit))
            self._take.setText(say.offer_words(found[0], unit))
