"""Who holds a file: a lock that the system itself drops when a program dies."""

import fcntl
import hashlib
import os
from pathlib import Path
from types import TracebackType
from typing import Self

from hardkeel.base.errors import FileInUse


class Hold:
    """An exclusive hold on a name for as long as this object lives.

    Parameters
    ----------
    lock : Path
        The lock file; it is made where it is missing and left behind, empty of meaning.

    Raises
    ------
    FileInUse
        When somebody else has it.
    """

    def __init__(self, lock: Path) -> None:
        lock.parent.mkdir(parents=True, exist_ok=True)
        self._fd = os.open(lock, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(self._fd, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            holder = os.read(self._fd, 200).decode(errors="replace").strip()
            os.close(self._fd)
            raise FileInUse(f"another window ({holder or 'unknown'})") from None
        os.ftruncate(self._fd, 0)
        os.write(self._fd, f"process {os.getpid()}".encode())

    def release(self) -> None:
        """Let go; a second call does nothing."""
        if self._fd >= 0:
            os.close(self._fd)
            self._fd = -1

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        fault: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.release()


def hold_file(path: Path, state: Path) -> Hold:
    """Hold a build for one window.

    Raises
    ------
    FileInUse
        When another window of this user on this machine holds it.
    """
    name = hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:24]
    return Hold(state / "locks" / f"{name}.lock")
