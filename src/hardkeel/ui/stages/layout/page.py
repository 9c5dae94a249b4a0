"""Lay out: airframe, paper, print check, parts, woods, balance; one at a time."""

from typing import TYPE_CHECKING, Final, cast

from PyQt6.QtWidgets import QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import layout as say
from hardkeel.messages.in_the_round import IN_THE_ROUND
from hardkeel.messages.mat import CHECK_A_PART
from hardkeel.ui.document.document import Document
from hardkeel.ui.tabbed.stage_page import TabbedStage, TabList
from hardkeel.ui.theme import Theme

if TYPE_CHECKING:
    from hardkeel.ui.stages.layout.airframe_page import AirframePage
    from hardkeel.ui.stages.layout.paper_page import PaperPage
    from hardkeel.ui.stages.layout.round_page import LayoutRoundPage

_BENCHES: Final = TabList(
    "hardkeel.ui.stages.layout",
    (
        ("airframe", say.AIRFRAME, "AirframePage"),
        ("paper", say.PAPER_DESK, "PaperPage"),
        ("audit", say.PRINT_CHECK, "AuditPage"),
        ("parts", say.PARTS, "PartsPage"),
        ("woods", say.WOODS, "WoodsPage"),
        ("balance", say.BALANCE, "BalancePage"),
        ("check", CHECK_A_PART, "CheckPage"),
        ("round", IN_THE_ROUND, "LayoutRoundPage"),
    ),
    "Ctrl+Shift",
)


class LayoutPage(TabbedStage):
    """The stage with its benches."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, _BENCHES, parent)

    @property
    def airframe(self) -> "AirframePage":
        """The drawing board."""
        return cast("AirframePage", self.page("airframe"))

    @property
    def paper(self) -> "PaperPage":
        """The paper desk."""
        return cast("PaperPage", self.page("paper"))

    def choose_body(self, body: str) -> None:
        """Show what is known of one part, where a bench knows of parts."""
        if self.made_page("airframe") is not None:
            self.airframe.choose_body(body)
        self._choose_in_the_round(body)

    def choose_station(self, stop: str) -> None:
        """Take a former in hand, where the drawing board was looked at."""
        if self.made_page("airframe") is not None:
            self.airframe.choose_station(stop)
        self._choose_in_the_round(stop)

    def _choose_in_the_round(self, ref: str) -> None:
        page = self.made_page("round")
        if page is not None:
            cast("LayoutRoundPage", page).choose(ref)
