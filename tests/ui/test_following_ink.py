"""The desk follows the ink: a whole fuselage off a sheet in few clicks, counted in the real window."""

from collections.abc import Callable, Sequence
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from hardkeel.paper.picking import picked_stations
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.paper_page import PaperPage
from hardkeel.ui.stages.layout.taking_dialog import TakingDialog
from tests.draws import draws
from tests.inked import away_from
from tests.stages_of import layout_of, scans_of
from tests.ui import cabin_sheet as cabin
from tests.ui.cabin_sheet import Sheet

LEFT = Qt.MouseButton.LeftButton
_WAIT_MS = 60_000


class Hand:
    """Clicks as a builder does, and counts them; nothing else changes the build."""

    def __init__(self, qtbot: QtBot, window: MainWindow, sheet: Sheet) -> None:
        self._qtbot, self._window, self._sheet = qtbot, window, sheet
        self.clicks = 0
        self.told: list[str] = []

    @property
    def desk(self) -> PaperPage:
        return layout_of(self._window).paper

    def press(self, button: QWidget) -> None:
        self.clicks += 1
        self._qtbot.mouseClick(button, LEFT)

    def on(self, x: float, y: float, *, by: tuple[int, int] = (1, -1)) -> None:
        """Click a place of the plan as it is seen now, the hand off by screen pixels."""
        at = self.desk.widget_point(*self._sheet.pixel(x, y)).toPoint() + QPoint(*by)
        assert self.desk.sheet.rect().contains(at)
        self.clicks += 1
        self._qtbot.mouseClick(self.desk.sheet, LEFT, pos=at)
        self.rest()

    def follow(self, x: float, y: float) -> None:
        """Click on a line and wait until its ink is followed."""
        before = self._window.document.build
        self.on(x, y)
        self._qtbot.waitUntil(lambda: self._window.document.build is not before, timeout=_WAIT_MS)
        self._qtbot.waitUntil(
            lambda: "ollowing" not in self.desk.told.text() or not self.desk.told.isVisible(),
            timeout=_WAIT_MS,
        )
        self.rest()

    def tool(self, name: str) -> None:
        self.press(self.desk.tools.tools[name])

    def type(self, text: str) -> None:
        self._qtbot.keyClicks(self.desk.tools.entry, text)
        self._qtbot.keyClick(self.desk.tools.entry, Qt.Key.Key_Return)

    def rest(self) -> None:
        self._qtbot.wait(20)
        if self.desk.told.isVisible():
            self.told.append(self.desk.told.text())


def lay(qtbot: QtBot, window: MainWindow, path: Path) -> PaperPage:
    """Open a picture as a builder does and wait until it lies on the desk."""
    window.resize(1280, 800)
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(path)
    desk = layout_of(window).paper
    qtbot.waitUntil(lambda: desk.sheet.has_image, timeout=_WAIT_MS)
    qtbot.wait(50)
    return desk


def scale_by_lengths(hand: Hand) -> None:
    """Both scale bars: one along, one upright."""
    hand.on(200, 58, by=(0, 0))
    hand.on(400, 58, by=(0, 0))
    hand.type("200")
    hand.on(402, 0, by=(0, 0))
    hand.on(402, -100, by=(0, 0))
    hand.type("100")


def scale_by_crosses(hand: Hand, crosses: Sequence[tuple[float, float]] = cabin.CROSSES) -> None:
    """Register crosses all over the sheet, their places printed."""
    hand.tool("point")
    for x, y in crosses:
        hand.on(x, y, by=(0, 0))
        hand.type(f"{x:g}, {y:g}")


def pick_lines(hand: Hand, stations: tuple[float, ...] = cabin.STATIONS, at: float = 190.0) -> None:
    """Stations and lines, at the whole sheet's zoom."""
    hand.tool("stations")
    for s in stations:
        hand.on(s, 8)
    x = np.array(at)
    for tool, y in (
        ("side-top", float(cabin.top(x))),
        ("side-bottom", float(cabin.bottom(x))),
        ("plan-side", -88 + float(cabin.half_width(x))),
        ("plan-centre", -88.0),
    ):
        hand.tool(tool)
        hand.follow(at, y)


def click_datum(hand: Hand) -> None:
    hand.tool("origin")
    hand.on(0, 0)


def hold_figures(desk: PaperPage, window: MainWindow, most: float = 0.35) -> None:
    """Every figure that the sheet on the desk gave lies within three of its told sigmas, none more than told."""
    plan, fit = desk.plan, desk.calibration()
    assert plan is not None
    assert fit is not None
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    for row in picked_stations(plan, fit):
        told = row.sigmas
        assert told is not None
        s = min(cabin.STATIONS, key=lambda one: abs(one - row.station))
        stop = min((st for _, st in fuselage.stations), key=lambda st: abs(st.station - s))
        x = np.array(s)
        assert abs(stop.station - s) < 3 * told.station, s
        assert abs(stop.top - float(cabin.top(x))) < 3 * told.height, s
        assert abs(stop.bottom - float(cabin.bottom(x))) < 3 * told.height, s
        assert abs(stop.half_width - float(cabin.half_width(x))) < 3 * told.half_width, s
        assert max(told.station, told.height, told.half_width) < most


