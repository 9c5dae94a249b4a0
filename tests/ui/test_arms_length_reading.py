"""Arm's length on True: the next reading, read from two metres and typed without the mouse."""

import os

import numpy as np
import pytest
from PyQt6.QtCore import QCoreApplication, QEvent, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.edits.truing import set_gluing, set_mixed, set_phase
from hardkeel.gauges.link import GaugeReport, LinkState
from hardkeel.gauges.protocol import UNITS, GaugeKind, Shown
from hardkeel.project.model import Build
from hardkeel.survey.expecting import expected_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.large import LargeReading
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.widgets.arms_length import ArmsLength
from tests.conftest import StepClock
from tests.draws import draws
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


def shows(
    page: TruePage, *values: float, zeroed: bool = True, kind: GaugeKind = "tape", times: int = 3
) -> None:
    """A gauge is held where it shows this, at rest unless it is said how often it was asked."""
    for value in values:
        for _ in range(times):
            shown = Shown(value, UNITS[kind])
            report = GaugeReport("live", shown, zeroed=zeroed)
            page.entry.hear_gauge(kind, report, answers=True)


def pressed(sheet: QWidget, key: Qt.Key, *, held: bool = False) -> None:
    """A key goes down, by a finger or by a key that is held."""
    text = " " if key == Qt.Key.Key_Space else ""
    none = Qt.KeyboardModifier.NoModifier
    QCoreApplication.sendEvent(sheet, QKeyEvent(QEvent.Type.KeyPress, key, none, text, held))


def new_values(window: MainWindow, before: Build) -> list[object]:
    """What was read since."""
    held = set(before.surveyed.readings)
    return [one.value for one in window.document.build.surveyed.readings if one not in held]


def taken_since(window: MainWindow, before: Build) -> int:
    """How many readings there are more."""
    return len(window.document.build.surveyed.readings) - len(before.surveyed.readings)


