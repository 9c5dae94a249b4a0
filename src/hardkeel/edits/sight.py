"""Pure edits of photos and of the marks sighted in them."""

from collections.abc import Iterable, Sequence
from datetime import datetime

from hardkeel.airframe.target_ways import laid_by
from hardkeel.airframe.targeting import proposed, size_for
from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.edits.truing import with_survey
from hardkeel.logbook.entries import Entry, add_entry
from hardkeel.project.model import Build
from hardkeel.sight.assigning import Assigned, reordered
from hardkeel.sight.targets import USUAL_PLACE, Taken
from hardkeel.sight.targets import sighted as sightings_in
from hardkeel.survey.model import OWN_TARGET, LaidBy, Photo, Survey, Way
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import Phase, Sight


@edit
def add_photo(
    build: Build,
    image: str,
    size: tuple[int, int],
    focal: float | None,
    now: datetime,
    *,
    original: str | None = None,
) -> Build:
    """Lay a photo on the bench, with a line in the log.

    Parameters
    ----------
    image : str
        Its name inside the build.
    original : str, optional
        SHA-256 of the file that it came from, so that this is found again.
    """
    survey = build.surveyed
    used = {photo.id for photo in survey.photos}
    number = len(used) + 1
    while f"p{number}" in used:
        number += 1
    photo = Photo(id=f"p{number}", image=image, size=size, focal=focal, original=original)
    entry = Entry(at=now.isoformat(timespec="seconds"), by="app", photos=(image,))
    laid = with_survey(build, survey.but(photos=(*survey.photos, photo)))
    return laid.but(log=add_entry(laid.log, entry))


@edit
def lay_targets(build: Build) -> Build:
    """Give the airframe printed targets where they are worth most; those that it has stay.

    Raises
    ------
    BadInput
        When there is nowhere to stick one.
    """
    found = proposed(build)
    survey = build.surveyed
    if not found.targets and not survey.targets:
        raise BadInput("", "there is no surface and no fuselage yet to stick a target on")
    shared = survey.shared or Shared()
    return with_survey(
        build,
        survey.but(
            marks=(*survey.marks, *found.marks),
            targets=(*survey.targets, *found.targets),
            target_size=found.size,
            shared=shared if shared.target is not None else shared.but(target=USUAL_PLACE),
        ),
    )


@edit
def lay_target_by(build: Build, mark: str, way: Way, over: float) -> Build:
    """Give the airframe a target that is laid by a mark of the builder's own.

    Parameters
    ----------
    over : float
        How far the label's face lies over the mark, mm.

    Raises
    ------
    BadInput
        When there is no such mark, it has such a target already, or no number is left.
    """
    survey = build.surveyed
    size = size_for(build)
    marks, targets = laid_by(survey, LaidBy(mark=mark, way=way, over=over), size)
    shared = survey.shared or Shared()
    return with_survey(
        build,
        survey.but(
            marks=(*survey.marks, *marks),
            targets=(*survey.targets, *targets),
            target_size=size,
            shared=shared if shared.target is not None else shared.but(target=USUAL_PLACE),
        ),
    )


@edit
def drop_targets(build: Build) -> Build:
    """Take all targets away, and the marks that were there for them alone.

    Raises
    ------
    BadInput
        When photos show some of them.
    """
    survey = build.surveyed
    own = {mark.id for mark in survey.marks if mark.id.startswith(OWN_TARGET)}
    if any(one.mark in own for one in survey.sightings):
        raise BadInput("", "photos show these targets: take the photos away first")
    marks = tuple(mark for mark in survey.marks if mark.id not in own)
    return with_survey(build, survey.but(marks=marks, targets=(), target_size=None))


@edit
def take_targets(
    build: Build, photos: Sequence[Taken], now: datetime, *, order: Assigned | None = None
) -> Build:
    """Lay photographs down with the sightings of the targets in them, and a line in the log.

    A photograph with fewer than five targets that can be used is left out.

    Parameters
    ----------
    order : Assigned, optional
        Which label sits where, when it is not as the survey has it.
    """
    survey = build.surveyed if order is None else reordered(build.surveyed, order)
    seen = sightings_in(survey, photos, build.phase)
    kept = tuple(one.image for one in photos if one.name in seen.photos)
    if not kept:
        return build
    dated = seen.survey.but(
        readings=tuple(
            one.but(taken=now.isoformat(timespec="seconds"))
            if isinstance(one, Sight) and one.photo in seen.photos.values()
            else one
            for one in seen.survey.readings
        )
    )
    entry = Entry(at=now.isoformat(timespec="seconds"), by="app", photos=kept)
    return with_survey(build, dated).but(log=add_entry(build.log, entry))


