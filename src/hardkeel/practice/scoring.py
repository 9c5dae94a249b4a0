"""What each asked check of an exercise really is."""

from dataclasses import dataclass

from hardkeel.practice.exercise import Exercise


@dataclass(frozen=True, slots=True)
class Line:
    """One asked check.

    Attributes
    ----------
    value : float
        What it really is, mm or degrees.
    is_out : bool
        Whether it is beyond its tolerance.
    """

    check: str
    value: float
    is_out: bool


def asked_truly(exercise: Exercise) -> tuple[Line, ...]:
    """All that was asked, in the checks' order."""
    return tuple(
        Line(check, exercise.value_of(check), exercise.is_out(check))
        for check in exercise.section.asked
    )
