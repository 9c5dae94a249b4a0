"""Section shapes, stringers and what lies on ribs, by the cards that say them."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.demo.fleet import marram
from hardkeel.demo.planked import sorrel
from hardkeel.edits.fuselage import fuselage_of
from hardkeel.edits.sections import set_shape
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.formers_page import FormersPage
from hardkeel.ui.stages.frame.stringers_card import StringersCard
from hardkeel.ui.stages.tail.on_ribs_card import OnRibsCard
from hardkeel.ui.widgets.fields import QuantityEdit
from tests.stages_of import frame_of, layout_of


def typed(qtbot: QtBot, field: QuantityEdit, text: str) -> None:
    field.line.selectAll()
    qtbot.keyClicks(field.line, text)
    qtbot.keyClick(field.line, Qt.Key.Key_Return)


def settle(window: MainWindow) -> None:
    for _ in range(3):
        window.jobs.wait(20000)
        QApplication.processEvents()


@pytest.fixture
def oval(make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    window.start(sorrel())
    return window


def test_a_former_gets_flat_sides_with_a_deck_of_its_own_radius(
    qtbot: QtBot, oval: MainWindow
) -> None:
    oval.show_stage("layout")
    page = layout_of(oval).airframe
    page.choose_station("F6")
    page.former.shape.setCurrentIndex(page.former.shape.findData("flat-sides"))
    page.former.shape.activated.emit(page.former.shape.currentIndex())
    former = fuselage_of(oval.document.build).former("F6")
    assert former is not None
    assert former.section is not None
    assert former.section.kind == "flat-sides"
    typed(qtbot, page.former.fields["deck_radius"], "80")
    former = fuselage_of(oval.document.build).former("F6")
    assert former is not None
    assert former.section is not None
    deck, half = former.section.deck, former.half_width
    assert (half**2 + deck**2) / (2 * deck) == pytest.approx(80.0, abs=0.1)


def test_a_nose_ring_is_given_by_its_diameter(qtbot: QtBot, oval: MainWindow) -> None:
    oval.show_stage("layout")
    page = layout_of(oval).airframe
    page.choose_station("F1")
    typed(qtbot, page.former.fields["ring"], "70")
    former = fuselage_of(oval.document.build).former("F1")
    assert former is not None
    assert (former.half_width, former.top - former.bottom) == pytest.approx((35.0, 70.0))
    page.choose_station("F3")
    assert page.former.fields["ring"].line.text() == ""  # it is none


def test_the_comb_is_drawn_when_it_is_wanted(qtbot: QtBot, oval: MainWindow) -> None:
    oval.show_stage("layout")
    page = layout_of(oval).airframe
    qtbot.mouseClick(page.smooth.comb, Qt.MouseButton.LeftButton)
    before = page.board.grab().toImage()
    page.smooth.comb.setChecked(not page.smooth.comb.isChecked())
    assert page.board.grab().toImage() != before


def test_stringers_are_spread_round_and_hollowed_between(qtbot: QtBot, oval: MainWindow) -> None:
    oval.show_stage("frame")
    frame_of(oval).turn_to("members")
    settle(oval)
    card = oval.findChild(StringersCard)
    assert card is not None
    typed(qtbot, card.fields["around"], "16")
    card.button.click()
    members = fuselage_of(oval.document.build).framed.members
    stringers = [one for one in members if one.kind == "stringer"]
    assert len(stringers) == 8  # the keel keeps its place
    assert {one.by_girth for one in stringers} == {True}
    typed(qtbot, card.fields["scallop"], "1.2")
    assert fuselage_of(oval.document.build).framed.scallop == pytest.approx(1.2)
    oval.document.stack.undo()
    oval.document.stack.undo()
    assert not any(
        one.kind == "stringer" for one in fuselage_of(oval.document.build).framed.members
    )


def test_longerons_are_taken_out_by_one_button(window: MainWindow) -> None:
    window.show_stage("layout")
    page = layout_of(window).airframe
    assert fuselage_of(window.document.build).longerons
    page.skins.without.click()
    assert fuselage_of(window.document.build).longerons == ()
    assert not page.skins.without.isVisible()


def test_ribs_stand_where_they_are_typed_and_carry_capstrips(
    qtbot: QtBot,
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(marram())
    window.show_stage("tail")
    window.pages["tail"].turn_to("sections")
    settle(window)
    card = window.findChild(OnRibsCard)
    assert card is not None
    build = window.document.build
    name = next(one.id for one in build.tail if one.kind == "ribbed")
    window.pages["tail"].choose_body(name)
    settle(window)
    card.places.setText("0, 15, 40, 90, 150")
    card.places.setModified(True)
    card.places.editingFinished.emit()
    typed(qtbot, card.fields["cap_wide"], "6")
    surface = next(one for one in window.document.build.tail if one.id == name)
    assert surface.ribs == (0.0, 15.0, 40.0, 90.0, 150.0)
    assert surface.capstrip is not None
    assert surface.capstrip[0] == pytest.approx(6.0)
    card.tip.setCurrentIndex(card.tip.findData("0009"))
    card.tip.activated.emit(card.tip.currentIndex())
    surface = next(one for one in window.document.build.tail if one.id == name)
    assert surface.tip_profile == "0009"


def test_a_deck_is_made_a_piece_of_its_own_and_stands_in_a_step(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(set_shape(sorrel(), "F6", "flat-sides"))
    window.show_stage("frame")
    frame_of(window).turn_to("formers")
    page = frame_of(window).page("formers")
    assert isinstance(page, FormersPage)
    page.choose("F3")
    assert not page.deck.isVisible()
    page.choose("F6")
    assert page.deck.isVisible()
    page.deck.click()
    build = window.document.build
    names = [one.name for one in pieces_of(fuselage_of(build)) if one.part == "F6"]
    assert names == ["F6 a", "F6 b"]
    assert any(step.id.endswith("decks") for step in frame_steps(build))
