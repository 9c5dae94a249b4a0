"""The middle of a line's ink along a way that was followed, to a fraction of a pixel."""

import math
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.paper.ink import Ink
from hardkeel.paper.ink_following import Way

_REACH_MM: Final = 0.9
_STEP_PX: Final = 0.25
_LIKE: Final = (0.55, 1.6)  # of the line's own breadth; else something lies over it
_NEAR: Final = 5  # points to either side that a point is put right by
_TAN: Final = 3  # points to either side that tell how the line runs
_FAR_OFF: Final = 3.5  # spreads
_LEAST_SPREAD: Final = 0.12  # pixels
_CORNER_NEAR_MM, _CORNER_FAR_MM = 0.55, 2.6  # of the line beside a corner, that tells where it is
_CORNER_MOVES_MM: Final = 1.6
_LEAST_SIN: Final = 0.2
_BEND_NEAR, _BEND_FAR = 1, 5  # points beside a place whose way is compared, to see whether it bends
_LEAST_BEND: Final = math.radians(20.0)
_CLOSE_BY, _FURTHER_OFF = (1, 3), (4, 7)  # points to either side of a bend
_SUDDEN: Final = 0.75  # of the turn further off, that a corner makes close by
_HALF: Final = 0.5


def sharpened(ink: Ink, way: Way) -> Array:
    """The line's middle, shape (n, 2), pixels, sharp corners where its sides meet.

    Across the line the middle lies between its two edges, each where the ink is half as strong.  Where something
    crosses, both edges can't be seen: there the neighbours' fit goes on.  A corner is one where the ink reaches to
    where its two sides would meet; else it is rounded, and stays so.
    """
    pieces = [_middle(ink, run) for run in _runs(way.points, way.corners, closed=way.closed)]
    runs = [run for piece in pieces for run in _at_bends(ink, piece)]
    if not runs:
        return way.points
    if len(runs) > len(pieces):
        runs = [_middle(ink, run) for run in runs]
    count, out = len(runs), list[Array]()
    last = count if way.closed and count > 1 else count - 1
    met = [_meeting(ink, runs[i], runs[(i + 1) % count]) for i in range(last)]
    for i, run in enumerate(runs):
        before = met[i - 1] if i > 0 or len(met) == count else None
        after = met[i] if i < len(met) else None
        for corner in (before, after):
            if corner is not None:
                run = run[_beside(run, corner, ink)]  # noqa: PLW2901  what stays of it
        out += [run] if before is None else [before[None], run]
    return np.concatenate(out)


def _runs(points: Array, corners: tuple[int, ...], *, closed: bool) -> list[Array]:
    """The pieces between sharp corners; of a closed line they go on over its beginning."""
    if not corners:
        return [np.concatenate([points, points[:1]]) if closed else points]
    if closed:
        points = np.roll(points, -corners[0], axis=0)
        points = np.concatenate([points, points[:1]])
        cuts = [c - corners[0] for c in corners] + [len(points) - 1]
    else:
        cuts = [0, *corners, len(points) - 1]
    return [points[a : b + 1] for a, b in pairwise(cuts) if b - a > 1]


def _at_bends(ink: Ink, run: Array) -> list[Array]:
    """A run cut where it bends within a line's breadth."""
    far, near = _BEND_FAR, _BEND_NEAR
    if len(run) < 2 * far + 1:
        return [run]
    at = np.arange(far, len(run) - far)
    before, after = run[at - near] - run[at - far], run[at + far] - run[at + near]
    cross = before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0]
    turns = np.abs(np.arctan2(cross, (before * after).sum(axis=1)))
    cuts: list[int] = []
    for k in np.argsort(-turns):
        if turns[k] < _LEAST_BEND:
            break
        i = int(at[k])
        if any(abs(i - other) <= far for other in cuts):
            continue
        if _turn(run, i, *_CLOSE_BY) < _SUDDEN * _turn(run, i, *_FURTHER_OFF):
            continue  # it bends as much further off: it is round
        if _meeting(ink, run[: i + 1], run[i:]) is not None:
            cuts.append(i)
    ends = [0, *sorted(cuts), len(run) - 1]
    return [run[a : b + 1] for a, b in pairwise(ends)]


def _turn(run: Array, i: int, near: int, far: int) -> float:
    """How much a line turns from one side of a point to the other, radians, seen between these points."""
    n = len(run) - 1
    before = run[max(0, i - near)] - run[max(0, i - far)]
    after = run[min(n, i + far)] - run[min(n, i + near)]
    cross = float(before[0] * after[1] - before[1] * after[0])
    return abs(math.atan2(cross, float(before @ after)))


def _middle(ink: Ink, points: Array) -> Array:
    """Points of a smooth run moved onto the middle of the ink.

    First each by itself, those that see no two edges between their neighbours: the way may be pulled aside where a line
    ends at this one, and an offset from it says nothing there.  Then by the fit through the neighbours.
    """
    for first in (True, False):
        tangents = _tangents(points)
        normals = np.column_stack([-tangents[:, 1], tangents[:, 0]])
        off = _offsets(ink, points, normals)
        known = np.isfinite(off)
        if first and known.sum() > 2:  # noqa: PLR2004
            at = np.arange(len(points), dtype=float)
            # at both ends there is no neighbour on one side: they go as the nearest does
            moved = points + np.interp(at, at[known], off[known])[:, None] * normals
            inside = ~known & (at > at[known][0]) & (at < at[known][-1])
            for axis in (0, 1):
                moved[inside, axis] = np.interp(at[inside], at[known], moved[known, axis])
            points = moved
        else:
            points = points + _smooth(off)[:, None] * normals
    return points


