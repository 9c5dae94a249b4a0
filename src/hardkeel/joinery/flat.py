"""A flat piece as it is cut from sheet: its outline, its holes, and the lines drawn on it.

Plane of a piece: (u, v), mm, u along the piece, v up as it is drawn; a former's is (y, z).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely

Ring = tuple[Point2, ...]
Grain = Literal["u", "v", "any"]
MarkRole = Literal["station", "centre", "member", "seat", "drawn", "plank", "bend"]
_GRAIN_MM: Final = 1e-4
_CRUMB_MM2: Final = 1.0
_STRAIGHT_MM: Final = 0.005  # points of a curve that lie this near to a straight line are left out


@dataclass(frozen=True, slots=True)
class Mark:
    """A line drawn on a piece, with its name."""

    role: MarkRole
    points: Ring
    text: str = ""
    closed: bool = False

    @property
    def line(self) -> Ring:
        """Its points, the first again at the end where it is closed."""
        return (*self.points, self.points[0]) if self.closed else self.points


@dataclass(frozen=True, slots=True)
class FlatPiece:
    """A piece to cut.

    Attributes
    ----------
    part : str
        Id of the part that it belongs to: a former's, a side's, a member's.
    quantity : int
        How many alike; of a `pair` half of them are turned over.
    pair : bool
        One of each hand: the second is this one's mirror image.
    outline : ring of (u, v)
        Closed without its first point again; `holes` likewise.
    grain : str
        Which way the grain runs: along ``u``, along ``v``, or ``any``.
    """

    name: str
    kind: str
    part: str
    outline: Ring
    holes: tuple[Ring, ...] = ()
    marks: tuple[Mark, ...] = ()
    thickness: float = 0.0
    material: str | None = None
    quantity: int = 1
    pair: bool = False
    grain: Grain = "any"

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Least u and v, greatest u and v, mm."""
        us, vs = [p[0] for p in self.outline], [p[1] for p in self.outline]
        return min(us), min(vs), max(us), max(vs)

    @property
    def size(self) -> tuple[float, float]:
        """Along u and along v, mm."""
        left, low, right, high = self.bounds
        return right - left, high - low

    @property
    def polygon(self) -> BaseGeometry:
        """The wood, as a shapely polygon."""
        if not self.outline:
            return shapely.Polygon()
        rim = shapely.linearrings(np.array(self.outline))
        holes = [shapely.linearrings(np.array(hole)) for hole in self.holes]
        return shapely.polygons(rim, holes=holes or None)

    @property
    def area(self) -> float:
        """mm² of wood."""
        return float(self.polygon.area)

    def mirrored(self) -> "FlatPiece":
        """For the other side: turned over about its own upright middle."""
        left, _, right, _ = self.bounds
        about = left + right

        def over(ring: Ring) -> Ring:
            return tuple((about - u, v) for u, v in reversed(ring))

        return replace(
            self,
            outline=over(self.outline),
            holes=tuple(over(hole) for hole in self.holes),
            marks=tuple(
                replace(mark, points=tuple((about - u, v) for u, v in mark.points))
                for mark in self.marks
            ),
        )


def sound(shape: BaseGeometry) -> BaseGeometry:
    """The largest polygon of a shape, its points to a tenth of a micrometre; empty where there is none.

    A line of the loft can swing so far between two stations that an outline crosses itself; what is left
    of it that can be cut is taken.
    """
    whole = shape if shape.is_valid else shape.buffer(0)
    parts = [
        one
        for one in shapely.get_parts(shapely.set_precision(whole, _GRAIN_MM))
        if one.geom_type == "Polygon" and one.area > _CRUMB_MM2
    ]
    return max(parts, key=lambda one: one.area) if parts else shapely.Polygon()


def ring_of(points: Sequence[Point2]) -> Ring:
    """A ring without needless points on straight stretches; empty where it encloses nothing."""
    kept = sound(shapely.Polygon(points)).simplify(_STRAIGHT_MM)
    return () if kept.is_empty else open_ring(kept.exterior.coords)


def open_ring(coords: object) -> Ring:
    """Points of a closed shapely ring, the last one off."""
    points = [(u, v) for u, v in np.asarray(coords)[:, :2].tolist()]
    return tuple(points[:-1] if points[0] == points[-1] else points)


def with_shape(piece: FlatPiece, shape: BaseGeometry) -> FlatPiece:
    """The piece with another outline and holes; without any where the shape encloses nothing."""
    kept = sound(shape)
    if kept.is_empty:
        return replace(piece, outline=(), holes=())
    return replace(
        piece,
        outline=open_ring(kept.exterior.coords),
        holes=tuple(open_ring(hole.coords) for hole in kept.interiors),
    )


def cut_from(piece: FlatPiece, taken: Sequence[BaseGeometry]) -> FlatPiece:
    """A piece with shapes taken out; where that parts it, the largest of what is left."""
    if not piece.outline or not taken:
        return piece
    return with_shape(piece, piece.polygon.difference(shapely.union_all(list(taken))))
