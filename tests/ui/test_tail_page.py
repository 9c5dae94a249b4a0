"""Tail, driven as a builder does: said how it is built, dragged, made from one rib, read flat, cut, put in order."""

from collections.abc import Callable
from pathlib import Path

import pytest
from ezdxf.filemanagement import new
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.paper import add_plan
from hardkeel.edits.steps import lay_all
from hardkeel.edits.tail import outline_from_plan, put_surface, surface_of
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.project.model import Build, empty_build
from hardkeel.tail.model import TailSurface
from hardkeel.tail.own_sections import own_section
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.tail.controls_page import ControlsPage
from hardkeel.ui.stages.tail.flat_page import FlatPage
from hardkeel.ui.stages.tail.order_page import TailOrderPage
from hardkeel.ui.stages.tail.page import TailPage
from hardkeel.ui.stages.tail.sections_page import SectionsPage
from hardkeel.ui.stages.tail.sheets_page import TailSheetsPage
from hardkeel.ui.stages.tail.sticks_page import TailSticksPage
from hardkeel.ui.stages.tail.surface_page import SurfacePage
from hardkeel.ui.tabbed.sticks_shown import stick_shown
from hardkeel.ui.widgets.outline_chooser import OutlineChooser
from tests.tail_independent import loop_of

LEFT = Qt.MouseButton.LeftButton


def tail_of(window: MainWindow) -> TailPage:
    page = window.pages["tail"]
    assert isinstance(page, TailPage)
    return page


def opened(make_window: Callable[[], MainWindow], build: Build) -> MainWindow:
    window = make_window()
    window.start(build)
    window.show_stage("tail")
    window.activateWindow()
    return window


def bench(window: MainWindow, key: str) -> object:
    tail_of(window).turn_to(key)
    return tail_of(window).page(key)


def stab(window: MainWindow) -> TailSurface:
    return surface_of(window.document.build, "stab")


@pytest.fixture
def demo(make_window: Callable[[], MainWindow]) -> MainWindow:
    return opened(make_window, demo_build())


def surface_page(window: MainWindow) -> SurfacePage:
    page = bench(window, "surface")
    assert isinstance(page, SurfacePage)
    return page


def test_a_surface_is_said_to_be_built_and_undone(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    build = demo_build()
    for one in build.tail:
        build = put_surface(build, one.but(kind=None, bracing=None))
    window = opened(make_window, build)
    page = surface_page(window)
    assert page.now.isVisible()
    assert not page.frame.pinch.isVisible()
    qtbot.mouseClick(page.kinds.buttons["stick"], LEFT)
    assert stab(window).kind == "stick"
    assert not page.now.isVisible()
    assert page.frame.pinch.give.text().endswith("mm")
    assert "g" in page.frame.pinch.mass.text()
    window.document.stack.undo()
    assert stab(window).kind is None


def test_the_pitch_is_dragged_with_mass_at_once_and_the_document_after(
    qtbot: QtBot, demo: MainWindow
) -> None:
    page = surface_page(demo)
    before, gives, steps = stab(demo), page.frame.pinch.give.text(), demo.document.stack.count()
    page.frame.pinch.pitch.setSliderDown(True)
    for value in (50, 60, 75):
        page.frame.pinch.pitch.setValue(value)
    assert demo.document.stack.count() == steps  # nothing is edited under the hand
    qtbot.waitUntil(lambda: page.frame.pinch.give.text() != gives, timeout=2000)
    page.frame.pinch.pitch.setSliderDown(False)
    assert demo.document.stack.count() == steps + 1
    bracing = stab(demo).bracing
    assert bracing is not None
    assert bracing.pitch == 75.0
    demo.document.stack.undo()
    assert stab(demo) == before
    assert page.frame.pinch.give.text() == gives


def test_another_wood_and_another_bracing_are_taken(qtbot: QtBot, demo: MainWindow) -> None:
    page = surface_page(demo)
    page.frame.pinch.wood.setFocus()
    qtbot.keyClick(page.frame.pinch.wood, Qt.Key.Key_Right)
    assert stab(demo).material == "balsa-hard"
    crossed = next(button for button in page.frame.choices.buttons if button.text() == "crossed")
    qtbot.mouseClick(crossed, LEFT)
    bracing = stab(demo).bracing
    assert bracing is not None
    assert bracing.pattern == "crossed"
    assert stab(demo).material == "balsa-hard"
    qtbot.mouseClick(page.frame.bracing.buttons["none"], LEFT)
    bracing = stab(demo).bracing
    assert bracing is not None
    assert bracing.pattern == "none"


def test_figures_tips_and_the_keel_line_are_linked(qtbot: QtBot, demo: MainWindow) -> None:
    page = surface_page(demo)
    field = page.figures.fields["span"].line
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, "480")
    qtbot.keyClick(field, Qt.Key.Key_Return)
    assert stab(demo).span == 480.0
    body = demo.document.build.surveyed.body("stab")
    assert body is not None
    assert body.span == 480.0
    qtbot.mouseClick(page.tips.buttons["laminated"], LEFT)
    assert "strips of" in page.tips.said.text()
    tip = stab(demo).tip
    assert tip is not None
    assert tip.shape == "laminated"
    qtbot.mouseClick(page.row.buttons["fin"], LEFT)
    assert "height" in page.figures.fields
    assert tail_of(demo).chosen == "fin"


