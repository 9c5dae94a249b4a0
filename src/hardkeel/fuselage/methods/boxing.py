"""Formers between two sides: the straight part first, nose and tail last."""

from collections.abc import Callable, Iterator
from typing import Final

from hardkeel.fuselage.closing import End, straight_part
from hardkeel.fuselage.methods.method import MINUTES_A_FORMER, InOrder, seats_step, wires_out
from hardkeel.fuselage.model import TAIL_POST, Fuselage
from hardkeel.joinery.order_step import OrderStep

_OVERNIGHT: Final = 720.0
_DRY: Final = ("try in", "seats", "board")


Glued = Callable[[tuple[str, ...], tuple[str, ...]], Iterator[OrderStep]]


def glued_between(formers: tuple[str, ...], sides: tuple[str, ...]) -> Iterator[OrderStep]:
    """The straight part's formers glued between both sides at once."""
    figures = {**_gluing(formers), "needs_cure": False}
    yield OrderStep(
        "straight part",
        _DRY,
        key="glue in",
        about=formers,
        parts=(*formers, *sides),
        looks=True,
        figures=figures,
    )


def on_its_side(formers: tuple[str, ...], sides: tuple[str, ...]) -> Iterator[OrderStep]:
    """The straight part's formers glued upright on one side that lies flat, then the second side on top."""
    yield OrderStep(
        "side down",
        _DRY,
        looks=True,
        parts=sides,
        figures={"hands_minutes": 15.0, "needs": ("board",), "hazards": ("pins",)},
    )
    yield OrderStep(
        "formers upright",
        ("side down",),
        about=formers,
        parts=formers,
        looks=True,
        figures={**_gluing(formers), "needs": ("board",)},
    )
    yield OrderStep(
        "straight part",
        ("formers upright",),
        key="second side",
        about=formers,
        parts=(*formers, *sides),
        looks=True,
        figures={**_gluing(formers), "needs_cure": True},
    )


def boxed(order: InOrder, glued: Glued = glued_between) -> Iterator[OrderStep]:
    """Try every former in, glue the straight part with the sides on it, pull nose and tail in."""
    straight, nose, tail = _parts(order.fuselage)
    sides = ("doublers", "strips", "port side", "starboard side", "part sides", "nuts", "cut")
    yield OrderStep(
        "try in",
        sides,
        looks=True,
        parts=(*nose, *straight, *tail),
        figures={"hands_minutes": 30.0},
    )
    yield from seats_step(order, "try in", standing=False)
    if straight:
        yield from glued(straight, order.sides)
    if straight:
        yield from wires_out(order, "straight part")
    for closing in order.closings:
        if closing.soaked:
            yield _soaked(closing.end)
    yield from _pulled_in("nose", nose, ("straight part", "wires out"))
    closed = tail if order.fuselage.tail_post is None else (*tail, TAIL_POST)
    yield from _pulled_in("tail", closed, ("straight part", "wires out", "nose"))


def steps_of_end(end: End) -> tuple[str, str]:
    """Ids of the steps that soak an end and pull it in."""
    return f"soak {end}", end


def _soaked(end: End) -> OrderStep:
    return OrderStep(
        steps_of_end(end)[0],
        ("straight part",),
        key="soak",
        about=(end,),
        looks=True,
        figures={
            "hands_minutes": 20.0,
            "cure_minutes": _OVERNIGHT,
            "needs": ("board", "clamps"),
            "holds_until": "cure",
            "needs_cure": True,
            "hazards": ("steam",),
        },
    )


def _pulled_in(name: End, closed: tuple[str, ...], after: tuple[str, ...]) -> Iterator[OrderStep]:
    if closed:
        yield OrderStep(
            name,
            (*after, steps_of_end(name)[0]),
            key="pull in",
            about=(name, *closed),
            parts=tuple(one for one in closed if one != TAIL_POST),
            looks=True,
            figures={**_gluing(closed), "needs_cure": True},
        )


def _gluing(formers: tuple[str, ...]) -> dict[str, object]:
    minutes = MINUTES_A_FORMER * len(formers) + 10
    return {"glue": "aliphatic", "hands_minutes": minutes, "needs": ("board", "clamps")}


def _parts(fuselage: Fuselage) -> tuple[tuple[str, ...], tuple[str, ...], tuple[str, ...]]:
    """Formers where the sides lie as good as parallel, those ahead, those behind."""
    names = tuple(former.id for former in fuselage.formers)
    glued = tuple(former.id for former in straight_part(fuselage))
    order = tuple(name for name, _ in fuselage.stations if name in names)
    first, last = order.index(glued[0]), order.index(glued[-1])
    return glued, order[:first], order[last + 1 :]
