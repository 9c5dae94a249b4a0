"""One half built flat over its keel: half formers, strips; lifted, the other half is built on it."""

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
    stringers,
)
from hardkeel.fuselage.model import TAIL_POST, Fuselage, Member, Section
from hardkeel.joinery.order_step import OrderStep

_KEEL_MM: Final = (8.0, 3.0)
_STRINGERS: Final = (0.0, 30.0, 60.0, 90.0, 120.0, 150.0)
_STRINGER_MM: Final = (3.0, 3.0)
_MINUTES_A_STRIP: Final = 6.0  # of one half


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    fuselage = order.fuselage
    keels = tuple(one.id for one in fuselage.framed.members if one.kind == "keel")
    formers = tuple(former.id for former in fuselage.formers)
    over = (*ids(members_with(fuselage, "over formers")), *order.longerons)
    strips = tuple(one for one in over if one not in keels)
    glued = {"glue": "aliphatic", "needs": ("board",)}
    halves = {**glued, "hands_minutes": MINUTES_A_FORMER * len(formers) / 2 + 5}
    laid = {**glued, "hands_minutes": _MINUTES_A_STRIP * len(strips), "hazards": ("pins",)}
    yield OrderStep(
        "keel down",
        ("cut", "board"),
        about=keels,
        parts=keels,
        looks=True,
        figures={"hands_minutes": 15.0, "needs": ("board",), "hazards": ("pins",)},
    )
    yield OrderStep(
        "first half",
        ("keel down", "nuts"),
        about=formers,
        parts=formers,
        looks=True,
        figures=halves,
    )
    if strips:
        yield OrderStep(
            "first strips",
            ("first half",),
            about=strips,
            parts=strips,
            looks=True,
            figures={**laid, "needs_cure": True},
        )
    yield OrderStep(
        "other half",
        ("first half", "first strips"),
        about=formers,
        parts=formers,
        looks=True,
        figures={**halves, "needs": ()},
    )
    if strips:
        yield OrderStep(
            "other strips",
            ("other half",),
            about=strips,
            parts=strips,
            looks=True,
            figures={**laid, "needs": ("clamps",), "needs_cure": True},
        )
    if order.sides:
        yield OrderStep(
            "sides",
            ("other half", "other strips", "doublers"),
            parts=order.sides,
            looks=True,
            figures={"glue": "aliphatic", "needs": ("clamps",), "hands_minutes": 45.0},
        )
    yield from seats_step(order, "sides", "other strips", "other half")


def _usual(fuselage: Fuselage, section: Section, _taken: Set[str]) -> Iterator[Member]:
    tall, thick = _KEEL_MM
    last = fuselage.formers[-1].id if section.to == TAIL_POST else section.to
    reach = section.but(to=last if last != section.from_ else section.to)
    yield running("keel", reach, kind="keel", height=tall, thickness=thick, material="balsa-hard")
    yield from stringers(
        _STRINGERS, reach, section=_STRINGER_MM, by_girth=True, material="balsa-hard"
    )


METHOD: Final = BuildingMethod(
    name="half-shell",
    traits=frozenset({"sheet", "halved"}),
    sides_before=1,
    put_up_before=2,
    put_up=_put_up,
    usual=_usual,
)
