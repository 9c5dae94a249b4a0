"""Practice as a learner goes through it: a course begun, read, said, shown how it was, and back to the own model."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget
from pytestqt.qtbot import QtBot

from hardkeel.demo.bench import practice_models
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import practising as say
from hardkeel.messages.practice import ALONG, STORIES
from hardkeel.practice.courses import COURSES
from hardkeel.practice.exercise import Exercise
from hardkeel.practice.making import exercise_from
from hardkeel.practice.strategies import by_next
from hardkeel.storage.format import text_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.practice.courses_page import CoursesPage
from hardkeel.ui.stages.practice.exercise_page import ExercisePage
from hardkeel.ui.stages.practice.feel_page import FeelPage
from hardkeel.ui.stages.practice.kit_page import KitPage
from hardkeel.ui.stages.practice.told_page import ToldPage
from tests.stages_of import practice_of


@pytest.fixture(scope="module")
def tipped() -> Exercise:
    for seed in range(60):
        found = exercise_from(practice_models(), seed, course=COURSES["bench"])
        if found.truth.story == "tipped":
            return found
    raise AssertionError


def exercise_page(window: MainWindow) -> ExercisePage:
    page = practice_of(window).page("exercise")
    assert isinstance(page, ExercisePage)
    return page


def told_page(window: MainWindow) -> ToldPage:
    page = practice_of(window).page("told")
    assert isinstance(page, ToldPage)
    return page


def courses_page(window: MainWindow) -> CoursesPage:
    page = practice_of(window).page("courses")
    assert isinstance(page, CoursesPage)
    return page


def read(window: MainWindow, exercise: Exercise, count: int = 99) -> None:
    """Take the readings that the engine would, by hand on the page."""
    page = exercise_page(window)
    pool = exercise.bare.pool.readings
    for one in by_next(exercise).readings[:count]:
        page.reading.tools[one.kind].click()
        place = next(
            i for i, other in enumerate(pool) if other.place == one.place and other.kind == one.kind
        )
        page.reading.table.selectRow(page.reading.model.number_of(str(place)))
        page.reading.read.click()


def say_truly(window: MainWindow, exercise: Exercise) -> None:
    rows = exercise_page(window).words.rows
    for rule in exercise.asked:
        (rows[rule.id].out if exercise.is_out(rule.id) else rows[rule.id].true).click()


def over(window: MainWindow, qtbot: QtBot) -> ToldPage:
    exercise_page(window).words.finish.click()
    qtbot.waitUntil(lambda: told_page(window).went is not None, timeout=30_000)
    return told_page(window)


def all_words(window: MainWindow) -> str:
    """Every text, tooltip and accessible name of the window."""
    found = [window.windowTitle()]
    for one in window.findChildren(QWidget):
        found += [one.toolTip(), one.accessibleName(), one.accessibleDescription()]
        if isinstance(one, QLabel):
            found.append(one.text())
    return "\n".join(found)


def test_an_exercise_is_read_said_and_shown(
    window: MainWindow, tipped: Exercise, qtbot: QtBot
) -> None:
    window.start(tipped.build)
    assert window.stage == "practice"
    assert practice_of(window).now == "exercise"
    read(window, tipped)
    section = window.document.build.practice
    assert section is not None
    assert [one.value for one in section.taken] == [one.value for one in by_next(tipped).readings]
    say_truly(window, tipped)
    page = over(window, qtbot)
    assert practice_of(window).now == "told"
    assert page.along.sentence.text() == ALONG["tipped"]
    assert page.along.story.text() == STORIES["tipped"]
    assert {one.outcome for one in page.rows.rows} == {"found", "right"}
    assert window.document.build.surveyed.readings == section.taken
    for _ in range(3):
        page.next.click()
    assert page.step.text().startswith("3 of ")
    page.before.click()
    assert page.step.text().startswith("2 of ")
    courses = courses_page(window)
    practice_of(window).turn_to("courses")
    qtbot.waitUntil(lambda: courses.model.rowCount() == 1, timeout=5_000)
    row = courses.model.row(0)
    assert row is not None
    assert tipped.build.name in row.cells


def test_nothing_of_the_truth_is_seen_before_the_word(
    window: MainWindow, tipped: Exercise, tmp_path: Path, qtbot: QtBot
) -> None:
    window.start(tipped.build)
    read(window, tipped)
    qtbot.wait(50)
    words = all_words(window)
    assert STORIES["tipped"] not in words
    assert ALONG["tipped"] not in words
    top = " ".join(one.text() for one in window.header.findChildren(QLabel))
    assert "true" not in top
    assert tipped.section.sealed not in words
    assert not any(one.verdict == "out" for one in window.document.judgement.checks)
    for key in ("true", "layout", "bench", "paper"):
        window.show_stage(key)
        assert window.stage == "practice"
    window.show_print()
    assert window.stage == "practice"
    practice_of(window).turn_to("told")
    told = told_page(window)
    assert told.went is None
    assert told.waiting.text() == say.NOT_TOLD
    assert told.waiting.isVisibleTo(told)
    assert window.save_to(tmp_path / "club.keel")
    state = window.document_file.path
    assert state is not None
    assert STORIES["tipped"] not in text_of(window.document.build)
    for one in tipped.truth.bodies.values():
        for amount in one.values():
            assert f"{amount:.5f}" not in text_of(window.document.build)


def test_the_minutes_are_all_there_is(window: MainWindow, tipped: Exercise) -> None:
    build = tipped.build
    assert build.practice is not None
    window.start(build.but(practice=build.practice.but(minutes=2.0)))
    page = exercise_page(window)
    page.reading.tools["tilt"].click()
    page.reading.read.click()
    page.reading.read.click()
    assert not page.reading.read.isEnabled()
    section = window.document.build.practice
    assert section is not None
    assert len(section.taken) == 2
    page.reading.read_wanted.emit(page.reading.place)
    assert page.told.text() == say.SPENT
    window.document.stack.undo()
    assert page.reading.read.isEnabled()


def test_a_word_is_given_changed_and_taken_back(window: MainWindow, tipped: Exercise) -> None:
    window.start(tipped.build)
    page = exercise_page(window)
    check = tipped.section.asked[0]
    row = page.words.rows[check]
    assert not page.words.finish.isEnabled()

    def word() -> Any:
        section = window.document.build.practice
        assert section is not None
        return section.said.get(check)

    row.out.click()
    assert word().out
    assert word().off is None
    row.amount.line.setText("2")
    row.amount.take()
    far = word().off
    assert far > 0
    row.way.setCurrentIndex(1)
    row.way.activated.emit(1)
    assert word().off == pytest.approx(-far)
    assert page.words.finish.isEnabled()
    row.amount.line.setText("")
    row.finish()
    assert word().off is None
    row.amount.line.setText("99999")
    row.amount.take()
    assert page.told.text() == say.LONGER_THAN_IT
    row.true.click()
    assert not word().out
    row.true.click()
    assert word() is None
    window.document.stack.undo()
    assert word() is not None


def test_a_reading_is_doubted_by_space(window: MainWindow, tipped: Exercise, qtbot: QtBot) -> None:
    window.start(tipped.build)
    read(window, tipped, 2)
    page = exercise_page(window)
    page.taken.selectRow(0)
    qtbot.keyClick(page.taken, Qt.Key.Key_Space)
    section = window.document.build.practice
    assert section is not None
    assert [one.ignored for one in section.taken] == [True, False]
    row = page.model.row(0)
    assert row is not None
    assert row.struck
    qtbot.keyClick(page.taken, Qt.Key.Key_Space)
    section = window.document.build.practice
    assert section is not None
    assert not any(one.ignored for one in section.taken)


def test_a_course_is_begun_and_the_own_model_waits(window: MainWindow, qtbot: QtBot) -> None:
    own = demo_build()
    window.start(own, again=True)
    window.show_stage("practice")
    courses = courses_page(window)
    assert courses.isVisible()
    courses.courses["corners"].begin.click()
    assert not courses.courses["bench"].begin.isEnabled()
    qtbot.waitUntil(lambda: window.document.build.practice is not None, timeout=30_000)
    section = window.document.build.practice
    assert section is not None
    assert section.course == "corners"
    assert practice_of(window).now == "exercise"
    practice_of(window).turn_to("courses")
    assert courses.back.isVisibleTo(courses)
    assert own.name in courses.back.text()
    courses.back.click()
    assert window.document.build == own
    assert not window.document_file.unsaved
    assert window.stage == "true"


def test_making_one_can_be_left_off(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    courses = courses_page(window)
    courses.courses["misread"].begin.click()
    assert courses.stop.isVisibleTo(courses)
    courses.stop.click()
    qtbot.waitUntil(lambda: not courses.stop.isVisibleTo(courses), timeout=30_000)
    assert courses.courses["misread"].begin.isEnabled()
    assert not courses.told.text()


def test_another_build_leaves_nothing_waiting(
    window: MainWindow, tipped: Exercise, qtbot: QtBot
) -> None:
    """A build that comes while an exercise is made, and one that comes after an exercise is over."""
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    courses = courses_page(window)
    courses.courses["misread"].begin.click()
    window.start(demo_build(), again=True)
    assert courses.courses["misread"].begin.isEnabled()
    window.start(tipped.build)
    say_truly(window, tipped)
    over(window, qtbot)
    window.document.stack.setClean()
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    practice_of(window).turn_to("exercise")
    page = exercise_page(window)
    assert page.choose_one.isVisibleTo(page)
    assert page.choose_one.isEnabled()


def test_a_part_picked_on_the_keel_line_is_read_on(window: MainWindow, tipped: Exercise) -> None:
    window.start(tipped.build)
    page = exercise_page(window)
    page.reading.tools["incidence"].click()
    whole = page.reading.model.rowCount()
    window.header.body_picked.emit("stab" if "stab" in str(tipped.section.asked) else "wing")
    assert 0 < page.reading.model.rowCount() < whole


def test_an_error_is_hidden_in_the_own_model(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    courses_page(window).mine.click()
    qtbot.waitUntil(lambda: window.document.build.practice is not None, timeout=30_000)
    assert window.document.build.name == f"Crooked {demo_build().name}"


def test_it_is_corrected_and_read_again(window: MainWindow, tipped: Exercise, qtbot: QtBot) -> None:
    window.start(tipped.build)
    read(window, tipped)
    say_truly(window, tipped)
    out = next(rule.id for rule in tipped.asked if tipped.is_out(rule.id))
    row = exercise_page(window).words.rows[out]
    row.amount.line.setText("3")
    row.amount.take()
    page = over(window, qtbot)
    assert page.along.correct.isVisibleTo(page)
    page.along.correct.click()
    section = window.document.build.practice
    assert section is not None
    assert not section.told
    assert section.sealed != tipped.section.sealed
    assert practice_of(window).now == "exercise"
    window.document.stack.setClean()
    window.start(tipped.build)
    read(window, tipped, 1)
    say_truly(window, tipped)
    over(window, qtbot).along.same.click()
    assert window.document.build.practice == tipped.section


def test_what_was_seen_before_is_not_counted_again(
    window: MainWindow, tipped: Exercise, qtbot: QtBot
) -> None:
    """The same again, and what the learner's own correction left: neither brings the last of a course nearer."""

    def all_said() -> ToldPage:
        exercise = exercise_page(window).exercise
        assert exercise is not None
        read(window, exercise)
        say_truly(window, exercise)
        out = [rule.id for rule in exercise.asked if exercise.is_out(rule.id)]
        if out:
            row = exercise_page(window).words.rows[out[0]]
            row.amount.line.setText("3")
            row.amount.take()
        return over(window, qtbot)

    window.start(tipped.build)
    page = all_said()
    practice_of(window).turn_to("courses")
    assert courses_page(window).model.rowCount() == 1
    for button in (page.along.same, page.along.correct):
        button.click()
        page = all_said()
        practice_of(window).turn_to("courses")
        assert courses_page(window).model.rowCount() == 1


