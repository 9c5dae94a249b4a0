"""``hardkeel sight``: photographs with printed targets as sightings, adjusted with all that was read."""

import argparse
import hashlib
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, Final

from hardkeel.base.errors import BadInput
from hardkeel.cli.options import as_text, unit_of
from hardkeel.cli.true import true_table
from hardkeel.messages import targets as say
from hardkeel.project.model import Build
from hardkeel.sight.codes import codes_in
from hardkeel.sight.moved import moved_between
from hardkeel.sight.pictures import read_picture, read_shades
from hardkeel.sight.targets import Sighted, Taken, sighted
from hardkeel.storage.package import Loaded, save
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.telling import as_json

Json = dict[str, Any]
_AT_ONCE: Final = 2


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """What photographs tell of the airframe."""
    build = loaded.build
    if not build.surveyed.targets:
        raise BadInput("survey.targets", "is missing: nobody said which target sits on which mark")
    names = _names(parsed.photos)
    with ThreadPoolExecutor(_AT_ONCE) as pool:
        taken = list(pool.map(_taken, parsed.photos, names, _images(build, len(names))))
    here = {one.original for one in build.surveyed.photos}  # laid down twice, one would count twice
    again = [one.name for one in taken if one.original in here]
    fresh = [one for one in taken if one.original not in here]
    seen = sighted(build.surveyed, fresh, build.phase)
    judgement = judge_survey(seen.survey, parsed.phase or build.phase)
    if parsed.save is not None:
        images = {
            one.image: read_picture(_bytes(path), one.name).jpeg
            for path, one in zip(parsed.photos, taken, strict=True)
            if one.name in seen.photos
        }
        kept = build.but(survey=seen.survey)
        save(kept, parsed.save, attached={**loaded.attached(), **images}, others=loaded.others)
    if parsed.json:
        return as_text(sight_json(seen, judgement))
    return "".join(f"{say.already(name)}\n" for name in again) + sight_table(
        build, seen, judgement, parsed
    )


def sight_json(seen: Sighted, judgement: Judgement) -> Json:
    """What ``true --json`` prints, and what was found and told; by the contract."""
    return {
        **as_json(judgement),
        "found": {
            name: [
                {
                    "code": one.code,
                    "mark": one.mark,
                    "value": list(one.value),
                    "reading": one.reading,
                }
                for one in found
            ]
            for name, found in seen.found.items()
        },
        "told": [{"photo": one.photo, "what": one.what, "code": one.code} for one in seen.told],
    }


def sight_table(
    build: Build, seen: Sighted, judgement: Judgement, parsed: argparse.Namespace
) -> str:
    """The same for reading."""
    lines = [*say.seen_lines(seen), *say.told_lines(seen.survey, seen.told)]
    moved = moved_between(judgement)
    if moved is not None:
        names = {photo: name for name, photo in seen.photos.items()}
        lines += say.moved_words(seen.survey, moved, unit_of(parsed), names)
    lines.append("")
    answer = true_table(build.but(survey=seen.survey), judgement, unit_of(parsed))
    return "\n".join(lines) + "\n" + answer


def _names(paths: Sequence[Path]) -> list[str]:
    """Without folders; two of one name can't be told apart."""
    names = [path.name for path in paths]
    for i, name in enumerate(names):
        if name in names[:i]:
            raise BadInput(name, "is given twice: photos are told apart by their file's name")
    return names


def _images(build: Build, count: int) -> list[str]:
    """Names inside the build that no photo has yet."""
    taken = {one.image for one in build.surveyed.photos}
    found: list[str] = []
    number = 1
    while len(found) < count:
        image = f"photos/sight-{number}.jpg"
        if image not in taken:
            found.append(image)
        number += 1
    return found


def _bytes(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None


def _taken(path: Path, name: str, image: str) -> Taken:
    data = _bytes(path)
    shades, original = read_shades(data, name), hashlib.sha256(data).hexdigest()
    return Taken(name, image, shades.size, shades.focal, codes_in(shades.grey), original)
