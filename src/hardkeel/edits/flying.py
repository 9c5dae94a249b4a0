"""Pure edits of what flies: wing section, wanted lift, and what decalage and balance it is built to."""

from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import checked
from hardkeel.edits.named import edit
from hardkeel.edits.surfaces import set_tail
from hardkeel.project.model import Build
from hardkeel.tail.lofting import section_named
from hardkeel.trim.aerofoil import thin_aerofoil
from hardkeel.trim.model import Flight


@edit
def set_wing_section(build: Build, name: str) -> Build:
    """Give the wing a section by its name; the angle of no lift and the moment follow from it.

    An empty name takes it away again.

    Raises
    ------
    BadInput
        When there is no wing, or no section of that name.
    """
    if not build.wings:
        raise BadInput("", "there is no wing yet to give a section")
    if name:
        section_named(name, build.profiles, "")
    wings = tuple(wing.but(profile=name or None) for wing in build.wings)
    return build.but(wings=wings, flight=_without(build.flight or Flight(), "zero_lift", "cm0"))


@edit
def set_tail_section_from(build: Build, surface_id: str) -> Build:
    """Take the stabilizer's angle of no lift from the section that it has.

    Raises
    ------
    BadInput
        When it has none.
    """
    surface = next((one for one in build.tail if one.id == surface_id), None)
    if surface is None or not surface.root_profile:
        raise BadInput("", "the stabilizer has no section yet: give it one on Tail")
    section = section_named(surface.root_profile, build.profiles, "")
    angle, _ = thin_aerofoil(section.mean_line)
    flight = build.flight or Flight()
    return build.but(flight=flight.but(tail_zero_lift=round(angle, 2)))


@edit
def set_flight(build: Build, /, **figures: float | None) -> Build:
    """Set figures of the flight; ``None`` goes back to the default."""
    given = {key: value for key, value in figures.items() if value is not None}
    return build.but(flight=_without(build.flight or Flight(), *figures).but(**given))


def _without(flight: Flight, *keys: str) -> Flight:
    """The flight with these figures at their defaults again; what it does not know stays."""
    kept = {key: getattr(flight, key) for key in flight.model_fields_set if key not in keys}
    return Flight(**kept)


@edit
def build_to(build: Build, balance: float, decalage: float, lift: float) -> Build:
    """Keep a balance point (fraction of the mean chord), a decalage (degrees) and a lift coefficient as wanted.

    The stabilizer's incidence takes the change: the wing stays as it is drawn.

    Raises
    ------
    BadInput
        When there is no wing or no stabilizer.
    """
    if not build.wings or all(one.id != "stab" for one in build.tail):
        raise BadInput("", "wing and stabilizer must be there before they are set to each other")
    set_ = set_flight(build, lift_coefficient=round(lift, 2), speed=None)
    if set_.balance is not None:
        wanted = set_.balance.but(target_x=None, target_percent=round(100 * balance, 1))
        set_ = checked(set_, set_.but(balance=wanted))
    return set_tail(set_, "stab", incidence=round(build.wings[0].incidence - decalage, 2))
