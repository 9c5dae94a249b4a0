"""Whether the readings fit together as well as their tools promise: the contract's chi-square."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.chances import chi_square_beyond
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.cameras import K1_SIGMA, prior_of
from hardkeel.survey.columns import POSE
from hardkeel.survey.network import Network

_POOR: Final = 0.01
_LEAST_ROWS: Final = 0.5
_PLACED: Final = 6  # unknowns of a photo that nothing was known of


@dataclass(frozen=True, slots=True)
class Goodness:
    """How the readings fit.

    Attributes
    ----------
    chi2 : float
        Weighted squares of misfits and of what readings share.
    rows : float
        What they should come to; not a whole number.
    p : float, optional
        How probable that is or more; ``None`` where too little checks itself.
    """

    chi2: float
    rows: float
    p: float | None

    @property
    def poor(self) -> bool:
        """Whether the readings fit worse than the tools promise."""
        return self.p is not None and self.p < _POOR

    @property
    def factor(self) -> float:
        """How many times worse."""
        return math.sqrt(self.chi2 / self.rows) if self.rows > _LEAST_ROWS else 1.0


def goodness_of(net: Network, solution: Solution, glued: str = "") -> Goodness:
    """The fit of the rows in use.

    Parameters
    ----------
    glued : str
        The body that the glue holds, where the net leans on the dry readings.
    """
    whole, columns = solution.whole, net.columns
    chi2 = float(np.sum((whole.residuals / whole.sigmas) ** 2)) + _lenses(net, solution)
    variances = np.diag(solution.covariance)
    if net.gluing_prior is None:
        strong = slice(columns.own, columns.size)
        chi2 += float(np.sum(solution.unknowns[strong] ** 2 * columns.prior_weight[strong]))
        taken = np.sum(1 - variances[: columns.own] * columns.prior_weight[: columns.own])
    else:
        spread = np.linalg.inv(net.gluing_prior.weight)
        start = columns.start[glued]
        free = np.arange(start, start + len(POSE))
        kept = np.setdiff1d(np.arange(columns.size), free)
        away = (solution.unknowns - net.gluing_prior.mean)[kept]
        chi2 += float(away @ np.linalg.solve(spread[np.ix_(kept, kept)], away))
        taken = np.sum(1 - variances[free] / np.diag(spread)[free])
    rows = len(whole.residuals) - _PLACED * len(solution.cameras) - float(taken)
    return Goodness(chi2, rows, chi_square_beyond(chi2, rows) if rows > _LEAST_ROWS else None)


def _lenses(net: Network, solution: Solution) -> float:
    """What the cameras' ln f and k1 are away from what was known of them."""
    total = 0.0
    for photo_id, camera in solution.cameras.items():
        photo = net.survey.photo(photo_id)
        if photo is not None:
            log, sigma = prior_of(photo)
            total += ((camera.log_focal - log) / sigma) ** 2 + (camera.k1 / K1_SIGMA) ** 2
    return total
