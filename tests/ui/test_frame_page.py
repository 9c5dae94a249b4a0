"""Frame, driven as a builder does: cut by Enter, pick by mouse and key, change a figure, stop long work."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QApplication, QFileDialog, QLineEdit, QMenu
from pytestqt.qtbot import QtBot

from hardkeel.airframe.starters import start_from
from hardkeel.demo.fleet import DEMOS, marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import framing as edits
from hardkeel.edits.fuselage import fuselage_of, set_station
from hardkeel.joinery.jig import settings_needed
from hardkeel.project.model import empty_build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.bends_page import BendsPage
from hardkeel.ui.stages.frame.formers_page import FormersPage
from hardkeel.ui.stages.frame.guide_rows import GuideRows
from hardkeel.ui.stages.frame.members_page import MembersPage
from hardkeel.ui.stages.frame.sticks_page import SticksPage
from hardkeel.ui.tabbed.sheets_page import SheetsPage
from hardkeel.ui.tabbed.sticks_shown import sticks_of_build
from hardkeel.ui.widgets.wood_board import WoodBoard
from tests.edited import by_hand
from tests.stages_of import frame_of, sheets_of

LEFT = Qt.MouseButton.LeftButton


def settle(window: MainWindow) -> None:
    """Let the work beside the window end, and its answers arrive."""
    for _ in range(3):
        window.jobs.wait(20000)
        QApplication.processEvents()


@pytest.fixture
def framed(window: MainWindow) -> MainWindow:
    window.show_stage("frame")
    settle(window)
    return window


@pytest.fixture
def stick_build(make_window: Callable[[], MainWindow]) -> MainWindow:
    window = make_window()
    window.start(withy())
    window.show_stage("frame")
    settle(window)
    return window


def sticks(window: MainWindow) -> SticksPage:
    frame_of(window).turn_to("sticks")
    page = frame_of(window).page("sticks")
    assert isinstance(page, SticksPage)
    return page


def formers(window: MainWindow) -> FormersPage:
    frame_of(window).turn_to("formers")
    page = frame_of(window).page("formers")
    assert isinstance(page, FormersPage)
    return page


def members(window: MainWindow) -> MembersPage:
    frame_of(window).turn_to("members")
    page = frame_of(window).page("members")
    assert isinstance(page, MembersPage)
    return page


def sheets(window: MainWindow) -> SheetsPage:
    frame_of(window).turn_to("sheets")
    page = frame_of(window).page("sheets")
    assert isinstance(page, SheetsPage)
    settle(window)
    return page


def click(qtbot: QtBot, board: WoodBoard, ref: str) -> None:
    place = board.place_of(ref)
    assert place is not None
    qtbot.mouseClick(board, LEFT, pos=QPoint(round(place.x()), round(place.y())))


def type_in(qtbot: QtBot, line: QLineEdit, text: str) -> None:
    line.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, text)
    qtbot.keyClick(line, Qt.Key.Key_Return)


# -- sticks ---------------------------------------------------------------------------------------


def test_enter_cuts_one_stick_after_another_in_the_jigs_order(
    qtbot: QtBot, stick_build: MainWindow
) -> None:
    page = sticks(stick_build)
    before = sticks_of_build(stick_build.document.build)
    first = page.cutting.stick
    assert first is not None
    assert "cut 2 more" in first.about
    qtbot.keyClick(page.cutting, Qt.Key.Key_Return)
    second = page.cutting.stick
    assert second is not None
    assert (second.title, "cut 1 more" in second.about) == (first.title, True)
    qtbot.keyClick(page.cutting, Qt.Key.Key_Space)
    third = page.cutting.stick
    assert third is not None
    assert third.title != first.title
    after = sticks_of_build(stick_build.document.build)
    assert after.cut == before.cut + 2
    titles = [step.part.name for step in after.steps]
    assert titles.index(third.title.lower()) > titles.index(first.title.lower())


def test_all_sticks_can_be_cut_with_enter_alone(qtbot: QtBot, stick_build: MainWindow) -> None:
    page = sticks(stick_build)
    state = sticks_of_build(stick_build.document.build)
    for _ in range(state.wanted - state.cut):
        qtbot.keyClick(page.cutting, Qt.Key.Key_Return)
    state = sticks_of_build(stick_build.document.build)
    assert state.cut == state.wanted
    qtbot.keyClick(page.cutting, Qt.Key.Key_Return)  # one too many does nothing
    assert sticks_of_build(stick_build.document.build) == state
    assert page.now.answer.text().startswith("Print the formers")
    assert not page.cut.isEnabled()


def test_a_cut_can_be_taken_back_and_undone(qtbot: QtBot, stick_build: MainWindow) -> None:
    page = sticks(stick_build)
    before = stick_build.document.build
    qtbot.mouseClick(page.cut, LEFT)
    assert stick_build.document.build != before
    assert stick_build.document.stack.undoText().startswith("cut ")
    stick_build.document.stack.undo()
    assert stick_build.document.build == before
    qtbot.mouseClick(page.cut, LEFT)
    qtbot.keyClick(page.cutting, Qt.Key.Key_Backspace)
    assert stick_build.document.build.listed.cut == before.listed.cut
    for _ in range(40):  # and further back than there is anything
        qtbot.mouseClick(page.back, LEFT)
    assert stick_build.document.build.listed.cut == {}


def test_a_stick_is_picked_in_the_drawing_and_by_arrows(
    qtbot: QtBot, stick_build: MainWindow
) -> None:
    page = sticks(stick_build)
    state = sticks_of_build(stick_build.document.build)
    uncut = next(
        s.part for i, s in enumerate(state.steps) if not state.is_cut(i) and s.part.outline
    )
    click(qtbot, page.board, uncut.key)
    shown = page.cutting.stick
    assert shown is not None
    assert shown.title.lower() == uncut.name
    assert page.board.chosen == uncut.key
    qtbot.keyClick(page.cutting, Qt.Key.Key_Right)
    other = page.cutting.stick
    assert other is not None
    assert other.title != shown.title
    qtbot.keyClick(page.cutting, Qt.Key.Key_Left)
    assert page.cutting.stick == shown


def test_what_is_in_the_views_figures_is_the_cut_list(stick_build: MainWindow) -> None:
    page = sticks(stick_build)
    state = sticks_of_build(stick_build.document.build)
    said = page.cutting.accessibleDescription()
    shown = page.cutting.stick
    assert shown is not None
    step = next(s for s in state.steps if s.part.name == shown.title.lower())
    assert f"{step.part.length:.1f} mm" == shown.length
    assert shown.length in said
    assert shown.jig.startswith("set the jig to")
    us = [u for u, _ in shown.outline]
    assert max(us) - min(us) == pytest.approx(step.part.length)
    assert settings_needed(state.steps) < 2 * len(state.steps)


def test_a_changed_drawing_says_that_the_stick_is_too_short(
    qtbot: QtBot, stick_build: MainWindow
) -> None:
    page = sticks(stick_build)
    key = next(iter(stick_build.document.build.listed.cut))
    cut = sticks_of_build(stick_build.document.build).cut
    fuselage = stick_build.document.build.fuselage
    assert fuselage is not None
    for name in ("F2", "F3"):
        former = fuselage.former(name)
        assert former is not None
        top = former.top + 5
        stick_build.document.apply("raise", set_station.of(name, top=top))
    assert sticks_of_build(stick_build.document.build).cut < cut
    click(qtbot, page.board, key)
    shown = page.cutting.stick
    assert shown is not None
    assert "too short: the drawing has changed since" in shown.warning


def test_ends_can_be_seen_at_their_true_size(qtbot: QtBot, stick_build: MainWindow) -> None:
    page = sticks(stick_build)
    page.true_size.setFocus()
    plain = page.cutting.grab().toImage()
    qtbot.mouseClick(page.true_size, LEFT)
    assert page.cutting.grab().toImage() != plain
    qtbot.mouseClick(page.true_size, LEFT)
    assert page.cutting.grab().toImage() == plain


def test_the_worst_finding_leads_to_its_former(qtbot: QtBot, framed: MainWindow) -> None:
    page = sticks(framed)
    assert "F2" in page.finding.eyebrow.text()
    assert page.finding.answer.text() == "The pack runs out over its edge."
    qtbot.mouseClick(page.finding.show_it, LEFT)
    assert frame_of(framed).now == "formers"
    former = formers(framed).former
    assert former is not None
    assert former.id == "F2"


def test_strips_to_buy_are_told(framed: MainWindow) -> None:
    page = sticks(framed)
    settle(framed)
    assert page.wood.answer.text() == "Five strips."
    assert "beside 2 of your rack" in page.wood.lines.text()


# -- formers --------------------------------------------------------------------------------------


def test_a_former_picked_in_the_gallery_is_the_one_in_hand_everywhere(
    qtbot: QtBot, framed: MainWindow
) -> None:
    page = formers(framed)
    click(qtbot, page.gallery, "F5")
    assert page.former is not None
    assert page.former.id == "F5"
    assert page.large.chosen == "F5"
    assert members(framed).side.chosen == "F5"
    assert frame_of(framed).chosen == "F5"
    qtbot.keyClick(page.gallery, Qt.Key.Key_Right)
    assert page.former.id == "F6"


def test_a_former_on_the_keel_line_is_taken_in_hand(qtbot: QtBot, framed: MainWindow) -> None:
    page = formers(framed)
    keel = framed.header.keel
    found = ""
    for x in range(300, 950, 3):
        qtbot.mouseClick(keel, LEFT, pos=QPoint(x, 100))
        former = page.former
        assert former is not None
        if former.id != "F1":
            found = former.id
            break
    assert found == "F2"


def test_a_formers_own_figures_are_changed_in_place(qtbot: QtBot, framed: MainWindow) -> None:
    page = formers(framed)
    click(qtbot, page.gallery, "F4")
    type_in(qtbot, page.card.fields["thickness"].line, "4")
    qtbot.mouseClick(page.split, LEFT, pos=QPoint(8, page.split.height() // 2))
    former = framed.document.build.fuselage.former("F4")  # type: ignore[union-attr]
    assert former is not None
    assert (former.thickness, former.split) == (4.0, True)
    assert page.made.currentData() == ""
    page.made.setCurrentIndex(page.made.findData("lap"))
    page.made.activated.emit(page.made.currentIndex())
    former = framed.document.build.fuselage.former("F4")  # type: ignore[union-attr]
    assert former is not None
    assert (former.sticks, former.joint) == ((8.0, 3.0), "lap")
    type_in(qtbot, page.card.fields["wide"].line, "9.5")
    former = framed.document.build.fuselage.former("F4")  # type: ignore[union-attr]
    assert former is not None
    assert former.sticks == (9.5, 3.0)
    for _ in range(4):
        framed.document.stack.undo()
    assert framed.document.build.fuselage.former("F4").sticks is None  # type: ignore[union-attr]


def test_a_wider_web_finds_more(qtbot: QtBot, framed: MainWindow) -> None:
    page = formers(framed)
    click(qtbot, page.gallery, "F3")
    assert page.trouble.answer.text() == "This one is sound."
    type_in(qtbot, page.card.fields["web"].line, "12")
    assert page.trouble.answer.text() == "Little wood is left beside the pack."


# -- members --------------------------------------------------------------------------------------


def test_a_member_is_added_changed_and_taken_out(qtbot: QtBot, framed: MainWindow) -> None:
    page = members(framed)
    page.kind.setCurrentIndex(page.kind.findData("stringer"))
    qtbot.mouseClick(page.add, LEFT)
    assert page.member is not None
    assert page.member.id == "stringer"
    type_in(qtbot, page.card.fields["angle"].line, "70")
    type_in(qtbot, page.card.fields["deep"].line, '1/8"')
    page.last.setCurrentIndex(page.last.findData("F6"))
    page.last.activated.emit(page.last.currentIndex())
    page.wood.setCurrentIndex(page.wood.findData("pine"))
    page.wood.activated.emit(page.wood.currentIndex())
    made = page.member
    assert made is not None
    assert (made.angle, made.section, made.to, made.material) == (70.0, (3.0, 3.175), "F6", "pine")
    qtbot.mouseClick(page.remove, LEFT)
    assert all(one.id != "stringer" for one in framed.document.build.fuselage.framed.members)  # type: ignore[union-attr]


def test_rows_and_drawing_take_the_same_member_in_hand(qtbot: QtBot, framed: MainWindow) -> None:
    page = members(framed)
    page.table.selectRow(page.model.number_of("servo tray"))
    assert page.side.chosen == page.above.chosen == "servo tray"
    click(qtbot, page.above, "battery tray")
    assert page.member is not None
    assert page.member.id == "battery tray"
    assert page.table.currentIndex().row() == page.model.number_of("battery tray")


def test_a_figure_that_can_not_be_is_said_and_nothing_has_changed(
    qtbot: QtBot, framed: MainWindow
) -> None:
    page = members(framed)
    page.table.selectRow(page.model.number_of("servo tray"))
    before = framed.document.build
    type_in(qtbot, page.card.fields["thickness"].line, "0")
    assert framed.document.build == before
    assert page.told.isVisible()


def test_bracing_is_changed_and_sticks_follow(qtbot: QtBot, framed: MainWindow) -> None:
    page = members(framed)
    count = len(sticks_of_build(framed.document.build).steps)
    page.pattern.setCurrentIndex(page.pattern.findData("crossed"))
    page.pattern.activated.emit(page.pattern.currentIndex())
    assert len(sticks_of_build(framed.document.build).steps) > count
    type_in(qtbot, page.bracing.fields["upright.1"].line, "6")
    bracing = framed.document.build.fuselage.bracing  # type: ignore[union-attr]
    assert bracing is not None
    assert bracing.upright == (5.0, 6.0)


def test_an_unframed_fuselage_is_framed_with_one_click(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    build = marram()
    window.start(build.but(fuselage=build.fuselage.but(framing=None)))  # type: ignore[union-attr]
    window.show_stage("frame")
    page = sticks(window)
    assert page.now.answer.text() == "Give it its members."
    qtbot.mouseClick(page.now.button, LEFT)
    assert window.document.build.fuselage.framed.members  # type: ignore[union-attr]
    assert page.now.answer.text() != "Give it its members."


# -- bends ----------------------------------------------------------------------------------------


def test_a_bend_too_tight_is_named_with_its_ways_out(framed: MainWindow) -> None:
    framed.document.apply(
        "thicken",
        by_hand(lambda b: b.but(fuselage=fuselage_of(b).but(side_thickness=12.0))),
    )
    for name, half in (("F2", 20.0), ("F3", 45.0), ("F4", 20.0)):
        framed.document.apply("bend", set_station.of(name, half_width=half))
    frame_of(framed).turn_to("bends")
    page = frame_of(framed).page("bends")
    assert isinstance(page, BendsPage)
    assert page.answer.answer.text() == "Side: too tight as it is."
    assert "Laminate it:" in page.answer.lines.text()
    assert "scald" in page.answer.lines.text()
    assert "N at the nose" in page.pulling.lines.text()
    page.wood.setCurrentIndex(page.wood.findData("light-ply"))
    page.wood.activated.emit(page.wood.currentIndex())
    assert framed.document.build.fuselage.side_material == "light-ply"  # type: ignore[union-attr]
    page.table.selectRow(1)
    page.wood.setCurrentIndex(page.wood.findData("basswood"))
    page.wood.activated.emit(page.wood.currentIndex())
    assert framed.document.build.fuselage.longerons[0].material == "basswood"  # type: ignore[union-attr]
    assert page.answer.answer.text().startswith("Upper longeron from above")
    assert page.chart.accessibleDescription()


# -- wood and sheets ------------------------------------------------------------------------------


def test_pieces_are_laid_on_sheets_beside_the_window(framed: MainWindow) -> None:
    page = sheets(framed)
    assert len(page.boards) == 7
    assert page.wood.answer.text() == "Five strips and seven sheets."
    assert "Sheets of 1000 mm by 100 mm:" in page.wood.lines.text()


def test_saw_sheet_and_rack_are_the_builders(qtbot: QtBot, framed: MainWindow) -> None:
    page = sheets(framed)
    type_in(qtbot, page.saw.fields["width"].line, "75")
    settle(framed)
    assert framed.document.build.fuselage.framed.sheet == (1000.0, 75.0)  # type: ignore[union-attr]
    assert "75 mm" in page.wood.lines.text()
    type_in(qtbot, page.rack, "9 of 6 x 6 x 1000 spruce")
    settle(framed)
    assert "4 of your rack will do" in page.wood.lines.text()
    type_in(qtbot, page.rack, "some strips")
    assert page.told.isVisible()
    assert len(framed.document.build.fuselage.framed.stock) == 1  # type: ignore[union-attr]


def test_a_piece_picked_on_its_sheet_is_in_hand_elsewhere(qtbot: QtBot, framed: MainWindow) -> None:
    page = sheets(framed)
    board = next(board for board in page.boards if board.place_of("F4") is not None)
    click(qtbot, board, "F4")
    assert frame_of(framed).chosen == "F4"


def test_long_work_is_seen_and_can_be_stopped(qtbot: QtBot, framed: MainWindow) -> None:
    frame_of(framed).turn_to("sheets")
    page = frame_of(framed).page("sheets")
    assert isinstance(page, SheetsPage)
    qtbot.waitUntil(page.stop.isVisible, timeout=5000)
    qtbot.mouseClick(page.stop, LEFT)
    assert not page.stop.isVisible()
    settle(framed)
    assert page.boards == []
    page.refresh()
    settle(framed)
    assert page.boards


def test_templates_are_written_where_the_builder_says(
    qtbot: QtBot, framed: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = sheets(framed)
    folder = tmp_path / "out"
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_: str(folder))
    page.paper.setCurrentIndex(page.paper.findData("A3"))
    qtbot.mouseClick(page.write, LEFT)
    settle(framed)
    assert (folder / "kettlewick-1280-templates-A3.pdf").exists()
    assert f"The templates are in {folder}." in framed.notice.text
    (folder / "kettlewick-1280-cut-list.csv").write_text("mine")
    sheets_of(framed).write_templates(folder, "A3")
    settle(framed)
    assert "No templates were written" in framed.notice.text
    assert (folder / "kettlewick-1280-cut-list.csv").read_text() == "mine"


def test_a_printer_is_made_up_for_by_its_print_check(framed: MainWindow) -> None:
    page = sheets(framed)
    assert [page.printer.itemData(i) for i in range(page.printer.count())] == [
        "",
        "former templates",
    ]
    page.printer.setCurrentIndex(1)
    page.printer.activated.emit(1)
    assert framed.document.build.fuselage.framed.printer == "former templates"  # type: ignore[union-attr]


# -- all of it ------------------------------------------------------------------------------------


def test_an_empty_bench_says_what_comes_first(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    window.start(empty_build())
    for stage in ("frame", "paper"):  # nothing to frame or print: the doors lead to it
        window.show_stage(stage)
        assert not window.stage
        assert window.blank.isVisible()
    window.blank.plan.click()
    assert window.stage == "layout"
    window.start(start_from("crutch", 1200.0, 940.0, "Mine"))
    window.show_stage("frame")
    assert window.stage == "frame"


@pytest.mark.parametrize("make", [marram, sallow, withy])
def test_every_bench_shows_every_demo(
    make_window: Callable[[], MainWindow], make: Callable[[], object]
) -> None:
    window = make_window()
    window.start(make())  # type: ignore[arg-type]
    window.show_stage("frame")
    for place in ("sticks", "formers", "members", "bends", "sheets"):
        frame_of(window).turn_to(place)
        settle(window)
        frame_of(window).page(place).grab()


def test_demos_are_opened_from_the_menu(qtbot: QtBot, window: MainWindow) -> None:
    window.menu.aboutToShow.emit()
    wanted = [f"{demo.name}: {demo.framed}" for demo in DEMOS]
    menus = window.menu.findChildren(QMenu)
    found = [action for menu in menus for action in menu.actions()]
    actions = {action.text(): action for action in found}
    assert set(wanted) <= set(actions)
    actions[wanted[0]].trigger()
    assert window.document.build.name == DEMOS[0].name


def test_edits_of_a_frame_reach_ledger_weights_and_balance(framed: MainWindow) -> None:
    """One set of figures: a thicker tray weighs more on Lay out's benches too."""
    before = {mass.id: mass.mass for mass in framed.document.build.masses}
    framed.document.apply("thicken", edits.set_member.of("servo tray", thickness=4.0))
    after = {mass.id: mass.mass for mass in framed.document.build.masses}
    assert after["servo tray"] == pytest.approx(2 * before["servo tray"], rel=0.02)


