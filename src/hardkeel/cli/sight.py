"""``hardkeel sight``: photographs with printed targets as sightings, adjusted with all that was read."""

import argparse
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, Final

from hardkeel.base.errors import BadInput
from hardkeel.cli.options import as_text, unit_of
from hardkeel.cli.true import true_table
from hardkeel.fuselage.curing import judge_frame
from hardkeel.fuselage.model import Squaring
from hardkeel.fuselage.squared_telling import judged_json
from hardkeel.fuselage.squaring import measured_survey
from hardkeel.messages import targets as say
from hardkeel.messages.square import squared_lines
from hardkeel.project.model import Build
from hardkeel.sight.assigning import assigned, order_of, reordered
from hardkeel.sight.moved import moved_between
from hardkeel.sight.pictures import read_picture
from hardkeel.sight.targets import USUAL_SIDE, Sighted, sighted, taken_of
from hardkeel.storage.given import bytes_of
from hardkeel.storage.package import Loaded, save
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.readings import Phase
from hardkeel.survey.telling import as_json

Json = dict[str, Any]
_AT_ONCE: Final = 2


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """What photographs tell of the airframe."""
    build = loaded.build
    frame = parsed.frame
    survey = _frame(build) if frame else build.surveyed
    if not survey.targets:
        place = "fuselage.squaring.targets" if frame else "survey.targets"
        raise BadInput(place, "is missing: nobody said which target sits on which mark")
    names = _names(parsed.photos)
    with ThreadPoolExecutor(_AT_ONCE) as pool:
        data = map(bytes_of, parsed.photos)
        taken = list(pool.map(taken_of, data, names, _images(build, len(names))))
    here = {one.original for one in survey.photos}  # laid down twice, one would count twice
    again = "".join(f"{say.already(one.name)}\n" for one in taken if one.original in here)
    fresh = [one for one in taken if one.original not in here]
    sought = parsed.any_order and fresh
    order = assigned(survey, fresh, survey.target_size or USUAL_SIDE) if sought else None
    if sought and order is None:
        raise BadInput("survey.targets", say.NO_ORDER)
    seen = sighted(survey if order is None else reordered(survey, order), fresh, build.phase)
    made = _squared(build, seen) if frame else build.but(survey=seen.survey)
    if parsed.save is not None:
        images = {
            one.image: read_picture(bytes_of(path), one.name).jpeg
            for path, one in zip(parsed.photos, taken, strict=True)
            if one.name in seen.photos
        }
        save(made, parsed.save, attached={**loaded.attached(), **images}, others=loaded.others)
    phase = parsed.phase or (None if frame else build.phase)
    if frame:
        return again + _frame_told(made, seen, phase, parsed)
    try:
        judgement = judge_survey(seen.survey, phase)
    except BadInput as fault:
        if order is None and order_of(survey, fresh) is not None:
            raise BadInput(fault.place, f"{fault.fault}; {say.TRY_ORDER}") from None
        raise
    if parsed.json:
        return as_text(sight_json(seen, judgement))
    ordered = "".join(f"{line}\n" for line in say.order_lines(order, survey))
    return again + ordered + sight_table(build, seen, judgement, parsed)


def _frame(build: Build) -> Survey:
    """The frame on its board with what was read of it."""
    if build.fuselage is None or build.fuselage.squaring is None:
        raise BadInput("fuselage.squaring", "is missing: there is no frame to square")
    return measured_survey(build.fuselage)


def _squared(build: Build, seen: Sighted) -> Build:
    """The build with what was seen of its frame."""
    assert build.fuselage is not None  # noqa: S101  `_frame` has looked
    squaring = build.fuselage.squaring or Squaring()
    squared = squaring.but(photos=seen.survey.photos, readings=seen.survey.readings)
    return build.but(fuselage=build.fuselage.but(squaring=squared))


def _frame_told(made: Build, seen: Sighted, phase: Phase | None, parsed: argparse.Namespace) -> str:
    """What pictures tell of a frame."""
    assert made.fuselage is not None  # noqa: S101
    judged = judge_frame(made.fuselage, phase)
    if parsed.json:
        return as_text(judged_json(judged) | found_json(seen))
    lines = [*say.seen_lines(seen), *say.told_lines(seen.survey, seen.told, say.of_frame()), ""]
    return "\n".join([*lines, *squared_lines(judged, unit_of(parsed))]) + "\n"


def sight_json(seen: Sighted, judgement: Judgement) -> Json:
    """What ``true --json`` prints, and what was found and told; by the contract."""
    return {
        **as_json(judgement),
        **found_json(seen),
    }


def found_json(seen: Sighted) -> Json:
    """What was found in which photograph, and what of it is told and not used."""
    return {
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
    squaring = build.fuselage.squaring if build.fuselage is not None else None
    photos = (*build.surveyed.photos, *(squaring.photos if squaring is not None else ()))
    taken = {one.image for one in photos}
    found: list[str] = []
    number = 1
    while len(found) < count:
        image = f"photos/sight-{number}.jpg"
        if image not in taken:
            found.append(image)
        number += 1
    return found
