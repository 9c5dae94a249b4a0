"""A document's life on disk: open, save, the journal, and the hold on its file."""

from datetime import datetime
from pathlib import Path

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from hardkeel.base.errors import CannotSave
from hardkeel.project.build import Build, empty_build
from hardkeel.storage.atomic import Stamp
from hardkeel.storage.attaching import Images
from hardkeel.storage.holding import Hold, hold_file
from hardkeel.storage.journal import Journal, Rescued, forget, orphans
from hardkeel.storage.package import load, save
from hardkeel.ui.commands.document import Document


class Filing(QObject):
    """Opens and saves for one window.

    Parameters
    ----------
    state : Path
        The application's state folder: locks and journals.

    Signals
    -------
    filed : (nothing)
        The path, or whether all is saved, has changed.
    journal_failed : str
        The journal could not be written, with the reason.
    """

    filed = pyqtSignal()
    journal_failed = pyqtSignal(str)

    def __init__(self, document: Document, state: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._document = document
        self._state = state
        self._journal = Journal(state)
        self.images = Images(state)
        self._hold: Hold | None = None
        self._stamp: Stamp | None = None
        self.path: Path | None = None
        # The journal is written as soon as the answer to an edit is painted, not before it.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(0)
        self._soon.timeout.connect(self._write_journal)
        document.build_changed.connect(self._soon.start)
        document.stack.cleanChanged.connect(self._on_clean_changed)

    @property
    def unsaved(self) -> bool:
        """Whether there is something that only the journal holds."""
        return not self._document.stack.isClean()

    @property
    def standing(self) -> str:
        """How the build stands on disk, in two words."""
        if self.unsaved:
            return "not saved"
        if self.path is not None and self.path.exists():
            written = datetime.fromtimestamp(self.path.stat().st_mtime).astimezone()
            return f"saved {written:%H:%M}"
        return "no file yet"

    def open(self, path: Path) -> None:
        """Read a file and put it on the bench.

        Raises
        ------
        BadInput
            When it can't be read; what is on the bench stays.
        FileInUse
            When another window holds it.
        """
        path = path.absolute()
        held = self._hold if path == self.path and self._hold else hold_file(path, self._state)
        try:
            loaded = load(path)
            self.images.keep(loaded.attached())
            self._document.open_build(loaded.build)
        except BaseException:
            if held is not self._hold:
                held.release()
            raise
        self._take(path, loaded.stamp, held)

    def open_copy(self, path: Path) -> None:
        """Read a file that another window holds, as a build not yet saved.

        Raises
        ------
        BadInput
            When it can't be read.
        """
        loaded = load(path)
        self.images.keep(loaded.attached())
        self.start(loaded.build)

    def start(self, build: Build) -> None:
        """Put a build on the bench that no file holds yet."""
        self._document.open_build(build, clean=build == empty_build())
        self._take(None, None, None)
        self._write_journal()

    def save(self) -> None:
        """Save where the build belongs.

        Raises
        ------
        CannotSave
            When the disk refuses, or the file was changed behind our back.
        """
        if self.path is None:
            raise CannotSave("this build has no file yet")
        build = self._document.build
        self._stamp = save(build, self.path, self._stamp, self.images.of(build))
        self._document.stack.setClean()
        self._journal.clear()
        self.filed.emit()

    def save_as(self, path: Path) -> None:
        """Save under another name and go on there.

        Raises
        ------
        CannotSave
            When the disk refuses.
        FileInUse
            When another window holds that file.
        """
        path = path.absolute()
        held = self._hold if path == self.path and self._hold else hold_file(path, self._state)
        try:
            build = self._document.build
            stamp = save(build, path, attached=self.images.of(build))
        except BaseException:
            if held is not self._hold:
                held.release()
            raise
        self._take(path, stamp, held)
        self._document.stack.setClean()
        self._journal.clear()
        self.filed.emit()

    def left_behind(self) -> list[Rescued]:
        """What programs that died have left."""
        return orphans(self._state)

    def recover(self, rescued: Rescued) -> None:
        """Put what was rescued on the bench, unsaved, and drop its journal.

        The file that it belonged to is taken along where nobody else holds it, so that saving goes
        to the right place.
        """
        self._document.open_build(rescued.build, clean=False)
        self._take(None, None, None)
        if rescued.path is not None and rescued.path.exists():
            hold = hold_file(rescued.path, self._state)
            self._take(rescued.path, None, hold)
        self._write_journal()
        forget(rescued)

    def decline(self, rescued: Rescued) -> None:
        """Drop what was rescued."""
        forget(rescued)

    def close(self) -> None:
        """End in peace."""
        self._soon.stop()
        self._journal.close()
        if self._hold is not None:
            self._hold.release()

    def _take(self, path: Path | None, stamp: Stamp | None, hold: Hold | None) -> None:
        if self._hold is not None and self._hold is not hold:
            self._hold.release()
        self.path, self._stamp, self._hold = path, stamp, hold
        self._journal.clear()
        self.filed.emit()

    def _write_journal(self) -> None:
        if not self.unsaved:
            self._journal.clear()
            return
        try:
            self._journal.write(self._document.build, self.path, self._document.clock())
        except OSError as fault:
            self.journal_failed.emit(str(fault.strerror or fault))

    def _on_clean_changed(self, _clean: bool) -> None:  # noqa: FBT001  the signal's own argument
        self._soon.start()
        self.filed.emit()
