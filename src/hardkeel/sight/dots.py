"""Dots, heads and rings of any colour on any ground: a round patch is looked for, then fitted to a part of a pixel.

What is looked for is a disc (or a ring) whose colour differs from what is about it by more than both differ in
themselves (R. A. Fisher, "The use of multiple measurements in taxonomic problems", 1936).  What is fitted is a + b·f,
with f the soft-edged disc of middle (u, v), radius r and softness s, by Gauss and Newton with Huber's weights: a light
on a head and the grain of the wood count for little.  The doubt of the middle is that of the fit.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array

_RADII: Final = (1.7, 2.5, 3.5, 4.6, 6.0, 8.0, 10.5, 13.0)
_RING: Final = 1.6  # half of a ring's breadth, and some
_NOISE: Final = 60.0  # variance of a colour that is one: a camera's own, and what its file adds
_SCORE: Final = 2.2
_GROUNDS: Final = 0.25  # of what lies about it: it may have two colours
_APART: Final = 26.0  # grey levels between the mark and what is about it
_ROUNDS: Final = 14
_HUBER: Final = 0.12  # of the contrast
_EXPLAINED: Final = 0.72  # of the variance about the rim
_SMALLEST, _LARGEST = 1.1, 15.0
_SOFTEST: Final = 3.0
_LEAST_SIGMA: Final = 0.25  # pixels: what neither grain nor file lets one know better
_MOST_SIGMA: Final = 0.4  # what is told worse is no dot
_KINDRED: Final = 3.0  # pixels of a photo err alike, with their neighbours: the fit's own doubt is too small by this
_ENOUGH: Final = 40
WIDEST: Final = 64
_SEEN: Final = 18.0  # grey levels in the mean, where a light lies on the mark
_MOST_FITS: Final = 8
_WANDERS: Final = 0.7
_WIDER: Final = 1.7
_SECTORS: Final = 8
_FEW: Final = 3  # pixels: fewer say nothing of a side
_JUST_OUTSIDE: Final = (1.2, 4.0)
_MIXED: Final = 0.18  # of the contrast, one sigma of the ground
_LIKE: Final = 0.5  # of the mark's colour, on one side of it
_STILL: Final = 5e-3
_SAME_PX: Final = 1.5
_ALIKE: Final = 0.2
_MUCH_LARGER: Final = 1.6
_TRUSTED: Final = 0.6  # of the weights: less, and most of it is something else


@dataclass(frozen=True, slots=True)
class Round:
    """A round mark: its middle in pixels of the window, radius, one sigma of the middle, and how well it is told."""

    u: float
    v: float
    radius: float
    sigma: float
    explained: float


def rounds(part: Array, at: tuple[float, float], reach: float) -> tuple[Round, ...]:
    """Round marks whose middle lies within reach of a point, the one told best first; far apart from one another.

    Parameters
    ----------
    part : ndarray
        Shape (h, w, 3): the picture about it, grey levels; no more than `WIDEST` pixels wide or high.
    at : (float, float)
        In pixels of the part, whose first pixel's middle is (0, 0).
    """
    found: list[Round] = []
    for u, v, radius, ring in _sought(part, at, reach)[:_MOST_FITS]:
        if any(_same(o, u, v, radius) for o in found):
            continue
        fitted = _fitted(part, u, v, radius, ring=ring)
        if fitted is not None:  # once more, from where it is and as large as it is
            fitted = _fitted(part, fitted.u, fitted.v, fitted.radius, ring=ring) or fitted
            if np.hypot(fitted.u - at[0], fitted.v - at[1]) <= reach:
                found.append(fitted)
    kept: list[Round] = []
    # a light on a head is round too: what lies in a much larger one is the larger one
    for one in sorted(found, key=lambda one: -one.explained):
        over = [o for o in kept if np.hypot(o.u - one.u, o.v - one.v) <= max(o.radius, one.radius)]
        if not over:
            kept.append(one)
        elif all(one.radius > _MUCH_LARGER * o.radius for o in over):
            kept = [o for o in kept if o not in over] + [one]
    return tuple(sorted(kept, key=lambda one: -one.explained))


def _same(one: Round, u: float, v: float, radius: float) -> bool:
    near = bool(np.hypot(one.u - u, one.v - v) < _SAME_PX)
    return near and abs(one.radius - radius) < _ALIKE * one.radius


@lru_cache(maxsize=64)
def _masks(radius: float, *, ring: bool) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Shape (WIDEST, WIDEST), the middle at (0, 0) and around the edges: what is the mark's, and what is about it."""
    away = np.fft.fftfreq(WIDEST, 1 / WIDEST)
    far = np.hypot(away[:, None], away[None, :])
    if ring:
        mine = np.abs(far - radius) < _RING / 2
        about = ((far > radius + 2.0) & (far < radius + 4.5)) | (far < max(1.0, radius - 2.2))
    else:
        mine = far <= max(1.2, 0.78 * radius)
        about = (far >= 1.2 * radius + 1.2) & (far <= 1.2 * radius + 4.2)
    return mine, about


