"""Whether the lines run fair, and the worst bump to be faired."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.fairing import Bump
from hardkeel.fuselage.model import Line
from hardkeel.messages import layout as say
from hardkeel.messages.airframe import bump_sentence, corner_words
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.flow import FlowLayout


class SmoothCard(Card):
    """The worst bump in words, with a button that fairs it and one that says it is drawn so; and the corners there are.

    Signals
    -------
    corner_taken_back : str, str
        Former and line that has no corner there after all.
    """

    corner_taken_back = pyqtSignal(str, str)

    def __init__(self) -> None:
        super().__init__(say.SMOOTH_LINES)
        self._says = label("answer")
        self.fair = QPushButton(say.FAIR_IT)
        self.fair.setObjectName("primary")
        self.corner = QPushButton(say.IT_IS_A_CORNER)
        self.corner.setObjectName("tool")
        self.corner.setToolTip(say.CORNER_TIP)
        self.corners = QWidget()
        self._drawn = FlowLayout(self.corners, gap=3)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(self.corner)
        row.addWidget(self.fair)
        self.comb = QCheckBox(say.SHOW_THE_COMB)
        self.comb.setToolTip(say.COMB_TIP)
        self.column.addWidget(self._says)
        self.column.addLayout(row)
        self.column.addWidget(self.corners)
        self.column.addWidget(self.comb)

    def show_bumps(self, bumps: tuple[Bump, ...], unit: LengthUnit) -> None:
        """Name the worst bump, or say that there is none."""
        self.fair.setVisible(bool(bumps))
        self.corner.setVisible(bool(bumps))
        self.set_edge("out" if bumps else "")
        if bumps:
            more = f"  ({len(bumps) - 1} more)" if len(bumps) > 1 else ""
            self._says.setText(bump_sentence(bumps[0], unit) + more)
        else:
            self._says.setText(say.ALL_LINES_FAIR)

    def show_corners(self, corners: tuple[tuple[str, Line], ...]) -> None:
        """Show where lines have corners; a press takes one back."""
        while (item := self._drawn.takeAt(0)) is not None:
            if (old := item.widget()) is not None:
                old.deleteLater()
        for name, line in corners:
            button = QPushButton(corner_words(name, line))
            button.setObjectName("tool")
            button.setToolTip(say.NO_CORNER_TIP)
            button.clicked.connect(
                lambda _on, name=name, line=line: self.corner_taken_back.emit(name, line)
            )
            self._drawn.addWidget(button)
        self.corners.setVisible(bool(corners))
