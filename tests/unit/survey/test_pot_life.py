"""The short list while the glue is workable: it tells a movement as well as ten readings did, in a walk round."""

from datetime import UTC, datetime, timedelta
from itertools import combinations

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.truing import set_gluing, set_mixed
from hardkeel.messages.gluing import list_words, movement_words, time_words, to_bring_back
from hardkeel.survey.gluing import dry_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Gluing
from hardkeel.survey.planning import plan
from hardkeel.survey.pot_life import TO_REPEAT, still_to_take
from hardkeel.survey.readings import Reading, place_of, sigma_of
from tests.airframes import plain_survey, random_truth

NOW = datetime(2026, 3, 1, 20, 0, tzinfo=UTC)


def glued(moved: dict[str, float], wet: int, seed: int = 1):  # type: ignore[no-untyped-def]
    """The app's own dry list read, then so many of the short list after the stabilizer moved."""
    rng = np.random.default_rng(seed)
    survey = plain_survey()
    empty = judge_survey(survey)
    net = empty.net
    truth = random_truth(net, rng, 0.1)

    def read(readings: tuple[Reading, ...], at: np.ndarray, phase: str) -> list[Reading]:
        values, _ = net.observer(readings).predict(at, net.placer.place(at))
        return [
            one.but(id=f"{phase}{i}", value=float(v + rng.normal() * sigma_of(one)), phase=phase)
            for i, (one, v) in enumerate(zip(readings, values, strict=True))
        ]

    dry = read(plan(net, empty.solution, empty.rules, (), 30, empty.pool), truth, "dry")
    after = truth.copy()
    for name, amount in moved.items():
        column = net.columns.column("stab", name)
        assert column is not None
        after[column] += amount
    ready = survey.but(readings=tuple(dry), gluing=Gluing(body="stab"))
    repeats = judge_survey(ready, "wet").repeats
    late = read(repeats[:wet], after, "wet")
    return judge_survey(ready.but(readings=(*dry, *late)), "wet"), repeats


def test_it_is_six_dry_readings_of_the_body_each_once() -> None:
    judged, repeats = glued({}, 0)
    assert len(repeats) == 6
    places = {place_of(one) for one in repeats}
    assert len(places) == 6
    dry = {place_of(one) for one in judged.net.survey.readings}
    assert places <= dry
    for one in repeats:
        assert "stab" in str(one.model_dump())


def test_next_follows_the_list_until_it_is_read() -> None:
    _, repeats = glued({}, 0)
    for count in range(6):
        judged, _ = glued({}, count)
        assert place_of(judged.next[0].reading) == place_of(repeats[count])
    done, _ = glued({}, 6)
    assert still_to_take(done.repeats, done.readings) == ()


def test_four_are_nearly_the_best_four_of_all() -> None:
    """By brute force over every four of the dry readings of the body: no worse than a fifth of a sigma."""
    judged, repeats = glued({}, 0)
    net = judged.net
    dry = judge_survey(net.survey.but(gluing=None), "dry")
    start = dry_of(net.columns, dry.solution, "stab")
    prior = start.covariance + np.diag(start.may_move)
    mine = [
        one for one in net.survey.readings
        if "stab" in str(one.model_dump()) and "wing" not in str(one.model_dump()) and "fin" not in str(one.model_dump())
    ]  # fmt: skip
    _, rows = net.observer(mine).predict(start.unknowns, net.placer.place(start.unknowns))
    white = rows / np.array([sigma_of(one) for one in mine])[:, None]
    arms = {"dx": 1.0, "dy": 1.0, "dz": 1.0, "roll": 215 * np.pi / 180, "yaw": 215 * np.pi / 180, "pitch": 120 * np.pi / 180}  # fmt: skip
    columns = [net.columns.column("stab", name) for name in arms]
    scale = np.array(list(arms.values()))

    def doubt(four: tuple[int, ...]) -> float:
        held = white[list(four)]
        left = np.linalg.inv(np.linalg.inv(prior) + held.T @ held)
        return float(np.sum(np.log(np.diag(left)[columns] * scale**2)))

    place = {place_of(one): i for i, one in enumerate(mine)}
    chosen = tuple(place[place_of(one)] for one in repeats[:TO_REPEAT])
    best = min(doubt(four) for four in combinations(range(len(mine)), TO_REPEAT))
    assert doubt(chosen) <= best + 6 * 2 * np.log(1.2)


def test_a_tip_that_comes_up_is_told_with_the_time_there_is() -> None:
    judged, _ = glued({"roll": 1.5}, 6)
    survey = judged.net.survey
    said = movement_words(survey, judged, "mm", 8.2)
    assert "has moved since the dry fit" in said
    assert "you have 9 minutes" in said
    assert "It is set" in movement_words(survey, judged, "mm", -1.0)
    still, _ = glued({}, 6, seed=4)
    assert "has moved" not in movement_words(still.net.survey, still, "mm", 9.0)
    assert list_words(survey, judged).count("✓") == 6


def test_the_pot_life_runs_from_when_it_was_mixed() -> None:
    build = set_mixed(set_gluing(demo_build(), "stab"), 30.0, NOW)
    gluing = build.surveyed.gluing
    assert gluing is not None
    assert gluing.minutes_left(NOW + timedelta(minutes=12)) == pytest.approx(18.0)
    assert gluing.minutes_left(NOW + timedelta(minutes=31)) == pytest.approx(-1.0)
    assert time_words(17.2) == "18 minutes left"
    assert time_words(1.0) == "1 minute left"
    assert "over" in time_words(-0.1)
    assert time_words(None) == ""
    back = set_mixed(build, None, NOW).surveyed.gluing
    assert back is not None
    assert back.minutes_left(NOW) is None
    with pytest.raises(BadInput, match="no pot life"):
        set_mixed(build, 0.0, NOW)
    with pytest.raises(BadInput, match="what the glue holds"):
        set_mixed(demo_build(), 30.0, NOW)


def test_what_is_glued_can_be_brought_to_true_instead_of_to_the_dry_fit() -> None:
    judged, _ = glued({"roll": 2.5}, 6)
    gluing = judged.net.survey.gluing
    assert gluing is not None
    survey = judged.net.survey.but(gluing=gluing.but(back_to="true"))
    again = judge_survey(survey, "wet")
    roll = next(c for c in again.checks if c.id == f"{gluing.body}_roll")
    assert roll.verdict == "out"
    said = movement_words(survey, again, "mm", 8.2)
    assert "is out of true: " in said
    assert "starboard tip up" in said if roll.error > 0 else "port tip up" in said
    back = "port tip up" if roll.error > 0 else "starboard tip up"
    assert f"Bring it to true, {back}: you have 9 minutes" in said
    assert to_bring_back(survey, again, 8.2) == gluing.body
    true, _ = glued({}, 6, seed=4)
    lies = true.net.survey.but(gluing=gluing.but(back_to="true"))
    said = movement_words(lies, judge_survey(lies, "wet"), "mm", 8.2)
    assert "Bring it" not in said
    assert to_bring_back(lies, judge_survey(lies, "wet"), 8.2) == ""
