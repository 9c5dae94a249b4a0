"""Under a guide's figures: one place more or fewer, how it runs, where it comes out."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.routing import exits_of, way_of
from hardkeel.messages import guides as say
from hardkeel.messages.faults import told
from hardkeel.ui.widgets.card import label

_ENDS: Final = 2


class GuideRows(QWidget):
    """Hidden for what is no guide.

    Signals
    -------
    more, fewer : (nothing)
        One place more, or the last between its ends out again.
    """

    more, fewer = pyqtSignal(), pyqtSignal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.one_more, self.one_fewer = QPushButton(say.ADD_A_PLACE), QPushButton(say.TAKE_A_PLACE)
        self.way = label("soft")
        row = QHBoxLayout()
        for button, asked in ((self.one_more, self.more), (self.one_fewer, self.fewer)):
            button.setObjectName("tool")
            button.clicked.connect(asked)
            row.addWidget(button)
        row.addStretch(1)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addLayout(row)
        box.addWidget(self.way)
        self.hide()

    def show_guide(self, fuselage: Fuselage, member: Member, unit: LengthUnit) -> None:
        """Show a member's way, where it has one."""
        self.setVisible(bool(member.route))
        if not member.route:
            return
        self.one_fewer.setEnabled(len(member.route) > _ENDS)
        try:
            exits = exits_of(fuselage, member)
        except BadInput as fault:
            self.way.setText(told(fault, unit))
        else:
            self.way.setText(say.way_words(way_of(member), exits, unit))
