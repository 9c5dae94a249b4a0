"""Wood told from a cyan ground by its tint, R - κB in light, which is nothing on the ground whatever shadow lies over it."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage
from hardkeel.sight.codes import LIGHT
from hardkeel.sight.mat import Mat
from hardkeel.sight.mat_pose import OnMat

STEP_MM: Final = 0.4  # of the coarse look
_LEAST_LOG: Final = 0.35  # of R/B: the ground is bluer than white paper by no less
_BIN: Final = 0.05
_LEAST_GROUND: Final = 0.1  # of the inside
_SPREAD_LOG: Final = 0.25  # of the ground's R/B about its own: print, light, the lens's own shade
_ROUNDS: Final = 3
_SIGMAS: Final = 3.0
_DARK: Final = 0.004  # of full light: nothing is read from less
_CRUMB_MM2: Final = 40.0
_WOOD: Final = 0.5  # of the wood's own tint: wood
_WHITE_SHARE: Final = 0.72  # of a label's module: the middle of its white rim


@dataclass(frozen=True)
class Looked:
    """The inside of a mat as a coarse picture.

    Attributes
    ----------
    origin : Array
        Shape (2,), mm: the middle of the first cell; `STEP_MM` to the next.
    tint : Array
        Shape (h, w): (R - κB)/(R + B), about 0 on the ground.
    wood : ndarray of int
        Shape (h, w): 0 the ground, from 1 on a piece each.
    kappa : Array
        Shape (6,): the ground's R/B over the mat, 1, x, y, x², xy, y² of `scaled`.
    level : float
        The wood's own tint.
    """

    origin: Array
    tint: Array
    wood: NDArray[np.int32]
    kappa: Array
    level: float
    middle: Array
    reach: float

    def kappa_at(self, spots: Array) -> Array:
        """R/B of the ground at places, shape (..., 2), mm."""
        return np.asarray(_rows((spots - self.middle) / self.reach) @ self.kappa)


class Light:
    """A picture's red and blue as light, sampled between its pixels' middles."""

    def __init__(self, pixels: NDArray[np.uint8]) -> None:
        levels = LIGHT.astype(np.float32)
        self._red, self._blue = levels[pixels[..., 0]], levels[pixels[..., 2]]

    def at(self, spots: Array) -> tuple[Array, Array]:
        """Red and blue at places, shape (..., 2), pixels; outside of the picture the nearest."""
        flat = np.nan_to_num(spots.reshape(-1, 2) - 0.5, nan=-1.0)
        red, blue = (
            ndimage.map_coordinates(one, [flat[:, 1], flat[:, 0]], order=1, mode="nearest")
            for one in (self._red, self._blue)
        )
        return red.reshape(spots.shape[:-1]), blue.reshape(spots.shape[:-1])


def look(light: Light, mat: Mat, on: OnMat) -> Looked:
    """What lies on a mat.

    Raises
    ------
    BadInput
        When the ground can't be told from white, as in a print without colour.
    """
    x0, y0, x1, y1 = mat.inside
    xs, ys = np.arange(x0 + STEP_MM, x1, STEP_MM), np.arange(y0 + STEP_MM, y1, STEP_MM)
    spots = np.stack(np.meshgrid(xs, ys), axis=-1)
    red, blue = light.at(on.pixels(spots))
    white = _white(light, mat, on)
    ratio = np.log(np.maximum(red, _DARK) / np.maximum(blue, _DARK)) - white
    ground = _mode(ratio[ratio < -_LEAST_LOG])
    like = (np.abs(ratio - ground) < _SPREAD_LOG) & (blue > _DARK)
    if not np.isfinite(ground) or like.mean() < _LEAST_GROUND:
        raise BadInput("", "shows no cyan ground: the mat is printed in colour")
    middle, reach = np.array([(x0 + x1) / 2, (y0 + y1) / 2]), max(x1 - x0, y1 - y0) / 2
    kappa = _surface(spots[like], (red, blue), like, (middle, reach))
    local = _rows((spots - middle) / reach) @ kappa
    tint = (red - local * blue) / np.maximum(red + blue, _DARK)
    noise = float(np.std(tint[like]))
    # between ground and white; wood is redder still
    half = (np.exp(white) - local) / (np.exp(white) + 1) / 2
    sure = tint > np.maximum(half, 4 * noise)
    level = float(np.median(tint[sure])) if sure.any() else 1.0
    wood = ndimage.binary_opening(tint > _WOOD * level)
    pieces, _ = ndimage.label(wood)
    found = _without_rim_and_crumbs(np.asarray(pieces, dtype=np.int32))
    return Looked(np.array([xs[0], ys[0]]), tint, found, kappa, level, middle, reach)


def _white(light: Light, mat: Mat, on: OnMat) -> float:
    """Ln of R/B of white paper in this light, by the rims of the labels that are seen."""
    spots = []
    for one in mat.codes:
        if one.code not in on.codes:
            continue
        corners = np.array(one.corners)
        middle = corners.mean(axis=0)
        side = np.linalg.norm(corners[1] - corners[0])
        out = 1 + 2 * _WHITE_SHARE / 6 if side else 1.0
        spots += [middle + (corner - middle) * out for corner in corners]
    red, blue = light.at(on.pixels(np.array(spots)))
    return float(np.median(np.log(np.maximum(red, _DARK) / np.maximum(blue, _DARK))))


def _mode(values: Array) -> float:
    """Where most of them lie; NaN of none."""
    if not len(values):
        return float("nan")
    edges = np.arange(values.min(), values.max() + 2 * _BIN, _BIN)
    counts, _ = np.histogram(values, edges)
    best = int(np.argmax(np.convolve(counts, np.ones(3), mode="same")))
    near = values[np.abs(values - (edges[best] + _BIN / 2)) < 2 * _BIN]
    return float(np.median(near)) if len(near) else float("nan")


def _rows(spots: Array) -> Array:
    x, y = spots[..., 0], spots[..., 1]
    return np.stack([np.ones_like(x), x, y, x * x, x * y, y * y], axis=-1)


def _surface(
    spots: Array,
    colours: tuple[Array, Array],
    like: NDArray[np.bool_],
    about: tuple[Array, float],
) -> Array:
    """R = κ(x, y)·B over the ground, least squares, what is far out left out."""
    red, blue = (one[like] for one in colours)
    rows = _rows((spots - about[0]) / about[1]) * blue[:, None]
    kept = np.ones(len(rows), dtype=bool)
    kappa: Array = np.zeros(6)
    for _ in range(_ROUNDS):
        kappa = np.asarray(np.linalg.lstsq(rows[kept], red[kept], rcond=None)[0], dtype=float)
        off = (red - rows @ kappa) / np.maximum(blue, _DARK)
        spread = 1.4826 * float(np.median(np.abs(off)))
        kept = np.abs(off) <= _SIGMAS * max(spread, 1e-6)
    return kappa


def _without_rim_and_crumbs(pieces: NDArray[np.int32]) -> NDArray[np.int32]:
    """Pieces numbered anew, largest first; what hangs together with the edge is the rim or lies over it."""
    edge = np.unique(np.concatenate([pieces[0], pieces[-1], pieces[:, 0], pieces[:, -1]]))
    area = np.bincount(pieces.ravel()) * STEP_MM**2
    area[0] = 0.0
    area[edge] = 0.0
    order = np.argsort(-area)
    numbers = np.zeros(len(area), dtype=np.int32)
    for number, old in enumerate((one for one in order if area[one] >= _CRUMB_MM2), start=1):
        numbers[old] = number
    found: NDArray[np.int32] = numbers[pieces]
    return found
