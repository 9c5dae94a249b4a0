"""Neutral point, the decalage that trims, and what each check's error does: the contract's trim section.

Lift slope of a finite wing: H. B. Helmbold, "Der unverwundene Ellipsenflügel als tragende Fläche", Jahrbuch 1942
der deutschen Luftfahrtforschung, I 111.  Neutral point and trim: B. Etkin and L. D. Reid, "Dynamics of flight",
3rd edition, Wiley 1996, chapter 2.  Flap effectiveness: H. Glauert, "Theoretical relationships for an aerofoil
with hinged flap", ARC R&M 1095 (1927).  What a real hinge leaves of it: B. W. McCormick, "Aerodynamics, aeronautics, and
flight mechanics", Wiley 1979, chapter 3 (plain flaps give some 80 % of the theory at small angles), and less through an
open gap: R. I. Sears, NACA ACR 3L08 (1943).
"""

import math
from dataclasses import dataclass
from typing import Final, Protocol

from hardkeel.survey.model import Role
from hardkeel.trim.body import Body
from hardkeel.trim.model import AIR, GRAVITY, LIFT_COEFFICIENT, TAIL_EFFICIENCY, Flight

# of the thin-aerofoil figure that a real elevator or rudder gives: through an open hinge gap, and with the gap sealed
OPEN_GAP: Final = (0.6, 0.8)
SEALED: Final = 0.85
FELT: Final = 0.1  # degrees, or degrees a second: less is not to be felt
_LEAST_MARGIN: Final = 0.01  # with less it has no lift coefficient that it keeps


@dataclass(frozen=True, slots=True)
class Lifting:
    """A wing, stabilizer or fin.

    Attributes
    ----------
    area : float
        mm².
    centre_x : float or None
        Station of its quarter mean chord; ``None`` without a place.
    taper, span : float
        Tip by root chord; mm (a fin's height).
    id, role : str
        Which surface it is, and what.
    dihedral : float
        Degrees; of a fin 90.
    all_moving : bool
        Whether it turns as a whole: then it is its own elevator or rudder.
    """

    area: float
    aspect_ratio: float
    mean_chord: float
    centre_x: float | None
    taper: float
    span: float
    id: str = ""
    role: Role | None = None
    dihedral: float = 0.0
    all_moving: bool = False

    @property
    def lean(self) -> float:
        """The dihedral, radians."""
        return math.radians(self.dihedral)

    @property
    def lifting_area(self) -> float:
        """What of it works up and down, mm²: its plate stands at the dihedral to the flow, and to what is lifted."""
        return self.area * math.cos(self.lean) ** 2

    @property
    def side_area(self) -> float:
        """What of it works sideways, mm²."""
        return self.area * math.sin(self.lean) ** 2

    @property
    def lift_slope(self) -> float:
        """Per radian."""
        aspect = self.aspect_ratio
        return 2 * math.pi * aspect / (2 + math.sqrt(aspect**2 + 4))


@dataclass(frozen=True, slots=True)
class Craft:
    """What flies.

    Attributes
    ----------
    stab : Lifting or None
        What trims: the main stabilizer, else the V, else the foreplane.
    fins, lying : tuple of Lifting
        All fins, the main one first; all other tail surfaces, whose dihedral gives side area.
    balance : float or None
        Balance point as a fraction of the wing's mean chord.
    mass : float or None
        Grams, all up.
    decalage : float or None
        Degrees, as it stands.
    body : Body or None
        The fuselage, for what it takes of the margin.
    """

    wing: Lifting | None
    stab: Lifting | None
    fins: tuple[Lifting, ...]
    flight: Flight
    lying: tuple[Lifting, ...] = ()
    balance: float | None = None
    mass: float | None = None
    decalage: float | None = None
    body: Body | None = None
    several_wings: bool = False

    @property
    def fin(self) -> Lifting | None:
        """The main fin."""
        return self.fins[0] if self.fins else None

    @property
    def is_ahead(self) -> bool:
        """Whether what trims is the front surface of the two, so that decalage is its incidence less the wing's."""
        wing, stab = self.wing, self.stab
        if stab is None:
            return False
        known = wing is not None and wing.centre_x is not None and stab.centre_x is not None
        behind = not known or (stab.centre_x or 0.0) >= (wing.centre_x or 0.0 if wing else 0.0)
        return stab.role == "foreplane" or not behind

    @property
    def efficiency(self) -> float:
        """Of what trims: a foreplane meets undisturbed air."""
        return 1.0 if self.stab is not None and self.stab.role == "foreplane" else TAIL_EFFICIENCY


