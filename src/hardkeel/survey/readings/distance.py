"""The tape."""

from typing import Any, ClassVar, Literal, Self

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase, Zero


class Distance(ReadingBase[Finite]):
    """Straight distance between two marks, mm."""

    usual_sigma: ClassVar[float] = 0.5
    effort: ClassVar[float] = 2.0  # a tape wants both hands, and often a helper
    picks: ClassVar[int] = 2
    stretches: ClassVar[bool] = True

    kind: Literal["distance"] = "distance"
    from_: Text = Field(alias="from")
    to: Text

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """Both ends."""
        return (("from", self.from_), ("to", self.to))

    @property
    def place(self) -> tuple[object, ...]:
        """Its ends, whichever came first."""
        return tuple(sorted((self.from_, self.to)))

    @property
    def zeros(self) -> tuple[Zero, ...]:
        """What its hook adds."""
        return (("tape_zero", 1.0),)

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """From the first to the second."""
        return cls(**common, from_=marks[0], to=marks[1])
