"""From pixels of a scan or photo to millimetres of the plan, by least squares.

Pixels: u right, v down.  Plan: x right (aft), y up.  The map is a plane homography; how much of it is
free depends on what is known: one length gives a scale, a second across it one scale for each axis,
four points and more also the skew, and a photo its perspective (R. Hartley and A. Zisserman,
"Multiple View Geometry in Computer Vision", 2nd ed., Cambridge 2004, chapters 2 and 4) and the bend of
its lens, as far as the points tell it against what lenses usually are.

What is not found stays as it would be at best, and counts in every figure's sigma with what it usually is:
a print's stretch and skew, a camera's lean.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize
from hardkeel.paper.lens import K1_SIGMA, LONGER_SIDES, Lens
from hardkeel.paper.model import KnownLength, MapKind, Plan

PICK_SIGMA_PX: Final = 0.7  # a careful click under the loupe
_ACROSS_DEG: Final = 25.0  # lengths whose directions differ by more give a scale for each axis
_MOST_STEPS: Final = 200
_AS_FAR_AS_IT_GOES: Final = 1e-14
_NO_PLAN: Final = "the known points and lengths do not make a plan"
_STEPS: Final = np.array([1e-6, 1e-6, 1e-4, 1e-4, 1e-6, 1e-6, 1e-9, 1e-9, 1e-5])
_LENS: Final = 8  # which of the figures k1 is
_WORST_CONDITION: Final = 300.0
_MIRRORED: Final = "the known points are seen in a mirror: x runs aft, to the right, and y up"
_FITS: Final = 0.02  # of the farthest place: more off, and a figure is wrong, not the side
_IN_LINE: Final = "three of the known points lie nearly in line: mark one more, well to the side"
_ENOUGH: Final = 4  # known points from which skew, and in a photo perspective, is found
# 1 sigma of what was not found: turn (a sheet laid on the glass), stretch and skew (copiers), lean over a picture
_LIES_ASKEW: Final = 0.01
_PRINTED_LONG, _PRINTED_SKEW = 0.004, 0.0015
_LEANS: Final = 0.15
_ALIKE: Final = 0.98
_LABELS_ENOUGH: Final = 3  # coded labels from which a photo's perspective is found
LABEL_SIGMA_PX: Final = 0.15  # of a label's corner; print and paper with it
_LABEL_ROWS: Final = ("side 1", "side 2", "side 3", "side 4", "diagonal 1", "diagonal 2")
_CHECKED: Final = 0.05  # of a misfit's redundancy: less, and the figure fits by itself


@dataclass(frozen=True, slots=True)
class Residual:
    """What is left of one known thing after the fit, mm.

    Attributes
    ----------
    redundancy : float
        0 to 1: how much of an error in it would be seen; 0 for a figure that the map is made to fit.
    """

    what: str
    mm: float
    redundancy: float = 1.0

    @property
    def off(self) -> float:
        """How far it lies from where all else puts it, mm; 0 where nothing else does."""
        return self.mm / self.redundancy if self.redundancy > _CHECKED else 0.0


@dataclass(frozen=True, slots=True)
class Uncertain:
    """The figures of a map, and how they hang together.

    Attributes
    ----------
    values : tuple of float
        All of them.
    free : tuple of int
        Those that may be off; of what was not found, those that usually are.
    covariance : tuple of tuple of float
        Of the free ones.
    """

    values: tuple[float, ...]
    free: tuple[int, ...]
    covariance: tuple[tuple[float, ...], ...]
    anchor: Point2
    lens: Lens


@dataclass(frozen=True, slots=True)
class Calibration:
    """A fitted map.

    Attributes
    ----------
    matrix : Array
        Shape (3, 3): homogeneous pixels to homogeneous plan mm.
    scale_x, scale_y : float
        mm of the plan in a pixel along and across, at the middle of what is known.
    skew, turn : float
        Degrees: how far the axes are off square, and how the sheet lies in the scan.
    spare : int
        Known figures beyond what the map needs; residuals mean something from 1 on.
    """

    kind: MapKind
    matrix: Array
    scale_x: float
    scale_y: float
    skew: float
    turn: float
    residuals: tuple[Residual, ...]
    spare: int
    lens: Lens
    lens_sigma: float
    uncertain: Uncertain

    def to_plan(self, pixels: Array) -> Array:
        """Pixels, shape (n, 2), as plan mm, shape (n, 2)."""
        return _apply(self.matrix, self.lens.straightened(pixels))

    def to_pixel(self, plan: Array) -> Array:
        """Plan mm, shape (n, 2), as pixels, shape (n, 2)."""
        return self.lens.bent(_apply(np.linalg.inv(self.matrix), plan))

    def sigma_between(self, pixels: Array, other: Array, clicked: float = PICK_SIGMA_PX) -> Array:
        """1 sigma of how far pixels lie from others, along and across, mm; shape (n, 2) each.

        Parameters
        ----------
        clicked : float
            1 sigma of each of them in the picture, pixels.
        """
        held = self.uncertain
        slopes = []
        for i, step in zip(held.free, _STEPS[list(held.free)], strict=True):
            ends = []
            for sign in (1, -1):
                values = np.array(held.values)
                values[i] += sign * step
                ends.append(_placed(values, held, pixels) - _placed(values, held, other))
            slopes.append((ends[0] - ends[1]) / (2 * step))
        rows = np.stack(slopes, axis=-1)
        of_map = np.einsum("nak,kl,nal->na", rows, np.array(held.covariance), rows)
        per_pixel = math.sqrt(self.scale_x * self.scale_y)
        return np.asarray(np.sqrt(np.maximum(of_map, 0.0) + 2 * (clicked * per_pixel) ** 2))

    @property
    def checked(self) -> tuple[Residual, ...]:
        """What is known that something else checks."""
        return tuple(one for one in self.residuals if one.redundancy > _CHECKED)

    @property
    def worst(self) -> Residual | None:
        """Of what is checked the one that is a slip most likely: what stands off most for how well it is checked.

        Where that can't tell two apart, the one with more left.
        """
        if not self.checked:
            return None
        odd = [abs(one.mm) / math.sqrt(one.redundancy) for one in self.checked]
        alike = [one for one, o in zip(self.checked, odd, strict=True) if o >= _ALIKE * max(odd)]
        return max(alike, key=lambda one: abs(one.mm))


def calibrate(plan: Plan) -> Calibration:
    """Fit the richest map that what is known of a plan allows.

    Raises
    ------
    BadInput
        When nothing is known yet, or what is known contradicts itself.
    """
    return _calibrated(plan.but(traces=()))  # which do not matter to it, and are long


@lru_cache(maxsize=16)
def _calibrated(plan: Plan) -> Calibration:
    _check(plan)
    kind = kind_for(plan)
    anchor = _anchor(plan)
    start = _first_guess(plan)
    with np.errstate(all="ignore"):
        values = _least(kind, plan, anchor, start)
        misfits = _misfits(plan, anchor, values)
        _check_hold(kind, plan, anchor, values)
    if not (np.isfinite(values).all() and np.isfinite(misfits).all()):
        raise BadInput("plan", _NO_PLAN)
    matrix = _matrix(values, anchor)
    names = _names(plan)
    per_pixel = math.exp(values[0])
    steps = np.array([[0.0, 0.0], [1.0, 0.0], [0.0, -1.0]])
    ends = _apply(matrix, np.add(_lens(plan, values).straightened(_middle(plan, anchor))[0], steps))
    scale_x, scale_y, skew, turn = _read_off(
        np.column_stack([ends[1] - ends[0], ends[2] - ends[0]])
    )
    uncertain, redundancy = _uncertain(kind, plan, anchor, values)
    residuals = tuple(
        Residual(name, float(m) * _sigma_px(name) * per_pixel, float(r))
        for name, m, r in zip(names, misfits[: len(names)], redundancy, strict=True)
    )
    at = uncertain.free.index(_LENS) if _LENS in uncertain.free else None
    return Calibration(
        kind,
        matrix,
        scale_x,
        scale_y,
        skew,
        turn,
        residuals,
        len(names) - _needed(kind, plan),
        _lens(plan, values),
        math.sqrt(uncertain.covariance[at][at]) if at is not None else 0.0,
        uncertain,
    )


def _sigma_px(what: str) -> float:
    """1 sigma of a known thing, pixels: a length has two ends that were clicked."""
    if what.startswith("label"):
        return LABEL_SIGMA_PX * math.sqrt(2 * 6 / 5)
    return PICK_SIGMA_PX * (math.sqrt(2) if what.startswith("length") else 1.0)


def _lens(plan: Plan, values: Array) -> Lens:
    """The lens of a photo; of a scan one that bends nothing."""
    if plan.size is not None:
        wide, tall = plan.size
        return Lens((wide / 2, tall / 2), LONGER_SIDES * max(wide, tall), float(values[_LENS]))
    # of an older file: the points lie over most of the picture
    spots = np.array(
        [p.pixel for p in plan.points]
        or [corner for label in plan.labels for corner in label.corners]
        or [(0.0, 0.0)]
    )
    low, high = spots.min(axis=0), spots.max(axis=0)
    reach = max(float(np.ptp(spots, axis=0).max()), 1.0)
    middle = (low + high) / 2
    return Lens((float(middle[0]), float(middle[1])), LONGER_SIDES * reach, float(values[_LENS]))


def _uncertain(kind: MapKind, plan: Plan, anchor: Array, values: Array) -> tuple[Uncertain, Array]:
    """How far a map's figures may be off, and the redundancy of each known thing."""
    found = _unknowns(kind, plan)
    spots = np.array(
        [p.pixel for p in plan.points]
        + [e for k in plan.lengths for e in (k.a, k.b)]
        + [corner for label in plan.labels for corner in label.corners]
    )
    far = max(float(np.hypot(*(spots - anchor).T).max()), 1.0)
    usual = {1: _LIES_ASKEW, 4: _PRINTED_LONG, 5: _PRINTED_SKEW}
    if plan.photo:
        usual |= {6: _LEANS / far, 7: _LEANS / far, _LENS: K1_SIGMA}
    free = sorted({*found, *usual})
    count = len(_names(plan))
    slopes = _slopes(plan, anchor, values, free)[:count]
    priors = np.zeros((len(free), len(free)))
    for k, i in enumerate(free):
        if i in usual and (i not in found or i == _LENS):
            priors[k, k] = 1 / usual[i] ** 2
    covariance = np.linalg.pinv(slopes.T @ slopes + priors, hermitian=True)
    own = [k for k, i in enumerate(free) if i in found]
    fitted = np.linalg.pinv((slopes.T @ slopes + priors)[np.ix_(own, own)], hermitian=True)
    redundancy = 1 - np.einsum("nk,kl,nl->n", slopes[:, own], fitted, slopes[:, own])
    misfits = _misfits(plan, anchor, values)[:count]
    spare = count - _needed(kind, plan)
    # clicks that fit worse than a careful hand's make every figure as much worse
    worse = max(1.0, float(misfits @ misfits) / spare) if spare > 0 else 1.0
    lens = _lens(plan, values)
    return (
        Uncertain(
            tuple(float(v) for v in values),
            tuple(free),
            tuple(tuple(float(v) for v in row) for row in covariance * worse),
            (float(anchor[0]), float(anchor[1])),
            lens,
        ),
        np.clip(redundancy, 0.0, 1.0),
    )


