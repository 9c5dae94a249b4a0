"""Arm's length on True: the next reading, read from two metres and typed without the mouse."""

import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.build.model import Build
from hardkeel.edits.truing import set_gluing, set_mixed, set_phase
from hardkeel.ui.kit.arms_length import ArmsLength
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.large import LargeReading
from hardkeel.ui.stages.true.page import TruePage
from tests.conftest import StepClock
from tests.stages_of import true_of


@pytest.fixture
def page(window: MainWindow) -> TruePage:
    """True of the demo."""
    window.show_stage("true")
    return true_of(window)


def large_of(page: TruePage) -> LargeReading:
    found = page.findChild(LargeReading)
    assert found is not None
    return found


@pytest.fixture
def large(page: TruePage, qtbot: QtBot) -> ArmsLength:
    """Its reading, large."""
    page.next.focus_entry()
    qtbot.waitUntil(page.next.field.line.hasFocus)
    qtbot.keyClick(page.next.field.line, Qt.Key.Key_F11)
    assert large_of(page).sheet.isVisible()
    return large_of(page).sheet


def new_values(window: MainWindow, before: Build) -> list[object]:
    """What was read since."""
    held = set(before.surveyed.readings)
    return [one.value for one in window.document.build.surveyed.readings if one not in held]


def test_a_figure_is_typed_taken_with_the_space_bar_and_taken_back(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    target = page.hands.target
    assert target is not None
    before, title = window.document.build, large.title.text()
    text = f"{target.value - 9.3:.1f}"  # it is in doubt by that
    qtbot.keyClicks(large, text)
    assert large.figure.text() == f"{text} mm"
    qtbot.keyClick(large, Qt.Key.Key_Backspace)
    assert large.figure.text() == f"{text[:-1]} mm"
    qtbot.keyClicks(large, text[-1])
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert float(text) in new_values(window, before)
    assert large.title.text() != title
    assert large.figure.text().startswith("…")
    qtbot.keyClick(large, Qt.Key.Key_Backspace)
    assert window.document.build == before
    assert large.title.text() == title
    qtbot.keyClick(large, Qt.Key.Key_Escape)
    assert not large.isVisible()


def test_what_a_gauge_writes_is_taken_with_the_space_bar(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    target = page.hands.target
    assert target is not None
    page.hands.show_gauge_value(target.value - 9.25, zeroed=True)
    assert large.figure.text() == f"{target.value - 9.25:.1f} mm"
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert target.value - 9.25 in new_values(window, before)


def test_a_gauge_that_is_held_elsewhere_is_asked_about(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    page.hands.show_gauge_value(400.0, zeroed=True)
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert window.document.build is before
    assert "and this says 400.0 mm" in large.under.text()
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert 400.0 in new_values(window, before)


def test_a_figure_that_means_nothing_is_told_and_nothing_is_lost(
    window: MainWindow, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert large.under.text().startswith("Type what you read")
    qtbot.keyClicks(large, "1..2")
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert "1..2" in large.under.text()
    assert window.document.build is before


def test_the_pot_life_runs_beneath_the_reading(
    window: MainWindow, page: TruePage, clock: StepClock, qtbot: QtBot
) -> None:
    document = window.document
    document.apply("wet", lambda b: set_phase(b, "wet"))
    document.apply("glue", lambda b: set_gluing(b, "stab"))
    document.apply("mix", lambda b: set_mixed(b, 30.0, clock()))
    large_of(page).open_large()
    large = large_of(page).sheet
    assert "glue is past working" in large.what.text()
    assert large.left.text()
