"""Where a real gauge may be plugged in on this machine."""

from dataclasses import dataclass


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
    from serial.tools.list_ports import comports  # noqa: PLC0415  loaded when a gauge is asked for

    found = [
        (one.device, "" if one.description in (None, "n/a") else one.description)
        for one in comports()
    ]
    return tuple(Place(url, words) for url, words in sorted(found, key=lambda p: (not p[1], p[0])))
