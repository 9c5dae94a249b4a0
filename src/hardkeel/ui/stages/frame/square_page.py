"""Square: the frame on its board, read in any order, named, and moved former by former."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QSlider, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, parse_angle, parse_length
from hardkeel.edits import squaring as edits
from hardkeel.edits import truing
from hardkeel.edits.named import in_turn
from hardkeel.fuselage.curing import JudgedFrame, judge_frame
from hardkeel.fuselage.model import Squaring
from hardkeel.fuselage.squaring import Squared, movements, square
from hardkeel.fuselage.squaring_next import (
    decided_by_finer,
    next_readings,
    reading_of_marks,
    readings_at_hand,
)
from hardkeel.messages import frame as frame_say
from hardkeel.messages import square as say
from hardkeel.messages import targets as targets_say
from hardkeel.messages.asking import far_question
from hardkeel.messages.faults import told
from hardkeel.messages.names import PHASE_WORDS, sentence_case
from hardkeel.messages.true import DOES_NOT_FIT, WORTH_TAKING_NOTE
from hardkeel.messages.verdicts import AT_THE_LIMIT
from hardkeel.picture.squaring import frame_from_above, frame_from_behind, frame_from_the_side
from hardkeel.picture.wood import WoodPicture
from hardkeel.project.model import Build
from hardkeel.survey.expecting import expected_of
from hardkeel.survey.readings import ANGULAR, PHASES, Phase, Reading, place_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.frame_page import FrameSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.asked_twice import AskedTwice
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel
from hardkeel.ui.widgets.checks_card import ChecksCard
from hardkeel.ui.widgets.doing_card import Doing, LinesCard, NowCard
from hardkeel.ui.widgets.dropped import PictureDrop
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.reading_rows import READING_COLUMNS, ReadingRow, reading_cells
from hardkeel.ui.widgets.readings_panel import ReadingsPanel
from hardkeel.ui.widgets.targets_card import TargetsCard
from hardkeel.ui.widgets.vial import VialGroup, VialValue
from hardkeel.ui.widgets.wood_board import WoodBoard

if TYPE_CHECKING:
    from hardkeel.survey.ranking import NextReading

_SHOWS: Final = frozenset({"fuselage", "phase"})
_SCALES: Final = (1, 2, 5, 10, 20)
_USUAL_SCALE: Final = 3
_WORDS: Final = {"true": "true", "out": "out", "unsure": "open"}
# what a click on one or two marks means: from above, from the side, from behind
_POINTED: Final = (
    ("offset", "gap", "distance", "tilt"),
    ("height", "distance", "incidence"),
    ("offset", "height", "distance", "tilt"),
)
_WORST_FIRST: Final = ("out", "unsure", "true")


class TakeCard(Card):
    """The one reading to take, with its field."""

    def __init__(self) -> None:
        super().__init__(say.TAKE_NEXT, "act")
        self.title, self.why = label("title"), label("soft")
        self.field = QuantityEdit(large=True)
        row = QHBoxLayout()
        row.addWidget(self.field, 6)
        row.addWidget(self.field.told, 5)
        self.column.addWidget(self.title)
        self.column.addLayout(row)
        self.column.addWidget(self.why)
        self.turn = label("soft", say.TURN)
        self.column.addWidget(self.turn)

    def ask(self, question: str) -> None:
        """Ask about the figure that was just typed."""
        self.why.setText(question)
        self.why.setVisible(True)

    def show_reading(self, reading: Reading | None, why: str, unit: LengthUnit) -> None:
        """Ask for a reading, or say that none would help."""
        self.field.setVisible(reading is not None)
        self.field.told.setVisible(False)
        self.turn.setVisible(reading is not None)
        if reading is None:
            self.title.setText(say.AS_FAR if why else say.ALL_KNOWN)
            self.why.setText(why)
            self.why.setVisible(bool(why))
            return
        words = sentence_case(say.reading_words(reading))
        self.title.setText(words)
        self.field.line.setAccessibleName(words)
        self.field.set_kind(angular=reading.kind in ANGULAR, unit=unit)
        self.why.setText(why)
        self.why.setVisible(bool(why))


class SquarePage(FrameSubPage):
    """Two views of the frame over the readings; what it is, what to take, what to move beside them.

    Signals
    -------
    photos_dropped : list of Path
        Pictures that were dropped on the page.
    refreshed : (nothing)
        It shows the document as it is now.
    """

    photos_dropped = pyqtSignal(list)
    refreshed = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._squared: Squared | None = None
        self._judged: JudgedFrame | None = None
        self._next: tuple[NextReading, ...] = ()
        self._target: Reading | None = None
        self._own = False  # the builder picked the target
        self._check = ""
        self._pointed = ""  # the mark clicked last
        self._asked = AskedTwice()
        self._rows: tuple[Reading, ...] = ()
        self.above = WoodBoard(theme, say.FROM_ABOVE, height=150)
        self.side = WoodBoard(theme, say.FROM_THE_SIDE, height=120)
        self.behind = WoodBoard(theme, say.FROM_BEHIND, height=120)
        self.scale = QSlider(Qt.Orientation.Horizontal)
        self.model = CellsModel(READING_COLUMNS, theme, self._edit_value, self)
        self.panel = ReadingsPanel(theme, tuple((p, PHASE_WORDS[p]) for p in PHASES))
        self.now = NowCard()
        self.answer = LinesCard(say.SQUARE)
        self.take = TakeCard()
        self.moves = LinesCard(say.MOVES)
        self.checks = ChecksCard(theme)
        self.targets = TargetsCard()
        self.targets.eyebrow.setText(targets_say.FRAME_CARD)
        PictureDrop(self).dropped.connect(self.photos_dropped)
        self._factor = label("soft", wrap=False)
        self._lay_out()
        self._connect()
        document.build_opened.connect(self._on_opened)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _on_opened(self) -> None:
        """What was picked on another build is not on this one."""
        self._target, self._own, self._check, self._pointed = None, False, "", ""
        self._asked = AskedTwice()

    def _lay_out(self) -> None:
        self.scale.setRange(0, len(_SCALES) - 1)
        self.scale.setValue(_USUAL_SCALE)
        self.scale.setAccessibleName("how much the error is enlarged")
        self.scale.setFixedWidth(140)
        row = QHBoxLayout()
        row.setContentsMargins(14, 2, 14, 2)
        row.addStretch(1)
        row.setSpacing(12)
        row.addWidget(self._factor)
        row.addWidget(self.scale)
        self.checks.eyebrow.setText(say.FRAME_CHECKS)
        lower = QHBoxLayout()
        lower.setSpacing(1)
        lower.addWidget(self.side, 3)
        lower.addWidget(self.behind, 1)
        self.panel.set_model(self.model)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        work.addWidget(self.above, 5)
        work.addLayout(lower, 4)
        work.addLayout(row)
        work.addWidget(self.panel, 6)
        cards = (
            self.told,
            self.now,
            self.answer,
            self.take,
            self.moves,
            self.checks,
            self.targets,
        )
        self._cards = CardColumn(cards, self.theme)
        self.lie_beside(work, self._cards)
        self.checks.laid.connect(self._cards.laid)
        self.themed = (self.above, self.side, self.behind, self.panel, self.checks, self._cards)

    def _connect(self) -> None:
        for board in (self.above, self.side):
            board.picked.connect(self.piece_chosen)
        for board, kinds in zip((self.above, self.side, self.behind), _POINTED, strict=True):
            board.spot_picked.connect(lambda mark, kinds=kinds: self._on_mark(mark, kinds))
        self.scale.valueChanged.connect(lambda _value: self._show_drawing())
        self.take.field.value_changed.connect(self._on_value)
        self.take.field.given_up.connect(self._on_given_up)
        self.now.asked.connect(self._on_asked)
        self.panel.phase_picked.connect(self._on_phase)
        self.panel.row_started.connect(self._on_row_started)
        self.panel.row_clicked.connect(self._on_row_clicked)
        self.panel.ignore_asked.connect(self._on_ignored)
        self.panel.delete_asked.connect(self._on_struck)
        self.checks.check_picked.connect(self._on_check)
        self.checks.tolerance_changed.connect(
            lambda check, value: self.apply(
                frame_say.set_edit(say.tolerance_of_edit(check)),
                edits.set_square_tolerance.of(check, value),
            )
        )

    @property
    def squared(self) -> Squared | None:
        """What the readings of this phase say; ``None`` without a board."""
        return self._squared

    @property
    def target(self) -> Reading | None:
        """The reading that is asked for."""
        return self._target

    def choose(self, ref: str) -> None:
        """Light a former up."""
        for board in (self.above, self.side):
            board.choose(ref)
        if self.fuselage.former(ref) is not None:
            self._show_drawing()
            self._unfold(ref)

    def _unfold(self, former: str) -> None:
        if self.checks.line(former) is not None:
            self.checks.unfold(former)

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        if self.take.field.isVisible():
            self.take.field.setFocus()

    def refresh(self) -> None:
        """Show the build as it is now."""
        self._show_all()
        self.refreshed.emit()

    def _show_all(self) -> None:
        build = self.document.build
        self._squared = self._squared_now(build)
        ready = self._squared is not None
        for widget in (
            self.answer, self.take, self.moves, self.checks, self.panel, self.side, self.behind
        ):  # fmt: skip
            widget.setVisible(ready)
        self.now.setVisible(not ready)
        if self._squared is None:
            self._show_nothing()
            return
        squared = self._squared
        self._next = next_readings(squared)
        if not self._own or self._target is None:
            self._own = False
            self._target = self._next[0].reading if self._next else None
        self._show_answer()
        self._show_take()
        self.checks.show_groups(self._groups())
        self._show_check()
        self._show_rows()
        self._show_drawing()

    def _squared_now(self, build: Build) -> Squared | None:
        fuselage = build.fuselage
        if fuselage is None or fuselage.board is None or not fuselage.formers:
            return None
        try:
            self._judged = judge_frame(fuselage, build.phase, near=self._squared)
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return None
        return self._judged.squared

    def _show_nothing(self) -> None:
        if self.fuselage.formers:
            self.above.show_picture(WoodPicture(), "", say.NO_BOARD)
            doing = Doing(
                say.SET_A_BOARD, say.SET_A_BOARD_WHY, say.LEVEL_FIRST, say.SET_A_BOARD, "board"
            )
            self.now.show_doing(doing)
        else:
            self.above.show_picture(WoodPicture(), "", frame_say.NOTHING_TO_FRAME)
            self.now.show_doing(Doing(frame_say.NOTHING_TO_FRAME))

    def _show_answer(self) -> None:
        judged = self._judged
        if judged is None:
            return
        squared, shape, named = judged.squared, judged.shape, judged.named
        told = say.what_to_do(judged, self.unit)
        # what is done to the whole is the answer, how it is held stands beneath
        whole = judged.cure is not None
        self.moves.set_edge("out" if whole or judged.moves else "")
        self.moves.show_lines(told[0] if whole else "", told[1:] if whole else told)
        self.answer.set_edge("" if named.name in ("true", "unsure") else "out")
        sentence = say.frame_sentence(named, shape, squared, self.unit)
        self.answer.show_lines(say.frame_answer(named), [sentence])

    def _show_take(self) -> None:
        again = self._again()
        reading = again or self._target
        why = ""
        if again is not None and self._squared is not None:
            why = say.again_sentence(self._squared, self._squared.outliers[0], self.unit)
        elif not self._own and self._next:
            best = self._next[0]
            kind = best.helps.rpartition("_")[2]
            why = say.worth_words(
                best.sigma_now, best.sigma_after, best.helps, angular=kind != "dy", unit=self.unit
            )
        elif reading is None and self._squared is not None:
            why = say.finer_words(*decided_by_finer(self._squared, say.FINER_MM), self.unit)
        self.take.eyebrow.setText(say.TAKE_AGAIN if again is not None else say.TAKE_NEXT)
        self.take.set_edge("out" if again is not None else "act")
        self.take.show_reading(reading, why, self.unit)

    def _again(self) -> Reading | None:
        """The reading that does not fit, unless the builder is taking another."""
        squared = self._squared
        if squared is None or self._own or not squared.outliers:
            return None
        worst = squared.outliers[0].reading
        return next((one for one in squared.readings if one.id == worst), None)

    def _groups(self) -> tuple[VialGroup, ...]:
        squared = self._squared
        if squared is None:
            return ()
        groups = []
        for name in squared.formers:
            mine = squared.checks_on(name)
            verdict = next(v for v in _WORST_FIRST if any(c.verdict == v for c in mine))
            worst = max(mine, key=lambda c: abs(c.error) / c.tolerance)
            open_ = sum(check.verdict == "unsure" and not check.edge for check in mine)
            words = (
                f"{say.check_title(worst).removeprefix(name).strip()} {say.check_value(worst, self.unit)}"
                if verdict == "out"
                else f"{open_} not known yet"
                if open_
                else AT_THE_LIMIT
                if any(check.edge for check in mine)
                else "true"
            )
            vials = tuple(
                VialValue(
                    check.id,
                    sentence_case(say.check_title(check)),
                    check.error / check.tolerance,
                    check.sigma / check.tolerance,
                    check.verdict,
                    say.check_value(check, self.unit),
                    "limit" if check.edge else _WORDS[check.verdict],
                    say.check_sentence(check, self.unit),
                )
                for check in mine
            )
            groups.append(VialGroup(name, name, verdict, words, vials))  # type: ignore[arg-type]
        return tuple(sorted(groups, key=lambda group: _WORST_FIRST.index(group.verdict or "true")))

    def _show_check(self) -> None:
        squared = self._squared
        found = [c for c in squared.checks if c.id == self._check] if squared is not None else []
        if not found:
            self.checks.show_detail("", "", "", None, angular=True, unit=self.unit)
            return
        check = found[0]
        sentence = say.check_sentence(check, self.unit)
        self.checks.show_detail(
            check.id, sentence, "", check.tolerance, angular=check.unit == "deg", unit=self.unit
        )

    def _show_rows(self) -> None:
        squared = self._squared
        if squared is None:
            return
        outliers = {one.reading for one in squared.outliers}
        rows = [
            ReadingRow(
                reading.id,
                say.reading_words(reading),
                say.value_words(reading, self.unit),
                say.off_words(reading, fit.residual, self.unit),
                DOES_NOT_FIT if reading.id in outliers else "",
                "doubtful" if reading.id in outliers else "ignored" if reading.ignored else "fits",
            )
            for reading, fit in zip(squared.readings, squared.fits, strict=True)
        ]
        taken = {place_of(reading) for reading in squared.readings}
        first = [one.reading for one in self._next]
        rest = readings_at_hand(squared.formers)
        open_ = [one for one in (*first, *rest) if place_of(one) not in taken]
        wanted = tuple({place_of(one): one for one in reversed(open_)}.values())[::-1]
        rows += [
            ReadingRow(
                f"wanted {i}",
                say.reading_words(one),
                "",
                "",
                WORTH_TAKING_NOTE if i < len(first) else "",
                "wanted",
            )
            for i, one in enumerate(wanted)
        ]
        self._rows = (*squared.readings, *wanted)
        self.model.show_rows(reading_cells(tuple(rows)), self.theme)
        phase = self.document.build.phase or "dry"
        readings = (self.fuselage.squaring or Squaring()).readings
        shown = frozenset({"dry", "wet", phase} | {r.phase for r in readings if r.phase})
        count = say.taken_count(len(squared.readings), len(outliers))
        self.panel.show_heading(phase, count, self._movement(phase), shown)

    def _movement(self, phase: Phase) -> str:
        """What moved most since the phase before, where both know it."""
        squaring = self.fuselage.squaring or Squaring()
        taken = {reading.phase for reading in squaring.readings}
        before = [one for one in PHASES[: PHASES.index(phase)] if one in taken]
        squared = self._squared
        if not before or squared is None or phase not in taken:
            return ""
        then = square(self.fuselage, before[-1])
        moves = movements(then, squared)
        return say.movement_words(moves, PHASE_WORDS[before[-1]], self.unit)

    def _show_drawing(self) -> None:
        factor = _SCALES[self.scale.value()]
        self._factor.setText(f"error shown × {factor}")
        squared = self._squared
        if squared is None:
            return
        held = self._again() or self._target
        chosen = self.above.chosen
        pictures = (
            frame_from_above(self.fuselage, squared, factor, held),
            frame_from_the_side(self.fuselage, squared, factor, held),
            frame_from_behind(squared, factor, chosen or squared.formers[0]),
        )
        boards = (self.above, self.side, self.behind)
        notes = (say.LEVEL_FIRST, "", "")
        for board, picture, note in zip(boards, pictures, notes, strict=True):
            held_piece = "" if board is self.behind else chosen
            board.show_picture(picture.called(say.mark_words), held_piece, note)

    # -- what the hands do -------------------------------------------------------------------------

    def _on_value(self, value: float) -> None:
        reading = self._again() or self._target
        if reading is None:
            return
        again = self._again()
        if question := self._question(reading, value):
            self.take.ask(question)
            return
        taken = reading.but(value=value, ignored=False)
        phase, at = self.document.build.phase or "dry", self.document.clock()

        edit = edits.take_square.of(taken, phase, at)
        if again is not None:  # what is taken again sets the one before aside
            edit = in_turn.of(edits.change_square.of(again.id, ignored=True), edit)
        self._own, self._pointed = False, ""
        if self.apply(say.taken_edit(taken), edit):
            self.take.field.set_value(None)
            self.focus_work()

    def _question(self, reading: Reading, value: float) -> str:
        """What to ask about a figure far from what is expected; empty for any other, and the second time."""
        squared = self._squared
        if squared is None:
            return ""
        expected = expected_of(squared.net, squared.solution, reading)
        if not self._asked.wants_asking(place_of(reading), value, sensible=expected.holds(value)):
            return ""
        angular = reading.kind in ANGULAR
        return far_question(expected.value, expected.band, value, self.unit, angular=angular)

    def _on_given_up(self) -> None:
        self._own = False
        self.take.field.set_value(None)
        self.refresh()

    def _on_row_started(self, number: int) -> None:
        if not 0 <= number < len(self._rows):
            return
        squared = self._squared
        taken = squared.readings if squared is not None else ()
        reading = self._rows[number]
        if reading in taken:
            self.panel.edit_value(number)
            return
        self._target, self._own = reading, True
        self._show_take()
        self._show_drawing()
        self.focus_work()

    def _on_row_clicked(self, number: int) -> None:
        """What is not read yet is taken in hand by one click; what is read waits for a second to be changed."""
        if 0 <= number < len(self._rows):
            taken = self._squared.readings if self._squared is not None else ()
            if self._rows[number] not in taken:
                self._on_row_started(number)

    def _on_mark(self, mark: str, kinds: tuple[str, ...]) -> None:
        """A mark was clicked: what is read there, or from the mark clicked before to this one."""
        squared = self._squared
        if squared is None:
            return
        before, self._pointed = self._pointed, mark
        reading = None
        if before and before != mark:
            reading = reading_of_marks(squared.formers, (before, mark), kinds)
            if reading is not None:
                self._pointed = ""
        reading = reading or reading_of_marks(squared.formers, (mark,), kinds)
        if reading is None:
            return
        self.piece_chosen.emit(mark.rpartition(".")[0])
        # one that was taken is taken again, beside the other
        self._target, self._own = reading, True
        self._show_take()
        self._show_drawing()
        self.focus_work()

    def _edit_value(self, key: str, _column: int, text: str) -> bool:
        squared = self._squared
        found = [r for r in squared.readings if r.id == key] if squared is not None else []
        if not found:
            return False
        try:
            angular = found[0].kind in ANGULAR
            value = parse_angle(text) if angular else parse_length(text, self.unit).mm
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return False
        if question := self._question(found[0], value):
            self.tell(question)
            return False
        return self.apply(say.taken_edit(found[0]), edits.change_square.of(key, value=value))

    def _on_ignored(self, number: int) -> None:
        reading = self._taken(number)
        if reading is not None:
            self.apply(
                say.used_edit(reading),
                edits.change_square.of(reading.id, ignored=not reading.ignored),
            )

    def _on_struck(self, number: int) -> None:
        reading = self._taken(number)
        if reading is not None:
            self.apply(say.struck_edit(reading), edits.delete_square.of(reading.id))

    def _taken(self, number: int) -> Reading | None:
        squared = self._squared
        taken = squared.readings if squared is not None else ()
        return taken[number] if 0 <= number < len(taken) else None

    def _on_phase(self, phase: str) -> None:
        self.apply(say.go_on_edit(phase), truing.set_phase.of(phase))  # type: ignore[arg-type]

    def _on_check(self, check: str) -> None:
        self._check = "" if check == self._check else check
        self._show_check()

    def _on_asked(self, _key: str) -> None:
        self.apply(say.SET_A_BOARD.lower(), edits.set_on_board.of())
