"""The True page driven as a builder would drive it: real keys, real clicks."""

from datetime import timedelta
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QLabel, QPushButton
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.edits import truing as edits
from hardkeel.messages.log import entry_text
from hardkeel.survey.model import Instrument
from hardkeel.survey.reading_form import form_list
from hardkeel.survey.readings import DistanceDifference, Incidence, Reading, place_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.form_controller import ReadingFormController
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.widgets.reading_rows import ReadingColumn
from tests.conftest import StepClock
from tests.edited import by_hand
from tests.stages_of import true_of

LEFT = Qt.MouseButton.LeftButton


def type_value(qtbot: QtBot, window: MainWindow, text: str) -> None:
    line = true_of(window).next.field.line
    line.clear()
    qtbot.keyClicks(line, text)
    qtbot.keyClick(line, Qt.Key.Key_Return)


def tool(window: MainWindow, kind: str) -> QPushButton:
    return next(
        b for b in true_of(window).next.findChildren(QPushButton) if b.property("kind") == kind
    )


def wanted(window: MainWindow) -> Reading:
    target = true_of(window).entry.target
    assert target is not None
    return target


def vial_word(window: MainWindow, check: str) -> str:
    vial = true_of(window).checks.vial(check)
    assert vial is not None
    return vial.value.word


def next_title(window: MainWindow) -> str:
    shown = true_of(window).next.findChildren(type(true_of(window).next.eyebrow))
    return next(label.text() for label in shown if label.objectName() == "title")


def answers(window: MainWindow) -> str:
    labels = true_of(window).seat.findChildren(type(true_of(window).seat.eyebrow))
    return next(label.text() for label in labels if label.objectName() == "answer")


def test_the_demo_says_what_is_out_what_to_do_and_which_reading_to_doubt(
    window: MainWindow,
) -> None:
    assert vial_word(window, "stab_roll_to_wing") == "out"
    assert vial_word(window, "stab_roll") == "doubt"  # it rests on one reading
    assert vial_word(window, "wing_roll") == "true"
    assert vial_word(window, "fin_yaw") == "open"
    assert answers(window).startswith("Sand ")
    assert wanted(window).id == window.document.judgement.outliers[0].reading


def test_a_reading_taken_again_by_keyboard_clears_the_doubt_and_undo_brings_it_back(
    qtbot: QtBot, window: MainWindow
) -> None:
    before = window.document.build
    type_value(qtbot, window, "955.0")
    assert not window.document.judgement.outliers
    assert window.document.stack.undoText() == "take r20 again"
    assert window.document.build.surveyed.reading("r20").ignored  # type: ignore[union-attr]
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.document.build == before
    qtbot.keyClick(
        window,
        Qt.Key.Key_Z,
        Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier,
    )
    assert not window.document.judgement.outliers


def test_enter_takes_a_reading_and_goes_to_the_next_one(qtbot: QtBot, window: MainWindow) -> None:
    type_value(qtbot, window, "955.0")
    first = true_of(window).entry.target
    assert first is not None
    count = len(window.document.judgement.readings)
    type_value(qtbot, window, f"{first.value:.2f}")
    assert len(window.document.judgement.readings) == count + 1
    assert true_of(window).entry.target != first
    assert true_of(window).next.field.line.text() == ""
    assert true_of(window).next.field.line.hasFocus()


def test_a_figure_far_from_all_sense_is_asked_about_once(qtbot: QtBot, window: MainWindow) -> None:
    """The first reading in hand is a line from the nose to a wing tip: some 955 mm."""
    page, before = true_of(window), window.document.build
    assert page.entry.shown is not None
    assert "Expect 955" in page.entry.shown.why
    type_value(qtbot, window, "95.5")
    assert window.document.build is before
    assert "and this says 95.5 mm" in page.next.complaint
    type_value(qtbot, window, "955")
    assert window.document.build is not before
    changed = window.document.build
    row = page.readings.table.model()
    assert row is not None
    reading = window.document.build.surveyed.figures[0]
    far = f"{reading.value + 40:.1f}"
    at = page._model.number_of(reading.id)  # noqa: SLF001  the row of a reading
    index = row.index(at, 2)
    assert not row.setData(index, far)
    assert window.document.build is changed
    assert row.setData(index, far)
    assert window.document.build is not changed


