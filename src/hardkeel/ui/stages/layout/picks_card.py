"""What was picked off a sheet, what is still wanted, and handing it to the airframe."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.messages import layout as say
from hardkeel.messages.paper import picks_words
from hardkeel.paper.model import Plan
from hardkeel.paper.picking import Picked
from hardkeel.ui.widgets.card import Card, label

_CORNERS = 3  # of the least outline, a triangle


class PicksCard(Card):
    """Stations and outline as they were clicked.

    Signals
    -------
    take_pressed : (nothing)
        The picks shall be the airframe's figures.
    outline_given : str
        The traced outline is this former's.
    """

    take_pressed = pyqtSignal()
    outline_given = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(say.PICKED)
        self.take = QPushButton(say.MAKE_THESE_THE_FIGURES)
        self.take.setObjectName("primary")
        self.formers = QComboBox()
        self.formers.setAccessibleName("former to be traced")
        self.give = QPushButton("gets the outline")
        self._says = label("soft")
        self.column.addWidget(self._says)
        self.column.addWidget(self.take)
        row = QHBoxLayout()
        row.addWidget(self.formers)
        row.addWidget(self.give, 1)
        self.column.addLayout(row)
        self.take.clicked.connect(self.take_pressed)
        self.give.clicked.connect(lambda: self.outline_given.emit(self.formers.currentText()))

    def show_picks(
        self, plan: Plan, rows: tuple[Picked, ...], formers: list[str], unit: LengthUnit
    ) -> None:
        """Show what was picked off a plan; `formers` could get an outline."""
        self._says.setText(picks_words(plan, rows, unit))
        traced = next((len(t.pixels) for t in plan.traces if t.kind == "outline"), 0)
        for widget in (self.formers, self.give):
            widget.setVisible(traced >= _CORNERS and bool(formers))
        if formers != [self.formers.itemText(i) for i in range(self.formers.count())]:
            self.formers.clear()
            self.formers.addItems(formers)
        whole = all(None not in (row.half_width, row.bottom, row.top) for row in rows)
        self.take.setEnabled(whole and len(rows) > 1)
