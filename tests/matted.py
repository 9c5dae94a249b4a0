"""A cut piece photographed on its mat, by looking ray by ray: the second way of getting what a check must say.

Nothing here is of the house but a camera's own formula: the wood is a stack of thin slices, each pixel goes down it until
it meets wood or the paper; light from one side throws a shadow, and another lies over half the mat.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import affinity

from hardkeel.sight.codes import bits_of

Array = NDArray[np.float64]
Single = NDArray[np.float32]
GRID_MM: Final = 0.04
_FILLED_MM: Final = 0.018
_SLICES: Final = 14
_MODULES: Final = 6
BALSA: Final = (0.70, 0.55, 0.36)
DARK_PLY: Final = (0.13, 0.075, 0.04)


@dataclass(frozen=True)
class Eye:
    """A camera over a mat: where it is (mm, z up from the paper), what it looks at, its focal length and lens."""

    place: tuple[float, float, float]
    at: tuple[float, float, float]
    focal: float
    k1: float = 0.0
    roll: float = 0.0
    size: tuple[int, int] = (4000, 3000)

    @property
    def axes(self) -> Array:
        """Rows: right, down, forward."""
        forward = np.array(self.at) - np.array(self.place)
        forward = forward / np.linalg.norm(forward)
        right = np.cross(forward, (0.0, 1.0, 0.0) if abs(forward[1]) < 0.9 else (1.0, 0.0, 0.0))
        right = right / np.linalg.norm(right)
        down = np.cross(forward, right)
        c, s = math.cos(self.roll), math.sin(self.roll)
        return np.array([c * right + s * down, c * down - s * right, forward])

    def ways(self, u: Array, v: Array) -> tuple[Array, Array]:
        """Where rays through pixels meet a plane a millimetre below, from the eye; their lens undone."""
        bent_x, bent_y = (u - self.size[0] / 2) / self.focal, (v - self.size[1] / 2) / self.focal
        x, y = bent_x, bent_y
        for _ in range(4):
            share = 1 / (1 + self.k1 * (x * x + y * y))
            x, y = bent_x * share, bent_y * share
        right, down, forward = self.axes.astype(np.float32)
        across, along, deep = (right[i] * x + down[i] * y + forward[i] for i in range(3))
        return across / -deep, along / -deep


def tilted(degrees: float, far: float, middle: tuple[float, float], **more: Any) -> Eye:
    """An eye so many degrees from straight down, so many mm away."""
    turn = math.radians(more.pop("bearing", 35.0))
    out = far * math.sin(math.radians(degrees))
    place = (
        middle[0] + out * math.cos(turn),
        middle[1] + out * math.sin(turn),
        far * math.cos(math.radians(degrees)),
    )
    return Eye(place, (*middle, 0.0), **more)


@dataclass(frozen=True)
class Lying:
    """A piece as it lies: its wood in its own axes, then turned over, turned by so many degrees, shifted."""

    wood: shapely.Polygon
    thickness: float
    turn: float = 0.0
    shift: tuple[float, float] = (0.0, 0.0)
    mirrored: bool = False
    colour: tuple[float, float, float] = BALSA

    @property
    def laid(self) -> shapely.Polygon:
        """Its wood on the mat."""
        shape = affinity.scale(self.wood, -1, 1, origin=(0, 0)) if self.mirrored else self.wood
        return affinity.translate(affinity.rotate(shape, self.turn, origin=(0, 0)), *self.shift)


def _mask(shape: shapely.Polygon, size: tuple[float, float]) -> Single:
    wide, tall = (math.ceil(one / GRID_MM) + 1 for one in size)
    # the filler takes every cell that the border touches: by so much the wood grew, by its area over its border
    shape = shape.buffer(-_FILLED_MM, join_style="mitre")
    rings = [shape.exterior, *shape.interiors]
    found = np.zeros((tall, wide), dtype=np.float32)
    corners = [np.round(np.array(one.coords) / GRID_MM * 16).astype(np.int32) for one in rings]
    cv2.fillPoly(found, corners, 1.0, shift=4)
    return found


def _at(mask: Single | Array, spots: Array, grid: float = GRID_MM) -> Single:
    """A picture on the mat's plane at places, between its cells; nothing outside of it."""
    cells = (spots / grid).astype(np.float32)
    found = cv2.remap(
        mask, cells[..., 0], cells[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT
    )
    return np.asarray(found, dtype=np.float32)


def _light(levels: Any) -> Array:
    share = np.asarray(levels, dtype=float) / 255
    return np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)


