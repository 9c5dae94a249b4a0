"""Pure edits of how a tail surface is built; survey, ledger and balance follow each of them."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from hardkeel.airframe.arranging import Arrangement, arranged, arrangement
from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import checked
from hardkeel.edits.named import edit
from hardkeel.geometry.hull import Point2
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.picking import picked_outline
from hardkeel.project.model import Build
from hardkeel.tail.kinds import has, kind_named
from hardkeel.tail.lofting import even_ribs, resized, section_named
from hardkeel.tail.lying import laid_out
from hardkeel.tail.model import (
    BoardPlace,
    Controls,
    FlatReading,
    Kind,
    SlotFit,
    TailBracing,
    TailSpar,
    TailSurface,
    Tip,
    TipShape,
    Tube,
)
from hardkeel.tail.planform import planform_of
from hardkeel.tail.sections import read_section

_USUAL_HINGE: Final = 0.65
_USUAL_TIP_SHARE: Final = 0.2  # of the half span
_RIB_EVERY_MM: Final = 40.0
_SPAR_AT: Final = 0.3
_SPAR_MM: Final = (3.0, 3.0)
_TUBE_AT: Final = 0.3
_TUBE_MM: Final = 6.0
_CENTRE_MM: Final = 40.0
_LEAST_TIP_MM: Final = 5.0
_WAVERS_MM: Final = 0.6
_ALONG_MM: Final = 0.5  # off the middle line: drawn along it


def surface_of(build: Build, surface_id: str) -> TailSurface:
    """A tail surface.

    Raises
    ------
    BadInput
        When there is none of that id.
    """
    found = next((one for one in build.tail if one.id == surface_id), None)
    if found is None:
        raise BadInput("", f'no tail surface "{surface_id}"')
    return found


@edit
def arrange(build: Build, way: Arrangement) -> Build:
    """Arrange the tail another way: stabilizer low, on top of the fin, as a V, or with two fins at its tips.

    Raises
    ------
    BadInput
        When there is no stabilizer to arrange, or readings were taken on a surface that would go.
    """
    return checked(build, build.but(tail=arranged(build.tail, way)))


def arrangement_of(build: Build) -> Arrangement:
    """How the tail is arranged now."""
    return arrangement(build.tail)


@edit
def put_surface(build: Build, surface: TailSurface) -> Build:
    """The build with this surface in the place of the one of its id."""
    tail = tuple(surface if one.id == surface.id else one for one in build.tail)
    return checked(build, build.but(tail=tail))


@edit
def set_built(build: Build, surface_id: str, kind: Kind) -> Build:
    """Say how a surface is built, with the figures that such a one usually has; what is there stays.

    Raises
    ------
    BadInput
        When it has no span or chord yet.
    """
    surface = surface_of(build, surface_id)
    planform_of(surface)
    usual: dict[str, object] = {
        "kind": kind,
        "material": kind_named(kind).wood,
        "hinge_at_chord": _USUAL_HINGE,
        "controls": Controls(inner=usual_inner(build, surface)),
        **kind_named(kind).usual(surface),
    }
    given = {
        key: value for key, value in usual.items() if key == "kind" or not getattr(surface, key)
    }
    made = kind_named(kind).completed(surface.but(**given))
    return put_surface(build, made)


def usual_inner(build: Build, surface: TailSurface) -> float:
    """Where the moving part begins: clear of a rudder that stands over it."""
    if surface.upright:
        return 0.0
    stands = any(one.upright and not one.y for one in build.tail)
    return 8.0 if stands else 0.0


@edit
def set_figures(build: Build, /, surface_id: str, **figures: object) -> Build:
    """Set figures of a surface; ``height`` is half a fin's span, ``rib_count`` lays the ribs evenly anew."""
    surface = surface_of(build, surface_id)
    if "height" in figures:
        figures["span"] = 2 * float(figures.pop("height"))  # type: ignore[arg-type]
    count = figures.pop("rib_count", None)
    changed = surface.but(**figures)
    if count is not None:
        changed = changed.but(ribs=even_ribs(changed, round(float(count))))  # type: ignore[arg-type]
    changed = resized(surface, changed)
    planform_of(changed)
    return put_surface(build, changed)


