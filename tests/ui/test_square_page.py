"""Square, driven as a builder does: take what is asked, take another, mend a slip, read it wet, move the formers."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import sallow, withy
from hardkeel.edits.fuselage import delete_former, rename_former
from hardkeel.fuselage.model import Squaring
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.square_page import SquarePage
from hardkeel.ui.widgets.reading_rows import ReadingColumn
from hardkeel.ui.widgets.wood_board import WoodBoard
from tests.edited import by_hand
from tests.stages_of import frame_of

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def boarded(make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    window.start(sallow())
    window.show_stage("frame")
    window.activateWindow()
    return window


def page_of(window: MainWindow) -> SquarePage:
    frame_of(window).turn_to("square")
    page = frame_of(window).page("square")
    assert isinstance(page, SquarePage)
    return page


def squaring(window: MainWindow) -> Squaring:
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    return fuselage.squaring or Squaring()


def take(qtbot: QtBot, page: SquarePage, text: str) -> None:
    page.take.field.setFocus()
    qtbot.keyClicks(page.take.field.line, text)
    qtbot.keyClick(page.take.field.line, Qt.Key.Key_Return)


def test_the_demos_frame_is_named_and_its_slip_is_asked_for_again(boarded: MainWindow) -> None:
    page = page_of(boarded)
    assert page.answer.answer.text() == "Twisted."
    assert "the tail has its starboard side up" in page.answer.lines.text()
    assert page.take.eyebrow.text() == "Take it again"
    assert page.take.title.text() == "Height of F3 top starboard"
    assert page.take.why.text() == "It does not fit the rest, by +5.1 mm: take it again."
    assert page.moves.answer.text().startswith("Twist the whole box back before the glue sets: F9")
    assert page.moves.lines.text().startswith("Hold it so: F1 flat on the board")


def test_a_reading_taken_again_sets_the_slip_aside(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    before = squaring(boarded).figures
    right = next(r for r in before if r.id == "q21").value - 5.0
    take(qtbot, page, f"{right:.1f}")
    readings = squaring(boarded).readings
    assert len(readings) == len(before) + 1
    assert readings[-1].phase == "dry"
    assert readings[-1].taken is not None
    assert next(r for r in readings if r.id == "q21").ignored
    assert page.take.eyebrow.text() == "Take next"
    assert "It settles" in page.take.why.text()
    boarded.document.stack.undo()
    assert squaring(boarded).readings == before


def test_what_is_asked_for_next_sharpens_what_it_names(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    right = next(r for r in squaring(boarded).figures if r.id == "q21").value - 5.0
    take(qtbot, page, f"{right:.1f}")
    target, squared = page.target, page.squared
    assert target is not None
    assert squared is not None
    open_before = sum(check.verdict == "unsure" for check in squared.checks)
    for _ in range(12):
        asked = page.target
        assert asked is not None
        take(qtbot, page, f"{asked.value:.2f}")  # the estimate itself: nothing is pulled anywhere
    assert page.squared is not None
    assert sum(check.verdict == "unsure" for check in page.squared.checks) < open_before


def test_any_reading_of_the_list_can_be_taken_instead(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    taken = len(squaring(boarded).readings)
    row = next(
        i
        for i in range(taken, page.model.rowCount())
        if "F4" in str(page.model.index(i, ReadingColumn.WHAT).data())
    )
    words = str(page.model.index(row, ReadingColumn.WHAT).data())
    table = page.panel.table
    table.scrollTo(page.model.index(row, 0))
    spot = table.visualRect(page.model.index(row, ReadingColumn.WHAT)).center()
    qtbot.mouseClick(table.viewport(), Qt.MouseButton.LeftButton, pos=spot)  # one click is enough
    assert page.take.title.text().lower() == words.lower()
    qtbot.keyClick(page.take.field.line, Qt.Key.Key_Escape)
    assert page.take.eyebrow.text() == "Take it again"
    page.panel.row_started.emit(row)
    angular = page.target is not None and page.target.kind in ("angle", "tilt", "incidence")
    wild = "40" if angular else "700"
    take(qtbot, page, wild)
    assert len(squaring(boarded).readings) == taken
    assert "Enter once more takes it" in page.take.why.text()
    qtbot.keyClick(page.take.field.line, Qt.Key.Key_Return)
    assert len(squaring(boarded).readings) == taken + 1


def test_a_value_is_changed_used_or_not_and_struck_out(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    first = squaring(boarded).readings[1]
    index = page.model.index(1, ReadingColumn.VALUE)
    assert page.model.setData(index, "40.5")
    assert squaring(boarded).readings[1].value == 40.5
    assert not page.model.setData(index, "high")
    assert page.told.isVisible()
    page.panel.ignore_asked.emit(1)
    assert squaring(boarded).readings[1].ignored
    page.panel.delete_asked.emit(1)
    assert all(r.id != first.id for r in squaring(boarded).readings)
    page.panel.delete_asked.emit(9999)  # nothing there


def test_wet_readings_are_kept_apart_and_tell_what_moved(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    page.panel.phase_picked.emit("wet")
    assert boarded.document.build.phase == "wet"
    assert page.squared is not None
    assert page.squared.readings == ()
    assert page.answer.answer.text() == "Not known yet."
    row = next(
        i
        for i in range(page.model.rowCount())
        if page.model.index(i, ReadingColumn.WHAT).data() == "F5 bottom middle off the centre line"
    )
    page.panel.row_started.emit(row)
    take(qtbot, page, "4.0")
    assert squaring(boarded).readings[-1].phase == "wet"
    page.panel.phase_picked.emit("dry")
    assert page.squared is not None
    assert len(page.squared.readings) == len(squaring(boarded).readings) - 1


def test_vials_stand_by_former_the_worst_first_with_a_tolerance_of_their_own(
    qtbot: QtBot, boarded: MainWindow
) -> None:
    page = page_of(boarded)
    vial = page.checks.vial("F1_roll")
    assert vial is not None
    assert vial.value.verdict == "out"
    vial.picked.emit("F1_roll")
    page.checks.tolerance_changed.emit("F1_roll", 4.0)
    assert squaring(boarded).tolerances == {"F1_roll": 4.0}
    vial = page.checks.vial("F1_roll")
    assert vial is not None
    assert vial.value.verdict == "true"


def test_the_error_is_enlarged_by_the_slider_and_a_former_is_picked_in_the_drawing(
    qtbot: QtBot, boarded: MainWindow
) -> None:
    page = page_of(boarded)
    before = page.above.grab().toImage()
    page.scale.setValue(4)
    assert page.above.grab().toImage() != before
    place = page.above.place_of("F5")
    assert place is not None
    qtbot.mouseClick(page.above, LEFT, pos=place.toPoint())
    assert frame_of(boarded).chosen == "F5"
    assert page.side.chosen == "F5"


def test_a_frame_without_a_board_is_set_on_one(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(withy())
    window.show_stage("frame")
    page = page_of(window)
    assert not page.take.isVisible()
    qtbot.mouseClick(page.now.button, LEFT)
    assert page.squared is not None
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    assert fuselage.board is not None
    assert min(f.bottom for f in fuselage.formers) - fuselage.board.z == pytest.approx(25.0)


def test_readings_go_along_with_a_formers_name_and_hold_it(boarded: MainWindow) -> None:
    build = boarded.document.build
    named = rename_former(build, "F4", "bay")
    assert named.fuselage is not None
    assert named.fuselage.squaring is not None
    told = str(named.fuselage.squaring.model_dump())
    assert "bay.tp" in told
    assert "F4." not in told
    assert rename_former(named, "bay", "F4") == build
    with pytest.raises(BadInput, match="strike them out first"):
        delete_former(build, "F4")


def click_mark(qtbot: QtBot, board: WoodBoard, mark: str) -> None:
    at = board.spot_at(mark)
    assert at is not None
    qtbot.mouseClick(board, LEFT, pos=at.toPoint())


def test_marks_clicked_in_the_drawings_choose_what_is_taken(
    qtbot: QtBot, boarded: MainWindow
) -> None:
    page = page_of(boarded)
    click_mark(qtbot, page.above, "F2.tp")
    assert page.take.title.text() == "F2 top port aft of the board at F2"
    click_mark(qtbot, page.above, "F3.ts")
    assert page.take.title.text() == "F2 top port to F3 top starboard"
    click_mark(qtbot, page.side, "F4.bp")
    assert page.take.title.text() == "Height of F4 bottom port"
    click_mark(qtbot, page.side, "F4.tp")
    assert page.take.title.text() == "Lean of F4"
    page.choose("F3")
    click_mark(qtbot, page.behind, "F3.tc")
    assert page.take.title.text() == "F3 top middle off the centre line"
    before = len(squaring(boarded).readings)
    take(qtbot, page, "0.4")
    taken = squaring(boarded).readings
    assert len(taken) == before + 1
    assert (taken[-1].kind, taken[-1].value) == ("offset", 0.4)


def test_a_former_that_leant_while_the_glue_set_is_told(boarded: MainWindow) -> None:
    page = page_of(boarded)
    fuselage = boarded.document.build.fuselage
    assert fuselage is not None
    dry = squaring(boarded).figures
    wet = tuple(
        r.but(id=f"w{r.id}", phase="wet", value=r.value + (2.0 if r.kind == "incidence" and r.body == "F3" else 0.0))
        for r in dry
    )  # fmt: skip
    both = fuselage.but(squaring=Squaring(readings=(*dry, *wet)))
    boarded.document.apply("wet", by_hand(lambda b: b.but(fuselage=both, phase="wet")))
    assert "since dry fit: F3 aft at the top" in page.panel.moved.text()
