"""Gauges on a builder's own build: a real one where it is plugged in, a simulated one only on purpose."""

import subprocess
import sys
from collections.abc import Callable, Iterator
from functools import partial
from pathlib import Path
from typing import ClassVar

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.demo.bench import practice_models
from hardkeel.edits import truing as edits
from hardkeel.export.record import record_pdf
from hardkeel.export.sheets import readings_csv
from hardkeel.gauges.link import GaugeReport
from hardkeel.messages.advice import headline
from hardkeel.practice.courses import COURSES
from hardkeel.practice.making import exercise_from
from hardkeel.practice.strategies import best_list
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.readings import Height
from hardkeel.ui.jobs.gauges import GaugeController
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.gauge_bench import GaugeBench
from hardkeel.ui.stages.true.gauge_dock import GaugeRow, PlaceMenu
from tests.conftest import StepClock
from tests.edited import by_hand
from tests.stages_of import true_of
from tests.unit.test_export import text_of_pdf

GAUGE = Path(__file__).parents[1] / "gauge_process.py"
Start = Callable[..., str]


@pytest.fixture
def start() -> Iterator[Start]:
    """Start a gauge in a process of its own; its address."""
    running: list[subprocess.Popen[str]] = []

    def run(way: str, kind: str, value: str, unit: str = "mm", *more: str) -> str:
        for earlier in running:
            earlier.kill()
            earlier.wait()
        command = [sys.executable, str(GAUGE), way, kind, value, unit, *more]
        made = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        running.append(made)
        assert made.stdout is not None
        return made.stdout.readline().strip()

    yield run
    for made in running:
        made.kill()
        made.communicate()


@pytest.fixture
def own(window: MainWindow) -> MainWindow:
    """A builder's own airframe with nothing measured yet, its first reading one for the tape."""
    window.start(build_from(Figures(name="My own")))
    true_of(window).next.tool_picked.emit("height")
    true_of(window).next.place_typed.emit("nose pin")
    return window


def ask(row: GaugeRow) -> PlaceMenu:
    row.plug.click()
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, PlaceMenu)
    return menu


def taken(window: MainWindow) -> list[object]:
    return [one.value for one in window.document.build.surveyed.readings]


def words(menu: PlaceMenu) -> list[str]:
    return [action.text() for action in menu.actions() if action.text()]


@pytest.mark.parametrize("way", ["socket", "pty"])
def test_a_gauge_in_another_process_is_read_where_it_is_plugged_in(
    qtbot: QtBot, own: MainWindow, settings: Settings, start: Start, way: str
) -> None:
    address = start(way, "tape", "+231.5")
    row = true_of(own).dock.row("tape")
    menu = ask(row)
    assert words(menu)[-1] == "try it with a simulated gauge"
    menu.address.setText(address)
    qtbot.keyClick(menu.address, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: row.state == "live", timeout=10000)
    assert row.shown.text() == "231.5 mm"
    field = true_of(own).next.field
    row.zero.click()
    qtbot.waitUntil(lambda: row.zero.text() == "zeroed", timeout=5000)
    qtbot.waitUntil(lambda: field.value == 231.5, timeout=5000)
    qtbot.wait(1000)  # at rest
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    last = own.document.build.surveyed.readings[-1]
    assert (last.value, last.simulated) == (231.5, False)
    assert not own.document.judgement.simulated
    row.plug.click()
    assert settings.gauge_place("tape") == address
    again = ask(row)
    assert words(again)[0].startswith(address)
    again.close()


def test_a_gauge_that_comes_back_is_not_zeroed(qtbot: QtBot, own: MainWindow, start: Start) -> None:
    address = start("socket", "tape", "+231.5")
    row, field = true_of(own).dock.row("tape"), true_of(own).next.field
    true_of(own).dock.place_picked.emit("tape", address)
    qtbot.waitUntil(lambda: field.value == 231.5, timeout=10000)
    assert row.zero.text() == "zero"
    assert field.flag == "off"
    row.zero.click()
    assert field.line.hasFocus()  # the next key is for the reading
    qtbot.waitUntil(lambda: row.zero.text() == "zeroed", timeout=5000)
    qtbot.waitUntil(lambda: field.flag == "", timeout=5000)
    start("socket", "tape", "+238.7", "mm", address.rsplit(":", 1)[1])  # the one before is killed
    qtbot.waitUntil(lambda: row.state == "lost", timeout=10000)
    assert field.value is None
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert not taken(own)
    qtbot.waitUntil(lambda: field.value == 238.7, timeout=10000)
    assert row.zero.text() == "zero"
    assert field.flag == "off"
    qtbot.wait(1200)  # at rest
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert not taken(own)
    qtbot.wait(800)  # what was asked stands while the gauge goes on
    assert "not zeroed" in true_of(own).next.complaint
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert taken(own) == [238.7]


