"""What every building method says of itself."""

from collections.abc import Callable, Iterable, Iterator, Set
from dataclasses import dataclass
from functools import cache
from importlib import import_module
from typing import TYPE_CHECKING, Final, Literal, cast

from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.model import METHODS, Fuselage, Member, Method, Section
from hardkeel.joinery.order_step import OrderStep

if TYPE_CHECKING:
    from hardkeel.fuselage.closing import (
        Closing,  # it bends the sides, which ask how they are built
    )

MINUTES_A_FORMER: Final = 8.0
Trait = Literal[
    "sheet",  # its sides are cut of sheet
    "sticks",  # its sides are of longerons, uprights and diagonals
    "flat",  # what lies along its sides is glued to them while they lie flat, and bends with them
    "doubled",  # a doubler is usual
    "halved",  # every former is cut on the centre line
    "parted",  # a crutch's edge shows between a lower and an upper side
]


@dataclass(frozen=True, slots=True)
class InOrder:
    """What the steps of putting a fuselage up are made of.

    Attributes
    ----------
    sides, longerons, seats : tuple of str
        Parts of the ledger: its sides, its longerons, what wings sit on.
    closings : tuple of Closing
        Nose and tail as they are pulled in.
    """

    fuselage: Fuselage
    sides: tuple[str, ...]
    longerons: tuple[str, ...]
    seats: tuple[str, ...]
    closings: "tuple[Closing, ...]"


def _nothing(*_given: object) -> Iterator[OrderStep]:
    return iter(())


def _bare(*_given: object) -> Iterator[Member]:
    return iter(())


@dataclass(frozen=True, slots=True)
class BuildingMethod:
    """A building method.

    Attributes
    ----------
    traits : frozenset of Trait
        What holds for its sides.
    put_up : callable
        The steps in which formers and sides come together.
    sides_before, put_up_before : int
        Where one fuselage is built by several, the sides are made by that with the greatest of the one, and put up
        by that with the greatest of the other.
    sides : callable
        The steps in which its sides are made ready.
    usual : callable
        Members that such a stretch usually has, given the names that are taken.
    """

    name: Method
    traits: frozenset[Trait]
    put_up: Callable[[InOrder], Iterator[OrderStep]]
    sides_before: int = 0
    put_up_before: int = 0
    sides: Callable[[InOrder], Iterator[OrderStep]] = _nothing
    usual: Callable[[Fuselage, Section, Set[str]], Iterator[Member]] = _bare


@cache
def method_named(name: Method) -> BuildingMethod:
    """A method by its name; its module is read when it is first asked for."""
    module = import_module(f"hardkeel.fuselage.methods.{name.replace('-', '_')}")
    return cast("BuildingMethod", module.METHOD)


@cache
def methods_with(trait: Trait) -> frozenset[Method]:
    """The names of all methods for which something holds."""
    return frozenset(name for name in METHODS if trait in method_named(name).traits)


def sections_with(fuselage: Fuselage, trait: Trait) -> tuple[Section, ...]:
    """The stretches of a fuselage for whose method something holds."""
    return tuple(one for one in fuselage.sections if one.method in methods_with(trait))


def any_with(fuselage: Fuselage, trait: Trait) -> bool:
    """Whether any stretch of a fuselage is built so."""
    return bool(sections_with(fuselage, trait))


def side_at(fuselage: Fuselage, station: float) -> float:
    """How thick the sheet of a side is at a station, mm: none where nothing but sides of sticks meets it."""
    known = {name: stop.station for name, stop in fuselage.stations}
    methods = {
        section.method
        for section in fuselage.sections
        if known[section.from_] <= station <= known[section.to]
    }
    open_ = bool(methods) and methods <= methods_with("sticks")
    return 0.0 if open_ else fuselage.side_thickness


def running(name: str, within: Section, /, **figures: object) -> Member:
    """A member that runs the length of a stretch."""
    return Member.model_validate({"id": name, "from": within.from_, "to": within.to, **figures})


def stringers(angles: Iterable[float], within: Section, /, **figures: object) -> Iterator[Member]:
    """Stringers at angles (degrees from straight up) along a stretch, numbered from 1."""
    for number, angle in enumerate(angles, start=1):
        yield running(f"stringer {number}", within, kind="stringer", angle=angle, **figures)


def free_name(name: str, taken: Set[str]) -> str:
    """A name, with a number where it is taken."""
    number, free = 2, name
    while free in taken:
        free, number = f"{name} {number}", number + 1
    return free


def seats_step(order: InOrder, *after: str, standing: bool = True) -> Iterator[OrderStep]:
    """Fixing what wings sit on, where there is a wing: on sides that stand, or on loose ones after a dry fit."""
    if order.seats:
        figures = {"glue": "aliphatic", "hands_minutes": 20.0, "no_return": True}
        key = "seats.standing" if standing else ""
        yield OrderStep("seats", after, looks=True, parts=order.seats, figures=figures, key=key)


def wires_out(order: InOrder, *after: str) -> Iterator[OrderStep]:
    """Drawing out what formers were threaded on, once something else holds them and before the last joint."""
    wires = ids(members_with(order.fuselage, "threaded"))
    if wires:
        figures = {"hands_minutes": 10.0, "needs_cure": True, "no_return": True}
        yield OrderStep("wires out", after, about=wires, looks=True, figures=figures)


def ids(members: tuple[Member, ...]) -> tuple[str, ...]:
    """What members are called."""
    return tuple(member.id for member in members)
