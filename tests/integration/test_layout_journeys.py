"""Whole journeys through Lay out: from paper to a model that can be trued, killed and brought back."""

import json
import random
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QSettings, Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build, demo_fuselage
from hardkeel.demo.plan_page import PlanPage
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits import paper as paper_edits
from hardkeel.edits import picks as pick_edits
from hardkeel.edits import surfaces as surface_edits
from hardkeel.edits import truing as edits
from hardkeel.edits.named import Edit
from hardkeel.fuselage.loft import loft_of
from hardkeel.paper.model import Pair
from hardkeel.paper.picking import Picked
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of
from hardkeel.storage.package import load
from hardkeel.ui.document.document import Document
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme
from tests.conftest import StepClock
from tests.draws import draws
from tests.scans import page_of_the_demo
from tests.stages_of import layout_of, scans_of, true_of

pytestmark = pytest.mark.timeout(120)
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def make(
    qtbot: QtBot, qapp: QApplication, tmp_path: Path, clock: StepClock
) -> Iterator[Callable[[], MainWindow]]:
    made: list[MainWindow] = []
    load_fonts()
    apply_theme(qapp, make_theme("light"))
    settings = Settings(QSettings(str(tmp_path / "s.ini"), QSettings.Format.IniFormat))

    def window() -> MainWindow:
        one = MainWindow(settings, tmp_path / "state", clock)
        made.append(one)
        one.resize(1280, 800)
        one.show()
        qtbot.waitExposed(one)
        return one

    yield window
    for one in made:
        one.document.stack.setClean()
        one.close()
        one.deleteLater()


def lay(qtbot: QtBot, window: MainWindow, page: PlanPage, folder: Path) -> None:
    (folder / "page.png").write_bytes(page.png)
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(folder / "page.png")
    qtbot.waitUntil(lambda: layout_of(window).paper.sheet.has_image, timeout=20000)


def click(qtbot: QtBot, window: MainWindow, page: PlanPage, x: float, y: float) -> None:
    desk = layout_of(window).paper
    u, v = page.pixel(x, y)
    desk.sheet.look_at(u, v, zoom=2.0)
    qtbot.mouseClick(desk.sheet, LEFT, pos=desk.widget_point(u, v).toPoint())


def note_point(qtbot: QtBot, window: MainWindow, page: PlanPage, x: float, y: float) -> None:
    desk = layout_of(window).paper
    qtbot.mouseClick(desk.tools.tools["point"], LEFT)
    click(qtbot, window, page, x, y)
    qtbot.keyClicks(desk.tools.entry, f"{x:g}, {y:g}")
    qtbot.keyClick(desk.tools.entry, Qt.Key.Key_Return)


def test_a_photo_gives_points_within_eight_tenths(
    qtbot: QtBot, make: Callable[[], MainWindow], tmp_path: Path
) -> None:
    page = page_of_the_demo(photo=True)
    window = make()
    lay(qtbot, window, page, tmp_path)
    desk = layout_of(window).paper
    qtbot.mouseClick(desk.fit.photo, LEFT)
    for x, y in page.crosses:
        note_point(qtbot, window, page, x, y)
    fit = desk.calibration()
    assert fit is not None
    assert fit.kind == "perspective"
    rng = np.random.default_rng(3)
    spots = rng.uniform([0, page.centre_y], [880, 60], (300, 2))
    seen = np.array([page.pixel(x, y) for x, y in spots])
    off = np.hypot(*(fit.to_plan(seen) - spots).T)
    assert off.max() < 0.8
    # without taking perspective out the same points lie far off
    qtbot.mouseClick(desk.fit.photo, LEFT)
    flat = desk.calibration()
    assert flat is not None
    assert np.hypot(*(flat.to_plan(seen) - spots).T).max() > 3


