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
from typing import Final

from hardkeel.trim.body import Body
from hardkeel.trim.model import AIR, GRAVITY, LIFT_COEFFICIENT, TAIL_EFFICIENCY, Flight

# of the thin-aerofoil figure that a real elevator or rudder gives: through an open hinge gap, and with the gap sealed
OPEN_GAP: Final = (0.6, 0.8)
SEALED: Final = 0.85
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
    """

    area: float
    aspect_ratio: float
    mean_chord: float
    centre_x: float | None
    taper: float
    span: float

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
    fin: Lifting | None
    flight: Flight
    balance: float | None = None
    mass: float | None = None
    decalage: float | None = None
    body: Body | None = None


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
    wing, stab, fin = craft.wing, craft.stab, craft.fin
    stab_arm = _arm(wing, stab)
    fin_arm = _arm(wing, fin)
    volume = neutral = margin = tail_angle = decalage = takes = None
    lift, speed = _lift_and_speed(craft)
    if wing is not None and stab is not None and stab_arm is not None:
        volume = stab.area * stab_arm / (wing.area * wing.mean_chord)
        slope, share = _slopes(wing, stab)
        neutral = 0.25 + TAIL_EFFICIENCY * volume * stab.lift_slope / slope * (
            1 - downwash_slope(wing)
        )
        if craft.body is not None:
            takes = craft.body.moves_neutral_point(wing.area, wing.mean_chord, slope)
        if craft.balance is not None:
            margin = neutral - craft.balance
            if lift is not None and volume:
                tail_angle = (craft.flight.cm0 + lift * (craft.balance - 0.25)) / (
                    TAIL_EFFICIENCY * volume * stab.lift_slope
                )
                of_wing = lift - share * tail_angle
                wash = 2 * of_wing / (math.pi * wing.aspect_ratio)
                decalage = (
                    math.degrees(of_wing / wing.lift_slope - tail_angle - wash)
                    + craft.flight.zero_lift
                    - craft.flight.tail_zero_lift
                )
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
    )


def _arm(wing: Lifting | None, other: Lifting | None) -> float | None:
    if wing is None or other is None or wing.centre_x is None or other.centre_x is None:
        return None
    return other.centre_x - wing.centre_x


def _slopes(wing: Lifting, stab: Lifting) -> tuple[float, float]:
    """Lift slope of the whole craft, and the stabilizer's part of it before downwash, per radian."""
    share = TAIL_EFFICIENCY * stab.area / wing.area * stab.lift_slope
    return wing.lift_slope + share * (1 - downwash_slope(wing)), share


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


def effect_of(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    """What a check's error does, ``None`` where it does nothing by this model, or what it needs is not known.

    Parameters
    ----------
    error, sigma : float
        Value − target of the check, and its sigma: degrees, or mm for an offset.
    """
    made = _BY_CHECK.get(check)
    return made(trim, check, error, sigma) if made is not None else None


def _decalage(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    stab, wing = trim.craft.stab, trim.craft.wing
    if stab is None:
        return None
    fraction = trim.craft.flight.elevator_fraction
    slope = 1 / flap_effectiveness(fraction)
    elevator = error * slope
    edge = math.sin(math.radians(elevator)) * fraction * stab.mean_chord
    trims_at = None
    known = (
        trim.margin is not None
        and trim.stab_volume is not None
        and trim.lift_coefficient is not None
    )
    if wing is not None and known and trim.margin is not None and trim.margin > _LEAST_MARGIN:
        whole, _ = _slopes(wing, stab)
        gain = (
            TAIL_EFFICIENCY * (trim.stab_volume or 0.0) * stab.lift_slope * wing.lift_slope / whole
        )
        trims_at = (trim.lift_coefficient or 0.0) + gain * math.radians(error) / trim.margin
    figures = (("elevator", elevator), ("millimetres", edge), ("trims_at", trims_at))
    return Effect(check, figures, sigma * abs(slope))


def _twist(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    wing = trim.craft.wing
    if wing is None or trim.speed is None:
        return None
    slope = -trim.speed / (wing.span / 1000)
    return Effect(check, (("roll_rate", error * slope),), sigma * abs(slope))


def _offset(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    wing = trim.craft.wing
    if wing is None or trim.speed is None or trim.lift_coefficient is None:
        return None
    damping = wing.lift_slope / 12 * (1 + 3 * wing.taper) / (1 + wing.taper)
    rate = math.degrees(2 * trim.speed / (wing.span / 1000) / damping)
    slope = -trim.lift_coefficient / wing.span * rate
    return Effect(check, (("roll_rate", error * slope),), sigma * abs(slope))


def _roll(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    stab, fin = trim.craft.stab, trim.craft.fin
    if stab is None or fin is None or trim.tail_angle is None:
        return None
    if not trim.stab_arm or not trim.fin_arm:
        return None
    ratio = trim.tail_angle * stab.lift_slope * stab.area * trim.stab_arm
    ratio /= fin.lift_slope * fin.area * trim.fin_arm
    slip = -math.degrees(ratio * math.sin(math.radians(error)))
    slope = abs(ratio * math.cos(math.radians(error)))
    return Effect(check, (("sideslip", slip),), sigma * slope)


def _fin_yaw(trim: Trim, check: str, error: float, sigma: float) -> Effect | None:
    fin = trim.craft.fin
    if fin is None:
        return None
    fraction = trim.craft.flight.rudder_fraction
    slope = 1 / flap_effectiveness(fraction)
    rudder = error * slope
    edge = math.sin(math.radians(rudder)) * fraction * fin.mean_chord
    return Effect(check, (("rudder", rudder), ("millimetres", edge)), sigma * abs(slope))


_BY_CHECK: Final = {
    "decalage": _decalage,
    "wing_twist_difference": _twist,
    "wing_offset": _offset,
    "stab_roll_to_wing": _roll,
    "fin_yaw": _fin_yaw,
}
