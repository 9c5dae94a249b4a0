"""What is told at the foot of a fin, under a V's tips and behind an engine: only what can be done there, and enough."""

from datetime import UTC, datetime

import numpy as np
import pytest

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.edits.truing import correction_done
from hardkeel.logbook.entries import measured_again
from hardkeel.messages.advice import seat_advice, step_sentence
from hardkeel.messages.aiming import together_words
from hardkeel.messages.deeds import seat_deed
from hardkeel.messages.fitting import wedge_sentence
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work
from tests.rigged import Poses, read_all

BENCH = {"pitch": 0.2, "roll": 0.1, "z": 70.0}


def judged(survey: Survey, poses: Poses) -> Judgement:
    """A model that stands so, read without error."""

    class Exact:
        def normal(self, _mean: float, _spread: float) -> float:
            return 0.0

    return judge_survey(read_all(survey, {**poses, "bench": BENCH}, Exact(), times=3), "dry")  # type: ignore[arg-type]


def steps(survey: Survey, body: str, poses: Poses) -> tuple[SeatStep, ...]:
    """What is told of a body of a model that stands so, read without error."""
    found = judged(survey, poses)
    mine = next(one for one in found.corrections if one.body == body)
    return seat_work(found, mine, "shims").steps


def test_a_fin_that_leans_is_held_by_its_top_and_nothing_is_put_under_its_foot() -> None:
    survey = build_from(Figures()).surveyed
    told = steps(survey, "fin", {"fin": {"roll": 2.5}})
    assert [one.act for one in told] == ["upright"]
    # its top leans to port by the sine over its height of 150 mm
    assert told[0].starboard == pytest.approx(150 * np.sin(np.radians(2.5)), abs=0.7)
    said = step_sentence(survey, "fin", told[0], "mm")
    assert said.startswith("Lean its top 6.")
    assert "to starboard" in said
    assert seat_deed(survey, "fin", told[0], "mm").startswith("Leant its top")


def test_a_vs_half_that_stands_too_steep_has_its_prop_lowered() -> None:
    survey = build_from(proposed("vee")).surveyed
    told = steps(survey, "vee_starboard", {"vee_starboard": {"roll": 2.0}})
    prop = next(one for one in told if one.act == "prop")
    # half of 560 mm along the wood, its lift is the turn times how far out the tip lies
    out = 280 * np.cos(np.radians(35))
    assert prop.up == pytest.approx(-np.radians(2.0) * out, abs=0.9)
    assert "Lower the prop under its tip by" in step_sentence(survey, "vee_starboard", prop, "mm")
    assert seat_deed(survey, "vee_starboard", prop, "mm").startswith("Lowered the prop")


def test_an_engine_that_points_up_is_packed_behind_its_upper_bolts() -> None:
    figures = Figures(engine=True, down=2.0)
    survey = build_from(figures).surveyed
    told = steps(survey, "thrust", {"thrust": {"pitch": 1.5}})
    behind = {contact: one.mm for one in told for contact in one.contacts if one.act == "behind"}
    bolts = {one.id: one.at for one in survey.body("thrust").seat.contacts}  # type: ignore[union-attr]
    apart = bolts["upper_port"][2] - bolts["lower_port"][2]
    wedge = behind.get("upper_port", 0.0) - behind.get("lower_port", 0.0)
    assert wedge == pytest.approx(np.radians(1.5) * apart, abs=0.25)
    assert "behind the upper port bolt" in " ".join(
        step_sentence(survey, "thrust", one, "mm") for one in told
    )


def test_the_same_is_told_as_one_wedge() -> None:
    survey = build_from(Figures(engine=True, down=2.0)).surveyed
    packs = (
        SeatStep(act="behind", contacts=("upper_starboard",), mm=1.6),
        SeatStep(act="behind", contacts=("upper_port", "lower_starboard"), mm=0.8),
    )
    said = wedge_sentence(survey, "thrust", packs, "mm")
    assert (
        said == "Or one wedge: 1.6 mm at the upper starboard bolt, nothing at the lower port bolt."
    )
    assert wedge_sentence(survey, "wing", (SeatStep(act="pack", mm=1.0),), "mm") == ""
    found = judged(survey, {"thrust": {"pitch": 2.0}})
    mine = next(one for one in found.corrections if one.body == "thrust")
    then = seat_advice(survey, found, mine, "shims", "mm").then
    assert then.startswith("Or one wedge: ")
    assert "down thrust" in then


def test_an_engine_that_points_to_port_is_packed_behind_its_port_bolts() -> None:
    survey = build_from(Figures(engine=True, side=1.5)).surveyed
    told = steps(survey, "thrust", {"thrust": {"yaw": 1.5}})  # its nose to port
    behind = {contact: one.mm for one in told for contact in one.contacts if one.act == "behind"}
    assert behind.get("upper_port", 0.0) > behind.get("upper_starboard", 0.0)


