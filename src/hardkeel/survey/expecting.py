"""What a reading should show before it is taken, so that a figure far from it is asked about."""

import math
from dataclasses import dataclass
from typing import Final

from hardkeel.survey.adjusting import Solution
from hardkeel.survey.network import Network
from hardkeel.survey.readings import ANGULAR, Reading, sigma_of

_BAND: Final = 4.0  # sigmas of what is expected: outside lies one good reading in sixteen thousand
_WIDEST_MM, _WIDEST_DEGREES = 100.0, 12.0  # a band wider than this says nothing to anyone


@dataclass(frozen=True, slots=True)
class Expected:
    """A reading's value as the estimate has it, and how far a good one may be off; mm or degrees."""

    value: float
    band: float

    @property
    def tells(self) -> bool:
        """Whether the band is narrow enough to be worth saying."""
        return math.isfinite(self.band)

    def holds(self, value: float) -> bool:
        """Whether a figure lies within the band."""
        return abs(value - self.value) <= self.band


def expected_of(net: Network, solution: Solution, reading: Reading) -> Expected:
    """What is expected: the prediction, and four times √(σ² + j·C·jᵀ)."""
    values, slopes = net.observer([reading]).predict(solution.unknowns, solution.placed)
    spread = float(slopes[0] @ solution.covariance @ slopes[0])
    band = _BAND * math.sqrt(sigma_of(reading) ** 2 + max(spread, 0.0))
    widest = _WIDEST_DEGREES if reading.kind in ANGULAR else _WIDEST_MM
    return Expected(float(values[0]), band if band <= widest else math.inf)
