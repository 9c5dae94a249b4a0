"""Printed targets in photographs as sightings of their marks: which code is which mark, what is told instead of used.

A photograph's camera is first sought by random samples against the places that the marks have by design (M. A.
Fischler and R. C. Bolles, "Random sample consensus", 1981): a target that most photographs see somewhere else sits on
another mark than the file says, or was moved.  The adjustment then takes all of it together, as it takes clicks.
"""

import hashlib
import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Final, Literal

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.sight.codes import CodeSeen, Pose, codes_in, pose_by_samples
from hardkeel.sight.pictures import read_shades
from hardkeel.sight.quality import Quality, quality_of
from hardkeel.survey.cameras import LEAST_MARKS, UNTOLD_FOCAL
from hardkeel.survey.model import Photo, Survey
from hardkeel.survey.readings import Phase, Sight

if TYPE_CHECKING:
    from hardkeel.geometry.rotation import Array

What = Literal["twice", "no target", "few", "wrong"]
# mm that a label lies beside its mark, in its plane and along its normal
USUAL_PLACE: Final = (0.3, 0.1)
USUAL_SIDE: Final = 20.0  # mm, of a black square, where the file does not say
SIGMA: Final = 0.1  # pixels, as the contract has it
ASLANT_SIGMA: Final = 0.25
_ASLANT: Final = math.cos(math.radians(60.0))
WITHIN_PX: Final = 60.0  # of where the design has it
_FOCALS: Final = (1.0, 0.8, 1.25, 0.65, 1.6)  # times what is usual, where the camera told nothing
FOCAL_SIGMA: Final = 0.05  # of ln f, told as for 35 mm film


@dataclass(frozen=True, slots=True)
class Taken:
    """A photograph with the codes in it.

    Attributes
    ----------
    name : str
        Of its file.
    image : str
        Its name inside the build.
    focal : float, optional
        Pixels, where the camera told it.
    original : str, optional
        SHA-256 of the file as the camera wrote it.
    quality : Quality, optional
        How sharp it is, and where a lamp is mirrored; ``None`` where that was not looked at.
    """

    name: str
    image: str
    size: tuple[int, int]
    focal: float | None
    codes: tuple[CodeSeen, ...]
    original: str | None = None
    quality: Quality | None = None


def taken_of(data: bytes, name: str, image: str) -> Taken:
    """A photograph as a camera wrote it, looked through for codes; `image` is to be its name inside the build.

    Raises
    ------
    BadInput
        When it can't be read.
    """
    shades, original = read_shades(data, name), hashlib.sha256(data).hexdigest()
    codes = codes_in(shades.grey)
    quality = quality_of(shades.grey, codes)
    return Taken(name, image, shades.size, shades.focal, codes, original, quality)


@dataclass(frozen=True, slots=True)
class Found:
    """A code in a photograph; `mark` where the survey has it, `reading` where it is used."""

    code: int
    mark: str | None
    value: Point2
    reading: str | None


@dataclass(frozen=True, slots=True)
class Told:
    """Something that is told and not used.

    Attributes
    ----------
    photo : str, optional
        Of which photograph; ``None`` for all.
    what : str
        ``twice`` in one photograph; ``no target`` of the survey; a photograph with too ``few``; ``wrong``: it does
        not fit where most photographs see it.
    """

    photo: str | None
    what: What
    code: int | None = None


@dataclass(frozen=True, slots=True)
class Sighted:
    """What photographs give: the survey with them, and what was found and told."""

    survey: Survey
    found: Mapping[str, tuple[Found, ...]]
    told: tuple[Told, ...]
    photos: Mapping[str, str] = field(default_factory=dict)  # the id of each, by its file's name
    qualities: Mapping[str, Quality | None] = field(default_factory=dict)  # by its file's name


def usual_focal(size: tuple[int, int]) -> float:
    """Of a camera that told nothing, pixels."""
    return UNTOLD_FOCAL * max(size)


