"""What readings share: against a second implementation, by simulation, and what is said of it."""

import json
from typing import Any

import numpy as np
import pytest
from scipy.stats import chi2

from hardkeel.base.errors import BadInput
from hardkeel.geometry.chances import chi_square_beyond
from hardkeel.storage.format import build_from_data
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Instrument, Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.priors import USUAL_SHARED, Shared
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import Distance, Height, Incidence, Offset, Reading, Tilt, sigma_of
from hardkeel.survey.telling import as_json
from tests.airframes import plain_survey, random_truth, readings_of
from tests.draws import draws
from tests.shared_independent import SharedIndependent

Drawn = tuple[Survey, np.ndarray]


def is_special(reading: Reading) -> bool:
    """Whether it is one of those that settle what others share."""
    return (
        (isinstance(reading, Incidence | Tilt) and reading.turned)
        or (isinstance(reading, Offset) and reading.along is not None)
        or (isinstance(reading, Incidence) and reading.body == "fuselage")
    )


def random_shared(net: Network, rng: np.random.Generator, scale: float = 0.2) -> np.ndarray:
    """Unknowns with shared errors drawn from their own priors."""
    truth = random_truth(net, rng, scale)
    own = net.columns.own
    count = net.columns.size - own
    truth[own:] = rng.normal(size=count) / np.sqrt(net.columns.prior_weight[own:])
    return truth


def drawn(
    base: Survey, rng: np.random.Generator, chosen: tuple[Reading, ...], blunder: int | None = None
) -> Drawn:
    """These readings of a random airframe with shared errors."""
    named = base.but(readings=tuple(one.but(id=f"r{i}") for i, one in enumerate(chosen)))
    net = network_of(named)
    truth = random_shared(net, rng)
    values, _ = net.observer(chosen).predict(truth, net.placer.place(truth))
    readings = []
    for i, (one, value) in enumerate(zip(named.figures, values, strict=True)):
        wild = 8.0 if i == blunder else 0.0
        readings.append(one.but(value=float(value + (rng.normal() + wild) * sigma_of(one))))
    return base.but(readings=tuple(readings)), truth


def some(rng: np.random.Generator, count: int, special: int) -> tuple[Reading, ...]:
    pool = candidates_of(plain_survey().but(shared=USUAL_SHARED))
    settling = [one for one in pool if is_special(one)]
    picked = [pool[i] for i in rng.choice(len(pool), count, replace=False)]
    picked += [settling[i] for i in rng.choice(len(settling), special, replace=False)]
    return tuple({id(one): one for one in picked}.values())


def column_of(net: Network, owner: str, name: str) -> int:
    """Where the second implementation's unknown stands in ours."""
    columns = net.columns
    if owner == "bench":
        return columns.bench + ("pitch", "roll", "z").index(name)
    if owner.startswith("mark "):
        return columns.shared["mark", owner[5:]] + "xyz".index(name)
    if owner in ("bend_y", "bend_z"):
        return columns.shared[owner, ""]
    what, _, whose = owner.partition(" ")
    if (what, whose) in columns.shared:
        return columns.shared[what, whose]
    column = columns.column(owner, name)
    assert column is not None
    return column


@pytest.mark.parametrize(("seed", "blunder"), [(0, 3), (5, None)])
def test_a_second_implementation_gives_the_same_numbers(seed: int, blunder: int | None) -> None:
    rng = np.random.default_rng(seed)
    survey, _ = drawn(plain_survey().but(shared=USUAL_SHARED), rng, some(rng, 22, 8), blunder)
    judged = judge_survey(survey)
    other = SharedIndependent(
        json.loads(survey.model_dump_json(by_alias=True, exclude_unset=True))
    ).all_told()

    assert [one.reading for one in judged.outliers] == other["suspects"]
    sigma = np.sqrt(np.diag(judged.solution.covariance))
    for (owner, name), value in other["unknowns"].items():
        at, spread = column_of(judged.net, owner, name), other["sigma"][owner, name]
        assert abs(judged.solution.unknowns[at] - value) < 1e-3 * spread, (owner, name)
        assert sigma[at] == pytest.approx(spread, rel=1e-3), (owner, name)
    for fit in judged.fits:
        if fit.used:
            assert fit.redundancy == pytest.approx(other["redundancy"][fit.id], abs=1e-4)
    assert judged.goodness.chi2 == pytest.approx(other["fit"]["chi2"], rel=1e-4)
    assert judged.goodness.rows == pytest.approx(other["fit"]["rows"], rel=1e-4)
    assert judged.goodness.p == pytest.approx(other["fit"]["p"], rel=1e-3)


