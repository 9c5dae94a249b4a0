"""Photos of the hidden airframe: planks where it really stands, its hull, pins and pen marks where the camera sees them."""

import math
from collections.abc import Sequence
from typing import Final

import numpy as np

from hardkeel.fuselage.hull import hull_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.rotation import Array
from hardkeel.practice.hidden import Hidden
from hardkeel.sight.pictures import Pixels
from hardkeel.sight.standin import HULL, PEN, PIN, WOOD, Dot, Plank, Scene, photographed
from hardkeel.sight.viewpoints import WAYS, Place, camera_at, hidden_marks, panels_of
from hardkeel.survey.cameras import Camera
from hardkeel.survey.model import FUSELAGE

SIZE: Final = (3200, 2400)
_FOCAL: Final = 0.83  # of the longer side: a phone's usual lens
_TOLD_FOCAL: Final = 0.8125  # what it writes of it, a little off as they are
_K1: Final = -0.03
_OFF: Final = 0.06  # how far off the place a hand holds it
_PIN_MM: Final = 2.6
_PEN_MM: Final = 1.5
_FLAT: Final = math.cos(math.radians(150.0))
_SAME_MM: Final = 1e-6


def film_focal(size: tuple[int, int]) -> float:
    """What the stand-in writes in its pictures, as for 35 mm film."""
    return _TOLD_FOCAL * max(size) / math.hypot(*size) * math.hypot(36.0, 24.0)


def camera_for(
    hidden: Hidden, place: Place, rng: np.random.Generator, size: tuple[int, int] = SIZE
) -> Camera:
    """A camera held about a place, so that all of the model is in it."""
    points = hidden.net.placer.place(hidden.unknowns).airframe
    way = np.array(WAYS[place]) + rng.normal(size=3) * _OFF
    return camera_at(points, way, size, _FOCAL * max(size), _K1)


def picture_of(
    hidden: Hidden,
    fuselage: Fuselage | None,
    camera: Camera,
    rng: np.random.Generator,
    size: tuple[int, int] = SIZE,
) -> Pixels:
    """The picture that a camera takes, shape (h, w, 3)."""
    return photographed(_scene(hidden, hull_of(fuselage), camera), camera, size, rng)


def seen_from(hidden: Hidden, fuselage: Fuselage | None, camera: Camera) -> dict[str, Array]:
    """The marks that the camera sees, where they really stand: shape (3,), mm, by id."""
    points = _points(hidden)
    gone = hidden_marks(hidden.net.survey, points, camera, hull_of(fuselage))
    return {mark.id: points[mark.id] for mark in hidden.net.survey.marks if mark.id not in gone}


def _points(hidden: Hidden) -> dict[str, Array]:
    net = hidden.net
    placed = net.placer.place(hidden.unknowns).airframe
    points = {mark.id: placed[net.index[mark.id]] for mark in net.survey.marks}
    for body in net.survey.bodies:
        if body.outline:
            placer = net.placer_of([(body.id, at) for at in body.outline])
            points[f"outline {body.id}"] = placer.place(hidden.unknowns).airframe
    return points


def _scene(hidden: Hidden, walls: Sequence[Array], camera: Camera) -> Scene:
    points = _points(hidden)
    survey = hidden.net.survey
    planks = [Plank(wall, HULL, grain=False) for wall in walls]
    sharp: dict[str, list[Array]] = {}
    for body in survey.bodies:
        ring = points.get(f"outline {body.id}")
        if ring is not None:
            sharp[body.id] = _corners(ring)
            planks += [Plank(one, WOOD) for one in _halves(ring)]
    gone = hidden_marks(survey, points, camera, walls)
    dots = []
    for mark in survey.marks:
        at = points[mark.id]
        if mark.id in gone:
            continue
        if mark.body == FUSELAGE:
            dots.append(Dot(at, _PIN_MM, PIN))
        elif not any(np.linalg.norm(at - one) < _SAME_MM for one in sharp.get(mark.body, [])):
            dots.append(Dot(at, _PEN_MM, PEN))
    return Scene(planks, dots, _board(hidden))


def _corners(ring: Array) -> list[Array]:
    """Corners of a plank that can be seen as such: not those where an edge hardly bends, nor a fin's foot at the hull."""
    before, after = np.roll(ring, 1, axis=0) - ring, np.roll(ring, -1, axis=0) - ring
    product = np.linalg.norm(before, axis=1) * np.linalg.norm(after, axis=1)
    cosine = np.sum(before * after, axis=1) / np.maximum(product, _SAME_MM)
    upright = float(np.ptp(ring[:, 2])) > float(np.ptp(ring[:, 1]))
    foot = ring[:, 2] < ring[:, 2].mean() if upright else np.zeros(len(ring), dtype=bool)
    return [at for at, c, low in zip(ring, cosine, foot, strict=True) if c > _FLAT and not low]


def _halves(ring: Array) -> list[Array]:
    """A plank's ring as flat four-cornered panels from its first edge to its second."""
    triangles = panels_of(ring)
    found = []
    for (a, b, c), (_, d, _) in zip(triangles[::2], triangles[1::2], strict=True):
        found.append(np.array([a, b, d, c]))
    return found


def _board(hidden: Hidden) -> Array:
    """The building board in airframe axes: p_bench = R·p + (0, 0, z), so its origin is Rᵀ·(0, 0, −z)."""
    net = hidden.net
    k = net.columns.bench
    from_bench = hidden.turn_to_bench().T
    origin = from_bench @ np.array([0.0, 0.0, -float(hidden.unknowns[k + 2])])
    return np.vstack([origin, from_bench.T])
