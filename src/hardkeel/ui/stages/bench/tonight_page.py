"""Tonight: what to do in the time there is, in order; what runs; what must wait; the evenings to come."""

from datetime import datetime, timedelta
from typing import Final

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QShortcut, QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QSpinBox, QVBoxLayout, QWidget

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import bench as bench_edits
from hardkeel.edits import steps as edits
from hardkeel.edits.named import in_turn
from hardkeel.messages import bench as say
from hardkeel.messages.calendar import WRITE
from hardkeel.messages.diary import to_go_words
from hardkeel.messages.gluing import list_words, pot_timer
from hardkeel.messages.names import sentence_case
from hardkeel.messages.order import hazard_words, then_words
from hardkeel.messages.shell import DESCRIBE_YOUR_MODEL
from hardkeel.messages.steps import step_title
from hardkeel.schedule.evenings import upcoming, with_tonight
from hardkeel.schedule.model import BenchTime, Step, local_time
from hardkeel.schedule.ordering import standing_of
from hardkeel.schedule.pace import to_go
from hardkeel.schedule.planning import EveningPlan, Planned
from hardkeel.schedule.tonight import Tonight
from hardkeel.schedule.what_if import Otherwise, WhatIf, otherwise_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.bench.bench_shown import evening_rows, strip_of
from hardkeel.ui.stages.bench.cards import LayOutCard, StepInHand, TimersCard
from hardkeel.ui.stages.bench.evening_view import EveningRow, EveningView
from hardkeel.ui.stages.bench.otherwise import OtherwiseRow
from hardkeel.ui.stages.bench.weeks_strip import WeeksStrip
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.arms_length import ArmsLength, LargeShown
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard

_SHOWS: Final = frozenset({"steps", "bench", "ledger", "survey", "fuselage", "tail"})
_USUAL_MINUTES: Final = 120
_MOST_EVENINGS: Final = 10
_HELPS: Final = 2
_LOOK_MS: Final = 5_000


def _is_doing(step: Step) -> bool:
    """Whether the hands are at it."""
    return step.state == "doing"


