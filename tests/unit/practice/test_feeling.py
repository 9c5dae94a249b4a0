"""A model turned by hand: checks, tools and the air by second ways."""

import math

import pytest

from hardkeel.airframe.flights import build_trim
from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import practising as say
from hardkeel.practice.feeling import ON_BENCH, Feel, feel_of
from hardkeel.practice.hidden import Hidden
from hardkeel.practice.symptoms import SYMPTOMS, causes_of, symptom_called
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.ranking import KNOWN
from hardkeel.survey.readings import Tilt
from hardkeel.trim.flying import effect_of


@pytest.fixture(scope="module")
def feel() -> Feel:
    return feel_of(demo_build())


def test_straight_nothing_is_out_and_no_tool_shows_anything(feel: Feel) -> None:
    straight = feel.unknowns({})
    assert {one.verdict for one in feel.checks(straight)} == {"true"}
    assert feel.tools(straight) == ()


def test_a_turn_is_what_its_check_then_says(feel: Feel) -> None:
    checks = {one.id: one for one in feel.checks(feel.unknowns({("stab", "roll"): 1.2}))}
    assert checks["stab_roll"].error == pytest.approx(1.2)
    assert checks["stab_roll_to_wing"].error == pytest.approx(1.2)
    assert checks["wing_roll"].error == 0
    assert checks["stab_roll"].verdict == "out"
    assert checks["stab_yaw"].verdict == "true"


def test_tools_show_what_a_perfect_tool_shows_there(feel: Feel) -> None:
    unknowns = feel.unknowns({("stab", "yaw"): 0.8, ("wing", "roll"): -0.6})
    hidden = Hidden(feel.judgement.net, unknowns)
    shown = feel.tools(unknowns)
    assert shown
    for one in shown:
        assert one.shown == pytest.approx(hidden.show(one.reading), abs=1e-9)
        assert abs(one.shown - one.true) > 0


def test_a_bench_that_leans_moves_every_level_and_no_check(feel: Feel) -> None:
    unknowns = feel.unknowns({(ON_BENCH, "roll"): 2.0})
    assert {one.verdict for one in feel.checks(unknowns)} == {"true"}
    levels = [one for one in feel.tools(unknowns) if isinstance(one.reading, Tilt)]
    assert levels
    for one in levels:
        assert abs(one.shown - one.true) == pytest.approx(2.0, abs=0.01)


def test_a_symptoms_cause_does_it_the_way_it_is_told(feel: Feel) -> None:
    """Signs once more from what trims it out: who must hold rudder to port pulls to starboard."""
    trim = build_trim(demo_build())
    for name, figure, sign in (
        ("pulls-starboard", "rudder", 1),
        ("pulls-port", "rudder", -1),
        ("nose-up", "elevator", 1),
        ("nose-down", "elevator", -1),
        ("rolls-starboard", "roll_rate", 1),
        ("rolls-port", "roll_rate", -1),
    ):
        looked = 0
        for cause in causes_of(feel, symptom_called(name)):
            effect = effect_of(trim, cause.check, cause.check.error, 0.0)
            if cause.either or effect is None or effect.figures[0][0] != figure:
                continue
            looked += 1
            assert math.copysign(1, effect.first) == sign
            assert abs(cause.check.error) == pytest.approx(cause.check.tolerance)
        assert looked, name


def test_what_would_not_be_felt_is_asked_about_last(feel: Feel) -> None:
    causes = causes_of(feel, symptom_called("pulls-port"))
    slight = [one.is_slight for one in causes]
    assert slight == sorted(slight)
    for one in causes:
        told = say.first_words(feel.judgement.net.survey, one, "mm")
        assert (say.HARDLY_FELT in told) == one.is_slight
    wings = {one.check.body for one in causes_of(feel, symptom_called("rolls-port"))}
    assert wings == {"wing"}


def test_port_and_starboard_are_each_others_mirror(feel: Feel) -> None:
    for one in ("pulls", "rolls"):
        port = causes_of(feel, symptom_called(f"{one}-port"))
        starboard = causes_of(feel, symptom_called(f"{one}-starboard"))
        for left, right in zip(port, starboard, strict=True):
            assert left.check.id == right.check.id
            if not left.either:
                assert left.check.error == -right.check.error


def test_a_list_that_is_said_to_decide_does_by_the_adjustment(feel: Feel) -> None:
    """The readings of each list taken as they are expected, and solved."""
    said = set()
    for rule in feel.judgement.rules:
        listed = feel.list_for(rule)
        survey = feel.judgement.net.survey
        taken = tuple(one.but(id=f"r{i}") for i, one in enumerate(listed.readings))
        check = judge_survey(survey.but(readings=taken)).check(rule.id)
        assert check is not None
        said.add(listed.decides)
        if listed.decides:
            assert check.sigma <= 1.02 * KNOWN * check.tolerance, rule.id
        else:
            assert check.sigma > 0.98 * KNOWN * check.tolerance, rule.id
    assert True in said


@pytest.mark.parametrize("demo", DEMOS, ids=lambda one: one.name.split()[0])
def test_every_demo_can_be_played_with(demo) -> None:  # type: ignore[no-untyped-def]
    feel = feel_of(demo.make())
    survey = feel.judgement.net.survey
    for body, names in feel.turns.items():
        for name in names:
            unknowns = feel.unknowns({(body, name): 2.0})
            assert any(unknowns)
            feel.tools(unknowns)
            assert name in say.TURN_NAMES
    for one in SYMPTOMS:
        assert one.id in say.SYMPTOMS
        for cause in causes_of(feel, one):
            assert say.cause_words(survey, cause, "mm")
            assert say.first_words(survey, cause, "mm")
