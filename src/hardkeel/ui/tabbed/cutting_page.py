"""A bench to cut sticks at: the frame as it is pinned down, and below it one stick at a time with its angles."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit, format_angle
from hardkeel.edits import framing as edits
from hardkeel.joinery.buying import Purchase
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.jig import settings_needed
from hardkeel.messages import frame as say
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.tabbed.sticks_shown import Sticks, stick_shown, wood_name
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cutting_view import CuttingView
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.wood_board import WoodBoard

_BOARD: Final = 4
_CUTTING: Final = 5


class CuttingPage(SubPage):
    """The drawing with the stick in hand lit up, and the cutting view.

    A stage says by `reckoned`, `drawn` and `first` what there is to cut, how it lies, and what comes before.

    Signals
    -------
    strips_wanted : (nothing)
        The strips to buy are to be reckoned; `show_strips` shows them.
    """

    strips_wanted = pyqtSignal()

    title = ""
    nothing = ""
    shows: frozenset[str] = frozenset()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._sticks = Sticks((), ())
        self._number = 0
        self._has = False
        self.board = WoodBoard(theme, self.title)
        self.cutting = CuttingView(theme)
        self.cut, self.back = QPushButton(say.CUT_IT), QPushButton(say.ONE_BACK)
        self.true_size = QPushButton(say.ENDS_TRUE_SIZE)
        self.cut.setObjectName("primary")
        self.true_size.setCheckable(True)
        self._count = label("soft")
        self._count.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.now = NowCard()
        self.wood = LinesCard(say.WOOD_TO_BUY)
        self._lay_out()
        self._connect()
        self.refresh_lazily(self.shows)
        self.refresh()

    def _lay_out(self) -> None:
        buttons = QWidget()
        buttons.setObjectName("paper")
        buttons.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(buttons)
        row.setContentsMargins(16, 4, 16, 10)
        row.setSpacing(8)
        for widget in (self.cut, self.back, self.true_size):
            row.addWidget(widget)
        row.addWidget(self._count, 1)
        self._buttons = buttons
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        work.addWidget(self.board, _BOARD)
        work.addWidget(self.cutting, _CUTTING)
        work.addWidget(buttons)
        self._cards = CardColumn(
            (self.told, self.now, *self.cards(), FoldedSheet((self.wood,))), self.theme
        )
        self.lie_beside(work, self._cards)
        self.themed = (self.board, self.cutting, self._cards)

    def _connect(self) -> None:
        self.board.picked.connect(self._on_picked)
        self.cutting.cut.connect(self._on_cut)
        self.cutting.back.connect(self._on_back)
        self.cutting.onward.connect(self._on_onward)
        self.cut.clicked.connect(self._on_cut)
        self.back.clicked.connect(self._on_back)
        self.true_size.toggled.connect(lambda on: self.cutting.show_true_size(on=on))
        self.now.asked.connect(self.asked)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.cutting.setFocus()

    @property
    def part(self) -> CutPart | None:
        """The line of the cut list in hand."""
        return self._sticks.steps[self._number].part if self._sticks.steps else None

    # -- what a stage says -------------------------------------------------------------------------

    def cards(self) -> tuple[QWidget, ...]:
        """Cards of the stage's own, between what to do and the wood."""
        return ()

    def reckoned(self) -> Sticks | None:
        """What there is to cut; ``None`` where there is nothing to frame."""
        return None

    def drawn(self) -> tuple[WoodPicture, str]:
        """The frame as it is pinned down, and a note to its head."""
        return WoodPicture(), ""

    def first(self) -> Doing | None:
        """What has to be done before there is anything to cut."""
        return None

    def asked(self, key: str) -> None:
        """The button of what is to be done was pressed."""
        self.place_wanted.emit(key)

    # ----------------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the build as it is now."""
        sticks = self.reckoned()
        self._sticks = sticks or Sticks((), ())
        self._has = sticks is not None
        self._number = min(self._number, max(len(self._sticks.steps) - 1, 0))
        if self._sticks.steps and self._sticks.is_cut(self._number):
            self._number = self._sticks.next_from(self._number) or self._number
        if self._has:
            picture, note = self.drawn()
            self.board.show_picture(picture, self._key(), note)
            self.strips_wanted.emit()
        else:
            self.board.show_picture(WoodPicture(), "", self.nothing)
            self.wood.show_lines("", ())
        self._show_stick()

    def _key(self) -> str:
        return self._sticks.steps[self._number].part.key if self._sticks.steps else ""

    def _show_stick(self) -> None:
        sticks = self._sticks
        has = bool(sticks.steps)
        self._buttons.setVisible(has)
        if has:
            shown = stick_shown(self.document.build, sticks, self._number, self.unit)
            self.cutting.show_stick(shown)
            self.cut.setEnabled(not shown.cut)
            saving = say.jig_saving(
                settings_needed(sticks.steps), sum(len(step.settings) for step in sticks.steps)
            )
            self._count.setText(f"{say.cut_so_far(sticks.cut, sticks.wanted)} · {saving}")
        else:
            self.cutting.show_stick(None, say.NO_STICKS if self._has else self.nothing)
        self.now.show_doing(self._doing())  # of the stick in hand, however it came there
        self.turned()
        self.board.choose(self._key())

    def turned(self) -> None:
        """Another stick is in hand: draw what it belongs to."""

    def show_strips(self, bought: Sequence[Purchase]) -> None:
        """Say which strips to buy."""
        lines = [
            say.purchase_sentence(one, self.unit, wood_name(self.document.build, one.material))
            for one in bought
            if one.pieces or one.own
        ]
        self.wood.show_lines(say.wood_answer(sum(one.pieces for one in bought), 0), lines)

    @property
    def second_half(self) -> str:
        """What is said of the other side or half; empty for nothing."""
        return ""

    def _doing(self) -> Doing:
        first = self.first()
        if first is not None:
            return first
        at = self._sticks.next_from(self._number) if self._sticks.steps else None
        if at is None:
            return Doing(say.PRINT_NOW, say.MORE_BELOW, button=say.SHOW_ME, key="sheets")
        step = self._sticks.steps[at]
        if not step.settings:
            answer = say.fit_now(step.part.kind.replace("-", " "))
            return Doing(answer, self.second_half, say.BLADE_CAUTION)
        setting = step.settings[0]
        alike = [
            i
            for i, other in enumerate(self._sticks.steps)
            if setting in other.settings and not self._sticks.is_cut(i)
            and other.part.section == step.part.section
        ]  # fmt: skip
        count = sum(self._sticks.steps[i].part.quantity - self._sticks.done[i] for i in alike)
        kinds = {self._sticks.steps[i].part.kind for i in alike}
        word = kinds.pop() if len(kinds) == 1 else "stick"
        answer = say.cut_now(word.replace("-", " "), count, format_angle(setting, 1))
        return Doing(answer, self.second_half, say.BLADE_CAUTION)

    # -- what the hands do -------------------------------------------------------------------------

    def _on_picked(self, ref: str) -> None:
        keys = [step.part.key for step in self._sticks.steps]
        if ref in keys:
            self._number = keys.index(ref)
            self._show_stick()
        self.piece_chosen.emit(ref)

    def _on_cut(self) -> None:
        sticks = self._sticks
        if not sticks.steps or sticks.is_cut(self._number):
            return
        part, done = sticks.steps[self._number].part, sticks.done[self._number]
        self.apply(say.cut_edit(part.name), edits.note_cut.of(part.key, done + 1, part.length))

    def _on_back(self) -> None:
        """Take back the last one of this line, or of the one before it in the jig's order."""
        sticks = self._sticks
        count = len(sticks.steps)
        before = ((self._number - i) % count for i in range(count))
        at = next((number for number in before if sticks.done[number]), None)
        if at is None:
            return
        part, done = sticks.steps[at].part, sticks.done[at]
        self._number = at
        self.apply(
            say.not_cut_edit(part.name),
            edits.note_cut.of(part.key, done - 1, part.length),
        )

    def _on_onward(self, step: int) -> None:
        if self._sticks.steps:
            self._number = (self._number + step) % len(self._sticks.steps)
            self._show_stick()
