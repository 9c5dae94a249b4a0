"""Painted marks whose middle is known: dots, heads, rings and crosses of any colour on any ground."""

import io
from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from scipy.ndimage import gaussian_filter

from hardkeel.geometry.rotation import Array
from hardkeel.sight.pictures import Pixels

SIZE: Final = 72
COLOURS: Final = {
    "black": (22, 22, 24),
    "white": (246, 246, 244),
    "steel": (128, 132, 138),
    "red": (196, 32, 36),
    "blue": (28, 62, 170),
    "yellow": (238, 206, 30),
    "green": (24, 128, 62),
    "orange": (232, 118, 22),
}
GROUNDS: Final = {
    "paper": (238, 236, 230),
    "balsa": (222, 192, 146),
    "ply": (176, 130, 84),
    "mat": (38, 74, 66),
}
_TIMES: Final = 6  # finer than a pixel while it is painted
_BLUR: Final = 0.8
_NOISE: Final = 3.0


def apart(colour: str, ground: str) -> float:
    """How far two colours lie apart, grey levels."""
    return float(np.linalg.norm(np.subtract(COLOURS[colour], GROUNDS[ground])))


def painted(
    colour: str,
    ground: str,
    at: tuple[float, float],
    radius: float,
    rng: np.random.Generator,
    *,
    shape: str = "dot",
) -> Pixels:
    """A picture of `SIZE` pixels with one mark: ``dot``, ``head`` (with its light), ``ring`` or ``cross``."""
    under = _ground(ground, rng)
    y, x = (np.mgrid[: SIZE * _TIMES, : SIZE * _TIMES] + 0.5) / _TIMES
    far = np.hypot(x - at[0], y - at[1])
    ink = np.array(COLOURS[colour], float)
    inside = _SHAPES[shape](x - at[0], y - at[1], far, radius)
    light = np.zeros_like(far)
    if shape == "head":  # lit from the upper left, so that its light does not lie in its middle
        light = np.exp(
            -((x - at[0] + radius / 3) ** 2 + (y - at[1] + radius / 3) ** 2) / (radius / 3) ** 2
        )
    fine = np.repeat(np.repeat(under, _TIMES, 0), _TIMES, 1)
    lit = ink + light[..., None] * 0.6 * (255 - ink)
    fine = np.where(inside[..., None], lit, fine)
    whole = fine.reshape(SIZE, _TIMES, SIZE, _TIMES, 3).mean(axis=(1, 3))
    whole = _blurred(whole) + rng.normal(0, _NOISE, whole.shape)
    out = io.BytesIO()
    Image.fromarray(np.clip(whole, 0, 255).astype(np.uint8)).save(out, "JPEG", quality=90)
    pixels: Pixels = np.asarray(Image.open(out).convert("RGB"))
    return pixels


def _ground(name: str, rng: np.random.Generator) -> Array:
    plain: Array = np.ones((SIZE, SIZE, 1)) * np.array(GROUNDS[name], float)
    if name in ("balsa", "ply"):  # grain runs along
        rows = np.convolve(rng.normal(0, 1, SIZE + 4), np.ones(5) / 5, "valid")
        plain = plain * (1 + 0.06 * rows)[:, None, None]
    if name == "mat":  # a line of its grid
        row = int(rng.integers(4, 14))
        plain[row : row + 2] += 40
    return plain


def _blurred(picture: Array) -> Array:
    out: Array = gaussian_filter(picture, (_BLUR, _BLUR, 0), mode="nearest")
    return out


_SHAPES: Final[dict[str, Callable[[Array, Array, Array, float], NDArray[np.bool_]]]] = {
    "dot": lambda _x, _y, far, radius: far < radius,
    "head": lambda _x, _y, far, radius: far < radius,
    "ring": lambda _x, _y, far, radius: (far < radius) & (far > radius - 1.8),
    "cross": lambda x, y, far, radius: (far < radius) & (np.minimum(np.abs(x), np.abs(y)) < 1.1),
}
