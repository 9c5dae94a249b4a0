"""Count verdicts over airframes with blunders among their readings: ``python tools/measure_doubts.py [COUNT]``.

Readings are the app's own list; four in a hundred are off by 5 to 20 sigma.  *Nearly true* airframes are a quarter as
crooked as the crooked ones.  First with nothing shared, then with errors that readings share, drawn from the
usual priors: declared, and not.
"""

import sys
from collections import Counter
from dataclasses import dataclass, field
from itertools import chain

import numpy as np

from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.priors import USUAL_SHARED
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import Incidence, Offset, Reading, sigma_of
from tests.airframes import plain_survey, random_truth

_AIRFRAMES = 1500
_SHARED_AIRFRAMES = 1000
_READINGS = 30
_USUAL, _STRINGS = 52, 3
_BLUNDERS = 0.04
_SCALES = (("crooked", 0.4), ("nearly true", 0.1))
_HALF_WAY = 0.5
_FAR = 1.1  # of a tolerance
_FOLLOWED = 60
_MOST_FOLLOWED = 75


@dataclass
class Tally:
    """What was said, and what of it was wrong."""

    said: Counter[str] = field(default_factory=Counter)
    wrong: Counter[str] = field(default_factory=Counter)
    far: int = 0
    pulls: list[float] = field(default_factory=list)
    spreads: list[float] = field(default_factory=list)
    decalage: list[float] = field(default_factory=list)
    poor: int = 0
    count: int = 0

    def add(self, judgement: Judgement, truth: np.ndarray) -> None:
        """Count one airframe."""
        self.count += 1
        self.poor += judgement.goodness.poor
        for rule, check in zip(judgement.rules, judgement.checks, strict=True):
            own = min(len(rule.slope), len(truth))
            true = float(rule.slope[:own] @ truth[:own])
            self.said[check.verdict] += 1
            self.wrong["true"] += check.verdict == "true" and abs(true) > check.tolerance
            self.wrong["out"] += check.verdict == "out" and abs(true) <= check.tolerance
            self.far += check.verdict == "true" and abs(true) > _FAR * check.tolerance
            self.pulls.append((check.error - true) / check.sigma)
            self.spreads.append((check.error - true) / check.spread)
            if check.id == "decalage":
                self.decalage.append(abs(check.error - true))

    def tell(self, name: str) -> None:
        """Print it."""
        total = sum(self.said.values())
        told = ", ".join(f"{one} {self.said[one] / total:.0%}" for one in ("true", "out", "unsure"))
        print(f"  {name}: {told}; {self.poor} of {self.count} do not fit together")
        for verdict in ("true", "out"):
            said = max(self.said[verdict], 1)
            more = f", by more than a tenth {self.far / said:.2%}" if verdict == "true" else ""
            print(
                f"    of {verdict} wrong: {self.wrong[verdict] / said:.2%} ({self.wrong[verdict]} of {said}){more}"
            )
        rms = [float(np.sqrt(np.mean(np.square(one)))) for one in (self.pulls, self.spreads)]
        print(
            f"    error over sigma {rms[0]:.3f}, over spread {rms[1]:.3f}; decalage p99 {np.percentile(self.decalage, 99):.2f}°"
        )


