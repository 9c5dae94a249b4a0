"""Every control can be named by who can't see it, and marks are walked without a mouse.

PyQt6 does not wrap ``QAccessible``; what it would say is made up here as Qt does it: the accessible name,
else the words on a button, else the label whose buddy it is.
"""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QApplication,
    QComboBox,
    QHeaderView,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QWidget,
)
from pytestqt.qtbot import QtBot

from hardkeel.edits.surfaces import add_wing_above
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import make_theme
from hardkeel.voice.names import mark_name
from tests.stages_of import layout_of, true_of

PLACES = ("true", "log", "airframe", "paper", "audit", "parts", "woods", "balance")
TABBED = Qt.FocusPolicy.TabFocus.value


def said(thing: QWidget, buddies: dict[QWidget, str]) -> str:
    name = thing.accessibleName()
    if not name and isinstance(thing, QAbstractButton):
        name = thing.text()
    return (name or buddies.get(thing, "")).strip()


def nameless(root: QWidget) -> list[str]:
    labels = root.findChildren(QLabel)
    buddies = {label.buddy(): label.text() for label in labels if label.buddy() is not None}
    found, seen = [], 0
    for thing in root.findChildren(QWidget):
        worked = isinstance(thing, QAbstractButton | QLineEdit | QComboBox | QAbstractItemView)
        if not thing.isVisible() or isinstance(thing, QHeaderView | QScrollArea):
            continue
        if thing.parent() is not None and isinstance(thing.parent(), QComboBox | QAbstractItemView):
            continue  # inside of a control, not one
        if worked or thing.focusPolicy().value & TABBED:
            seen += 1
            if not said(thing, buddies):  # type: ignore[arg-type]
                found.append(
                    f"{type(thing).__name__} {thing.objectName()!r} in {type(thing.parent()).__name__}"
                )
    assert seen, "nothing was looked at"
    return found


@pytest.mark.parametrize("place", PLACES)
def test_every_control_of_a_page_has_a_name(window: MainWindow, place: str) -> None:
    if place in ("true", "log"):
        window.show_stage(place)
    else:
        window.show_stage("layout")
        layout_of(window).turn_to(place)
    QApplication.processEvents()
    assert nameless(window) == []


def test_every_control_of_the_dialog_has_a_name(qtbot: QtBot) -> None:
    dialog = NewBuildDialog(make_theme("light"), "mm")
    qtbot.addWidget(dialog)
    dialog.show()
    assert nameless(dialog) == []


def test_the_first_page_has_names(window: MainWindow) -> None:
    window.clear_bench()
    window.show_stage("true")
    assert window.stage == ""
    assert nameless(window) == []


def test_marks_are_walked_and_picked_by_keyboard_and_the_one_in_focus_is_said(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    drawing = page.drawing
    qtbot.mouseClick(
        next(b for b in page.next.findChildren(QPushButton) if b.property("kind") == "height"),
        Qt.MouseButton.LeftButton,
    )
    drawing.setFocus(Qt.FocusReason.TabFocusReason)
    qtbot.waitUntil(drawing.hasFocus)
    first = drawing.accessibleDescription()
    assert first, "the mark in focus is said as soon as the drawing is met"
    said = [first]
    for _ in range(40):
        qtbot.keyClick(drawing, Qt.Key.Key_Right)
        if drawing.accessibleDescription() == said[-1]:
            break
        said.append(drawing.accessibleDescription())
    assert 3 <= len(said) == len(set(said)), "an arrow always leads on, never in a ring"
    qtbot.keyClick(drawing, Qt.Key.Key_Return)
    target = page.hands.target
    assert target is not None
    assert target.kind == "height"
    assert mark_name(window.document.build.surveyed, target.mark) == said[-1]
    drawing.clearFocus()
    assert drawing.accessibleDescription() == ""


def names_of_marks(window: MainWindow) -> set[str]:
    survey, drawing = window.document.build.surveyed, true_of(window).drawing
    shown = [mark for mark in survey.marks if drawing.mark_position(mark.id) is not None]
    return {mark_name(survey, mark.id) for mark in shown}


def test_every_mark_can_be_reached_by_arrow_keys(qtbot: QtBot, window: MainWindow) -> None:
    drawing = true_of(window).drawing
    reached: set[str] = set()
    ways: list[tuple[Qt.Key, ...]] = [()]
    keys = (Qt.Key.Key_Right, Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_Down)
    while ways:
        way = ways.pop(0)
        drawing.clearFocus()
        drawing.setFocus(Qt.FocusReason.TabFocusReason)
        for key in way:
            qtbot.keyClick(drawing, key)
        if drawing.accessibleDescription() not in reached:
            reached.add(drawing.accessibleDescription())
            ways += [(*way, key) for key in keys]
    assert reached == names_of_marks(window)


def test_a_mark_above_another_is_reached_by_leafing(qtbot: QtBot, window: MainWindow) -> None:
    window.document.apply("a second wing", add_wing_above)
    drawing = true_of(window).drawing
    drawing.setFocus(Qt.FocusReason.TabFocusReason)
    reached = set()
    for _ in window.document.build.surveyed.marks:
        qtbot.keyClick(drawing, Qt.Key.Key_PageDown)
        reached.add(drawing.accessibleDescription())
    assert reached == names_of_marks(window)
    assert len(reached) > 10
    last = drawing.accessibleDescription()
    qtbot.keyClick(drawing, Qt.Key.Key_PageDown)
    qtbot.keyClick(drawing, Qt.Key.Key_PageUp)
    assert drawing.accessibleDescription() == last


def test_the_former_in_hand_and_what_is_told_are_said(qtbot: QtBot, window: MainWindow) -> None:
    window.show_stage("layout")
    board = layout_of(window).airframe.board
    layout_of(window).airframe.choose_stop("F4")
    assert board.accessibleDescription() == "F4 in hand"
    qtbot.keyClick(board, Qt.Key.Key_PageDown)
    assert board.accessibleDescription() == "F5 in hand"
    window.notice.tell("The record is in the drawer.")
    assert window.notice.accessibleName() == "The record is in the drawer."