def test_clicks_on_a_scan_lie_within_three_tenths_of_the_truth(
    qtbot: QtBot, make: Callable[[], MainWindow], tmp_path: Path
) -> None:
    """Calibrated and picked with the mouse alone, at every station of the top line."""
    page = page_of_the_demo()
    window = make()
    lay(qtbot, window, page, tmp_path)
    desk = layout_of(window).paper
    for x, y in page.crosses:
        note_point(qtbot, window, page, x, y)
    top = loft_of(demo_fuselage()).top
    # between the stations, where no other line crosses the one that is clicked
    wanted = [(float(x), float(top.value(x))) for x in np.arange(25.0, 880.0, draws(200.0, 67.0))]
    qtbot.mouseClick(desk.tools.tools["side-top"], LEFT)
    desk.tools.follow_ink.setChecked(False)
    for x, y in wanted:
        click(qtbot, window, page, x, y)
    fit, plan = desk.calibration(), desk.plan
    assert fit is not None
    assert plan is not None
    got = fit.to_plan(np.array(plan.traces[0].pixels))
    off = np.hypot(*(got - np.array(wanted)).T)
    assert off.max() < 0.3


def test_from_paper_to_a_first_reading(
    qtbot: QtBot, make: Callable[[], MainWindow], tmp_path: Path
) -> None:
    """A fuselage off the plan, wing and tail put on, a reading taken, saved, read without a window."""
    window = make()
    rows = [
        Picked(stop.station, stop.half_width, stop.bottom, stop.top)
        for _, stop in demo_fuselage().stations
    ]
    window.document.apply("picks", pick_edits.take_picks.of(rows))
    window.show_stage("layout")
    page = layout_of(window).airframe
    assert not page.marks.put_on.isHidden()
    qtbot.mouseClick(page.marks.put_on, LEFT)
    assert page.marks.put_on.isHidden()
    window.show_stage("true")
    target = true_of(window).entry.target
    assert target is not None
    line = true_of(window).next.field.line
    line.setText(f"{target.value:.2f}")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert len(window.document.build.surveyed.readings) == 1
    assert window.save_to(tmp_path / "mine.keel")
    for command in ("true", "parts"):
        assert run_command([command, str(tmp_path / "mine.keel"), "--json"]) == 0
    # a former moved now moves the pins, and the reading stays
    window.show_stage("layout")
    before = window.document.build.surveyed.mark("nose_pin")
    window.document.apply("x", drawing_edits.set_station.of("F1", top=30.0))
    after = window.document.build.surveyed.mark("nose_pin")
    assert before is not None
    assert after is not None
    assert after.at[2] > before.at[2]
    assert len(window.document.build.surveyed.readings) == 1


def test_a_scan_survives_a_kill(
    qtbot: QtBot, make: Callable[[], MainWindow], tmp_path: Path
) -> None:
    first = make()
    lay(qtbot, first, page_of_the_demo(), tmp_path)
    journals = tmp_path / "state" / "journals"
    qtbot.waitUntil(lambda: any(journals.glob("*.journal")))
    journal = next(journals.glob("*.journal"))
    kept = journal.read_bytes()
    first.document.stack.setClean()
    first.close()
    journal.write_bytes(kept)
    second = make()
    second.offer_recovery()
    second.notice.buttons[0].click()
    second.show_stage("layout")
    layout_of(second).turn_to("paper")
    qtbot.waitUntil(lambda: layout_of(second).paper.sheet.has_image, timeout=20000)
    assert second.save_to(tmp_path / "back.keel")
    assert load(tmp_path / "back.keel").attached()


