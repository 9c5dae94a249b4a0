"""Every control can be named by who can't see it, and marks are walked without a mouse.

PyQt6 does not wrap ``QAccessible``; what it would say is made up here as Qt does it: the accessible name,
else the words on a button, else the label whose buddy it is.
"""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import QPointF, Qt
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

from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.squaring import set_on_board
from hardkeel.edits.steps import plan_steps
from hardkeel.edits.surfaces import add_wing_above
from hardkeel.messages.names import mark_name
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.order_page import FrameOrderPage
from hardkeel.ui.theme import apply_theme, make_theme
from hardkeel.ui.widgets.card_column import CardColumn
from tests.stages_of import frame_of, layout_of, true_of

FRAME = ("sticks", "formers", "members", "bends", "sheets", "board", "square", "order")
PLACES = ("true", "log", "airframe", "paper", "audit", "parts", "woods", "balance", *FRAME)
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


def turned_to(window: MainWindow, place: str) -> QWidget:
    """A stage, or a bench of Lay out or Frame, as it is seen."""
    if place in ("true", "log"):
        window.show_stage(place)
        page: QWidget = window.pages[place]
    elif place in FRAME:
        window.show_stage("frame")
        if place in ("board", "square"):
            window.document.apply("set on a board", set_on_board.of())
        if place == "order":
            window.document.apply("plan", plan_steps.of(frame_steps(window.document.build), STAGE))
        frame_of(window).turn_to(place)
        page = frame_of(window).page(place)
        if isinstance(page, FrameOrderPage):  # a step that has lengths to tell
            page.table.selectRow(page.model.number_of("tail"))
        window.jobs.wait(20000)
        QApplication.processEvents()
    else:
        window.show_stage("layout")
        layout_of(window).turn_to(place)
        page = layout_of(window).page(place)
    QApplication.processEvents()
    return page


@pytest.mark.parametrize("place", PLACES)
def test_every_control_of_a_page_has_a_name(window: MainWindow, place: str) -> None:
    turned_to(window, place)
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
    target = page.entry.target
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
    window.document.apply("a second wing", add_wing_above.of())
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
    layout_of(window).airframe.choose_station("F4")
    assert board.accessibleDescription() == "F4 in hand"
    qtbot.keyClick(board, Qt.Key.Key_PageDown)
    assert board.accessibleDescription() == "F5 in hand"
    window.notice.tell("The record is in the drawer.")
    assert window.notice.accessibleName() == "The record is in the drawer."


def tab_stops(window: MainWindow, within: QWidget) -> list[QWidget]:
    """Where Tab goes, in order, of what is seen within a place."""
    found: list[QWidget] = []
    stop = window.nextInFocusChain()
    while stop is not None and stop is not window:
        seen = stop.isVisible() and stop.isEnabled() and within.isAncestorOf(stop)
        if seen and stop.focusPolicy().value & TABBED and stop.focusProxy() is None:
            found.append(stop)
        stop = stop.nextInFocusChain()
    return found


def rows_of(stations: list[QWidget], within: QWidget) -> list[tuple[int, int]]:
    """Row and place of each stop; what overlaps in height stands in one row."""
    rows: list[tuple[int, int]] = []
    row, bottom = -1, -1
    for stop in stations:
        corner = stop.mapTo(within, stop.rect().topLeft())
        if corner.y() >= bottom - 4:
            row += 1
            bottom = corner.y() + stop.height()
        rows.append((row, corner.x()))
    return rows


@pytest.mark.parametrize("place", PLACES)
def test_tab_goes_down_the_cards_row_by_row(window: MainWindow, place: str) -> None:
    page = turned_to(window, place)
    if place == "airframe":
        layout_of(window).airframe.choose_station("F3")
        layout_of(window).airframe.choose_station("tail_post")  # other fields than the former's
        QApplication.processEvents()
    columns = page.findChildren(CardColumn)
    for column in columns:
        if not column.isVisible():
            continue
        stations = tab_stops(window, column)
        inside = column.widget()
        assert inside is not None
        assert stations, "nothing to work in this column"
        tops = [stop.mapTo(inside, stop.rect().bottomLeft()).y() for stop in stations]
        rows = rows_of(stations, inside)
        assert rows == sorted(rows), [said(stop, {}) for stop in stations]
        assert tops == sorted(tops) or len(set(rows)) == len(rows)
    assert columns or place == "log"


