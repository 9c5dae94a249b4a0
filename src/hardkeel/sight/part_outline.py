"""The outline of a part that has no drawing, from a picture of it on a mat."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.sight.edges import CORNER, FINE_MM, Edges, deviations, edges_of, sharp_corners
from hardkeel.sight.lying import Lie
from hardkeel.sight.mat_pose import OnMat
from hardkeel.sight.tint import STEP_MM, Light, Looked

_ROUGH_MM: Final = 0.45  # a cell and a little: what steps of cells are made straight by
_FINE_MM: Final = 0.05  # that the found line may be simplified by
_MEETS_MM: Final = 2.5  # a corner is put back where its two edges meet so near
_ROUNDS: Final = 2
_FEWEST: Final = 2  # places that tell which way an edge runs
_APART_MM: Final = 0.4  # of places along an edge
_ENDS: Final = 10  # places from which an edge runs on to its corner


def outline_from(
    light: Light, looked: Looked, on: OnMat, thickness: float
) -> tuple[tuple[Point2, ...], ...]:
    """The outline and the holes of the largest piece on the mat as it lies there, mm from its middle.

    Parameters
    ----------
    thickness : float
        Of the wood, mm: what stands up from the paper is seen aside of its foot.

    Raises
    ------
    BadInput
        When nothing lies there.
    """
    if looked.wood.max(initial=0) == 0:
        raise BadInput("", "shows no wood inside the mat: it must lie clear of the rim all round")
    thick = thickness if on.camera is not None else 0.0
    rings = [np.array(ring) for ring in _rings(_rough(looked))]
    plain = Lie(0.0, np.zeros(2), mirrored=False)
    for _ in range(_ROUNDS):
        edges = edges_of(rings, _APART_MM)
        by = deviations(plain, edges, (thick, FINE_MM), (light, looked, on))
        rings = _moved(rings, edges, np.where(np.isfinite(by), by, 0.0))
    whole = shapely.Polygon(rings[0], rings[1:]).buffer(0).simplify(_FINE_MM)
    if whole.geom_type != "Polygon":
        whole = max(shapely.get_parts(whole), key=lambda one: one.area)
    x0, y0, x1, y1 = whole.bounds
    middle = np.array([(x0 + x1) / 2, (y0 + y1) / 2])
    return tuple(
        tuple((float(u), float(v)) for u, v in np.array(ring) - middle) for ring in _rings(whole)
    )


def _rough(looked: Looked) -> BaseGeometry:
    """The largest piece as the cells that it covers, row by row, made straight."""
    mask = looked.wood == 1
    boxes = []
    for number, row in enumerate(mask):
        ends = np.flatnonzero(np.diff(np.concatenate([[0], row.astype(int), [0]])))
        y = looked.origin[1] + (number - 0.5) * STEP_MM
        for first, last in ends.reshape(-1, 2):
            x0, x1 = looked.origin[0] + (np.array([first, last]) - 0.5) * STEP_MM
            boxes.append(shapely.box(x0, y, x1, y + STEP_MM))
    return shapely.union_all(boxes).buffer(1e-6).simplify(_ROUGH_MM)


def _rings(shape: BaseGeometry) -> list[Array]:
    rings = [shape.exterior, *(one for one in shape.interiors if shapely.Polygon(one).area > 1.0)]
    return [np.asarray(ring.coords)[:-1] for ring in rings]


def _moved(rings: list[Array], edges: Edges, by: Array) -> list[Array]:
    """Rings through where edges were found, their sharp corners where the edges meet."""
    found = []
    places = edges.at + by[:, None] * edges.normal
    for number, ring in enumerate(rings):
        mine = np.flatnonzero(edges.ring == number)
        line = shapely.LinearRing(ring)
        run = np.array([line.project(shapely.Point(spot)) for spot in edges.at[mine]])
        corners = [
            (float(line.project(shapely.Point(corner))), corner) for corner in sharp_corners(ring)
        ]
        found.append(_with_corners(places[mine], run, corners))
    return found


def _with_corners(places: Array, run: Array, corners: list[tuple[float, Array]]) -> Array:
    """Places in their order along a ring, and between them the corners that stretches make with their neighbours."""
    order = np.argsort(run)
    spots, at = places[order], run[order]
    kept: list[tuple[float, Array]] = [(float(x), spot) for x, spot in zip(at, spots, strict=True)]
    corners = sorted(corners, key=lambda one: one[0])
    stretches = [
        _between(at, corners[i][0], corners[(i + 1) % len(corners)][0]) for i in range(len(corners))
    ]
    for i, (where, corner) in enumerate(corners):
        back, ahead = stretches[i - 1][-_ENDS:], stretches[i][:_ENDS]
        if min(len(back), len(ahead)) < _FEWEST:
            continue
        met = _meeting(spots[back], spots[ahead])
        if met is not None and float(np.hypot(*(met - corner))) < _MEETS_MM:
            kept.append((where, met))
    kept.sort(key=lambda one: one[0])
    return np.array([spot for _, spot in kept])


def _between(at: Array, first: float, last: float) -> NDArray[np.signedinteger]:
    """Which places lie between two corners of a closed ring, in order."""
    if first < last:
        return np.flatnonzero((at > first) & (at < last))
    return np.concatenate([np.flatnonzero(at > first), np.flatnonzero(at < last)])


def _meeting(a: Array, b: Array) -> Array | None:
    """Where the lines through two stretches cross; ``None`` where they run on in each other."""
    rows, right = [], []
    for stretch in (a, b):
        middle = np.median(stretch, axis=0)
        way = np.linalg.svd(stretch - stretch.mean(axis=0), full_matrices=False)[2][0]
        normal = np.array([-way[1], way[0]])
        rows.append(normal)
        right.append(normal @ middle)
    if abs(float(np.linalg.det(np.array(rows)))) < np.sin(CORNER / 2):
        return None
    return np.asarray(np.linalg.solve(np.array(rows), np.array(right)), dtype=float)
