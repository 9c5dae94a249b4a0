"""Writing a file so that at every moment either the old or the new one is there, whole."""

import os
import shutil
import stat
import tempfile
import time
from contextlib import suppress
from datetime import datetime
from pathlib import Path
from typing import Final

from hardkeel.base.errors import CannotSave

Stamp = tuple[int, int, int]
VERSIONS_KEPT: Final = 5
_BESIDE: Final = ".new"
_LITTER_AFTER_S: Final = 3600.0


def stamp_of(path: Path) -> Stamp:
    """What tells that a file is still the one that was read: inode, size and time of change."""
    info = path.stat()
    return (info.st_ino, info.st_size, info.st_mtime_ns)


def write_atomically(
    path: Path, content: bytes, expected: Stamp | None = None, *, versions: int = VERSIONS_KEPT
) -> Stamp:
    """Write beside, fsync, keep the old one as a version, replace.

    Parameters
    ----------
    expected : Stamp, optional
        The file must still look like this, or be gone.
    versions : int
        How many old versions to keep; 0 keeps none.

    Raises
    ------
    CannotSave
        With a sentence; the old file is then untouched.
    """
    target = path.resolve()
    try:
        if expected is not None and target.exists() and stamp_of(target) != expected:
            raise CannotSave(
                f"{path.name} was changed on disk by something else since it was opened"
            )
        mode = stat.S_IMODE(target.stat().st_mode) if target.exists() else 0o666 & ~_umask()
        handle, name = tempfile.mkstemp(
            prefix=f".{target.name}.", suffix=_BESIDE, dir=target.parent
        )
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(content)
                file.flush()
                os.fsync(file.fileno())
            Path(name).chmod(mode)
            if versions:
                _keep_version(target, versions)
            Path(name).replace(target)
        except BaseException:
            with suppress(OSError):
                Path(name).unlink()
            raise
        _sync_folder(target.parent)
        _sweep_beside(target)
        return stamp_of(target)
    except OSError as fault:
        raise CannotSave(f"{path.name} can't be saved: {fault.strerror or fault}") from fault


def versions_of(path: Path) -> list[Path]:
    """Older versions of a file, newest first."""
    folder = _version_folder(path.resolve())
    return sorted(folder.glob(f"*{path.suffix}"), reverse=True) if folder.is_dir() else []


def _sweep_beside(target: Path) -> None:
    """Take away what killed programs left half written beside this file.

    Younger ones are left: another machine on the same drive may be writing just now.
    """
    limit = time.time() - _LITTER_AFTER_S
    with suppress(OSError):
        for half in target.parent.iterdir():
            if half.name.startswith(f".{target.name}.") and half.name.endswith(_BESIDE):
                with suppress(OSError):
                    if half.stat().st_mtime < limit:
                        half.unlink()


def _version_folder(target: Path) -> Path:
    return target.parent / f".{target.name}.versions"


def _keep_version(target: Path, most: int) -> None:
    if not target.exists():
        return
    folder = _version_folder(target)
    folder.mkdir(exist_ok=True)
    moment = datetime.fromtimestamp(target.stat().st_mtime).astimezone()
    kept = (
        folder
        / f"{moment:%Y-%m-%d %H-%M-%S}.{target.stat().st_mtime_ns % 10**9:09d}{target.suffix}"
    )
    if not kept.exists():
        try:
            os.link(target, kept)
        except OSError:
            shutil.copy2(target, kept)
    for old in sorted(folder.glob(f"*{target.suffix}"), reverse=True)[most:]:
        old.unlink(missing_ok=True)


def _sync_folder(folder: Path) -> None:
    # The replaced name is only safe from a power cut once the folder itself is on the disk.
    with suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def _umask() -> int:
    current = os.umask(0)
    os.umask(current)
    return current