def test_a_guess_is_not_counted_as_right_at_the_top(
    window: MainWindow, tipped: Exercise, qtbot: QtBot
) -> None:
    window.start(tipped.build)
    say_truly(window, tipped)
    over(window, qtbot)
    top = [one.text() for one in window.header.findChildren(QLabel)]
    asked = len(tipped.section.asked)
    assert say.answer_words(tipped.section, 0) in top
    assert say.answer_words(tipped.section, asked) not in top


def test_an_exercise_whose_truth_is_gone_says_so(window: MainWindow, tipped: Exercise) -> None:
    build = tipped.build
    survey = build.surveyed
    window.start(
        build.but(
            survey=survey.but(
                bodies=tuple(one for one in survey.bodies if one.id != "fin"),
                marks=tuple(one for one in survey.marks if one.body != "fin"),
            )
        )
    )
    page = exercise_page(window)
    assert page.exercise is None
    assert page.choose_one.isVisibleTo(page)


def test_a_model_is_turned_by_hand(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    practice_of(window).turn_to("feel")
    page = practice_of(window).page("feel")
    assert isinstance(page, FeelPage)
    assert {one.value.verdict for one in page.vials.values()} == {"true"}
    assert page.no_tool.isVisibleTo(page)
    page.part.setCurrentIndex(page.part.findData("stab"))
    page.part.activated.emit(page.part.currentIndex())
    page.sliders["roll"].setValue(30)
    assert page.vials["stab_roll"].value.verdict == "out"
    assert page.model.rowCount() > 0
    page.symptom.setCurrentIndex(page.symptom.findData("pulls-port"))
    page.symptom.activated.emit(page.symptom.currentIndex())
    assert any("Fin straight" in one.text() for one in page.findChildren(QLabel))
    page.straight.click()
    assert {one.value.verdict for one in page.vials.values()} == {"true"}
    assert page.sliders["roll"].value() == 0
    assert window.document.build == demo_build()


def test_a_kit_is_put_in_order(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    window.show_stage("practice")
    practice_of(window).turn_to("kit")
    page = practice_of(window).page("kit")
    assert isinstance(page, KitPage)
    qtbot.waitUntil(lambda: page.kit is not None, timeout=30_000)
    assert page.kit is not None
    order = [one.id for one in page.kit.steps]
    hurt = next(
        (early, one.id) for one in page.kit.steps for early in one.after
    )  # the second must wait for the first
    page.buttons[hurt[1]].click()
    assert not page.turned_up.isVisibleTo(page)
    page.buttons[hurt[0]].click()
    assert page.turned_up.isVisibleTo(page)
    page.back.click()
    page.back.click()
    for one in order:
        page.buttons[one].click()
    assert page.answer.text() == say.IN_ORDER
    assert page.as_it_goes.isVisibleTo(page)
    assert not page.back.isEnabled()
    practice_of(window).turn_to("courses")
    row = courses_page(window).model.row(0)
    assert row is not None
    assert row.cells[3] == f"{len(order)} of {len(order)}"
    practice_of(window).turn_to("kit")
    before = page.seed
    page.another.click()
    qtbot.waitUntil(lambda: page.seed != before, timeout=30_000)
    assert not page.late


def test_all_units_themes_and_sizes_are_worn(
    make_window: Callable[[], MainWindow], tipped: Exercise, qtbot: QtBot
) -> None:
    window = make_window()
    window.start(tipped.build)
    read(window, tipped, 3)
    window.header.unit_toggled.emit()
    page = exercise_page(window)
    row = next(iter(page.words.rows.values()))
    row.out.click()
    row.amount.line.setText("1/16")
    row.amount.take()
    window.header.theme_toggled.emit()
    window.menu.scale_wanted.emit(150)
    told = over(window, qtbot)
    window.menu.scale_wanted.emit(100)
    assert told.rows.rows
    told.grab()
    practice_of(window).turn_to("feel")
    practice_of(window).page("feel").grab()
