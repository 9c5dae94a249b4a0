"""Pure edits of where and how a body is held: what its seat is, where that lies, what was read at its root."""

from pydantic import ValidationError

from hardkeel.airframe.bodies import bodies_of as drawn_bodies
from hardkeel.airframe.bodies import laid_of, lying_surface, struts_of
from hardkeel.airframe.laying import ASKED, laid_on, usual_laid
from hardkeel.airframe.strutting import strutted
from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.edits.truing import with_survey
from hardkeel.project.model import Build
from hardkeel.survey.model import (
    WIDEST_GAP_MM,
    Body,
    GapPlace,
    GapRead,
    Laid,
    PanelSide,
    SeatKind,
    Struts,
)


@edit
def set_struts(build: Build, /, body: str, **figures: float) -> Build:
    """Say where a wing's struts meet it and stand; what is not given stays, or is as usual.

    Raises
    ------
    BadInput
        When there is no such wing, or a figure makes no sense.
    """
    held = build.surveyed.body(body)
    wing = lying_surface(build, body)
    if held is None or wing is None:
        raise BadInput("", f"no wing “{body}” to put struts under")
    struts = struts_of(build, body)
    try:
        changed = Struts.model_validate({**struts.model_dump(), **figures})
    except ValidationError:
        raise BadInput("struts", "must stand beside the middle, within the chord") from None
    if changed.out > wing.span / 2:
        raise BadInput("struts", "would stand outside the wing")
    return _with_body(build, strutted(held, wing, changed))


@edit
def set_laid(build: Build, /, body: str, **figures: float) -> Build:
    """Say where a wing or stabilizer is held: what is not given stays, or is as usual.

    Raises
    ------
    BadInput
        When there is no such surface, or a figure lies beside it.
    """
    held, now = build.surveyed.body(body), laid_of(build, body)
    surface = lying_surface(build, body)
    if held is None or now is None or surface is None:
        raise BadInput("", f"no wing or stabilizer “{body}” to hold")
    try:
        laid = Laid.model_validate({**now.model_dump(), **figures, "said": True})
    except ValidationError:
        raise BadInput("seat", "must be held beside the middle, within the chord") from None
    if laid.out > surface.span / 2:
        raise BadInput("seat", "would be held outside the surface")
    if not laid.front < laid.rear:
        raise BadInput("seat", "must be held further aft behind than in front")
    return _with_body(build, laid_on(held, surface, laid))


@edit
def set_seat_kind(build: Build, body: str, kind: SeatKind) -> Build:
    """Say what kind of seat a body has.

    Raises
    ------
    BadInput
        When it has no seat.
    """
    found = build.surveyed.body(body)
    if found is None or found.seat is None:
        raise BadInput("", f"“{body}” has no seat")
    was, seat = found.seat.kind, found.seat.but(kind=kind)
    surface = lying_surface(build, body)
    if surface is not None and kind in ASKED and kind != was:
        # where such a seat usually holds it, until the builder says where
        laid = laid_on(found, surface, usual_laid(kind, surface)).seat or seat
        seat = laid.but(kind=kind, struts=None)
    elif kind != was and (kind == "struts" or was == "struts" or was in ASKED):
        # it rests where it was drawn again
        drawn = next((one.seat for one in drawn_bodies(build) if one.id == body), None)
        contacts = drawn.contacts if drawn is not None else seat.contacts
        seat = seat.but(struts=None, laid=None, contacts=contacts)
    return _with_body(build, found.but(seat=seat))


@edit
def set_gap(build: Build, body: str, side: PanelSide, at: GapPlace, mm: float | None) -> Build:
    """Write down how far a panel's root stands off the fuselage side, mm; ``None`` strikes it out.

    Raises
    ------
    BadInput
        When the body has no seat, or the gap is none.
    """
    found = build.surveyed.body(body)
    if found is None or found.seat is None:
        raise BadInput("", f"“{body}” has no seat")
    if mm is not None and not 0 <= mm <= WIDEST_GAP_MM:
        raise BadInput("gap", f"{mm:g} mm is no gap between a panel and a fuselage")
    others = tuple(gap for gap in found.seat.gaps if (gap.side, gap.at) != (side, at))
    gaps = others if mm is None else (*others, GapRead(side=side, at=at, mm=mm))
    return _with_body(build, found.but(seat=found.seat.but(gaps=gaps)))


def _with_body(build: Build, changed: Body) -> Build:
    bodies = tuple(changed if one.id == changed.id else one for one in build.surveyed.bodies)
    return with_survey(build, build.surveyed.but(bodies=bodies))
