"""In the round: the airframe in space beside what is in hand."""

from typing import Final

from PyQt6.QtWidgets import QComboBox, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.messages import in_the_round as say
from hardkeel.messages.faults import told
from hardkeel.picture.frame_in_space import in_space, named
from hardkeel.picture.in_space import Space
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.round_view import SKINS, RoundView, Seen

_SHOWS: Final = frozenset({"fuselage", "survey", "wings", "tail", "surfaces"})


class RoundPage(SubPage):
    """The view that turns, what is in hand, how to turn it; a stage says more of what is in hand."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._chosen = ""
        self.view = RoundView(theme)
        self.hand = LinesCard(say.IN_HAND)
        self.turning = Card(say.TURN_IT)
        self.skin = QComboBox()
        self.skin.setAccessibleName("how much of the skin is shown")
        for skin in SKINS:
            self.skin.addItem(say.SKINS[skin], skin)
        self.skin.setCurrentIndex(self.skin.findData(self.view.skin))
        self.turning.column.addWidget(label("soft", say.HOW_TO_TURN))
        self.turning.column.addWidget(self.skin)
        cards = CardColumn((self.told, self.hand, *self.more_cards(), self.turning), theme)
        self.lie_beside(self.view, cards)
        self.themed = (self.view, cards)
        self.skin.activated.connect(lambda: self.view.show_skin(self.skin.currentData()))
        self.view.skin_changed.connect(
            lambda skin: self.skin.setCurrentIndex(self.skin.findData(skin))
        )
        self.view.picked.connect(self.choose)
        self.view.picked.connect(self.piece_chosen)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def more_cards(self) -> tuple[QWidget, ...]:
        """What a stage has to say beside it."""
        return ()

    def choose(self, ref: str) -> None:
        """Take a piece in hand."""
        if ref != self._chosen:
            self._chosen = ref
            self.refresh()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.view.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        fuselage = self.document.build.fuselage
        self.told.hide()
        try:
            space = in_space(self.document.build)
            shown = self.seen(space)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        self.view.show_space(shown)
        heading, lines = self.words(self._chosen)
        self.hand.setVisible(fuselage is not None)
        self.hand.show_lines(heading, lines)

    def seen(self, space: Space) -> Seen:
        """What is shown of it."""
        fuselage = self.document.build.fuselage
        names = named(fuselage) if fuselage is not None else ()
        return Seen(space, names=names, chosen=self._chosen)

    def words(self, ref: str) -> tuple[str, tuple[str, ...]]:
        """What is said of the piece in hand: its name, and lines."""
        if not ref:
            return say.NOTHING_IN_HAND, (say.POINT_AT_A_PIECE,)
        return ref.replace("_", " "), ()