@lru_cache(maxsize=1)
def _sizes() -> tuple[tuple[tuple[float, bool], ...], NDArray[np.complex64]]:
    """Every radius as a disc and as a ring, and their masks' waves: shape (2k, WIDEST, WIDEST // 2 + 1)."""
    sizes = (*((radius, False) for radius in _RADII), *((radius, True) for radius in _RADII[2:]))
    waves = [
        np.fft.rfft2((mask / mask.sum()).astype(np.float32))
        for radius, ring in sizes
        for mask in _masks(radius, ring=ring)
    ]
    return sizes, np.array(waves, dtype=np.complex64)


def _sought(
    part: Array, at: tuple[float, float], reach: float
) -> Sequence[tuple[float, float, float, bool]]:
    """Middles (u, v) with radius and whether it is a ring, the likeliest first; the best two of each radius."""
    high, wide = part.shape[:2]
    whole = np.pad(part, ((0, WIDEST - high), (0, WIDEST - wide), (0, 0)), mode="edge")
    whole = (whole / 255).astype(np.float32)
    planes = np.moveaxis(np.dstack((whole, np.sum(whole**2, axis=2))), 2, 0)
    sizes, masks = _sizes()
    means = np.fft.irfft2(masks[:, None] * np.fft.rfft2(planes)[None], s=(WIDEST, WIDEST))
    rows, columns = np.mgrid[:WIDEST, :WIDEST]
    near = np.hypot(columns - at[0], rows - at[1]) <= reach + 0.5
    rows, columns, means = rows[near], columns[near], means[..., near].astype(float)
    told: list[tuple[bool, float, float, float, float, bool]] = []
    for (radius, ring), own, other in zip(sizes, means[::2], means[1::2], strict=True):
        between = np.sum((own[:3] - other[:3]) ** 2, axis=0)
        mixed, grounds = (
            np.maximum(one[3] - np.sum(one[:3] ** 2, axis=0), 0.0) for one in (own, other)
        )
        for share in (1.0, _GROUNDS):  # a ground of one colour, then one of two
            score = between / (mixed + share * grounds + _NOISE / 255**2)
            score[between <= (_SEEN / 255) ** 2] = 0.0
            for _ in range(2):  # two alike may stand side by side
                best = int(np.argmax(score))
                if score[best] <= _SCORE:
                    break
                u, v = float(columns[best]), float(rows[best])
                told.append((share == 1.0, float(score[best]), u, v, radius, ring))
                score[np.hypot(columns - u, rows - v) <= 2 * radius] = 0.0
    told.sort(reverse=True)
    return [(u, v, radius, ring) for _, _, u, v, radius, ring in told]


