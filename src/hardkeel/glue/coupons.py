"""What broken coupons say of a batch: in how many of its joints the wood will fail first, at least."""

import math
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final, Literal

from hardkeel.glue.kinds import KINDS, WARM, times_of
from hardkeel.glue.model import PREPARATIONS, Batch, Bottle, Coupon, Preparation

Verdict = Literal["untried", "good", "doubtful", "bad"]
SURE: Final = 0.95
_GOOD: Final = 0.5  # at least every other joint stronger than its wood, with 95 %
_STEPS: Final = 60
_ROUNDED_HOURS: Final = 0.02  # a minute


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
        A coupon's glue was still soft though it had its time: the ratio, not the joint.
    let_go : int
        Coupons that broke along the glue.
    early : int
        Broken before the glue was through: they count for nothing.
    """

    verdict: Verdict
    tried: int
    held: int
    at_least: float
    soft: bool
    let_go: int = 0
    early: int = 0


def through(batch: Batch, bottle: Bottle | None = None) -> datetime:
    """From when its coupons may be judged: the full hour in which it is through, by the bottle or its kind, at its warmth."""
    celsius = batch.temperature if batch.temperature is not None else WARM
    minutes = times_of(KINDS[batch.kind], bottle, celsius).cure
    exactly = datetime.fromisoformat(batch.mixed) + timedelta(minutes=minutes)
    hour = exactly.replace(minute=0, second=0, microsecond=0)
    return hour if hour == exactly else hour + timedelta(hours=1)


def verdict_on(batch: Batch, bottle: Bottle | None = None) -> BatchVerdict:
    """By the exact lower binomial bound (C. J. Clopper, E. S. Pearson, Biometrika 26 (1934) 404).

    What was broken before the glue was through counts for nothing.
    """
    ripe = [one for one in batch.coupons if _is_ripe(one, batch, bottle)]
    early = len(batch.coupons) - len(ripe)
    tried = len(ripe)
    held = sum(one.broke == "wood" for one in ripe)
    let_go = sum(one.broke == "joint" for one in ripe)
    soft = any(one.broke == "soft" for one in ripe)
    if not tried:
        return BatchVerdict("untried", 0, 0, 0.0, soft=False, early=early)
    least = at_least(held, tried)
    if held < tried:
        verdict: Verdict = "bad"
    else:
        verdict = "good" if least >= _GOOD else "doubtful"
    return BatchVerdict(verdict, tried, held, least, soft, let_go, early)


def by_preparation(
    batch: Batch, bottle: Bottle | None = None
) -> tuple[tuple[Preparation, BatchVerdict], ...]:
    """The same for each way in which faces were prepared, of which something was broken; what is not said is left out."""
    found = []
    for way in PREPARATIONS:
        mine = tuple(one for one in batch.coupons if one.prepared == way)
        if mine:
            found.append((way, verdict_on(batch.but(coupons=mine), bottle)))
    return tuple(found)


def _is_ripe(coupon: Coupon, batch: Batch, bottle: Bottle | None) -> bool:
    age = through(batch, bottle) - datetime.fromisoformat(batch.mixed)
    return coupon.age_hours >= age.total_seconds() / 3600 - _ROUNDED_HOURS


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
