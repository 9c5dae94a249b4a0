"""What readings of a piece tell of what is asked: least squares on the unknowns with what they may be, and on no model.

The estimate is that of a linear Gaussian model with a prior (A. Gelb (ed.), "Applied Optimal Estimation", MIT Press
1974, ch. 4): P = (Aᵀ·W·A + P₀⁻¹)⁻¹, x = P·Aᵀ·W·y, the slopes taken once more at the first estimate.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations_with_replacement
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Piece, slopes_of
from hardkeel.survey.checking import verdict_of
from hardkeel.survey.model import Verdict

_ROUNDS: Final = 2
_KNOWN: Final = 0.2  # of a tolerance, one sigma: then what is not near its limit is decided
_MOST: Final = 30  # readings of a list


@dataclass(frozen=True, slots=True)
class Taken:
    """One reading: the look's number, and what it showed, mm."""

    look: int
    value: float


@dataclass(frozen=True, slots=True)
class Known:
    """What is known of a question.

    Attributes
    ----------
    value, sigma : float
        mm.
    """

    asked: Asked
    value: float
    sigma: float

    @property
    def error(self) -> float:
        """Off what is wanted, mm."""
        return self.value - self.asked.target

    @property
    def verdict(self) -> Verdict:
        """By the rule of all checks."""
        return verdict_of(self.error, self.sigma, self.asked.tolerance)


def known_of(piece: Piece, taken: Sequence[Taken]) -> tuple[Known, ...]:
    """What readings tell of each question."""
    unknowns, covariance = estimate(piece, taken)
    slopes = slopes_of(piece.is_so, unknowns)
    sigmas = np.sqrt(np.einsum("ij,jk,ik->i", slopes, covariance, slopes))
    return tuple(
        Known(asked, float(value), float(sigma))
        for asked, value, sigma in zip(piece.asked, piece.is_so(unknowns), sigmas, strict=True)
    )


def estimate(piece: Piece, taken: Sequence[Taken]) -> tuple[Array, Array]:
    """The unknowns, shape (n,), and their covariance, shape (n, n)."""
    unknowns = np.zeros(len(piece.unknowns))
    covariance = np.diag(piece.priors**2)
    if not taken:
        return unknowns, covariance
    looks = [one.look for one in taken]
    values = np.array([one.value for one in taken])
    weight = np.array([piece.looks[one].sigma for one in looks]) ** -2.0
    for _ in range(_ROUNDS):
        rows = slopes_of(piece.shows, unknowns)[looks]
        left = values - piece.shows(unknowns)[looks] + rows @ unknowns
        covariance = _posterior(piece, rows, weight)
        unknowns = covariance @ (rows.T @ (weight * left))
    return unknowns, covariance


def _posterior(piece: Piece, rows: Array, weight: Array) -> Array:
    normal = (rows.T * weight) @ rows + np.diag(piece.priors**-2)
    inverse = np.linalg.inv(normal).astype(np.float64, copy=False)
    return (inverse + inverse.T) / 2


def best_looks(piece: Piece) -> tuple[int, ...]:
    """Looks that tell all that is asked, the most for their minutes first, alone or by two.

    Two at a time, for one diagonal alone tells nothing.
    """
    rows = slopes_of(piece.shows, np.zeros(len(piece.unknowns)))
    weight = np.array([one.sigma for one in piece.looks]) ** -2.0
    checks = slopes_of(piece.is_so, np.zeros(len(piece.unknowns)))
    checks = checks / np.array([one.tolerance for one in piece.asked])[:, None]

    def still_open(looks: list[int]) -> float:
        covariance = _posterior(piece, rows[looks], weight[looks])
        sharp = np.sqrt(np.einsum("ij,jk,ik->i", checks, covariance, checks))
        return float(np.log(np.maximum(sharp, _KNOWN) / _KNOWN).sum())

    chosen: list[int] = []
    every = range(len(piece.looks))
    offers = [[one] for one in every] + [list(it) for it in combinations_with_replacement(every, 2)]
    left = still_open(chosen)
    while left > 0 and len(chosen) < _MOST:
        worth = [
            (left - still_open(chosen + offer)) / sum(piece.looks[one].minutes for one in offer)
            for offer in offers
        ]
        best = int(np.argmax(worth))
        if worth[best] <= 0:
            break
        chosen += offers[best]
        left = still_open(chosen)
    for one in tuple(chosen):  # of two taken together one may have been of no use
        without = list(chosen)
        without.remove(one)
        if still_open(without) <= left:
            chosen = without
    return tuple(chosen)


def minutes_of(piece: Piece, looks: Sequence[int]) -> float:
    """What looks take."""
    return sum(piece.looks[one].minutes for one in looks)
