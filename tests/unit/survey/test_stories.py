"""A check that hangs on one reading: it is open, it asks for that reading, and nothing calls it true or orders wood off."""

import numpy as np
import pytest

from hardkeel.cli.true import true_table
from hardkeel.messages.advice import headline
from hardkeel.messages.verdicts import standing_words, state_words, verdict_word
from hardkeel.picture.truing import body_verdict
from hardkeel.project.model import Build
from hardkeel.survey.checking import at_edge
from hardkeel.survey.judging import Asking, Judgement, again_of, judge_survey, next_readings
from hardkeel.survey.model import Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Tilt, counted, sigma_of
from hardkeel.survey.rigging import deciding, rig_stages
from hardkeel.survey.seatwork import seat_work
from tests.airframes import exactly, plain_survey


def rolled(seed: int, slight: float) -> Survey:
    """Thirty-one readings of a stabilizer rolled by 1.0°: a level on the longerons 8° off, one on it slightly."""
    base = plain_survey()
    empty = judge_survey(base)
    chosen = plan(empty.net, empty.solution, empty.rules, (), 31, empty.pool)
    net = network_of(base)
    truth = np.zeros(net.columns.size)
    column = net.columns.column("stab", "roll")
    assert column is not None
    truth[column], truth[net.columns.bench + 2] = 1.0, 60.0
    rng = np.random.default_rng(seed)
    values, _ = net.observer(chosen).predict(truth, net.placer.place(truth))
    readings = []
    wrong = {"longeron_port": 8.0, "stab_tip_te_port": -slight}
    for i, (one, value) in enumerate(zip(chosen, values, strict=True)):
        off = wrong.pop(one.from_, 0.0) if isinstance(one, Tilt) else 0.0
        noise = 0.6 * rng.normal() * sigma_of(one)
        readings.append(one.but(id=f"r{i}", value=float(value + noise + off)))
    assert not wrong
    return base.but(readings=tuple(readings))


FILES = [rolled(3, 0.6), rolled(4, 0.45)]


@pytest.fixture(params=FILES, ids=["slight 0.6", "slight 0.45"])
def judged(request: pytest.FixtureRequest) -> Judgement:
    return judge_survey(request.param)


def test_a_check_that_hangs_on_a_story_is_not_at_the_edge(judged: Judgement) -> None:
    check = judged.check("stab_roll")
    assert check is not None
    assert check.verdict == "unsure"
    assert abs(check.error) - 2 * check.sigma > check.tolerance  # by its own sigma it is out
    assert check.hangs
    assert not check.edge
    assert check.spread >= check.sigma
    assert verdict_word(check) == "in doubt"


def test_it_asks_for_the_readings_in_its_stories(judged: Judgement) -> None:
    check = judged.check("stab_roll")
    assert check is not None
    taken = counted(judged.readings)
    asked = next_readings(
        judged.pool,
        judged.solution,
        taken,
        judged.rules,
        (check,),
        Asking(again=again_of(judged)),
    )
    told = {
        name
        for doubt in judged.alternatives
        if "stab_roll" in doubt.checks
        for name in deciding(judged, doubt)
    }
    assert asked
    assert {one.reading.id for one in asked} <= told


def test_nothing_calls_it_true_or_nothing_out(judged: Judgement) -> None:
    survey = judged.net.survey
    stage = next(one for one in rig_stages(judged) if one.body == "stab")
    assert stage.state not in ("true", "edge")
    assert "Nothing out" not in headline(survey, judged)
    assert state_words(judged.checks_on("stab"), "mm") != "true"
    table = true_table(Build(survey=survey), judged, "mm")
    row = next(line for line in table.splitlines() if line.strip().startswith("Stabilizer level"))
    assert row.rstrip().endswith("in doubt")


def test_no_wood_is_ordered_off_for_it(judged: Judgement) -> None:
    correction = next(one for one in judged.corrections if one.body == "stab")
    out = {check.id for check in judged.checks_on("stab") if check.verdict == "out" or check.edge}
    work = seat_work(judged, correction, "sanding")
    assert "stab_roll" not in {check.id for check in work.after}
    if not out:
        assert not work.needed
        assert work.steps == ()


def test_known_and_at_the_limit_is_told_so() -> None:
    judged = exactly({"stab.roll": 0.5})
    check = judged.check("stab_roll")
    assert check is not None
    limit = at_edge(check)
    if check.verdict == "unsure":
        assert limit.edge
        assert verdict_word(limit) == "at the limit"
    stage = next(one for one in rig_stages(judged) if one.body == "stab")
    assert stage.state in ("edge", "out", "true")


@pytest.mark.parametrize(("name", "amount"), [("yaw", 0.8), ("dy", 3.0)])
def test_a_seat_is_slid_at_its_longest_base(name: str, amount: float) -> None:
    """Two contacts across the seat's diagonal: a hand's 0.2 mm turns the body by less than a tenth of a degree."""
    judged = exactly({f"wing.{name}": amount})
    correction = next(one for one in judged.corrections if one.body == "wing")
    steps = [
        one
        for one in seat_work(judged, correction, "sanding").steps
        if one.act in ("slide", "hold")
    ]
    body = judged.net.survey.body("wing")
    assert body is not None
    assert body.seat is not None
    at = {contact.id: np.array(contact.at) for contact in body.seat.contacts}
    held = [at[contact] for step in steps for contact in step.contacts]
    assert len(held) == 2
    longest = max(np.linalg.norm(a - b) for a in at.values() for b in at.values())
    assert np.linalg.norm(held[0] - held[1]) == pytest.approx(longest)


def test_a_correction_beyond_sense_is_measured_again_first() -> None:
    judged = exactly({"stab.roll": 12.0})
    correction = next(one for one in judged.corrections if one.body == "stab")
    steps = seat_work(judged, correction, "sanding").steps
    assert [step.act for step in steps] == ["again"]


def test_what_is_out_only_by_another_part_is_not_called_true() -> None:
    """A fin that stands upright on a stabilizer that is rolled: the stabilizer is to be mended, the fin hangs on it."""
    judged = exactly({"stab.roll": 1.5})
    gluing_prior = judged.check("fin_lean_to_stab")
    assert gluing_prior is not None
    assert gluing_prior.verdict == "out"
    assert judged.charged["fin_lean_to_stab"] == ("stab",)
    assert judged.hangs_on("fin") == "stab"
    assert judged.hangs_on("stab") == ""
    assert body_verdict(judged, "fin") == "unsure"
    stage = next(one for one in rig_stages(judged) if one.body == "fin")
    assert stage.state == "open"
    assert standing_words(judged.net.survey, judged, "fin", "mm") == "hangs on the stabilizer"