def test_a_reading_changes_vial_and_correction_at_once(qtbot: QtBot, window: MainWindow) -> None:
    vial = true_of(window).checks.vial("stab_roll")
    assert vial is not None
    before, words = vial.value, answers(window)
    for value in ("955.0", "0.3"):
        type_value(qtbot, window, value)
    tool(window, "tilt").click()
    for mark in ("stab te port", "stab te starboard"):
        qtbot.keyClicks(true_of(window).next.place, mark)
        qtbot.keyClick(true_of(window).next.place, Qt.Key.Key_Return)
    type_value(qtbot, window, "2.4")
    qtbot.keyClick(true_of(window).next.field.line, Qt.Key.Key_Return)  # far from what is expected
    assert vial.value.error != before.error
    assert answers(window) != words or window.document.judgement.outliers


@pytest.mark.parametrize("text", ["", "abc", "1/0"])
def test_what_is_not_understood_is_told_beside_the_field_and_changes_nothing(
    qtbot: QtBot, window: MainWindow, text: str
) -> None:
    before = window.document.build
    type_value(qtbot, window, text)
    assert window.document.build is before
    assert true_of(window).next.field.told.text().strip()
    assert true_of(window).next.field.line.property("wrong")


def test_fractions_are_understood_while_typing(qtbot: QtBot, window: MainWindow) -> None:
    line = true_of(window).next.field.line
    line.clear()
    qtbot.keyClicks(line, "37-19/32")
    assert true_of(window).next.field.told.text() == "954.88 mm = 37-19/32″"


def test_a_line_is_swung_by_clicking_three_marks_in_the_drawing(
    qtbot: QtBot, window: MainWindow
) -> None:
    tool(window, "distance-difference").click()
    for mark in ("tail_pin", "wing_tip_le_port", "wing_tip_le_starboard"):
        at = true_of(window).drawing.mark_position(mark)
        assert at is not None
        qtbot.mouseClick(true_of(window).drawing, LEFT, pos=at.toPoint())
    target = true_of(window).entry.target
    assert isinstance(target, DistanceDifference)
    assert (target.from_, target.to) == ("tail_pin", ("wing_tip_le_port", "wing_tip_le_starboard"))
    type_value(qtbot, window, "0.4")
    assert window.document.build.surveyed.readings[-1].value == 0.4
    assert window.document.build.surveyed.readings[-1].phase == "dry"


def test_a_gauge_is_hung_by_clicking_the_wing(qtbot: QtBot, window: MainWindow) -> None:
    tool(window, "incidence").click()
    port = true_of(window).drawing.mark_position("wing_tip_le_port")
    aft = true_of(window).drawing.mark_position("wing_tip_te_port")
    assert port is not None
    assert aft is not None
    # right on the string of r6: while a gauge is to be hung, strings do not catch the click
    middle = QPoint(int(port.x() + 18), int((port.y() + aft.y()) / 2))
    qtbot.mouseClick(true_of(window).drawing, LEFT, pos=middle)
    target = true_of(window).entry.target
    assert isinstance(target, Incidence)
    assert (target.body, target.side) == ("wing", "port")
    assert target.span_fraction > 0.8


def test_escape_puts_the_tool_down(qtbot: QtBot, window: MainWindow) -> None:
    proposed = true_of(window).entry.target
    tool(window, "height").click()
    qtbot.keyClicks(true_of(window).next.place, "nose pin")
    qtbot.keyClick(true_of(window).next.place, Qt.Key.Key_Return)
    assert wanted(window).kind == "height"
    qtbot.keyClick(true_of(window).next.field.line, Qt.Key.Key_Escape)
    assert true_of(window).entry.target == proposed