def test_what_is_next_comes_first_on_true(window: MainWindow) -> None:
    page = true_of(window)
    stations = tab_stops(window, page)
    assert stations[0] is page.next.field.line
    order = [page.next, page.seat, page.aim, page.checks, page.rig, page.drawing, page.readings]
    homes = [
        next(i for i, home in enumerate(order) if home is stop or home.isAncestorOf(stop))
        for stop in stations
    ]
    assert homes == sorted(homes)
    assert set(homes) == set(range(len(order)))


def test_the_surface_comes_before_its_cards_on_lay_out(window: MainWindow) -> None:
    page = turned_to(window, "airframe")
    board = layout_of(window).airframe.board
    assert tab_stops(window, page)[0] is board


def test_what_is_hit_grows_with_the_text(
    make_window: Callable[[], MainWindow], qapp: QApplication
) -> None:
    """Buttons, fields, rows and the room around them are at least as much larger as the letters."""
    sizes: dict[int, dict[str, int]] = {}
    for percent in (100, 150):
        apply_theme(qapp, make_theme("light", percent))
        window = make_window()
        window.start(demo_build())
        window.menu.scale_wanted.emit(percent)
        QApplication.processEvents()
        page = true_of(window)
        card = page.next.layout()
        assert card is not None
        sizes[percent] = {
            "tool": next(
                b for b in page.next.findChildren(QPushButton) if b.text() == "tape"
            ).height(),
            "primary": page.seat.findChildren(QPushButton)[-1].height(),
            "menu": window.header.findChildren(QPushButton)[0].height(),
            "card": card.contentsMargins().left(),
        }
        window.document.stack.setClean()
    apply_theme(qapp, make_theme("light", 100))
    for thing, small in sizes[100].items():
        least = 1.2 if thing == "card" else 1.4  # across the page there is less room to grow
        assert sizes[150][thing] >= least * small, (thing, sizes)


def test_a_mark_is_hit_from_further_off_where_the_text_is_larger(
    qtbot: QtBot, window: MainWindow
) -> None:
    drawing = true_of(window).drawing
    at = drawing.mark_position("wing_tip_le_port")
    assert at is not None
    hits = []
    for percent in (100, 150):
        drawing.set_theme(make_theme("light", percent))
        drawing.choose_body("")
        picked: list[str] = []
        drawing.mark_picked.connect(picked.append)
        drawing.want("mark")
        at = drawing.mark_position("wing_tip_le_port")
        assert at is not None
        beside = (at + QPointF(-11.0, 0.0)).toPoint()
        qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=beside)
        drawing.mark_picked.disconnect(picked.append)
        hits.append(bool(picked))
    assert hits == [False, True]


def test_surfaces_on_the_board_are_picked_by_keys_and_said(
    qtbot: QtBot, window: MainWindow
) -> None:
    window.show_stage("layout")
    page = layout_of(window).airframe
    page.choose_station("F4")
    ctrl = Qt.KeyboardModifier.ControlModifier
    said_of: list[str] = []
    for _ in range(4):
        qtbot.keyClick(page.board, Qt.Key.Key_PageDown, ctrl)
        said_of.append(page.board.accessibleDescription())
    assert said_of == [
        "F4 in hand, wing picked",
        "F4 in hand, stabilizer picked",
        "F4 in hand, fin picked",
        "F4 in hand, fin picked",
    ]
    assert page.surface.fields, "the figures of what is picked are there to be typed"
    qtbot.keyClick(page.board, Qt.Key.Key_PageUp, ctrl)
    assert page.board.accessibleDescription() == "F4 in hand, stabilizer picked"
