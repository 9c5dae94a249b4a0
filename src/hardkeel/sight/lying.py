"""Where a piece lies on its mat: turned and shifted so that most of its edge meets the wood's, either face up.

First by how far its edge lies from the wood's in a coarse picture, from many turns; then by its edge itself.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage, optimize
from hardkeel.sight.tint import STEP_MM, Looked

_TURNS: Final = 120
_TRIED: Final = 5  # turns of each face that are looked at closer
_SAMPLES: Final = 200
_CAP_MM: Final = 5.0
_SCALE_MM: Final = 0.5
_SAME_TURN: Final = 0.1  # radians
_LIKE: Final = (0.4, 1.9)  # of its wood: what is on the mat may be as much and be this piece


@dataclass(frozen=True)
class Lie:
    """A piece as it lies.

    Attributes
    ----------
    turn : float
        Radians, from its own axes to the mat's.
    shift : Array
        Shape (2,), mm.
    mirrored : bool
        Its other face is up: u is turned over before it is turned.
    """

    turn: float
    shift: Array
    mirrored: bool

    @property
    def turning(self) -> Array:
        """Shape (2, 2): on the mat = turning @ (u, v) + shift."""
        c, s = np.cos(self.turn), np.sin(self.turn)
        found = np.array([[c, -s], [s, c]])
        return found @ np.diag([-1.0, 1.0]) if self.mirrored else found

    def on_mat(self, spots: Array) -> Array:
        """Places of the piece, shape (m, 2), on the mat."""
        found: Array = spots @ self.turning.T + self.shift
        return found

    def own(self, spots: Array) -> Array:
        """Places on the mat in the piece's axes."""
        found: Array = (spots - self.shift) @ self.turning
        return found


def lies_of(
    rings: Sequence[Array], looked: Looked, *, most: int = 2
) -> tuple[tuple[int, Lie, float], ...]:
    """The likeliest ways it lies, of each face: which wood, how, and how far its edge is off on the whole, mm.

    Parameters
    ----------
    rings : sequence of Array
        Its outline and holes, shape (k, 2) each, mm.
    """
    polygon = shapely.Polygon(rings[0], list(rings[1:]))
    centre = np.array(polygon.centroid.coords[0])
    samples = _along(rings)
    found: list[tuple[int, Lie, float]] = []
    for number in range(1, int(looked.wood.max(initial=0)) + 1):
        mask = looked.wood == number
        share = float(mask.sum()) * STEP_MM**2 / polygon.area
        if not _LIKE[0] <= share <= _LIKE[1]:
            continue
        far = _from_edge(mask)
        rows, columns = np.nonzero(mask)
        middle = looked.origin + STEP_MM * np.array([columns.mean(), rows.mean()])
        for mirrored in (False, True):
            for lie, cost in _best(samples, (far, looked.origin), (centre, middle), mirrored)[
                :most
            ]:
                found.append((number, lie, cost))
    return tuple(sorted(found, key=lambda one: one[2]))


def _along(rings: Sequence[Array]) -> Array:
    """Places along all rings, alike far apart, shape (m, 2)."""
    lines = [shapely.LinearRing(ring) for ring in rings]
    step = max(sum(line.length for line in lines) / _SAMPLES, 0.2)
    spots = [
        shapely.get_coordinates(
            shapely.line_interpolate_point(line, np.arange(0, line.length, step))
        )
        for line in lines
    ]
    return np.concatenate(spots)


def _from_edge(mask: NDArray[np.bool_]) -> Array:
    """How far each cell's middle lies from the edge of the wood, mm."""
    inside = ndimage.distance_transform_edt(mask)
    outside = ndimage.distance_transform_edt(~mask)
    found: Array = np.abs(np.where(mask, inside, outside) - 0.5) * STEP_MM
    return found


def _best(
    samples: Array,
    made: tuple[Array, Array],
    middles: tuple[Array, Array],
    mirrored: bool,  # noqa: FBT001  one of two faces
) -> list[tuple[Lie, float]]:
    far, origin = made
    centre, middle = middles

    def off(lie: Lie) -> Array:
        cells = (lie.on_mat(samples) - origin) / STEP_MM
        return np.asarray(
            ndimage.map_coordinates(far, [cells[:, 1], cells[:, 0]], order=1, cval=_CAP_MM, mode="constant")
        )  # fmt: skip

    tried = []
    for turn in np.linspace(0, 2 * np.pi, _TURNS, endpoint=False):
        plain = Lie(float(turn), np.zeros(2), mirrored)
        lie = Lie(float(turn), middle - plain.on_mat(centre[None])[0], mirrored)
        tried.append((float(np.minimum(off(lie), _CAP_MM).mean()), lie))
    tried.sort(key=lambda one: one[0])
    found: list[tuple[Lie, float]] = []
    for _, lie in tried[:_TRIED]:
        better = _settled(lie, off, middle)
        if any(
            abs(np.angle(np.exp(1j * (better.turn - one.turn)))) < _SAME_TURN for one, _ in found
        ):
            continue
        found.append((better, float(np.minimum(off(better), _CAP_MM).mean())))
    return sorted(found, key=lambda one: one[1])


def _settled(lie: Lie, off: Callable[[Lie], Array], about: Array) -> Lie:
    """Turned and shifted so that most of the edge meets; what is far off counts little."""
    arm = 50.0  # mm: a turn of it is as large a step as a shift

    def at(x: Array) -> Lie:
        turn = lie.turn + x[0] / arm
        c, s = np.cos(x[0] / arm), np.sin(x[0] / arm)
        moved = np.array([[c, -s], [s, c]]) @ (lie.shift - about) + about + x[1:]
        return Lie(float(turn), moved, lie.mirrored)

    best = optimize.least_squares(
        lambda x: off(at(x)), np.zeros(3), loss="cauchy", f_scale=_SCALE_MM, max_nfev=60
    )  # fmt: skip
    return at(best.x)
