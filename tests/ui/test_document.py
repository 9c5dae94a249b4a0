"""One document: what is refreshed when, and which edits are one step to undo."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import truing as edits
from hardkeel.edits.fuselage import set_stop
from hardkeel.ui.document.freshness import Freshness
from hardkeel.ui.shell.window import MainWindow
from tests.stages_of import gauges_of, layout_of, log_of, true_of

CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def board(window: MainWindow) -> MainWindow:
    window.show_stage("layout")
    layout_of(window).airframe.choose_stop("F4")
    return window


def answers_of(window: MainWindow) -> str:
    labels = true_of(window).seat.findChildren(QLabel)
    return next(label.text() for label in labels if label.objectName() == "answer")


def top(window: MainWindow) -> float:
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    return fuselage.former("F4").top  # type: ignore[union-attr]


def test_nudges_of_one_thing_are_one_step_to_undo(qtbot: QtBot, board: MainWindow) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    before, steps = board.document.build, stack.count()
    high = top(board)
    for _ in range(5):
        qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert top(board) == pytest.approx(high + 2.5)
    assert stack.count() == steps + 1
    qtbot.keyClick(page.board, Qt.Key.Key_Right, CTRL)
    assert stack.count() == steps + 2, "another figure is another step"
    stack.undo()
    assert top(board) == pytest.approx(high + 2.5)
    stack.undo()
    assert board.document.build == before
    stack.redo()
    assert top(board) == pytest.approx(high + 2.5)


def test_a_nudge_after_another_edit_or_a_save_is_a_step_of_its_own(
    qtbot: QtBot, board: MainWindow
) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    board.document.apply("widen", lambda build: set_stop(build, "F4", half_width=30.0))
    count = stack.count()
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert stack.count() == count + 1
    stack.setClean()
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert stack.count() == count + 2, "what was saved can be gone back to"
    stack.undo()
    assert stack.isClean()


def test_a_nudge_there_and_back_leaves_no_step(qtbot: QtBot, board: MainWindow) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    before, count = board.document.build, stack.count()
    board.document.apply("lift", lambda b: set_stop(b, "F4", top=60.0), nudge="top F4")
    assert stack.count() == count + 1
    board.document.apply("lower", lambda _b: before, nudge="top F4")
    assert stack.count() == count
    assert board.document.build == before
    assert page.stop == "F4"


def test_only_the_page_that_is_seen_is_refreshed_the_others_when_turned_to(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    layout_of(window).page("parts")
    told: list[str] = []
    catch_up = Freshness.catch_up

    def count(self: Freshness) -> None:
        told.append(type(self.parent()).__name__)
        catch_up(self)

    monkeypatch.setattr(Freshness, "catch_up", count)
    window.document.apply(
        "note", lambda b: edits.add_note(b, "glued the fin", window.document.clock())
    )
    assert told == ["TruePage"]
    window.show_stage("log")
    assert told == ["TruePage", "LogPage"]
    assert log_of(window).model.index(0, 2).data() == "glued the fin"
    window.show_stage("true")
    window.show_stage("log")
    assert told == ["TruePage", "LogPage"], "nothing changed meanwhile"
    window.show_stage("layout")
    layout_of(window).turn_to("parts")
    assert told[2:] in (["PartsPage"], ["AirframePage", "PartsPage"])


def test_a_page_behind_shows_the_new_build_as_soon_as_it_is_turned_to(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    page: QWidget = true_of(window)
    assert not page.isVisible()
    window.start(demo_build())
    assert page.isVisible()
    assert true_of(window).hands.target is not None
    assert answers_of(window).startswith("Sand ")


def test_gauges_let_go_when_a_held_file_is_opened_as_a_copy(
    make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    first, second = make_window(), make_window()
    first.start(demo_build())
    assert first.save_to(tmp_path / "held.keel")
    second.start(demo_build())
    second.document.stack.setClean()
    gauges = gauges_of(second)
    gauges.desk.plug_stand_in("level", second.document.build)
    assert gauges.desk.is_plugged("level")
    second.open_path(tmp_path / "held.keel")
    assert gauges.desk.is_plugged("level"), "nothing was opened yet"
    next(b for b in second.notice.buttons if b.text() == "Open a copy").click()
    assert second.document.build.name == first.document.build.name
    assert not gauges.desk.is_plugged("level")
