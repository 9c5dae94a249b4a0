"""``hardkeel --install-desktop`` and ``--remove-desktop``: into the menu of the user's own desktop, and out of it."""

import os
import shlex
import shutil
import subprocess
import sys
from collections.abc import Mapping
from importlib import resources
from pathlib import Path
from typing import Final

from hardkeel.base.errors import CannotSave
from hardkeel.cli import desktop_texts as texts

_RENEWED: Final = (("update-desktop-database", "applications"), ("update-mime-database", "mime"))


def data_home(environment: Mapping[str, str]) -> Path:
    """Where a user's own desktop files lie, by the XDG base directory rules."""
    told = environment.get("XDG_DATA_HOME", "")
    return Path(told) if told.startswith("/") else Path.home() / ".local" / "share"


def own_command() -> str:
    """What starts this very program, as a shell would be told."""
    script = Path(sys.argv[0]).resolve()
    if script.name == "hardkeel" and os.access(script, os.X_OK):
        return shlex.quote(str(script))
    return f"{shlex.quote(sys.executable)} -m hardkeel"


def files_of(command: str) -> dict[str, str]:
    """All that is written, by its place under the data home."""
    icon = (resources.files("hardkeel.resources") / "icons" / "hardkeel.svg").read_text("utf-8")
    name = texts.COMPONENT
    return {
        f"applications/{name}.desktop": texts.desktop_entry(command),
        f"mime/packages/{name}.xml": texts.mime_package(),
        f"thumbnailers/{name}.thumbnailer": texts.thumbnailer(command),
        f"icons/hicolor/scalable/apps/{name}.svg": icon,
        f"metainfo/{name}.metainfo.xml": texts.metainfo(),
        "man/man1/hardkeel.1": texts.man_page(),
        "bash-completion/completions/hardkeel": texts.completion(),
    }


def install(home: Path, command: str) -> list[Path]:
    """Write everything; what was there of ours is replaced.

    Raises
    ------
    CannotSave
        When a file can't be written.
    """
    written = []
    for name, text in files_of(command).items():
        place = home / name
        try:
            place.parent.mkdir(parents=True, exist_ok=True)
            place.write_text(text, encoding="utf-8")
        except OSError as fault:
            raise CannotSave(f"{place} can't be written: {fault.strerror or fault}") from fault
        written.append(place)
    _renew(home)
    return written


def remove(home: Path) -> list[Path]:
    """Take away what `install` writes, and nothing else; folders stay.

    Raises
    ------
    CannotSave
        When a file can't be taken away.
    """
    gone = []
    for name in files_of(""):
        place = home / name
        try:
            place.unlink()
        except FileNotFoundError:
            continue
        except OSError as fault:
            raise CannotSave(f"{place} can't be taken away: {fault.strerror or fault}") from fault
        gone.append(place)
    _renew(home)
    return gone


def _renew(home: Path) -> None:
    """Tell the desktop's own indexes, where their tools are there."""
    for tool, folder in _RENEWED:
        found = shutil.which(tool)
        if found is not None and (home / folder).is_dir():
            place = str(home / folder)
            subprocess.run([found, place], check=False, capture_output=True)  # noqa: S603  their own tools


def run(wish: str) -> str:
    """One of the wishes that `__main__` knows; the text to print."""
    home = data_home(os.environ)
    match wish:
        case "--install-desktop":
            places = install(home, own_command())
            return f"{len(places)} files written under {home}; hardkeel --remove-desktop takes them away.\n"
        case "--remove-desktop":
            places = remove(home)
            return f"{len(places)} files taken away under {home}.\n"
        case "--man":
            return texts.man_page()
        case _:
            return texts.completion()
