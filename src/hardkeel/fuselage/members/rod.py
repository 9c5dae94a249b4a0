"""A rod across, through both sides."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen, box
from hardkeel.fuselage.model import Member

if TYPE_CHECKING:
    import numpy as np

    from hardkeel.fuselage import flatwork
    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    flatwork, np = late("hardkeel.fuselage.flatwork"), late("numpy")

_OUT_MM: Final = 3.0  # beyond the sides


def _aside(_side: "Side", member: Member) -> Iterator[Seen]:
    if member.station is not None:
        yield Seen(member.id, ((member.station, -member.z),), role="pin")


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    if member.station is not None:
        reach = float(flatwork.inner_half(side, np.array([member.station]), member.z)[0]) + _OUT_MM
        radius = (member.diameter or 0.0) / 2
        us = (member.station - radius, member.station + radius)
        yield box(member.id, us, (-reach, reach), 90.0, member.material)


KINDS: Final = (
    MemberSort(
        name="rod",
        needs=("station", "diameter"),
        starts={"diameter": 3.0, "material": "steel-wire"},
        shows=("diameter", "station", "z"),
        runs="place",
        traits=frozenset({"drilled"}),
        aside=_aside,
        above=_above,
    ),
)
