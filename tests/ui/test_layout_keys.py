"""Lay out without a mouse, and what the desk says when the disk or a file does not do its part."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QFileDialog, QInputDialog, QLineEdit, QWidget
from pytestqt.qtbot import QtBot
from reportlab.pdfgen.canvas import Canvas

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.paper.model import Plan
from hardkeel.project.model import empty_build
from hardkeel.storage.package import save
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.audit_page import AuditPage
from hardkeel.ui.stages.layout.balance_page import BalancePage
from hardkeel.ui.stages.layout.parts_page import PartsPage
from hardkeel.ui.stages.layout.woods_page import WoodsPage
from tests.stages_of import drawings_of, layout_of, scans_of

CTRL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


@pytest.fixture
def active(qtbot: QtBot, window: MainWindow) -> MainWindow:
    window.activateWindow()
    window.show_stage("layout")
    qtbot.waitUntil(window.isActiveWindow)
    return window


def focus() -> QWidget:
    found = QApplication.focusWidget()
    assert found is not None
    return found


def wait_for_place(qtbot: QtBot, window: MainWindow, place: str) -> None:
    """A button's key presses it visibly: its click comes a moment later."""
    qtbot.waitUntil(lambda: place in (window.stage, layout_of(window).now))


def wait_for_plans(qtbot: QtBot, window: MainWindow, count: int) -> None:
    qtbot.waitUntil(lambda: len(window.document.build.plans) == count, timeout=20000)


def test_stages_and_benches_are_reached_by_keys(qtbot: QtBot, active: MainWindow) -> None:
    for number, stage in enumerate(("layout", "frame", "tail", "true", "bench", "log"), start=1):
        qtbot.keyClick(active, getattr(Qt.Key, f"Key_{number}"), CTRL)
        wait_for_place(qtbot, active, stage)
    qtbot.keyClick(active, Qt.Key.Key_1, CTRL)
    wait_for_place(qtbot, active, "layout")
    tab_keys = ("airframe", "paper", "audit", "parts", "woods", "balance", "check")
    for number, bench in enumerate(tab_keys, start=1):
        qtbot.keyClick(active, getattr(Qt.Key, f"Key_{number}"), CTRL | SHIFT)
        wait_for_place(qtbot, active, bench)


def test_each_bench_puts_the_cursor_where_the_hands_are(active: MainWindow) -> None:
    page = layout_of(active)
    page.turn_to("airframe")
    assert focus() is page.airframe.board
    page.turn_to("parts")
    parts = page.page("parts")
    assert isinstance(parts, PartsPage)
    assert focus() is parts.table
    page.turn_to("audit")
    audit = page.page("audit")
    assert isinstance(audit, AuditPage)
    assert focus() is audit.part


def test_a_dimension_is_entered_from_field_to_field_with_tab(
    qtbot: QtBot, active: MainWindow
) -> None:
    layout_of(active).turn_to("audit")
    page = layout_of(active).page("audit")
    assert isinstance(page, AuditPage)
    count = len(active.document.build.audit[0].pairs)
    qtbot.keyClicks(page.part, "F6")
    for text in (None, None, "40", "40.6"):
        qtbot.keyClick(focus(), Qt.Key.Key_Tab)
        if text is not None:
            assert isinstance(focus(), QLineEdit)
            qtbot.keyClicks(focus(), text)
    qtbot.keyClick(focus(), Qt.Key.Key_Return)
    pairs = active.document.build.audit[0].pairs
    assert len(pairs) == count + 1
    assert (pairs[-1].part, pairs[-1].plan, pairs[-1].measured) == ("F6", 40.0, 40.6)
    assert focus() is page.part  # ready for the next


def test_a_weight_is_typed_straight_into_the_table(qtbot: QtBot, active: MainWindow) -> None:
    layout_of(active).turn_to("parts")
    page = layout_of(active).page("parts")
    assert isinstance(page, PartsPage)
    row = page.model.number_of("F6")
    page.table.setCurrentIndex(page.model.index(row, 5))
    qtbot.keyClick(page.table, Qt.Key.Key_7)
    editor = page.table.findChild(QLineEdit)
    assert editor is not None
    editor.setText("7.7")
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: active.document.build.listed.weighed.get("F6") == 7.7)
    assert active.document.build.listed.states["F6"] == "glued"  # Enter took the figure, no more
    page.filter.setText("longeron")
    assert page.model.rowCount() == 2
    page.filter.setText("nothing like it")
    assert page.model.rowCount() == 0


