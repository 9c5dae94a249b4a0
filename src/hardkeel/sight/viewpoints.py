"""Places to take a photo from so that the marks fill the picture, and what a photo from there would be worth."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.cameras import Camera, Lens, photos_in_use
from hardkeel.survey.model import Photo, Survey
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Sight
from hardkeel.survey.system import System

Place = Literal[
    "behind", "front", "above", "quarter", "quarter-starboard", "above-tail", "nose-quarter"
]
# from the middle of the marks towards the camera: aft, starboard, up
WAYS: Final[Mapping[Place, tuple[float, float, float]]] = {
    "behind": (1.0, 0.0, 0.5),
    "front": (-1.0, 0.0, 0.28),
    "above": (0.02, 0.0, 1.0),
    "above-tail": (0.8, 0.0, 0.75),
    "quarter": (0.8, -0.75, 0.5),
    "quarter-starboard": (0.8, 0.75, 0.5),
    "nose-quarter": (-0.8, -0.75, 0.5),
}
FILLS: Final = 0.9  # of the half picture, for the mark farthest out
USUAL_SIZE: Final = (4000, 3000)  # what a phone takes
USUAL_FOCAL: Final = 0.8125  # of the longer side
_ROUNDS: Final = 60


def place_named(name: str) -> Place:
    """A place by its name; behind, where there is none of that name."""
    return next((place for place in WAYS if place == name), "behind")


def camera_at(
    points: Array,
    way: Sequence[float] | Array,
    size: tuple[int, int],
    focal: float,
    k1: float = 0.0,
) -> Camera:
    """A camera that looks at points, shape (m, 3), from a direction, as near as they still fill the picture.

    Raises
    ------
    ValueError
        When there are no points.
    """
    back = np.array(way, dtype=float)
    back /= np.linalg.norm(back)
    forward = -back
    # up in the picture is up, or forward where the camera looks straight down
    up = np.array([0.0, 0.0, 1.0]) if abs(back[2]) < 0.95 else np.array([-1.0, 0.0, 0.0])  # noqa: PLR2004
    right = np.cross(forward, up)
    right /= np.linalg.norm(right)
    rotation = np.array([right, np.cross(forward, right), forward])
    seen = (points - points.mean(axis=0)) @ rotation.T
    half = np.array(size) / 2 * FILLS
    # shifted sideways so that both edges are alike far off, and as far back as all of it wants
    shift = np.zeros(2)
    far = float(np.linalg.norm(seen, axis=1).max()) + 1.0
    low, high = float(-seen[:, 2].min()) + 1.0, 100.0 * far
    for _ in range(_ROUNDS):
        middle = (low + high) / 2
        flat = (seen[:, :2] - shift) / (seen[:, 2:] + middle)
        bent = focal * flat * (1 + k1 * np.sum(flat**2, axis=1, keepdims=True))
        centre = (bent.max(axis=0) + bent.min(axis=0)) / 2
        shift = shift + centre / focal * middle
        if np.all((bent.max(axis=0) - bent.min(axis=0)) / 2 <= half):
            high = middle
        else:
            low = middle
    place = points.mean(axis=0) + shift @ rotation[:2] + high * back
    return Camera(place, rotation, math.log(focal), k1)


def hidden_marks(
    survey: Survey,
    points: Mapping[str, Array],
    camera: Camera,
    walls: Sequence[Array] = (),
) -> frozenset[str]:
    """Marks that a plank of another body, or the hull, stands before, by where the marks are now.

    Parameters
    ----------
    points : mapping of str to Array
        Shape (3,), by mark id; and the outlines' corners, shape (k, 3), as ``outline wing``.
    walls : sequence of Array
        Shape (4, 3) each, of the hull.
    """
    panels: list[tuple[Array, Array, Array]] = []
    owner: list[str] = []
    for body in survey.bodies:
        if len(body.outline) > 2:  # noqa: PLR2004
            found = panels_of(points[f"outline {body.id}"])
            panels += found
            owner += [body.id] * len(found)
    for wall in walls:
        found = panels_of(wall)
        panels += found
        owner += [""] * len(found)
    if not panels or not survey.marks:
        return frozenset()
    marks = np.array([points[mark.id] for mark in survey.marks])
    apart = np.array([[mark.body != one for one in owner] for mark in survey.marks])
    crossed = _crossed(camera.place, marks, np.array(panels))
    return frozenset(
        mark.id
        for mark, hidden in zip(survey.marks, (crossed & apart).any(axis=1), strict=True)
        if hidden
    )


def panels_of(ring: Array) -> list[tuple[Array, Array, Array]]:
    """A plank's ring, shape (k, 3), as triangles across from its first half to its second: it keeps its dihedral."""
    half = len(ring) // 2
    ahead, behind = ring[:half], ring[half:][::-1]
    found = []
    for i in range(max(len(ahead), len(behind)) - 1):
        a, b = ahead[min(i, half - 1)], ahead[min(i + 1, half - 1)]
        c, d = behind[min(i, len(behind) - 1)], behind[min(i + 1, len(behind) - 1)]
        found += [(a, b, c), (b, d, c)]
    return found


