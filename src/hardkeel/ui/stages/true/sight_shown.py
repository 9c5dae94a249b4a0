"""What Sight shows, from the document's figures."""

from collections.abc import Collection, Sequence
from dataclasses import replace
from typing import Final

from hardkeel.base.units import LengthUnit
from hardkeel.geometry.rotation import Array
from hardkeel.messages import sight as say
from hardkeel.messages.names import mark_name, sentence_case
from hardkeel.picture.photo import over_photo
from hardkeel.picture.truing import View
from hardkeel.project.model import Build
from hardkeel.sight.asking import next_picture, open_checks, worth_a_pin
from hardkeel.survey.cameras import LEAST_MARKS
from hardkeel.survey.checking import Check
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Role, Survey
from hardkeel.survey.proposing import is_upright
from hardkeel.survey.readings import in_phase
from hardkeel.ui.stages.true.photo_view import OnPhoto, Tick

_EXPECTED: Final = 3
# by role and kind, what a builder asks a photo for
_SAID: Final[tuple[tuple[Role | None, str], ...]] = (
    ("stabilizer", "roll_to_wing"),
    ("foreplane", "roll_to_wing"),
    ("vee", "vee_tilt"),
    ("stabilizer", "yaw"),
    ("foreplane", "yaw"),
    ("vee", "vee_angle"),
    (None, "decalage"),
    ("fin", "fin_lean_to_stab"),
    ("wing", "yaw"),
)


def on_photo(
    build: Build, judgement: Judgement, photo: str, mark: str, chosen: str, factor: float
) -> OnPhoto:
    """The clicks in a photo and the airframe over it."""
    survey = build.surveyed
    aside = {one.reading for one in judgement.outliers}
    off = {
        fit.id: fit.off for fit in judgement.sight_fits
    }  # none of a click that is not judged yet
    ticks = tuple(
        Tick(one.id, mark_name(survey, one.mark), one.value, off.get(one.id), one.id in aside)
        for one in in_phase(survey.sightings, build.phase)
        if one.photo == photo and not one.ignored
    )
    over = over_photo(build, judgement, photo, factor)
    if len(ticks) <= LEAST_MARKS:
        over = replace(over, estimated=())  # so few place the camera, and no more
    return OnPhoto(ticks, over, dict(over.marks).get(mark), chosen)


def by_targets(build: Build, photo: str) -> bool:
    """Whether a photo tells by its targets where it was taken from: nothing is to be clicked in it."""
    survey = build.surveyed
    marks = {one.mark for one in survey.targets}
    return sum(one.photo == photo and one.mark in marks for one in survey.sightings) >= LEAST_MARKS


def checks_said(judgement: Judgement) -> tuple[Check, ...]:
    """The checks that a builder asks a photo for, as far as there are such."""
    return tuple(
        check
        for role, kind in _SAID
        for check in judgement.checks
        if check.kind == kind and role in (None, check.role)
    )


def view_of(build: Build, mark_id: str) -> View:
    """Which drawing shows where a mark is: a fin's from the side, all others from above."""
    survey = build.surveyed
    mark = survey.mark(mark_id)
    body = survey.body(mark.body) if mark is not None else None
    upright = body is not None and body.id != FUSELAGE and is_upright(survey, body)
    return "side" if upright else "plan"


def next_lines(
    build: Build, judgement: Judgement, walls: Sequence[Array], unit: LengthUnit
) -> list[str]:
    """Which picture to take next and from where, and what is worth a pin in it."""
    survey = build.surveyed
    wanted = next_picture(judgement, walls)
    open_ = open_checks(judgement)
    told = (
        [say.no_picture_words(survey, open_[0])]
        if open_ and (wanted is None or wanted.check != open_[0].id)
        else []
    )
    if wanted is None:
        return told
    lines = [
        say.next_words(survey, judgement, wanted, unit),
        say.expect_words(
            survey, judgement, wanted, [one.id for one in checks_said(judgement)][:_EXPECTED], unit
        ),
    ]
    pins = say.pin_words(survey, worth_a_pin(judgement, wanted))
    return [line for line in (*lines, pins, *told) if line]


def click_lines(
    build: Build, judgement: Judgement, photos: Collection[str], touched: str = ""
) -> tuple[str, list[str]]:
    """Clicks and targets in these photos that do not fit, under what they are; not those of a part that was touched."""
    survey = build.surveyed
    body_of = {mark.id: mark.body for mark in survey.marks}
    found = [
        one
        for one in judgement.outliers
        if (sight := survey.sighting(one.reading)) is not None
        and sight.photo in photos
        and body_of.get(sight.mark) != touched
    ]
    title = say.again_title(survey, found[0].reading) if found else say.CLICK_AGAIN
    return title, [say.click_sentence(survey, judgement, one) for one in found]


def marks_to_lay_by(survey: Survey) -> list[tuple[str, str]]:
    """Marks that a hand finds again, with what they are called."""
    return [
        (one.id, sentence_case(mark_name(survey, one.id)))
        for one in survey.marks
        if not one.id.startswith(OWN_TARGET)
    ]
