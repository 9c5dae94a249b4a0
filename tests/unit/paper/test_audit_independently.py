"""The audit against a second implementation: brute integration over each cause's figure."""

import math
from collections.abc import Callable, Sequence

import numpy as np
import pytest

from hardkeel.paper import audit as module
from hardkeel.paper.audit import CAUSES, Cause, audit
from hardkeel.paper.model import Pair
from tests.audits import random_sheet
from tests.draws import draws

_GRID = np.linspace(-6.0, 6.0, 48001)  # sigmas of the prior


def normal(x: np.ndarray, sigma: float) -> np.ndarray:
    return np.asarray(np.exp(-0.5 * (x / sigma) ** 2) / (sigma * math.sqrt(2 * math.pi)))


def robust(pairs: Sequence[Pair], expected: Callable[[Pair], np.ndarray]) -> np.ndarray:
    """Likelihood of all pairs over a grid, none or exactly one of them plainly wrong."""
    good, bad = [], []
    for pair in pairs:
        off = pair.measured - expected(pair)
        good.append(normal(off, pair.sigma))
        bad.append(normal(off, math.hypot(pair.sigma, module.WRONG_SPREAD_MM)))
    share = module.WRONG_SHARE
    whole = np.prod(good, axis=0)
    total = whole * (1 - share) ** len(pairs)
    for i, wrong in enumerate(bad):
        rest = np.prod([g for j, g in enumerate(good) if j != i], axis=0)
        total = total + rest * wrong * share * (1 - share) ** (len(pairs) - 1)
    return np.asarray(total)


def over(
    spread: float, likelihood: Callable[[np.ndarray], np.ndarray], *, positive: bool = False
) -> float:
    """Integral of prior times likelihood; one wrong pair may make several far peaks."""
    values = _GRID * spread
    weight = normal(values, spread) * (2 * (values > 0) if positive else 1)
    return float(np.trapezoid(weight * likelihood(values), values))


def evidence(pairs: Sequence[Pair]) -> dict[Cause, float]:
    """What each one-figure cause makes of the pairs."""
    return {
        "right": float(robust(pairs, lambda p: np.array([p.plan]))[0]) * module.RIGHT_SHARE,
        "scale": over(module.SCALE_SPREAD, lambda s: robust(pairs, lambda p: p.plan * (1 + s))),
        "constant": over(
            module.CONSTANT_SPREAD_MM,
            lambda c: robust(pairs, lambda p: p.plan + (c if p.kind == "outline" else 0 * c)),
        ),
        "development": over(
            module.DEVELOPMENT_SPREAD,
            lambda k: robust(
                pairs, lambda p: p.plan * (1 + (k if p.kind == "bent-length" else 0 * k))
            ),
            positive=True,
        ),
    }


@pytest.mark.parametrize("seed", range(draws(5, 12)))
def test_the_ratios_of_causes_are_those_of_brute_integration(seed: int) -> None:
    rng = np.random.default_rng(seed)
    cause: Cause = ("right", "scale", "constant", "development")[seed % 4]
    # small faults, so that several causes stay in the race
    pairs = tuple(
        pair.but(measured=pair.plan + (pair.measured - pair.plan) * 0.06 + rng.normal() * 0.25)
        for pair in random_sheet(rng, cause, count=6, noise=0.0)
    )
    found = audit(pairs).probabilities
    wanted = evidence(pairs)
    base = max(wanted, key=lambda name: wanted[name])
    for name, value in wanted.items():
        ratio = value / wanted[base]
        if ratio > 1e-4:
            assert found[name] / found[base] == pytest.approx(ratio, rel=0.05), name


def test_named_causes_are_right_as_often_as_they_say() -> None:
    """Of the sheets that are named with 80 to 95 %, most are right."""
    rng = np.random.default_rng(5)
    named, right = 0, 0
    for _ in range(draws(300, 900)):
        cause = CAUSES[rng.integers(len(CAUSES))]
        found = audit(random_sheet(rng, cause, count=5))
        if found.cause != "undecided" and found.probability < 0.95:
            named += 1
            right += found.cause == cause
    assert named > draws(13, 40)
    assert right / named > 0.85


def test_noise_that_is_twice_as_large_makes_it_less_sure_not_wrong() -> None:
    rng = np.random.default_rng(8)
    wrong = 0
    for _ in range(draws(80, 250)):
        cause = CAUSES[rng.integers(len(CAUSES))]
        sheet = tuple(
            p.but(measured=p.measured + rng.normal() * 0.3, sigma=0.45)
            for p in random_sheet(rng, cause)
        )
        found = audit(sheet)
        wrong += found.cause not in (cause, "undecided")
    assert wrong <= 0.04 * 250
