"""Figures of speed, printed by ``make bench``; none of them can fail a test run."""

from typing import Any

import numpy as np
import pytest
from pytest_benchmark.fixture import BenchmarkFixture
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.picture import picture_of
from hardkeel.survey.adjusting import network_of, solve
from hardkeel.survey.checking import rules_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.planning import plan
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.ranking import rank
from hardkeel.ui.commands.document import Document
from hardkeel.ui.pages.true_page import TruePage
from hardkeel.ui.theme import make_theme
from tests.airframes import plain_survey, random_truth, readings_of, surface
from tests.conftest import StepClock


@pytest.fixture(scope="module")
def sixty() -> Any:
    """Sixty readings on wing, stabilizer and fin."""
    rng = np.random.default_rng(7)
    base = plain_survey()
    return readings_of(base, random_truth(network_of(base), rng, 0.1), rng, 60)


def test_solve_60_readings(benchmark: BenchmarkFixture, sixty: Any) -> None:
    net = network_of(sixty)
    benchmark(lambda: solve(net, sixty.readings))


def test_rank_200_candidates(benchmark: BenchmarkFixture, sixty: Any) -> None:
    upper, marks = surface("upper_wing", (200.0, 0.0, 200.0), (1000.0, 150.0), twist=True)
    survey = sixty.but(bodies=(*sixty.bodies, upper), marks=(*sixty.marks, *marks))
    net = network_of(survey)
    solution = solve(net, survey.readings)
    rule = next(r for r in rules_of(survey, net.layout) if r.id == "stab_yaw")
    pool = candidates_of(survey)[:200]
    assert len(pool) == 200
    benchmark(lambda: rank(net, solution, pool, rule))


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


def test_an_edit_on_the_true_page(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    """From Enter to every widget showing the new estimate, painting included."""
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
        page.grab()

    benchmark.pedantic(edit, rounds=30, warmup_rounds=2)
