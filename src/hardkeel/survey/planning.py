"""A short list of readings that would decide every check: for the first day and for a fresh phase."""

from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.candidates import CandidatePool, available_in, candidate_pool
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.handiness import handiest
from hardkeel.survey.network import Network
from hardkeel.survey.ranking import KNOWN, best_pair, single_gains
from hardkeel.survey.readings import Reading
from hardkeel.survey.reliability import watch_of
from hardkeel.survey.roles import turn_of

_LONGEST: Final = 30
_SEEN: Final = 1.0  # sigma against tolerance: more, and nothing was read of it yet
_EASE: Final = 0.02  # of a check's e-folding: what a minute less is worth
_LEAST_GAIN: Final = 0.02  # of the variance: a reading that helps less is not asked for


def plan(
    net: Network,
    solution: Solution,
    rules: tuple[CheckRule, ...],
    taken: tuple[Reading, ...] = (),
    most: int = _LONGEST,
    pool: CandidatePool | None = None,
) -> tuple[Reading, ...]:
    """Choose readings one by one, each for the check that is then least known.

    Greedy, with the covariance brought up to date by rank one after each choice.  First every check is
    seen at all, by the handiest of those worth nearly the same; then each is chosen by what the checks
    are worth though some reading is bad, and by the pairs of which either could be (`survey.watching`).
    The list is put in the order of the bodies that it is for.  Readings already `taken` are not proposed
    again.  Values are what the estimate expects.

    Parameters
    ----------
    pool : Pool, optional
        All that could be read, where it was made ready before.
    """
    available = available_in(pool if pool is not None else candidate_pool(net), solution, taken)
    candidates, expected, rows = available.readings, available.expected, available.rows
    noise, efforts = available.noise, available.efforts
    if not candidates or not rules:
        return ()
    slopes = np.array([rule.slope / rule.tolerance for rule in rules])
    white = rows / np.sqrt(noise)[:, None]
    watch = watch_of(net, solution, taken, slopes)
    named = [rule.body for rule in rules]
    chosen: list[tuple[tuple[int, int], Reading]] = []
    open_ = np.ones(len(candidates), dtype=bool)
    dull = np.zeros(len(rules), dtype=bool)
    while len(chosen) < most and open_.any():
        covariance = watch.covariance
        sharpness = np.sqrt(np.sum((slopes @ covariance) * slopes, axis=1))
        sharpness[dull] = 0.0
        worst = int(np.argmax(sharpness))
        if sharpness[worst] <= KNOWN:
            break
        if sharpness[worst] > _SEEN:
            free = np.where(open_, noise, np.inf)
            best_ones = _most_helpful(rows, free, covariance, slopes[worst], efforts)
            dull[worst] = not best_ones
        else:
            more = watch.one_more(white)
            wish = np.where(open_, more.worth() + _EASE * efforts, np.inf)
            best_ones = (int(np.argmin(wish)),)
            worst = int(np.argmax(more.felt[:, best_ones[0]] ** 2))
        for best in best_ones:
            watch = watch.having(white[best])
            open_[best] = False
            reading = candidates[best].but(value=float(expected[best]))
            body = rules[worst].body
            chosen.append(((turn_of(rules[worst].role), named.index(body)), reading))
    chosen = sorted(chosen[:most], key=lambda one: one[0])
    return tuple(reading for _, reading in chosen)


def _most_helpful(
    rows: Array, noise: Array, covariance: Array, slope: Array, efforts: Array
) -> tuple[int, ...]:
    """The handiest good reading for a check, or the best two where none helps alone, or none."""
    variance = float(slope @ covariance @ slope)
    least = _LEAST_GAIN * variance
    gains = single_gains(rows, noise, covariance, slope)
    best = int(handiest(np.sqrt(np.maximum(variance - gains, 0.0)), efforts)[0])
    if gains[best] > least:
        return (best,)
    known = np.flatnonzero(np.isfinite(noise))
    if len(known) > 1:
        first, second, gain = best_pair(rows[known], noise[known], covariance, slope)
        if gain > least:
            return int(known[first]), int(known[second])
    return ()
