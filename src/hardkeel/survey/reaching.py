"""What an angle means in millimetres at the tip or the edge where a builder sees it."""

import math
from typing import Final

from hardkeel.survey.checking import Check
from hardkeel.survey.model import Survey

_AT_TIP: Final = frozenset(
    {"roll", "yaw", "roll_to_wing", "vee_yaw", "vee_tilt", "vee_angle", "down", "side"}
)
_AT_EDGE: Final = frozenset(
    {"incidence", "decalage", "twist_difference", "fin_yaw", "fins_toe", "vee_incidence_difference"}
)


def error_at_reach_mm(survey: Survey, check: Check) -> float | None:
    """A check's error as mm at its body's tip (roll, yaw) or over its chord; ``None`` if unknown.

    The arm is half the span for roll and yaw, the chord for incidence, twist and a fin's yaw, the
    height (half a fin's nominal span is not known here, so its whole span) for a fin's lean.
    """
    if check.unit == "mm":
        return check.error
    arm = _arm(survey, check)
    return None if arm is None else arm * math.sin(math.radians(check.error))


def error_from_reach(survey: Survey, check: Check, mm: float) -> float | None:
    """The error, mm or degrees, that is so many mm at a check's reach; ``None`` where that is unknown or longer than it."""
    if check.unit == "mm":
        return mm
    arm = _arm(survey, check)
    return math.degrees(math.asin(mm / arm)) if arm and abs(mm) <= arm else None


def _arm(survey: Survey, check: Check) -> float | None:
    body = survey.body(check.body)
    if body is None:
        return None
    if check.kind in _AT_TIP:
        return body.span / 2 if body.span else None
    return body.chord if check.kind in _AT_EDGE else body.span
