"""The smooth-line check: where a longeron leaves the fair curve, and by how much."""

from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.loft import LINES, loft_of
from hardkeel.fuselage.model import Fuselage, Line
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import ends_of

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
    if len(fuselage.stations) < _LEAST_STATIONS:
        return ()
    loft = loft_of(fuselage)
    found: list[Bump] = []
    for line in LINES:
        heights = loft.line(line).y.copy()
        for _ in range(_MOST_BUMPS):
            bump = _worst(line, loft.names, loft.stations, heights, loft.line(line).corners)
            if bump is None:
                break
            found.append(bump)
            heights[loft.names.index(bump.former)] = bump.fair
    return tuple(sorted(found, key=lambda bump: -abs(bump.off)))


def _worst(
    line: Line, names: tuple[str, ...], x: Array, y: Array, corners: tuple[int, ...]
) -> Bump | None:
    """The station that, once faired, leaves the others nearest to fair, if it stands out from them.

    A bump pushes its neighbours' fair places the other way, so the greatest misfit alone would often
    blame a neighbour; and the energy that goes with a pin would favour those with wide gaps beside
    them.  What the rest leaves does neither.
    """
    stiff = stiffness(x, corners)
    # where one straight piece ends at a corner nothing holds the batten to either side
    own = np.where(np.diag(stiff) > 0, np.diag(stiff), np.inf)
    off = stiff @ y / own
    # column i: what every station is off once station i is faired
    rest = off[:, None] - off[None, :] * stiff / own[:, None]
    # a corner is drawn as one: it is no bump, and no station is fair or not for its sake
    inner = np.array([i for i in range(1, len(x) - 1) if i not in corners and np.isfinite(own[i])])
    if len(inner) < _LEAST_STATIONS - 2:
        return None
    left = rest[np.ix_(inner, inner)]
    np.fill_diagonal(left, 0.0)
    worst = int(inner[np.argmin(np.sum(left**2, axis=0))])
    if abs(off[worst]) < LEAST_BUMP_MM:
        return None
    others = np.abs([rest[j, worst] for j in inner if j != worst])
    if abs(off[worst]) < _STANDS_OUT * max(float(np.median(others)), _LEAST_NOISE_MM):
        return None
    fair = float(y[worst] - off[worst])
    return Bump(line, names[worst], float(x[worst]), float(off[worst]), fair)


def stiffness(x: Array, corners: tuple[int, ...] = ()) -> Array:
    """K of the battens between corners, of the bending energy of all of them, shape (n, n)."""
    whole = np.zeros((len(x), len(x)))
    for a, b in pairwise(ends_of(len(x), corners)):
        if b - a > 1:
            whole[a : b + 1, a : b + 1] += _stiffness(x[a : b + 1])
    return whole


def _stiffness(x: Array) -> Array:
    """K of the batten's bending energy yᵀ K y through pins at x, shape (n, n).

    K = Q R⁻¹ Qᵀ with the band matrices of P. J. Green and B. W. Silverman, "Nonparametric Regression
    and Generalized Linear Models", Chapman & Hall 1994, §2.1.2.  A pin drawn out lets the batten go
    where the energy is least, so that pin i is off it by (K y)ᵢ / Kᵢᵢ.
    """
    n, h = len(x), np.diff(x)
    q = np.zeros((n, n - 2))
    r = np.zeros((n - 2, n - 2))
    for j in range(n - 2):
        q[j, j], q[j + 1, j], q[j + 2, j] = 1 / h[j], -1 / h[j] - 1 / h[j + 1], 1 / h[j + 1]
        r[j, j] = (h[j] + h[j + 1]) / 3
        if j + 1 < n - 2:
            r[j, j + 1] = r[j + 1, j] = h[j + 1] / 6
    return np.asarray(q @ np.linalg.solve(r, q.T))
