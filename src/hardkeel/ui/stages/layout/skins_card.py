"""The skins and longerons of the fuselage."""

from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages import layout as say
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class SkinsCard(FiguresCard):
    """Thicknesses of the skins, and the longerons' square."""

    def __init__(self) -> None:
        super().__init__(say.SKINS_AND_LONGERONS)
        self.without = QPushButton(say.NO_LONGERONS)
        self.without.setObjectName("tool")
        row = QHBoxLayout()
        row.addWidget(self.without)
        row.addStretch(1)
        self.column.addLayout(row)

    def show_skins(self, fuselage: Fuselage, unit: LengthUnit) -> None:
        """Show skins and longerons."""
        longeron = fuselage.longerons[0] if fuselage.longerons else None
        figures = (
            Figure("side_thickness", "sides", fuselage.side_thickness),
            Figure("top_skin", "top skin", fuselage.top_skin),
            Figure("bottom_skin", "bottom skin", fuselage.bottom_skin),
            Figure("longeron", "longerons", longeron.section[0] if longeron else None),
        )
        self.show_figures("", figures, unit)
        self.without.setVisible(longeron is not None)
