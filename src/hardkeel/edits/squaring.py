"""Pure edits of the readings that square a frame."""

from datetime import datetime
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import fuselage_of, with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.model import Board, Fuselage, Squaring
from hardkeel.fuselage.squaring import check_squaring
from hardkeel.project.model import Build
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
