"""A rule held from a line to the wood."""

from typing import ClassVar, Literal

from pydantic import Field

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class Gap(ReadingBase[Finite]):
    """Coordinate of `to` less that of `from` along an axis of the board, mm; of a frame only."""

    usual_sigma: ClassVar[float] = 0.3
    effort: ClassVar[float] = 1.5  # a rule held from a line to the wood

    kind: Literal["gap"] = "gap"
    from_: Text = Field(alias="from")
    to: Text
    axis: Literal["x", "y", "z"]

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """Both ends."""
        return (("from", self.from_), ("to", self.to))

    @property
    def place(self) -> tuple[object, ...]:
        """Its axis and its ends."""
        return (self.axis, self.from_, self.to)