def sighted(survey: Survey, photos: Sequence[Taken], phase: Phase | None = None) -> Sighted:
    """The survey with these photographs and the sightings of its targets in them.

    Parameters
    ----------
    phase : Phase, optional
        In which they were taken.
    """
    marks = {one.code: one.mark for one in survey.targets}
    told = [Told(one.name, "twice", code) for one in photos for code in _twice(one)]
    told += [
        Told(one.name, "no target", code)
        for one in photos
        for code in dict.fromkeys(seen.code for seen in one.codes)
        if code not in marks
    ]
    usable = {one.name: _usable(one, marks) for one in photos}
    poses = {one.name: _pose(survey, one, usable[one.name]) for one in photos}
    wrong = _wrong(usable, poses)
    told += [Told(None, "wrong", code) for code in sorted(wrong)]
    added: list[Photo] = []
    readings: list[Sight] = []
    ids: dict[str, str] = {}
    used: dict[tuple[str, int], str] = {}
    for one in photos:
        kept = {code: seen for code, seen in usable[one.name].items() if code not in wrong}
        if len(kept) < LEAST_MARKS:
            told.append(Told(one.name, "few"))
            continue
        photo = Photo(
            id=_free("p", {p.id for p in (*survey.photos, *added)}),
            image=one.image,
            size=one.size,
            focal=one.focal,
            focal_sigma=FOCAL_SIGMA if one.focal is not None else None,
            original=one.original,
        )
        added.append(photo)
        ids[one.name] = photo.id
        for code, seen in kept.items():
            taken = {r.id for r in (*survey.readings, *readings)}
            name = _free("t", taken)
            used[one.name, code] = name
            readings.append(
                Sight(
                    id=name,
                    photo=photo.id,
                    mark=marks[code],
                    value=seen.middle,
                    sigma=_sigma(survey, code, poses[one.name]),
                    phase=phase,
                )
            )
    found = {
        one.name: tuple(
            Found(seen.code, marks.get(seen.code), seen.middle, used.get((one.name, seen.code)))
            for seen in one.codes
        )
        for one in photos
    }
    made = survey.but(photos=(*survey.photos, *added), readings=(*survey.readings, *readings))
    return Sighted(made, found, tuple(told), ids, {one.name: one.quality for one in photos})


def agreeing(survey: Survey, photos: Sequence[Taken]) -> float:
    """The share of labels that lie where the survey has them, of photographs that show enough of them."""
    marks = {one.code: one.mark for one in survey.targets}
    seen = good = 0
    for one in photos:
        if len(one.codes) < LEAST_MARKS:
            continue
        pose = _pose(survey, one, _usable(one, marks))
        seen += len(one.codes)
        good += int(pose.agree.sum()) if pose is not None else 0
    return good / seen if seen else 1.0


def _twice(photo: Taken) -> list[int]:
    counts = Counter(seen.code for seen in photo.codes)
    return sorted(code for code, count in counts.items() if count > 1)


def _usable(photo: Taken, marks: Mapping[int, str]) -> dict[int, CodeSeen]:
    """Codes of the survey's targets that are there once."""
    twice = set(_twice(photo))
    return {one.code: one for one in photo.codes if one.code in marks and one.code not in twice}


def _pose(survey: Survey, photo: Taken, seen: Mapping[int, CodeSeen]) -> Pose | None:
    """Where a photograph was taken from, by most of its targets as they stand by design; ``None`` where too few agree."""
    if len(seen) < LEAST_MARKS:
        return None
    points = np.array([_design(survey, code) for code in seen])
    pixels = np.array([one.middle for one in seen.values()])
    told = photo.focal
    tried = (
        (told,) if told is not None else tuple(usual_focal(photo.size) * share for share in _FOCALS)
    )
    poses = [pose_by_samples(points, pixels, focal, photo.size, WITHIN_PX) for focal in tried]
    best = max(
        (one for one in poses if one is not None), key=lambda one: one.agree.sum(), default=None
    )
    return best if best is not None and int(best.agree.sum()) >= LEAST_MARKS else None


def _design(survey: Survey, code: int) -> tuple[float, float, float]:
    target = next(one for one in survey.targets if one.code == code)
    mark = survey.mark(target.mark)
    assert mark is not None  # noqa: S101  the survey was checked
    return mark.at


def _wrong(
    usable: Mapping[str, Mapping[int, CodeSeen]], poses: Mapping[str, Pose | None]
) -> frozenset[int]:
    """Codes that lie elsewhere in more than half of the photographs that see them."""
    seen: Counter[int] = Counter()
    outside: Counter[int] = Counter()
    for name, codes in usable.items():
        pose = poses[name]
        if pose is None:
            continue
        for code, agrees in zip(codes, pose.agree, strict=True):
            seen[code] += 1
            outside[code] += not agrees
    return frozenset(code for code, count in seen.items() if 2 * outside[code] > count)


def _sigma(survey: Survey, code: int, pose: Pose | None) -> float:
    """Of a target's middle, pixels: more where it is seen aslant."""
    if pose is None:
        return SIGMA
    target = next(one for one in survey.targets if one.code == code)
    normal = np.array(survey.normal_of(target))
    way: Array = pose.place - np.array(_design(survey, code))
    return SIGMA if float(way @ normal) > _ASLANT * float(np.linalg.norm(way)) else ASLANT_SIGMA


def _free(letter: str, taken: set[str]) -> str:
    number = 1
    while f"{letter}{number}" in taken:
        number += 1
    return f"{letter}{number}"
