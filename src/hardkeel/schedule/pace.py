"""How fast this builder works beside the guess: each kind of step has a factor, learned from what was timed.

The logarithm of (time taken / minutes guessed) is normal about the logarithm of the factor.  Beforehand the factor is
1, one sigma a factor of 1.5; one timing has a scatter of a factor of 1.6.  Both are by experience; with every timing
the posterior (normal, known variance) moves on: precision adds up.  Hours to go are the sum over kinds of minutes
times the factor's mean, with the factor's spread common to all steps of a kind and each step's own scatter beside it.
"""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.schedule.model import Step

WorkKind = Literal["glue", "set", "cut"]
PRIOR_SIGMA: Final = math.log(1.5)
ONE_SIGMA: Final = math.log(1.6)
_FEWEST: Final = 3  # timings before it is said that the pace is the builder's own


@dataclass(frozen=True, slots=True)
class Pace:
    """The factor of one kind of work: mean and sigma of its logarithm, and how many were timed."""

    mean: float
    sigma: float
    count: int

    @property
    def factor(self) -> float:
        """How many times the guess it takes, in the median."""
        return math.exp(self.mean)


@dataclass(frozen=True, slots=True)
class ToGo:
    """Hours of hands that are still to come, and one sigma of it."""

    hours: float
    sigma: float
    timed: int

    @property
    def own(self) -> bool:
        """Whether enough was timed to call it the builder's own pace."""
        return self.timed >= _FEWEST


def kind_of(step: Step) -> WorkKind:
    """Gluing, setting and reading, or all that is cut and shaped."""
    if step.glue:
        return "glue"
    return "set" if step.stage == "true" or step.looks or step.hold else "cut"


def paces(steps: Iterable[Step]) -> dict[WorkKind, Pace]:
    """The factor of each kind from the steps that were timed."""
    logs: dict[WorkKind, list[float]] = defaultdict(list)
    for step in steps:
        if step.took and step.hands_minutes:
            logs[kind_of(step)].append(math.log(step.took / step.hands_minutes))
    kinds: tuple[WorkKind, ...] = ("glue", "set", "cut")
    return {kind: _pace(logs[kind]) for kind in kinds}


def _pace(logs: Sequence[float]) -> Pace:
    precision = 1 / PRIOR_SIGMA**2 + len(logs) / ONE_SIGMA**2
    mean = sum(logs) / ONE_SIGMA**2 / precision
    return Pace(mean, math.sqrt(1 / precision), len(logs))


def to_go(steps: Sequence[Step]) -> ToGo:
    """Hours of hands for the open steps, at this builder's pace."""
    known = paces(steps)
    hours = variance = 0.0
    by_kind: dict[WorkKind, float] = defaultdict(float)
    scatter = math.exp(ONE_SIGMA**2) - 1
    for step in steps:
        if step.state != "open":
            continue
        pace = known[kind_of(step)]
        mean = step.hands_minutes / 60 * math.exp(pace.mean + (pace.sigma**2 + ONE_SIGMA**2) / 2)
        hours += mean
        by_kind[kind_of(step)] += mean
        variance += mean**2 * scatter
    for kind, mean in by_kind.items():
        variance += mean**2 * (math.exp(known[kind].sigma ** 2) - 1)
    return ToGo(hours, math.sqrt(variance), sum(pace.count for pace in known.values()))