def places(page: MembersPage) -> int:
    return len(page.member.route) if page.member is not None else 0


def test_a_guide_runs_from_place_to_place_and_says_where_it_comes_out(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    window.start(demo_build())
    window.show_stage("frame")
    frame_of(window).turn_to("members")
    page = frame_of(window).page("members")
    assert isinstance(page, MembersPage)
    page.kind.setCurrentIndex(page.kind.findData("guide"))
    qtbot.mouseClick(page.add, Qt.MouseButton.LeftButton)
    assert page.member is not None
    assert page.member.kind == "guide"
    rows = page.findChild(GuideRows)
    assert rows is not None
    assert rows.isVisible()
    assert "comes through the starboard side" in rows.way.text()
    assert not page.first.isVisible()
    assert not rows.one_fewer.isEnabled()
    qtbot.mouseClick(rows.one_more, Qt.MouseButton.LeftButton)
    assert places(page) == 3
    page.card.figure_changed.emit("place.1.2", 18.0)
    assert page.member.route[1][2] == 18.0
    assert "Tightest at" in rows.way.text()
    page.card.figure_changed.emit("place.1.0", 5000.0)
    assert page.told.isVisible()
    assert "behind" in page.told.text()
    qtbot.mouseClick(rows.one_fewer, Qt.MouseButton.LeftButton)
    assert places(page) == 2
    page.choose("doubler")
    assert not rows.isVisible()
    assert page.first.isVisible()
