"""No verdict rests on a guess which of two readings is bad: the contract's rule for doubtful readings.

Each set of readings that might be bad is a story with its odds (a reading is bad with probability p and has then
thirteen times its sigma; the marginal likelihood of a linear model).  The story told best and every one that
differs from it by one reading are held against the checks: a verdict stands only where they agree.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution
from hardkeel.survey.checking import Check, CheckRule, verdict_of
from hardkeel.survey.model import Reading, Verdict, sigma_of

_P_BAD: Final = 0.04
_WIDER: Final = 168.0  # 13² − 1: what a bad reading has more of variance, in its own sigma squared
_PRIOR: Final = math.log(_P_BAD / (1 - _P_BAD))
_MOST_CHANGES: Final = 12
_TRUE_WITHIN: Final = math.log(20.0)
_OUT_WITHIN: Final = math.log(50.0)
_EDGE: Final = 0.5  # of the tolerance: 2 sigma within it is as good as known
_RISE: Final = 1e-9


@dataclass(frozen=True, slots=True)
class Doubt:
    """A story that turned verdicts.

    Attributes
    ----------
    bad : tuple of str
        The readings that are bad by it; none where all are good.
    odds : float
        Against the best story's.
    checks : tuple of str
        Whose verdict it turned.
    """

    bad: tuple[str, ...]
    odds: float
    checks: tuple[str, ...]


@dataclass(frozen=True)
class _Linear:
    """The survey about an estimate: misfits e, their cofactor Q, checks' slopes B, values and variances."""

    e: Array
    q: Array
    b: Array
    values: Array
    variances: Array


@dataclass(frozen=True)
class _Story:
    """A set of bad readings, its score, and what the checks are under it."""

    bad: tuple[int, ...]
    score: float
    values: Array
    variances: Array


def doubted(
    net: Network,
    solution: Solution,
    readings: Sequence[Reading],
    aside: Sequence[str],
    rules: Sequence[CheckRule],
    checks: Sequence[Check],
) -> tuple[tuple[Check, ...], tuple[Doubt, ...]]:
    """The checks with verdicts that bear every likely story, and the stories that turned any.

    Parameters
    ----------
    readings : sequence of Reading
        All that are not ignored, held or set aside.
    aside : sequence of str
        Ids of those that were set aside.
    """
    if not readings or not checks:
        return tuple(_edged(check) for check in checks), ()
    linear = _linear(net, solution, readings, rules)
    row = {reading.id: i for i, reading in enumerate(readings)}
    stories = _stories(linear, tuple(sorted(row[one] for one in aside if one in row)))
    return _verdicts(stories, readings, checks)


def _linear(
    net: Network, solution: Solution, readings: Sequence[Reading], rules: Sequence[CheckRule]
) -> _Linear:
    predicted, slopes = net.observer(readings).predict(solution.unknowns, solution.placed)
    sigmas = np.array([sigma_of(reading) for reading in readings])
    a = slopes / sigmas[:, None]
    y = (np.array([reading.value for reading in readings]) - predicted) / sigmas
    prior = net.prior_matrix
    covariance = np.linalg.inv(a.T @ a + prior)
    d = covariance @ (a.T @ y - prior @ (solution.unknowns - net.prior_mean))
    g = np.array([rule.slope for rule in rules])
    spread = g @ covariance
    design = np.array([rule.design for rule in rules])
    return _Linear(
        e=y - a @ d,
        q=np.eye(len(y)) - a @ covariance @ a.T,
        b=spread @ a.T,
        values=design + g @ (solution.unknowns + d),
        variances=np.sum(spread * g, axis=1),
    )


def _stories(linear: _Linear, start: tuple[int, ...]) -> list[_Story]:
    """From the suspects to the best story by single changes, and it with all that are one change away."""
    now, near = _about(linear, start)
    for _ in range(_MOST_CHANGES):
        best = max(near, key=lambda one: one.score, default=now)
        if best.score <= now.score + _RISE:
            break
        now, near = _about(linear, best.bad)
    return [now, *near]


