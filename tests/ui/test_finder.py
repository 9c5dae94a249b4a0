"""Everything that can be done is found by its name, and done."""

from collections.abc import Callable

import pytest
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import finder as say
from hardkeel.ui.shell.finder import Deed, FinderDialog
from hardkeel.ui.shell.window import MainWindow


def found(window: MainWindow, act: Callable[[FinderDialog], object]) -> None:
    """Open the finder by its key and do something in it."""

    def look() -> None:
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, FinderDialog)
        try:
            act(dialog)
        finally:  # a dialog left open would wait for ever
            dialog.reject()

    QTimer.singleShot(0, look)
    window.menu.find_wanted.emit()


@pytest.mark.parametrize(
    ("typed", "stage", "tab"),
    [("flat tail", "tail", "flat"), ("order frame", "frame", "order"), ("weeks", "", "")],
)
def test_a_bench_is_found_by_name_and_turned_to(
    window: MainWindow, typed: str, stage: str, tab: str
) -> None:
    window.start(demo_build(), again=True)

    def act(dialog: FinderDialog) -> None:
        dialog.line.setText(typed)
        assert dialog.none.isVisibleTo(dialog) == (not stage)
        dialog.line.returnPressed.emit()

    found(window, act)
    if stage:
        assert window.stage == stage
        assert window.pages[stage].tabs[tab].isChecked()


def test_demos_text_size_units_and_theme_are_found(window: MainWindow) -> None:
    window.start(demo_build(), again=True)
    lists: list[str] = []

    def act(dialog: FinderDialog) -> None:
        for typed in ("sallow", "125", "inches", "light", "save as", "undo"):
            dialog.line.setText(typed)
            lists.append(f"{typed}: {dialog.model.rowCount()}")
        dialog.line.setText("light")
        dialog.line.returnPressed.emit()

    found(window, act)
    assert lists == ["sallow: 1", "125: 1", "inches: 1", "light: 1", "save as: 1", "undo: 0"]
    assert window.header.theme_button.text() == "dark"


def test_what_the_page_offers_stands_first_and_keys_are_told(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.start(demo_build(), again=True)

    def act(dialog: FinderDialog) -> None:
        first = dialog.model.row(0)
        assert first is not None
        assert first.cells[1] == say.HERE
        dialog.line.setText("print what")
        row = dialog.model.row(0)
        assert row is not None
        assert row.cells[2] == "Ctrl+P"
        dialog.line.setText("")
        qtbot.keyClick(dialog, Qt.Key.Key_Down)
        assert dialog.table.currentIndex().row() == 1
        qtbot.keyClick(dialog, Qt.Key.Key_Up)
        assert dialog.table.currentIndex().row() == 0

    found(window, act)


def test_an_open_exercise_offers_no_page_that_is_off_the_rail(window: MainWindow) -> None:
    build = demo_build()
    section = {"seed": 1, "grade": 1, "minutes": 9.0, "asked": ("stab_yaw",), "sealed": "-"}
    window.start(build.but(practice=section), again=True)

    def act(dialog: FinderDialog) -> None:
        dialog.line.setText(say.tab_of("True"))
        assert dialog.model.rowCount() == 0

    found(window, act)


@pytest.mark.parametrize(
    ("key", "held"),
    [
        (Qt.Key.Key_F10, Qt.KeyboardModifier.NoModifier),
        (Qt.Key.Key_B, Qt.KeyboardModifier.AltModifier),
    ],
)
def test_the_menu_opens_by_key(
    window: MainWindow, qtbot: QtBot, key: Qt.Key, held: Qt.KeyboardModifier
) -> None:
    window.start(demo_build(), again=True)
    window.activateWindow()
    seen: list[bool] = []
    window.menu.aboutToShow.connect(lambda: seen.append(True))
    window.menu.aboutToShow.connect(lambda: QTimer.singleShot(50, window.menu.close))
    qtbot.keyClick(window, key, held)
    qtbot.waitUntil(lambda: bool(seen), timeout=5_000)


def test_a_question_mark_finds_where_nothing_is_typed(window: MainWindow, qtbot: QtBot) -> None:
    window.start(demo_build(), again=True)
    window.activateWindow()
    opened: list[bool] = []

    def look() -> None:
        dialog = QApplication.activeModalWidget()
        opened.append(isinstance(dialog, FinderDialog))
        if isinstance(dialog, FinderDialog):
            dialog.reject()

    window.show_stage("log")
    QTimer.singleShot(300, look)
    qtbot.keyClick(window, "?")
    qtbot.waitUntil(lambda: bool(opened), timeout=5_000)
    assert opened == [True]


def test_words_are_found_in_any_order() -> None:
    deed = Deed("Flat", "in Tail", "", lambda: None)
    assert deed.is_called("tail flat")
    assert deed.is_called("")
    assert not deed.is_called("tail round")
