"""From the airframe's figures to the survey's bodies and marks: no figure is typed twice."""

from typing import TYPE_CHECKING, Final, TypeVar

from pydantic import ValidationError

from hardkeel.airframe.laying import laid_on, usual_laid
from hardkeel.airframe.shapes import (
    Fin,
    Surface,
    VeeHalf,
    fin_body,
    fin_marks,
    panel_ids,
    surface_bodies,
    surface_marks,
    thrust_body,
    thrust_marks,
    vee_body,
    vee_marks,
)
from hardkeel.airframe.strutting import strutted, usual_struts
from hardkeel.airframe.tolerances import class_tolerances
from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.base.values import Point, Value
from hardkeel.fuselage.engine import ThrustLine, thrust_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Engine, Fuselage
from hardkeel.project.model import Build
from hardkeel.survey.model import (
    FUSELAGE,
    Body,
    Contact,
    Laid,
    Mark,
    Role,
    Seat,
    Struts,
    Survey,
    contacts_of,
    role_by_id,
)
from hardkeel.survey.readings import marks_of
from hardkeel.tail.model import TailSurface, stands_on_fin

if TYPE_CHECKING:
    from hardkeel.airframe import targeting  # it lays targets on what is known here
else:
    targeting = late("hardkeel.airframe.targeting")

_Drawn = TypeVar("_Drawn", Body, Mark)
_NARROWEST_SEAT_MM: Final = 12.0
_USUAL_SEAT_MM: Final = 50.0  # a fuselage of a sport model, where none is drawn
_WELL_AFT: Final = 0.75  # of the fuselage, for the tail pin where there is no stabilizer
_AHEAD_OF_STAB: Final = 0.25  # of the tail arm: clear of the stabilizer, and far from the nose pin
_PIN_INSET_MM: Final = 10.0
_HAIR_MM: Final = 0.051
_HALF: Final = 0.5


Shape = Surface | Fin | VeeHalf


def surfaces_of(build: Build) -> tuple[Shape, ...]:
    """Wings and placed tail surfaces as shapes; a V is two."""
    shapes: list[Shape] = [
        Surface(
            wing.id,
            wing.le_x,
            wing.z,
            wing.span,
            wing.root_chord,
            wing.tip_chord,
            sweep=wing.sweep_le,
            dihedral=wing.dihedral,
            incidence=wing.incidence,
            seat_width=wing.seat_width
            or _seat_width(build.fuselage, wing.le_x + wing.root_chord / 2),
            breaks=wing.breaks,
        )
        for wing in build.wings
    ]
    for tail in build.tail:
        shapes += _tail_shapes(build, tail)
    return tuple(shapes)


def _tail_shapes(build: Build, tail: TailSurface) -> tuple[Shape, ...]:
    """A tail surface that has a size and a place; nothing for one that has not."""
    root = tail.root_chord
    if tail.le_x is None or tail.z is None or tail.span is None or root is None:
        return ()
    tip = tail.tip_chord if tail.tip_chord is not None else root
    # what the id says need not be written
    role = tail.duty if tail.duty != role_by_id(tail.id) else None
    if tail.upright:
        fin = Fin(tail.le_x, tail.z, tail.span / 2, root, tip, tail.sweep_le, tail.id, tail.y, role)
        return (fin,)
    width = tail.seat_width or _tail_seat(build, tail)
    place = (tail.le_x, tail.z)
    if tail.duty == "vee":
        figures = (tail.span / 2, root, tip, tail.sweep_le, tail.dihedral, tail.incidence)
        port, starboard = vee_ids(tail.id)
        return (
            VeeHalf(port, *place, *figures, starboard=False, of=tail.id, seat_width=width),
            VeeHalf(starboard, *place, *figures, starboard=True, of=tail.id, seat_width=width),
        )
    return (
        Surface(
            tail.id,
            *place,
            tail.span,
            root,
            tip,
            sweep=tail.sweep_le,
            dihedral=tail.dihedral,
            incidence=tail.incidence,
            seat_width=width,
            role=role,
        ),
    )


def vee_ids(tail_id: str) -> tuple[str, str]:
    """What the two bodies of a V are called."""
    return f"{tail_id}_port", f"{tail_id}_starboard"


def bodies_of_tail(tail: TailSurface) -> tuple[str, ...]:
    """The bodies that a tail surface is in the survey."""
    return vee_ids(tail.id) if tail.duty == "vee" else (tail.id,)


