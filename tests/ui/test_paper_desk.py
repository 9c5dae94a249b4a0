"""The paper desk's own traps: whose scan it is, where it lies, and how large it may be."""

import zipfile
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen
from pytestqt.qtbot import QtBot
from reportlab.pdfgen.canvas import Canvas

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import picks as pick_edits
from hardkeel.messages.paper import picks_words
from hardkeel.paper.model import KnownLength, Plan
from hardkeel.paper.picking import Picked
from hardkeel.storage.package import save
from hardkeel.ui.jobs import scans
from hardkeel.ui.jobs.scans import as_kept, image_from, read_scan
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.theme import make_theme
from tests.stages_of import layout_of, scans_of

LEFT = Qt.MouseButton.LeftButton


def picture(grey: int, size: tuple[int, int] = (400, 300)) -> QImage:
    image = QImage(*size, QImage.Format.Format_Grayscale8)
    image.fill(QColor(grey, grey, grey))
    return image


def with_scan(path: Path, grey: int) -> Path:
    """A build of another hand whose scan is called as another one's."""
    plan = Plan(id="page", image="plans/page.png")
    save(demo_build().but(plans=(plan,)), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("plans/page.png", as_kept(picture(grey)))
    return path


def shown_grey(window: MainWindow) -> int:
    sheet = layout_of(window).paper.sheet
    return sheet.grab().toImage().pixelColor(sheet.rect().center()).value()


def test_two_files_whose_scans_are_called_alike_show_each_its_own(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    dark, pale = with_scan(tmp_path / "a.keel", 90), with_scan(tmp_path / "b.keel", 240)
    shown = []
    for path in (dark, pale, dark):
        window.document.stack.setClean()
        window.open_path(path)
        window.show_stage("layout")
        layout_of(window).turn_to("paper")
        qtbot.waitUntil(lambda: not layout_of(window).paper.image_wanted, timeout=10000)
        shown.append(shown_grey(window))
    assert shown[0] == shown[2] < shown[1] - 60
    assert window.save_to(tmp_path / "c.keel")
    with zipfile.ZipFile(tmp_path / "c.keel") as archive:
        assert image_from(archive.read("plans/page.png"))[0].pixelColor(5, 5).value() == 90


def test_a_scan_that_comes_late_does_not_land_on_another_build(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    picture(200).save(str(tmp_path / "late.png"))
    scans_of(window).lay_scan(tmp_path / "late.png")
    window.start(demo_build().but(name="another"))
    qtbot.waitUntil(lambda: "another build lay on the bench" in window.notice.text, timeout=10000)
    assert window.document.build.plans == ()


@pytest.fixture
def sheet(qtbot: QtBot) -> ScanView:
    """Two upright lines 1.2 mm apart at 150 dpi."""
    image = picture(245, (1200, 800))
    painter = QPainter(image)
    painter.setPen(QPen(QColor(30, 30, 30), 2))
    for x in (600, 607):
        painter.drawLine(x, 0, x, 799)
    painter.end()
    made = ScanView(make_theme("light"))
    qtbot.addWidget(made)
    made.resize(600, 400)
    made.show()
    made.show_image(image)
    made.px_per_mm = 5.9
    return made


def test_the_zoom_is_kept_when_the_window_is_resized(sheet: ScanView) -> None:
    sheet.look_at(300, 200, zoom=2.0)
    sheet.resize(700, 500)
    assert sheet.on_widget(300, 200) == QPointF(350, 250)
    assert sheet.on_widget(301, 200).x() - sheet.on_widget(300, 200).x() == pytest.approx(2.0)
    sheet.fit_sheet()
    sheet.resize(500, 300)
    assert sheet.rect().contains(sheet.on_widget(1200, 800).toPoint())


def test_a_click_between_two_lines_stays_and_is_told(qtbot: QtBot, sheet: ScanView) -> None:
    sheet.look_at(603.5, 400, zoom=4.0)
    with qtbot.waitSignals([sheet.clicked, sheet.between]):
        qtbot.mouseClick(sheet, LEFT, pos=sheet.on_widget(603.5, 400).toPoint())
    with qtbot.waitSignal(sheet.clicked) as seen:
        qtbot.mouseClick(sheet, LEFT, pos=sheet.on_widget(601.5, 400).toPoint())
    assert seen.args[0] == pytest.approx(600, abs=0.6)


@pytest.mark.parametrize("zoom", [0.06, 0.13, 0.3, 0.7, 1.0, 3.0])
def test_a_thin_line_is_seen_at_every_zoom(sheet: ScanView, zoom: float) -> None:
    sheet.look_at(600, 400, zoom=zoom)
    seen = sheet.grab().toImage()
    row = [seen.pixelColor(x, seen.height() // 2).value() for x in range(250, 350)]
    assert max(row) - min(row) > 40


def test_a_large_scan_is_read_smaller_and_its_clicks_count_in_its_own_pixels(
    qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(scans, "MOST_PIXELS", 100_000)
    big = picture(245, (2000, 1000))
    big.setDotsPerMeterX(8000)
    big.save(str(tmp_path / "big.png"))
    image, size = image_from((tmp_path / "big.png").read_bytes())
    assert image.width() * image.height() <= 100_000
    assert (size.width(), size.height()) == (2000, 1000)
    made = ScanView(make_theme("light"))
    qtbot.addWidget(made)
    made.resize(500, 300)
    made.show_image(image, size)
    assert made.rect().contains(made.on_widget(2000, 1000).toPoint())
    made.look_at(1500, 700, zoom=1.0)
    with qtbot.waitSignal(made.clicked) as seen:
        qtbot.mouseClick(made, LEFT, pos=made.on_widget(1500, 700).toPoint())
    assert seen.args == pytest.approx([1500, 700], abs=1.0)
    # a scan that is laid on the desk is kept as it was read, and its resolution goes with it
    kept, whole = image_from(read_scan(tmp_path / "big.png"))
    assert kept.size() == whole
    assert kept.dotsPerMeterX() == pytest.approx(8000 * kept.width() / 2000, rel=0.02)


@pytest.mark.parametrize(("size", "told"), [((0.1, 400), "nothing is on it"), ((14400, 14400), "")])
def test_a_page_that_is_tiny_is_told_and_a_huge_one_is_read_in_bounds(
    tmp_path: Path, size: tuple[float, float], told: str
) -> None:
    page = Canvas(str(tmp_path / "p.pdf"), pagesize=size)
    page.line(0, 0, *size)
    page.save()
    if told:
        with pytest.raises(BadInput, match=told):
            read_scan(tmp_path / "p.pdf")
    else:
        image, _ = image_from(read_scan(tmp_path / "p.pdf"))
        assert 30_000_000 < image.width() * image.height() <= scans.MOST_PIXELS


def test_a_station_between_two_is_inserted_and_what_was_not_picked_stays() -> None:
    demo = demo_build()
    assert demo.fuselage is not None
    stations = dict(demo.fuselage.stations)

    def row(name: str) -> Picked:
        stop = stations[name]
        return Picked(stop.station, stop.half_width, stop.bottom, stop.top)

    between = Picked(460.0, 24.0, -28.0, 35.0)
    rows = [row("F1"), row("F4"), between, row("F6"), row("tail_post")]
    assert pick_edits.unpicked(demo.fuselage, rows) == ("F2", "F3", "F5", "F7")
    made = pick_edits.take_picks(demo, rows)
    assert made.fuselage is not None
    names = [name for name, _ in made.fuselage.stations]
    assert names == ["F1", "F2", "F3", "F4", "F8", "F5", "F6", "F7", "tail_post"]
    assert made.fuselage.former("F8").top == 35.0  # type: ignore[union-attr]
    assert made.fuselage.former("F5") == demo.fuselage.former("F5")
    short = [row("F1"), row("F4"), Picked(600.0, 5.0, 0.0, 20.0)]
    with pytest.raises(BadInput, match="F6 at 718 mm was not picked"):
        pick_edits.take_picks(demo, short)


def test_one_side_alone_is_asked_for_its_centre_line() -> None:
    rows = (Picked(0.0, None, -10.0, 10.0), Picked(100.0, None, -10.0, 10.0))
    assert "one with its centre line" in picks_words(Plan(id="p", image="plans/p.png"), rows, "mm")


def ruled(ground: str) -> QImage:
    """A large sheet ruled every 200 pixels, lines of three pixels, on one of several grounds with their grain."""
    rng = np.random.default_rng(24)
    tall, wide = 2400, 3200
    rows, columns = np.mgrid[0:tall, 0:wide]
    paper = {
        "white": np.full((tall, wide), 250.0),
        "yellowed": 205.0 - 25.0 * (columns / wide) ** 2,
        "shade": 245.0 - 150.0 * np.clip((columns + rows) / (wide + tall) * 1.6 - 0.5, 0, 1),
        "blueprint": 62.0 + 20.0 * rows / tall,
    }[ground]
    line = ((rows % 200) < 3) | ((columns % 200) < 3)
    drawn = np.where(line, 195.0 if ground == "blueprint" else 0.35 * paper, paper)
    grey = np.clip(drawn + rng.normal(0, 3.0, (tall, wide)), 0, 255).astype(np.uint8)
    return QImage(grey.tobytes(), wide, tall, wide, QImage.Format.Format_Grayscale8).copy()


@pytest.mark.parametrize("ground", ["white", "yellowed", "shade", "blueprint"])
def test_a_sheet_is_read_at_fit_zoom_whatever_its_ground(qtbot: QtBot, ground: str) -> None:
    sheet = ScanView(make_theme("light"))
    qtbot.addWidget(sheet)
    sheet.resize(760, 560)
    sheet.show_image(ruled(ground))
    seen = sheet.grab().toImage()

    def grey(u: float, v: float) -> int:
        at = sheet.on_widget(u, v)
        near = [(int(at.x()) + dx, int(at.y())) for dx in (-1, 0, 1)]
        return min(QColor(seen.pixel(x, y)).lightness() for x, y in near)

    for u in (300, 1500, 2900):
        for v in (300, 1100, 2100):
            paper, line = grey(u, v), grey(u - 99, v)
            assert paper > 140, "the paper is as light as paper"
            assert paper - line > 60, "and its lines stand off from it"


def test_a_wide_scans_pixels_are_not_asked_about_as_places(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    """At 600 dpi clicks lie beyond 6,000 pixels: each was called an unusual place of the model."""
    window = make_window()
    picture(245, (7400, 900)).save(str(tmp_path / "wide.png"))
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(tmp_path / "wide.png")
    desk = layout_of(window).paper
    qtbot.waitUntil(lambda: desk.sheet.has_image, timeout=20000)
    desk.tools.snap_to_line.setChecked(False)
    for u in (200.0, 7100.0):
        at = desk.widget_point(u, 400.0).toPoint()
        qtbot.mouseClick(desk.sheet, LEFT, pos=at)
    desk.tools.entry.setText("290")
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)
    plan = desk.plan
    assert plan is not None
    assert len(plan.lengths) == 1
    qtbot.mouseClick(desk.tools.tools["stations"], LEFT)
    qtbot.mouseClick(desk.sheet, LEFT, pos=desk.widget_point(7000.0, 400.0).toPoint())
    assert desk.plan is not None
    assert desk.plan.traces


def test_the_scans_lengths_go_into_the_print_check(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    image = picture(240, (2000, 1500))
    image.setDotsPerMeterX(round(150 / 0.0254))
    image.setDotsPerMeterY(round(150 / 0.0254))
    lengths = tuple(
        KnownLength(a=(50, 50 + i), b=(50 + mm * 150 / 25.4 * 1.02, 50 + i), length=mm)
        for i, mm in enumerate((200.0, 150.0, 250.0))
    )
    plan = Plan(id="page", image="plans/page.png", lengths=lengths)
    save(demo_build().but(plans=(plan,)), tmp_path / "a.keel")
    with zipfile.ZipFile(tmp_path / "a.keel", "a") as archive:
        archive.writestr("plans/page.png", as_kept(image))
    window.open_path(tmp_path / "a.keel")
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    page = layout_of(window).paper
    qtbot.waitUntil(lambda: not page.image_wanted, timeout=10000)
    qtbot.waitUntil(lambda: page.fit.carry.isVisibleTo(page), timeout=10000)
    page.fit.carry.click()
    assert window.pages["layout"].tabs["audit"].isChecked()
    check = layout_of(window).page("audit")
    assert check.sheet.id == "page"  # type: ignore[attr-defined]
    assert [round(one.measured / one.plan, 3) for one in window.document.build.audit[-1].pairs] == [
        1.02
    ] * 3
    window.document.stack.undo()
    assert all(one.id != "page" for one in window.document.build.audit)
