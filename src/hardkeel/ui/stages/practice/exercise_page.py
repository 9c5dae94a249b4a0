"""The exercise: the model as drawn, what can be read, what was read, and the learner's word; no verdict anywhere."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits.practising import doubt, have_told, say_of, take_in_practice
from hardkeel.messages import practising as say
from hardkeel.messages.faults import told
from hardkeel.messages.names import check_name, mark_name, reading_name
from hardkeel.practice.exercise import Exercise, opened
from hardkeel.project.practice import PracticeSection, Word
from hardkeel.survey.readings import Reading
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.practice import exercise_shown as shown
from hardkeel.ui.stages.practice.reading_card import ReadingCard
from hardkeel.ui.stages.practice.words_card import WordsCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.three_view import Shown, ThreeView

_SHOWS: Final = frozenset({"practice", "survey"})
_NAME, _GIVES_WAY = 1, (5, 2)


class ExercisePage(SubPage):
    """Drawing over the readings taken; on the right the learner's word and what can be read.

    Signals
    -------
    told_wanted : (nothing)
        The learner's word was given.
    """

    told_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._exercise: Exercise | None = None
        self._tool, self._part = "", ""
        self.view = ThreeView(theme)
        self.words = WordsCard()
        self.reading = ReadingCard(theme)
        columns = [Column(head, right=i in (2, 3, 4)) for i, head in enumerate(say.HEADS)]
        self.model = CellsModel(columns, theme, parent=self)
        self.taken = CellsTable(self.model, theme, _NAME, say.READ_SO_FAR, _GIVES_WAY)
        self.nothing = label("soft", say.NOTHING_READ)
        self._empty = QWidget()
        self._lay_empty()
        self._work = QWidget()
        self._cards = CardColumn((self.told, self.words, self.reading), theme)
        self._lay_out()
        self.themed = (self.view, self.taken, self.reading, self._cards)
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _lay_empty(self) -> None:
        box = QVBoxLayout(self._empty)
        box.setContentsMargins(60, 48, 60, 24)
        box.setSpacing(12)
        box.addWidget(label("big", say.NONE_TAKEN))
        box.addWidget(label("title", say.NONE_WHY))
        self.choose_one = QPushButton(say.TO_THE_COURSES)
        self.choose_one.setObjectName("primary")
        self.choose_one.clicked.connect(lambda: self.place_wanted.emit("courses"))
        row = QHBoxLayout()
        row.addWidget(self.choose_one)
        row.addStretch(1)
        box.addLayout(row)
        box.addStretch(1)

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(12, 4, 12, 2)
        head.addWidget(label("heading", say.READ_SO_FAR, wrap=False))
        head.addStretch(1)
        head.addWidget(label("soft", say.SPACE_DOUBTS, wrap=False))
        self.nothing.setContentsMargins(12, 0, 12, 8)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addWidget(self.view, 5)
        left.addLayout(head)
        left.addWidget(self.nothing)
        left.addWidget(self.taken, 4)
        inner = QHBoxLayout(self._work)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(0)
        inner.addLayout(left, 1)
        inner.addWidget(self._cards)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self._work, 1)
        outer.addWidget(self._empty, 1)
        self.lead_tab(self._cards)

    def _connect(self) -> None:
        self.reading.tool_picked.connect(self._on_tool)
        self.reading.part_picked.connect(self._on_part)
        self.reading.place_pointed.connect(lambda _key: self._show_held())
        self.reading.read_wanted.connect(self._on_read)
        self.words.said.connect(self._on_said)
        self.words.amount_said.connect(self._on_amount)
        self.words.done.connect(self._on_done)
        self.view.body_picked.connect(lambda body, _y: self._on_part(body))
        self.view.reading_pointed.connect(self._on_pointed)
        self.taken.row_picked.connect(self._on_row)
        self.taken.started.connect(self._on_doubt)

    # -- what lies on the bench ------------------------------------------------------------------

    @property
    def exercise(self) -> Exercise | None:
        """The one on the bench; ``None`` where there is none, or its truth belongs to it no more."""
        return self._exercise

    @property
    def section(self) -> PracticeSection | None:
        """What was read and said of it so far."""
        return self.document.build.practice

    def focus_work(self) -> None:
        """Put the cursor on the places to read."""
        if self._exercise is None:
            self.choose_one.setFocus()
        else:
            self.reading.table.setFocus()

    def choose(self, ref: str) -> None:
        """A part was picked on the keel line."""
        if self._exercise is not None:
            self._on_part(ref)

    def refresh(self) -> None:
        """Show the exercise as it is now."""
        self._open()
        self._work.setVisible(self._exercise is not None)
        self._empty.setVisible(self._exercise is None)
        exercise, section = self._exercise, self.section
        self._work.setEnabled(section is not None and not section.told)
        if exercise is None or section is None:
            return
        asked = shown.questions(exercise, section, self.unit)
        self.words.eyebrow.setText(f"{say.SAY_OF_EACH} · {say.exercise_words(section)}")
        self.words.show_questions(say.to_say(section), asked, self.unit, ready=bool(section.said))
        self.nothing.setVisible(not section.taken)
        self.taken.setVisible(bool(section.taken))
        self.model.show_rows(shown.taken_rows(exercise, section.taken, self.unit), self.theme)
        if section.taken:
            self.taken.scrollToBottom()
        self._show_places()

    def _open(self) -> None:
        build, before = self.document.build, self._exercise
        if build.practice is None:
            self._exercise = None
            return
        if before is not None and before.section.sealed == build.practice.sealed:
            return
        try:
            self._exercise = opened(build)
            self.tell("")
        except BadInput as fault:
            self._exercise = None
            self.tell(told(fault, self.unit))
            return
        tools = shown.tools_of(self._exercise)
        self._tool, self._part = tools[0][0] if tools else "", ""

    # -- reading ---------------------------------------------------------------------------------

    def _show_places(self) -> None:
        exercise = self._exercise
        if exercise is None:
            return
        survey = exercise.build.surveyed
        self.reading.show_tools(shown.tools_of(exercise), self._tool)
        self.reading.show_parts(shown.parts_of(survey), self._part)
        self.reading.show_places(shown.places(exercise, self._tool, self._part), self.theme)
        self._show_held()

    def _in_hand(self) -> Reading | None:
        place = self.reading.place
        if self._exercise is None or not place:
            return None
        return self._exercise.bare.pool.readings[int(place)]

    def _show_held(self) -> None:
        exercise, section = self._exercise, self.section
        if exercise is None or section is None:
            return
        reading = self._in_hand()
        survey = exercise.build.surveyed
        spent = exercise.spent(section.taken)
        more = exercise.spent([reading]) if reading is not None else 0.0
        words = say.minutes_words(spent, section.minutes)
        self.reading.show_minutes(words, spent, more, section.minutes)
        self.view.show_picture(
            Shown(
                shown.drawing(exercise, section.taken),
                held=shown.held(exercise, reading) if reading is not None else (),
                doubtful=frozenset(one.id for one in section.taken if one.ignored),
                names={mark.id: mark_name(survey, mark.id) for mark in survey.marks},
            )
        )
        self.view.choose_body(self._part)

    def _on_tool(self, tool: str) -> None:
        self._tool = tool
        self._show_places()
        self.reading.table.setFocus()

    def _on_part(self, part: str) -> None:
        self._part = part
        self._show_places()

    def _on_read(self, key: str) -> None:
        exercise, section = self._exercise, self.section
        if exercise is None or section is None:
            return
        place = exercise.bare.pool.readings[int(key)]
        if exercise.spent([*section.taken, place]) > section.minutes:
            self.tell(say.SPENT)
            return
        shows = exercise.read(place, len(section.taken))
        name = reading_name(exercise.build.surveyed, place)
        self.apply(say.read_edit(name), take_in_practice.of(shows))

    def _on_doubt(self, number: int) -> None:
        section = self.section
        if section is not None and 0 <= number < len(section.taken):
            one = section.taken[number]
            self.apply(
                say.doubt_edit(one.id, doubted=one.ignored),
                doubt.of(one.id, doubted=not one.ignored),
            )

    def _on_row(self, number: int) -> None:
        row = self.model.row(number)
        self.view.light_reading(row.key if row is not None else "")

    def _on_pointed(self, reading: str) -> None:
        number = self.model.number_of(reading)
        if number >= 0:
            self.taken.selectRow(number)

    # -- saying ----------------------------------------------------------------------------------

    def _on_said(self, check: str, out: object) -> None:
        word = None if out is None else Word(out=bool(out))
        self._say(check, word)

    def _on_amount(self, check: str, amount: object) -> None:
        exercise = self._exercise
        if exercise is None:
            return
        if not isinstance(amount, float):
            self._say(check, Word(out=True))
            return
        off = shown.error_meant(exercise, check, amount)
        if off is None:
            self.tell(say.LONGER_THAN_IT)
            return
        self._say(check, Word(out=True, off=off))

    def _say(self, check_id: str, word: Word | None) -> None:
        exercise = self._exercise
        if exercise is None:
            return
        check = next(one for one in exercise.checks if one.id == check_id)
        name = check_name(exercise.build.surveyed, check)
        self.apply(say.say_edit(name, word), say_of.of(check_id, word))

    def _on_done(self) -> None:
        section = self.section
        if section is None or section.told or not self.apply(say.SHOW_EDIT, have_told.of()):
            return
        self.told_wanted.emit()