def surface_of_body(build: Build, body_id: str) -> str:
    """Which wing or tail surface a body is, or is part of; empty for another."""
    for wing in build.wings:
        if body_id in (wing.id, *panel_ids(wing.id)):
            return wing.id
    return next((tail.id for tail in build.tail if body_id in (tail.id, *bodies_of_tail(tail))), "")


def _tail_seat(build: Build, tail: TailSurface) -> float:
    """Across the seat of a surface: as wide as the fuselage, or as the fin's foot that it stands on."""
    x = (tail.le_x or 0.0) + (tail.root_chord or 0.0) / 2
    on_fin = any(stands_on_fin(tail, one) for one in build.tail)
    return _NARROWEST_SEAT_MM if on_fin else _seat_width(build.fuselage, x)


def bodies_of(build: Build) -> tuple[Body, ...]:
    """The bodies that the airframe has; the fuselage first."""
    found = [Body(id=FUSELAGE)]
    for shape in surfaces_of(build):
        found += _bodies(shape)
    engine, line = _engine(build)
    if engine is not None and line is not None:
        found.append(thrust_body(engine, line))
    return tuple(found)


def _engine(build: Build) -> tuple[Engine | None, ThrustLine | None]:
    fuselage = build.fuselage
    return (fuselage.engine, thrust_of(fuselage)) if fuselage is not None else (None, None)


def _bodies(shape: Shape) -> tuple[Body, ...]:
    match shape:
        case Fin():
            return (fin_body(shape),)
        case VeeHalf():
            return (vee_body(shape),)
        case Surface():
            return surface_bodies(shape)


def _marks(shape: Shape) -> tuple[Mark, ...]:
    match shape:
        case Fin():
            return fin_marks(shape)
        case VeeHalf():
            return vee_marks(shape)
        case Surface():
            return surface_marks(shape)


def marks_from(build: Build) -> tuple[Mark, ...]:
    """Marks that follow from the geometry: pins, longerons, tips, corners, middles."""
    marks: list[Mark] = []
    shapes = surfaces_of(build)
    if build.fuselage is not None and len(build.fuselage.stations) > 1:
        marks += fuselage_pins(build.fuselage, _tail_pin_x(build.fuselage, shapes))
    for shape in shapes:
        marks += _marks(shape)
    engine, line = _engine(build)
    if engine is not None and line is not None:
        marks += thrust_marks(engine, line)
    return tuple(marks)


def fuselage_pins(fuselage: Fuselage, tail_x: float) -> tuple[Mark, ...]:
    """Marks that tie readings to the fuselage.

    Two pins on the top centre line to swing a line from, one under the nose, and the two upper
    longerons at the widest former: without something that has width nobody could tell a wing that
    is not level from a fuselage that leans.
    """
    loft = loft_of(fuselage)
    formers = sorted(fuselage.formers, key=lambda former: former.station)
    if not formers:
        return ()
    places = {"nose_pin": formers[0].station + _PIN_INSET_MM, "tail_pin": tail_x}
    pins = [
        Mark(
            id=name,
            body=FUSELAGE,
            at=(x, 0.0, float(loft.top.value(x))),
        )
        for name, x in places.items()
    ]
    nose = formers[0]
    foot = Mark(id="nose_foot", body=FUSELAGE, at=(nose.station, 0.0, nose.bottom))
    widest = max(formers, key=lambda former: former.half_width)
    sides = [
        Mark(
            id=f"longeron_{side}",
            body=FUSELAGE,
            at=(widest.station, sign * widest.half_width, widest.top),
            former=widest.id,
        )
        for side, sign in (("port", -1), ("starboard", 1))
    ]
    return (*pins, foot, *sides)


def redrawn(before: Build, after: Build) -> Build:
    """`after` with the survey following every change of the airframe since `before`.

    What the builder set by hand stays: a body or mark is only moved along where it still stands as
    the old airframe had put it.

    Raises
    ------
    BadInput
        When a part that readings were taken on is gone, or stations are so close together that the loft
        swings out of all measure between them.
    """
    try:
        return _redrawn(before, after)
    except ValidationError:
        raise BadInput(
            "fuselage", "its lines swing out of all measure: two stations are too close together"
        ) from None


