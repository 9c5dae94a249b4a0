"""Photographs read from files, two at once, with the targets in them: one that can't be read keeps no other out."""

import hashlib
from collections import Counter
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.sight.assigning import Assigned, order_of
from hardkeel.sight.codes import CodeSeen
from hardkeel.sight.pictures import Picture, read_picture
from hardkeel.sight.targets import Taken, taken_of
from hardkeel.storage.given import bytes_of
from hardkeel.survey.model import Survey
from hardkeel.ui.jobs.progress import Progress

_AT_ONCE: Final = 2


@dataclass(frozen=True)
class Shot:
    """A photograph as it was read, and what was found in it where targets were looked for."""

    name: str
    picture: Picture
    original: str
    taken: Taken | None = None

    @property
    def codes(self) -> tuple[CodeSeen, ...]:
        """The targets in it."""
        return self.taken.codes if self.taken is not None else ()

    def taken_as(self, image: str) -> Taken:
        """With its name inside the build; for one in which targets were looked for."""
        assert self.taken is not None  # noqa: S101
        return replace(self.taken, name=self.name, image=image)


@dataclass(frozen=True)
class Heap:
    """Photographs that were read together, why others of them were not, and which label sits where if not as it should."""

    shots: tuple[Shot, ...]
    faults: tuple[str, ...] = ()
    order: Assigned | None = None


def in_order(heap: Heap, survey: Survey) -> Heap:
    """The same, and which label sits where when many do not sit where the survey has them."""
    taken = [one.taken for one in heap.shots if one.taken is not None]
    return replace(heap, order=order_of(survey, taken))


def read_shots(
    paths: Sequence[Path], *, looked_for: bool, progress: Progress | None = None
) -> Heap:
    """Read photos, two at once; one that can't be read does not keep the others out.

    Raises
    ------
    GivenUp
        When it was stopped; what has not been begun is not begun any more.
    """
    told = progress or Progress()
    read: list[Shot | str] = []
    with ThreadPoolExecutor(_AT_ONCE) as pool:
        begun = [pool.submit(_read, path, looked_for=looked_for) for path in paths]
        try:
            for each in begun:
                read.append(each.result())
                told.step(len(read), len(begun))
        finally:
            pool.shutdown(wait=False, cancel_futures=True)
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
        return shot_of(bytes_of(path), path.name, looked_for=looked_for)
    except BadInput as fault:
        return f"{fault}."


def shot_of(data: bytes, name: str, *, looked_for: bool) -> Shot:
    """A photograph of these bytes; targets in it where they are looked for.

    Raises
    ------
    BadInput
        When it is none.
    """
    picture = read_picture(data, name)
    if not looked_for:
        return Shot(name, picture, hashlib.sha256(data).hexdigest())
    taken = taken_of(data, name, "")
    return Shot(name, picture, taken.original or "", taken)
