"""The order of work: made from the members, kept to, ticked, moved; states and log follow."""

import json
from collections.abc import Callable
from datetime import datetime
from itertools import pairwise

import pytest

from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.airframe.parts import parts_of
from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import framing
from hardkeel.edits import steps as edits
from hardkeel.edits.fuselage import rename_former
from hardkeel.fuselage.members import kinds_with
from hardkeel.logbook.entries import StepDone
from hardkeel.messages.order import glue_words
from hardkeel.messages.steps import because_of, hold_of, reasons, title_of
from hardkeel.parts.model import STATES
from hardkeel.project.model import Build, empty_build
from hardkeel.schedule.model import Step
from hardkeel.schedule.ordering import all_before, check_steps, ordered, standing_of
from hardkeel.storage.format import build_from_text, text_of

AT = datetime.fromisoformat("2026-11-25T19:30:00")
FLEET = (demo_build, withy, marram, sallow)
fleet = pytest.mark.parametrize("make", FLEET, ids=lambda make: make.__name__)


def planned(make: Callable[[], Build]) -> Build:
    build = make()
    return edits.plan_steps(build, frame_steps(build), STAGE)


def step(name: str, *after: str, **more: object) -> Step:
    return Step.model_validate({"id": name, "after": after, **more})


def test_a_file_says_where_its_steps_are_wrong() -> None:
    wrong: tuple[tuple[tuple[Step, ...], str], ...] = (
        ((step("cut"), step("glue", "sand")), 'steps[1].after[0]: no step "sand"'),
        ((step("cut"), step("cut")), "steps[1].id"),
        ((step("a", "b"), step("b", "c"), step("c", "a")), "wait for each other"),
        ((step("a", "a"),), '"a" and "a" wait for each other'),
    )
    for steps, said in wrong:
        with pytest.raises(BadInput) as fault:
            check_steps(steps)
        assert said in str(fault.value)


def test_a_cycle_is_named_by_two_of_its_own_steps() -> None:
    steps = (step("free"), step("a", "b", "free"), step("b", "a"), step("behind", "b"))
    with pytest.raises(BadInput) as fault:
        ordered(steps)
    assert {word for word in str(fault.value).split('"') if word in ("a", "b")} == {"a", "b"}
    assert "behind" not in str(fault.value)


def test_steps_keep_their_order_but_for_what_they_wait_for() -> None:
    steps = (step("d", "b"), step("c"), step("a"), step("b", "a"))
    assert [one.id for one in ordered(steps)] == ["c", "a", "b", "d"]
    free = tuple(step(name) for name in "zyxw")
    assert ordered(free) == free


def test_now_not_yet_and_done_are_told_apart() -> None:
    steps = (
        step("a", state="done"),
        step("b", "a"),
        step("c", "b", "e"),
        step("d", "c", state="doing"),
        step("e", "a"),
    )
    standing = standing_of(steps)
    assert [one.id for one in standing.now] == ["b", "e", "d"]
    assert [(one.id, [w.id for w in waits]) for one, waits in standing.blocked] == [
        ("c", ["b", "e"])
    ]
    assert [one.id for one in standing.done] == ["a"]
    assert all_before(steps, "d") == {"a", "b", "c", "e"}


@fleet
def test_a_plan_breaks_none_of_the_trades_rules(make: Callable[[], Build]) -> None:
    steps = planned(make).steps
    ids = [one.id for one in steps]
    framed = {one.id for one in steps if one.stage == STAGE} - {"canopy"}
    assert [one.id for one in ordered(steps)] == ids

    def comes_before(first: str, second: str) -> None:
        if first in ids and second in ids:
            assert first in all_before(steps, second), f"{first} is not before {second}"

    for first, second in (
        ("cut", "drill"),
        ("drill", "doublers"),
        ("drill", "straight part"),
        ("drill", "formers up"),
        ("doublers", "lower sides"),
        ("try in", "seats"),
        ("seats", "straight part"),
        ("straight part", "nose"),
        ("nose", "tail"),
        ("straight part", "tail"),
        ("stringers", "tail"),
        ("crutch", "lower formers"),
        ("lower sides", "upper formers"),
        *((one, sheet) for sheet in ("top sheet", "bottom sheet") for one in ids if one in framed and "sheet" not in one),
    ):  # fmt: skip
        comes_before(first, second)
    for one in steps:
        assert because_of(one) or not one.no_return, (
            f"{one.id} can't be undone, and no reason is given"
        )
        assert one.glue is None or one.cure_minutes > one.handle_minutes > 0
        assert bool(one.glue) == bool(glue_words(one)), f"{one.id}: why this glue?"
        assert "epoxy" not in (one.glue or "") or "epoxy" in one.hazards