def test_a_mass_is_struck_out_and_brought_back(qtbot: QtBot, active: MainWindow) -> None:
    layout_of(active).turn_to("balance")
    page = layout_of(active).page("balance")
    assert isinstance(page, BalancePage)
    row = page.model.number_of("receiver")
    page.table.setCurrentIndex(page.model.index(row, 0))
    qtbot.keyClick(page.table, Qt.Key.Key_Delete)
    assert all(mass.id != "receiver" for mass in active.document.build.masses)
    qtbot.keyClick(active, Qt.Key.Key_Z, CTRL)
    assert any(mass.id == "receiver" for mass in active.document.build.masses)
    for field, text, words in (
        ("name", "", "Say what it is"),
        ("grams", "heavy", "not a number"),
        ("grams", "-4", "less than 0"),
        ("station", "far", "not a length"),
    ):
        page.name.setText("x")
        page.grams.setText("5")
        page.station.setText("10")
        getattr(page, field).setText(text)
        qtbot.keyClick(page.station, Qt.Key.Key_Return)
        assert words in page.told.text()
    assert all(mass.id != "x" for mass in active.document.build.masses)


def test_the_hatch_and_the_pack_are_typed_figure_by_figure(
    qtbot: QtBot, active: MainWindow
) -> None:
    layout_of(active).turn_to("balance")
    page = layout_of(active).page("balance")
    assert isinstance(page, BalancePage)

    def settle(key: str, text: str) -> None:
        line = page.pack.fields[key].line
        line.setText(text)
        qtbot.keyClick(line, Qt.Key.Key_Return)

    for key, text in (
        ("length", "140"),
        ("width", "60"),
        ("height", "55"),
        ("hatch_front", "40"),
        ("hatch_rear", "130"),
        ("hatch_width", "45"),
    ):
        settle(key, text)
    balance = active.document.build.balance
    assert balance is not None
    assert balance.battery is not None
    assert balance.battery.size == (140.0, 60.0, 55.0)
    assert balance.hatches[0].between == (40.0, 130.0)
    settle("hatch_front", "200")  # past its end: the end goes along
    assert active.document.build.balance.hatches[0].between[1] > 200  # type: ignore[union-attr]
    settle("mass", "lots")
    assert page.pack.fields["mass"].line.property("wrong")


def test_files_are_asked_for_and_a_cancelled_question_changes_nothing(
    qtbot: QtBot, active: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    before = active.document.build
    answers: list[str] = [""]
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: (answers[0], ""))
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (answers[0], ""))
    desk = drawings_of(active)
    scans_of(active).open_scan()
    desk.bring_outline()
    desk.write_former("F3")
    desk.write_parts()
    assert active.document.build == before
    answers[0] = str(tmp_path / "parts.csv")
    desk.write_parts()
    assert (tmp_path / "parts.csv").read_text(encoding="utf-8").startswith("id,name")
    answers[0] = str(tmp_path / "F3.dxf")
    desk.write_former("F3")
    layout_of(active).airframe.choose_station("F6")
    desk.bring_outline()
    qtbot.waitUntil(
        lambda: active.document.stack.undoText() == "outline of F6 from F3.dxf", timeout=20000
    )
    answers[0] = str(tmp_path / "no such folder" / "x.csv")
    desk.write_parts()
    assert "Not written" in active.notice.text


