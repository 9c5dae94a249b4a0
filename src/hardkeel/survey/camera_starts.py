"""Where a photo may have been taken from, before anything is adjusted: found without any help.

The direct linear transform needs six marks and fails where they nearly lie in a plane, as the marks of an aeroplane
do; then the camera is sought from many directions and four rolls, all at once.  Bodies stand as they are placed at
the start; how far they may stand off is taken as part of each mark's doubt.
"""

import math
from collections.abc import Iterator, Sequence
from itertools import product
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.cameras import (
    BEFORE_MM,
    K1,
    K1_SIGMA,
    LOG_FOCAL,
    PLACE,
    SIZE,
    TURN,
    Camera,
    minus_cross,
    prior_of,
    through_lens,
)
from hardkeel.survey.model import Photo

Rows = NDArray[np.intp]
_LEAST_FOR_TRANSFORM: Final = 6
_ROUNDS: Final = 40
_DAMPED: Final = 1e-2  # at first
_STOPPED: Final = 1e8  # damped so far it moves no more
_SETTLED: Final = 1e-6
_KEPT: Final = 6  # minima that are tried in the whole adjustment
_HOPELESS: Final = (
    50.0  # of weighted squares more than the best: where the marks stand can't make that up
)
_APART: Final = 0.05  # of the distance, or radians: nearer they are one


def starts_of(
    photo: Photo, pixels: Array, points: Array, slack: Array, sigma: Array
) -> Iterator[Camera]:
    """Cameras worth trying, the likeliest first: what the transform gives, then what is found from all around.

    Parameters
    ----------
    pixels : Array
        Shape (m, 2).
    points : Array
        Shape (m, 3), mm: where the marks stand at the start.
    slack : Array
        Shape (m,), mm: how far each may stand off that.
    sigma : Array
        Shape (m,), pixels.
    """
    spread = float(np.linalg.norm(points - points.mean(axis=0), axis=1).max())
    reach = float(np.linalg.norm(pixels - pixels.mean(axis=0), axis=1).max())
    log_focal, _ = prior_of(photo)
    near = math.exp(log_focal) * spread / max(reach, 1.0)
    alternative = np.hypot(sigma, slack * math.exp(log_focal) / near)
    linear = transformed(photo, pixels, points)
    if linear is not None:
        yield from _refined(photo, pixels, points, alternative, [linear])
    yield from _refined(photo, pixels, points, alternative, list(_around(photo, pixels, points)))


def transformed(photo: Photo, pixels: Array, points: Array) -> Camera | None:
    """The direct linear transform; ``None`` where it mirrors, or puts a mark behind the camera, or is not to be had.

    Y. I. Abdel-Aziz and H. M. Karara, "Direct linear transformation into object space coordinates in close-range
    photogrammetry" (1971), with both sides brought to unit size first.
    """
    if len(points) < _LEAST_FOR_TRANSFORM:
        return None
    middle, wide = points.mean(axis=0), float(np.std(points)) or 1.0
    centre, broad = pixels.mean(axis=0), float(np.std(pixels)) or 1.0
    p, q = (points - middle) / wide, (pixels - centre) / broad
    ones = np.hstack([p, np.ones((len(p), 1))])
    none = np.zeros_like(ones)
    rows = np.vstack(
        [
            np.hstack([ones, none, -q[:, :1] * ones]),
            np.hstack([none, ones, -q[:, 1:] * ones]),
        ]
    )
    try:
        _, sizes, v = np.linalg.svd(rows)
    except np.linalg.LinAlgError:
        return None
    if sizes[-2] < 1e-9 * sizes[0]:
        return None
    m = v[-1].reshape(3, 4)
    m[:2] = m[:2] * broad + np.outer(centre, m[2])
    m[:, :3] /= wide
    m[:, 3] -= m[:, :3] @ middle
    left = m[:, :3]
    if np.linalg.det(left) < 0:
        m, left = -m, -left
    try:
        place = -np.linalg.solve(left, m[:, 3])
        # an upper triangle of the lens times a rotation: QR of the rows in reverse
        q_, r_ = np.linalg.qr(left[::-1].T)
    except np.linalg.LinAlgError:
        return None
    lens, rotation = r_.T[::-1, ::-1], q_.T[::-1]
    signs = np.sign(np.diag(lens))
    lens, rotation = lens * signs, rotation * signs[:, None]
    if np.linalg.det(rotation) < 0 or not np.isfinite(place).all():
        return None
    if not np.all((points - place) @ rotation[2] > BEFORE_MM):
        return None
    log_focal, log_sigma = prior_of(photo)
    found = math.log(max(1e-9, float(math.sqrt(abs(lens[0, 0] * lens[1, 1])) / abs(lens[2, 2]))))
    found = min(max(found, log_focal - 2 * log_sigma), log_focal + 2 * log_sigma)
    return Camera(place, rotation, found, 0.0)


