"""Wings, masses and the balance section, as the file holds them: mm, degrees, grams."""

import math
from itertools import pairwise
from typing import Annotated

from pydantic import Field

from hardkeel.base.errors import BadInput
from hardkeel.base.values import (
    Chord,
    ChordOrZero,
    Dihedral,
    Incidence,
    NotNegative,
    Positive,
    Size,
    Span,
    Station,
    Sweep,
    Text,
    Upward,
    Usual,
    Value,
)

_SAME_MM = 1e-6
# a foreplane's neutral point lies ahead of its wing; of others nobody flies one behind 40 % twice
_Percent = Annotated[float, Field(ge=-100, le=200, allow_inf_nan=False), Usual(15, 42, "%")]
_PackSide = Annotated[Size, Usual(3, 400)]


class Break(Value):
    """Where a wing's panels meet: from `y` mm beside the middle outwards it has a dihedral of its own, degrees.

    Attributes
    ----------
    sweep : float, optional
        How far aft the panel's outer end of its leading edge lies of the inner one, mm; without it the wing's own
        `sweep_le` goes on over it.
    comes_off : bool
        What is outside is set on a joiner and taken off: a body of its own in the survey.
    """

    y: Size
    dihedral: Dihedral
    sweep: Sweep | None = None
    comes_off: bool = False


class Wing(Value):
    """A straight-tapered wing, mm and degrees.

    Attributes
    ----------
    breaks : tuple of Break
        From the middle outwards; both halves alike.  Our own key.
    seat_width : float, optional
        Across its seat; without it the wing rests on the middle of both sides' edges.  Our own key.
    profile : str, optional
        Its section: a coordinate file beside the build, or one that comes with the app.  Our own key.
    """

    id: Text
    le_x: Station
    z: Upward = 0.0
    span: Span
    root_chord: Chord
    tip_chord: ChordOrZero
    sweep_le: Sweep = 0.0
    dihedral: Dihedral = 0.0
    incidence: Incidence = 0.0
    seat_width: Size | None = None
    profile: Text | None = None
    breaks: tuple[Break, ...] = ()

    def height(self, y: float) -> float:
        """How far its panels rise at |y| mm beside the middle over the root, mm."""
        return risen(self.dihedral, self.breaks, y)

    def aft(self, y: float) -> float:
        """How far aft the leading edge lies at |y| mm beside the middle of where it begins, mm."""
        return swept(self.sweep_le, self.span / 2, self.breaks, y)


def swept(sweep: float, half: float, breaks: tuple[Break, ...], y: float) -> float:
    """How far aft a leading edge runs from the middle to |y|, mm: panel by panel, each straight.

    Parameters
    ----------
    sweep : float
        At the tip of the half span `half`, mm, where no panel has one of its own.
    """
    out = abs(y)
    if all(one.sweep is None for one in breaks):
        return sweep * (out / half)
    edges = (0.0, *(one.y for one in breaks), half)
    owns = (None, *(one.sweep for one in breaks))
    aft = 0.0
    for own, (start, end) in zip(owns, pairwise(edges), strict=True):
        over = sweep * (end - start) / half if own is None else own
        aft += over * max(min(out, end) - start, 0.0) / (end - start)
    return aft


def risen(dihedral: float, breaks: tuple[Break, ...], y: float) -> float:
    """How far panels rise from the middle to |y|, mm: each by its own dihedral over its own stretch."""
    edges = [0.0, *(one.y for one in breaks), abs(y)]
    angles = [dihedral, *(one.dihedral for one in breaks)]
    rises = 0.0
    for i, angle in enumerate(angles):
        start, end = edges[i], min(edges[i + 1] if i + 1 < len(angles) else abs(y), abs(y))
        if end > start:
            rises += (end - start) * math.tan(math.radians(angle))
    return rises


class Mass(Value):
    """Something with a weight at a station, grams and mm.

    Attributes
    ----------
    weighed : bool
        On a scale, not estimated.
    """

    id: Text
    mass: Annotated[NotNegative, Usual(0, 25_000, "g")]
    x: Station
    weighed: bool = False


class Battery(Value):
    """The pack; `between` is where its middle may sit, mm.

    Attributes
    ----------
    size : tuple of float, optional
        Length, width, height, mm; our own key.
    """

    id: Text = "pack"
    mass: Annotated[Positive, Usual(2, 8000, "g")]
    between: tuple[Station, Station] | None = None
    size: tuple[_PackSide, _PackSide, _PackSide] | None = None

    @property
    def length(self) -> float:
        """Along the fuselage, mm; 0 where it is not known."""
        return self.size[0] if self.size is not None else 0.0

    @property
    def bay(self) -> tuple[float, float] | None:
        """The ends of its bay: half its length before and behind where its middle may sit, mm."""
        if self.between is None:
            return None
        return self.between[0] - self.length / 2, self.between[1] + self.length / 2

    def in_bay(self, front: float, rear: float) -> "Battery":
        """The same pack in a bay with these ends, mm.

        Raises
        ------
        BadInput
            When it is longer than the bay.
        """
        if rear - front < self.length - _SAME_MM:
            raise BadInput(
                "", f"the bay is {self.length - rear + front:.1f} mm shorter than the pack"
            )
        middle = (front + rear) / 2
        first, last = front + self.length / 2, rear - self.length / 2
        return self.but(between=(min(first, middle), max(last, middle)))


class Hatch(Value):
    """An opening for the pack: `between` along the fuselage and `width` across, mm; our own key."""

    id: Text
    between: tuple[Station, Station]
    width: Annotated[Size, Usual(5, 500)]


class Balance(Value):
    """Where the model shall balance, and what there is to bring it there."""

    target_percent: _Percent | None = None
    target_x: Station | None = None
    battery: Battery | None = None
    nose_weight_x: Station | None = None
    hatches: tuple[Hatch, ...] = ()
