"""Describe your model: what it is, by pictures and a dozen figures; and what of it stands on the bench then."""

from collections.abc import Callable

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import FUSELAGES, MODEL_KINDS, Figures, build_from
from hardkeel.demo.fleet import OTHER_SHAPES
from hardkeel.edits.seats import set_seat_kind
from hardkeel.messages.shell import TICK_A_TOOL
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.roles import role_of
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.places_card import PlacesCard
from hardkeel.ui.theme import make_theme
from tests.rigged import read_all
from tests.stages_of import true_of

LEFT = Qt.MouseButton.LeftButton
ROLES = {
    "low": {"wing", "stabilizer", "fin"},
    "tee": {"wing", "stabilizer", "fin"},
    "vee": {"wing", "vee"},
    "twin": {"wing", "stabilizer", "fin"},
    "foreplane": {"wing", "foreplane", "fin", "thrust"},
    "biplane": {"wing", "stabilizer", "fin"},
}


@pytest.fixture
def dialog(qtbot: QtBot) -> NewBuildDialog:
    made = NewBuildDialog(make_theme("light"), "mm")
    qtbot.addWidget(made)
    made.show()
    return made


def described(dialog: NewBuildDialog) -> Build:
    dialog.refresh()
    assert dialog.build is not None
    return dialog.build


def typed(qtbot: QtBot, dialog: NewBuildDialog, key: str, text: str) -> None:
    line = dialog.fields[key].line
    line.clear()
    qtbot.keyClicks(line, text)


@pytest.mark.parametrize("kind", MODEL_KINDS)
def test_a_picture_pressed_is_that_kind_with_its_own_first_reading(
    dialog: NewBuildDialog, kind: str
) -> None:
    dialog.kinds.pick(kind)  # type: ignore[arg-type]
    survey = described(dialog).surveyed
    assert {role_of(one) for one in survey.bodies[1:]} == ROLES[kind]
    assert judge_survey(survey, "dry").next
    assert not dialog.take.isHidden()
    assert dialog.take.isEnabled()


def test_what_was_typed_stays_when_it_is_another_kind_after_all(
    qtbot: QtBot, dialog: NewBuildDialog
) -> None:
    typed(qtbot, dialog, "wing_span", "1340")
    usual = dialog.fields["stab_span"].value
    dialog.kinds.pick("vee")
    assert described(dialog).wings[0].span == 1340.0
    assert dialog.fields["stab_span"].value != usual


@pytest.mark.parametrize("way", FUSELAGES)
def test_the_fuselage_is_built_as_its_picture_says(dialog: NewBuildDialog, way: str) -> None:
    dialog.built.pick(way)  # type: ignore[arg-type]
    fuselage = described(dialog).fuselage
    assert fuselage is not None
    methods = [section.method for section in fuselage.sections]
    assert methods == [method for *_, method in FUSELAGES[way].stretches]  # type: ignore[index]


def test_a_wing_of_four_panels_whose_tips_come_off(qtbot: QtBot, dialog: NewBuildDialog) -> None:
    dialog.breaks.setCurrentIndex(1)
    described(dialog)
    typed(qtbot, dialog, "break_1", "360")
    typed(qtbot, dialog, "rise_1", "9")
    assert described(dialog).wings[0].breaks[0].sweep is None
    typed(qtbot, dialog, "swept_1", "1 in")
    qtbot.mouseClick(dialog.comes_off, LEFT)
    wing = described(dialog).wings[0]
    (one,) = wing.breaks
    assert (one.y, one.dihedral, one.sweep, one.comes_off) == (360.0, 9.0, 25.4, True)
    assert described(dialog).surveyed.body("wing_outer_port") is not None
    typed(qtbot, dialog, "break_1", "900")  # beyond the tip
    dialog.refresh()
    assert dialog.build is None
    assert not dialog.take.isEnabled()


def test_unfolding_one_group_folds_the_others_so_that_the_form_keeps_its_window(
    qtbot: QtBot, dialog: NewBuildDialog
) -> None:
    tall = dialog.height()
    for group in dialog._groups.values():  # noqa: SLF001
        qtbot.mouseClick(group.line, LEFT)
        unfolded = [one for one in dialog._groups.values() if one.line.isChecked()]  # noqa: SLF001
        assert len(unfolded) <= 1
        assert dialog.height() == tall


