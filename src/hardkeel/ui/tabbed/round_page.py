"""In the round: the airframe in space beside what is in hand."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any, Final

from PyQt6.QtWidgets import QComboBox, QWidget

from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.base.units import LengthUnit
from hardkeel.messages import in_the_round as say
from hardkeel.messages.faults import told
from hardkeel.picture.frame_in_space import in_space, named
from hardkeel.picture.in_space import Space
from hardkeel.project.model import Build
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.round_view import SKINS, RoundView, Seen

Run = Callable[
    [Callable[[], object], Callable[[object], object], Callable[[HardKeelError], object]], None
]
_SHOWS: Final = frozenset({"fuselage", "survey", "wings", "tail", "surfaces"})


class RoundPage(SubPage):
    """The view that turns, what is in hand, how to turn it; a stage says more of what is in hand.

    Attributes
    ----------
    run : callable
        Runs work beside the window, and brings back what it gives or the fault.
    """

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._chosen = ""
        self.run: Run = _at_once
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
        self._show_words()

    def more_cards(self) -> tuple[QWidget, ...]:
        """What a stage has to say beside it."""
        return ()

    def choose(self, ref: str) -> None:
        """Take a piece in hand."""
        if ref != self._chosen:
            self._chosen = ref
            self.view.choose(ref)
            self._show_words()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.view.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now, once it is reckoned."""
        self.told.hide()
        self._show_words()
        self.run(self.prepared(), self._on_reckoned, self._on_fault)

    def prepared(self) -> Callable[[], Seen]:
        """What is to be reckoned, from values that nobody changes: it runs beside the window."""
        build = self.document.build
        return lambda: seen_of(build, in_space(build))

    def words(self, ref: str) -> tuple[str, tuple[str, ...]]:
        """What is said of the piece in hand: its name, and lines."""
        if not ref:
            return say.NOTHING_IN_HAND, (say.POINT_AT_A_PIECE,)
        return ref.replace("_", " "), ()

    def _show_words(self) -> None:
        heading, lines = self.words(self._chosen)
        self.hand.show_lines(heading, lines)

    def _on_reckoned(self, seen: object) -> None:
        if isinstance(seen, Seen):
            self.view.show_space(replace(seen, chosen=self._chosen))

    def _on_fault(self, fault: HardKeelError) -> None:
        self.tell(told(fault, self.unit) if isinstance(fault, BadInput) else str(fault))


def seen_of(build: Build, space: Space, **more: Any) -> Seen:
    """A space with its formers' names, made ready to be turned."""
    names = named(build.fuselage) if build.fuselage is not None else ()
    _ = space.packed
    return Seen(space, names=names, **more)


def _at_once(
    work: Callable[[], object],
    done: Callable[[object], object],
    failed: Callable[[HardKeelError], object],
) -> None:
    """Where nobody runs it beside the window."""
    try:
        done(work())
    except HardKeelError as fault:
        failed(fault)