@dataclass(frozen=True, slots=True)
class Trim:
    """What follows; what can't be had is ``None``.

    Attributes
    ----------
    stab_arm, stab_volume, fin_arm : float or None
        mm; tail volume; mm.
    neutral_point, margin : float or None
        Fractions of the mean chord.
    body_takes : float or None
        What the fuselage takes of the neutral point and so of the margin, as a fraction of the mean chord.
    wake_takes : float
        What a foreplane's wake on the wing takes of it at most.
    tail_angle : float or None
        The stabilizer's own angle of attack in trim, radians.
    """

    craft: Craft
    stab_arm: float | None
    stab_volume: float | None
    fin_arm: float | None
    neutral_point: float | None
    margin: float | None
    lift_coefficient: float | None
    speed: float | None
    tail_angle: float | None
    decalage_to_trim: float | None
    body_takes: float | None = None
    wake_takes: float = 0.0

    @property
    def least_margin(self) -> float | None:
        """The static margin less all that may be taken of it: what it is judged by."""
        if self.margin is None:
            return None
        return self.margin - (self.body_takes or 0.0) - self.wake_takes

    @property
    def margin_with_body(self) -> float | None:
        """The static margin with the fuselage reckoned."""
        if self.margin is None or self.body_takes is None:
            return None
        return self.margin - self.body_takes


@dataclass(frozen=True, slots=True)
class Effect:
    """What a check's error does; figures that it has, in the contract's order.

    Attributes
    ----------
    figures : tuple of (name, value)
        ``elevator``, ``rudder`` and ``sideslip`` in degrees, ``millimetres``, ``roll_rate`` in degrees per
        second, ``trims_at`` a lift coefficient or ``None``.
    sigma : float
        Of the first figure.
    """

    check: str
    figures: tuple[tuple[str, float | None], ...]
    sigma: float

    @property
    def first(self) -> float:
        """The first figure."""
        return self.figures[0][1] or 0.0


def flap_effectiveness(fraction: float) -> float:
    """How many degrees of the whole surface one degree of its flap is worth."""
    theta = math.acos(2 * fraction - 1)
    return 1 - (theta - math.sin(theta)) / math.pi


def downwash_slope(wing: Lifting) -> float:
    """dε/dα behind the wing."""
    return 2 * wing.lift_slope / (math.pi * wing.aspect_ratio)


def trim_of(craft: Craft) -> Trim:
    """Everything that follows from what is known."""
    wing, stab = craft.wing, craft.stab
    stab_arm = _arm(wing, stab)
    fin_arm = _arm(wing, craft.fin)
    volume = neutral = margin = tail_angle = decalage = takes = None
    lift, speed = _lift_and_speed(craft)
    if wing is not None and stab is not None and stab_arm is not None:
        volume = stab.lifting_area * stab_arm / (wing.area * wing.mean_chord)
        slope, share, left = _slopes(craft, wing, stab)
        gain = craft.efficiency * volume * stab.lift_slope
        neutral = 0.25 + gain / slope * left
        if craft.body is not None:
            takes = craft.body.moves_neutral_point(wing.area, wing.mean_chord, slope)
        if craft.balance is not None:
            margin = neutral - craft.balance
            if lift is not None and volume:
                tail_angle = (craft.flight.cm0 + lift * (craft.balance - 0.25)) / gain
                of_wing = lift - share * tail_angle
                wash = (
                    (1 - left) / downwash_slope(wing) * 2 * of_wing / (math.pi * wing.aspect_ratio)
                )
                above = (
                    math.degrees(of_wing / wing.lift_slope - tail_angle - wash)
                    + craft.flight.zero_lift
                    - craft.flight.tail_zero_lift / math.cos(stab.lean)
                )
                decalage = -above if craft.is_ahead else above
    return Trim(
        craft,
        stab_arm,
        volume,
        fin_arm,
        neutral,
        margin,
        lift,
        speed,
        tail_angle,
        decalage,
        takes,
        _wake_takes(craft, volume, neutral),
    )


