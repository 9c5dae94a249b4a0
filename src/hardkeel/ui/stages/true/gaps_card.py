"""Gaps between a panel's root and the fuselage side: six fields, and what to do about them."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout

from hardkeel.base.units import LengthUnit
from hardkeel.messages import gaps as say
from hardkeel.survey.model import GapPlace, GapRead, PanelSide
from hardkeel.survey.rootgaps import PLACES, SIDES, RootGaps
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit


class GapsCard(Card):
    """What was read at LE, spar and TE of both roots.

    Signals
    -------
    read : object, float
        (side, place), and mm.
    """

    read = pyqtSignal(object, float)

    def __init__(self) -> None:
        super().__init__(say.GAPS)
        self.fields: dict[tuple[PanelSide, GapPlace], QuantityEdit] = {}
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        for column, place in enumerate(PLACES, start=1):
            grid.addWidget(label("soft", say.PLACES[place], wrap=False), 0, column)
            grid.setColumnStretch(column, 1)
        for line, side in enumerate(SIDES, start=1):
            grid.addWidget(label("soft", side, wrap=False), line, 0, Qt.AlignmentFlag.AlignTop)
            for column, place in enumerate(PLACES, start=1):
                field = self.fields[side, place] = QuantityEdit()
                field.line.setAccessibleName(say.field_name(side, place))
                field.value_changed.connect(
                    lambda mm, side=side, place=place: self.read.emit((side, place), mm)
                )
                grid.addWidget(field, line, column)
        self.said = label("soft")
        self.column.addLayout(grid)
        self.column.addWidget(self.said)
        self.hide()

    def show_gaps(
        self, read: tuple[GapRead, ...], found: tuple[RootGaps, ...], unit: LengthUnit
    ) -> None:
        """Show what was read and what follows."""
        known = {(gap.side, gap.at): gap.mm for gap in read}
        for (side, place), field in self.fields.items():
            field.set_kind(angular=False, unit=unit)
            if not field.line.hasFocus() or (side, place) in known:
                field.set_value(known.get((side, place)))
        self.said.setText("\n".join(say.gaps_words(one, unit) for one in found) or say.HOW)