def _placed(values: Array, held: Uncertain, pixels: Array) -> Array:
    """Where pixels lie on the plan by other figures of the map."""
    lens = replace(held.lens, k1=float(values[_LENS]))
    return _apply(_matrix(values, np.array(held.anchor)), lens.straightened(pixels))


def kind_for(plan: Plan) -> MapKind:
    """How much of the map what is known can carry."""
    if len(plan.points) >= _ENOUGH:
        return "perspective" if plan.photo else "affine"
    if plan.labels and not plan.photo:
        return "affine"
    if len(plan.labels) >= _LABELS_ENOUGH:
        return "perspective"
    if len(plan.points) == _ENOUGH - 1:
        return "axes"
    return "axes" if _crossing(plan.lengths) else "similar"


def _crossing(lengths: tuple[KnownLength, ...]) -> bool:
    angles = [math.atan2(one.b[1] - one.a[1], one.b[0] - one.a[0]) for one in lengths]
    limit = math.sin(math.radians(_ACROSS_DEG))
    return any(abs(math.sin(a - b)) > limit for a in angles for b in angles)


def _check(plan: Plan) -> None:
    if not plan.lengths and not plan.labels and len(plan.points) < 2:  # noqa: PLR2004  a scale needs two points
        raise BadInput("plan", "mark two points whose distance you know")
    for i, one in enumerate(plan.lengths):
        if math.dist(one.a, one.b) < 1:
            raise BadInput(f"lengths[{i}]", "its two points are the same")
    spots = [point.pixel for point in plan.points]
    for i, spot in enumerate(spots):
        if any(math.dist(spot, other) < 1 for other in spots[:i]):
            raise BadInput(f"points[{i}]", "stands on another known point")
    if len(spots) >= _ENOUGH - 1:
        rows = np.array(spots) - np.mean(spots, axis=0)
        if np.linalg.svd(rows, compute_uv=False)[-1] < 1:
            raise BadInput("points", "all known points lie on one line; mark one to the side")
        places = np.array([point.plan for point in plan.points])
        if len(spots) >= _ENOUGH and _mirrored(rows, places):
            raise BadInput("points", _MIRRORED)


