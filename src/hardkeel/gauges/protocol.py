"""The text line protocol, both ends: one ASCII line each way, ended by a line feed.

=======================  =======================================================
the computer asks        the gauge answers
=======================  =======================================================
``WHO``                  ``IAM incidence NAME VERSION``
``ZERO``                 ``OK`` and calls what it now feels zero
``READ``                 ``VAL +2.15 deg`` or ``VAL 231.5 mm``
``HOLD datum``           stand-ins only: it is now held on the datum; ``OK``
``HOLD {reading json}``  stand-ins only: it is now held at this reading; ``OK``
anything else            ``ERR why``
=======================  =======================================================
"""

import re
from dataclasses import dataclass
from typing import Final, Literal

GaugeKind = Literal["incidence", "level", "tape"]
GAUGE_KINDS: Final[tuple[GaugeKind, ...]] = ("incidence", "level", "tape")
LONGEST_LINE: Final = 2000

# Which kinds of reading each gauge can take.
TAKES: Final[dict[GaugeKind, frozenset[str]]] = {
    "incidence": frozenset({"incidence"}),
    "level": frozenset({"tilt"}),
    "tape": frozenset({"distance", "height", "offset", "distance-difference"}),
}
UNITS: Final[dict[GaugeKind, str]] = {"incidence": "deg", "level": "deg", "tape": "mm"}
_MOST: Final = {"deg": 180.0, "mm": 40_000.0}  # no gauge of ours shows more: it is past its range
_VALUE = re.compile(r"VAL ([+-]?\d{1,6}(?:\.\d{1,6})?) (deg|mm)")


@dataclass(frozen=True, slots=True)
class Shown:
    """What a gauge shows."""

    value: float
    unit: str


def parse_value(line: str) -> Shown | None:
    """The value in an answer; ``None`` for anything else: garbled lines, and what a gauge past its range shows."""
    match = _VALUE.fullmatch(line.strip())
    if match is None:
        return None
    value = float(match[1])
    return Shown(value, match[2]) if abs(value) <= _MOST[match[2]] else None


def value_line(value: float, unit: str, digits: int) -> str:
    """The answer to READ."""
    return f"VAL {value:+.{digits}f} {unit}"


def gauge_for(kind: str) -> GaugeKind | None:
    """The gauge that takes a kind of reading."""
    return next((gauge for gauge in GAUGE_KINDS if kind in TAKES[gauge]), None)
