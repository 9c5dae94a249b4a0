"""Lay out: airframe, paper, print check, parts, woods, balance; one at a time."""

from importlib import import_module
from typing import TYPE_CHECKING, Final, cast

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.document.document import Document
from hardkeel.ui.kit.tabs import Tabs
from hardkeel.ui.stages import StagePage
from hardkeel.ui.theme import Theme
from hardkeel.voice import layout as say

if TYPE_CHECKING:
    from hardkeel.ui.document.sub_page import SubPage
    from hardkeel.ui.stages.layout.airframe_page import AirframePage
    from hardkeel.ui.stages.layout.paper_page import PaperPage

_TABS: Final = (
    ("airframe", say.AIRFRAME, "AirframePage"),
    ("paper", say.PAPER_DESK, "PaperPage"),
    ("audit", say.PRINT_CHECK, "AuditPage"),
    ("parts", say.PARTS, "PartsPage"),
    ("woods", say.WOODS, "WoodsPage"),
    ("balance", say.BALANCE, "BalancePage"),
)


class LayoutPage(StagePage):
    """The stage with its six benches; one that was never looked at is made when it is first wanted.

    Signals
    -------
    made : str, object
        A bench was made: its key and the `SubPage`.
    """

    made = pyqtSignal(str, object)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._theme, self._unit = document, theme, unit
        self._pages: dict[str, SubPage] = {}
        names = [(key, words) for key, words, _ in _TABS]
        self._tabs = Tabs(names, self.turn_to, "Ctrl+Shift")
        self.tabs = self._tabs.buttons
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._tabs)
        self._now = "airframe"

    @property
    def now(self) -> str:
        """The bench shown."""
        return self._now

    def wake(self) -> None:
        """Make the bench shown, should it not be there yet."""
        self.turn_to(self._now)

    def turn_to(self, place: str) -> None:
        """Show a bench."""
        self._now = place
        page = self.page(place)
        self._tabs.show_page(place, page)
        page.focus_work()

    def wear(self) -> None:
        """Put the style sheet on the tabs and the bench that is seen."""
        self._tabs.wear()

    @property
    def unit(self) -> LengthUnit:
        """The unit that lengths are shown in."""
        return self._unit

    def page(self, key: str) -> "SubPage":
        """A bench, made when it is first wanted."""
        if key not in self._pages:
            kind = next(name for one, _, name in _TABS if one == key)
            module = import_module(f"hardkeel.ui.stages.layout.{key}_page")  # start-up is felt
            page: SubPage = getattr(module, kind)(self._document, self._theme, self._unit)
            self._pages[key] = page
            self._tabs.add(page)
            self.made.emit(key, page)
        return self._pages[key]

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
        if "airframe" in self._pages:
            self.airframe.choose_body(body)

    def choose_stop(self, stop: str) -> None:
        """Take a former in hand, where the drawing board was looked at."""
        if "airframe" in self._pages:
            self.airframe.choose_stop(stop)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self._unit = unit
        for page in self._pages.values():
            page.set_unit(unit)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        for page in self._pages.values():
            page.set_theme(theme)