def test_a_refused_zero_is_told_and_is_none(qtbot: QtBot, own: MainWindow, start: Start) -> None:
    row = true_of(own).dock.row("tape")
    address = start("socket", "tape", "+231.5", "mm", "0", "ERR it moves")
    true_of(own).dock.place_picked.emit("tape", address)
    qtbot.waitUntil(lambda: row.state == "live", timeout=10000)
    row.zero.click()
    qtbot.waitUntil(lambda: "not zeroed: it moves" in row.shown.text(), timeout=5000)
    assert row.zero.text() == "zero"
    assert true_of(own).next.field.flag == "off"


def test_a_gauge_set_to_another_unit_says_so(qtbot: QtBot, own: MainWindow, start: Start) -> None:
    row = true_of(own).dock.row("tape")
    true_of(own).dock.place_picked.emit("tape", start("socket", "tape", "+1.5", "deg"))
    qtbot.waitUntil(lambda: row.state == "unit", timeout=10000)
    assert row.shown.text() == "shows °, set it to mm"
    assert true_of(own).next.field.value is None


def test_a_gauge_past_its_range_shows_no_reading(
    qtbot: QtBot, own: MainWindow, start: Start
) -> None:
    row = true_of(own).dock.row("tape")
    true_of(own).dock.place_picked.emit("tape", start("socket", "tape", "+999999.999"))
    qtbot.waitUntil(lambda: row.state == "odd", timeout=10000)
    assert row.shown.text() == "no reading"
    assert true_of(own).next.field.value is None


def test_another_gauge_than_was_plugged_in_is_told_and_not_read(
    qtbot: QtBot, own: MainWindow, start: Start
) -> None:
    row = true_of(own).dock.row("tape")
    true_of(own).dock.place_picked.emit("tape", start("socket", "level", "+1.5", "deg"))
    qtbot.waitUntil(lambda: row.state == "other", timeout=10000)
    assert row.shown.text() == "a level"
    assert true_of(own).next.field.value is None


def test_a_simulated_gauge_on_an_own_build_says_so_everywhere(
    qtbot: QtBot, own: MainWindow
) -> None:
    row = true_of(own).dock.row("tape")
    menu = ask(row)
    next(a for a in menu.actions() if "simulated" in a.text()).trigger()
    menu.close()
    qtbot.waitUntil(lambda: "simulated" in row.shown.text(), timeout=10000)
    field = true_of(own).next.field
    row.zero.click()
    qtbot.waitUntil(lambda: row.zero.text() == "zeroed", timeout=5000)
    qtbot.waitUntil(lambda: field.value is not None, timeout=5000)
    qtbot.wait(1200)  # at rest
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    build, judged = own.document.build, own.document.judgement
    assert build.surveyed.readings[-1].simulated
    assert judged.simulated
    assert headline(build.surveyed, judged).startswith("Simulated")
    shown = true_of(own).readings.table.model()
    assert shown is not None
    assert shown.index(0, 4).data() == "simulated"
    assert readings_csv(build, judged).splitlines()[1].endswith(",yes")
    record = text_of_pdf(record_pdf(build, judged, "mm"))
    assert "simulated" in record
    assert "Simulated:" in record
    assert build_from_text(text_of(build)) == build
    # what is typed over it is the builder's own
    true_of(own).next.tool_picked.emit("height")
    true_of(own).next.place_typed.emit("tail pin")
    qtbot.waitUntil(lambda: field.value is not None, timeout=5000)
    field.line.selectAll()
    qtbot.keyClicks(field.line, "88.5")
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert not own.document.build.surveyed.readings[-1].simulated


def test_simulated_readings_never_mix_with_real_ones(clock: StepClock) -> None:
    build = build_from(Figures(name="My own"))
    made_up = Height(id="?", mark="nose_pin", value=300.0, simulated=True)
    real = Height(id="?", mark="nose_pin", value=100.0)
    both = edits.take_reading(edits.take_reading(build, made_up, clock()), real, clock())
    alone = edits.take_reading(build, real, clock())
    mixed, pure = judge_survey(both.surveyed), judge_survey(alone.surveyed)
    assert [fit.used for fit in mixed.fits] == [False, True]
    assert mixed.solution.unknowns == pytest.approx(pure.solution.unknowns, abs=1e-12)
    assert [check.value for check in mixed.checks] == [check.value for check in pure.checks]
    assert judge_survey(edits.take_reading(build, made_up, clock()).surveyed).simulated


