"""A build on disk: the ``.keel`` zip, or a bare ``build.json``."""

import io
import zipfile
import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path, PurePosixPath, PureWindowsPath
from types import MappingProxyType
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.project.build import Build
from hardkeel.storage.atomic import Stamp, stamp_of, write_atomically
from hardkeel.storage.format import build_from_text, text_of

BUILD_JSON: Final = "build.json"
SUFFIX: Final = ".keel"
_LARGEST_JSON: Final = 64 * 1024 * 1024
_LARGEST_FILE: Final = 1024 * 1024 * 1024
_LARGEST_IMAGE: Final = 256 * 1024 * 1024
_EPOCH: Final = (1980, 1, 1, 0, 0, 0)  # zip's own beginning: the same build gives the same bytes


@dataclass(frozen=True, slots=True)
class Loaded:
    """A build with what came with it.

    Attributes
    ----------
    stamp : Stamp
        How the file looked on disk, to notice a change behind our back.
    """

    build: Build
    path: Path
    stamp: Stamp

    def attached(self) -> dict[str, bytes]:
        """The images that the build names, as far as its file holds them."""
        wanted = [plan.image for plan in self.build.plans]
        if not wanted:
            return {}
        if self.path.suffix.lower() == ".json":
            beside = {name: self.path.parent / name for name in wanted}
            return {name: file.read_bytes() for name, file in beside.items() if file.is_file()}
        found: dict[str, bytes] = {}
        try:
            with zipfile.ZipFile(self.path) as archive:
                held = {info.filename: info.file_size for info in archive.infolist()}
                for name in wanted:
                    if held.get(name, _LARGEST_IMAGE + 1) <= _LARGEST_IMAGE:
                        found[name] = archive.read(name)
        except (zipfile.BadZipFile, zlib.error, OSError, RuntimeError):
            return found  # the build itself is sound; a picture that is not is told as missing
        return found


def load(path: Path) -> Loaded:
    """Read a build from a ``.keel`` or a bare ``build.json``.

    Raises
    ------
    BadInput
        With one clear sentence; nothing is half loaded.
    """
    if not path.exists():
        raise BadInput("", f"no file {path.name}")
    if not path.is_file():
        raise BadInput("", f"{path.name} is not a file")
    try:
        stamp = stamp_of(path)
        if path.stat().st_size > _LARGEST_FILE:
            raise BadInput(path.name, "is too large to be a build")
        with path.open("rb") as file:
            is_zip = file.read(2) == b"PK"
        text = _json_in_zip(path) if is_zip else _bare_json(path)
    except OSError as fault:
        raise BadInput("", f"{path.name} can't be read: {fault.strerror or fault}") from None
    return Loaded(build_from_text(text), path, stamp)


def save(
    build: Build,
    path: Path,
    expected: Stamp | None = None,
    attached: Mapping[str, bytes] = MappingProxyType({}),
) -> Stamp:
    """Write a build, keeping photos, plans and whatever else the old file holds.

    Parameters
    ----------
    expected : Stamp, optional
        How the file looked when it was read; saving is refused when it looks otherwise now.
    attached : mapping of str to bytes
        Images that the build names; a bare ``build.json`` gets them in a folder beside it.

    Raises
    ------
    CannotSave
        When the disk refuses or the file was changed by another hand.
    """
    text = text_of(build).encode("utf-8")
    if path.suffix.lower() == ".json":
        for name, data in attached.items():
            beside = path.parent / name
            if not beside.exists():
                beside.parent.mkdir(parents=True, exist_ok=True)
                write_atomically(beside, data, versions=0)
        return write_atomically(path, text, expected)
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        info = zipfile.ZipInfo(BUILD_JSON, _EPOCH)
        info.compress_type = zipfile.ZIP_DEFLATED
        archive.writestr(info, text)
        kept = _carry_over(path, archive)
        for name, data in attached.items():
            if name not in kept:
                archive.writestr(zipfile.ZipInfo(name, _EPOCH), data)
    return write_atomically(path, packed.getvalue(), expected)


def _bare_json(path: Path) -> bytes:
    if path.suffix.lower() == SUFFIX:
        raise BadInput(path.name, "is not a .keel file: it is cut off or something else")
    if path.stat().st_size > _LARGEST_JSON:
        raise BadInput(path.name, "is over 64 MB")
    return path.read_bytes()


def _json_in_zip(path: Path) -> bytes:
    try:
        with zipfile.ZipFile(path) as archive:
            for name in archive.namelist():
                _check_name(name)
            if archive.namelist().count(BUILD_JSON) != 1:
                raise BadInput(path.name, f"must hold exactly one {BUILD_JSON}")
            if archive.getinfo(BUILD_JSON).file_size > _LARGEST_JSON:
                raise BadInput(BUILD_JSON, "is over 64 MB unpacked")
            with archive.open(BUILD_JSON) as member:
                text = member.read(_LARGEST_JSON + 1)
    except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError) as fault:
        raise BadInput(path.name, f"is cut off or damaged ({fault})") from None
    if len(text) > _LARGEST_JSON:
        raise BadInput(BUILD_JSON, "is over 64 MB unpacked")
    return text


def _check_name(name: str) -> None:
    posix, windows = PurePosixPath(name), PureWindowsPath(name)
    if posix.is_absolute() or windows.is_absolute() or windows.drive or windows.root:
        raise BadInput(name, "is an absolute name inside the zip, which is not allowed")
    if ".." in posix.parts or ".." in windows.parts:
        raise BadInput(name, "climbs out of the zip, which is not allowed")


def _carry_over(old: Path, archive: zipfile.ZipFile) -> set[str]:
    """Copy what else the old file held; the names copied."""
    kept: set[str] = set()
    if not old.is_file():
        return kept
    try:
        with zipfile.ZipFile(old) as before:
            for info in before.infolist():
                if info.filename != BUILD_JSON and not info.is_dir():
                    archive.writestr(info, before.read(info))
                    kept.add(info.filename)
    except (zipfile.BadZipFile, zlib.error, OSError):
        # What stood there was no sound build of ours; the version kept beside still holds it.
        return kept
    return kept
