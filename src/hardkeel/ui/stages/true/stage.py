"""True as the window knows it: the bench where it is rigged, and what that does in the air."""

from typing import Final

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.benches.stage_page import StagePage
from hardkeel.ui.document.document import Document
from hardkeel.ui.kit.tabs import Tabs
from hardkeel.ui.stages.true.air_page import AirPage
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.theme import Theme
from hardkeel.voice import air as say

_KEYS: Final = "Alt+Shift"


class TrueStage(StagePage):
    """Two benches, one at a time; the second is made when it is first wanted."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._theme, self._unit = document, theme, unit
        self.rigging = TruePage(document, theme, unit)
        self.rigging.body_chosen.connect(self.body_chosen)
        self.rigging.description_wanted.connect(self.description_wanted)
        self.closed.connect(self.rigging.closed)
        names = (("rig", say.RIG), ("air", say.IN_THE_AIR))
        self._tabs = Tabs(names, self.turn_to, _KEYS)
        self.tabs = self._tabs.buttons
        self._tabs.add(self.rigging)
        self._air: AirPage | None = None
        self._now = "rig"
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._tabs)

    @property
    def foot(self) -> QWidget | None:
        """The gauges at hand."""
        return self.rigging.foot

    @property
    def air(self) -> AirPage:
        """What it does in the air; made when it is first wanted."""
        if self._air is None:
            self._air = AirPage(self._document, self._theme, self._unit)
            self._tabs.add(self._air)
        return self._air

    def turn_to(self, place: str) -> None:
        """Show a bench."""
        self._now = place
        self._tabs.show_page(place, self.air if place == "air" else self.rigging)
        self.wake()

    def wake(self) -> None:
        """Be ready where the hands are."""
        if self._now == "air":
            self.air.focus_work()
        else:
            self.rigging.wake()

    def choose_body(self, body: str) -> None:
        """Show what is known of one part."""
        self.rigging.choose_body(body)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self._unit = unit
        self.rigging.set_unit(unit)
        if self._air is not None:
            self._air.set_unit(unit)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.rigging.set_theme(theme)
        if self._air is not None:
            self._air.set_theme(theme)

    def wear(self) -> None:
        """Put the style sheet on the names and the bench that is seen."""
        self._tabs.wear()
