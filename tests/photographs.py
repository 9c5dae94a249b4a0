"""Photos of airframes whose truth is known, for tests."""

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.sight.viewpoints import WAYS, Place, camera_at
from hardkeel.survey.cameras import Camera
from hardkeel.survey.model import Photo, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.readings import Sight

SIZE = (4000, 3000)
FOCAL = 3250.0


def taken_from(
    survey: Survey,
    truth: Array,
    rng: np.random.Generator,
    place: Place,
    *,
    k1: float = 0.02,
    spread: float = 0.1,
) -> Camera:
    """A camera about that place that sees all marks, its focal length a little off what it tells."""
    points = network_of(survey).placer.place(truth).airframe
    way = np.array(WAYS[place]) + rng.normal(size=3) * spread
    focal = FOCAL * math.exp(rng.normal() * 0.015)
    return camera_at(points, way, SIZE, focal, k1 * rng.normal())


def with_photo(  # noqa: PLR0913  a test says what it needs
    survey: Survey,
    truth: Array,
    camera: Camera,
    rng: np.random.Generator,
    *,
    sigma: float = 1.5,
    marks: Sequence[str] | None = None,
    focal: float | None = FOCAL,
    name: str = "p1",
    fine: Sequence[str] = (),
) -> Survey:
    """The survey with a photo more, its marks clicked with that sigma."""
    points = network_of(survey).placer.place(truth).airframe
    photo = Photo(id=name, image=f"photos/{name}.jpg", size=SIZE, focal=focal)
    pixels = camera.project(points, SIZE)
    sights: list[Any] = []
    for mark, at in zip(survey.marks, pixels, strict=True):
        if marks is not None and mark.id not in marks:
            continue
        own = 0.5 if mark.id in fine else sigma
        u, v = at + rng.normal(size=2) * own
        if 0 <= u <= SIZE[0] and 0 <= v <= SIZE[1]:
            sights.append(
                Sight(
                    id=f"{name}.{mark.id}",
                    photo=name,
                    mark=mark.id,
                    value=(float(u), float(v)),
                    sigma=own,
                )
            )
    return survey.but(photos=(*survey.photos, photo), readings=(*survey.readings, *sights))
