"""F1 opens the manual where it tells of the page in use; chapters, links, finds and keys lead where they say."""

import re

import pytest
from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtGui import QAction, QShortcut
from PyQt6.QtWidgets import QAbstractButton
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.manual.book import CONTENTS, chapter, chapters
from hardkeel.ui.shell.manual import ManualDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages import STAGES, Stage


def opened(window: MainWindow) -> ManualDialog:
    """The manual, opened by its entry in the menu."""
    window.menu.manual_wanted.emit()
    dialog = window.reader.dialog
    assert dialog is not None
    return dialog


def heading_on_top(dialog: ManualDialog) -> str:
    """The heading that stands first in what is seen."""
    cursor = dialog.text.cursorForPosition(dialog.text.rect().topLeft())
    block = cursor.block()
    while block.isValid() and not block.blockFormat().headingLevel():
        block = block.next()
    return block.text()


@pytest.mark.parametrize("stage", STAGES, ids=lambda one: one.key)
def test_every_stage_has_its_chapter_and_every_bench_its_heading(
    window: MainWindow, stage: Stage
) -> None:
    key = stage.key
    found = chapter(key)
    assert found.id == key
    headings = [one.heading for one in found.sections]
    for button in window.pages[key].tabs.values():
        assert button.text().replace("&", "") in headings


def test_it_opens_at_the_bench_in_use(window: MainWindow) -> None:
    window.start(demo_build(), again=True)
    window.show_stage("frame")
    window.pages["frame"].turn_to("square")
    dialog = opened(window)
    assert dialog.now == "frame"
    assert heading_on_top(dialog) == "Square"
    window.show_stage("log")
    assert opened(window) is dialog
    assert dialog.now == "log"
    dialog.close()


def test_nothing_on_the_bench_opens_how_one_begins(window: MainWindow) -> None:
    window.clear_bench()
    window.show_stage("true")
    dialog = opened(window)
    assert dialog.now == "begin"
    dialog.close()


def test_links_lead_on_and_back(window: MainWindow) -> None:
    dialog = opened(window)
    dialog.turn_to(CONTENTS)
    dialog.text.anchorClicked.emit(QUrl("true.md#in-the-air"))
    assert dialog.now == "true"
    dialog.text.anchorClicked.emit(QUrl("glossary.md"))
    dialog.back.click()
    assert dialog.now == "true"
    dialog.back.click()
    assert dialog.now == CONTENTS
    dialog.text.anchorClicked.emit(QUrl("nowhere.txt"))
    assert dialog.now == CONTENTS
    dialog.close()


def test_what_is_looked_for_is_found_and_turned_to(window: MainWindow, qtbot: QtBot) -> None:
    dialog = opened(window)
    dialog.line.setFocus()
    qtbot.keyClicks(dialog.line, "pulling sides")
    assert dialog.none.isVisibleTo(dialog) == (dialog.list.count() == 0)
    dialog.line.setText("spring back")
    assert dialog.list.count() == 1
    qtbot.keyClick(dialog.line, Qt.Key.Key_Return)
    assert dialog.now == "frame"
    assert heading_on_top(dialog) == "Bends"
    dialog.line.setText("quintuplane")
    assert dialog.none.isVisibleTo(dialog)
    dialog.line.clear()
    assert dialog.list.count() == len(chapters())
    dialog.close()


def test_pictures_are_no_wider_than_the_text(window: MainWindow) -> None:
    dialog = opened(window)
    dialog.turn_to("worked-build")
    for width in (1000, 700):
        dialog.resize(width, 600)
        bar = dialog.text.horizontalScrollBar()
        assert bar is not None
        assert bar.maximum() == 0
    dialog.close()


def test_another_text_size_makes_it_anew(window: MainWindow) -> None:
    before = opened(window)
    window.menu.scale_wanted.emit(150)
    after = opened(window)
    assert after is not before
    assert after.text.fontInfo().pixelSize() > before.text.fontInfo().pixelSize()
    after.close()


def test_every_key_of_the_manual_is_one_of_the_window(window: MainWindow) -> None:
    known = {
        "Enter",
        "Escape",
        "Space",
        "arrow keys",
        "Alt+Shift+1",
        "Ctrl+Alt+1",
        "Alt+1",
        "Ctrl+8",
        *("+", "−", "0"),  # at a drawing of wood: test_wood_board presses them
    }
    has = {one.shortcut().toString() for one in window.findChildren(QAction)}
    has |= {one.shortcut().toString() for one in window.findChildren(QAbstractButton)}
    has |= {one.key().toString() for one in window.findChildren(QShortcut)}
    assert {"Alt+Shift+1", "Ctrl+Alt+1", "Ctrl+8"} <= has
    rows = re.findall(r"^\| ([^|]+) \| [^|]+ \|$", chapter("keys").text, re.MULTILINE)
    typed = {
        key.strip(" …")
        for row in rows
        for key in re.split(r",\s| or | to |\s…", row)
        if key.strip(" …") not in ("keys", "---", "")
    }
    assert typed - known <= has
    assert len(typed) > 20
