"""A keel on edge along the bottom, half lapped with the formers."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen, both_sides
from hardkeel.fuselage.model import Member
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage import flatwork
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    flatwork = late("hardkeel.fuselage.flatwork")


def _takes(member: Member, inner: BaseGeometry) -> Iterator[BaseGeometry]:
    """Half a lap: the keel has the other half of it."""
    half, depth = (member.thickness or 0.0) / 2, (member.height or 0.0) / 2
    for y in both_sides(member.y):
        low = max(_foot(inner, y - half), _foot(inner, y + half))
        yield shapely.box(y - half, inner.bounds[1] - 1, y + half, low + depth)


def _foot(inner: BaseGeometry, y: float) -> float:
    """Where a former's wood begins at a distance from the centre line."""
    _, low, _, high = inner.bounds
    upright = inner.intersection(shapely.LineString([(y, low - 1), (y, high + 1)]))
    return float(upright.bounds[1]) if not upright.is_empty else float(low)


def _flat(side: "Side", member: Member) -> Iterator[FlatPiece]:
    yield flatwork.keel_piece(side, member)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    x = side.places(*side.fuselage.span(member))
    low = flatwork.foot_of(side, member, x)
    high = low + (member.height or 0.0)
    ring = (*zip(x, -high, strict=True), *reversed([*zip(x, -low, strict=True)]))
    yield Seen(member.id, ring, member.material)


KINDS: Final = (
    MemberSort(
        name="keel",
        needs=("height", "thickness"),
        starts={"height": 12.0, "thickness": 3.0, "material": "light-ply"},
        shows=("height", "thickness", "y"),
        traits=frozenset({"over formers"}),
        passes=True,
        takes=_takes,
        flat=_flat,
        aside=_aside,
    ),
)
