"""Which readings do not fit, and which could hide an error: one at a time, the worst first."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution, solve
from hardkeel.survey.model import Reading, sigma_of

Starts = Mapping[tuple[str, ...], Array]
NO_STARTS: Final[Starts] = MappingProxyType({})
W_LIMIT: Final = 3.29  # two-sided 0.1 % of the normal distribution; fixed by the contract
NOTICED_FACTOR: Final = 4.13  # 3.29 + 0.84: noticed four times in five; fixed by the contract
LEAST_REDUNDANCY: Final = 0.02  # below this nothing checks the reading
ALIKE: Final = 0.8  # correlation at which two readings can't be told apart


@dataclass(frozen=True, slots=True)
class Suspect:
    """A reading that was set aside.

    Attributes
    ----------
    w : float
        Its test value in the solution that still held it.
    alike : tuple of str
        Other readings that would explain the misfit as well.
    """

    reading: str
    w: float
    alike: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Fit:
    """How one reading sits with the estimate.

    For a reading that is not used (set aside or ignored) the residual is against the estimate made
    without it, and redundancy and w are those it would have if it were held.

    Attributes
    ----------
    residual : float
        Value − prediction, mm or degrees.
    noticed_from : float
        The smallest error in it that would be noticed; infinite where nothing checks it.
    """

    id: str
    residual: float
    redundancy: float
    w: float
    noticed_from: float
    used: bool


def set_aside(
    net: Network, readings: Sequence[Reading], starts: Starts = NO_STARTS
) -> tuple[Solution, tuple[Reading, ...], tuple[Suspect, ...], Starts]:
    """Solve, name the worst reading, solve without it, until all that is left fits.

    Parameters
    ----------
    starts : mapping of tuple of str to Array
        Where to begin, shape (n,), by the readings set aside so far; else where the solution before ended.

    Returns
    -------
    tuple
        The last solution, the readings it holds, the suspects in the order found, and where each
        solution ended.
    """
    held = tuple(readings)
    suspects: list[Suspect] = []
    solution = solve(net, held, starts.get(()))
    ended: dict[tuple[str, ...], Array] = {(): solution.unknowns}
    while held:
        test = np.where(solution.redundancy > LEAST_REDUNDANCY, solution.w, 0.0)
        worst = int(np.argmax(test))
        if not test[worst] > W_LIMIT:
            break
        alike = tuple(held[j].id for j in _alike(solution, worst))
        suspects.append(Suspect(held[worst].id, float(test[worst]), alike))
        held = held[:worst] + held[worst + 1 :]
        aside = tuple(suspect.reading for suspect in suspects)
        solution = solve(net, held, starts.get(aside, solution.unknowns))
        ended[aside] = solution.unknowns
    return solution, held, tuple(suspects), ended


def fits(
    net: Network, readings: Sequence[Reading], held: Sequence[Reading], solution: Solution
) -> tuple[Fit, ...]:
    """How each reading sits, in the order given, whether it was used or not."""
    row = {reading.id: i for i, reading in enumerate(held)}
    spare = [reading for reading in readings if reading.id not in row]
    unused = dict(zip((r.id for r in spare), _as_if_held(net, spare, solution), strict=True))
    out = []
    for reading in readings:
        i = row.get(reading.id)
        if i is None:
            residual, redundancy, w, sigma = unused[reading.id]
        else:
            residual, redundancy, w, sigma = (
                float(x[i])
                for x in (solution.residuals, solution.redundancy, solution.w, solution.sigmas)
            )
        noticed = (
            NOTICED_FACTOR * sigma / redundancy**0.5
            if redundancy > LEAST_REDUNDANCY
            else float("inf")
        )
        out.append(Fit(reading.id, residual, redundancy, w, noticed, i is not None))
    return tuple(out)


def _alike(solution: Solution, i: int) -> list[int]:
    """Rows whose residuals go with row i's: |ρ| > 0.8 of R = I − W½ J C Jᵀ W½."""
    scaled = solution.slopes / solution.sigmas[:, None]
    column = -(scaled @ (solution.covariance @ scaled[i]))
    column[i] += 1.0
    own = np.sqrt(np.maximum(solution.redundancy * solution.redundancy[i], 1e-18))
    rho = np.abs(column) / own
    return [int(j) for j in np.flatnonzero(rho > ALIKE) if j != i]


def _as_if_held(
    net: Network, spare: Sequence[Reading], solution: Solution
) -> list[tuple[float, float, float, float]]:
    """Residual against the estimate, and r and w as if held: s = jCjᵀ, r = σ²/(σ²+s), w = e/√(σ²+s)."""
    if not spare:
        return []
    predicted, slopes = net.observer(spare).predict(solution.unknowns, solution.placed)
    sigmas = np.array([sigma_of(reading) for reading in spare])
    residuals = np.array([reading.value for reading in spare]) - predicted
    spread = np.sum((slopes @ solution.covariance) * slopes, axis=1)
    total = sigmas**2 + spread
    redundancy, w = sigmas**2 / total, np.abs(residuals) / np.sqrt(total)
    return [
        (float(e), float(r), float(t), float(s))
        for e, r, t, s in zip(residuals, redundancy, w, sigmas, strict=True)
    ]
