"""The build menu and the keys of everything in it."""

from collections.abc import Sequence
from pathlib import Path
from typing import Final

from PyQt6.QtCore import pyqtBoundSignal, pyqtSignal
from PyQt6.QtGui import QAction, QKeySequence, QUndoStack
from PyQt6.QtWidgets import QMenu, QWidget

from hardkeel.messages import shell as say
from hardkeel.messages.finder import FIND
from hardkeel.messages.manual import MANUAL
from hardkeel.messages.tour import TOUR
from hardkeel.storage.atomic import moment_of, versions_of
from hardkeel.storage.journal import Rescued
from hardkeel.ui.shell.questions import AboutDialog
from hardkeel.ui.theme import SCALES

_UNDO: Final = "Ctrl+Z"
_REDO: Final = "Ctrl+Shift+Z"


class BuildMenu(QMenu):
    """Everything that is done with a whole build.

    Signals
    -------
    new_wanted, clear_wanted, open_wanted, demo_wanted, save_wanted, save_as_wanted, print_wanted,
    export_wanted, unit_wanted,
    quit_wanted, find_wanted, manual_wanted, tour_wanted : (nothing)
    path_wanted, version_wanted : object
        The `Path` of a recent file, or of an older version of this one.
    other_demo_wanted : object
        What makes another demo build.
    left_wanted : object
        What a program that died has left, `Rescued`.
    scale_wanted : int
        Text size in percent.
    """

    new_wanted = pyqtSignal()
    clear_wanted = pyqtSignal()
    open_wanted = pyqtSignal()
    demo_wanted = pyqtSignal()
    save_wanted = pyqtSignal()
    save_as_wanted = pyqtSignal()
    print_wanted = pyqtSignal()
    export_wanted = pyqtSignal()
    unit_wanted = pyqtSignal()
    quit_wanted = pyqtSignal()
    find_wanted = pyqtSignal()
    manual_wanted = pyqtSignal()
    tour_wanted = pyqtSignal()
    path_wanted = pyqtSignal(object)
    left_wanted = pyqtSignal(object)
    other_demo_wanted = pyqtSignal(object)
    version_wanted = pyqtSignal(object)
    scale_wanted = pyqtSignal(int)

    def __init__(self, stack: QUndoStack, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        for words, key, signal in (
            (say.DESCRIBE_A_NEW_MODEL, "Ctrl+N", self.new_wanted),
            (say.CLEAR_THE_BENCH, "Ctrl+Shift+N", self.clear_wanted),
            (say.OPEN, "Ctrl+O", self.open_wanted),
        ):
            self._add(words, key, signal)
        self._recent = QMenu(say.LATELY_ON_THE_BENCH, self)
        self.addMenu(self._recent)
        self._left = QMenu(say.LEFT_UNSAVED, self)
        self.addMenu(self._left)
        self._add(say.THE_DEMO_BUILD, "", self.demo_wanted)
        self._demos = QMenu(say.MORE_DEMOS, self)
        self.addMenu(self._demos)
        self.addSeparator()
        self._add(say.SAVE, "Ctrl+S", self.save_wanted)
        self._add(say.SAVE_AS, "Ctrl+Shift+S", self.save_as_wanted)
        self._versions = QMenu(say.OLDER_VERSIONS, self)
        self.addMenu(self._versions)
        self._add(say.PRINT_THIS, "Ctrl+P", self.print_wanted)
        self._add(say.WRITE_THE_RECORD, "Ctrl+E", self.export_wanted)
        self.addSeparator()
        # PyQt hands these over to us: unless we keep them they are gone with the loop
        self._steps = (
            stack.createUndoAction(self, say.UNDO),
            stack.createRedoAction(self, say.REDO),
        )
        for made, key in zip(self._steps, (_UNDO, _REDO), strict=True):
            if made is not None:
                made.setShortcut(QKeySequence(key))
                self.addAction(made)
                window.addAction(made)
        self.addSeparator()
        self._add(say.MILLIMETRES_OR_INCHES, "Ctrl+U", self.unit_wanted)
        sizes = QMenu(say.TEXT_SIZE, self)
        for percent in SCALES:
            action = QAction(f"{percent} %", sizes)
            action.triggered.connect(lambda _on, percent=percent: self.scale_wanted.emit(percent))
            sizes.addAction(action)
        self.addMenu(sizes)
        self.addSeparator()
        self._add(MANUAL, "F1", self.manual_wanted)
        self._add(TOUR, "", self.tour_wanted)
        self._add(FIND, "Ctrl+/", self.find_wanted)
        about = QAction(say.ABOUT_HARD_KEEL, self)
        about.triggered.connect(lambda: AboutDialog(self._window).exec())
        self.addAction(about)
        self._add(say.QUIT, "Ctrl+Q", self.quit_wanted)

    def _add(self, words: str, key: str, signal: pyqtBoundSignal) -> None:
        action = QAction(words, self)
        if key:
            action.setShortcut(QKeySequence(key))
        action.triggered.connect(signal)
        self.addAction(action)
        self._window.addAction(action)

    def show_files(self, recent: list[Path], path: Path | None) -> None:
        """List recent files and this file's older versions."""
        self._fill(self._recent, [(p.name, p) for p in recent], self.path_wanted)
        older = (
            [(f"{moment_of(one):%Y-%m-%d  %H:%M:%S}", one) for one in versions_of(path)]
            if path is not None
            else []
        )
        self._fill(self._versions, older, self.version_wanted)

    def show_demos(self, demos: Sequence[tuple[str, object]]) -> None:
        """List demo builds, each with what makes it."""
        self._fill(self._demos, demos, self.other_demo_wanted)

    def show_left(self, left: list[Rescued]) -> None:
        """List what programs that died have left unsaved; nothing where there is nothing."""
        rows = [(f"{one.build.name or 'A build'}, {one.at:%d %b %H:%M}", one) for one in left]
        self._fill(self._left, rows, self.left_wanted)
        action = self._left.menuAction()
        if action is not None:
            action.setVisible(bool(rows))

    def _fill(
        self, menu: QMenu, files: Sequence[tuple[str, object]], signal: pyqtBoundSignal
    ) -> None:
        menu.clear()
        for words, path in files:
            action = QAction(words.replace("&", "&&"), menu)
            action.triggered.connect(lambda _on, path=path: signal.emit(path))
            menu.addAction(action)
        if not files:
            none = QAction("none yet", menu)
            none.setEnabled(False)
            menu.addAction(none)