def _steps(rng: random.Random) -> Iterator[tuple[str, Edit]]:
    """Edits of every kind that Lay out has, some of which do not apply."""
    pools: list[Callable[[], Edit]] = [
        lambda: drawing_edits.set_station.of(f"F{rng.randint(1, 7)}", top=rng.uniform(20, 60)),
        lambda: drawing_edits.add_former.of(rng.uniform(0, 800)),
        lambda: drawing_edits.delete_former.of(f"F{rng.randint(1, 9)}"),
        lambda: drawing_edits.set_skins.of(side_thickness=rng.choice([1.5, 2.0, 3.0])),
        lambda: surface_edits.set_wing.of("wing", span=rng.uniform(1000, 1400)),
        lambda: surface_edits.set_tail.of("stab", incidence=rng.uniform(-2, 2)),
        surface_edits.add_wing_above.of,
        lambda: surface_edits.take_off.of("upper_wing"),
        lambda: ledger_edits.weigh.of(f"F{rng.randint(1, 7)}", rng.uniform(1, 9)),
        lambda: ledger_edits.set_state.of(f"F{rng.randint(1, 7)}", "trued"),
        lambda: paper_edits.add_pair.of("s", Pair(plan=100.0, measured=rng.uniform(95, 105))),
        lambda: ledger_edits.set_pack.of(mass=rng.uniform(90, 300)),
        lambda: ledger_edits.set_balance.of(target_percent=rng.uniform(20, 45)),
        lambda: edits.change_value.of(f"r{rng.randint(1, 30)}", rng.uniform(0, 900)),
    ]
    while True:
        yield f"step {rng.random():.3f}", rng.choice(pools)()


@pytest.mark.parametrize("seed", range(draws(1, 4)))
def test_undo_goes_all_the_way_back_and_redo_all_the_way_forward(
    qapp: QApplication, clock: StepClock, seed: int
) -> None:
    rng = random.Random(seed)
    document = Document(demo_build(), clock)
    states = [text_of(document.build)]
    for name, edit in _steps(rng):
        try:
            document.apply(name, edit)
        except BadInput:
            continue
        text = text_of(document.build)
        if text != states[-1]:
            states.append(text)
        if len(states) > draws(6, 11):
            break
    assert document.stack.count() == len(states) - 1
    for wanted in reversed(states[:-1]):
        document.stack.undo()
        assert text_of(document.build) == wanted
    for wanted in states[1:]:
        document.stack.redo()
        assert text_of(document.build) == wanted
    # what is judged after undo and redo is what is judged afresh
    fresh = Document(document.build, clock)
    assert [c.value for c in fresh.judgement.checks] == [c.value for c in document.judgement.checks]


def test_window_command_line_and_record_say_the_same(
    make: Callable[[], MainWindow], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    window = make()
    window.start(demo_build())
    assert window.save_to(tmp_path / "demo.keel")
    window.show_stage("layout")
    said = {
        "audit": layout_of(window).page("audit").verdict,  # type: ignore[attr-defined]
        "balance": layout_of(window).page("balance").answer,  # type: ignore[attr-defined]
    }
    for command, words in said.items():
        assert run_command([command, str(tmp_path / "demo.keel")]) == 0
        assert words in capsys.readouterr().out
    assert run_command(["parts", str(tmp_path / "demo.keel"), "--json"]) == 0
    listed = json.loads(capsys.readouterr().out)["parts"]
    model = layout_of(window).page("parts").model  # type: ignore[attr-defined]
    assert model.rowCount() == len(listed)


def test_an_edit_of_lay_out_that_touches_no_reading_is_not_judged_again(
    qapp: QApplication, clock: StepClock
) -> None:
    document = Document(demo_build(), clock)
    before = document.judgement
    document.apply("weigh", ledger_edits.weigh.of("F5", 3.3))
    assert document.judgement is before
    document.apply("read", edits.change_value.of("r5", 2.4))
    assert document.judgement is not before


def test_old_builds_keep_their_survey_when_lay_out_opens_them(
    make: Callable[[], MainWindow], tmp_path: Path
) -> None:
    """A file of the first slice: a survey by hand, no wings, no tail."""
    survey = demo_build().surveyed
    old = Build(format="hardkeel/1", name="old", survey=survey, fuselage=demo_fuselage())
    (tmp_path / "old.json").write_text(text_of(old))
    window = make()
    window.open_path(tmp_path / "old.json")
    window.show_stage("layout")
    for bench in layout_of(window).tabs:
        layout_of(window).turn_to(bench)
    window.document.apply("x", drawing_edits.set_station.of("F5", top=40.0))
    assert window.document.build.surveyed.bodies == survey.bodies
    assert {m.id for m in window.document.build.surveyed.marks} == {m.id for m in survey.marks}
