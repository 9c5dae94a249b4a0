"""Which readings do not fit, and which could hide an error: one at a time, the worst first."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final, TypeVar

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import PHOTOS_PLACE, Solution, Start, Whole, solve
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Observation, Reading, Sight, sigma_of
from hardkeel.survey.system import System

_Any = TypeVar("_Any", bound=Observation)
Starts = Mapping[tuple[str, ...], Start]
NO_STARTS: Final[Starts] = MappingProxyType({})
W_LIMIT: Final = 3.29  # two-sided 0.1 % of the normal distribution; fixed by the contract
NOTICED_FACTOR: Final = 4.13  # 3.29 + 0.84: noticed four times in five; fixed by the contract
LEAST_REDUNDANCY: Final = 0.02  # below this nothing checks the reading
_BEYOND_SENSE: Final = 5.0  # sigmas of the weak priors
ALIKE: Final = 0.8  # correlation at which two readings can't be told apart


@dataclass(frozen=True, slots=True)
class Outlier:
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


@dataclass(frozen=True, slots=True)
class SightFit:
    """How one sighting sits with the estimate; all is ``None`` in a photo that is not used.

    Attributes
    ----------
    off : (float, float), optional
        Value − prediction, pixels to the right and down.
    residual : float, optional
        The length of that.
    redundancy, w : float, optional
        The smaller and the larger of its two rows.
    """

    id: str
    off: tuple[float, float] | None
    residual: float | None
    redundancy: float | None
    w: float | None
    noticed_from: float | None
    used: bool


def set_aside(
    net: Network, readings: Sequence[_Any], starts: Starts = NO_STARTS
) -> tuple[Solution, tuple[_Any, ...], tuple[Outlier, ...], Starts]:
    """Solve, name the worst reading, solve without it, until all that is left fits.

    A sighting is set aside whole; whether its photo can still be used is then looked at again.

    Parameters
    ----------
    starts : mapping of tuple of str to Start
        Where to begin, by the readings set aside so far; else where the solution before ended.

    Returns
    -------
    tuple
        The last solution, the readings it holds, the suspects in the order found, and where each
        solution ended.
    """
    held = tuple(readings)
    outliers: list[Outlier] = []
    try:
        solution = solve(net, held, starts.get(()))
    except BadInput as fault:
        raise _wildest(net, held, fault) from fault
    ended: dict[tuple[str, ...], Start] = {(): solution.start}
    while held:
        redundancy, w = tests_of(solution.whole, len(held))
        test = np.where(redundancy > LEAST_REDUNDANCY, w, 0.0)
        worst = int(np.argmax(test))
        if not test[worst] > W_LIMIT:
            break
        alike = tuple(held[j].id for j in _alike(solution.whole, worst, len(held)))
        outliers.append(Outlier(held[worst].id, float(test[worst]), alike))
        held = held[:worst] + held[worst + 1 :]
        aside = tuple(suspect.reading for suspect in outliers)
        here = solution.start
        begin = starts.get(aside, here)
        # the cameras just found go before those of an earlier survey
        solution = solve(net, held, Start(begin.unknowns, {**begin.cameras, **here.cameras}))
        ended[aside] = solution.start
    return solution, held, tuple(outliers), ended


def _wildest(net: Network, readings: Sequence[Observation], fault: BadInput) -> BadInput:
    """Why readings can't be adjusted together, by the one that lies furthest from what the drawing expects."""
    figures = [one for one in readings if not isinstance(one, Sight)]
    if not figures or fault.place == PHOTOS_PLACE:
        return fault
    state = net.prior_mean
    predicted, slopes = net.observer(figures).predict(state, net.placer.place(state))
    spread = np.linalg.inv(net.prior_matrix)
    noise = np.square([sigma_of(one) for one in figures])
    total = np.sqrt(noise + np.sum((slopes @ spread) * slopes, axis=1))
    pulls = np.abs(np.array([one.value for one in figures]) - predicted) / total
    worst = int(np.argmax(pulls))
    if not pulls[worst] > _BEYOND_SENSE:
        return fault
    ids = [one.id for one in net.survey.readings]
    wild = figures[worst].id
    return BadInput(
        f"survey.readings[{ids.index(wild)}].value" if wild in ids else fault.place,
        f'"{wild}" says {figures[worst].value:.6g} where the drawing expects about '
        f"{predicted[worst]:.4g}: one of the two is far off",
    )


