import json

import numpy as np
import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.surfaces import set_wing
from hardkeel.edits.truing import change_value, delete_reading
from hardkeel.survey.adjusting import solve
from hardkeel.survey.checking import judge, rules_of, verdict_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.moving import movements
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.ranking import predicted_sigmas
from hardkeel.survey.reaching import error_at_reach_mm
from hardkeel.survey.readings import Distance, Incidence, Phase, place_of
from hardkeel.survey.telling import as_json
from tests.airframes import exactly_wrong, plain_survey, random_truth, readings_of, surface
from tests.draws import draws


@pytest.mark.parametrize(
    ("error", "sigma", "verdict"),
    [(0.1, 0.1, "true"), (0.3, 0.1, "true"), (0.31, 0.1, "unsure"), (0.71, 0.1, "out"), (-0.71, 0.1, "out"),
     (0.7, 0.1, "unsure"), (0.0, 0.26, "unsure")],
)  # fmt: skip
def test_verdicts_follow_the_two_sigma_rule(error: float, sigma: float, verdict: str) -> None:
    assert verdict_of(error, sigma, 0.5) == verdict


def test_checks_are_those_of_the_contract_with_its_tolerances() -> None:
    told = {c.id: (c.target, c.tolerance) for c in judge_survey(plain_survey()).checks}
    assert told == {
        "wing_incidence": (2.0, 0.5), "wing_yaw": (0, 0.3), "wing_roll": (0, 0.5), "wing_offset": (0, 1.5),
        "wing_twist_difference": (0, 0.5), "stab_incidence": (0, 0.5), "stab_yaw": (0, 0.3), "stab_roll": (0, 0.5),
        "stab_offset": (0, 1.5), "stab_twist_difference": (0, 0.5), "stab_roll_to_wing": (0, 0.5),
        "fin_yaw": (0, 0.5), "fin_lean_to_stab": (0, 0.75), "decalage": (2.0, 0.5),
    }  # fmt: skip


def test_another_wing_gets_the_same_checks_under_its_own_id_and_own_tolerances_hold() -> None:
    upper, marks = surface(
        "upper_wing", (200.0, 0.0, 200.0), (1000.0, 150.0), twist=True, incidence=1.0
    )
    base = plain_survey()
    survey = base.but(
        bodies=(*base.bodies, upper),
        marks=(*base.marks, *marks),
        tolerances={"upper_wing_yaw": 0.2},
    )
    told = {c.id: c for c in judge_survey(survey).checks}
    assert {
        f"upper_wing_{kind}" for kind in ("incidence", "yaw", "roll", "offset", "twist_difference")
    } <= set(told)
    assert told["upper_wing_yaw"].tolerance == 0.2
    assert told["upper_wing_incidence"].target == 1.0


def test_predicted_sigmas_are_those_of_solving_with_the_reading() -> None:
    rng = np.random.default_rng(4)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng, 0.02), rng, 25)
    net = network_of(survey)
    solution = solve(net, survey.figures)
    rule = next(r for r in rules_of(survey, net.columns) if r.id == "stab_yaw")
    pool = candidates_of(survey)[::9]
    after, expected = predicted_sigmas(net, solution, pool, rule.slope)
    for candidate, sigma, value in zip(pool, after, expected, strict=True):
        taken = candidate.but(id="new", value=float(value))
        again = solve(net, (*survey.figures, taken), solution.start)
        check = judge((rule,), again.unknowns, again.covariance)[0]
        assert check.sigma == pytest.approx(sigma, rel=2e-3)


def test_next_helps_the_worst_open_check_of_the_first_body_and_is_not_taken_yet() -> None:
    rng = np.random.default_rng(5)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng, 0.05), rng, 20)
    judgement = judge_survey(survey)
    open_ = [c for c in judgement.checks if c.verdict == "unsure"]
    first = next(body for body in ("wing", "stab", "fin") if body in {c.body for c in open_})
    worst = max((c for c in open_ if c.body == first), key=lambda c: c.sigma / c.tolerance)
    assert judgement.next
    assert all(one.helps == worst.id for one in judgement.next)
    assert all(
        one.sigma_after < one.sigma_now == pytest.approx(worst.sigma) for one in judgement.next
    )
    # what is asked for first is worth nearly as much as the best
    assert judgement.next[0].sigma_after <= 1.2 * min(one.sigma_after for one in judgement.next)
    taken = {place_of(r) for r in survey.readings}
    assert not any(place_of(one.reading) in taken for one in judgement.next)


