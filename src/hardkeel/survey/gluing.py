"""While the glue sets: wet and cured readings lean on the dry ones, and what moved since.

The dry solution x_d with covariance C_d becomes what is known beforehand, N(x_d, C_d + Q): the glued body may have
moved as far as it could have stood at first, everything else only as far as a bench is nudged.  What moved is
m = K·(x − x_d) with K = Q·(C_d + Q)⁻¹, the part of the difference that is no doubt of the dry readings (a Kalman
smoother of one step: H. E. Rauch, F. Tung and C. T. Striebel, AIAA Journal 3 (1965), 1445-1450).
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.columns import BENCH, SHIFTS, TWIST, Columns
from hardkeel.survey.network import GluingPrior, Network
from hardkeel.survey.readings import Phase
from hardkeel.survey.sharing import CARRIED

PHASES_WITH_PRIOR: Final[tuple[Phase, ...]] = ("wet", "cured")
_GLUED: Final = (5.0, 3.0)  # mm, degrees: one sigma of the body that the glue holds
_OTHERS: Final = (0.2, 0.05)
_TWISTS: Final = 0.1
_BENCH: Final = {"pitch": 0.05, "roll": 0.05, "z": 0.3}


@dataclass(frozen=True)
class Dry:
    """What the dry readings left.

    Attributes
    ----------
    unknowns, covariance, may_move : Array
        Shape (n,), (n, n), and (n,): x_d, C_d, and the diagonal of Q.  What readings share and begins anew (the
        zeros of tools) has mean 0, its own prior, and is correlated with nothing.
    """

    unknowns: Array
    covariance: Array
    may_move: Array


@dataclass(frozen=True, slots=True)
class Moved:
    """How one unknown of a body moved since the dry readings: mm or degrees."""

    name: str
    value: float
    sigma: float


def dry_of(columns: Columns, solution: Solution, body: str) -> Dry:
    """The dry solution, and how far everything may have moved since."""
    unknowns, covariance = solution.unknowns.copy(), solution.covariance.copy()
    for (what, _), column in columns.shared.items():
        if what not in CARRIED:
            unknowns[column] = 0.0
            covariance[column, :] = covariance[:, column] = 0.0
            covariance[column, column] = 1.0 / columns.prior_weight[column]
    return Dry(unknowns, covariance, _may_move(columns, body))


def loosened(columns: Columns, dry: Dry, bodies: Collection[str]) -> Dry:
    """The same where these bodies may have moved as far as the glued one."""
    if not bodies:
        return dry
    may_move = dry.may_move.copy()
    for body in bodies:
        own = slice(columns.start[body], columns.start[body] + len(columns.names[body]))
        may_move[own] = _may_move(columns, body)[own]
    return Dry(dry.unknowns, dry.covariance, may_move)


def prior_from(dry: Dry) -> GluingPrior:
    """What is known beforehand of a phase that leans on the dry one."""
    spread = dry.covariance + np.diag(dry.may_move)
    weight = np.linalg.inv(spread)
    return GluingPrior(dry.unknowns, (weight + weight.T) / 2)


def _may_move(columns: Columns, body: str) -> Array:
    sigmas = np.zeros(columns.size)  # what readings share does not move with the glue
    for owner, start in columns.start.items():
        shift, turn = _GLUED if owner == body else _OTHERS
        for i, name in enumerate(columns.names[owner]):
            sigmas[start + i] = _TWISTS if name in TWIST else shift if name in SHIFTS else turn
    if columns.has_bench:
        for i, name in enumerate(BENCH):
            sigmas[columns.bench + i] = _BENCH[name]
    return np.square(sigmas)


def movement_of(net: Network, dry: Dry, solution: Solution) -> Mapping[str, tuple[Moved, ...]]:
    """How each body moved since the dry readings, with its sigma."""
    q = np.diag(dry.may_move)
    gain = q @ np.linalg.inv(dry.covariance + q)
    moved = gain @ (solution.unknowns - dry.unknowns)
    spread = q - gain @ q + gain @ solution.covariance @ gain.T
    sigma = np.sqrt(np.maximum(np.diag(spread), 0.0))
    columns = net.columns
    return {
        body: tuple(
            Moved(name, float(moved[start + i]), float(sigma[start + i]))
            for i, name in enumerate(columns.names[body])
        )
        for body, start in columns.start.items()
    }
