"""One document: what is refreshed when, and which edits are one step to undo."""

from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import truing as edits
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.named import Edit, go_back
from hardkeel.edits.surfaces import set_wing
from hardkeel.project.model import Build
from hardkeel.storage.package import load
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.readings import Distance
from hardkeel.ui.document.document import MOST_UNDONE, Change
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.shell.window import MainWindow
from tests.edited import by_hand
from tests.stages_of import gauges_of, layout_of, log_of, true_of

NOW = datetime(2026, 11, 3, 19, 30, tzinfo=UTC)
CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def board(window: MainWindow) -> MainWindow:
    window.show_stage("layout")
    layout_of(window).airframe.choose_station("F4")
    return window


def answers_of(window: MainWindow) -> str:
    labels = true_of(window).seat.findChildren(QLabel)
    return next(label.text() for label in labels if label.objectName() == "answer")


def top(window: MainWindow) -> float:
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    return fuselage.former("F4").top  # type: ignore[union-attr]


def test_nudges_of_one_thing_are_one_step_to_undo(qtbot: QtBot, board: MainWindow) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    before, steps = board.document.build, stack.count()
    high = top(board)
    for _ in range(5):
        qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert top(board) == pytest.approx(high + 2.5)
    assert stack.count() == steps + 1
    qtbot.keyClick(page.board, Qt.Key.Key_Right, CTRL)
    assert stack.count() == steps + 2, "another figure is another step"
    stack.undo()
    assert top(board) == pytest.approx(high + 2.5)
    stack.undo()
    assert board.document.build == before
    stack.redo()
    assert top(board) == pytest.approx(high + 2.5)


def test_a_nudge_after_another_edit_or_a_save_is_a_step_of_its_own(
    qtbot: QtBot, board: MainWindow
) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    board.document.apply("widen", set_station.of("F4", half_width=30.0))
    count = stack.count()
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert stack.count() == count + 1
    stack.setClean()
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert stack.count() == count + 2, "what was saved can be gone back to"
    stack.undo()
    assert stack.isClean()


def test_a_nudge_there_and_back_leaves_no_step(qtbot: QtBot, board: MainWindow) -> None:
    page, stack = layout_of(board).airframe, board.document.stack
    before, count = board.document.build, stack.count()
    board.document.apply("lift", set_station.of("F4", top=60.0), nudge="top F4")
    assert stack.count() == count + 1
    board.document.apply("lower", go_back.of(before), nudge="top F4")
    assert stack.count() == count
    assert board.document.build == before
    assert page.stop == "F4"


