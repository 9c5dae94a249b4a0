"""What a hand does without meaning it: a trembling click, Enter on what was only looked at."""

import pytest
from PyQt6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.project.model import Build
from hardkeel.survey.model import Survey
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.widgets.fields import QuantityEdit
from tests.stages_of import layout_of, true_of

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def laid(window: MainWindow) -> MainWindow:
    window.show_stage("layout")
    layout_of(window).turn_to("airframe")
    return window


@pytest.mark.parametrize("grip", ["top", "bottom", "station", "half_width"])
@pytest.mark.parametrize("jitter", [QPoint(0, 0), QPoint(1, 0), QPoint(0, -1), QPoint(2, 2)])
def test_picking_a_former_never_moves_it(
    qtbot: QtBot, laid: MainWindow, grip: str, jitter: QPoint
) -> None:
    board = layout_of(laid).airframe.board
    before = laid.document.build
    at = board.handle_position("F5", grip)
    assert at is not None
    beside = at.toPoint() + QPoint(3, 3)  # a hand hits a point to a few pixels
    qtbot.mousePress(board, LEFT, pos=beside)
    qtbot.mouseMove(board, beside + jitter)
    qtbot.mouseRelease(board, LEFT, pos=beside + jitter)
    assert layout_of(laid).airframe.stop == "F5"
    assert laid.document.build is before
    assert not laid.document.stack.canUndo()


def test_a_point_taken_a_little_beside_moves_by_what_the_hand_moves(
    qtbot: QtBot, laid: MainWindow
) -> None:
    board = layout_of(laid).airframe.board
    fuselage = laid.document.build.fuselage
    assert fuselage is not None
    was = dict(fuselage.stations)["F5"].station
    at, other = board.handle_position("F5", "station"), board.handle_position("F6", "station")
    assert at is not None
    assert other is not None
    scale = (dict(fuselage.stations)["F6"].station - was) / (other.x() - at.x())
    beside = at.toPoint() + QPoint(3, 2)
    qtbot.mousePress(board, LEFT, pos=beside)
    for step in (6, 14, 20):
        qtbot.mouseMove(board, beside + QPoint(step, 0))
    qtbot.mouseRelease(board, LEFT, pos=beside + QPoint(20, 0))
    now = laid.document.build.fuselage
    assert now is not None
    # to a pixel, which is what the pointer's own place is rounded to
    assert dict(now.stations)["F5"].station == pytest.approx(was + 20 * scale, abs=scale)


def test_enter_on_an_untouched_figure_changes_nothing(qtbot: QtBot, laid: MainWindow) -> None:
    exact = 40.1587
    laid.document.apply("set", drawing_edits.set_station.of("F4", half_width=exact, top=33.3333))
    page = layout_of(laid).airframe
    page.choose_station("F4")
    before = laid.document.build
    for unit in ("mm", "in"):
        for field in page.former.fields.values():
            if field.line.text():
                qtbot.keyClick(field.line, Qt.Key.Key_Return)
                assert laid.document.build == before, (unit, field.line.accessibleName())
        laid.header.unit_button.click()


def test_a_field_gives_back_the_whole_figure_until_it_is_typed_in(qtbot: QtBot) -> None:
    field = QuantityEdit()
    qtbot.addWidget(field)
    field.set_value(1.5875)
    assert field.line.text() == "1.6"
    with qtbot.waitSignal(field.value_changed) as seen:
        qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert seen.args == [1.5875]
    field.line.selectAll()
    qtbot.keyClicks(field.line, "1.7")
    with qtbot.waitSignal(field.value_changed) as seen:
        qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert seen.args == [1.7]
    field.set_value(25.4)
    field.set_kind(angular=False, unit="in")  # the digits are not what was set any more
    assert field.value == pytest.approx(25.4 * 25.4)


def test_enter_on_a_row_worth_taking_just_after_another_build_came(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    page._look_further()  # noqa: SLF001  what its timer does
    rows = page.readings.table.model()
    assert rows is not None
    many = rows.rowCount()
    survey = build_from(Figures(name="Other")).surveyed
    marks = tuple(mark for mark in survey.marks if mark.body in ("fuselage", "fin"))
    bodies = tuple(body for body in survey.bodies if body.id in ("fuselage", "fin"))
    window.start(Build(name="A fin", survey=Survey(bodies=bodies, marks=marks)))
    for row in range(many):
        page.readings.row_started.emit(row)
    window.start(demo_build())
    for row in range(many + 9):
        page.readings.row_started.emit(row)
    assert page.entry.target is not None
