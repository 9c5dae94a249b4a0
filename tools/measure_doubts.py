"""Count verdicts over airframes with blunders among their readings: ``python tools/measure_doubts.py [COUNT]``.

Readings are the app's own list of thirty; four in a hundred are off by 5 to 20 sigma.  *Nearly true* airframes are a
quarter as crooked as the crooked ones.
"""

import sys
from collections import Counter

import numpy as np

from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Reading, Survey, sigma_of
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from tests.airframes import plain_survey, random_truth

_AIRFRAMES = 1500
_READINGS = 30
_BLUNDERS = 0.04
_SCALES = (("crooked", 0.4), ("nearly true", 0.1))


def main(count: int) -> None:
    """Print what of each verdict was wrong, and how far the decalage was off."""
    survey = plain_survey()
    empty = judge_survey(survey)
    wanted = plan(empty.net, empty.solution, empty.rules, (), _READINGS, empty.pool)
    print(
        f"{count} airframes each, {len(wanted)} readings from the app's own list, {_BLUNDERS:.0%} blunders"
    )
    for name, scale in _SCALES:
        said: Counter[str] = Counter()
        wrong: Counter[str] = Counter()
        errors, pulls = [], []
        for seed in range(count):
            rng = np.random.default_rng(seed)
            read, truth = _read(survey, wanted, rng, scale, _BLUNDERS)
            judgement = judge_survey(read, sound=True)
            for rule, check in zip(judgement.rules, judgement.checks, strict=True):
                off = abs(float(rule.slope @ truth) + rule.design - rule.target)
                said[check.verdict] += 1
                wrong["true"] += check.verdict == "true" and off > check.tolerance
                wrong["out"] += check.verdict == "out" and off <= check.tolerance
                if check.id == "decalage":
                    errors.append(abs(check.error - float(rule.slope @ truth)))
        for seed in range(count // 5):
            rng = np.random.default_rng(70_000 + seed)
            read, truth = _read(survey, wanted, rng, scale, 0.0)
            judgement = judge_survey(read, sound=True)
            pulls += [
                (check.error - float(rule.slope @ truth)) / check.sigma
                for rule, check in zip(judgement.rules, judgement.checks, strict=True)
            ]
        told = ", ".join(
            f"{verdict} {said[verdict] / sum(said.values()):.0%}"
            for verdict in ("true", "out", "unsure")
        )
        print(f"  {name}: {told}")
        for verdict in ("true", "out"):
            print(
                f"    of {verdict} wrong: {wrong[verdict] / max(said[verdict], 1):.2%} ({wrong[verdict]} of {said[verdict]})"
            )
        print(f"    decalage: error p99 {np.percentile(errors, 99):.2f}°")
        print(f"    error over sigma without blunders: {np.std(pulls):.3f}")


def _read(
    survey: Survey,
    wanted: tuple[Reading, ...],
    rng: np.random.Generator,
    scale: float,
    blunders: float,
) -> tuple[Survey, np.ndarray]:
    net = network_of(survey)
    truth = random_truth(net, rng, scale)
    values, _ = net.observer(wanted).predict(truth, net.placer.place(truth))
    readings = []
    for i, (one, value) in enumerate(zip(wanted, values, strict=True)):
        sigma = sigma_of(one)
        off = rng.normal() * sigma
        if rng.random() < blunders:
            off += float(rng.choice([-1, 1])) * rng.uniform(5, 20) * sigma
        readings.append(one.but(id=f"r{i}", value=float(value + off)))
    return survey.but(readings=tuple(readings)), truth


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _AIRFRAMES)
