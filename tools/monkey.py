"""A monkey at the window: any page, any edit, opening, undoing, exporting, closing: ``python tools/monkey.py MINUTES [SEED]``.

Every exception that nobody caught, every warning of Qt and every job that crashed is a find; the last acts are printed.
"""

import os
import random
import sys
import tempfile
import time
import traceback
from collections import deque
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
sys.path.insert(0, str(Path(__file__).parent.parent))

from typing import TYPE_CHECKING

from PyQt6 import QtTest
from PyQt6.QtCore import QPoint, QSettings, Qt, QTimer, qInstallMessageHandler
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QInputDialog,
    QLineEdit,
    QTableView,
    QWidget,
)

from hardkeel.base.errors import HardKeelError
from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import Build, empty_build
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme
from tests.heartbeat import edits_for, places_of, settle, turn

if TYPE_CHECKING:
    from collections.abc import Callable

_HAND: Any = QtTest.QTest  # its stubs call its functions methods
_TYPED = ("", "12", "3.5", "-4", "1/8", "0", "7e9", "stab", "F4", "45 mm", "2 in", "1,5", "x")
_KEYS = (
    Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Return, Qt.Key.Key_Escape,
    Qt.Key.Key_Delete, Qt.Key.Key_Tab, Qt.Key.Key_Space, Qt.Key.Key_Plus, Qt.Key.Key_N, Qt.Key.Key_A,
)  # fmt: skip
_NOT = ("Quit", "Save", "Open", "Write", "Print")  # a dialog of the system would wait for ever


class Monkey:
    """One window after another, on a folder of its own."""

    def __init__(self, app: QApplication, folder: Path, seed: int) -> None:
        self.app, self.folder, self.rng = app, folder, random.Random(seed)
        self.acts: deque[str] = deque(maxlen=25)
        self.count = self.opened = 0
        self.finds: list[str] = []
        self.made = 0
        self.window = self.new_window()
        sys.excepthook = self.on_exception
        qInstallMessageHandler(self.on_message)

    def on_exception(self, kind: type[BaseException], fault: BaseException, where: object) -> None:
        if isinstance(fault, HardKeelError):
            return  # a slot of ours would have told it; the monkey calls past the pages
        told = "".join(traceback.format_exception(kind, fault, fault.__traceback__))
        self.finds.append(told)
        print(f"FOUND after {list(self.acts)}\n{told}", flush=True)

    def on_message(self, _kind: object, _context: object, text: str | None) -> None:
        if text and "does not support" not in text and "QFont" not in text:
            print(f"Qt: {text} after {list(self.acts)[-4:]}", flush=True)

    def new_window(self) -> MainWindow:
        self.made += 1
        settings = Settings(
            QSettings(str(self.folder / f"s{self.made}.ini"), QSettings.Format.IniFormat)
        )
        window = MainWindow(settings, self.folder / "state", lambda: datetime.now(UTC))
        window.theme_changed.connect(lambda theme: apply_theme(self.app, theme))
        window.jobs.crashed.connect(self.on_crashed)
        window.restyle()
        window.resize(1280, 800)
        window.show()
        window._may_leave = lambda: True  # type: ignore[method-assign]  # noqa: SLF001
        window._may_stop_writing = lambda: True  # type: ignore[method-assign]  # noqa: SLF001
        return window

    def on_crashed(self, report: str) -> None:
        self.finds.append(report)
        print(f"JOB CRASHED after {list(self.acts)}\n{report}", flush=True)

    def build(self) -> Build:
        makers: list[Callable[[], Build]] = [demo_build, *(one.make for one in DEMOS), empty_build]
        return self.rng.choice(makers)()

    def act(self) -> None:
        rng, window = self.rng, self.window
        acts: list[tuple[float, str, Callable[[], object]]] = [
            (6, "edit", self.edit),
            (5, "page", self.page),
            (6, "click", self.click),
            (4, "type", self.type_),
            (4, "key", self.key),
            (3, "undo", window.document.stack.undo),
            (2, "redo", window.document.stack.redo),
            (1.2, "open", self.open),
            (0.5, "unit", window.header.unit_toggled.emit),
            (0.4, "theme", window.header.theme_toggled.emit),
            (0.3, "size", lambda: window.menu.scale_wanted.emit(rng.choice([100, 125, 150]))),
            (0.5, "export", lambda: window.exports.write_to(self.folder / f"e{self.count}")),
            (0.8, "save", lambda: window.save_to(self.folder / f"m{rng.randrange(4)}.keel")),
            (0.8, "path", lambda: window.open_path(self.folder / f"m{rng.randrange(4)}.keel")),
            (0.2, "close", self.close),
            (1, "wait", lambda: settle(rng.randrange(5, 400))),
        ]
        _, name, do = rng.choices(acts, [weight for weight, _, _ in acts])[0]
        self.acts.append(name)
        self.count += 1
        try:
            do()
        except HardKeelError:
            pass
        except Exception as fault:
            self.on_exception(type(fault), fault, None)
        self.app.processEvents()

    def edit(self) -> None:
        place = self.rng.choice(places_of(self.window))
        edits = edits_for(self.window.document.build, place)
        if edits:
            name, edit = self.rng.choice(edits)
            self.acts[-1] = f"edit {name}"
            nudge = "monkey" if self.rng.random() < 0.2 else ""
            self.window.document.apply(name, edit, nudge=nudge)

    def page(self) -> None:
        place = self.rng.choice(places_of(self.window))
        self.acts[-1] = f"page {place}"
        turn(self.window, place)

    def open(self) -> None:
        self.opened += 1
        self.window.start(self.build())

    def close(self) -> None:
        old = self.window
        self.window = self.new_window()
        old.close()
        old.deleteLater()
        self.window.start(self.build())

    def seen(self, *kinds: type[QWidget]) -> list[QWidget]:
        return [
            one
            for kind in kinds
            for one in self.window.findChildren(kind)
            if one.isVisible() and one.isEnabled()
        ]

    def click(self) -> None:
        found = self.seen(QAbstractButton, QComboBox, QTableView, QWidget)
        if not found:
            return
        one = self.rng.choice(found)
        if isinstance(one, QAbstractButton):
            if any(word in one.text() for word in _NOT) or "…" in one.text():
                return
            self.acts[-1] = f"click {one.text()!r}"
            one.click()
        elif isinstance(one, QComboBox):
            self.acts[-1] = "combo"
            if one.count():
                one.setCurrentIndex(self.rng.randrange(one.count()))
                one.activated.emit(one.currentIndex())
        else:
            self.acts[-1] = f"press {type(one).__name__}"
            at = QPoint(
                self.rng.randrange(max(1, one.width())), self.rng.randrange(max(1, one.height()))
            )
            _HAND.mouseClick(one, Qt.MouseButton.LeftButton, pos=at)

    def type_(self) -> None:
        found = self.seen(QLineEdit)
        if found:
            one = self.rng.choice(found)
            assert isinstance(one, QLineEdit)
            text = self.rng.choice(_TYPED)
            self.acts[-1] = f"type {text!r} in {one.accessibleName()!r}"
            one.setFocus()
            one.selectAll()
            _HAND.keyClicks(one, text)
            _HAND.keyClick(one, Qt.Key.Key_Return)

    def key(self) -> None:
        one = self.app.focusWidget() or self.window
        key = self.rng.choice(_KEYS)
        self.acts[-1] = f"key {key.name} on {type(one).__name__}"
        _HAND.keyClick(one, key)


