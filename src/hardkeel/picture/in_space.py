"""The airframe in space: its wood as faces, turned to an eye and put in order from back to front.

Airframe axes, mm.  The eye stands at infinity: *round* degrees from port towards the nose, *up* degrees over the keel
line.  A view's own axes are u to the right and v down.  Formers part a fuselage into bays, and what runs through is cut
at them: seen from anywhere one bay lies wholly behind the next, and in a bay the far side behind the near one.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Final, Literal

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.picture.wood import Tone

Layer = Literal["frame", "skin", "surface"]
Numbers = np.ndarray[tuple[int], np.dtype[np.intp]]
_LEVEL: Final = 1e-9
_LEAST_RIM_MM: Final = 0.6  # a rim's corners that lie closer to a line are left out of the picture


@dataclass(frozen=True, slots=True)
class Eye:
    """Where the airframe is looked at from, degrees."""

    round: float = 30.0
    up: float = 20.0

    @property
    def axes(self) -> tuple[Array, Array, Array]:
        """To the right, up on the paper, and towards the eye; each of length 1."""
        a, b = math.radians(self.round), math.radians(self.up)
        toward = np.array((-math.sin(a) * math.cos(b), -math.cos(a) * math.cos(b), math.sin(b)))
        right = np.array((math.cos(a), -math.sin(a), 0.0))
        return right, np.cross(toward, right), toward


@dataclass(frozen=True, slots=True)
class Face:
    """A flat face.

    Attributes
    ----------
    rings : tuple of Array
        Outline and holes, each shape (k, 3).
    out : Array
        Shape (3,), which way it looks; a thin one, which is seen from both sides, has none.
    bay : int
        Twice the number of the former behind which it lies, one more within the bay.
    hand : int
        −1 to port of the middle, 1 to starboard, 0 on it.
    grain : (3,) Array or None
        Which way the wood runs; ``None`` for end grain.
    """

    ref: str
    rings: tuple[Array, ...]
    out: Array | None
    bay: int
    hand: int = 0
    tone: Tone = "soft"
    grain: Array | None = None
    layer: Layer = "frame"


@dataclass(frozen=True, slots=True)
class Drawn:
    """A face as it is seen, in the order of painting."""

    ref: str
    rings: tuple[Array, ...]
    tone: Tone
    grain: float | None
    layer: Layer
    shade: float


@dataclass(slots=True)
class Space:
    """Faces, ready to be turned."""

    faces: list[Face] = field(default_factory=list)
    lines: list[tuple[str, Array]] = field(default_factory=list)
    _packed: "_Packed | None" = None

    @property
    def packed(self) -> "_Packed":
        """All of it in a few arrays."""
        if self._packed is None:
            self._packed = _Packed(self.faces)
        return self._packed

    def seen_from(self, eye: Eye, layers: frozenset[Layer], *, open_: bool) -> list[Drawn]:
        """The faces that look to the eye, from back to front.

        Parameters
        ----------
        layers : frozenset of Layer
        open_ : bool
            Of a skin only the inside of its far half is shown.
        """
        if not self.packed.count:
            return []
        flat, order, shades = self.turned_to(eye, layers, open_=open_)
        grains = self.packed.grain_angles(*eye.axes)
        faces, spans = self.faces, self.packed.spans
        return [
            Drawn(
                faces[i].ref,
                tuple(flat[a:b] for a, b in spans[i]),
                faces[i].tone,
                None if np.isnan(grains[i]) else float(grains[i]),
                faces[i].layer,
                float(shades[i]),
            )
            for i in order.tolist()
        ]

    def turned_to(
        self, eye: Eye, layers: frozenset[Layer], *, open_: bool
    ) -> tuple[Array, Numbers, Array]:
        """The same in arrays: all points in the view, shape (P, 2); the faces that are seen, in order; every face's shade."""
        right, up, toward = eye.axes
        packed = self.packed
        flat = packed.points @ np.column_stack([right, -up])
        facing = packed.outs @ toward
        shown = packed.thin | (facing > _LEVEL)
        if open_:
            shown = np.where(packed.skins, facing < -_LEVEL, shown)
        shown &= np.isin(packed.layers, [_LAYERS[one] for one in layers])
        order = packed.order(toward, skin_first=open_)
        return flat, order[shown[order]], np.where(packed.thin, 1.0, np.abs(facing))

    def flat_lines(self, eye: Eye) -> list[tuple[str, Array]]:
        """Lines as they are seen, each shape (k, 2)."""
        right, up, _ = eye.axes
        across = np.column_stack([right, -up])
        return [(ref, points @ across) for ref, points in self.lines]

    def middle_of(self, ref: str) -> Array | None:
        """The middle of what bears a name, shape (3,); ``None`` where nothing does."""
        points = [ring for face in self.faces if face.ref == ref for ring in face.rings]
        if not points:
            return None
        whole = np.vstack(points)
        return np.asarray((whole.min(axis=0) + whole.max(axis=0)) / 2)

    def turned(self, moved: "Moves") -> "Space":
        """The same with every point where something moves it."""
        return Space(
            [
                Face(
                    face.ref,
                    tuple(moved(ring) for ring in face.rings),
                    face.out,
                    face.bay,
                    face.hand,
                    face.tone,
                    face.grain,
                    face.layer,
                )
                for face in self.faces
            ],
            list(self.lines),
        )


