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
    body = survey.body(check.body)
    if body is None:
        return None
    if check.kind in _AT_TIP:
        arm = body.span / 2 if body.span else None
    elif check.kind in _AT_EDGE:
        arm = body.chord
    else:
        arm = body.span
    return None if arm is None else arm * math.sin(math.radians(check.error))
