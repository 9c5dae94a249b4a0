"""Edits are values: told, compared, done to whatever build there is."""

import inspect
from importlib import import_module
from pkgutil import iter_modules

import pytest

import hardkeel.edits
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.named import Edit, NamedEdit, go_back, in_turn
from hardkeel.edits.truing import set_ignored
from hardkeel.project.model import Build, empty_build


def test_an_edit_tells_what_it_does_with_what() -> None:
    one = set_station.of("F4", top=45.0)
    assert str(one) == "set_station('F4', top=45.0)"
    assert one == set_station.of("F4", top=45.0)
    assert one != set_station.of("F4", top=46.0)
    assert one(demo_build()) == set_station(demo_build(), "F4", top=45.0)


def test_several_are_done_in_turn_or_not_at_all() -> None:
    both = in_turn.of(set_station.of("F4", top=45.0), set_ignored.of("r1", ignored=True))
    after = both(demo_build())
    assert after == set_ignored(set_station(demo_build(), "F4", top=45.0), "r1", ignored=True)
    with pytest.raises(BadInput):
        in_turn.of(set_station.of("F4", top=45.0), set_station.of("F99", top=1.0))(demo_build())
    assert go_back.of(empty_build())(after) == empty_build()


def test_every_public_function_that_edits_a_build_is_named() -> None:
    for module in iter_modules(hardkeel.edits.__path__):
        room = import_module(f"hardkeel.edits.{module.name}")
        for name, thing in vars(room).items():
            if name.startswith("_") or not inspect.isfunction(thing):
                continue
            if thing.__module__ != room.__name__:
                continue
            given = list(inspect.signature(thing).parameters.values())
            edits = given and given[0].name == "build"
            gives_a_build = inspect.signature(thing).return_annotation in (Build, "Build")
            assert not (edits and gives_a_build), f"{module.name}.{name}"


def test_a_named_edit_keeps_its_name_and_what_it_says_of_itself() -> None:
    assert isinstance(set_station, NamedEdit)
    assert set_station.name == "set_station"
    assert set_station.__doc__
    assert isinstance(set_station.of("F4"), Edit)
