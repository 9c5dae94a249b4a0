"""Work that could be lost: unsaved builds, files changed or gone, a state folder that refuses."""

import json
import os
import threading
import zipfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from PyQt6.QtCore import QByteArray, QTimer
from PyQt6.QtWidgets import QApplication, QMenu
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.sight import add_photo
from hardkeel.storage.package import load, save
from hardkeel.ui import app
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.questions import YesNoDialog
from hardkeel.ui.shell.window import MainWindow
from tests.conftest import StepClock
from tests.ui.test_files import answer_unsaved, note

MakeWindow = Callable[[], MainWindow]


def killed(make_window: MakeWindow, tmp_path: Path, name: str, path: Path | None = None) -> None:
    """Leave a journal as a killed program does: there, its lock free."""
    window = make_window()
    if path is None:
        window.start(demo_build().but(name=name))
    else:
        window.open_path(path)
    note(window, f"of {name}")
    window.document_file.write_journal()
    mine = [
        file
        for file in (tmp_path / "state" / "journals").glob("*.journal")
        if f"of {name}" in file.read_text()
    ]
    kept = {file: file.read_bytes() for file in mine}
    window.document.stack.setClean()
    window.close()
    for file, data in kept.items():
        file.write_bytes(data)


def press(window: MainWindow, words: str) -> None:
    next(b for b in window.notice.buttons if b.text() == words).click()


def last_note(window: MainWindow) -> str:
    return window.document.build.log[-1].text


