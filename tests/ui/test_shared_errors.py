"""What readings share, in the window: said on Tools, found and told on True, sought with one press."""

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.cli.true import true_table
from hardkeel.messages.verdicts import verdict_word
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.priors import USUAL_SHARED
from hardkeel.survey.readings import sigma_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.fit_card import FitCard
from hardkeel.ui.stages.true.tools_page import ToolsPage
from tests.stages_of import true_of


def bent_and_not_zeroed(*, declared: bool) -> Build:
    """An own model read with a gauge 0.9° off, whose tail bent 3 mm to port."""
    build = build_from(Figures(name="Thistle", tools=(*Figures().tools, "laser")))
    survey = build.surveyed
    empty = judge_survey(survey)
    chosen = plan(empty.net, empty.solution, empty.rules, (), 50, empty.pool)
    net = network_of(survey)
    truth = np.zeros(net.columns.size)
    truth[net.columns.bench + 2] = 80.0
    truth[net.columns.shared["bend_y", ""]] = -3.0
    truth[net.columns.shared["gauge", "gauge"]] = 0.9
    rng = np.random.default_rng(4)
    values, _ = net.observer(chosen).predict(truth, net.placer.place(truth))
    readings = tuple(
        one.but(id=f"r{i}", value=float(v + 0.7 * rng.normal() * sigma_of(one)), phase="dry")
        for i, (one, v) in enumerate(zip(chosen, values, strict=True))
    )
    survey = survey.but(readings=readings)
    return build.but(survey=survey if declared else survey.but(shared=None))


def tools_of_window(window: MainWindow) -> ToolsPage:
    window.show_stage("true")
    window.pages["true"].turn_to("tools")
    page = window.pages["true"].findChild(ToolsPage)
    assert page is not None
    return page


def test_a_new_build_supposes_what_is_usual_and_each_figure_can_be_said(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.start(build_from(Figures(name="Own")))
    page = tools_of_window(window)
    field = page.shared.fields["mark"]
    assert field.line.text() == "0.25"
    field.line.setText("0.6")
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    shared = window.document.build.surveyed.shared
    assert shared is not None
    assert shared.mark == pytest.approx(0.6)
    stretch = page.shared.fields["tape_stretch"]
    assert stretch.line.text() == "0.40"  # mm in a metre
    stretch.line.setText("1")
    qtbot.keyClick(stretch.line, Qt.Key.Key_Return)
    shared = window.document.build.surveyed.shared
    assert shared is not None
    assert shared.tape_stretch == pytest.approx(0.001)
    window.document.stack.undo()
    window.document.stack.undo()
    assert window.document.build.surveyed.shared == USUAL_SHARED


def test_nothing_can_be_supposed_and_the_tail_set_to_the_line(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.start(build_from(Figures(name="Own")))
    page = tools_of_window(window)
    page.shared.to.setCurrentIndex(1)
    page.shared.to.activated.emit(1)
    assert window.document.build.surveyed.squared_to == "line"
    qtbot.mouseClick(page.shared.switch, Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.shared is None
    assert not page.shared.fields["mark"].isVisible()
    qtbot.mouseClick(page.shared.switch, Qt.MouseButton.LeftButton)
    assert window.document.build.surveyed.shared == USUAL_SHARED


def test_readings_that_do_not_fit_are_told_and_what_they_share_is_sought(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.start(bent_and_not_zeroed(declared=False))
    window.show_stage("true")
    card = true_of(window).findChild(FitCard)
    assert card is not None
    assert card.isVisible()
    assert "too many to be slips" in card.fit.text() or "times worse" in card.fit.text()
    before = {check.id for check in window.document.judgement.checks if check.verdict == "out"}
    assert before  # sure of what is not so
    qtbot.mouseClick(card.seek, Qt.MouseButton.LeftButton)
    judgement = window.document.judgement
    assert not [check.id for check in judgement.checks if check.verdict == "out"]
    assert not judgement.goodness.poor
    assert "The tail bends" in card.found.text()
    assert "to port behind the wing" in card.found.text()
    assert "Your gauge reads 0.8" in card.found.text() or "reads 0.9" in card.found.text()
    assert not card.seek.isVisible()


def test_the_command_says_the_same_words() -> None:
    build = bent_and_not_zeroed(declared=True)
    judged = judge_survey(build.surveyed, "dry")
    told = true_table(build, judged, "mm")
    assert "What they share" in told
    assert "stabilizer and fin are set square to the fore part" in told
    for check in judged.checks:
        assert verdict_word(check) in told
