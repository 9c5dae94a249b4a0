"""Two sheet sides, bent around the formers, with what lies along them glued on while they are flat."""

from collections.abc import Iterator, Set
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.methods.method import BuildingMethod, InOrder, free_name, ids, running
from hardkeel.fuselage.model import Former, Fuselage, Member, Section
from hardkeel.joinery.order_step import OrderStep

if TYPE_CHECKING:
    from hardkeel.fuselage.methods import boxing
else:  # to know a method needs none of it
    boxing = late("hardkeel.fuselage.methods.boxing")

_DOUBLER_MM: Final = 1.5
_DOUBLER_SHORT: Final = 0.2  # of its stretch: before the next former, so that the side bends there
_KEY_SHARE: Final = 0.35  # of the firewall's height
_STRIP_MM: Final = 6.0
_STRIP_GAP_MM: Final = 0.5


def strips(order: InOrder) -> Iterator[OrderStep]:
    """What is glued along the edges of sheet sides while they lie flat."""
    along = (*order.longerons, *ids(members_with(order.fuselage, "along the edges")))
    if along:
        yield OrderStep(
            "strips",
            ("cut", "doublers"),
            about=along,
            parts=along,
            looks=True,
            figures={
                "glue": "aliphatic",
                "hands_minutes": 10.0 * len(along),
                "needs": ("board",),
            },
        )


def usual(fuselage: Fuselage, section: Section, taken: Set[str]) -> Iterator[Member]:
    """A doubler, a keyed firewall, and corner strips where there are no longerons."""
    stations = dict(fuselage.stations)
    length = stations[section.to].station - stations[section.from_].station
    depth = max((one.section[1] for one in fuselage.longerons), default=0.0)
    yield running(
        free_name("doubler", taken),
        section,
        kind="doubler",
        thickness=_DOUBLER_MM,
        inset=depth,
        short=round(_DOUBLER_SHORT * length, 1),
        material="light-ply",
    )
    first = fuselage.stations[0][1]
    if isinstance(first, Former) and section.from_ == first.id:
        tall = first.top - first.bottom
        height = round(_KEY_SHARE * tall)
        yield Member.model_validate(
            {"id": "firewall key", "kind": "key", "from": first.id, "height": height}
        )
    if not fuselage.longerons:
        yield running(
            free_name("corner strip", taken),
            section,
            kind="corner-strip",
            section=(_STRIP_MM, _STRIP_MM),
            triangular=True,
            gap=_STRIP_GAP_MM,
            material="balsa-medium",
        )


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    return boxing.boxed(order)


METHOD: Final = BuildingMethod(
    name="sheet-sides",
    traits=frozenset({"sheet", "flat", "doubled"}),
    sides=strips,
    put_up=_put_up,
    usual=usual,
)
