"""The smooth-line check: where a longeron leaves the fair curve, and by how much."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.fuselage.loft import LINES, Line, loft_of
from hardkeel.fuselage.model import TAIL_POST, Fuselage
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

LEAST_BUMP_MM: Final = 0.6  # less than this a sanding block takes off without being told
_STANDS_OUT: Final = 3.0  # times what the other stations leave; a drawn corner is then no bump
_LEAST_NOISE_MM: Final = 0.2
_LEAST_STATIONS: Final = 5  # with fewer nobody can say which of them is off
_MOST_BUMPS: Final = 4


@dataclass(frozen=True, slots=True)
class Bump:
    """A station that does not lie on the fair curve through the others.

    Attributes
    ----------
    line : {"half_width", "top", "bottom"}
    off : float
        Drawn minus fair, mm.
    fair : float
        The figure that lies on the curve, mm.
    """

    line: Line
    former: str
    station: float
    off: float
    fair: float


def bumps_of(fuselage: Fuselage) -> tuple[Bump, ...]:
    """The bumps of all three lines, the greatest first; none where there are too few stations."""
    if len(fuselage.stops) < _LEAST_STATIONS:
        return ()
    loft = loft_of(fuselage)
    found: list[Bump] = []
    for line in LINES:
        heights = loft.line(line).y.copy()
        for _ in range(_MOST_BUMPS):
            bump = _worst(line, loft.names, loft.stations, heights)
            if bump is None:
                break
            found.append(bump)
            heights[loft.names.index(bump.former)] = bump.fair
    return tuple(sorted(found, key=lambda bump: -abs(bump.off)))


def _worst(line: Line, names: tuple[str, ...], x: Array, y: Array) -> Bump | None:
    """The station whose removal relaxes the batten most, if it stands out from the rest.

    A bump pushes its neighbours' fair places the other way, so the greatest misfit alone would
    sometimes blame a neighbour; the bending energy that goes when the pin is drawn does not.
    """
    whole = NaturalCubic(x, y).energy
    inner = range(1, len(x) - 1)
    relief = {i: whole - _without(x, y, i).energy for i in inner}
    worst = max(relief, key=lambda i: relief[i])
    fair = float(_without(x, y, worst).value(x[worst]))
    off = float(y[worst] - fair)
    if abs(off) < LEAST_BUMP_MM or names[worst] == TAIL_POST:
        return None
    mended = y.copy()
    mended[worst] = fair
    rest = [abs(mended[i] - _without(x, mended, i).value(x[i])) for i in inner if i != worst]
    if abs(off) < _STANDS_OUT * max(float(np.median(rest)), _LEAST_NOISE_MM):
        return None
    return Bump(line, names[worst], float(x[worst]), off, round(fair, 2))


def _without(x: Array, y: Array, i: int) -> NaturalCubic:
    return NaturalCubic(np.delete(x, i), np.delete(y, i))
