"""Who holds a file: a lock that the system itself drops when a program dies."""

import fcntl
import hashlib
import os
from contextlib import suppress
from pathlib import Path
from types import TracebackType
from typing import Self

from hardkeel.base.errors import FileInUse


class Hold:
    """An exclusive hold on a name for as long as this object lives.

    Parameters
    ----------
    lock : Path
        The lock file; it is made where it is missing, and taken away on release.

    Raises
    ------
    FileInUse
        When somebody else has it.
    OSError
        When the folder of locks can't be written.
    """

    def __init__(self, lock: Path) -> None:
        self._lock = lock
        lock.parent.mkdir(parents=True, exist_ok=True)
        self._fd = _locked(lock)
        while not self._is_ours():
            # whoever had it took the file away between our opening and our locking it
            os.close(self._fd)
            self._fd = _locked(lock)
        with suppress(OSError):  # a full disk: the lock holds without a name in it
            os.ftruncate(self._fd, 0)
            os.write(self._fd, f"process {os.getpid()}".encode())

    def release(self) -> None:
        """Let go; a second call does nothing."""
        if self._fd >= 0:
            with suppress(OSError):  # while it is still locked, so that nobody else's is taken away
                self._lock.unlink()
            os.close(self._fd)
            self._fd = -1

    def _is_ours(self) -> bool:
        """Whether the file that is locked still has its name."""
        try:
            return self._lock.stat().st_ino == os.fstat(self._fd).st_ino
        except OSError:
            return False

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        fault: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.release()


def _locked(lock: Path) -> int:
    fd = os.open(lock, os.O_RDWR | os.O_CREAT, 0o600)
    try:
        fcntl.flock(fd, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        holder = os.read(fd, 200).decode(errors="replace").strip()
        os.close(fd)
        raise FileInUse(f"another window ({holder or 'unknown'})") from None
    except OSError:
        os.close(fd)
        raise
    return fd


def hold_file(path: Path, state: Path) -> Hold:
    """Hold a build for one window.

    Raises
    ------
    FileInUse
        When another window of this user on this machine holds it.
    OSError
        When the state folder can't be written: then nobody can be told.
    """
    name = hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:24]
    return Hold(state / "locks" / f"{name}.lock")


def sweep_locks(folder: Path) -> None:
    """Take away the lock files that programs which died have left."""
    for lock in folder.glob("*.lock") if folder.is_dir() else []:
        with suppress(FileInUse, OSError):
            Hold(lock).release()
