"""A build on disk: the ``.keel`` zip, or a bare ``build.json``."""

import io
import re
import zipfile
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path, PurePosixPath, PureWindowsPath
from types import MappingProxyType
from typing import Final

from hardkeel.base.errors import BadInput, CannotSave, WouldLose, one_line
from hardkeel.project.model import Build
from hardkeel.storage.atomic import Stamp, stamp_of, write_atomically
from hardkeel.storage.attaching import images_named
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.members import UNREADABLE, copy_member

BUILD_JSON: Final = "build.json"
SUFFIX: Final = ".keel"
PROFILES: Final = "profiles/"
_LARGEST_JSON: Final = 64 * 1024 * 1024
_LARGEST_PROFILE: Final = 2 * 1024 * 1024
_LARGEST_FILE: Final = 1024 * 1024 * 1024
_LARGEST_IMAGES: Final = 256 * 1024 * 1024  # all of a build's together
# what a bare build's folder may get: pictures, scans, sections, each in its own folder
_OURS: Final = re.compile(r"(photos|plans|profiles)/[A-Za-z0-9][A-Za-z0-9 ._-]{0,80}")
_EPOCH: Final = (1980, 1, 1, 0, 0, 0)  # zip's own beginning: the same build gives the same bytes


@dataclass(frozen=True, slots=True)
class Others:
    """What a build's file held besides ``build.json`` when it was opened, to be carried along.

    Attributes
    ----------
    path : Path
        The file that was opened; what others hold is none of this build's.
    """

    path: Path
    names: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Loaded:
    """A build with what came with it.

    Attributes
    ----------
    stamp : Stamp
        How the file looked on disk, to notice a change behind our back.
    others : Others
        Photos, plans and whatever else its file holds.
    """

    build: Build
    path: Path
    stamp: Stamp
    others: Others

    def attached(self) -> dict[str, bytes]:
        """The images that the build names, as far as its file holds them and they are no burden.

        One that is not here is told as missing where it is wanted; the file keeps it all the same.
        """
        wanted = list(images_named(self.build))
        if self.path.suffix.lower() == ".json":
            return _beside(self.path.parent, wanted)
        found: dict[str, bytes] = {}
        room = _LARGEST_IMAGES
        try:
            with zipfile.ZipFile(self.path) as archive:
                held = {info.filename: info.file_size for info in archive.infolist()}
                for name in wanted:
                    if name not in held or held[name] > room:
                        continue
                    try:
                        found[name] = archive.read(name)
                    except UNREADABLE:
                        continue
                    room -= held[name]
        except UNREADABLE:
            return found
        return found


def load(path: Path) -> Loaded:
    """Read a build from a ``.keel`` or a bare ``build.json``.

    Raises
    ------
    BadInput
        With one clear sentence; nothing is half loaded.
    """
    try:
        if not path.exists():
            raise BadInput("", f"no file {path.name}")
        if not path.is_file():
            raise BadInput("", f"{path.name} is not a file")
        stamp = stamp_of(path)
        if path.stat().st_size > _LARGEST_FILE:
            raise BadInput(path.name, "is too large to be a build")
        with path.open("rb") as file:
            is_zip = file.read(2) == b"PK"
        text, names = _json_in_zip(path) if is_zip else (_bare_json(path), ())
    except OSError as fault:
        short = one_line(path.name, 80)
        raise BadInput("", f"{short} can't be read: {fault.strerror or fault}") from None
    build = build_from_text(text)
    return Loaded(_with_profiles(build, path, is_zip=is_zip), path, stamp, Others(path, names))


def save(
    build: Build,
    path: Path,
    expected: Stamp | None = None,
    attached: Mapping[str, bytes] = MappingProxyType({}),
    others: Others | None = None,
) -> Stamp:
    """Write a build with everything that belongs to it.

    Parameters
    ----------
    expected : Stamp, optional
        How the file looked when it was read; saving is refused when it looks otherwise now.
    attached : mapping of str to bytes
        Images that the build names; a bare ``build.json`` gets them in a folder beside it.
    others : Others, optional
        What came with the build from the file that was opened; what the file at `path` holds is
        only carried along where it is that one.

    Raises
    ------
    WouldLose
        When something that came with the build can't be carried along.
    CannotSave
        When the disk refuses or the file was changed by another hand.
    """
    text = text_of(build, profiles=False).encode("utf-8")
    folder = "" if path.suffix.lower() == ".json" else PROFILES
    attached = {
        **attached,
        **{f"{folder}{name}": words.encode("utf-8") for name, words in build.profiles.items()},
    }
    if path.suffix.lower() == ".json":
        _write_beside(path.parent, {**_unpacked(others), **attached})
        return write_atomically(path, text, expected)
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        info = zipfile.ZipInfo(BUILD_JSON, _EPOCH)
        info.compress_type = zipfile.ZIP_DEFLATED
        archive.writestr(info, text)
        if others is not None:
            _carry_over(others, archive, fresh=set(attached))
        for name, data in attached.items():
            archive.writestr(zipfile.ZipInfo(name, _EPOCH), data)
    return write_atomically(path, packed.getvalue(), expected)


