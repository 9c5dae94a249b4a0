"""Figures of speed, printed by ``make bench``; none of them can fail a test run."""

import itertools
from itertools import pairwise
from pathlib import Path
from typing import Any, cast

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, QSettings, Qt
from PyQt6.QtGui import QColor, QImage
from PyQt6.QtWidgets import QApplication
from pytest_benchmark.fixture import BenchmarkFixture
from pytestqt.qtbot import QtBot

from hardkeel.airframe.starters import start_from
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import add_former, set_cutouts
from hardkeel.paper.audit import audit
from hardkeel.picture.truing import picture_of
from hardkeel.sight.viewpoints import Place
from hardkeel.survey.adjusting import Start, solve
from hardkeel.survey.candidates import available_in, candidate_pool
from hardkeel.survey.checking import rules_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.priors import USUAL_SHARED
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.ranking import rank
from hardkeel.ui.document.document import Document
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.airframe_page import AirframePage
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.theme import apply_theme, make_theme
from tests.airframes import plain_survey, random_truth, readings_of, surface
from tests.audits import random_sheet
from tests.conftest import StepClock
from tests.photographs import taken_from, with_photo
from tests.stages_of import layout_of


@pytest.fixture(scope="module")
def sixty() -> Any:
    """Sixty readings on wing, stabilizer and fin."""
    rng = np.random.default_rng(7)
    base = plain_survey()
    return readings_of(base, random_truth(network_of(base), rng, 0.1), rng, 60)


def test_solve_60_readings(benchmark: BenchmarkFixture, sixty: Any) -> None:
    net = network_of(sixty)
    benchmark(lambda: solve(net, sixty.readings))


def test_solve_60_readings_with_all_that_they_share(
    benchmark: BenchmarkFixture, sixty: Any
) -> None:
    survey = sixty.but(shared=USUAL_SHARED)
    net = network_of(survey)
    benchmark(lambda: solve(net, survey.readings))


def test_rank_200_candidates_with_all_that_they_share(
    benchmark: BenchmarkFixture, sixty: Any
) -> None:
    survey = sixty.but(shared=USUAL_SHARED)
    net = network_of(survey)
    solution = solve(net, survey.readings)
    rule = next(r for r in rules_of(survey, net.columns) if r.id == "stab_yaw")
    pool = candidate_pool(net, candidates_of(survey)[:200])
    benchmark(lambda: rank(available_in(pool, solution), solution, rule))


def test_solve_60_readings_and_30_sightings_in_two_photos(
    benchmark: BenchmarkFixture, sixty: Any
) -> None:
    rng = np.random.default_rng(7)
    truth = random_truth(network_of(plain_survey()), rng, 0.1)
    survey = sixty
    for i, place in enumerate(("behind", "above")):
        camera = taken_from(survey, truth, rng, cast("Place", place))
        names = [mark.id for mark in survey.marks][:15]
        survey = with_photo(survey, truth, camera, rng, name=f"p{i}", marks=names)
    net = network_of(survey)
    start = solve(net, survey.readings).start
    benchmark(lambda: solve(net, survey.readings, Start(start.unknowns * 1.1, start.cameras)))


def test_rank_200_candidates(benchmark: BenchmarkFixture, sixty: Any) -> None:
    upper, marks = surface("upper_wing", (200.0, 0.0, 200.0), (1000.0, 150.0), twist=True)
    survey = sixty.but(bodies=(*sixty.bodies, upper), marks=(*sixty.marks, *marks))
    net = network_of(survey)
    solution = solve(net, survey.readings)
    rule = next(r for r in rules_of(survey, net.columns) if r.id == "stab_yaw")
    pool = candidates_of(survey)[:200]
    assert len(pool) == 200
    benchmark(lambda: rank(available_in(candidate_pool(net, pool), solution), solution, rule))


def test_judge_the_demo(benchmark: BenchmarkFixture) -> None:
    survey = demo_build().surveyed
    benchmark(lambda: judge_survey(survey, "dry"))


def test_plan_the_rest_of_the_demo(benchmark: BenchmarkFixture) -> None:
    judgement = judge_survey(demo_build().surveyed, "dry")
    benchmark(lambda: plan(judgement.net, judgement.solution, judgement.rules, judgement.readings))


