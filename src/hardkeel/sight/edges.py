"""Where wood ends on a mat: along lines square to an edge, the blurred step of tint that leaves least.

A camera sees the silhouette of a plank as thick as the wood: on the far side its upper edge, on the near side its foot
(the contract's "Mat").
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.sight.lying import Lie
from hardkeel.sight.mat_pose import OnMat
from hardkeel.sight.tint import Light, Looked

_STEP_MM: Final = 1.0  # along an edge
_CORNER_MM: Final = 0.6  # nearer to a corner two edges are seen at once
CORNER: Final = math.radians(25.0)  # from which two edges meet
FINE_MM: Final = 0.04  # along a profile
COARSE_MM: Final = 0.12  # while it is still being laid
REACH_MM: Final = 4.0  # what is off by more is off by so much, or more
_BESIDE_MM: Final = (-0.3, 0.0, 0.3)  # profiles that are one: grain and noise
_BLUR_PX: Final = 0.85  # of lens, sensor and file together
# in the wood and out of it: what an edge is fitted to, and no more of the wood
_WITHIN_PX: Final = (1.6, 2.4)
_SHIFTS: Final = 21
_SHIFT_MM: Final = 0.24
# of the logistic curve that is within a hundredth of the normal one (S. Bowling et al., JIEM 2 (2009) 114)
_PER_SIGMA: Final = 1.702
_LEAST_TINT: Final = 0.35  # of the wood's own: there is wood at all


@dataclass(frozen=True)
class Edges:
    """A piece's edges as places.

    Attributes
    ----------
    at, normal : Array
        Shape (m, 2), mm, in its own axes; the unit way out of the wood.
    ring : Array
        Shape (m,): 0 the outline, from 1 on the holes.
    """

    at: Array
    normal: Array
    ring: Array

    def every(self, number: int) -> "Edges":
        """So many fewer of them."""
        return Edges(self.at[::number], self.normal[::number], self.ring[::number])


def edges_of(rings: Sequence[Array], step_mm: float = _STEP_MM) -> Edges:
    """Places along an outline and holes, shape (k, 2) each, so far apart and clear of sharp corners."""
    at, normal, number = [], [], []
    for ring, corners in enumerate(rings):
        line = shapely.LinearRing(corners)
        ways = 1.0 if line.is_ccw else -1.0
        ways *= 1.0 if ring == 0 else -1.0  # out of a hole's wood is into the hole
        count = max(8, round(line.length / step_mm))
        runs = (np.arange(count) + 0.5) * line.length / count
        step = 1e-4
        spots = shapely.get_coordinates(shapely.line_interpolate_point(line, runs))
        ahead = shapely.get_coordinates(
            shapely.line_interpolate_point(line, (runs + step) % line.length)
        )
        back = shapely.get_coordinates(
            shapely.line_interpolate_point(line, (runs - step) % line.length)
        )
        along = ahead - back
        along /= np.maximum(np.linalg.norm(along, axis=1), 1e-12)[:, None]
        clear = _clear_of_corners(corners, spots)
        at.append(spots[clear])
        normal.append(ways * np.column_stack([along[:, 1], -along[:, 0]])[clear])
        number.append(np.full(int(clear.sum()), ring))
    return Edges(np.concatenate(at), np.concatenate(normal), np.concatenate(number))


def sharp_corners(ring: Array) -> Array:
    """Those points of a ring, shape (k, 2), where it turns by more than `CORNER`."""
    run = np.diff(np.vstack([ring, ring[:1]]), axis=0)
    way = np.arctan2(run[:, 1], run[:, 0])
    turn = np.abs(np.angle(np.exp(1j * (way - np.roll(way, 1)))))
    found: Array = ring[turn > CORNER]
    return found


def _clear_of_corners(corners: Array, spots: Array) -> Array:
    """Which places lie clear of where an outline turns sharply."""
    sharp = sharp_corners(corners)
    if not len(sharp):
        return np.ones(len(spots), dtype=bool)
    far = np.linalg.norm(spots[:, None] - sharp[None], axis=2).min(axis=1)
    found: Array = far > _CORNER_MM
    return found


def seen_edge(lie: Lie, edges: Edges, on: OnMat, thickness: float) -> tuple[Array, Array, Array]:
    """Edges on the mat, their way out of the wood, shape (m, 2) each, and how far out the silhouette of wood so thick is seen, shape (m,), mm."""
    spots = lie.on_mat(edges.at)
    outward = edges.normal @ lie.turning.T
    return spots, outward, np.maximum(0.0, np.sum(on.spread(spots, thickness) * outward, axis=1))


def deviations(
    lie: Lie, edges: Edges, how: tuple[float, float], seen: tuple[Light, Looked, OnMat]
) -> Array:
    """Wood left on at each place, shape (m,), mm, 4 at most either way; NaN where no edge is seen.

    Parameters
    ----------
    how : (float, float)
        The wood's thickness, and the step of a profile, mm.
    """
    light, looked, on = seen
    thickness, fine = how
    spots, outward, lean = seen_edge(lie, edges, on, thickness)
    along = np.column_stack([-outward[:, 1], outward[:, 0]])
    run = np.arange(-REACH_MM, REACH_MM + fine / 2, fine)
    beside = np.array(_BESIDE_MM if fine == FINE_MM else _BESIDE_MM[1:2])
    places = (
        spots[:, None, None]
        + (lean[:, None] + run)[:, None, :, None] * outward[:, None, None]
        + beside[None, :, None, None] * along[:, None, None]
    )
    red, blue = light.at(on.pixels(places))
    tint = red - looked.kappa_at(places) * blue
    share = (tint / np.maximum(red + blue, 0.004)).mean(axis=1)
    tint = tint.mean(axis=1)
    return _ends((tint, share), run, looked.level, on.per_mm)


def _ends(profiles: tuple[Array, Array], run: Array, level: float, per_mm: float) -> Array:
    """Where wood ends along profiles, shape (m, k), mm from where it is drawn; NaN where it does not."""
    tint, share = profiles
    inside = share > _LEAST_TINT * level
    ends = inside[:, :-1] & ~inside[:, 1:]
    far = np.where(ends, np.abs(run[:-1]), np.inf)
    first = np.argmin(far, axis=1)
    rows = np.arange(len(tint))
    seen = ends[rows, first]
    at = run[first]
    step = float(run[1] - run[0])
    wide = np.arange(
        -round(_WITHIN_PX[0] / per_mm / step), round(_WITHIN_PX[1] / per_mm / step) + 1
    )
    shifts = np.linspace(-_SHIFT_MM, _SHIFT_MM, _SHIFTS)
    for _ in range(2):
        # the blurred step that leaves least of what is near: its own height, be it the wood's top or its side
        columns = np.clip(
            np.round((at - run[0]) / step).astype(int)[:, None] + wide, 0, len(run) - 1
        )
        part, where = tint[rows[:, None], columns], run[columns] - at[:, None]
        fits = []
        for shift in shifts:
            form = 1 / (1 + np.exp((where - shift) * (_PER_SIGMA * per_mm / _BLUR_PX)))
            fits.append(np.sum(part * form, axis=1) ** 2 / np.sum(form**2, axis=1))
        gain = np.stack(fits)
        best = np.clip(np.argmax(gain, axis=0), 1, _SHIFTS - 2)
        before, top, after = (gain[best + k, rows] for k in (-1, 0, 1))
        bend = before - 2 * top + after
        off = np.where(bend < 0, (before - after) / np.where(bend < 0, 2 * bend, 1.0), 0.0)
        at = at + shifts[best] + np.clip(off, -1, 1) * (shifts[1] - shifts[0])
    # wood all the way, or none at all: a notch that was not cut, a piece that has broken off
    outward = run >= 0
    whole, none = inside[:, outward].all(axis=1), ~inside.any(axis=1)
    at = np.where(seen, at, np.where(whole, REACH_MM, np.where(none, -REACH_MM, np.nan)))
    return np.asarray(at)