def _mirrored(pixels: Array, places: Array) -> bool:
    """Whether the places fit the pixels (about their middle) well, but turned over."""
    wanted = places - places.mean(axis=0)
    through, *_ = np.linalg.lstsq(pixels, wanted, rcond=None)
    off = np.abs(pixels @ through - wanted).max()
    # pixels count downwards: a sheet seen aright turns the sign once already
    return bool(np.linalg.det(through) > 0 and off < _FITS * np.abs(wanted).max())


def _anchor(plan: Plan) -> Array:
    """The pixel about which the map is written, so that its parameters hardly hang together."""
    if plan.points:
        return _mean([point.pixel for point in plan.points])
    if plan.labels:
        return _mean([corner for label in plan.labels for corner in label.corners])
    return np.array(plan.origin if plan.origin is not None else plan.lengths[0].a, dtype=float)


def _mean(spots: Sequence[Point2]) -> Array:
    return np.asarray(np.array(spots, dtype=np.float64).mean(axis=0), dtype=np.float64)


def _middle(plan: Plan, anchor: Array) -> Array:
    spots = [p.pixel for p in plan.points] or [e for one in plan.lengths for e in (one.a, one.b)]
    spots = spots or [corner for label in plan.labels for corner in label.corners]
    return _mean(spots) if spots else anchor


