"""How well each story of which readings are bad tells a survey: the marginal likelihood of a linear model.

A reading is bad with probability p and has then thirteen times its sigma; a story is a set of bad readings.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Observation, Sight
from hardkeel.survey.system import System

Rows = NDArray[np.intp]
_P_BAD: Final = 0.04
_WIDER: Final = 168.0  # 13² − 1: what a bad reading has more of variance, in its own sigma squared
_PRIOR: Final = math.log(_P_BAD / (1 - _P_BAD))
_MOST_CHANGES: Final = 12
_RISE: Final = 1e-9


@dataclass(frozen=True)
class Linear:
    """The survey about an estimate: misfits e, their cofactor Q, checks' slopes B, values and variances.

    Attributes
    ----------
    a : Array
        Shape (rows + 1, n): slopes by the unknowns over sigma; the last row, which is empty, stands for the second
        one that a figure does not have.
    rows : tuple of tuple of int
        By reading its rows: one of a figure, two of a sighting.
    first, second : ndarray of int
        Shape (k,): the same, where the empty row stands for a second one that is not there.
    """

    a: Array
    e: Array
    q: Array
    b: Array
    values: Array
    variances: Array
    rows: tuple[tuple[int, ...], ...]
    first: Rows
    second: Rows


@dataclass(frozen=True)
class Story:
    """A set of bad readings, its score, and what the checks are under it."""

    bad: tuple[int, ...]
    score: float
    values: Array
    variances: Array


@dataclass(frozen=True)
class Told:
    """The stories of a survey: the best of those that only readings are bad by, and all that are one change away."""

    readings: tuple[Observation, ...]
    linear: Linear
    stories: tuple[Story, ...]

    @property
    def best(self) -> float:
        """The score of the story told best."""
        return max(story.score for story in self.stories)


def told_of(
    net: Network,
    solution: Solution,
    readings: Sequence[Observation],
    aside: Sequence[str],
    rules: Sequence[CheckRule],
) -> Told | None:
    """The stories of a survey; ``None`` without readings.

    Parameters
    ----------
    readings : sequence of Reading
        All that are not ignored, held or set aside; sightings in photos that are not used count for nothing.
    aside : sequence of str
        Ids of those that were set aside.
    """
    used = tuple(
        one for one in readings if not isinstance(one, Sight) or one.photo in solution.cameras
    )
    if not used:
        return None
    linear = linearised(net, solution, used, rules)
    row = {reading.id: i for i, reading in enumerate(used)}
    start = tuple(sorted(row[one] for one in aside if one in row))
    return Told(used, linear, tuple(stories_of(linear, start)))


def linearised(
    net: Network, solution: Solution, readings: Sequence[Observation], rules: Sequence[CheckRule]
) -> Linear:
    """All readings about an estimate, whether it holds them or not."""
    system = System(net, readings, solution.cameras)
    state = system.state_of(solution.unknowns, solution.cameras)
    seen = system.look(state)
    a = seen.slopes * system.root_weight[:, None]
    y = seen.residuals * system.root_weight
    covariance = system.normal(a).inverse()
    d = covariance @ (a.T @ y - system.prior @ (state - system.mean))
    g = np.zeros((len(rules), len(state)))
    for i, rule in enumerate(rules):
        g[i, : net.columns.size] = rule.slope
    spread = g @ covariance
    design = np.array([rule.design for rule in rules])
    count = len(y)
    e, q, b = np.zeros(count + 1), np.zeros((count + 1, count + 1)), np.zeros((len(g), count + 1))
    e[:count], b[:, :count] = y - a @ d, spread @ a.T
    q[:count, :count] = np.eye(count) - a @ covariance @ a.T
    rows: list[list[int]] = [[] for _ in readings]
    for row, owner in enumerate(system.owner.tolist()):
        rows[owner].append(row)
    return Linear(
        a=np.vstack((a[:, : net.columns.size], np.zeros(net.columns.size))),
        e=e,
        q=q,
        b=b,
        values=design + g @ (state + d),
        variances=np.sum(spread * g, axis=1),
        rows=tuple(tuple(mine) for mine in rows),
        first=np.array([mine[0] for mine in rows], dtype=np.intp),
        second=np.array([mine[1] if len(mine) > 1 else count for mine in rows], dtype=np.intp),
    )


def stories_of(linear: Linear, start: tuple[int, ...]) -> list[Story]:
    """From the suspects to the best story by single changes, and it with all that are one change away."""
    now, near = _about(linear, start)
    for _ in range(_MOST_CHANGES):
        best = max(near, key=lambda one: one.score, default=now)
        if best.score <= now.score + _RISE:
            break
        now, near = _about(linear, best.bad)
    return [now, *near]


def explained(linear: Linear, by: Array, spread: Array) -> tuple[Linear, float, Array, Array]:
    """The survey with causes of its own for some misfits, the score that they bring, and what they then are.

    Causes c ~ N(0, D) that add G·c to the rows: with M = GᵀQG + D⁻¹ they are M⁻¹Gᵀe with covariance M⁻¹, and score
    ½·eᵀG·M⁻¹·Gᵀe − ½·ln det(DM), as a bad reading does with one cause of its own.

    Parameters
    ----------
    by, spread : Array
        Shape (rows + 1, k) and (k, k): G, over the rows' sigma, and D.

    Returns
    -------
    tuple
        The survey that is left, the score, the causes of shape (k,), and their covariance of shape (k, k).
    """
    felt, cross = by.T @ linear.e, linear.q @ by
    m = by.T @ cross + np.linalg.inv(spread)
    inverse = np.linalg.inv(m)
    causes = inverse @ felt
    _, log = np.linalg.slogdet(spread @ m)
    told = linear.b @ by
    left = replace(
        linear,
        e=linear.e - cross @ causes,
        q=linear.q - cross @ inverse @ cross.T,
        b=linear.b - told @ inverse @ cross.T,
        values=linear.values - told @ causes,
        variances=linear.variances + np.sum((told @ inverse) * told, axis=1),
    )
    return left, 0.5 * float(felt @ causes) - 0.5 * float(log), causes, inverse


def _about(linear: Linear, bad: tuple[int, ...]) -> tuple[Story, list[Story]]:
    """A story, and every one with one bad reading more, one fewer, or one for another."""
    here, more = _with_one_more(linear, bad)
    found = {story.bad: story for story in more}
    for gone in bad:
        fewer, others = _with_one_more(linear, tuple(one for one in bad if one != gone))
        for story in (fewer, *others):
            if story.bad != bad:
                found.setdefault(story.bad, story)
    return here, list(found.values())


def _with_one_more(linear: Linear, bad: tuple[int, ...]) -> tuple[Story, list[Story]]:
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
    here = Story(bad, score, values, variances)
    # S of each reading, [[s, t], [t, r]]; the empty row has r = 1/τ² and t = 0, and so adds nothing
    s, r, t = own[first] + 1 / _WIDER, own[second] + 1 / _WIDER, cross
    det = s * r - t**2
    told = det > 0  # else rounding has the last word: nothing is said of that reading
    det = np.where(told, det, 1.0)
    e1, e2 = e[first], e[second]
    h1, h2 = (r * e1 - t * e2) / det, (s * e2 - t * e1) / det
    gains = _PRIOR + 0.5 * (e1 * h1 + e2 * h2) - 0.5 * np.log(_WIDER**2 * det)
    b1, b2 = b[:, first], b[:, second]
    shifts = b1 * h1 + b2 * h2
    wider = (r * b1**2 - 2 * t * b1 * b2 + s * b2**2) / det
    held = set(bad)
    more = [
        Story(
            tuple(sorted((*bad, j))),
            score + float(gains[j]),
            values - shifts[:, j],
            variances + wider[:, j],
        )
        for j in range(len(first))
        if j not in held and told[j]
    ]
    return here, more
