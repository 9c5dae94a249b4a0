"""True as the window knows it: the bench where it is rigged, what that does in the air, photos, and the tools."""

from pathlib import Path
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import air as say
from hardkeel.messages.in_the_round import IN_THE_ROUND
from hardkeel.messages.sight import SIGHT
from hardkeel.messages.tools import TOOLS
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.true.air_page import AirPage
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.stages.true.round_page import TrueRoundPage
from hardkeel.ui.stages.true.sight_page import SightPage
from hardkeel.ui.stages.true.tools_page import ToolsPage
from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.tabs import Tabs

_KEYS: Final = "Alt+Shift"


class TrueStage(StagePage):
    """Five benches, one at a time; the others are made when they are first wanted.

    Signals
    -------
    made : object
        A bench was made.
    """

    made = pyqtSignal(object)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._theme, self._unit = document, theme, unit
        self.rigging = TruePage(document, theme, unit)
        self.rigging.body_chosen.connect(self.body_chosen)
        self.rigging.description_wanted.connect(self.description_wanted)
        self.closed.connect(self.rigging.closed)
        self.rigging.sight_wanted.connect(lambda: self.turn_to("sight"))
        names = (
            ("rig", say.RIG),
            ("sight", SIGHT),
            ("air", say.IN_THE_AIR),
            ("tools", TOOLS),
            ("round", IN_THE_ROUND),
        )
        self._tabs = Tabs(names, self.turn_to, _KEYS)
        self.tabs = self._tabs.buttons
        self._tabs.add(self.rigging)
        self._air: AirPage | None = None
        self._tools: ToolsPage | None = None
        self._sight: SightPage | None = None
        self._round: TrueRoundPage | None = None
        self._made: dict[str, SubPage] = {}
        self._now = "rig"
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._tabs)

    @property
    def unit(self) -> LengthUnit:
        """What lengths are shown in."""
        return self._unit

    @property
    def tab_keys(self) -> tuple[str, ...]:
        """The benches, in the order of their tabs."""
        return tuple(self.tabs)

    @property
    def foot(self) -> QWidget | None:
        """The gauges at hand."""
        return self.rigging.foot

    @property
    def air(self) -> AirPage:
        """What it does in the air; made when it is first wanted."""
        if self._air is None:
            self._air = AirPage(self._document, self._theme, self._unit)
            self._take_in("air", self._air)
        return self._air

    @property
    def tools(self) -> ToolsPage:
        """What the tools are worth; made when it is first wanted."""
        if self._tools is None:
            self._tools = ToolsPage(self._document, self._theme, self._unit)
            self._take_in("tools", self._tools)
        return self._tools

    @property
    def round(self) -> TrueRoundPage:
        """The airframe in space; made when it is first wanted."""
        if self._round is None:
            self._round = TrueRoundPage(self._document, self._theme, self._unit)
            self._round.view.picked.connect(self._on_picked_in_space)
            self._take_in("round", self._round)
        return self._round

    def _on_picked_in_space(self, ref: str) -> None:
        if self._document.build.surveyed.body(ref) is not None:
            self.body_chosen.emit(ref)

    @property
    def sight(self) -> SightPage:
        """Photos and what is clicked in them; made when it is first wanted."""
        if self._sight is None:
            self._sight = SightPage(self._document, self._theme, self._unit)
            self._take_in("sight", self._sight)
        return self._sight

    def _take_in(self, key: str, page: SubPage) -> None:
        self._made[key] = page
        self._tabs.add(page)
        self.made.emit(page)

    def turn_to(self, place: str) -> None:
        """Show a bench."""
        self._now = place
        page: QWidget = self.rigging
        match place:
            case "air":
                page = self.air
            case "tools":
                page = self.tools
            case "round":
                page = self.round
            case "sight":
                page = self.sight
        self._tabs.show_page(place, page)
        self.wake()

    def wake(self) -> None:
        """Be ready where the hands are."""
        page = self._made.get(self._now)
        if page is not None:
            page.focus_work()
        else:
            self.rigging.wake()

    def take_pictures(self, paths: list[Path]) -> None:
        """Sight takes them."""
        self.turn_to("sight")
        self.sight.photos_dropped.emit(paths)

    def choose_body(self, body: str) -> None:
        """Show what is known of one part."""
        self.rigging.choose_body(body)
        if self._round is not None:
            self._round.choose(body)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self._unit = unit
        self.rigging.set_unit(unit)
        for page in self._made.values():
            page.set_unit(unit)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.rigging.set_theme(theme)
        for page in self._made.values():
            page.set_theme(theme)

    def apply_style(self) -> None:
        """Put the style sheet on the names and the bench that is seen."""
        self._tabs.apply_style()