def test_every_shared_error_is_predicted_alike() -> None:
    rng = np.random.default_rng(7)
    chosen = (
        *some(rng, 60, 0),
        *[one for one in candidates_of(plain_survey().but(shared=USUAL_SHARED)) if is_special(one)],
    )
    survey, _ = drawn(plain_survey().but(shared=USUAL_SHARED), rng, tuple(chosen))
    net = network_of(survey)
    truth = random_shared(net, rng, 0.4)
    values, slopes = net.observer(survey.figures).predict(truth, net.placer.place(truth))
    plain: Any = json.loads(survey.model_dump_json(by_alias=True, exclude_unset=True))
    other = SharedIndependent(plain)
    named = {key: float(truth[column_of(net, *key)]) for key in other.names}
    assert values == pytest.approx(
        [other.predict(dict(named), one) for one in plain["readings"]], abs=1e-9
    )
    step = 1e-5
    for key in other.names[::5]:
        up, down = named | {key: named[key] + step}, named | {key: named[key] - step}
        slope = [
            (other.predict(up, one) - other.predict(down, one)) / (2 * step)
            for one in plain["readings"]
        ]
        assert slopes[:, column_of(net, *key)] == pytest.approx(slope, rel=1e-4, abs=1e-5), key


@pytest.mark.parametrize("shared", [Shared(), None])
def test_nothing_shared_gives_what_it_gave(shared: Shared | None) -> None:
    rng = np.random.default_rng(3)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng), rng, 40)
    one, other = judge_survey(survey), judge_survey(survey.but(shared=shared))
    assert np.array_equal(one.solution.unknowns, other.solution.unknowns)
    assert [c.verdict for c in one.checks] == [c.verdict for c in other.checks]


def test_a_mark_that_nothing_names_stays_where_it_is_and_is_not_told() -> None:
    survey = plain_survey().but(
        shared=USUAL_SHARED, readings=(Height(id="h", mark="nose_pin", value=100.0),)
    )
    told: Any = as_json(judge_survey(survey))["shared"]
    assert list(told["marks"]) == ["nose_pin"]
    assert set(told) == {"marks", "bend_y", "bend_z"}


def test_a_gauge_of_its_own_has_a_zero_of_its_own() -> None:
    """Turned end for end the zero enters with a minus, so that two readings find it."""
    readings = (
        Incidence(id="a", body="wing", value=2.4, instrument="old"),
        Incidence(id="b", body="wing", value=1.6, instrument="old", turned=True),
        Incidence(id="c", body="wing", value=2.0, instrument="new"),
    )
    survey = plain_survey(twist=False).but(shared=Shared(gauge=0.5), readings=readings)
    told: Any = as_json(judge_survey(survey))["shared"]
    assert set(told["gauge"]) >= {"old", "new"}
    assert told["gauge"]["old"]["value"] == pytest.approx(0.4, abs=0.02)
    assert abs(told["gauge"]["new"]["value"]) < 0.05


def test_the_gauge_on_the_datum_reads_its_zero_alone() -> None:
    reading = Incidence(id="a", body="fuselage", value=0.5)
    survey = plain_survey().but(shared=Shared(gauge=0.5), readings=(reading.but(sigma=0.01),))
    judged = judge_survey(survey)
    assert judged.solution.unknowns[judged.net.columns.shared["gauge", ""]] == pytest.approx(
        0.5, abs=1e-3
    )


def test_a_tape_is_stretched_before_its_hook_adds() -> None:
    tape = Instrument(id="tape", kind="tape")
    one = Distance(id="d", from_="nose_pin", to="tail_pin", value=0.0, instrument="tape")
    survey = plain_survey().but(
        shared=Shared(tape_zero=1.0, tape_stretch=0.001), instruments=(tape,), readings=(one,)
    )
    net = network_of(survey)
    state = np.zeros(net.columns.size)
    state[net.columns.shared["tape_zero", "tape"]] = 2.0
    state[net.columns.shared["tape_stretch", "tape"]] = 0.001
    values, _ = net.observer((one,)).predict(state, net.placer.place(state))
    assert values[0] == pytest.approx(700.0 * 1.001 + 2.0)


