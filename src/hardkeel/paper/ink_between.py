"""The way along the ink from one place of a sheet to another, where the builder has clicked both."""

import math
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import csgraph, sparse
from hardkeel.paper.ink import LEAST_CONTRAST, Ink
from hardkeel.paper.ink_following import Way

_CELL_MM: Final = 0.25
_MOST_CELLS: Final = 250_000
_ASIDE_MM: Final = 6.0
_ASIDE_SHARE: Final = 0.35  # of the distance, that the ink may bulge to the side
_BARE: Final = 25.0  # what a cell of bare paper costs against one of ink
_SAMPLES: Final = (-0.25, 0.25)  # of a cell: a hairline between two looks is not missed
_STEP_MM: Final = 0.5
_SMOOTH: Final = 5  # cells


def way_between(ink: Ink, a: tuple[float, float], b: tuple[float, float]) -> Way:
    """The way that lies on ink as much as may be (E. W. Dijkstra, Numerische Mathematik 1, 1959, 269–271).

    Parameters
    ----------
    a, b : tuple of float
        Pixels.  Where there is no ink between, it is the straight way.
    """
    start, end = np.array(a, dtype=float), np.array(b, dtype=float)
    apart = math.dist(a, b)
    mm = ink.px_per_mm
    if apart < _STEP_MM * mm:
        return Way(np.array([start, end]), (), closed=False)
    aside = _ASIDE_MM * mm + _ASIDE_SHARE * apart
    low = np.maximum(np.minimum(start, end) - aside, 0.0)
    high = np.minimum(np.maximum(start, end) + aside, np.array(ink.size, dtype=float))
    cell = max(_CELL_MM * mm, math.sqrt(float(np.prod(high - low)) / _MOST_CELLS), 1.0)
    columns, rows = (max(2, int(one / cell)) for one in high - low)
    cost = _costs(ink, low, cell, (rows, columns), (start, end))
    places = [
        min(int((p[1] - low[1]) / cell), rows - 1) * columns
        + min(int((p[0] - low[0]) / cell), columns - 1)
        for p in (start, end)
    ]
    cells = _cheapest(cost, places[0], places[1])
    middles = low + (np.column_stack([cells % columns, cells // columns]) + 0.5) * cell
    middles[0], middles[-1] = start, end
    return Way(_evened(_smoothed(middles), _STEP_MM * mm), (), closed=False)


def _costs(
    ink: Ink, low: Array, cell: float, shape: tuple[int, int], ends: tuple[Array, Array]
) -> Array:
    rows, columns = shape
    x, y = np.meshgrid(np.arange(columns) + 0.5, np.arange(rows) + 0.5)
    contrast = np.zeros(shape)
    for dx in _SAMPLES:
        for dy in _SAMPLES:
            spots = low + np.stack([x + dx, y + dy], axis=-1) * cell
            contrast = np.maximum(contrast, ink.profile(spots))
    reach = np.linspace(-0.4, 0.4, 9) * ink.px_per_mm
    near = [
        float(np.max(ink.profile(p + np.stack(np.meshgrid(reach, reach), axis=-1).reshape(-1, 2))))
        for p in ends
    ]
    level = max(min(near), LEAST_CONTRAST)
    strength = np.clip(contrast / level, 0.0, 1.0)
    return np.asarray(1.0 + (_BARE - 1.0) * (1.0 - strength) ** 2)


def _cheapest(cost: Array, start: int, end: int) -> Array:
    """Numbers of the cells of the cheapest way, steps to all eight neighbours."""
    rows, columns = cost.shape
    number = np.arange(rows * columns).reshape(rows, columns)
    one, other, price = [], [], []
    for dy, dx in ((0, 1), (1, 0), (1, 1), (1, -1)):
        a = number[: rows - dy, max(0, -dx) : columns - max(0, dx)].ravel()
        b = number[dy:, max(0, dx) : columns - max(0, -dx)].ravel()
        one.append(a)
        other.append(b)
        flat = cost.ravel()
        price.append((flat[a] + flat[b]) / 2 * math.hypot(dx, dy))
    edges = (np.concatenate(price), (np.concatenate(one), np.concatenate(other)))
    graph = sparse.csr_matrix(edges, shape=(rows * columns, rows * columns))
    before = csgraph.dijkstra(graph, directed=False, indices=start, return_predecessors=True)[1]
    found = [end]
    while found[-1] != start:
        found.append(int(before[found[-1]]))
    return np.array(found[::-1])


def _smoothed(points: Array) -> Array:
    """The steps from cell to cell evened out; both ends stay."""
    half = min(_SMOOTH // 2, (len(points) - 1) // 2)
    if half < 1:
        return points
    out = points.copy()
    for i in range(1, len(points) - 1):
        reach = min(half, i, len(points) - 1 - i)
        out[i] = points[i - reach : i + reach + 1].mean(axis=0)
    return out


def _evened(points: Array, step: float) -> Array:
    """Points along a way, equally far apart."""
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    at = np.linspace(0.0, run[-1], max(2, round(float(run[-1]) / step) + 1))
    return np.column_stack([np.interp(at, run, points[:, k]) for k in (0, 1)])
