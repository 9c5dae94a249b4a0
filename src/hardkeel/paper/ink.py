"""A sheet's ink: how dark each place is against its own paper, looked at along rays and across lines."""

import math
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage
from hardkeel.paper.seeing import halved, paper_of

FINEST_PX_PER_MM: Final = 12.0  # finer scans are averaged down for the following
_MAP_FROM_PX: Final = 768  # the longer side of the copy that the paper's map is made from
_HALF: Final = 0.5
LEAST_CONTRAST: Final = 12.0  # grey levels between a line and its paper


class Ink:
    """The ink of a sheet.

    Parameters
    ----------
    grey : Array
        Shape (h, w), 0 to 255, dark on light.
    px_per_mm : float
        Of the sheet, as well as it is known.
    """

    def __init__(self, grey: NDArray[np.uint8], px_per_mm: float) -> None:
        self.fine = grey
        self.px_per_mm = max(px_per_mm, 1e-3)
        self.shrunk = 1
        coarse = grey
        while self.px_per_mm / self.shrunk > FINEST_PX_PER_MM and min(coarse.shape) > 2:  # noqa: PLR2004
            coarse = halved(coarse)
            self.shrunk *= 2
        self.coarse = coarse
        small = coarse
        while max(small.shape) > 2 * _MAP_FROM_PX:
            small = halved(small)
        self._paper = paper_of(small)

    @property
    def size(self) -> tuple[int, int]:
        """Width and height, pixels."""
        return self.fine.shape[1], self.fine.shape[0]

    def paper(self, points: Array) -> Array:
        """How light the paper is at points (…, 2), pixels."""
        tall, wide = self.fine.shape
        rows, columns = self._paper.shape
        u = points[..., 0] * columns / wide - _HALF
        v = points[..., 1] * rows / tall - _HALF
        return between_pixels(self._paper, u, v)

    def contrast(self, points: Array, around: Array) -> Array:
        """How much darker the sheet is at points (…, 2) than the paper around a place, grey levels; averaged on fine scans."""
        at = points / self.shrunk - _HALF
        paper = float(self.paper(around[None])[0])
        return paper - between_pixels(self.coarse, at[..., 0], at[..., 1])

    def profile(self, points: Array) -> Array:
        """As `contrast`, on the scan's own pixels."""
        at = points - _HALF
        return self.paper(points) - between_pixels(self.fine, at[..., 0], at[..., 1])

    def inside(self, point: Array) -> bool:
        """Whether a point lies on the sheet."""
        wide, tall = self.size
        return bool(0 <= point[0] < wide and 0 <= point[1] < tall)


def between_pixels(image: NDArray[np.uint8], u: Array, v: Array) -> Array:
    """The image between its pixels' middles, (0, 0) the first one's; beyond its edge as at the edge."""
    return np.asarray(
        ndimage.map_coordinates(image, [v, u], output=np.float64, order=1, mode="nearest")
    )


def unit(way: float | Array) -> Array:
    """The direction of an angle, (…, 2); v grows downwards."""
    return np.stack([np.cos(way), np.sin(way)], axis=-1)


def turned(a: float, b: float) -> float:
    """How far direction a must turn to b, radians, −π to π."""
    return (b - a + math.pi) % (2 * math.pi) - math.pi
