"""Two scans of one drawing that overlap: which place of the one is which of the other, by their ink.

A coarse look finds turn and shift: the normalized correlation of both ink maps over all shifts (D. Padfield, "Masked
Object Registration in the Fourier Domain", IEEE Trans. Image Processing 21, 2012).  Then small pieces with crossing
lines are looked for one by one, and those kept that one even map carries to each other.
"""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage
from hardkeel.paper.ink import Ink

_COARSE_PX_PER_MM: Final = 0.6
_TURNS_DEG: Final = np.arange(-4.0, 4.01, 1.0)
_LEAST_SHARE: Final = 0.04  # of the smaller sheet that must overlap
_LEAST_ALIKE: Final = 0.35
_PIECE_MM: Final = 4.0  # to each side of a place that is looked for
_AROUND_MM: Final = 3.5  # where it is looked for about where the coarse look puts it
_AGAIN_MM: Final = 1.5  # and once more, the turn known
_FINE_PX_PER_MM: Final = 6.0
_ALIKE: Final = 0.75
_PLACES: Final = 90
_APART_MM: Final = 6.0
_FITS_MM: Final = 0.12
_LEAST_PAIRS: Final = 5
_MOST_PAIRS: Final = 16
_FULL: Final = 40.0  # grey levels that count as ink all through
_MUCH, _LITTLE_MM = 2.5, 0.04
_TRIES: Final = 200


@dataclass(frozen=True, slots=True)
class Same:
    """One place in two scans, pixels of each."""

    one: Point2
    other: Point2


@dataclass(frozen=True, slots=True)
class _Grid:
    """How dark a sheet is, cell by cell."""

    dark: Array
    px_per_mm: float

    @property
    def middle(self) -> Array:
        """Of the sheet, mm."""
        return np.array(self.dark.shape[::-1]) / 2 / self.px_per_mm


def same_places(one: Ink, other: Ink) -> tuple[Same, ...]:
    """Places that both scans show, well spread over what they have in common.

    Raises
    ------
    BadInput
        When they do not overlap so that it shows.
    """
    turn, shift = _coarse(one, other)
    grids = _grid_of(one), _grid_of(other)
    kept = _even(_pairs(*grids, turn, shift, _AROUND_MM))
    if len(kept) >= _LEAST_PAIRS:  # looked at anew by what they say of the turn
        turn, shift = _carried(grids[1], kept)
        kept = _even(_pairs(*grids, turn, shift, _AGAIN_MM)) or kept
    if len(kept) < _LEAST_PAIRS:
        raise BadInput("", "the two sheets have too little in common: mark points of the other one")
    return tuple(
        Same(_spot(a * one.px_per_mm), _spot(b * other.px_per_mm)) for a, b in _spread(kept)
    )


# -- the coarse look ---------------------------------------------------------------------------------


def _map_of(ink: Ink, px_per_mm: float) -> Array:
    """How much ink lies at each cell of a coarse grid, 0 to 1."""
    step = ink.px_per_mm / px_per_mm
    every = max(1, round(step / 3))
    smooth = ndimage.uniform_filter(ink.fine, size=every) if every > 1 else ink.fine
    columns, rows = (max(1, int(size / step)) for size in ink.size)
    u = ((np.arange(columns * 3) + 0.5) * step / 3).astype(int)
    v = ((np.arange(rows * 3) + 0.5) * step / 3).astype(int)
    spots = np.stack(np.meshgrid(u, v), axis=-1)
    dark = ink.paper(spots.astype(float)) - smooth[np.ix_(v, u)]
    dark = np.clip(dark, 0, _FULL) / _FULL
    return np.asarray(dark.reshape(rows, 3, columns, 3).max(axis=(1, 3)))


def _coarse(one: Ink, other: Ink) -> tuple[float, Array]:
    """Turn (radians) of the other sheet into the first one's, and shift (mm) that follows it."""
    a, b = (_map_of(ink, _COARSE_PX_PER_MM) for ink in (one, other))
    best = (-1.0, 0.0, np.zeros(2))
    for degrees in _TURNS_DEG:
        turned, mask = _turned(b, math.radians(float(degrees)))
        alike, at = _correlated(a, turned, mask)
        if alike > best[0]:
            best = (alike, math.radians(float(degrees)), at)
    if best[0] < _LEAST_ALIKE:
        raise BadInput("", "no overlap of the two sheets is seen: mark points of the other one")
    return best[1], best[2] / _COARSE_PX_PER_MM


def _turned(grid: Array, turn: float) -> tuple[Array, Array]:
    """A grid turned about its middle, on one as large, and where it has cells."""
    rows, columns = grid.shape
    middle = np.array([rows, columns]) / 2
    cos, sin = math.cos(turn), math.sin(turn)
    back = np.array([[cos, -sin], [sin, cos]])
    shift = middle - back @ middle
    made = ndimage.affine_transform(grid, back, offset=shift, order=1)
    mask = ndimage.affine_transform(np.ones_like(grid), back, offset=shift, order=0)
    return np.asarray(made), np.asarray(mask)


