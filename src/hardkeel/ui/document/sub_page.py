"""What the pages within a stage share: a document, a theme, a unit, and a line that says what went wrong."""

from typing import Protocol

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits.named import Edit
from hardkeel.messages.faults import told
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.tab_order import work_through


class Themed(Protocol):
    """What is dressed in a theme."""

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""


class SubPage(QWidget):
    """A view of the document; `refresh` shows it as it is now.

    Attributes
    ----------
    dressed : tuple
        Parts of the page that want to know of another theme.

    Signals
    -------
    stirred : (nothing)
        Something on the page changed that only the page shows.
    piece_chosen : str
        A piece was picked here: a former, a member, a stick of the cut list, a rib.
    place_wanted : str
        Another bench of the stage is asked for.
    description_wanted : (nothing)
        Nothing can be shown without a model: it is asked to describe one.
    """

    stirred = pyqtSignal()
    piece_chosen = pyqtSignal(str)
    place_wanted = pyqtSignal(str)
    description_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.document = document
        self.theme = theme
        self.unit: LengthUnit = unit
        self.told = label("warn")
        self.told.hide()
        self.themed: tuple[Themed, ...] = ()
        self._lazy: LazyRefresh | None = None

    def refresh_lazily(self, shows: frozenset[str] | None = None) -> None:
        """Follow the document: at once while the page is seen, else when it is next turned to.

        Parameters
        ----------
        shows : frozenset of str, optional
            The parts of a build that the page shows, as `Change` names them; without it all.
        """
        self._lazy = LazyRefresh(self, self.document, self.refresh, shows)

    def show_anew(self) -> None:
        """Refresh now if the page is seen, else when it is next turned to."""
        if self._lazy is not None:
            self._lazy.renew()
        else:
            self.refresh()

    def lie_beside(self, work: QWidget | QLayout, cards: CardColumn, left_px: int = 0) -> None:
        """Lay the working surface out with its cards to the right."""
        outer = QHBoxLayout(self)
        outer.setContentsMargins(left_px, 0, 0, 0)
        outer.setSpacing(0)
        if isinstance(work, QLayout):
            outer.addLayout(work, 1)
        else:
            outer.addWidget(work, 1)
        outer.addWidget(cards)
        self.lead_tab(cards)

    def lead_tab(self, cards: CardColumn) -> None:
        """Let Tab go through the working surface, then through the cards from top to bottom."""
        cards.laid.connect(lambda: work_through(self))
        work_through(self)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self.unit = unit
        self.show_anew()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.theme = theme
        for part in self.themed:
            part.set_theme(theme)
        self.show_anew()

    def refresh(self) -> None:
        """Show the document as it is now."""

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""

    def choose(self, ref: str) -> None:
        """Take a piece in hand that was picked elsewhere."""

    def apply(self, name: str, edit: Edit, *, nudge: str = "") -> bool:
        """Do an edit; where it can't be done say so, and nothing is lost."""
        try:
            self.document.apply(name, edit, nudge=nudge)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return False
        self.tell("")
        return True

    def tell(self, text: str) -> None:
        """Say something about what was just tried."""
        self.told.setText(text[:1].upper() + text[1:])
        self.told.setVisible(bool(text))