def give_outlines(hand: Hand, window: MainWindow) -> None:
    """Each former's outline by one click; the next one's gives it."""
    layout_of(window).turn_to("paper")
    hand.clicks += 1
    hand.tool("outline")
    for k in range(8):
        hand.follow(*cabin.outline(k, at=cabin.place_of(k))[100])
    hand.press(hand.desk.picks.give)


def hold_outlines(window: MainWindow, within: float) -> None:
    """95 % of each outline's points lie on what was drawn, and the other way round."""
    made = window.document.build.fuselage
    assert made is not None
    for k, former in enumerate(made.formers):
        want = cabin.outline(k)
        got = np.array(former.outline)
        got = got - (got.min(axis=0) + got.max(axis=0)) / 2
        for one, other in ((got, want), (want, got)):
            off = away_from(one, other)
            assert np.quantile(off, 0.95) < within, (former.id, off.max())


SHEETS: dict[str, tuple[Callable[[], Sheet], Callable[[Hand], None], float]] = {
    "scan": (cabin.scan, scale_by_lengths, 0.15),
    "blueprint": (cabin.blueprint, scale_by_lengths, 0.15),
    "photograph": (cabin.photograph, scale_by_crosses, 0.3),
    "vector PDF": (cabin.of_pdf, scale_by_lengths, 0.15),
}


@pytest.mark.parametrize("kind", draws(("scan", "photograph"), tuple(SHEETS)))
def test_a_whole_fuselage_is_taken_off_a_sheet_in_forty_clicks(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path, kind: str
) -> None:
    """A photograph takes ten crosses to know its lens: they are not counted."""
    draw, scaled, within = SHEETS[kind]
    sheet = draw()
    window = make_window()
    if kind == "vector PDF":
        path = cabin.vector_pdf(tmp_path / "cabin.pdf")
    else:
        path = sheet.save(tmp_path / "cabin.png")
    desk = lay(qtbot, window, path)
    hand = Hand(qtbot, window, sheet)
    if kind == "photograph":
        hand.press(desk.fit.photo)
    scaled(hand)
    if kind == "photograph":
        hand.clicks = 4  # as many as lengths take
    click_datum(hand)
    pick_lines(hand)
    hand.press(desk.picks.take)
    hold_figures(desk, window)
    assert window.document.build.name == "Cabin"  # it had none: as its sheet is called
    give_outlines(hand, window)
    assert hand.clicks <= 40
    hold_outlines(window, within)
    assert not [one for one in hand.told if "no line" in one], hand.told


def test_a_second_half_is_placed_by_what_both_show_and_moves_nothing_in_silence(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    """A sheet cut in two; the tail's half knows nothing but what it has in common with the nose's."""
    nose = cabin.half_of(cabin.scan(), -30, 238, askew=0.6, dpi=200)
    tail = cabin.half_of(cabin.scan(), 150, 412, askew=-0.9, dpi=200)
    window = make_window()
    desk = lay(qtbot, window, nose.save(tmp_path / "nose.png"))
    hand = Hand(qtbot, window, nose)
    scale_by_crosses(hand, [cross for cross in cabin.CROSSES if cross[0] < 230])
    click_datum(hand)
    pick_lines(hand, cabin.STATIONS[:6])
    desk.picks.ends.setCurrentIndex(desk.picks.ends.findData("former"))
    hand.press(desk.picks.take)
    before = window.document.build.fuselage
    assert before is not None
    assert [former.id for former in before.formers] == ["F1", "F2", "F3", "F4", "F5", "F6"]
    lay(qtbot, window, tail.save(tmp_path / "tail.png"))
    qtbot.waitUntil(lambda: desk.plan is not None and desk.plan.id == "tail", timeout=_WAIT_MS)
    qtbot.waitUntil(lambda: not desk.image_wanted, timeout=_WAIT_MS)
    hand = Hand(qtbot, window, tail)
    assert desk.plans.join.text() == "Goes on from nose"
    hand.press(desk.plans.join)
    qtbot.waitUntil(lambda: "placed by" in desk.told.text().lower(), timeout=_WAIT_MS)
    pick_lines(hand, cabin.STATIONS[5:], at=290.0)
    desk.picks.ends.setCurrentIndex(desk.picks.ends.findData("post"))
    hand.press(desk.picks.take)
    asked = desk.findChild(TakingDialog)
    assert asked is not None
    hand.press(asked.take)
    made = window.document.build.fuselage
    assert made is not None
    assert [former.id for former in made.formers] == [f"F{i}" for i in range(1, 9)]
    assert made.formers[:5] == before.formers[:5]
    hold_figures(desk, window, most=0.5)  # it is known by a strip at its edge, and says so


def test_the_view_point_is_where_it_is_painted(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    sheet = cabin.scan(150)
    desk = lay(qtbot, make_window(), sheet.save(tmp_path / "cabin.png"))
    u, v = sheet.pixel(0, 0)
    assert desk.sheet.on_scan(desk.widget_point(u, v)) == QPointF(u, v)
