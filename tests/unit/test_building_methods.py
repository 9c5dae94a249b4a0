"""Building methods: each a module, asked by what holds for it."""

import pytest

from hardkeel.airframe.kinds import CRUTCH, ON_BOARD, SHEET_BOX, STICK, FuselageKind, fuselage_from
from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.fuselage.methods import (
    any_with,
    method_named,
    methods_with,
    sections_with,
    side_at,
)
from hardkeel.fuselage.model import METHODS, TAIL_POST, Fuselage, Method
from hardkeel.messages.airframe import METHOD_WORDS
from hardkeel.messages.steps import step_title
from hardkeel.project.model import empty_build


def built_of(kind: FuselageKind, first: Method, second: Method) -> Fuselage:
    """A fuselage of two methods that meet at its fourth former."""
    made = fuselage_from(kind, -100.0, 800.0, 120.0)
    meets = made.formers[3].id
    ahead = made.sections[0].but(from_=made.formers[0].id, to=meets, method=first)
    behind = ahead.but(from_=meets, to=TAIL_POST, method=second)
    return made.but(sections=(ahead, behind))


def step_names(fuselage: Fuselage) -> list[str]:
    """Ids of the steps of framing it, in order."""
    return [step.id for step in frame_steps(empty_build().but(fuselage=fuselage))]


def test_every_method_has_a_module_and_words() -> None:
    assert {method_named(one).name for one in METHODS} == set(METHODS) == set(METHOD_WORDS)


def test_sides_are_of_sheet_or_of_sticks() -> None:
    assert methods_with("sheet") | methods_with("sticks") == set(METHODS)
    assert not methods_with("sheet") & methods_with("sticks")


@pytest.mark.parametrize(
    ("kind", "before", "after"),
    [
        (SHEET_BOX, "try in", "tail"),
        (STICK, "port side", "starboard side"),
        (CRUTCH, "crutch", "upper sides"),
        (ON_BOARD, "formers up", "sides"),
    ],
)
def test_each_is_put_up_in_its_own_order(kind: FuselageKind, before: str, after: str) -> None:
    names = step_names(fuselage_from(kind, -100.0, 800.0, 120.0))
    assert names.index(before) < names.index(after)


@pytest.mark.parametrize("other", METHODS)
def test_of_two_methods_a_crutch_leads_and_sides_of_sticks_are_built_flat(other: Method) -> None:
    names = step_names(built_of(CRUTCH, other, "crutch"))
    assert "crutch" in names
    assert "try in" not in names
    assert ("port side" in names) == (other == "stick-sides")


def test_where_sheet_ends_and_sticks_begin_the_sheet_counts() -> None:
    fuselage = built_of(SHEET_BOX, "sheet-sides", "stick-sides")
    meets = fuselage.formers[3].station
    assert side_at(fuselage, meets) == fuselage.side_thickness
    assert side_at(fuselage, meets + 1) == 0.0
    assert [one.method for one in sections_with(fuselage, "sticks")] == ["stick-sides"]
    assert any_with(fuselage, "flat")
    assert not any_with(fuselage.but(sections=()), "sheet")


@pytest.mark.parametrize("method", METHODS)
def test_every_step_has_words(method: Method) -> None:
    for kind in (SHEET_BOX, ON_BOARD):
        build = empty_build().but(fuselage=built_of(kind, method, method))
        assert all(step_title(step) for step in frame_steps(build))
