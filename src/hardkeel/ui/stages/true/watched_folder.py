"""A folder that a telephone puts its pictures in: what comes in while it is watched is handed on, once it is whole."""

import os
from collections.abc import Mapping
from pathlib import Path
from typing import Final, cast

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.messages import targets as say
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.widgets.dropped import PICTURES

_LOOK_MS: Final = 1500


class WatchedFolder(QObject):
    """Looks into a folder now and then, beside the window; ends with the build.

    A picture is handed on when two looks in turn found it of one size: what is still being copied is left alone.

    Signals
    -------
    arrived : list of Path
        Pictures that were not there when the watching began.
    lost : str
        The folder can't be looked into any more, and why.
    """

    arrived = pyqtSignal(list)
    lost = pyqtSignal(str)

    def __init__(self, document: Document, jobs: Jobs, parent: QObject) -> None:
        super().__init__(parent)
        self._document, self._jobs = document, jobs
        self.folder: Path | None = None
        self._known: frozenset[str] = frozenset()
        self._growing: Mapping[str, int] = {}
        self._first = False
        self._timer = QTimer(self)
        self._timer.setInterval(_LOOK_MS)
        self._timer.timeout.connect(self.look)
        document.build_opened.connect(self.leave)

    def watch(self, folder: Path) -> None:
        """Watch it from now on; what is in it already is not taken."""
        self.folder, self._first = folder, True
        self._known, self._growing = frozenset(), {}
        self._timer.start()
        self.look()

    def leave(self) -> None:
        """Watch no more."""
        self.folder = None
        self._timer.stop()

    def look(self) -> None:
        """Look into it once."""
        folder = self.folder
        if folder is None:
            return
        self._jobs.start(
            self._document.session,
            "folder",
            lambda: sizes_in(folder),
            lambda found: self._on_found(folder, cast("dict[str, int]", found)),
            self._on_failed,
        )

    def _on_found(self, folder: Path, sizes: Mapping[str, int]) -> None:
        if folder != self.folder:
            return
        if self._first:
            self._first, self._known = False, frozenset(sizes)
            return
        fresh = {name: size for name, size in sizes.items() if name not in self._known and size}
        whole = sorted(name for name, size in fresh.items() if self._growing.get(name) == size)
        self._growing = fresh
        self._known |= frozenset(whole)
        if whole:
            self.arrived.emit([folder / name for name in whole])

    def _on_failed(self, fault: HardKeelError) -> None:
        self.leave()
        self.lost.emit(str(fault))


def sizes_in(folder: Path) -> dict[str, int]:
    """The pictures in a folder by name, with their bytes.

    Raises
    ------
    BadInput
        When it can't be looked into.
    """
    try:
        with os.scandir(folder) as entries:
            return {
                one.name: one.stat().st_size
                for one in entries
                if Path(one.name).suffix.lower() in PICTURES and one.is_file()
            }
    except OSError as fault:
        raise BadInput(folder.name, say.not_watched(fault.strerror or fault)) from fault
