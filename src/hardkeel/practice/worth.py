"""What each reading of an exercise was worth for what was asked, in the order in which it was taken.

A reading tells by how much it sharpens the asked checks: with s a check's sigma over its tolerance, the sum over the
checks of ln max(s, k) before it less that after it, k being where a check counts as known (`survey.ranking`): sharper
than that is worth nothing.  The covariance is brought up to date by rank one (Sherman and Morrison, Ann. Math. Stat.
21 (1950), 124–127).

Port and starboard of one tape tell nothing alone and all together.  So what the k-th reading tells is shared with those
before it without which it would have told less: each of them counts by how much less, itself by what it told.
"""

from collections.abc import Sequence
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.practice.exercise import Exercise
from hardkeel.survey.ranking import KNOWN
from hardkeel.survey.readings import Reading, sigma_of

TOLD_NOTHING: Final = 0.05  # of the best reading's worth


def worth_of(exercise: Exercise, readings: Sequence[Reading]) -> tuple[float, ...]:
    """By reading, 1 for the one that was worth most; one that is doubted is worth nothing."""
    used = [i for i, one in enumerate(readings) if not one.ignored]
    shares = np.zeros(len(readings))
    if used:
        shares[used] = _shares(exercise, [readings[i] for i in used])
    most = float(shares.max(initial=0.0))
    return tuple(float(one) / most if most > 0 else 0.0 for one in shares)


def _shares(exercise: Exercise, readings: Sequence[Reading]) -> Array:
    """Of what all together told, in e-foldings; shape (r,)."""
    bare = exercise.bare
    net, start = bare.net, bare.solution
    _, slopes = net.observer(readings).predict(start.unknowns, net.placer.place(start.unknowns))
    rows = slopes / np.array([sigma_of(one) for one in readings])[:, None]
    checks = np.array([rule.slope / rule.tolerance for rule in exercise.asked])
    shares = np.zeros(len(readings))
    for k in range(len(readings)):
        told = _told(rows[:k], rows[k], start.covariance, checks)
        if told <= 0:
            continue
        less = np.zeros(k + 1)
        less[k] = told
        for j in range(k):
            without = np.delete(rows[:k], j, axis=0)
            less[j] = max(0.0, told - _told(without, rows[k], start.covariance, checks))
        shares[: k + 1] += told * less / less.sum()
    return shares


def _told(before: Array, row: Array, covariance: Array, checks: Array) -> float:
    """What one reading more tells after those before it."""
    for one in before:
        covariance = with_reading(covariance, one)
    return _open(covariance, checks) - _open(with_reading(covariance, row), checks)


def with_reading(covariance: Array, row: Array) -> Array:
    """The covariance, shape (n, n), with one reading more: its slopes over its sigma, shape (n,)."""
    felt = covariance @ row
    updated: Array = covariance - np.outer(felt, felt) / (1 + float(row @ felt))
    return updated


def _open(covariance: Array, checks: Array) -> float:
    """How much of the checks is not known, e-foldings from where they count as known."""
    sharp = np.sqrt(np.maximum(np.einsum("gi,ij,gj->g", checks, covariance, checks), 0.0))
    return float(np.sum(np.log(np.maximum(sharp, KNOWN))))
