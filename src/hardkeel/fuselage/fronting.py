"""What stands before the firewall and over the deck: a nose block or ring in layers, a canopy's line.

Frame: airframe axes, mm.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.contours import bare
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage, Member, SectionShape
from hardkeel.fuselage.standing import faces_of
from hardkeel.fuselage.surface import half_at
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic
from hardkeel.joinery.flat import FlatPiece, Mark, open_ring, with_shape

_SHARES: Final = np.linspace(0.0, 2.0, 193)
_LEAST_MM: Final = 0.5  # a last layer thinner than this is glue
_LANDS_MM: Final = 2.0  # an edge that lies this near to a former's face lands on it


@dataclass(frozen=True, slots=True)
class NoseLayer:
    """A layer of a nose block, between two planes.

    Attributes
    ----------
    wood : BaseGeometry
        What is sawn, plane (y, z): the larger of both faces, with its hole.
    front_face : BaseGeometry
        What it is carved down to at its front.
    """

    front: float
    rear: float
    wood: BaseGeometry
    front_face: BaseGeometry


def nose_layers(fuselage: Fuselage, member: Member) -> tuple[NoseLayer, ...]:
    """The layers of a block or ring before a former, from the front; none where there is no room for it.

    Its front is an oval of its width and height about its middle; between that and the former's contour it runs straight
    by equal parameter.  A wall in `inset` leaves it hollow.
    """
    former = fuselage.former(member.from_ or "")
    if former is None or member.station is None or not member.thickness:
        return ()
    return _layers(bare(former), faces_of(fuselage, former)[0], member)


@lru_cache(maxsize=32)
def _layers(former: Former, rear: float, member: Member) -> tuple[NoseLayer, ...]:
    front, thick = member.station or 0.0, member.thickness or 0.0
    if rear - front < _LEAST_MM:
        return ()
    there = half_at(former, _SHARES)
    oval = Former(
        id="front",
        station=front,
        half_width=(member.width or 2 * former.half_width) / 2,
        bottom=member.z - (member.height or former.top - former.bottom) / 2,
        top=member.z + (member.height or former.top - former.bottom) / 2,
        section=SectionShape(),
    )
    here = half_at(oval, _SHARES)
    count = max(1, math.ceil((rear - front - _LEAST_MM) / thick))
    places = [min(front + i * thick, rear) for i in range(count)] + [rear]

    def contour(x: float) -> BaseGeometry:
        share = (x - front) / (rear - front)
        return _closed((1 - share) * here + share * there)

    found = []
    for a, b in pairwise(places):
        ends = contour(a), contour(b)
        wood = shapely.union_all(ends)
        if member.inset:
            wood = wood.difference(shapely.intersection_all(ends).buffer(-member.inset))
        found.append(NoseLayer(a, b, wood, ends[0]))
    return tuple(found)


def nose_pieces(fuselage: Fuselage, member: Member) -> Iterator[FlatPiece]:
    """Each layer as it is sawn, with the line to which it is carved."""
    yield from _pieces(nose_layers(fuselage, member), member)


@lru_cache(maxsize=32)
def _pieces(layers: tuple[NoseLayer, ...], member: Member) -> tuple[FlatPiece, ...]:
    found = []
    for number, layer in enumerate(layers, start=1):
        line = open_ring(layer.front_face.exterior.coords)
        _, low, _, high = layer.wood.bounds
        piece = FlatPiece(
            name=f"{member.id} {number}" if len(layers) > 1 else member.id,
            kind="nose-block",
            part=member.id,
            outline=(),
            marks=(
                Mark("drawn", line, "carve to", closed=True),
                Mark("centre", ((0.0, low), (0.0, high))),
            ),
            thickness=layer.rear - layer.front,
            material=member.material,
            grain="v",
        )
        made = with_shape(piece, layer.wood)
        if made.outline:
            found.append(made)
    return tuple(found)


def canopy_ends(fuselage: Fuselage, member: Member) -> tuple[float, float]:
    """Stations of a canopy's front and rear edge."""
    first, last = fuselage.span(member)
    return first + member.inset, last - member.short


def canopy_line(fuselage: Fuselage, member: Member) -> NaturalCubic | None:
    """A canopy's line over the deck: from the deck up to its height at its station, and down to the deck again."""
    front, rear = canopy_ends(fuselage, member)
    middle = member.station if member.station is not None else (front + rear) / 2
    if not front < middle < rear:
        return None
    x = np.array([front, middle, rear])
    deck = np.asarray(loft_of(fuselage).top.value(x))
    return NaturalCubic(x, deck + np.array([0.0, member.height or 0.0, 0.0]))


def unlanded(fuselage: Fuselage, member: Member) -> tuple[tuple[str, float, str, float], ...]:
    """Edges of a canopy under which no former stands: which, where, the nearest former, how far it is."""
    found = []
    for name, x in zip(("front", "rear"), canopy_ends(fuselage, member), strict=True):
        gaps = [
            (max(faces_of(fuselage, one)[0] - x, x - faces_of(fuselage, one)[1], 0.0), one.id)
            for one in fuselage.formers
        ]
        gap, nearest = min(gaps, default=(0.0, ""))
        if gap > _LANDS_MM:
            found.append((name, x, nearest, gap))
    return tuple(found)


def _closed(half: Array) -> BaseGeometry:
    ring = shapely.Polygon(np.vstack([half, half[::-1] * (-1.0, 1.0)]))
    return ring if ring.is_valid else ring.buffer(0)
