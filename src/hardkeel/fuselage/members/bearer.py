"""Engine bearers: hardwood sticks through the first formers, on both sides of the middle."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.fuselage.members.kind import MemberSort, Seen, both_sides, box
from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.geometry.polygons import BaseGeometry, shapely

if TYPE_CHECKING:
    from hardkeel.fuselage.sheeted import Side


def _takes(member: Member, _inner: BaseGeometry) -> Iterator[BaseGeometry]:
    across, deep = (side / 2 for side in member.section or (0.0, 0.0))
    for y in both_sides(member.y):
        yield shapely.box(y - across, member.z - deep, y + across, member.z + deep)


def _reach(fuselage: Fuselage, member: Member) -> tuple[float, float]:
    first, last = fuselage.span(member)
    return (member.station if member.station is not None else first), last


def _length(fuselage: Fuselage, member: Member) -> tuple[float, int]:
    start, last = _reach(fuselage, member)
    return abs(last - start), len(both_sides(member.y))


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    if member.section is not None:
        deep = member.section[1] / 2
        us = _reach(side.fuselage, member)
        yield box(member.id, us, (-member.z - deep, -member.z + deep), 0.0, member.material)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    if member.section is not None:
        across = member.section[0] / 2
        for y in both_sides(member.y):
            us = _reach(side.fuselage, member)
            yield box(member.id, us, (y - across, y + across), 0.0, member.material)


KINDS: Final = (
    MemberSort(
        name="bearer",
        needs=("section",),
        starts={"section": (10.0, 10.0), "y": 15.0, "material": "beech"},
        shows=("across", "deep", "station", "y", "z"),
        runs="to",
        traits=frozenset({"drilled"}),
        step="bearers",
        passes=True,
        takes=_takes,
        sort="hole",
        length=_length,
        aside=_aside,
        above=_above,
    ),
)