def test_only_tools_at_hand_are_asked_for() -> None:
    survey = plain_survey().but(instruments=({"id": "mine", "kind": "tape"},))
    survey = Survey.model_validate_json(survey.model_dump_json(by_alias=True))
    judgement = judge_survey(survey)
    assert {one.reading.kind for one in judgement.next} == {"distance"}
    assert {one.reading.instrument for one in judgement.next} == {"mine"}


def test_a_plan_settles_every_check_on_a_true_model() -> None:
    survey = plain_survey()
    judgement = judge_survey(survey)
    wanted = plan(judgement.net, judgement.solution, judgement.rules)
    taken = tuple(r.but(id=f"p{i}") for i, r in enumerate(wanted))
    after = judge_survey(survey.but(readings=taken))
    assert len(wanted) <= 30
    assert sum(c.verdict == "true" for c in after.checks) >= 0.8 * len(after.checks)
    assert not any(c.verdict == "out" for c in after.checks)


def test_two_readings_that_can_not_be_told_apart_are_named_together() -> None:
    base = plain_survey(twist=False)
    right = tuple(
        Incidence(id=f"i{k}", body="wing", value=2.0 + v) for k, v in enumerate((0.0, 3.0))
    )
    judgement = judge_survey(base.but(readings=right))
    assert len(judgement.outliers) == 1
    assert {judgement.outliers[0].reading, *judgement.outliers[0].alike} == {"i0", "i1"}


def test_a_reading_that_nothing_checks_is_never_suspected() -> None:
    lone = Distance(id="a", from_="nose_pin", to="tail_pin", value=699.0)
    seen = judge_survey(plain_survey().but(readings=(lone,)))
    assert seen.fits[0].redundancy == pytest.approx(
        1.0
    )  # both ends are on the fuselage: all is checked
    single = Incidence(id="a", body="wing", value=2.05, sigma=0.01)
    told = judge_survey(plain_survey(twist=False).but(readings=(single,)))
    assert told.fits[0].noticed_from == float("inf")
    assert not told.outliers
    assert as_json(told)["readings"][0]["noticed_from"] is None  # type: ignore[index]


def test_an_unused_reading_is_judged_as_if_it_were_held() -> None:
    rng = np.random.default_rng(9)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng, 0.1), rng, 50)
    held = judge_survey(survey)
    ignored = survey.but(readings=(survey.readings[0].but(ignored=True), *survey.readings[1:]))
    fit = judge_survey(ignored).fits[0]
    assert not fit.used
    assert fit.redundancy == pytest.approx(held.fits[0].redundancy, abs=5e-3)
    assert fit.w == pytest.approx(held.fits[0].w, abs=2e-2)


def test_phases_are_kept_apart_and_their_movement_told() -> None:
    base = plain_survey(twist=False)
    pairs: tuple[tuple[Phase, float], ...] = (("dry", 2.0), ("wet", 2.9))
    readings = tuple(
        Incidence(id=f"{phase}{k}", body="wing", value=value, phase=phase)
        for phase, value in pairs
        for k in range(3)
    )  # fmt: skip
    survey = base.but(readings=readings)
    dry, wet = judge_survey(survey, "dry"), judge_survey(survey, "wet")
    moved = next(m for m in movements(dry, wet) if m.check == "wing_incidence")
    assert moved.moved == pytest.approx(0.9, abs=0.01)
    assert moved.sigma == pytest.approx(0.15 / 3**0.5 * 2**0.5, rel=0.01)
    assert moved.noticeable
    assert len(dry.readings) == 3


