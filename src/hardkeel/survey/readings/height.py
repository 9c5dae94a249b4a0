"""The height stand."""

from typing import Any, ClassVar, Literal, Self

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class Height(ReadingBase[Finite]):
    """Height of a mark over the board, mm."""

    usual_sigma: ClassVar[float] = 0.4
    effort: ClassVar[float] = 2.0  # the stand is set to the mark, the board is cleared
    picks: ClassVar[int] = 1

    kind: Literal["height"] = "height"
    mark: Text

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """The mark."""
        return (("mark", self.mark),)

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """Of the mark."""
        return cls(**common, mark=marks[0])