def _taken(part: Array, v: float, u: float, mask: NDArray[np.bool_]) -> Array:
    """The pixels of a mask about a middle, shape (n, 3)."""
    steps = np.argwhere(mask)
    steps = np.where(steps > WIDEST // 2, steps - WIDEST, steps)
    high, wide = part.shape[:2]
    rows = np.clip(round(v) + steps[:, 0], 0, high - 1)
    columns = np.clip(round(u) + steps[:, 1], 0, wide - 1)
    taken: Array = part[rows, columns]
    return taken


def _fitted(part: Array, u: float, v: float, radius: float, *, ring: bool) -> Round | None:
    """The soft disc or ring that tells the picture best from there; ``None`` where none tells it.

    Told by how far a pixel lies on the way from the ground's colour to the mark's; where the ground has two colours,
    wood and wall, from the colour on its own side.
    """
    y, x = np.mgrid[: part.shape[0], : part.shape[1]].astype(float)
    near = np.hypot(x - u, y - v) <= 1.25 * radius + 5.5
    if int(near.sum()) < _ENOUGH:
        return None
    mine, about = _masks(radius, ring=ring)
    own = np.median(_taken(part, v, u, mine), axis=0)
    other = np.median(_taken(part, v, u, about), axis=0)
    way = own - other
    length = float(np.linalg.norm(way))
    if length < _APART:
        return None
    start = np.array([u, v, radius, 1.0, 2 * _RING if ring else 0.0])
    along = (part[near] - other) @ way / length**2
    sided = _by_sides(part, near, (u, v, radius), own)
    ground = (_taken(part, v, u, about) - other) @ way / length**2
    mixed = float(np.std(ground)) > _MIXED
    for shade in (sided, along) if mixed else (along,):
        found = _settled(x[near], y[near], shade, start, length) if shade is not None else None
        if found is not None:
            return found
    return None


def _settled(x: Array, y: Array, shade: Array, start: Array, length: float) -> Round | None:
    unknowns, count = start.copy(), 5 if start[4] else 4
    left, weight = shade, np.ones_like(shade)
    slopes = np.zeros((len(shade), count + 2))
    colours = np.array([0.0, 1.0])
    for _ in range(_ROUNDS):
        base, by = _shape(x, y, unknowns)
        slopes[:, :count] = colours[1] * by[:, :count]
        slopes[:, count], slopes[:, count + 1] = 1.0, base
        left = shade - colours[0] - colours[1] * base
        weight = 1.0 / np.maximum(1.0, np.abs(left) / _HUBER)
        normal = slopes.T @ (weight[:, None] * slopes) + 1e-6 * np.eye(count + 2)
        moved = np.linalg.solve(normal, slopes.T @ (weight * left))
        moved[:count] = np.clip(moved[:count], -1.0, 1.0)
        unknowns[:count] += moved[:count]
        colours += moved[count:]
        unknowns[2] = np.clip(unknowns[2], 0.7, _LARGEST + 1)
        unknowns[3] = np.clip(unknowns[3], 0.3, _SOFTEST)
        unknowns[4] = np.clip(unknowns[4], 0.8, 6.0) if start[4] else 0.0
        if np.hypot(moved[0], moved[1]) < _STILL:
            break
    moved_by, wider = np.hypot(*(unknowns[:2] - start[:2])), unknowns[2] / start[2]
    if moved_by > _WANDERS * start[2] + 1.5 or not 1 / _WIDER < wider < _WIDER:
        return None  # it is another thing that was fitted
    if not _stands_out(x, y, (shade - colours[0]) / colours[1], unknowns):
        return None
    return _judged(x, y, shade, weight, slopes, unknowns, colours, length)


def _stands_out(x: Array, y: Array, shade: Array, unknowns: Array) -> bool:
    """Whether the ground goes all around it: an edge is no rim."""
    dx, dy = x - unknowns[0], y - unknowns[1]
    far = np.hypot(dx, dy) - unknowns[2]
    sector = _sector(dx, dy)
    outside = (far > _JUST_OUTSIDE[0]) & (far < _JUST_OUTSIDE[1])
    count = np.bincount(sector[outside], minlength=_SECTORS)
    like = np.bincount(sector[outside], weights=shade[outside], minlength=_SECTORS)
    told = count >= _FEW
    return bool(np.all(like[told] <= _LIKE * count[told]))


def _by_sides(
    part: Array, near: NDArray[np.bool_], middle: tuple[float, float, float], own: Array
) -> Array | None:
    """How far each pixel lies on the way from the ground's colour on its own side to the mark's; shape (n,)."""
    u, v, radius = middle
    y, x = np.mgrid[: part.shape[0], : part.shape[1]].astype(float)
    side = _sector(x[near] - u, y[near] - v)
    far = np.hypot(x[near] - u, y[near] - v) - radius
    colours = part[near]
    ground = np.zeros((_SECTORS, 3))
    outside = (far > _JUST_OUTSIDE[0]) & (far < _JUST_OUTSIDE[1])
    for i in range(_SECTORS):
        mine = outside & (side == i)
        if int(mine.sum()) < _FEW:
            return None
        ground[i] = np.median(colours[mine], axis=0)
    way = own - ground
    length = np.sum(way**2, axis=1)
    if float(length.min()) < _APART**2:
        return None
    told: Array = np.sum((colours - ground[side]) * way[side], axis=1) / length[side]
    return told


def _sector(dx: Array, dy: Array) -> NDArray[np.intp]:
    turned = (np.arctan2(dy, dx) / (2 * np.pi) + 0.5) * _SECTORS
    return np.floor(turned).astype(np.intp) % _SECTORS


def _judged(  # noqa: PLR0913, PLR0917  all of a fit
    x: Array,
    y: Array,
    shade: Array,
    weight: Array,
    slopes: Array,
    unknowns: Array,
    colours: Array,
    length: float,
) -> Round | None:
    """The fit as a mark, where it is one."""
    u, v, radius = (float(one) for one in unknowns[:3])
    if not _SMALLEST <= radius <= _LARGEST or abs(float(colours[1])) * length < _APART:
        return None
    far = np.hypot(x - u, y - v)
    rim = far <= radius + 3.5
    left = shade - colours[0] - colours[1] * _shape(x, y, unknowns)[0]
    mine = weight[rim]
    mean = float(np.average(shade[rim], weights=mine))
    whole = float(np.sum(mine * (shade[rim] - mean) ** 2))
    explained = 1.0 - float(np.sum(mine * left[rim] ** 2)) / max(whole, 1e-9)
    if explained < _EXPLAINED or float(np.mean(mine)) < _TRUSTED:
        return None
    normal = slopes.T @ (weight[:, None] * slopes) + 1e-6 * np.eye(slopes.shape[1])
    variance = float(np.sum(weight * left**2)) / max(1.0, float(np.sum(weight)) - slopes.shape[1])
    spread = np.linalg.inv(normal) * variance
    sigma = _KINDRED * float(np.sqrt(max(spread[0, 0], spread[1, 1])))
    if sigma > _MOST_SIGMA:
        return None
    return Round(u, v, radius, max(_LEAST_SIGMA, sigma), explained)


def _shape(x: Array, y: Array, unknowns: Array) -> tuple[Array, Array]:
    """The soft disc, or the ring of two, shape (n,), and its slopes by middle, radius, softness and breadth, (n, 5)."""
    u, v, radius, soft, broad = unknowns
    dx, dy = x - u, y - v
    far = np.maximum(np.hypot(dx, dy), 1e-9)
    edge = (far - radius) / soft
    told = np.tanh(edge)
    steep = 0.5 * (1 - told**2) / soft
    shape, outward, softer = 0.5 * (1 - told), steep, steep * edge
    inner = np.zeros_like(far)
    if broad:
        edge = (far - radius + broad) / soft
        told = np.tanh(edge)
        inner = 0.5 * (1 - told**2) / soft
        shape = shape - 0.5 * (1 - told)
        outward, softer = outward - inner, softer - inner * edge
    slopes: Array = np.column_stack(
        (outward * dx / far, outward * dy / far, outward, softer, inner)
    )
    return shape, slopes
