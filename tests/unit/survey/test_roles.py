"""Checks by role: against a second implementation from the contract, whatever bodies are called."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.survey.checking import judge, rules_of
from hardkeel.survey.columns import lay_out
from hardkeel.survey.model import Survey
from hardkeel.survey.rigging import rigging_order
from hardkeel.survey.roles import main_of, role_of, trimming
from tests.roles_independent import checks

Json = dict[str, Any]


def body(name: str, x: float = 0.0, z: float = 0.0, **more: Any) -> Json:
    """A body of a file."""
    return {"id": name, "pivot": [x, more.pop("y", 0.0), z], "span": 400, "chord": 100, **more}


FLEET: dict[str, list[Json]] = {
    "conventional": [
        body("wing", 200, incidence=2.0, twist=True),
        body("stab", 800, incidence=0.5),
        body("fin", 850),
    ],
    "own names": [
        body("tailplane", 800, role="stabilizer", incidence=-0.5, twist=True),
        body("main", 200, incidence=1.5, twist=True),
        body("rudder post", 850, role="fin", yaw=1.0),
    ],
    "tee": [
        body("wing", 200, incidence=1.0),
        body("fin", 800, z=0.0, span=150),
        body("stab", 820, z=150.0),
    ],
    "two fins": [
        body("wing", 200, incidence=1.0),
        body("stab", 800),
        body("fin_p", 810, y=-200, yaw=1.0),
        body("fin_s", 810, y=200, yaw=-1.0),
    ],
    "three fins": [
        body("wing", 200),
        body("stab", 800),
        body("fin", 800),
        body("fin2", 800, y=-100),
        body("fin3", 800, y=100),
    ],
    "vee": [
        body("wing", 200, incidence=2.5, twist=True),
        body("vee_port", 800, y=-60, incidence=0.2, yaw=0.5),
        body("vee_starboard", 800, y=60, incidence=0.4, yaw=-0.5),
    ],
    "foreplane": [
        body("wing", 600, incidence=1.0),
        body("canard", 50, incidence=3.0, twist=True),
        body("fin", 700),
    ],
    "stabilizer ahead": [body("wing", 600, incidence=1.0), body("stab", 50, incidence=3.0)],
    "no tail": [body("wing", 200, incidence=2.0), body("fin", 300)],
    "engine": [
        body("wing", 200, incidence=2.0),
        body("upper_wing", 180, z=200, incidence=1.0),
        body("stab", 800),
        body("thrust", -20, incidence=-2.0, yaw=-1.5),
    ],
}


@pytest.mark.parametrize("name", FLEET)
@given(values=st.lists(st.floats(-4, 4), min_size=80, max_size=80), own=st.booleans())
def test_every_check_has_the_contracts_value_target_and_tolerance(
    name: str, values: list[float], own: bool
) -> None:
    file: Json = {"bodies": [{"id": "fuselage"}, *FLEET[name]]}
    if own:
        file["tolerances"] = {"decalage": 0.21, f"{FLEET[name][0]['id']}_yaw": 0.11}
    survey = Survey.model_validate_json(json.dumps(file))
    columns = lay_out(survey.bodies)
    unknowns = np.array(values[: columns.size])
    found = judge(rules_of(survey, columns), unknowns, np.eye(columns.size) * 1e-6)
    named = {
        (owner, unknown): float(unknowns[columns.start[owner] + i])
        for owner in columns.start
        for i, unknown in enumerate(columns.names[owner])
    }
    wanted = checks(file, named)
    assert {one.id for one in found} == wanted.keys()
    for one in found:
        assert (one.value, one.target, one.tolerance) == pytest.approx(wanted[one.id])


@pytest.mark.parametrize(
    ("name", "order"),
    [
        ("own names", ("main", "tailplane", "rudder post")),
        ("tee", ("wing", "fin", "stab")),
        ("two fins", ("wing", "stab", "fin_p", "fin_s")),
        ("vee", ("wing", "vee_port", "vee_starboard")),
        ("foreplane", ("wing", "canard", "fin")),
        ("engine", ("wing", "upper_wing", "stab", "thrust")),
    ],
)
def test_the_order_of_rigging_follows_the_roles(name: str, order: tuple[str, ...]) -> None:
    survey = Survey.model_validate_json(json.dumps({"bodies": [{"id": "fuselage"}, *FLEET[name]]}))
    assert rigging_order(survey) == order


def test_main_bodies_and_what_trims() -> None:
    survey = Survey.model_validate_json(json.dumps({"bodies": [{"id": "fuselage"}, *FLEET["vee"]]}))
    assert main_of(survey, "fin") is None
    assert [one.id for one in trimming(survey)] == ["vee_port", "vee_starboard"]
    assert [role_of(one) for one in survey.bodies] == [None, "wing", "vee", "vee"]
