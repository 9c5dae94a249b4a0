"""Sides of longerons, uprights and diagonals, the second built on top of the first."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.methods.method import BuildingMethod, InOrder, ids, sections_with
from hardkeel.joinery.order_step import OrderStep

if TYPE_CHECKING:
    from hardkeel.fuselage.methods import boxing
else:  # to know a method needs none of it
    boxing = late("hardkeel.fuselage.methods.boxing")

_MINUTES_A_STICK: Final = 4.0


def _sides(order: InOrder) -> Iterator[OrderStep]:
    fuselage = order.fuselage
    stretches = sections_with(fuselage, "sticks")
    known = {name: stop.station for name, stop in fuselage.stations}
    spans = [(known[one.from_], known[one.to]) for one in stretches]
    stations = sum(a <= station <= b for a, b in spans for station in known.values())
    figures = {
        "glue": "aliphatic",
        "hands_minutes": _MINUTES_A_STICK * 2 * stations,
        "needs": ("board",),
        "hazards": ("blade", "pins"),
    }
    yield OrderStep("port side", ("cut", "board", "doublers"), looks=True, figures=figures)
    sticks = tuple(f"sticks_{one.from_}_{one.to}" for one in stretches)
    along = ids(members_with(fuselage, "along the edges"))
    yield OrderStep(
        "starboard side",
        ("port side",),
        parts=(*sticks, *order.longerons, *along),
        looks=True,
        figures={**figures, "needs_cure": True},
    )
    yield OrderStep(
        "part sides",
        ("starboard side",),
        looks=True,
        figures={"hands_minutes": 15.0, "needs_cure": True},
    )


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    return boxing.boxed(order)


METHOD: Final = BuildingMethod(
    name="stick-sides",
    traits=frozenset({"sticks"}),
    sides_before=2,
    sides=_sides,
    put_up=_put_up,
)
