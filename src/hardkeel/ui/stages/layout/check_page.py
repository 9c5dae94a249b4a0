"""Check a part: what lies on the mat against its drawing, what was checked so far, an outline from a part without one."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.airframe.checked_parts import all_checked, checked, hands_apart
from hardkeel.airframe.cut_pieces import cut_pieces
from hardkeel.base.units import LengthUnit, decimal
from hardkeel.export.paper_sizes import DESK_PAPERS, PAPERS, paper_for
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.messages.names import sentence_case, surface_name
from hardkeel.parts.model import OTHER_HAND
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.layout.check_shown import answer_of, shown_of
from hardkeel.ui.stages.layout.checked_view import CheckedView
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.dropped import PictureDrop
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.folded import Folded

MAT_PAGES: Final = ((1, 1), (2, 1), (2, 2))
_BAR_MM: Final = 100.0
_USUAL_MM: Final = 3.0


class CheckPage(SubPage):
    """The page.

    Signals
    -------
    picture_wanted : (nothing)
        A picture is to be opened.
    pictures_given : list of Path
        Pictures were dropped.
    mat_wanted : (nothing)
        The mat is to be printed.
    outline_wanted : (nothing)
        The outline of what lies on the mat is to be taken.
    """

    picture_wanted = pyqtSignal()
    pictures_given = pyqtSignal(list)
    mat_wanted = pyqtSignal()
    outline_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._pieces: dict[str, FlatPiece] = {}
        self._key = ""  # of the hand that was read last
        PictureDrop(self).dropped.connect(self.pictures_given)
        self.view = CheckedView(theme)
        self.exaggeration = Exaggeration()
        self._answer_card, self._answer = Card(say.WHAT_IT_SAYS), label("answer")
        self._more, self._seen = label("heading"), label("soft")
        self.piece, self.paper, self.becomes = QComboBox(), QComboBox(), QComboBox()
        self.open, self.print = QPushButton(say.OPEN), QPushButton(say.PRINT)
        self.bars = tuple(QuantityEdit(unit=unit) for _ in range(2))
        self.thick = QuantityEdit(unit=unit)
        self.take_outline = QPushButton(say.TAKE_OUTLINE)
        self._checked = label("soft")
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 6)
        left.addWidget(self.view, 1)
        foot = QHBoxLayout()
        foot.setContentsMargins(14, 0, 14, 0)
        foot.addStretch(1)
        foot.addWidget(self.exaggeration)
        left.addLayout(foot)
        for one in (self._answer, self._more, self._seen):
            self._answer_card.column.addWidget(one)
        part = Card(say.THE_PART, "act")
        self.piece.setAccessibleName(say.WHICH)
        self.open.setObjectName("primary")
        part.column.addWidget(self.piece)
        part.column.addWidget(self.open)
        part.column.addWidget(label("soft", say.HOW_TO))
        mat = Folded(say.PRINT.removesuffix("…"))
        self._mat = mat
        for name in PAPERS:
            for pages in MAT_PAGES if name in DESK_PAPERS else ((1, 1),):
                self.paper.addItem(say.paper_words(name, pages), (name, pages))
        self.paper.setCurrentText(paper_for(self.unit))
        self.paper.setAccessibleName(say.PAPER)
        mat.put_across(self.paper)
        mat.put_across(self.print)
        mat.begin_pairs()
        for number, (field, words) in enumerate(zip(self.bars, say.BARS_WORDS, strict=True)):
            field.set_value(_BAR_MM)
            field.line.setAccessibleName(words)
            mat.put_pair(number, label("soft", words), field)
        part.column.addWidget(mat)
        done = self._done_card()
        self._cards = CardColumn((self.told, self._answer_card, part, done), self.theme)
        self.lie_beside(left, self._cards)
        self.themed = (self.view, self._cards)

    def _done_card(self) -> Card:
        """What was checked so far, and folded away what is done with a part that has no drawing."""
        done = Card(say.CHECKED)
        done.column.addWidget(self._checked)
        bare = Folded(say.NO_DRAWING)
        self.thick.set_value(_USUAL_MM)
        self.thick.line.setAccessibleName(say.THICK)
        self.becomes.setAccessibleName(say.BECOMES)
        bare.put_pair(0, label("soft", say.THICK), self.thick)
        bare.put_pair(1, label("soft", say.BECOMES), self.becomes)
        bare.put_across(self.take_outline)
        bare.put_across(label("soft", say.OUTLINE_WHY))
        done.column.addWidget(bare)
        return done

    def _connect(self) -> None:
        self.exaggeration.factor_changed.connect(self.view.show_times)
        self.open.clicked.connect(self.picture_wanted)
        self.print.clicked.connect(self.mat_wanted)
        self.take_outline.clicked.connect(self.outline_wanted)
        self.piece.activated.connect(self._on_piece)
        for field in self.bars:
            field.value_changed.connect(lambda _value: self._show_mat())
        self.paper.activated.connect(lambda _row: self._show_mat())
        self.refresh_lazily()

    # -- what is chosen --------------------------------------------------------------------------

    @property
    def chosen_piece(self) -> FlatPiece | None:
        """The piece that is to be on the mat."""
        return self._pieces.get(self.piece.currentData() or "")

    @property
    def scale(self) -> tuple[float, float]:
        """How many millimetres the mat's printer made of one, across and along."""
        across, along = ((field.value or _BAR_MM) / _BAR_MM for field in self.bars)
        return across, along

    @property
    def mat(self) -> tuple[str, tuple[int, int]]:
        """The mat's paper, and of how many sheets across and up it is put together."""
        paper, pages = self.paper.currentData()
        return paper, (pages[0], pages[1])

    def choose(self, ref: str) -> None:
        """Take a piece in hand by its name or its part."""
        for name, piece in self._pieces.items():
            if ref in (name, piece.part):
                self._take(name)
                return

    def show_check(self, key: str) -> None:
        """Show what was just found of a piece, or of the other hand of it."""
        self._key = key
        self._take(key.removesuffix(OTHER_HAND))

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.piece.setFocus()

    # -- showing ---------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the document as it is now."""
        build = self.document.build
        self._pieces = {piece.name: piece for piece in cut_pieces(build)}
        now = self.piece.currentData()
        self.piece.clear()
        for name in self._pieces:
            self.piece.addItem(sentence_case(name), name)
        row = self.piece.findData(now)
        self.piece.setCurrentIndex(max(row, 0) if self._pieces else -1)
        kept = self.becomes.currentText()
        self.becomes.clear()
        for former in build.fuselage.formers if build.fuselage is not None else ():
            self.becomes.addItem(former.id, former.id)
        for surface in build.tail:
            self.becomes.addItem(sentence_case(surface_name(surface.id)), surface.id)
        self.becomes.addItem(say.A_TEMPLATE, "")
        self.becomes.setCurrentText(kept)
        for widget in (self.piece, self.open):
            widget.setEnabled(bool(self._pieces))
        self._show_mat()
        self._show_answer()
        self._show_checked()

    def _show_mat(self) -> None:
        across, along = self.scale
        true = across == along == 1.0
        words = "100 %" if true else f"{decimal(across * 100, 1)} × {decimal(along * 100, 1)} %"
        self._mat.show_values(f"{self.paper.currentText()}, {words}")

    def _show_answer(self) -> None:
        piece, build = self.chosen_piece, self.document.build
        if piece is None:
            self._say_answer((say.NO_PIECES,), (), edge="")
            self.view.show_part(None, say.NO_PIECES)
            return
        key = self._key if self._key.removesuffix(OTHER_HAND) == piece.name else piece.name
        found = checked(build, piece, key)
        if found is None or found.check is None:
            self._say_answer((say.NOTHING_YET,), (say.NOTHING_WHY,), edge="")
            self.view.show_part(shown_of(piece, None, (), self.unit), say.NOTHING_YET)
            return
        check, faults = found.check, found.faults
        answer = answer_of(piece, check, faults, self.unit)
        how = say.how_lines(check, found.kept.tilt, self.unit)
        self._say_answer(answer, how, edge="out" if faults or not check.fits else "")
        self.view.show_part(shown_of(piece, check, faults, self.unit), answer[0])

    def _say_answer(self, answer: Sequence[str], how: Sequence[str], *, edge: str) -> None:
        self._answer.setText(answer[0])
        for words, lines in ((self._more, answer[1:]), (self._seen, how)):
            words.setText("\n".join(lines))
            words.setVisible(bool(lines))
        self._answer_card.set_edge(edge)

    def _show_checked(self) -> None:
        build = self.document.build
        lines = []
        for one in all_checked(build):
            lines.append(say.checked_line(one, self.unit))
            apart = hands_apart(build, one.piece) if one.key.endswith(OTHER_HAND) else None
            if apart is not None:
                lines.append(say.hands_line(one.piece.name, apart, self.unit))
        self._checked.setText("\n".join(lines) or say.NONE_CHECKED)

    # -- doing -----------------------------------------------------------------------------------

    def _on_piece(self) -> None:
        self._key = ""
        self._show_answer()
        piece = self.chosen_piece
        if piece is not None:
            self.piece_chosen.emit(piece.part)

    def _take(self, name: str) -> None:
        self.piece.setCurrentIndex(self.piece.findData(name))
        self._show_answer()
