"""Writing a file so that at every moment either the old or the new one is there, whole."""

import os
import re
import shutil
import stat
import tempfile
import time
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from hardkeel.base.errors import CannotSave

Stamp = tuple[int, int, int]
VERSIONS_KEPT: Final = 5
_BESIDE: Final = ".new"
_NUMBERED: Final = re.compile(r"v(\d{6,}) ")
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
    return _versions(path.resolve())


def moment_of(version: Path) -> datetime:
    """When a version was written, local time."""
    return datetime.fromtimestamp(version.stat().st_mtime).astimezone()


def _versions(target: Path) -> list[Path]:
    """By their numbers, the last kept first: a clock may be put back, and a flight goes west."""
    folder = _version_folder(target)
    found = folder.glob(f"*{target.suffix}") if folder.is_dir() else []
    return sorted(found, key=lambda one: (_number_of(one), one.name), reverse=True)


def _number_of(version: Path) -> int:
    """The number that its name begins with; 0 for one from before versions were counted."""
    match = _NUMBERED.match(version.name)
    return int(match[1]) if match is not None else 0


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
    before = _versions(target)
    if before and before[0].samefile(target):
        return
    number = _number_of(before[0]) + 1 if before else 1
    moment = datetime.fromtimestamp(target.stat().st_mtime, UTC)
    kept = folder / f"v{number:06d} {moment:%Y-%m-%d %H-%M-%S}Z{target.suffix}"
    try:
        os.link(target, kept)
    except OSError:
        shutil.copy2(target, kept)
    for old in _versions(target)[most:]:
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
