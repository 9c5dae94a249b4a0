"""Older files read as today's, step by numbered step; what is the builder's own stays."""

import json
from typing import Any

import pytest

from hardkeel.airframe.orders.frame import STAGE as FRAME
from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.airframe.orders.rig import rig_steps
from hardkeel.airframe.orders.tail import STAGE as TAIL
from hardkeel.airframe.orders.tail import tail_steps
from hardkeel.base.errors import BadInput
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.steps import plan_steps
from hardkeel.messages.steps import STEPS, because_of, hold_of, title_of
from hardkeel.messages.wording import Wording
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.storage.format import build_from_data, build_from_text, text_of
from hardkeel.storage.migrations import MIGRATIONS, REVISION, brought_up
from hardkeel.storage.migrations.made_labels import without_made_words
from hardkeel.storage.migrations.parts_by_ends import with_parts_by_ends
from hardkeel.storage.migrations.step_keys import SAID_THEN, with_step_keys

FLEET = (demo_build, withy, marram, sallow, teasel)


def laid(build: Build) -> tuple[Step, ...]:
    return (*frame_steps(build), *tail_steps(build), *rig_steps(build)[0].steps)


@pytest.fixture
def words_of_then(monkeypatch: pytest.MonkeyPatch) -> None:
    """Steps are called as they were called before revision 3."""
    words = {key: Wording(*said) for key, *said in SAID_THEN}
    monkeypatch.setattr("hardkeel.messages.steps.STEPS", words)


def of_then(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Those that there were."""
    known = {key for key, *_ in SAID_THEN}
    there = [step for step in steps if step.key in known]
    ids = {step.id for step in there}
    return tuple(step.but(after=tuple(one for one in step.after if one in ids)) for step in there)


def in_english(step: Step) -> Step:
    """As a file of before kept it."""
    return Step.model_validate(
        {
            **{k: v for k, v in step if k not in ("key", "about", "looks", "why")},
            "title": title_of(step),
            "hold": hold_of(step),
            "because": because_of(step),
        }
    )


def test_the_steps_are_in_the_order_in_which_they_came() -> None:
    steps = (with_parts_by_ends, without_made_words, with_step_keys)
    assert [name for _, name in MIGRATIONS] == [one.__name__ for one in steps]
    assert len(MIGRATIONS) == REVISION


@pytest.mark.usefixtures("words_of_then")
@pytest.mark.parametrize("make", FLEET)
def test_english_of_older_files_becomes_keys_and_says_the_same(make: Any) -> None:
    build = make()
    steps = of_then(laid(build))
    assert len(steps) > 5
    old = build.but(steps=tuple(in_english(step) for step in steps))
    assert all(step.title and not step.key for step in old.steps)
    new = with_step_keys(old).steps
    assert [step.title for step in new] == [""] * len(new)
    for then, now, was in zip(old.steps, new, steps, strict=True):
        assert (title_of(now), hold_of(now), because_of(now)) == (
            then.title,
            then.hold,
            then.because,
        )
        assert (now.key, now.looks) == (was.key, bool(hold_of(was)))
        spoken = tuple(one.replace("_", " ") for one in was.about)
        assert tuple(one.replace("_", " ") for one in now.about) == spoken


@pytest.mark.usefixtures("words_of_then")
def test_what_a_builder_called_a_step_stays() -> None:
    own = Step(id="cut", stage="frame", title="Saw everything", hold="the fence is square")
    mine = Step(id="own 1", stage="own", title="Cut the ribs of the stabilizer")
    build = demo_build().but(steps=(own, mine))
    assert with_step_keys(build) == build
    half = in_english(frame_steps(demo_build())[0]).but(hold="count them twice")
    (kept,) = with_step_keys(demo_build().but(steps=(half,))).steps
    assert (kept.title, kept.key, hold_of(kept)) == ("", "frame.cut", "count them twice")


def test_a_ledger_that_numbered_sides_calls_them_by_their_ends() -> None:
    demo = demo_build()
    assert "side_F1_F4" in demo.listed.states, demo.listed.states
    states = {k: v for k, v in demo.listed.states.items() if k != "side_F1_F4"}
    ledger = demo.listed.but(states={**states, "side1": "cut"})
    new = with_parts_by_ends(demo.but(ledger=ledger))
    assert "side1" not in new.listed.states
    assert new.listed.states["side_F1_F4"] == "cut"


def test_labels_that_were_ours_are_let_go_and_others_stay() -> None:
    survey = demo_build().surveyed
    marks = tuple(
        one.but(label=f"{one.former} upper longeron port" if one.id == "longeron_port" else None)
        for one in survey.marks
    )
    marks = (marks[0].but(label="my own pin"), *marks[1:])
    new = without_made_words(demo_build().but(survey=survey.but(marks=marks))).surveyed
    assert new.marks[0].label == "my own pin"
    assert [one.label for one in new.marks[1:]] == [None] * (len(marks) - 1)


@pytest.mark.usefixtures("words_of_then")
def test_a_file_says_its_revision_and_is_not_brought_up_twice() -> None:
    text = text_of(demo_build())
    assert json.loads(text)["revision"] == REVISION
    data = json.loads(text)
    english = [json.loads(in_english(one).model_dump_json()) for one in of_then(laid(demo_build()))]
    data["steps"] = english
    today = build_from_data(data)
    assert all(
        step.title for step in today.steps
    )  # it says that it knows keys: they are the builder's
    del data["revision"]
    assert not any(step.title for step in build_from_data(data).steps)
    assert build_from_text(text) == demo_build()
    assert brought_up(demo_build(), -3) == brought_up(demo_build(), 0)


@pytest.mark.parametrize("wrong", ["2", 1.5, None, True, [1]])
def test_a_revision_that_is_none_is_refused(wrong: object) -> None:
    data = json.loads(text_of(demo_build()))
    data["revision"] = wrong
    with pytest.raises(BadInput, match="revision"):
        build_from_data(data)


@pytest.mark.parametrize("make", FLEET)
def test_every_step_that_is_planned_has_words_and_only_words_of_the_table(make: Any) -> None:
    for step in laid(make()):
        assert step.key in STEPS, step
        assert title_of(step)
        assert "{" not in title_of(step)
        assert step.looks == bool(hold_of(step)), step.id
        assert not step.no_return or because_of(step), step.id
        assert (step.title, step.hold, step.because) == ("", "", "")


def test_a_file_keeps_keys_and_no_english() -> None:
    build = plan_steps(demo_build(), frame_steps(demo_build()), FRAME)
    build = plan_steps(build, tail_steps(build), TAIL)
    for step in json.loads(text_of(build))["steps"]:
        assert "title" not in step
        assert step["key"]
