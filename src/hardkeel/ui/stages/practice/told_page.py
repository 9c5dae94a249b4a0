"""How it was: truth in wood under the lamp, the word over it, minutes against their best use, one thing to take along."""

from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import practising as say
from hardkeel.practice.went import Went
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.practice import told_shown as shown
from hardkeel.ui.stages.practice.lamp_view import LampView
from hardkeel.ui.stages.practice.minutes_strip import MinutesStrip
from hardkeel.ui.stages.practice.verdict_rows import VerdictRows
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded import Folded

_SHOWS: Final = frozenset({"practice"})


class AlongCard(Card):
    """The one thing to take along, and what to do next.

    Signals
    -------
    another_wanted, same_wanted, corrected_wanted, back_wanted : (nothing)
    """

    another_wanted = pyqtSignal()
    same_wanted = pyqtSignal()
    corrected_wanted = pyqtSignal()
    back_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.TAKE_ALONG, "act")
        self.sentence, self.story = label("big"), label("soft")
        self.column.addWidget(self.sentence)
        self.column.addWidget(self.story)
        self.another = QPushButton(say.ANOTHER)
        self.another.setObjectName("primary")
        self.same = QPushButton(say.SAME_AGAIN)
        self.correct = QPushButton(say.CORRECT_IT)
        self.correct.setToolTip(say.CORRECT_TIP)
        self.back = QPushButton()
        row = FlowLayout(gap=6)
        for button, signal in (
            (self.another, self.another_wanted),
            (self.correct, self.corrected_wanted),
            (self.same, self.same_wanted),
            (self.back, self.back_wanted),
        ):
            button.clicked.connect(signal)
            row.addWidget(button)
        self.column.addLayout(row)

    def show_along(self, sentence: str, story: str, back: str, *, correctable: bool) -> None:
        """Say it; `back` is the builder's own model that waits."""
        self.sentence.setText(sentence)
        self.story.setText(story)
        self.correct.setVisible(correctable)
        self.back.setVisible(bool(back))
        self.back.setText(say.back_to(back))


class ToldPage(SubPage):
    """An exercise that is over.

    Signals
    -------
    going_wanted : (nothing)
        It is to be gone through: nobody has yet.
    """

    going_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._went: Went | None = None
        self._step = -1
        self.own = ""
        self.view, self.rows, self.strip = LampView(theme), VerdictRows(theme), MinutesStrip(theme)
        self.factor = Exaggeration()
        self.minutes = label("heading")
        self.step = label("soft")
        self.before, self.next = QPushButton("‹"), QPushButton("›")
        self.along = AlongCard()
        self.how = Card(say.WENT)
        self._folds: dict[str, tuple[Folded, QWidget]] = {}
        self.waiting = label("title", say.NOT_TOLD)
        self._work, self._blank = QWidget(), QWidget()
        self._cards = CardColumn((self.told, self.along, self.how), theme)
        self._lay_out()
        self.themed = (self.view, self.rows, self.strip, self._cards)
        self.factor.factor_changed.connect(lambda _factor: self._show_scene())
        self.before.clicked.connect(lambda: self._go_to(self._step - 1))
        self.next.clicked.connect(lambda: self._go_to(self._step + 1))
        self.strip.step_picked.connect(self._go_to)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(14, 4, 14, 0)
        head.addWidget(self.minutes, 1)
        head.addWidget(label("soft", say.FILLED, wrap=False))
        replay = QHBoxLayout()
        replay.setContentsMargins(14, 0, 14, 6)
        for button, words in ((self.before, say.BACK), (self.next, say.FORTH)):
            button.setObjectName("tool")
            button.setAccessibleName(words)
            button.setToolTip(words)
            replay.addWidget(button)
        replay.addWidget(self.step, 1)
        self.view.put_in_corner(self.factor)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(2)
        left.addWidget(self.view, 1)
        left.addWidget(self.rows)
        left.addLayout(head)
        left.addWidget(self.strip)
        left.addLayout(replay)
        paper = QWidget()
        paper.setObjectName("paper")
        paper.setLayout(left)
        self._lay_beside(paper)

    def _lay_beside(self, paper: QWidget) -> None:
        inner = QHBoxLayout(self._work)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(0)
        area = QScrollArea()  # large text and five checks want more than a small screen has
        area.setWidget(paper)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        inner.addWidget(area, 1)
        inner.addWidget(self._cards)
        box = QVBoxLayout(self._blank)
        box.setContentsMargins(60, 48, 60, 24)
        box.addWidget(self.waiting)
        box.addStretch(1)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self._work, 1)
        outer.addWidget(self._blank, 1)
        self.lead_tab(self._cards)

    @property
    def went(self) -> Went | None:
        """The exercise that is shown."""
        return self._went

    def focus_work(self) -> None:
        """Enter goes on to another one."""
        self.along.another.setFocus()

    def refresh(self) -> None:
        """Show it where it was gone through; ask for that where it was not."""
        section = self.document.build.practice
        over = section is not None and section.told
        if self._went is not None and (section is None or self._went.exercise.section != section):
            self._went = None
        self._work.setVisible(self._went is not None)
        self._blank.setVisible(self._went is None)
        self.waiting.setText(say.LOOKING if over else say.NOT_TOLD)
        if over and self._went is None:
            self.going_wanted.emit()
        elif self._went is not None:
            self._show(self._went)

    def show_went(self, went: Went) -> None:
        """Show one that was gone through."""
        self._went, self._step = went, -1
        self.refresh()

    def _show(self, went: Went) -> None:
        exercise = went.exercise
        best = went.best[-1].minutes if went.best else 0.0
        self.rows.show_rows(shown.verdict_rows(went, self.unit))
        self.minutes.setText(say.minutes_title(went.spent, best))
        self.along.show_along(
            say.along(exercise, went.lines, went.best),
            say.story_words(exercise),
            self.own,
            correctable=any(one.left is not None for one in went.lines),
        )
        for name, value, lines in shown.folds(went, self.unit):
            if name not in self._folds:
                fold, beneath = Folded(name), label("soft")
                fold.put_across(beneath)
                self.how.column.addWidget(fold)
                self._folds[name] = (fold, beneath)
            fold, text = self._folds[name]
            fold.show_values(value)
            text.setText("\n".join(lines))  # type: ignore[attr-defined]
            fold.line.setEnabled(bool(lines))
        self._go_to(self._step)

    def _go_to(self, step: int) -> None:
        went = self._went
        if went is None:
            return
        self._step = max(-1, min(step, len(went.best) - 1))
        words = (
            say.STEP_BY_STEP
            if self._step < 0
            else say.step_words(went.exercise, self._step, went.best)
        )
        self.step.setText(words)
        self.before.setEnabled(self._step >= 0)
        self.next.setEnabled(self._step < len(went.best) - 1)
        self.strip.show_blocks(shown.your_blocks(went), shown.best_blocks(went), self._step)
        self._show_scene()

    def _show_scene(self) -> None:
        if self._went is not None:
            self.view.show_scenes(
                shown.scenes(self._went, self.factor.factor, self.unit, self._step)
            )
