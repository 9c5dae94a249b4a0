"""Plates and trays that lie across between two formers."""

from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen, Trait, box
from hardkeel.fuselage.model import Member, MemberKind
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage import flatwork
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    flatwork = late("hardkeel.fuselage.flatwork")


def lying_aside(side: "Side", member: Member) -> Iterator[Seen]:
    """What lies flat, on edge as it is seen from the side."""
    half = (member.thickness or 0.0) / 2
    us = side.fuselage.span(member)
    yield box(member.id, us, (-member.z - half, -member.z + half), 0.0, member.material)


def lying_above(pieces: Iterable[FlatPiece], member: Member) -> Iterator[Seen]:
    """What lies flat as it is cut."""
    for piece in pieces:
        if piece.outline:
            yield Seen(member.id, piece.outline, member.material, holes=piece.holes, faint=True)


def _flat(side: "Side", member: Member) -> Iterator[FlatPiece]:
    yield from flatwork.plate_pieces(side, member)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    yield from lying_above(flatwork.plate_pieces(side, member), member)


def _kind(name: MemberKind, /, *traits: Trait, **starts: object) -> MemberSort:
    return MemberSort(
        name=name,
        needs=("thickness",),
        starts=starts,
        shows=("thickness", "width", "z"),
        traits=frozenset({"plate", *traits}),
        step="plates",
        flat=_flat,
        aside=lying_aside,
        above=_above,
    )


KINDS: Final = (
    _kind("dowel-plate", thickness=3.0, material="birch-ply"),
    _kind("undercarriage-plate", thickness=3.0, material="birch-ply"),
    _kind("servo-tray", "wired", thickness=2.0, material="light-ply"),
    _kind("battery-tray", "wired", thickness=2.0, width=40.0, material="light-ply"),
)
