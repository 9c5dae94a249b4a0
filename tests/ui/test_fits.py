"""Every page has room for its texts on the screens that builders have: nothing cut, nothing wider than the screen."""

from collections.abc import Callable
from dataclasses import dataclass

import pytest
from pytestqt.qtbot import QtBot

from hardkeel.demo import fleet
from hardkeel.demo.biplane import teasel
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.widgets.fold_line import FoldLine
from tests.heartbeat import places_of, turn
from tests.ui.cut_texts import cut_texts
from tests.ui.painted_texts import noted


def _long() -> Build:
    """The demo under a name that nobody would choose."""
    return demo_build().but(
        name="The third of the long-winged ones with the narrow fuselage, mended twice"
    )


_ROUNDS = 8


@dataclass(frozen=True)
class Screen:
    """A screen with what lies on the bench."""

    size: tuple[int, int]
    percent: int
    dark: bool
    inches: bool
    make: Callable[[], Build]


SCREENS = (
    Screen((1366, 768), 150, dark=False, inches=False, make=demo_build),
    Screen((1366, 768), 150, dark=True, inches=True, make=teasel),
    Screen((1366, 768), 125, dark=False, inches=True, make=_long),
    Screen((1024, 700), 100, dark=True, inches=False, make=fleet.withy),
    Screen((1024, 700), 100, dark=False, inches=True, make=demo_build),
)


def _settled(window: MainWindow, qtbot: QtBot, room: tuple[int, int]) -> list[str]:
    """What is cut once layouts have come to rest: words that wrap want two rounds, on a busy machine more."""
    found: list[str] = []
    for _ in range(_ROUNDS):
        qtbot.wait(60)
        least = window.minimumSizeHint()
        found = cut_texts(window)
        if least.width() > room[0] or least.height() > room[1]:
            found.append(f"wants {least.width()} × {least.height()}")
        with noted() as painted:
            window.grab()
        found += painted
        if not found:
            break
    return found


@pytest.mark.parametrize(
    "screen", SCREENS, ids=lambda one: f"{one.size[0]}-{one.percent}-{one.make.__name__}"
)
def test_nothing_is_cut_and_no_page_is_wider_than_the_screen(
    make_window: Callable[[], MainWindow], qtbot: QtBot, screen: Screen
) -> None:
    window = make_window()
    if screen.dark:
        window.header.theme_toggled.emit()
    if screen.inches:
        window.header.unit_toggled.emit()
    window.menu.scale_wanted.emit(screen.percent)
    window.start(screen.make(), again=True)
    wide, high = screen.size
    cut: dict[str, str] = {}
    for place in places_of(window):
        turn(window, place)
        qtbot.waitUntil(lambda: not window.jobs.busy, timeout=30_000)
        window.resize(wide, high)
        for line in window.pages[place.stage].findChildren(FoldLine):
            if line.isVisible():
                line.setChecked(True)  # what lies folded has to fit as well
        for fault in _settled(window, qtbot, screen.size):
            cut.setdefault(fault, str(place))
    assert cut == {}


def test_the_first_page_is_no_wider_than_a_small_screen(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    """Pages that nobody has seen yet must not hold the window wide."""
    window = make_window()
    window.resize(1024, 700)
    qtbot.wait(60)
    assert (window.width(), window.height()) == (1024, 700)
    assert cut_texts(window) == []


def test_the_first_page_fits_too(make_window: Callable[[], MainWindow], qtbot: QtBot) -> None:
    window = make_window()
    window.menu.scale_wanted.emit(150)
    window.resize(1366, 768)
    qtbot.wait(60)
    assert window.minimumSizeHint().height() <= 768
    assert window.minimumSizeHint().width() <= 1366
    assert cut_texts(window) == []
    roomy = window.rail.buttons[0]
    assert roomy.accessibleDescription()  # what stands under a name is told where it has no room