def _first_guess(plan: Plan) -> Array:
    """Log scale and turn from the longest thing known; the rest zero."""
    if len(plan.points) > 1:
        first = plan.points[0]
        far = max(plan.points[1:], key=lambda p: math.dist(p.pixel, first.pixel))
        du, dv = far.pixel[0] - first.pixel[0], -(far.pixel[1] - first.pixel[1])
        dx, dy = far.plan[0] - first.plan[0], far.plan[1] - first.plan[1]
        scale = math.hypot(dx, dy) / math.hypot(du, dv)
        turn = math.atan2(dy, dx) - math.atan2(dv, du)
        centre = np.mean([point.plan for point in plan.points], axis=0)
    elif plan.labels and not plan.lengths:
        label = plan.labels[0]
        scale = label.size / math.dist(label.corners[0], label.corners[1])
        turn, centre = 0.0, np.zeros(2)
    else:
        one = max(plan.lengths, key=lambda known: known.length)
        du, dv = one.b[0] - one.a[0], -(one.b[1] - one.a[1])
        scale = one.length / math.hypot(du, dv)
        want = {"x": 0.0, "y": math.pi / 2}
        lies = math.atan2(dv, du)
        turn = want[one.along] - lies if one.along else 0.0
        turn = (turn + math.pi / 2) % math.pi - math.pi / 2  # the shorter way round
        centre = np.zeros(2)
    return np.array([math.log(max(scale, 1e-9)), turn, *centre, 0, 0, 0, 0, 0])


