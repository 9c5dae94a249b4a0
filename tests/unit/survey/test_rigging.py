"""Stages of rigging: what comes after what, where the work stands, what is asked for there."""

import math
from datetime import UTC, datetime

import numpy as np
import pytest

from hardkeel.airframe.tails import rudder_of
from hardkeel.base.errors import BadInput
from hardkeel.demo.biplane import TRUTH, teasel
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.seats import set_seat_kind
from hardkeel.edits.surfaces import set_wing
from hardkeel.edits.truing import set_locked
from hardkeel.messages.hanging import rudder_step
from hardkeel.messages.rig_next import stage_step
from hardkeel.practice.hidden import hidden_from
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import FUSELAGE, RUDDER, Instrument, Survey
from hardkeel.survey.readings import Reading, marks_of, place_of
from hardkeel.survey.rigging import (
    decides_on_stage,
    next_on_stage,
    rig_stages,
    rigging_order,
)
from hardkeel.tail.model import Controls
from tests.airframes import plain_survey

NOW = datetime(2026, 11, 30, 20, 15, tzinfo=UTC)


def bodies_of(survey: Survey, reading: Reading) -> set[str]:
    if reading.kind == "incidence":
        return {reading.body}
    owners = {mark.id: mark.body for mark in survey.marks}
    return {owners[mark] for mark in marks_of(reading)}


def test_the_lower_wing_comes_before_the_upper_and_the_fin_before_a_stabilizer_on_top_of_it() -> (
    None
):
    assert rigging_order(teasel().surveyed) == ("wing", "upper_wing", "stab", "fin")
    survey = plain_survey()
    assert rigging_order(survey) == ("wing", "stab", "fin")
    tee = tuple(
        body.but(pivot=(900.0, 0.0, 175.0)) if body.id == "stab" else body for body in survey.bodies
    )
    assert rigging_order(survey.but(bodies=tee)) == ("wing", "fin", "stab")


def test_where_the_work_stands_goes_on_as_stages_are_locked() -> None:
    build = teasel()
    for expected in ("fuselage", "fuselage"):
        now = [s.body for s in rig_stages(judge_survey(build.surveyed)) if s.current]
        assert now == [expected]
        build = set_locked(build, "wing", locked=True, now=NOW)
    tape = (Instrument(id="tape", kind="tape"),)
    stages = rig_stages(judge_survey(build.surveyed.but(instruments=tape)))
    assert [s.body for s in stages] == ["wing", "upper_wing", "stab", "fin"]
    assert [s.body for s in stages if s.current] == ["upper_wing"]
    assert stages[0].state == "locked"


def test_each_stage_asks_for_readings_of_its_own() -> None:
    survey = teasel().surveyed
    judged = judge_survey(survey)
    for body in ("wing", "upper_wing", "stab", "fin"):
        found = next_on_stage(judged, body)
        assert found
        there = {FUSELAGE, *rigging_order(survey)[: rigging_order(survey).index(body) + 1]}
        assert all(
            bodies_of(survey, one.reading) <= there for one in found
        )  # nothing that comes later
        check = judged.check(found[0].helps)
        assert check is not None
        assert check.body == body
    level = next_on_stage(judged, FUSELAGE)
    assert level[0].helps == "level"
    assert bodies_of(survey, level[0].reading) == {FUSELAGE}


def read_exactly(count: int = 60) -> Judgement:
    build = teasel()
    survey = build.surveyed
    hidden = hidden_from(survey, TRUTH)
    readings: list[Reading] = []
    judged = judge_survey(survey)
    for i in range(count):
        found = next_on_stage(judged, "wing") or next_on_stage(judged, FUSELAGE)
        if not found:
            break
        one = found[0].reading
        readings.append(one.but(id=f"r{i}", value=hidden.show(one), phase="dry"))
        judged = judge_survey(survey.but(readings=tuple(readings)))
    return judged


def test_a_stage_that_is_known_is_corrected_and_one_that_is_true_is_locked() -> None:
    judged = read_exactly()
    survey = judged.net.survey
    step = stage_step(survey, judged, "wing", "mm")
    assert step.kind == "correct"
    assert step.body == "wing"
    assert "incidence" in step.why
    glued = judge_survey(survey.but(locked=("wing",)))
    assert stage_step(survey.but(locked=("wing",)), glued, "wing", "mm").kind == "on"
    # with nothing but the wing's own incidence out, and twice the tolerance, it is true
    wide = survey.but(tolerances={"wing_incidence": 2.0})
    assert stage_step(wide, judge_survey(wide), "wing", "mm").kind == "lock"


def test_a_verdict_that_hangs_on_a_reading_asks_for_it_again_three_times_at_most() -> None:
    judged = read_exactly()
    survey = judged.net.survey
    rng = np.random.default_rng(3)
    found = None
    readings = survey.figures
    for _ in range(40):
        bad = int(rng.integers(len(survey.figures)))
        readings = tuple(
            one.but(value=one.value + 8 * (0.15 if one.kind in ("incidence", "tilt") else 0.5))
            if i == bad
            else one
            for i, one in enumerate(survey.figures)
        )
        doubtful = judge_survey(survey.but(readings=readings))
        found = decides_on_stage(doubtful, "wing")
        if found is not None:
            break
    assert found is not None
    again = [found.but(id=f"again{i}") for i in range(2)]
    more = judge_survey(survey.but(readings=(*readings, *again)))
    asked = decides_on_stage(more, "wing")
    assert asked is None or place_of(asked) != place_of(found)


def test_a_seat_of_another_kind_still_follows_the_airframe() -> None:
    build = set_seat_kind(teasel(), "stab", "slot")
    before = build.surveyed.body("wing")
    moved = set_wing(build, "wing", le_x=build.wings[0].le_x + 10.0)
    after = moved.surveyed.body("wing")
    assert before is not None
    assert after is not None
    assert before.seat is not None
    assert after.seat is not None
    assert after.seat.kind == "bolts"
    for was, now in zip(before.seat.contacts, after.seat.contacts, strict=True):
        assert abs(now.at[0] - was.at[0] - 10.0) < 1e-6


def test_the_rudder_comes_last_where_there_is_one_and_can_be_locked_though_it_is_no_body() -> None:
    build = demo_build()
    fin = next(one for one in build.tail if one.upright)
    stages = rig_stages(judge_survey(build.surveyed), rudder=rudder_of(build) is not None)
    assert rudder_of(build) == fin
    assert (stages[-1].body, stages[-1].state) == (RUDDER, "open")
    bare = build.but(tail=tuple(one.but(hinge_at_chord=None) for one in build.tail))
    assert rudder_of(bare) is None
    hung = set_locked(build, RUDDER, locked=True, now=NOW)
    again = rig_stages(judge_survey(hung.surveyed), rudder=True)
    assert again[-1].state == "locked"
    assert build_from_text(text_of(hung)).surveyed.locked == (RUDDER,)
    with pytest.raises(BadInput, match="no body"):
        set_locked(build, "aileron", locked=True, now=NOW)


def test_hanging_the_rudder_says_how_far_it_swings_and_what_is_in_its_way() -> None:
    build = demo_build()
    step = rudder_step(build, "mm")
    fin = rudder_of(build)
    assert fin is not None
    chord = (1 - 0.65) * max(fin.root_chord or 0.0, fin.tip_chord or 0.0)
    throw = (fin.controls or Controls()).up
    assert step.kind == "lock"
    assert f"swings {chord * math.sin(math.radians(throw)):.1f} mm to each side" in step.why
    assert rudder_step(set_locked(build, RUDDER, locked=True, now=NOW), "mm").kind == "on"
