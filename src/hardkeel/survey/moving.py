"""What moved between two phases: before glue, while it is wet, when it has cured."""

import math
from dataclasses import dataclass
from typing import Final

from hardkeel.survey.judging import Judgement

_NOTICEABLE: Final = 2.0  # sigmas


@dataclass(frozen=True, slots=True)
class Movement:
    """How far one check's value moved from an earlier phase to a later one, degrees or mm."""

    check: str
    unit: str
    moved: float
    sigma: float

    @property
    def noticeable(self) -> bool:
        """Whether the movement is more than the readings' own doubt."""
        return abs(self.moved) > _NOTICEABLE * self.sigma


def movements(before: Judgement, after: Judgement) -> tuple[Movement, ...]:
    """Differences of all checks, after − before; the two sets of readings are independent."""
    earlier = {check.id: check for check in before.checks}
    return tuple(
        Movement(
            check.id,
            check.unit,
            check.value - earlier[check.id].value,
            math.hypot(check.sigma, earlier[check.id].sigma),
        )
        for check in after.checks
        if check.id in earlier
    )
