"""The natural cubic spline: the shape of a thin batten held at points.

C. de Boor, "A Practical Guide to Splines", revised edition, Springer 2001, chapter IV.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise

import numpy as np

from hardkeel.geometry.rotation import Array

_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(12)
_CURVED_FROM = 3  # points; fewer lie on a straight line


@dataclass(frozen=True)
class NaturalCubic:
    """A natural cubic through (x, y), straight on beyond its ends.

    Attributes
    ----------
    x : Array
        Shape (n,), n ≥ 1, strictly rising.
    y : Array
        Shape (n,).
    corners : tuple of int
        Points at which it is broken: to either side a batten of its own, that ends there.  Its slope there is that of
        the one behind.
    """

    x: Array
    y: Array
    corners: tuple[int, ...] = ()

    @cached_property
    def bends(self) -> Array:
        """Second derivatives at the points, shape (n,); zero at both ends."""
        bends = np.zeros(len(self.x))
        for a, b in pairwise(ends_of(len(self.x), self.corners)):
            if b - a + 1 >= _CURVED_FROM:
                h = np.diff(self.x[a : b + 1])
                rise = np.diff(self.y[a : b + 1]) / h
                matrix = np.diag(2 * (h[:-1] + h[1:]))
                matrix += np.diag(h[1:-1], 1) + np.diag(h[1:-1], -1)
                bends[a + 1 : b] = np.linalg.solve(matrix, 6 * np.diff(rise))
        return bends

    def value(self, at: Array | float) -> Array:
        """Heights of the curve, in the shape of `at`."""
        return self._at(at, 0)

    def slope(self, at: Array | float) -> Array:
        """First derivatives, in the shape of `at`."""
        return self._at(at, 1)

    def bend(self, at: Array | float) -> Array:
        """Second derivatives, in the shape of `at`; zero beyond the ends."""
        return self._at(at, 2)

    def _at(self, at: Array | float, order: int) -> Array:
        t = np.asarray(at, dtype=float)
        if len(self.x) == 1:
            return np.full_like(t, self.y[0] if order == 0 else 0.0)
        i = np.clip(np.searchsorted(self.x, t, side="right") - 1, 0, len(self.x) - 2)
        h = self.x[i + 1] - self.x[i]
        y0, y1, m0, m1 = self.y[i], self.y[i + 1], self.bends[i], self.bends[i + 1]
        inside = np.clip(t, self.x[0], self.x[-1])
        b = (inside - self.x[i]) / h
        a = 1 - b
        slope = (y1 - y0) / h + h / 6 * ((3 * b**2 - 1) * m1 - (3 * a**2 - 1) * m0)
        if order == 1:
            return np.asarray(slope)
        if order == 2:  # noqa: PLR2004  second derivative
            return np.asarray(np.where(t == inside, a * m0 + b * m1, 0.0))
        curve = a * y0 + b * y1 + h**2 / 6 * ((a**3 - a) * m0 + (b**3 - b) * m1)
        return np.asarray(curve + slope * (t - inside))

    @property
    def energy(self) -> float:
        """Integral of the squared second derivative: what the batten resists with."""
        h, m = np.diff(self.x), self.bends
        return float(np.sum(h / 3 * (m[:-1] ** 2 + m[:-1] * m[1:] + m[1:] ** 2)))


def ends_of(count: int, corners: tuple[int, ...]) -> list[int]:
    """Where the battens of a line of `count` points begin and end."""
    return [0, *sorted({i for i in corners if 0 < i < count - 1}), count - 1]


@lru_cache(maxsize=256)
def weights(
    knots: tuple[float, ...],
    at: tuple[float, ...],
    order: int = 0,
    corners: tuple[int, ...] = (),
) -> Array:
    """What each knot's height has in a natural cubic's value (0), slope (1) or bend (2) at places, shape (m, n).

    With them many curves over the same knots are one product.
    """
    x, places = np.array(knots), np.array(at)
    columns = []
    for unit in np.eye(len(x)):
        line = NaturalCubic(x, unit, corners)
        columns.append((line.value, line.slope, line.bend)[order](places))
    found: Array = np.column_stack(columns)
    found.setflags(write=False)  # shared by everyone who asks for the same
    return found


def arc_lengths(curves: tuple[NaturalCubic, ...], knots: Array) -> Array:
    """Length of the curve x → (x, c₁(x), c₂(x), …) from the first knot to each, shape (n,).

    Gauss–Legendre quadrature with twelve nodes between neighbouring knots, which for curves as
    slender as a fuselage side is exact to well under a micrometre.
    """
    half = np.diff(knots)[:, None] / 2
    at = (knots[:-1, None] + knots[1:, None]) / 2 + half * _NODES
    speed = np.sqrt(1 + sum(curve.slope(at) ** 2 for curve in curves))
    return np.concatenate([[0.0], np.cumsum(np.sum(half * _WEIGHTS * speed, axis=1))])


def arc_length_at(curves: tuple[NaturalCubic, ...], knots: Array, at: Array) -> Array:
    """The same length from the first knot to any places between the first and the last, shape of `at`."""
    base = arc_lengths(curves, knots)
    i = np.clip(np.searchsorted(knots, at, side="right") - 1, 0, len(knots) - 2)
    half = (at - knots[i])[:, None] / 2
    places = knots[i][:, None] + half + half * _NODES
    speed = np.sqrt(1 + sum(curve.slope(places) ** 2 for curve in curves))
    return np.asarray(base[i] + np.sum(half * _WEIGHTS * speed, axis=1))
