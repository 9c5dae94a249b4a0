"""Printed labels as a camera sees them: laid into the stand-in's picture, pixel by pixel, in light and not in grey levels."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage
from hardkeel.sight.codes import LIGHT, MODULES, bits_of
from hardkeel.sight.pictures import Pixels
from hardkeel.survey.cameras import Camera

RIM: Final = 1.0  # modules of white round the black square
_OVER: Final = 4
_BLUR_PX: Final = 0.6
_NOISE: Final = 2.0  # of 255, one sigma
_BLACK, _WHITE = 0.03, 0.8  # of full light: toner, paper
_EDGE_PX: Final = 4
_ROUNDS: Final = 4  # of undoing the lens
_SHADE: Final = 0.55  # of light that comes from all sides


@dataclass(frozen=True)
class Label:
    """A label where it really sits.

    Attributes
    ----------
    at : Array
        Shape (3,), mm, airframe axes: its middle.
    right, up : Array
        Unit ways in its face, as it is read.
    size : float
        The side of its black square, mm.
    """

    code: int
    at: Array
    right: Array
    up: Array
    size: float

    @property
    def normal(self) -> Array:
        """Out of its face."""
        found: Array = np.cross(self.right, self.up)
        return found


def with_labels(
    picture: Pixels, labels: Sequence[Label], camera: Camera, rng: np.random.Generator
) -> Pixels:
    """The picture with labels in it; one that faces away or lies outside is not seen.

    Parameters
    ----------
    picture : ndarray of uint8
        Shape (h, w, 3).
    """
    found = picture.copy()
    for label in labels:
        if float((camera.place - label.at) @ label.normal) > 0:
            _lay(found, label, camera, rng)
    return found


def middle_in(label: Label, camera: Camera, size: tuple[int, int]) -> Array:
    """Where a label's middle falls, pixels, shape (2,)."""
    found: Array = camera.project(label.at[None], size)[0]
    return found


def _lay(picture: Pixels, label: Label, camera: Camera, rng: np.random.Generator) -> None:
    high, wide = picture.shape[:2]
    reach = label.size * (MODULES + 2 * RIM) / MODULES / 2
    corners = np.array(
        [label.at + reach * (i * label.right + j * label.up) for i in (-1, 1) for j in (-1, 1)]
    )
    spots = camera.project(corners, (wide, high))
    if not np.isfinite(spots).all():
        return
    u0, v0 = (int(one) - _EDGE_PX for one in np.floor(spots.min(axis=0)))
    u1, v1 = (int(one) + _EDGE_PX for one in np.ceil(spots.max(axis=0)))
    if u0 < 0 or v0 < 0 or u1 > wide or v1 > high:
        return
    u = np.arange(u0 * _OVER, u1 * _OVER) / _OVER + 0.5 / _OVER
    v = np.arange(v0 * _OVER, v1 * _OVER) / _OVER + 0.5 / _OVER
    grid = np.stack(np.meshgrid(u, v), axis=-1).reshape(-1, 2)
    own = _on_label(grid, label, camera, (wide, high))
    light, covered = _light_of(label, own)
    slant = float((camera.place - label.at) @ label.normal) / float(
        np.linalg.norm(camera.place - label.at)
    )
    light *= _SHADE + (1 - _SHADE) * slant
    shape = (v1 - v0, _OVER, u1 - u0, _OVER)
    share = ndimage.gaussian_filter(covered.reshape(shape).mean(axis=(1, 3)), _BLUR_PX)
    lit = ndimage.gaussian_filter((light * covered).reshape(shape).mean(axis=(1, 3)), _BLUR_PX)
    under = LIGHT[picture[v0:v1, u0:u1]]
    mixed = under * (1 - share)[..., None] + lit[..., None]
    grey = _levels(mixed) + _NOISE * rng.standard_normal((*share.shape, 1))
    seen = share[..., None] > 0.002  # noqa: PLR2004  what it covers at all
    laid = np.where(seen, grey, picture[v0:v1, u0:u1])
    picture[v0:v1, u0:u1] = np.clip(np.round(laid), 0, 255).astype(np.uint8)


def _light_of(label: Label, own: Array) -> tuple[Array, Array]:
    """What comes from places of a label (in its sides, 0 to 1 within the black square), and whether it is there at all."""
    cell = np.floor(np.column_stack([own[:, 0], 1 - own[:, 1]]) * MODULES).astype(int)
    inside = ((cell >= 0) & (cell < MODULES)).all(axis=1)
    rim = (np.abs(own - 0.5) < 0.5 + RIM / MODULES).all(axis=1)
    light = np.full(len(own), _WHITE)
    bits = bits_of(label.code)
    light[inside] = np.where(bits[cell[inside, 1], cell[inside, 0]], _BLACK, _WHITE)
    return light, rim.astype(float)


def _on_label(pixels: Array, label: Label, camera: Camera, size: tuple[int, int]) -> Array:
    """Where on a label's face pixels look, in its sides from its lower left, shape (n, 2)."""
    bent = (pixels - np.array(size) / 2) / camera.focal
    flat = bent.copy()
    for _ in range(_ROUNDS):
        flat = bent / (1 + camera.k1 * np.sum(flat**2, axis=1, keepdims=True))
    ways = np.column_stack([flat, np.ones(len(flat))]) @ camera.rotation
    normal = label.normal
    far = float((label.at - camera.place) @ normal) / (ways @ normal)
    off = camera.place + far[:, None] * ways - label.at
    return np.column_stack([off @ label.right, off @ label.up]) / label.size + 0.5


def _levels(light: NDArray[np.floating]) -> Array:
    """From light to grey levels, 0 to 255 (IEC 61966-2-1)."""
    low = light <= 0.0031308  # noqa: PLR2004  the standard's
    return np.asarray(
        np.where(low, 12.92 * light, 1.055 * np.maximum(light, 1e-9) ** (1 / 2.4) - 0.055) * 255
    )
