"""A mark clicked in a photo."""

from typing import ClassVar, Literal

from hardkeel.base.values import Finite, Text
from hardkeel.survey.readings.base import ReadingBase


class Sight(ReadingBase[tuple[Finite, Finite]]):
    """A mark seen in a photo: (u right, v down), pixels from the upper left corner of the whole picture."""

    usual_sigma: ClassVar[float] = 1.5

    kind: Literal["sight"] = "sight"
    photo: Text
    mark: Text

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """The mark."""
        return (("mark", self.mark),)

    @property
    def place(self) -> tuple[object, ...]:
        """The photo and the mark."""
        return (self.photo, self.mark)