def test_a_mark_that_is_not_there_is_told(qtbot: QtBot, window: MainWindow) -> None:
    tool(window, "height").click()
    qtbot.keyClicks(true_of(window).next.place, "propeller")
    qtbot.keyClick(true_of(window).next.place, Qt.Key.Key_Return)
    assert true_of(window).entry.target is None
    hints = [
        label.text()
        for label in true_of(window).next.findChildren(type(true_of(window).next.eyebrow))
    ]
    assert any("in its name" in text for text in hints)


def test_row_and_string_point_at_each_other(qtbot: QtBot, window: MainWindow) -> None:
    table = true_of(window).readings.table
    true_of(window).drawing.reading_pointed.emit("r12")
    assert table.currentIndex().row() == 11
    with qtbot.waitSignal(true_of(window).readings.row_pointed):
        true_of(window).readings.point_at(13)


def test_pointing_at_a_string_names_its_reading(qtbot: QtBot, window: MainWindow) -> None:
    drawing = true_of(window).drawing
    start, end = drawing.mark_position("tail_pin"), drawing.mark_position("wing_tip_le_port")
    assert start is not None
    assert end is not None
    at = (start * 0.3 + end * 0.7).toPoint()
    with qtbot.waitSignal(drawing.reading_pointed) as seen:
        qtbot.mouseMove(drawing, at)
    assert seen.args == ["r10"]


def test_a_value_in_the_list_is_typed_over(window: MainWindow) -> None:
    model = true_of(window).readings.table.model()
    assert model is not None
    index = model.index(3, ReadingColumn.VALUE)
    assert model.setData(index, "1.95")
    assert window.document.build.surveyed.readings[3].value == 1.95
    assert not model.setData(index, "soon")
    assert window.document.stack.undoText() == "change r4"


def test_a_reading_is_set_aside_and_struck_out_by_key(qtbot: QtBot, window: MainWindow) -> None:
    true_of(window).readings.point_at(0)
    table = true_of(window).readings.table
    table.setFocus()
    qtbot.keyClick(table, Qt.Key.Key_Space)
    assert window.document.build.surveyed.readings[0].ignored
    true_of(window).readings.point_at(0)
    qtbot.keyClick(table, Qt.Key.Key_Delete)
    assert window.document.build.surveyed.reading("r1") is None
    assert window.document.stack.undoText() == "strike out r1"


def test_a_row_worth_taking_is_started_by_enter(qtbot: QtBot, window: MainWindow) -> None:
    model = true_of(window).readings.table.model()
    assert model is not None
    qtbot.waitUntil(lambda: model.rowCount() > len(window.document.judgement.readings))
    last = model.rowCount() - 1
    true_of(window).readings.row_started.emit(last)
    assert wanted(window).id == "?"


def test_phases_are_shown_apart_with_what_moved(qtbot: QtBot, window: MainWindow) -> None:
    buttons = {b.text(): b for b in true_of(window).readings.findChildren(QPushButton)}
    buttons["wet"].click()
    assert {r.phase for r in window.document.judgement.readings} == {"wet"}
    assert window.document.stack.undoText() == "go to glue wet"
    texts = [
        w.text() for w in true_of(window).readings.findChildren(type(true_of(window).next.eyebrow))
    ]
    assert any("since dry" in text for text in texts)


def test_a_picked_vial_is_told_in_words_and_its_tolerance_can_be_changed(
    qtbot: QtBot, window: MainWindow
) -> None:
    vial = true_of(window).checks.vial("stab_roll")
    assert vial is not None
    qtbot.mouseClick(vial, LEFT)
    limit = next(f for f in true_of(window).checks.findChildren(type(true_of(window).next.field)))
    assert limit.isVisible()
    limit.line.clear()
    qtbot.keyClicks(limit.line, "2")
    qtbot.keyClick(limit.line, Qt.Key.Key_Return)
    assert window.document.build.surveyed.tolerances == {"stab_roll": 2.0}
    assert vial_word(window, "stab_roll") == "true"
    changes = [entry.verdict for entry in window.document.build.log if entry.verdict is not None]
    assert [(change.check, change.now) for change in changes][-1] == ("stab_roll", "true")


