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
from hardkeel.sight.printed import Label, with_labels
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
_SIDE_MM: Final = 20.0  # of a target's black square, where the survey does not say
_FLAT_FACE: Final = 0.7  # a normal that points up more than that lies flat


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
    """The picture that a camera takes, shape (h, w, 3), with the survey's printed targets on it."""
    taken = photographed(_scene(hidden, hull_of(fuselage), camera), camera, size, rng)
    labels = labels_on(hidden)
    if not labels:
        return taken
    gone = hidden_marks(hidden.net.survey, _points(hidden), camera, hull_of(fuselage))
    seen = [label for mark, label in labels.items() if mark not in gone]
    return with_labels(taken, seen, camera, rng)


def labels_on(hidden: Hidden) -> dict[str, Label]:
    """The survey's printed targets where they really sit, by mark."""
    survey = hidden.net.survey
    found = {}
    for target in survey.targets:
        mark = survey.mark(target.mark)
        if mark is None:
            continue
        normal = np.array(survey.normal_of(target))
        # upright as seen from outside: its right hand lies level, to starboard where it lies flat or looks aft
        level = (
            np.array([1.0, 0.0, 0.0]) if abs(normal[1]) > _FLAT_FACE else np.array([0.0, 1.0, 0.0])
        )
        right = level - (level @ normal) * normal
        right /= np.linalg.norm(right)
        up = np.cross(normal, right)
        at = np.array(mark.at)
        places = [(mark.body, _place(one)) for one in (at, at + right, at + up)]
        middle, beside, over = hidden.net.placer_of(places).place(hidden.unknowns).airframe
        real = hidden.net.placer.place(hidden.unknowns).airframe[hidden.net.index[mark.id]]
        found[mark.id] = Label(
            target.code,
            real,
            _unit(beside - middle),
            _unit(over - middle),
            survey.target_size or _SIDE_MM,
        )
    return found


def outlines_of(hidden: Hidden) -> dict[str, Array]:
    """Bodies' outlines where they really stand, shape (k, 3), as ``outline wing``."""
    return {name: at for name, at in _points(hidden).items() if name.startswith("outline ")}


def _place(at: Array) -> tuple[float, float, float]:
    return float(at[0]), float(at[1]), float(at[2])


def _unit(way: Array) -> Array:
    found: Array = way / np.linalg.norm(way)
    return found


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
