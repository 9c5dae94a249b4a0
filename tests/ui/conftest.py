"""A real window for each test, on folders of its own."""

from collections.abc import Callable, Iterator
from functools import lru_cache
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import QCoreApplication, QEvent, QSettings
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.readings import Phase
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme
from tests.conftest import StepClock


@pytest.fixture(scope="session", autouse=True)
def _dressed(qapp: QApplication) -> None:
    qapp.setStyle("Fusion")
    load_fonts()
    apply_theme(qapp, make_theme("light"))


@pytest.fixture(scope="session", autouse=True)
def _judged_once() -> Iterator[None]:
    """Some six hundred tests open the same few builds: what their readings say is reckoned once."""
    plain = judge_survey

    @lru_cache(maxsize=16)
    def afresh(survey: Survey, phase: Phase | None) -> Judgement:
        return plain(survey, phase)

    def judge(survey: Survey, phase: Phase | None = None, **more: Any) -> Judgement:
        return plain(survey, phase, **more) if more else afresh(survey, phase)

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("hardkeel.ui.document.document.judge_survey", judge)
        yield


@pytest.fixture(scope="session", autouse=True)
def _laid_quickly() -> Iterator[None]:
    """No window waits seconds for a tighter strip: that it is tighter is looked at in the core."""
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("hardkeel.joinery.tightening.LOOKED_SECONDS", 0.05)
        yield


@pytest.fixture
def settings(tmp_path: Path) -> Settings:
    return Settings(QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat))


@pytest.fixture
def make_window(
    qtbot: QtBot, settings: Settings, tmp_path: Path, clock: StepClock
) -> Iterator[Callable[[], MainWindow]]:
    made: list[MainWindow] = []

    def make() -> MainWindow:
        window = MainWindow(settings, tmp_path / "state", clock)
        made.append(window)
        window.resize(1280, 800)
        window.show()
        qtbot.waitExposed(window)
        return window

    yield make
    for window in made:
        # nobody is there to answer
        window._may_leave = lambda: True  # type: ignore[method-assign]  # noqa: SLF001
        window._may_stop_writing = lambda: True  # type: ignore[method-assign]  # noqa: SLF001
        window.close()
        window.deleteLater()
        # pytest-qt runs no event loop at this depth, so `deleteLater` alone would never be carried out,
        # and every later change of theme would restyle all windows made so far
        QCoreApplication.sendPostedEvents(window, QEvent.Type.DeferredDelete)


@pytest.fixture
def window(make_window: Callable[[], MainWindow]) -> MainWindow:
    """A window with the demo on the bench."""
    made = make_window()
    made.start(demo_build())
    made.document.stack.setClean()
    return made
