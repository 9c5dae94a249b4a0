"""A document's life on disk: open, save, the journal, and the hold on its file."""

from collections.abc import Mapping
from datetime import datetime
from pathlib import Path
from types import MappingProxyType
from typing import Final

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from hardkeel.base.errors import BadInput, CannotSave, FileInUse
from hardkeel.messages import shell as say
from hardkeel.project.model import Build, empty_build
from hardkeel.storage.atomic import Stamp, stamp_of
from hardkeel.storage.attaching import Images
from hardkeel.storage.holding import Hold, hold_file
from hardkeel.storage.journal import Journal, Rescued, forget, left_by_newer, orphans, sweep
from hardkeel.storage.package import Loaded, Others, load, save
from hardkeel.ui.document.document import Document

_LOOK_MS: Final = 4_000


class DocumentFile(QObject):
    """Opens and saves for one window.

    Nothing here needs the state folder to be writable: without it there is no journal, and no other
    window can be told, which is said, but builds are opened, saved and closed all the same.

    Parameters
    ----------
    state : Path
        The application's state folder: locks and journals.
    store : Images
        Where images are kept until a file holds them.

    Signals
    -------
    filed : (nothing)
        The path, or whether all is saved, has changed.
    state_failed : str
        The state folder can't be written, with the reason.
    """

    filed = pyqtSignal()
    state_failed = pyqtSignal(str)

    def __init__(
        self, document: Document, state: Path, store: Images, parent: QObject | None = None
    ) -> None:
        super().__init__(parent)
        self._document = document
        self._state = state
        self._journal = Journal(state)
        self._store = store
        self._hold: Hold | None = None
        self._stamp: Stamp | None = None
        self._others: Others | None = None
        self.path: Path | None = None
        # The journal is written as soon as the answer to an edit is painted, not before it.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(0)
        self._soon.timeout.connect(self.write_journal)
        self._told = ""  # how the build stood on disk when it was last looked at
        self._looking = QTimer(self)
        self._looking.setInterval(_LOOK_MS)
        self._looking.timeout.connect(self.look_at_file)
        self._looking.start()
        document.build_changed.connect(lambda _change: self._soon.start())
        document.stack.cleanChanged.connect(self._on_clean_changed)

    @property
    def unsaved(self) -> bool:
        """Whether there is something that no file holds."""
        return not self._document.stack.isClean() or self._is_gone() or self._is_another()

    @property
    def standing(self) -> str:
        """How the build stands on disk, in two words."""
        if self._is_gone():
            return say.ITS_FILE_IS_GONE
        if self._is_another():
            return say.ITS_FILE_WAS_CHANGED
        if self.unsaved:
            return say.STANDS_UNSAVED
        written = self._written()
        return say.saved_at(written) if written is not None else say.NO_FILE_YET

    def open(self, path: Path) -> None:
        """Read a file and put it on the bench.

        Raises
        ------
        BadInput
            When it can't be read; what is on the bench stays.
        FileInUse
            When another window holds it; what is on the bench stays.
        """
        path = path.absolute()
        held = self._held(path)
        try:
            loaded = load(path)
            self._document.open_build(loaded.build, came=loaded.attached())
        except BaseException:
            if held is not None and held is not self._hold:
                held.release()
            raise
        self._take(path, loaded.stamp, held, loaded.others)

    def open_copy(self, path: Path) -> None:
        """Read a file that another window holds, as a build not yet saved.

        Raises
        ------
        BadInput
            When it can't be read.
        """
        loaded = load(path)
        self.start(loaded.build, loaded.others, loaded.attached())

    def start(
        self,
        build: Build,
        others: Others | None = None,
        came: Mapping[str, bytes] = MappingProxyType({}),
        *,
        again: bool = False,
    ) -> None:
        """Put a build on the bench that no file holds yet, with what came with it.

        Parameters
        ----------
        again : bool
            It can be had again as it is, as a demo: nothing is lost with it before it is changed.
        """
        clean = again or build == empty_build()
        self._document.open_build(build, clean=clean, came=came)
        self._take(None, None, None, others)

    def save(self, *, lose: bool = False) -> None:
        """Save where the build belongs.

        Parameters
        ----------
        lose : bool
            Leave behind what can't be carried along; only when the builder said so.

        Raises
        ------
        WouldLose
            When something that came with the build can't be carried along.
        CannotSave
            When the disk refuses, or the file was changed behind our back.
        """
        if self.path is None:
            raise CannotSave("this build has no file yet")
        self._write(self.path, self._stamp, self._hold, lose=lose)

    def save_as(self, path: Path, *, lose: bool = False) -> None:
        """Save under another name and go on there.

        Raises
        ------
        WouldLose, CannotSave
            As in `save`.
        FileInUse
            When another window holds that file.
        """
        path = path.absolute()
        held = self._held(path)
        try:
            self._write(path, None, held, lose=lose)
        except BaseException:
            if held is not None and held is not self._hold:
                held.release()
            raise

    def left_behind(self) -> list[Rescued]:
        """What programs that died have left."""
        return orphans(self._state)

    def recover(self, rescued: Rescued) -> str:
        """Put what was rescued on the bench, unsaved, and drop its journal; what is to be said of it.

        The file that it belonged to is taken along where nobody else holds it, so that saving goes
        to the right place; a file that was changed since is not written over unasked.
        """
        came = _came_with(rescued)
        self._document.open_build(rescued.build, clean=False, came=came)
        self._document.session.images.call(rescued.images)
        said = ""
        path, stamp, hold = rescued.path, rescued.stamp, None
        others = rescued.others
        if path is not None:
            try:
                stamp = stamp or _stamp_unless_newer(path, rescued.at)
                loaded = _loaded(path)
                if others is None and loaded is not None:  # a journal from before kept no more
                    others = loaded.others
                hold = self._held(path)
                if stamp is not None and path.exists() and stamp_of(path) != stamp:
                    said = say.changed_behind(path.name)
            except FileInUse as fault:
                path, stamp = None, None
                said = say.brought_back_loose(fault)
            except OSError:
                path, stamp = None, None
        self._take(path, stamp, hold, others)
        if self.write_journal():  # until then the old journal is all there is
            forget(rescued)
        return said

    def decline(self, rescued: Rescued) -> None:
        """Drop what was rescued."""
        forget(rescued)

    def tidy(self) -> None:
        """Sweep scans that nobody uses and what killed programs left half written."""
        self._store.sweep()
        sweep(self._state)

    def close(self) -> None:
        """End in peace."""
        self._soon.stop()
        self._looking.stop()
        self._journal.close()
        if self._hold is not None:
            self._hold.release()

    def _write(self, path: Path, expected: Stamp | None, held: Hold | None, *, lose: bool) -> None:
        self._document.commit()  # what the app adds to the log belongs in the file
        build = self._document.build
        attached = self._document.session.images.of(build)
        others = None if lose else self._others
        stamp = save(build, path, expected, attached, others)
        if path.suffix.lower() != ".json":  # a bare file holds none: they stay where they came from
            names = others.names if others is not None else ()
            others = Others(path, tuple(dict.fromkeys((*names, *attached))))
        self._take(path, stamp, held, others)
        self._document.stack.setClean()
        self.filed.emit()

    def _held(self, path: Path) -> Hold | None:
        """A hold on a file: our own where we have it already, none where there is no way to have one."""
        if self.path is not None and path.resolve() == self.path.resolve() and self._hold:
            return self._hold
        try:
            return hold_file(path, self._state)
        except OSError as fault:
            self.state_failed.emit(str(fault.strerror or fault))
            return None

    def _take(
        self, path: Path | None, stamp: Stamp | None, hold: Hold | None, others: Others | None
    ) -> None:
        if self._hold is not None and self._hold is not hold:
            self._hold.release()
        self.path, self._stamp, self._hold, self._others = path, stamp, hold, others
        self._journal.clear()
        self.filed.emit()

    def left_by_newer(self) -> int:
        """How many journals of a newer version there are."""
        return left_by_newer(self._state)

    def _is_another(self) -> bool:
        """Whether another program has put another file in the place of ours."""
        if self.path is None or self._stamp is None:
            return False
        try:
            return stamp_of(self.path) != self._stamp
        except OSError:
            return False

    def _is_gone(self) -> bool:
        return self.path is not None and self._written() is None

    def _written(self) -> datetime | None:
        """When our file was written; ``None`` where there is none."""
        if self.path is None:
            return None
        try:
            return datetime.fromtimestamp(self.path.stat().st_mtime).astimezone()
        except OSError:
            return None

    def write_journal(self) -> bool:
        """Keep what no file holds, done by itself right after each edit was painted; whether nothing can be lost."""
        if not self.unsaved:
            self._journal.clear()
            return True
        try:
            self._journal.write(
                self._document.build,
                self.path,
                self._document.clock(),
                self._stamp,
                others=self._others,
                images=self._document.session.images.named,
            )
        except (OSError, FileInUse) as fault:
            self.state_failed.emit(str(getattr(fault, "strerror", None) or fault))
            return False
        return True

    def look_at_file(self) -> None:
        """What another program did to the file: where ours is gone, what is on the bench is worth a journal."""
        told = self.standing
        if told != self._told:
            self._told = told
            self.write_journal()
            self.filed.emit()

    def _on_clean_changed(self, _clean: bool) -> None:  # noqa: FBT001  the signal's own argument
        self._soon.start()
        self.filed.emit()


def _stamp_unless_newer(path: Path, at: datetime) -> Stamp | None:
    """For a journal that kept none: as the file looks now, or a stamp that no newer file has."""
    if not path.exists():
        return None
    stamp = stamp_of(path)
    return stamp if path.stat().st_mtime <= at.timestamp() else (0, 0, 0)


def _came_with(rescued: Rescued) -> dict[str, bytes]:
    """The images of what was rescued, as far as the file that they came with still holds them."""
    source = rescued.others.path if rescued.others is not None else rescued.path
    if source is None:
        return {}
    others = rescued.others or Others(source, ())
    return Loaded(rescued.build, source, (0, 0, 0), others).attached()


def _loaded(path: Path) -> Loaded | None:
    """What a file holds now; ``None`` where it can't be read any more."""
    try:
        return load(path)
    except BadInput:
        return None
