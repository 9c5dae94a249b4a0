"""A cut part against its drawing: where wood is proud or short along its edges, from a picture of it on a mat.

A camera sees the silhouette of a plank as thick as the wood: on the far side its upper edge, on the near side its foot
(the contract's "Mat").  Along each edge, square to it, the place is found where the tint is half of the wood's; what is
left against the silhouette is wood left on, or gone.  Turn and shift are robust, so that a local fault does not move the
whole.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize
from hardkeel.joinery.flat import FlatPiece
from hardkeel.sight.lying import Lie, lies_of
from hardkeel.sight.mat_pose import OnMat
from hardkeel.sight.tint import Light, Looked

_STEP_MM: Final = 1.0  # along an edge
_CORNER_MM: Final = 0.6  # nearer to a corner two edges are seen at once
_CORNER: Final = math.radians(25.0)
_FINE_MM: Final = 0.04  # along a profile
_COARSE_MM: Final = 0.12  # while it is still being laid
_REACH_MM: Final = 4.0
_BESIDE_MM: Final = (-0.3, 0.0, 0.3)  # profiles that are one: grain and noise
_SLICES: Final = 4
_CLEAR_MM: Final = 0.4  # before an edge: ground is seen there, or it is no edge
_BLUR_PX: Final = 0.85  # of lens, sensor and file together
_WITHIN_PX: Final = (
    1.6,
    2.4,
)  # in the wood and out of it: what an edge is fitted to, and no more of the wood
_SHIFTS: Final = 21
_SHIFT_MM: Final = 0.24
_PER_SIGMA: Final = (
    1.702  # of the logistic curve that is within a hundredth of the normal one (J. Bowling 2009)
)
_LEAST_TINT: Final = 0.35  # of the wood's own: there is wood at all
_SCALES_MM: Final = (
    1.0,
    0.4,
    0.2,
    0.1,
    0.06,
)  # of the loss, one after another: from any wood to what fits
_FINE_ROUNDS: Final = 2
_EVERY: Final = 3  # place, while it is still being laid
_HOPELESS: Final = 1.5  # as far off as the best turn and more: another one is not looked at
_HOPELESS_MM: Final = 0.2
_CAP_MM: Final = 1.0
_FITS_SHARE: Final = 0.6  # of the edge within a millimetre
_SEEN_SHARE: Final = 0.5  # of the edge that shows
_LIKELY: Final = 1.3  # what another lie may leave, against the least, to be looked at closely
_LIKELY_MM: Final = 0.03
_ALIKE: Final = 1.1  # and to be as likely
_ALIKE_MM: Final = 0.008
_TURNED: Final = 0.9  # the cosine from which it is another way round
_MAD: Final = 1.4826


@dataclass(frozen=True)
class Check:
    """A part as it was found.

    Attributes
    ----------
    mirrored : bool
        It lies with its other face up, or is the other hand.
    at : Array
        Shape (m, 2): places on its drawn edges, in the piece's own axes, mm.
    by : Array
        Shape (m,): wood left on, mm; negative where it is gone; NaN where no edge is seen.
    ring : Array
        Shape (m,): 0 the outline, from 1 on the holes.
    normal : Array
        Shape (m, 2): out of the wood, in its own axes.
    sigma : float
        Of one of them, mm.
    doubts : frozenset of {"face", "way"}
        What can't be told by its shape: which face is up, which way round it lies.
    """

    fits: bool
    mirrored: bool
    doubts: frozenset[str]
    at: Array
    by: Array
    ring: Array
    normal: Array
    sigma: float

    @property
    def rms(self) -> float:
        """Mm."""
        smooth = self.smooth
        seen = smooth[np.isfinite(smooth)]
        return float(np.sqrt(np.mean(seen**2))) if len(seen) else float("nan")

    @property
    def worst(self) -> int:
        """The number of the place that is farthest off, by itself and its neighbours: one splinter is none."""
        size = np.abs(self.smooth)
        return int(np.nanargmax(size)) if np.isfinite(size).any() else 0

    @property
    def smooth(self) -> Array:
        """The middle one of three neighbours along each edge, shape (m,)."""
        found = self.by.copy()
        for ring in np.unique(self.ring):
            one = np.flatnonzero(self.ring == ring)
            values = self.by[one]
            beside = np.stack([np.roll(values, k) for k in (-1, 0, 1)])
            good = np.isfinite(beside).all(axis=0)
            found[one[good]] = np.median(beside[:, good], axis=0)
        return found


@dataclass(frozen=True)
class _Edges:
    """A piece's edges as places with their outward way, in its own axes."""

    at: Array
    normal: Array
    ring: Array

    def every(self, number: int) -> "_Edges":
        """So many fewer of them."""
        return _Edges(self.at[::number], self.normal[::number], self.ring[::number])