def test_a_wing_too_high_over_another_has_all_struts_shortened_by_as_much() -> None:
    survey = build_from(proposed("biplane")).surveyed
    high = {"wing": {"dz": 0.8}, "upper_wing": {"dz": 5.8}}
    found = judged(survey, high)
    gap = next(one for one in found.checks if one.kind == "gap")
    lower, upper = survey.body("wing"), survey.body("upper_wing")
    assert lower is not None
    assert upper is not None
    assert gap.target == pytest.approx(upper.origin[2] - lower.origin[2])
    assert gap.error == pytest.approx(5.0, abs=0.3)
    assert found.charged[gap.id] == ("upper_wing",)
    told = steps(survey, "upper_wing", high)
    assert [one.act for one in told] == ["strut"] * 4
    # the struts stand nearly upright: each gives what the wing comes down
    assert [one.up for one in told] == pytest.approx([-5.0] * 4, abs=0.4)
    feet = {one.id: one for one in upper.seat.contacts}  # type: ignore[union-attr]
    for one in told:
        contact = feet[one.contacts[0]]
        assert contact.foot is not None
        assert one.length == pytest.approx(np.hypot.reduce(np.subtract(contact.at, contact.foot)))


def test_a_wing_too_far_aft_over_another_is_slid_forward_not_shimmed() -> None:
    survey = build_from(proposed("biplane")).surveyed
    aft = {"upper_wing": {"dx": 6.5}}
    found = judged(survey, aft)
    stagger = next(one for one in found.checks if one.kind == "stagger")
    assert stagger.error == pytest.approx(-6.5, abs=1.0)
    assert stagger.verdict == "out"
    slid = [one for one in steps(survey, "upper_wing", aft) if one.act == "slide"]
    assert slid
    assert all(one.aft == pytest.approx(-6.5, abs=1.0) for one in slid)


def test_gap_and_stagger_are_asked_only_where_it_was_said_what_makes_them() -> None:
    survey = build_from(proposed("biplane")).surveyed
    upper = survey.body("upper_wing")
    assert upper is not None
    assert upper.seat is not None
    unsaid = upper.but(seat=upper.seat.but(struts=None))
    bodies = tuple(unsaid if one.id == upper.id else one for one in survey.bodies)
    bare = judge_survey(survey.but(bodies=bodies), "dry")
    assert not {"gap", "stagger"} & {one.kind for one in bare.checks}
    high_wing = judge_survey(build_from(Figures(wing_place="parasol")).surveyed, "dry")
    assert not {"gap", "stagger"} & {one.kind for one in high_wing.checks}


def test_all_at_once_sends_a_propped_half_to_its_own_card_and_never_leaves_what_is_out() -> None:
    figures = proposed("vee").model_copy(update={"engine": True, "down": 2.0})
    survey = build_from(figures).surveyed
    found = judged(survey, {"vee_starboard": {"roll": 2.5}, "thrust": {"pitch": 2.0}})
    words = together_words(survey, found, "mm")
    assert "V starboard: as its own card says." in words
    assert "leave it" not in words.partition("Thrust line")[0]


def test_a_wing_far_out_on_its_struts_is_told_their_lengths_at_once() -> None:
    survey = build_from(proposed("biplane")).surveyed
    # a degree at 350 mm and 4 mm besides: the far strut is 10 mm off, and each of them can be made so
    told = steps(survey, "upper_wing", {"upper_wing": {"roll": 1.0, "dz": 4.0}})
    assert [one.act for one in told] == ["strut"] * 4
    assert max(abs(one.up) for one in told) > 9.0


def test_what_was_measured_again_and_is_so_is_told_and_not_asked_for_ever() -> None:
    build = build_from(Figures())
    found = judged(build.surveyed, {"wing": {"pitch": 4.8}})
    mine = next(one for one in found.corrections if one.body == "wing")
    (again,) = seat_work(found, mine, "shims").steps
    assert again.act == "again"
    log = correction_done(build, "wing", "dry", (again,), datetime(2026, 5, 1, tzinfo=UTC)).log
    assert measured_again(log, "wing")
    assert not measured_again(log, "stab")
    told = seat_work(found, mine, "shims", insisted=measured_again(log, "wing")).steps
    assert {one.act for one in told} <= {"pack", "sand"}
    assert max(one.mm for one in told) > 8.0


def test_what_lies_at_the_limit_may_be_left_and_says_so() -> None:
    survey = build_from(Figures()).surveyed
    found = judged(survey, {"wing": {"pitch": 0.52}})
    check = found.check("wing_incidence")
    assert check is not None
    mine = next(one for one in found.corrections if one.body == "wing")
    words = seat_advice(survey, found, mine, "shims", "mm").then
    assert ("may be left so" in words) == check.edge
    out = judged(survey, {"wing": {"pitch": 2.0}})
    mine = next(one for one in out.corrections if one.body == "wing")
    assert "may be left" not in seat_advice(survey, out, mine, "shims", "mm").then
