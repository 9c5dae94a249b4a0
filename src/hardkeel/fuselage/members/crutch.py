"""A crutch: two rails and cross-pieces, flat, on which the formers are built up and down."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.members.plate import lying_above, lying_aside
from hardkeel.fuselage.model import Member
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage import flatwork
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    flatwork = late("hardkeel.fuselage.flatwork")


def _takes(member: Member, inner: BaseGeometry) -> Iterator[BaseGeometry]:
    left, _, right, _ = inner.bounds
    half = (member.thickness or 0.0) / 2
    yield shapely.box(left - 1, member.z - half, right + 1, member.z + half)


def _flat(side: "Side", member: Member) -> Iterator[FlatPiece]:
    yield flatwork.crutch_piece(side, member)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    yield from lying_above(_flat(side, member), member)


KINDS: Final = (
    MemberSort(
        name="crutch",
        needs=("width", "thickness"),
        starts={"width": 8.0, "thickness": 6.0, "material": "balsa-hard"},
        shows=("width", "thickness", "z"),
        passes=True,
        takes=_takes,
        sort="gap",
        flat=_flat,
        aside=lying_aside,
        above=_above,
    ),
)