def judged_times(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """Told of each judging from now on."""
    told: list[str] = []

    def count(*arguments: Any, **more: Any) -> object:
        told.append("judged")
        return judge_survey(*arguments, **more)

    monkeypatch.setattr("hardkeel.ui.document.document.judge_survey", count)
    return told


def test_nudges_are_judged_once_when_they_are_at_rest(
    qtbot: QtBot, board: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    page, document = layout_of(board).airframe, board.document
    told, before = judged_times(monkeypatch), document.judgement
    for _ in range(6):
        qtbot.keyClick(page.board, Qt.Key.Key_Up)
    assert told == []
    assert document.uncommitted
    assert document.judgement is before, "what the readings said before"
    qtbot.waitUntil(lambda: not document.uncommitted, timeout=5000)
    assert told == ["judged"]
    fresh = judge_survey(document.build.surveyed, document.build.phase)
    assert [c.verdict for c in document.judgement.checks] == [c.verdict for c in fresh.checks]
    assert document.judgement.net.survey == document.build.surveyed


def test_what_comes_after_a_nudge_starts_from_what_is_judged(
    qtbot: QtBot, board: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    page, document = layout_of(board).airframe, board.document
    told = judged_times(monkeypatch)
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    qtbot.keyClick(page.board, Qt.Key.Key_Right)  # another figure
    assert told == ["judged"]
    document.apply("rename", by_hand(lambda b: b.but(name="x")))
    assert told == ["judged", "judged"]
    assert not document.uncommitted
    document.stack.undo()
    document.stack.undo()
    document.stack.undo()
    assert not document.uncommitted
    assert told == ["judged", "judged"], "gone back to what was judged"


def test_a_nudge_undone_before_it_is_at_rest_is_gone(qtbot: QtBot, board: MainWindow) -> None:
    page, document = layout_of(board).airframe, board.document
    before, judged = document.build, document.judgement
    qtbot.keyClick(page.board, Qt.Key.Key_Up)
    document.stack.undo()
    assert document.build == before
    assert document.judgement is judged
    assert not document.uncommitted
    document.stack.redo()
    qtbot.waitUntil(lambda: not document.uncommitted, timeout=5000)
    assert document.judgement.net.survey == document.build.surveyed


def test_a_verdict_that_a_nudge_brings_about_is_logged_once_and_undone_with_it(
    window: MainWindow,
) -> None:
    """Readings as they are, and the mark they were taken on moved under them."""
    document = window.document

    def moved(build: Build) -> Build:
        survey = build.surveyed
        marks = tuple(
            m.but(at=(m.at[0], m.at[1], m.at[2] + 0.4)) if m.id == "wing_tip_te_port" else m
            for m in survey.marks
        )
        return build.but(survey=survey.but(marks=marks))

    before = document.build
    for _ in range(30):
        document.apply("move a mark", by_hand(moved), nudge="mark")
    assert document.build.log == before.log
    document.commit()
    logged = document.build.log[len(before.log) :]
    assert logged
    assert {entry.kind for entry in logged} == {"verdict"}
    document.stack.undo()
    assert document.build == before


def test_what_can_not_be_judged_at_rest_goes_back_and_says_so(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    document = window.document
    before, judged = document.build, document.judgement

    def refuse(*_arguments: Any, **_more: Any) -> object:
        raise BadInput("survey", "the adjustment does not settle")

    for top in (41.0, 42.0):
        document.apply("lift", set_station.of("F4", top=top), nudge="top F4")
    monkeypatch.setattr("hardkeel.ui.document.document.judge_survey", refuse)
    document.commit()
    assert document.build == before
    assert document.judgement is judged
    assert window.notice.text == "Put back: survey: the adjustment does not settle."


def test_what_is_saved_while_it_is_nudged_is_judged_before(
    window: MainWindow, tmp_path: Path
) -> None:
    """The verdicts that a nudge changed are in the file, and nothing is left unsaved after it."""
    document = window.document

    def moved(build: Build) -> Build:
        survey = build.surveyed
        marks = tuple(
            m.but(at=(m.at[0], m.at[1], m.at[2] + 12.0)) if m.id == "wing_tip_te_port" else m
            for m in survey.marks
        )
        return build.but(survey=survey.but(marks=marks))

    entries = len(document.build.log)
    document.apply("move a mark", by_hand(moved), nudge="mark")
    assert window.save_to(tmp_path / "nudged.keel")
    assert not document.uncommitted
    assert load(tmp_path / "nudged.keel").build == document.build
    assert len(document.build.log) > entries
    assert not window.document_file.unsaved


def test_what_another_phase_says_of_a_nudged_build_is_not_kept_for_the_one_before(
    qtbot: QtBot, board: MainWindow
) -> None:
    document = board.document
    qtbot.keyClick(layout_of(board).airframe.board, Qt.Key.Key_Up)
    assert document.uncommitted
    document.judged("wet")
    document.stack.undo()
    assert document.judged("wet").net.survey == document.build.surveyed


def test_a_reading_in_the_making_outlives_a_note(qtbot: QtBot, window: MainWindow) -> None:
    page = true_of(window)
    page.next.tool_picked.emit("distance")
    page.next.place_typed.emit("nose pin")
    window.show_stage("log")
    window.document.apply("note", edits.add_note.of("tea", window.document.clock()))
    window.show_stage("true")
    assert page.entry.draft is not None
    page.next.place_typed.emit("wing tip te port")
    assert isinstance(page.entry.target, Distance)


def test_a_change_says_what_is_another(window: MainWindow) -> None:
    seen: list[Change] = []
    document = window.document
    document.build_changed.connect(seen.append)
    document.apply("note", edits.add_note.of("x", document.clock()))
    document.apply("strike", edits.delete_reading.of("r1"))
    document.stack.undo()
    window.start(demo_build())
    assert seen[0].parts == {"log"}
    assert {"survey", "judgement"} <= seen[1].parts
    assert seen[2].parts == seen[1].parts
    assert seen[3].parts == frozenset()
    assert seen[3].touches(frozenset({"anything"}))


@pytest.mark.parametrize(
    "edit",
    [
        edits.take_reading.of(demo_build().surveyed.figures[0], NOW),
        edits.take_again.of("r1", 0.3, NOW),
        edits.change_value.of("r1", 0.3),
        edits.set_ignored.of("r1", ignored=True),
        edits.delete_reading.of("r1"),
        edits.set_tolerance.of("stab_roll", 2.0),
        edits.correction_done.of("stab", "dry", (), NOW),
        set_station.of("F4", top=45.0),
        set_wing.of("wing", le_x=150.0),
    ],
)
def test_an_edit_checks_its_survey_once(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, edit: Edit
) -> None:
    told: list[str] = []
    for place in ("edits.truing", "project.soundness", "survey.judging"):
        monkeypatch.setattr(
            f"hardkeel.{place}.check_survey", lambda survey, place=place: told.append(place)
        )
    window.document.apply("edit", edit)
    assert len(told) == 1, told


def test_only_the_page_that_is_seen_is_refreshed_the_others_when_turned_to(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    layout_of(window).page("parts")
    told: list[str] = []
    catch_up = LazyRefresh.catch_up

    def count(self: LazyRefresh) -> None:
        told.append(type(self.parent()).__name__)
        catch_up(self)

    monkeypatch.setattr(LazyRefresh, "catch_up", count)
    window.document.apply("note", edits.add_note.of("glued the fin", window.document.clock()))
    assert told == [], "a note changes nothing that this page shows"
    window.document.apply("strike", edits.delete_reading.of("r1"))
    assert told == ["TruePage"]
    window.show_stage("log")
    assert told == ["TruePage", "LogPage"]
    texts = [log_of(window).model.index(i, 2).data() for i in range(3)]
    assert "glued the fin" in texts
    window.show_stage("true")
    window.show_stage("log")
    assert told == ["TruePage", "LogPage"], "nothing changed meanwhile"
    window.show_stage("layout")
    layout_of(window).turn_to("parts")
    assert told[2:] in (["PartsPage"], ["AirframePage", "PartsPage"])


def test_a_page_behind_shows_the_new_build_as_soon_as_it_is_turned_to(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    page: QWidget = true_of(window)
    assert not page.isVisible()
    window.start(demo_build())
    assert page.isVisible()
    assert true_of(window).entry.target is not None
    assert answers_of(window).startswith("Sand ")


def test_gauges_let_go_when_a_held_file_is_opened_as_a_copy(
    make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    first, second = make_window(), make_window()
    first.start(demo_build())
    assert first.save_to(tmp_path / "held.keel")
    second.start(demo_build())
    second.document.stack.setClean()
    gauges = gauges_of(second)
    gauges.desk.plug_stand_in("level", second.document.build)
    assert gauges.desk.is_plugged("level")
    second.open_path(tmp_path / "held.keel")
    assert gauges.desk.is_plugged("level"), "nothing was opened yet"
    next(b for b in second.notice.buttons if b.text() == "Open a copy").click()
    assert second.document.build.name == first.document.build.name
    assert not gauges.desk.is_plugged("level")


def test_undo_goes_back_a_bounded_way(window: MainWindow) -> None:
    """Each step keeps what was before it, so that an evening of edits would grow for ever."""
    window.start(demo_build())
    document = window.document
    for number in range(MOST_UNDONE + 25):
        document.apply(f"name {number}", edits.rename.of(f"n{number}"))
    assert document.stack.count() == MOST_UNDONE
    while document.stack.canUndo():
        document.stack.undo()
    assert document.build.name == "n24"
    assert window.document_file.unsaved
