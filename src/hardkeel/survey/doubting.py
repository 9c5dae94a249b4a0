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
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.checking import Check, CheckRule, at_edge, verdict_of
from hardkeel.survey.model import Observation, Sight, Verdict
from hardkeel.survey.network import Network
from hardkeel.survey.system import System

Rows = NDArray[np.intp]
_P_BAD: Final = 0.04
_WIDER: Final = 168.0  # 13² − 1: what a bad reading has more of variance, in its own sigma squared
_PRIOR: Final = math.log(_P_BAD / (1 - _P_BAD))
_MOST_CHANGES: Final = 12
_TRUE_WITHIN: Final = math.log(20.0)
_OUT_WITHIN: Final = math.log(50.0)
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
    """The survey about an estimate: misfits e, their cofactor Q, checks' slopes B, values and variances.

    Attributes
    ----------
    rows : tuple of tuple of int
        By reading its rows: one of a figure, two of a sighting.
    first, second : ndarray of int
        Shape (k,): the same, where the last row of all, which is empty, stands for a second one that is not there.
    """

    e: Array
    q: Array
    b: Array
    values: Array
    variances: Array
    rows: tuple[tuple[int, ...], ...]
    first: Rows
    second: Rows


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
    readings: Sequence[Observation],
    aside: Sequence[str],
    rules: Sequence[CheckRule],
    checks: Sequence[Check],
) -> tuple[tuple[Check, ...], tuple[Doubt, ...]]:
    """The checks with verdicts that bear every likely story, and the stories that turned any.

    Parameters
    ----------
    readings : sequence of Reading
        All that are not ignored, held or set aside; sightings in photos that are not used count for nothing.
    aside : sequence of str
        Ids of those that were set aside.
    """
    readings = [
        one for one in readings if not isinstance(one, Sight) or one.photo in solution.cameras
    ]
    if not readings or not checks:
        return tuple(at_edge(check) for check in checks), ()
    linear = _linear(net, solution, readings, rules)
    row = {reading.id: i for i, reading in enumerate(readings)}
    stories = _stories(linear, tuple(sorted(row[one] for one in aside if one in row)))
    return _verdicts(stories, readings, checks)


def _linear(
    net: Network, solution: Solution, readings: Sequence[Observation], rules: Sequence[CheckRule]
) -> _Linear:
    system = System(net, readings, solution.cameras)
    state = system.state_of(solution.unknowns, solution.cameras)
    seen = system.look(state)
    a = seen.slopes * system.root_weight[:, None]
    y = seen.residuals * system.root_weight
    covariance = system.normal(a).inverse()
    d = covariance @ (a.T @ y - system.prior @ (state - system.mean))
    g = np.zeros((len(rules), len(state)))
    g[:, : net.columns.size] = [rule.slope for rule in rules]
    spread = g @ covariance
    design = np.array([rule.design for rule in rules])
    count = len(y)
    # one empty row at the end: it stands for the second row that a figure does not have
    e, q, b = np.zeros(count + 1), np.zeros((count + 1, count + 1)), np.zeros((len(g), count + 1))
    e[:count], b[:, :count] = y - a @ d, spread @ a.T
    q[:count, :count] = np.eye(count) - a @ covariance @ a.T
    rows: list[list[int]] = [[] for _ in readings]
    for row, owner in enumerate(system.owner.tolist()):
        rows[owner].append(row)
    return _Linear(
        e=e,
        q=q,
        b=b,
        values=design + g @ (state + d),
        variances=np.sum(spread * g, axis=1),
        rows=tuple(tuple(mine) for mine in rows),
        first=np.array([mine[0] for mine in rows], dtype=np.intp),
        second=np.array([mine[1] if len(mine) > 1 else count for mine in rows], dtype=np.intp),
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

    With Schur's complement a reading j more changes the score by c + ½·e′ᵀS⁻¹e′ − ½·ln det(τ²S), S = Q′ⱼⱼ + I/τ² of
    its rows, and the checks by b′·S⁻¹e′.
    """
    at = [row for one in bad for row in linear.rows[one]]
    first, second = linear.first, linear.second
    e, b = linear.e, linear.b
    own = np.diag(linear.q).copy()
    cross = linear.q[first, second]
    values, variances, score = linear.values, linear.variances, 0.0
    if at:
        m = linear.q[np.ix_(at, at)] + np.eye(len(at)) / _WIDER
        inverse = np.linalg.inv(m)
        h = inverse @ linear.e[at]
        _, log = np.linalg.slogdet(_WIDER * m)
        score = len(bad) * _PRIOR + 0.5 * float(linear.e[at] @ h) - 0.5 * float(log)
        across = linear.q[:, at]
        taken = across @ inverse
        e = linear.e - across @ h
        own = own - np.sum(taken * across, axis=1)
        cross = cross - np.sum(taken[first] * across[second], axis=1)
        values = linear.values - linear.b[:, at] @ h
        variances = linear.variances + np.sum((linear.b[:, at] @ inverse) * linear.b[:, at], axis=1)
        b = linear.b - linear.b[:, at] @ inverse @ across.T
    here = _Story(bad, score, values, variances)
    # S of each reading, [[s, t], [t, r]]; the empty row has r = 1/τ² and t = 0, and so adds nothing
    s, r, t = own[first] + 1 / _WIDER, own[second] + 1 / _WIDER, cross
    det = s * r - t**2
    e1, e2 = e[first], e[second]
    h1, h2 = (r * e1 - t * e2) / det, (s * e2 - t * e1) / det
    gains = _PRIOR + 0.5 * (e1 * h1 + e2 * h2) - 0.5 * np.log(_WIDER**2 * det)
    b1, b2 = b[:, first], b[:, second]
    shifts = b1 * h1 + b2 * h2
    wider = (r * b1**2 - 2 * t * b1 * b2 + s * b2**2) / det
    held = set(bad)
    more = [
        _Story(
            tuple(sorted((*bad, j))),
            score + float(gains[j]),
            values - shifts[:, j],
            variances + wider[:, j],
        )
        for j in range(len(first))
        if j not in held
    ]
    return here, more


def _verdicts(
    stories: Sequence[_Story], readings: Sequence[Observation], checks: Sequence[Check]
) -> tuple[tuple[Check, ...], tuple[Doubt, ...]]:
    best = max(story.score for story in stories)
    spreads = _spreads([story for story in stories if story.score >= best - _TRUE_WITHIN])
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
        # by its own sigma, before any story: what fell by doubt alone is not at the edge
        edged = at_edge(check)
        spread = max(check.sigma, float(spreads[i]))
        told.append(replace(edged, verdict=verdict, spread=spread))
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


def _spreads(likely: Sequence[_Story]) -> Array:
    """√(Σw·(s² + (v − v̄)²)) of each check over the likely stories, weighted by what is told for each; shape (g,)."""
    scores = np.array([story.score for story in likely])
    weights = np.exp(scores - scores.max())
    weights /= weights.sum()
    values = np.array([story.values for story in likely])
    variances = np.array([story.variances for story in likely])
    mean = weights @ values
    spread: Array = np.sqrt(np.maximum(weights @ (variances + (values - mean) ** 2), 0.0))
    return spread