class Moves:
    """Moves points: each former as its corners go, and between two formers in proportion.

    Parameters
    ----------
    stations : Array
        Shape (n,), mm.
    boxes : Array
        Shape (n, 3): half-width, bottom and top of each.
    corners : Array
        Shape (n, 4, 3), by how much the corners move: bottom port, bottom starboard, top starboard, top port.
    """

    def __init__(self, stations: Array, boxes: Array, corners: Array) -> None:
        self._x, self._boxes, self._corners = stations, boxes, corners

    def __call__(self, points: Array) -> Array:
        """Points where they stand then, shape of `points`."""
        x = np.clip(points[:, 0], self._x[0], self._x[-1])
        i = np.clip(np.searchsorted(self._x, x, side="right") - 1, 0, max(len(self._x) - 2, 0))
        j = np.minimum(i + 1, len(self._x) - 1)
        gap = np.maximum(self._x[j] - self._x[i], _LEVEL)
        share = np.where(j > i, (x - self._x[i]) / gap, 0.0)[:, None]
        return np.asarray(points + (1 - share) * self._at(points, i) + share * self._at(points, j))

    def _at(self, points: Array, i: Numbers) -> Array:
        half, low, high = self._boxes[i].T
        across = np.clip((points[:, 1] / np.maximum(half, _LEVEL) + 1) / 2, 0.0, 1.0)[:, None]
        tall = np.clip((points[:, 2] - low) / np.maximum(high - low, _LEVEL), 0.0, 1.0)[:, None]
        bp, bs, ts, tp = (self._corners[i, k] for k in range(4))
        return np.asarray(
            (1 - tall) * ((1 - across) * bp + across * bs)
            + tall * ((1 - across) * tp + across * ts)
        )


class _Packed:
    """All faces' points in one array, what they are in a few more."""

    def __init__(self, faces: Sequence[Face]) -> None:
        self.count = len(faces)
        self.spans: list[list[tuple[int, int]]] = []
        rings: list[Array] = []
        at = 0
        for face in faces:
            spans = []
            for ring in face.rings:
                spans.append((at, at + len(ring)))
                rings.append(ring)
                at += len(ring)
            self.spans.append(spans)
        self.points = np.vstack(rings) if rings else np.zeros((0, 3))
        frame = [ring for face in faces if face.layer != "surface" for ring in face.rings]
        self.framed = np.vstack(frame) if frame else self.points
        self.keel = self.framed.mean(axis=0) if len(self.framed) else np.zeros(3)
        self.middles = np.array([face.rings[0].mean(axis=0) for face in faces]).reshape(-1, 3)
        nothing = np.zeros(3)
        self.outs = np.array(
            [face.out if face.out is not None else nothing for face in faces]
        ).reshape(-1, 3)
        self.thin = np.array([face.out is None for face in faces], dtype=bool)
        self.skins = np.array([face.layer == "skin" for face in faces], dtype=bool)
        self.layers = np.array([_LAYERS[face.layer] for face in faces], dtype=int)
        self.bays = np.array([face.bay for face in faces], dtype=float)
        self.hands = np.array([face.hand for face in faces], dtype=float)
        self.grains = np.array(
            [face.grain if face.grain is not None else nothing for face in faces]
        ).reshape(-1, 3)

    def order(self, toward: Array, *, skin_first: bool) -> Numbers:
        """All faces from back to front: bay by bay, the far hand before the near one, then by depth.

        A skin seen from outside covers what is in its bay; the inside of its far half lies behind all of that.
        """
        ahead = np.sign(toward[0]) if abs(toward[0]) > _LEVEL else 0.0
        beside = np.sign(toward[1]) if abs(toward[1]) > _LEVEL else 0.0
        over = self.skins * (-1.0 if skin_first else 1.0)
        # in a bay what runs along it is told apart by where it lies across
        depth = self.middles @ (toward * (_ALONG_COUNTS, 1.0, 1.0))
        # wings and tail lie wholly before the fuselage or behind it
        away = (self.middles - self.keel * (0.0, 1.0, 1.0)) @ (toward * (0.0, 1.0, 1.0))
        about = np.where(self.layers == _LAYERS["surface"], np.sign(away), 0.0)
        return np.lexsort((depth, self.hands * beside, over, self.bays * ahead, about))

    def grain_angles(self, right: Array, up: Array, toward: Array) -> Array:
        """How the grain is seen to run, degrees from u towards v; none where it is looked at end on."""
        angles = np.degrees(np.arctan2(-(self.grains @ up), self.grains @ right))
        end_on = np.abs(self.grains @ toward) > _END_ON
        bare = np.all(self.grains == 0.0, axis=1)
        return np.where(end_on | bare, np.nan, angles)


