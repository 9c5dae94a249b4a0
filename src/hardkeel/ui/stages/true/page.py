"""The True page: drawing, readings, checks, and the one thing to do next."""

from typing import Final, cast

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, parse_angle, parse_length
from hardkeel.edits import seats
from hardkeel.edits import truing as edits
from hardkeel.edits.named import Edit
from hardkeel.edits.tooling import suppose_shared
from hardkeel.gauges.protocol import GAUGE_KINDS
from hardkeel.logbook.entries import measured_again
from hardkeel.messages import true as say
from hardkeel.messages.aiming import aim_edit
from hardkeel.messages.alternatives import check_sentence
from hardkeel.messages.gaps import gap_edit
from hardkeel.messages.gluing import (
    back_to_edit,
    brought_edit,
    gluing_edit,
    mixed_edit,
    out_question,
)
from hardkeel.messages.names import PHASE_WORDS, body_name, called
from hardkeel.messages.rigging import lock_edit, seat_edit
from hardkeel.messages.sharing import EDIT as SHARED_EDIT
from hardkeel.messages.sharing import findings, fit_sentence
from hardkeel.messages.verdicts import state_words
from hardkeel.picture.truing import held_strokes, picture_of
from hardkeel.survey.gluing import PHASES_WITH_PRIOR
from hardkeel.survey.instruments import as_kept, in_degrees
from hardkeel.survey.model import DATUM, BackTo, GapPlace, PanelSide, SeatKind
from hardkeel.survey.readings import PHASES, Phase, Reading
from hardkeel.survey.seatwork import WayName, seat_work
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.stages.true import showing
from hardkeel.ui.stages.true.cards import AimCard, NextCard, SeatCard
from hardkeel.ui.stages.true.fit_card import FitCard
from hardkeel.ui.stages.true.gaps_card import GapsCard
from hardkeel.ui.stages.true.gauge_dock import GaugeDock
from hardkeel.ui.stages.true.gluing_card import GluingCard
from hardkeel.ui.stages.true.large import LargeReading
from hardkeel.ui.stages.true.places_card import PlacesCard
from hardkeel.ui.stages.true.placing_controller import PlacingController
from hardkeel.ui.stages.true.reading_entry import ReadingEntry
from hardkeel.ui.stages.true.rig_strip import RigStrip
from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel
from hardkeel.ui.widgets.checks_card import ChecksCard
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.folded_sheet import FoldedSheet
from hardkeel.ui.widgets.reading_rows import READING_COLUMNS, ReadingRow, reading_cells
from hardkeel.ui.widgets.readings_panel import ReadingsPanel
from hardkeel.ui.widgets.tab_order import work_through
from hardkeel.ui.widgets.three_view import Shown, ThreeView

_PAUSE_MS: Final = 40


