"""What the benches of Tail share: the surface in hand, and a row to pick it from."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import tail as say
from hardkeel.tail.model import TailSurface
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.doing_card import Doing

SAY_HOW_BUILT: Final = Doing(say.HOW_BUILT_FIRST, button=say.SHOW_SURFACE, key="surface")
SHOWS: Final = frozenset({"tail", "profiles", "wings", "fuselage", "ledger"})


class SurfaceRow(QWidget):
    """The surfaces of the build side by side.

    Signals
    -------
    picked : str
        A surface's id.
    """

    picked = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.buttons: dict[str, QPushButton] = {}
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(14, 6, 14, 4)
        self._row.setSpacing(8)
        self._row.addStretch(1)

    def show_surfaces(self, surfaces: tuple[TailSurface, ...], chosen: str) -> None:
        """A button each, the one in hand down."""
        if list(self.buttons) != [one.id for one in surfaces]:
            for button in self.buttons.values():
                self._row.removeWidget(button)
                button.deleteLater()
            self.buttons = {}
            for i, one in enumerate(surfaces):
                button = QPushButton(say.surface_title(one))
                button.setObjectName("tool")
                button.setCheckable(True)
                button.clicked.connect(lambda _on, key=one.id: self.picked.emit(key))
                self._row.insertWidget(i, button)
                self.buttons[one.id] = button
        for key, button in self.buttons.items():
            button.setChecked(key == chosen)
        self.setVisible(len(surfaces) > 1)


class TailSubPage(SubPage):
    """A bench of Tail."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.chosen = ""
        self.row = SurfaceRow()
        self.row.picked.connect(self._on_surface_picked)

    @property
    def surface(self) -> TailSurface | None:
        """The surface in hand; the first where none was picked."""
        tail = self.document.build.tail
        found = next((one for one in tail if one.id == self.chosen), None)
        return found or (tail[0] if tail else None)

    def choose(self, ref: str) -> None:
        """Take a surface in hand that was picked elsewhere."""
        ids = [one.id for one in self.document.build.tail]
        if ref in ids and ref != self.chosen:
            self.chosen = ref
            self.refresh()

    def show_row(self) -> None:
        """Show the surfaces that there are."""
        surface = self.surface
        self.row.show_surfaces(self.document.build.tail, surface.id if surface else "")

    def _on_surface_picked(self, key: str) -> None:
        self.choose(key)
        self.show_row()
        self.piece_chosen.emit(key)
