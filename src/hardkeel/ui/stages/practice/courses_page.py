"""Courses: what each teaches, when it is worth doing, how it goes by skill, and what was done."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import pieces
from hardkeel.messages import practising as say
from hardkeel.practice.courses import COURSES
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.progress import ORDER, SKILLS, Book, due_of, next_course, skill_now
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.practice.share_bar import ShareBar
from hardkeel.ui.stages.practice.wanted import Wanted
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.flow import FlowLayout

_MODEL_COLUMN: Final = 1
_BAR_PX: Final = 110
_SHOWS: Final = frozenset({"survey", "practice", "name"})


class CourseRow(QWidget):
    """A course: what it teaches, how often it was done, and its button."""

    def __init__(self, title: str, minutes: str) -> None:
        super().__init__()
        self.title, self.due = label("heading", title), label("soft")
        self.begin = QPushButton(say.BEGIN)
        self.begin.setAccessibleName(f"{say.BEGIN}: {title}")
        words = QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(self.title)
        words.addWidget(self.due)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 5, 0, 5)
        row.addLayout(words, 1)
        row.addWidget(label("soft", minutes, wrap=False))
        row.addWidget(self.begin)


class CoursesPage(SubPage):
    """All courses on the left; free exercises, skills and what was done on the right.

    Signals
    -------
    exercise_wanted : Wanted
        One is to be made.
    piece_wanted : str
        A piece of this kind is to be laid on the board.
    kit_wanted : (nothing)
        A kit is to be put in order.
    stop_wanted : (nothing)
        Leave off making it.
    back_wanted : (nothing)
        Back to the builder's own model.
    """

    exercise_wanted = pyqtSignal(object)
    piece_wanted = pyqtSignal(str)
    kit_wanted = pyqtSignal()
    stop_wanted = pyqtSignal()
    back_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._book = Book()
        self.own = ""
        self.courses: dict[str, CourseRow] = {}
        self.making = label("answer", say.MAKING)
        self.making.hide()
        self.stop = QPushButton(say.LEAVE_IT)
        self.stop.setObjectName("tool")
        self.stop.clicked.connect(self.stop_wanted)
        self.stop.hide()
        self.back = QPushButton()
        self.back.clicked.connect(self.back_wanted)
        self.grades: dict[int, QPushButton] = {}
        self.mine = QPushButton(say.IN_MINE)
        self.mine.setToolTip(say.IN_MINE_TIP)
        self.mine.clicked.connect(lambda: self.exercise_wanted.emit(Wanted(own=True, grade=2)))
        self._bars = {skill: ShareBar(theme) for skill in SKILLS}
        self._shares = {skill: label("soft", wrap=False) for skill in SKILLS}
        columns = [Column(head, right=i > 2) for i, head in enumerate(say.DONE_HEADS)]  # noqa: PLR2004
        self.model = CellsModel(columns, theme, parent=self)
        self.done = CellsTable(self.model, theme, _MODEL_COLUMN, say.DONE_SO_FAR, (2, 5))
        self.done.setMinimumHeight(160)
        self.none_done = label("soft", say.NONE_DONE)
        self._cards = CardColumn((self._free(), self._skills(), self._done()), theme)
        self.lie_beside(self._listed(), self._cards)
        self.themed = (self.done, self._cards, *self._bars.values())
        self.refresh_lazily(_SHOWS)

    def _listed(self) -> QWidget:
        paper = QWidget()
        paper.setObjectName("paper")
        paper.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        box = QVBoxLayout(paper)
        box.setContentsMargins(28, 20, 28, 14)
        box.setSpacing(4)
        box.addWidget(label("big", say.COURSES_TITLE))
        box.addWidget(label("soft", say.COURSES_WHY))
        box.addWidget(self.told)
        waiting = QHBoxLayout()
        waiting.addWidget(self.making, 1)
        waiting.addWidget(self.stop)
        box.addLayout(waiting)
        box.addSpacing(8)
        box.addWidget(label("eyebrow", pieces.ON_BOARD))
        for kind in PIECES:
            row = CourseRow(pieces.PIECES[kind].course, "")
            row.begin.clicked.connect(lambda _on, kind=kind: self.piece_wanted.emit(kind))
            self.courses[kind] = row
            box.addWidget(row)
        kit = CourseRow(say.KIT_COURSE, "")
        kit.begin.clicked.connect(self.kit_wanted)
        self.courses[ORDER] = kit
        box.addWidget(kit)
        box.addSpacing(10)
        box.addWidget(label("eyebrow", pieces.WHOLE_MODEL))
        for course in COURSES.values():
            row = CourseRow(say.course_words(course.id), say.up_to(course.minutes))
            row.begin.clicked.connect(
                lambda _on, course=course: self.exercise_wanted.emit(
                    Wanted(course=course.id, grade=course.grade)
                )
            )
            self.courses[course.id] = row
            box.addWidget(row)
        box.addStretch(1)
        foot = QHBoxLayout()
        foot.addWidget(self.back)
        foot.addStretch(1)
        box.addLayout(foot)
        area = QScrollArea()
        area.setWidget(paper)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return area

    def _free(self) -> Card:
        card = Card(say.FREE)
        card.column.addWidget(label("soft", say.FREE_WHY))
        row = FlowLayout(gap=6)
        for grade, words in say.GRADES.items():
            button = QPushButton(words)
            button.clicked.connect(
                lambda _on, grade=grade: self.exercise_wanted.emit(Wanted(grade=grade))
            )
            self.grades[grade] = button
            row.addWidget(button)
        row.addWidget(self.mine)
        card.column.addLayout(row)
        return card

    def _skills(self) -> Card:
        card = Card(say.SKILLS_HEAD)
        for skill in SKILLS:
            row = QHBoxLayout()
            row.addWidget(label("heading", say.SKILLS[skill]), 1)
            row.addWidget(self._shares[skill])
            self._bars[skill].setFixedWidth(_BAR_PX)
            row.addWidget(self._bars[skill])
            card.column.addLayout(row)
        return card

    def _done(self) -> Card:
        card = Card(say.DONE_SO_FAR)
        card.column.addWidget(self.none_done)
        card.column.addWidget(self.done)
        return card

    def focus_work(self) -> None:
        """Enter begins the course that is worth doing next."""
        course = next_course(self._book, self.document.clock())
        self.courses[course].begin.setFocus()

    def show_book(self, book: Book) -> None:
        """Show what was done."""
        self._book = book
        self.show_anew()

    def show_making(self, *, making: bool) -> None:
        """While one is made nothing else is begun."""
        self.making.setVisible(making)
        self.stop.setVisible(making)
        for button in self._buttons():
            button.setEnabled(not making)
        if not making:
            self.refresh()

    def _buttons(self) -> Sequence[QPushButton]:
        return [*(row.begin for row in self.courses.values()), *self.grades.values(), self.mine]

    def refresh(self) -> None:
        """Show how it stands."""
        now, book = self.document.clock(), self._book
        first = next_course(book, now)
        for due in due_of(book):
            row = self.courses[due.course]
            row.due.setText(say.due_words(due, now))
            primary = "primary" if due.course == first else ""
            if row.begin.objectName() != primary:
                row.begin.setObjectName(primary)
                style = row.begin.style()
                if style is not None:
                    style.unpolish(row.begin)
                    style.polish(row.begin)
        for skill in SKILLS:
            share = skill_now(book, skill)
            self._bars[skill].show_share(share or 0.0)
            self._shares[skill].setText(say.skill_words(share))
        rows = [Row(str(i), say.done_cells(one), typed=False) for i, one in enumerate(book.done)]
        self.model.show_rows(rows[::-1], self.theme)
        self.none_done.setVisible(not rows)
        self.done.setVisible(bool(rows))
        build = self.document.build
        can = build.practice is None and len(build.surveyed.bodies) > 1
        self.mine.setVisible(can)
        self.back.setVisible(bool(self.own))
        self.back.setText(say.back_to(self.own))
