"""A gauge that walks away from its zero: told from the order in which it was read."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import zip_longest
from typing import Final

import numpy as np

from hardkeel.geometry.chances import chi_square_beyond
from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Incidence, Reading, place_of, sigma_of

_FEWEST: Final = 4  # readings: two make a line, the others say that it is one
_SURE: Final = 4.0  # sigmas: several stretches are tried
_FITS: Final = 0.05
_BETTER: Final = 6.0  # of chi-square, than one bad reading


@dataclass(frozen=True, slots=True)
class Drift:
    """What a gauge gains with every reading.

    Attributes
    ----------
    readings : tuple of str
        Ids in the order of taking, those set aside or taken anew included.
    each, sigma : float
        Degrees from one reading to the next.
    """

    readings: tuple[str, ...]
    each: float
    sigma: float


def drift_of(
    net: Network, solution: Solution, readings: Sequence[Reading], used: frozenset[str]
) -> Drift | None:
    """The drift of the incidence gauge, where its last readings lie on a line and one bad reading is no story.

    Their misfits against everything else that was read are fitted with a constant and a slope over their order
    by generalised least squares; the constant is the gauge's own error, which is no drift.

    Parameters
    ----------
    solution : Solution
        With the readings in `used`.
    readings : sequence of Reading
        All that were taken, in the order of taking.
    used : frozenset of str
        Ids of those that the solution rests on.
    """
    for group in _groups(readings):
        off, spread = _misfits(net, solution, group, used)
        for first in range(len(group) - _FEWEST + 1):
            late = slice(first, None)
            line = _line(off[late], spread[late, late])
            if line is not None:
                return Drift(tuple(one.id for one in group[late]), *line)
    return None


def _groups(readings: Sequence[Reading]) -> list[list[Incidence]]:
    """What each gauge read from one zero, in order, where that is enough for a line.

    A reading that is not used counts where the next was taken at its place: it was taken anew.  Any other may be
    of how a part stood before its seat was put right.
    """
    taken: dict[tuple[str | None, str], list[Incidence]] = {}
    for one in readings:
        if isinstance(one, Incidence):
            taken.setdefault((one.instrument, one.zero), []).append(one)
    kept = (
        [
            one
            for one, then in zip_longest(group, group[1:])
            if not one.ignored or (then is not None and place_of(then) == place_of(one))
        ]
        for group in taken.values()
    )
    return [group for group in kept if len(group) >= _FEWEST]


def _misfits(
    net: Network, solution: Solution, group: Sequence[Reading], used: frozenset[str]
) -> tuple[Array, Array]:
    """Shapes (n,) and (n, n): what the gauge shows less what all else says, and its covariance; degrees."""
    told, slopes = net.observer(group).predict(solution.unknowns, solution.placed)
    sigmas = np.array([sigma_of(one) for one in group])
    off = np.array([one.value for one in group], dtype=float) - told
    mine = np.array([one.id in used for one in group])
    weighed = slopes[mine] / sigmas[mine][:, None] ** 2
    others = np.linalg.inv(np.linalg.inv(solution.covariance) - weighed.T @ slopes[mine])
    off += slopes @ (others @ (weighed.T @ off[mine]))
    return off, slopes @ others @ slopes.T + np.diag(sigmas**2)


def _line(off: Array, spread: Array) -> tuple[float, float] | None:
    """Slope and its sigma, where there is one."""
    count = len(off)
    design = np.column_stack((np.ones(count), np.arange(count)))
    weight = np.linalg.inv(spread)
    covariance = np.linalg.inv(design.T @ weight @ design)
    found = covariance @ design.T @ weight @ off
    left = off - design @ found
    chi2 = float(left @ weight @ left)
    sigma = float(np.sqrt(covariance[1, 1]))
    if abs(found[1]) < _SURE * sigma or chi_square_beyond(chi2, count - 2) < _FITS:
        return None
    for one in range(count):
        kept = np.delete(np.arange(count), one)
        if _level(off[kept], spread[np.ix_(kept, kept)]) < chi2 + _BETTER:
            return None
    return float(found[1]), sigma


def _level(off: Array, spread: Array) -> float:
    """Chi-square about one constant."""
    weight = np.linalg.inv(spread)
    mean = float(np.sum(weight @ off) / np.sum(weight))
    return float((off - mean) @ weight @ (off - mean))