def _redrawn(before: Build, after: Build) -> Build:
    drawn_before = {body.id: body for body in bodies_of(before)}
    drawn_after = {body.id: body for body in bodies_of(after)}
    if before.survey is None and len(drawn_after) < 2:  # noqa: PLR2004  a fuselage alone is no survey
        return after
    survey = after.surveyed
    bodies = _follow({b.id: b for b in survey.bodies}, drawn_before, drawn_after)
    marks = _follow(
        {m.id: m for m in survey.marks},
        {m.id: m for m in marks_from(before)},
        {m.id: m for m in marks_from(after)},
    )
    bodies = {name: _as_held(body, after) for name, body in bodies.items()}
    kept = {name: mark for name, mark in marks.items() if mark.body in bodies}
    _refuse_lost(survey, bodies, kept)
    changed = survey.but(bodies=tuple(bodies.values()), marks=tuple(kept.values()))
    if survey.targets:
        changed = targeting.along_with(before, after, changed)
    new = any(name not in drawn_before and name in bodies for name in drawn_after)
    if new and after.model_class:  # what comes later is held to the same class
        allowed = class_tolerances(after.model_class, bodies.values())
        if allowed:
            changed = changed.but(tolerances={**allowed, **(survey.tolerances or {})})
    if changed == survey and after.survey is not None:
        return after
    return after.but(survey=changed)


def _follow(
    now: dict[str, _Drawn], drawn_before: dict[str, _Drawn], drawn_after: dict[str, _Drawn]
) -> dict[str, _Drawn]:
    out: dict[str, _Drawn] = {}
    for name, one in now.items():
        drawn = drawn_after.get(name)
        if name not in drawn_before:  # the builder's own
            out[name] = one
        elif drawn is not None:
            out[name] = _moved_along(one, drawn_before[name], drawn)
    # what was drawn before and is not there now was taken away by hand, unless nothing was there
    new = [n for n in drawn_after if n not in now and (n not in drawn_before or not now)]
    return out | {name: drawn_after[name] for name in new}


def _moved_along(one: _Drawn, was: _Drawn, drawn: _Drawn) -> _Drawn:
    """Take each figure from the new drawing that the builder had not changed."""
    changes = {
        field: getattr(drawn, field)
        for field in type(one).model_fields
        if getattr(was, field) != getattr(drawn, field)
        and _alike(getattr(one, field), getattr(was, field))
    }
    if isinstance(one, Body):
        changes |= _seat_moved_along(one.seat, was.seat, drawn.seat)
    return one.but(**changes) if changes else one


def _seat_moved_along(one: Seat | None, was: Seat | None, drawn: Seat | None) -> dict[str, Seat]:
    """The seat in its new place though it was said to be of another kind, or its gaps were read."""
    if one is None or was is None or drawn is None or was == drawn:
        return {}
    if not _alike(one.but(kind=was.kind, gaps=was.gaps), was):
        return {}
    return {"seat": drawn.but(kind=one.kind, gaps=one.gaps)}


def struts_of(build: Build, body_id: str) -> Struts:
    """Where a wing's struts were said to be; without a word where they usually are.

    Raises
    ------
    BadInput
        When there is no such wing.
    """
    wings = {one.id: one for one in surfaces_of(build) if isinstance(one, Surface)}
    wing, body = wings.get(body_id), build.surveyed.body(body_id)
    if wing is None:
        raise BadInput("", f"no wing “{body_id}” to put struts under")
    if body is not None and body.seat is not None and body.seat.struts is not None:
        return body.seat.struts
    lower = [one for one in wings.values() if _role(one) == "wing" and one.z < wing.z]
    under = max(lower, key=lambda one: one.z) if lower else None
    fuselage, x = build.fuselage, wing.le_x + wing.root / 2
    half, low = _USUAL_SEAT_MM / 2, wing.z - _USUAL_SEAT_MM
    if fuselage is not None and len(fuselage.stations) > 1:
        figures = loft_of(fuselage).figures(x)
        half, low = figures["half_width"], figures["bottom"]
    return usual_struts(wing, under, half, low)


def struts_contacts(build: Build, body_id: str) -> tuple[Contact, ...]:
    """The contacts that a wing's struts give it, said or proposed; none where it is no wing."""
    body = build.surveyed.body(body_id)
    wing = next((one for one in surfaces_of(build) if one.id == body_id), None)
    if body is None or not isinstance(wing, Surface):
        return ()
    return contacts_of(strutted(body, wing, struts_of(build, body_id)))


def laid_of(build: Build, body_id: str) -> Laid | None:
    """Where a surface was said to be held, or usually is; ``None`` where it is no lying surface."""
    body, surface = build.surveyed.body(body_id), lying_surface(build, body_id)
    if body is None or body.seat is None or surface is None:
        return None
    return body.seat.laid or usual_laid(body.seat.kind, surface)


