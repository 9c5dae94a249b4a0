"""From a build to what flies: its surfaces, its balance point, its mass."""

from dataclasses import replace

from hardkeel.balance.balancing import Balanced, MeanChord, balance_of, mean_chord_of
from hardkeel.balance.model import Balance, Wing
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check
from hardkeel.survey.model import role_by_id
from hardkeel.tail.lofting import section_named
from hardkeel.tail.model import TailSurface
from hardkeel.trim.aerofoil import thin_aerofoil
from hardkeel.trim.body import Body
from hardkeel.trim.flying import Craft, Effect, Lifting, Trim, effect_of, trim_of
from hardkeel.trim.model import Flight

_TWO = 2


def craft_of(build: Build, decalage: float | None = None) -> Craft:
    """What flies; `decalage` is the check's value, without it the design's."""
    wings = [wing for wing in build.wings if role_by_id(wing.id) == "wing"]
    stab = trimming_surface(build)
    balance, mass = _balanced(build)
    made = [lifting for one in build.tail if (lifting := _tail(one)) is not None]
    craft = Craft(
        _wing(wings),
        next((one for one in made if stab is not None and one.id == stab.id), None),
        tuple(one for one in made if one.role == "fin"),
        flight_of(build),
        tuple(one for one in made if one.role != "fin"),
        balance,
        mass,
        decalage,
        _body(build, wings),
        len(wings) > 1,
    )
    if decalage is None and wings and stab is not None:
        above = wings[0].incidence - stab.incidence
        craft = replace(craft, decalage=-above if craft.is_ahead else above)
    return craft


def trimming_surface(build: Build) -> TailSurface | None:
    """What the wing is trimmed against: the main stabilizer, else the V, else the main foreplane."""
    for role in ("stabilizer", "vee", "foreplane"):
        found = next((one for one in build.tail if one.duty == role), None)
        if found is not None:
            return found
    return None


def flight_of(build: Build) -> Flight:
    """The flight, with angle of no lift and moment from the wing's section where they are not given.

    A section that can't be read counts as none: `check_build` and the pages say so.
    """
    flight = build.flight or Flight()
    name = next((wing.profile for wing in build.wings if wing.profile), None)
    if name is None:
        return flight
    try:
        zero_lift, cm0 = thin_aerofoil(section_named(name, build.profiles, "").mean_line)
    except BadInput:
        return flight
    found = {"zero_lift": zero_lift, "cm0": cm0}
    return flight.but(**{k: v for k, v in found.items() if k not in flight.model_fields_set})


def build_trim(build: Build, decalage: float | None = None) -> Trim:
    """Everything of the air that follows from a build."""
    return trim_of(craft_of(build, decalage))


def effects_of(trim: Trim, checks: tuple[Check, ...]) -> tuple[Effect, ...]:
    """What each check's error does, in their order; checks that do nothing are left out."""
    found = (effect_of(trim, one, one.error, one.sigma) for one in checks)
    return tuple(one for one in found if one is not None)


def _wing(wings: list[Wing]) -> Lifting | None:
    chord = mean_chord_of(wings)
    if chord is None:
        return None
    area = sum(wing.span * (wing.root_chord + wing.tip_chord) / 2 for wing in wings)
    span = max(wing.span for wing in wings)
    first = wings[0]
    centre = chord.le_x + chord.length / 4
    return Lifting(
        area,
        span**2 / area,
        chord.length,
        centre,
        first.tip_chord / first.root_chord,
        span,
        first.id,
        "wing",
    )


def _body(build: Build, wings: list[Wing]) -> Body | None:
    """The fuselage along its loft; ``None`` without one that has a length, or without a wing."""
    fuselage = build.fuselage
    if fuselage is None or not wings or len(fuselage.stations) < _TWO:
        return None
    stations = [stop for _, stop in fuselage.stations]
    first, last = stations[0].station, stations[-1].station
    width = 2 * max(stop.half_width for stop in stations)
    if last <= first or width <= 0:
        return None
    quarter = wings[0].le_x + wings[0].root_chord / 4
    return Body(width, last - first, (quarter - first) / (last - first))


def _mean(root: float, tip: float) -> tuple[float, float, float]:
    """Taper, mean chord, and where along the half span it lies, as a share."""
    taper = tip / root
    chord = 2 / 3 * root * (1 + taper + taper**2) / (1 + taper)
    return taper, chord, (1 + 2 * taper) / (3 * (1 + taper))


def _tail(surface: TailSurface) -> Lifting | None:
    """A tail surface; a fin has its own area and twice its aspect ratio: its root works as a mirror."""
    if surface.span is None or surface.root_chord is None:
        return None
    upright = surface.duty == "fin"
    reach = surface.half if upright else surface.span
    taper, chord, share = _mean(surface.root_chord, surface.tip_size)
    area = reach * (surface.root_chord + surface.tip_size) / 2
    centre = None
    if surface.le_x is not None:
        centre = surface.le_x + surface.sweep_le * share + chord / 4
    return Lifting(
        area,
        (2 if upright else 1) * reach**2 / area,
        chord,
        centre,
        taper,
        reach,
        surface.id,
        surface.duty,
        90.0 if upright else surface.dihedral,
        surface.all_moving,
    )


def _balanced(build: Build) -> tuple[float | None, float | None]:
    """Balance point as a fraction of the mean chord, and the mass in grams.

    As `balance` finds it where there are masses; else its target; masses without a balance section: their own.
    """
    chord = mean_chord_of(build.wings)
    found: Balanced | None = None
    if build.masses and build.balance is not None:
        try:
            found = balance_of(build.masses, build.wings, build.balance)
        except BadInput:
            found = None
        if found is not None:
            return (found.percent / 100 if found.percent is not None else None), found.mass
    mass = sum(one.mass for one in build.masses)
    if build.masses and build.balance is None and mass > 0:
        x = sum(one.mass * one.x for one in build.masses) / mass
        return ((x - chord.le_x) / chord.length if chord is not None else None), mass
    return _target(build.balance, chord), mass or None


def _target(wanted: Balance | None, chord: MeanChord | None) -> float | None:
    """The wanted balance point as a fraction of the mean chord."""
    if wanted is None or chord is None:
        return None
    if wanted.target_x is not None:
        return (wanted.target_x - chord.le_x) / chord.length
    return wanted.target_percent / 100 if wanted.target_percent is not None else None
