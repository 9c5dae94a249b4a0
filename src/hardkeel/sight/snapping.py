"""Finding what a click means: a pin's head, or the corner of a plank, to a part of a pixel."""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.sight.pictures import Pixels

Mask = NDArray[np.bool_]
Found = Literal["pin", "corner"]
REACH_PX: Final = 10.0  # how far from the click it may lie
PIN_SIGMA: Final = 0.5  # pixels
CORNER_SIGMA: Final = 0.8
_ROUNDS: Final = 12
_SETTLED: Final = 0.02
_SHARP: Final = (
    40.0  # least slope of a corner's weaker way, grey a pixel, summed with the window's weights
)
_COLOUR: Final = 55.0  # a head stands out from what is about it by so much
_LARGEST: Final = 0.45  # of the window: more is no head
_ROUND: Final = 1.9  # longer to wide


@dataclass(frozen=True, slots=True)
class Snap:
    """What lies under a click: (u, v) in pixels."""

    at: tuple[float, float]
    kind: Found

    @property
    def sigma(self) -> float:
        """Pixels: how well it is found."""
        return PIN_SIGMA if self.kind == "pin" else CORNER_SIGMA


def snap(pixels: Pixels, at: tuple[float, float], reach: float = REACH_PX) -> Snap | None:
    """The pin's head or corner nearest to a click; ``None`` where there is neither.

    Parameters
    ----------
    pixels : ndarray of uint8
        Shape (h, w, 3).
    at : (float, float)
        (u right, v down) from the upper left corner of the picture.
    reach : float
        Pixels.
    """
    head = _head(pixels, at, reach)
    if head is not None:
        return Snap(head, "pin")
    corner = _corner(pixels, at, reach)
    return Snap(corner, "corner") if corner is not None else None


def _window(
    pixels: Pixels, at: tuple[float, float], reach: float
) -> tuple[Array, float, float] | None:
    """The part of a picture about a point, and where its first pixel's middle lies."""
    high, wide = pixels.shape[:2]
    left, top = round(at[0] - reach), round(at[1] - reach)
    right, low = left + round(2 * reach) + 1, top + round(2 * reach) + 1
    left, top, right, low = max(0, left), max(0, top), min(wide, right), min(high, low)
    if right - left < 2 * _LEAST or low - top < 2 * _LEAST:
        return None
    return pixels[top:low, left:right].astype(float), left + 0.5, top + 0.5


_LEAST: Final = 4


def _head(pixels: Pixels, at: tuple[float, float], reach: float) -> tuple[float, float] | None:
    """The middle of a round patch whose colour stands out, by its share of that colour in each pixel."""
    window = _window(pixels, at, 2 * reach)
    if window is None:
        return None
    part, left, top = window
    # how much redder, greener or bluer than grey: shade alone is no head
    tint = part - part.mean(axis=2, keepdims=True)
    rim = np.concatenate([tint[0], tint[-1], tint[:, 0], tint[:, -1]])
    away = np.linalg.norm(tint - np.median(rim, axis=0), axis=2)
    most = float(away.max())
    if most < _COLOUR:
        return None
    patch = _about_the_peak(away > most / 2, away)
    count = int(patch.sum())
    if patch[0].any() or patch[-1].any() or patch[:, 0].any() or patch[:, -1].any():
        return None  # it goes on beyond the window: a plank, not a head
    if not 3 <= count <= _LARGEST * patch.size:  # noqa: PLR2004  a head of three pixels can still be seen
        return None
    soft = np.where(_grown(patch), away, 0.0)
    soft = np.clip(soft - 0.1 * most, 0.0, None)
    y, x = np.mgrid[: part.shape[0], : part.shape[1]]
    whole = float(soft.sum())
    u, v = float((soft * x).sum()) / whole, float((soft * y).sum()) / whole
    spread = np.cov(np.vstack([x[patch], y[patch]])) if count > 4 else np.eye(2)  # noqa: PLR2004
    sizes = np.sqrt(np.linalg.eigvalsh(spread + np.eye(2) / 12))
    if sizes[1] > _ROUND * sizes[0] or np.hypot(u + left - at[0], v + top - at[1]) > reach:
        return None
    return u + left, v + top


def _about_the_peak(mask: Mask, away: Array) -> Mask:
    """The connected part of a mask that holds the strongest pixel."""
    seed = np.unravel_index(int(np.argmax(away)), away.shape)
    patch: Mask = np.zeros(mask.shape, dtype=bool)
    patch[seed] = True
    while True:
        wider = _grown(patch) & mask
        if (wider == patch).all():
            return patch
        patch = wider


def _grown(patch: Mask) -> Mask:
    out = patch.copy()
    out[1:] |= patch[:-1]
    out[:-1] |= patch[1:]
    out[:, 1:] |= patch[:, :-1]
    out[:, :-1] |= patch[:, 1:]
    return out


def _along_the_contrast(part: Array) -> Array:
    """One figure a pixel: along the line of colours on which this part differs most."""
    flat = part.reshape(-1, 3) - part.reshape(-1, 3).mean(axis=0)
    way = np.linalg.eigh(flat.T @ flat)[1][:, -1]
    out: Array = (flat @ way).reshape(part.shape[:2])
    return out


def _smooth(grey: Array) -> Array:
    padded = np.pad(grey, 1, mode="edge")
    rows = (padded[:-2] + 2 * padded[1:-1] + padded[2:]) / 4
    out: Array = (rows[:, :-2] + 2 * rows[:, 1:-1] + rows[:, 2:]) / 4
    return out


def _corner(pixels: Pixels, at: tuple[float, float], reach: float) -> tuple[float, float] | None:
    """Where the edges about a point meet.

    Every pixel on an edge says that the corner lies along its edge: least squares over a window, moved until it stays
    (W. Förstner and E. Gülch, "A fast operator for detection and precise location of distinct points, corners and
    centres of circular features", 1987).
    """
    window = _window(pixels, at, 2 * reach)
    if window is None:
        return None
    part, left, top = window
    grey = _smooth(_along_the_contrast(part))
    down, right = np.gradient(grey)
    y, x = np.mgrid[: grey.shape[0], : grey.shape[1]]
    u, v = at[0] - left, at[1] - top
    for width in (reach / 2, reach / 3):
        for _ in range(_ROUNDS):
            weight = np.exp(-((x - u) ** 2 + (y - v) ** 2) / (2 * width**2))
            xx, xy, yy = (
                float((weight * a * b).sum())
                for a, b in ((right, right), (right, down), (down, down))
            )
            det = xx * yy - xy * xy
            half = (xx + yy) / 2
            least = half - np.sqrt(max(0.0, half * half - det))
            if least < _SHARP * _SHARP:
                return None
            bx = float((weight * (right * right * x + right * down * y)).sum())
            by = float((weight * (right * down * x + down * down * y)).sum())
            new_u, new_v = (yy * bx - xy * by) / det, (xx * by - xy * bx) / det
            moved = float(np.hypot(new_u - u, new_v - v))
            u, v = new_u, new_v
            if np.hypot(u + left - at[0], v + top - at[1]) > reach:
                return None
            if moved < _SETTLED:
                break
    return u + left, v + top
