"""Stringers in notches of the formers' edges, at an angle from straight up."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.model import Fuselage, Member

if TYPE_CHECKING:
    from hardkeel.fuselage import notching, stringers
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    notching, stringers = late("hardkeel.fuselage.notching"), late("hardkeel.fuselage.stringers")


def _length(fuselage: Fuselage, member: Member) -> tuple[float, int] | None:
    length = stringers.stringer_length(fuselage, member)
    return None if length is None else (length, len(notching.stringer_hands(member)))


def _band(fuselage: Fuselage, member: Member, flat: int, hand: float) -> Iterator[Seen]:
    places = stringers.stringer_points(fuselage, member)
    half = (member.section or (0.0, 0.0))[1] / 2
    if len(places) > 1:
        upper = tuple((p[0], hand * p[flat] - half) for p in places)
        lower = tuple((p[0], hand * p[flat] + half) for p in places)
        yield Seen(member.id, (*upper, *reversed(lower)), member.material)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    yield from _band(side.fuselage, member, 2, -1.0)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    yield from _band(side.fuselage, member, 1, 1.0)
    if member.angle not in (0.0, 180.0):
        yield from _band(side.fuselage, member, 1, -1.0)


KINDS: Final = (
    MemberSort(
        name="stringer",
        needs=("section",),
        starts={"section": (3.0, 3.0), "angle": 45.0, "material": "spruce"},
        shows=("across", "deep", "angle"),
        traits=frozenset({"over formers", "slanting"}),
        passes=True,
        length=_length,
        aside=_aside,
        above=_above,
    ),
)
