"""Pure edits of the readings that square a frame."""

from collections.abc import Sequence
from datetime import datetime
from typing import Final

from hardkeel.airframe.frame_targets import SIZE_MM, frame_targets
from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import fuselage_of, with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.model import Board, Fuselage, Squaring
from hardkeel.fuselage.squaring import check_squaring, measured_survey
from hardkeel.logbook.entries import Entry, add_entry
from hardkeel.project.model import Build
from hardkeel.sight.targets import USUAL_PLACE, Taken, sighted
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import Phase, Reading

_OVER_BOARD_MM: Final = 25.0  # room for the hand that glues


@edit
def take_square(build: Build, reading: Reading, phase: Phase | None, at: datetime) -> Build:
    """Add a reading under the next free id, in a phase.

    Raises
    ------
    BadInput
        When it points at nothing.
    """
    fuselage = fuselage_of(build)
    squaring = fuselage.squaring or _begun(build)
    used = {one.id for one in squaring.readings}
    number = len(used) + 1
    while f"q{number}" in used:
        number += 1
    taken = reading.but(id=f"q{number}", phase=phase, taken=at.isoformat(timespec="seconds"))
    return _with(build, squaring.but(readings=(*squaring.readings, taken)))


def _begun(build: Build) -> Squaring:
    """No readings yet; they share what those of the airframe do."""
    shared = build.surveyed.shared
    return Squaring() if shared is None else Squaring(shared=shared)


@edit
def change_square(build: Build, /, reading_id: str, **changes: object) -> Build:
    """Change a reading: its ``value``, or whether it is ``ignored``.

    Raises
    ------
    BadInput
        When there is none of that id.
    """
    squaring = _squaring(build, reading_id)
    return _with(
        build,
        squaring.but(
            readings=tuple(
                one.but(**changes) if one.id == reading_id else one for one in squaring.readings
            )
        ),
    )


@edit
def delete_square(build: Build, reading_id: str) -> Build:
    """Strike a reading out."""
    squaring = _squaring(build, reading_id)
    kept = tuple(one for one in squaring.readings if one.id != reading_id)
    return _with(build, squaring.but(readings=kept))


@edit
def lay_square_targets(build: Build) -> Build:
    """Give the frame and its board printed targets; those that they have stay.

    Raises
    ------
    BadInput
        When there is no board, or no former.
    """
    fuselage = fuselage_of(build)
    squaring = fuselage.squaring or _begun(build)
    shared = squaring.shared or Shared()
    return _with(
        build,
        squaring.but(
            targets=(*squaring.targets, *frame_targets(fuselage)),
            target_size=squaring.target_size or SIZE_MM,
            shared=shared if shared.target is not None else shared.but(target=USUAL_PLACE),
        ),
    )


@edit
def drop_square_targets(build: Build) -> Build:
    """Take the frame's targets away, and the pictures of them with what was sighted."""
    squaring = fuselage_of(build).squaring or Squaring()
    return _with(
        build, squaring.but(readings=squaring.figures, photos=(), targets=(), target_size=None)
    )


@edit
def take_square_photos(
    build: Build, photos: Sequence[Taken], phase: Phase | None, now: datetime
) -> Build:
    """Lay photographs of the frame down with the sightings of its targets, in a phase, and a line in the log."""
    fuselage = fuselage_of(build)
    squaring = fuselage.squaring or _begun(build)
    seen = sighted(measured_survey(fuselage), photos, phase)
    kept = tuple(one.image for one in photos if one.name in seen.photos)
    if not kept:
        return build
    moment = now.isoformat(timespec="seconds")
    before = {one.id for one in squaring.readings}
    readings = tuple(
        one if one.id in before else one.but(taken=moment) for one in seen.survey.readings
    )
    entry = Entry(at=moment, by="app", photos=kept)
    laid = _with(build, squaring.but(photos=seen.survey.photos, readings=readings))
    return laid.but(log=add_entry(build.log, entry))


@edit
def set_square_tolerance(build: Build, check: str, value: float) -> Build:
    """Set what is allowed of one check, mm or degrees."""
    squaring = fuselage_of(build).squaring or Squaring()
    return _with(build, squaring.but(tolerances={**(squaring.tolerances or {}), check: value}))


@edit
def set_on_board(build: Build, *, inverted: bool = False) -> Build:
    """Stand the formers over a board, the nearest edge 25 mm over it."""
    fuselage = fuselage_of(build)
    if not fuselage.formers:
        raise BadInput("", "there is no former to stand on a board")
    _refuse_where_read(fuselage)
    low = min(former.bottom for former in fuselage.formers)
    high = max(former.top for former in fuselage.formers)
    z = high + _OVER_BOARD_MM if inverted else low - _OVER_BOARD_MM
    return with_fuselage(
        build, fuselage.but(board=(fuselage.board or Board()).but(z=round(z, 1), inverted=inverted))
    )


@edit
def set_tacked(build: Build, *, tacked: bool) -> Build:
    """Say whether the spacers are tacked to board or glass and broken off, or pinned.

    Raises
    ------
    BadInput
        When there is no board.
    """
    fuselage = fuselage_of(build)
    if fuselage.board is None:
        raise BadInput("", "there is no board yet")
    return with_fuselage(build, fuselage.but(board=fuselage.board.but(tacked=tacked)))


@edit
def set_board_length(build: Build, length: float | None) -> Build:
    """Say how long the board is, mm; ``None`` where it is long enough.

    Raises
    ------
    BadInput
        When there is no board.
    """
    fuselage = fuselage_of(build)
    if fuselage.board is None:
        raise BadInput("", "there is no board yet")
    return with_fuselage(build, fuselage.but(board=fuselage.board.but(length=length)))


@edit
def set_board_height(build: Build, under: float) -> Build:
    """Set how far the board lies from the datum line, mm: under it, or over it where the frame is inverted.

    Raises
    ------
    BadInput
        When there is no board.
    """
    fuselage = fuselage_of(build)
    board = fuselage.board
    if board is None:
        raise BadInput("", "there is no board yet")
    _refuse_where_read(fuselage)
    z = under if board.inverted else -under
    return with_fuselage(build, fuselage.but(board=board.but(z=z)))


def _refuse_where_read(fuselage: Fuselage) -> None:
    """Heights over one board say nothing over another."""
    if fuselage.squaring is not None and fuselage.squaring.readings:
        raise BadInput("", "readings were taken of the frame on this board: strike them out first")


def _squaring(build: Build, reading_id: str) -> Squaring:
    squaring = fuselage_of(build).squaring or Squaring()
    if all(one.id != reading_id for one in squaring.readings):
        raise BadInput("", f'no reading "{reading_id}"')
    return squaring


def _with(build: Build, squaring: Squaring) -> Build:
    """What is measured moves no part: nothing else follows."""
    fuselage: Fuselage = fuselage_of(build).but(squaring=squaring)
    check_squaring(fuselage)
    return build.but(fuselage=fuselage)