def _check_hold(kind: MapKind, plan: Plan, anchor: Array, values: Array) -> None:
    """Refuse a map that what is known does not hold: a click's error would throw it anywhere.

    The slopes of the misfits, each unknown in its own unit of a pixel at the farthest known place, have
    a condition number of some tens for points well spread, and of thousands where they lie in line.
    """
    if kind not in ("affine", "perspective"):
        return
    free = [i for i in _unknowns(kind, plan) if i != _LENS]  # k1 is held by what lenses are
    slopes = _slopes(plan, anchor, values, free)
    size = np.linalg.norm(slopes, axis=0)
    if not np.isfinite(slopes).all() or size.min() <= 0:
        raise BadInput("points", _IN_LINE)
    if np.linalg.cond(slopes / size) > _WORST_CONDITION:
        raise BadInput("points", _IN_LINE)


def _slopes(plan: Plan, anchor: Array, values: Array, free: list[int]) -> Array:
    """Derivatives of the misfits by the free figures, central differences."""
    columns = []
    for i in free:
        up, down = values.copy(), values.copy()
        up[i] += _STEPS[i]
        down[i] -= _STEPS[i]
        columns.append(
            (_misfits(plan, anchor, up) - _misfits(plan, anchor, down)) / (2 * _STEPS[i])
        )
    return np.array(columns).T


def _least(kind: MapKind, plan: Plan, anchor: Array, start: Array) -> Array:
    """The figures of the map that leave least, by least squares with central differences.

    Raises
    ------
    BadInput
        When what is known is beyond what can be computed with.
    """
    free = _unknowns(kind, plan)

    def whole(some: Array) -> Array:
        values = start.copy()
        values[free] = some
        return values

    try:
        found = optimize.least_squares(
            lambda some: _misfits(plan, anchor, whole(some)),
            start[free],
            jac=lambda some: _slopes(plan, anchor, whole(some), free),
            x_scale="jac",
            ftol=_AS_FAR_AS_IT_GOES,
            xtol=_AS_FAR_AS_IT_GOES,
            gtol=_AS_FAR_AS_IT_GOES,
            max_nfev=_MOST_STEPS,
        )
    except (ValueError, np.linalg.LinAlgError):  # not finite, at the start or on the way
        raise BadInput("plan", _NO_PLAN) from None
    return whole(np.asarray(found.x))


def _unknowns(kind: MapKind, plan: Plan) -> list[int]:
    """Which of log scale, turn, shift x and y, log stretch, shear, two of perspective are free."""
    free = [0]
    if plan.points or any(one.along for one in plan.lengths):
        free.append(1)
    if plan.points:
        free += [2, 3]
    free += {"similar": [], "axes": [4], "affine": [4, 5], "perspective": [4, 5, 6, 7, _LENS]}[kind]
    return free


def _needed(kind: MapKind, plan: Plan) -> int:
    return len([i for i in _unknowns(kind, plan) if i != _LENS])  # k1 has its own prior


