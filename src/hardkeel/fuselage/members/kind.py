"""What every kind of member says of itself."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cache
from importlib import import_module
from pkgutil import iter_modules
from typing import TYPE_CHECKING, Any, Final, Literal, cast, get_args

import hardkeel.fuselage.members as home
from hardkeel.base.values import Point2
from hardkeel.fuselage.model import Former, Fuselage, Member, MemberKind
from hardkeel.geometry.polygons import BaseGeometry
from hardkeel.joinery.flat import FlatPiece

if TYPE_CHECKING:
    from hardkeel.fuselage.sheeted import Side

Ring = tuple[Point2, ...]
# by what it is placed: two stations, one former, a place of its own, from a place of its own to a station, its places
Runs = Literal["span", "former", "place", "to", "route"]
Trait = Literal[
    "doubler",  # lies on a side's inner face, and bends with it
    "on the sides",  # bends with them, glued on flat
    "along the edges",  # glued along the sides while they lie flat
    "over formers",  # runs over formers that stand
    "slanting",  # lies in notches of their edges, and passes them aslant
    "plate",  # lies across between formers
    "drilled",  # needs holes that are made while the parts are flat
    "threaded",  # formers are threaded on it
    "triangular",  # may be cut corner to corner
    "curved",  # may have a hollow edge
    "wired",  # leads run to it
    "opening",  # is cut in a tray
]


@dataclass(frozen=True, slots=True)
class Seen:
    """A member in a view: `ring` of wood or `line` of wire in the view's plane, mm; up is less.

    Attributes
    ----------
    role : str
        ``wood``, or what a line is: ``wire``, ``pin``.
    faint : bool
        It lies behind what is in front.
    """

    ref: str
    points: Ring
    material: str | None = None
    grain: float | None = 0.0
    holes: tuple[Ring, ...] = ()
    role: Literal["wood", "wire", "pin"] = "wood"
    faint: bool = False


def _as_it_lies(_fuselage: Fuselage, member: Member, _former: Former) -> Member | None:
    return member


def _nothing(*_given: object) -> Iterator[Any]:
    return iter(())


@dataclass(frozen=True, slots=True)
class MemberSort:
    """A kind of member.

    Attributes
    ----------
    needs : tuple of str
        Figures that it can't do without; the rest have a usual value.
    starts : mapping
        Figures of a new one.
    shows : tuple of str
        Figures that its card shows, beside where it runs; ``across`` and ``deep`` are its section's.
    step : str
        The step that puts it in, where that is none of the frame's own: ``bearers``, ``plates``.
    placed : callable
        The same as it lies where it passes a former; ``None`` where it does not.
    takes : callable
        What it takes out of a former whose edge is given; with `passes` it crosses those between its ends.
    sort : str
        ``notch`` at the former's edge, ``hole`` in the wood, ``gap`` where it parts it on purpose.
    flat : callable
        Its flat pieces.
    length : callable
        How long it is cut, mm, where it is a stick that runs; how many of it.
    aside, above : callable
        How it is seen from the side and from above.
    """

    name: MemberKind
    needs: tuple[str, ...]
    starts: Mapping[str, object]
    shows: tuple[str, ...]
    runs: Runs = "span"
    traits: frozenset[Trait] = frozenset()
    step: str = ""
    passes: bool = False
    placed: Callable[[Fuselage, Member, Former], Member | None] = _as_it_lies
    takes: Callable[[Member, BaseGeometry], Iterator[BaseGeometry]] = _nothing
    sort: Literal["notch", "hole", "gap"] = "notch"
    flat: Callable[["Side", Member], Iterator[FlatPiece]] = _nothing
    length: Callable[[Fuselage, Member], tuple[float, int] | None] = field(
        default=lambda _fuselage, _member: None
    )
    aside: Callable[["Side", Member], Iterator[Seen]] = _nothing
    above: Callable[["Side", Member], Iterator[Seen]] = _nothing


def member_kind(name: MemberKind) -> MemberSort:
    """A kind by its name."""
    return _all_kinds()[name]


@cache
def kinds_with(*traits: Trait) -> frozenset[MemberKind]:
    """The names of all kinds that have one of these traits."""
    return frozenset(name for name, one in _all_kinds().items() if one.traits & frozenset(traits))


def members_with(fuselage: Fuselage, *traits: Trait) -> tuple[Member, ...]:
    """The members of a fuselage whose kind has one of these traits."""
    kinds = kinds_with(*traits)
    return tuple(one for one in fuselage.framed.members if one.kind in kinds)


_NOT_KINDS: Final = frozenset({"kind"})


@cache
def _all_kinds() -> Mapping[MemberKind, MemberSort]:
    """Every module of this room is read when a kind is first asked for: they know the trades, which know this file."""
    found: dict[MemberKind, MemberSort] = {}
    for module in iter_modules(home.__path__):
        if module.name not in _NOT_KINDS:
            kinds = import_module(f"{home.__name__}.{module.name}").KINDS
            found |= {one.name: one for one in cast("tuple[MemberSort, ...]", kinds)}
    return {name: found[name] for name in get_args(MemberKind)}


def box(
    ref: str, us: tuple[float, float], vs: tuple[float, float], grain: float, material: str | None
) -> Seen:
    """A piece that is seen as a rectangle."""
    (a, b), (c, d) = us, vs
    return Seen(ref, ((a, c), (b, c), (b, d), (a, d)), material, grain)


def both_sides(y: float) -> tuple[float, ...]:
    """Where a member lies: on the centre line, or on each side of it, port first."""
    return (y,) if y == 0 else (-abs(y), abs(y))