def _wake_takes(craft: Craft, volume: float | None, neutral: float | None) -> float:
    """What a foreplane's wake takes of the neutral point at most, as a fraction of the mean chord.

    The far downwash 2·C_L/(π·AR) over as much of the wing as the foreplane spans; the upwash outside of it, which
    gives about half of that back, is left out.  A vortex lattice lies between this and nothing (in the tests).
    """
    wing, fore = craft.wing, craft.stab
    if wing is None or fore is None or fore.role != "foreplane":
        return 0.0
    if volume is None or neutral is None:
        return 0.0
    inner = min(fore.span / wing.span, 1.0)
    within = inner * (2 - (1 - wing.taper) * inner) / (1 + wing.taper)
    left = wing.lift_slope * (1 - within * downwash_slope(fore))
    share = fore.lifting_area / wing.area * fore.lift_slope
    return neutral - (0.25 + volume * fore.lift_slope / (left + share))


def arm_of(craft: Craft, one: Lifting) -> float | None:
    """From the wing's centre aft to a surface's, mm."""
    return _arm(craft.wing, one)


def _arm(wing: Lifting | None, other: Lifting | None) -> float | None:
    if wing is None or other is None or wing.centre_x is None or other.centre_x is None:
        return None
    return other.centre_x - wing.centre_x


def _slopes(craft: Craft, wing: Lifting, stab: Lifting) -> tuple[float, float, float]:
    """Lift slope of the whole craft and what trims' part of it before downwash, per radian; what downwash leaves."""
    share = craft.efficiency * stab.lifting_area / wing.area * stab.lift_slope
    left = 1.0 if stab.role == "foreplane" else 1 - downwash_slope(wing)
    return wing.lift_slope + share * left, share, left


def side_stiffness(trim: Trim) -> float | None:
    """Σ of η·a·S·lever over all fins and side areas about the balance point, mm³ per radian; ``None`` without one."""
    wing, balance = trim.craft.wing, trim.craft.balance
    if wing is None or balance is None:
        return None
    total = 0.0
    for one in (*trim.craft.fins, *trim.craft.lying):
        area = one.area if one.role == "fin" else one.side_area
        lever = _lever(trim, one)
        if area and lever is None:
            return None
        total += TAIL_EFFICIENCY * one.lift_slope * area * (lever or 0.0)
    return total


def _lever(trim: Trim, one: Lifting) -> float | None:
    """From the balance point to a surface's centre, mm."""
    wing, arm = trim.craft.wing, _arm(trim.craft.wing, one)
    if wing is None or arm is None or trim.craft.balance is None:
        return None
    return arm - (trim.craft.balance - 0.25) * wing.mean_chord


def _lift_and_speed(craft: Craft) -> tuple[float | None, float | None]:
    """Lift coefficient and speed, m/s: each from the other where the mass is known."""
    flight, wing = craft.flight, craft.wing
    load = None
    if craft.mass is not None and craft.mass > 0 and wing is not None:
        load = 2 * craft.mass / 1000 * GRAVITY / (AIR * wing.area * 1e-6)
    if flight.speed is not None:
        if flight.lift_coefficient is None and load is not None:
            return load / flight.speed**2, flight.speed
        return flight.lift_coefficient or LIFT_COEFFICIENT, flight.speed
    lift = flight.lift_coefficient or LIFT_COEFFICIENT
    return lift, math.sqrt(load / lift) if load is not None else None


class Checked(Protocol):
    """What a check is: its id, its kind, and whose it is."""

    @property
    def id(self) -> str:
        """As in the file."""
        ...

    @property
    def kind(self) -> str:
        """What is checked."""
        ...

    @property
    def body(self) -> str:
        """The body that it is charged to."""
        ...