@fleet
def test_every_member_and_former_has_its_step(make: Callable[[], Build]) -> None:
    build = planned(make)
    assert build.fuselage is not None
    named = {part for one in build.steps for part in one.parts}
    assert {former.id for former in build.fuselage.formers} <= named
    bought = ("doubler", "tail-doubler", "rod", "wire", "bearer", "keel", "stringer", "crutch")
    for member in build.fuselage.framed.members:
        if member.kind in (*bought, *kinds_with("plate"), "hatch-frame"):
            assert member.id in named, f"{member.id} is in no step"


@fleet
def test_worked_through_every_part_of_the_fuselage_is_glued(make: Callable[[], Build]) -> None:
    build = planned(make)
    for one in build.steps:
        build = edits.tick(build, one.id, AT)
    loose = [
        part.id
        for part in parts_of(build)
        if (part.of == "fuselage" or part.id == "wing_seat")
        and STATES.index(build.listed.states.get(part.id, "wanted")) < STATES.index("glued")
    ]
    assert loose == []


@pytest.mark.parametrize("kind", ["gusset", "corner-strip", "bearer", "tail-doubler"])
@fleet
def test_what_is_added_gets_a_step(make: Callable[[], Build], kind: str) -> None:
    build = framing.add_member(make(), kind, "F2", "F5")  # type: ignore[arg-type]
    assert build.fuselage is not None
    new = build.fuselage.framed.members[-1].id
    glued = {part for one in frame_steps(build) if one.glue for part in one.parts}
    assert new in glued


def test_both_doublers_are_shown_before_the_glue() -> None:
    steps = {one.id: one for one in planned(demo_build).steps}
    assert "both doublers on the inside?" in hold_of(steps["doublers"])
    assert steps["doublers"].no_return
    build = framing.delete_member(demo_build(), "doubler")
    assert "doublers" not in {one.id for one in frame_steps(build)}


def test_nothing_drawn_asks_for_no_steps() -> None:
    assert frame_steps(empty_build()) == ()


def test_a_tick_moves_the_parts_and_writes_the_log() -> None:
    build = planned(withy)
    done = edits.tick(build, "cut", AT)
    states = done.listed.states
    there = {part.id for part in parts_of(build)}
    cut = next(one for one in build.steps if one.id == "cut")
    moved = [part for part in cut.parts if part in there]
    assert moved
    assert all(states[part] == "cleaned" for part in moved)
    assert done.log[:-1] == build.log
    assert done.log[-1].at == "2026-11-25T19:30:00"
    assert done.log[-1].step == StepDone(key=cut.key)
    assert edits.untick(done, "cut").listed.states == states


def test_a_tick_never_takes_a_part_back() -> None:
    build = planned(demo_build)
    before = build.listed.states
    rank = STATES
    after = edits.tick(build, "cut", AT).listed.states
    for part, state in before.items():
        assert rank.index(after[part]) >= rank.index(state)


def test_out_of_order_is_asked_about_and_then_done() -> None:
    build = planned(withy)
    last = build.steps[-1]
    with pytest.raises(edits.OutOfOrder) as asked:
        edits.tick(build, last.id, AT)
    assert asked.value.waits
    assert reasons(asked.value.waits).startswith("first ")
    done = edits.tick(build, last.id, AT, anyway=True)
    assert done.steps[-1].state == "done"


def test_working_through_in_order_never_asks() -> None:
    for make in FLEET:
        build = planned(make)
        for one in build.steps:
            build = edits.tick(build, one.id, AT)
        assert not standing_of(build.steps).now
        assert not standing_of(build.steps).blocked