def _with_profiles(build: Build, path: Path, *, is_zip: bool) -> Build:
    """The build with the coordinate files that its tail names, as far as they are there."""
    wanted = sorted(
        {name for one in build.tail for name in (one.root_profile, one.tip_profile) if name}
        | {wing.profile for wing in build.wings if wing.profile}
    )
    found = dict(build.profiles)
    for name in wanted:
        if "/" in name or "\\" in name or name in (".", ".."):
            continue  # a section lies beside the build, nowhere else
        data = _member(path, f"{PROFILES}{name}") if is_zip else _file(path.parent / name)
        if data is not None:
            found[name] = _decoded(data, name)
    return build.but(profiles=found) if found != build.profiles else build


def _member(path: Path, name: str) -> bytes | None:
    try:
        with zipfile.ZipFile(path) as archive:
            if name not in archive.namelist() or archive.getinfo(name).file_size > _LARGEST_PROFILE:
                return None
            return archive.read(name)
    except UNREADABLE:
        return None


def _file(place: Path) -> bytes | None:
    try:
        if place.is_file() and place.stat().st_size <= _LARGEST_PROFILE:
            return place.read_bytes()
    except OSError:
        return None
    return None


def _decoded(data: bytes, name: str) -> str:
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        # old files name their authors in a code of one byte a letter
        text = data.decode("latin-1")
        if "\0" in text:
            raise BadInput(name, "is no text file of coordinates") from None
        return text


def _bare_json(path: Path) -> bytes:
    if path.suffix.lower() == SUFFIX:
        raise BadInput(path.name, "is not a .keel file: it is cut off or something else")
    if path.stat().st_size > _LARGEST_JSON:
        raise BadInput(path.name, "is over 64 MB")
    return path.read_bytes()


def _json_in_zip(path: Path) -> tuple[bytes, tuple[str, ...]]:
    """The text of ``build.json``, and the names of the other members."""
    try:
        with zipfile.ZipFile(path) as archive:
            names = archive.namelist()
            for name in names:
                _check_name(name)
            if names.count(BUILD_JSON) != 1:
                raise BadInput(path.name, f"must hold exactly one {BUILD_JSON}")
            if archive.getinfo(BUILD_JSON).file_size > _LARGEST_JSON:
                raise BadInput(BUILD_JSON, "is over 64 MB unpacked")
            with archive.open(BUILD_JSON) as member:
                text = member.read(_LARGEST_JSON + 1)
    except UNREADABLE as fault:
        raise BadInput(path.name, f"is cut off or damaged ({fault})") from None
    if len(text) > _LARGEST_JSON:
        raise BadInput(BUILD_JSON, "is over 64 MB unpacked")
    return text, tuple(name for name in names if name != BUILD_JSON)


def _check_name(name: str) -> None:
    posix, windows = PurePosixPath(name), PureWindowsPath(name)
    if posix.is_absolute() or windows.is_absolute() or windows.drive or windows.root:
        raise BadInput(name, "is an absolute name inside the zip, which is not allowed")
    if ".." in posix.parts or ".." in windows.parts:
        raise BadInput(name, "climbs out of the zip, which is not allowed")


def _beside(folder: Path, names: list[str]) -> dict[str, bytes]:
    """Images in the folder of a bare ``build.json``."""
    found: dict[str, bytes] = {}
    room = _LARGEST_IMAGES
    for name in names:
        file = folder / name
        try:
            if file.is_file() and file.stat().st_size <= room:
                found[name] = file.read_bytes()
                room -= len(found[name])
        except OSError:
            continue
    return found


def _write_beside(folder: Path, files: Mapping[str, bytes]) -> None:
    """Put a bare build's pictures in its folder; another's are never written over."""
    for name, data in files.items():
        place = folder / name
        try:
            if place.is_symlink() or (place.parent != folder and place.parent.is_symlink()):
                raise CannotSave(f"{name} would be written through a link; it was left alone")
            if place.exists():
                if place.read_bytes() != data:
                    raise CannotSave(f"{name} beside it is another file; it was left alone")
                continue
            place.parent.mkdir(parents=True, exist_ok=True)
        except OSError as fault:
            raise CannotSave(f"{name} can't be saved: {fault.strerror or fault}") from fault
        write_atomically(place, data, versions=0)


def _unpacked(others: Others | None) -> dict[str, bytes]:
    """What came with a build, to be written as files."""
    if others is None or not others.names:
        return {}
    found: dict[str, bytes] = {}
    lost = [name for name in others.names if not name.endswith("/")]
    ours = [name for name in lost if _OURS.fullmatch(name)]  # nothing else is put in a folder
    try:
        with zipfile.ZipFile(others.path) as before:
            for name in ours:
                try:
                    found[name] = before.read(name)
                except (*UNREADABLE, KeyError):
                    continue
                lost.remove(name)
    except UNREADABLE:
        pass
    if lost:
        raise WouldLose(others.path.name, lost)
    return found


def _carry_over(others: Others, archive: zipfile.ZipFile, fresh: set[str]) -> None:
    """Copy what came with the build, byte for byte, but for what is written afresh."""
    lost = {name for name in others.names if name not in fresh}
    if not lost:
        return
    try:
        with zipfile.ZipFile(others.path) as before:
            for info in before.infolist():
                if info.filename == BUILD_JSON or info.filename in fresh:
                    continue
                copy_member(others.path, info, archive)
                lost.discard(info.filename)
    except UNREADABLE:
        pass  # what is still in `lost` tells it
    if lost:
        raise WouldLose(others.path.name, sorted(lost))
