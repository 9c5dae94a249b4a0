"""A story: what is wrong, with whom it can be told, by how much."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from hardkeel.survey.model import Body, Role, Survey, role_of

CLEARLY: Final = (1.8, 2.8)  # of a tolerance: nobody argues about that
COURSE_ONLY: Final = 9  # the grade of what a course alone tells, on the tools that it has for it


@dataclass(frozen=True)
class Bent:
    """What a story does to a true airframe, mm and degrees.

    Attributes
    ----------
    shared : dict
        By what it is and whose: a gauge's zero, a mark's three shifts.
    bench : dict of str to float
        How the bench leans, where the story says so.
    caught : dict of str to float
        Pins whose lines catch, and what they then show too much, mm.
    """

    bodies: dict[str, dict[str, float]] = field(default_factory=dict)
    shared: dict[tuple[str, str], tuple[float, ...]] = field(default_factory=dict)
    bench: dict[str, float] = field(default_factory=dict)
    caught: dict[str, float] = field(default_factory=dict)


Bend = Callable[[Survey, np.random.Generator], Bent]


@dataclass(frozen=True)
class Story:
    """One of them.

    Attributes
    ----------
    grade : int
        From which on it is told.
    suits : callable
        Whether it can be told of a survey.
    asks : tuple of str
        Kinds of checks that belong to it: one of them at least is asked about.
    puts_out : bool
        Whether it puts one of them out; else it only looks so.
    slips : tuple of int
        The how-manyth readings are misread in any case, by a whole centimetre or some degrees.
    """

    id: str
    grade: int
    suits: Callable[[Survey], bool]
    bend: Bend
    asks: tuple[str, ...]
    puts_out: bool = True
    slips: tuple[int, ...] = ()


def body_with(survey: Survey, *roles: Role) -> Body | None:
    """The first body that has one of these roles."""
    return next((one for one in survey.bodies if role_of(one) in roles), None)


def has(*roles: Role) -> Callable[[Survey], bool]:
    """Whether there is a body of one of these roles."""
    return lambda survey: body_with(survey, *roles) is not None


def either_way(rng: np.random.Generator, tolerance: float) -> float:
    """So much that it is clearly out, one way or the other."""
    return float(rng.choice([-1.0, 1.0]) * rng.uniform(*CLEARLY) * tolerance)
