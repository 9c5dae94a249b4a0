"""Between two stories of which readings are bad: which of them, taken again, tells them apart."""

from collections import Counter
from collections.abc import Sequence

from hardkeel.survey.adjusting import Solution
from hardkeel.survey.alternatives import Alternative
from hardkeel.survey.candidates import MOST_TIMES
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.network import Network
from hardkeel.survey.ranking import NextReading, predicted_sigmas
from hardkeel.survey.readings import Observation, Reading, Sight, place_of


def told_apart(
    alternative: Alternative, aside: Sequence[str], readings: Sequence[Observation]
) -> tuple[str, ...]:
    """Readings that the story of the estimate and this one take differently, in their order."""
    own, bad = set(aside), set(alternative.bad)
    return tuple(one.id for one in readings if (one.id in own) != (one.id in bad))


def to_take_again(
    check: Check,
    alternatives: Sequence[Alternative],
    aside: Sequence[str],
    readings: Sequence[Observation],
) -> tuple[Reading, ...]:
    """What decides between the stories of a check: the likeliest story's first, then what was read least.

    None where each was read as often as tells anything.
    """
    times = Counter(place_of(one) for one in readings)
    by_id = {one.id: one for one in readings if not isinstance(one, Sight)}
    found: dict[str, tuple[int, int]] = {}
    for rank, alternative in enumerate(one for one in alternatives if check.id in one.checks):
        for name in told_apart(alternative, aside, readings):
            if name in by_id and times[place_of(by_id[name])] < MOST_TIMES:
                found.setdefault(name, (times[place_of(by_id[name])], rank))
    return tuple(by_id[name] for name in sorted(found, key=lambda one: found[one]))


def asked_again(
    net: Network,
    solution: Solution,
    rule: CheckRule,
    check: Check,
    again: Sequence[Reading],
) -> tuple[NextReading, ...]:
    """Readings to take again for a check that is in doubt, with its spread now and what its sigma would be."""
    after, expected = predicted_sigmas(net, solution, again, rule.slope)
    return tuple(
        NextReading(
            one.but(value=float(value)), check.id, check.spread, min(float(then), check.spread)
        )
        for one, value, then in zip(again, expected, after, strict=True)
    )
