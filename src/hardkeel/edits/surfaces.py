"""Pure edits of wings, tail and marks; the survey follows each of them."""

import math
import re
from typing import TypeVar

from hardkeel.airframe.arranging import wanting
from hardkeel.airframe.bodies import bodies_of as drawn_bodies
from hardkeel.airframe.starters import start_from
from hardkeel.balance.model import Break, Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.edits.fuselage import checked, fuselage_of
from hardkeel.edits.named import edit
from hardkeel.fuselage.loft import loft_of
from hardkeel.project.model import Build
from hardkeel.survey.model import Body, Mark, Survey
from hardkeel.survey.priors import USUAL_SHARED
from hardkeel.survey.readings import marks_of
from hardkeel.survey.roles import main_of
from hardkeel.tail.lofting import resized
from hardkeel.tail.model import TailSurface

_Lifting = TypeVar("_Lifting", Wing, TailSurface)


@edit
def set_wing(build: Build, /, wing_id: str, **figures: float) -> Build:
    """Set figures of a wing, mm and degrees."""
    wings = list(build.wings)
    for i, wing in enumerate(wings):
        if wing.id == wing_id:
            wings[i] = _breaks_kept(wing, _figured(wing, figures))
            return checked(build, build.but(wings=tuple(wings)))
    raise BadInput("", f'no wing "{wing_id}"')


@edit
def add_break(build: Build, wing_id: str) -> Build:
    """Let the panels of a wing meet once more, half way between the outermost break and the tip.

    The new outer panel rises as the one inside it until something else is said.

    Raises
    ------
    BadInput
        When there is no such wing.
    """
    wing = _wing(build, wing_id)
    last = wing.breaks[-1] if wing.breaks else None
    inner, rises = (last.y, last.dihedral) if last is not None else (0.0, wing.dihedral)
    made = Break(y=round((inner + wing.span / 2) / 2, 1), dihedral=rises)
    return _with_breaks(build, wing, (*wing.breaks, made))


@edit
def delete_break(build: Build, wing_id: str, number: int) -> Build:
    """Let two panels be one, as the inner of them.

    Raises
    ------
    BadInput
        When there is no such break, or readings were taken at it.
    """
    wing = _wing(build, wing_id)
    _break(wing, number)
    kept = tuple(one for i, one in enumerate(wing.breaks) if i != number)
    return _with_breaks(build, wing, kept)


@edit
def set_break(build: Build, /, wing_id: str, number: int, **figures: float | bool | None) -> Build:
    """Set where panels meet, how the outer one rises and runs aft, and whether it comes off; mm and degrees.

    Raises
    ------
    BadInput
        When there is no such break, or it would not lie between its neighbours.
    """
    wing = _wing(build, wing_id)
    changed = _break(wing, number).but(**figures)
    breaks = tuple(changed if i == number else one for i, one in enumerate(wing.breaks))
    return _with_breaks(build, wing, breaks)


def _wing(build: Build, wing_id: str) -> Wing:
    for wing in build.wings:
        if wing.id == wing_id:
            return wing
    raise BadInput("", f'no wing "{wing_id}"')


def _break(wing: Wing, number: int) -> Break:
    if not 0 <= number < len(wing.breaks):
        raise BadInput("", f"the {wing.id} has no break {number + 1}")
    return wing.breaks[number]


def _with_breaks(build: Build, wing: Wing, breaks: tuple[Break, ...]) -> Build:
    wings = tuple(wing.but(breaks=breaks) if one.id == wing.id else one for one in build.wings)
    return checked(build, build.but(wings=wings))


@edit
def set_tail(build: Build, /, surface_id: str, **figures: float) -> Build:
    """Set figures of a tail surface, mm and degrees."""
    tail = list(build.tail)
    for i, surface in enumerate(tail):
        if surface.id == surface_id:
            tail[i] = resized(surface, _figured(surface, figures))
            return checked(build, build.but(tail=tuple(tail)))
    raise BadInput("", f'no tail surface "{surface_id}"')


@edit
def put_on_wing_and_tail(build: Build) -> Build:
    """Put on what is missing of wing, stabilizer and fin, in proportion to the fuselage.

    Raises
    ------
    BadInput
        When there is no fuselage to put them on, or nothing is missing.
    """
    loft = loft_of(fuselage_of(build))
    nose, length = float(loft.stations[0]), float(loft.stations[-1] - loft.stations[0])
    usual = start_from("sheet-box", length / 0.77, length)
    shift = nose - float(loft_of(fuselage_of(usual)).stations[0])
    wings, tail = build.wings, build.tail
    if not wings:
        x = usual.wings[0].le_x + shift
        z = float(loft.top.value(x + usual.wings[0].root_chord / 2))
        wings = (usual.wings[0].but(le_x=round(x, 1), z=round(z, 1)),)
    lacks = wanting(tail)
    for surface in usual.tail:
        if surface.id in lacks and surface.le_x is not None:
            z = float(loft.top.value(loft.stations[-1])) + (6.0 if surface.upright else 0.0)
            tail = (*tail, surface.but(le_x=round(surface.le_x + shift, 1), z=round(z, 1)))
    if (wings, tail) == (build.wings, build.tail):
        raise BadInput("", "wing, stabilizer and fin are on already")
    survey = (
        build.survey
        if build.survey is not None
        else Survey(instruments=usual.surveyed.instruments, shared=USUAL_SHARED)
    )
    laid = build.but(wings=wings, tail=tail, survey=survey, phase=build.phase or "dry")
    return checked(build, laid)


