"""Renewing what an earlier export wrote: ours is replaced as a whole, nobody else's is touched.

A list beside the files says which of them are ours and how they looked when we wrote them; a file that
is not on it, or that was changed since, is somebody's work.
"""

import hashlib
import json
import re
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from hardkeel.base.errors import CannotSave, NotOurs
from hardkeel.storage.atomic import write_atomically


@dataclass(frozen=True, slots=True)
class Destination:
    """Where an export goes.

    Attributes
    ----------
    of : Path or None
        The build's own file, by which two builds of one name are told apart.
    overwrite : bool
        Write over what is not this build's, too; only when the builder said so.
    paper : str
        What it is printed on, a key of `PAPERS`.
    """

    folder: Path
    of: Path | None = None
    overwrite: bool = False
    paper: str = "A4"


def file_stem(name: str) -> str:
    """A build's name as part of a file name: ``kettlewick-1280``."""
    return re.sub(r"[^a-z0-9]+", "-", name.casefold()).strip("-")[:60] or "build"


def renew(to: Destination, stem: str, contents: Mapping[str, bytes]) -> None:
    """Write `contents` and take away what the last export of the same build left there.

    Parameters
    ----------
    stem : str
        The build's name as part of a file name; its list is kept by it.

    Raises
    ------
    NotOurs
        Before anything is written, when a file of another hand stands in the way.
    CannotSave
        When the folder can't be made or written.
    """
    renew_all(to, {stem: contents})


def renew_all(to: Destination, lists: Mapping[str, Mapping[str, bytes]]) -> None:
    """The same for several lists of one export, all of them or none.

    Raises
    ------
    NotOurs, CannotSave
        As `renew`.
    """
    folder, of = to.folder, to.of
    ours: dict[str, dict[str, str]] = {}
    try:
        for stem, contents in lists.items():
            ours[stem] = _listed(_record(folder, stem), of)
            strangers = [] if to.overwrite else _strangers(folder, contents, ours[stem])
            if strangers:
                raise NotOurs(folder.name, strangers)
        for contents in lists.values():
            for name in contents:
                (folder / name).parent.mkdir(parents=True, exist_ok=True)
    except OSError as fault:
        raise CannotSave(f"{folder} can't be made: {fault.strerror}") from fault
    for stem, contents in lists.items():
        for name, content in contents.items():
            write_atomically(folder / name, content, versions=0)
        listed = {name: _mark(content) for name, content in contents.items()}
        about = {"of": _own_name(of), "files": listed}
        record = json.dumps(about, indent=1).encode("utf-8")
        write_atomically(_record(folder, stem), record, versions=0)
        for name in set(ours[stem]) - set(contents):
            _take_away(folder / name, ours[stem][name])


def _record(folder: Path, stem: str) -> Path:
    """Where the list of what was written is kept."""
    return folder / f".{stem}-export.json"


def _strangers(folder: Path, contents: Mapping[str, bytes], ours: Mapping[str, str]) -> list[str]:
    """What stands in the way, and what stands among ours in a folder of our own."""
    found = []
    for name, content in contents.items():
        place = folder / name
        if place.is_dir():
            found.append(name)
        elif place.exists():
            standing = _mark(place.read_bytes())
            if standing != _mark(content) and standing != ours.get(name):
                found.append(name)
    own_folders = {name.partition("/")[0] for name in contents if "-formers/" in name}
    for own in own_folders:
        for file in sorted((folder / own).glob("*")):
            name = f"{own}/{file.name}"
            if name not in contents and name not in ours:
                found.append(name)
    return found


def _listed(record: Path, of: Path | None) -> dict[str, str]:
    """What an earlier export of the same build wrote; nothing where it was another's."""
    if not record.exists():
        return {}
    try:
        about: Any = json.loads(record.read_text(encoding="utf-8"))
        files = {str(name): str(mark) for name, mark in about["files"].items()}
        was = about["of"]
    except (ValueError, KeyError, TypeError, AttributeError):
        return {}
    if of is not None and was is not None and was != _own_name(of):
        return {}
    return {
        name: mark
        for name, mark in files.items()
        if not Path(name).is_absolute() and ".." not in Path(name).parts
    }


def _own_name(of: Path | None) -> str | None:
    """What tells a build's file from another's, without saying where it lies."""
    return _mark(str(of.absolute()).encode()) if of is not None else None


def _take_away(file: Path, mark: str) -> None:
    """Drop what an earlier export wrote, unless somebody has changed it."""
    with suppress(OSError):
        if _mark(file.read_bytes()) == mark:
            file.unlink()


def _mark(content: bytes) -> str:
    return hashlib.sha256(content).hexdigest()
