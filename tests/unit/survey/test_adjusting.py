import numpy as np
import pytest
from hypothesis import given, settings

from hardkeel.base.errors import BadInput
from hardkeel.survey.adjusting import solve
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.network import network_of
from hardkeel.survey.outliers import W_LIMIT
from hardkeel.survey.readings import Distance, Height, Incidence
from tests.airframes import plain_survey, random_truth, readings_of
from tests.draws import draws
from tests.strategies import seeds


@given(seeds)
@settings(max_examples=draws(8, 25))
def test_derivatives_are_the_slopes_of_the_predictions(seed: int) -> None:
    rng = np.random.default_rng(seed)
    base = plain_survey()
    net = network_of(base)
    truth = random_truth(net, rng)
    readings = readings_of(base, truth, rng, 40).figures
    observer = net.observer(readings)
    _, slopes = observer.predict(truth, net.placer.place(truth))
    step = 1e-5
    for k in range(net.columns.size):
        up, down = truth.copy(), truth.copy()
        up[k] += step
        down[k] -= step
        high, _ = observer.predict(up, net.placer.place(up))
        low, _ = observer.predict(down, net.placer.place(down))
        assert slopes[:, k] == pytest.approx((high - low) / (2 * step), abs=2e-6)


@given(seeds)
@settings(max_examples=draws(8, 15))
def test_readings_without_noise_give_the_truth_back(seed: int) -> None:
    rng = np.random.default_rng(seed)
    base = plain_survey()
    net = network_of(base)
    truth = random_truth(net, rng, 0.1)
    survey = readings_of(base, truth, rng, 400, noise=0.0)
    exact = survey.but(readings=tuple(r.but(sigma=1e-4) for r in survey.readings))
    found = solve(network_of(exact), exact.readings).unknowns
    assert found == pytest.approx(truth, abs=2e-3)


def test_a_single_height_moves_the_bench_by_the_weight_of_prior_and_reading() -> None:
    survey = plain_survey().but(readings=(Height(id="a", mark="nose_pin", value=100.0),))
    net = network_of(survey)
    solution = solve(net, survey.readings)
    # nose pin: x = 0, so only z and dz-free bench roll (y = 0) enter: z = 60·W/(W + P)
    assert solution.unknowns[net.columns.bench + 2] == pytest.approx(
        60 * 500**2 / (500**2 + 0.4**2), rel=1e-4
    )
    assert solution.redundancy[0] == pytest.approx(0.4**2 / (500**2 + 0.4**2), rel=1e-3)


def test_one_incidence_reading_is_split_between_pitch_and_its_prior() -> None:
    survey = plain_survey(twist=False).but(readings=(Incidence(id="a", body="wing", value=3.0),))
    net = network_of(survey)
    solution = solve(net, survey.readings)
    pitch = net.columns.column("wing", "pitch")
    assert pitch is not None
    assert solution.unknowns[pitch] == pytest.approx(1.0 * 9 / (9 + 0.15**2), rel=1e-9)
    assert solution.covariance[pitch, pitch] == pytest.approx(1 / (1 / 9 + 1 / 0.15**2), rel=1e-9)


def test_more_precise_readings_shrink_every_sigma() -> None:
    rng = np.random.default_rng(3)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng), rng, 40)
    net = network_of(survey)
    finer = tuple(r.but(sigma=0.01) for r in survey.readings)
    coarse = np.diag(solve(net, survey.readings).covariance)
    fine = np.diag(solve(net, finer).covariance)
    assert (fine <= coarse + 1e-12).all()


def test_figures_beyond_all_measure_are_told_not_crashed_on() -> None:
    far = Distance(id="a", from_="nose_pin", to="wing_tip_te_port", value=1e4, sigma=2e-6)
    with pytest.raises(BadInput, match=r"too large|not settle|far off"):
        judge_survey(plain_survey().but(readings=(far,)))


@pytest.mark.slow
def test_errors_over_sigma_have_unit_spread_over_many_airframes() -> None:
    rng = np.random.default_rng(8)
    base = plain_survey()
    net = network_of(base)
    pulls = []
    for _ in range(draws(50, 150)):
        truth = random_truth(net, rng, 0.5)
        truth[-1] = rng.normal() * 250
        survey = readings_of(base, truth, rng, 60)
        solution = solve(network_of(survey), survey.readings)
        pulls.append((solution.unknowns - truth) / np.sqrt(np.diag(solution.covariance)))
    spread = np.std(np.array(pulls), axis=0)
    well_known = spread[[i for i in range(len(spread)) if i != len(spread) - 1]]
    # truths are drawn at half the prior, so weakly read unknowns lie below 1; none may lie above
    assert well_known.max() < 1.25
    assert 0.75 < np.median(well_known) < 1.1


@pytest.mark.slow
def test_clean_readings_are_flagged_no_more_often_than_the_test_says() -> None:
    rng = np.random.default_rng(21)
    base = plain_survey()
    net = network_of(base)
    flagged = tested = 0
    for _ in range(draws(40, 120)):
        survey = readings_of(base, random_truth(net, rng, 0.3), rng, 60)
        solution = solve(network_of(survey), survey.readings)
        checked = solution.redundancy > 0.02
        tested += int(checked.sum())
        flagged += int((solution.w[checked] > W_LIMIT).sum())
    # 0.1 % of some 7,000 tests: seven expected, more than 18 would be beyond four sigma (of a third of them nine)
    assert tested > draws(1600, 5000)
    assert flagged <= draws(9, 18)


@pytest.mark.slow
def test_blunders_of_four_times_the_noticed_size_are_found() -> None:
    rng = np.random.default_rng(33)
    base = plain_survey()
    net = network_of(base)
    found = tried = 0
    for _ in range(draws(20, 60)):
        survey = readings_of(base, random_truth(net, rng, 0.2), rng, 60)
        fits = judge_survey(survey).fits
        pick = next(i for i in rng.permutation(60) if fits[i].redundancy > 0.3)
        spoilt = survey.readings[pick]
        wrong = spoilt.but(value=spoilt.value + 2 * fits[pick].noticed_from)
        readings = tuple(wrong if r.id == spoilt.id else r for r in survey.readings)
        outliers = judge_survey(survey.but(readings=readings)).outliers
        named = {s.reading for s in outliers} | {other for s in outliers for other in s.alike}
        tried += 1
        found += spoilt.id in named
    assert found >= 0.95 * tried