def test_a_pdf_of_several_pages_asks_which(
    qtbot: QtBot, active: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    sheet = Canvas(str(tmp_path / "plans.pdf"), pagesize=(300, 200))
    for _ in range(3):
        sheet.line(10, 10, 200, 100)
        sheet.showPage()
    sheet.save()
    name = str(tmp_path / "plans.pdf")
    asked: list[str] = []

    def which(*arguments: object, **_more: object) -> tuple[int, bool]:
        asked.append(str(arguments[2]))
        return 2, len(asked) > 1

    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: (name, ""))
    monkeypatch.setattr(QInputDialog, "getInt", which)
    layout_of(active).turn_to("paper")
    scans_of(active).open_scan()
    qtbot.waitUntil(lambda: len(asked) == 1, timeout=20000)
    assert active.document.build.plans == ()  # given up at the question
    scans_of(active).open_scan()
    qtbot.waitUntil(lambda: bool(active.document.build.plans), timeout=10000)
    assert asked == ["plans.pdf has 3 pages."] * 2
    (tmp_path / "plans.pdf").write_bytes(b"%PDF broken")
    scans_of(active).open_scan()
    qtbot.waitUntil(lambda: "can't be read as a PDF" in active.notice.text, timeout=20000)


def test_the_same_scan_twice_gets_a_name_of_its_own(qtbot: QtBot, active: MainWindow) -> None:
    layout_of(active).turn_to("paper")
    desk = layout_of(active).paper
    for count in (1, 2):
        scans_of(active).lay_sample()
        wait_for_plans(qtbot, active, count)
    names = [plan.id for plan in active.document.build.plans]
    assert names == ["made-up plan page", "made-up plan page 2"]
    assert active.document.build.plans[0].image == active.document.build.plans[1].image
    desk.show_plan(names[0])
    assert desk.plan is not None
    assert desk.plan.id == names[0]


def test_an_image_that_is_gone_is_told_once_and_the_rest_goes_on(
    make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    lost = demo_build().but(plans=(Plan(id="p", image="plans/gone.png"),))
    save(lost, tmp_path / "a.keel")
    window = make_window()
    window.open_path(tmp_path / "a.keel")
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    assert "open it again" in window.notice.text
    window.document.apply("x", drawing_edits.set_station.of("F4", top=44.0))
    assert window.save()


def test_from_the_blank_page_one_comes_to_the_plan(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    qtbot.mouseClick(window.blank.plan, Qt.MouseButton.LeftButton)
    assert window.stage == "layout"
    assert layout_of(window).now == "paper"
    assert layout_of(window).paper.empty.open.isVisible()


def test_picking_a_part_on_the_keel_line_takes_it_in_hand_on_the_board(
    active: MainWindow,
) -> None:
    active.header.body_picked.emit("stab")
    page = layout_of(active).airframe
    assert page.surface.isVisible()
    assert not page.former.isVisible()
    page.choose_station("F2")
    assert page.former.isVisible()
    assert not page.surface.isVisible()


def test_a_swap_is_made_and_the_balance_follows(qtbot: QtBot, active: MainWindow) -> None:
    layout_of(active).turn_to("woods")
    page = layout_of(active).page("woods")
    assert isinstance(page, WoodsPage)
    assert not page.swap.isVisible()  # no part is named yet
    row = page.part.findData("F6")
    page.part.setCurrentIndex(row)
    page.part.activated.emit(row)
    page.choices[1][0].setCurrentIndex(page.choices[1][0].findData("birch-ply"))
    page.choices[1][1].set_value(4.0)
    before = {mass.id: mass.mass for mass in active.document.build.masses}
    qtbot.mouseClick(page.swap, Qt.MouseButton.LeftButton)
    former = active.document.build.fuselage.former("F6")  # type: ignore[union-attr]
    assert (former.material, former.thickness) == ("birch-ply", 4.0)  # type: ignore[union-attr]
    after = {mass.id: mass.mass for mass in active.document.build.masses}
    assert after["F6"] > 1.8 * before["F6"]
    assert page.choices[0][0].currentData() == "birch-ply"  # now it is what there is
    row = page.part.findData("wing_half")
    page.part.setCurrentIndex(row)
    page.part.activated.emit(row)
    assert not page.swap.isVisible()


def test_clearing_the_bench_leads_to_the_kinds_of_airframe(
    active: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    active.document.stack.setClean()
    active.clear_bench()
    assert active.stage == "layout"
    assert active.document.build == empty_build()
    assert layout_of(active).airframe.picker.isVisible()
