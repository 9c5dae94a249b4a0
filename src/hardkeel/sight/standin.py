"""The stand-in camera: a photo of planks and pins on a bench, drawn as a lens would see them.

Perspective, the lens's bend, a little blur and noise; planks are lit from above and cast their shadow on the board.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.sight.pictures import Colour, Pixels, painted
from hardkeel.survey.cameras import Camera

WOOD: Final[Colour] = (226, 198, 152)
HULL: Final[Colour] = (204, 170, 118)
PIN: Final[Colour] = (206, 44, 40)
PEN: Final[Colour] = (38, 62, 190)  # blue ink
_WALL: Final[Colour] = (150, 156, 160)
_BOARD: Final[tuple[Colour, Colour]] = ((120, 98, 78), (112, 91, 72))
_SHADOW: Final[Colour] = (84, 68, 55)
_LIGHT: Final = np.array([-0.25, -0.45, 0.86])
_AMBIENT: Final = 0.45
_BLUR_PX: Final = 0.7
_NOISE: Final = 2.5  # of 255, one sigma
_NEAR: Final = 60.0  # mm before the lens: nearer nothing is drawn
_OUTSIDE: Final = 1.3  # of the half picture
_PIECES: Final = 12  # of a straight edge, so that the lens may bend it
_TOUCH: Final = 0.3  # mm: what lies in a plane lies on both sides of it
_STREAKS: Final = 5  # of grain across a plank
_BOARD_MM: Final = (2000.0, 1800.0)
_BOARD_PLANKS: Final = 9
_ROUND: Final = 20  # corners of a pin's head


@dataclass(frozen=True)
class Plank:
    """A thin flat part.

    Attributes
    ----------
    ring : Array
        Shape (k, 3), mm, airframe axes.
    grain : bool
        Streaks of grain from its first edge to the one across.
    """

    ring: Array
    colour: Colour = WOOD
    grain: bool = True


@dataclass(frozen=True)
class Dot:
    """A pin's head or a pen's mark: shape (3,) and mm."""

    at: Array
    radius: float
    colour: Colour


@dataclass(frozen=True)
class Scene:
    """What stands before the camera.

    Attributes
    ----------
    board : Array
        Shape (4, 3): origin of the board beneath the datum, and its aft, starboard and up directions of unit length.
    """

    planks: Sequence[Plank]
    dots: Sequence[Dot]
    board: Array


def photographed(
    scene: Scene, camera: Camera, size: tuple[int, int], rng: np.random.Generator
) -> Pixels:
    """The picture, shape (h, w, 3)."""
    shapes = [*_bench(scene, camera, size), *_shadows(scene, camera, size)]
    for plank in _far_first(scene.planks, camera):
        shapes += _lit(plank, camera, size)
    for dot in scene.dots:
        shapes += _dot(dot, camera, size)
    soft = painted(shapes, size, _WALL, _BLUR_PX)
    soft += _NOISE * rng.standard_normal(soft.shape, dtype=np.float32)
    picture: Pixels = soft.clip(0, 255).astype(np.uint8)
    return picture


def _far_first(planks: Sequence[Plank], camera: Camera) -> list[Plank]:
    """In the order in which they are to be drawn.

    A plank that lies wholly beyond the plane of another, or before whose plane the other lies wholly, is drawn before
    it (M. E. Newell, R. G. Newell and T. L. Sancha, "A solution to the hidden surface problem", 1972); what is left
    open, the farther first.
    """
    depth = [
        float(((one.ring.mean(axis=0) - camera.place) @ camera.rotation.T)[2]) for one in planks
    ]
    under = {
        i: {j for j, other in enumerate(planks) if i != j and _is_beyond(other, one, camera)}
        for i, one in enumerate(planks)
    }
    left = sorted(range(len(planks)), key=lambda i: -depth[i])
    order = []
    while left:
        drawn = next((i for i in left if not under[i] & set(left)), left[0])
        left.remove(drawn)
        order.append(planks[drawn])
    return order


def _is_beyond(one: Plank, other: Plank, camera: Camera) -> bool:
    """Whether one is certain to be hidden by the other where they meet in the picture."""
    return _all_on(one.ring, other.ring, camera, -1.0) or _all_on(other.ring, one.ring, camera, 1.0)


def _all_on(points: Array, ring: Array, camera: Camera, side: float) -> bool:
    """Whether points lie on the camera's side of a ring's plane (1), or on the other (-1)."""
    normal = np.cross(ring[1] - ring[0], ring[2] - ring[1])
    length = float(np.linalg.norm(normal))
    if length == 0:
        return False
    eye = float((camera.place - ring[0]) @ normal) / length
    away = (points - ring[0]) @ normal / length * np.sign(eye) * side
    return bool(np.all(away > -_TOUCH) and np.any(away > _TOUCH))


def _lit(plank: Plank, camera: Camera, size: tuple[int, int]) -> list[tuple[Array, Colour]]:
    normal = np.cross(plank.ring[1] - plank.ring[0], plank.ring[2] - plank.ring[1])
    length = float(np.linalg.norm(normal))
    towards = camera.place - plank.ring.mean(axis=0)
    if length > 0 and normal @ towards < 0:
        normal = -normal
    light = max(0.0, float(normal @ _LIGHT)) / max(length, 1e-9)
    share = _AMBIENT + (1 - _AMBIENT) * light
    shapes = _seen(plank.ring, _shaded(plank.colour, share), camera, size)
    if plank.grain and len(plank.ring) == 4:  # noqa: PLR2004  a panel with two long edges
        a, b, c, d = plank.ring
        for i in range(_STREAKS):
            at, wide = (i + 0.5) / _STREAKS, 0.12 / _STREAKS
            streak = np.array(
                [
                    a + (d - a) * (at - wide),
                    b + (c - b) * (at - wide),
                    b + (c - b) * (at + wide),
                    a + (d - a) * (at + wide),
                ]
            )
            shapes += _seen(streak, _shaded(plank.colour, share * 0.97), camera, size)
    return shapes


def _shaded(colour: Colour, share: float) -> Colour:
    r, g, b = (min(255, round(one * share)) for one in colour)
    return r, g, b


def _bench(scene: Scene, camera: Camera, size: tuple[int, int]) -> list[tuple[Array, Colour]]:
    origin, aft, starboard, _ = scene.board
    long, wide = _BOARD_MM
    shapes = []
    for i in range(_BOARD_PLANKS):
        left, right = (wide * (j / _BOARD_PLANKS - 0.5) for j in (i, i + 1))
        corners = [(-0.3, left), (0.7, left), (0.7, right), (-0.3, right)]
        ring = np.array([origin + aft * long * x + starboard * y for x, y in corners])
        shapes += _seen(ring, _BOARD[i % 2], camera, size)
    return shapes


def _shadows(scene: Scene, camera: Camera, size: tuple[int, int]) -> list[tuple[Array, Colour]]:
    origin, _, _, up = scene.board
    shapes = []
    for plank in scene.planks:
        height = (plank.ring - origin) @ up
        fallen = plank.ring - _LIGHT * (height / float(_LIGHT @ up))[:, None]
        shapes += _seen(fallen, _SHADOW, camera, size)
    return shapes


def _dot(dot: Dot, camera: Camera, size: tuple[int, int]) -> list[tuple[Array, Colour]]:
    turn = np.linspace(0, 2 * np.pi, _ROUND, endpoint=False)
    right, down = camera.rotation[0], camera.rotation[1]
    ring = dot.at + dot.radius * (np.outer(np.cos(turn), right) + np.outer(np.sin(turn), down))
    return _seen(ring, dot.colour, camera, size)


def _seen(
    ring: Array, colour: Colour, camera: Camera, size: tuple[int, int]
) -> list[tuple[Array, Colour]]:
    """A ring as it falls in the picture, cut off at its edges; nothing where it lies beside or behind."""
    before = _in_view((ring - camera.place) @ camera.rotation.T, camera, size)
    if len(before) < 3:  # noqa: PLR2004
        return []
    share = np.linspace(0, 1, _PIECES, endpoint=False)[:, None]
    after = np.roll(before, -1, axis=0)
    fine = np.vstack([a + (b - a) * share for a, b in zip(before, after, strict=True)])
    pixels = camera.project(fine @ camera.rotation + camera.place, size)
    return [(pixels, colour)] if np.isfinite(pixels).all() else []


def _in_view(seen: Array, camera: Camera, size: tuple[int, int]) -> Array:
    """A ring in camera axes, cut by five planes: close before the lens, and a little outside each edge of the picture.

    I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping" (1974).  Farther out the lens's figures mean nothing.
    """
    wide, high = (_OUTSIDE * one / 2 / camera.focal for one in size)
    planes = ((0, 0, 1), (-1, 0, wide), (1, 0, wide), (0, -1, high), (0, 1, high))
    for number, plane in enumerate(planes):
        inside = seen @ np.array(plane, dtype=float) - (_NEAR if number == 0 else 0.0)
        kept = []
        for i in range(len(seen)):
            j = (i + 1) % len(seen)
            if inside[i] > 0:
                kept.append(seen[i])
            if (inside[i] > 0) != (inside[j] > 0):
                kept.append(seen[i] + (seen[j] - seen[i]) * inside[i] / (inside[i] - inside[j]))
        seen = np.array(kept).reshape(-1, 3)
    return seen
