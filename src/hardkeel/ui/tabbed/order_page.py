"""Order: what now, what next, what not yet and why; a tick moves the parts on and writes the log."""

from collections.abc import Callable, Container
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.orders.craft import Repair
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import steps as edits
from hardkeel.glue.kinds import KINDS, mean_weight
from hardkeel.glue.schools import SCHOOLS, School
from hardkeel.messages import order as say
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import sentence_case
from hardkeel.messages.steps import step_title, why_not
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import upcoming
from hardkeel.schedule.hanging import hanging_of
from hardkeel.schedule.model import OWN, BenchTime, Step, local_time
from hardkeel.schedule.ordering import Standing, standing_of
from hardkeel.schedule.planning import list_evenings
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.tabbed.hanging_view import HangingView, Slip
from hardkeel.ui.tabbed.step_fields import StepFields
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.flow import FlowLayout
from hardkeel.ui.widgets.folded_sheet import FoldedSheet

_FIGURES: Final = (2, 4)
_LIST: Final = "list"
_TICK: Final = "tick "
_DRAWN: Final = "drawn"


@dataclass(frozen=True, slots=True)
class StageOrder:
    """The steps of one stage.

    Attributes
    ----------
    stage : str
        As the steps name it.
    made : callable
        The steps that a build asks for.
    ready : callable
        Whether a build has anything to make steps of.
    nothing : str
        What is said where it has not; its key is the bench that leads on.
    shows : frozenset of str
        Parts of the build that the page follows.
    """

    stage: str
    made: Callable[[Build], tuple[Step, ...]]
    ready: Callable[[Build], bool]
    nothing: Doing
    shows: frozenset[str]


class StepCard(Card):
    """What a stage has to say of a step beyond its words; here nothing."""

    def __init__(self, eyebrow: str = "") -> None:
        super().__init__(eyebrow)
        self.hide()

    def show_step(self, step: Step | None, build: Build, unit: LengthUnit) -> None:
        """Tell of a step."""


def _stand_of(step: Step, blocked: Container[str]) -> str:
    """How a step hangs: it can be done now, it waits, it is done."""
    if step.state == "done":
        return "done"
    return "waits" if step.id in blocked else "now"


