"""A flat frame on the datum line, formers and sides above and below it."""

from collections.abc import Iterator, Set
from typing import Final

from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.methods.method import (
    MINUTES_A_FORMER,
    BuildingMethod,
    InOrder,
    ids,
    running,
    seats_step,
    wires_out,
)
from hardkeel.fuselage.methods.sheet_sides import strips
from hardkeel.fuselage.model import Fuselage, Member, Section
from hardkeel.joinery.order_step import OrderStep

_CRUTCH_MM: Final = (8.0, 6.0)  # a rail as wide as a thumb, as thick as a sheet of it is sold


def _sides(order: InOrder) -> Iterator[OrderStep]:
    """What lies along the sides, glued on while they are flat; where there are none it goes over the formers."""
    if order.sides:
        yield from strips(order)


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    crutch = tuple(one.id for one in order.fuselage.framed.members if one.kind == "crutch")
    formers = tuple(former.id for former in order.fuselage.formers)
    yield OrderStep(
        "crutch",
        ("cut", "board"),
        parts=crutch,
        looks=True,
        figures={"glue": "aliphatic", "hands_minutes": 30.0, "needs": ("board",)},
    )
    for name, after in (
        ("lower formers", ("crutch", "nuts", "drill")),
        ("lower sides", ("lower formers", "drill", "doublers", "strips")),
        ("upper formers", ("lower sides",)),
        ("upper sides", ("upper formers", "wires out")),
    ):
        if name == "upper sides":
            yield from wires_out(order, "upper formers")
        yield OrderStep(
            name,
            after,
            parts={"upper formers": formers, "upper sides": order.sides}.get(name, ()),
            looks=True,
            figures={
                "glue": "aliphatic",
                "hands_minutes": MINUTES_A_FORMER * len(formers) / 2 + 10,
                "needs": ("board", "clamps"),
                "needs_cure": name == "upper formers",
            },
        )
    along = set(ids(members_with(order.fuselage, "along the edges"))) if order.sides else set()
    over = [one for one in ids(members_with(order.fuselage, "over formers")) if one not in along]
    if not order.sides:  # nothing lies flat to glue them along
        over += order.longerons
    if over:
        yield OrderStep(
            "stringers",
            ("upper formers",),
            about=tuple(over),
            parts=tuple(over),
            looks=True,
            figures={"glue": "aliphatic", "hands_minutes": 12.0 * len(over), "needs": ("clamps",)},
        )
    yield from seats_step(order, "upper sides")


def _usual(fuselage: Fuselage, section: Section, _taken: Set[str]) -> Iterator[Member]:
    """On the datum line, as far aft as the fuselage is around it."""
    wide, thick = _CRUTCH_MM
    stations = dict(fuselage.stations)
    names = list(stations)
    inside = [
        name
        for name in names[names.index(section.from_) : names.index(section.to) + 1]
        if stations[name].bottom + fuselage.bottom_skin < -thick / 2
        and stations[name].top - fuselage.top_skin > thick / 2
    ]
    last = inside[-1] if len(inside) > 1 else section.to
    yield running(
        "crutch",
        section.but(to=last),
        kind="crutch",
        width=wide,
        thickness=thick,
        material="balsa-hard",
    )


METHOD: Final = BuildingMethod(
    name="crutch",
    traits=frozenset({"sheet", "parted"}),
    put_up_before=3,
    sides=_sides,
    put_up=_put_up,
    usual=_usual,
)
