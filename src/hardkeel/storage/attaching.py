"""Images that belong to a build, kept beside the journal until a file holds them.

They are named by their content, so that undo, redo, a crash and two builds with the same scan all
find the same bytes.
"""

import hashlib
import re
import time
from collections.abc import Mapping
from contextlib import suppress
from pathlib import Path
from types import MappingProxyType
from typing import Final

from hardkeel.base.errors import CannotSave
from hardkeel.project.model import Build
from hardkeel.storage.atomic import write_atomically

_NAME: Final = re.compile(r"(plans|photos)/[A-Za-z0-9][A-Za-z0-9._-]{0,80}")
_KEPT_DAYS: Final = 180
_SECONDS_A_DAY: Final = 86400


class Images:
    """The images known on this machine, each by its content.

    Parameters
    ----------
    state : Path, optional
        The application's state folder; without it all are kept in memory.
    """

    def __init__(self, state: Path | None = None) -> None:
        self._folder = state / "images" if state is not None else None
        # what the state folder would not take: kept as long as the window lives
        self._held: dict[str, bytes] = {}

    def add(self, data: bytes, suffix: str = ".png", folder: str = "plans") -> str:
        """Keep an image; its name by its content."""
        own = _by_content(data, suffix, folder)
        if self._folder is None:
            self._held[own] = data
            return own
        place = self._folder / own
        try:
            if place.exists():
                place.touch()  # still in use: not to be swept
                return own
            place.parent.mkdir(parents=True, exist_ok=True)
            write_atomically(place, data, versions=0)
        except (OSError, CannotSave):
            self._held[own] = data
        return own

    def read(self, name: str) -> bytes | None:
        """An image's bytes by its own name; ``None`` where it is not here."""
        if not _NAME.fullmatch(name):
            return None
        if self._folder is not None:
            with suppress(OSError):
                return (self._folder / name).read_bytes()
        return self._held.get(name)

    def sweep(self, now: float | None = None) -> None:
        """Drop images that nobody has touched for half a year."""
        limit = (now if now is not None else time.time()) - _KEPT_DAYS * _SECONDS_A_DAY
        if self._folder is None or not self._folder.is_dir():
            return
        for file in self._folder.rglob("*"):
            with suppress(OSError):
                if file.is_file() and file.stat().st_mtime < limit:
                    file.unlink(missing_ok=True)


class BuildImages:
    """The images of one build: those that came with its file under the names that it gives them, and those added since.

    Two files may call two images alike: a name means what the build's own file held under it, or nothing.

    Parameters
    ----------
    came : mapping of str to bytes, optional
        By the names in the file.
    """

    def __init__(self, store: Images, came: Mapping[str, bytes] = MappingProxyType({})) -> None:
        self._store = store
        self._named: dict[str, str] = {}
        self.keep(came)

    @property
    def named(self) -> dict[str, str]:
        """By the names in the build's file, the names by content under which the store keeps them."""
        return dict(self._named)

    def call(self, named: Mapping[str, str]) -> None:
        """What names meant when the build was on the bench before, where nothing else is known of them."""
        for name, own in named.items():
            if _NAME.fullmatch(name) and _NAME.fullmatch(own):
                self._named.setdefault(name, own)

    def keep(self, images: Mapping[str, bytes]) -> None:
        """Keep images that came with a file of this build."""
        for name, data in images.items():
            if _NAME.fullmatch(name):
                folder = name.partition("/")[0]
                self._named[name] = self._store.add(data, Path(name).suffix, folder)

    def add(self, data: bytes, suffix: str = ".png", folder: str = "plans") -> str:
        """Keep an image; its name inside the build."""
        return self._store.add(data, suffix, folder)

    def read(self, name: str) -> bytes | None:
        """An image's bytes; ``None`` where it is not here."""
        return self._store.read(self._named.get(name, name))

    def of(self, build: Build) -> dict[str, bytes]:
        """The images that a build names, as far as they are here."""
        found = {name: self.read(name) for name in images_named(build)}
        return {name: data for name, data in found.items() if data is not None}


def images_named(build: Build) -> tuple[str, ...]:
    """Names of the scans that its plans lie on, of the photos sighted in and of those in its log, each once."""
    names = [plan.image for plan in build.plans]
    names += [photo.image for photo in build.surveyed.photos]
    squaring = build.fuselage.squaring if build.fuselage is not None else None
    names += [photo.image for photo in squaring.photos] if squaring is not None else []
    names += [photo for entry in build.log for photo in entry.photos]
    return tuple(dict.fromkeys(names))


def _by_content(data: bytes, suffix: str, folder: str) -> str:
    return f"{folder}/{hashlib.sha256(data).hexdigest()[:20]}{suffix}"
