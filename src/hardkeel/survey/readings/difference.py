"""The line swung from tip to tip."""

from typing import Any, ClassVar, Literal, Self

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class DistanceDifference(ReadingBase[Finite]):
    """dist(from, to[0]) − dist(from, to[1]), mm: the line swung from tip to tip."""

    usual_sigma: ClassVar[float] = 0.4
    effort: ClassVar[float] = 1.5  # swing a line from a pin to like corners
    picks: ClassVar[int] = 3
    stretches: ClassVar[bool] = True

    kind: Literal["distance-difference"] = "distance-difference"
    from_: Text = Field(alias="from")
    to: tuple[Text, Text]

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """The pin, then both corners."""
        return (("from", self.from_), ("to[0]", self.to[0]), ("to[1]", self.to[1]))

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """The pin first."""
        return cls(**common, from_=marks[0], to=(marks[1], marks[2]))
