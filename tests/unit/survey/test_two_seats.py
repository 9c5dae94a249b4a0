"""Corrections of two seats: true to the wing as it stands, or both at once; carried out, not only forecast."""

import json

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.messages.aiming import together_words
from hardkeel.storage.format import build_from_text
from hardkeel.survey.checking import judge
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Shop, Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.telling import as_json
from tests.airframes import plain_survey, readings_of

CROOKED = {"wing": {"roll": 0.9, "pitch": -0.8}, "stab": {"roll": -0.7, "pitch": 0.9}}


def judged(aim: dict[str, str] | None = None, crooked: dict[str, dict[str, float]] | None = None) -> tuple[Judgement, np.ndarray]:  # fmt: skip
    """An airframe that is so crooked, read finely all round, and its truth."""
    survey = plain_survey(twist=False).but(shop=Shop(shim_step=0.01, sand_step=0.01), aim=aim)
    net = network_of(survey)
    truth = np.zeros(net.columns.size)
    for body, names in (crooked or CROOKED).items():
        for name, value in names.items():
            column = net.columns.column(body, name)
            assert column is not None
            truth[column] = value
    truth[net.columns.bench + 2] = 60.0
    read = readings_of(survey, truth, np.random.default_rng(1), 200, noise=0.0)
    fine = tuple(one.but(sigma=0.02) for one in read.readings)
    return judge_survey(survey.but(readings=fine)), truth


def carried_out(net: Network, truth: np.ndarray, moves: list[tuple[str, str, float]]) -> np.ndarray:
    """Truth after each contact is packed or sanded: dz, roll and pitch by brute search of the three that fit."""
    after = truth.copy()
    for body in dict.fromkeys(body for body, _, _ in moves):
        seat = net.seats[body]
        wanted = seat.place(truth).airframe[:, 2] + np.array(
            [mm for one, _, mm in moves if one == body]
        )
        start = net.columns.start[body]
        free = [start + net.columns.names[body].index(name) for name in ("dz", "roll", "pitch")]
        for _ in range(8):
            placed = seat.place(after)
            slopes = placed.airframe_moves[:, 2][:, free]
            after[free] += np.linalg.lstsq(slopes, wanted - placed.airframe[:, 2], rcond=None)[0]
    return after


def values_of(judgement: Judgement, truth: np.ndarray) -> dict[str, float]:
    zero = np.zeros((len(truth), len(truth)))
    return {one.id: one.value for one in judge(judgement.rules, truth, zero)}


@pytest.mark.parametrize("way", ["only_shims", "only_sanding"])
def test_both_at_once_brings_both_true_and_the_forecast_holds(way: str) -> None:
    judgement, truth = judged()
    assert judgement.together is not None
    joint = getattr(judgement.together, way)
    assert {body for body, _, _ in joint.moves} == {"wing", "stab"}
    after = values_of(judgement, carried_out(judgement.net, truth, list(joint.moves)))
    for check in joint.checks:
        assert after[check.id] == pytest.approx(check.value, abs=0.02)
    for name in ("wing_roll", "stab_roll", "stab_roll_to_wing"):
        assert after[name] == pytest.approx(0.0, abs=0.05)
    assert after["decalage"] == pytest.approx(2.0, abs=0.05)


def test_the_stabilizer_comes_true_to_the_wing_as_it_stands() -> None:
    judgement, truth = judged(
        {"stab": "wing"}, {"wing": {"roll": 0.4, "pitch": 0.4}, "stab": {"roll": -0.7}}
    )
    stab = next(one for one in judgement.corrections if one.body == "stab")
    moves = [("stab", contact, mm) for contact, mm in stab.only_shims.moves]
    after = values_of(judgement, carried_out(judgement.net, truth, moves))
    assert after["stab_roll_to_wing"] == pytest.approx(0.0, abs=0.05)
    assert after["decalage"] == pytest.approx(2.0, abs=0.05)
    assert after["stab_roll"] == pytest.approx(0.4, abs=0.05)
    for check in stab.only_shims.checks:
        assert after[check.id] == pytest.approx(check.value, abs=0.02)
    plain, _ = judged(None, {"wing": {"roll": 0.4, "pitch": 0.4}, "stab": {"roll": -0.7}})
    other = next(one for one in plain.corrections if one.body == "stab")
    moves = [("stab", contact, mm) for contact, mm in other.only_shims.moves]
    after = values_of(plain, carried_out(plain.net, truth, moves))
    assert after["stab_roll"] == pytest.approx(0.0, abs=0.05)
    assert abs(after["stab_roll_to_wing"]) > 0.3


def test_corrected_together_a_body_aims_where_the_other_goes() -> None:
    judgement, truth = judged({"stab": "wing"})
    assert judgement.together is not None
    joint = judgement.together.only_shims
    after = values_of(judgement, carried_out(judgement.net, truth, list(joint.moves)))
    assert after["stab_roll_to_wing"] == pytest.approx(0.0, abs=0.05)
    assert after["decalage"] == pytest.approx(2.0, abs=0.05)
    told = as_json(judgement)["together"]
    assert isinstance(told, dict)
    assert set(told) == {"only_shims", "only_sanding"}


def test_nothing_is_out_nothing_is_corrected_together() -> None:
    judgement, _ = judged(None, {"wing": {"roll": 0.05}})
    assert judgement.together is None
    assert "together" not in as_json(judgement)


def test_an_aim_at_nothing_is_told() -> None:
    def read(aim: dict[str, str]) -> Survey | None:
        data = {
            "format": "hardkeel/1",
            "survey": {"bodies": [{"id": "stab", "pivot": [0, 0, 0]}], "aim": aim},
        }
        return build_from_text(json.dumps(data)).survey

    assert read({"stab": "datum"}) is not None
    for aim, place in (
        ({"stab": "wing"}, "survey.aim.stab"),
        ({"wing": "stab"}, "survey.aim"),
        ({"stab": "stab"}, "survey.aim.stab"),
    ):
        with pytest.raises(BadInput, match=place.replace(".", r"\.")):
            read(aim)


def test_both_seats_are_told_wing_first() -> None:
    judgement, _ = judged()
    said = together_words(judgement.net.survey, judgement, "mm")
    assert said.index("Wing: ") < said.index("Stabilizer: ")
    assert "decalage 2.0" in said
    alone, _ = judged(None, {"stab": {"roll": 0.9}})
    assert together_words(alone.net.survey, alone, "mm") == ""
