"""The first page: what was lately on the bench with how it stands, and four doors."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import shell as say
from hardkeel.storage.package import save
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow


@pytest.fixture
def lately(settings: Settings, tmp_path: Path) -> list[Path]:
    """A build that can be read and one that can't, the readable one newer."""
    good, bad = tmp_path / "good.keel", tmp_path / "bad.keel"
    save(demo_build(), good)
    bad.write_bytes(b"no build")
    for one in (bad, good):
        settings.add_recent(one)
    return [good, bad]


def test_what_was_on_the_bench_says_how_it_stands_and_what_is_next(
    lately: list[Path], make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    assert list(window.blank.cards) == lately
    good, bad = (window.blank.cards[one] for one in lately)
    qtbot.waitUntil(lambda: not window.jobs.busy, timeout=30_000)
    assert good.glance.name == demo_build().name
    assert good.glance.answer == "Stabilizer out of true"
    assert good.glance.out == {"stab"}
    assert good.glance.next.startswith("Next: ")
    assert good.glance.when.startswith("today, ")
    assert good.accessibleName().endswith(good.glance.next)
    assert bad.glance.answer == say.CANNOT_BE_READ
    assert window.blank.begin.text() == say.OR_BEGIN
    good.setFocus()
    qtbot.keyClick(good, Qt.Key.Key_Return)
    assert window.document.build.name == demo_build().name
    assert window.document_file.path == lately[0]


def test_with_nothing_lately_the_doors_have_the_width(window: MainWindow) -> None:
    window.clear_bench()
    window.show_stage("true")
    assert not window.blank.cards
    assert window.blank.begin.text() == say.WHAT_IS_ON_THE_BENCH
    assert window.blank.doors[0].width() > window.width() / 3


@pytest.mark.parametrize(("door", "stage", "place"), [("plan", "layout", "paper"), ("practice", "practice", "courses"), ("demo", "true", "rig")])  # fmt: skip
def test_a_door_leads_where_it_says(
    make_window: Callable[[], MainWindow], qtbot: QtBot, door: str, stage: str, place: str
) -> None:
    window = make_window()
    button = getattr(window.blank, door)
    button.setFocus()
    qtbot.keyClick(button, Qt.Key.Key_Return)
    assert window.stage == stage
    assert window.pages[stage].tabs[place].isChecked()


def test_pictures_behind_the_doors_are_painted(window: MainWindow) -> None:
    window.clear_bench()
    window.show_stage("true")
    for door in window.blank.doors:
        image = door.grab().toImage()
        colours = {
            image.pixelColor(x, y).name()
            for x in range(10, image.width() - 10, 7)
            for y in range(10, image.height() // 2, 5)
        }
        assert len(colours) > 2


def test_a_build_that_comes_while_others_are_looked_into_is_no_fault(
    lately: list[Path], make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    window.start(demo_build(), again=True)
    qtbot.waitUntil(lambda: not window.jobs.busy, timeout=30_000)
    window.clear_bench()
    window.show_stage("true")
    qtbot.waitUntil(lambda: not window.jobs.busy, timeout=30_000)
    card = window.blank.cards[lately[0]]
    assert card.glance.answer == "Stabilizer out of true"


def test_when_it_was_saved_is_said_as_one_says_it() -> None:
    from datetime import datetime, timedelta  # noqa: PLC0415

    now = datetime(2026, 12, 1, 8, 0)  # noqa: DTZ001  a wall's clock
    said = [
        say.saved_when(now - timedelta(hours=hours), now)
        for hours in (1, 20, 80, 24 * 40, 24 * 500)
    ]
    assert said == ["today, 07:00", "yesterday, 12:00", "Saturday", "22 October", "July 2025"]
