"""The reading in the hands: which it is, the marks it is put together from, its field, the gauge at it."""

from collections.abc import Callable
from dataclasses import replace
from typing import cast

from PyQt6.QtCore import QObject, pyqtSignal

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import truing as edits
from hardkeel.edits.named import Edit
from hardkeel.gauges.link import GaugeReport
from hardkeel.gauges.protocol import GaugeKind, gauge_for
from hardkeel.messages import reading_form as say_sheet
from hardkeel.messages import true as say
from hardkeel.messages.advice import next_step
from hardkeel.messages.asking import expect_words, far_question
from hardkeel.messages.hanging import rudder_step
from hardkeel.messages.names import called, reading_name, sentence_case
from hardkeel.messages.next_steps import NextStep
from hardkeel.messages.rig_next import stage_step
from hardkeel.survey.drafts import (
    Draft,
    ReadingKind,
    find_body,
    find_mark,
    other_tool,
    with_own_tool,
)
from hardkeel.survey.expecting import Expected, expected_of
from hardkeel.survey.instruments import as_kept, as_shown, in_degrees
from hardkeel.survey.model import RUDDER, Survey
from hardkeel.survey.proposing import kinds_at_hand
from hardkeel.survey.reading_form import form_list, next_on_form
from hardkeel.survey.readings import Reading, place_of
from hardkeel.ui.document.document import Change, Document
from hardkeel.ui.stages.true import showing
from hardkeel.ui.stages.true.cards import NextCard, NextShown
from hardkeel.ui.stages.true.held_gauge import HeldGauge
from hardkeel.ui.stages.true.showing import SHOWN_ON_TRUE
from hardkeel.ui.widgets.asked_twice import AskedTwice


