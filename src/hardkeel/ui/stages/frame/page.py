"""Frame: what to cut, the board, squareness, the order of work; one bench at a time, one piece in hand on all of them."""

from importlib import import_module
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.document.document import Document
from hardkeel.ui.kit.tabs import Tabs
from hardkeel.ui.stages import StagePage
from hardkeel.ui.stages.frame.frame_page import FrameSubPage
from hardkeel.ui.theme import Theme
from hardkeel.voice import frame as say
from hardkeel.voice.board import BOARD
from hardkeel.voice.order import ORDER
from hardkeel.voice.square import SQUARE

_TABS: Final = (
    ("sticks", say.STICKS, "SticksPage"),
    ("formers", say.FORMERS, "FormersPage"),
    ("members", say.MEMBERS, "MembersPage"),
    ("bends", say.BENDS, "BendsPage"),
    ("sheets", say.SHEETS, "SheetsPage"),
    ("board", BOARD, "BoardPage"),
    ("square", SQUARE, "SquarePage"),
    ("order", ORDER, "OrderPage"),
)


class FramePage(StagePage):
    """The stage with its benches; one that was never looked at is made when it is first wanted.

    Signals
    -------
    made : str, object
        A bench was made: its key and the `FrameSubPage`.
    """

    made = pyqtSignal(str, object)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._theme, self._unit = document, theme, unit
        self._pages: dict[str, FrameSubPage] = {}
        names = [(key, words) for key, words, _ in _TABS]
        self._tabs = Tabs(names, self.turn_to, "Ctrl+Alt")
        self.tabs = self._tabs.buttons
        self.chosen = ""
        self._now = "sticks"
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._tabs)

    @property
    def now(self) -> str:
        """The bench shown."""
        return self._now

    @property
    def unit(self) -> LengthUnit:
        """The unit that lengths are shown in."""
        return self._unit

    def wake(self) -> None:
        """Make the bench shown, should it not be there yet."""
        self.turn_to(self._now)

    def turn_to(self, place: str) -> None:
        """Show a bench."""
        self._now = place
        page = self.page(place)
        self._tabs.show_page(place, page)
        page.focus_work()

    def page(self, key: str) -> FrameSubPage:
        """A bench, made when it is first wanted."""
        if key not in self._pages:
            kind = next(name for one, _, name in _TABS if one == key)
            module = import_module(f"hardkeel.ui.stages.frame.{key}_page")  # start-up is felt
            page: FrameSubPage = getattr(module, kind)(self._document, self._theme, self._unit)
            page.piece_chosen.connect(self._on_piece_chosen)
            page.place_wanted.connect(self.turn_to)
            self._pages[key] = page
            self._tabs.add(page)
            page.choose(self.chosen)
            self.made.emit(key, page)
        return self._pages[key]

    def made_page(self, key: str) -> FrameSubPage | None:
        """A bench, if it was looked at already."""
        return self._pages.get(key)

    def _on_piece_chosen(self, ref: str) -> None:
        self._choose(ref)
        self.body_chosen.emit(ref)

    def _choose(self, ref: str) -> None:
        self.chosen = ref
        for page in self._pages.values():
            page.choose(ref)

    def choose_stop(self, stop: str) -> None:
        """Take a former in hand that was picked elsewhere."""
        self._choose(stop)

    def wear(self) -> None:
        """Put the style sheet on the tabs and the bench that is seen."""
        self._tabs.wear()

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
