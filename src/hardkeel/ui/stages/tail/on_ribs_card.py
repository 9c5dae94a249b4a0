"""Where ribs stand, what lies on them and beside them, and the section of the tip."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QGridLayout, QLineEdit

from hardkeel.base.units import LengthUnit
from hardkeel.messages import on_ribs as say
from hardkeel.tail.model import TailSurface
from hardkeel.tail.ribs import StockHeights
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class OnRibsCard(FiguresCard):
    """Places, capstrips, a sheeted centre, doublers.

    Signals
    -------
    places_typed : str
        Places of the ribs, as they were typed.
    tip_chosen : str
        The name of a section, empty for the root's.
    """

    places_typed = pyqtSignal(str)
    tip_chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(say.ON_THE_RIBS)
        self.places = QLineEdit()
        self.places.setAccessibleName(say.PLACES)
        self.places.setToolTip(say.PLACES_TIP)
        self.tip = QComboBox()
        self.tip.setAccessibleName(say.TIP_SECTION)
        self._stock = label("soft")
        grid = QGridLayout()
        for row, (words, widget) in enumerate(
            ((say.PLACES, self.places), (say.TIP_SECTION, self.tip))
        ):
            grid.addWidget(label("soft", words, wrap=False), row, 0)
            grid.addWidget(widget, row, 1)
        grid.setColumnStretch(1, 1)
        self.column.addLayout(grid)
        self.column.addWidget(self._stock)
        self.places.editingFinished.connect(self._on_places)
        self.tip.activated.connect(lambda: self.tip_chosen.emit(self.tip.currentData()))

    def show_surface(
        self,
        surface: TailSurface,
        sections: list[tuple[str, str]],
        stock: tuple[StockHeights, ...],
        unit: LengthUnit,
    ) -> None:
        """Its ribs as they are; `sections` are names with their words."""
        cap = surface.capstrip
        figures = (
            Figure("cap_wide", say.FIGURES["cap_wide"], cap[0] if cap is not None else None),
            Figure("cap_thick", say.FIGURES["cap_thick"], cap[1] if cap is not None else None),
            Figure("centre_sheet", say.FIGURES["centre_sheet"], surface.centre_sheet),
            Figure("centre_skin", say.FIGURES["centre_skin"], surface.centre_skin),
            Figure("doubled_ribs", say.FIGURES["doubled_ribs"], surface.doubled_ribs, "number"),
            Figure("doubler", say.FIGURES["doubler"], surface.doubler),
        )
        self.show_figures("", figures, unit)
        if not (self.places.hasFocus() and self.places.isModified()):
            self.places.setText(say.places_text(surface.ribs, unit))
        self.tip.clear()
        self.tip.addItem(say.AS_THE_ROOT, "")
        for name, words in sections:
            self.tip.addItem(words, name)
        self.tip.setCurrentIndex(max(self.tip.findData(surface.tip_profile or ""), 0))
        self._stock.setText("\n".join(say.stock_sentence(one, unit) for one in stock))

    def _on_places(self) -> None:
        if self.places.isModified():
            self.places.setModified(False)
            self.places_typed.emit(self.places.text())
