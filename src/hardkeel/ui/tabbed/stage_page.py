"""What the window knows of the page of a stage, and a stage whose work lies on several benches."""

from dataclasses import dataclass
from importlib import import_module
from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.tabs import Tabs


class StagePage(QWidget):
    """The page of a stage; what a stage has no use for stays as it is here.

    Signals
    -------
    body_chosen : str
        A part was picked here.
    description_wanted : (nothing)
        The builder asks to describe a model.
    closed : (nothing)
        The window is about to end.
    """

    body_chosen = pyqtSignal(str)
    description_wanted = pyqtSignal()
    closed = pyqtSignal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.tabs: dict[str, QPushButton] = {}

    @property
    def foot(self) -> QWidget | None:
        """What of this stage stands at the foot of the rail, whichever stage is shown."""
        return None

    @property
    def tab_keys(self) -> tuple[str, ...]:
        """The benches that it can be turned to, where it has any."""
        return ()

    @property
    def prints(self) -> str:
        """The sheet that is printed of what is shown, a piece in it behind a colon; empty for no sheet in particular."""
        return ""

    def wake(self) -> None:
        """Get ready: the stage was turned to."""

    def turn_to(self, place: str) -> None:
        """Show one of several benches, where the stage has any."""

    def choose_body(self, body: str) -> None:
        """Show what is known of one part."""

    def choose_station(self, stop: str) -> None:
        """Show what is known of a former."""

    def take_pictures(self, paths: list[Path]) -> None:
        """Take photographs that were dropped on the window, where the stage has a use for them."""

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""

    def apply_style(self) -> None:
        """Put the style sheet on what is seen."""
        apply_style(self)


@dataclass(frozen=True, slots=True)
class TabList:
    """The benches of a stage.

    Attributes
    ----------
    home : str
        The package that they live in; bench ``sticks`` is ``sticks_page`` there.
    named : tuple of (key, words, class)
        In the order of their tabs; the first is shown first.
    keys : str
        Their shortcut, a number following: ``Ctrl+Shift``.
    """

    home: str
    named: tuple[tuple[str, str, str], ...]
    keys: str


class TabbedStage(StagePage):
    """A stage with benches, one at a time; one that was never looked at is made when it is first wanted.

    Signals
    -------
    made : str, object
        A bench was made: its key and the `SubPage`.
    """

    made = pyqtSignal(str, object)

    def __init__(
        self,
        document: Document,
        theme: Theme,
        unit: LengthUnit,
        tab_keys: TabList,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self._document, self._theme, self._unit = document, theme, unit
        self._home, self._kinds = tab_keys.home, {key: kind for key, _, kind in tab_keys.named}
        self._pages: dict[str, SubPage] = {}
        self._tabs = Tabs(
            [(key, words) for key, words, _ in tab_keys.named], self.turn_to, tab_keys.keys
        )
        self.tabs = self._tabs.buttons
        self._now = tab_keys.named[0][0]
        self.chosen = ""
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(0)
        self.column.addWidget(self._tabs, 1)

    @property
    def tab_keys(self) -> tuple[str, ...]:
        """The benches, in the order of their tabs."""
        return tuple(self._kinds)

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

    def page(self, key: str) -> SubPage:
        """A bench, made when it is first wanted."""
        if key not in self._pages:
            module = import_module(f"{self._home}.{key}_page")  # start-up is felt
            page: SubPage = getattr(module, self._kinds[key])(
                self._document, self._theme, self._unit
            )
            page.piece_chosen.connect(self._on_piece_chosen)
            page.place_wanted.connect(self.turn_to)
            page.description_wanted.connect(self.description_wanted)
            self._pages[key] = page
            self._tabs.add(page)
            page.choose(self.chosen)
            self.made.emit(key, page)
        return self._pages[key]

    def _on_piece_chosen(self, ref: str) -> None:
        self.take_in_hand(ref)
        self.body_chosen.emit(ref)

    def take_in_hand(self, ref: str) -> None:
        """One piece in hand on all benches."""
        self.chosen = ref
        for page in self._pages.values():
            page.choose(ref)

    def made_page(self, key: str) -> SubPage | None:
        """A bench, if it was looked at already."""
        return self._pages.get(key)

    def apply_style(self) -> None:
        """Put the style sheet on the tabs and the bench that is seen."""
        self._tabs.apply_style()

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
