"""Half-filled builds: every bench shows something sensible for whatever a file holds."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits import surfaces as surface_edits
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from tests.stages_of import layout_of

DEMO = demo_build()
FUSELAGE = DEMO.fuselage
assert FUSELAGE is not None
PARTIAL: dict[str, Build] = {
    "a name alone": Build(format="hardkeel/1", name="Only a name"),
    "a survey alone": Build(format="hardkeel/1", survey=DEMO.survey),
    "a fuselage alone": Build(format="hardkeel/1", fuselage=FUSELAGE),
    "one former": Build(
        format="hardkeel/1",
        fuselage=FUSELAGE.but(
            formers=FUSELAGE.formers[:1], tail_post=None, sections=(), framing=None
        ),
    ),
    "two formers": Build(
        format="hardkeel/1",
        fuselage=FUSELAGE.but(
            formers=FUSELAGE.formers[:2], tail_post=None, sections=(), framing=None
        ),
    ),
    "a wing alone": Build(format="hardkeel/1", wings=DEMO.wings),
    "masses without a wing": Build(format="hardkeel/1", masses=DEMO.masses, balance=DEMO.balance),
    "a wing without masses": Build(format="hardkeel/1", wings=DEMO.wings, balance=DEMO.balance),
    "an audit alone": Build(format="hardkeel/1", audit=DEMO.audit),
    "a ledger without parts": Build(format="hardkeel/1", ledger=DEMO.ledger),
    "a very long name": DEMO.but(
        name="The Very Patient Marsh Harrier of Nether Fenmouth, mark two"
    ),
    "everything": DEMO,
}


@pytest.mark.parametrize("name", PARTIAL)
@pytest.mark.parametrize("unit", ["mm", "in"])
def test_every_bench_shows_a_half_filled_build(
    make_window: Callable[[], MainWindow], name: str, unit: str
) -> None:
    window = make_window()
    window.start(PARTIAL[name])
    if unit == "in":
        window.header.unit_button.click()
    window.show_stage("layout")
    for bench in layout_of(window).tabs:
        layout_of(window).turn_to(bench)
        page = layout_of(window).page(bench)
        shown = " ".join(one.text() for one in page.findChildren(QLabel) if one.isVisible())
        assert shown.strip(), bench
        for wrong in ("None", "nan", "Traceback", "{", "14.2999"):
            assert wrong not in shown, (bench, wrong)
    window.show_stage("true")
    window.show_stage("log")


@pytest.mark.parametrize("name", ["a name alone", "one former"])
def test_what_can_not_be_drawn_yet_offers_a_way_to_begin(
    make_window: Callable[[], MainWindow], name: str
) -> None:
    window = make_window()
    window.start(PARTIAL[name])
    window.show_stage("layout")
    assert layout_of(window).airframe.picker.isVisible()


def test_a_starter_keeps_what_a_build_already_has(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    """A survey by hand is not thrown away when a fuselage is laid out under it."""
    window = make_window()
    window.start(PARTIAL["a survey alone"])
    window.show_stage("layout")
    readings = window.document.build.surveyed.readings
    qtbot.mouseClick(layout_of(window).airframe.picker.start, Qt.MouseButton.LeftButton)
    build = window.document.build
    assert build.fuselage is not None
    assert build.surveyed.readings == readings
    assert window.document.stack.count() == 1
    window.document.stack.undo()
    assert window.document.build == PARTIAL["a survey alone"]


@pytest.mark.parametrize("name", PARTIAL)
def test_edits_on_half_filled_builds_are_done_or_told(name: str) -> None:
    build = PARTIAL[name]
    edits: list[Callable[[Build], Build]] = [
        drawing_edits.add_former.of(60.0),
        drawing_edits.set_station.of("F1", top=50.0),
        drawing_edits.delete_former.of("F1"),
        drawing_edits.set_skins.of(top_skin=1.0),
        surface_edits.put_on_wing_and_tail,
        surface_edits.add_wing_above,
        surface_edits.set_tail.of("stab", span=300.0),
        surface_edits.take_off.of("wing"),
        ledger_edits.bring_parts_in,
        ledger_edits.set_state.of("F1", "cut"),
        ledger_edits.weigh.of("F1", 4.0),
        ledger_edits.swap_wood.of("F1", "spruce", 3.0),
        ledger_edits.set_pack.of(mass=120.0),
    ]
    for edit in edits:
        assert told(edit, build)


def told(edit: Callable[[Build], Build], build: Build) -> str:
    """What an edit says: that it is done, or why it can't be."""
    try:
        edit(build)
    except BadInput as fault:
        return str(fault)
    return "done"
