"""The centre line: a laser, or a string."""

from typing import Any, ClassVar, Literal, Self

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class Offset(ReadingBase[Finite]):
    """A mark's y against the fuselage centre plane, or from the upright plane through a string, mm.

    Attributes
    ----------
    along : (str, str), optional
        The two marks that the string is stretched through, the second aft of the first.
    """

    usual_sigma: ClassVar[float] = 0.5
    effort: ClassVar[float] = 4.0  # the laser is set up along the centre line
    picks: ClassVar[int] = 1

    kind: Literal["offset"] = "offset"
    mark: Text
    along: tuple[Text, Text] | None = None

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """The mark, then what the string runs through."""
        string = ((f"along[{i}]", one) for i, one in enumerate(self.along or ()))
        return (("mark", self.mark), *string)

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """Of the mark."""
        return cls(**common, mark=marks[0])
