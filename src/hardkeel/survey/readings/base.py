"""What every reading has, and what every kind of reading says of itself."""

from datetime import datetime
from typing import Any, ClassVar, Final, Generic, Literal, Self, TypeVar

from pydantic import field_validator

from hardkeel.base.values import Positive, Text, Value

Phase = Literal["dry", "wet", "cured"]
Side = Literal["port", "starboard", "centre"]
PHASES: Final[tuple[Phase, ...]] = ("dry", "wet", "cured")
# what readings may share: the zero of their tool, or how a gauge sits on its body; and with which sign
Zero = tuple[Literal["gauge", "level", "tape_zero"], float]

_Shown = TypeVar("_Shown")


class ReadingBase(Value, Generic[_Shown]):
    """What every reading has, whatever was read.

    Attributes
    ----------
    value : float, or a pair of floats
        What the tool showed, mm or degrees; in a photo, pixels to the right and down.
    simulated : bool
        Taken from a stand-in gauge on a build that is no exercise; our own addition to the file.
    usual_sigma : float
        Of its kind: what it is counted as where nothing else is said; mm, degrees or pixels.
    angular : bool
        Of its kind: whether it shows degrees.
    effort : float
        Of its kind: minutes to set it up and take it, as a practised builder guesses them, to be compared and
        not added up.
    picks : int
        Of its kind: how many marks are picked for it; none for what is hung on a body.
    stretches : bool
        Of its kind: whether a tape that is stretched shows it longer.
    """

    usual_sigma: ClassVar[float]
    angular: ClassVar[bool] = False
    effort: ClassVar[float] = 1.0
    picks: ClassVar[int] = 0
    stretches: ClassVar[bool] = False

    id: Text
    value: _Shown
    sigma: Positive | None = None
    instrument: str | None = None
    phase: Phase | None = None
    taken: str | None = None
    ignored: bool = False
    simulated: bool = False

    def model_post_init(self, _context: object, /) -> None:
        """Count the kind as given, so that it is written even where it came from the class."""
        self.model_fields_set.add("kind")

    @field_validator("taken")
    @classmethod
    def _is_iso_time(cls, text: str | None) -> str | None:
        if text is not None:
            datetime.fromisoformat(text)
        return text

    @property
    def ends(self) -> tuple[tuple[str, str], ...]:
        """The marks that it touches, each beside the field that names it, in the order in which it is held."""
        return ()

    @property
    def hung_on(self) -> str | None:
        """The body that it is hung on, where it is held on no marks."""
        return None

    @property
    def place(self) -> tuple[object, ...]:
        """What makes two readings of this kind the same measurement, whatever they showed."""
        return tuple(mark for _, mark in self.ends)

    @property
    def zeros(self) -> tuple[Zero, ...]:
        """What of its tool enters it beside what is measured."""
        return ()

    @classmethod
    def picked(cls, marks: tuple[str, ...], **common: Any) -> Self:
        """One held on marks in the order in which they were picked."""
        raise NotImplementedError
