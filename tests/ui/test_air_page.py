"""In the air, driven as a builder does: sliders that take one another along, a section, what is kept."""

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.air_page import AirPage
from tests.edited import by_hand
from tests.stages_of import stage_of


def air_of(window: MainWindow) -> AirPage:
    window.start(demo_build())
    window.show_stage("true")
    stage = stage_of(window)
    stage.tabs["air"].click()
    assert stage.air.isVisible()
    return stage.air


def tried(page: AirPage) -> tuple[float, float, float]:
    sliders = page.trade.sliders
    return (
        sliders["balance"].value() / 100,
        sliders["decalage"].value() / 10,
        sliders["lift"].value() / 100,
    )


def test_balance_and_lift_take_the_decalage_along(qtbot: QtBot, window: MainWindow) -> None:
    page = air_of(window)
    before = tried(page)
    page.trade.sliders["balance"].setValue(round(100 * before[0]) - 8)
    ahead = tried(page)
    assert ahead[1] > before[1]
    assert ahead[2] == before[2]
    page.trade.sliders["lift"].setValue(80)
    assert tried(page)[1] > ahead[1]
    qtbot.mouseClick(page.answer.back, Qt.MouseButton.LeftButton)
    assert tried(page) == before
    assert not page.answer.keep.isEnabled()


def test_decalage_takes_the_lift_and_stops_where_no_wing_gives_it(window: MainWindow) -> None:
    page = air_of(window)
    before = tried(page)
    page.trade.sliders["decalage"].setValue(round(10 * before[1]) + 5)
    assert tried(page)[2] > before[2]
    page.trade.sliders["decalage"].setValue(100)
    assert "stall" in page.told.text()
    assert tried(page)[2] == pytest.approx(1.3)
    page.trade.sliders["decalage"].setValue(-60)
    assert "dive" in page.told.text()


def test_what_is_built_to_follows_into_survey_balance_and_true(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = air_of(window)
    page.trade.sliders["balance"].setValue(36)
    wanted = tried(page)[1]
    qtbot.mouseClick(page.answer.keep, Qt.MouseButton.LeftButton)
    build = window.document.build
    stab = next(one for one in build.tail if one.id == "stab")
    assert build.wings[0].incidence - stab.incidence == pytest.approx(wanted, abs=0.06)
    decalage = window.document.judgement.check("decalage")
    assert decalage is not None
    assert decalage.target == pytest.approx(build.wings[0].incidence - stab.incidence)
    assert build.balance is not None
    assert build.balance.target_percent == pytest.approx(36.0)
    window.document.stack.undo()
    assert next(one for one in window.document.build.tail if one.id == "stab").incidence != (
        stab.incidence
    )


def test_the_point_is_dragged_along_the_chord(qtbot: QtBot, window: MainWindow) -> None:
    page = air_of(window)
    qtbot.waitUntil(lambda: page.drawing.width() > 300)
    middle = page.drawing.width() * 0.6
    event = QMouseEvent(
        QMouseEvent.Type.MouseButtonPress,
        QPointF(middle, 100.0),
        QPointF(middle, 100.0),
        Qt.MouseButton.LeftButton,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    before = tried(page)[0]
    page.drawing.mousePressEvent(event)
    assert tried(page)[0] > before + 0.1


def test_a_wing_section_gives_the_figures(window: MainWindow) -> None:
    page = air_of(window)
    at = page.section.findData("4412")
    page.section.setCurrentIndex(at)
    page.section.activated.emit(at)
    assert window.document.build.wings[0].profile == "4412"
    assert page.figures.fields["zero_lift"].line.text().startswith("-4.2")
    assert "mean line" in page.figures.said.text()


def test_a_lifting_tail_balanced_far_back_is_at_home(window: MainWindow) -> None:
    page = air_of(window)
    big = tuple(
        one.but(span=700.0, root_chord=170.0, tip_chord=150.0) if one.id == "stab" else one
        for one in window.document.build.tail
    )
    window.document.apply("a large tail", by_hand(lambda b: b.but(tail=big)))
    window.document.apply("it lifts", by_hand(lambda b: b.but(flight=None)))
    page.trade.sliders["balance"].setValue(60)
    assert tried(page)[0] == pytest.approx(0.6)
    assert "Trims at" in page.answer.answer.text()
    assert "steady" in page.answer.lines.text() or "lively" in page.answer.lines.text()


def test_without_a_tail_it_says_what_is_missing(window: MainWindow) -> None:
    page = air_of(window)
    window.document.apply("no tail", by_hand(lambda b: b.but(tail=())))
    assert not page.trade.isVisible()
    assert not page.answer.isVisible()
    page.drawing.grab()  # the empty page paints
