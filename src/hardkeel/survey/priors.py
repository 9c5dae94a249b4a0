"""What readings may share and how much of it is supposed beforehand: the priors that a builder sets under *Tools*."""

from typing import Final, Literal

from hardkeel.base.values import NotNegative, Value

SquaredTo = Literal["fore", "line"]


class Shared(Value):
    """What several readings may have in common, one sigma; 0 or missing: nothing of that kind.

    Attributes
    ----------
    mark : float
        How far a mark may sit beside its place, mm each way.
    gauge, gauge_seat, level : float
        Degrees: the zero of an incidence gauge, how it sits on each body, the zero of a level.
    tape_zero : float
        mm: a bent hook, a worn end.
    tape_stretch : float
        A share of the length.
    target : (float, float), optional
        How far a printed target may lie beside its mark in its own plane, and along its normal, mm; in the place of
        `mark` for a mark that has one.
    bend_y, bend_z : float
        mm that the fuselage bends sideways and upwards from behind the wing to its last mark.
    """

    mark: NotNegative = 0.0
    gauge: NotNegative = 0.0
    gauge_seat: NotNegative = 0.0
    level: NotNegative = 0.0
    tape_zero: NotNegative = 0.0
    tape_stretch: NotNegative = 0.0
    bend_y: NotNegative = 0.0
    bend_z: NotNegative = 0.0
    target: tuple[NotNegative, NotNegative] | None = None


USUAL_SHARED: Final = Shared(
    mark=0.25,
    gauge=0.2,
    gauge_seat=0.08,
    level=0.1,
    tape_zero=0.4,
    tape_stretch=0.0004,
    bend_y=1.5,
    bend_z=1.5,
)
