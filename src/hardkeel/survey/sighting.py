"""What an estimate says of a photo: where it was taken from, how well its sightings sit, where any point falls in it."""

import math
from dataclasses import dataclass
from typing import Protocol

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.cameras import K1, LOG_FOCAL, SIZE, Camera
from hardkeel.survey.network import Network
from hardkeel.survey.outliers import SightFit
from hardkeel.survey.readings import Sight


@dataclass(frozen=True)
class PhotoView:
    """A photo in use.

    Attributes
    ----------
    rms : float
        Pixels: the root of the mean square distance of the sightings used.
    place_sigma : (float, float, float)
        mm, airframe axes.
    focal_sigma, k1_sigma : float
        Pixels, and as k1.
    """

    camera: Camera
    size: tuple[int, int]
    rms: float
    place_sigma: tuple[float, float, float]
    focal_sigma: float
    k1_sigma: float

    def project(self, points: Array) -> Array:
        """Where points, shape (m, 3), fall: shape (m, 2), pixels; NaN for what lies behind the camera."""
        return self.camera.project(points, self.size)


class Adjusted(Protocol):
    """What was adjusted with sightings in it: an airframe, a frame on its board."""

    @property
    def net(self) -> Network:
        """Its unknowns."""

    @property
    def solution(self) -> Solution:
        """What they are."""

    @property
    def sightings(self) -> tuple[Sight, ...]:
        """In the order of `sight_fits`."""

    @property
    def sight_fits(self) -> tuple[SightFit, ...]:
        """How each sits."""


def photo_view(judgement: Adjusted, photo_id: str) -> PhotoView | None:
    """What is known of a photo; ``None`` where it is not in use."""
    solution = judgement.solution
    camera, photo = solution.cameras.get(photo_id), judgement.net.survey.photo(photo_id)
    if camera is None or photo is None:
        return None
    order = [one.id for one in judgement.net.survey.photos if one.id in solution.cameras]
    at = judgement.net.columns.size + SIZE * order.index(photo_id)
    sigma = np.sqrt(np.diag(solution.whole.covariance)[at : at + SIZE])
    off = [
        fit.residual
        for one, fit in zip(judgement.sightings, judgement.sight_fits, strict=True)
        if one.photo == photo_id and fit.used and fit.residual is not None
    ]
    return PhotoView(
        camera=camera,
        size=photo.size,
        rms=math.sqrt(sum(one**2 for one in off) / len(off)) if off else 0.0,
        place_sigma=(float(sigma[0]), float(sigma[1]), float(sigma[2])),
        focal_sigma=float(sigma[LOG_FOCAL]) * camera.focal,
        k1_sigma=float(sigma[K1]),
    )