def test_a_leaning_stabilizer_is_sanded_or_shimmed_level() -> None:
    judgement = exactly_wrong("roll", 1.0)
    correction = next(c for c in judgement.corrections if c.body == "stab")
    arm = 25 * np.sin(np.radians(1.0))
    lifts = {move.contact: move.lift for move in correction.moves}
    assert lifts["le_starboard"] == pytest.approx(-arm, abs=2e-3)
    assert lifts["te_port"] == pytest.approx(arm, abs=2e-3)
    assert dict(correction.only_shims.moves)["le_port"] == pytest.approx(2 * arm, abs=0.011)
    assert dict(correction.only_sanding.moves)["te_starboard"] == pytest.approx(-2 * arm, abs=0.011)
    for way in (correction.only_shims, correction.only_sanding):
        after = next(c for c in way.checks if c.id == "stab_roll")
        assert abs(after.value) < 0.03
    assert min(mm for _, mm in correction.only_shims.moves) == 0
    assert max(mm for _, mm in correction.only_sanding.moves) == 0


def test_a_nose_high_wing_is_told_at_its_edge_in_millimetres() -> None:
    judgement = exactly_wrong("pitch", 1.0)
    check = judgement.check("stab_incidence")
    assert check is not None
    reach = error_at_reach_mm(judgement.net.survey, check)
    assert reach == pytest.approx(120 * np.sin(np.radians(1.0)), abs=0.01)


def test_a_yawed_stabilizer_is_slid_not_packed() -> None:
    correction = next(c for c in exactly_wrong("yaw", 1.0).corrections if c.body == "stab")
    moves = {move.contact: move for move in correction.moves}
    # starboard tip forward: its contacts must come aft by y·sin, plus the chord's share sideways
    assert moves["le_starboard"].slide_x == pytest.approx(25 * np.sin(np.radians(1)), abs=0.02)
    assert moves["le_port"].slide_x == pytest.approx(-25 * np.sin(np.radians(1)), abs=0.02)
    assert abs(moves["le_port"].lift) < 2e-3


def test_the_json_is_the_contracts_and_finite() -> None:
    rng = np.random.default_rng(2)
    base = plain_survey()
    survey = readings_of(base, random_truth(network_of(base), rng), rng, 40)
    told = json.loads(json.dumps(as_json(judge_survey(survey)), allow_nan=False))
    assert set(told) >= {"bodies", "bench", "checks", "suspects", "readings", "next", "corrections"}
    assert set(told["bodies"]["wing"]) == {
        "dx",
        "dy",
        "dz",
        "roll",
        "pitch",
        "yaw",
        "twist_port",
        "twist_starboard",
        "sigma",
    }
    assert set(told["corrections"]["stab"][0]) >= {"contact", "lift", "slide_x", "slide_y"}
    assert set(told["next"][0]) >= {"kind", "marks", "helps", "sigma_now", "sigma_after"}


def test_judged_from_nearby_it_says_the_same_as_from_nothing() -> None:
    """Where the adjustment starts changes nothing that anyone could read."""
    rng = np.random.default_rng(11)
    build = demo_build()
    before = judge_survey(build.surveyed, "dry")
    for _ in range(draws(10, 25)):
        one = build.surveyed.figures[rng.integers(len(build.surveyed.figures))]
        build_then = change_value(build, one.id, one.value + float(rng.normal(0, 2.0)))
        cold = judge_survey(build_then.surveyed, "dry")
        warm = judge_survey(build_then.surveyed, "dry", near=before, sound=True)
        sigma = np.sqrt(np.diag(cold.solution.covariance))
        assert np.abs((warm.solution.unknowns - cold.solution.unknowns) / sigma).max() < 2e-3
        assert [s.reading for s in warm.outliers] == [s.reading for s in cold.outliers]
        assert [c.verdict for c in warm.checks] == [c.verdict for c in cold.checks]
        assert [c.only_shims.moves for c in warm.corrections] == [
            c.only_shims.moves for c in cold.corrections
        ]
        before = warm


def test_what_was_made_ready_serves_only_the_same_bodies_and_marks() -> None:
    build = demo_build()
    first = judge_survey(build.surveyed, "dry")
    again = judge_survey(delete_reading(build, "r1").surveyed, "dry", near=first)
    assert again.net.placer is first.net.placer
    moved = set_wing(build, "wing", le_x=build.wings[0].le_x + 2.0)
    other = judge_survey(moved.surveyed, "dry", near=first)
    assert other.net.placer is not first.net.placer
    cold = judge_survey(moved.surveyed, "dry")
    assert [c.value for c in other.checks] == [c.value for c in cold.checks]
