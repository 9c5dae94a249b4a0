"""The incidence gauge."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase, Side, Zero


class Incidence(ReadingBase[Finite]):
    """What an incidence gauge shows on a body, degrees, zeroed on the datum or by gravity.

    Attributes
    ----------
    turned : bool
        Taken with the gauge end for end: its own zero enters with a minus.
    """

    usual_sigma: ClassVar[float] = 0.15
    angular: ClassVar[bool] = True
    effort: ClassVar[float] = 1.0  # hang the gauge on, read it

    kind: Literal["incidence"] = "incidence"
    body: Text
    side: Side = "centre"
    span_fraction: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.0
    zero: Literal["datum", "level"] = "datum"
    turned: bool = False

    @property
    def hung_on(self) -> str | None:
        """Its body."""
        return self.body

    @property
    def place(self) -> tuple[object, ...]:
        """Where on the body, from which zero, which way round."""
        place = (self.body, self.side, self.span_fraction, self.zero)
        return (*place, "turned") if self.turned else place

    @property
    def zeros(self) -> tuple[Zero, ...]:
        """The gauge's own."""
        return (("gauge", -1.0 if self.turned else 1.0),)
