"""Whether a gauge is held still, and whether it has moved since it was last read.

A gauge that is carried from one place to the next shows a value all the way: only one that came to rest is
a reading, and one that never moved shows the place before.
"""

from collections import deque
from typing import Final

# How far apart what a gauge shows may lie while it is held still: its own flicker and a hand's.
STILL: Final[dict[str, float]] = {"deg": 0.25, "mm": 1.0}
_SHOWN: Final = 3  # values in a row; a link asks about three times a second


class Resting:
    """What one gauge showed of late.

    Attributes
    ----------
    moved : bool
        Whether it was elsewhere since it was last read; a gauge that was not read yet counts as moved.
    """

    def __init__(self) -> None:
        self._late: deque[float] = deque(maxlen=_SHOWN)
        self._place = ""
        self._read: tuple[float, str] | None = None
        self._still = 0.0
        self.moved = True

    @property
    def still(self) -> bool:
        """Whether the last few values lie together."""
        return len(self._late) == _SHOWN and max(self._late) - min(self._late) <= self._still

    def show(self, value: float, unit: str, place: str = "") -> bool:
        """Hear another value.

        Parameters
        ----------
        value : float
            In mm or degrees.
        place : str
            Where a stand-in was told to be held; a real gauge says nothing of that.

        Returns
        -------
        bool
            Whether it is clearly elsewhere than the values before: it moves.
        """
        limit = STILL[unit]
        if place != self._place or limit != self._still:
            self._late.clear()  # another place, or another gauge
        off = bool(self._late) and abs(value - self._late[-1]) > limit
        self._place, self._still = place, limit
        self._late.append(value)
        if self._read is not None and (
            abs(value - self._read[0]) > 2 * limit or place != self._read[1]
        ):
            self.moved, self._read = True, None
        return off

    def read(self) -> None:
        """What it shows now was taken."""
        if self._late:
            self._read, self.moved = (self._late[-1], self._place), False

    def forget(self) -> None:
        """It was pulled, or fell silent: what it showed says nothing of what it will show."""
        self._late.clear()
