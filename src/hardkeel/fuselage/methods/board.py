"""Formers stood up on a board, stringers and longerons let into them, the sides last."""

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
    wires_out,
)
from hardkeel.fuselage.model import TAIL_POST, Fuselage, Member, Section
from hardkeel.joinery.order_step import OrderStep

_KEEL_MM: Final = (12.0, 3.0)
_STRINGERS: Final = (0.0, 45.0, 90.0, 135.0)
_BETWEEN_LONGERONS: Final = (0.0, 90.0)
_STRINGER_MM: Final = (3.0, 3.0)
_WIRE_MM: Final = 2.0
_WIRE_OUT: Final = 0.5  # of the narrowest former's half-width
_WIRE_NEEDS_MM: Final = 12.0  # of half-width, for a hole with wood around it


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    fuselage = order.fuselage
    split = tuple(former.id for former in fuselage.formers if former.split)
    whole = tuple(former.id for former in fuselage.formers if not former.split)
    wires = ids(members_with(fuselage, "threaded"))
    glued = {"glue": "aliphatic", "needs": ("board", "clamps")}
    tacked = fuselage.board is not None and fuselage.board.tacked
    drop: dict[str, object] = {"hazards": ("cyanoacrylate",)} if tacked else {}
    if wires:
        minutes = {"hands_minutes": 15.0}
        yield OrderStep("thread", ("drill", "cut"), parts=wires, looks=True, figures=minutes)
    yield OrderStep(
        "formers up",
        ("cut", "board", "thread", "nuts"),
        key="formers tacked" if tacked else "",
        about=whole,
        parts=whole,
        looks=True,
        figures={"hands_minutes": MINUTES_A_FORMER * len(whole), "needs": ("board",), **drop},
    )
    strips = (*ids(members_with(fuselage, "over formers")), *order.longerons)
    if strips:
        minutes = {"hands_minutes": 12.0 * len(strips)}
        keels = {one.id for one in fuselage.framed.members if one.kind == "keel"}
        yield OrderStep(
            "stringers",
            ("formers up", "doublers"),
            key="keel in" if keels.issuperset(strips) else "",
            about=strips,
            parts=(*strips, *whole),
            looks=True,
            figures={**glued, **minutes, "needs": ("board",)},
        )
    # what holds the formers by then: strips, or without any the sides
    yield from wires_out(order, *(("stringers",) if strips else ("sides",)))
    last = ("wires out",) if strips else ()
    if split:
        yield OrderStep(
            "tail",
            ("stringers", "formers up", *last),
            key="close tail",
            about=split,
            parts=split,
            looks=True,
            figures={**glued, "hands_minutes": 20.0, "needs_cure": True},
        )
    if order.sides:
        yield OrderStep(
            "sides",
            ("formers up", "stringers", "tail", "doublers", *last),
            parts=(*order.sides, *whole),
            looks=True,
            figures={**glued, "hands_minutes": 45.0},
        )
    yield from seats_step(order, "sides", "stringers", "formers up")


def _usual(fuselage: Fuselage, section: Section, _taken: Set[str]) -> Iterator[Member]:
    tall, thick = _KEEL_MM
    last = fuselage.formers[-1].id if section.to == TAIL_POST else section.to
    reach = section.but(to=last if last != section.from_ else section.to)
    yield running("keel", reach, kind="keel", height=tall, thickness=thick, material="light-ply")
    angles = _BETWEEN_LONGERONS if fuselage.longerons else _STRINGERS
    yield from stringers(angles, reach, section=_STRINGER_MM, material="spruce")
    places = dict(fuselage.stations)
    first, behind = places[reach.from_].station, places[reach.to].station
    inside = [
        f
        for f in fuselage.formers
        if first <= f.station <= behind and f.half_width - fuselage.side_thickness >= _WIRE_NEEDS_MM
    ]
    narrow = min((f.half_width - fuselage.side_thickness for f in inside), default=0.0)
    low = max(f.bottom for f in inside) if inside else 0.0
    high = min(f.top for f in inside) if inside else 0.0
    if high > low and len(inside) > 1:  # through one former a wire holds nothing
        yield running(
            "wire",
            reach.but(from_=inside[0].id, to=inside[-1].id),
            kind="wire",
            y=round(_WIRE_OUT * narrow, 1),
            z=round((low + high) / 2, 1),
            diameter=_WIRE_MM,
            material="steel-wire",
        )


METHOD: Final = BuildingMethod(
    name="board",
    traits=frozenset({"sheet"}),
    sides_before=1,
    put_up_before=1,
    put_up=_put_up,
    usual=_usual,
)