def test_a_figure_is_typed_taken_with_the_space_bar_and_taken_back(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    target = page.entry.target
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
    target = page.entry.target
    assert target is not None
    shows(page, target.value - 9.25)
    assert large.figure.text() == f"{target.value - 9.25:.1f} mm"
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert target.value - 9.25 in new_values(window, before)


def test_a_gauge_that_is_held_elsewhere_is_asked_about(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    shows(page, 400.0)
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
    document.apply("wet", set_phase.of("wet"))
    document.apply("glue", set_gluing.of("stab"))
    document.apply("mix", set_mixed.of(30.0, clock()))
    large_of(page).open_large()
    large = large_of(page).sheet
    assert "glue is past working" in large.what.text()
    assert large.left.text()


def test_a_held_space_bar_takes_one_reading(
    window: MainWindow, page: TruePage, large: ArmsLength
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    shows(page, page.entry.target.value - 9.3)
    pressed(large, Qt.Key.Key_Space)
    for _ in range(7):
        assert page.entry.target is not None
        shows(page, page.entry.target.value)
        pressed(large, Qt.Key.Key_Space, held=True)
    assert taken_since(window, before) == 1


def test_a_held_return_key_takes_one_reading(
    window: MainWindow, page: TruePage, qtbot: QtBot
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    shows(page, page.entry.target.value - 9.3)
    pressed(page.next.field.line, Qt.Key.Key_Return)
    for _ in range(7):
        assert page.entry.target is not None
        shows(page, page.entry.target.value)
        pressed(page.next.field.line, Qt.Key.Key_Return, held=True)
    assert taken_since(window, before) == 1


def test_a_gauge_that_moves_is_not_read(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    goal = page.entry.target.value - 9.3
    shows(page, goal - 60, goal - 20, goal, times=1)
    for _ in range(3):
        qtbot.keyClick(large, Qt.Key.Key_Space)
        assert window.document.build is before
    assert large.under.text() == "It still moves: hold it at rest."
    shows(page, goal)
    assert large.under.text() != "It still moves: hold it at rest."
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert goal in new_values(window, before)


def test_the_same_again_is_a_second_word(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    expected = window.document.judgement
    page.next.tool_picked.emit("height")
    page.next.place_typed.emit("nose foot")
    assert page.entry.target is not None
    far = expected_of(expected.net, expected.solution, page.entry.target).value
    before = window.document.build
    shows(page, far)
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert taken_since(window, before) == 1
    page.next.tool_picked.emit("height")
    page.next.place_typed.emit("nose foot")
    shows(page, far)
    after = window.document.build
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert window.document.build is after
    assert large.under.text().startswith("It has not moved since the last reading.")
    shows(page, far)  # it says the same, and the question stands
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert taken_since(window, before) == 2


def test_a_gauge_that_is_not_zeroed_is_off_and_wants_a_second_word(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    value = page.entry.target.value - 9.3
    shows(page, value, zeroed=False)
    assert large.figure.text() == f"off {value:.1f} mm"
    assert page.next.field.flag == "off"
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert window.document.build is before
    assert large.under.text().startswith("This gauge is not zeroed")
    shows(page, value, zeroed=True)
    assert large.figure.text() == f"{value:.1f} mm"
    assert page.next.field.flag == ""
    shows(page, value, zeroed=False)  # the word that was given is not given for ever
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert window.document.build is before
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert value in new_values(window, before)


def test_another_build_knows_nothing_of_what_was_shown_before(
    window: MainWindow, page: TruePage
) -> None:
    assert page.entry.target is not None
    shown = page.entry.target.value - 9.3
    shows(page, shown)
    page.next.field.take()
    window.document.stack.setClean()
    window.start(build_from(Figures(name="Another")))
    page.next.tool_picked.emit("height")
    page.next.place_typed.emit("nose pin")
    shows(page, shown)
    page.next.field.take()
    assert "has not moved" not in page.next.complaint


@pytest.mark.parametrize("state", ["lost", "silent", "missed", "odd", "unit", "other"])
def test_what_a_gauge_showed_goes_with_it(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot, state: LinkState
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    shows(page, page.entry.target.value - 9.3)
    page.entry.hear_gauge("tape", GaugeReport(state), answers=True)
    assert page.next.field.value is None
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert window.document.build is before
    qtbot.keyClicks(large, "95")  # what is typed stays, whatever becomes of a gauge
    page.entry.hear_gauge("tape", GaugeReport(state), answers=True)
    assert page.next.field.value == 95.0


def test_backspace_undoes_while_a_gauge_writes(
    window: MainWindow, page: TruePage, large: ArmsLength, qtbot: QtBot
) -> None:
    before = window.document.build
    assert page.entry.target is not None
    shows(page, page.entry.target.value - 9.3)
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert page.entry.target is not None
    shows(page, 400.0)
    qtbot.keyClick(large, Qt.Key.Key_Backspace)
    assert window.document.build == before


def test_fingers_on_arms_length_take_nothing_that_was_not_held_still_and_pressed_once(
    window: MainWindow, page: TruePage, large: ArmsLength
) -> None:
    """Answers of a gauge carried about, with keys pressed and held at random between."""
    rng = np.random.default_rng(19)
    document, value, going, still, presses = window.document, 900.0, 0, 0, 0
    taken = 0
    for _ in range(
        int(os.environ.get("HARDKEEL_FINGERS", draws("40", "300")))
    ):  # 900: five minutes
        if going == 0:
            going = int(rng.integers(1, 9)) * int(rng.choice([-1, 1]))
        step = float(rng.normal(0, 0.05)) if going > 0 else float(rng.uniform(5, 60))
        still = still + 1 if going > 0 else 1
        going -= 1 if going > 0 else -1
        value = 400.0 + (value + step - 400.0) % 700.0
        shows(page, value, times=1)
        for _ in range(int(rng.integers(0, 3))):
            count, held = len(document.build.surveyed.readings), bool(rng.random() < 0.4)
            pressed(large, rng.choice([Qt.Key.Key_Space, Qt.Key.Key_Return]), held=held)
            new = len(document.build.surveyed.readings) - count
            assert new <= (still >= 3 and not held)
            taken, presses = taken + new, presses + 1
    assert presses > 25
    assert taken > 1