def check_part(piece: FlatPiece, light: Light, looked: Looked, on: OnMat) -> Check:
    """Hold a piece against what lies on the mat.

    Raises
    ------
    BadInput
        When nothing of its size lies there.
    """
    rings = [np.array(piece.outline), *(np.array(hole) for hole in piece.holes)]
    edges = _edges_of(rings)
    thickness = piece.thickness if on.camera is not None else 0.0
    tried = lies_of(rings, looked)
    if not tried:
        raise BadInput("", _nothing(piece, looked))
    seen_by = light, looked, on
    few = edges.every(_EVERY)
    settled: list[tuple[Lie, float]] = []
    for _, lie, off in tried:
        nearest = min(one for _, other, one in tried if other.mirrored == lie.mirrored)
        if off <= _HOPELESS * nearest + _HOPELESS_MM:
            settled.append(_settled(lie, few, thickness, seen_by))
    least = min(cost for _, cost in settled)
    fine = [
        _finely(lie, edges, thickness, seen_by)
        for lie, cost in settled
        if cost <= _LIKELY * least + _LIKELY_MM
    ]
    best = min(_left(by) for _, by in fine)
    alike = [(lie, by) for lie, by in fine if _left(by) <= _ALIKE * best + _ALIKE_MM]
    # a part that is alike both ways is laid as the mat says: its drawn face up, its top to the mat's
    lie, by = min(alike, key=lambda one: (one[0].mirrored, -math.cos(one[0].turn)))
    by = np.where(_hidden(rings, lie, edges, (thickness, on)), np.nan, by)
    seen = np.isfinite(by)
    near = np.abs(by[seen]) < _CAP_MM
    fits = bool(seen.mean() >= _SEEN_SHARE and near.size and near.mean() >= _FITS_SHARE)
    sigma = _sigma(by, lie, edges, (thickness, on))
    doubts = {
        "face" if other.mirrored != lie.mirrored else "way"
        for other, _ in alike
        if other.mirrored != lie.mirrored or math.cos(other.turn - lie.turn) < _TURNED
    }
    return Check(
        fits, lie.mirrored, frozenset(doubts), edges.at, by, edges.ring, edges.normal, sigma
    )


def _nothing(piece: FlatPiece, looked: Looked) -> str:
    wide, tall = piece.size
    if looked.wood.max(initial=0) == 0:
        return "shows no wood inside the mat: it must lie clear of the rim all round"
    return f"shows nothing of the size of {piece.name}, {wide:.0f} × {tall:.0f} mm of {piece.area:.0f} mm²"


def _edges_of(rings: Sequence[Array]) -> _Edges:
    at, normal, number = [], [], []
    for ring, corners in enumerate(rings):
        line = shapely.LinearRing(corners)
        ways = 1.0 if line.is_ccw else -1.0
        ways *= 1.0 if ring == 0 else -1.0  # out of a hole's wood is into the hole
        count = max(8, round(line.length / _STEP_MM))
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
    return _Edges(np.concatenate(at), np.concatenate(normal), np.concatenate(number))


def _clear_of_corners(corners: Array, spots: Array) -> Array:
    """Which places lie clear of where an outline turns sharply."""
    run = np.diff(np.vstack([corners, corners[:1]]), axis=0)
    way = np.arctan2(run[:, 1], run[:, 0])
    turn = np.abs(np.angle(np.exp(1j * (way - np.roll(way, 1)))))
    sharp = corners[turn > _CORNER]
    if not len(sharp):
        return np.ones(len(spots), dtype=bool)
    far = np.linalg.norm(spots[:, None] - sharp[None], axis=2).min(axis=1)
    found: Array = far > _CORNER_MM
    return found


def _settled(
    lie: Lie, edges: _Edges, thickness: float, seen: tuple[Light, Looked, OnMat]
) -> tuple[Lie, float]:
    """The lie that most of the edge agrees with, and what is left on the whole, mm."""
    by = _deviations(lie, edges, (thickness, _COARSE_MM), seen)
    for scale in _SCALES_MM:
        lie = _moved(lie, edges, by, scale)
        by = _deviations(lie, edges, (thickness, _COARSE_MM), seen)
    return lie, _left(by)


def _finely(
    lie: Lie, edges: _Edges, thickness: float, seen: tuple[Light, Looked, OnMat]
) -> tuple[Lie, Array]:
    """The lie by all of its edge, and the deviations."""
    by = _deviations(lie, edges, (thickness, _FINE_MM), seen)
    for _ in range(_FINE_ROUNDS):
        lie = _moved(lie, edges, by, _SCALES_MM[-1])
        by = _deviations(lie, edges, (thickness, _FINE_MM), seen)
    return lie, by