def _correlated(a: Array, b: Array, mask: Array) -> tuple[float, Array]:
    """The best normalized correlation over all shifts of b, and that shift (u, v) in cells."""
    shape = [int(2 ** math.ceil(math.log2(p + q))) for p, q in zip(a.shape, b.shape, strict=True)]

    def ahead(grid: Array) -> NDArray[np.complex128]:
        return np.fft.rfft2(grid, shape)

    def both(p: NDArray[np.complex128], q: NDArray[np.complex128]) -> Array:
        return np.asarray(np.fft.irfft2(p * np.conj(q), shape))

    fa, fm, fb, fn = ahead(a), ahead(np.ones_like(a)), ahead(b), ahead(mask)
    faa, fbb = ahead(a * a), ahead(b * b)
    count = np.maximum(both(fm, fn), 1e-6)
    sa, sb = both(fa, fn), both(fm, fb)
    cross = both(fa, fb) - sa * sb / count
    va = np.maximum(both(faa, fn) - sa**2 / count, 0.0)
    vb = np.maximum(both(fm, fbb) - sb**2 / count, 0.0)
    least = _LEAST_SHARE * min(a.size, b.size)
    spread = np.sqrt(va * vb)
    good = (count > least) & (spread > 1e-3 * float(spread.max()))
    alike = np.where(good, cross / np.maximum(spread, 1e-9), -1.0)
    v, u = np.unravel_index(int(np.argmax(alike)), alike.shape)
    at = np.array(
        [u if u < shape[1] / 2 else u - shape[1], v if v < shape[0] / 2 else v - shape[0]]
    )
    return float(alike.max()), at.astype(float)


# -- place by place ----------------------------------------------------------------------------------


