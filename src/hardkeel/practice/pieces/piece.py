"""A piece of work on the board: what may be wrong with it, what can be read of it, and what is asked.

A kind says by two functions what its readings show and what its questions really are, both of the same unknowns and
exact; how one goes with the other is their slope, taken by differences.  What may hide behind a reading without being
asked (the board's own hollow, a sheet cut long) is an unknown, too.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array

Tool = Literal["rule", "tape", "thread", "square", "feeler", "calliper", "shim"]
Role = Literal["wood", "line", "board"]
_STEP: Final = 1e-4  # mm


@dataclass(frozen=True, slots=True)
class Look:
    """A reading that can be taken, mm.

    Attributes
    ----------
    minutes : float
        That it takes.
    sigma : float
        Of its noise, mm.
    at : tuple of (u, v)
        Where it is held in the sketch, mm: a line, or one place.
    """

    id: str
    tool: Tool
    minutes: float
    sigma: float
    at: tuple[Point2, ...]


@dataclass(frozen=True, slots=True)
class Asked:
    """A question, mm.

    Attributes
    ----------
    target : float
        What the drawing wants.
    tolerance : float
        How far from it still is as drawn.
    """

    id: str
    tolerance: float
    target: float = 0.0


@dataclass(frozen=True, slots=True)
class Believed:
    """How a learner goes about it who lacks the kind's idea.

    Attributes
    ----------
    looks : tuple of str
        What he reads.
    causes : tuple of mapping of str to float
        What he holds for possible: each the unknowns that go with one figure of his.
    """

    looks: tuple[str, ...]
    causes: tuple[Mapping[str, float], ...]


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line of the sketch, mm; v upwards."""

    role: Role
    points: tuple[Point2, ...]


@dataclass(frozen=True)
class Piece:
    """One kind in one size.

    Attributes
    ----------
    unknowns : mapping of str to float
        One sigma of what each may be before anything was read, mm.
    shows : callable
        What all looks show by perfect tools, shape (looks,), of the unknowns, shape (unknowns,).
    is_so : callable
        What all questions are, shape (asked,), of the same.
    stories : mapping of str to tuple of str
        What may be wrong: by story the unknowns that make it.
    last : str
        The story that who lacks the idea does not tell.
    believed : Believed
        How one goes about it who lacks it.
    drawn : callable
        The sketch of the unknowns.
    pot_life : float or None
        Minutes until it sets, where it is wet.
    whole : tuple of str
        Unknowns that are nothing or the whole of their sigma: a doubler on the wrong face.
    one_way : mapping of str to int
        Unknowns that do harm one way only, with its sign.
    """

    kind: str
    unknowns: Mapping[str, float]
    looks: tuple[Look, ...]
    asked: tuple[Asked, ...]
    shows: Callable[[Array], Array]
    is_so: Callable[[Array], Array]
    stories: Mapping[str, tuple[str, ...]]
    last: str
    believed: Believed
    drawn: Callable[[Array], tuple[Stroke, ...]]
    pot_life: float | None = None
    whole: tuple[str, ...] = ()
    one_way: Mapping[str, int] = field(default_factory=dict)

    @property
    def priors(self) -> Array:
        """One sigma of each unknown, shape (unknowns,)."""
        return np.array(list(self.unknowns.values()))

    @property
    def if_true(self) -> Array:
        """What the looks would show of a piece as drawn, shape (looks,)."""
        return self.shows(np.zeros(len(self.unknowns)))

    def look(self, look_id: str) -> int:
        """The number of a look."""
        return next(i for i, one in enumerate(self.looks) if one.id == look_id)

    def at(self, unknown: str) -> int:
        """The number of an unknown."""
        return list(self.unknowns).index(unknown)


def slopes_of(function: Callable[[Array], Array], at: Array) -> Array:
    """How a function's values go with the unknowns, shape (values, unknowns), by central differences."""
    columns = []
    for i in range(len(at)):
        step = np.zeros(len(at))
        step[i] = _STEP
        columns.append((function(at + step) - function(at - step)) / (2 * _STEP))
    return np.array(columns).T
