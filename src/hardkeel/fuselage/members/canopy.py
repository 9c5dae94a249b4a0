"""A canopy over the deck: its line, and where its edges land."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.model import Member

if TYPE_CHECKING:
    import numpy as np

    from hardkeel.fuselage import fronting
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    fronting, np = late("hardkeel.fuselage.fronting"), late("numpy")

_PLACES: Final = 25


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    line = fronting.canopy_line(side.fuselage, member)
    if line is not None:
        x = np.linspace(line.x[0], line.x[-1], _PLACES)
        yield Seen(member.id, tuple(zip(x, -line.value(x), strict=True)), role="wire")


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    front, rear = fronting.canopy_ends(side.fuselage, member)
    half = (member.width or 0.0) / 2
    if half and rear > front:
        turn = np.linspace(0, 2 * np.pi, 2 * _PLACES)
        x = (front + rear) / 2 + (rear - front) / 2 * np.cos(turn)
        yield Seen(member.id, tuple(zip(x, half * np.sin(turn), strict=True)), role="wire")


KINDS: Final = (
    MemberSort(
        name="canopy",
        needs=("height",),
        starts={"height": 35.0, "width": 50.0},
        shows=("height", "station", "width", "inset", "short"),
        aside=_aside,
        above=_above,
    ),
)
