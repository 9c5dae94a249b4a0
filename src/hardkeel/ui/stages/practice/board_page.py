"""On the board: pieces of work that are to be told before they are glued, or while the glue is wet."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QSpinBox, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit, shortest
from hardkeel.messages import pieces as words
from hardkeel.messages import practising as say
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.pieces.task import Marked, Task, marked
from hardkeel.project.practice import Word
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.practice import board_shown as shown
from hardkeel.ui.stages.practice.looks_card import LooksCard
from hardkeel.ui.stages.practice.minutes_strip import MinutesStrip
from hardkeel.ui.stages.practice.piece_view import PieceView
from hardkeel.ui.stages.practice.verdict_rows import VerdictRows
from hardkeel.ui.stages.practice.words_card import WordsCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.answers import Answers
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.folded import Folded

if TYPE_CHECKING:
    from hardkeel.practice.pieces.knowing import Taken

_NOTHING: Final = frozenset({"nothing of a build"})
_RIGHT_FROM: Final = 2


class AfterCard(Card):
    """What to take along, what was wrong, the best list, and another one."""

    def __init__(self) -> None:
        super().__init__(say.TAKE_ALONG, "act")
        self.sentence, self.story, self.left = label("big"), label("answer"), label("soft")
        self.another = QPushButton(words.ANOTHER)
        self.another.setObjectName("primary")
        self.fold, self.best = Folded(words.BEST_LIST), label("soft")
        self.fold.put_across(self.best)
        row = QHBoxLayout()
        row.addWidget(self.another)
        row.addStretch(1)
        for part in (self.sentence, self.story, self.left):
            self.column.addWidget(part)
        self.column.addLayout(row)
        self.column.addWidget(self.fold)


class BoardPage(SubPage):
    """The piece and what was read on the left; what is asked and what can be read on the right.

    Signals
    -------
    task_wanted : str
        Another one of this kind.
    number_wanted : str, int
        The one of this kind and number.
    over : (nothing)
        The learner's word was given.
    """

    task_wanted = pyqtSignal(str)
    number_wanted = pyqtSignal(str, int)
    over = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.task: Task | None = None
        self.taken: tuple[Taken, ...] = ()
        self.said: dict[str, Word] = {}
        self.lines: tuple[Marked, ...] = ()
        self.kinds = Answers()
        self.kinds.offer([(kind, words.PIECES[kind].name) for kind in PIECES])
        self.kinds.given.connect(self.task_wanted)
        self.number = QSpinBox()
        self.number.setRange(0, words.NUMBERS - 1)
        self.number.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
        self.number.setAccessibleName(words.NUMBER)
        self.number.setToolTip(words.NUMBER_TIP)
        self.number.editingFinished.connect(self._on_number)
        self.view = PieceView(theme)
        columns = [Column(head, right=i >= _RIGHT_FROM) for i, head in enumerate(say.HEADS[:5])]
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 1, say.READ_SO_FAR)
        self.rows, self.strip = VerdictRows(theme), MinutesStrip(theme)
        self.minutes, self.this = label("heading"), label("soft")
        self.words, self.looks, self.after = WordsCard(), LooksCard(theme), AfterCard()
        self._cards = CardColumn((self.told, self.after, self.words, self.looks), theme)
        self._lay_out()
        self.themed = (
            self.view,
            self.table,
            self.rows,
            self.strip,
            self.looks,
            self._cards,
        )
        self.looks.pointed.connect(lambda _row: self._show_picture())
        self.looks.read_wanted.connect(self._on_read)
        self.words.said.connect(self._on_said)
        self.words.amount_said.connect(self._on_amount)
        self.words.done.connect(self._on_done)
        self.after.another.clicked.connect(self._on_another)
        self.refresh_lazily(_NOTHING)
        self.refresh()

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(14, 8, 14, 6)
        head.addLayout(self.kinds, 1)
        head.addWidget(label("soft", words.NUMBER, wrap=False))
        head.addWidget(self.number)
        below = QHBoxLayout()
        below.setContentsMargins(14, 4, 14, 0)
        below.addWidget(self.minutes)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addLayout(head)
        self.this.setContentsMargins(14, 0, 14, 4)
        left.addWidget(self.this)
        left.addWidget(self.view, 5)
        left.addWidget(self.rows)
        left.addLayout(below)
        left.addWidget(self.strip)
        left.addWidget(self.table, 3)
        self.lie_beside(left, self._cards)

    def focus_work(self) -> None:
        """Put the cursor on what can be read; when it is over, on another one."""
        (self.after.another if self.lines else self.looks.table).setFocus()

    def show_task(self, task: Task) -> None:
        """Lay another one on the board."""
        self.task, self.taken, self.said, self.lines = task, (), {}, ()
        self.tell("")
        self.show_anew()
        self.looks.table.selectRow(0)
        self.focus_work()

    @property
    def spent(self) -> float:
        """Minutes so far."""
        return self.task.spent(self.taken) if self.task is not None else 0.0

    def refresh(self) -> None:
        """Show how far it is."""
        task, over = self.task, bool(self.lines)
        after: tuple[QWidget, ...] = (self.rows, self.strip, self.minutes, self.after)
        before: tuple[QWidget, ...] = (self.words, self.looks)
        for part in after:
            part.setVisible(over)
        for part in before:
            part.setVisible(not over and task is not None)
        self.table.setVisible(bool(self.taken) and not over)
        if task is None:
            return
        self.kinds.show_given(task.piece.kind)
        self.number.setValue(task.seed)
        self.this.setText(words.PIECES[task.piece.kind].is_this)
        self.words.eyebrow.setText(f"{say.SAY_OF_EACH} · {words.number_line(task)}")
        self.words.show_questions(
            words.piece_answer(task, len(self.said), self.spent),
            shown.questions(task, self.said, self.unit),
            self.unit,
            ready=bool(self.said),
        )
        self.looks.show_looks(shown.look_rows(task), self.theme)
        self.model.show_rows(shown.taken_rows(task, self.taken, self.unit), self.theme)
        self.table.scrollToBottom()
        if over:
            self._show_after(task)
        self._show_picture()

    def _show_picture(self) -> None:
        task = self.task
        if task is None:
            return
        at = self.looks.at
        more = task.piece.looks[at].minutes if 0 <= at < len(task.piece.looks) else 0.0
        line = words.minutes_line(task, self.spent)
        self.looks.show_minutes(line, self.spent, more, task.minutes)
        self.view.show_picture(shown.picture(task, self.taken, at, over=bool(self.lines)))

    def _show_after(self, task: Task) -> None:
        kind = words.PIECES[task.piece.kind]
        best, said = shown.best_lines(task)
        self.rows.show_rows(shown.verdict_rows(task, self.lines, self.unit))
        yours = shown.blocks(task, [one.look for one in self.taken])
        theirs = shown.blocks(task, best)
        self.strip.show_blocks(yours, theirs, -1)
        best_minutes = sum(one.minutes for one in theirs)
        self.minutes.setText(say.minutes_title(self.spent, best_minutes))
        self.after.sentence.setText(kind.along)
        self.after.story.setText(f"{words.told_answer(self.lines)} {kind.stories[task.story]}")
        left = words.set_words(task, self.lines, self.unit)
        self.after.left.setText(left)
        self.after.left.setVisible(bool(left))
        self.after.best.setText(said)
        self.after.fold.show_values(f"{shortest(best_minutes)} min")

    # -- what the learner does -------------------------------------------------------------------

    def _on_read(self, look: int) -> None:
        task = self.task
        if task is None or self.lines or not 0 <= look < len(task.piece.looks):
            return
        if self.spent + task.piece.looks[look].minutes > task.minutes:
            self.tell(words.SET_NOW if task.piece.pot_life is not None else say.SPENT)
            return
        self.taken = (*self.taken, task.read(look, len(self.taken)))
        self.refresh()

    def _on_said(self, asked: str, out: object) -> None:
        if out is None:
            self.said.pop(asked, None)
        else:
            self.said[asked] = Word(out=bool(out))
        self.refresh()

    def _on_amount(self, asked: str, amount: object) -> None:
        off = amount if isinstance(amount, float) else None
        self.said[asked] = Word(out=True, off=off)
        self.refresh()

    def _on_done(self) -> None:
        if self.task is None or self.lines or not self.said:
            return
        self.lines = marked(self.task, self.taken, self.said)
        self.refresh()
        self.focus_work()
        self.over.emit()

    def _on_number(self) -> None:
        if self.task is not None and self.number.value() != self.task.seed:
            self.number_wanted.emit(self.task.piece.kind, self.number.value())

    def _on_another(self) -> None:
        if self.task is not None:
            self.task_wanted.emit(self.task.piece.kind)
