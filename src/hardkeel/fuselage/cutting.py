"""What a former is cut to: skins off, members notched in, holes out; and against its template.

Plane of the former: (y, z), airframe axes, mm.  Polygons by shapely.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.fuselage.contours import contour_of, edges_of, has_deck
from hardkeel.fuselage.inside import wood_inside
from hardkeel.fuselage.model import CutOut, Former, Fuselage, Template
from hardkeel.fuselage.notching import Around, Passage, around_of, passages_of, tabs_of
from hardkeel.geometry.polygons import BaseGeometry, Polygon, affinity, shapely

Ring = tuple[Point2, ...]
_CIRCLE_STEPS: Final = 16  # a quarter circle of 20 mm is then true to 0.03 mm
_RIM_MM: Final = 6.0  # wood left around a lightening hole
_SMALLEST_HOLE_MM: Final = 6.0  # radius; smaller ones are not worth drilling
_MOST_HOLES: Final = 6
_CRUMB_MM2: Final = 1.0
_THIN_MM: Final = 3.0  # less wood than this beside a hole breaks when it is handled


@dataclass(frozen=True, slots=True)
class FormerShape:
    """A former as drawn and as cut.

    Attributes
    ----------
    outside : tuple of (y, z)
        The finished airframe's section.
    wood : tuple of rings
        What is cut, outer edge first, then holes; empty where nothing is left.
    area : float
        Of the wood, mm².
    lightening : tuple of (y, z, radius)
    cautions : tuple of str
        What would break or fall apart: ids of cut-outs, or ``split``.
    pieces : tuple of tuple of rings
        The same wood, each piece with its holes, from the lowest up, port before starboard.
    """

    outside: Ring
    wood: tuple[Ring, ...]
    area: float
    lightening: tuple[tuple[float, float, float], ...]
    cautions: tuple[str, ...]
    pieces: tuple[tuple[Ring, ...], ...] = ()


@dataclass(frozen=True, slots=True)
class Carved:
    """A former's wood on the way: its edge inside the skins, what is taken out, what is left.

    Attributes
    ----------
    stock : BaseGeometry
        The wood before anything is taken out; sticks where it is built of them.
    parts : int
        Pieces that it is meant to be in: a crutch parts it, and so does a cut on the centre line or under a deck.
    halves : int
        Of them by cuts that are still to be made.
    """

    outside: Polygon
    inner: BaseGeometry
    stock: BaseGeometry
    passages: tuple[Passage, ...]
    holes: tuple[tuple[CutOut, BaseGeometry], ...]
    wood: BaseGeometry
    parts: int
    halves: int = 1


@dataclass(frozen=True, slots=True)
class Misfit:
    """A template against the former that the loft wants, mm; positive where it stands proud."""

    side: float
    top: float
    bottom: float

    @property
    def worst(self) -> float:
        """The one that is furthest off, with its sign."""
        return max((self.side, self.top, self.bottom), key=abs)


def shape_of(fuselage: Fuselage, former: Former, *, rough: bool = False) -> FormerShape:
    """Cut a former out of its section.

    Parameters
    ----------
    rough : bool
        Leave out lightening holes and cautions, which are slow to find, while a hand drags.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    return cut_shape(former, around_of(fuselage, former), rough)


@lru_cache(maxsize=512)
def cut_shape(
    former: Former,
    around: Around,
    rough: bool = False,  # noqa: FBT001, FBT002  a key of what is kept
) -> FormerShape:
    """A former cut with what surrounds it.

    What only this former and what passes it decide, so that it is cut anew only when that is another.
    """
    carved = carve(former, around)
    wood = carved.wood
    cautions = [] if rough or not carved.holes else _breaking(carved)
    circles = _lightening(wood) if former.lightened and not rough else []
    wood = wood.difference(
        shapely.union_all([shapely.Point(y, z).buffer(r, _CIRCLE_STEPS) for y, z, r in circles])
    )
    if len(sizable(wood)) * carved.halves > carved.parts:
        cautions.append("split")
    pieces = _pieces(wood, former, around)
    return FormerShape(
        outside=_ring(carved.outside.exterior),
        wood=tuple(ring for piece in pieces for ring in piece),
        area=float(wood.area),
        lightening=tuple(circles),
        cautions=tuple(cautions),
        pieces=pieces,
    )


def _breaking(carved: Carved) -> list[str]:
    """Cut-outs beside which too little wood is left."""
    whole = carved.stock.difference(
        shapely.union_all([passage.shape for passage in carved.passages])
    )
    return [
        cut.id
        for cut, hole in carved.holes
        if cut.kind != "hatch" and not whole.buffer(-_THIN_MM).contains(hole)
    ]


