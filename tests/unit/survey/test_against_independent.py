"""The engine against a second implementation that shares nothing with it but the contract."""

import json
from typing import Any

import numpy as np
import pytest

from hardkeel.survey.judging import judge_survey
from hardkeel.survey.network import network_of
from hardkeel.survey.telling import as_json
from tests.airframes import plain_survey, random_truth, readings_of
from tests.draws import draws
from tests.independent import Independent


def plain(survey: Any) -> Any:
    return json.loads(survey.model_dump_json(by_alias=True))


@pytest.mark.parametrize("seed", range(draws(3, 5)))
def test_random_surveys_give_the_same_numbers(seed: int) -> None:
    rng = np.random.default_rng(seed)
    base = plain_survey(twist=bool(seed % 2))
    survey = readings_of(base, random_truth(network_of(base), rng), rng, 45)
    spoilt = survey.figures[7].but(value=survey.figures[7].value + 9.0)
    survey = survey.but(readings=(*survey.figures[:7], spoilt, *survey.figures[8:]))

    ours: Any = as_json(judge_survey(survey))
    other = Independent(plain(survey)).run()

    assert [s["reading"] for s in ours["suspects"]] == other["suspects"]
    for (body, name), value in other["unknowns"].items():
        told = ours["bench"] if body == "bench" else ours["bodies"][body]
        assert told[name] == pytest.approx(value, abs=2e-3), (body, name)
        assert told["sigma"][name] == pytest.approx(other["sigma"][(body, name)], abs=2e-3)
    for reading in ours["readings"]:
        if reading["used"]:
            assert reading["redundancy"] == pytest.approx(
                other["redundancy"][reading["id"]], abs=1e-3
            )


def test_every_kind_of_reading_is_predicted_alike() -> None:
    rng = np.random.default_rng(11)
    base = plain_survey()
    net = network_of(base)
    truth = random_truth(net, rng)
    everything = [
        {"id": "a", "kind": "distance", "from": "nose_pin", "to": "wing_tip_te_port", "value": 0},
        {"id": "b", "kind": "distance-difference", "from": "tail_pin", "to": ["stab_tip_te_port", "stab_tip_te_starboard"], "value": 0},
        {"id": "c", "kind": "height", "mark": "stab_tip_le_port", "value": 0},
        {"id": "d", "kind": "incidence", "body": "wing", "side": "port", "span_fraction": 0.7, "zero": "level", "value": 0},
        {"id": "e", "kind": "incidence", "body": "fuselage", "zero": "level", "value": 0},
        {"id": "f", "kind": "incidence", "body": "stab", "side": "centre", "span_fraction": 0.5, "value": 0},
        {"id": "g", "kind": "tilt", "from": "wing_tip_le_port", "to": "wing_tip_le_starboard", "value": 0},
        {"id": "h", "kind": "offset", "mark": "fin_top_te", "value": 0},
        {"id": "i", "kind": "angle", "at": "fin_foot_te", "from": "fin_top_te", "to": "stab_tip_te_port", "value": 0},
    ]  # fmt: skip
    survey = type(base).model_validate_json(json.dumps({**plain(base), "readings": everything}))
    values, _ = net.observer(survey.figures).predict(truth, net.placer.place(truth))
    other = Independent(plain(survey))
    named = dict(zip(other.names, truth, strict=True))
    expected = [other.predict(named, reading) for reading in everything]
    assert values == pytest.approx(expected, abs=1e-9)