def test_a_string_runs_from_nose_to_tail() -> None:
    data = {
        "format": "hardkeel/1",
        "survey": {
            **json.loads(plain_survey().model_dump_json(by_alias=True)),
            "readings": [{"id": "o", "kind": "offset", "mark": "nose_foot", "along": ["tail_pin", "nose_pin"], "value": 0}],
        },
    }  # fmt: skip
    with pytest.raises(BadInput, match=r"survey.readings\[0\].along: .*aft"):
        build_from_data(data)


def test_a_bent_tail_is_found_by_a_string_and_told() -> None:
    """Two millimetres to port, of which the offsets of the tail pin and a string tell."""
    base = plain_survey().but(shared=USUAL_SHARED)
    chosen = plan_of(base, 60)
    named = base.but(readings=tuple(one.but(id=f"r{i}") for i, one in enumerate(chosen)))
    net = network_of(named)
    truth = np.zeros(net.columns.size)
    truth[net.columns.bench + 2] = 60.0
    truth[net.columns.shared["bend_y", ""]] = -2.0
    values, _ = net.observer(chosen).predict(truth, net.placer.place(truth))
    read = named.but(
        readings=tuple(
            one.but(value=float(v)) for one, v in zip(named.figures, values, strict=True)
        )
    )
    judged = judge_survey(read)
    bend = next(one for one in judged.shared if one.what == "bend_y")
    assert bend.found
    assert bend.value[0] == pytest.approx(-2.0, abs=0.6)
    square = judged.check("stab_yaw")
    assert square is not None
    assert square.verdict != "out"

    line = judge_survey(read.but(squared_to="line")).check("stab_yaw")
    assert line is not None
    # the line from nose to tail veers by atan(-2/700): the stabilizer is out of square to it by as much
    assert line.value == pytest.approx(square.value - np.degrees(bend.value[0] / 700.0), abs=0.01)


def plan_of(survey: Survey, most: int) -> tuple[Reading, ...]:
    empty = judge_survey(survey)
    return plan(empty.net, empty.solution, empty.rules, (), most, empty.pool)


def test_the_list_of_readings_settles_what_is_shared() -> None:
    base = plain_survey().but(shared=USUAL_SHARED)
    listed = plan_of(base, 60)
    assert any(isinstance(one, Incidence) and is_special(one) for one in listed)
    assert any(isinstance(one, Tilt) and one.turned for one in listed)
    assert any(isinstance(one, Offset) and one.along for one in listed)
    assert not any(is_special(one) for one in plan_of(plain_survey(), 60))


def test_errors_are_as_large_as_told_with_shared_errors_and_far_larger_without() -> None:
    base = plain_survey().but(shared=USUAL_SHARED)
    listed = plan_of(base, 50)
    pulls: dict[bool, list[float]] = {True: [], False: []}
    for seed in range(draws(8, 20)):
        survey, truth = drawn(base, np.random.default_rng(seed), listed)
        for declared, judged in (
            (True, judge_survey(survey, sound=True)),
            (False, judge_survey(survey.but(shared=None), sound=True)),
        ):
            own = judged.net.columns.own
            for rule, check in zip(judged.rules, judged.checks, strict=True):
                off = check.error - float(rule.slope[:own] @ truth[:own])
                pulls[declared].append(off / check.sigma)
    assert 0.9 < np.std(pulls[True]) < 1.12
    assert np.std(pulls[False]) > 1.8


def test_undeclared_the_fit_says_that_something_is_wrong() -> None:
    base = plain_survey().but(shared=Shared(mark=0.6, gauge=0.4, gauge_seat=0.1, bend_y=2.0))
    listed = plan_of(base, 50)
    poor = {True: 0, False: 0}
    for seed in range(draws(6, 12)):
        survey, _ = drawn(base, np.random.default_rng(seed), listed)
        poor[True] += judge_survey(survey, sound=True).goodness.poor
        poor[False] += judge_survey(survey.but(shared=None), sound=True).goodness.poor
    assert poor[True] <= 1
    assert poor[False] >= draws(4, 8)


