"""Lay out driven as a builder would drive it: dragging, typing, clicking along a plan."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QLineEdit
from pytestqt.modeltest import ModelTester
from pytestqt.qtbot import QtBot
from reportlab.pdfgen.canvas import Canvas

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build, demo_fuselage
from hardkeel.demo.plan_page import PlanPage
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.fuselage.model import Former, TailPost
from hardkeel.paper.model import Trace
from hardkeel.storage.package import load
from hardkeel.ui.jobs.scans import image_from, pages_of, read_scan
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.audit_page import AuditPage
from hardkeel.ui.stages.layout.balance_page import BalancePage
from hardkeel.ui.stages.layout.paper_page import PaperPage
from hardkeel.ui.stages.layout.parts_page import PartsPage
from hardkeel.ui.stages.layout.woods_page import WoodsPage
from tests.draws import draws
from tests.scans import page_of_the_demo
from tests.stages_of import drawings_of, layout_of, scans_of, true_of

LEFT = Qt.MouseButton.LeftButton
CTRL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


@pytest.fixture
def laid(window: MainWindow) -> MainWindow:
    """The demo with the Lay out stage in view."""
    window.show_stage("layout")
    return window


def stop(window: MainWindow, name: str) -> Former | TailPost:
    assert window.document.build.fuselage is not None
    return dict(window.document.build.fuselage.stations)[name]


def state(window: MainWindow, part: str) -> str:
    return window.document.build.listed.states[part]


def traces(window: MainWindow) -> tuple[Trace, ...]:
    return window.document.build.plans[0].traces


def type_in(qtbot: QtBot, line: QLineEdit, text: str) -> None:
    line.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, text)
    qtbot.keyClick(line, Qt.Key.Key_Return)


def desk_with_page(qtbot: QtBot, window: MainWindow) -> PaperPage:
    """The paper desk with the made-up page on it."""
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    desk = layout_of(window).paper
    qtbot.mouseClick(desk.empty.sample, LEFT)
    qtbot.waitUntil(lambda: desk.sheet.has_image, timeout=20000)
    return desk


def drag(qtbot: QtBot, window: MainWindow, name: str, grip: str, by: QPoint) -> None:
    board = layout_of(window).airframe.board
    start = board.handle_position(name, grip)
    assert start is not None
    at = start.toPoint()
    qtbot.mousePress(board, LEFT, pos=at)
    for share in (0.3, 0.7, 1.0):
        qtbot.mouseMove(board, at + QPoint(round(by.x() * share), round(by.y() * share)))
    qtbot.mouseRelease(board, LEFT, pos=at + by)


def test_a_former_is_dragged_wider_and_everything_follows(qtbot: QtBot, laid: MainWindow) -> None:
    before = laid.document.build
    drag(qtbot, laid, "F3", "half_width", QPoint(0, -12))
    now = stop(laid, "F3")
    assert now.half_width > before.fuselage.former("F3").half_width + 5  # type: ignore[union-attr]
    assert laid.document.stack.undoText() == "drag half-width of F3"
    assert layout_of(laid).airframe.stop == "F3"
    mark = laid.document.build.surveyed.mark("longeron_starboard")
    assert mark is not None
    assert mark.at[1] == now.half_width  # the survey's mark sits on the widest former
    qtbot.keyClick(laid, Qt.Key.Key_Z, CTRL)
    assert laid.document.build == before


def test_a_corner_in_the_section_moves_width_and_height_and_the_views_keep_their_scale(
    qtbot: QtBot, laid: MainWindow
) -> None:
    board = layout_of(laid).airframe.board
    layout_of(laid).airframe.choose_station("F4")
    before = stop(laid, "F4")
    still = board.handle_position("F1", "top")
    start = board.handle_position("F4", "corner-top")
    assert start is not None
    qtbot.mousePress(board, LEFT, pos=start.toPoint())
    qtbot.mouseMove(board, start.toPoint() + QPoint(-9, -9))
    assert board.handle_position("F1", "top") == still
    assert stop(laid, "F4") == before  # nothing is in the document before the hand lets go
    qtbot.mouseRelease(board, LEFT, pos=start.toPoint() + QPoint(-9, -9))
    now = stop(laid, "F4")
    assert now.half_width > before.half_width
    assert now.top > before.top


def test_a_station_can_not_be_dragged_over_its_neighbour(qtbot: QtBot, laid: MainWindow) -> None:
    layout_of(laid).airframe.choose_station("F5")
    drag(qtbot, laid, "F5", "station", QPoint(400, 0))
    assert stop(laid, "F4").station < stop(laid, "F5").station < stop(laid, "F6").station


def test_arrow_keys_nudge_the_former_in_hand(qtbot: QtBot, laid: MainWindow) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F4")
    before = stop(laid, "F4")
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    qtbot.keyClick(page.board, Qt.Key.Key_Down, SHIFT)
    qtbot.keyClick(page.board, Qt.Key.Key_Right, CTRL)
    now = stop(laid, "F4")
    assert now.top == pytest.approx(before.top + 0.5)
    assert now.bottom == pytest.approx(before.bottom - 0.5)
    assert now.half_width == pytest.approx(before.half_width + 0.1)


def test_figures_are_typed_in_inches_and_nonsense_is_told_and_loses_nothing(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F4")
    type_in(qtbot, page.former.fields["half_width"].line, "1-3/16")
    assert stop(laid, "F4").half_width == pytest.approx(30.1625, abs=1e-3)
    before = laid.document.build
    type_in(qtbot, page.former.fields["top"].line, "-80")
    assert laid.document.build == before
    assert "not above its bottom" in page.told.text()


def test_a_figure_that_hardly_any_model_has_is_asked_about_once(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F4")
    before = laid.document.build
    type_in(qtbot, page.former.fields["half_width"].line, "37in")
    assert laid.document.build == before
    assert "once more" in page.told.text()
    assert "939.80 mm = 37″" in page.told.text()
    type_in(qtbot, page.former.fields["half_width"].line, "37in")
    assert stop(laid, "F4").half_width == pytest.approx(939.8)
    assert not page.told.text()
    # believed now: another figure of the same former is not held up by it
    type_in(qtbot, page.former.fields["corner"].line, "3")
    former = stop(laid, "F4")
    assert isinstance(former, Former)
    assert former.corner == 3


def test_a_wing_figure_moves_the_survey_with_it(qtbot: QtBot, laid: MainWindow) -> None:
    layout_of(laid).airframe.choose_body("wing")
    type_in(qtbot, layout_of(laid).airframe.surface.fields["le_x"].line, "190")
    body = laid.document.build.surveyed.body("wing")
    assert body is not None
    assert body.pivot == (292.5, 0.0, demo_build().wings[0].z)
    assert laid.document.build.surveyed.mark("wing_mid_le").at[0] == pytest.approx(190.05, abs=0.1)  # type: ignore[union-attr]


def test_a_former_is_added_from_the_loft_cut_out_and_taken_out_again(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F4")
    qtbot.mouseClick(page.former.add, LEFT)
    assert page.stop == "F4a"
    made = stop(laid, "F4a")
    assert stop(laid, "F4").station < made.station < stop(laid, "F5").station
    type_in(qtbot, page.former.cutouts, "battery 30 x 20 at -8; hole 8 x 8 at 12")
    assert isinstance(stop(laid, "F4a"), Former)
    assert [cut.kind for cut in stop(laid, "F4a").cutouts] == ["battery", "hole"]  # type: ignore[union-attr]
    type_in(qtbot, page.former.cutouts, "big window")
    assert "write it like" in page.told.text()
    qtbot.mouseClick(page.former.remove, LEFT)
    assert laid.document.build.fuselage.former("F4a") is None  # type: ignore[union-attr]


def test_a_former_gets_another_name_but_not_one_that_is_taken(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F5")
    type_in(qtbot, page.former.name, "bay frame")
    assert page.stop == "bay frame"
    assert isinstance(stop(laid, "bay frame"), Former)
    type_in(qtbot, page.former.name, "F1")
    assert "used twice" in page.told.text()
    assert page.stop == "bay frame"


def test_a_bump_is_named_marked_and_faired_with_one_click(qtbot: QtBot, laid: MainWindow) -> None:
    page = layout_of(laid).airframe
    assert page.smooth.fair.isHidden()
    laid.document.apply("spoil F6", drawing_edits.set_station.of("F6", half_width=22.0))
    assert not page.smooth.fair.isHidden()
    qtbot.mouseClick(page.smooth.fair, LEFT)
    assert stop(laid, "F6").half_width < 16
    assert page.smooth.fair.isHidden()
    assert laid.document.stack.undoText() == "fair F6"


def test_a_template_that_does_not_fit_is_held_against_the_loft(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F5")
    half = stop(laid, "F5").half_width
    type_in(qtbot, page.template.fields["half_width"].line, f"{half + 1.5:.1f}")
    assert "1.5 mm proud each side" in page.template.said.text()


@pytest.mark.parametrize("kind", range(5))
def test_an_empty_build_starts_from_a_kind_of_airframe(
    qtbot: QtBot, make_window: Callable[[], MainWindow], kind: int
) -> None:
    window = make_window()
    window.show_stage("layout")
    picker = layout_of(window).airframe.picker
    assert picker.isVisible()
    qtbot.mouseClick(picker.choices[kind], LEFT)
    type_in(qtbot, picker.span.line, "1400")
    picker.length.line.setText("1100")
    qtbot.mouseClick(picker.start, LEFT)
    build = window.document.build
    assert build.wings[0].span == 1400
    stations = build.fuselage.stations  # type: ignore[union-attr]
    assert stations[-1][1].station - stations[0][1].station == pytest.approx(1100, abs=2)
    assert build.surveyed.readings == ()
    assert len(build.surveyed.marks) > 15
    assert not layout_of(window).airframe.picker.isVisible()
    window.show_stage("true")
    assert true_of(window).entry.target is not None


def test_the_paper_desk_gives_the_demos_fuselage_from_its_page(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    """From an empty document, with real clicks, to half a millimetre."""
    window = make_window()
    desk = desk_with_page(qtbot, window)
    page = page_of_the_demo()

    for x, y in page.crosses:
        qtbot.mouseClick(desk.tools.tools["point"], LEFT)
        click(qtbot, window, page, x, y)
        qtbot.keyClicks(desk.tools.entry, f"{x:g}, {y:g}")
        qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    fit = desk.calibration()
    assert fit is not None
    assert fit.kind == "affine"
    assert 25.4 / 150 / fit.scale_x == pytest.approx(1.012, abs=5e-4)
    assert 25.4 / 150 / fit.scale_y == pytest.approx(0.994, abs=1e-3)

    qtbot.mouseClick(desk.tools.tools["origin"], LEFT)
    click(qtbot, window, page, 0.0, 0.0)
    desk.tools.follow_ink.setChecked(False)
    wanted = demo_fuselage()
    stations = wanted.stations[:: draws(3, 1)]
    for tool, spots in (
        ("stations", [(s.station, (s.top + s.bottom) / 2 + 6) for _, s in stations]),
        ("side-top", [(s.station, s.top) for _, s in stations]),
        ("side-bottom", [(s.station, s.bottom) for _, s in stations]),
        ("plan-side", [(s.station, page.centre_y - s.half_width) for _, s in stations]),
        ("plan-centre", [(x, page.centre_y) for x in (120.0, 700.0)]),
    ):
        qtbot.mouseClick(desk.tools.tools[tool], LEFT)
        for x, y in spots:
            click(qtbot, window, page, x, y)
    assert desk.picks.take.isEnabled()
    qtbot.mouseClick(desk.picks.take, LEFT)
    assert layout_of(window).now == "airframe"
    made = window.document.build.fuselage
    assert made is not None
    assert len(made.stations) == len(stations)
    for (_, got), (name, want) in zip(made.stations, stations, strict=True):
        for figure in ("station", "half_width", "top", "bottom"):
            off = getattr(got, figure) - getattr(want, figure)
            assert abs(off) < 0.5, (name, figure, off)


def click(qtbot: QtBot, window: MainWindow, page: PlanPage, x: float, y: float) -> None:
    """Zoom in on a point of the plan and click as near to it as a mouse can."""
    desk = layout_of(window).paper
    u, v = page.pixel(x, y)
    desk.sheet.look_at(u, v, zoom=2.0)
    at: QPointF = desk.widget_point(u, v)
    qtbot.mouseClick(desk.sheet, LEFT, pos=at.toPoint())


def test_clicks_can_be_nudged_taken_back_and_undone(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    desk = desk_with_page(qtbot, window)
    desk.tools.snap_to_line.setChecked(False)
    qtbot.mouseClick(desk.tools.tools["stations"], LEFT)
    desk.sheet.look_at(1000.0, 500.0)
    middle = desk.sheet.rect().center()
    qtbot.mouseClick(desk.sheet, LEFT, pos=middle)
    plan = desk.plan
    assert plan is not None
    u, v = plan.traces[0].pixels[0]
    qtbot.keyClick(desk.sheet, Qt.Key.Key_Right)
    qtbot.keyClick(desk.sheet, Qt.Key.Key_Up, CTRL)
    assert desk.plan.traces[0].pixels[0] == pytest.approx((u + 1, v - 0.25))  # type: ignore[union-attr]
    qtbot.keyClick(desk.sheet, Qt.Key.Key_Backspace)
    assert not traces(window)
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert len(traces(window)[0].pixels) == 1
    qtbot.mouseClick(desk.tools.tools["length"], LEFT)
    for u in (600.0, 1600.0):
        desk.sheet.look_at(u, 500.0)
        qtbot.mouseClick(desk.sheet, LEFT, pos=desk.sheet.rect().center())
    qtbot.keyClicks(desk.tools.entry, "nearly a foot")
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    assert "not a length" in desk.told.text()
    desk.tools.entry.setText("167.3")
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    assert desk.calibration().scale_x == pytest.approx(0.1673, abs=3e-4)  # type: ignore[union-attr]


def test_a_scan_is_saved_with_the_build_and_comes_back(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    page = page_of_the_demo()
    (tmp_path / "scan.png").write_bytes(page.png)
    (tmp_path / "no.png").write_bytes(b"not an image")
    window = make_window()
    window.start(demo_build())
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(tmp_path / "no.png")
    qtbot.waitUntil(lambda: "Not opened" in window.notice.text)
    scans_of(window).lay_scan(tmp_path / "scan.png")
    desk = layout_of(window).paper
    qtbot.waitUntil(lambda: desk.sheet.has_image, timeout=20000)
    assert window.save_to(tmp_path / "a.keel")
    assert window.save()  # a second time the image is carried over, not written twice
    held = load(tmp_path / "a.keel")
    assert list(held.attached()) == [held.build.plans[0].image]
    for file in (tmp_path / "state" / "images").rglob("*.png"):
        file.unlink()
    window.open_path(tmp_path / "a.keel")
    window.show_stage("layout")
    qtbot.waitUntil(lambda: not layout_of(window).paper.image_wanted, timeout=20000)
    assert desk.plan is not None
    assert desk.image_wanted == ""


def test_a_dimension_is_entered_by_keyboard_and_the_verdict_follows(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.show_stage("layout")
    layout_of(window).turn_to("audit")
    page = layout_of(window).page("audit")
    assert isinstance(page, AuditPage)
    assert page.verdict.startswith("Measure")
    rows = [("F2", 70, 0), ("F3", 84, 1), ("F4", 240, 0), ("F5", 180, 1), ("F6", 310, 1)]
    for part, size, across in rows:
        page.direction.setCurrentIndex(across)
        page.part.setText(part)
        page.plan_line.setText(str(size))
        type_in(qtbot, page.measured, f"{size * 1.02:.1f}")
    assert "printed at another scale" in page.verdict
    model = page.model
    assert model.setData(model.index(4, 4), "330.0")
    assert window.document.build.audit[0].pairs[4].measured == 330.0
    assert not model.setData(model.index(4, 4), "about a foot")
    qtbot.keyClick(page.table, Qt.Key.Key_Delete) if page.table.currentIndex().isValid() else None
    page.table.setCurrentIndex(model.index(4, 0))
    qtbot.keyClick(page.table, Qt.Key.Key_Delete)
    assert len(window.document.build.audit[0].pairs) == 4
    page.plan_line.setText("")
    qtbot.keyClick(page.measured, Qt.Key.Key_Return)
    assert "what the plan says" in page.told.text()


def test_parts_go_forward_by_key_and_a_pair_is_asked_about_before_glue(
    qtbot: QtBot, laid: MainWindow
) -> None:
    layout_of(laid).turn_to("parts")
    page = layout_of(laid).page("parts")
    assert isinstance(page, PartsPage)
    page.choose("doubler")
    qtbot.keyClick(page.table, Qt.Key.Key_Return)
    assert state(laid, "doubler") == "dry-fitted"
    qtbot.keyClick(page.table, Qt.Key.Key_Return)
    assert state(laid, "doubler") == "dry-fitted"  # asked first
    assert "noses to the left" in page.question
    qtbot.mouseClick(page.answers[2], LEFT)
    assert laid.document.build.listed.pairs["doubler"] == "same"
    qtbot.mouseClick(page.forward, LEFT)
    qtbot.mouseClick(page.answers[1], LEFT)
    assert state(laid, "doubler") == "glued"
    assert page.question == ""
    number = page.model.number_of("F5")
    assert page.model.setData(page.model.index(number, 5), "4.4 g")
    assert laid.document.build.listed.weighed["F5"] == 4.4
    assert next(m for m in laid.document.build.masses if m.id == "F5").weighed
    page.paste.setPlainText("name;quantity\nF3;lots")
    qtbot.mouseClick(page.take_printed, LEFT)
    assert "line 2" in page.told.text().lower()
    page.paste.setPlainText("F3, 1\nF4, 1")
    qtbot.mouseClick(page.take_box, LEFT)
    assert len(laid.document.build.listed.box) == 2


def test_a_builders_own_density_takes_the_tables_place_and_the_swap_follows(
    qtbot: QtBot, laid: MainWindow
) -> None:
    layout_of(laid).turn_to("woods")
    page = layout_of(laid).page("woods")
    assert isinstance(page, WoodsPage)
    before = page.said
    assert "in the nose" in before
    row = page.model.number_of("balsa-hard")
    assert page.model.setData(page.model.index(row, 1), "290")
    assert laid.document.build.listed.woods["balsa-hard"].density == 290
    assert page.said != before
    assert not page.model.setData(page.model.index(row, 1), "heavy")
    assert page.model.setData(page.model.index(row, 1), "")
    assert page.said == before


def test_the_pack_moves_as_masses_change(qtbot: QtBot, laid: MainWindow) -> None:
    layout_of(laid).turn_to("balance")
    page = layout_of(laid).page("balance")
    assert isinstance(page, BalancePage)
    assert page.answer.startswith("Put the middle of the pack at")
    row = page.model.number_of("tail wheel")
    assert page.model.setData(page.model.index(row, 1), "60")
    assert page.answer.startswith("Add ")
    type_in(qtbot, page.pack.fields["front"].line, "-162")
    assert page.answer.startswith("Put the middle of the pack at")
    page.name.setText("camera")
    page.grams.setText("30")
    type_in(qtbot, page.station, "100 mm")
    assert laid.document.build.masses[-1].id == "camera"
    type_in(qtbot, page.wanted.fields["target_percent"].line, "36")
    assert laid.document.build.balance.target_percent == 36  # type: ignore[union-attr]
    type_in(qtbot, page.pack.fields["mass"].line, "0")
    assert "must be more than 0" in page.told.text()


def test_an_outline_comes_from_a_drawing_and_a_template_goes_to_one(
    qtbot: QtBot, laid: MainWindow, tmp_path: Path
) -> None:
    page = layout_of(laid).airframe
    page.choose_station("F4")
    drawings_of(laid).write_former_to("F4", tmp_path / "F4.dxf")
    page.choose_station("F5")
    drawings_of(laid).take_outline(tmp_path / "F4.dxf")
    qtbot.waitUntil(
        lambda: not laid.jobs.is_running(laid.document.session, "outline"), timeout=20000
    )
    brought, source = stop(laid, "F5"), stop(laid, "F4")
    assert brought.half_width == pytest.approx(source.half_width, abs=0.01)
    assert brought.top - brought.bottom == pytest.approx(source.top - source.bottom, abs=0.01)
    (tmp_path / "bad.dxf").write_text("nonsense")
    before = laid.document.build
    drawings_of(laid).take_outline(tmp_path / "bad.dxf")
    qtbot.waitUntil(
        lambda: not laid.jobs.is_running(laid.document.session, "outline"), timeout=20000
    )
    assert "is not a DXF drawing" in laid.notice.text
    assert laid.document.build == before


def test_every_bench_shows_in_dark_large_and_inches_and_empty(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    for build in (None, demo_build()):
        if build is not None:
            window.start(build)
        window.show_stage("layout")
        for bench in layout_of(window).tabs:
            layout_of(window).turn_to(bench)
            window.grab()
        window.header.theme_button.click()
        window.menu.scale_wanted.emit(150)
        window.header.unit_button.click()
        for bench in layout_of(window).tabs:
            layout_of(window).turn_to(bench)
            window.grab()


def test_a_double_click_puts_a_former_in_and_pages_go_through_them(
    qtbot: QtBot, laid: MainWindow
) -> None:
    page = layout_of(laid).airframe
    a, b = (page.board.handle_position(name, "top") for name in ("F4", "F5"))
    assert a is not None
    assert b is not None
    between = QPoint(round(a.x() + (b.x() - a.x()) * 0.4), round(a.y()) + 25)
    qtbot.mouseDClick(page.board, LEFT, pos=between)
    assert page.stop == "F4a"
    assert stop(laid, "F4").station + 60 < stop(laid, "F4a").station < stop(laid, "F5").station - 60
    qtbot.keyClick(page.board, Qt.Key.Key_PageUp)
    assert page.stop == "F4"
    for _ in range(20):
        qtbot.keyClick(page.board, Qt.Key.Key_PageDown)
    assert page.stop == "tail_post"


def test_a_mark_and_a_second_wing_are_put_on_and_taken_off(qtbot: QtBot, laid: MainWindow) -> None:
    page = layout_of(laid).airframe
    page.choose_body("wing")
    type_in(qtbot, page.marks.mark, "aileron horn, 330, 250, 52")
    mark = laid.document.build.surveyed.mark("aileron_horn")
    assert mark is not None
    assert (mark.body, mark.at) == ("wing", (330.0, 250.0, 52.0))
    assert page.marks.own_marks.currentText() == "aileron horn"
    qtbot.mouseClick(page.marks.unmark, LEFT)
    assert laid.document.build.surveyed.mark("aileron_horn") is None
    assert page.marks.own_marks.currentText() == "deck pin starboard"
    qtbot.mouseClick(page.marks.unmark, LEFT)
    qtbot.mouseClick(page.marks.unmark, LEFT)
    assert page.marks.unmark.isHidden()
    type_in(qtbot, page.marks.mark, "somewhere")
    assert "write it like" in page.told.text()
    qtbot.mouseClick(page.surface.above, LEFT)
    page.choose_body("upper_wing")
    assert [wing.id for wing in laid.document.build.wings] == ["wing", "upper_wing"]
    qtbot.mouseClick(page.surface.take_off, LEFT)
    assert [wing.id for wing in laid.document.build.wings] == ["wing"]
    page.choose_body("stab")
    qtbot.mouseClick(page.surface.take_off, LEFT)
    assert "strike them out" in page.told.text()


def test_a_former_gets_its_outline_from_the_plan(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(demo_build())
    desk = desk_with_page(qtbot, window)
    desk.tools.snap_to_line.setChecked(False)
    desk.tools.follow_ink.setChecked(False)
    qtbot.mouseClick(desk.tools.tools["length"], LEFT)
    for u in (600.0, 1600.0):
        desk.sheet.look_at(u, 500.0)
        qtbot.mouseClick(desk.sheet, LEFT, pos=desk.sheet.rect().center())
    desk.tools.entry.setText("200100")  # two hundred metres: a slip is told, nothing is lost
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    assert "20000" in desk.told.text().replace(",", "").replace(" ", "")
    desk.tools.entry.setText("170")
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    qtbot.mouseClick(desk.tools.tools["outline"], LEFT)
    for u, v in ((1000, 400), (1300, 400), (1400, 700), (900, 700)):
        desk.sheet.look_at(float(u), float(v))
        qtbot.mouseClick(desk.sheet, LEFT, pos=desk.sheet.rect().center())
    desk.picks.formers.setCurrentText("F5")
    qtbot.mouseClick(desk.picks.give, LEFT)
    got = stop(window, "F5")
    assert got.half_width == pytest.approx(500 * 0.17 / 2, abs=0.3)
    assert got.top - got.bottom == pytest.approx(300 * 0.17, abs=0.4)


def test_a_pdf_page_is_laid_on_the_desk(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    sheet = Canvas(str(tmp_path / "plan.pdf"), pagesize=(720, 360))
    sheet.line(72, 72, 648, 72)
    sheet.showPage()
    sheet.line(72, 144, 648, 144)
    sheet.save()
    assert pages_of(tmp_path / "plan.pdf") == 2
    image, _ = image_from(read_scan(tmp_path / "plan.pdf", 1))
    assert (image.width(), image.height()) == (4000, 2000)
    assert image.dotsPerMeterX() == pytest.approx(400 / 0.0254, abs=1)
    assert (
        min(image.pixelColor(2000, v).value() for v in range(1195, 1206)) < 120
    )  # the line of the second page
    assert image.pixelColor(2000, 1600).value() > 230
    for call in (
        lambda: read_scan(tmp_path / "plan.pdf", 7),
        lambda: read_scan(tmp_path / "none.pdf"),
        lambda: pages_of(tmp_path / "none.pdf"),
        lambda: read_scan(tmp_path / "none.jpg"),
    ):
        with pytest.raises(BadInput):
            call()


def test_a_parts_wood_is_swapped_from_the_list(qtbot: QtBot, laid: MainWindow) -> None:
    layout_of(laid).turn_to("woods")
    page = layout_of(laid).page("woods")
    assert isinstance(page, WoodsPage)
    row = page.part.findData("F6")
    page.part.setCurrentIndex(row)
    page.part.activated.emit(row)
    assert page.piece["station"].value == pytest.approx(stop(laid, "F6").station, abs=0.06)
    assert page.choices[0][0].currentData() == "light-ply"
    assert not page.choices[0][2].isChecked()  # a former's grain lies across


def test_the_tables_keep_the_rules_of_models(qtmodeltester: ModelTester, laid: MainWindow) -> None:
    for bench in ("parts", "audit", "woods", "balance"):
        page = layout_of(laid).page(bench)
        qtmodeltester.check(page.model)  # type: ignore[attr-defined]
