"""Order: laid out, ticked, asked about when it is too early, changed and taken back."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLineEdit
from pytestqt.qtbot import QtBot

from hardkeel.demo.fleet import withy
from hardkeel.edits.framing import add_member
from hardkeel.messages.steps import title_of
from hardkeel.project.model import Build, empty_build
from hardkeel.schedule.hanging import hanging_of
from hardkeel.schedule.model import Step
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.order_page import FrameOrderPage
from hardkeel.ui.tabbed.hanging_view import HangingView, Slip
from hardkeel.ui.theme import make_theme
from tests.frames import box
from tests.stages_of import frame_of

LEFT = Qt.MouseButton.LeftButton


def page_of(window: MainWindow) -> FrameOrderPage:
    window.show_stage("frame")
    frame_of(window).turn_to("order")
    page = frame_of(window).page("order")
    assert isinstance(page, FrameOrderPage)
    return page


@pytest.fixture
def laid_out(qtbot: QtBot, make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    window.start(withy().but(steps=()))
    page = page_of(window)
    assert not page.table.isVisible()
    qtbot.mouseClick(page.now.button, LEFT)
    return window


def row_of(page: FrameOrderPage, step_id: str) -> int:
    rows = (page.model.row(i) for i in range(page.model.rowCount()))
    return next(i for i, row in enumerate(rows) if row is not None and row.key == step_id)


def state_of(window: MainWindow, step_id: str) -> str:
    return next(one.state for one in window.document.build.steps if one.id == step_id)


def test_the_order_is_laid_out_and_undone(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    assert page.table.isVisible()
    assert page.model.rowCount() == len(laid_out.document.build.steps) > 8
    assert page.now.answer.text().startswith("Cut and clean")
    assert "first cut and clean" in page.not_yet.lines.text()
    laid_out.document.stack.undo()
    assert laid_out.document.build.steps == ()
    assert not page.table.isVisible()


def test_a_tick_goes_on_to_the_next_step(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    before = laid_out.document.build
    qtbot.mouseClick(page.now.button, LEFT)
    assert state_of(laid_out, "cut") == "done"
    deed = laid_out.document.build.log[-1].step
    assert deed is not None
    assert title_of(deed).startswith("Cut and clean")
    assert laid_out.document.build.listed.states["F1"] == "cleaned"
    assert page.picked is not None
    assert title_of(page.picked) == page.now.answer.text()
    assert not page.reopen.isVisible()
    laid_out.document.stack.undo()
    assert laid_out.document.build == before


def test_too_early_is_asked_once_with_the_reason(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.setFocus()
    page.table.selectRow(row_of(page, "try in"))
    qtbot.keyClick(page.table, Qt.Key.Key_Return)
    assert state_of(laid_out, "try in") == "open"
    assert page.told.text().startswith("First ")
    assert "all the same" in page.told.text()
    qtbot.keyClick(page.table, Qt.Key.Key_Return)
    assert state_of(laid_out, "try in") == "done"


def test_asking_about_one_step_lets_no_other_through(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.setFocus()
    for one in ("try in", "read", "try in"):
        page.table.selectRow(row_of(page, one))
        qtbot.keyClick(page.table, Qt.Key.Key_Return)
    assert all(one.state == "open" for one in laid_out.document.build.steps)


def test_a_done_step_is_opened_again(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    qtbot.mouseClick(page.now.button, LEFT)
    page.table.selectRow(row_of(page, "cut"))
    qtbot.mouseClick(page.reopen, LEFT)
    assert state_of(laid_out, "cut") == "open"
    assert page.now.answer.text().startswith("Cut and clean")


def test_steps_are_added_cut_and_moved(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.selectRow(row_of(page, "cut"))
    qtbot.keyClicks(page.name, "Weigh the sticks")
    qtbot.keyClick(page.name, Qt.Key.Key_Return)
    assert page.name.text() == ""
    steps = laid_out.document.build.steps
    assert (steps[1].title, steps[1].after) == ("Weigh the sticks", ("cut",))
    page.table.selectRow(row_of(page, steps[1].id))
    qtbot.mouseClick(page.up, LEFT)
    assert page.told.text().startswith("Weigh the sticks: first cut and clean")
    qtbot.mouseClick(page.down, LEFT)
    assert laid_out.document.build.steps[2].title == "Weigh the sticks"
    qtbot.mouseClick(page.cut, LEFT)
    assert "Weigh the sticks" not in {one.title for one in laid_out.document.build.steps}
    qtbot.mouseClick(page.add, LEFT)
    assert "needs a name" in page.told.text()


def test_everything_done_is_said(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    for _ in laid_out.document.build.steps:
        qtbot.mouseClick(page.now.button, LEFT)
    assert page.now.answer.text() == "Every step is done."
    assert not page.now.button.isVisible()


def test_nothing_drawn_offers_nothing(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    window.start(empty_build())
    page = page_of(window)
    assert not page.now.button.isVisible()
    assert not page.table.isVisible()


def test_an_end_is_pulled_in_with_its_figures_and_the_morning_after_is_noted(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    fuselage = box()
    halves = (6.0, 30.0, 30.0, 30.0, 26.0)
    formers = tuple(
        former.but(half_width=half) for former, half in zip(fuselage.formers, halves, strict=True)
    )
    window.start(Build(fuselage=fuselage.but(formers=formers, side_thickness=5.0)))
    page = page_of(window)
    qtbot.mouseClick(page.now.button, LEFT)
    assert not page.pulling.isVisible()
    page.table.selectRow(row_of(page, "tail"))
    assert page.pulling.isVisible()
    assert not page.pulling.field.isVisible()  # the tail goes round dry
    page.table.selectRow(row_of(page, "soak nose"))
    assert "Each side comes in 24.0 mm at F1" in page.pulling.lines.text()
    assert "scald" in page.about.text()
    page.pulling.field.line.setFocus()
    qtbot.keyClicks(page.pulling.field.line, "30")
    qtbot.keyClick(page.pulling.field.line, Qt.Key.Key_Return)
    said = window.document.build.log[-1]
    assert said.by == "builder"
    assert "30.0 mm between the sides" in said.text
    assert "soak it once more" in said.text
    assert page.pulling.field.value is None
    window.document.stack.undo()
    assert window.document.build.log == ()


def test_where_the_order_stands_is_said_on_every_bench(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(withy().but(steps=()))
    window.show_stage("frame")
    frame = frame_of(window)
    frame.turn_to("sticks")
    assert not frame.order_line.isVisible()
    frame.turn_to("order")
    page_of(window).now.button.click()
    assert not frame.order_line.isVisible()  # the whole order is seen
    frame.turn_to("sticks")
    assert frame.order_line.isVisible()
    now, following, waiting = frame.order_line.words
    assert now.startswith("Now: Cut and clean")
    assert following.startswith("Next: ")
    assert ", first " in waiting
    qtbot.mouseClick(frame.order_line, Qt.MouseButton.LeftButton)
    assert frame.now == "order"


def test_a_step_is_the_builders_to_change(qtbot: QtBot, laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.row_picked.emit(row_of(page, "doublers"))
    page.own.fold(away=False)
    page.own.glue.setCurrentIndex(page.own.glue.findData("contact"))
    page.own.glue.activated.emit(page.own.glue.currentIndex())
    page.own.note.setText("ask for the wide brush")
    page.own.note.setModified(True)
    page.own.note.editingFinished.emit()
    step = next(one for one in laid_out.document.build.steps if one.id == "doublers")
    assert (step.glue, step.note) == ("contact", "ask for the wide brush")
    assert "Note: ask for the wide brush" in page.about.text()
    assert "contact" in page.about.text()
    page.own.needs.setText("clamps, clamps,  flat iron")
    page.own.needs.setModified(True)
    page.own.needs.editingFinished.emit()
    step = next(one for one in laid_out.document.build.steps if one.id == "doublers")
    assert step.needs == ("clamps", "clamps", "flat iron")
    # another step shows its own
    page.table.row_picked.emit(row_of(page, "cut"))
    assert page.own.note.text() == ""
    assert page.own.glue.currentData() == ""
    page.own.minutes.line.setText("95")
    page.own.minutes.take()
    cut = next(one for one in laid_out.document.build.steps if one.id == "cut")
    assert cut.hands_minutes == 95.0
    # laid anew it stays
    qtbot.mouseClick(page.again, LEFT)
    again = {one.id: one for one in laid_out.document.build.steps}
    assert again["cut"].hands_minutes == 95.0
    assert again["doublers"].glue == "contact"
    laid_out.document.stack.undo()
    laid_out.document.stack.undo()
    cut = next(one for one in laid_out.document.build.steps if one.id == "cut")
    assert cut.hands_minutes != 95.0


def test_a_school_of_gluing_is_one_press(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    row = next(i for i in range(page.school.count()) if "Contact" in page.school.itemText(i))
    page.school.setCurrentIndex(row)
    page.school.activated.emit(row)
    step = next(one for one in laid_out.document.build.steps if one.id == "doublers")
    assert step.glue == "contact"
    assert page.school_told.isVisible()
    assert page.school_told.text().startswith(
        "1 step is glued with contact now: 0.012 g for each cm² of joint, 0.020 before."
    )
    assert page.school.currentIndex() == 0
    laid_out.document.stack.undo()
    step = next(one for one in laid_out.document.build.steps if one.id == "doublers")
    assert step.glue == "slow epoxy"


def typed(line: QLineEdit, text: str) -> None:
    line.setText(text)
    line.setModified(True)
    line.editingFinished.emit()


def test_a_step_waits_for_a_part_and_brings_its_tools_cautions(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.row_picked.emit(row_of(page, "board"))
    page.own.fold(away=False)
    typed(page.own.waits_for, "the new board")
    typed(page.own.until, "2199-12-12")
    step = next(one for one in laid_out.document.build.steps if one.id == "board")
    assert (step.wait_for, step.wait_until) == ("the new board", "2199-12-12")
    assert "Waits for the new board, until 12 December." in page.about.text()
    assert "board" not in {one.id for one in page.standing.now}
    before = laid_out.document.build
    typed(page.own.until, "soon")
    assert laid_out.document.build == before
    assert "must be a date" in page.told.text()
    typed(page.own.tools, "power saw, fence")
    assert "guard on" in page.about.text()
    assert "Lay out: power saw, fence." in page.about.text()


def test_a_repair_is_one_press(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    page.table.row_picked.emit(row_of(page, "cut"))
    page.name.setText("longeron by F4")
    row = page.repair.findData("cracked")
    page.repair.setCurrentIndex(row)
    page.repair.activated.emit(row)
    step = next(one for one in laid_out.document.build.steps if one.stage == "own")
    assert title_of(step) == "Mend the cracked stick longeron by F4"
    assert step.after == ("cut",)
    assert page.name.text() == ""
    assert page.repair.currentIndex() == 0
    laid_out.document.stack.undo()
    assert not any(one.stage == "own" for one in laid_out.document.build.steps)


def test_the_order_follows_a_member_that_is_added(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    laid_out.document.apply("add a guide", add_member.of("guide", "F2", "F6"))
    assert row_of(page, "guides") > 0
    laid_out.document.stack.undo()
    assert "guides" not in {one.id for one in laid_out.document.build.steps}


def test_the_order_as_a_drawing_picks_what_the_list_picks(
    qtbot: QtBot, laid_out: MainWindow
) -> None:
    page = page_of(laid_out)
    qtbot.mouseClick(page.ways["drawn"], LEFT)
    drawing = page.hanging
    assert drawing.isVisible()
    assert not page.table.isVisible()
    assert set(drawing.boxes) == {one.id for one in page.steps}
    lowest = max(page.steps, key=lambda one: drawing.boxes[one.id].bottom())
    qtbot.mouseClick(drawing, LEFT, pos=drawing.boxes[lowest.id].center().toPoint())
    assert page.picked == lowest
    assert drawing.visibleRegion().contains(drawing.boxes[lowest.id].center().toPoint())
    assert drawing.accessibleDescription() == page.title.text()
    qtbot.keyClick(drawing, Qt.Key.Key_Up)
    above = page.picked
    assert above is not None
    assert drawing.boxes[above.id].bottom() < drawing.boxes[lowest.id].top()
    qtbot.mouseClick(page.ways["list"], LEFT)
    assert page.table.isVisible()
    row = page.model.row(page.table.currentIndex().row())
    assert row is not None
    assert row.key == above.id


def test_slips_hang_below_what_they_wait_for_and_none_on_another(
    qtbot: QtBot, laid_out: MainWindow
) -> None:
    page = page_of(laid_out)
    qtbot.mouseClick(page.ways["drawn"], LEFT)
    boxes = page.hanging.boxes
    for step in page.steps:
        for before in step.after:
            if before in boxes:
                assert boxes[before].bottom() < boxes[step.id].top()
    places = list(boxes.values())
    for i, one in enumerate(places):
        assert page.hanging.rect().contains(one.toAlignedRect())
        assert not any(one.intersects(other) for other in places[i + 1 :])


def test_what_is_to_be_done_now_is_said_once(laid_out: MainWindow) -> None:
    page = page_of(laid_out)
    assert page.title.text() == page.now.answer.text()
    assert not page.about.isVisible()
    page.table.selectRow(3)
    assert page.about.isVisible()


def test_a_row_that_has_no_room_breaks(qtbot: QtBot) -> None:
    steps = (*(Step(id=f"s{i}") for i in range(4)), Step(id="last", after=("s0", "s1", "s2", "s3")))
    drawing = HangingView(make_theme("light"))
    qtbot.addWidget(drawing)
    drawing.show_hanging(
        hanging_of(steps), [Slip(one.id, f"Do {one.id}", "waits") for one in steps], "last"
    )
    drawing.show()
    for wide, rows in ((900, 1), (340, 2), (drawing.minimumSizeHint().width(), 4)):
        drawing.resize(wide, 600)
        boxes = drawing.boxes
        assert len({boxes[f"s{i}"].top() for i in range(4)}) == rows
        assert max(box.right() for box in boxes.values()) <= drawing.width()
        assert boxes["last"].top() > max(boxes[f"s{i}"].bottom() for i in range(4))


def test_enter_ticks_in_the_drawing_as_it_does_in_the_list(
    qtbot: QtBot, laid_out: MainWindow
) -> None:
    page = page_of(laid_out)
    qtbot.mouseClick(page.ways["drawn"], LEFT)
    now = page.standing.now[0]
    qtbot.keyClick(page.hanging, Qt.Key.Key_Return)
    assert state_of(laid_out, now.id) == "done"
    later = page.standing.blocked[-1][0]
    page.hanging.picked.emit(later.id)
    page.hanging.started.emit(later.id)
    assert state_of(laid_out, later.id) == "open"
    assert page.told.isVisible()  # it is asked about, as in the list
