"""Open, save, two windows on one file, crash and recovery."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication, QMenu
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import truing as edits
from hardkeel.storage.atomic import versions_of
from hardkeel.storage.package import load, save
from hardkeel.ui.shell.questions import Answer, UnsavedDialog
from hardkeel.ui.shell.window import MainWindow


def note(window: MainWindow, text: str) -> None:
    window.document.apply("write a note", edits.add_note.of(text, window.document.clock()))


def answer_unsaved(answer: Answer) -> None:
    def press() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, UnsavedDialog)
        dialog.buttons[answer].click()

    QTimer.singleShot(50, press)


def test_an_empty_window_says_how_to_begin(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    assert window.stage == ""
    assert window.blank.isVisible()
    window.blank.demo.click()
    assert window.stage == "true"
    assert window.document.build.name == "Kettlewick 1280"


def test_save_as_then_save_then_open(window: MainWindow, tmp_path: Path) -> None:
    assert window.save_to(tmp_path / "mine")
    assert window.document_file.path == tmp_path / "mine.keel"
    note(window, "more")
    assert window.windowTitle().startswith("Kettlewick 1280 *")
    assert window.save()
    assert window.windowTitle().startswith("Kettlewick 1280 ·")
    assert load(tmp_path / "mine.keel").build.log[-1].text == "more"
    window.open_path(tmp_path / "mine.keel")
    assert window.document.build.log[-1].text == "more"


def test_a_broken_file_is_told_and_the_bench_is_left_alone(
    window: MainWindow, tmp_path: Path
) -> None:
    before = window.document.build
    (tmp_path / "bad.keel").write_text("PK nonsense")
    window.open_path(tmp_path / "bad.keel")
    assert window.document.build is before
    assert "was not opened" in window.notice.text
    window.open_path(tmp_path / "none.keel")
    assert "no file none.keel" in window.notice.text


def test_the_second_window_on_a_file_is_told(
    make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    save(demo_build(), tmp_path / "a.keel")
    first, second = make_window(), make_window()
    first.open_path(tmp_path / "a.keel")
    second.open_path(tmp_path / "a.keel")
    assert "already open in another window" in second.notice.text
    assert second.document.build.survey is None
    second.notice.buttons[0].click()
    assert second.document.build.name == "Kettlewick 1280"
    assert second.document_file.path is None
    first.close()
    second.document.stack.setClean()
    second.open_path(tmp_path / "a.keel")
    assert second.document_file.path == tmp_path / "a.keel"


def test_what_was_killed_is_offered_and_brought_back(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    save(demo_build(), tmp_path / "a.keel")
    first = make_window()
    first.open_path(tmp_path / "a.keel")
    note(first, "written before the crash")
    qtbot.waitUntil(lambda: any((tmp_path / "state" / "journals").glob("*.journal")))
    journals = list((tmp_path / "state" / "journals").glob("*.journal"))
    assert len(journals) == 1
    kept = journals[0].read_bytes()
    first.document.stack.setClean()
    first.close()
    journals[0].write_bytes(kept)  # as a killed program leaves it: the journal there, its lock free

    second = make_window()
    second.offer_recovery()
    assert "not saved when Hard Keel ended" in second.notice.text
    second.notice.buttons[0].click()
    assert second.document.build.log[-1].text == "written before the crash"
    assert second.document_file.path == tmp_path / "a.keel"
    assert second.document_file.unsaved
    assert second.save()
    assert load(tmp_path / "a.keel").build.log[-1].text == "written before the crash"
    assert second.document_file.left_behind() == []


def test_recovery_can_be_declined(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    first = make_window()
    first.start(demo_build())
    journals = tmp_path / "state" / "journals"
    qtbot.waitUntil(lambda: any(journals.glob("*.journal")), timeout=5000)
    journal = next(journals.glob("*.journal"))
    kept = journal.read_bytes()
    first.document.stack.setClean()
    first.close()
    journal.write_bytes(kept)
    second = make_window()
    second.offer_recovery()
    second.notice.buttons[1].click()
    assert second.document_file.left_behind() == []


def test_a_file_changed_on_disk_is_not_written_over(window: MainWindow, tmp_path: Path) -> None:
    window.save_to(tmp_path / "a.keel")
    save(demo_build().but(name="Theirs"), tmp_path / "a.keel")
    note(window, "ours")
    assert not window.save()
    assert "changed on disk" in window.notice.text
    assert load(tmp_path / "a.keel").build.name == "Theirs"


@pytest.mark.parametrize(
    ("answer", "closes", "saved"),
    [("save", True, True), ("drop", True, False), ("back", False, False)],
)
def test_closing_with_unsaved_changes_asks(
    window: MainWindow, tmp_path: Path, answer: Answer, closes: bool, saved: bool
) -> None:
    window.save_to(tmp_path / "a.keel")
    note(window, "last words")
    answer_unsaved(answer)
    assert window.close() is closes
    assert (load(tmp_path / "a.keel").build.log[-1].text == "last words") is saved


def test_the_record_is_written_beside_the_window(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    window.exports.write_to(tmp_path / "record")
    qtbot.waitUntil(lambda: "The record is in" in window.notice.text, timeout=20000)
    assert (tmp_path / "record" / "kettlewick-1280-record.pdf").read_bytes().startswith(b"%PDF")


def test_a_record_that_can_not_be_written_is_told(
    qtbot: QtBot, window: MainWindow, tmp_path: Path
) -> None:
    (tmp_path / "taken").write_text("a file")
    window.exports.write_to(tmp_path / "taken" / "x")
    qtbot.waitUntil(lambda: "No record" in window.notice.text, timeout=20000)


def test_an_older_version_is_taken_up_and_can_be_undone(window: MainWindow, tmp_path: Path) -> None:
    window.save_to(tmp_path / "a.keel")
    count = len(window.document.build.log)
    note(window, "a mistake")
    window.save()
    window.menu.aboutToShow.emit()
    window.go_back_to(versions_of(tmp_path / "a.keel")[0])
    assert len(window.document.build.log) == count
    assert window.document_file.path == tmp_path / "a.keel"
    assert window.document.stack.undoText().startswith("go back to 20")
    window.document.stack.undo()
    assert window.document.build.log[-1].text == "a mistake"


def test_recent_files_are_offered(window: MainWindow, tmp_path: Path) -> None:
    window.save_to(tmp_path / "a.keel")
    window.menu.aboutToShow.emit()
    menus: list[QMenu] = window.menu.findChildren(QMenu)
    names = [action.text() for menu in menus for action in menu.actions()]
    assert "a.keel" in names
