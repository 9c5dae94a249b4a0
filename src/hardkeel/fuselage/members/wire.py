"""Wires that formers are threaded on, to stand in line; pulled out at the end."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.fuselage.members.kind import MemberSort, Seen, both_sides
from hardkeel.fuselage.model import Member
from hardkeel.geometry.polygons import BaseGeometry, shapely

if TYPE_CHECKING:
    from hardkeel.fuselage.sheeted import Side

_CIRCLE_STEPS: Final = 16


def _takes(member: Member, _inner: BaseGeometry) -> Iterator[BaseGeometry]:
    for y in both_sides(member.y):
        yield shapely.Point(y, member.z).buffer((member.diameter or 0.0) / 2, _CIRCLE_STEPS)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    a, b = side.fuselage.span(member)
    yield Seen(member.id, ((a, -member.z), (b, -member.z)), role="wire")


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    a, b = side.fuselage.span(member)
    for y in both_sides(member.y):
        yield Seen(member.id, ((a, y), (b, y)), role="wire")


KINDS: Final = (
    MemberSort(
        name="wire",
        needs=("diameter",),
        starts={"diameter": 2.0, "y": 10.0, "material": "steel-wire"},
        shows=("diameter", "y", "z"),
        traits=frozenset({"drilled", "threaded"}),
        passes=True,
        takes=_takes,
        sort="hole",
        aside=_aside,
        above=_above,
    ),
)
