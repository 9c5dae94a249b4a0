"""An exercise opened in the window: its simulated tools are its own, and what belongs to it no more is told."""

import pytest
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from hardkeel.demo.bench import practice_models
from hardkeel.messages import sight as say
from hardkeel.practice.courses import COURSES
from hardkeel.practice.exercise import Exercise
from hardkeel.practice.making import exercise_from
from hardkeel.practice.standing import hidden_of, is_played
from hardkeel.project.model import Build
from hardkeel.project.practice import Word
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.gauge_dock import SIMULATED
from tests.edited import by_hand
from tests.stages_of import gauges_of, stage_of, true_of


@pytest.fixture(scope="module")
def exercise() -> Exercise:
    return exercise_from(practice_models(), 2, course=COURSES["bench"])


def told(exercise: Exercise) -> Build:
    """After the word: before it *True* is not there to be turned to."""
    said = {one: Word(out=False) for one in exercise.section.asked}
    return exercise.build.but(practice=exercise.section.but(said=said, told=True))


def test_its_simulated_tools_are_its_own(
    window: MainWindow, exercise: Exercise, qtbot: QtBot
) -> None:
    window.start(told(exercise))
    window.show_stage("true")
    build = window.document.build
    assert is_played(build)
    assert (hidden_of(build).unknowns == exercise.hidden.unknowns).all()
    gauges = gauges_of(window)
    gauges.desk.plug_stand_in("level", build)
    assert gauges.desk.is_simulated("level")
    stage_of(window).turn_to("sight")
    page = stage_of(window).sight
    assert page.sample.isVisibleTo(page)
    assert page.sample.text() == say.SAMPLE_OF_EXERCISE
    page.sample.click()
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 1, timeout=40_000)
    shown = " ".join(one.text() for one in window.findChildren(QLabel))
    assert build.practice is not None
    assert build.practice.sealed not in shown


def test_a_truth_that_belongs_to_it_no_more_is_told(window: MainWindow, exercise: Exercise) -> None:
    window.start(told(exercise))
    window.show_stage("true")
    gauges = gauges_of(window)

    def without(build):  # type: ignore[no-untyped-def]
        survey = build.surveyed
        return build.but(
            survey=survey.but(
                bodies=tuple(one for one in survey.bodies if one.id != "fin"),
                marks=tuple(one for one in survey.marks if one.body != "fin"),
            )
        )

    window.document.apply("no fin", by_hand(without))
    true_of(window).dock.place_picked.emit("level", SIMULATED)
    assert not gauges.desk.is_plugged("level")