def _matrix(values: Array, anchor: Array) -> Array:
    log_scale, turn, x, y, stretch, shear, g, h = values[:_LENS]
    cos, sin = math.cos(turn), math.sin(turn)
    # v grows downwards: the sheet's up is −v
    turned = np.array([[cos, -sin], [sin, cos]]) @ np.array([[1.0, 0.0], [0.0, -1.0]])
    scale = math.exp(log_scale)
    shape = scale * np.array([[math.exp(stretch), shear], [0.0, math.exp(-stretch)]]) @ turned
    matrix = np.eye(3)
    matrix[:2, :2] = shape
    matrix[:2, 2] = (x, y)
    matrix[2, :2] = (g, h)
    matrix[:2, :] += np.outer((x, y), matrix[2, :]) - np.outer((x, y), (0.0, 0.0, 1.0))
    to_anchor = np.array([[1.0, 0.0, -anchor[0]], [0.0, 1.0, -anchor[1]], [0.0, 0.0, 1.0]])
    return np.asarray(matrix @ to_anchor)


def _misfits(plan: Plan, anchor: Array, values: Array) -> Array:
    """What is off, in sigmas of a click; of a photo last its lens, in sigmas of what lenses are."""
    lens = _lens(plan, values)
    matrix = _matrix(values, anchor)
    sigma = PICK_SIGMA_PX * math.exp(values[0])
    out: list[float] = []
    if plan.points:
        found = _apply(matrix, lens.straightened(np.array([p.pixel for p in plan.points])))
        wanted = np.array([point.plan for point in plan.points])
        out += list(((found - wanted) / sigma).ravel())
    for one in plan.lengths:
        a, b = _apply(matrix, lens.straightened(np.array([one.a, one.b])))
        run = b - a
        if one.along is None:
            out.append((math.hypot(*run) - one.length) / (sigma * math.sqrt(2)))
        else:
            along, across = (run[0], run[1]) if one.along == "x" else (run[1], run[0])
            out.append((abs(along) - one.length) / (sigma * math.sqrt(2)))
            out.append(across / (sigma * math.sqrt(2)))
    # five of the six are free: four corners less where and how the label lies
    edge = LABEL_SIGMA_PX * math.exp(values[0]) * math.sqrt(2 * 6 / 5)
    for label in plan.labels:
        four = _apply(matrix, lens.straightened(np.array(label.corners)))
        out += [
            (math.dist(four[i], four[j]) - label.size * far) / edge
            for i, j, far in (
                (0, 1, 1.0),
                (1, 2, 1.0),
                (2, 3, 1.0),
                (3, 0, 1.0),
                (0, 2, 2**0.5),
                (1, 3, 2**0.5),
            )
        ]
    if plan.photo:
        out.append(float(values[_LENS]) / K1_SIGMA)
    return np.array(out)


def _names(plan: Plan) -> list[str]:
    names = [f"point {i} {axis}" for i, _ in enumerate(plan.points, start=1) for axis in "xy"]
    for i, one in enumerate(plan.lengths, start=1):
        names.append(f"length {i}")
        if one.along is not None:
            names.append(f"length {i} across")
    names += [f"label {label.code} {row}" for label in plan.labels for row in _LABEL_ROWS]
    return names


def _read_off(shape: Array) -> tuple[float, float, float, float]:
    """Scales along and across (mm a pixel), skew and turn (degrees) of the map's linear part."""
    # rows of the inverse are where the plan's axes lie in the scan
    back = np.linalg.inv(shape)
    x_axis, y_axis = back[:, 0], back[:, 1]
    turn = math.degrees(math.atan2(x_axis[1], x_axis[0]))
    upright = math.degrees(math.atan2(y_axis[1], y_axis[0]))
    skew = (upright - turn - 90 + 180) % 360 - 180
    return (
        1 / float(np.hypot(*x_axis)),
        1 / float(np.hypot(*y_axis)),
        skew,
        turn,
    )


def _apply(matrix: NDArray[Any], points: NDArray[Any]) -> Array:
    rows = np.asarray(points, dtype=float).reshape(-1, 2)
    spread = np.column_stack([rows, np.ones(len(rows))]) @ matrix.T
    return np.asarray(spread[:, :2] / spread[:, 2:3])