class OrderPage(SubPage):
    """The list in its order; the step in hand, the next one and what waits beside it.

    Parameters
    ----------
    order : StageOrder
        Whose steps they are, and how they are made.
    extra : StepCard, optional
        What a stage has to say of a step beyond its words.
    """

    def __init__(
        self,
        document: Document,
        theme: Theme,
        unit: LengthUnit,
        order: StageOrder,
        extra: StepCard | None = None,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.order, self.extra = order, extra or StepCard()
        self._picked = ""
        self._asked = ""  # the step that was ticked out of order and asked about
        columns = [Column(head, right=i in _FIGURES) for i, head in enumerate(say.HEADS)]
        self.model = CellsModel(columns, theme, parent=self)
        self.table = CellsTable(self.model, theme, 1, say.ORDER, (5, 4, 3))
        self.now, self.next, self.not_yet = NowCard(), LinesCard(say.NEXT), LinesCard(say.NOT_YET)
        self.step = Card(say.IN_HAND)
        self.title, self.about = label("heading"), label("soft")
        self.up, self.down = QPushButton(say.UP), QPushButton(say.DOWN)
        self.cut, self.reopen = QPushButton(say.CUT_IT), QPushButton(say.OPEN_AGAIN)
        self.name, self.add = QLineEdit(), QPushButton(say.ADD_A_STEP)
        self.repair = QComboBox()
        self.repair.addItem(say.REPAIR, None)
        for what, words in say.REPAIR_WORDS.items():
            self.repair.addItem(words, what)
        self.repair.setAccessibleName(say.REPAIR)
        self.own = StepFields()
        self.again = QPushButton(say.AGAIN)
        self.hanging = HangingView(theme)
        self.ways = {_LIST: QPushButton(say.AS_A_LIST), _DRAWN: QPushButton(say.AS_IT_HANGS)}
        self._work, self._drawn = QStackedWidget(), QScrollArea()
        self.school, self.school_told = QComboBox(), label("soft")
        self._count = QLabel()
        self._lay_out()
        self._connect()
        self.refresh_lazily(order.shows | {"steps"})
        self.refresh()

    def _head(self) -> QHBoxLayout:
        """How much is done, the school, and the two ways to see it."""
        self._count.setObjectName("heading")
        head = QHBoxLayout()
        head.setContentsMargins(14, 8, 14, 6)
        self.head = FlowLayout(gap=8)  # two choices and large text want more than a narrow window
        head.addLayout(self.head, 1)
        self.head.addWidget(self._count)
        self.again.setObjectName("tool")
        self.school.addItem(say.SCHOOL, None)
        for school in SCHOOLS:
            self.school.addItem(say.school_words(school.id), school)
        self.school.setAccessibleName(say.SCHOOL)
        self.head.addWidget(self.school)
        self.head.addWidget(self.again)
        for way, button in self.ways.items():
            button.setObjectName("tool")
            button.setCheckable(True)
            button.setChecked(way == _LIST)
            button.clicked.connect(lambda _on, way=way: self.show_way(way))
            self.head.addWidget(button)
        return head

    def _fill_step(self) -> None:
        """What can be done to the step in hand, and steps of one's own."""
        buttons = QHBoxLayout()
        for button in (self.up, self.down, self.cut, self.reopen):
            button.setObjectName("tool")
            buttons.addWidget(button)
        buttons.addStretch(1)
        self.name.setPlaceholderText(say.NAME_OF_THE_STEP)
        self.name.setAccessibleName(say.NAME_OF_THE_STEP)
        adding = QHBoxLayout()
        adding.addWidget(self.add)
        adding.addWidget(self.repair, 1)
        self.step.column.addWidget(self.title)
        self.step.column.addWidget(self.about)
        self.step.column.addWidget(self.own)
        self.step.column.addLayout(buttons)
        self.step.column.addWidget(self.name)  # a line of its own: what it asks for is read whole
        self.step.column.addLayout(adding)

    def _lay_out(self) -> None:
        self._fill_step()
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        work.addLayout(self._head())
        self.school_told.setContentsMargins(14, 0, 14, 6)
        self.school_told.hide()
        work.addWidget(self.school_told)
        self._drawn.setWidget(self.hanging)
        self._drawn.setWidgetResizable(True)
        self._drawn.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._work.addWidget(self.table)
        self._work.addWidget(self._drawn)
        work.addWidget(self._work, 1)
        cards = (
            self.told,
            self.now,
            self.extra,
            FoldedSheet((self.next, self.not_yet)),
            self.step,
        )
        self._cards = CardColumn(cards, self.theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.table, self.hanging, self._cards)

    def _connect(self) -> None:
        self.now.asked.connect(self._on_asked)
        self.again.clicked.connect(self._on_planned)
        self.table.row_picked.connect(self._on_row_picked)
        self.hanging.picked.connect(self._on_slip_picked)
        self.hanging.started.connect(self._start)
        self.table.started.connect(self._on_row_started)
        self.up.clicked.connect(lambda: self._move(-1))
        self.down.clicked.connect(lambda: self._move(1))
        self.cut.clicked.connect(self._on_cut)
        self.reopen.clicked.connect(self._on_reopened)
        self.add.clicked.connect(self._on_added)
        self.own.changed.connect(self._on_changed)
        self.repair.activated.connect(lambda _row: self._on_repair(self.repair.currentData()))
        self.school.activated.connect(lambda _row: self._on_school(self.school.currentData()))
        self.name.returnPressed.connect(self._on_added)

    @property
    def standing(self) -> Standing:
        """Where the work of this stage stands, whatever stage it waits for."""
        return standing_of(self.document.build.steps, self.document.clock().date()).of_stages(
            {self.order.stage, OWN}
        )

    @property
    def steps(self) -> tuple[Step, ...]:
        """The steps of this stage and the builder's own."""
        steps = self.document.build.steps
        return tuple(step for step in steps if step.stage in (self.order.stage, OWN))

    @property
    def picked(self) -> Step | None:
        """The step in hand."""
        return next((step for step in self.steps if step.id == self._picked), None)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        steps = self.steps
        for widget in (
            self._work,
            self.step,
            self.again,
            self.school,
            self._count,
            *self.ways.values(),
        ):
            widget.setVisible(bool(steps))
        if not steps:
            self.extra.show_step(None, self.document.build, self.unit)
            doing = Doing(say.PLAN_IT, say.PLAN_WHY, button=say.PLAN_IT, key="plan")
            ready = self.order.ready(self.document.build)
            self.now.show_doing(doing if ready else self.order.nothing)
            self.next.show_lines("", ())
            self.not_yet.show_lines("", ())
            return
        standing = self.standing
        self._count.setText(say.so_far(len(standing.done), len(steps)))
        blocked = {step.id: waits for step, waits in standing.blocked}
        rows = (*standing.now, *(s for s in steps if s.id in blocked), *standing.done)
        self.model.show_rows(
            [self._row(step, blocked=step.id in blocked) for step in rows], self.theme
        )
        if self.picked is None:
            self._picked = rows[0].id
        self._show_hanging()
        self._show_now(standing)
        self._show_step()

    def _row(self, step: Step, *, blocked: bool) -> Row:
        state = say.STATES[step.state]
        mark = state or ("" if blocked else say.NOW.lower())
        return Row(
            step.id,
            (
                mark,
                step_title(step),
                say.minutes_words(step.hands_minutes),
                step.glue or "",
                say.minutes_words(step.handle_minutes),
                ", ".join(step.needs),
            ),
            "soft" if blocked or step.state == "done" else "ink",
            weight=400 if blocked or step.state == "done" else 600,
            struck=False,
            cell_colours={0: "act"} if mark == say.NOW.lower() else {},
        )

    def _show_now(self, standing: Standing) -> None:
        if not standing.now:
            self.now.show_doing(Doing(say.ALL_DONE))
            self.next.show_lines("", ())
            self.not_yet.show_lines("", ())
            return
        step = standing.now[0]
        self.now.show_doing(
            Doing(
                step_title(step),
                "\n".join(
                    t
                    for t in (
                        say.hold_words(step),
                        say.glue_words(step),
                        say.then_words(step),
                        say.tools_words(step),
                    )
                    if t
                ),
                say.hazard_words(step),
                say.DONE,
                f"{_TICK}{step.id}",
            )
        )
        following = standing.now[1:2] or tuple(s for s, _ in standing.blocked[:1])
        after = following[0] if following else None
        self.next.show_lines(
            step_title(after) if after is not None else "",
            [say.times_words(after)] if after is not None else [],
        )
        waiting = [f"{step_title(one)}: {why_not(one, waits)}." for one, waits in standing.blocked]
        self.not_yet.show_lines(number_of(len(waiting), "step") if waiting else "", waiting)

    def _show_step(self) -> None:
        step = self.picked
        self.extra.show_step(step, self.document.build, self.unit)
        if step is None:
            return
        self.title.setText(step_title(step))
        self.about.setText(
            "\n".join(
                words
                for words in (
                    say.times_words(step),
                    say.hold_words(step),
                    say.glue_words(step),
                    say.then_words(step),
                    say.tools_words(step),
                    say.wait_words(step),
                    say.hazard_words(step),
                    say.note_words(step),
                )
                if words
            )
        )
        now = self.standing.now[:1]
        self.about.setVisible(step not in now)  # what is to be done now says it large
        self.own.show_step(step)
        self.reopen.setVisible(step.state == "done")

    # -- what the hands do -------------------------------------------------------------------------

    def _on_asked(self, key: str) -> None:
        if key == "plan":
            self._on_planned()
        elif key.startswith(_TICK):
            self._tick(key.removeprefix(_TICK))
        else:
            self.place_wanted.emit(key)

    def _on_planned(self) -> None:
        made = self.order.made(self.document.build)
        self.apply(say.LAY_IT, edits.plan_steps.of(made, self.order.stage))

    def _tick(self, step_id: str) -> None:
        step = next(one for one in self.document.build.steps if one.id == step_id)
        anyway, at = self._asked == step_id, self.document.clock()
        self._asked = ""
        blocked = {one.id: waits for one, waits in self.standing.blocked}
        if step_id in blocked and not anyway:
            self._asked = step_id
            self.tell(f"{sentence_case(why_not(step, blocked[step_id]))}. {say.ANYWAY}")
            return
        if self.apply(say.ticked(step), edits.tick.of(step_id, at, anyway=anyway)):
            now = self.standing.now
            self._picked = now[0].id if now else step_id
            self._show_step()

    def _on_row_picked(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self._picked = row.key
            self.hanging.choose(row.key)
            self._bring_in()
            self._show_step()

    def _on_slip_picked(self, key: str) -> None:
        self._picked = key
        self.table.selectRow(self.model.number_of(key))
        self._bring_in()
        self._show_step()

    def show_way(self, way: str) -> None:
        """As a list, or as a drawing of what hangs on what."""
        for key, button in self.ways.items():
            button.setChecked(key == way)
        self._work.setCurrentIndex(int(way == _DRAWN))
        self._show_hanging()
        (self.hanging if way == _DRAWN else self.table).setFocus()
        self._bring_in()

    def _show_hanging(self) -> None:
        """Draw what hangs on what, while that is looked at."""
        if self._work.currentWidget() is not self._drawn:
            return
        blocked = {step.id for step, _ in self.standing.blocked}
        self.hanging.show_hanging(
            hanging_of(self.steps),
            [Slip(step.id, step_title(step), _stand_of(step, blocked)) for step in self.steps],
            self._picked,
        )

    def _bring_in(self) -> None:
        """Scroll the drawing to the step in hand."""
        box = self.hanging.boxes.get(self._picked)
        if box is not None:
            at, rim = box.center().toPoint(), self._drawn.height() // 3
            self._drawn.ensureVisible(at.x(), at.y(), 0, rim)

    def _on_row_started(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self._start(row.key)

    def _start(self, step_id: str) -> None:
        """Tick a step, unless it is done."""
        if any(one.id == step_id and one.state != "done" for one in self.steps):
            self._tick(step_id)

    def _move(self, way: int) -> None:
        step = self.picked
        if step is not None:
            self.apply(
                say.moved(step),
                edits.move_step.of(step.id, -1 if way < 0 else 1),
            )

    def _on_changed(self, name: str, value: object) -> None:
        step = self.picked
        if step is not None:
            self.apply(say.changed(step), edits.set_step.of(step.id, **{name: value}))

    def _on_school(self, school: School | None) -> None:
        self.school.setCurrentIndex(0)
        self.school_told.hide()
        if school is None:
            return
        before = self.document.build.steps
        changed = edits.in_school(before, school)
        if self.apply(say.school_edit(school.id), edits.set_school.of(school)):
            self.school_told.setText(
                say.school_told(
                    len(changed),
                    school.glue,
                    mean_weight([one.glue or "" for one in changed]),
                    KINDS[school.glue].weight,
                )
                + say.school_evenings(
                    *(self._evenings(one) for one in (before, self.document.build.steps))
                )
            )
            self.school_told.show()

    def _evenings(self, steps: tuple[Step, ...]) -> int:
        """How many evenings are needed to the end by a first plan."""
        bench, now = self.document.build.bench, local_time(self.document.clock().isoformat())
        try:
            return list_evenings(steps, BenchTime(evenings=upcoming(bench, now))).evenings_used
        except BadInput:  # no evening is long enough: Bench says why
            return 0

    def _on_cut(self) -> None:
        step = self.picked
        if step is not None:
            self.apply(say.cut_words(step), edits.delete_step.of(step.id))

    def _on_reopened(self) -> None:
        step = self.picked
        if step is not None:
            self.apply(say.opened(step), edits.untick.of(step.id))

    def _on_repair(self, what: Repair | None) -> None:
        """A repair behind the step in hand; what is typed says of what."""
        self.repair.setCurrentIndex(0)
        if what is None:
            return
        step = self.picked
        made = edits.add_repair.of(what, self.name.text(), step.id if step is not None else None)
        if self.apply(say.REPAIR_WORDS[what].lower(), made):
            self.name.clear()

    def _on_added(self) -> None:
        title, step = self.name.text(), self.picked
        after = step.id if step is not None else None
        if self.apply(say.ADD_A_STEP.lower(), edits.add_step.of(title, after)):
            self.name.clear()
            self.name.setFocus(Qt.FocusReason.OtherFocusReason)
