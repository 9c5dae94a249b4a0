"""What broken coupons say of a batch: in how many of its joints the wood will fail first, at least."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.glue.model import Batch

Verdict = Literal["untried", "good", "doubtful", "bad"]
SURE: Final = 0.95
_GOOD: Final = 0.5  # at least every other joint stronger than its wood, with 95 %
_STEPS: Final = 60


@dataclass(frozen=True, slots=True)
class BatchVerdict:
    """A verdict from the count.

    Attributes
    ----------
    tried, held : int
        Coupons, and those whose wood broke.
    at_least : float
        Share of joints that are stronger than their wood, with 95 % confidence at least.
    soft : bool
        A coupon's glue was still soft: the ratio or the time, not the joint.
    """

    verdict: Verdict
    tried: int
    held: int
    at_least: float
    soft: bool


def verdict_on(batch: Batch) -> BatchVerdict:
    """By the exact lower binomial bound (C. J. Clopper, E. S. Pearson, Biometrika 26 (1934) 404)."""
    tried = len(batch.coupons)
    held = sum(one.broke == "wood" for one in batch.coupons)
    soft = any(one.broke == "soft" for one in batch.coupons)
    if not tried:
        return BatchVerdict("untried", 0, 0, 0.0, soft=False)
    least = at_least(held, tried)
    if held < tried:
        verdict: Verdict = "bad"
    else:
        verdict = "good" if least >= _GOOD else "doubtful"
    return BatchVerdict(verdict, tried, held, least, soft)


def at_least(held: int, tried: int) -> float:
    """The least share with which so many of so many would still be seen in one of twenty trials."""
    if held == 0:
        return 0.0
    low, high = 0.0, 1.0
    for _ in range(_STEPS):
        share = (low + high) / 2
        if _or_more(held, tried, share) < 1 - SURE:
            low = share
        else:
            high = share
    return (low + high) / 2


def _or_more(held: int, tried: int, share: float) -> float:
    """Probability of as many or more."""
    return sum(
        math.comb(tried, k) * share**k * (1 - share) ** (tried - k) for k in range(held, tried + 1)
    )
