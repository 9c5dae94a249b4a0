"""What a former is cut to: skins off, longerons notched in, holes out; and against its template.

Plane of the former: (y, z), airframe axes, mm.  Polygons by shapely.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.fuselage.model import CutOut, Former, Fuselage, Template
from hardkeel.geometry.polygons import BaseGeometry, Polygon, affinity, shapely

Ring = tuple[Point2, ...]
_CORNER_STEPS: Final = 10
_CIRCLE_STEPS: Final = 16  # a quarter circle of 20 mm is then true to 0.03 mm
_RIM_MM: Final = 6.0  # wood left around a lightening hole
_SMALLEST_HOLE_MM: Final = 6.0  # radius; smaller ones are not worth drilling
_MOST_HOLES: Final = 6
_IN_WOOD: Final = 0.6  # share of a longeron's notch that must lie in the wood
_DEEPEST_MM: Final = 30.0
_WAYS_ROUND: Final = 24
_SUNK_TO_MM: Final = 0.25
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
    """

    outside: Ring
    wood: tuple[Ring, ...]
    area: float
    lightening: tuple[tuple[float, float, float], ...]
    cautions: tuple[str, ...]


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
    outside = _outside(former)
    inner = _inside(fuselage, former, outside)
    wood = inner.difference(shapely.union_all(_notches(fuselage, inner)))
    holes = [_hole(former, cut) for cut in former.cutouts]
    cautions = [
        cut.id
        for cut, hole in zip(former.cutouts, holes, strict=True)
        if not rough and cut.kind != "hatch" and not wood.buffer(-_THIN_MM).contains(hole)
    ]
    wood = wood.difference(shapely.union_all(holes))
    circles = _lightening(wood) if former.lightened and not rough else []
    wood = wood.difference(
        shapely.union_all([shapely.Point(y, z).buffer(r, _CIRCLE_STEPS) for y, z, r in circles])
    )
    if isinstance(wood, shapely.MultiPolygon):
        cautions.append("split")
    return FormerShape(
        outside=_ring(outside.exterior.coords),
        wood=_rings(wood),
        area=float(wood.area),
        lightening=tuple(circles),
        cautions=tuple(cautions),
    )


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
        outline=tuple((round(y - middle, 3), round(z, 3)) for y, z in _ring(shape.exterior.coords)),
    )


def _outside(former: Former) -> Polygon:
    if former.outline:
        own = shapely.Polygon(former.outline)
        if not own.is_valid or own.area <= 0:
            raise BadInput(f"{former.id}.outline", "crosses itself")
        # its figures may have been changed since: the outline is stretched to them
        left, low, right, high = own.bounds
        wide = 2 * former.half_width / (right - left)
        tall = (former.top - former.bottom) / (high - low)
        stretched = affinity.scale(own, wide, tall, origin=(left, low))
        return affinity.translate(stretched, -former.half_width - left, former.bottom - low)
    half, low, high = max(former.half_width, 0.05), former.bottom, former.top
    radius = min(former.corner, half * 0.999, (high - low) / 2 * 0.999)
    if radius <= 0:
        return shapely.box(-half, low, half, high)
    core = shapely.box(-half + radius, low + radius, half - radius, high - radius)
    return core.buffer(radius, quad_segs=_CORNER_STEPS)


def _inside(fuselage: Fuselage, former: Former, outside: Polygon) -> BaseGeometry:
    """The section less side, top and bottom skins."""
    side = fuselage.side_thickness
    half = max(former.half_width - side, 0.0)
    low, high = former.bottom + fuselage.bottom_skin, former.top - fuselage.top_skin
    if half <= 0 or high <= low:
        return shapely.Polygon()
    shrunk: BaseGeometry = outside
    if former.corner or former.outline:
        shrunk = _without_skins(outside, side, fuselage.top_skin, fuselage.bottom_skin)
    return shrunk.intersection(shapely.box(-half, low, half, high))


def _without_skins(outside: Polygon, side: float, top: float, bottom: float) -> BaseGeometry:
    """A round section less its skins, each as thick as its side wants and blending round the corners.

    The wood may be where every point within the skin around it is still inside: the section moved by
    each way round an ellipse of the skins' thickness, and what all of these have in common.
    """
    left = outside
    for i in range(_WAYS_ROUND):
        angle = 2 * math.pi * i / _WAYS_ROUND
        up = math.sin(angle)
        moved = affinity.translate(
            outside, side * math.cos(angle), up * (bottom if up > 0 else top)
        )
        left = left.intersection(moved)
    return left


def _notches(fuselage: Fuselage, inner: BaseGeometry) -> list[BaseGeometry]:
    """Corners taken out for the longerons; on a round section they sink in where they touch it."""
    if inner.is_empty:
        return []
    notches: list[BaseGeometry] = []
    left, low, right, high = inner.bounds
    for longeron in fuselage.longerons:
        across, deep = longeron.section
        upper = not longeron.is_lower
        z = high - deep if upper else low
        starboard = _sunk(inner, shapely.box(right - across, z, right, z + deep), 1, upper=upper)
        port = affinity.scale(starboard, -1.0, 1.0, origin=((left + right) / 2, 0.0))
        if inner.intersection(port).area < _IN_WOOD * across * deep:  # not alike on both sides
            port = _sunk(inner, shapely.box(left, z, left + across, z + deep), -1, upper=upper)
        notches += [starboard, port]
    return notches


def _sunk(inner: BaseGeometry, square: Polygon, outward: int, *, upper: bool) -> BaseGeometry:
    """Move a notch along the diagonal until it lies in the wood of a round corner."""
    left, bottom, right, top = square.bounds

    def sunk_by(mm: float) -> BaseGeometry:
        y, z = -outward * mm, -mm if upper else mm
        return shapely.box(left + y, bottom + z, right + y, top + z)

    def held(place: BaseGeometry) -> bool:
        return bool(inner.intersection(place).area > _IN_WOOD * square.area)

    if held(square):
        return square
    low, high = 0.0, right - left + _DEEPEST_MM
    while high - low > _SUNK_TO_MM:  # deeper is always more in the wood: halve
        middle = (low + high) / 2
        low, high = (low, middle) if held(sunk_by(middle)) else (middle, high)
    found = sunk_by(high)
    return found if held(found) else square


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


def _rings(shape: BaseGeometry) -> tuple[Ring, ...]:
    parts = list(shape.geoms) if isinstance(shape, shapely.MultiPolygon) else [shape]
    rings: list[Ring] = []
    for part in parts:
        if isinstance(part, shapely.Polygon) and not part.is_empty:
            rings.append(_ring(part.exterior.coords))
            rings += [_ring(hole.coords) for hole in part.interiors]
    return tuple(rings)


def _ring(coords: object) -> Ring:
    points = [(round(float(y), 4), round(float(z), 4)) for y, z, *_ in coords]  # type: ignore[attr-defined]
    return tuple(points[:-1] if points[0] == points[-1] else points)