@edit
def set_bracing(build: Build, /, surface_id: str, **figures: object) -> Build:
    """Set ``pattern``, ``pitch``, ``width``, ``joint``, ``gusset`` of a stick frame."""
    surface = surface_of(build, surface_id)
    bracing = (surface.bracing or TailBracing()).but(**figures)
    return put_surface(build, surface.but(bracing=bracing))


@edit
def set_controls(build: Build, /, surface_id: str, **figures: object) -> Build:
    """Set figures of what moves."""
    surface = surface_of(build, surface_id)
    return put_surface(build, surface.but(controls=(surface.controls or Controls()).but(**figures)))


@edit
def set_linkage(build: Build, /, surface_id: str, **figures: object) -> Build:
    """Set figures from the servo to the horn."""
    controls = surface_of(build, surface_id).controls or Controls()
    return set_controls(build, surface_id, linkage=controls.linkage.but(**figures))


@edit
def set_tip(
    build: Build, surface_id: str, shape: TipShape | None, length: float | None = None
) -> Build:
    """Say how a surface ends; straight for ``None``.

    Raises
    ------
    BadInput
        When the tip would be longer than the half span.
    """
    surface = surface_of(build, surface_id)
    if shape is None:
        return put_surface(build, surface.but(tip=None))
    was = surface.tip
    long = length or (
        was.length if was is not None else max(_USUAL_TIP_SHARE * surface.half, _LEAST_TIP_MM)
    )
    if shape == "block" and length is None:
        long = 12.0
    if long >= surface.half:
        raise BadInput("", f"a tip of {long:g} mm is longer than the half span")
    tip = was.but(shape=shape, length=long) if was is not None else Tip(shape=shape, length=long)
    return put_surface(build, surface.but(tip=tip))


@edit
def set_section(build: Build, surface_id: str, name: str, *, tip: bool = False) -> Build:
    """Give the root, or the tip, a section by its name; a tip's empty name is the root's again.

    Raises
    ------
    BadInput
        When there is none of that name.
    """
    surface = surface_of(build, surface_id)
    if name:
        section_named(name, build.profiles, "")
    key = "tip_profile" if tip else "root_profile"
    return put_surface(build, surface.but(**{key: name or None}))


@edit
def bring_in_section(build: Build, surface_id: str, name: str, text: str) -> Build:
    """Take a coordinate file into the build and give it to the root.

    Raises
    ------
    BadInput
        When it can't be read, naming the line; or another of that name is here already.
    """
    read_section(text, name)
    if build.profiles.get(name, text) != text:
        raise BadInput(name, "is here already with other figures: rename the file")
    held = build.but(profiles={**build.profiles, name: text})
    return set_section(held, surface_id, name)


@edit
def from_root_rib(
    build: Build, surface_id: str, section: str, tip_thickness: float, count: int
) -> Build:
    """A whole surface of which only the root rib is drawn: its section, the tip's thickness, so many ribs.

    Raises
    ------
    BadInput
        When there is no such section, or fewer than two ribs.
    """
    surface = surface_of(build, surface_id)
    section_named(section, build.profiles, "")
    made = (
        surface
        if has(surface, "ribs")
        else surface_of(set_built(build, surface_id, "ribbed"), surface_id)
    )
    made = made.but(root_profile=section, tip_profile=None, tip_thickness=tip_thickness)
    return put_surface(build, made.but(ribs=even_ribs(made, count)))


@edit
def set_outline(build: Build, surface_id: str, ring: tuple[Point2, ...]) -> Build:
    """Take a drawn half, or the half of a whole surface, as the outline; its span and chords follow from it.

    Raises
    ------
    BadInput
        When it is neither.
    """
    surface = surface_of(build, surface_id)
    half = half_outline(laid_out(ring, surface).ring)
    made = surface.but(outline=half)
    planform = planform_of(made)
    changed = made.but(
        span=round(2 * planform.half, 3),
        root_chord=round(float(planform.chord(0.0)), 3),
        tip_chord=round(float(planform.chord(0.9 * planform.half)), 3),
        tip=None,
    )
    return put_surface(build, changed)


