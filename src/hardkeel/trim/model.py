"""How it shall fly, as the file holds it; the contract's trim section.  Degrees, m/s, fractions of the chord."""

from typing import Annotated, Final

from pydantic import Field

from hardkeel.base.values import Positive, Value

Fraction = Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)]
LIFT_COEFFICIENT: Final = 0.5  # where neither it nor a speed is given


class Flight(Value):
    """Wanted lift and speed, the wing section's own figures, and how much of the tail moves.

    Attributes
    ----------
    lift_coefficient, speed : float, optional
        Either gives the other where the mass is known.
    zero_lift, cm0 : float
        Angle of no lift of the wing's section, degrees, and its moment about the quarter chord.
    tail_zero_lift : float
        The same angle of the stabilizer's section.
    """

    lift_coefficient: Positive | None = None
    speed: Positive | None = None
    zero_lift: Annotated[float, Field(ge=-20, le=20, allow_inf_nan=False)] = -2.5
    cm0: Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)] = -0.05
    tail_zero_lift: Annotated[float, Field(ge=-20, le=20, allow_inf_nan=False)] = 0.0
    elevator_fraction: Fraction = 0.3
    rudder_fraction: Fraction = 0.4


GRAVITY: Final = 9.81
AIR: Final = 1.225  # kg/m³
TAIL_EFFICIENCY: Final = 0.9