def effect_of(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    """What a check's error does, ``None`` where it does nothing by this model, or what it needs is not known.

    The main body of each role alone has effects.

    Parameters
    ----------
    error, sigma : float
        Value − target of the check, and its sigma: degrees, or mm for an offset.
    """
    made = _BY_KIND.get(check.kind)
    return made(trim, check, error, sigma) if made is not None else None


def _decalage(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    craft = trim.craft
    stab, wing = craft.stab, craft.wing
    if stab is None:
        return None
    fraction = 1.0 if stab.all_moving else craft.flight.elevator_fraction
    # both halves of a V move together along their own hinges
    slope = (math.cos(stab.lean) if stab.role == "vee" else 1.0) / flap_effectiveness(fraction)
    off = -error if craft.is_ahead else error
    elevator = off * slope
    edge = math.sin(math.radians(elevator)) * fraction * stab.mean_chord
    trims_at = None
    known = (
        trim.margin is not None
        and trim.stab_volume is not None
        and trim.lift_coefficient is not None
    )
    if wing is not None and known and trim.margin is not None and trim.margin > _LEAST_MARGIN:
        whole, _, _ = _slopes(craft, wing, stab)
        volume = trim.stab_volume or 0.0
        gain = craft.efficiency * volume * stab.lift_slope * wing.lift_slope / whole
        trims_at = (trim.lift_coefficient or 0.0) + gain * math.radians(off) / trim.margin
    figures = (("elevator", elevator), ("millimetres", edge), ("trims_at", trims_at))
    return Effect(check.id, figures, sigma * abs(slope))


def _twist(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    wing = trim.craft.wing
    if wing is None or trim.speed is None or check.body != wing.id:
        return None
    slope = -trim.speed / (wing.span / 1000)
    return Effect(check.id, (("roll_rate", error * slope),), sigma * abs(slope))


def _offset(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    wing = trim.craft.wing
    if wing is None or trim.speed is None or trim.lift_coefficient is None:
        return None
    if check.body != wing.id:
        return None
    damping = wing.lift_slope / 12 * (1 + 3 * wing.taper) / (1 + wing.taper)
    rate = math.degrees(2 * trim.speed / (wing.span / 1000) / damping)
    slope = -trim.lift_coefficient / wing.span * rate
    return Effect(check.id, (("roll_rate", error * slope),), sigma * abs(slope))


def _roll(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    """What trims, rolled against the wing: its lift points aside, and the fins hold against that."""
    stab = trim.craft.stab
    if stab is None or trim.tail_angle is None:
        return None
    if stab.role != "vee" and check.body != stab.id:
        return None
    stiffness, lever = side_stiffness(trim), _lever(trim, stab)
    if stiffness is None or lever is None or stiffness <= 0:
        return None
    zero = math.radians(trim.craft.flight.tail_zero_lift)
    seen = trim.tail_angle * math.cos(2 * stab.lean)
    seen -= zero * math.sin(stab.lean) ** 2 / math.cos(stab.lean)
    ratio = -trim.craft.efficiency * stab.lift_slope * stab.area * seen * lever / stiffness
    slip = math.degrees(ratio * math.sin(math.radians(error)))
    slope = abs(ratio * math.cos(math.radians(error)))
    return Effect(check.id, (("sideslip", slip),), sigma * slope)


def _halves_alike(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    """A V whose halves stand at different incidence is a rudder."""
    stab = trim.craft.stab
    if stab is None or stab.role != "vee":
        return None
    stiffness, lever = side_stiffness(trim), _lever(trim, stab)
    if stiffness is None or lever is None or stiffness <= 0:
        return None
    turned = math.sin(stab.lean) * math.cos(stab.lean)
    ratio = -0.5 * TAIL_EFFICIENCY * stab.lift_slope * stab.area * turned * lever / stiffness
    return Effect(check.id, (("sideslip", error * ratio),), sigma * abs(ratio))


def _fin_yaw(trim: Trim, check: Checked, error: float, sigma: float) -> Effect | None:
    fin = trim.craft.fin
    if fin is None or check.body != fin.id:
        return None
    fraction = 1.0 if fin.all_moving else trim.craft.flight.rudder_fraction
    slope = 1 / flap_effectiveness(fraction)
    rudder = error * slope
    edge = math.sin(math.radians(rudder)) * fraction * fin.mean_chord
    return Effect(check.id, (("rudder", rudder), ("millimetres", edge)), sigma * abs(slope))


_BY_KIND: Final = {
    "decalage": _decalage,
    "twist_difference": _twist,
    "offset": _offset,
    "roll_to_wing": _roll,
    "vee_tilt": _roll,
    "vee_incidence_difference": _halves_alike,
    "fin_yaw": _fin_yaw,
}
