"""The print audit: which cause makes the measured pairs most probable.

Each cause is a linear model of (measured − plan) with a prior spread for its figure, the spread a
builder would expect; its marginal likelihood is Gaussian in closed form (e.g. C. E. Rasmussen and
C. K. I. Williams, "Gaussian Processes for Machine Learning", MIT Press 2006, §2.7), so a cause that
could explain anything pays for it.  One pair among them may be plainly wrong: the sum over which one
it is, or none, is taken exactly.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.paper.model import Direction, Pair, PairKind

Cause = Literal["right", "scale", "scale-xy", "constant", "development", "one-part", "undecided"]
NAMED_FROM: Final = 0.8  # the contract's probability from which a cause is named
CAUSES: Final[tuple[Cause, ...]] = (
    "right",
    "scale",
    "scale-xy",
    "constant",
    "development",
    "one-part",
)

# What a builder would expect, one sigma: a print off by two or three in a hundred, a skin of a few
# mm, a bend that adds about one in a hundred, a bad part several mm out.
SCALE_SPREAD: Final = 0.025
CONSTANT_SPREAD_MM: Final = 3.0
DEVELOPMENT_SPREAD: Final = 0.015
PART_SPREAD_MM: Final = 6.0
WRONG_SPREAD_MM: Final = 8.0
WRONG_SHARE: Final = 0.015  # of pairs measured or noted plainly wrong
RIGHT_SHARE: Final = 2.0  # most sheets are right: twice as many as have any one fault

_Rows = tuple[Pair, ...]


@dataclass(frozen=True, slots=True)
class NextPair:
    """A further dimension that would decide.

    Attributes
    ----------
    cause_a, cause_b
        The two that it tells apart.
    part : str or None
        Whose dimension, where that matters.
    apart : float
        How many sigmas apart the two expect it.
    """

    direction: Direction
    kind: PairKind
    part: str | None
    cause_a: Cause
    cause_b: Cause
    apart: float


@dataclass(frozen=True, slots=True)
class Finding:
    """What an audit found of one sheet.

    Attributes
    ----------
    cause : str
        The named one, or ``undecided``.
    leading : str
        The most probable cause, whether or not it is named.
    probability : float
        Of the leading cause.
    factor, factor_sigma
        Of ``scale`` and ``development``; `factor_x`, `factor_y` of ``scale-xy``; `constant` in mm.
    wrong : int or None
        Number of the pair that does not fit the named cause, if one is more likely wrong than not.
    fitted : tuple of float
        What the leading cause makes of each plan dimension, mm.
    """

    cause: Cause
    leading: Cause
    probability: float
    probabilities: dict[Cause, float]
    factor: float | None
    factor_sigma: float | None
    factor_x: float | None
    factor_y: float | None
    constant: float | None
    constant_sigma: float | None
    part: str | None
    wrong: int | None
    fitted: tuple[float, ...]
    next: NextPair | None


@dataclass(frozen=True, slots=True)
class _Model:
    """A cause as (measured − plan) = A θ + noise, θ ~ N(0, spread²); `positive`: θ₀ > 0 only."""

    cause: Cause
    design: Array
    spread: Array
    positive: bool = False
    part: str | None = None
    share: float = 1.0


@dataclass(frozen=True, slots=True)
class _Fit:
    model: _Model
    log_evidence: float
    wrong: Array  # probability of each pair to be the wrong one
    mean: Array
    covariance: Array


def audit(pairs: Sequence[Pair]) -> Finding:
    """Decide between the causes.

    Parameters
    ----------
    pairs : sequence of Pair
        Lengths in mm.

    Returns
    -------
    Finding
        ``undecided`` where no cause reaches a probability of `NAMED_FROM`.
    """
    return _audit(tuple(pairs))


@lru_cache(maxsize=64)
def _audit(rows: _Rows) -> Finding:
    fitted = [_fit(model, rows) for model in _models(rows)]
    weights = np.array([fit.log_evidence + math.log(fit.model.share) for fit in fitted])
    weights = np.exp(weights - weights.max())
    weights /= weights.sum()
    chances: dict[Cause, float] = dict.fromkeys(CAUSES, 0.0)
    for fit, weight in zip(fitted, weights, strict=True):
        chances[fit.model.cause] += float(weight)
    leading = max(CAUSES, key=lambda cause: chances[cause])
    best = _best_of(fitted, weights, leading)
    named = chances[leading] >= NAMED_FROM
    offsets = best.model.design @ best.mean if len(best.mean) else np.zeros(len(rows))
    wrong = int(np.argmax(best.wrong)) if len(rows) and best.wrong.max() > 0.5 else None  # noqa: PLR2004  likelier than not
    figures = _figures(best) if named else {}
    return Finding(
        cause=leading if named else "undecided",
        leading=leading,
        probability=chances[leading],
        probabilities=chances,
        factor=figures.get("factor"),
        factor_sigma=figures.get("factor_sigma"),
        factor_x=figures.get("factor_x"),
        factor_y=figures.get("factor_y"),
        constant=figures.get("constant"),
        constant_sigma=figures.get("constant_sigma"),
        part=best.model.part if named else None,
        wrong=wrong,
        fitted=tuple(pair.plan + float(offset) for pair, offset in zip(rows, offsets, strict=True)),
        next=None if named else _deciding(rows, fitted, weights, chances),
    )


def _best_of(fitted: list[_Fit], weights: Array, cause: Cause) -> _Fit:
    rows = [i for i, fit in enumerate(fitted) if fit.model.cause == cause]
    return fitted[max(rows, key=lambda i: weights[i])]


def _models(rows: _Rows) -> list[_Model]:
    n = len(rows)
    spreads: dict[Cause, tuple[float, ...]] = {
        "right": (),
        "scale": (SCALE_SPREAD,),
        "scale-xy": (SCALE_SPREAD, SCALE_SPREAD),
        "constant": (CONSTANT_SPREAD_MM,),
        "development": (DEVELOPMENT_SPREAD,),
    }
    models = [
        _Model(
            cause,
            np.array([_row(cause, pair) for pair in rows]).reshape(n, len(spread)),
            np.array(spread),
            positive=cause == "development",
            share=RIGHT_SHARE if cause == "right" else 1.0,
        )
        for cause, spread in spreads.items()
    ]
    parts = sorted({pair.part for pair in rows if pair.part is not None})
    for part in parts:
        own = [i for i, pair in enumerate(rows) if pair.part == part]
        design = np.zeros((n, len(own)))
        design[own, range(len(own))] = 1.0
        models.append(
            _Model(
                "one-part",
                design,
                np.full(len(own), PART_SPREAD_MM),
                part=part,
                share=1.0 / len(parts),
            )
        )
    return models


def _fit(model: _Model, rows: _Rows) -> _Fit:
    """Evidence of a model, and its figures, over "no pair wrong" and "pair i wrong"."""
    n = len(rows)
    off = np.array([pair.measured - pair.plan for pair in rows])
    noise = np.array([pair.sigma for pair in rows]) ** 2
    prior = model.design @ np.diag(model.spread**2) @ model.design.T
    logs, means, covariances = [], [], []
    for wrong in range(-1, n):
        spread = noise.copy()
        chance = n * math.log1p(-WRONG_SHARE)
        if wrong >= 0:
            spread[wrong] += WRONG_SPREAD_MM**2
            chance += math.log(WRONG_SHARE) - math.log1p(-WRONG_SHARE)
        mean, covariance = _posterior(model, off, spread)
        log = _log_normal(off, prior + np.diag(spread)) + chance
        if model.positive and len(mean):
            log += math.log(2) + _log_above_zero(float(mean[0]), float(covariance[0, 0]) ** 0.5)
        logs.append(log)
        means.append(mean)
        covariances.append(covariance)
    peak = max(logs)
    shares = np.exp(np.array(logs) - peak)
    total = float(shares.sum())
    best = int(np.argmax(shares))
    return _Fit(model, peak + math.log(total), shares[1:] / total, means[best], covariances[best])


def _posterior(model: _Model, off: Array, spread: Array) -> tuple[Array, Array]:
    if not len(model.spread):
        return np.zeros(0), np.zeros((0, 0))
    weighted = model.design.T / spread
    normal = weighted @ model.design + np.diag(1 / model.spread**2)
    covariance = np.asarray(np.linalg.inv(normal), dtype=np.float64)
    return covariance @ (weighted @ off), covariance


def _log_normal(off: Array, covariance: Array) -> float:
    if not len(off):
        return 0.0
    root = np.linalg.cholesky(covariance)
    white = np.linalg.solve(root, off)
    return float(
        -0.5 * white @ white - np.log(np.diag(root)).sum() - 0.5 * len(off) * math.log(2 * math.pi)
    )


def _log_above_zero(mean: float, sigma: float) -> float:
    """Log of the chance that a normal variable lies above zero; bounded far below."""
    return math.log(max(0.5 * math.erfc(-mean / sigma / math.sqrt(2)), 1e-300))


def _figures(fit: _Fit) -> dict[str, float]:
    cause, mean = fit.model.cause, fit.mean
    sigma = np.sqrt(np.diag(fit.covariance))
    match cause:
        case "scale" | "development":
            return {"factor": 1 + float(mean[0]), "factor_sigma": float(sigma[0])}
        case "scale-xy":
            return {"factor_x": 1 + float(mean[0]), "factor_y": 1 + float(mean[1])}
        case "constant":
            return {"constant": float(mean[0]), "constant_sigma": float(sigma[0])}
        case _:
            return {}


def _deciding(
    rows: _Rows, fitted: list[_Fit], weights: Array, chances: dict[Cause, float]
) -> NextPair | None:
    """The further dimension on which the two likeliest causes differ most."""
    first, second = sorted(CAUSES, key=lambda cause: -chances[cause])[:2]
    a, b = _best_of(fitted, weights, first), _best_of(fitted, weights, second)
    outliers = [m.model.part for m in (a, b) if m.model.part is not None]
    parts = [*outliers, None]
    length = max((pair.plan for pair in rows), default=300.0)
    best: NextPair | None = None
    directions: tuple[Direction, ...] = ("x", "y")
    kinds: tuple[PairKind, ...] = ("outline", "spacing", "bent-length")
    for direction in directions:
        for kind in kinds:
            for part in parts:
                pair = Pair(part=part, direction=direction, kind=kind, plan=length, measured=length)
                (mean_a, var_a), (mean_b, var_b) = _expected(a, pair), _expected(b, pair)
                apart = abs(mean_a - mean_b) / math.sqrt(pair.sigma**2 + var_a + var_b)
                # where both expect the same, one that expects it more loosely still tells
                apart = max(
                    apart, abs(math.log((pair.sigma**2 + var_a) / (pair.sigma**2 + var_b))) / 2
                )
                if best is None or apart > best.apart + 1e-9:
                    best = NextPair(direction, kind, part, first, second, apart)
    return best


def _expected(fit: _Fit, pair: Pair) -> tuple[float, float]:
    """Mean and variance of (measured − plan) that a cause expects of a further pair."""
    if fit.model.cause == "one-part":
        return 0.0, PART_SPREAD_MM**2 if pair.part == fit.model.part else 0.0
    row = np.array(_row(fit.model.cause, pair))
    return float(row @ fit.mean), float(row @ fit.covariance @ row)


def _row(cause: Cause, pair: Pair) -> list[float]:
    """What a pair is off by, for one of each of the cause's figures."""
    match cause:
        case "scale":
            return [pair.plan]
        case "scale-xy":
            return [pair.plan, 0.0] if pair.direction == "x" else [0.0, pair.plan]
        case "constant":
            return [1.0 if pair.kind == "outline" else 0.0]
        case "development":
            return [pair.plan if pair.kind == "bent-length" else 0.0]
        case _:
            return []