class TonightPage(SubPage):
    """The evening.

    Signals
    -------
    asked : (nothing)
        Another time there is: plan anew.
    minute_passed : (nothing)
        It is later than the plan that is shown.
    seen : (nothing)
        The page is shown.
    left_off : (nothing)
        The plan is good enough.
    wondered : object
        An `Otherwise`: what would it do; ``None`` when it is thought of no more.
    """

    asked = pyqtSignal()
    minute_passed = pyqtSignal()
    seen = pyqtSignal()
    left_off = pyqtSignal()
    wondered = pyqtSignal(object)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._tonight: Tonight | None = None
        self._chosen = self._warned = ""
        self._until: datetime | None = None  # the evening's end, once the builder said it or began
        self._large: ArmsLength | None = None
        self.evening = EveningView(theme)
        self.strip = WeeksStrip(theme)
        self.otherwise = OtherwiseRow()
        self.step = StepInHand()
        self.timers = TimersCard(document.clock)
        self.waits, self.lay_out = LinesCard(say.NOT_YET), LayOutCard()
        self.waits.set_edge("out")
        column = CardColumn((self.told, self.step, self.timers, self.lay_out, self.waits), theme)
        self.themed = (self.evening, self.strip, column)
        self.lie_beside(self._surface(), column)
        self._ticking = QTimer(self)
        self._ticking.setInterval(_LOOK_MS)
        self._ticking.timeout.connect(self.look_at_clock)
        self._ticking.start()
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _surface(self) -> QWidget:
        self.title, self.line = label("big"), label("soft")
        self.time = QSpinBox()
        self.time.setRange(0, 16 * 60)
        self.time.setSingleStep(10)
        self.time.setValue(self._usual())
        self.time.setSuffix(" min")
        self.time.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
        self.time.setAccessibleName(say.I_HAVE)
        head = QHBoxLayout()
        head.addWidget(self.title, 1)
        head.addWidget(label("soft", say.I_HAVE, wrap=False))
        head.addWidget(self.time)
        surface = QWidget()
        surface.setObjectName("paper")
        box = QVBoxLayout(surface)
        box.setContentsMargins(18, 12, 18, 8)
        box.setSpacing(4)
        box.addLayout(head)
        box.addWidget(self.line)
        box.addWidget(self.evening, 1)
        box.addLayout(self._foot())
        box.addWidget(self.strip)
        box.addWidget(label("soft", say.STRIP_KEY))
        row = QHBoxLayout()
        row.addWidget(label("soft", say.OTHERWISE, wrap=False))
        row.addWidget(self.otherwise, 1)
        box.addLayout(row)
        self.left = label("soft")
        box.addWidget(self.left)
        self.help = label("heading")
        self.help.hide()
        box.addWidget(self.help)
        scroll = QScrollArea()
        scroll.setWidget(surface)
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return scroll

    def _foot(self) -> QHBoxLayout:
        """When it is done, how sure that is, and what can be made of it."""
        self.weeks, self.proof = label("heading"), label("soft")
        self.leave = QPushButton(say.STOP_LOOKING)
        self.leave.setObjectName("plain")
        self.leave.hide()
        foot = QHBoxLayout()
        foot.addWidget(self.weeks, 3)
        foot.addWidget(self.proof, 2)
        self.calendar = QPushButton(WRITE)
        self.calendar.setObjectName("plain")
        foot.addWidget(self.leave)
        foot.addWidget(self.calendar)
        return foot

    def _connect(self) -> None:
        self.document.build_opened.connect(self._on_opened)
        self.time.valueChanged.connect(self._on_time)
        self.evening.picked.connect(self._on_picked)
        self.step.pressed.connect(self.go_on)
        self.leave.clicked.connect(self.left_off)
        for widget in (self.strip, self.otherwise):
            widget.wondered.connect(self._on_wondered)
            widget.taken.connect(self._on_taken)
        self.timers.started.connect(self._on_timer)
        self.timers.told.connect(self._on_told)
        self.timers.struck.connect(self._on_struck)
        self.lay_out.placed.connect(self._on_placed)
        self.timers.wanted_large.connect(self.show_large)
        for key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            shortcut = QShortcut(key, self.evening)
            shortcut.setContext(Qt.ShortcutContext.WidgetShortcut)
            shortcut.activated.connect(self.go_on)
        large = QShortcut(Qt.Key.Key_F11, self)
        large.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
        large.activated.connect(self.show_large)

    def focus_work(self) -> None:
        """The evening."""
        self.evening.setFocus()

    def showEvent(self, event: QShowEvent | None) -> None:
        """What was planned before may be stale."""
        super().showEvent(event)
        self.seen.emit()

    # -- what the plan is made of ------------------------------------------------------------------

    @property
    def now(self) -> datetime:
        """When the evening begins: now, or when the diary says, if that is later today."""
        now = local_time(self.document.clock().isoformat())
        first = upcoming(self.document.build.bench, now, 1)
        begins = local_time(first[0].start) if first else now
        return begins if begins.date() == now.date() else now

    @property
    def minutes(self) -> int:
        """How long the builder has; the end stays where it is on the clock, once it was said or work has begun."""
        if self._until is None:
            return self.time.value()
        now = self.now
        if now > self._until and now.date() != self._until.date():
            return self._usual()  # another day
        return max(0, round((self._until - now).total_seconds() / 60))

    def _on_time(self, minutes: int) -> None:
        """The builder says how long there is: until then, by the clock."""
        self._until = self.now + timedelta(minutes=minutes)
        self.asked.emit()

    def look_at_clock(self) -> None:
        """Each minute the plan moves with the clock, unasked."""
        seen = self.isVisible() or self._large_visible()
        if seen and self._tonight is not None and self.now != self._tonight.start:
            self._show_time()
            self.minute_passed.emit()

    def _large_visible(self) -> bool:
        return self._large is not None and self._large.isVisible()

    def _show_time(self) -> None:
        """What is left, unless it is just being typed."""
        if self._until is None or self.time.hasFocus():
            return
        minutes = self.minutes
        self.time.blockSignals(True)
        self.time.setValue(minutes)
        self.time.blockSignals(False)

    def _usual(self) -> int:
        """What is left of tonight's evening in the diary, or two hours."""
        now = self.now
        first = upcoming(self.document.build.bench, now, 1)
        if first and local_time(first[0].start).date() == now.date():
            return max(10, min(first[0].minutes, 16 * 60))
        return _USUAL_MINUTES

    @property
    def plan(self) -> EveningPlan | None:
        """The plan that is shown."""
        return self._tonight.plan if self._tonight is not None else None

    def steps_now(self) -> tuple[tuple[Step, ...], str]:
        """All steps, or none and why."""
        try:
            steps = steps_at_hand(self.document.build)
        except BadInput as fault:
            return (), str(fault)
        return steps, "" if steps else say.NO_STEPS

    # -- showing -----------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the timers and what is in hand; the plan comes from who plans."""
        bench = self.document.build.bench
        pot = pot_timer(self.document.build)
        timers = bench.timers if bench is not None else ()
        wet = list_words(self.document.build.surveyed, self.document.judgement) if pot else ""
        self.timers.show_timers(timers, pot, wet)
        self._show_in_hand()

    def show_tonight(self, tonight: Tonight) -> None:
        """Show an evening and the plan behind it."""
        self._tonight = tonight
        minutes = round((tonight.end - tonight.start).total_seconds() / 60)
        self._show_time()
        self.title.setText(say.tonight_title(tonight.start, minutes))
        self.line.setText(say.tonight_line(tonight))
        ids = [one.step.id for one in tonight.steps]
        doing = next(
            (one.step.id for one in tonight.steps if _is_doing(self._step_now(one.step))), ""
        )
        if self._chosen not in ids:
            self._chosen = doing
        if self._chosen not in ids:
            self._chosen = ids[0] if ids else ""
        bench = BenchTime(
            evenings=with_tonight(
                upcoming(self.document.build.bench, tonight.start), tonight.start, max(1, minutes)
            )
        )
        span = (tonight.start, tonight.end)
        self.strip.show_strip(strip_of(tonight.plan, span, bench, _MOST_EVENINGS))
        self.weeks.setText(say.weeks_title(tonight.plan))
        self.proof.setText(say.weeks_proof(tonight.plan, looking=False))
        steps, _ = self.steps_now()
        self.left.setText(to_go_words(to_go(steps)))
        self.otherwise.show_chips(otherwise_of(steps))
        held = self.document.build.bench
        places = held.places if held is not None else say.NOWHERE
        self.lay_out.show_tools(say.tools_tonight(tonight), places)
        self.lay_out.show_lines("", say.lay_out_lines(tonight, steps, tonight.start, places))
        standing = standing_of(steps, tonight.start.date())
        self.waits.show_lines("", say.blocked_lines(standing))
        self._show_in_hand()

    def show_looking(self, *, looking: bool) -> None:
        """Whether a sooner plan is looked for."""
        self.leave.setVisible(looking)
        self.help.setVisible(not looking and bool(self.help.text()))
        if self._tonight is not None:
            self.proof.setText(say.weeks_proof(self._tonight.plan, looking=looking))

    def show_what_ifs(self, found: tuple[WhatIf, ...]) -> None:
        """What would help."""
        if self._tonight is not None:
            self.help.setText("\n".join(say.what_if_lines(self._tonight.plan, found)[:_HELPS]))
            self.help.setVisible(bool(self.help.text()))

    def show_wonder(self, one: Otherwise, found: WhatIf) -> None:
        """What one thing would do: it stands where the finish stands while it is thought of."""
        if self._tonight is not None:
            self.weeks.setText(say.wonder_line(one.day, self._tonight.plan, found))
            self.proof.setText("")

    def _on_wondered(self, one: Otherwise | None) -> None:
        if one is None and self._tonight is not None:
            self.show_tonight(self._tonight)
        self.wondered.emit(one)

    def _on_taken(self, one: Otherwise) -> None:
        steps, _ = self.steps_now()
        now, minutes = self.now, self.minutes
        self.apply(
            say.otherwise_edit(one.kind, one.what),
            bench_edits.take_otherwise.of(one, steps, now, minutes),
        )

    def show_nothing(self, why: str) -> None:
        """There is nothing to plan."""
        self._tonight, self._chosen = None, ""
        self.title.setText(say.TONIGHT)
        self.line.setText(why)
        for widget in (self.weeks, self.proof):
            widget.setText("")
        self.otherwise.show_chips(())
        self.evening.show_evening((), self.now, self.now, "")
        self.waits.show_lines("", [])
        self.lay_out.show_lines("", [])
        if why == say.NO_STEPS:
            self.step.show_step(say.NO_MODEL, "", "", DESCRIBE_YOUR_MODEL)
        else:
            self.step.show_step("", "", "", "")

    @property
    def rows(self) -> tuple[EveningRow, ...]:
        """The steps of the evening as they are shown."""
        if self._tonight is None:
            return ()
        doing = {step.id for step in self.document.build.steps if _is_doing(step)}
        return evening_rows(self._tonight, doing)

    def _planned(self) -> Planned | None:
        steps = self._tonight.steps if self._tonight is not None else ()
        return next((one for one in steps if one.step.id == self._chosen), None)

    def _show_in_hand(self) -> None:
        tonight = self._tonight
        if tonight is None:
            return
        self.evening.show_evening(self.rows, tonight.start, tonight.end, self._chosen)
        one = self._planned()
        if one is None:
            nothing = say.NOTHING_TO_DO if tonight.plan.finish is None else say.NOTHING_TONIGHT
            self.step.show_step(nothing, "", "", "")
        else:
            step = self._step_now(one.step)
            doing = _is_doing(step)
            under = say.step_under(one)
            if doing:
                under = f"{sentence_case(say.begun_word(one))}. {under}"
            self.step.show_step(
                step_title(step),
                "\n".join(t for t in (under, then_words(step)) if t),
                hazard_words(step),
                say.DONE if doing else say.BEGIN,
            )
        if self._large is not None and self._large.isVisible():
            self._large.show_large(self._large_shown())

    def _step_now(self, step: Step) -> Step:
        return next((one for one in self.document.build.steps if one.id == step.id), step)

    # -- doing -------------------------------------------------------------------------------------

    def _on_opened(self) -> None:
        self._tonight, self._chosen, self._until = None, "", None
        self.time.blockSignals(True)
        self.time.setValue(self._usual())
        self.time.blockSignals(False)

    def _on_picked(self, step: str) -> None:
        self._chosen = step
        self._show_in_hand()

    def go_on(self) -> None:
        """Begin the step in hand, or it is done and the next one is in hand."""
        one = self._planned()
        steps, trouble = self.steps_now()
        if one is None:
            if trouble == say.NO_STEPS:
                self.description_wanted.emit()
            return
        now, name = self.document.clock(), one.step.id
        doing = _is_doing(self._step_now(one.step))

        laid = edits.lay_all.of(steps)
        if not doing and self._is_to_be_asked(one.step, steps):
            return
        if not doing:
            if self._until is None:  # from now on it ends when it ends
                self._until = self.now + timedelta(minutes=self.minutes)
            self.apply(say.begin_edit(one.step), in_turn.of(laid, edits.begin.of(name, now)))
            return
        if self.apply(
            say.done_edit(one.step), in_turn.of(laid, edits.tick.of(name, now, anyway=True))
        ):
            self._take_next(name)

    def _is_to_be_asked(self, step: Step, steps: tuple[Step, ...]) -> bool:
        """Whether it waits for another or the hands are at one; that is said once, then the builder decides."""
        waits = next((w for one, w in standing_of(steps).blocked if one.id == step.id), ())
        other = next((one for one in steps if _is_doing(one) and one.id != step.id), None)
        if self._warned == step.id or not (waits or other is not None):
            self._warned = ""
            return False
        self._warned = step.id
        if other is not None:
            self.tell(say.at_another(step, other))
        else:
            self.tell(say.too_early(step, waits))
        return True

    def _take_next(self, done: str) -> None:
        steps = self._tonight.steps if self._tonight is not None else ()
        ids = [one.step.id for one in steps]
        if done in ids and ids.index(done) + 1 < len(ids):
            self._chosen = ids[ids.index(done) + 1]
            self._show_in_hand()

    def _on_timer(self, minutes: float) -> None:
        now = self.document.clock()
        self.apply(say.TIMER_EDIT, bench_edits.start_timer.of("own", say.OWN_TITLE, minutes, now))

    def _on_told(self) -> None:
        now = self.document.clock()
        self.apply(say.TOLD_EDIT, bench_edits.told_timers.of(now))

    def _on_placed(self, tool: str, place: str) -> None:
        self.apply(say.PLACE_EDIT, bench_edits.set_tool_place.of(tool, place))

    def _on_struck(self, timer: str) -> None:
        self.apply(say.STRIKE_EDIT, bench_edits.stop_timer.of(timer))

    # -- arm's length ------------------------------------------------------------------------------

    def large_sheet(self) -> ArmsLength:
        """The sheet that is read from two metres, made when it is first wanted."""
        if self._large is None:
            self._large = ArmsLength(self.theme, self)
            self._large.gone_on.connect(self.go_on)
            self._large.taken_back.connect(self.document.stack.undo)
        return self._large

    def show_large(self) -> None:
        """One thing at a time, read from two metres."""
        self.large_sheet().open_large(self.theme, self._large_shown())

    def _large_shown(self) -> LargeShown:
        one = self._planned()
        bench = self.document.build.bench
        timers = bench.timers if bench is not None else ()
        if one is None:
            return LargeShown(say.NOTHING_TONIGHT, "", timers, self.document.clock)
        step = self._step_now(one.step)
        under = say.large_under(one, doing=_is_doing(step))
        return LargeShown(step_title(step), under, timers, self.document.clock)
