"""Does a survey hang together?  What no single value can know: ids, and what they point at."""

from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import LONGEST_MODEL_MM, unique_ids
from hardkeel.survey.model import DATUM, FUSELAGE, RUDDER, Body, Survey
from hardkeel.survey.readings import (
    ANGULAR,
    Offset,
    Reading,
    Sight,
)

_LARGEST_DEGREES: Final = 180.0
_MOST_BODIES: Final = 40
_MOST_MARKS: Final = 2000
_MOST_PHOTOS: Final = 40
_MOST_READINGS: Final = 3000  # the covariance of all of them is kept


def check_survey(survey: Survey, place: str = "survey") -> None:
    """Raise on the first thing that does not fit.

    Raises
    ------
    BadInput
        Naming the place, as ``survey.readings[4].to: no mark "stab_tip"``.
    """
    for name, many, most in (
        ("bodies", survey.bodies, _MOST_BODIES),
        ("marks", survey.marks, _MOST_MARKS),
        ("readings", survey.readings, _MOST_READINGS),
        ("photos", survey.photos, _MOST_PHOTOS),
    ):
        if len(many) > most:
            raise BadInput(
                f"{place}.{name}", f"holds {len(many)}, more than the {most} of any model"
            )
    body_ids = unique_ids(f"{place}.bodies", (body.id for body in survey.bodies))
    for i, body in enumerate(survey.bodies):
        _check_body(body, f"{place}.bodies[{i}]")
    body_ids.add(FUSELAGE)
    unique_ids(f"{place}.marks", (mark.id for mark in survey.marks))
    for i, mark in enumerate(survey.marks):
        if mark.body not in body_ids:
            raise BadInput(f"{place}.marks[{i}].body", f'no body "{mark.body}"')
    check_measured(survey, place)
    for i, reading in enumerate(survey.readings):
        if not isinstance(reading, Sight):
            _check_string(survey, reading, f"{place}.readings[{i}]")
    _check_aims(survey, body_ids - {FUSELAGE}, place)
    unique_ids(f"{place}.instruments", (tool.id for tool in survey.instruments or ()))


def check_measured(survey: Survey, place: str) -> None:
    """Raise on the first reading, photo or target that points at nothing.

    Raises
    ------
    BadInput
        Naming the place.
    """
    marks = {mark.id for mark in survey.marks}
    bodies = {FUSELAGE, *(body.id for body in survey.bodies)}
    unique_ids(f"{place}.readings", (reading.id for reading in survey.readings))
    unique_ids(f"{place}.photos", (photo.id for photo in survey.photos))
    seen: set[tuple[str, str]] = set()
    for i, reading in enumerate(survey.readings):
        here = f"{place}.readings[{i}]"
        if not isinstance(reading, Sight):
            check_reading(reading, marks, bodies, here)
            continue
        _check_sighting(survey, reading, marks, here)
        sighted = (reading.photo, reading.mark)
        if sighted in seen and not reading.ignored:
            raise BadInput(
                f"{here}.mark", f'"{reading.mark}" is sighted twice in photo "{reading.photo}"'
            )
        if not reading.ignored:
            seen.add(sighted)
    _check_targets(survey, marks, place)


def _check_targets(survey: Survey, marks: set[str], place: str) -> None:
    """Raise where a printed target sits on no mark, faces nowhere, or one is used twice."""
    codes: set[int] = set()
    taken: set[str] = set()
    for i, target in enumerate(survey.targets):
        here = f"{place}.targets[{i}]"
        if target.mark not in marks:
            raise BadInput(f"{here}.mark", f'no mark "{target.mark}"')
        if target.code in codes:
            raise BadInput(f"{here}.code", f"{target.code} is used twice")
        if target.mark in taken:
            raise BadInput(f"{here}.mark", f'"{target.mark}" has a target already')
        if target.normal is not None and not any(target.normal):
            raise BadInput(f"{here}.normal", "points nowhere")
        codes.add(target.code)
        taken.add(target.mark)


def _check_string(survey: Survey, reading: Reading, place: str) -> None:
    """Raise where a reading's string does not run aft."""
    if not isinstance(reading, Offset) or reading.along is None:
        return
    nose, tail = (survey.mark(one) for one in reading.along)
    if nose is not None and tail is not None and not tail.at[0] > nose.at[0]:
        raise BadInput(f"{place}.along", f'"{tail.id}" does not lie aft of "{nose.id}"')


def _check_sighting(survey: Survey, one: Sight, marks: set[str], place: str) -> None:
    """Raise where a sighting's mark or photo is not there, or its pixel lies outside the picture."""
    if one.mark not in marks:
        raise BadInput(f"{place}.mark", f'no mark "{one.mark}"')
    photo = survey.photo(one.photo)
    if photo is None:
        raise BadInput(f"{place}.photo", f'no photo "{one.photo}"')
    for value, most, way in zip(one.value, photo.size, ("right", "down"), strict=True):
        if not 0 <= value <= most:
            raise BadInput(
                f"{place}.value",
                f"{value:g} pixels {way} lies outside the picture of {photo.size[0]} by {photo.size[1]}",
            )


def _check_aims(survey: Survey, bodies: set[str], place: str) -> None:
    """What the glue holds, and what a body is to be true to."""
    for name, other in (survey.aim or {}).items():
        if name not in bodies:
            raise BadInput(f"{place}.aim", f'no body "{name}"')
        if other != DATUM and other not in bodies - {name}:
            raise BadInput(f"{place}.aim.{name}", f'no body "{other}" to aim at')
    for body in survey.locked:
        if body not in bodies | {RUDDER}:
            raise BadInput(f"{place}.locked", f'no body "{body}"')
    for body in survey.locked_at or {}:
        if body not in survey.locked:
            raise BadInput(f"{place}.locked_at.{body}", f'"{body}" is not locked')
    if survey.gluing is not None and survey.gluing.body not in bodies:
        raise BadInput(f"{place}.gluing.body", f'no body "{survey.gluing.body}"')


def check_reading(reading: Reading, marks: set[str], bodies: set[str], place: str) -> None:
    """Raise where a reading points at nothing, or at one thing twice.

    Raises
    ------
    BadInput
        Naming the field.
    """
    most = _LARGEST_DEGREES if reading.kind in ANGULAR else 2 * LONGEST_MODEL_MM
    if abs(reading.value) > most:
        what = "degrees" if reading.kind in ANGULAR else "mm"
        raise BadInput(f"{place}.value", f"{reading.value:g} {what} can't be read on a model")
    if reading.hung_on is not None and reading.hung_on not in bodies:
        raise BadInput(f"{place}.body", f'no body "{reading.hung_on}"')
    seen: set[str] = set()
    for field, mark in reading.ends:
        if mark not in marks:
            raise BadInput(f"{place}.{field}", f'no mark "{mark}"')
        if mark in seen:
            raise BadInput(f"{place}.{field}", f'the mark "{mark}" is named twice')
        seen.add(mark)


def _check_body(body: Body, place: str) -> None:
    if body.id == FUSELAGE:
        if body.twist:
            raise BadInput(f"{place}.twist", "the fuselage is the reference and can't be twisted")
        return
    if body.pivot is None:
        raise BadInput(f"{place}.pivot", "is missing")
    if body.twist and body.span is None:
        raise BadInput(f"{place}.span", "is missing, and twist needs it")
    if body.seat is not None:
        unique_ids(f"{place}.seat.contacts", (contact.id for contact in body.seat.contacts))