def _grid_of(ink: Ink) -> _Grid:
    """The sheet's darkness on a fine even grid."""
    shrink = max(1, round(ink.px_per_mm / _FINE_PX_PER_MM))
    tall, wide = (n // shrink * shrink for n in ink.fine.shape)
    grey = ink.fine[:tall, :wide].reshape(tall // shrink, shrink, wide // shrink, shrink)
    return _Grid(255.0 - grey.mean(axis=(1, 3)), ink.px_per_mm / shrink)


def _carried(other: _Grid, pairs: list[tuple[Array, Array]]) -> tuple[float, Array]:
    """Turn and shift, as of the coarse look, that carry pairs to each other best."""
    a, b = (np.array([pair[i] for pair in pairs]) for i in (0, 1))
    off_a, off_b = a - a.mean(axis=0), b - b.mean(axis=0)
    cross = float((off_b[:, 0] * off_a[:, 1] - off_b[:, 1] * off_a[:, 0]).sum())
    turn = math.atan2(cross, float((off_a * off_b).sum()))
    middle = other.middle
    cos, sin = math.cos(turn), math.sin(turn)
    back = np.array([[cos, -sin], [sin, cos]])
    return turn, a.mean(axis=0) - middle - back @ (b.mean(axis=0) - middle)


def _pairs(
    one: _Grid, other: _Grid, turn: float, shift: Array, around: float
) -> list[tuple[Array, Array]]:
    """Places of both sheets, mm, whose pieces are alike; looked for within `around` mm."""
    a, fine_a, b, fine_b, middle = (
        one.dark,
        one.px_per_mm,
        other.dark,
        other.px_per_mm,
        other.middle,
    )
    half = round(_PIECE_MM * fine_a)
    reach = round(around * fine_b)
    cos, sin = math.cos(turn), math.sin(turn)
    # a place (mm) of the first sheet lies on the second one there
    back = np.array([[cos, -sin], [sin, cos]])
    found = []
    for place in _marked(a, fine_a):
        there = middle + back.T @ (place - shift - middle)
        if not _inside(a, place * fine_a, half) or not _inside(b, there * fine_b, half + reach):
            continue
        piece = _around(a, place * fine_a, half, 1.0, 0.0)
        window = _around(b, there * fine_b, half + reach, fine_b / fine_a, turn)
        alike, at = _searched(window, piece)
        if alike > _ALIKE:
            off = (at - (np.array(window.shape[::-1]) - piece.shape[::-1]) / 2) / fine_a
            found.append((place, there + back.T @ off))
    return found


def _inside(grid: Array, at: Array, reach: float) -> bool:
    rows, columns = grid.shape
    return bool(reach <= at[0] < columns - reach and reach <= at[1] < rows - reach)


def _marked(grid: Array, fine: float) -> list[Array]:
    """Places where lines cross or turn, the strongest first, mm (C. Harris and M. Stephens, Alvey Vision Conf. 1988)."""
    dy, dx = (ndimage.gaussian_filter(grid, 1.2, order=o) for o in ((1, 0), (0, 1)))
    xx, yy, xy = (ndimage.gaussian_filter(p, 2.5) for p in (dx * dx, dy * dy, dx * dy))
    strength = xx * yy - xy**2 - 0.05 * (xx + yy) ** 2
    size = max(3, round(_APART_MM * fine))
    top = (strength == ndimage.maximum_filter(strength, size=size)) & (strength > 0)
    rows, columns = np.nonzero(top)
    order = np.argsort(-strength[rows, columns])[: 6 * _PLACES]
    return [np.array([columns[i] + 0.5, rows[i] + 0.5]) / fine for i in order]


def _around(grid: Array, at: Array, half: float, scale: float, turn: float) -> Array:
    """What lies around a place, turned back and on the other grid's step, shape (2k + 1, 2k + 1)."""
    count = round(half / scale)
    steps = np.arange(-count, count + 1) * scale
    u, v = np.meshgrid(steps, steps)
    cos, sin = math.cos(turn), math.sin(turn)
    x = at[0] - 0.5 + cos * u + sin * v
    y = at[1] - 0.5 - sin * u + cos * v
    return np.asarray(ndimage.map_coordinates(grid, [y, x], order=1, mode="nearest"))


def _searched(window: Array, piece: Array) -> tuple[float, Array]:
    """How alike a piece is to what lies in a window at best, and where (u, v) from the window's first place."""
    rows, columns = (n - m + 1 for n, m in zip(window.shape, piece.shape, strict=True))
    if rows < 3 or columns < 3:  # noqa: PLR2004
        return -1.0, np.zeros(2)
    mine = piece - piece.mean()
    even = window - window.mean()  # small figures: their squares lose nothing in the sums
    met = np.fft.rfft2(even) * np.conj(np.fft.rfft2(mine, even.shape))  # no place wraps round
    cross = np.fft.irfft2(met, even.shape)[:rows, :columns]
    power = _sums(even**2, piece.shape) - _sums(even, piece.shape) ** 2 / piece.size
    alike = cross / np.sqrt(np.maximum(power, 1e-6) * float((mine**2).sum()) + 1e-6)
    v, u = np.unravel_index(int(np.argmax(alike)), alike.shape)
    at = np.array([float(u), float(v)])
    if 0 < u < columns - 1 and 0 < v < rows - 1:
        for axis, (low, mid, high) in enumerate((alike[v, u - 1 : u + 2], alike[v - 1 : v + 2, u])):
            bend = low - 2 * mid + high
            if bend < 0:
                at[axis] += float(np.clip((low - high) / bend / 2, -0.5, 0.5))
    return float(alike.max()), at


def _sums(field: Array, shape: tuple[int, ...]) -> Array:
    """The sum under a rectangle at each of its places, by sums of sums."""
    running = np.pad(field.cumsum(axis=0).cumsum(axis=1), ((1, 0), (1, 0)))
    m, n = shape
    return np.asarray(running[m:, n:] - running[:-m, n:] - running[m:, :-n] + running[:-m, :-n])


def _even(pairs: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """The pairs that one turn, shift and scale carries to each other (M. Fischler and R. Bolles, Comm. ACM 24, 1981)."""
    if len(pairs) < _LEAST_PAIRS:
        return []
    a = np.array([p[0][0] + 1j * p[0][1] for p in pairs])
    b = np.array([p[1][0] + 1j * p[1][1] for p in pairs])
    rng = np.random.default_rng(1)
    best = np.zeros(len(pairs), dtype=bool)
    for _ in range(_TRIES):
        i, j = rng.choice(len(pairs), 2, replace=False)
        if abs(a[i] - a[j]) < 2 * _APART_MM:
            continue
        turn = (b[i] - b[j]) / (a[i] - a[j])
        near = np.abs(b - b[i] - turn * (a - a[i])) < _FITS_MM
        if near.sum() > best.sum():
            best = near
    if best.sum() >= _LEAST_PAIRS:  # what one map through all of them leaves much of goes
        design = np.column_stack([a[best], np.ones(int(best.sum()))])
        fitted = np.linalg.lstsq(design, b[best], rcond=None)[0]
        left = np.abs(np.column_stack([a, np.ones(len(a))]) @ fitted - b)
        best &= left <= max(_MUCH * float(np.median(left[best])), _LITTLE_MM)
    return [pair for pair, kept in zip(pairs, best, strict=True) if kept]


def _spread(pairs: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """Some of the pairs, as far from each other as may be."""
    places = np.array([pair[0] for pair in pairs])
    chosen = [int(np.argmax(np.hypot(*(places - places.mean(axis=0)).T)))]
    away = np.hypot(*(places - places[chosen[0]]).T)
    while len(chosen) < min(_MOST_PAIRS, len(pairs)):
        nearest = int(np.argmax(away))
        chosen.append(nearest)
        away = np.minimum(away, np.hypot(*(places - places[nearest]).T))
    return [pairs[i] for i in chosen]


def _spot(place: Array) -> Point2:
    return float(place[0]), float(place[1])
