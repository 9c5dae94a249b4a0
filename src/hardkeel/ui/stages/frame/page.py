"""Frame: what to cut, the board, squareness, the order of work; one bench at a time, one piece in hand on all of them."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.airframe.orders.frame import STAGE
from hardkeel.base.units import LengthUnit
from hardkeel.messages import frame as say
from hardkeel.messages.board import BOARD
from hardkeel.messages.in_the_round import IN_THE_ROUND
from hardkeel.messages.order import ORDER
from hardkeel.messages.square import SQUARE
from hardkeel.ui.document.document import Document
from hardkeel.ui.tabbed.order_line import OrderLine
from hardkeel.ui.tabbed.stage_page import TabbedStage, TabList
from hardkeel.ui.theme import Theme

_BENCHES: Final = TabList(
    "hardkeel.ui.stages.frame",
    (
        ("sticks", say.STICKS, "SticksPage"),
        ("formers", say.FORMERS, "FormersPage"),
        ("members", say.MEMBERS, "MembersPage"),
        ("bends", say.BENDS, "BendsPage"),
        ("sheets", say.SHEETS, "FrameSheetsPage"),
        ("board", BOARD, "BoardPage"),
        ("square", SQUARE, "SquarePage"),
        ("order", ORDER, "FrameOrderPage"),
        ("round", IN_THE_ROUND, "FrameRoundPage"),
    ),
    "Ctrl+Alt",
)


_PRINTS: Final = {
    "sticks": "side",
    "formers": "pieces",
    "members": "top",
    "bends": "side",
    "sheets": "pieces",
    "board": "board",
    "square": "board",
    "order": "side",
    "round": "top",
}


class FramePage(TabbedStage):
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
        """The sheet of the bench shown; of formers the pages with the one in hand."""
        sheet = _PRINTS[self.now]
        return f"{sheet}:{self.chosen}" if sheet == "pieces" and self.chosen else sheet

    def turn_to(self, place: str) -> None:
        """Show a bench; where the whole order is seen its line is not needed."""
        super().turn_to(place)
        self.order_line.set_needed(needed=place != "order")

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        super().set_theme(theme)
        self.order_line.set_theme(theme)

    def choose_station(self, stop: str) -> None:
        """Take a former in hand that was picked elsewhere."""
        self.take_in_hand(stop)