@edit
def drop_photo(build: Build, photo_id: str) -> Build:
    """Take a photo away with all that was sighted in it; its line in the log stays."""
    survey = build.surveyed
    _photo(survey, photo_id)
    return with_survey(
        build,
        survey.but(
            photos=tuple(one for one in survey.photos if one.id != photo_id),
            readings=tuple(
                one
                for one in survey.readings
                if not (isinstance(one, Sight) and one.photo == photo_id)
            ),
        ),
    )


@edit
def replace_image(build: Build, photo_id: str, image: str) -> Build:
    """Keep another image of the same photo, smaller: pixels are still those of the whole picture."""
    survey = build.surveyed
    was = _photo(survey, photo_id)
    photos = tuple(one.but(image=image) if one.id == photo_id else one for one in survey.photos)
    log = tuple(
        entry.model_copy(
            update={"photos": tuple(image if one == was.image else one for one in entry.photos)}
        )
        if was.image in entry.photos
        else entry
        for entry in build.log
    )
    return with_survey(build, survey.but(photos=photos)).but(log=log)


@edit
def set_unseen(build: Build, photo_id: str, marks: Iterable[str]) -> Build:
    """Say which marks can't be seen in a photo: they are not asked for there."""
    survey = build.surveyed
    was = _photo(survey, photo_id)
    changed = was.but(unseen=tuple(dict.fromkeys(marks)))
    photos = tuple(changed if one.id == photo_id else one for one in survey.photos)
    return with_survey(build, survey.but(photos=photos))


@edit
def take_sighting(
    build: Build,
    photo_id: str,
    mark: str,
    at: tuple[float, float],
    now: datetime,
    *,
    sigma: float | None = None,
) -> Build:
    """Sight a mark in a photo; one that is sighted there already is put right.

    A photo shows one moment: a click takes the phase of those that it has, the build's where it has none.
    """
    survey = build.surveyed
    _photo(survey, photo_id)
    held = sighted(survey, photo_id, mark)
    if held is not None:
        moved = held.but(value=at, sigma=sigma, ignored=False)
        return with_survey(
            build,
            survey.but(
                readings=tuple(moved if one.id == held.id else one for one in survey.readings)
            ),
        )
    used = {one.id for one in survey.readings}
    number = len(survey.sightings) + 1
    while f"s{number}" in used:
        number += 1
    made = Sight(
        id=f"s{number}",
        photo=photo_id,
        mark=mark,
        value=at,
        sigma=sigma,
        phase=phase_of(survey, photo_id, build.phase),
        taken=now.isoformat(timespec="seconds"),
    )
    return with_survey(build, survey.but(readings=(*survey.readings, made)))


@edit
def drop_sighting(build: Build, sight_id: str) -> Build:
    """Take a click away.

    Raises
    ------
    BadInput
        When there is none with that id.
    """
    survey = build.surveyed
    if survey.sighting(sight_id) is None:
        raise BadInput("survey.readings", f'no sighting "{sight_id}"')
    kept = tuple(one for one in survey.readings if one.id != sight_id)
    return with_survey(build, survey.but(readings=kept))


def sighted(survey: Survey, photo_id: str, mark: str) -> Sight | None:
    """The sighting of a mark in a photo; one that counts before one that was left behind."""
    found = [one for one in survey.sightings if (one.photo, one.mark) == (photo_id, mark)]
    return min(found, key=lambda one: one.ignored, default=None)


def phase_of(survey: Survey, photo_id: str, otherwise: Phase | None) -> Phase | None:
    """The phase that a photo was taken in, by what is sighted in it."""
    phases = [one.phase for one in survey.sightings if one.photo == photo_id]
    return phases[0] if phases else otherwise


def _photo(survey: Survey, photo_id: str) -> Photo:
    found = survey.photo(photo_id)
    if found is None:
        raise BadInput("survey.photos", f'no photo "{photo_id}"')
    return found