_ALONG: Final = 1e-6  # a sight along a panel goes past it
_NEAR_MM: Final = 4.0  # a mark so near a plank lies on it


def _crossed(eye: Array, marks: Array, panels: Array) -> NDArray[np.bool_]:
    """Whether the sight from the eye to each mark goes through each triangle, well before it ends.

    T. Möller and B. Trumbore, "Fast, minimum storage ray/triangle intersection", J. Graphics Tools 2 (1997), 21-28.

    Parameters
    ----------
    marks, panels : Array
        Shape (m, 3) and (t, 3, 3).

    Returns
    -------
    ndarray of bool
        Shape (m, t).
    """
    line = marks - eye
    one, two = panels[:, 1] - panels[:, 0], panels[:, 2] - panels[:, 0]
    across = np.cross(line[:, None], two[None])
    det = np.einsum("mti,ti->mt", across, one)
    with np.errstate(all="ignore"):
        start = eye - panels[:, 0]
        u = np.einsum("mti,ti->mt", across, start) / det
        turned = np.cross(start, one)
        v = np.einsum("mi,ti->mt", line, turned) / det
        share = np.einsum("ti,ti->t", two, turned) / det
        left = (1 - share) * np.linalg.norm(line, axis=1)[:, None]
        crossed: NDArray[np.bool_] = (
            (np.abs(det) > _ALONG)
            & (u >= 0)
            & (v >= 0)
            & (u + v <= 1)
            & (share > 0)
            & (left > _NEAR_MM)
        )
    return crossed


@dataclass(frozen=True, slots=True)
class View:
    """A picture that might be taken.

    Attributes
    ----------
    marks : tuple of str
        Those that would be seen.
    photo : Photo
        Its size and focal length.
    """

    place: Place
    camera: Camera
    photo: Photo
    marks: tuple[str, ...]


def views_of(net: Network, solution: Solution, walls: Sequence[Array] = ()) -> tuple[View, ...]:
    """Frame-filling pictures from each place, with the marks that would be seen there past planks and hull."""
    survey = net.survey
    size = USUAL_SIZE
    focal = USUAL_FOCAL * max(size)
    points = solution.placed.airframe
    if len(points) == 0:
        return ()
    where = {mark.id: points[net.index[mark.id]] for mark in survey.marks}
    for body in survey.bodies:
        if body.outline:
            placer = net.placer_of([(body.id, at) for at in body.outline])
            where[f"outline {body.id}"] = placer.place(solution.unknowns).airframe
    photo = Photo(id="?", image="?", size=size, focal=focal)
    views = []
    for place, way in WAYS.items():
        camera = camera_at(points, way, size, focal)
        hidden = hidden_marks(survey, where, camera, walls)
        seen = tuple(mark.id for mark in survey.marks if mark.id not in hidden)
        views.append(View(place, camera, photo, seen))
    return tuple(views)


def covariance_with(
    net: Network, solution: Solution, view: View, sigma: float, fine: Mapping[str, float]
) -> Array | None:
    """The airframe's covariance once a picture is taken and all that is seen in it is clicked; shape (n, n).

    Parameters
    ----------
    sigma : float
        Of a click, pixels.
    fine : mapping of str to float
        By mark, where it is another: a pin's head is found to half a pixel.

    Returns
    -------
    Array or None
        ``None`` where too few marks would be seen.
    """
    sightings = [
        Sight(
            id=mark, photo=view.photo.id, mark=mark, value=(0.0, 0.0), sigma=fine.get(mark, sigma)
        )
        for mark in view.marks
    ]
    seen_by = net.survey.but(photos=(view.photo,), readings=())
    if not photos_in_use(seen_by, sightings):
        return None
    lens = Lens(view.photo, sightings, net.index, view.camera.rotation)
    placed = solution.placed
    found = lens.predict(lens.state_of(view.camera), placed.airframe, placed.airframe_moves)
    if found is None:
        return None
    _, by_body, by_camera = found
    weight = np.repeat([1 / (one.sigma or sigma) ** 2 for one in sightings], 2)
    own = System.prior_of_camera(lens) + by_camera.T @ (weight[:, None] * by_camera)
    across = by_body.T @ (weight[:, None] * by_camera)
    told = by_body.T @ (weight[:, None] * by_body) - across @ np.linalg.solve(own, across.T)
    covariance = np.linalg.inv(np.linalg.inv(solution.covariance) + (told + told.T) / 2)
    both: Array = (covariance + covariance.T) / 2
    return both
