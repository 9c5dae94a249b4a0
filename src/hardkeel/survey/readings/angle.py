"""The square."""

from typing import Any, ClassVar, Literal, Self

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class AngleAt(ReadingBase[Finite]):
    """Angle from–at–to between three marks, degrees."""

    usual_sigma: ClassVar[float] = 0.25
    angular: ClassVar[bool] = True
    effort: ClassVar[float] = 2.5  # the square needs something to stand on
    picks: ClassVar[int] = 3

    kind: Literal["angle"] = "angle"
    at: Text
    from_: Text = Field(alias="from")
    to: Text

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """One end, the corner, the other end."""
        return (("from", self.from_), ("at", self.at), ("to", self.to))

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """The corner in the middle."""
        return cls(**common, from_=marks[0], at=marks[1], to=marks[2])