def test_wet_readings_keep_marks_and_bends_and_forget_zeros() -> None:
    base = plain_survey().but(shared=USUAL_SHARED)
    listed = plan_of(base, 45)
    survey, _ = drawn(base, np.random.default_rng(2), listed)
    dry = survey.but(readings=tuple(one.but(phase="dry") for one in survey.figures))
    wet = dry.but(
        gluing={"body": "stab"},
        readings=(
            *dry.figures,
            Height(id="w", mark="stab_tip_te_port", phase="wet", value=90.0),
        ),
    )
    before, after = judge_survey(wet, "dry"), judge_survey(wet, "wet")
    columns = after.net.columns
    gluing_prior = after.net.gluing_prior
    assert gluing_prior is not None
    spread = np.linalg.inv(gluing_prior.weight)
    for (what, _), at in columns.shared.items():
        if what in ("mark", "bend_y", "bend_z"):
            assert gluing_prior.mean[at] == before.solution.unknowns[at]
            assert spread[at, at] == pytest.approx(before.solution.covariance[at, at], rel=1e-6)
        else:
            assert gluing_prior.mean[at] == 0.0
            assert spread[at, at] == pytest.approx(1 / columns.prior_weight[at], rel=1e-6)
            assert np.abs(np.delete(spread[at], at)).max() < 1e-9


def test_a_limit_is_named_where_one_shared_error_is_most_of_a_check() -> None:
    readings = tuple(
        Incidence(id=f"i{k}", body="wing", value=2.0, instrument="gauge") for k in range(3)
    )
    survey = plain_survey(twist=False).but(
        shared=Shared(gauge=0.3, gauge_seat=0.05), readings=readings
    )
    judged = judge_survey(survey)
    rule = next(one for one in judged.rules if one.id == "wing_incidence")
    assert judged.limit_of(rule) == ("gauge", "gauge")


@pytest.mark.parametrize("shared", [None, USUAL_SHARED])
def test_the_fit_of_wet_readings_leaves_out_what_the_glue_may_move(shared: Shared | None) -> None:
    """The quadratic form of all others is the least of the whole form over the glued body's six."""
    base = plain_survey() if shared is None else plain_survey().but(shared=shared)
    survey, _ = drawn(base, np.random.default_rng(4), plan_of(base, 40))
    wet = tuple(
        one.but(id=f"w{one.id}", phase="wet", value=one.value + 0.3)
        for one in survey.figures
        if "stab" in str(one)
    )[:8]
    both = survey.but(
        gluing={"body": "stab"},
        readings=(*(one.but(phase="dry") for one in survey.figures), *wet),
    )
    judged = judge_survey(both, "wet")
    gluing_prior, solution, columns = judged.net.gluing_prior, judged.solution, judged.net.columns
    assert gluing_prior is not None
    start = columns.start["stab"]
    free = np.arange(start, start + 6)
    kept = np.setdiff1d(np.arange(columns.size), free)
    away = solution.unknowns - gluing_prior.mean
    least = away.copy()
    least[free] = -np.linalg.solve(
        gluing_prior.weight[np.ix_(free, free)],
        gluing_prior.weight[np.ix_(free, kept)] @ away[kept],
    )
    form = least @ gluing_prior.weight @ least
    own = np.sum((solution.residuals / solution.sigmas) ** 2)
    assert judged.goodness.chi2 == pytest.approx(own + form, rel=1e-6)
    spread = np.diag(np.linalg.inv(gluing_prior.weight))[free]
    taken = np.sum(1 - np.diag(solution.covariance)[free] / spread)
    used = len(wet) - len(judged.outliers)
    assert judged.goodness.rows == pytest.approx(used - taken, rel=1e-6)


@pytest.mark.parametrize("freedom", [0.7, 1.0, 3.3, 12.0, 45.5, 200.0])
def test_the_tail_of_chi_square_is_scipys(freedom: float) -> None:
    for share in (0.01, 0.3, 0.9, 1.0, 1.1, 1.6, 3.0):
        found = chi_square_beyond(share * freedom, freedom)
        assert found == pytest.approx(chi2.sf(share * freedom, freedom), rel=1e-9, abs=1e-14)
