"""The builder's own pace: the posterior against one by brute integration, and hours to go against many drawn builds."""

import math

import numpy as np
import pytest

from hardkeel.messages.diary import to_go_words
from hardkeel.schedule.model import Step
from hardkeel.schedule.pace import ONE_SIGMA, PRIOR_SIGMA, kind_of, paces, to_go


def timed(*ratios: float) -> tuple[Step, ...]:
    return tuple(
        Step(id=f"t{i}", hands_minutes=30.0, took=30.0 * ratio, state="done")
        for i, ratio in enumerate(ratios)
    )


@pytest.mark.parametrize("ratios", [(), (2.0,), (1.5, 0.8, 2.2), (0.5,) * 8])
def test_the_factor_is_the_posterior_by_brute_integration(ratios: tuple[float, ...]) -> None:
    at = np.linspace(-4, 4, 40_001)
    weight = np.exp(-(at**2) / (2 * PRIOR_SIGMA**2))
    for ratio in ratios:
        weight *= np.exp(-((math.log(ratio) - at) ** 2) / (2 * ONE_SIGMA**2))
    weight /= weight.sum()
    mean = float((at * weight).sum())
    sigma = math.sqrt(float(((at - mean) ** 2 * weight).sum()))
    found = paces(timed(*ratios))["cut"]
    assert found.mean == pytest.approx(mean, abs=1e-6)
    assert found.sigma == pytest.approx(sigma, rel=1e-4)
    assert found.count == len(ratios)


def test_hours_to_go_and_their_spread_are_those_of_many_drawn_builds() -> None:
    left = tuple(Step(id=f"s{i}", hands_minutes=float(m)) for i, m in enumerate((20, 40, 60, 30)))
    left += tuple(Step(id=f"g{i}", hands_minutes=25.0, glue="aliphatic") for i in range(3))
    steps = (*timed(1.4, 1.9, 1.6), *left)
    found = to_go(steps)
    rng = np.random.default_rng(8)
    known = paces(steps)
    hours = np.zeros(200_000)
    factor = {kind: rng.normal(p.mean, p.sigma, len(hours)) for kind, p in known.items()}
    for step in left:
        own = rng.normal(0, ONE_SIGMA, len(hours))
        hours += step.hands_minutes / 60 * np.exp(factor[kind_of(step)] + own)
    assert found.hours == pytest.approx(hours.mean(), rel=0.01)
    assert found.sigma == pytest.approx(hours.std(), rel=0.03)


def test_what_was_slow_makes_the_rest_longer_and_done_steps_are_none_of_it() -> None:
    left = (Step(id="a", hands_minutes=60.0), Step(id="b", hands_minutes=60.0, state="done"))
    usual, slow = to_go(left), to_go((*timed(2.0, 2.0, 2.0), *left))
    assert slow.hours > usual.hours
    assert not usual.own
    assert slow.own
    assert "at your own pace (3 steps timed)" in to_go_words(slow)
    assert to_go_words(to_go(timed(1.0))) == ""