def _around(photo: Photo, pixels: Array, points: Array) -> Iterator[Camera]:
    """Cameras on a sphere about the marks, so far off that these are as large as in the picture."""
    log_focal, _ = prior_of(photo)
    focal = math.exp(log_focal)
    middle = points.mean(axis=0)
    spread = float(np.linalg.norm(points - middle, axis=1).max())
    centre = pixels.mean(axis=0) - np.array(photo.size) / 2
    reach = float(np.linalg.norm(pixels - pixels.mean(axis=0), axis=1).max())
    far = max(focal * spread / max(reach, 1.0), 1.2 * spread)
    ray = np.array([centre[0] / focal, centre[1] / focal, 1.0])
    ray /= np.linalg.norm(ray)
    for way in product((-1.0, 0.0, 1.0), repeat=3):
        if not any(way):
            continue
        back = np.array(way) / math.sqrt(sum(one * one for one in way))
        forward = -back
        up = np.array([0.0, 0.0, 1.0]) if abs(back[2]) < 0.9 else np.array([-1.0, 0.0, 0.0])  # noqa: PLR2004
        right = np.cross(forward, up)
        right /= np.linalg.norm(right)
        down = np.cross(forward, right)
        for quarter in range(4):
            c, s = math.cos(quarter * math.pi / 2), math.sin(quarter * math.pi / 2)
            looks = np.array([c * right + s * down, c * down - s * right, forward])
            rotation = _onto(ray) @ looks
            yield Camera(middle + far * back, rotation, log_focal, 0.0)


def _onto(ray: Array) -> Array:
    """The least turn that takes straight ahead onto a ray of the camera."""
    axis = np.cross(np.array([0.0, 0.0, 1.0]), ray)
    sine, cosine = float(np.linalg.norm(axis)), float(ray[2])
    if sine < 1e-12:  # noqa: PLR2004
        return np.eye(3)
    k = axis / sine
    cross = np.array([[0, -k[2], k[1]], [k[2], 0, -k[0]], [-k[1], k[0], 0]])
    turn: Array = np.eye(3) + sine * cross + (1 - cosine) * (cross @ cross)
    return turn


def _refined(
    photo: Photo, pixels: Array, points: Array, alternative: Array, cameras: Sequence[Camera]
) -> list[Camera]:
    """Each camera moved to its own minimum with the marks held still; unlike ones, the best first."""
    batch = _Batch(photo, pixels, points, alternative, cameras)
    with np.errstate(all="ignore"):
        batch.settle()
    far = float(np.linalg.norm(points - points.mean(axis=0), axis=1).max())
    found: list[Camera] = []
    best = np.inf
    for cost, one in batch.cameras():
        best = min(best, cost)
        if cost > best + _HOPELESS:
            break
        if not any(_alike(one, other, far) for other in found):
            found.append(one)
        if len(found) == _KEPT:
            break
    return found