def half_outline(ring: tuple[Point2, ...]) -> tuple[Point2, ...]:
    """A closed ring as a half's outline: from the root leading edge out, and back to the root trailing edge.

    Raises
    ------
    BadInput
        When no side of it lies along the middle.
    """
    if len(ring) < 3:  # noqa: PLR2004  nothing is enclosed
        raise BadInput("", "an outline needs three points at least")
    ring = _root_below(ring)
    least = min(y for _, y in ring)
    near = [(x, 0.0 if y - least < _ALONG_MM else y - least) for x, y in ring]
    front = min(x for x, y in near if y == 0.0)
    moved = tuple((x - front, y) for x, y in near)
    root = [i for i, (_, y) in enumerate(moved) if y == 0.0]
    if len(root) < 2:  # noqa: PLR2004  a point is no root
        raise BadInput("", "no side of the outline lies along the middle line")
    lead = min(root, key=lambda i: moved[i][0])
    trail = max(root, key=lambda i: moved[i][0])
    count = len(moved)
    ways = []
    for step in (1, -1):
        way, i = [moved[lead]], lead
        while i != trail:
            i = (i + step) % count
            way.append(moved[i])
        ways.append(way)
    return _steadied(max(ways, key=lambda way: max(y for _, y in way)))


def _steadied(way: list[Point2]) -> tuple[Point2, ...]:
    """Out and in without wavering: a followed line's straight tip is a few hundredths out and in again."""
    xs, ys = [x for x, _ in way], np.array([y for _, y in way])
    far = int(np.argmax(ys))
    steady = np.concatenate(
        [np.maximum.accumulate(ys[: far + 1]), np.maximum.accumulate(ys[:far:-1])[::-1]]
    )
    if np.abs(steady - ys).max() > _WAVERS_MM:
        return tuple(way)  # that is no wavering: it is told where it is drawn
    return tuple(zip(xs, steady.tolist(), strict=True))


def _root_below(ring: tuple[Point2, ...]) -> tuple[Point2, ...]:
    """Turned over where the longer straight side lies above: a half that is drawn under the middle line."""

    def along(edge: float) -> float:
        xs = [x for x, y in ring if abs(y - edge) < _ALONG_MM]
        return max(xs) - min(xs) if xs else 0.0

    low, high = min(y for _, y in ring), max(y for _, y in ring)
    return tuple((x, -y) for x, y in ring) if along(high) > along(low) else ring


def outlines_on_plans(build: Build) -> dict[str, tuple[Point2, ...]]:
    """The outlines that are clicked all round on the paper desk, mm, by their plans.

    Raises
    ------
    BadInput
        When one encloses nothing, or its plan's scale is not known yet.
    """
    plans = [p for p in build.plans if any(trace.kind == "outline" for trace in p.traces)]
    return {plan.id: picked_outline(plan, calibrate(plan), half=False) for plan in plans}


@edit
def outline_from_plan(build: Build, surface_id: str, plan_id: str = "") -> Build:
    """Take the outline that was clicked all round on the paper desk.

    Parameters
    ----------
    plan_id : str
        On which plan; may be left out where only one has an outline.

    Raises
    ------
    BadInput
        When no plan has one, several have and it is not said which, or it is no half of a surface.
    """
    found = outlines_on_plans(build)
    if not found:
        raise BadInput("", "no outline is clicked on the paper desk yet")
    if not plan_id and len(found) > 1:
        raise BadInput("", f"outlines are clicked on {' and '.join(found)}: say which")
    if plan_id and plan_id not in found:
        raise BadInput("", f'no outline is clicked on "{plan_id}"')
    return set_outline(build, surface_id, found[plan_id or next(iter(found))])


@edit
def forget_outline(build: Build, surface_id: str) -> Build:
    """Go back from a drawn outline to span, chords and sweep."""
    return put_surface(build, surface_of(build, surface_id).but(outline=()))