def test_an_outline_that_is_no_half_is_refused_and_nothing_is_lost(
    demo: MainWindow, tmp_path: Path
) -> None:
    page = surface_page(demo)
    bad = tmp_path / "none.dxf"
    bad.write_text("no drawing")
    before = demo.document.build
    page.open_outline(bad)
    assert page.told.isVisible()
    assert demo.document.build == before


def test_of_a_drawing_with_several_outlines_it_is_asked_which(
    qtbot: QtBot, demo: MainWindow, tmp_path: Path
) -> None:
    page = surface_page(demo)
    drawing = new("R2010", units=4)
    for layer, x, long in (("FIN", 0.0, 400.0), ("Stabilizer", 500.0, 210.0)):
        ring = [(x, 0), (x + 110, 0), (x + 80, long), (x + 20, long)]
        drawing.modelspace().add_lwpolyline(ring, close=True, dxfattribs={"layer": layer})
    drawing.saveas(tmp_path / "tail.dxf")
    before = demo.document.build
    page.open_outline(tmp_path / "tail.dxf")
    asked = page.findChild(OutlineChooser)
    assert asked is not None
    assert demo.document.build == before, "not the largest, unasked"
    qtbot.mouseClick(asked.one, LEFT)
    assert page.surface is not None
    assert page.surface.span == pytest.approx(420.0, abs=0.1)


def clicked_on(name: str, long: float) -> Plan:
    """A sheet of a pixel a millimetre with half a surface clicked all round."""
    return Plan(
        id=name,
        image="plans/none.png",
        lengths=(
            KnownLength(a=(0, 0), b=(100, 0), length=100, along="x"),
            KnownLength(a=(0, 0), b=(0, 100), length=100, along="y"),
        ),
        traces=(
            Trace(id="o", kind="outline", pixels=((0, 0), (110, 0), (80, -long), (20, -long))),
        ),
    )


def test_of_two_sheets_with_an_outline_it_is_asked_which(qtbot: QtBot, demo: MainWindow) -> None:
    for plan in (clicked_on("a rib", 60.0), clicked_on("stab half", 210.0)):
        demo.document.apply("lay it", add_plan.of(plan))
    page = surface_page(demo)
    assert page.surface is not None
    before = demo.document.build
    with pytest.raises(BadInput, match="a rib and stab half"):
        outline_from_plan(before, page.surface.id)
    qtbot.mouseClick(page.from_desk, LEFT)
    asked = page.findChild(OutlineChooser)
    assert asked is not None
    assert demo.document.build == before
    assert not asked.each.isVisible()
    asked.choose(1)
    qtbot.mouseClick(asked.one, LEFT)
    assert page.surface.span == pytest.approx(420.0, abs=0.1)


def test_from_one_rib_in_three_clicks(qtbot: QtBot, demo: MainWindow, tmp_path: Path) -> None:
    page = bench(demo, "sections")
    assert isinstance(page, SectionsPage)
    qtbot.mouseClick(surface_page(demo).kinds.buttons["ribbed"], LEFT)
    page = bench(demo, "sections")
    assert isinstance(page, SectionsPage)
    section = own_section("2412")
    assert section is not None
    file = tmp_path / "made.dat"
    file.write_text(loop_of([tuple(p) for p in section.upper], [tuple(p) for p in section.lower]))
    page.open_section(file)
    assert stab(demo).root_profile == "made.dat"
    for field, text in ((page.root.thick, "8"), (page.root.count, "7")):
        field.line.selectAll()
        qtbot.keyClicks(field.line, text)
    qtbot.mouseClick(page.root.make, LEFT)
    assert len(stab(demo).ribs) == 7
    assert stab(demo).tip_thickness == 8.0
    assert len(page.ribs) == 7
    assert "120.0 mm long" in page.rib.answer.text()
    place = page.gallery.place_of("rib 3")
    assert place is not None
    qtbot.mouseClick(page.gallery, LEFT, pos=place.toPoint())
    assert "rib 3" in page.large.accessibleName()
    qtbot.mouseClick(page.fit.buttons["loose"], LEFT)
    assert "swell" in page.fit.said.text()
    (tmp_path / "bad.dat").write_text("1 0\n0 0\n")
    page.open_section(tmp_path / "bad.dat")
    assert "bad.dat" in page.told.text().casefold()
    assert stab(demo).root_profile == "made.dat"


