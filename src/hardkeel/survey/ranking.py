"""Which reading is most worth taking next: by predicted sigma, without solving again."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.candidates import Available
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.handiness import handiest
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Reading, sigma_of
from hardkeel.survey.roles import turn_of

KNOWN: Final = 0.25  # sigma against tolerance at which a true part is seen to be true
WORTH: Final = 0.99  # a reading that sharpens by less than 1 % is not worth walking for


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


def undecided(checks: Sequence[Check]) -> list[Check]:
    """The unsure checks, one body after another, first the one whose sigma is largest for its tolerance.

    What is known and lies at the limit is left alone: no reading decides it, only a hand.
    """
    unsure = [check for check in checks if check.verdict == "unsure" and not check.edge]
    named = [check.body for check in checks]
    return sorted(
        unsure,
        key=lambda c: (
            c.sigma <= KNOWN * c.tolerance,
            turn_of(c.role),
            named.index(c.body),
            -c.sigma / c.tolerance,
        ),
    )


def rank(
    available: Available, solution: Solution, rule: CheckRule, most: int = 5, worth: float = WORTH
) -> tuple[NextReading, ...]:
    """The best of what is offered for one check, the handiest of the nearly best first.

    Adding a reading with row j and sigma s changes the covariance by rank one (Sherman and
    Morrison, Ann. Math. Stat. 21 (1950), 124–127), so a check g's variance becomes
    gCgᵀ − (gCjᵀ)² / (s² + jCjᵀ): one matrix product ranks every candidate.

    Where no reading alone is worth taking the best two are given, each with the sigma that both
    together would leave.

    Parameters
    ----------
    worth : float
        Share of its sigma that a check must be left with at most, else a reading is not worth the walk.
    """
    candidates, rows, noise = available.readings, available.rows, available.noise
    if not candidates:
        return ()
    variance = float(rule.slope @ solution.covariance @ rule.slope)
    now = math.sqrt(variance)
    gains = single_gains(rows, noise, solution.covariance, rule.slope)
    after = np.sqrt(np.maximum(variance - gains, 0.0))
    order = handiest(after, available.efforts, available.nearly)[:most]
    best = [int(i) for i in order if after[i] < now * worth]
    sigmas = [float(after[i]) for i in best]
    if not best:
        first, second, gain = best_pair(rows, noise, solution.covariance, rule.slope)
        pair_sigma = math.sqrt(max(variance - gain, 0.0))
        if pair_sigma < now * worth:
            best, sigmas = [first, second], [pair_sigma, pair_sigma]
    return tuple(
        NextReading(candidates[i].but(value=float(available.expected[i])), rule.id, now, sigma)
        for i, sigma in zip(best, sigmas, strict=True)
    )


def promised(
    net: Network,
    solution: Solution,
    readings: Sequence[Reading],
    rules: Sequence[CheckRule],
    checks: Sequence[Check],
) -> tuple[NextReading, ...]:
    """Readings in their given order, each with the check that it sharpens most; without checks none."""
    wanted = {check.id for check in checks}
    held = [rule for rule in rules if rule.id in wanted]
    if not held:
        return ()
    sharper: list[list[tuple[float, str, float, float, float]]] = [[] for _ in readings]
    for rule in held:
        after, expected = predicted_sigmas(net, solution, readings, rule.slope)
        now = math.sqrt(float(rule.slope @ solution.covariance @ rule.slope))
        for i, (then, value) in enumerate(zip(after.tolist(), expected.tolist(), strict=True)):
            sharper[i].append((then / now, rule.id, now, then, value))
    return tuple(
        NextReading(reading.but(value=value), check, now, then)
        for reading, (_, check, now, then, value) in zip(readings, map(min, sharper), strict=True)
    )


def best_pair(rows: Array, noise: Array, covariance: Array, slope: Array) -> tuple[int, int, float]:
    """The two readings that together sharpen a check most, and by how much its variance falls.

    Some readings help only in twos: a level across the stabilizer says nothing of it until one lies
    across the fuselage as well.  With S the 2×2 covariance of what both would show and a = JCg, the
    gain is aᵀS⁻¹a; it is written out so that all pairs are tried at once.

    Parameters
    ----------
    rows, noise : Array
        Shape (c, n) and (c,): slopes of the candidates, and their sigma squared.
    """
    spread = rows @ covariance
    a = spread @ slope
    cross = spread @ rows.T
    own = np.diag(cross) + noise
    determinant = np.outer(own, own) - cross**2
    np.fill_diagonal(determinant, np.inf)
    square = a**2
    gain = (
        np.outer(square, own) + np.outer(own, square) - 2 * np.outer(a, a) * cross
    ) / determinant
    first, second = np.unravel_index(int(np.argmax(gain)), gain.shape)
    return int(first), int(second), float(gain[first, second])


def single_gains(rows: Array, noise: Array, covariance: Array, slope: Array) -> Array:
    """How much a check's variance falls with each reading alone, shape (c,)."""
    spread = rows @ covariance
    gains: Array = (spread @ slope) ** 2 / (noise + np.sum(spread * rows, axis=1))
    return gains


def predicted_sigmas(
    net: Network, solution: Solution, candidates: Sequence[Reading], slope: Array
) -> tuple[Array, Array]:
    """A check's sigma after each candidate alone, shape (c,), and what each would read."""
    expected, rows = net.observer(candidates).predict(solution.unknowns, solution.placed)
    noise = np.square([sigma_of(reading) for reading in candidates])
    variance = slope @ solution.covariance @ slope
    gain = single_gains(rows, noise, solution.covariance, slope)
    return np.sqrt(np.maximum(variance - gain, 0.0)), expected
