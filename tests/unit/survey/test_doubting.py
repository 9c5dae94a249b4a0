"""Doubtful readings: the rule against another way to its figures, and what it is for."""

import itertools
import math

import numpy as np
import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.survey.checking import judge, verdict_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.readings import counted, sigma_of
from hardkeel.survey.telling import as_json
from tests.airframes import plain_survey, random_truth, readings_of
from tests.draws import draws

TAU2, P = 168.0, 0.04
C = math.log(P / (1 - P))


class Other:
    """The same stories by whole covariance matrices: the likelihood of what was read, and weighted least squares."""

    def __init__(self, judgement: Judgement) -> None:
        self.readings = counted(judgement.readings)
        net, solution = judgement.net, judgement.solution
        predicted, slopes = net.observer(self.readings).predict(solution.unknowns, solution.placed)
        sigma = np.array([sigma_of(one) for one in self.readings])
        self.a = slopes / sigma[:, None]
        values = np.array([one.value for one in self.readings])
        self.y = (values - predicted) / sigma + self.a @ solution.unknowns
        self.prior = np.diag(net.columns.prior_weight)
        self.rules, self.solution = judgement.rules, solution

    def _weights(self, bad: frozenset[int]) -> np.ndarray:
        return np.array([1 + TAU2 * (i in bad) for i in range(len(self.y))])

    def score(self, bad: frozenset[int]) -> float:
        """|S|·c and the log likelihood of all readings, less that with none bad."""
        return len(bad) * C + self._likelihood(bad) - self._likelihood(frozenset())

    def _likelihood(self, bad: frozenset[int]) -> float:
        spread = np.diag(self._weights(bad)) + self.a @ np.linalg.inv(self.prior) @ self.a.T
        _, log = np.linalg.slogdet(spread)
        return -0.5 * float(log) - 0.5 * float(self.y @ np.linalg.solve(spread, self.y))

    def checks(self, bad: frozenset[int]) -> list[tuple[float, float]]:
        """Value and sigma of each check when the bad ones have thirteen times their sigma."""
        w = 1 / self._weights(bad)
        covariance = np.linalg.inv(self.a.T @ (w[:, None] * self.a) + self.prior)
        x = covariance @ self.a.T @ (w * self.y)
        return [
            (
                rule.design + float(rule.slope @ x),
                math.sqrt(float(rule.slope @ covariance @ rule.slope)),
            )
            for rule in self.rules
        ]

    def stories(self, start: frozenset[int]) -> tuple[frozenset[int], list[frozenset[int]]]:
        now = start
        for _ in range(12):
            near = self._near(now)
            best = max(near, key=self.score)
            if self.score(best) <= self.score(now) + 1e-9:
                break
            now = best
        return now, self._near(now)

    def _near(self, bad: frozenset[int]) -> list[frozenset[int]]:
        every = range(len(self.y))
        more = [bad | {j} for j in every if j not in bad]
        fewer = [bad - {i} for i in bad]
        swapped = [bad - {i} | {j} for i, j in itertools.product(bad, every) if j not in bad]
        return [*more, *fewer, *swapped]


def crooked(seed: int, count: int = 14, blunders: float = 0.08) -> Survey:
    rng = np.random.default_rng(seed)
    survey = plain_survey()
    truth = random_truth(network_of(survey), rng, 0.2)
    read = readings_of(survey, truth, rng, count)
    off = [
        one.but(value=one.value + float(rng.choice([-1, 1])) * rng.uniform(5, 20) * sigma_of(one))
        if rng.random() < blunders
        else one
        for one in read.figures
    ]
    return read.but(readings=tuple(off))