def test_spars_are_moved_and_deepened(qtbot: QtBot, make_window: Callable[[], MainWindow]) -> None:
    window = opened(make_window, marram())
    page = bench(window, "sections")
    assert isinstance(page, SectionsPage)
    for key, text in (("top|at_chord", "35"), ("top|depth", "4")):
        line = page.spars.fields[key].line
        line.setFocus()
        line.selectAll()
        qtbot.keyClicks(line, text)
        qtbot.keyClick(line, Qt.Key.Key_Return)
    spar = stab(window).spars[0]
    assert (spar.at_chord, spar.section) == (0.35, (3.0, 4.0))
    assert "notch 4.0 mm deep" in page.rib.lines.text()


def test_controls_say_what_touches_and_what_frees_it(qtbot: QtBot, demo: MainWindow) -> None:
    page = bench(demo, "controls")
    assert isinstance(page, ControlsPage)
    qtbot.waitUntil(lambda: "touches the rudder" in page.touches.answer.text(), timeout=5_000)
    line = page.figures.fields["inner"].line
    line.selectAll()
    qtbot.keyClicks(line, "30")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    qtbot.waitUntil(
        lambda: "touches the rudder" not in page.touches.answer.text() + page.touches.lines.text(),
        timeout=5_000,
    )
    line = page.figures.fields["up"].line
    line.selectAll()
    qtbot.keyClicks(line, "40")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert page.answer.answer.text().startswith("Bevel ")
    horn = page.linkage.fields["horn"].line
    horn.selectAll()
    qtbot.keyClicks(horn, "5")
    qtbot.keyClick(horn, Qt.Key.Key_Return)
    assert "longer than the horn can follow" in page.linkage.said.text()


def test_corners_are_read_clicked_and_kept_apart(qtbot: QtBot, demo: MainWindow) -> None:
    page = bench(demo, "flat")
    assert isinstance(page, FlatPage)
    assert page.answer.answer.text() == "Twisted."
    assert "flex the starboard tip, trailing edge up" in page.flex.lines.text()
    qtbot.mouseClick(page.phases["wet"], LEFT)
    assert page.answer.answer.text() == "Not read yet."
    at = page.board.spot_at("port_te")
    assert at is not None
    qtbot.mouseClick(page.board, LEFT, pos=at.toPoint())
    assert page.target == "port_te"
    for text in ("20.4", "20.3", "20.2", "20.3", "20.1", "20.2"):
        qtbot.keyClicks(page.corner.field.line, text)
        qtbot.keyClick(page.corner.field.line, Qt.Key.Key_Return)
    wet = [one for one in stab(demo).flatness if one.phase == "wet"]
    assert len(wet) == 6
    assert "turned leading edge down by" in page.answer.lines.text()
    assert "Since before the glue" in page.answer.lines.text()
    row = page.model.row(0)
    assert row is not None
    page.table.selectRow(0)
    qtbot.keyClick(page.table, Qt.Key.Key_Delete)
    assert len([one for one in stab(demo).flatness if one.phase == "wet"]) == 5
    demo.document.stack.undo()
    assert len([one for one in stab(demo).flatness if one.phase == "wet"]) == 6


def test_sticks_are_cut_one_after_the_other(qtbot: QtBot, demo: MainWindow) -> None:
    page = bench(demo, "sticks")
    assert isinstance(page, TailSticksPage)
    part = page.part
    assert part is not None
    qtbot.keyClick(page.cutting, Qt.Key.Key_Return)
    assert demo.document.build.listed.cut[part.key].pieces == 1
    before = page.board.accessibleDescription()
    for _ in range(12):
        qtbot.keyClick(page.cutting, Qt.Key.Key_Right)
    assert page.part is not None
    assert page.board.accessibleDescription() != before


