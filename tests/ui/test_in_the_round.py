"""The view that turns: by hand, by keys, by double click; what is pointed at is in hand on every bench."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.demo.fleet import sallow, withy
from hardkeel.demo.planked import sorrel
from hardkeel.edits.fuselage import set_station
from hardkeel.picture.in_space import Eye
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.round_page import FrameRoundPage
from hardkeel.ui.stages.layout.round_page import LayoutRoundPage
from hardkeel.ui.stages.true.round_page import TrueRoundPage
from hardkeel.ui.stages.true.stage import TrueStage
from hardkeel.ui.tabbed.stage_page import TabbedStage
from tests.stages_of import frame_of

LEFT = Qt.MouseButton.LeftButton


def settle(window: MainWindow) -> None:
    for _ in range(3):
        window.jobs.wait(20000)
        QApplication.processEvents()


def in_the_round(window: MainWindow) -> FrameRoundPage:
    window.show_stage("frame")
    frame_of(window).turn_to("round")
    settle(window)
    page = frame_of(window).page("round")
    assert isinstance(page, FrameRoundPage)
    return page


@pytest.fixture
def stick_frame(make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    window.start(withy())
    return window


def test_it_is_turned_by_hand_and_by_keys(qtbot: QtBot, stick_frame: MainWindow) -> None:
    view = in_the_round(stick_frame).view
    before = view.eye
    middle = view.rect().center()
    qtbot.mousePress(view, LEFT, pos=middle)
    qtbot.mouseMove(view, middle + QPoint(40, 0))
    qtbot.mouseMove(view, middle + QPoint(100, 50))
    view.repaint()  # while it is turned
    qtbot.mouseRelease(view, LEFT, pos=middle + QPoint(100, 50))
    assert view.eye.round < before.round - 20
    assert view.eye.up > before.up + 10
    turned = view.eye
    qtbot.keyClick(view, Qt.Key.Key_Left)
    qtbot.keyClick(view, Qt.Key.Key_Down)
    assert (view.eye.round, view.eye.up) == pytest.approx((turned.round + 5, turned.up - 5))
    assert "round" in view.accessibleDescription()


def test_double_clicks_go_to_plan_side_rear_and_back(qtbot: QtBot, stick_frame: MainWindow) -> None:
    view = in_the_round(stick_frame).view
    view.look_from(Eye(20.0, 10.0))
    seen = []
    for _ in range(4):
        qtbot.mouseDClick(view, LEFT, pos=QPoint(5, 5))
        seen.append((view.eye.round, view.eye.up))
    assert seen == [(0.0, 90.0), (0.0, 0.0), (-90.0, 0.0), (20.0, 10.0)]


def test_a_former_that_is_pointed_at_is_in_hand_on_the_other_benches(
    qtbot: QtBot, stick_frame: MainWindow
) -> None:
    page = in_the_round(stick_frame)
    page.view.show_skin("bare")
    at = page.view.place_of("F1")
    assert at is not None
    qtbot.mouseClick(page.view, LEFT, pos=at.toPoint())
    assert page.hand.answer.text() == "Former F1"
    frame_of(stick_frame).turn_to("formers")
    formers = frame_of(stick_frame).page("formers")
    assert formers.former.id == "F1"  # type: ignore[attr-defined]


def test_space_shows_the_skin_its_far_half_and_none(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(sorrel())
    page = in_the_round(window)
    assert page.view.skin == "open"
    seen = []
    for _ in range(3):
        qtbot.keyClick(page.view, Qt.Key.Key_Space)
        seen.append((page.view.skin, page.skin.currentData()))
    assert seen == [("bare", "bare"), ("closed", "closed"), ("open", "open")]
    page.view.show_skin("closed")
    assert page.view.place_of("P5") is not None
    page.view.show_skin("bare")
    assert page.view.place_of("P5") is None


def test_it_follows_the_build(qtbot: QtBot, stick_frame: MainWindow) -> None:
    page = in_the_round(stick_frame)
    before = page.view.place_of("F1")
    stick_frame.document.apply("taller", set_station.of("F1", top=60.0))
    settle(stick_frame)
    qtbot.waitUntil(lambda: page.view.place_of("F1") != before)


def test_a_frame_that_was_read_is_shown_with_its_error_enlarged(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(sallow())
    page = in_the_round(window)
    assert page.enlarged.isVisible()

    def tail_end() -> QPointF:
        at = page.view.place_of("F9")
        assert at is not None
        return at

    page.view.look_from(Eye(-90.0, 0.0))
    before = tail_end()
    page.enlarged.slider.setValue(page.enlarged.slider.maximum())
    settle(window)
    assert (tail_end() - before).manhattanLength() > 2


def test_lay_out_and_true_show_it_whole(qtbot: QtBot, window: MainWindow) -> None:
    window.show_stage("layout")
    layout = window.pages["layout"]
    assert isinstance(layout, TabbedStage)
    layout.turn_to("round")
    settle(window)
    laid = layout.page("round")
    assert isinstance(laid, LayoutRoundPage)
    assert laid.view.place_of("wing") is not None
    window.show_stage("true")
    true = window.pages["true"]
    assert isinstance(true, TrueStage)
    true.turn_to("round")
    settle(window)
    assert isinstance(true.round, TrueRoundPage)
    page = true.round
    qtbot.waitUntil(lambda: page.view.place_of("stab") is not None)
    true.choose_body("stab")
    assert true.round.hand.answer.text() == "Stabilizer"
    assert "out" in true.round.hand.lines.text()
