"""What is screwed in or threaded through, and wants its opening while the wood lies flat: servos, straps, bolts, a bracket."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen, both_sides, box
from hardkeel.fuselage.model import Member
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.flat import FlatPiece, Mark, ring_of

if TYPE_CHECKING:
    from hardkeel.fuselage import openings
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    openings = late("hardkeel.fuselage.openings")

_CIRCLE_STEPS: Final = 16


def _opened_aside(_side: "Side", member: Member) -> Iterator[Seen]:
    if member.station is not None:
        half = (member.height or 0.0) / 2
        line = ((member.station - half, -member.z), (member.station + half, -member.z))
        yield Seen(member.id, line, role="wire")


def _opened_above(_side: "Side", member: Member) -> Iterator[Seen]:
    for ring in openings.rings_of(member):
        yield Seen(member.id, (*ring, ring[0]), role="wire")


def _bolted(member: Member, _inner: BaseGeometry) -> Iterator[BaseGeometry]:
    for y in both_sides(member.y):
        yield shapely.Point(y, member.z).buffer((member.diameter or 0.0) / 2, _CIRCLE_STEPS)


def _bracket_ring(member: Member) -> tuple[tuple[float, float], ...]:
    x, half, wide = member.station or 0.0, (member.height or 0.0) / 2, (member.width or 0.0) / 2
    return ((x - half, -wide), (x + half, -wide), (x + half, wide), (x - half, wide))


def _bracket(_side: "Side", member: Member) -> Iterator[FlatPiece]:
    x, half = member.station or 0.0, (member.height or 0.0) / 2
    yield FlatPiece(
        name=member.id,
        kind=member.kind,
        part=member.id,
        outline=ring_of(_bracket_ring(member)),
        marks=(Mark("centre", ((x - half, 0.0), (x + half, 0.0))),),
        thickness=member.thickness or 0.0,
        material=member.material,
        grain="u",
    )


def _bracket_aside(side: "Side", member: Member) -> Iterator[Seen]:
    x, half = member.station or 0.0, (member.height or 0.0) / 2
    low = float(side.loft.figures(x)["bottom"]) + side.fuselage.bottom_skin
    yield box(
        member.id,
        (x - half, x + half),
        (-low - (member.thickness or 0.0), -low),
        0.0,
        member.material,
    )


def _bracket_above(_side: "Side", member: Member) -> Iterator[Seen]:
    yield Seen(member.id, _bracket_ring(member), member.material, faint=True)


KINDS: Final = (
    MemberSort(
        name="servo",
        needs=("station", "width", "height"),
        starts={"width": 12.0, "height": 23.0, "diameter": 1.2},
        shows=("height", "width", "diameter", "station", "y", "z"),
        runs="place",
        traits=frozenset({"opening", "wired"}),
        step="openings",
        aside=_opened_aside,
        above=_opened_above,
    ),
    MemberSort(
        name="strap",
        needs=("station", "width", "thickness"),
        starts={"width": 20.0, "thickness": 3.0, "y": 22.0},
        shows=("width", "thickness", "station", "y", "z"),
        runs="place",
        traits=frozenset({"opening"}),
        step="openings",
        aside=_opened_aside,
        above=_opened_above,
    ),
    MemberSort(
        name="bolt",
        needs=("diameter",),
        starts={"diameter": 4.0, "y": 20.0},
        shows=("diameter", "y", "z"),
        runs="former",
        step="nuts",
        passes=True,
        takes=_bolted,
        sort="hole",
    ),
    MemberSort(
        name="tail-bracket",
        needs=("station", "width", "height", "thickness"),
        starts={"width": 14.0, "height": 30.0, "thickness": 3.0, "material": "birch-ply"},
        shows=("height", "width", "thickness", "station"),
        runs="place",
        step="bracket",
        flat=_bracket,
        aside=_bracket_aside,
        above=_bracket_above,
    ),
)
