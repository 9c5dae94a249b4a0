"""Tiny files and slips of the pen that would cost seconds, gigabytes or a traceback: one sentence each."""

import json
from typing import Any

import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import surfaces
from hardkeel.fuselage.model import MOST_FORMERS
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Shop

DEMO = demo_build()


def with_figure(path: str, value: object) -> str:
    """The demo's text with one figure changed: ``survey.bodies[1].incidence``."""
    data: Any = json.loads(text_of(DEMO))
    place = data
    *way, last = path.replace("[", ".").replace("]", "").split(".")
    for step in way:
        place = place[int(step)] if step.isdigit() else place[step]
    place[int(last) if last.isdigit() else last] = value
    return json.dumps(data)


@pytest.mark.parametrize(
    ("path", "value"),
    [
        ("survey.bodies[1].incidence", -1e6),
        ("wings[0].incidence", 61),
        ("tail[0].z", 999999.9),
        ("tail[0].tip_chord", 999999.9),
        ("tail[0].tip_chord", -3),
        ("wings[0].span", 20001),
        ("survey.bodies[1].pivot", [0, 0, 30000]),
        ("survey.readings[0].value", 1e7),
        ("survey.shop", {"sand_step": 5e-324}),
        ("survey.shop", {"shim_step": 1e6}),
        ("fuselage.formers[2].half_width", 1e5),
        ("fuselage.board", {"z": -1e5}),
    ],
)
def test_a_figure_of_no_model_is_told_with_its_place(path: str, value: object) -> None:
    with pytest.raises(BadInput) as told:
        build_from_text(with_figure(path, value))
    assert str(told.value).startswith(path.split("[", maxsplit=1)[0])
    assert "\n" not in str(told.value)


@pytest.mark.parametrize("value", [-3.0, 999999.9, float("nan"), float("inf")])
def test_an_edit_speaks_in_our_words_with_the_place(value: float) -> None:
    with pytest.raises(BadInput, match="tip_chord"):
        surfaces.set_tail(DEMO, "stab", tip_chord=value)
    with pytest.raises(BadInput, match="sand_step"):
        Shop().but(sand_step=value)


def test_two_thousand_formers_are_refused() -> None:
    former = json.loads(text_of(DEMO))["fuselage"]["formers"][2]
    many = [{**former, "id": f"X{i}", "station": float(i)} for i in range(2000)]
    with pytest.raises(BadInput, match=f"at most {MOST_FORMERS}"):
        build_from_text(with_figure("fuselage.formers", many))


@pytest.mark.parametrize(("name", "count"), [("marks", 2001), ("readings", 3001), ("bodies", 41)])
def test_more_than_any_model_has_is_refused(name: str, count: int) -> None:
    data = json.loads(text_of(DEMO))
    data["survey"][name] = [{**data["survey"][name][-1], "id": f"x{i}"} for i in range(count)]
    with pytest.raises(BadInput, match=f"survey.{name}: holds {count}"):
        build_from_text(json.dumps(data))


def test_an_adjustment_that_does_not_settle_says_so() -> None:
    far = surfaces.set_tail(DEMO, "stab", z=19999.0)
    with pytest.raises(BadInput, match="does not settle"):
        judge_survey(far.surveyed, "dry")


def test_a_wild_reading_that_can_not_be_adjusted_is_named() -> None:
    survey = DEMO.surveyed
    wild = survey.figures[0].but(value=100.0)  # a level that lies across the longerons
    with pytest.raises(BadInput, match=r'survey.readings\[0\].value: "r1" says 100 where'):
        judge_survey(survey.but(readings=(wild, *survey.readings[1:])), "dry")


def test_a_very_long_name_is_no_fault() -> None:
    long = DEMO.but(name="long name " * 10_000)
    assert build_from_text(text_of(long)) == long
