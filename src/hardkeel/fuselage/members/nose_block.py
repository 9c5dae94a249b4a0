"""A block or ring before the firewall: up to the spinner, or to the cowl."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.model import Member
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage import fronting
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    fronting = late("hardkeel.fuselage.fronting")


def _flat(side: "Side", member: Member) -> Iterator[FlatPiece]:
    yield from fronting.nose_pieces(side.fuselage, member)


def _seen(side: "Side", member: Member, low: int, high: int, hand: float) -> Iterator[Seen]:
    """Each layer on edge, from the least to the most of its wood across the view."""
    for layer in fronting.nose_layers(side.fuselage, member):
        bounds = layer.wood.bounds
        a, b = hand * bounds[low], hand * bounds[high]
        ring = ((layer.front, a), (layer.rear, a), (layer.rear, b), (layer.front, b))
        yield Seen(member.id, ring, member.material, grain=90.0)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    yield from _seen(side, member, 1, 3, -1.0)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    yield from _seen(side, member, 0, 2, 1.0)


KINDS: Final = (
    MemberSort(
        name="nose-block",
        needs=("station", "thickness"),
        starts={"thickness": 12.0, "material": "balsa-medium"},
        shows=("station", "width", "height", "z", "thickness", "inset"),
        runs="former",
        step="nose",
        flat=_flat,
        aside=_aside,
        above=_above,
    ),
)
