"""What belongs to a build ends with it: images, jobs, what was picked; another build on the bench is never mixed with it."""

import re
import threading
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import cast

import pytest
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import sallow
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import delete_former
from hardkeel.edits.sight import add_photo
from hardkeel.edits.truing import change_value
from hardkeel.project.model import Build, empty_build
from hardkeel.storage.package import load, save
from hardkeel.ui.shell.questions import YesNoDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.bench.tonight_page import TonightPage
from hardkeel.ui.stages.frame.square_page import SquarePage
from tests.conftest import StepClock
from tests.stages_of import bench_of, frame_of, sheets_of

LEFT = Qt.MouseButton.LeftButton
JPEG = b"\xff\xd8\xff\xe0 a picture, as far as anybody asks"


def with_picture(clock: StepClock, name: str) -> Build:
    """A build that names ``photos/p1.jpg``."""
    return add_photo(Build(name=name), "photos/p1.jpg", (640, 480), None, clock())


def test_a_picture_of_one_build_never_comes_into_another(
    window: MainWindow, tmp_path: Path, clock: StepClock
) -> None:
    a, b = tmp_path / "a.keel", tmp_path / "b.keel"
    save(with_picture(clock, "A"), a, attached={"photos/p1.jpg": JPEG})
    save(with_picture(clock, "B"), b)  # it names a picture of that name, and lacks it
    window.open_path(a)
    assert window.document.session.images.read("photos/p1.jpg") == JPEG
    window.open_path(b)
    assert window.document.session.images.read("photos/p1.jpg") is None
    assert window.save()
    assert load(b).attached() == {}


def test_a_job_ends_with_the_build_it_was_begun_for(window: MainWindow, qtbot: QtBot) -> None:
    going, answers, left, stopped = threading.Event(), list[object](), list[int](), list[int]()

    def work() -> object:
        going.wait(5)
        return "late"

    window.jobs.start(
        window.document.session, "x", work, answers.append, answers.append,
        stop=lambda: stopped.append(1), left=lambda: left.append(1),
    )  # fmt: skip
    window.start(demo_build())
    assert (left, stopped) == ([1], [1])
    going.set()
    window.jobs.wait()
    qtbot.wait(50)
    assert answers == []


def test_a_job_gives_way_to_the_next_of_its_kind_and_owner(
    window: MainWindow, qtbot: QtBot
) -> None:
    answers, stopped = list[object](), list[str]()
    going = threading.Event()
    session = window.document.session
    window.jobs.start(
        session, "x", lambda: going.wait(5), answers.append, answers.append,
        stop=lambda: stopped.append("first"),
    )  # fmt: skip
    window.jobs.start(session, "x", lambda: "second", answers.append, answers.append)
    window.jobs.start(session, "y", lambda: "other", answers.append, answers.append)
    going.set()
    qtbot.waitUntil(lambda: len(answers) == 2)
    window.jobs.wait()
    qtbot.wait(50)
    assert sorted(map(str, answers)) == ["other", "second"]
    assert stopped == ["first"]


def test_a_plan_that_comes_late_is_not_shown_on_an_empty_bench(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.show_stage("bench")
    page = cast("TonightPage", bench_of(window).page("tonight"))
    window.start(empty_build())
    window.jobs.wait()
    qtbot.wait(200)
    assert page.plan is None
    assert page.weeks.text() == ""


def test_square_asks_for_nothing_that_another_build_had(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(sallow())
    window.show_stage("frame")
    frame_of(window).turn_to("square")
    page = frame_of(window).page("square")
    assert isinstance(page, SquarePage)
    page.panel.row_started.emit(page.model.rowCount() - 1)  # the last of the list is picked
    picked = page.target
    assert picked is not None
    # the same frame without the former that it is read at
    named = re.findall(r"F\d+", str(picked))
    assert named
    bare = sallow()
    assert bare.fuselage is not None
    bare = bare.but(fuselage=bare.fuselage.but(squaring=None))
    window.start(delete_former(bare, named[0]))
    assert page.target is None or named[0] not in str(page.target)


def test_templates_and_nesting_are_stopped_each_by_the_one_button(
    window: MainWindow, tmp_path: Path, qtbot: QtBot
) -> None:
    desk = sheets_of(window)
    steps: list[str] = []
    nesting_over = threading.Event()

    def slow(name: str, ends: threading.Event | None) -> Callable[..., object]:
        def work(*given: object) -> object:
            step = cast("Callable[[int, int], None]", given[-1])
            for done in range(200):
                step(done, 200)
                steps.append(name)
                if ends is not None and done > 3:
                    ends.set()
                    break
                time.sleep(0.01)
            return ()

        return work

    nest = desk._begin("sheets", "known")  # noqa: SLF001
    window.jobs.start(
        window.document.session, "frame sheets", lambda: slow("nest", nesting_over)(nest.step),
        lambda _: desk._end("sheets", nest), lambda _: desk._end("sheets", nest),  # noqa: SLF001
        stop=nest.stop,
    )  # fmt: skip
    source = desk._source  # noqa: SLF001
    desk._source = replace(source, write=slow("template", None))  # noqa: SLF001
    desk.write_templates(tmp_path, "A4")
    assert nesting_over.wait(5)
    qtbot.wait(120)  # nesting has answered; templates go on
    assert window.jobs.writing
    desk._stop()  # noqa: SLF001  the button
    window.jobs.wait()
    assert steps.count("template") < 100


def test_what_was_refused_is_not_to_be_done_again(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    document = window.document
    reading = document.build.surveyed.figures[0]
    refused: list[str] = []
    document.refused.connect(refused.append)
    document.apply("nudge", change_value.of(reading.id, reading.value + 1), nudge="x")

    def no(*_given: object, **_more: object) -> object:
        raise BadInput("survey", "can't be adjusted")

    with monkeypatch.context() as patch:
        patch.setattr("hardkeel.ui.document.document.judge_survey", no)
        document.commit()
    assert refused
    assert document.build.surveyed.reading(reading.id) == reading
    assert not document.stack.canRedo()


def test_closing_while_files_are_written_asks_once_and_writes_nothing_half(
    window: MainWindow, tmp_path: Path, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    going = threading.Event()
    monkeypatch.setattr(
        "hardkeel.export.bundle.record_pdf", lambda *_given: (going.wait(5), b"%PDF")[1]
    )
    folder = tmp_path / "out"
    folder.mkdir()
    window.document.stack.setClean()
    window.exports.write_to(folder)
    asked: list[bool] = []

    def answer(stations: bool) -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, YesNoDialog)
        asked.append(stations)
        (dialog.yes if stations else dialog.back).click()

    QTimer.singleShot(50, lambda: answer(False))
    assert not window.close()
    QTimer.singleShot(50, lambda: answer(True))
    begun = time.monotonic()
    assert window.close()
    assert time.monotonic() - begun < 2.0  # the dialog, and no waiting for the work
    going.set()
    window.jobs.wait()
    assert asked == [False, True]
    assert list(folder.iterdir()) == []


def test_an_export_of_a_build_that_is_left_writes_nothing_and_says_so(
    window: MainWindow, tmp_path: Path, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    going = threading.Event()
    monkeypatch.setattr(
        "hardkeel.export.bundle.record_pdf", lambda *_given: (going.wait(5), b"%PDF")[1]
    )
    folder = tmp_path / "out"
    folder.mkdir()
    window.exports.write_to(folder)
    window.start(empty_build())
    going.set()
    window.jobs.wait()
    qtbot.wait(50)
    assert list(folder.iterdir()) == []
    assert "nothing of it was written" in window.notice.text
