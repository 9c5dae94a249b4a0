"""Controls: a cut across the hinge line at the throw wanted, what the linkage gives, what touches, what passes."""

from typing import Final

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from hardkeel.airframe.tails import clashes_in, passing_in
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import tail as edits
from hardkeel.messages import tail as say
from hardkeel.messages.faults import told
from hardkeel.picture.tail import flat_picture_of, hinge_picture
from hardkeel.picture.wood import WoodPicture
from hardkeel.project.model import Build
from hardkeel.tail.controls import hinge_stations, mismatch_of, throws_of
from hardkeel.tail.model import Controls, TailSurface
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.tail_page import SHOWS, TailSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.wood_board import WoodBoard

_CONTROLS: Final = ("up", "down", "gap", "inner", "edge", "thickness")
_LINKAGE: Final = ("servo_arm", "travel", "horn", "y")
_ANGLES: Final = ("up", "down", "travel")


class ControlsPage(TailSubPage):
    """The hinge large, the surface under it; figures and what follows from them beside."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.hinge = WoodBoard(theme, say.HINGE_CUT, height=240)
        self.board = WoodBoard(theme, say.FROM_ABOVE, height=220)
        self.now = NowCard()
        self.now.asked.connect(self.place_wanted)
        self.answer = LinesCard(say.HINGES)
        self.figures = FiguresCard(say.THROW)
        self.linkage = FiguresCard(say.LINKAGE)
        self.joiner = ButtonsCard(say.JOINER, list(say.JOINER_WORDS.items()))
        self.touches = LinesCard(say.TOUCHES)
        self.slot = LinesCard(say.SLOT)
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.timeout.connect(self._show_late)
        self._lay_out()
        self.figures.figure_changed.connect(self._on_control)
        self.linkage.figure_changed.connect(self._on_linkage)
        self.joiner.answered.connect(self._on_joiner)
        self.board.picked.connect(self.piece_chosen)
        self.refresh_lazily(SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(1)
        work.addWidget(self.row)
        work.addWidget(self.hinge, 5)
        work.addWidget(self.board, 4)
        cards = (
            self.told,
            self.now,
            self.answer,
            self.touches,
            self.figures,
            FoldedSheet((self.linkage, self.joiner, self.slot)),
        )
        self._cards = CardColumn(cards, self.theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.hinge, self.board, self._cards)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.hinge.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        self.show_row()
        surface = self.surface
        moves = (
            surface is not None and surface.hinge_at_chord is not None and surface.kind is not None
        )
        for card in (self.figures, self.linkage, self.touches, self.slot):
            card.setVisible(moves)
        self.joiner.setVisible(moves and surface is not None and not surface.upright)
        self.now.setVisible(not moves)
        if surface is None or not moves:
            self.hinge.show_picture(WoodPicture(), "", say.NO_HINGE)
            self.board.show_picture(WoodPicture())
            self.answer.show_lines("", [])
            self.now.show_doing(
                Doing(say.NO_HINGE, say.NO_HINGE_WHY, button=say.SHOW_SURFACE, key="surface")
            )
            return
        try:
            self._show(surface)
        except BadInput as fault:
            self.tell(told(fault, self.unit))

    def _show(self, surface: TailSurface) -> None:
        build, controls = self.document.build, surface.controls or Controls()
        stations = hinge_stations(surface, build.profiles)
        root = stations[0]
        throw = -controls.down if controls.down > controls.up else controls.up
        self.hinge.show_picture(hinge_picture(surface, root, throw))
        self.board.set_title(say.FIN_FLAT if surface.upright else say.FROM_ABOVE)
        self.board.show_picture(flat_picture_of(surface, build.profiles), "hinge")
        lines = [
            say.hinge_sentence(root, self.unit, upright=surface.upright),
            say.hinges_sentence(surface, self.unit),
        ]
        lines += [
            one
            for one in (say.mismatch_sentence(mismatch_of(surface, build.profiles), self.unit),)
            if one
        ]
        self.answer.show_lines(say.bevel_answer(root, upright=surface.upright), lines)
        words = say.UPRIGHT_CONTROL_WORDS if surface.upright else say.CONTROL_WORDS
        figures = tuple(
            Figure(
                key,
                words[key],
                getattr(controls, key),
                "angle" if key in _ANGLES else "length",
            )
            for key in _CONTROLS
        )
        self.figures.show_figures("", figures, self.unit)
        link = controls.linkage
        try:
            said = say.throw_sentence(
                throws_of(surface), max(controls.up, controls.down), self.unit
            )
        except BadInput as fault:
            said = str(fault)
        rows = tuple(
            Figure(
                key,
                say.CONTROL_WORDS[key],
                getattr(link, key),
                "angle" if key in _ANGLES else "length",
            )
            for key in _LINKAGE
        )
        self.linkage.show_figures("", rows, self.unit, said)
        self.linkage.comes_to(said)
        self.joiner.show_answer(controls.joiner)
        self._late.start()

    def _show_late(self) -> None:
        """What touches and what passes is reckoned once the rest is shown: it takes as long as all of that."""
        surface, build = self.surface, self.document.build
        if surface is None or not self.touches.isVisibleTo(self):
            return
        try:
            self._show_way(surface, build)
        except BadInput as fault:
            self.tell(told(fault, self.unit))

    def _show_way(self, surface: TailSurface, build: Build) -> None:
        clashes = clashes_in(build)
        sentences = say.clash_sentences(clashes, self.unit)
        self.touches.set_edge("out" if clashes else "")
        if clashes:
            self.touches.show_lines(sentences[0], sentences[1:])
        else:
            self.touches.show_lines(say.MOVES_FREE, sentences)
        ways = () if surface.upright else passing_in(build, surface)
        self.slot.setVisible(not surface.upright)
        self.slot.show_lines(say.passing_sentence(ways, self.unit), [])

    # -- what the hands do -------------------------------------------------------------------------

    def _on_control(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is not None:
            figure = value or None if key == "thickness" else value
            self.apply(say.CONTROL_WORDS[key], edits.set_controls.of(surface.id, **{key: figure}))

    def _on_joiner(self, key: str) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(say.JOINER.lower(), edits.set_controls.of(surface.id, joiner=key))

    def _on_linkage(self, key: str, value: float) -> None:
        surface = self.surface
        if surface is not None:
            self.apply(say.CONTROL_WORDS[key], edits.set_linkage.of(surface.id, **{key: value}))
