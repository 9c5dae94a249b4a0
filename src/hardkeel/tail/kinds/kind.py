"""What every kind of tail surface says of itself."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from importlib import import_module
from typing import Literal, cast, get_args

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.order_step import OrderStep
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import Kind, TailSurface

Ring = tuple[Point2, ...]
# what a surface of a kind may have, so that a page shows it
Trait = Literal[
    "bracing",  # sticks between its edges, that twist
    "even",  # one thickness all over, that is typed
    "section",  # drawn of sections at root and tip
    "ribs",
    "core",
    "skin",
    "tubes",
    "stock heights",  # of its edges, beside their widths
    "washout",
]


@dataclass(frozen=True, slots=True)
class Drawn:
    """A piece as it is seen from above: `ring` of (from the middle out, aft), mm.

    Attributes
    ----------
    grain : float or None
        Degrees from the span's way.
    material : str or None
        What it is of; ``metal`` for a tube.
    """

    ref: str
    ring: Ring
    material: str | None
    grain: float | None = 0.0


@dataclass(frozen=True, slots=True)
class TailKind:
    """A kind of tail surface.

    Attributes
    ----------
    wood : str
        What it usually is of.
    has : frozenset of Trait
        What its pages show.
    usual : callable
        Figures that one usually has, given the surface as far as it is known.
    order : callable
        Its steps, in order.
    cut : callable
        Sticks, spars, edges and tubes.
    flat : callable
        Its own flat pieces: ribs, gussets, skins, templates.
    core : callable
        mm³ by material of what is in no stick and no flat piece.
    weighs_cut : bool
        Whether what is cut counts beside `core`; a frame's sticks are its core.
    drawn : callable
        What is seen of it from above, of the starboard half.
    lofted : callable
        Whether its thickness is that of its sections.
    completed : callable
        The surface with what only follows once the usual figures are in it.
    """

    name: Kind
    wood: str
    has: frozenset[Trait]
    usual: Callable[[TailSurface], dict[str, object]]
    order: Callable[[TailSurface], tuple[OrderStep, ...]]
    cut: Callable[[TailSurface, Profiles], tuple[CutPart, ...]]
    flat: Callable[[TailSurface, Profiles], tuple[FlatPiece, ...]]
    core: Callable[[TailSurface, Profiles], dict[str | None, float]]
    drawn: Callable[[TailSurface, Profiles], Iterator[Drawn]]
    lofted: Callable[[TailSurface], bool]
    weighs_cut: bool = True
    completed: Callable[[TailSurface], TailSurface] = lambda surface: surface


def tail_kinds() -> tuple[Kind, ...]:
    """The names of all kinds."""
    return get_args(Kind)


@cache
def kind_named(name: Kind) -> TailKind:
    """A kind by its name; its module is read when it is first asked for."""
    return cast("TailKind", import_module(f"hardkeel.tail.kinds.{name}").KIND)


def kind_of(surface: TailSurface) -> TailKind:
    """How a surface is built.

    Raises
    ------
    BadInput
        When nobody has said yet.
    """
    if surface.kind is None:
        raise BadInput(f"tail {surface.id}.kind", "is missing")
    return kind_named(surface.kind)


def has(surface: TailSurface | None, trait: Trait) -> bool:
    """Whether a surface has something; one of which nobody has said how it is built has nothing."""
    return surface is not None and surface.kind is not None and trait in kind_of(surface).has
