"""A second way to the trim section's figures: numbers alone, by balance of moments and by differences, no shared code.

Where the contract gives a closed formula this solves the equations that it came from, by small steps.
"""

import math
from dataclasses import dataclass

import numpy as np


@dataclass
class Plane:
    """Wing (s, ar, c, x), tail (st, art, xt), all in metres; degrees where said."""

    s: float
    ar: float
    c: float
    x: float
    st: float
    art: float
    xt: float
    cm0: float
    zero_lift: float
    tail_zero_lift: float
    eta: float = 0.9

    def slope(self, ar: float) -> float:
        return 2 * math.pi * ar / (2 + math.sqrt(ar * ar + 4))

    def state(self, alpha: float, decalage: float, h: float) -> tuple[float, float]:
        """Lift coefficient and pitching moment about the balance point, alpha of the wing from no lift, radians."""
        a, at = self.slope(self.ar), self.slope(self.art)
        lift_wing = a * alpha
        wash = 2 * lift_wing / (math.pi * self.ar)
        # chord lines: the wing's stands at alpha + its zero lift; the tail's lower by the decalage
        tail = alpha + math.radians(self.zero_lift) - math.radians(decalage) - wash - math.radians(self.tail_zero_lift)  # fmt: skip
        share = self.eta * self.st / self.s * at * tail
        arm = (self.xt - self.x) / self.c
        # moments by the contract: the whole lift at the balance point, the tail's about the wing's centre
        lift = lift_wing + share
        return lift, self.cm0 + lift * (h - 0.25) - share * arm

    def neutral(self) -> float:
        """Where moment does not change with the angle: by differences."""
        step = 1e-4
        low, high = 0.0, 8.0
        for _ in range(200):
            middle = (low + high) / 2
            slope = (
                self.state(0.1 + step, 1.0, middle)[1] - self.state(0.1, 1.0, middle)[1]
            ) / step
            low, high = (middle, high) if slope < 0 else (low, middle)
        return (low + high) / 2

    def trims(self, lift: float, h: float) -> float:
        """The decalage at which lift is wanted and the moment is nothing: two nested halvings."""
        low, high = -40.0, 60.0
        for _ in range(100):
            middle = (low + high) / 2
            alpha = self._alpha(lift, middle, h)
            low, high = (middle, high) if self.state(alpha, middle, h)[1] < 0 else (low, middle)
        return (low + high) / 2

    def _alpha(self, lift: float, decalage: float, h: float) -> float:
        low, high = -2.0, 2.0
        for _ in range(100):
            middle = (low + high) / 2
            low, high = (
                (middle, high) if self.state(middle, decalage, h)[0] < lift else (low, middle)
            )
        return (low + high) / 2


def flap(fraction: float) -> float:
    """Flap effectiveness by summing Glauert's thin-aerofoil integral over the chord."""
    n = 200_000
    theta = (np.arange(n) + 0.5) * math.pi / n
    moving = (1 - np.cos(theta)) / 2 > 1 - fraction
    total = float(((1 - np.cos(theta)) * moving).sum()) * math.pi / n
    # lift of a kinked line against that of a turned one: −(1/π)·∫ dz/dx (cos θ − 1) dθ
    return total / math.pi