def paper_of(mat: Mapping[str, Any], inside: tuple[float, float, float, float]) -> Array:
    """The printed mat as reflectances on a grid, row 0 at its lower edge."""
    wide, tall = (math.ceil(one / GRID_MM * 0.5) + 1 for one in mat["size"])
    step = GRID_MM * 2
    found = np.full((tall, wide, 3), 0.85, dtype=np.float32)
    x0, y0, x1, y1 = (round(one / step) for one in inside)
    found[y0:y1, x0:x1] = _light(mat["ground"])
    for x, broad in mat.get("joints", ()):  # the white edges of two sheets that are butted there
        found[:, round((x - broad / 2) / step) : round((x + broad / 2) / step) + 1] = 0.85
    for one in mat["codes"]:
        corners = np.array(one["corners"])
        origin, across, down = corners[0], corners[1] - corners[0], corners[3] - corners[0]
        bits = bits_of(one["code"])
        low, high = corners.min(axis=0) / step, corners.max(axis=0) / step
        xs = np.arange(math.floor(low[0]), math.ceil(high[0]) + 1)
        ys = np.arange(math.floor(low[1]), math.ceil(high[1]) + 1)
        grid = np.stack(np.meshgrid(xs, ys), axis=-1) * step - origin
        own = np.stack([grid @ across, grid @ down], axis=-1) / (across @ across) * _MODULES
        cell = np.floor(own).astype(int)
        there = ((cell >= 0) & (cell < _MODULES)).all(axis=-1)
        black = np.zeros(there.shape, dtype=bool)
        black[there] = bits[cell[there][:, 1], cell[there][:, 0]]
        block = found[ys[0] : ys[-1] + 1, xs[0] : xs[-1] + 1]
        block[black] = 0.04
    return found


def photographed(  # noqa: PLR0913
    mat: Mapping[str, Any],
    inside: tuple[float, float, float, float],
    piece: Lying | None,
    eye: Eye,
    *,
    seed: int = 1,
    shadow: bool = True,
    cast: tuple[float, float, float] = (1.0, 1.0, 1.0),
    blur: float = 0.7,
) -> NDArray[np.uint8]:
    """The picture, shape (h, w, 3)."""
    rng = np.random.default_rng(seed)
    wide, high = eye.size
    paper = paper_of(mat, inside)
    mask = _mask(piece.laid, mat["size"]) if piece is not None else None
    grain = _grain(rng)
    found = np.zeros((high, wide, 3), dtype=np.float32)
    for top in range(0, high, 250):
        rows = min(250, high - top)
        u = np.arange(wide, dtype=np.float32) + 0.5
        v = np.arange(top, top + rows, dtype=np.float32) + 0.5
        ways = np.stack(eye.ways(*np.meshgrid(u, v)), axis=-1)
        found[top : top + rows] = _looked(ways, eye, (paper, mask, grain), piece, shadow=shadow)
    soft = cv2.GaussianBlur(found * np.array(cast, dtype=np.float32), (0, 0), blur)
    light = np.linspace(0, 1.2, 1 << 14)
    level = np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055) * 255
    grey = level.astype(np.float32)[
        np.clip(soft / 1.2 * len(light), 0, len(light) - 1).astype(np.int16)
    ]
    noisy = grey + 1.6 * rng.standard_normal(grey.shape, dtype=np.float32)
    found8: NDArray[np.uint8] = np.clip(np.round(noisy), 0, 255).astype(np.uint8)
    return found8