def test_sheets_are_nested_and_written(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    window = opened(make_window, sallow())
    page = bench(window, "sheets")
    assert isinstance(page, TailSheetsPage)
    qtbot.waitUntil(lambda: bool(page.boards), timeout=20_000)
    assert "strip" in page.wood.answer.text()
    from hardkeel.ui.tabbed.sheet_controller import SheetController  # noqa: PLC0415  only here

    desk = tail_of(window).findChild(SheetController)
    assert desk is not None
    desk.write_templates(tmp_path, "A4")
    window.jobs.wait(30_000)
    assert list(tmp_path.rglob("*tail-templates-A4.pdf"))


def test_the_order_is_laid_out_and_stands_on_every_bench(qtbot: QtBot, demo: MainWindow) -> None:
    demo.document.apply("nothing laid", lay_all.of(()))
    page = bench(demo, "order")
    assert isinstance(page, TailOrderPage)
    qtbot.mouseClick(page.now.button, LEFT)
    assert page.model.rowCount() > 12
    assert page.now.answer.text().startswith("Cut the sticks of the stabilizer")
    surface_page(demo)
    line = tail_of(demo).order_line
    assert line.isVisible()
    assert line.words[0].startswith("Now: Cut the sticks")


def test_an_empty_build_says_what_to_do(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = opened(make_window, empty_build())
    for key in ("surface", "sticks", "sections", "controls", "flat", "sheets", "order"):
        bench(window, key)
    page = surface_page(window)
    assert page.now.answer.text() == "There is no tail surface yet."
    qtbot.mouseClick(page.now.button, LEFT)
    assert page.told.isVisible()  # without a fuselage there is nothing to put one on


def test_units_and_themes_reach_every_bench(demo: MainWindow) -> None:
    for key in ("surface", "sticks", "sections", "controls", "flat", "sheets", "order"):
        bench(demo, key)
    tail_of(demo).set_unit("in")
    assert surface_page(demo).frame.pinch.give.text().endswith("″")
    tail_of(demo).set_unit("mm")
    assert surface_page(demo).frame.pinch.give.text().endswith("mm")


def pick(page: TailOrderPage, step_id: str) -> None:
    rows = (page.model.row(i) for i in range(page.model.rowCount()))
    number = next(i for i, row in enumerate(rows) if row is not None and row.key == step_id)
    page.table.row_picked.emit(number)


def test_a_seat_shows_its_props_and_a_cover_takes_a_weight(demo: MainWindow) -> None:
    page = bench(demo, "order")
    assert isinstance(page, TailOrderPage)
    pick(page, "stab cut")
    assert page.props.isHidden()
    pick(page, "stab seat")
    assert page.props.isVisible()
    assert page.props.lines.text().count("mm, at station") == 4
    assert not page.props.weight.isVisible()
    pick(page, "stab cover")
    assert page.props.weight.isVisible()
    page.props.weight.line.setText("61.5")
    page.props.weight.take()
    masses = {mass.id: mass for mass in demo.document.build.masses}
    assert (masses["stab"].mass, masses["stab"].weighed) == (61.5, True)
    pick(page, "fin cover")
    assert page.props.weight.value is None
    pick(page, "stab cover")
    assert page.props.weight.value == 61.5


def test_covering_first_turns_the_order_round_and_says_what_it_asks(demo: MainWindow) -> None:
    page = bench(demo, "order")
    assert isinstance(page, TailOrderPage)
    ids = [step.id for step in demo.document.build.steps]
    assert ids.index("stab cover") > ids.index("stab seat")
    row = page.covering.findData("before")
    page.covering.setCurrentIndex(row)
    page.covering.activated.emit(row)
    ids = [step.id for step in demo.document.build.steps]
    assert ids.index("stab cover") < ids.index("stab seat")
    assert "never on the wood" in page.told.text()
    demo.document.stack.undo()
    assert page.covering.currentData() == "after"


def test_an_end_against_a_curve_is_fitted_not_set_by_the_jig(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = opened(make_window, withy())
    page = bench(window, "sticks")
    assert isinstance(page, TailSticksPage)
    sticks = page.reckoned()
    assert sticks is not None
    curved = [
        number
        for number, step in enumerate(sticks.steps)
        if any(len(end) > 2 for end in step.part.ends)
    ]
    assert curved
    for number in curved:
        part = sticks.steps[number].part
        shown = stick_shown(window.document.build, sticks, number, "mm")
        for end, words in zip(part.ends, shown.angle_words, strict=True):
            assert (words == "fit to the curve") == (len(end) > 2)
        assert "fit" in shown.jig
        assert ("no jig" in shown.jig) == all(len(end) > 2 for end in part.ends)
        for _ in range(len(sticks.steps)):
            if page.part is None or page.part.key != part.key:
                qtbot.keyClick(page.cutting, Qt.Key.Key_Right)
        straight = [f"{end[0]:.1f}°" for end in part.ends if len(end) <= 2]
        answer = page.now.answer.text()
        if straight:
            assert any(angle[:-3] in answer for angle in straight)
        else:
            assert answer == f"Fit the {part.kind} to the curve at both ends."


def test_a_flat_surface_is_built_of_ribs_from_where_it_is_looked_for(
    qtbot: QtBot, demo: MainWindow
) -> None:
    page = bench(demo, "sections")
    assert isinstance(page, SectionsPage)
    assert page.now.answer.text() == "A flat frame has no section."
    qtbot.mouseClick(page.now.button, LEFT)
    assert stab(demo).kind == "ribbed"
    assert page.ribs
    assert not page.now.isVisible()
    demo.document.stack.undo()
    assert stab(demo).kind == "stick"
    assert page.now.isVisible()