@fleet
def test_cutting_any_step_keeps_what_waited_behind_it_waiting(make: Callable[[], Build]) -> None:
    build = planned(make)
    for gone in build.steps:
        left = edits.delete_step(build, gone.id)
        for one in left.steps:
            assert all_before(left.steps, one.id) == all_before(build.steps, one.id) - {gone.id}


def test_a_step_moves_as_far_as_it_may() -> None:
    build = planned(demo_build)
    with pytest.raises(edits.OutOfOrder):
        edits.move_step(build, "drill", -1)
    with pytest.raises(edits.OutOfOrder):
        edits.move_step(build, "cut", 1)
    ids = [one.id for one in build.steps]
    at = ids.index("board")
    moved = edits.move_step(build, "board", -1)
    assert [one.id for one in moved.steps][at - 1 : at + 1] == ["board", ids[at - 1]]
    assert edits.move_step(moved, "board", 1) == build
    assert edits.move_step(build, ids[0], -1) == build


def test_own_steps_stand_where_they_are_put_and_outlast_a_new_plan() -> None:
    build = planned(withy)
    build = edits.add_step(build, " Weigh the sticks ", "cut")
    build = edits.add_step(build, "Sharpen the plane", "cut")
    assert [one.title for one in build.steps[1:3]] == ["Sharpen the plane", "Weigh the sticks"]
    assert len({one.id for one in build.steps}) == len(build.steps)
    build = edits.tick(build, "cut", AT)
    again = edits.plan_steps(build, frame_steps(build), STAGE)
    by_id = {one.id: one for one in again.steps}
    assert by_id["cut"].state == "done"
    assert {"Weigh the sticks", "Sharpen the plane"} <= {one.title for one in again.steps}
    with pytest.raises(BadInput, match="needs a name"):
        edits.add_step(build, "  ", None)


def test_what_is_own_and_waits_for_a_step_that_is_planned_no_more_waits_no_more() -> None:
    build = edits.add_step(planned(demo_build), "Fuelproof the doublers", "doublers")
    bare = framing.delete_member(build, "doubler")
    again = edits.plan_steps(bare, frame_steps(bare), STAGE)
    own = next(one for one in again.steps if one.title == "Fuelproof the doublers")
    assert own.after == ()


def test_a_file_keeps_the_steps_and_says_what_is_wrong_with_them() -> None:
    build = edits.tick(planned(sallow), "cut", AT)
    text = text_of(build)
    assert build_from_text(text.encode()) == build
    data = json.loads(text)
    for changed, said in (
        ({"after": ["no such"]}, 'steps[0].after[0]: no step "no such"'),
        ({"state": "nearly"}, "steps[0].state"),
        ({"hands_minutes": -1}, "steps[0].hands_minutes"),
        ({"id": ""}, "steps[0].id"),
    ):
        spoiled = json.loads(text)
        spoiled["steps"][0] |= changed
        with pytest.raises(BadInput) as fault:
            build_from_text(json.dumps(spoiled).encode())
        assert said in str(fault.value)
    first, second = (one["id"] for one in data["steps"][:2])
    data["steps"][0]["after"] = [second]
    data["steps"][1]["after"] = [first]
    with pytest.raises(BadInput, match="wait for each other"):
        build_from_text(json.dumps(data).encode())


def test_the_straight_part_is_one_run_of_formers() -> None:
    for make in (demo_build, withy):
        build = planned(make)
        assert build.fuselage is not None
        names = [former.id for former in build.fuselage.formers]
        glued = {one.id: one.parts for one in build.steps}
        run = [names.index(one) for one in glued["straight part"] if one in names]
        assert all(b == a + 1 for a, b in pairwise(run))
        parts = (*glued.get("nose", ()), *glued["straight part"], *glued.get("tail", ()))
        assert [one for one in parts if one in names] == names


def test_the_steps_follow_a_former_that_is_called_otherwise() -> None:
    build = planned(withy)
    assert any("F3" in step.parts for step in build.steps)
    named = rename_former(build, "F3", "wing former")
    assert not any("F3" in step.parts for step in named.steps)
    assert any("wing former" in step.parts for step in named.steps)
    assert not any("F3" in title_of(step).replace(",", " ").split() for step in named.steps)
    assert any("wing former" in title_of(step) for step in named.steps)
    assert rename_former(named, "wing former", "F3") == build
