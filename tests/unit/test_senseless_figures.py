"""Figures that mean nothing are refused with one sentence and the place, wherever they stand in a file."""

import json

import pytest

from hardkeel.airframe.parts import parts_of
from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import marram
from hardkeel.demo.kettlewick import demo_build
from hardkeel.storage.format import build_from_text, text_of

TINY = 1e-300


@pytest.mark.parametrize(
    ("place", "path"),
    [
        ("tail[0].span", ("tail", 0, "span")),
        ("tail[0].root_chord", ("tail", 0, "root_chord")),
        ("tail[0].leading_edge[0]", ("tail", 0, "leading_edge", 0)),
        ("fuselage.longerons[0].section[1]", ("fuselage", "longerons", 0, "section", 1)),
        ("wings[0].span", ("wings", 0, "span")),
    ],
)
def test_a_figure_that_is_hardly_more_than_nothing_is_refused(
    place: str, path: tuple[str | int, ...]
) -> None:
    data = json.loads(text_of(demo_build()))
    at = data
    for step in path[:-1]:
        at = at[step]
    at[path[-1]] = TINY
    with pytest.raises(BadInput, match=r"must be more than 0\.001, not 1e-300") as fault:
        build_from_text(json.dumps(data))
    assert fault.value.place == place
    at[path[-1]] = 0.0
    with pytest.raises(BadInput, match="must be more than 0, not"):
        build_from_text(json.dumps(data))


def test_a_stretch_that_ends_where_it_begins_is_refused() -> None:
    data = json.loads(text_of(demo_build()))
    data["fuselage"]["sections"][0] |= {"from": "F4", "to": "F4"}
    with pytest.raises(BadInput, match='is "F4", where it begins') as fault:
        build_from_text(json.dumps(data))
    assert fault.value.place == "fuselage.sections[0].to"


@pytest.mark.parametrize("span", [76.0, 40.0, 20.0])
def test_a_ribbed_tail_that_is_too_small_for_its_ribs_says_so(span: float) -> None:
    data = json.loads(text_of(marram()))
    for one in data["tail"]:
        one["span"] = span
        one["kind"] = "ribbed"
    try:
        parts_of(build_from_text(json.dumps(data)))
    except BadInput as fault:
        assert "tail" in fault.place  # a sentence with its place, nothing else  # noqa: PT017