@edit
def add_spar(build: Build, surface_id: str, face: str) -> Build:
    """Another spar at the usual place of that face."""
    surface = surface_of(build, surface_id)
    used = {spar.id for spar in surface.spars}
    name, number = f"{face} spar", 2
    while name in used:
        name, number = f"{face} spar {number}", number + 1
    spar = TailSpar.model_validate(
        {"id": name, "at_chord": _SPAR_AT, "section": _SPAR_MM, "face": face}
    )
    return put_surface(build, surface.but(spars=(*surface.spars, spar)))


@edit
def set_spar(build: Build, /, surface_id: str, spar_id: str, **figures: object) -> Build:
    """Set figures of a spar.

    Raises
    ------
    BadInput
        When there is none of that id.
    """
    surface = surface_of(build, surface_id)
    if all(spar.id != spar_id for spar in surface.spars):
        raise BadInput("", f'no spar "{spar_id}"')
    spars = tuple(one.but(**figures) if one.id == spar_id else one for one in surface.spars)
    return put_surface(build, surface.but(spars=spars))


@edit
def delete_spar(build: Build, surface_id: str, spar_id: str) -> Build:
    """Take a spar out."""
    surface = surface_of(build, surface_id)
    spars = tuple(one for one in surface.spars if one.id != spar_id)
    return put_surface(build, surface.but(spars=spars))


@edit
def add_tube(build: Build, surface_id: str) -> Build:
    """A joiner tube at the usual place, as long as half the span."""
    surface = surface_of(build, surface_id)
    used = {tube.id for tube in surface.tubes}
    name, number = "tube", 2
    while name in used:
        name, number = f"tube {number}", number + 1
    tube = Tube(id=name, at_chord=_TUBE_AT, diameter=_TUBE_MM, length=round(surface.half))
    return put_surface(build, surface.but(tubes=(*surface.tubes, tube)))


@edit
def set_tube(build: Build, /, surface_id: str, tube_id: str, **figures: object) -> Build:
    """Set figures of a tube; a length of 0 takes it out."""
    surface = surface_of(build, surface_id)
    if figures.get("length") == 0:
        return put_surface(
            build, surface.but(tubes=tuple(one for one in surface.tubes if one.id != tube_id))
        )
    tubes = tuple(one.but(**figures) if one.id == tube_id else one for one in surface.tubes)
    return put_surface(build, surface.but(tubes=tubes))


@edit
def set_stock(build: Build, surface_id: str, edge: str, number: int, value: float) -> Build:
    """Set how long (0) or how high (1) the ``leading_edge`` or ``trailing_edge`` is, mm."""
    surface = surface_of(build, surface_id)
    was = list(getattr(surface, edge) or (6.0, 6.0))
    was[number] = value
    return put_surface(build, surface.but(**{edge: tuple(was)}))


@edit
def set_slot_fit(build: Build, surface_id: str, fit: SlotFit) -> Build:
    """Say how a rib's end sits in its slot."""
    return put_surface(build, surface_of(build, surface_id).but(slot_fit=fit))


@edit
def read_corner(build: Build, surface_id: str, at: BoardPlace, value: float, phase: str) -> Build:
    """Note a corner's height over the board; one of the same place and phase is replaced."""
    surface = surface_of(build, surface_id)
    taken = FlatReading.model_validate({"at": at, "value": value, "phase": phase})
    kept = tuple(one for one in surface.flatness if (one.at, one.phase) != (at, taken.phase))
    return put_surface(build, surface.but(flatness=(*kept, taken)))


@edit
def take_corners(build: Build, surface_id: str, heights: Sequence[FlatReading]) -> Build:
    """Note corners' heights as pictures gave them, in place of those read before in their phase."""
    surface = surface_of(build, surface_id)
    taken = {(one.at, one.phase) for one in heights}
    kept = tuple(one for one in surface.flatness if (one.at, one.phase) not in taken)
    return put_surface(build, surface.but(flatness=(*kept, *heights)))


@edit
def strike_corner(build: Build, surface_id: str, at: BoardPlace, phase: str) -> Build:
    """Strike a corner's height out."""
    surface = surface_of(build, surface_id)
    kept = tuple(one for one in surface.flatness if (one.at, one.phase) != (at, phase))
    return put_surface(build, surface.but(flatness=kept))
