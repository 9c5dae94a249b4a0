"""A part of one's own, such as a flying boat's step: marked, measured by height and angle, and taken away."""

import math

import numpy as np
import pytest

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.base.errors import BadInput
from hardkeel.edits.surfaces import add_part, set_wing, take_part_away
from hardkeel.messages.airframe import read_part
from hardkeel.messages.names import body_name, mark_name
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.rigging import rigging_order
from hardkeel.survey.roles import main_of, wing_beneath
from tests.rigged import read_all


def boat(build: Build | None = None) -> Build:
    """A step under the belly: 200 by 90 mm, two degrees up."""
    return add_part(build or build_from(Figures()), "Step", (300.0, 0.0, -60.0), (200.0, 90.0, 2.0))


def test_a_part_is_read_as_it_is_written() -> None:
    assert read_part("step, 300, 0, -60, 200, 90, 2", "mm") == (
        "step", (300.0, 0.0, -60.0), (200.0, 90.0, 2.0)
    )  # fmt: skip
    name, at, size = read_part("float deck; 1 in; -6; 1/2; 10; 2", "in")
    assert name == "float deck"
    assert at == pytest.approx((25.4, -152.4, 12.7))
    assert size == pytest.approx((254.0, 50.8, 0.0))
    with pytest.raises(BadInput, match="write it like"):
        read_part("step, 300, 0", "mm")


def test_its_corners_lie_by_its_size_and_angle_and_go_by_its_name() -> None:
    survey = boat().surveyed
    at = {mark.id: mark.at for mark in survey.marks if mark.body == "step"}
    front, rear = at["step_front_port"], at["step_rear_starboard"]
    assert math.dist(front[::2], rear[::2]) == pytest.approx(200.0)
    assert rear[2] - front[2] == pytest.approx(-200 * math.sin(math.radians(2)))
    assert (front[1], rear[1]) == (-45.0, 45.0)
    assert body_name(survey, "step") == "Step"
    assert mark_name(survey, "step_front_port") == "Step front port"


def test_how_it_lies_is_found_and_it_disturbs_nothing_else() -> None:
    build = boat(build_from(proposed("biplane")))
    survey = build.surveyed
    assert rigging_order(survey)[-1] == "step"
    wing, upper = main_of(survey, "wing"), survey.body("upper_wing")
    assert wing is not None
    assert upper is not None
    assert wing.id == "wing"
    beneath = wing_beneath(survey, upper)
    assert beneath is not None
    assert beneath.id == "wing"
    single = boat()
    poses = {"step": {"pitch": 1.4, "roll": 0.0}, "bench": {"z": 80.0}}
    read = read_all(single.surveyed, poses, np.random.default_rng(2), times=3)
    found = judge_survey(read, "dry")
    check = found.check("step_incidence")
    assert check is not None
    assert check.target == 2.0
    assert check.error == pytest.approx(1.4, abs=3 * check.sigma)
    assert check.verdict == "out"
    assert "step" not in {one.body for one in found.corrections}  # no seat, no order


def test_it_stays_where_it_is_when_the_wing_goes_and_is_taken_away_with_its_marks() -> None:
    build = boat()
    moved = set_wing(build, "wing", le_x=build.wings[0].le_x + 30.0)
    assert moved.surveyed.body("step") == build.surveyed.body("step")
    gone = take_part_away(build, "step")
    assert gone.surveyed == build_from(Figures()).surveyed
    with pytest.raises(BadInput, match="no part of your own"):
        take_part_away(build, "wing")
    with pytest.raises(BadInput, match="already"):
        boat(build)
    with pytest.raises(BadInput, match="wing comes first"):
        boat(Build())
    with pytest.raises(BadInput, match="longer and wider"):
        add_part(build, "deck", (0.0, 0.0, 0.0), (0.0, 10.0, 0.0))


def test_what_readings_hang_on_stays() -> None:
    build = boat()
    poses = {"step": {"pitch": 1.4}, "bench": {"z": 80.0}}
    read = build.but(survey=read_all(build.surveyed, poses, np.random.default_rng(2)))
    with pytest.raises(BadInput, match="readings were taken"):
        take_part_away(read, "step")
