"""The panels of the wing in hand: where they meet, how each rises and runs aft, and whether the outer ones come off."""

from itertools import pairwise

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton

from hardkeel.balance.model import Wing
from hardkeel.base.units import LengthUnit
from hardkeel.messages import panels as say
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class PanelsCard(FiguresCard):
    """A wing's breaks.

    Signals
    -------
    break_wanted, break_unwanted : (nothing)
        One more break, outside the last; that one away.
    off_changed : bool
        Whether what lies outside the first break comes off.
    """

    break_wanted = pyqtSignal()
    break_unwanted = pyqtSignal()
    off_changed = pyqtSignal(bool)

    def __init__(self) -> None:
        super().__init__(say.PANELS)
        self._more = QPushButton(say.ANOTHER_BREAK)
        self._less = QPushButton(say.ONE_BREAK_LESS)
        self._off = QCheckBox(say.COMES_OFF)
        self._off.clicked.connect(self.off_changed)
        row = QHBoxLayout()
        for button, signal in ((self._more, self.break_wanted), (self._less, self.break_unwanted)):
            button.setObjectName("tool")
            button.clicked.connect(signal)
            row.addWidget(button)
        row.addStretch(1)
        self.column.addWidget(self._off)
        self.column.addLayout(row)

    def show_wing(self, wing: Wing | None, unit: LengthUnit) -> None:
        """The panels of a wing; nothing where none is in hand."""
        self.setVisible(wing is not None)
        if wing is None:
            return
        figures = []
        edges = (*(one.y for one in wing.breaks), wing.span / 2)
        for number, (one, (inner, outer)) in enumerate(
            zip(wing.breaks, pairwise(edges), strict=True)
        ):
            runs = one.sweep if one.sweep is not None else wing.aft(outer) - wing.aft(inner)
            figures += [
                Figure(f"{number}|y", say.figure_words(number, "y"), one.y),
                Figure(
                    f"{number}|dihedral",
                    say.figure_words(number, "dihedral"),
                    one.dihedral,
                    "angle",
                ),
                Figure(f"{number}|sweep", say.figure_words(number, "sweep"), runs),
            ]
        self.show_figures("", tuple(figures), unit, say.panels_words(wing, unit))
        self._less.setVisible(bool(wing.breaks))
        self._off.setVisible(bool(wing.breaks))
        self._off.setChecked(any(one.comes_off for one in wing.breaks))