class _Batch:
    """Many cameras that look at the same marks, each on its own way down, all in one go.

    Levenberg and Marquardt's steps, damped for each camera apart.
    """

    def __init__(
        self,
        photo: Photo,
        pixels: Array,
        points: Array,
        alternative: Array,
        cameras: Sequence[Camera],
    ) -> None:
        self._wanted = pixels - np.array(photo.size) / 2
        self._points = points
        self._weight = np.repeat(1 / alternative, 2)
        log_focal, log_sigma = prior_of(photo)
        self._lens = np.array([log_focal, 0.0])
        self._prior = np.zeros(SIZE)
        self._prior[LOG_FOCAL], self._prior[K1] = 1 / log_sigma**2, 1 / K1_SIGMA**2
        self._place = np.array([one.place for one in cameras])
        self._rotation = np.array([one.rotation for one in cameras])
        self._bend = np.array([[one.log_focal, one.k1] for one in cameras])
        self._damp = np.full(len(cameras), _DAMPED)
        self._cost = np.full(len(cameras), np.inf)

    def settle(self) -> None:
        """Go down until no camera moves."""
        state = (self._place, self._rotation, self._bend)
        self._cost, misfit, slopes = self._look(*state)
        for _ in range(_ROUNDS):
            alive = np.flatnonzero(np.isfinite(self._cost) & (self._damp < _STOPPED))
            if not len(alive):
                break
            step = self._steps(alive, misfit[alive], slopes[alive])
            tried = (
                self._place[alive] + step[:, PLACE],
                _turned(step[:, TURN]) @ self._rotation[alive],
                self._bend[alive] + step[:, LOG_FOCAL:],
            )
            cost, miss, slope = self._look(*tried)
            better = cost < self._cost[alive]
            still = better & (self._cost[alive] - cost < _SETTLED * self._cost[alive])
            good = alive[better]
            for held, new in zip(state, tried, strict=True):
                held[good] = new[better]
            self._cost[good], misfit[good], slopes[good] = cost[better], miss[better], slope[better]
            self._damp[good] /= 5
            self._damp[alive[~better]] *= 6
            self._damp[alive[still]] = _STOPPED

    def cameras(self) -> Iterator[tuple[float, Camera]]:
        """What became of them with their costs, the best first; none that lost its marks."""
        for i in np.argsort(self._cost):
            if np.isfinite(self._cost[i]):
                log_focal, k1 = self._bend[i].tolist()
                camera = Camera(self._place[i].copy(), self._rotation[i].copy(), log_focal, k1)
                yield float(self._cost[i]), camera

    def _steps(self, alive: Rows, misfit: Array, slopes: Array) -> Array:
        normal = np.swapaxes(slopes, 1, 2) @ slopes + np.diag(self._prior)
        pull = np.einsum("cki,ck->ci", slopes, misfit)
        pull[:, LOG_FOCAL:] -= self._prior[LOG_FOCAL:] * (self._bend[alive] - self._lens)
        size = np.einsum("cii->ci", normal)
        floor = 1e-12 * size.max(axis=1)
        damped = self._damp[alive, None] * size + floor[:, None]
        steps: Array = np.linalg.solve(
            normal + damped[:, :, None] * np.eye(SIZE), pull[:, :, None]
        )[:, :, 0]
        return steps

    def _look(self, place: Array, rotation: Array, bend: Array) -> tuple[Array, Array, Array]:
        """Cost, shape (c,), weighted misfits (c, 2m) and slopes (c, 2m, 8); infinite where a mark lies behind."""
        seen = np.einsum("cij,cmj->cmi", rotation, self._points[None] - place[:, None])
        seen[..., 2] = np.where(seen[..., 2] > BEFORE_MM, seen[..., 2], np.nan)
        out, by_seen, by_k1 = through_lens(seen, np.exp(bend[:, :1]), bend[:, 1:])
        misfit = (self._wanted - out).reshape(len(place), -1) * self._weight
        slopes = np.empty((*seen.shape[:2], 2, SIZE))
        slopes[..., PLACE] = -np.einsum("cmij,cjk->cmik", by_seen, rotation)
        slopes[..., TURN] = by_seen @ minus_cross(seen)
        slopes[..., LOG_FOCAL] = out
        slopes[..., K1] = by_k1
        away = bend - self._lens
        cost = np.sum(misfit**2, axis=1) + np.sum(self._prior[LOG_FOCAL:] * away**2, axis=1)
        cost = np.where(np.isfinite(cost), cost, np.inf)
        return cost, misfit, slopes.reshape(len(place), -1, SIZE) * self._weight[:, None]


def _turned(turn: Array) -> Array:
    """Rotations of several small turns, shape (c, 3) to (c, 3, 3)."""
    angle = np.maximum(np.linalg.norm(turn, axis=1), 1e-12)
    k = np.zeros((len(turn), 3, 3))
    k[:, 0, 1], k[:, 0, 2] = -turn[:, 2], turn[:, 1]
    k[:, 1, 0], k[:, 1, 2] = turn[:, 2], -turn[:, 0]
    k[:, 2, 0], k[:, 2, 1] = -turn[:, 1], turn[:, 0]
    s, c = np.sin(angle) / angle, (1 - np.cos(angle)) / angle**2
    out: Array = np.eye(3) + s[:, None, None] * k + c[:, None, None] * (k @ k)
    return out


def _alike(one: Camera, other: Camera, far: float) -> bool:
    apart = float(np.linalg.norm(one.place - other.place))
    turn = float(np.linalg.norm(one.rotation - other.rotation)) / math.sqrt(2)
    distance = max(far, float(np.linalg.norm(one.place)))
    return apart < _APART * distance and turn < _APART
