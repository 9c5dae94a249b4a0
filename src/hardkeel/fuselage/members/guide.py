"""A guide for a pushrod or a cable: a tube through the formers, along places of its own."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.model import Former, Fuselage, Member
from hardkeel.geometry.polygons import BaseGeometry, shapely

if TYPE_CHECKING:
    from hardkeel.fuselage import routing
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    routing = late("hardkeel.fuselage.routing")

_CIRCLE_STEPS: Final = 16
_USUAL_MM: Final = 3.0
_THICK_MM: Final = 3.0  # of a former that does not say how thick it is
_FEWEST: Final = 2


def _placed(_fuselage: Fuselage, member: Member, former: Former) -> Member | None:
    if len(member.route) < _FEWEST:
        return None
    return routing.at_former(member, former.station, former.thickness or _THICK_MM)


def _takes(member: Member, _inner: BaseGeometry) -> Iterator[BaseGeometry]:
    """A round hole, drawn out where the guide comes through aslant."""
    across, up = (one / 2 for one in member.slant)
    radius = (member.diameter or 0.0) / 2
    ends = [
        shapely.Point(member.y + hand * across, member.z + hand * up).buffer(radius, _CIRCLE_STEPS)
        for hand in (1, -1)
    ]
    yield shapely.MultiPolygon(ends).convex_hull if any(member.slant) else ends[0]


def _aside(_side: "Side", member: Member) -> Iterator[Seen]:
    if len(member.route) >= _FEWEST:
        yield Seen(member.id, tuple((x, -z) for x, _, z in routing.places_of(member)), role="wire")


def _above(_side: "Side", member: Member) -> Iterator[Seen]:
    if len(member.route) >= _FEWEST:
        yield Seen(member.id, tuple((x, y) for x, y, _ in routing.places_of(member)), role="wire")


KINDS: Final = (
    MemberSort(
        name="guide",
        needs=("diameter",),
        starts={"diameter": _USUAL_MM},
        shows=("diameter",),
        runs="route",
        traits=frozenset({"drilled", "wired"}),
        step="guides",
        passes=True,
        placed=_placed,
        takes=_takes,
        sort="hole",
        aside=_aside,
        above=_above,
    ),
)