def test_shims_and_sanding_are_two_ways_to_the_same_end(window: MainWindow) -> None:
    buttons = {b.text(): b for b in true_of(window).seat.findChildren(QPushButton)}
    buttons["only shims"].click()
    assert answers(window).startswith("Put ")
    buttons["only sanding"].click()
    assert answers(window).startswith("Sand ")


def test_a_correction_done_goes_in_the_log_and_asks_for_new_readings(window: MainWindow) -> None:
    done = next(
        b for b in true_of(window).seat.findChildren(QPushButton) if b.text().startswith("Done")
    )
    done.click()
    assert window.document.build.log[-1].kind in ("correction", "verdict")
    assert any(entry.kind == "correction" for entry in window.document.build.log)
    assert vial_word(window, "stab_roll") == "open"
    assert true_of(window).entry.target is not None


def test_a_part_picked_on_the_keel_line_is_shown_on_the_page(window: MainWindow) -> None:
    window.header.keel.body_picked.emit("wing")
    assert true_of(window).seat.eyebrow.text() == "Wing seat"


def test_inches_are_shown_and_read(qtbot: QtBot, window: MainWindow) -> None:
    window.header.unit_button.click()
    model = true_of(window).readings.table.model()
    assert model is not None
    assert model.index(9, ReadingColumn.VALUE).data().endswith("″")
    type_value(qtbot, window, "37.6")
    assert window.document.build.surveyed.readings[-1].value == pytest.approx(955.04)


def test_a_builders_own_model_is_trued_on_the_first_day(qtbot: QtBot, window: MainWindow) -> None:
    """Take whatever is proposed, with what a true model would show, until nothing is open."""
    window.start(build_from(Figures(name="First", tools=(*Figures().tools, "laser"))))
    for _ in range(70):
        target = true_of(window).entry.target
        if target is None:
            break
        type_value(qtbot, window, f"{target.value:.3f}")
    verdicts = {check.verdict for check in window.document.judgement.checks}
    assert verdicts == {"true"}
    assert "glue" in next_title(window)


def test_what_no_reading_can_tell_is_left_open_and_says_why(
    qtbot: QtBot, window: MainWindow
) -> None:
    """Without a laser nothing tells a bent tail from a stabilizer that stands aside."""
    window.start(build_from(Figures(name="First")))
    for _ in range(70):
        target = true_of(window).entry.target
        if target is None:
            break
        type_value(qtbot, window, f"{target.value:.3f}")
    judgement = window.document.judgement
    assert [c.id for c in judgement.checks if c.verdict != "true"] == ["stab_offset"]
    assert next_title(window) == "Add a line laser"
    step = true_of(window).entry.step
    assert step is not None
    assert "how the tail bends sideways" in step.why


def test_undo_goes_all_the_way_back(qtbot: QtBot, window: MainWindow) -> None:
    start = window.document.build
    type_value(qtbot, window, "955")
    window.document.apply("write a note", edits.add_note.of("x", window.document.clock()))
    window.document.apply("go on", edits.set_phase.of("cured"))
    while window.document.stack.canUndo():
        window.document.stack.undo()
    assert window.document.build == start


def test_a_reading_is_called_the_same_on_its_card_and_in_the_list(window: MainWindow) -> None:
    page = true_of(window)
    model = page.readings.table.model()
    assert model is not None
    listed = [model.index(row, ReadingColumn.NAME).data() for row in range(model.rowCount())]
    named = window.document.judgement.outliers[0].reading
    assert page.entry.shown is not None
    assert page.entry.shown.why.startswith(f"{named} does not fit the rest")
    row = listed.index(named)
    assert "does not fit" in model.index(row, ReadingColumn.NOTE).data()
    window.document.apply("wet", edits.set_phase.of("wet"))
    taken = [one.id for one in window.document.build.surveyed.figures if one.phase == "wet"]
    listed = [model.index(row, ReadingColumn.NAME).data() for row in range(len(taken))]
    assert listed == taken


