"""A method set former by former is one; framing as usual never trips over a name that it made."""

from itertools import pairwise

import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import framing
from hardkeel.edits.fuselage import fuselage_of, set_method
from hardkeel.fuselage.model import METHODS, Framing, Method
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build


def bare() -> Build:
    """The demo's fuselage with nothing said of how it is built."""
    build = demo_build()
    fuselage = fuselage_of(build)
    return build.but(
        fuselage=fuselage.but(sections=(), framing=Framing(), squaring=None), steps=(), ledger=None
    )


def names_of(build: Build) -> list[str]:
    return [name for name, _ in fuselage_of(build).stations]


@pytest.mark.parametrize("method", METHODS)
def test_a_method_set_bay_by_bay_is_one_stretch(method: Method) -> None:
    build = bare()
    for a, b in pairwise(names_of(build)):
        build = set_method(build, a, b, method)
    (section,) = fuselage_of(build).sections
    names = names_of(build)
    assert (section.from_, section.to, section.method) == (names[0], names[-1], method)
    once = framing.frame_as_usual(build)
    check_build(once)
    assert framing.frame_as_usual(once) == once


def test_two_sheets_set_over_several_bays_butt_where_they_meet() -> None:
    build = bare()
    names = names_of(build)
    build = set_method(build, names[0], names[3], "sheet-sides")
    build = set_method(build, names[3], names[-1], "sheet-sides")
    assert len(fuselage_of(build).sections) == 2


@pytest.mark.parametrize("method", ["crutch", "board", "half-shell"])
def test_two_stretches_of_one_kind_are_framed_under_names_of_their_own(method: Method) -> None:
    """``crutch is used twice`` was said of a name that framing itself had given."""
    build = bare()
    names = names_of(build)
    build = set_method(build, names[0], names[3], method)
    build = set_method(build, names[3], names[5], "stick-sides")
    build = set_method(build, names[5], names[-1], method)
    framed = framing.frame_as_usual(build)
    ids = [member.id for member in fuselage_of(framed).framed.members]
    assert len(ids) == len(set(ids))
    first = ids[0]
    assert {first, f"{first} 2"} <= set(ids)
    check_build(framed)