def _hidden(
    rings: Sequence[Array], lie: Lie, edges: _Edges, made: tuple[float, OnMat]
) -> NDArray[np.bool_]:
    """Where other wood of the piece leans over an edge as it is seen from the camera: in a notch, in a small hole."""
    thickness, on = made
    if on.camera is None or thickness <= 0:
        return np.zeros(len(edges.at), dtype=bool)
    laid = [lie.on_mat(ring) for ring in rings]
    planks = []
    for height in np.linspace(0.0, thickness, _SLICES):
        outline, *holes = (ring + on.spread(ring, float(height)) for ring in laid)
        planks.append(shapely.Polygon(outline, holes).buffer(0))
    seen = shapely.union_all(planks)
    spots = lie.on_mat(edges.at)
    outward = edges.normal @ lie.turning.T
    lean = np.maximum(0.0, np.sum(on.spread(spots, thickness) * outward, axis=1))
    before = spots + (lean + _CLEAR_MM)[:, None] * outward
    found: NDArray[np.bool_] = shapely.distance(seen, shapely.points(before)) < _CLEAR_MM / 2
    return found


def _left(by: Array) -> float:
    """How far the edge is off on the whole, mm; what is far off, or not seen, as a millimetre."""
    return float(np.where(np.isfinite(by), np.minimum(np.abs(by), _CAP_MM), _CAP_MM).mean())


def _moved(lie: Lie, edges: _Edges, by: Array, scale: float) -> Lie:
    """The lie for which most of the edge is where it is drawn."""
    good = np.isfinite(by)
    if good.sum() < 6:  # noqa: PLR2004  a turn and a shift want more
        return lie
    spots = lie.on_mat(edges.at[good])
    outward = edges.normal[good] @ lie.turning.T
    about = spots.mean(axis=0)
    arm = max(float(np.abs(spots - about).max()), 1.0)
    off = (spots - about) / arm
    rows = np.column_stack([outward, off[:, 0] * outward[:, 1] - off[:, 1] * outward[:, 0]])
    start = np.zeros(3)
    best = optimize.least_squares(
        lambda x: by[good] - rows @ x, start, jac=lambda _x: -rows, loss="cauchy", f_scale=scale
    )
    turn = float(best.x[2] / arm)
    c, s = math.cos(turn), math.sin(turn)
    shift = np.array([[c, -s], [s, c]]) @ (lie.shift - about) + about + best.x[:2]
    return replace(lie, turn=lie.turn + turn, shift=shift)


def _deviations(
    lie: Lie, edges: _Edges, how: tuple[float, float], seen: tuple[Light, Looked, OnMat]
) -> Array:
    """Of wood so thick, by profiles of so fine a step, mm."""
    light, looked, on = seen
    thickness, fine = how
    spots = lie.on_mat(edges.at)
    outward = edges.normal @ lie.turning.T
    lean = np.maximum(0.0, np.sum(on.spread(spots, thickness) * outward, axis=1))
    along = np.column_stack([-outward[:, 1], outward[:, 0]])
    run = np.arange(-_REACH_MM, _REACH_MM + fine / 2, fine)
    beside = np.array(_BESIDE_MM if fine == _FINE_MM else _BESIDE_MM[1:2])
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
    return np.where(seen, at, np.nan)


def _sigma(by: Array, lie: Lie, edges: _Edges, made: tuple[float, OnMat]) -> float:
    """Of one deviation: how rough neighbours are against each other, the camera's height, where its labels lie."""
    thickness, on = made
    step = np.diff(by)[np.diff(edges.ring) == 0]
    rough = step[np.isfinite(step)]
    noise = _MAD * float(np.median(np.abs(rough))) / math.sqrt(2) if len(rough) else 0.0
    spots = lie.on_mat(edges.at)
    outward = edges.normal @ lie.turning.T
    lean = np.maximum(0.0, np.sum(on.spread(spots, thickness) * outward, axis=1))
    height = float(np.sqrt(np.mean((lean * on.focal_sigma) ** 2)))
    labels = (
        on.left_px / math.sqrt(2) / on.per_mm / math.sqrt(len(on.codes))
    )  # they bear it together
    return math.sqrt(noise**2 + height**2 + labels**2)


def worst_of(check: Check) -> tuple[float, Point2]:
    """The largest deviation, mm, and where, in the piece's axes."""
    i = check.worst
    u, v = check.at[i].tolist()
    return float(check.smooth[i]), (u, v)