def put_away(app: QApplication) -> None:
    """A dialog is answered with no."""
    for one in app.topLevelWidgets():
        if isinstance(one, QDialog) and one.isVisible():
            one.reject()


def main(minutes: float, seed: int = 0) -> int:
    """Let it go for so many minutes; the exit code."""
    app = QApplication(["monkey"])
    app.setStyle("Fusion")
    load_fonts()
    apply_theme(app, make_theme("light"))
    for dialog, name, given in (
        (QFileDialog, "getOpenFileName", ("", "")),
        (QFileDialog, "getSaveFileName", ("", "")),
        (QFileDialog, "getExistingDirectory", ""),
        (QInputDialog, "getInt", (1, False)),
    ):
        setattr(dialog, name, staticmethod(lambda *_a, given=given, **_k: given))
    away = QTimer()
    away.timeout.connect(lambda: put_away(app))
    away.start(60)
    with tempfile.TemporaryDirectory() as folder:
        monkey = Monkey(app, Path(folder), seed)
        end = time.monotonic() + 60 * minutes
        while time.monotonic() < end:
            monkey.act()
        monkey.window.jobs.stop_all()
        monkey.window.jobs.wait()
        monkey.window.close()
        print(
            f"{monkey.count} acts, {monkey.opened} builds opened, {monkey.made} windows, {len(monkey.finds)} found"
        )
        return 1 if monkey.finds else 0


if __name__ == "__main__":
    sys.exit(
        main(float(sys.argv[1] if sys.argv[1:] else 20), int(sys.argv[2]) if sys.argv[2:] else 0)
    )
