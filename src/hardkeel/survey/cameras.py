"""Cameras: where each photo was taken from, and where a mark falls in it.

Each photo adds eight unknowns: the camera's place (airframe axes, mm), its rotation, ln f and k1.  With the mark in
camera axes (X right, Y down, Z forward, Z > 0), x = X/Z, y = Y/Z: u = w/2 + f·x·(1 + k1·(x² + y²)), v likewise.  The
rotation is a turn about a reference that lies near, so that no angle is ever singular: R = exp([r]×)·R₀.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.model import FUSELAGE, Photo, Survey
from hardkeel.survey.readings import Sight

SIZE: Final = 8  # unknowns of a camera
PLACE: Final = slice(0, 3)
TURN: Final = slice(3, 6)
LOG_FOCAL: Final = 6
K1: Final = 7
FOCAL_SIGMA: Final = 0.03  # of ln f where the camera told its focal length; fixed by the contract
UNTOLD_FOCAL: Final = 0.8  # of the longer side where it did not
UNTOLD_FOCAL_SIGMA: Final = 0.4
K1_SIGMA: Final = 0.05
LEAST_MARKS: Final = 5
LEAST_ON_FUSELAGE: Final = 3
_LINE_MM: Final = 2.0  # marks within this of one line lie in it
BEFORE_MM: Final = 1.0  # of the lens, at least
_LARGEST_LOG: Final = 50.0  # of a focal length: no sum overflows below it


@dataclass(frozen=True)
class Camera:
    """One camera.

    Attributes
    ----------
    place : Array
        Shape (3,), mm, airframe axes.
    rotation : Array
        Shape (3, 3), from airframe axes to camera axes.
    log_focal, k1 : float
        Logarithm of the focal length in pixels, and the lens's first radial figure.
    """

    place: Array
    rotation: Array
    log_focal: float
    k1: float

    @property
    def focal(self) -> float:
        """Pixels."""
        return math.exp(self.log_focal)

    def project(self, points: Array, size: tuple[int, int]) -> Array:
        """Where points, shape (m, 3), fall: shape (m, 2), pixels; NaN for what lies behind."""
        seen = (points - self.place) @ self.rotation.T
        with np.errstate(all="ignore"):
            flat = seen[:, :2] / np.where(seen[:, 2:] > BEFORE_MM, seen[:, 2:], np.nan)
            bent = 1 + self.k1 * np.sum(flat**2, axis=1, keepdims=True)
        out: Array = np.array(size) / 2 + self.focal * flat * bent
        return out


def prior_of(photo: Photo) -> tuple[float, float]:
    """Ln f as it is known beforehand, and its sigma."""
    if photo.focal is not None:
        return math.log(photo.focal), photo.focal_sigma or FOCAL_SIGMA
    return math.log(UNTOLD_FOCAL * max(photo.size)), UNTOLD_FOCAL_SIGMA


def in_one_line(points: Array) -> bool:
    """Whether points, shape (m, 3), lie within 2 mm of the line that fits them best."""
    if len(points) < 3:  # noqa: PLR2004  two points always do
        return True
    away = points - points.mean(axis=0)
    along = np.linalg.svd(away, full_matrices=False)[2][0]
    off = away - np.outer(away @ along, along)
    return bool(np.max(np.linalg.norm(off, axis=1)) <= _LINE_MM)


def photos_in_use(survey: Survey, sightings: Sequence[Sight]) -> tuple[Photo, ...]:
    """The photos whose sightings, these, fix a camera, in the survey's order.

    From five marks not in one line, three of them on the fuselage and not in one line, as they are at design.
    """
    marks = {mark.id: mark for mark in survey.marks}
    found = []
    for photo in survey.photos:
        seen = [marks[one.mark] for one in sightings if one.photo == photo.id]
        body = [mark for mark in seen if mark.body == FUSELAGE]
        if len(seen) < LEAST_MARKS or len(body) < LEAST_ON_FUSELAGE:
            continue
        every, fixed = np.array([m.at for m in seen]), np.array([m.at for m in body])
        if not in_one_line(every) and not in_one_line(fixed):
            found.append(photo)
    return tuple(found)


def cross_of(vector: Array) -> Array:
    """The matrix [v]×, shape (3, 3)."""
    x, y, z = vector.tolist()
    return np.array([[0.0, -z, y], [z, 0.0, -x], [-y, x, 0.0]])


def turned(turn: Array) -> tuple[Array, Array]:
    """exp([r]×), and the left Jacobian that takes dr to the turn it adds; both shape (3, 3).

    Rodrigues' formula; T. D. Barfoot, *State Estimation for Robotics* (2017), section 7.1.5.
    """
    angle = float(np.linalg.norm(turn))
    k = cross_of(turn)
    if angle < 1e-8:  # noqa: PLR2004  the series' first terms
        return np.eye(3) + k, np.eye(3) + k / 2
    s, c = math.sin(angle) / angle, (1 - math.cos(angle)) / angle**2
    square = k @ k
    return np.eye(3) + s * k + c * square, np.eye(3) + c * k + (1 - s) / angle**2 * square


def through_lens(seen: Array, focal: Array, k1: Array) -> tuple[Array, Array, Array]:
    """Pixels from the middle of the picture, and how they go with place and lens.

    Parameters
    ----------
    seen : Array
        Shape (..., 3), mm in camera axes, before the lens.
    focal, k1 : Array
        Broadcast against shape (...).

    Returns
    -------
    tuple of Array
        Shape (..., 2); (..., 2, 3) by X, Y, Z; (..., 2) by k1.
    """
    depth = seen[..., 2]
    x, y = seen[..., 0] / depth, seen[..., 1] / depth
    square = x**2 + y**2
    bent = 1 + k1 * square
    pixels = np.stack([focal * x * bent, focal * y * bent], axis=-1)
    by_seen = np.empty((*x.shape, 2, 3))
    by_seen[..., 0, 0], by_seen[..., 1, 1] = bent + 2 * k1 * x**2, bent + 2 * k1 * y**2
    by_seen[..., 0, 1] = by_seen[..., 1, 0] = 2 * k1 * x * y
    by_seen[..., 2] = -by_seen[..., 0] * x[..., None] - by_seen[..., 1] * y[..., None]
    by_seen *= (focal / depth)[..., None, None]
    by_k1 = np.stack([focal * x * square, focal * y * square], axis=-1)
    return pixels, by_seen, by_k1


def minus_cross(seen: Array) -> Array:
    """−[X]× of many vectors: how each goes with a turn of the camera; shape (..., 3) to (..., 3, 3)."""
    out = np.zeros((*seen.shape, 3))
    out[..., 0, 1], out[..., 0, 2] = seen[..., 2], -seen[..., 1]
    out[..., 1, 0], out[..., 1, 2] = -seen[..., 2], seen[..., 0]
    out[..., 2, 0], out[..., 2, 1] = seen[..., 1], -seen[..., 0]
    return out


class Lens:
    """Predicts the sightings of one photo.

    Parameters
    ----------
    photo : Photo
    sightings : sequence of Sight
        Those in it.
    index : mapping of str to int
        Row of each mark among the placed points.
    reference : Array
        Shape (3, 3): R₀.
    """

    def __init__(
        self,
        photo: Photo,
        sightings: Sequence[Sight],
        index: Mapping[str, int],
        reference: Array,
    ) -> None:
        self.photo = photo
        self.reference = reference
        self._rows = np.array([index[one.mark] for one in sightings], dtype=np.intp)
        self._middle = np.array(photo.size) / 2
        self.log_focal, self.log_sigma = prior_of(photo)

    def state_of(self, camera: Camera) -> Array:
        """A camera as unknowns, shape (8,); its rotation must be the reference."""
        return np.array([*camera.place, 0.0, 0.0, 0.0, camera.log_focal, camera.k1])

    def camera_of(self, state: Array) -> Camera:
        """The camera of these unknowns."""
        turn, _ = turned(state[TURN])
        return Camera(
            state[PLACE].copy(), turn @ self.reference, float(state[LOG_FOCAL]), float(state[K1])
        )

    def predict(
        self, state: Array, airframe: Array, moves: Array
    ) -> tuple[Array, Array, Array] | None:
        """Pixels, and how they go with the airframe's unknowns and the camera's.

        Parameters
        ----------
        state : Array
            Shape (8,).
        airframe, moves : Array
            Shape (m, 3) and (m, 3, n), the placed marks.

        Returns
        -------
        tuple of Array, or None
            Shape (2k,), (2k, n), (2k, 8), u before v of each sighting; ``None`` where a mark lies behind the camera.
        """
        turn, left = turned(state[TURN])
        rotation = turn @ self.reference
        seen = (airframe[self._rows] - state[PLACE]) @ rotation.T
        if not np.all(seen[:, 2] > BEFORE_MM):
            return None
        focal = np.asarray(math.exp(min(float(state[LOG_FOCAL]), _LARGEST_LOG)))
        pixels, by_seen, by_k1 = through_lens(seen, focal, np.asarray(state[K1]))
        by_point = by_seen @ rotation
        by_camera = np.empty((len(seen), 2, SIZE))
        by_camera[:, :, PLACE] = -by_point
        by_camera[:, :, TURN] = by_seen @ (minus_cross(seen) @ left)
        by_camera[:, :, LOG_FOCAL] = pixels
        by_camera[:, :, K1] = by_k1
        by_body = by_point @ moves[self._rows]
        k = 2 * len(seen)
        return (
            (pixels + self._middle).reshape(k),
            by_body.reshape(k, moves.shape[2]),
            by_camera.reshape(k, SIZE),
        )
