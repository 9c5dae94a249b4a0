"""Board: spacers upright and upside down, what is done first, the board's own height."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox
from pytestqt.qtbot import QtBot

from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.demo.fleet import sallow, withy
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.messages import board as say
from hardkeel.messages.steps import step_title
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.board_page import BoardPage
from tests.stages_of import frame_of

LEFT = Qt.MouseButton.LeftButton


def page_of(window: MainWindow) -> BoardPage:
    window.show_stage("frame")
    frame_of(window).turn_to("board")
    page = frame_of(window).page("board")
    assert isinstance(page, BoardPage)
    return page


def spacers(window: MainWindow) -> list[float]:
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    return [one.spacer or 0.0 for one in fitted_formers(fuselage)]


@pytest.fixture
def boarded(make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    build = sallow()
    assert build.fuselage is not None
    window.start(build.but(fuselage=build.fuselage.but(squaring=None)))
    return window


def test_spacers_are_listed_and_drawn(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    shown = [page.model.index(i, 2).data() for i in range(page.model.rowCount())]
    assert shown == [f"{tall:.1f} mm" for tall in spacers(boarded)]
    assert page.side.place_of("spacer F4") is not None
    assert page.above.place_of("F4") is not None
    lines = page.setting.lines.text()
    assert lines.startswith("1. Level the board both ways")
    assert "waxed" in lines
    assert "F8, F9 loose" in lines


def test_a_frame_is_turned_over_and_back(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    upright = spacers(boarded)
    before = boarded.document.build
    assert page.figures.title.text() == "Upright on the board."
    qtbot.mouseClick(page.turn, LEFT)
    fuselage = boarded.document.build.fuselage
    assert fuselage is not None
    assert fuselage.board is not None
    assert fuselage.board.inverted
    assert spacers(boarded) != upright
    assert min(spacers(boarded)) > 0
    boarded.document.stack.undo()
    assert boarded.document.build == before


def test_a_board_too_high_is_named(qtbot: QtBot, boarded: MainWindow) -> None:
    page = page_of(boarded)
    line = page.figures.fields["z"].line
    line.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, "20")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert min(spacers(boarded)) < 0
    assert "would reach through the board" in page.figures.said.text()


def test_a_stick_frame_gets_its_board_here_too(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(withy())
    page = page_of(window)
    qtbot.mouseClick(page.now.button, LEFT)
    assert page.side.isVisible()
    page.table.selectRow(2)
    assert frame_of(window).chosen == "F3"


def test_a_frame_that_was_read_stays_on_its_board(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(sallow())
    page = page_of(window)
    before = window.document.build
    qtbot.mouseClick(page.turn, LEFT)
    assert window.document.build == before
    assert "strike them out first" in page.told.text()


def test_spacers_are_tacked_and_broken_off_where_that_is_wanted(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(sallow())
    window.show_stage("frame")
    frame_of(window).turn_to("board")
    page = frame_of(window).page("board")
    box = next(one for one in page.findChildren(QCheckBox) if one.text() == say.TACKED)
    box.click()
    build = window.document.build
    assert build.fuselage is not None
    assert build.fuselage.board is not None
    assert build.fuselage.board.tacked
    assert say.TACK_THEM in say.setting_up(build.fuselage)
    (step,) = [one for one in frame_steps(build) if one.id.endswith("formers up")]
    assert "sacrificial" in step_title(step)
    assert "cyanoacrylate" in step.hazards
