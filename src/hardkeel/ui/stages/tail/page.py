"""Tail: one bench at a time, one surface in hand on all of them."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.airframe.orders.tail import STAGE
from hardkeel.base.units import LengthUnit
from hardkeel.messages import frame as frame_say
from hardkeel.messages import tail as say
from hardkeel.messages.order import ORDER
from hardkeel.ui.document.document import Document
from hardkeel.ui.tabbed.order_line import OrderLine
from hardkeel.ui.tabbed.stage_page import TabbedStage, TabList
from hardkeel.ui.theme import Theme

_BENCHES: Final = TabList(
    "hardkeel.ui.stages.tail",
    (
        ("surface", say.SURFACE, "SurfacePage"),
        ("sticks", frame_say.STICKS, "TailSticksPage"),
        ("sections", say.SECTIONS, "SectionsPage"),
        ("controls", say.CONTROLS, "ControlsPage"),
        ("flat", say.FLAT, "FlatPage"),
        ("sheets", say.TAIL_SHEETS, "TailSheetsPage"),
        ("order", ORDER, "TailOrderPage"),
    ),
    "Ctrl+Alt+Shift",
)


class TailPage(TabbedStage):
    """The stage with its benches, and where the order of work stands at the foot of all of them."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, _BENCHES, parent)
        self.order_line = OrderLine(document, theme, STAGE)
        self.order_line.wanted.connect(lambda: self.turn_to("order"))
        self.column.addWidget(self.order_line)

    @property
    def prints(self) -> str:
        """The surface in hand."""
        return self.chosen or next((one.id for one in self._document.build.tail), "")

    def turn_to(self, place: str) -> None:
        """Show a bench; where the whole order is seen its line is not needed."""
        super().turn_to(place)
        self.order_line.set_needed(needed=place != "order")

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        super().set_theme(theme)
        self.order_line.set_theme(theme)

    def choose_body(self, body: str) -> None:
        """Take a surface in hand that was picked elsewhere."""
        if body != self.chosen:
            self.take_in_hand(body)
