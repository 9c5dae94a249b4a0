"""The autosave journal: what was on the bench when the program was killed.

Each window has one journal in the user's state folder and holds its lock; a journal whose lock is
free belongs to a program that died, and is offered for recovery.  The journal is written after every
change, beside and then renamed, so that it is whole at any moment.  It is not forced to the disk each
time: that guards against power cuts, not against a killed program, and would be felt at every Enter.
"""

import json
import uuid
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path
from types import MappingProxyType
from typing import Final

from hardkeel.base.errors import BadInput, FileInUse
from hardkeel.project.model import Build
from hardkeel.storage.atomic import Stamp
from hardkeel.storage.format import build_from_data, is_newer, text_of
from hardkeel.storage.holding import Hold, sweep_locks
from hardkeel.storage.package import Others

_SUFFIX: Final = ".journal"
_BESIDE: Final = ".new"


@dataclass(frozen=True, slots=True)
class Rescued:
    """What an orphaned journal holds.

    Attributes
    ----------
    path : Path or None
        The file it belonged to; ``None`` for a build never saved.
    at : datetime
        When it was last written.
    stamp : Stamp or None
        How that file looked when it was last read or saved: saving over another one is refused.
    others : Others or None
        What came with the build beside it, and from which file.
    images : mapping of str to str
        What the names of its images meant, by their names in the store.
    """

    journal: Path
    build: Build
    path: Path | None
    at: datetime
    stamp: Stamp | None = None
    others: Others | None = None
    images: Mapping[str, str] = field(default_factory=dict)


class Journal:
    """The journal of one window.

    Parameters
    ----------
    state : Path
        The application's state folder.
    """

    def __init__(self, state: Path) -> None:
        self._folder = state / "journals"
        self._file = self._folder / f"{uuid.uuid4().hex}{_SUFFIX}"
        self._hold: Hold | None = None

    def write(
        self,
        build: Build,
        path: Path | None,
        at: datetime,
        stamp: Stamp | None = None,
        *,
        others: Others | None = None,
        images: Mapping[str, str] = MappingProxyType({}),
    ) -> None:
        """Keep the build as it is now, and where what belongs to it lies.

        Raises
        ------
        OSError
            When the state folder can't be written; what was kept before is then still there.
        """
        if self._hold is None:
            self._hold = Hold(self._file.with_suffix(".lock"))
        head = json.dumps(
            {
                "path": str(path) if path else None,
                "at": at.isoformat(),
                "stamp": stamp,
                "others": [str(others.path), *others.names] if others is not None else None,
                "images": dict(images),
            }
        )
        beside = self._file.with_suffix(_BESIDE)
        try:
            beside.write_text(f"{head}\n{text_of(build)}", encoding="utf-8")
            beside.replace(self._file)
        except OSError:
            with suppress(OSError):
                beside.unlink()
            raise

    def clear(self) -> None:
        """Nothing is unsaved any more."""
        with suppress(OSError):
            self._file.unlink(missing_ok=True)

    def close(self) -> None:
        """End in peace: nothing to recover."""
        self.clear()
        if self._hold is not None:
            self._hold.release()
            self._hold = None


def orphans(state: Path) -> list[Rescued]:
    """Journals left by programs that died, newest first; damaged ones are passed over, not deleted."""
    folder = state / "journals"
    found: list[Rescued] = []
    for file in sorted(folder.glob(f"*{_SUFFIX}")) if folder.is_dir() else []:
        try:
            with Hold(file.with_suffix(".lock")):
                found.append(_read(file))
        except (FileInUse, BadInput, OSError, ValueError, KeyError, TypeError, IndexError):
            continue
    return sorted(found, key=lambda rescued: rescued.at, reverse=True)


def left_by_newer(state: Path) -> int:
    """How many journals a newer version has left, which this one can't read: they are kept for that one."""
    folder = state / "journals"
    count = 0
    for file in folder.glob(f"*{_SUFFIX}") if folder.is_dir() else []:
        with (
            suppress(FileInUse, OSError, ValueError, AttributeError),
            Hold(file.with_suffix(".lock")),
        ):
            body = file.read_text(encoding="utf-8").partition("\n")[2]
            count += is_newer(json.loads(body))
    return count


def forget(rescued: Rescued) -> None:
    """Drop an orphaned journal, after it was recovered or declined."""
    with suppress(OSError):
        rescued.journal.unlink(missing_ok=True)
        rescued.journal.with_suffix(".lock").unlink(missing_ok=True)


def sweep(state: Path) -> None:
    """Take away what killed programs left half written, and their locks; never a journal."""
    folder = state / "journals"
    for half in folder.glob(f"*{_BESIDE}") if folder.is_dir() else []:
        with suppress(FileInUse, OSError), Hold(half.with_suffix(".lock")):
            half.unlink(missing_ok=True)
    sweep_locks(folder)
    sweep_locks(state / "locks")


def _read(file: Path) -> Rescued:
    head, _, body = file.read_text(encoding="utf-8").partition("\n")
    about = json.loads(head)
    build = build_from_data(json.loads(body))
    path = Path(about["path"]) if about["path"] else None
    stamp = about.get("stamp")
    others = about.get("others")
    return Rescued(
        file,
        build,
        path,
        datetime.fromisoformat(about["at"]),
        (int(stamp[0]), int(stamp[1]), int(stamp[2])) if stamp else None,
        Others(Path(others[0]), tuple(str(name) for name in others[1:])) if others else None,
        {str(name): str(own) for name, own in (about.get("images") or {}).items()},
    )