@pytest.mark.parametrize("demo", OTHER_SHAPES, ids=lambda one: one.name)
def test_a_demo_of_another_shape_opens_where_it_has_something_to_show(
    make_window: Callable[[], MainWindow], demo: object
) -> None:
    window = make_window()
    window.open_other_demo(demo)  # type: ignore[arg-type]
    stage, place = demo.opens  # type: ignore[attr-defined]
    assert window.stage == stage
    tab = window.pages[stage].tabs[place]
    assert tab.isChecked()


def test_struts_are_asked_about_before_anything_is_advised_of_them(
    make_window: Callable[[], MainWindow], dialog: NewBuildDialog, qtbot: QtBot
) -> None:
    dialog.kinds.pick("biplane")
    build = set_seat_kind(described(dialog), "upper_wing", "saddle")
    window = make_window()
    window.start(set_seat_kind(build, "upper_wing", "struts"))
    window.show_stage("true")
    page = true_of(window)
    page.choose_body("upper_wing")
    card = window.findChild(PlacesCard)
    assert card is not None
    assert card.isVisible()
    assert "Proposed" in card.said.text()
    kinds = {one.kind for one in window.document.judgement.checks}
    assert "gap" not in kinds
    qtbot.mouseClick(card.confirm, LEFT)
    assert not card.confirm.isVisible()
    assert {"gap", "stagger"} <= {one.kind for one in window.document.judgement.checks}
    line = card.fields["out"].line
    line.selectAll()
    qtbot.keyClicks(line, "320")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    upper = window.document.build.surveyed.body("upper_wing")
    assert upper is not None
    assert upper.seat is not None
    assert upper.seat.struts is not None
    assert upper.seat.struts.out == 320.0


def test_a_bolted_wing_is_held_where_it_was_clicked_and_nothing_is_advised_before(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    rolled = build_from(Figures())
    reads = read_all(
        rolled.surveyed,
        {"wing": {"pitch": 1.5}, "bench": {"z": 60.0}},
        np.random.default_rng(3),
        times=3,
    )
    window.start(set_seat_kind(rolled.but(survey=reads), "wing", "bolts"))
    window.show_stage("true")
    page = true_of(window)
    page.choose_body("wing")
    assert "where it is held" in page.seat._do.text()  # noqa: SLF001
    card = window.findChild(PlacesCard)
    assert card is not None
    assert card.eyebrow.text() == "Where dowels and bolts are"
    qtbot.mouseClick(card.click, LEFT)
    wing = window.document.build.wings[0]
    for share in (0.1, 0.8):
        at = page.drawing.place_of("plan", 22.0, wing.le_x + share * wing.root_chord)
        qtbot.mouseClick(page.drawing, LEFT, pos=at.toPoint())
    qtbot.mouseClick(card.click, LEFT)
    seat = window.document.build.surveyed.body("wing").seat  # type: ignore[union-attr]
    assert seat is not None
    assert seat.laid is not None
    assert seat.laid.said
    assert seat.laid.out == pytest.approx(22.0, abs=2.5)  # a pixel is 2 mm there
    assert (seat.laid.front, seat.laid.rear) == pytest.approx((0.1, 0.8), abs=0.02)
    assert [one.id for one in seat.contacts] == [
        "front_port", "front_starboard", "rear_port", "rear_starboard"
    ]  # fmt: skip
    assert "where it is held" not in page.seat._do.text()  # noqa: SLF001
    # a click on a body picks it again
    assert page.drawing._wants == ""  # noqa: SLF001


def test_what_to_measure_first_is_told_while_the_hand_types_on(
    qtbot: QtBot, dialog: NewBuildDialog
) -> None:
    for kind in ("vee", "foreplane"):
        dialog.kinds.pick(kind)
        qtbot.waitUntil(lambda: "will settle it. First: " in dialog._told.text())  # noqa: SLF001
        dialog._told.clear()  # noqa: SLF001
    dialog.refresh()
    for box in dialog.tools.values():
        box.setChecked(False)
    dialog.refresh()
    qtbot.wait(500)  # nothing is planned any more
    assert dialog._told.text() == TICK_A_TOOL  # noqa: SLF001
