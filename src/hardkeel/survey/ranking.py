"""Which reading is most worth taking next: by predicted sigma, without solving again."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.model import Reading, sigma_of

_LEAST_GAIN: Final = 0.01  # a reading that sharpens by less than 1 % is not worth walking for


@dataclass(frozen=True, slots=True)
class NextReading:
    """A reading worth taking.

    Attributes
    ----------
    reading : Reading
        Where to take it; its value is what the estimate expects.
    helps : str
        The check that it sharpens most wanted.
    sigma_now, sigma_after : float
        That check's sigma before and after, degrees or mm.
    """

    reading: Reading
    helps: str
    sigma_now: float
    sigma_after: float


def worst_undecided(checks: Sequence[Check]) -> Check | None:
    """The unsure check whose sigma is largest for its tolerance."""
    unsure = [check for check in checks if check.verdict == "unsure"]
    return max(unsure, key=lambda c: c.sigma / c.tolerance) if unsure else None


def rank(
    net: Network,
    solution: Solution,
    candidates: Sequence[Reading],
    rule: CheckRule,
    most: int = 5,
) -> tuple[NextReading, ...]:
    """The best candidates for one check, best first.

    Adding a reading with row j and sigma s changes the covariance by rank one (Sherman and
    Morrison, Ann. Math. Stat. 21 (1950), 124–127), so a check g's variance becomes
    gCgᵀ − (gCjᵀ)² / (s² + jCjᵀ): one matrix product ranks every candidate.
    """
    if not candidates:
        return ()
    after, expected = predicted_sigmas(net, solution, candidates, rule.slope)
    now = float(np.sqrt(rule.slope @ solution.covariance @ rule.slope))
    best = np.argsort(after, kind="stable")[:most]
    return tuple(
        NextReading(candidates[i].but(value=float(expected[i])), rule.id, now, float(after[i]))
        for i in best
        if after[i] < now * (1 - _LEAST_GAIN)
    )


def predicted_sigmas(
    net: Network, solution: Solution, candidates: Sequence[Reading], slope: Array
) -> tuple[Array, Array]:
    """A check's sigma after each candidate alone, shape (c,), and what each would read."""
    expected, rows = net.observer(candidates).predict(solution.unknowns, solution.placed)
    sigmas = np.array([sigma_of(reading) for reading in candidates])
    spread = rows @ solution.covariance
    own = np.einsum("ci,ci->c", spread, rows)
    gain = (spread @ slope) ** 2 / (sigmas**2 + own)
    variance = slope @ solution.covariance @ slope - gain
    return np.sqrt(np.maximum(variance, 0.0)), expected