@pytest.mark.parametrize("seed", range(draws(4, 12)))
def test_every_verdict_and_story_agrees_with_the_other_way(seed: int) -> None:
    judgement = judge_survey(crooked(seed, 22))
    other = Other(judgement)
    row = {one.id: i for i, one in enumerate(other.readings)}
    best, near = other.stories(frozenset(row[one.reading] for one in judgement.outliers))
    stories = {story: other.score(story) for story in (best, *near)}
    top = max(stories.values())
    own = judge(judgement.rules, judgement.solution.unknowns, judgement.solution.covariance)
    told: dict[frozenset[str], set[str]] = {}
    for i, (plain, check) in enumerate(zip(own, judgement.checks, strict=True)):
        wanted, clear = plain.verdict, True
        limit = {"true": math.log(20), "out": math.log(50)}.get(plain.verdict)
        for story, score in stories.items() if limit is not None else ():
            value, sigma = other.checks(story)[i]
            margin = min(
                abs(abs(value - plain.target) + way * 2 * sigma - plain.tolerance)
                for way in (1, -1)
            )
            assert limit is not None
            if score < top - limit:
                continue
            if margin < 1e-6 or abs(score - top + limit) < 1e-6:
                clear = False
            if verdict_of(value - plain.target, sigma, plain.tolerance) != plain.verdict:
                wanted = "unsure"
                told.setdefault(frozenset(other.readings[j].id for j in story), set()).add(check.id)
        if clear:
            assert check.verdict == wanted
    assert {frozenset(one.bad): set(one.checks) for one in judgement.alternatives} == told
    for doubt in judgement.alternatives:
        story = frozenset(row[one] for one in doubt.bad)
        assert doubt.odds == pytest.approx(math.exp(stories[story] - top), rel=1e-6)


def test_value_and_sigma_stay_and_only_verdicts_fall() -> None:
    fell = 0
    for seed in range(draws(12, 30)):
        judgement = judge_survey(crooked(seed, 26))
        own = judge(judgement.rules, judgement.solution.unknowns, judgement.solution.covariance)
        for plain, check in zip(own, judgement.checks, strict=True):
            assert (plain.value, plain.sigma) == (check.value, check.sigma)
            assert check.verdict in (plain.verdict, "unsure")
            fell += check.verdict != plain.verdict
    assert fell > 5


def test_without_a_misfit_no_story_turns_a_true_verdict() -> None:
    survey = plain_survey()
    rng = np.random.default_rng(3)
    truth = random_truth(network_of(survey), rng, 0.0)
    exact = readings_of(survey, truth, rng, 60, noise=0.0)
    judgement = judge_survey(exact)
    assert judgement.outliers == ()
    assert any(check.verdict == "true" for check in judgement.checks)


def test_false_outs_become_rare() -> None:
    """A nearly true airframe with blunders: what the rule is for."""
    plain_wrong = wrong = 0
    for seed in range(draws(60, 200)):
        rng = np.random.default_rng(seed)
        survey = plain_survey()
        truth = random_truth(network_of(survey), rng, 0.1)
        read = readings_of(survey, truth, rng, 30)
        off = tuple(
            one.but(value=one.value + rng.uniform(5, 20) * sigma_of(one))
            if rng.random() < P
            else one
            for one in read.figures
        )
        judgement = judge_survey(read.but(readings=off))
        own = judge(judgement.rules, judgement.solution.unknowns, judgement.solution.covariance)
        for rule, plain, check in zip(judgement.rules, own, judgement.checks, strict=True):
            is_out = abs(float(rule.slope @ truth)) > check.tolerance
            plain_wrong += plain.verdict == "out" and not is_out
            wrong += check.verdict == "out" and not is_out
    assert plain_wrong > draws(3, 10)
    assert wrong < plain_wrong / 2


def test_the_edge_and_the_doubts_are_printed() -> None:
    told = as_json(judge_survey(demo_build().surveyed, "dry"))
    alternatives = told["doubts"]
    assert isinstance(alternatives, list)
    assert set(alternatives[0]) == {"bad", "odds", "checks"}
    checks = told["checks"]
    assert isinstance(checks, list)
    hanging = 0
    for check in checks:
        own = verdict_of(check["value"] - check["target"], check["sigma"], check["tolerance"])
        at_edge = own == "unsure" and 2 * check["sigma"] <= check["tolerance"] / 2
        assert check.get("edge", False) == at_edge
        assert check["spread"] >= check["sigma"]
        hanging += check["verdict"] == "unsure" and own != "unsure"
    assert hanging  # the demo has one that is known but for a reading: it is not at the edge