def _about(linear: _Linear, bad: tuple[int, ...]) -> tuple[_Story, list[_Story]]:
    """A story, and every one with one bad reading more, one fewer, or one for another."""
    here, more = _with_one_more(linear, bad)
    found = {story.bad: story for story in more}
    for gone in bad:
        fewer, others = _with_one_more(linear, tuple(one for one in bad if one != gone))
        for story in (fewer, *others):
            if story.bad != bad:
                found.setdefault(story.bad, story)
    return here, list(found.values())


def _with_one_more(linear: _Linear, bad: tuple[int, ...]) -> tuple[_Story, list[_Story]]:
    """A story, and each with one bad reading more, all at once.

    With Schur's complement a reading j more changes the score by c + e′²/(2(q′ + 1/τ²)) − ½·ln(1 + τ²·q′), and
    the checks by b′·e′/(q′ + 1/τ²).
    """
    at = list(bad)
    e, q, b = linear.e, np.diag(linear.q).copy(), linear.b
    values, variances, score = linear.values, linear.variances, 0.0
    if at:
        m = linear.q[np.ix_(at, at)] + np.eye(len(at)) / _WIDER
        inverse = np.linalg.inv(m)
        h = inverse @ linear.e[at]
        _, log = np.linalg.slogdet(_WIDER * m)
        score = len(at) * _PRIOR + 0.5 * float(linear.e[at] @ h) - 0.5 * float(log)
        across = linear.q[:, at]
        e = linear.e - across @ h
        q = q - np.sum((across @ inverse) * across, axis=1)
        values = linear.values - linear.b[:, at] @ h
        variances = linear.variances + np.sum((linear.b[:, at] @ inverse) * linear.b[:, at], axis=1)
        b = linear.b - linear.b[:, at] @ inverse @ across.T
    here = _Story(bad, score, values, variances)
    wide = q + 1 / _WIDER
    gains = _PRIOR + e**2 / (2 * wide) - 0.5 * np.log1p(_WIDER * q)
    held = set(bad)
    more = [
        _Story(
            tuple(sorted((*bad, j))),
            score + float(gains[j]),
            values - b[:, j] * (e[j] / wide[j]),
            variances + b[:, j] ** 2 / wide[j],
        )
        for j in range(len(e))
        if j not in held
    ]
    return here, more


def _verdicts(
    stories: Sequence[_Story], readings: Sequence[Reading], checks: Sequence[Check]
) -> tuple[tuple[Check, ...], tuple[Doubt, ...]]:
    best = max(story.score for story in stories)
    told: list[Check] = []
    turned: dict[int, list[str]] = {}
    for i, check in enumerate(checks):
        verdict: Verdict = check.verdict
        within = {"true": _TRUE_WITHIN, "out": _OUT_WITHIN}.get(check.verdict)
        if within is not None:
            for number, story in enumerate(stories):
                if story.score < best - within:
                    continue
                sigma = math.sqrt(max(float(story.variances[i]), 0.0))
                said = verdict_of(float(story.values[i]) - check.target, sigma, check.tolerance)
                if said != check.verdict:
                    verdict = "unsure"
                    turned.setdefault(number, []).append(check.id)
        told.append(_edged(replace(check, verdict=verdict)))
    doubts = [
        Doubt(
            tuple(readings[j].id for j in stories[number].bad),
            math.exp(stories[number].score - best),
            tuple(names),
        )
        for number, names in turned.items()
    ]
    doubts.sort(key=lambda one: (-one.odds, one.bad))
    return tuple(told), tuple(doubts)


def _edged(check: Check) -> Check:
    """Known, and at the limit: unsure though two sigma are no more than half the tolerance."""
    at_edge = check.verdict == "unsure" and 2 * check.sigma <= _EDGE * check.tolerance
    return replace(check, edge=at_edge)
