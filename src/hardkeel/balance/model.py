"""Wings, masses and the balance section, as the file holds them: mm, degrees, grams."""

from typing import Annotated

from pydantic import Field

from hardkeel.base.errors import BadInput
from hardkeel.base.values import (
    NotNegative,
    Place,
    Positive,
    Size,
    SizeOrZero,
    Slope,
    Text,
    Value,
)

_SAME_MM = 1e-6


class Wing(Value):
    """A straight-tapered wing, mm and degrees.

    Attributes
    ----------
    seat_width : float, optional
        Across its seat; without it the wing rests on the middle of both sides' edges.  Our own key.
    profile : str, optional
        Its section: a coordinate file beside the build, or one that comes with the app.  Our own key.
    """

    id: Text
    le_x: Place
    z: Place = 0.0
    span: Size
    root_chord: Size
    tip_chord: SizeOrZero
    sweep_le: Place = 0.0
    dihedral: Slope = 0.0
    incidence: Slope = 0.0
    seat_width: Size | None = None
    profile: Text | None = None


class Mass(Value):
    """Something with a weight at a station, grams and mm.

    Attributes
    ----------
    weighed : bool
        On a scale, not estimated.
    """

    id: Text
    mass: NotNegative
    x: Place
    weighed: bool = False


class Battery(Value):
    """The pack; `between` is where its middle may sit, mm.

    Attributes
    ----------
    size : tuple of float, optional
        Length, width, height, mm; our own key.
    """

    id: Text = "pack"
    mass: Positive
    between: tuple[Place, Place] | None = None
    size: tuple[Size, Size, Size] | None = None

    @property
    def length(self) -> float:
        """Along the fuselage, mm; 0 where it is not known."""
        return self.size[0] if self.size is not None else 0.0

    @property
    def bay(self) -> tuple[float, float] | None:
        """The ends of its bay: half its length before and behind where its middle may sit, mm."""
        if self.between is None:
            return None
        return self.between[0] - self.length / 2, self.between[1] + self.length / 2

    def in_bay(self, front: float, rear: float) -> "Battery":
        """The same pack in a bay with these ends, mm.

        Raises
        ------
        BadInput
            When it is longer than the bay.
        """
        if rear - front < self.length - _SAME_MM:
            raise BadInput(
                "", f"the bay is {self.length - rear + front:.1f} mm shorter than the pack"
            )
        middle = (front + rear) / 2
        first, last = front + self.length / 2, rear - self.length / 2
        return self.but(between=(min(first, middle), max(last, middle)))


class Hatch(Value):
    """An opening for the pack: `between` along the fuselage and `width` across, mm; our own key."""

    id: Text
    between: tuple[Place, Place]
    width: Size


class Balance(Value):
    """Where the model shall balance, and what there is to bring it there."""

    target_percent: Annotated[float, Field(ge=-100, le=200, allow_inf_nan=False)] | None = None
    target_x: Place | None = None
    battery: Battery | None = None
    nose_weight_x: Place | None = None
    hatches: tuple[Hatch, ...] = ()
