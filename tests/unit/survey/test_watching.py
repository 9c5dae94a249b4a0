"""Readings that watch over one another: by rank one, and by solving anew without each."""

import numpy as np
import pytest

from hardkeel.geometry.rotation import Array
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Instrument
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Incidence, sigma_of
from hardkeel.survey.reliability import TWO_FACED, Watch
from tests.airframes import exactly_wrong, plain_survey


def slopes_of(judged: Judgement) -> Array:
    return np.array([rule.slope / rule.tolerance for rule in judged.rules])


def whitened(judged: Judgement, readings: tuple) -> Array:  # type: ignore[type-arg]
    _, rows = judged.net.observer(readings).predict(
        judged.solution.unknowns, judged.solution.placed
    )
    sigmas = np.array([sigma_of(one) for one in readings])
    return np.asarray(rows / sigmas[:, None], dtype=np.float64)


def covariance_with(judged: Judgement, rows: Array) -> Array:
    return np.asarray(np.linalg.inv(rows.T @ rows + judged.net.prior_matrix), dtype=np.float64)


@pytest.fixture(scope="module")
def fresh() -> Judgement:
    return judge_survey(plain_survey())


def test_one_more_is_what_solving_anew_without_each_reading_gives(fresh: Judgement) -> None:
    chosen = plan(fresh.net, fresh.solution, fresh.rules, most=18)
    rows, slopes = whitened(fresh, chosen[:12]), slopes_of(fresh)
    more = whitened(fresh, chosen[12:])
    watch = Watch(rows, covariance_with(fresh, rows), slopes)
    got, pairs = watch.one_more(more).variances(), watch.one_more(more).two_faced()
    for k, row in enumerate(more):
        held = np.vstack([rows, row])
        full = covariance_with(fresh, held)
        variance = np.diag(slopes @ full @ slopes.T)
        lost = sum(
            np.diag(slopes @ covariance_with(fresh, np.delete(held, i, axis=0)) @ slopes.T)
            - variance
            for i in range(len(held))
        )
        np.testing.assert_allclose(got[:, k], variance + 0.3 * lost, rtol=1e-6)
        q = np.eye(len(held)) - held @ full @ held.T
        beyond = sum(
            max(0.0, abs(q[i, j]) / np.sqrt(q[i, i] * q[j, j]) - TWO_FACED)
            for i in range(len(held))
            for j in range(i)
        )
        assert pairs[k] == pytest.approx(beyond, abs=1e-6)


def test_having_one_more_is_solving_with_it(fresh: Judgement) -> None:
    rows = whitened(fresh, plan(fresh.net, fresh.solution, fresh.rules, most=10))
    watch = Watch(rows[:9], covariance_with(fresh, rows[:9]), slopes_of(fresh)).having(rows[9])
    np.testing.assert_allclose(watch.covariance, covariance_with(fresh, rows), atol=1e-8)
    np.testing.assert_allclose(
        watch.cofactors, np.eye(10) - rows @ watch.covariance @ rows.T, atol=1e-8
    )


def test_in_the_list_nearly_every_reading_is_checked_by_others(fresh: Judgement) -> None:
    """The list that only sharpened left four of thirty unchecked and twelve pairs alike."""
    rows = whitened(fresh, plan(fresh.net, fresh.solution, fresh.rules))
    q = Watch(rows, covariance_with(fresh, rows), slopes_of(fresh)).cofactors
    own = np.diag(q)
    assert own.min() > 0.02
    alike = np.abs(q) / np.sqrt(np.outer(own, own))
    assert np.sum(np.triu(alike, 1) > TWO_FACED) <= 4


def test_where_tools_are_wanting_the_tool_is_named() -> None:
    gauge = (Instrument(id="gauge", kind="incidence-gauge"),)
    survey = plain_survey().but(instruments=gauge)
    readings: list[Incidence] = []
    judged = judge_survey(survey)
    for _ in range(60):
        judged = judge_survey(survey.but(readings=tuple(readings)))
        if not judged.next:
            break
        assert judged.why == ""
        readings.append(judged.next[0].reading.but(id=f"r{len(readings)}"))  # type: ignore[arg-type]
    assert judged.next == ()
    assert judged.why not in ("", "edge", "none", "incidence-gauge")


def test_what_is_known_and_at_the_limit_is_said_to_be_at_the_edge() -> None:
    judged = exactly_wrong("roll", 0.5)
    assert [check.id for check in judged.checks if check.edge] != []
    assert judged.next == ()
    assert judged.why == "edge"
    assert exactly_wrong("roll", 2.0).why == ""
