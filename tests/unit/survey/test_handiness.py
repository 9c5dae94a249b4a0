"""What is asked for first: tied to the fuselage, little to set up, the wing before the tail."""

import numpy as np
import pytest

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.project.model import Build
from hardkeel.survey.handiness import efforts_of, handiest
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import DEFAULT_SIGMA, EFFORT, Distance, Height, Reading, marks_of


def bodies_on(build: Build, reading: Reading) -> set[str]:
    if reading.kind == "incidence":
        return {reading.body}
    owners = {mark.id: mark.body for mark in build.surveyed.marks}
    return {owners[mark] for mark in marks_of(reading)} - {FUSELAGE}


FRESH = [build_from(Figures()), *(start_from(one.id, 1200.0, 1000.0) for one in STARTERS)]


@pytest.mark.parametrize("build", FRESH, ids=lambda build: len(build.surveyed.bodies))
def test_the_first_reading_of_a_fresh_build_is_tied_to_the_fuselage_and_on_a_wing(
    build: Build,
) -> None:
    judged = judge_survey(build.surveyed)
    assert bodies_on(build, judged.next[0].reading) == {"wing"}
    best = min(one.sigma_after for one in judged.next)
    assert judged.next[0].sigma_after <= 1.25 * best


@pytest.mark.parametrize("build", FRESH, ids=lambda build: len(build.surveyed.bodies))
def test_the_list_goes_from_body_to_body(build: Build) -> None:
    judged = judge_survey(build.surveyed)
    listed = plan(judged.net, judged.solution, judged.rules)
    first = {body: i for i, r in reversed(list(enumerate(listed))) for body in bodies_on(build, r)}
    order = [body for body in ("wing", "upper_wing", "stab") if body in first]
    assert [first[body] for body in order] == sorted(first[body] for body in order)


def test_worth_goes_before_ease_and_ease_before_a_hair_of_worth() -> None:
    after = np.array([0.10, 0.11, 0.30, 0.115])
    efforts = np.array([5.0, 2.0, 1.0, 1.5])
    assert list(handiest(after, efforts)) == [3, 1, 0, 2]


def test_every_kind_has_an_effort_and_two_loose_ends_cost_more() -> None:
    assert EFFORT.keys() == DEFAULT_SIGMA.keys() - {"sight"}
    survey = build_from(Figures()).surveyed
    tied = Distance(id="a", from_="nose_pin", to="wing_tip_le_port", value=1)
    loose = Distance(id="b", from_="fin_foot_te", to="wing_tip_le_port", value=1)
    easy = Height(id="c", mark="wing_tip_le_port", value=1)
    a, b, c = efforts_of(survey, (tied, loose, easy))
    assert b > a == c