class TruePage(StagePage):
    """The document's survey, shown and worked on.

    Signals
    -------
    sight_wanted : (nothing)
        A click in a photo is to be looked at again.
    """

    sight_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document = document
        self._unit: LengthUnit = unit
        self._wanted: tuple[Reading, ...] = ()
        self._further = QTimer(self)
        self._further.setSingleShot(True)
        self._further.setInterval(_PAUSE_MS)
        self._further.timeout.connect(self._look_further)
        self._check = ""
        self._stage = ""
        self._body = ""
        self._way: WayName = "sanding"
        self._rows: tuple[ReadingRow, ...] = ()
        self._theme = theme
        self._model = CellsModel(READING_COLUMNS, theme, self._edit_value, self)
        self.drawing = ThreeView(theme)
        self.readings = ReadingsPanel(theme, tuple((phase, phase) for phase in PHASES))
        self.readings.set_model(self._model)
        self.next = NextCard()
        self.entry = ReadingEntry(document, self.next, unit, self._apply)
        self._large = LargeReading(document, self.entry, self.next, lambda: self._theme, self)
        self.checks = ChecksCard(theme)
        self.seat = SeatCard()
        self._places = PlacesCard()
        self._placing = PlacingController(document, self._places, self.drawing, self._apply)
        self.exaggeration = Exaggeration()
        self.dock = GaugeDock(GAUGE_KINDS, theme)
        self._lay_out(theme)
        self._connect()
        self.refresh()

    def _lay_out(self, theme: Theme) -> None:
        corner = QHBoxLayout(self.drawing)
        corner.setContentsMargins(0, 0, 14, 6)
        corner.addStretch(1)
        corner.addWidget(self.exaggeration, 0, Qt.AlignmentFlag.AlignBottom)
        left = self._left = QSplitter(Qt.Orientation.Vertical)
        left.addWidget(self._board(theme))
        left.addWidget(self.readings)
        left.setStretchFactor(0, 5)
        left.setStretchFactor(1, 2)
        left.setSizes([470, 200])
        left.setHandleWidth(1)
        left.setChildrenCollapsible(False)
        self.glue = GluingCard(self._document.clock)
        self.glue.answered.connect(self._on_glued)
        self.glue.mixed.connect(self._on_mixed)
        self.glue.brought_back.connect(self._on_brought_back)
        self.glue.aimed.connect(self._on_back_to)
        self.aim = AimCard()
        self.aim.answered.connect(self._on_aimed)
        self.gaps = GapsCard()
        self.gaps.read.connect(self._on_gap_read)
        self._fit = FitCard()
        self._fit.seek_asked.connect(
            lambda: self._apply(SHARED_EDIT, suppose_shared.of(usual=True))
        )
        cards = (
            self.next,
            self._fit,
            self.glue,
            self.seat,
            self._places,
            self.gaps,
            FoldedSheet((self.aim,)),
            self.checks,
        )
        self._cards = CardColumn(cards, theme)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(left, 1)
        row.addWidget(self._cards)
        self._lead_tab()

    def _board(self, theme: Theme) -> QWidget:
        """The stages of rigging over the drawing."""
        self.rig = RigStrip(theme)
        board = QWidget()
        board.setObjectName("paper")
        column = QVBoxLayout(board)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.rig)
        column.addWidget(self.drawing, 1)
        return board

    def _lead_tab(self) -> None:
        """What is next comes first: its field, the seat, the checks; then drawing and list."""
        work_through(self._cards, self._left)

    def _connect(self) -> None:
        self._document.build_opened.connect(self._on_build_opened)
        self.entry.moved.connect(self._on_hands_moved)
        self._lazy = LazyRefresh(self, self._document, self.refresh, showing.SHOWN_ON_TRUE)
        self.exaggeration.factor_changed.connect(self._show_drawing)
        self.drawing.mark_picked.connect(self.entry.add_mark)
        self.drawing.body_picked.connect(self._on_body_picked)
        self.drawing.reading_pointed.connect(self._on_string_pointed)
        self.drawing.reading_picked.connect(self._on_string_picked)
        self.readings.phase_picked.connect(self._on_phase_picked)
        self.readings.row_pointed.connect(self._on_row_pointed)
        self.readings.row_started.connect(self._on_row_started)
        self.readings.ignore_asked.connect(self._on_ignore_asked)
        self.readings.delete_asked.connect(self._on_delete_asked)
        self.next.action_pressed.connect(self._on_action)
        self.checks.laid.connect(self._lead_tab)
        self.checks.check_picked.connect(self._on_check_picked)
        self.checks.tolerance_changed.connect(self._on_tolerance_changed)
        self.seat.way_picked.connect(self._on_way_picked)
        self.seat.kind_picked.connect(self._on_seat_kind)
        self.rig.picked.connect(self._on_stage_picked)
        self.rig.lock_asked.connect(self._on_lock_asked)
        self.seat.corners.clicked.connect(self._placing.lay)
        self.seat.done_pressed.connect(self._on_correction_done)

    # -- showing ---------------------------------------------------------------------------------

    @property
    def foot(self) -> QWidget:
        """The gauges at hand."""
        return self.dock

    @property
    def unit(self) -> LengthUnit:
        """The unit that lengths are shown in."""
        return self._unit

    def wake(self) -> None:
        """Be ready for a figure to be typed."""
        self.next.focus_entry()

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self._unit = unit
        self._lazy.renew()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        for part in (
            self.drawing,
            self.readings,
            self.checks,
            self._cards,
            self.dock,
            self.rig,
        ):
            part.set_theme(theme)
        self._theme = theme
        self._lazy.renew()

    def choose_body(self, body: str) -> None:
        """Show what is known of one part."""
        self._body = body
        self.drawing.choose_body(body)
        self.checks.unfold(body)
        self._show_seat()

    def refresh(self) -> None:
        """Show the document as it is now."""
        build, judgement = self._document.build, self._document.judgement
        # until the list is planned anew, only what can be taken on this build stays in it
        self._wanted = showing.still_there(build.surveyed, self._wanted)
        self._further.start()
        self._show_rows()
        self._show_heading()
        self.rig.show_stages(showing.rig_shown(build, judgement), self._stage)
        groups = showing.vial_groups(build, judgement, self._unit, self._stage)
        self.checks.show_groups(groups)
        self._show_check()
        self._fit.show_fit(
            fit_sentence(judgement),
            findings(build.surveyed, judgement, self._unit),
            sought=build.surveyed.shared is not None,
        )
        self._show_glue()
        self._show_seat()
        self.entry.refresh(self._unit)

    def _show_rows(self) -> None:
        build, judgement = self._document.build, self._document.judgement
        self._rows = showing.reading_rows(build, judgement, self._wanted, self._unit, self._stage)
        self._model.show_rows(reading_cells(self._rows), self._theme)

    def _look_further(self) -> None:
        """Plan the readings after the next one, once the answer to the last edit is on the screen."""
        wanted = showing.wanted_readings(self._document.judgement)
        if wanted != self._wanted:
            self._wanted = wanted
            self._show_rows()

    def _show_heading(self) -> None:
        build, judgement = self._document.build, self._document.judgement
        earlier = self._document.earlier_phase()
        before = self._document.judged(earlier) if earlier else None
        taken, alternatives = len(judgement.readings), len(judgement.outliers)
        count = f"{taken} taken" + (f", {alternatives} in doubt" if alternatives else "")
        moved = showing.moved_words(build, before, judgement, self._unit)
        self.readings.show_heading(
            build.phase or "", count if taken else "none yet", moved, frozenset(PHASES)
        )

    def _on_hands_moved(self) -> None:
        if self.entry.again:
            self.readings.point_at(self._model.number_of(self.entry.again))
        self._show_drawing()

    def _show_drawing(self) -> None:
        build, judgement = self._document.build, self._document.judgement
        factor = self.exaggeration.factor
        target, draft = self.entry.target, self.entry.draft
        held = held_strokes(build, judgement, factor, target) if target is not None else ()
        self.drawing.show_picked_marks(draft.marks if draft is not None else ())
        if draft is not None:  # a reading begun ends the placing of a seat
            self._places.click.setChecked(False)
        if not self._places.click.isChecked():
            self.drawing.want(draft.wants if draft is not None else "")
        self.drawing.show_picture(
            Shown(
                picture_of(build, judgement, factor),
                held,
                showing.callouts(build, judgement, self._unit),
                frozenset(suspect.reading for suspect in judgement.outliers),
                {mark.id: called(mark) for mark in build.surveyed.marks},
            )
        )

    def _show_check(self) -> None:
        build = self._document.build
        check = self._document.judgement.check(self._check)
        if check is None:
            self.checks.show_detail("", "", "", None, angular=True, unit=self._unit)
            return
        self.checks.show_detail(
            check.id,
            check_sentence(build.surveyed, self._document.judgement, check, self._unit),
            showing.air_words(build, self._document.judgement, check, self._unit),
            check.tolerance,
            angular=check.unit == "deg",
            unit=self._unit,
        )

    def _show_glue(self) -> None:
        build = self._document.build
        self.glue.setVisible(build.phase in PHASES_WITH_PRIOR)
        self.glue.show_build(build.surveyed, self._document.judgement, self._unit)
        self.aim.show_build(build.surveyed, self._document.judgement, self._unit)

    def _on_aimed(self, aim: str) -> None:
        self._apply(aim_edit(aim), edits.aim_tail.of(at_wing=aim != DATUM))

    def _on_back_to(self, back_to: BackTo) -> None:
        self._apply(back_to_edit(back_to), edits.set_back_to.of(back_to))

    def _on_brought_back(self) -> None:
        build, now = self._document.build, self._document.clock()
        if build.surveyed.gluing is not None:
            body = build.surveyed.gluing.body
            self._apply(
                brought_edit(build.surveyed, body),
                edits.correction_done.of(body, "wet", (), now),
            )

    def _on_mixed(self, minutes: float) -> None:
        now = self._document.clock()
        self._apply(mixed_edit(minutes), edits.set_mixed.of(minutes, now))

    def _on_glued(self, body: str) -> None:
        build, dry = self._document.build, self._document.judged("dry")
        checks = dry.checks_on(body) if body and dry is not None else ()
        if any(check.verdict == "out" for check in checks):
            question = out_question(build.surveyed, body, state_words(checks, self._unit))
            if self.glue.ask(body, question):
                return
        self._apply(gluing_edit(body), edits.set_gluing.of(body))

    def _show_seat(self) -> None:
        judgement = self._document.judgement
        body = showing.body_to_correct(judgement, self._body, self._stage)
        shown = showing.seat_shown(self._document.build, judgement, body, self._way, self._unit)
        # while something locked stands elsewhere than it was thought to, nothing that hangs on it is known
        self.seat.setVisible(shown is not None and not judgement.moved)
        if shown is not None:
            self.seat.show_seat(shown)
        self._placing.show_body(body if shown is not None else "", self._unit)
        gaps = showing.gaps_shown(self._document.build.surveyed, judgement, body)
        self.gaps.setVisible(gaps is not None and judgement.phase != "wet")
        if gaps is not None:
            self.gaps.show_gaps(*gaps, self._unit)

    def _on_gap_read(self, where: tuple[PanelSide, GapPlace], mm: float) -> None:
        body = showing.body_to_correct(self._document.judgement, self._body, self._stage)
        self._apply(gap_edit(*where), seats.set_gap.of(body, *where, mm))

    # -- doing -----------------------------------------------------------------------------------

    def _apply(self, name: str, edit: Edit) -> bool:
        try:
            self._document.apply(name, edit)
        except BadInput as fault:
            self.next.tell(str(fault))
            return False
        return True

    def _on_build_opened(self) -> None:
        self._stage = self.entry.stage = ""
        self.entry.begin_anew()
        self._wanted = ()  # what was worth taking on another model is not on this one

    def _on_stage_picked(self, body: str) -> None:
        """Take a stage in hand: its checks and readings come in front; once more lets it go."""
        self._take_stage("" if body == self._stage else body)

    def _take_stage(self, body: str) -> None:
        self._stage = self.entry.stage = body
        if body:
            self.choose_body(body)
            self.body_chosen.emit(body)
        self.refresh()

    def _on_action(self) -> None:
        step = self.entry.step
        if step is not None and step.kind == "sight":
            self.sight_wanted.emit()
            return
        if step is None or step.kind not in ("lock", "on", "moved") or step.body is None:
            self.description_wanted.emit()
            return
        if step.kind == "moved":
            self._on_lock_asked(step.body, False)
            self._take_stage(step.body)
            return
        if step.kind == "lock":
            self._on_lock_asked(step.body, True)
        stages = [
            one.body for one in showing.rig_shown(self._document.build, self._document.judgement)
        ]
        after = stages[stages.index(step.body) + 1 :] if step.body in stages else []
        self._take_stage(after[0] if after else "")

    def _on_lock_asked(self, body: str, locked: bool) -> None:  # noqa: FBT001  a signal
        now = self._document.clock()
        gone = [one for one in self._document.judgement.moved if one.body == body and not locked]
        before = gone[0].before if gone else ()
        self._apply(
            lock_edit(body_name(self._document.build.surveyed, body), locked=locked),
            edits.set_locked.of(body, locked=locked, now=now, before=before),
        )

    def _on_seat_kind(self, kind: str) -> None:
        judgement = self._document.judgement
        body = showing.body_to_correct(judgement, self._body, self._stage)
        self._apply(
            seat_edit(cast("SeatKind", kind)),
            seats.set_seat_kind.of(body, cast("SeatKind", kind)),
        )

    def _on_body_picked(self, body: str, y: float) -> None:
        if self.entry.wants_body:
            self.entry.hang_on(body, y)
            return
        self.choose_body(body)
        self.body_chosen.emit(body)

    def _on_phase_picked(self, phase: str) -> None:
        self._apply(say.phase_edit(PHASE_WORDS[phase]), edits.set_phase.of(cast("Phase", phase)))

    def _row(self, number: int) -> ReadingRow | None:
        return self._rows[number] if 0 <= number < len(self._rows) else None

    def _on_row_pointed(self, row: int) -> None:
        shown = self._row(row)
        self.drawing.light_reading(shown.id if shown is not None else "")

    def _on_string_pointed(self, reading: str) -> None:
        if reading:
            self.readings.point_at(self._model.number_of(reading))

    def _on_string_picked(self, reading: str) -> None:
        self.readings.point_at(self._model.number_of(reading))
        self.readings.table.setFocus()

    def _on_row_started(self, row: int) -> None:
        shown = self._row(row)
        if shown is None:
            return
        taken = self._document.build.surveyed.reading(shown.id)
        if taken is not None:
            self.entry.start_again(taken)
        else:
            self.entry.start(self._wanted[int(shown.id.removeprefix(showing.WANTED))])

    def _on_ignore_asked(self, row: int) -> None:
        shown = self._row(row)
        if shown is None or shown.state == "wanted":
            return
        ignored = shown.state != "ignored"
        self._apply(
            say.use_edit(shown.id, used=not ignored),
            edits.set_ignored.of(shown.id, ignored=ignored),
        )

    def _on_delete_asked(self, row: int) -> None:
        shown = self._row(row)
        if shown is not None and shown.state != "wanted":
            self._apply(say.strike_out_edit(shown.id), edits.delete_reading.of(shown.id))

    def _edit_value(self, reading_id: str, _column: int, text: str) -> bool:
        reading = self._document.build.surveyed.reading(reading_id)
        if reading is None:
            return False
        try:
            survey = self._document.build.surveyed
            angular = in_degrees(survey, reading)
            shown = parse_angle(text) if angular else parse_length(text, self._unit).mm
            value = as_kept(survey, reading, shown)
            question = self.entry.question(reading, shown)
        except BadInput as fault:
            self.next.tell(str(fault))
            return False
        if question:
            self.next.tell(question)
            return False
        return self._apply(say.change_edit(reading_id), edits.change_value.of(reading_id, value))

    def _on_check_picked(self, check: str) -> None:
        self._check = "" if check == self._check else check
        self._show_check()
        found = self._document.judgement.check(self._check)
        if found is not None:
            body = self._document.judgement.charged[found.id][0]
            self.choose_body(body)
            self.body_chosen.emit(body)

    def _on_tolerance_changed(self, check: str, tolerance: float) -> None:
        self._apply(
            say.allow_another_edit(check.replace("_", " ")),
            edits.set_tolerance.of(check, tolerance),
        )

    def _on_way_picked(self, way: str) -> None:
        self._way = cast("WayName", way)
        self._show_seat()

    def _on_correction_done(self) -> None:
        judgement, build = self._document.judgement, self._document.build
        body = showing.body_to_correct(judgement, self._body, self._stage)
        correction = next((c for c in judgement.corrections if c.body == body), None)
        if correction is None:
            return
        phase, now = build.phase, self._document.clock()
        again = measured_again(build.log, body)
        steps = seat_work(judgement, correction, self._way, insisted=again).steps
        self._apply(
            say.correct_edit(body_name(build.surveyed, body)),
            edits.correction_done.of(body, phase, steps, now),
        )