def test_a_place_that_a_stand_in_refuses_does_not_fill_the_field(
    qtbot: QtBot, window: MainWindow
) -> None:
    true_of(window).dock.place_picked.emit("tape", "simulated")
    row, field = true_of(window).dock.row("tape"), true_of(window).next.field
    qtbot.waitUntil(lambda: field.value is not None, timeout=10000)
    # a mark that came after it was plugged in: the hidden airframe does not know it
    window.document.apply(
        "rename",
        by_hand(
            lambda b: b.but(
                survey=b.surveyed.but(
                    marks=tuple(
                        m.but(id="new_pin") if m.id == "nose_foot" else m for m in b.surveyed.marks
                    ),
                    readings=(),
                )
            )
        ),
    )
    true_of(window).next.tool_picked.emit("height")
    true_of(window).next.place_typed.emit("new pin")
    assert true_of(window).entry.target is not None
    qtbot.waitUntil(lambda: row.shown.text() == "not held", timeout=10000)
    assert field.value is None


def test_what_a_gauge_showed_at_the_place_before_does_not_fill_the_field_of_the_next(
    qtbot: QtBot, window: MainWindow
) -> None:
    page = true_of(window)
    bench = page.findChild(GaugeBench)
    assert bench is not None
    reports: list[GaugeReport] = []  # before the first one is on its way
    bench.desk.reported.connect(lambda _kind, report: reports.append(report))
    page.dock.place_picked.emit("tape", "simulated")
    page.next.tool_picked.emit("height")
    page.next.place_typed.emit("nose foot")
    qtbot.waitUntil(lambda: page.next.field.value is not None, timeout=10000)
    before = reports[-1]
    page.next.tool_picked.emit("height")
    page.next.place_typed.emit("tail pin")
    assert page.next.field.value is None
    bench.desk.reported.emit("tape", before)  # it waited in the queue while the place was changed
    assert page.next.field.value is None
    qtbot.waitUntil(lambda: page.next.field.value is not None, timeout=10000)


class QuickLink:
    """A link whose gauge answers before whoever plugs it in has turned round."""

    made: ClassVar[list["QuickLink"]] = []

    def __init__(self, url: str, report: Callable[[GaugeReport], None], **_more: object) -> None:
        self.report = report
        QuickLink.made.append(self)
        report(GaugeReport("other", name=url))

    def close(self) -> None:
        """It was pulled."""


def test_what_a_gauge_says_at_once_is_heard_and_a_pulled_one_is_not(
    qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("hardkeel.ui.jobs.gauges.GaugeLink", QuickLink)
    monkeypatch.setattr(QuickLink, "made", [])
    desk = GaugeController()
    heard: list[str] = []
    desk.reported.connect(lambda _kind, report: heard.append(report.name))
    desk.plug("tape", "level")
    assert heard == ["level"]
    desk.unplug("tape")
    QuickLink.made[0].report(GaugeReport("other", name="too late"))
    desk.plug("tape", "incidence")
    QuickLink.made[0].report(GaugeReport("other", name="from the one before"))
    assert heard == ["level", "incidence"]


def test_stand_ins_are_held_on_an_exercises_own_airframe(qtbot: QtBot) -> None:
    exercise = exercise_from(practice_models(), 1, course=COURSES["bench"])
    two = [one for one in best_list(exercise) if one.kind == "tilt"][:2]
    assert len(two) == 2
    desk = GaugeController()
    shown: dict[str, float] = {}

    def hear(_kind: str, report: GaugeReport) -> None:
        if report.shown is not None:
            shown[report.at] = report.shown.value

    desk.reported.connect(hear)
    desk.plug_stand_in("level", exercise.build)
    for reading in two:
        desk.hold(reading)
        place = reading.model_dump_json(by_alias=True)
        qtbot.waitUntil(partial(shown.__contains__, place), timeout=20_000)
    desk.close()
    first, second = (shown[one.model_dump_json(by_alias=True)] for one in two)
    true = [exercise.hidden.show(one) for one in two]
    assert first - second == pytest.approx(true[0] - true[1], abs=0.4)  # its own zero falls out
