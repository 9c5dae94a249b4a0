"""A gauge that walks away from its zero is named, from the order of its readings, and a bad reading is not called one."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from hardkeel.messages.advice import next_step
from hardkeel.survey.drifting import drift_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Instrument, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading, sigma_of
from tests.airframes import plain_survey
from tests.draws import draws

BASE = plain_survey()
_EMPTY = judge_survey(BASE)
LIST = plan(_EMPTY.net, _EMPTY.solution, _EMPTY.rules, (), 31, _EMPTY.pool)


def read(seed: int, *, each: float = 0.0, slips: float = 0.0) -> Survey:
    """Thirty-one readings of a crooked airframe, the gauge off by so much more with each of its own."""
    net, rng = network_of(BASE), np.random.default_rng(seed)
    truth = 0.5 * rng.normal(size=net.columns.size)
    truth[net.columns.bench + 2] = 60.0
    values, _ = net.observer(LIST).predict(truth, net.placer.place(truth))
    found: list[Reading] = []
    walked = 0.0
    for i, (one, value) in enumerate(zip(LIST, values, strict=True)):
        sigma = sigma_of(one)
        off = sigma * rng.normal()
        if rng.random() < slips:
            off += float(rng.choice([-1, 1])) * rng.uniform(5, 20) * sigma
        if one.kind == "incidence":
            off, walked = off + walked, walked + each
        found.append(one.but(id=f"r{i}", value=float(value + off)))
    return BASE.but(readings=tuple(found))


def named(judged: Judgement) -> float | None:
    return None if judged.drift is None else judged.drift.each


def test_a_drift_is_named_and_a_zero_is_asked_for() -> None:
    survey = read(5, each=0.3)
    judged = judge_survey(survey)
    assert judged.drift is not None
    assert judged.drift.each == pytest.approx(0.3, abs=3 * judged.drift.sigma)
    step = next_step(survey, judged, "mm")
    assert step.kind == "again"
    assert step.why.startswith("This gauge drifts since its zero: +0.")
    assert "Zero it again, then take this again." in step.why


def test_most_drifts_are_named_and_slips_never() -> None:
    drifting = [named(judge_survey(read(seed, each=0.3))) for seed in range(draws(7, 20))]
    assert sum(one is not None for one in drifting) >= draws(6, 18)
    slips = [judge_survey(read(seed, slips=0.1)) for seed in range(draws(12, 40))]
    assert sum(bool(one.outliers) for one in slips) > draws(9, 30)
    assert not any(one.drift for one in slips)


@pytest.mark.parametrize("off", [0.6, 0.8, 1.0])
def test_what_was_set_aside_when_a_seat_was_put_right_is_no_drift(off: float) -> None:
    """Some readings of how it stood, some of how it stands: a step, no line."""
    for seed in range(draws(5, 12)):
        survey = read(seed)
        gauged = [one for one in survey.readings if one.kind == "incidence"][:6]
        rest = tuple(one for one in survey.readings if one.kind != "incidence")
        stood = [
            one.but(id=f"g{i}", value=one.value + (off if i < 3 else 0.0), ignored=i < 3)
            for i, one in enumerate(gauged)
        ]
        judged = judge_survey(BASE.but(readings=(*rest, *stood)))
        used = frozenset(fit.id for fit in judged.fits if fit.used)
        assert drift_of(judged.net, judged.solution, judged.readings, used) is None, seed


def test_a_gauge_that_drifts_is_told_beside_one_that_does_not() -> None:
    gauges = tuple(Instrument(id=one, kind="incidence-gauge") for one in ("one", "two"))
    named_for = []
    for seed in range(draws(4, 8)):
        count, readings = 0, []
        for reading in read(seed).figures:
            held = reading
            if reading.kind == "incidence":
                walked = 0.25 * count if count % 2 == 0 else 0.0
                tool = "one" if count % 2 == 0 else "two"
                held = reading.but(instrument=tool, value=reading.value + walked)
                count += 1
            readings.append(held)
        judged = judge_survey(BASE.but(readings=tuple(readings), instruments=gauges))
        if judged.drift is not None:
            held_by = {one.instrument for one in readings if one.id in judged.drift.readings}
            named_for.append(held_by)
    assert len(named_for) >= draws(3, 6)
    assert all(one == {"one"} for one in named_for)


@settings(max_examples=draws(8, 10), deadline=None)
@given(seed=st.integers(0, 10_000), each=st.sampled_from([-0.5, -0.3, 0.3, 0.4]))
def test_the_slope_is_that_of_readings_against_a_solution_without_them(
    seed: int, each: float
) -> None:
    """The same by another way: all of the gauge's readings ignored, adjusted anew, and the line found by whitening."""
    survey = read(seed, each=each)
    judged = judge_survey(survey)
    group = [one for one in survey.readings if one.kind == "incidence"]
    rest = tuple(one for one in survey.readings if one.kind != "incidence")
    used = frozenset(fit.id for fit in judged.fits if fit.used)
    drift = drift_of(judged.net, judged.solution, judged.readings, used)
    assume(drift is not None and len(drift.readings) == len(group))
    assert drift is not None
    kept = {fit.id for fit in judged.fits if fit.used}
    alone = judge_survey(BASE.but(readings=tuple(one for one in rest if one.id in kept)))
    told, slopes = alone.net.observer(group).predict(alone.solution.unknowns, alone.solution.placed)
    sigmas = np.array([sigma_of(one) for one in group])
    spread = slopes @ alone.solution.covariance @ slopes.T + np.diag(sigmas**2)
    root = np.linalg.cholesky(spread)
    off = np.array([one.value for one in group], dtype=float) - told
    design = np.column_stack((np.ones(len(group)), np.arange(len(group))))
    white = np.linalg.solve(root, np.column_stack((design, off)))
    found, *_ = np.linalg.lstsq(white[:, :2], white[:, 2], rcond=None)
    assert drift.each == pytest.approx(float(found[1]), abs=0.1 * drift.sigma)