def rests_at_corners(build: Build, body_id: str) -> bool:
    """Whether a surface is packed at its corners because nobody has said where else it rests."""
    body, surface = build.surveyed.body(body_id), lying_surface(build, body_id)
    seat = body.seat if body is not None else None
    return (
        surface is not None
        and seat is not None
        and seat.laid is None
        and seat.kind in ("saddle", "bands", "bolts")
    )


def held_at(build: Build, body_id: str, at: Point, *, from_above: bool) -> dict[str, float]:
    """The figures of a seat that a point of the drawing tells: struts and feet, or bolts, tube, legs and corners.

    Parameters
    ----------
    at : Point
        Airframe axes, mm; x is not known from behind, z not from above.
    from_above : bool
        Whether it was pointed at from above; from behind it is the foot of a strut.

    Raises
    ------
    BadInput
        When there is no such surface, or the point lies beside it.
    """
    surface = lying_surface(build, body_id)
    if surface is None:
        raise BadInput("", f"no wing or stabilizer “{body_id}” to hold")
    x, y, z = at
    if not from_above:
        return {"foot_out": abs(y), "foot_z": z}
    if abs(y) > surface.span / 2:
        raise BadInput("", "that is beside the surface")
    front, rear = surface.point(y, 0.0)[0], surface.point(y, 1.0)[0]
    share = (x - front) / (rear - front)
    if not 0 <= share <= 1:
        raise BadInput("", "that is ahead of or behind the surface")
    return {"out": abs(y), "front" if share < _HALF else "rear": share}


def lying_surface(build: Build, body_id: str) -> Surface | None:
    """The wing or stabilizer that a body is drawn from; ``None`` for another."""
    found = next((one for one in surfaces_of(build) if one.id == body_id), None)
    return found if isinstance(found, Surface) else None


def _as_held(body: Body, build: Build) -> Body:
    """A surface is held where that was said of it, whatever it has become; where it was not, as is usual."""
    seat, surface = body.seat, lying_surface(build, body.id)
    if seat is None or surface is None:
        return body
    if seat.struts is not None:
        return strutted(body, surface, seat.struts)
    if seat.laid is not None:
        laid = seat.laid if seat.laid.said else usual_laid(seat.kind, surface)
        return laid_on(body, surface, laid)
    return body


def _alike(a: object, b: object) -> bool:
    """Whether two figures are the same to a hair.

    Files written before figures were kept unrounded hold tenths, and another machine's arithmetic may
    differ in the last bit; neither is the builder's hand.
    """
    if isinstance(a, float | int) and isinstance(b, float | int):
        return abs(a - b) <= _HAIR_MM
    if isinstance(a, tuple) and isinstance(b, tuple):
        return len(a) == len(b) and all(map(_alike, a, b))
    if isinstance(a, Value) and isinstance(b, Value):
        return type(a) is type(b) and all(
            _alike(getattr(a, field), getattr(b, field)) for field in type(a).model_fields
        )
    return a == b


def _refuse_lost(survey: Survey, bodies: dict[str, Body], marks: dict[str, Mark]) -> None:
    for reading in survey.readings:
        if reading.kind == "incidence" and reading.body not in bodies:
            raise BadInput("", f"readings were taken on “{reading.body}”; strike them out first")
        lost = [name for name in marks_of(reading) if name not in marks]
        if lost:
            raise BadInput("", f"readings were taken on “{lost[0]}”; strike them out first")


def _seat_width(fuselage: Fuselage | None, x: float) -> float:
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return _USUAL_SEAT_MM
    inside = 2 * (loft_of(fuselage).figures(x)["half_width"] - fuselage.side_thickness / 2)
    return max(inside, _NARROWEST_SEAT_MM)


def _role(shape: Surface | VeeHalf) -> Role:
    return "vee" if isinstance(shape, VeeHalf) else shape.role or role_by_id(shape.id)


def _tail_pin_x(fuselage: Fuselage, shapes: tuple[Shape, ...]) -> float:
    """A quarter of the tail arm ahead of the stabilizer, or well aft where there is none."""
    lying = [shape for shape in shapes if not isinstance(shape, Fin)]
    stab = next((shape for shape in lying if _role(shape) in ("stabilizer", "vee")), None)
    wing = next((shape for shape in lying if _role(shape) == "wing"), None)
    stations = [stop.station for _, stop in fuselage.stations]
    if stab is None or wing is None:
        return stations[0] + _WELL_AFT * (stations[-1] - stations[0])
    arm = stab.le_x + stab.root / 4 - wing.le_x - wing.root / 4
    return min(max(stab.le_x - _AHEAD_OF_STAB * arm, stations[0]), stations[-1])