def _grain(rng: np.random.Generator) -> Array:
    lines = cv2.GaussianBlur(rng.standard_normal((400, 2000), dtype=np.float32), (0, 0), 1.5)
    return np.asarray(1 + 0.12 * lines / lines.std())


def _looked(
    ways: Array,
    eye: Eye,
    made: tuple[Array, Single | None, Array],
    piece: Lying | None,
    *,
    shadow: bool,
) -> Array:
    paper, mask, grain = made
    place = np.array(eye.place, dtype=np.float32)

    def hit(z: float) -> Array:
        spots: Array = place[:2] + ways * np.float32(place[2] - z)
        return spots

    ground = hit(0.0)
    step = GRID_MM * 2
    light: Any = _at(paper, ground, step)
    tall, wide = (one * step for one in paper.shape[:2])
    x, y = ground[..., 0], ground[..., 1]
    off = (x < 0) | (y < 0) | (x > wide) | (y > tall)
    light[off] = (0.25, 0.17, 0.1)  # the bench
    if piece is None or mask is None:
        return _shaded(light, ground) if shadow else np.asarray(light)
    # only where the wood or its shadow can be
    x0, y0, x1, y1 = piece.laid.bounds
    room = 3 * piece.thickness + 4
    near = (x > x0 - room) & (y > y0 - room) & (x < x1 + room) & (y < y1 + room)
    rows, columns = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    if len(rows) and len(columns):
        block = np.s_[rows[0] : rows[-1] + 1, columns[0] : columns[-1] + 1]
        part = light[block]
        if shadow:  # a lamp 50 degrees up, from one side
            lit: Any = np.ones(part.shape[:2], dtype=np.float32)
            for z in np.linspace(0.15, piece.thickness, 5):
                here = _at(mask, ground[block] + np.array([0.7, 0.45]) * z)
                lit = np.minimum(lit, 1 - 0.55 * here)
            part = part * lit[..., None]
        top: Any
        seen: Any
        tone: Any
        top, seen, tone = (np.zeros(part.shape[:2]) for _ in range(3))
        ways = ways[block]
        for z in np.linspace(piece.thickness, 0.0, _SLICES):
            spots = hit(float(z))
            here = _at(mask, spots)
            if z == piece.thickness:
                top = here
                tone = _at(grain, np.mod(spots * (0.8, 6.0), (1900, 390)), 1.0)
            seen = np.maximum(seen, here)
        colour = np.array(piece.colour)
        light[block] = (
            (top * tone)[..., None] * colour
            + 0.6 * (seen - top)[..., None] * colour
            + (1 - seen)[..., None] * part
        )
    return _shaded(light, ground) if shadow else np.asarray(light)


def _shaded(light: Any, ground: Any) -> Array:
    """A head's shadow over a corner of it, soft, a little bluer."""
    across = 0.8 * ground[..., 0] + 0.6 * ground[..., 1]
    dark = 1 - 0.55 / (1 + np.exp(np.clip(-(across - 190) / 6, -30, 30)))
    found: Array = light * dark[..., None] * np.array([1.0, 1.0, 1.04], dtype=np.float32)
    return found


def faulted(
    wood: shapely.Polygon, by: float, within: tuple[float, float, float, float]
) -> shapely.Polygon:
    """The wood with its edges moved out by so much within a box, mm."""
    box = shapely.box(*within)
    moved = wood.buffer(by, join_style="mitre", mitre_limit=5.0)
    return wood.difference(box).union(moved.intersection(box))


def lying_at(
    wood: shapely.Polygon, thickness: float, at: tuple[float, float], **more: Any
) -> Lying:
    """The wood turned as wanted with the middle of its box at a place of the mat."""
    plain = Lying(wood, thickness, **more)
    x0, y0, x1, y1 = plain.laid.bounds
    return Lying(wood, thickness, shift=(at[0] - (x0 + x1) / 2, at[1] - (y0 + y1) / 2), **more)