def main(count: int, shared: int) -> None:
    """Print what of each verdict was wrong, and how far the decalage was off."""
    plain = plain_survey()
    listed = _listed(plain, _READINGS)
    print(
        f"nothing shared: {count} airframes each, {len(listed)} readings, {_BLUNDERS:.0%} blunders"
    )
    _study(plain, plain, listed, count, _BLUNDERS)
    print(f"the same without blunders, {count // 5} each")
    _study(plain, plain, listed, count // 5, 0.0)
    bound = plain.but(shared=USUAL_SHARED)
    usual = _listed(plain, _USUAL)
    settling = [one for one in candidates_of(bound) if _settles(one)]
    strings = [one for one in candidates_of(bound) if isinstance(one, Offset) and one.along]
    lists = {
        f"{len(usual)} readings of the usual list": usual,
        f"{len(usual) + len(settling) + _STRINGS} with gauge on the datum and turned, and strings": (
            *usual,
            *settling,
            *strings[:_STRINGS],
        ),
        "60 of the list made for it": _listed(bound, 60),
    }
    for name, readings in lists.items():
        print(f"shared and declared: {shared} airframes each, {name}")
        _study(bound, bound, readings, shared, _BLUNDERS)
    print(f"shared and not declared: {shared // 4} airframes each, the usual list")
    _study(bound, plain, usual, shared // 4, _BLUNDERS)
    print(f"shared, declared, no blunders: {shared} airframes each, the long list")
    _study(bound, bound, tuple(lists.values())[1], shared, 0.0)
    _follow(bound)


def _listed(survey: Survey, most: int) -> tuple[Reading, ...]:
    empty = judge_survey(survey)
    return plan(empty.net, empty.solution, empty.rules, (), most, empty.pool)


def _settles(one: Reading) -> bool:
    """The gauge on the datum, and turned half way out."""
    if not isinstance(one, Incidence):
        return False
    on_datum = one.body == "fuselage" and one.zero == "datum"
    return on_datum or (one.turned and one.span_fraction == _HALF_WAY)


def _study(
    drawn: Survey, judged: Survey, readings: tuple[Reading, ...], count: int, blunders: float
) -> None:
    named = tuple(one.but(id=f"r{i}") for i, one in enumerate(readings))
    net = network_of(drawn.but(readings=named))
    for name, scale in _SCALES:
        tally = Tally()
        for seed in range(count):
            rng = np.random.default_rng(seed)
            truth = _truth(net, rng, scale)
            read = tuple(
                chain.from_iterable(_read(net, [one], truth, rng, blunders) for one in named)
            )
            tally.add(judge_survey(judged.but(readings=read), sound=True), truth)
        tally.tell(name)


def _truth(net: Network, rng: np.random.Generator, scale: float) -> np.ndarray:
    """An airframe, and what its readings share from the priors themselves."""
    truth = random_truth(net, rng, scale)
    own, size = net.columns.own, net.columns.size
    truth[own:] = rng.normal(size=size - own) / np.sqrt(net.columns.prior_weight[own:])
    return truth


def _read(
    net: Network,
    wanted: list[Reading],
    truth: np.ndarray,
    rng: np.random.Generator,
    blunders: float,
) -> list[Reading]:
    values, _ = net.observer(wanted).predict(truth, net.placer.place(truth))
    found = []
    for one, value in zip(wanted, values, strict=True):
        sigma = sigma_of(one)
        off = rng.normal() * sigma
        if rng.random() < blunders:
            off += float(rng.choice([-1, 1])) * rng.uniform(5, 20) * sigma
        found.append(one.but(value=float(value + off)))
    return found


def _follow(survey: Survey) -> None:
    """Whatever is asked for from nothing, and what is then said; why each open check is open."""
    net = network_of(survey)
    for name, scale in _SCALES:
        tally, counts, limits = Tally(), [], Counter[str]()
        for seed in range(_FOLLOWED):
            rng = np.random.default_rng(1000 + seed)
            truth = _truth(net, rng, scale)
            read = survey
            judgement = judge_survey(read)
            while len(read.readings) < _MOST_FOLLOWED:
                weighed = [read.reading(one.reading) for one in judgement.outliers[:1]]
                if weighed and weighed[0] is not None:
                    again = weighed[0]
                    kept = (
                        one.but(ignored=True) if one.id == again.id else one
                        for one in read.readings
                    )
                    read = read.but(readings=tuple(kept))
                elif judgement.next:
                    again = judgement.next[0].reading
                else:
                    break
                taken = _read(net, [again], truth, rng, _BLUNDERS)[0]
                taken = taken.but(id=f"r{len(read.readings)}", ignored=False)
                read = read.but(readings=(*read.readings, taken))
                judgement = judge_survey(read, near=judgement, sound=True)
            tally.add(judgement, truth)
            counts.append(len(read.readings))
            for rule, check in zip(judgement.rules, judgement.checks, strict=True):
                if check.verdict == "unsure" and not check.edge:
                    limit = judgement.limit_of(rule)
                    limits[limit[0] if limit is not None else judgement.why or "more readings"] += 1
        print(
            f"following next from nothing, {_FOLLOWED} airframes: readings median {np.median(counts):.0f}, 90 % {np.percentile(counts, 90):.0f}"
        )
        tally.tell(name)
        print(f"    what limits the open ones: {dict(limits)}")


if __name__ == "__main__":
    _counts = [int(one) for one in sys.argv[1:]]
    main(*(_counts + [_AIRFRAMES, _SHARED_AIRFRAMES][len(_counts) :]))