def test_bringing_back_asks_before_it_replaces_unsaved_work(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    killed(make_window, tmp_path, "lost")
    window = make_window()
    window.offer_recovery()
    window.start(demo_build().but(name="on the bench"))
    note(window, "in work")
    answer_unsaved("back")
    press(window, "Bring them back")
    assert last_note(window) == "in work"
    answer_unsaved("drop")
    press(window, "Bring them back")  # still offered
    assert last_note(window) == "of lost"


def test_a_copy_asks_before_it_replaces_unsaved_work(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    save(demo_build(), tmp_path / "a.keel")
    first, second = make_window(), make_window()
    first.open_path(tmp_path / "a.keel")
    second.open_path(tmp_path / "a.keel")
    second.start(demo_build().but(name="on the bench"))
    note(second, "in work")
    answer_unsaved("back")
    press(second, "Open a copy")
    assert last_note(second) == "in work"


def test_every_build_that_was_left_is_offered_and_no_other_notice_hides_the_offer(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    killed(make_window, tmp_path, "one")
    killed(make_window, tmp_path, "two")
    window = make_window()
    window.offer_recovery()
    assert "So had 1 more" in window.notice.text
    window.notice.tell("Something else.")
    press(window, "All right")
    press(window, "Drop them")
    assert "were not saved" in window.notice.text
    assert "more" not in window.notice.text
    press(window, "Not now")
    assert window.notice.text == ""
    window.menu.aboutToShow.emit()
    menus: list[QMenu] = window.menu.findChildren(QMenu)
    left = next(menu for menu in menus if menu.title() == "Left unsaved")
    [action] = left.actions()
    action.trigger()
    assert last_note(window) in ("of one", "of two")
    assert window.document_file.left_behind() == []


def test_what_comes_back_does_not_go_over_a_file_that_was_changed_since(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    killed(make_window, tmp_path, "mine", path)
    save(demo_build().but(name="changed since"), path)
    window = make_window()
    window.offer_recovery()
    press(window, "Bring them back")
    assert "was changed since" in window.notice.text
    assert not window.save()
    assert load(path).build.name == "changed since"


def test_what_comes_back_of_a_file_in_use_is_forgotten_once_it_is_back(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    killed(make_window, tmp_path, "mine", path)
    other, window = make_window(), make_window()
    other.open_path(path)
    window.offer_recovery()
    press(window, "Bring them back")
    assert last_note(window) == "of mine"
    assert window.document_file.path is None
    assert "without a file" in window.notice.text
    assert window.document_file.left_behind() == []


def test_photos_come_back_with_what_was_killed(make_window: MakeWindow, tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("photos/tail.jpg", b"tail")
    killed(make_window, tmp_path, "mine", path)
    window = make_window()
    window.offer_recovery()
    press(window, "Bring them back")
    assert window.save_to(tmp_path / "b.keel")
    with zipfile.ZipFile(tmp_path / "b.keel") as archive:
        assert archive.read("photos/tail.jpg") == b"tail"


def test_photos_go_through_a_bare_file_and_back(make_window: MakeWindow, tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("photos/tail.jpg", b"tail")
    window = make_window()
    window.open_path(path)
    assert window.save_to(tmp_path / "b.json")
    assert window.save_to(tmp_path / "c.keel")
    with zipfile.ZipFile(tmp_path / "c.keel") as archive:
        assert archive.read("photos/tail.jpg") == b"tail"


def test_an_offer_goes_when_what_it_offers_was_brought_back_otherwise(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    killed(make_window, tmp_path, "lost")
    window = make_window()
    window.offer_recovery()
    assert window.notice.text
    window.menu.left_wanted.emit(window.document_file.left_behind()[0])
    assert last_note(window) == "of lost"
    assert window.notice.text == ""


def test_a_save_that_would_lose_photos_says_so_and_offers_ways_out(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("photos/tail.jpg", b"tail")
    window = make_window()
    window.open_path(path)
    path.unlink()
    assert window.windowTitle() != ""
    assert window.document_file.standing == "its file is gone"
    assert not window.save()
    assert "photos/tail.jpg" in window.notice.text
    press(window, "Save without it")
    assert window.notice.text == ""
    assert not window.document_file.unsaved
    assert load(path).build.name == "Kettlewick 1280"


@contextmanager
def closed(folder: Path) -> Iterator[None]:
    """A state folder that takes nothing: root may write anywhere, so a file stands in its place."""
    aside = folder.with_name(folder.name + "-aside")
    if folder.exists():
        folder.rename(aside)
    folder.write_text("")
    try:
        yield
    finally:
        folder.unlink()
        if aside.exists():
            aside.rename(folder)


def test_a_state_folder_that_refuses_stops_nothing(make_window: MakeWindow, tmp_path: Path) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    with closed(tmp_path / "state"):
        window = make_window()
        window.offer_recovery()
        window.open_path(path)
        assert window.document.build.name == "Kettlewick 1280"
        assert "state folder can't be written" in window.notice.text
        note(window, "kept")
        name = window.document.session.images.add(b"a scan")
        assert window.document.session.images.read(name) == b"a scan"
        assert window.save()
        assert load(path).build.log[-1].text == "kept"
        assert window.save_to(tmp_path / "b.keel")
        window.document_file.tidy()
        assert window.close()


def test_the_own_file_by_another_name_is_not_in_use(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    path, link = tmp_path / "a.keel", tmp_path / "link.keel"
    save(demo_build(), path)
    link.symlink_to(path)
    window = make_window()
    window.open_path(path)
    window.open_path(link)
    assert window.notice.text == ""
    note(window, "through the link")
    assert window.save()
    assert load(path).build.log[-1].text == "through the link"


def test_not_saved_goes_away_with_a_later_success(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(_fd: int) -> None:
        raise OSError(28, "No space left on device")

    window.save_to(tmp_path / "a.keel")
    note(window, "more")
    with monkeypatch.context() as patch:
        patch.setattr(os, "fsync", full)
        assert not window.save()
    assert "Not saved" in window.notice.text
    assert window.save()
    assert window.notice.text == ""


def test_what_killed_programs_left_half_written_is_swept(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    window = make_window()
    state = tmp_path / "state"
    for folder in ("journals", "locks"):
        (state / folder).mkdir(parents=True, exist_ok=True)
        (state / folder / "dead.lock").write_text("process 1")
    (state / "journals" / "dead.new").write_text("half")
    half = tmp_path / ".a.keel.x1.new"
    half.write_text("half")
    os.utime(half, (0, 0))
    window.start(demo_build())
    assert window.save_to(tmp_path / "a.keel")
    window.document_file.tidy()
    assert not half.exists()
    assert not list(state.rglob("dead.*"))
    held = list((state / "locks").glob("*.lock"))
    assert len(held) == 1  # the open file's own


def test_the_window_comes_back_where_it_stood(
    make_window: MakeWindow, settings: Settings, qtbot: QtBot
) -> None:
    first = make_window()
    first.resize(first.width(), 707)
    first.close()
    assert isinstance(settings.geometry, QByteArray)
    second = MainWindow(settings, Path("nowhere"), first.document.clock)
    qtbot.addWidget(second)
    assert second.height() == 707


def test_a_fault_in_another_thread_becomes_a_notice(
    qtbot: QtBot,
    window: MainWindow,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    monkeypatch.setattr("sys.excepthook", lambda *given: None)
    monkeypatch.setattr("threading.excepthook", lambda given: None)
    app.install_fault_hook(window)

    def fail() -> None:
        raise ZeroDivisionError("in a thread")

    thread = threading.Thread(target=fail)
    thread.start()
    thread.join()
    qtbot.waitUntil(lambda: "nobody foresaw" in window.notice.text)
    assert "in a thread" in capsys.readouterr().err


def test_a_jobs_fault_becomes_a_notice(qtbot: QtBot, window: MainWindow) -> None:
    def work() -> object:
        raise ZeroDivisionError("in a job")

    told: list[object] = []
    window.jobs.start(window.document.session, "x", work, lambda _result: None, told.append)
    qtbot.waitUntil(lambda: "nobody foresaw" in window.notice.text)
    assert told
    assert window.notice.buttons[0].text() == "Show the report"


def test_lately_passes_over_a_folder_that_is_closed(
    window: MainWindow, settings: Settings, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.add_recent(tmp_path / "closed" / "a.keel")
    settings.add_recent(tmp_path / ("n" * 300) / "b.keel")
    window.menu.aboutToShow.emit()
    window.clear_bench()
    window.show_stage("true")
    assert not window.stage
    assert not window.blank.cards


def test_the_list_of_left_work_is_hidden_where_there_is_none(
    window: MainWindow,
) -> None:
    window.menu.aboutToShow.emit()
    menus: list[QMenu] = window.menu.findChildren(QMenu)
    left = next(menu for menu in menus if menu.title() == "Left unsaved")
    action = left.menuAction()
    assert action is not None
    assert not action.isVisible()


def test_a_copy_that_was_killed_comes_back_with_all_that_came_with_it(
    make_window: MakeWindow, tmp_path: Path, clock: StepClock
) -> None:
    path, state = tmp_path / "a.keel", tmp_path / "state"
    build = add_photo(demo_build(), "photos/p1.jpg", (640, 480), None, clock())
    save(build, path, attached={"photos/p1.jpg": b"a picture"})
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("notes/unknown.txt", b"from elsewhere")
    holds, window = make_window(), make_window()
    holds.open_path(path)
    window.open_path(path)
    press(window, "Open a copy")
    note(window, "in the copy")
    window.document_file.write_journal()
    kept = {file: file.read_bytes() for file in (state / "journals").iterdir()}
    window.document.stack.setClean()
    window.close()
    for file, data in kept.items():
        file.write_bytes(data)
    again = make_window()
    again.offer_recovery()
    press(again, "Bring them back")
    assert last_note(again) == "in the copy"
    assert again.document.session.images.read("photos/p1.jpg") == b"a picture"
    assert again.save_to(tmp_path / "b.keel")
    with zipfile.ZipFile(tmp_path / "b.keel") as archive:
        assert archive.read("photos/p1.jpg") == b"a picture"
        assert archive.read("notes/unknown.txt") == b"from elsewhere"


@pytest.mark.parametrize("how", ["deleted", "damaged"])
def test_what_can_no_longer_be_carried_along_is_told_before_it_is_lost(
    make_window: MakeWindow, tmp_path: Path, how: str, clock: StepClock
) -> None:
    path = tmp_path / "a.keel"
    build = add_photo(demo_build(), "photos/p1.jpg", (640, 480), None, clock())
    save(build, path, attached={"photos/p1.jpg": b"a picture"})
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr("notes/unknown.txt", b"from elsewhere")
    killed(make_window, tmp_path, "mine", path)
    if how == "deleted":
        path.unlink()
    else:
        path.write_bytes(path.read_bytes()[:200])
    window = make_window()
    window.offer_recovery()
    press(window, "Bring them back")
    assert not window.save_to(tmp_path / "b.keel")
    assert "unknown.txt" in window.notice.text
    press(window, "Save without it")
    with zipfile.ZipFile(tmp_path / "b.keel") as archive:
        assert archive.read("photos/p1.jpg") == b"a picture"  # the picture was still known


def test_a_file_that_another_program_replaced_is_told_and_what_is_here_is_kept(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    path = tmp_path / "a.keel"
    save(demo_build(), path)
    window = make_window()
    window.open_path(path)
    assert window.document_file.standing.startswith("saved")
    save(demo_build().but(name="another's"), path)
    window.document_file.look_at_file()
    assert window.document_file.standing == "its file was changed"
    assert window.document_file.unsaved  # closing asks
    answer_unsaved("back")
    assert not window.close()
    path.unlink()
    window.document_file.look_at_file()
    assert window.document_file.standing == "its file is gone"
    [journal] = (tmp_path / "state" / "journals").glob("*.journal")
    assert "Kettlewick" in journal.read_text()


def test_bringing_back_keeps_the_old_journal_where_no_new_one_can_be_written(
    make_window: MakeWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    killed(make_window, tmp_path, "lost")
    window = make_window()
    window.offer_recovery()

    def full(*_given: object, **_more: object) -> None:
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as patch:
        patch.setattr("hardkeel.storage.journal.Journal.write", full)
        press(window, "Bring them back")
        assert last_note(window) == "of lost"
        assert "No space left" in window.notice.text
    other = make_window()
    assert len(other.document_file.left_behind()) == 1


def test_a_journal_of_a_newer_version_is_mentioned_and_kept(
    make_window: MakeWindow, tmp_path: Path
) -> None:
    folder = tmp_path / "state" / "journals"
    folder.mkdir(parents=True)
    head = json.dumps({"path": None, "at": "2030-01-01T10:00:00+00:00", "stamp": None})
    newer = folder / "abc.journal"
    newer.write_text(f"{head}\n{json.dumps({'format': 'hardkeel/9'})}")
    window = make_window()
    window.offer_recovery()
    assert "left unsaved by a newer Hard Keel" in window.notice.text
    window.document_file.tidy()
    assert newer.exists()


def test_saving_under_a_name_that_becomes_anothers_asks(
    make_window: MakeWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    other = tmp_path / "mymodel.keel"
    save(demo_build().but(name="another"), other)
    window = make_window()
    window.start(demo_build())
    monkeypatch.setattr(
        "hardkeel.ui.shell.window.QFileDialog.getSaveFileName",
        lambda *_given: (str(tmp_path / "mymodel"), ""),
    )
    for yes in (False, True):
        QTimer.singleShot(50, lambda yes=yes: _answer(yes=yes))
        window.menu.save_as_wanted.emit()
        assert (load(other).build.name != "another") is yes


def _answer(*, yes: bool) -> None:
    dialog = QApplication.activeModalWidget()
    assert isinstance(dialog, YesNoDialog)
    (dialog.yes if yes else dialog.back).click()
