"""On the board: a piece begun from its course, read, told, and shown how it was."""

from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import pieces as say
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.pieces.knowing import best_looks
from hardkeel.practice.pieces.task import by_best, task_of
from hardkeel.storage.practice_book import read_book
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.practice.board_page import BoardPage
from hardkeel.ui.stages.practice.courses_page import CoursesPage
from tests.stages_of import practice_of


def board(window: MainWindow, qtbot: QtBot, kind: str = "print") -> BoardPage:
    """The board with a piece of a kind, begun from its course."""
    window.show_stage("practice")
    practice_of(window).turn_to("courses")
    courses = practice_of(window).page("courses")
    assert isinstance(courses, CoursesPage)
    courses.courses[kind].begin.click()
    page = practice_of(window).page("board")
    assert isinstance(page, BoardPage)
    qtbot.waitUntil(
        lambda: page.task is not None and page.task.piece.kind == kind, timeout=30_000
    )  # fmt: skip
    return page


def test_a_piece_is_read_told_and_kept(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    window.start(demo_build(), again=True)
    before = window.document.build
    page = board(window, qtbot, "box")
    task = task_of("box", 5)
    page.show_task(task)
    assert not page.words.finish.isEnabled()
    for look in best_looks(task.piece):
        page.looks.table.selectRow(look)
        qtbot.keyClick(page.looks.table, Qt.Key.Key_Return)
    assert page.model.rowCount() == len(best_looks(task.piece))
    assert "until it sets" in page.looks.minutes.text()
    for asked, word in by_best(task).items():
        row = page.words.rows[asked]
        (row.out if word.out else row.true).click()
    page.words.finish.click()
    assert page.after.isVisibleTo(page)
    assert not page.words.isVisibleTo(page)
    assert {one.outcome for one in page.rows.rows} <= {"found", "right"}
    assert say.PIECES["box"].stories[task.story] in page.after.story.text()
    assert "Three of three right." in page.after.story.text()
    kept = read_book(tmp_path / "state").done
    assert [(one.course, one.right) for one in kept] == [("box", 3)]
    assert window.document.build == before  # nothing of a build
    assert not window.document_file.unsaved
    page.after.another.click()
    qtbot.waitUntil(lambda: page.task is not task and not page.lines, timeout=30_000)
    assert page.words.isVisibleTo(page)
    page.show_task(task)  # what is known already tells nothing when it is told once more
    next(iter(page.words.rows.values())).true.click()
    page.words.finish.click()
    assert len(read_book(tmp_path / "state").done) == 1


def test_the_number_lays_out_the_same_piece(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    page = board(window, qtbot, "hatch")
    page.number.setFocus()
    page.number.selectAll()
    qtbot.keyClicks(page.number, "4711")
    qtbot.keyClick(page.number, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: page.task is not None and page.task.seed == 4711, timeout=30_000)
    assert page.task is not None
    assert page.task.truth.tolist() == task_of("hatch", 4711).truth.tolist()


def test_what_is_wet_sets(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    page = board(window, qtbot, "box")
    task = task_of("box", 6)
    page.show_task(task)
    for _ in range(40):
        page.looks.read_wanted.emit(0)
    assert page.spent <= task.minutes
    assert page.told.text() == say.SET_NOW
    assert not page.looks.read.isEnabled()


def test_a_figure_tells_how_it_would_set(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    page = board(window, qtbot, "rear")
    task = next(one for one in (task_of("rear", seed) for seed in range(30)) if one.story == "bent")
    page.show_task(task)
    page.words.rows["bend"].out.click()
    error = task.lines[0].error
    page.words.rows["bend"].amount_said.emit(round(error * 2))
    page.words.amount_said.emit("bend", error * 2.2)
    page.words.finish.click()
    assert "would still be" in page.after.left.text()
    page.after.fold.line.click()
    assert page.after.best.isVisibleTo(page)


@pytest.mark.parametrize("kind", PIECES)
def test_nothing_of_the_truth_is_seen_before_the_word(
    window: MainWindow, qtbot: QtBot, kind: str
) -> None:
    """The picture is that of a piece as drawn, and no text says what is wrong."""
    window.start(demo_build(), again=True)
    page = board(window, qtbot, kind)
    one, other = (task_of(kind, seed) for seed in (1, 2))
    for task in (one, other):
        page.show_task(task)
        shown = page.view.picture
        assert shown is not None
        assert not shown.drawn
        straight = task.piece.drawn(np.zeros(len(task.truth)))
        flat = [(u, -v) for stroke in straight for u, v in stroke.points]
        assert [point for stroke in shown.wood for point in stroke.points] == flat
        texts = [part.text() for part in page.findChildren(QLabel) if part.isVisibleTo(page)]
        stories = [words for key, words in say.PIECES[kind].stories.items() if key != "nothing"]
        assert not any(story in text for story in stories for text in texts)


def test_inches_go_on_the_board_too(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    page = board(window, qtbot, "hatch")
    page.show_task(task_of("hatch", 1))
    page.looks.read_wanted.emit(0)
    window.header.unit_toggled.emit()
    row = page.model.row(0)
    assert row is not None
    assert row.cells[3].endswith("″")
