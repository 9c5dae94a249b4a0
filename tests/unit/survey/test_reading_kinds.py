"""Kinds of reading: what each says of itself, held against its fields and against what predicts it."""

import itertools

import pytest

from hardkeel.survey.observing import MODELS
from hardkeel.survey.readings import (
    ANGULAR,
    KINDS,
    AngleAt,
    Distance,
    DistanceDifference,
    Gap,
    Height,
    Incidence,
    Observation,
    Offset,
    Sight,
    Tilt,
    counted,
    marks_of,
    place_of,
    sigma_of,
)

ONE_OF_EACH: tuple[Observation, ...] = (
    Distance(id="r", value=1.0, from_="a", to="b"),
    DistanceDifference(id="r", value=1.0, from_="a", to=("b", "c")),
    Height(id="r", value=1.0, mark="a"),
    Incidence(id="r", value=1.0, body="wing"),
    Tilt(id="r", value=1.0, from_="a", to="b"),
    Offset(id="r", value=1.0, mark="a", along=("b", "c")),
    AngleAt(id="r", value=1.0, from_="a", at="b", to="c"),
    Gap(id="r", value=1.0, from_="a", to="b", axis="x"),
    Sight(id="r", value=(1.0, 2.0), photo="p", mark="a"),
)


def test_every_kind_is_in_the_table() -> None:
    assert {one.kind for one in ONE_OF_EACH} == KINDS.keys()
    assert {"incidence", "tilt", "angle"} == ANGULAR


@pytest.mark.parametrize("one", ONE_OF_EACH, ids=lambda one: one.kind)
def test_ends_name_the_fields_that_hold_the_marks(one: Observation) -> None:
    written = one.model_dump(mode="json", by_alias=True)
    for field, mark in one.ends:
        name, _, index = field.rstrip("]").partition("[")
        value = written[name]
        assert (value[int(index)] if index else value) == mark
    assert len(set(marks_of(one))) == len(one.ends)


@pytest.mark.parametrize("one", ONE_OF_EACH, ids=lambda one: one.kind)
def test_what_is_held_on_marks_has_a_model_and_what_is_picked_comes_back(one: Observation) -> None:
    if isinstance(one, Incidence | Sight):
        return
    assert one.kind in MODELS
    if not one.picks:
        return
    marks = ("m", "n", "o")[: one.picks]
    again = type(one).picked(marks, id="r", value=1.0)
    assert marks_of(again) == marks


def test_one_place_whatever_was_shown_and_two_where_it_was_held_otherwise() -> None:
    for one in ONE_OF_EACH:
        assert place_of(one) == place_of(one.but(id="other", sigma=3.0, taken=None))
    places = [place_of(one) for one in ONE_OF_EACH]
    assert len(set(places)) == len(places)
    tape = Distance(id="r", value=1.0, from_="a", to="b")
    assert place_of(tape) == place_of(tape.but(from_="b", to="a"))
    level = Tilt(id="r", value=1.0, from_="a", to="b")
    others = (level, level.but(turned=True), level.but(from_="b", to="a"))
    assert all(place_of(a) != place_of(b) for a, b in itertools.combinations(others, 2))


def test_a_tool_turned_end_for_end_brings_its_zero_the_other_way() -> None:
    gauge = Incidence(id="r", value=1.0, body="wing")
    level = Tilt(id="r", value=1.0, from_="a", to="b")
    assert gauge.zeros == (("gauge", 1.0),)
    assert gauge.but(turned=True).zeros == (("gauge", -1.0),)
    assert level.but(turned=True).zeros == (("level", -1.0),)


def test_own_sigma_goes_before_that_of_the_kind_and_simulated_never_beside_real() -> None:
    tape = Distance(id="r", value=1.0, from_="a", to="b")
    assert sigma_of(tape) == 0.5
    assert sigma_of(tape.but(sigma=2.0)) == 2.0
    made_up = tape.but(id="s", simulated=True)
    assert counted((tape, made_up, tape.but(id="i", ignored=True))) == (tape,)
    assert counted((made_up,)) == (made_up,)
