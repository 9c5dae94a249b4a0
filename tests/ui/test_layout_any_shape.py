"""Lay out of any shape: panels, a motor, and what a changed fuselage leaves behind."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QCheckBox, QPushButton
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.edits.fuselage import set_station
from hardkeel.fuselage.model import Former
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.airframe_page import AirframePage
from hardkeel.ui.widgets.card import Card

LEFT = Qt.MouseButton.LeftButton


def laid(make_window: Callable[[], MainWindow], build: Build) -> tuple[MainWindow, AirframePage]:
    window = make_window()
    window.start(build)
    window.show_stage("layout")
    window.pages["layout"].turn_to("airframe")
    page = window.findChild(AirframePage)
    assert page is not None
    return window, page


def press(qtbot: QtBot, card: object, words: str) -> None:
    """The button of a card that begins so, which must be there."""
    if isinstance(card, Card):
        card.lay_open()  # it may lie folded
    buttons = card.findChildren(QPushButton)  # type: ignore[attr-defined]
    (button,) = [one for one in buttons if one.isVisible() and one.text().startswith(words)]
    qtbot.mouseClick(button, LEFT)


def typed(qtbot: QtBot, card: object, key: str, text: str) -> None:
    field = card.fields[key]  # type: ignore[attr-defined]
    field.line.selectAll()
    qtbot.keyClicks(field.line, text)
    qtbot.keyClick(field.line, Qt.Key.Key_Return)


def raise_all(window: MainWindow, by: float) -> None:
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    for name, stop in fuselage.stations:
        window.document.apply("raise", set_station.of(name, top=stop.top + by))


def test_a_wing_left_inside_is_named_and_raised_with_a_press(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(Figures()))
    was = window.document.build.wings[0].z
    assert page.behind.isHidden()
    raise_all(window, 6.0)
    assert page.behind.isVisible()
    press(qtbot, page.behind, "Raise it by 6.0 mm")
    assert window.document.build.wings[0].z == pytest.approx(was + 6.0)
    assert window.document.stack.undoText() == "raise the wing with the fuselage"
    # stabilizer and fin rest on the top too, and are asked about one after another
    press(qtbot, page.behind, "Raise it by 6.0 mm")
    while page.behind.isVisible():
        press(qtbot, page.behind, "It stays")
    window.start(build_from(Figures(name="Another")))
    assert page.behind.isHidden()


def test_what_is_undone_asks_nothing(make_window: Callable[[], MainWindow], qtbot: QtBot) -> None:
    window, page = laid(make_window, build_from(Figures()))
    raise_all(window, 6.0)
    while window.document.stack.canUndo():
        window.document.stack.undo()
    assert page.behind.isHidden()


def test_panels_are_put_in_and_come_off_and_the_survey_follows(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(Figures(wing_span=1600.0, tail_arm=700.0)))
    page.choose_body("wing")
    press(qtbot, page.panels, "A break")
    assert [one.y for one in window.document.build.wings[0].breaks] == [400.0]
    typed(qtbot, page.panels, "0|y", "500")
    typed(qtbot, page.panels, "0|dihedral", "8")
    typed(qtbot, page.panels, "0|sweep", "25")
    (one,) = window.document.build.wings[0].breaks
    assert (one.y, one.dihedral, one.sweep) == (500.0, 8.0, 25.0)
    off = page.panels.findChild(QCheckBox)
    assert off is not None
    off.click()
    survey = window.document.build.surveyed
    assert survey.body("wing_outer_port") is not None
    # the panel itself may be picked: its wing is in hand
    page.choose_body("wing_outer_port")
    assert page.panels.isVisible()
    assert page.surface.fields["span"].value == 1600.0
    off.click()
    assert window.document.build.surveyed.body("wing_outer_port") is None
    press(qtbot, page.panels, "One break less")
    assert window.document.build.wings[0].breaks == ()


def test_a_half_of_a_v_has_the_figures_of_the_whole(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(proposed("vee")))
    page.choose_body("vee_port")
    assert page.surface.isVisible()
    typed(qtbot, page.surface, "span", "600")
    vee = next(one for one in window.document.build.tail if one.duty == "vee")
    assert vee.span == 600.0


def test_a_motor_is_put_on_its_bolts_told_and_taken_off(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(Figures()))
    press(qtbot, page.engine, "Put")
    typed(qtbot, page.engine, "down", "2")
    typed(qtbot, page.engine, "side", "1.5")
    thrust = window.document.build.surveyed.body("thrust")
    assert thrust is not None
    assert (thrust.incidence, thrust.yaw) == (-2.0, -1.5)
    assert "to port" in page.engine.said.text()
    press(qtbot, page.engine, "Take")
    assert window.document.build.surveyed.body("thrust") is None


def test_a_part_of_ones_own_is_written_down_and_taken_away(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(Figures()))
    qtbot.keyClicks(page.marks.part, "step, 300, 0, -60, 200")
    qtbot.keyClick(page.marks.part, Qt.Key.Key_Return)
    assert "write it like step" in page.told.text()
    page.marks.part.clear()
    qtbot.keyClicks(page.marks.part, "step, 300, 0, -60, 200, 90, 2")
    qtbot.keyClick(page.marks.part, Qt.Key.Key_Return)
    step = window.document.build.surveyed.body("step")
    assert step is not None
    assert step.incidence == 2.0
    assert page.marks.own_marks.currentText() == "step"
    qtbot.mouseClick(page.marks.unmark, LEFT)
    assert window.document.build.surveyed.body("step") is None


def test_a_former_is_made_round_and_its_fullness_dragged_and_typed(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window, page = laid(make_window, build_from(Figures()))
    page.choose_station("F3")

    def former() -> Former:
        fuselage = window.document.build.fuselage
        assert fuselage is not None
        found = fuselage.former("F3")
        assert found is not None
        return found

    card = page.former
    card.shape.setCurrentIndex(card.shape.findData("round"))
    card.shape.activated.emit(card.shape.currentIndex())
    assert former().section is not None
    assert "corner" not in card.fields
    typed(qtbot, card, "full_top", "3")
    typed(qtbot, card, "widest", "12")
    shape = former().section
    assert shape is not None
    assert (shape.top, shape.bottom, shape.widest) == (3.0, 2.0, 12.0)
    at = page.board.handle_position("F3", "full-bottom")
    assert at is not None
    start = at.toPoint()
    qtbot.mousePress(page.board, LEFT, pos=start)
    qtbot.mouseMove(page.board, start + QPoint(-9, 14))
    qtbot.mouseRelease(page.board, LEFT, pos=start + QPoint(-9, 14))
    fuller = former().section
    assert fuller is not None
    assert fuller.bottom != 2.0
    assert fuller.top == 3.0
    assert window.document.stack.undoText() == "drag fullness of F3"
    qtbot.mouseClick(card.all_so, LEFT)
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    assert {one.section.top for one in fuselage.formers if one.section is not None} == {3.0}
    assert all(one.section is not None for one in fuselage.formers)
    card.shape.setCurrentIndex(card.shape.findData("box"))
    card.shape.activated.emit(card.shape.currentIndex())
    assert former().section is None
    assert "corner" in card.fields