def _offsets(ink: Ink, points: Array, normals: Array) -> Array:
    """How far the middle between both edges lies from each point, pixels; nan where something lies over it."""
    reach = _REACH_MM * ink.px_per_mm
    across = np.arange(-reach, reach + _STEP_PX / 2, _STEP_PX)
    profiles = ink.profile(points[:, None, :] + across[None, :, None] * normals[:, None, :])
    found = np.array([_between_edges(across, row) for row in profiles])
    breadth = float(np.nanmedian(found[:, 1])) if np.isfinite(found[:, 1]).any() else np.nan
    off = found[:, 0]
    off[~((found[:, 1] > _LIKE[0] * breadth) & (found[:, 1] < _LIKE[1] * breadth))] = np.nan
    return np.asarray(off)


def _tangents(points: Array) -> Array:
    n = len(points)
    low = np.maximum(np.arange(n) - _TAN, 0)
    high = np.minimum(np.arange(n) + _TAN, n - 1)
    run = points[high] - points[low]
    return np.asarray(run / np.maximum(np.hypot(run[:, 0], run[:, 1]), 1e-9)[:, None])


def _between_edges(across: Array, profile: Array) -> tuple[float, float]:
    """The middle between a line's edges and how far they are apart, pixels; nan where it has none."""
    count = len(across)
    middle = count // 2
    window = slice(middle - count // 4, middle + count // 4 + 1)
    top = int(np.argmax(profile[window])) + window.start
    half = float(profile[top]) / 2
    if half <= 0:
        return math.nan, math.nan
    low = high = top
    while low > 0 and profile[low - 1] >= half:
        low -= 1
    while high + 1 < count and profile[high + 1] >= half:
        high += 1
    if low == 0 or high == count - 1:
        return math.nan, math.nan
    rise = profile[low] - profile[low - 1]
    fall = profile[high] - profile[high + 1]
    left = across[low] - (profile[low] - half) / max(rise, 1e-9) * _STEP_PX
    right = across[high] + (profile[high] - half) / max(fall, 1e-9) * _STEP_PX
    return float(left + right) / 2, float(right - left)


def _smooth(off: Array) -> Array:
    """Each offset by a line through its neighbours, what stands off left out; 0 where nothing is known."""
    known = np.isfinite(off)
    if not known.any():
        return np.zeros_like(off)
    at = np.arange(len(off), dtype=float)
    filled = np.interp(at, at[known], off[known])
    around = np.pad(off, _NEAR, constant_values=np.nan)
    windows = np.lib.stride_tricks.sliding_window_view(around, 2 * _NEAR + 1)
    x = np.arange(-_NEAR, _NEAR + 1.0)[None, :]
    here = np.isfinite(windows)
    few = here.sum(axis=1) < 3  # noqa: PLR2004
    y = np.where(here, windows, np.nan)
    y[few] = 0.0
    middle = np.nanmedian(y, axis=1, keepdims=True)
    spread = 1.4826 * np.nanmedian(np.abs(y - middle), axis=1, keepdims=True)
    weight = (here & (np.abs(y - middle) <= _FAR_OFF * np.maximum(spread, _LEAST_SPREAD))) * 1.0
    y = np.where(weight > 0, y, 0.0)
    total = np.maximum(weight.sum(axis=1), 1e-9)
    mean_x, mean_y = (weight * x).sum(axis=1) / total, (weight * y).sum(axis=1) / total
    var = (weight * (x - mean_x[:, None]) ** 2).sum(axis=1)
    slope = (weight * (x - mean_x[:, None]) * y).sum(axis=1) / np.maximum(var, 1e-9)
    return np.asarray(np.where(few, filled, mean_y - slope * mean_x))


def _meeting(ink: Ink, before: Array, after: Array) -> Array | None:
    """Where two runs meet at a corner: their sides next to it made longer."""
    corner = (before[-1] + after[0]) / 2
    first, second = (_side(ink, run, corner) for run in (before, after))
    if first is None or second is None:
        return None
    (p, d), (q, e) = first, second
    sin = float(d[0] * e[1] - d[1] * e[0])
    if abs(sin) < _LEAST_SIN:
        return None
    t = float((q - p)[0] * e[1] - (q - p)[1] * e[0]) / sin
    met = p + t * d
    if math.dist(met, corner) > _CORNER_MOVES_MM * ink.px_per_mm or not ink.inside(met):
        return None
    # where the sides meet there is ink, as much as on them: else the corner is rounded
    sides = np.median(ink.profile(np.concatenate([before[-8:-1], after[1:8]])))
    around = met + np.array([(0, 0), (1, 0), (-1, 0), (0, 1), (0, -1)]) * 0.5
    return np.asarray(met) if np.mean(ink.profile(around)) > _HALF * sides else None


def _side(ink: Ink, run: Array, corner: Array) -> tuple[Array, Array] | None:
    """A line through what lies next to a corner: a point and its direction."""
    away = np.hypot(*(run - corner).T) / ink.px_per_mm
    near = (away > _CORNER_NEAR_MM) & (away < _CORNER_FAR_MM)
    if near.sum() < 3:  # noqa: PLR2004
        return None
    some = run[near]
    middle = some.mean(axis=0)
    way = np.linalg.svd(some - middle, full_matrices=False)[2][0]
    return middle, way


def _beside(run: Array, corner: Array, ink: Ink) -> Array:
    """Which points of a run stay beside its corner."""
    return np.asarray(np.hypot(*(run - corner).T) > _CORNER_NEAR_MM * ink.px_per_mm)
