"""Where a real gauge may be plugged in on this machine."""

from dataclasses import dataclass

from hardkeel.gauges.wire import ports_found


@dataclass(frozen=True, slots=True)
class Place:
    """A serial port that the system knows.

    Attributes
    ----------
    url : str
        What pyserial opens.
    words : str
        What the system calls the thing behind it.
    """

    url: str
    words: str


def found_places() -> tuple[Place, ...]:
    """The serial ports of this machine, those with something behind them first."""
    found = [(url, "" if words in (None, "n/a") else words) for url, words in ports_found()]
    return tuple(Place(url, words) for url, words in sorted(found, key=lambda p: (not p[1], p[0])))
