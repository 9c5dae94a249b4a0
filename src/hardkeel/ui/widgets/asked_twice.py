"""A figure far from all sense is asked about once; the same again is taken."""


class AskedTwice:
    """Remembers the figure that was asked about last."""

    def __init__(self) -> None:
        self._asked: tuple[object, float] | None = None

    def wants_asking(self, place: object, value: float, *, sensible: bool) -> bool:
        """Whether this figure at this place is to be asked about before it is believed."""
        if sensible or self._asked == (place, value):
            self._asked = None
            return False
        self._asked = (place, value)
        return True
