"""Tails of distributions, so that a fit can be judged without reading a large library first."""

import math
from typing import Final

_TERMS: Final = 10_000
_CLOSE: Final = 1e-15
_TINY: Final = 1e-300


def chi_square_beyond(chi2: float, freedom: float) -> float:
    """How probable a chi-square of `freedom` degrees, whole or not, lies beyond `chi2`.

    The regularised incomplete gamma function Q(freedom/2, chi2/2): its series (M. Abramowitz and I. Stegun,
    *Handbook of Mathematical Functions*, 6.5.29) below the hump, its continued fraction (6.5.31) by Lentz's
    method beyond.
    """
    a, x = freedom / 2, chi2 / 2
    if x <= 0:
        return 1.0
    scale = math.exp(a * math.log(x) - x - math.lgamma(a))
    if x < a + 1:
        return max(0.0, 1.0 - scale * _series(a, x))
    return min(1.0, scale * _fraction(a, x))


def _series(a: float, x: float) -> float:
    term = total = 1.0 / a
    for n in range(1, _TERMS):
        term *= x / (a + n)
        total += term
        if term < total * _CLOSE:
            break
    return total


def _fraction(a: float, x: float) -> float:
    b = x + 1 - a
    c, d = 1 / _TINY, 1 / b
    value = d
    for n in range(1, _TERMS):
        step = -n * (n - a)
        b += 2
        d = 1 / (step * d + b or _TINY)
        c = b + step / c or _TINY
        value *= c * d
        if abs(c * d - 1) < _CLOSE:
            break
    return value
