"""A short list of readings that would decide every check: for the first day and for a fresh phase."""

from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.model import Reading, place_of, sigma_of
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.ranking import best_pair, single_gains

_SHARP_ENOUGH: Final = 0.25  # sigma against tolerance at which a true part will be seen to be true
_LONGEST: Final = 30
_LEAST_GAIN: Final = 0.02  # of the variance: a reading that helps less is not asked for


def plan(
    net: Network,
    solution: Solution,
    rules: tuple[CheckRule, ...],
    taken: tuple[Reading, ...] = (),
    most: int = _LONGEST,
) -> tuple[Reading, ...]:
    """Choose readings one by one, each for the check that is then least known.

    Greedy, with the covariance brought up to date by rank one after each choice; readings already
    `taken` are not proposed again.  Values are what the estimate expects.
    """
    done = {place_of(reading) for reading in taken}
    candidates = [c for c in candidates_of(net.survey) if place_of(c) not in done]
    if not candidates or not rules:
        return ()
    expected, rows = net.observer(candidates).predict(solution.unknowns, solution.placed)
    noise = np.square([sigma_of(c) for c in candidates])
    slopes = np.array([rule.slope for rule in rules])
    tolerance = np.array([rule.tolerance for rule in rules])
    covariance = solution.covariance.copy()
    chosen: list[Reading] = []
    open_ = np.ones(len(candidates), dtype=bool)
    dull = np.zeros(len(rules), dtype=bool)
    while len(chosen) < most and open_.any():
        sharpness = np.sqrt(np.sum((slopes @ covariance) * slopes, axis=1)) / tolerance
        sharpness[dull] = 0.0
        worst = int(np.argmax(sharpness))
        if sharpness[worst] <= _SHARP_ENOUGH:
            break
        best_ones = _most_helpful(rows, np.where(open_, noise, np.inf), covariance, slopes[worst])
        dull[worst] = not best_ones
        for best in best_ones:
            spread = rows[best] @ covariance
            covariance -= np.outer(spread, spread) / (noise[best] + spread @ rows[best])
            open_[best] = False
            chosen.append(candidates[best].but(value=float(expected[best])))
    return tuple(chosen[:most])


def _most_helpful(rows: Array, noise: Array, covariance: Array, slope: Array) -> tuple[int, ...]:
    """The best reading for a check, or the best two where none helps alone, or none."""
    least = _LEAST_GAIN * float(slope @ covariance @ slope)
    gains = single_gains(rows, noise, covariance, slope)
    best = int(np.argmax(gains))
    if gains[best] > least:
        return (best,)
    known = np.flatnonzero(np.isfinite(noise))
    if len(known) > 1:
        first, second, gain = best_pair(rows[known], noise[known], covariance, slope)
        if gain > least:
            return int(known[first]), int(known[second])
    return ()
