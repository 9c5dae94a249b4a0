"""No verdict rests on a guess which of two readings is bad: the contract's rule for doubtful readings.

The story told best and every one that differs from it by one reading are held against the checks: a verdict stands
only where they agree.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.checking import Check, at_edge, verdict_of
from hardkeel.survey.likelihoods import Story, Told
from hardkeel.survey.readings import Observation

if TYPE_CHECKING:
    from hardkeel.survey.model import Verdict

_TRUE_WITHIN: Final = math.log(20.0)
_OUT_WITHIN: Final = math.log(50.0)


@dataclass(frozen=True, slots=True)
class Alternative:
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


def weighed(
    told: Told | None, checks: Sequence[Check]
) -> tuple[tuple[Check, ...], tuple[Alternative, ...]]:
    """The checks with verdicts that bear every likely story, and the stories that turned any."""
    if told is None or not checks:
        return tuple(at_edge(check) for check in checks), ()
    return _verdicts(told.stories, told.readings, checks)


def _verdicts(
    stories: Sequence[Story], readings: Sequence[Observation], checks: Sequence[Check]
) -> tuple[tuple[Check, ...], tuple[Alternative, ...]]:
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
    alternatives = [
        Alternative(
            tuple(readings[j].id for j in stories[number].bad),
            math.exp(stories[number].score - best),
            tuple(names),
        )
        for number, names in turned.items()
    ]
    alternatives.sort(key=lambda one: (-one.odds, one.bad))
    return tuple(told), tuple(alternatives)


def _spreads(likely: Sequence[Story]) -> Array:
    """√(Σw·(s² + (v − v̄)²)) of each check over the likely stories, weighted by what is told for each; shape (g,)."""
    scores = np.array([story.score for story in likely])
    weights = np.exp(scores - scores.max())
    weights /= weights.sum()
    values = np.array([story.values for story in likely])
    variances = np.array([story.variances for story in likely])
    mean = weights @ values
    spread: Array = np.sqrt(np.maximum(weights @ (variances + (values - mean) ** 2), 0.0))
    return spread
