"""Frames of a hatch: one glued in below the sill, its twin on the hatch."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen, box
from hardkeel.fuselage.model import Member
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage import flatwork
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    flatwork = late("hardkeel.fuselage.flatwork")


def _flat(side: "Side", member: Member) -> Iterator[FlatPiece]:
    yield from flatwork.hatch_frame_pieces(side.fuselage, member)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    if member.station is not None:
        figures, half = side.loft.figures(member.station), (member.thickness or 0.0) / 2
        us = (member.station - half, member.station + half)
        yield box(member.id, us, (-figures["top"], -figures["bottom"]), 90.0, member.material)


KINDS: Final = (
    MemberSort(
        name="hatch-frame",
        needs=("station", "thickness"),
        starts={"thickness": 3.0, "material": "light-ply"},
        shows=("thickness", "station", "z"),
        runs="place",
        step="hatch",
        flat=_flat,
        aside=_aside,
    ),
)
