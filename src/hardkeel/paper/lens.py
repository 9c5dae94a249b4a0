"""The bend that a camera's lens gives to straight lines, about the middle of its picture."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array

K1_SIGMA: Final = 0.05  # of k1 before anything is known of the lens
LONGER_SIDES: Final = 0.75  # a telephone's focal length, in longer sides of its picture
_ROUNDS: Final = 12


@dataclass(frozen=True, slots=True)
class Lens:
    """How a lens bends: r → r·(1 + k1·r²), r from the middle in focal lengths.

    Attributes
    ----------
    centre : tuple of float
        Pixels.
    focal : float
        Pixels.
    """

    centre: Point2
    focal: float
    k1: float = 0.0

    def straightened(self, pixels: Array) -> Array:
        """Pixels of the picture, shape (n, 2), as a lens without bend would have given them."""
        rows = np.asarray(pixels, dtype=float).reshape(-1, 2)
        if self.k1 == 0:
            return rows
        off = (rows - self.centre) / self.focal
        bent = np.hypot(off[:, 0], off[:, 1])
        straight = bent.copy()
        for _ in range(_ROUNDS):  # Newton: the bend is small
            slope = np.maximum(1 + 3 * self.k1 * straight**2, 0.1)
            straight -= (straight * (1 + self.k1 * straight**2) - bent) / slope
        share = np.where(bent > 0, straight / np.where(bent > 0, bent, 1.0), 1.0)
        return np.asarray(self.centre + off * share[:, None] * self.focal)

    def bent(self, pixels: Array) -> Array:
        """Straightened pixels, shape (n, 2), as they are in the picture."""
        rows = np.asarray(pixels, dtype=float).reshape(-1, 2)
        if self.k1 == 0:
            return rows
        off = (rows - self.centre) / self.focal
        grown = 1 + self.k1 * (off**2).sum(axis=1)
        return np.asarray(self.centre + off * grown[:, None] * self.focal)
