"""The level."""

from typing import Any, ClassVar, Literal, Self

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase, Zero


class Tilt(ReadingBase[Finite]):
    """Elevation of the line from→to against the board, degrees.

    Attributes
    ----------
    turned : bool
        Taken with the level end for end: its own zero enters with a minus.
    """

    usual_sigma: ClassVar[float] = 0.1
    angular: ClassVar[bool] = True
    effort: ClassVar[float] = 1.0  # lay the level across two points
    picks: ClassVar[int] = 2

    kind: Literal["tilt"] = "tilt"
    from_: Text = Field(alias="from")
    to: Text
    turned: bool = False

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """Both ends."""
        return (("from", self.from_), ("to", self.to))

    @property
    def place(self) -> tuple[object, ...]:
        """Its ends, and which way round the level lay."""
        return (self.from_, self.to, "turned") if self.turned else (self.from_, self.to)

    @property
    def zeros(self) -> tuple[Zero, ...]:
        """The level's own."""
        return (("level", -1.0 if self.turned else 1.0),)

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """From the first to the second."""
        return cls(**common, from_=marks[0], to=marks[1])