def seat_text(page: TruePage) -> str:
    shown = [one for one in page.seat.findChildren(QLabel) if not one.isHidden()]
    return " ".join(one.text() for one in shown)


def test_what_is_out_is_glued_only_after_a_question(qtbot: QtBot, window: MainWindow) -> None:
    page = true_of(window)
    window.document.apply("wet", edits.set_phase.of("wet"))
    stab = page.glue.buttons["stab"]
    qtbot.mouseClick(stab, Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.gluing is None
    assert page.glue.said.text().startswith("Stabilizer, dry: to wing out 0.8°. Glue it so?")
    assert not stab.isChecked()
    qtbot.mouseClick(stab, Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.gluing is not None


def test_a_yes_to_glue_it_so_is_for_that_once(qtbot: QtBot, window: MainWindow) -> None:
    page = true_of(window)
    window.document.apply("wet", edits.set_phase.of("wet"))
    qtbot.mouseClick(page.glue.buttons["stab"], Qt.MouseButton.LeftButton)
    page.glue.show_time()  # each five seconds while a pot runs
    assert "Glue it so?" in page.glue.said.text()
    window.document.apply("x", edits.add_note.of("x", window.document.clock()))
    window.document.apply("wing", edits.set_gluing.of("wing"))
    qtbot.mouseClick(page.glue.buttons["stab"], Qt.MouseButton.LeftButton)
    assert "Glue it so?" in page.glue.said.text()
    gluing = window.document.build.surveyed.gluing
    assert gluing is not None
    assert gluing.body == "wing"


def test_a_day_later_nothing_is_said_of_the_pot(
    qtbot: QtBot, window: MainWindow, clock: StepClock
) -> None:
    page = true_of(window)
    window.document.apply("wet", edits.set_phase.of("wet"))
    window.document.apply("glue", edits.set_gluing.of("wing"))
    now = clock() - timedelta(hours=20)
    window.document.apply("mix", edits.set_mixed.of(30.0, now))
    assert page.glue.time.isVisible()
    window.document.apply("cured", edits.set_phase.of("cured"))
    assert page.glue.isVisible()
    assert not page.glue.time.isVisible()
    assert not page.glue.list.isVisible()


def test_the_list_of_the_pot_stands_first_whatever_stage_is_in_hand(window: MainWindow) -> None:
    page = true_of(window)
    window.document.apply("wet", edits.set_phase.of("wet"))
    window.document.apply("glue", edits.set_gluing.of("stab"))
    first = page.entry.target
    page.rig.picked.emit("wing")
    assert first is not None
    assert page.entry.target == first
    assert place_of(first) == place_of(window.document.judgement.repeats[0])


def test_what_the_glue_holds_is_chosen_and_what_moved_is_said(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    assert not page.glue.isVisible()
    window.document.apply("wet", edits.set_phase.of("wet"))
    assert page.glue.isVisible()
    assert window.document.judgement.movement == {}
    qtbot.mouseClick(page.glue.buttons["wing"], Qt.MouseButton.LeftButton)
    gluing = window.document.build.surveyed.gluing
    assert gluing is not None
    assert gluing.body == "wing"
    assert "wing" in window.document.judgement.movement
    assert "has not moved" in page.glue.said.text()
    lifted = [
        one.but(value=one.value + 1.2) if one.kind == "tilt" and one.phase == "wet" and "wing" in str(one) else one
        for one in window.document.build.surveyed.readings
    ]  # fmt: skip
    window.document.apply(
        "lift", by_hand(lambda b: edits.with_survey(b, b.surveyed.but(readings=tuple(lifted))))
    )
    assert "Wing has moved since the dry fit: starboard tip up" in page.glue.said.text()
    assert "Bring it back to the dry fit, port tip up" in page.glue.said.text()
    assert page.glue.back.isVisible()
    assert page.glue.where["dry"].isChecked()
    qtbot.mouseClick(page.glue.where["true"], Qt.MouseButton.LeftButton)
    assert "Wing is out of true: " in page.glue.said.text()
    assert "Bring it to true, " in page.glue.said.text()
    qtbot.mouseClick(page.glue.where["dry"], Qt.MouseButton.LeftButton)
    assert "sanding comes again" in seat_text(page)
    assert "Sand " not in seat_text(page)
    assert not page.aim.isVisible()  # it would pack both seats
    qtbot.mouseClick(page.glue.back, Qt.MouseButton.LeftButton)
    assert not page.glue.back.isVisible()
    assert page.glue.said.text() == "Wing: nothing read yet."
    headings = {one.text() for one in page.readings.findChildren(QLabel)}
    assert not any("movement" in one or "since dry" in one for one in headings)
    assert page.glue.list.text().count("✓") == 0
    entry = [one for one in window.document.build.log if one.kind == "correction"][-1]
    said = entry_text(window.document.build.surveyed, entry, "mm")
    assert said == "Wing moved back while the glue was wet"
    qtbot.mouseClick(page.glue.buttons[""], Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.gluing is None


def test_the_stabilizer_is_made_true_to_the_wing_as_it_stands(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    assert page.aim.isVisible()
    before = [
        move.lift
        for one in window.document.judgement.corrections
        if one.body == "stab"
        for move in one.moves
    ]
    qtbot.mouseClick(page.aim.buttons["wing"], Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.aim == {"stab": "wing"}
    after = [
        move.lift
        for one in window.document.judgement.corrections
        if one.body == "stab"
        for move in one.moves
    ]
    assert after != before
    qtbot.mouseClick(page.aim.buttons["datum"], Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.aim is None


def test_a_stage_in_hand_brings_its_checks_and_readings_in_front(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    assert list(page.rig.stages) == ["fuselage", "wing", "stab", "fin", "rudder"]
    qtbot.mouseClick(page.rig.stages["fin"], Qt.MouseButton.LeftButton)
    first = page.checks.line("fin")
    assert first is not None
    others = [line for body in ("wing", "stab") if (line := page.checks.line(body)) is not None]
    assert len(others) == 2
    qtbot.waitUntil(lambda: all(first.y() < line.y() for line in others))
    vial = page.checks.vial("fin_yaw")
    assert vial is not None
    assert vial.isVisible()
    what = page.readings.table.model()
    assert what is not None
    assert "fin" in str(what.index(0, 1).data())
    qtbot.mouseClick(page.rig.stages["fin"], Qt.MouseButton.LeftButton)
    assert not page.rig.lock.isVisible()


def test_a_wing_that_is_glued_is_locked_and_the_stabilizer_follows_it(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    qtbot.mouseClick(page.rig.stages["wing"], Qt.MouseButton.LeftButton)
    qtbot.mouseClick(page.rig.lock, Qt.MouseButton.LeftButton)
    survey = window.document.build.surveyed
    assert survey.locked == ("wing",)
    assert survey.aim == {"stab": "wing"}
    assert {one.body for one in window.document.judgement.corrections} == {"stab", "fin"} & {
        body.id for body in survey.bodies if body.seat is not None and body.seat.contacts
    }
    assert "glued" in page.rig.stages["wing"].accessibleName()
    qtbot.mouseClick(page.rig.lock, Qt.MouseButton.LeftButton)
    assert not window.document.build.surveyed.locked
    window.document.stack.undo()
    assert "wing" in window.document.build.surveyed.locked


def test_another_kind_of_seat_is_told_other_work(qtbot: QtBot, window: MainWindow) -> None:
    page = true_of(window)
    before = page.seat._do.text()  # noqa: SLF001  what the card says
    at = page.seat.kind.findData("slot")
    page.seat.kind.setCurrentIndex(at)
    page.seat.kind.activated.emit(at)
    body = window.document.build.surveyed.body("stab")
    assert body is not None
    assert body.seat is not None
    assert body.seat.kind == "slot"
    after = page.seat._do.text()  # noqa: SLF001
    assert after != before
    assert "slot's" in after
    assert "Sand" not in after
    window.document.stack.undo()
    assert page.seat._do.text() == before  # noqa: SLF001


def test_what_an_error_does_in_the_air_stands_under_its_vial(window: MainWindow) -> None:
    page = true_of(window)
    vial = page.checks.vial("decalage")
    assert vial is not None
    assert vial.value.below.startswith("in the air: ")
    assert "elevator" in vial.value.below
    assert vial.value.below in vial.accessibleName()
    level = page.checks.vial("stab_incidence")
    assert level is not None
    assert not level.value.below
    assert level.sizeHint().height() < vial.sizeHint().height()


def test_the_short_list_and_the_time_stand_by_while_the_glue_is_wet(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    window.document.apply("wet", edits.set_phase.of("wet"))
    for _ in range(2):  # it is out, and that is asked about
        qtbot.mouseClick(page.glue.buttons["stab"], Qt.MouseButton.LeftButton)
    assert page.glue.list.text().count("○") == 6
    assert page.next.field.isVisible()
    first = window.document.judgement.repeats[0]
    assert window.document.judgement.next[0].reading.kind == first.kind
    page.glue.minutes.setValue(20)
    qtbot.mouseClick(page.glue.start, Qt.MouseButton.LeftButton)
    gluing = window.document.build.surveyed.gluing
    assert gluing is not None
    assert gluing.pot_life == 20
    assert "minutes left" in page.glue.time.text()
    page.next.field.line.setText(f"{first.value:.2f}")
    qtbot.keyClick(page.next.field.line, Qt.Key.Key_Return)
    assert page.glue.list.text().count("✓") == 1


def test_the_sheet_is_written_and_typed_in_in_its_order(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    page = true_of(window)
    desk = page.findChild(ReadingFormController)
    assert desk is not None
    desk.write(tmp_path / "sheet.pdf")
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    window.document.apply("cured", edits.set_phase.of("cured"))
    desk.type_action.trigger()
    listed = form_list(window.document.build.surveyed)
    before = len(window.document.build.surveyed.readings)
    for reading in listed[:3]:
        target = page.entry.target
        assert target is not None
        assert place_of(target) == place_of(reading)
        page.next.field.line.setText(f"{reading.value:.2f}")
        qtbot.keyClick(page.next.field.line, Qt.Key.Key_Return)
    assert len(window.document.build.surveyed.readings) == before + 3
    assert f"4 of {len(listed)}" in page.next._why.text()  # noqa: SLF001  what the card says
    desk.type_action.trigger()
    assert not page.entry.on_sheet


@pytest.mark.parametrize("unit", ["mm", "in"])
def test_no_card_is_wider_than_its_column(window: MainWindow, qtbot: QtBot, unit: str) -> None:
    """A third button in the seat's row once cut the figures of every card at the right edge."""
    if unit == "in":
        qtbot.mouseClick(window.header.unit_button, LEFT)
    page = true_of(window)
    qtbot.wait(50)
    room = page.next.parentWidget()
    assert room is not None
    for card in (page.next, page.seat, page.checks):
        assert card.isVisible()
        assert card.minimumSizeHint().width() <= card.width()
        assert card.geometry().right() <= room.width()
    column = page.seat.parentWidget()
    assert column is not None
    view = column.parentWidget()
    assert view is not None
    assert column.width() <= view.width()


def test_a_tool_that_is_not_owned_is_not_offered(window: MainWindow) -> None:
    page = true_of(window)

    def offered() -> set[str]:
        return {
            one.property("kind")
            for one in page.next.findChildren(QPushButton)
            if one.property("kind") and one.isVisibleTo(page.next)
        }

    build = window.document.build
    window.document.apply(
        "tools", edits.with_survey.of(build.surveyed.but(instruments=(Instrument(id="tape", kind="tape"), Instrument(id="water", kind="water-level")))),
    )  # fmt: skip
    assert offered() == {"distance", "tilt"}
    window.document.apply("any", edits.with_survey.of(build.surveyed.but(instruments=None)))
    assert len(offered()) == 7
