"""Finding what a click means: a pin's head, or the corner of a plank, to a part of a pixel."""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.sight.dots import rounds
from hardkeel.sight.pictures import Pixels

Mask = NDArray[np.bool_]
Found = Literal["pin", "cross", "corner", "crowd"]
REACH_PX: Final = 5.5  # how far from the click it may lie
_ABOUT_PX: Final = 31.0  # what is looked at about it
PIN_SIGMA: Final = 0.5  # pixels
CORNER_SIGMA: Final = 0.8
CROSS_SIGMA: Final = 0.4
_CLEARLY: Final = 2.0  # times as far away as the nearest: less, and it is not clear which was meant
_CORNER_PX: Final = 10.0  # edges so far about it are looked at
_DOUBTFUL: Final = 0.3
_CROSS_PX: Final = 8
_ALIKE: Final = 0.85
_ROUNDS: Final = 12
_SETTLED: Final = 0.02
_SHARP: Final = (
    40.0  # least slope of a corner's weaker way, grey a pixel, summed with the window's weights
)


@dataclass(frozen=True, slots=True)
class Snap:
    """What lies under a click: (u, v) in pixels, and one sigma of it; of a crowd the nearest, which may not be meant."""

    at: tuple[float, float]
    kind: Found
    sigma: float


def snap(pixels: Pixels, at: tuple[float, float], reach: float = REACH_PX) -> Snap | None:
    """The dot, pin's head, ring or corner that a click means; ``None`` where there is none within reach.

    Parameters
    ----------
    pixels : ndarray of uint8
        Shape (h, w, 3).
    at : (float, float)
        (u right, v down) from the upper left corner of the picture.
    reach : float
        Pixels.
    """
    window = _window(pixels, at, _ABOUT_PX)
    if window is None:
        return None
    part, left, top = window
    found = rounds(part, (at[0] - left, at[1] - top), reach)
    if found:
        away = [float(np.hypot(one.u + left - at[0], one.v + top - at[1])) for one in found]
        first, *others = sorted(zip(away, found, strict=True), key=lambda pair: pair[0])
        one = first[1]
        if one.sigma > _DOUBTFUL and (cross := _cross(pixels, at, reach)) is not None:
            return Snap(cross, "cross", CROSS_SIGMA)  # between the arms of a cross it is round too
        crowded = any(far < _CLEARLY * max(first[0], 1.0) for far, _ in others)
        return Snap((one.u + left, one.v + top), "crowd" if crowded else "pin", one.sigma)
    corner = _corner(pixels, at, reach)
    if corner is None:
        return None
    cross = _cross(pixels, at, reach)
    if cross is not None:
        return Snap(cross, "cross", CROSS_SIGMA)
    return Snap(corner, "corner", CORNER_SIGMA)


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


def _cross(pixels: Pixels, at: tuple[float, float], reach: float) -> tuple[float, float] | None:
    """Where two lines cross: what is about it looks the same turned half round, and only about there.

    Every half pixel is tried; the best is made finer by the parabola through it and its neighbours.
    """
    window = _window(pixels, at, 2 * _CORNER_PX)
    if window is None:
        return None
    part, left, top = window
    grey = _smooth(_along_the_contrast(part))
    span = round(2 * (reach + 0.5))
    twice = np.arange(-span, span + 1)
    u2 = round(2 * (at[0] - left)) + twice[None, :]
    v2 = round(2 * (at[1] - top)) + twice[:, None]
    alike = _turned_alike(grey, u2, v2)
    inner = alike[1:-1, 1:-1]
    row, column = (int(i) + 1 for i in np.unravel_index(int(np.argmax(inner)), inner.shape))
    if alike[row, column] < _ALIKE:
        return None
    fine_u = _top_of(*alike[row, column - 1 : column + 2])
    fine_v = _top_of(*alike[row - 1 : row + 2, column])
    u = (float(u2[0, column]) + fine_u) / 2 + left
    v = (float(v2[row, 0]) + fine_v) / 2 + top
    return (u, v) if np.hypot(u - at[0], v - at[1]) <= reach else None


def _turned_alike(grey: Array, u2: NDArray[np.intp], v2: NDArray[np.intp]) -> Array:
    """Correlation of what is about each middle with itself turned half round; twice the middles are whole pixels."""
    high, wide = grey.shape
    near = np.arange(-_CROSS_PX, _CROSS_PX + 1)
    dv, du = (one.ravel() for one in np.meshgrid(near, near, indexing="ij"))
    held = np.hypot(du, dv) <= _CROSS_PX
    du, dv = du[held], dv[held]
    weight = np.exp(-(du**2 + dv**2) / (2 * (_CROSS_PX / 2) ** 2))
    weight /= weight.sum()
    u = np.broadcast_to(u2, np.broadcast_shapes(u2.shape, v2.shape))[..., None]
    v = np.broadcast_to(v2, u.shape[:2])[..., None]
    here_u, here_v = u // 2 + du, v // 2 + dv

    def at(column: NDArray[np.intp], row: NDArray[np.intp]) -> Array:
        found: Array = grey[np.clip(row, 0, high - 1), np.clip(column, 0, wide - 1)]
        return found

    one, other = at(here_u, here_v), at(u - here_u, v - here_v)
    one = one - (one @ weight)[..., None]
    other = other - (other @ weight)[..., None]
    both = np.sqrt(((one**2) @ weight) * ((other**2) @ weight))
    alike: Array = ((one * other) @ weight) / np.maximum(both, 1e-9)
    return alike


def _top_of(before: float, here: float, after: float) -> float:
    """Where a parabola through three has its top, in steps from the middle one."""
    bend = before - 2 * here + after
    return float(np.clip(0.5 * (before - after) / bend, -0.5, 0.5)) if bend < 0 else 0.0


def _corner(pixels: Pixels, at: tuple[float, float], reach: float) -> tuple[float, float] | None:
    """Where the edges about a point meet.

    Every pixel on an edge says that the corner lies along its edge: least squares over a window, moved until it stays
    (W. Förstner and E. Gülch, "A fast operator for detection and precise location of distinct points, corners and
    centres of circular features", 1987).
    """
    window = _window(pixels, at, 2 * _CORNER_PX)
    if window is None:
        return None
    part, left, top = window
    grey = _smooth(_along_the_contrast(part))
    down, right = np.gradient(grey)
    y, x = np.mgrid[: grey.shape[0], : grey.shape[1]]
    u, v = at[0] - left, at[1] - top
    for width in (_CORNER_PX / 2, _CORNER_PX / 3):
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
