"""Edges, tubes and blocks of a surface as they are seen from above."""

from collections.abc import Iterator

from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.tail.kinds.kind import Drawn
from hardkeel.tail.model import TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x, tube_x


def edges_above(surface: TailSurface, end: float, material: str | None) -> Iterator[Drawn]:
    """Edge stock and hinge faces from the middle out to `end`."""
    planform = planform_of(surface)
    whole = shapely.Polygon(planform.ring).intersection(shapely.box(-1e4, 0.0, 1e4, end))
    for words, stock, line in (
        ("leading edge", surface.leading_edge, planform.leading),
        ("trailing edge", surface.trailing_edge, planform.trailing),
    ):
        if stock is None:
            continue
        ys = sorted({0.0, *(float(y) for y in planform.ys if y < end), end})
        band = shapely.LineString([(float(line(y)), y) for y in ys]).buffer(
            stock[0], cap_style="flat", join_style="mitre"
        )
        yield from pieces_above(f"{surface.id} {words}", whole.intersection(band), 0.0, material)
    if surface.hinge_at_chord is not None and surface.hinge_edge is not None:
        gap = surface.controls.gap / 2 if surface.controls is not None else 0.0
        ends = [(hinge_x(surface, y) or 0.0, y) for y in (0.0, end)]
        for words, way in (("fixed hinge edge", -1), ("moving hinge edge", 1)):
            a, b = sorted((way * gap, way * (gap + surface.hinge_edge)))
            band = shapely.Polygon(
                [
                    (ends[0][0] + a, 0.0),
                    (ends[1][0] + a, end),
                    (ends[1][0] + b, end),
                    (ends[0][0] + b, 0.0),
                ]
            )
            yield from pieces_above(
                f"{surface.id} {words}", whole.intersection(band), 0.0, material
            )


def tubes_above(surface: TailSurface) -> Iterator[Drawn]:
    """Joiners and tube spars, from the middle out."""
    for tube in surface.tubes:
        far = min(tube.length / 2, surface.half)
        a = b = tube_x(surface, tube)
        r = tube.diameter / 2
        yield Drawn(
            f"{surface.id} {tube.id}",
            ((0.0, a - r), (far, b - r), (far, b + r), (0.0, a + r)),
            material="metal",
        )


def pieces_above(
    ref: str, shape: BaseGeometry, grain: float, material: str | None
) -> Iterator[Drawn]:
    """Every piece of a shape that is large enough to be seen."""
    for part in shapely.get_parts(shape):
        if part.geom_type == "Polygon" and part.area > 1:
            ring = tuple((float(y), float(x)) for x, y in part.exterior.coords[:-1])
            yield Drawn(ref, ring, material, grain)
