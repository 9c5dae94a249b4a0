"""Photographs read from files, two at once, with the targets in them: one that can't be read keeps no other out."""

import hashlib
from collections import Counter
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.sight.codes import CodeSeen, codes_in
from hardkeel.sight.pictures import Picture, read_picture, read_shades
from hardkeel.sight.quality import Quality, quality_of
from hardkeel.sight.targets import Taken

_AT_ONCE: Final = 2


@dataclass(frozen=True)
class Shot:
    """A photograph as it was read, with the codes in it where they were looked for."""

    name: str
    picture: Picture
    original: str
    codes: tuple[CodeSeen, ...] = ()
    film_focal: float | None = None
    quality: Quality | None = None

    def taken_as(self, image: str) -> Taken:
        """With its name inside the build."""
        return Taken(
            self.name,
            image,
            self.picture.size,
            self.film_focal,
            self.codes,
            self.original,
            self.quality,
        )


@dataclass(frozen=True)
class Heap:
    """Photographs that were read together, and why others of them were not."""

    shots: tuple[Shot, ...]
    faults: tuple[str, ...] = ()


def read_shots(paths: Sequence[Path], *, looked_for: bool) -> Heap:
    """Read photos, two at once; one that can't be read does not keep the others out."""
    with ThreadPoolExecutor(_AT_ONCE) as pool:
        read = list(pool.map(lambda path: _read(path, looked_for=looked_for), paths))
    shots: list[Shot] = []
    named: Counter[str] = Counter()
    for one in read:
        if isinstance(one, Shot):
            named[one.name] += 1  # two folders may have a photo of one name
            again = named[one.name]
            shots.append(one if again == 1 else replace(one, name=f"{one.name} ({again})"))
    return Heap(tuple(shots), tuple(one for one in read if isinstance(one, str)))


def _read(path: Path, *, looked_for: bool) -> Shot | str:
    """A photo, or why it can't be read."""
    try:
        return shot_of(path.read_bytes(), path.name, looked_for=looked_for)
    except OSError as fault:
        return f"{path.name}: can't be read: {fault.strerror or fault}."
    except BadInput as fault:
        return f"{fault}."


def shot_of(data: bytes, name: str, *, looked_for: bool) -> Shot:
    """A photograph of these bytes; targets in it where they are looked for.

    Raises
    ------
    BadInput
        When it is none.
    """
    picture, original = read_picture(data, name), hashlib.sha256(data).hexdigest()
    if not looked_for:
        return Shot(name, picture, original)
    shades = read_shades(data, name)
    codes = codes_in(shades.grey)
    quality = quality_of(shades.grey, codes)
    return Shot(name, picture, original, codes, shades.focal, quality)
