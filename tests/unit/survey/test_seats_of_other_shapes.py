"""What is told at the foot of a fin, under a V's tips and behind an engine: only what can be done there, and enough."""

import numpy as np
import pytest

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.messages.advice import step_sentence
from hardkeel.messages.deeds import seat_deed
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work
from tests.rigged import Poses, read_all

BENCH = {"pitch": 0.2, "roll": 0.1, "z": 70.0}


def steps(survey: Survey, body: str, poses: Poses) -> tuple[SeatStep, ...]:
    """What is told of a body of a model that stands so, read without error."""

    class Exact:
        def normal(self, _mean: float, _spread: float) -> float:
            return 0.0

    judged = judge_survey(read_all(survey, {**poses, "bench": BENCH}, Exact(), times=3), "dry")  # type: ignore[arg-type]
    mine = next(one for one in judged.corrections if one.body == body)
    return seat_work(judged, mine, "shims").steps


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


def test_an_engine_that_points_to_port_is_packed_behind_its_port_bolts() -> None:
    survey = build_from(Figures(engine=True, side=1.5)).surveyed
    told = steps(survey, "thrust", {"thrust": {"yaw": 1.5}})  # its nose to port
    behind = {contact: one.mm for one in told for contact in one.contacts if one.act == "behind"}
    assert behind.get("upper_port", 0.0) > behind.get("upper_starboard", 0.0)