_END_ON: Final = 0.97
_ALONG_COUNTS: Final = 0.05
_LAYERS: Final[dict[Layer, int]] = {"frame": 0, "skin": 1, "surface": 2}


def prism(
    ref: str,
    ring: Array,
    holes: Iterable[Array],
    thick: tuple[float, float],
    axis: int,
    bay: int,
    **more: object,
) -> Iterator[Face]:
    """A flat piece between two planes square to an axis: its two faces, its rims.

    Parameters
    ----------
    ring : Array
        Shape (k, 2), in the other two axes in their order; `holes` likewise.
    thick : (float, float)
        Where the planes lie on the axis, mm.
    axis : int
        0 for a former, 1 for a keel, 2 for a plate.
    """
    rings = [_wound(ring, left=True), *(_wound(hole, left=False) for hole in holes)]
    ends = [tuple(_lifted(one, place, axis) for one in rings) for place in thick]
    for end, way in zip(ends, (-1.0, 1.0), strict=True):
        out = np.zeros(3)
        out[axis] = way
        yield Face(ref, end, out, bay, **more)  # type: ignore[arg-type]
    for one in rings:
        few = _few(one)
        run = np.roll(few, -1, axis=0) - few
        for a, b, step in zip(few, np.roll(few, -1, axis=0), run, strict=True):
            size = float(np.hypot(*step))
            if size < _LEVEL:
                continue
            out = np.insert(np.array((step[1], -step[0])) / size, axis, 0.0)
            corners = [
                np.insert(point, axis, place)
                for point, place in ((a, thick[0]), (b, thick[0]), (b, thick[1]), (a, thick[1]))
            ]
            yield Face(ref, (np.array(corners),), out, bay, **more)  # type: ignore[arg-type]


def bar(ref: str, corners: Array, bays: Sequence[int], **more: object) -> Iterator[Face]:
    """A stick that runs through: four corners at each of its places, cut between any two.

    Parameters
    ----------
    corners : Array
        Shape (m, 4, 3), round about the stick.
    bays : sequence of int
        Which bay each stretch between two places lies in.
    """
    for (one, other), bay in zip(pairwise(corners), bays, strict=True):
        middle = (one.mean(axis=0) + other.mean(axis=0)) / 2
        along = other.mean(axis=0) - one.mean(axis=0)
        along /= max(float(np.linalg.norm(along)), _LEVEL)
        for k in range(4):
            quad = np.array([one[k], one[(k + 1) % 4], other[(k + 1) % 4], other[k]])
            yield facing_out(ref, quad, middle, bay, grain=along, **more)
    for end, at, bay in ((corners[0], corners[1], bays[0]), (corners[-1], corners[-2], bays[-1])):
        yield facing_out(ref, end, at.mean(axis=0), bay, grain=None, **more)


def facing_out(ref: str, ring: Array, inside: Array, bay: int, **more: object) -> Face:
    """A face that looks away from a point inside."""
    # summed over the whole ring: a side may have shrunk to a point
    out = np.cross(ring, np.roll(ring, -1, axis=0)).sum(axis=0)
    out /= max(float(np.linalg.norm(out)), _LEVEL)
    if float(out @ (ring.mean(axis=0) - inside)) < 0:
        out = -out
    return Face(ref, (ring,), out, bay, **more)  # type: ignore[arg-type]


def _lifted(ring: Array, place: float, axis: int) -> Array:
    return np.insert(ring, axis, place, axis=1)


def _wound(ring: Array, *, left: bool) -> Array:
    """A ring that turns left, or right."""
    y, z = ring.T
    turns_left = float(np.sum(y * np.roll(z, -1) - z * np.roll(y, -1))) > 0
    return ring if turns_left == left else ring[::-1]


def _few(ring: Array) -> Array:
    """A ring's corners without those that hardly bend it."""
    kept = [0]
    for i in range(1, len(ring)):
        start, end = ring[kept[-1]], ring[(i + 1) % len(ring)]
        run = end - start
        size = max(float(np.hypot(*run)), _LEVEL)
        between = ring[kept[-1] + 1 : i + 1] - start
        off = np.abs(run[0] * between[:, 1] - run[1] * between[:, 0]) / size
        if off.max(initial=0.0) > _LEAST_RIM_MM:
            kept.append(i)
    return np.asarray(ring[kept])
