"""The tour of the demo: offered once, a page a step, never in the way."""

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication, QDialog
from pytestqt.qtbot import QtBot

from hardkeel.demo.fleet import withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import tour as say
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow


def test_it_is_offered_with_the_demo_once(window: MainWindow, settings: Settings) -> None:
    window.start(demo_build(), again=True)
    assert not window.tour.isVisible()
    window.open_demo()
    assert window.tour.isVisible()
    assert settings.tour_seen
    window.tour.enough.click()
    window.open_demo()
    assert not window.tour.isVisible()
    window.menu.tour_wanted.emit()
    assert window.tour.isVisible()


def test_each_step_shows_the_page_that_it_tells_of(window: MainWindow, qtbot: QtBot) -> None:
    window.open_demo()
    for number, stop in enumerate(say.STOPS):
        assert window.tour.words.text() == say.numbered(number, stop)
        assert window.stage == stop.stage
        if stop.place:
            assert window.pages[stop.stage].tabs[stop.place].isChecked()
        window.show_stage("log")  # whoever looks elsewhere is not held back
        window.document.stack.undo()
        if number + 1 < len(say.STOPS):
            window.tour.go_on.click()
    assert window.tour.go_on.text() == say.TO_MY_MODEL
    seen: list[str] = []

    def look() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, QDialog)
        try:
            seen.append(dialog.windowTitle())
        finally:
            dialog.reject()

    QTimer.singleShot(0, look)
    window.tour.go_on.click()
    assert seen == ["Describe your model"]
    assert not window.tour.isVisible()


def test_it_tells_nothing_of_another_model(window: MainWindow) -> None:
    window.open_demo()
    assert window.tour.isVisible()
    window.document.stack.setClean()
    window.start(withy())
    assert not window.tour.isVisible()


def test_what_it_says_of_the_demo_is_so(window: MainWindow) -> None:
    window.open_demo()
    judgement = window.document.judgement
    assert [one.body for one in judgement.checks if one.verdict == "out"] == ["stab"]
    assert judgement.outliers
    assert judgement.corrections