def test_draw_the_demo(benchmark: BenchmarkFixture) -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    benchmark(lambda: picture_of(build, judgement, 10))


def test_an_edit_on_the_true_page(
    benchmark: BenchmarkFixture, qtbot: QtBot, qapp: QApplication
) -> None:
    """From Enter to the new estimate on the screen: what has changed is painted, as it would be there."""
    document = Document(demo_build(), StepClock())
    page = TruePage(document, make_theme("light"), "mm")
    qtbot.addWidget(page)
    page.resize(1160, 670)
    page.show()
    value = [1.80]

    def edit() -> None:
        value[0] = 3.65 - value[0]
        model = page.readings.table.model()
        assert model is not None
        model.setData(model.index(4, 2), f"{value[0]:.2f}")
        qapp.processEvents()

    benchmark.pedantic(edit, rounds=30, warmup_rounds=2)


def test_drag_a_former_among_thirty(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    """From a move of the mouse to all three views drawn anew, section and lightening holes included."""
    build = start_from("board", 1500.0, 1200.0)
    while build.fuselage is not None and len(build.fuselage.formers) < 30:
        stations = [stop.station for _, stop in build.fuselage.stations]
        gaps = [b - a for a, b in pairwise(stations)]
        widest = gaps.index(max(gaps))
        build = add_former(build, (stations[widest] + stations[widest + 1]) / 2)
    build = set_cutouts(build, "F5", [], lightened=True)
    document = Document(build, StepClock())
    page = AirframePage(document, make_theme("light"), "mm")
    qtbot.addWidget(page)
    page.resize(1150, 640)
    page.show()
    page.choose_station("F5")
    start = page.board.handle_position("F5", "half_width")
    assert start is not None
    qtbot.mousePress(page.board, Qt.MouseButton.LeftButton, pos=start.toPoint())
    step, seen = [0], []
    page.board.dragging.connect(lambda *where: seen.append(where))

    def move() -> None:
        step[0] += 1
        qtbot.mouseMove(page.board, start.toPoint() + QPoint(step[0] % 7, -step[0]))
        page.board.repaint()

    benchmark.pedantic(move, rounds=60, warmup_rounds=3)
    assert len(seen) >= step[0] - 6  # every move but the first few pixels was a drag


def test_a_wheel_step_on_a_scan_of_35_megapixels(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    image = QImage(7000, 5000, QImage.Format.Format_Grayscale8)
    image.fill(QColor(240, 240, 240))
    sheet = ScanView(make_theme("light"))
    qtbot.addWidget(sheet)
    sheet.resize(900, 600)
    sheet.show()
    sheet.show_image(image)
    steps = itertools.cycle([1.25] * 10 + [0.8] * 10)

    def turn() -> None:
        sheet.zoom_by(next(steps), QPointF(400, 300))
        sheet.grab()

    benchmark.pedantic(turn, rounds=40, warmup_rounds=2)


def test_another_theme_with_all_pages_made(
    benchmark: BenchmarkFixture, qtbot: QtBot, qapp: QApplication, tmp_path: Path
) -> None:
    settings = Settings(QSettings(str(tmp_path / "s.ini"), QSettings.Format.IniFormat))
    window = MainWindow(settings, tmp_path, StepClock())
    qtbot.addWidget(window)
    window.theme_changed.connect(lambda theme: apply_theme(qapp, theme))
    window.restyle()
    window.resize(1280, 800)
    window.show()
    window.start(demo_build())
    window.show_stage("layout")
    for bench in layout_of(window).tabs:
        layout_of(window).turn_to(bench)
    window.show_stage("true")

    def change() -> None:
        window.header.theme_button.click()
        window.grab()

    benchmark.pedantic(change, rounds=10, warmup_rounds=2)
    window.document.stack.setClean()
    window.close()


def test_audit_eight_pairs(benchmark: BenchmarkFixture) -> None:
    rng = np.random.default_rng(3)
    sheets = iter([random_sheet(rng, "scale") for _ in range(4000)])
    benchmark.pedantic(lambda: audit(next(sheets)), rounds=100)
