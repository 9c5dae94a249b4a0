"""How well readings watch over one another: what is left of a check when any one of them is bad.

A list that only sharpens rests on readings that nothing checks, and on pairs of which either may be the bad one.
Here each reading that might be taken is weighed by what the checks would then be worth though one reading in three
were thrown away, and by the pairs that could still not be told apart.

With A the whitened slopes of the readings in hand, C the covariance, Q = I − A·C·Aᵀ and B = G·C·Aᵀ (G the slopes of
the checks), leaving out reading i makes the variance of a check v + Bᵢ²/Qᵢᵢ; one reading more changes C, Q and B by
rank one (Sherman and Morrison, Ann. Math. Stat. 21 (1950), 124–127).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Reading, sigma_of

TWO_FACED: Final = 0.8  # |ρ| of two readings from which either may be the bad one: the contract's
_SHARE_LOST: Final = (
    0.3  # weighs a reading that falls away: far more than are bad, so that none is leaned on
)
_PAIR: Final = 3.0  # of a check's e-folding: what it is worth that two can be told apart; by trial
_LEAST: Final = 1e-9


@dataclass(frozen=True)
class Watch:
    """Readings in hand about an estimate.

    Attributes
    ----------
    rows : Array
        Shape (r, n): their slopes over their sigmas.
    covariance : Array
        Shape (n, n): with them.
    slopes : Array
        Shape (g, n): of the checks, over their tolerances.
    """

    rows: Array
    covariance: Array
    slopes: Array

    @property
    def cofactors(self) -> Array:
        """Q, shape (r, r)."""
        q: Array = np.eye(len(self.rows)) - self.rows @ self.covariance @ self.rows.T
        return q

    def one_more(self, rows: Array) -> "OneMore":
        """What each of these (c, n) whitened rows would do."""
        spread = rows @ self.covariance
        wide = 1 + np.sum(spread * rows, axis=1)
        return OneMore(
            self, self.rows @ spread.T, wide, self.slopes @ spread.T, np.diag(self.cofactors)
        )

    def having(self, row: Array) -> "Watch":
        """With one reading more."""
        spread = self.covariance @ row
        covariance = self.covariance - np.outer(spread, spread) / (1 + row @ spread)
        return Watch(np.vstack([self.rows, row]), covariance, self.slopes)


@dataclass(frozen=True)
class OneMore:
    """Candidates (c) beside readings in hand (r) and checks (g).

    Attributes
    ----------
    across : Array
        Shape (r, c): A·C·aᵀ.
    wide : Array
        Shape (c,): 1 + a·C·aᵀ.
    felt : Array
        Shape (g, c): G·C·aᵀ.
    own : Array
        Shape (r,): redundancies now.
    """

    watch: Watch
    across: Array
    wide: Array
    felt: Array
    own: Array

    def variances(self) -> Array:
        """Of each check after each candidate in squared tolerances, a share of the readings lost; (g, c)."""
        watch = self.watch
        now = np.sum((watch.slopes @ watch.covariance) * watch.slopes, axis=1)
        # with the candidate, and what it alone holds
        total = now[:, None] - (1 - _SHARE_LOST) * self.felt**2 / self.wide
        if len(watch.rows):
            hold = watch.slopes @ watch.covariance @ watch.rows.T
            left = np.maximum(self.own[:, None] + self.across**2 / self.wide, _LEAST)
            held = hold[:, :, None] - self.felt[:, None, :] * (self.across / self.wide)[None]
            total = total + _SHARE_LOST * np.sum(held**2 / left[None], axis=1)
        least: Array = np.maximum(total, _LEAST)
        return least

    def sharpened(self) -> Array:
        """The checks' variances after each alone, their logarithms added up; shape (c,)."""
        watch = self.watch
        now = np.sum((watch.slopes @ watch.covariance) * watch.slopes, axis=1)
        left = np.maximum(now[:, None] - self.felt**2 / self.wide, _LEAST)
        added: Array = np.sum(np.log(left), axis=0)
        return added

    def two_faced(self) -> Array:
        """How far beyond the limit the pairs would be, added up over all pairs; shape (c,)."""
        count = len(self.own)
        if not count:
            return np.zeros(len(self.wide))
        reach = self.across / np.sqrt(self.wide)
        q = self.watch.cofactors[:, :, None] + reach[:, None, :] * reach[None]
        own = np.sqrt(np.maximum(self.own[:, None] + reach**2, _LEAST))
        first, second = np.triu_indices(count, 1)
        alike = np.abs(q[first, second]) / (own[first] * own[second])
        beside = np.abs(reach) / own  # its own redundancy is 1 / wide
        beyond: Array = np.sum(np.maximum(alike - TWO_FACED, 0.0), axis=0)
        beyond += np.sum(np.maximum(beside - TWO_FACED, 0.0), axis=0)
        return beyond

    def worth(self) -> Array:
        """What is left to wish for after each, the less the better; shape (c,)."""
        wish: Array = np.sum(np.log(self.variances()), axis=0)
        wish += _PAIR * self.two_faced()
        return wish


def watch_of(net: Network, solution: Solution, readings: Sequence[Reading], slopes: Array) -> Watch:
    """The watch of readings that an estimate rests on; `slopes` are the checks' over their tolerances."""
    if not readings:
        return Watch(np.zeros((0, net.columns.size)), solution.covariance.copy(), slopes)
    _, rows = net.observer(readings).predict(solution.unknowns, solution.placed)
    sigmas = np.array([sigma_of(reading) for reading in readings])
    return Watch(rows / sigmas[:, None], solution.covariance.copy(), slopes)
