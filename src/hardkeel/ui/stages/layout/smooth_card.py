"""Whether the lines run fair, and the worst bump to be faired."""

from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.fairing import Bump
from hardkeel.messages import layout as say
from hardkeel.messages.airframe import bump_sentence
from hardkeel.ui.widgets.card import Card, label


class SmoothCard(Card):
    """The worst bump in words, with a button that fairs it."""

    def __init__(self) -> None:
        super().__init__(say.SMOOTH_LINES)
        self._says = label("answer")
        self.fair = QPushButton(say.FAIR_IT)
        self.fair.setObjectName("primary")
        row = QHBoxLayout()
        row.addWidget(self._says, 1)
        row.addWidget(self.fair)
        self.comb = QCheckBox(say.SHOW_THE_COMB)
        self.comb.setToolTip(say.COMB_TIP)
        self.column.addLayout(row)
        self.column.addWidget(self.comb)

    def show_bumps(self, bumps: tuple[Bump, ...], unit: LengthUnit) -> None:
        """Name the worst bump, or say that there is none."""
        self.fair.setVisible(bool(bumps))
        self.set_edge("out" if bumps else "")
        if bumps:
            more = f"  ({len(bumps) - 1} more)" if len(bumps) > 1 else ""
            self._says.setText(bump_sentence(bumps[0], unit) + more)
        else:
            self._says.setText(say.ALL_LINES_FAIR)
