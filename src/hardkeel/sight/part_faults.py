"""Where a checked part is off: stretches of its edges, named by the side that they are on."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.joinery.flat import FlatPiece
from hardkeel.sight.edges import REACH_MM
from hardkeel.sight.part_check import Check

LIMIT_MM: Final = 0.1  # less is as drawn: a sanding stroke takes off twice as much
_SIGMAS: Final = 3.0
_GAP: Final = 4  # places between two stretches that are one
_HAIR_MM: Final = 0.1
_LEAST: Final = 3  # places: less is a splinter
_LONG_SHARE: Final = 0.85  # of an edge: all of it
Places = NDArray[np.signedinteger]
_Along = tuple[str, str, str]  # over zero, under it, of what
_Words = tuple[tuple[str, str], tuple[str, str], tuple[_Along, _Along]]
_MIDDLE: Final[_Along] = ("to starboard", "to port", "of the middle")
_DATUM: Final[_Along] = ("above", "below", "the datum")
_FRONT: Final[_Along] = ("behind", "before", "its front end")
_ROOT: Final[_Along] = ("out", "in", "from the root")
_LEFT: Final[_Along] = ("from", "from", "its left end")
_LOW: Final[_Along] = ("from", "from", "its lower end")
# what an edge is called by the way it looks, u and v positive first, and what is counted along u and v
_ACROSS: Final[_Words] = (
    ("the starboard edge", "the port edge"),
    ("the top edge", "the bottom edge"),
    (_MIDDLE, _DATUM),
)
_BESIDE: Final[_Words] = (
    ("the rear edge", "the front edge"),
    ("the top edge", "the bottom edge"),
    (_FRONT, _DATUM),
)
_ABOVE: Final[_Words] = (
    ("the rear edge", "the front edge"),
    ("the starboard edge", "the port edge"),
    (_FRONT, _MIDDLE),
)
_HALF: Final[_Words] = (
    ("the rear edge", "the front edge"),
    ("the outer edge", "the inner edge"),
    (_FRONT, _ROOT),
)
_DRAWN: Final[_Words] = (
    ("the right edge as drawn", "the left edge as drawn"),
    ("the upper edge as drawn", "the lower edge as drawn"),
    (_LEFT, _LOW),
)
_WORDS: Final = {
    "former": _ACROSS,
    "side": _BESIDE,
    "doubler": _BESIDE,
    "keel": _BESIDE,
    "rib": _BESIDE,
    "control rib": _BESIDE,
    "template": _BESIDE,
    "crutch": _ABOVE,
    "undercarriage-plate": _ABOVE,
    "servo-tray": _ABOVE,
    "battery-tray": _ABOVE,
    "dowel-plate": _ABOVE,
    "skin": _HALF,
    "form": _HALF,
}
# counted from the drawing's own zero, which is the datum or the middle; all else from its end
_FROM_ZERO: Final = (_DATUM, _MIDDLE)


@dataclass(frozen=True, slots=True)
class Fault:
    """A stretch of edge where wood is proud or short.

    Attributes
    ----------
    by : float
        At its worst, mm; wood left on positive.
    span : (float, float), optional
        From where to where along the edge, mm, in the axis that `along` names; ``None``: all of it.
    ends : tuple of two (u, v)
        The marks that it lies between.
    hole : int
        0 the outline, else which hole.
    place : int
        The number of the place at its middle in the check.
    """

    by: float
    edge: str
    span: tuple[float, float] | None
    along: tuple[str, str, str]
    ends: tuple[tuple[float, float], tuple[float, float]]
    hole: int
    place: int

    @property
    def at_least(self) -> bool:
        """Whether it is off by more than was looked at."""
        return abs(self.by) > REACH_MM - _HAIR_MM


def noticed_from(check: Check, limit: float = LIMIT_MM) -> float:
    """What a place must be off by to be called off, mm: less is not told from none."""
    return max(limit, _SIGMAS * check.sigma)


def faults_of(check: Check, piece: FlatPiece, limit: float = LIMIT_MM) -> tuple[Fault, ...]:
    """The stretches that are off by more than `limit` and three sigma, the worst first.

    Parameters
    ----------
    limit : float
        mm.
    """
    least = noticed_from(check, limit)
    by = check.smooth
    found: list[Fault] = []
    for ring in np.unique(check.ring):
        one = np.flatnonzero(check.ring == ring)
        for sign in (1.0, -1.0):
            off = np.nan_to_num(by[one]) * sign > least
            for run in _runs(off):
                found += _faults(check, piece, one[run], sign)
    return tuple(sorted(found, key=lambda fault: -abs(fault.by)))


def _runs(off: NDArray[np.bool_]) -> list[Places]:
    """Stretches of a closed ring, small gaps closed, crumbs left out."""
    places = np.flatnonzero(off)
    if not len(places):
        return []
    breaks = np.flatnonzero(np.diff(places) > _GAP)
    parts = np.split(places, breaks + 1)
    round_ = len(off) - places[-1] + places[0] <= _GAP
    if len(parts) > 1 and round_:
        parts = [np.concatenate([parts[-1], parts[0]]), *parts[1:-1]]
    return [part for part in parts if len(part) >= _LEAST]


def _faults(check: Check, piece: FlatPiece, run: Places, sign: float) -> list[Fault]:
    """One stretch, cut where it goes round from one side to the next."""
    words = _WORDS.get(piece.kind, _DRAWN)
    if check.ring[run[0]] > 0:
        return [_hole(check, piece, run, sign)]
    sides = [_side(check.normal[i]) for i in run]
    found, start = [], 0
    for end in range(1, len(run) + 1):
        if end < len(run) and sides[end] == sides[start]:
            continue
        part = run[start:end]
        if len(part) >= _LEAST:
            found.append(_edge(check, part, sides[start], words, sign))
        start = end
    return found


def _edge(check: Check, run: Places, side: tuple[int, int], words: _Words, sign: float) -> Fault:
    axis, way = side
    worst = float(np.nanmax(check.smooth[run] * sign)) * sign
    along = 1 - axis
    alike = [
        i for i in range(len(check.at)) if check.ring[i] == 0 and _side(check.normal[i]) == side
    ]
    whole = len(run) >= _LONG_SHARE * len(alike)
    low, high = float(check.at[run, along].min()), float(check.at[run, along].max())
    if words[2][along] not in _FROM_ZERO:
        first = float(check.at[:, along].min())
        low, high = low - first, high - first
    ends = tuple((float(u), float(v)) for u, v in (check.at[run[0]], check.at[run[-1]]))
    edges = words[0] if axis == 0 else words[1]
    return Fault(
        worst,
        edges[0 if way > 0 else 1],
        None if whole else (low, high),
        words[2][along],
        ends,  # type: ignore[arg-type]
        0,
        _middle(run),
    )


def _hole(check: Check, piece: FlatPiece, run: Places, sign: float) -> Fault:
    number = int(check.ring[run[0]])
    worst = float(np.nanmax(check.smooth[run] * sign)) * sign
    ends = tuple((float(u), float(v)) for u, v in (check.at[run[0]], check.at[run[-1]]))
    name = "the hole" if len(piece.holes) == 1 else f"hole {number}"
    whole = len(run) >= _LONG_SHARE * int(np.sum(check.ring == number))
    # an edge of a hole looks into it: its starboard side looks to port
    axis, way = _side(-check.normal[run].mean(axis=0))
    words = _WORDS.get(piece.kind, _DRAWN)
    edges = words[0] if axis == 0 else words[1]
    side = "" if whole else edges[0 if way > 0 else 1].replace(" edge", " side")
    return Fault(worst, name, None, ("", "", side), ends, number, _middle(run))  # type: ignore[arg-type]


def _middle(run: Places) -> int:
    return int(run[len(run) // 2])


def _side(normal: Array) -> tuple[int, int]:
    """Which axis an edge looks along, and which way."""
    u, v = float(normal[0]), float(normal[1])
    if abs(u) >= abs(v):
        return 0, int(math.copysign(1, u))
    return 1, int(math.copysign(1, v))
