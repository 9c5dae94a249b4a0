"""A second way to section shapes, from the contract's text alone: dense points of the equation, plain sums."""

import math

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon

Array = NDArray[np.float64]
_FINE = 20_001
_COARSE = 601  # for what is cut with it: a chord of it lies off by less than a hundredth


def points(  # noqa: PLR0913, PLR0917  the equation's own letters
    half: float, low: float, high: float, widest: float, n: float, m: float, fine: int = _FINE
) -> Array:
    """Starboard half from the bottom to the top, shape (k, 2): y by z where it is steep, z by y where it is flat."""
    found = []
    for tall, power, sign in ((widest - low, m, -1.0), (high - widest, n, 1.0)):
        # where both shares are alike: beyond it the other coordinate is the better one to go by
        turn = 0.5 ** (1 / power)
        by_z = np.linspace(0.0, turn, fine)
        side = np.column_stack([(1 - by_z**power) ** (1 / power), by_z])
        by_y = np.linspace(turn, 0.0, fine)
        end = np.column_stack([by_y, (1 - by_y**power) ** (1 / power)])
        quarter = np.vstack([side, end[1:]])
        quarter = np.column_stack([half * quarter[:, 0], widest + sign * tall * quarter[:, 1]])
        found.append(quarter if sign > 0 else quarter[::-1])
    return np.vstack([found[0], found[1][1:]])


def girth(half_ring: Array) -> float:
    """Of the whole section, mm."""
    return 2 * float(np.sum(np.hypot(*np.diff(half_ring, axis=0).T)))


def area(half: float, low: float, high: float, widest: float, n: float, m: float) -> float:
    """Of the whole section by Dirichlet's integral: a quarter is a·b·Γ(1+1/n)²/Γ(1+2/n)."""
    total = 0.0
    for tall, power in ((widest - low, m), (high - widest, n)):
        share = math.gamma(1 + 1 / power) ** 2 / math.gamma(1 + 2 / power)
        total += 2 * half * tall * share
    return total


def inside(  # noqa: PLR0913, PLR0917  the equation's own letters
    half: float, low: float, high: float, widest: float, n: float, m: float, skin: float
) -> Polygon:
    """The section less a skin of one thickness, square to it."""
    half_ring = points(half, low, high, widest, n, m, _COARSE)
    mirrored = half_ring[::-1] * (-1.0, 1.0)
    whole = Polygon(np.vstack([half_ring, mirrored[1:-1]]))
    return whole.buffer(-skin, quad_segs=24)
