"""From a build to what flies: its surfaces, its balance point, its mass."""

from hardkeel.balance.balancing import Balanced, MeanChord, balance_of, mean_chord_of
from hardkeel.balance.model import Balance, Wing
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check
from hardkeel.tail.lofting import section_named
from hardkeel.tail.model import TailSurface
from hardkeel.trim.aerofoil import thin_aerofoil
from hardkeel.trim.body import Body
from hardkeel.trim.flying import Craft, Effect, Lifting, Trim, effect_of, trim_of
from hardkeel.trim.model import Flight

_TWO = 2
_NO_WINGS = frozenset({"stab", "fin", "canard"})


def craft_of(build: Build, decalage: float | None = None) -> Craft:
    """What flies; `decalage` is the check's value, without it the design's."""
    wings = [wing for wing in build.wings if wing.id not in _NO_WINGS]
    stab = next((one for one in build.tail if one.id == "stab"), None)
    fin = next((one for one in build.tail if one.id == "fin" and one.upright), None)
    balance, mass = _balanced(build)
    if decalage is None and wings and stab is not None:
        decalage = wings[0].incidence - stab.incidence
    return Craft(
        _wing(wings),
        _stab(stab) if stab is not None else None,
        _fin(fin) if fin is not None else None,
        flight_of(build),
        balance,
        mass,
        decalage,
        _body(build, wings),
    )


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
    found = (effect_of(trim, one.id, one.error, one.sigma) for one in checks)
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
        area, span**2 / area, chord.length, centre, first.tip_chord / first.root_chord, span
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


def _stab(surface: TailSurface) -> Lifting | None:
    if surface.span is None or surface.root_chord is None:
        return None
    taper, chord, share = _mean(surface.root_chord, surface.tip_size)
    area = surface.span * (surface.root_chord + surface.tip_size) / 2
    centre = None
    if surface.le_x is not None:
        centre = surface.le_x + surface.sweep_le * share + chord / 4
    return Lifting(area, surface.span**2 / area, chord, centre, taper, surface.span)


def _fin(surface: TailSurface) -> Lifting | None:
    """Its own area, twice its aspect ratio: the root works as a mirror."""
    if surface.span is None or surface.root_chord is None:
        return None
    height = surface.half
    taper, chord, share = _mean(surface.root_chord, surface.tip_size)
    area = height * (surface.root_chord + surface.tip_size) / 2
    centre = None
    if surface.le_x is not None:
        centre = surface.le_x + surface.sweep_le * share + chord / 4
    return Lifting(area, 2 * height**2 / area, chord, centre, taper, height)


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