def tests_of(whole: Whole, count: int) -> tuple[Array, Array]:
    """Redundancy and w of each reading, shape (count,): of its two rows the smaller and the larger; 0 where unused."""
    redundancy, w = np.full(count, np.inf), np.zeros(count)
    np.minimum.at(redundancy, whole.owner, whole.redundancy)
    np.maximum.at(w, whole.owner, whole.w)
    return np.where(np.isfinite(redundancy), redundancy, 0.0), w


def fits(
    net: Network, readings: Sequence[Reading], held: Sequence[Observation], solution: Solution
) -> tuple[Fit, ...]:
    """How each figure sits, in the order given, whether it was used or not."""
    figures = (one for one in held if not isinstance(one, Sight))
    row = {reading.id: i for i, reading in enumerate(figures)}
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


def sight_fits(
    net: Network, sightings: Sequence[Sight], held: Sequence[Observation], solution: Solution
) -> tuple[SightFit, ...]:
    """How each sighting sits, in the order given, whether it was used or not.

    Parameters
    ----------
    held : sequence of Observation
        What the solution was given, in its order.
    """
    rows: dict[str, list[int]] = {}
    for row, owner in enumerate(solution.whole.owner.tolist()):
        rows.setdefault(held[owner].id, []).append(row)
    spare = [one for one in sightings if one.photo in solution.cameras and one.id not in rows]
    beside = _sights_as_if_held(net, spare, solution)
    whole = solution.whole
    out = []
    for one in sightings:
        mine = rows.get(one.id)
        if mine is not None:
            off, redundancy, w, sigma = (
                x[mine] for x in (whole.residuals, whole.redundancy, whole.w, whole.sigmas)
            )
        elif one.id in beside:
            off, redundancy, w, sigma = beside[one.id]
        else:
            out.append(SightFit(one.id, None, None, None, None, None, used=False))
            continue
        least = int(np.argmin(redundancy))
        share = float(redundancy[least])
        noticed = (
            NOTICED_FACTOR * float(sigma[least]) / share**0.5
            if share > LEAST_REDUNDANCY
            else float("inf")
        )
        residual = float(np.hypot(off[0], off[1]))
        out.append(
            SightFit(
                one.id,
                (float(off[0]), float(off[1])),
                residual,
                share,
                float(w.max()),
                noticed,
                mine is not None,
            )
        )
    return tuple(out)


def _sights_as_if_held(
    net: Network, spare: Sequence[Sight], solution: Solution
) -> dict[str, tuple[Array, Array, Array, Array]]:
    """Misfit, r, w and σ of both rows of each sighting that was not held, as `_as_if_held`."""
    if not spare:
        return {}
    system = System(net, spare, solution.cameras)
    seen = system.look(system.state_of(solution.unknowns, solution.cameras))
    sigma = 1.0 / system.root_weight
    spread = np.sum((seen.slopes @ solution.whole.covariance) * seen.slopes, axis=1)
    total = sigma**2 + spread
    redundancy, w = sigma**2 / total, np.abs(seen.residuals) / np.sqrt(total)
    found = {}
    for i, one in enumerate(spare):
        rows = np.flatnonzero(system.owner == i)
        found[one.id] = (seen.residuals[rows], redundancy[rows], w[rows], sigma[rows])
    return found


def _alike(whole: Whole, i: int, count: int) -> list[int]:
    """Readings whose residuals go with reading i's: |ρ| > 0.8 of any pair of rows of R = I − W½ J C Jᵀ W½."""
    scaled = whole.slopes / whole.sigmas[:, None]
    most = np.zeros(count)
    for row in np.flatnonzero(whole.owner == i):
        column = -(scaled @ (whole.covariance @ scaled[row]))
        column[row] += 1.0
        own = np.sqrt(np.maximum(whole.redundancy * whole.redundancy[row], 1e-18))
        np.maximum.at(most, whole.owner, np.abs(column) / own)
    return [int(j) for j in np.flatnonzero(most > ALIKE) if j != i]


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