@edit
def add_wing_above(build: Build) -> Build:
    """Put another wing over the first, a chord higher."""
    if not build.wings:
        raise BadInput("", "there is no wing yet to put another above")
    first = build.wings[0]
    used = {wing.id for wing in build.wings}
    name, number = "upper_wing", 2
    while name in used:
        name, number = f"upper_wing{number}", number + 1
    made = first.but(id=name, z=round(first.z + first.root_chord, 1), dihedral=0.0)
    return checked(build, build.but(wings=(*build.wings, made)))


@edit
def take_off(build: Build, surface_id: str) -> Build:
    """Take a wing or tail surface off.

    Raises
    ------
    BadInput
        When readings were taken on it.
    """
    wings = tuple(wing for wing in build.wings if wing.id != surface_id)
    tail = tuple(surface for surface in build.tail if surface.id != surface_id)
    return checked(build, build.but(wings=wings, tail=tail))


@edit
def add_mark(build: Build, name: str, body: str, at: Point) -> Build:
    """Add a mark by hand, airframe axes, mm; its id follows from its name.

    Raises
    ------
    BadInput
        When the name is empty or taken.
    """
    words = name.strip()
    mark_id = "_".join(re.findall(r"[a-z0-9]+", words.casefold()))
    if not mark_id:
        raise BadInput("", "a mark needs a name")
    survey = build.surveyed
    if survey.body(body) is None:
        raise BadInput("", f"there is no “{body}” to mark")
    if survey.mark(mark_id) is not None:
        raise BadInput("", f"there is a mark “{words}” already")
    made = Mark(id=mark_id, body=body, at=at, label=words)
    return checked(build, build.but(survey=survey.but(marks=(*survey.marks, made))))


@edit
def delete_mark(build: Build, mark_id: str) -> Build:
    """Take a mark away.

    Raises
    ------
    BadInput
        When readings were taken on it.
    """
    survey = build.surveyed
    if any(mark_id in marks_of(reading) for reading in survey.readings):
        raise BadInput("", f"readings were taken on “{mark_id}”; strike them out first")
    marks = tuple(mark for mark in survey.marks if mark.id != mark_id)
    return checked(build, build.but(survey=survey.but(marks=marks)))


@edit
def add_part(build: Build, name: str, at: Point, size: tuple[float, float, float]) -> Build:
    """Add a flat part of one's own to be measured: a step, a float's deck, a nacelle's top.

    Parameters
    ----------
    at : Point
        The middle of its front edge, airframe axes, mm.
    size : (float, float, float)
        Long and wide, mm, and its angle to the datum as an incidence, degrees.

    Raises
    ------
    BadInput
        When the name is empty or taken, the size makes no sense, or there is no wing yet.
    """
    words = name.strip()
    part = "_".join(re.findall(r"[a-z0-9]+", words.casefold()))
    survey, (long, wide, angle) = build.surveyed, size
    if not part:
        raise BadInput("", "a part needs a name")
    if survey.body(part) is not None:
        raise BadInput("", f"there is a part “{words}” already")
    if main_of(survey, "wing") is None:
        raise BadInput("", "the wing comes first: put it on, then parts of your own")
    if long <= 0 or wide <= 0:
        raise BadInput("", "a part must be longer and wider than 0")
    x, y, z = at
    middle = (x + long / 2, y, z)

    def corner(aft: float, side: float) -> Point:
        along = (aft - 0.5) * long
        turn = math.radians(angle)
        return (
            middle[0] + along * math.cos(turn),
            y + side * wide / 2,
            z - along * math.sin(turn),
        )

    corners = {
        f"{end} {word}": corner(aft, side)
        for end, aft in (("front", 0.0), ("rear", 1.0))
        for word, side in (("port", -1.0), ("starboard", 1.0))
    }
    ring = tuple(corner(aft, side) for aft, side in ((0, -1), (0, 1), (1, 1), (1, -1)))
    body = Body(id=part, label=words, pivot=middle, incidence=angle, span=wide, chord=long, outline=ring)  # fmt: skip
    marks = tuple(
        Mark(id=f"{part}_{place.replace(' ', '_')}", body=part, at=point, label=f"{words} {place}")
        for place, point in corners.items()
    )
    made = survey.but(bodies=(*survey.bodies, body), marks=(*survey.marks, *marks))
    return checked(build, build.but(survey=made))


@edit
def take_part_away(build: Build, part: str) -> Build:
    """Take a part of one's own away with its marks.

    Raises
    ------
    BadInput
        When it is drawn from the airframe's figures, or readings were taken on it.
    """
    survey = build.surveyed
    if part in {body.id for body in drawn_bodies(build)} or survey.body(part) is None:
        raise BadInput("", f"“{part}” is no part of your own")
    gone = {mark.id for mark in survey.marks if mark.body == part}
    for reading in survey.readings:
        on_it = reading.kind == "incidence" and reading.body == part
        if on_it or gone & set(marks_of(reading)):
            raise BadInput("", f"readings were taken on “{part}”; strike them out first")
    bodies = tuple(body for body in survey.bodies if body.id != part)
    marks = tuple(mark for mark in survey.marks if mark.id not in gone)
    return checked(build, build.but(survey=survey.but(bodies=bodies, marks=marks)))


def _breaks_kept(was: Wing, now: Wing) -> Wing:
    """Where panels meet goes with the span."""
    if was.span == now.span or now.breaks != was.breaks:
        return now
    by = now.span / was.span
    return (
        now.but(breaks=tuple(one.but(y=round(one.y * by, 1)) for one in now.breaks))
        if now.breaks
        else now
    )


def _figured(surface: _Lifting, figures: dict[str, float]) -> _Lifting:
    for name in ("span", "root_chord", "seat_width"):
        if name in figures and figures[name] <= 0:
            raise BadInput("", f"{name.replace('_', ' ')} must be more than 0")
    changed: _Lifting = surface.but(**figures)
    return changed
