"""A cut part against its drawing: where wood is proud or short along its edges, from a picture of it on a mat.

What is left between an edge as it is seen and the silhouette of the piece as it is drawn (`edges`) is wood left on, or
gone.  Turn and shift are robust, so that a local fault does not move the whole; there is no scale.
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
from hardkeel.sight.edges import COARSE_MM, FINE_MM, Edges, deviations, edges_of, seen_edge
from hardkeel.sight.lying import Lie, lies_of
from hardkeel.sight.mat_pose import OnMat
from hardkeel.sight.tint import Light, Looked

_SLICES: Final = 4
_CLEAR_MM: Final = 0.4  # before an edge: ground is seen there, or it is no edge
# of the loss, one after another: from any wood to what fits
_SCALES_MM: Final = (1.0, 0.4, 0.2, 0.1, 0.06)
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

    mirrored: bool
    doubts: frozenset[str]
    at: Array
    by: Array
    ring: Array
    normal: Array
    sigma: float

    @property
    def seen_share(self) -> float:
        """How much of its edge is seen."""
        return float(np.isfinite(self.by).mean())

    @property
    def fits(self) -> bool:
        """Whether it is this piece at all: enough of it is seen, and most of that is near to where it is drawn."""
        seen = self.by[np.isfinite(self.by)]
        near = np.abs(seen) < _CAP_MM
        return self.seen_share >= _SEEN_SHARE and float(near.mean()) >= _FITS_SHARE

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


def check_part(piece: FlatPiece, light: Light, looked: Looked, on: OnMat) -> Check:
    """Hold a piece against what lies on the mat.

    Raises
    ------
    BadInput
        When nothing of its size lies there.
    """
    rings = [np.array(piece.outline), *(np.array(hole) for hole in piece.holes)]
    edges = edges_of(rings)
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
    sigma = _sigma(by, lie, edges, (thickness, on))
    doubts = {
        "face" if other.mirrored != lie.mirrored else "way"
        for other, _ in alike
        if other.mirrored != lie.mirrored or math.cos(other.turn - lie.turn) < _TURNED
    }
    return Check(lie.mirrored, frozenset(doubts), edges.at, by, edges.ring, edges.normal, sigma)


def _nothing(piece: FlatPiece, looked: Looked) -> str:
    wide, tall = piece.size
    if looked.wood.max(initial=0) == 0:
        return "shows no wood inside the mat: it must lie clear of the rim all round"
    return f"shows nothing of the size of {piece.name}, {wide:.0f} × {tall:.0f} mm of {piece.area:.0f} mm²"


def _settled(
    lie: Lie, edges: Edges, thickness: float, seen: tuple[Light, Looked, OnMat]
) -> tuple[Lie, float]:
    """The lie that most of the edge agrees with, and what is left on the whole, mm."""
    by = deviations(lie, edges, (thickness, COARSE_MM), seen)
    for scale in _SCALES_MM:
        lie = _moved(lie, edges, by, scale)
        by = deviations(lie, edges, (thickness, COARSE_MM), seen)
    return lie, _left(by)


def _finely(
    lie: Lie, edges: Edges, thickness: float, seen: tuple[Light, Looked, OnMat]
) -> tuple[Lie, Array]:
    """The lie by all of its edge, and the deviations."""
    by = deviations(lie, edges, (thickness, FINE_MM), seen)
    for _ in range(_FINE_ROUNDS):
        lie = _moved(lie, edges, by, _SCALES_MM[-1])
        by = deviations(lie, edges, (thickness, FINE_MM), seen)
    return lie, by


def _hidden(
    rings: Sequence[Array], lie: Lie, edges: Edges, made: tuple[float, OnMat]
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
    spots, outward, lean = seen_edge(lie, edges, on, thickness)
    before = spots + (lean + _CLEAR_MM)[:, None] * outward
    found: NDArray[np.bool_] = shapely.distance(seen, shapely.points(before)) < _CLEAR_MM / 2
    return found


def _left(by: Array) -> float:
    """How far the edge is off on the whole, mm; what is far off, or not seen, as a millimetre."""
    return float(np.where(np.isfinite(by), np.minimum(np.abs(by), _CAP_MM), _CAP_MM).mean())


def _moved(lie: Lie, edges: Edges, by: Array, scale: float) -> Lie:
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


def _sigma(by: Array, lie: Lie, edges: Edges, made: tuple[float, OnMat]) -> float:
    """Of one deviation: how rough neighbours are against each other, the camera's height, where its labels lie."""
    thickness, on = made
    step = np.diff(by)[np.diff(edges.ring) == 0]
    rough = step[np.isfinite(step)]
    noise = _MAD * float(np.median(np.abs(rough))) / math.sqrt(2) if len(rough) else 0.0
    _, _, lean = seen_edge(lie, edges, on, thickness)
    height = float(np.sqrt(np.mean((lean * on.focal_sigma) ** 2)))
    # all labels bear it together
    labels = on.left_px / math.sqrt(2) / on.per_mm / math.sqrt(len(on.codes))
    return math.sqrt(noise**2 + height**2 + labels**2)


def worst_of(check: Check) -> tuple[float, Point2]:
    """The largest deviation, mm, and where, in the piece's axes."""
    i = check.worst
    u, v = check.at[i].tolist()
    return float(check.smooth[i]), (u, v)