class ReadingEntry(QObject):
    """The proposed reading, one from the list, or one put together by hand; what is typed makes it an edit.

    Parameters
    ----------
    card : NextCard
        Where it is shown and its value typed.
    apply : callable
        Does a named edit; tells whether it could be done.

    Signals
    -------
    moved : (nothing)
        Another reading, or another mark of it, is in hand.
    reading_wanted : object
        The `Reading` that is now to be taken, or None; gauges are held there.
    """

    moved = pyqtSignal()
    reading_wanted = pyqtSignal(object)

    def __init__(
        self,
        document: Document,
        card: NextCard,
        unit: LengthUnit,
        apply: Callable[[str, Edit], bool],
    ) -> None:
        super().__init__(card)
        self._document, self._card, self._apply = document, card, apply
        self._unit: LengthUnit = unit
        self.stage = ""  # of rigging, that is in hand; nothing while all is measured first
        self._step: NextStep | None = None
        self._started: Reading | None = None
        self._again: str | None = None
        self._draft: Draft | None = None
        self._typed = self._simulated = self._on_sheet = False
        self._asked, self._gauge = AskedTwice(), HeldGauge()
        document.build_changed.connect(self._on_build_changed)
        card.value_taken.connect(self._on_value_taken)
        card.tool_picked.connect(self._on_tool_picked)
        card.place_typed.connect(self._on_place_typed)
        card.given_up.connect(self._on_given_up)
        card.field.line.textEdited.connect(self._on_typing)

    # -- what is in hand -------------------------------------------------------------------------

    @property
    def draft(self) -> Draft | None:
        """A reading in the making."""
        return self._draft

    @property
    def target(self) -> Reading | None:
        """The reading whose value is to be typed now."""
        if self._draft is not None:
            return with_own_tool(self._survey, self._draft)
        if self._started is not None:
            return self._started
        return self._step.reading if self._step is not None else None

    @property
    def step(self) -> NextStep | None:
        """What is proposed."""
        return self._step

    @property
    def again(self) -> str:
        """Id of the reading that is taken anew; empty where the target is a new one."""
        if self._draft is None and self._started is None and self._step is not None:
            weighed = self._step.reading
            return weighed.id if self._step.kind == "again" and weighed is not None else ""
        return self._again or ""

    @property
    def wants_body(self) -> bool:
        """Whether a part is to be picked now, for the gauge to hang on."""
        return self._draft is not None and self._draft.wants == "body"

    # -- showing ---------------------------------------------------------------------------------

    def refresh(self, unit: LengthUnit) -> None:
        """Find the next step for the build as it is now, and show what is in hand."""
        self._unit = unit
        document = self._document
        step = self._sheet_step() if self._on_sheet else None
        survey, judgement = document.build.surveyed, document.judgement
        if step is None and self.stage == RUDDER:
            step = rudder_step(document.build, unit)
        if step is None and self.stage:
            step = stage_step(survey, judgement, self.stage, unit)
        if step is None:
            step = next_step(survey, judgement, unit)
        self._step = step
        self.show()

    @property
    def on_sheet(self) -> bool:
        """Whether the rigging sheet is typed in: its readings are asked for in its order."""
        return self._on_sheet

    def follow_sheet(self, *, follow: bool) -> None:
        """Type the rigging sheet in, or do not."""
        self._put_down()
        self._on_sheet = follow
        self.refresh(self._unit)
        self._go_on()

    def _sheet_step(self) -> NextStep | None:
        """The next on the sheet; ``None`` where all of it is in, and the sheet is put away."""
        survey, judgement = self._document.build.surveyed, self._document.judgement
        listed = form_list(survey)
        reading = next_on_form(listed, judgement.readings)
        if reading is None:
            self._on_sheet = False
            return None
        title = sentence_case(reading_name(survey, reading))
        return NextStep("reading", title, say_sheet.number_words(reading.id, len(listed)), reading)

    def show(self) -> None:
        """Show what is in hand."""
        shown = self.shown
        if shown is not None:
            self._card.show_next(shown)
        self._card.offer_tools(kinds_at_hand(self._document.build.surveyed))
        self._card.set_places(showing.place_names(self._document.build, self._draft))
        self.moved.emit()
        self.reading_wanted.emit(self.target)

    @property
    def shown(self) -> NextShown | None:
        """What is in hand, as its card says it."""
        survey = self._document.build.surveyed
        if self._draft is not None:
            return self._expecting(showing.draft_shown(survey, self._draft, self._unit))
        if self._started is not None:
            title = sentence_case(reading_name(survey, self._started))
            step = NextStep("reading", title, say.ENTER_OR_BACK, self._started)
            eyebrow = say.TAKE_AGAIN if self._again else say.WORTH_TAKING
            return self._expecting(
                replace(showing.next_shown(survey, step, self._unit), eyebrow=eyebrow)
            )
        if self._step is None:
            return None
        return self._expecting(showing.next_shown(survey, self._step, self._unit))

    def _expecting(self, shown: NextShown) -> NextShown:
        """With what the reading should show, where the band says anything."""
        target = self.target
        if target is None or not shown.takes:
            return shown
        expected = self._expected(target)
        if not expected.tells:
            return shown
        words = expect_words(*self._told(target, expected), self._unit, angular=shown.angular)
        return replace(shown, why=f"{shown.why} {words}".strip())

    def hear_gauge(
        self, kind: GaugeKind, report: GaugeReport, *, answers: bool, simulated: bool = False
    ) -> None:
        """Let a gauge write in the field, unless the builder is typing; what is gone is not left standing.

        Parameters
        ----------
        answers : bool
            What it shows is what it shows at the reading in hand.
        simulated : bool
            The value is a stand-in's on a real build: it and its reading say so.
        """
        target, gauge = self.target, self._gauge
        before = (gauge.off, gauge.said)
        gauge.hear(kind, report)
        if target is not None and gauge_for(target.kind) == kind:
            if report.shown is None or not report.held:
                if gauge.writes:
                    self._empty_field()
                    self._card.tell("")
            elif answers and not self._typed:
                self._simulated = simulated
                gauge.write(kind, zeroed=report.zeroed)
                self._card.field.set_value(as_shown(self._survey, target, report.shown.value))
                self._card.field.line.selectAll()  # what the builder types takes its place
                caution = gauge.said or ("" if report.zeroed else say.NOT_ZEROED)
                self._card.tell(f"{say.SIMULATED} {caution}".strip() if simulated else caution)
        self._card.field.set_flag(say.GAUGE_OFF if gauge.off else "")
        if before != (gauge.off, gauge.said):
            self.moved.emit()

    def begin_anew(self) -> None:
        """Another build: what was asked, and where a gauge was held, was on the one before."""
        self._asked, self._gauge = AskedTwice(), HeldGauge()

    @property
    def is_off(self) -> bool:
        """Whether what stands in the field is a gauge's that was not zeroed."""
        return self._gauge.off

    # -- taking another in hand ------------------------------------------------------------------

    def start(self, reading: Reading) -> None:
        """Go on with a reading from the list of those worth taking."""
        self._put_down()
        self._started = reading
        self._go_on()

    def start_again(self, reading: Reading) -> None:
        """Take a reading anew."""
        self._put_down()
        self._started, self._again = reading, reading.id
        self._go_on()

    def add_mark(self, mark: str) -> None:
        """Give a reading in the making its next mark, where it wants one."""
        self._try(lambda draft: self._with_mark(draft, mark))

    def hang_on(self, body: str, y: float) -> None:
        """Hang a reading in the making on a part at y mm, where it wants one."""
        self._try(lambda draft: self._on_body(draft, body, y))

    def _with_mark(self, draft: Draft, mark: str) -> Draft:
        return draft.with_mark(self._survey, mark) if draft.wants == "mark" else draft

    def _on_body(self, draft: Draft, body: str, y: float) -> Draft:
        return draft.with_body(self._survey, body, y) if draft.wants == "body" else draft

    def _at_place(self, draft: Draft, text: str) -> Draft:
        if draft.wants == "body":
            return self._on_body(draft, *find_body(self._survey, text))
        names = {mark.id: called(mark) for mark in self._survey.marks}
        return self._with_mark(draft, find_mark(self._survey, text, names))

    @property
    def _survey(self) -> Survey:
        return self._document.build.surveyed

    def _try(self, step: Callable[[Draft], Draft]) -> None:
        """Do a step of putting a reading together; say so where it can't be done."""
        if self._draft is None:
            return
        try:
            self._draft = step(self._draft)
        except BadInput as fault:
            self._card.tell(str(fault))
            return
        self._go_on()

    def _put_down(self) -> None:
        """Go back to what is proposed."""
        self._draft = self._started = self._again = None

    def _empty_field(self) -> None:
        self._typed = self._simulated = False
        self._gauge.let_go()
        self._card.field.set_flag("")
        self._card.field.set_value(None)

    def _go_on(self) -> None:
        self._empty_field()
        self.show()
        self._card.focus_entry()

    def _on_build_changed(self, change: Change) -> None:
        if change.touches(SHOWN_ON_TRUE):
            self._put_down()
            self._empty_field()

    def _on_tool_picked(self, kind: str) -> None:
        held = self._draft
        self._put_down()
        fresh = Draft(cast("ReadingKind", kind))
        if held is None or held.kind != kind:
            self._draft = fresh
        elif held.marks or held.body is not None:
            self._draft = replace(fresh, tool=held.tool)  # another reading with the same tool
        else:
            self._draft = other_tool(self._survey, held)
        self._go_on()

    def _on_place_typed(self, text: str) -> None:
        self._try(lambda draft: self._at_place(draft, text))

    def _on_given_up(self) -> None:
        self._put_down()
        self._go_on()

    # -- the value -------------------------------------------------------------------------------

    def _on_typing(self, text: str) -> None:
        self._typed = bool(text)
        self._simulated = False
        self._gauge.let_go()
        self._card.field.set_flag("")

    def _on_value_taken(self, value: float) -> None:
        try:
            if self._gauge.writes:
                question = self._gauge.take(self._far(self.target, value))
            else:
                question = self.question(self.target, value)
            named = self._edit(value)
        except BadInput as fault:
            self._card.tell(str(fault))
            return
        if question:
            self._card.tell(question)
            return
        if named is None:
            return
        self._gauge.taken()
        if self._apply(*named):
            self._card.focus_entry()

    def question(self, target: Reading | None, shown: float) -> str:
        """What to ask about a figure far from what is expected; empty for any other, and the second time."""
        if target is None:
            return ""
        far, value = self._far(target, shown), as_kept(self._survey, target, shown)
        return far if self._asked.wants_asking(place_of(target), value, sensible=not far) else ""

    def _far(self, target: Reading | None, shown: float) -> str:
        """The question about a figure far from what is expected; empty for any other."""
        if target is None:
            return ""
        expected = self._expected(target)
        if expected.holds(as_kept(self._survey, target, shown)):
            return ""
        angular = in_degrees(self._survey, target)
        told, band = self._told(target, expected)
        return far_question(told, band, shown, self._unit, angular=angular)

    def _told(self, target: Reading, expected: Expected) -> tuple[float, float]:
        """What is expected and its band, as the reading's tool shows them."""
        told = as_shown(self._survey, target, expected.value)
        return told, abs(as_shown(self._survey, target, expected.value + expected.band) - told)

    def _expected(self, target: Reading) -> Expected:
        judgement = self._document.judgement
        return expected_of(judgement.net, judgement.solution, target)

    def _edit(self, shown: float) -> tuple[str, Edit] | None:
        """The edit that takes the target with what its tool shows, mm or degrees.

        Raises
        ------
        BadInput
            When it can't show that.
        """
        target = self.target
        if target is None:
            return None
        value = as_kept(self._survey, target, shown)
        now, phase, name = self._document.clock(), self._document.build.phase, self.again
        simulated = self._simulated
        if name:
            return f"take {name} again", edits.take_again.of(name, value, now, simulated=simulated)
        reading = target.but(value=value, phase=phase) if phase else target.but(value=value)
        reading = edits.marked(reading, simulated=simulated)
        number = edits.free_reading_id(self._survey)
        return f"take reading {number}", edits.take_reading.of(reading, now)