@lru_cache(maxsize=256)  # it is cut, inspected and drawn
def carve(former: Former, around: Around) -> Carved:
    """A former's wood with what is taken out of it by name, without lightening holes.

    Raises
    ------
    BadInput
        When its own outline crosses itself.
    """
    outside = shapely.Polygon(contour_of(former))
    inner = wood_inside(former, around.skins)
    stock = inner
    if former.sticks is not None:
        stock = inner.difference(inner.buffer(-former.sticks[0], join_style="mitre"))
    passages = passages_of(around, inner)
    holes = tuple((cut, _hole(former, cut)) for cut in former.cutouts)
    taken = [*(passage.shape for passage in passages), *(hole for _, hole in holes)]
    wood = stock.difference(shapely.union_all(taken))
    wood = shapely.union_all([wood, *tabs_of(around.members, inner, around.skins[0])])
    parts = 1 + sum(passage.sort == "gap" for passage in passages)
    halves = (1 + around.halved) * (1 + _has_deck(former))
    return Carved(outside, inner, stock, tuple(passages), holes, wood, parts * halves, halves)


def misfit_of(former: Former, template: Template) -> Misfit:
    """How a template stands against what the loft wants."""
    return Misfit(
        side=template.half_width - former.half_width,
        top=template.top - former.top,
        bottom=former.bottom - template.bottom,
    )


def former_from_outline(former_id: str, station: float, ring: Sequence[Point2]) -> Former:
    """A former with its own outline, put upright on the centre line, mm.

    Raises
    ------
    BadInput
        When the outline encloses nothing.
    """
    shape = shapely.Polygon(ring) if len(ring) > 2 else shapely.Polygon()  # noqa: PLR2004  a triangle at least
    if not shape.is_valid or shape.area <= 0:
        raise BadInput("outline", "does not close around anything")
    left, low, right, high = shape.bounds
    middle = (left + right) / 2
    return Former(
        id=former_id,
        station=station,
        half_width=(right - left) / 2,
        bottom=low,
        top=high,
        outline=tuple((round(y - middle, 3), round(z, 3)) for y, z in _ring(shape.exterior)),
    )


def _hole(former: Former, cut: CutOut) -> BaseGeometry:
    half = cut.width / 2
    if cut.kind == "tank":
        return affinity.translate(
            affinity.scale(shapely.Point(0, 0).buffer(1.0, _CIRCLE_STEPS), half, cut.height / 2),
            cut.y,
            cut.z,
        )
    low, high = cut.z - cut.height / 2, cut.z + cut.height / 2
    if cut.kind == "hatch":
        return shapely.box(cut.y - half, low, cut.y + half, max(high, former.top + 1))
    return shapely.box(cut.y - half, low, cut.y + half, high)


def _lightening(wood: BaseGeometry) -> list[tuple[float, float, float]]:
    """Round holes, the largest that fits first, a rim of wood left around each."""
    circles: list[tuple[float, float, float]] = []
    left = wood.buffer(-_RIM_MM)
    while len(circles) < _MOST_HOLES and not left.is_empty:
        spoke = shapely.maximum_inscribed_circle(left, tolerance=0.2)
        (y, z), rim = spoke.coords[0], spoke.coords[-1]
        radius = math.floor(2 * math.dist((y, z), rim)) / 2  # to what a drill or cutter comes in
        if radius < _SMALLEST_HOLE_MM:
            break
        circles.append((round(y, 2), round(z, 2), radius))
        left = left.difference(shapely.Point(y, z).buffer(radius + _RIM_MM))
    return circles


def sizable(wood: BaseGeometry) -> list[Polygon]:
    """The pieces of a wood that are more than sawdust."""
    return [
        one
        for one in shapely.get_parts(wood)
        if one.geom_type == "Polygon" and one.area > _CRUMB_MM2
    ]


def _has_deck(former: Former) -> bool:
    return former.deck_apart and has_deck(former)


def _pieces(wood: BaseGeometry, former: Former, around: Around) -> tuple[tuple[Ring, ...], ...]:
    """Each piece of the wood, its outer edge first: cut on the centre line, and under a deck, where that is wanted."""
    parts = [wood]
    _, low, _, high = wood.bounds if not wood.is_empty else (0.0, 0.0, 0.0, 0.0)
    half = max(former.half_width, 1.0) + 1
    if _has_deck(former):
        edge = edges_of(former)[1]
        parts = [
            wood.intersection(shapely.box(-half, a, half, b))
            for a, b in ((low - 1, edge), (edge, high + 1))
        ]
    if around.halved:
        parts = [
            part.intersection(shapely.box(a, low - 1, b, high + 1))
            for part in parts
            for a, b in ((-half, 0.0), (0.0, half))
        ]
    found = [one for part in parts for one in sizable(part)]
    found.sort(key=lambda one: (round(one.bounds[1], 3), round(one.bounds[0], 3)))
    return tuple((_ring(one.exterior), *(_ring(hole) for hole in one.interiors)) for one in found)


def _ring(ring: BaseGeometry) -> Ring:
    points = [(y, z) for y, z in np.round(shapely.get_coordinates(ring), 4).tolist()]
    return tuple(points[:-1] if points[0] == points[-1] else points)
