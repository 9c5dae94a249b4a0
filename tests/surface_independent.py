"""A second way to the loft between formers, from the contract's text: dense contours, SciPy's natural splines."""

from collections.abc import Callable
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

Array = NDArray[np.float64]
_A_QUARTER = 1500


def by_share(half: Array, heights: tuple[float, float, float]) -> Array:
    """A dense starboard half as points of equal share of the arc between keel, shoulders, widest line and crown."""
    found = []
    ends = (-np.inf, *heights, np.inf)
    for low, high in pairwise(ends):
        part = half[(half[:, 1] >= low - 1e-9) & (half[:, 1] <= high + 1e-9)]
        edges = [one for one in (low, high) if np.isfinite(one)]
        points = [(float(np.interp(z, half[:, 1], half[:, 0])), z) for z in edges]
        part = np.vstack([part, np.array(points)])
        part = part[np.argsort(part[:, 1], kind="stable")]
        arc = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(part, axis=0).T))])
        at = np.linspace(0.0, arc[-1], _A_QUARTER)
        found.append(np.column_stack([np.interp(at, arc, part[:, i]) for i in (0, 1)]))
    return np.vstack([found[0], *(one[1:] for one in found[1:])])


def between(stations: Array, halves: list[Array]) -> Callable[[float], Array]:
    """The starboard contour anywhere: one natural spline for each y and z of equal share."""
    line = CubicSpline(stations, np.array(halves), bc_type="natural")
    return lambda x: np.asarray(line(x))


def girth(half: Array) -> float:
    """Of the whole section, mm."""
    return 2 * float(np.sum(np.hypot(*np.diff(half, axis=0).T)))


def area(half: Array) -> float:
    """Of the whole section, by trapezoids from the centre line, mm²."""
    return 2 * abs(float(np.trapezoid(half[:, 0], half[:, 1])))
