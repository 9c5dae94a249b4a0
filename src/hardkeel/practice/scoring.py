"""The learner's word held against what is so, and the engine's beside it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from hardkeel.practice.exercise import Exercise

How = Literal["found", "right", "missed", "called out", "not said"]


@dataclass(frozen=True, slots=True)
class Line:
    """One asked check.

    Attributes
    ----------
    is_out : bool
        Whether it is beyond its tolerance.
    said : bool, optional
        Whether the learner called it out; ``None`` where nothing was said.
    value : float
        What it really is, mm or degrees.
    """

    check: str
    value: float
    is_out: bool
    said: bool | None

    @property
    def how(self) -> How:
        """In a word: what is out is found or missed, what is true is rightly left or called out."""
        if self.said is None:
            return "not said"
        if self.is_out:
            return "found" if self.said else "missed"
        return "called out" if self.said else "right"


def scored(exercise: Exercise, said: Mapping[str, bool]) -> tuple[Line, ...]:
    """All that was asked, in the checks' order."""
    return tuple(
        Line(check, exercise.value_of(check), exercise.is_out(check), said.get(check))
        for check in exercise.section.asked
    )
