"""The normal equations of the adjustment, with what readings share eliminated first.

N = AᵀA + P with A whitened rows.  Unknowns that readings share (s) have a diagonal prior W of their own, and there are
often more of them than rows: with R = I + A_s·W⁻¹·A_sᵀ the others' block is A_aᵀ·R⁻¹·A_a + P_a, and
(W + A_sᵀA_s)⁻¹ = W⁻¹ − W⁻¹A_sᵀR⁻¹A_sW⁻¹ (M. A. Woodbury, "Inverting modified matrices", Princeton 1950).
"""

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array

Rows = NDArray[np.intp]


class Normal:
    """Normal equations at one state.

    Parameters
    ----------
    rows : Array
        Shape (r, N): slopes over their sigmas.
    prior : Array
        Shape (N, N).
    shared : slice
        Of the unknowns those with a diagonal prior that is bound to no other; empty for none.
    """

    def __init__(self, rows: Array, prior: Array, shared: slice) -> None:
        self._rows, self._prior = rows, prior
        count = shared.stop - shared.start
        self._whole: Array | None = None
        if count == 0 or len(rows) >= rows.shape[1]:
            self._whole = rows.T @ rows + prior
            return
        every = np.arange(rows.shape[1], dtype=np.intp)
        self._s, self._a = every[shared], np.delete(every, shared)
        self._weight = np.diag(prior)[shared]
        a, s = rows[:, self._a], rows[:, self._s]
        self._scaled = s / self._weight  # A_s·W⁻¹
        wide = np.eye(len(rows)) + self._scaled @ s.T
        self._narrow = np.linalg.inv(wide)  # R⁻¹
        self._held = a.T @ self._narrow  # A_aᵀR⁻¹
        self._block = self._held @ a + prior[np.ix_(self._a, self._a)]

    def solve(self, right: Array) -> Array:
        """N⁻¹·right, shape (N,)."""
        if self._whole is not None:
            return _solved(self._whole, right)
        own, other = right[self._a], right[self._s]
        first = _solved(self._block, own - self._held @ (self._scaled @ other))
        rows = self._rows
        rest = other - rows[:, self._s].T @ (rows[:, self._a] @ first)
        out = np.empty(len(right))
        out[self._a] = first
        out[self._s] = rest / self._weight - self._scaled.T @ (self._narrow @ (self._scaled @ rest))
        return out

    def square(self, step: Array) -> float:
        """Stepᵀ·N·step: the step's length in its own sigma, squared."""
        moved = self._rows @ step
        return float(moved @ moved + step @ self._prior @ step)

    def along(self, one: Array, other: Array) -> float:
        """Oneᵀ·N·other."""
        return float((self._rows @ one) @ (self._rows @ other) + one @ self._prior @ other)

    def inverse(self) -> Array:
        """N⁻¹, shape (N, N), symmetric."""
        if self._whole is not None:
            whole = np.linalg.inv(self._whole).astype(np.float64, copy=False)
            return (whole + whole.T) / 2
        block = np.linalg.inv(self._block).astype(np.float64, copy=False)
        cross = self._held @ self._scaled  # A_aᵀR⁻¹A_sW⁻¹
        held = block @ cross
        out = np.empty((self._rows.shape[1],) * 2)
        out[np.ix_(self._a, self._a)] = (block + block.T) / 2
        out[np.ix_(self._a, self._s)] = -held
        out[np.ix_(self._s, self._a)] = -held.T
        inner = cross.T @ held - self._scaled.T @ (self._narrow @ self._scaled)
        inner[np.diag_indices_from(inner)] += 1 / self._weight
        out[np.ix_(self._s, self._s)] = (inner + inner.T) / 2
        return out


def _solved(matrix: Array, right: Array) -> Array:
    return np.linalg.solve(matrix, right).astype(np.float64, copy=False)
