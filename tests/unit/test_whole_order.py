"""One order for every arrangement: laid anew from the build, workable from the first line to the last, breaking no rule."""

import json
from pathlib import Path
from typing import Literal, get_args

import pytest

from hardkeel.airframe.arranging import Arrangement
from hardkeel.airframe.orders.craft import TOOL_HAZARDS, cautions_of, tools_of
from hardkeel.airframe.orders.frame import STAGE as FRAME
from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.airframe.orders.tail import STAGE as TAIL
from hardkeel.airframe.orders.tail import tail_steps
from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.airframe.starters import start_from
from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.fleet import DEMOS, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.framing import add_member, frame_as_usual, set_framing, set_member
from hardkeel.edits.fuselage import set_skins
from hardkeel.edits.steps import (
    add_step,
    in_school,
    lay_all,
    plan_steps,
    set_school,
    set_step,
    tick,
)
from hardkeel.edits.tail import arrange, set_built, set_figures
from hardkeel.fuselage.model import MemberKind, Method
from hardkeel.glue.kinds import KINDS
from hardkeel.glue.schools import SCHOOLS, School, sort_of
from hardkeel.messages.order import HAZARD_WORDS
from hardkeel.messages.steps import hold_of
from hardkeel.project.model import Build, Covering
from hardkeel.schedule.model import OWN, Step
from hardkeel.schedule.ordering import all_before, check_steps
from hardkeel.storage.format import text_of
from hardkeel.tail.kinds import tail_kinds
from hardkeel.tail.model import Kind, stands_on_fin
from tests.conftest import StepClock

BUILT: tuple[Method, ...] = get_args(Method)
METHODS = ("stick", "sheet-box", "crutch", "board")
WAYS: tuple[Arrangement, ...] = ("usual", "t", "v", "twin")


def model(
    method: str, way: Arrangement, kind: Kind, *, sheeted: bool, surveyed: bool = True
) -> Build:
    build = arrange(start_from(method, 1200.0, 940.0), way)
    for surface in build.tail:
        build = set_built(build, surface.id, kind)
    build = frame_as_usual(build)
    skin = 1.5 if sheeted else 0.0
    build = set_skins(build, top_skin=skin, bottom_skin=skin)
    return build if surveyed else build.but(survey=None)


def rules(build: Build, steps: tuple[Step, ...]) -> None:
    check_steps(steps)  # no cycle, nothing that is not there
    place = {step.id: i for i, step in enumerate(steps)}
    for step in steps:
        assert all(place[one] < place[step.id] for one in step.after), (
            "in an order that can be worked"
        )
    assert "read" in place
    for step in steps:
        if step.stage == "true" or step.id.endswith(" seat"):
            assert "read" in all_before(steps, step.id), step.id
        if step.stage == "frame" and ("sheet" in step.id or step.id.startswith("planks")):
            assert {"read", "access"} <= all_before(steps, step.id)
    seats_stand_on_each_other(build, steps)
    the_craft_is_kept(steps)
    every_member_is_put_in(build, steps)
    every_caution_is_said(build, steps)
    for name in ("doublers", "lower sides", "formers up", "try in", "sides"):
        if "drill" in place and name in place:
            assert "drill" in all_before(steps, name), name


def the_craft_is_kept(steps: tuple[Step, ...]) -> None:
    """What must come before what, as builders know it."""
    before = {step.id: all_before(steps, step.id) for step in steps}
    put_up = ("straight part", "lower formers", "formers up", "first half")
    closes = [one for one in before if one.endswith(" sheet") or one.startswith("planks")]
    for first, then in (
        *((first, then) for first in ("nuts", "drill") for then in put_up),
        ("part sides", "try in"), ("starboard side", "part sides"), ("openings", "plates"),
        ("wires out", "tail"), ("wires out", "upper sides"), ("read", "lift"),
        *((first, "access") for first in ("guides", "bracket", "leads", "plates", "bearers", "gussets", "wires out", "rods out")),
        *((first, then) for first in ("guides", "leads", "bracket", "access", "read", "lift", "fair") for then in closes),
        *(("panels", one) for one in closes if one.endswith(" sheet")),
        ("fair", "panels"), ("lift", "fair"),
    ):  # fmt: skip
        if first in before and then in before:
            assert first in before[then], f"{first} before {then}"
    props_and_covers(steps, before)


def props_and_covers(steps: tuple[Step, ...], before: dict[str, frozenset[str]]) -> None:
    """Props under what is set, a cover on its side of the seat."""
    for step in steps:
        surface, _, what = step.id.rpartition(" ")
        if what == "seat":
            assert {"read", "lift"} & before.keys() <= before[step.id]
            for name in ("props", "bare", "flat"):
                if f"{surface} {name}" in before:
                    assert f"{surface} {name}" in before[step.id]
            if f"true {surface}" in before and f"{surface} props" in before:
                assert f"true {surface}" in before[f"{surface} props"], (
                    "props stand under what is set"
                )
        if what == "cover":
            if step.key.endswith("before"):
                assert step.id in before[f"{surface} seat"]
            else:
                assert {one for one in before if one.endswith(" seat")} <= before[step.id] | {
                    "true seat"
                }
            if "hinge all" in before:
                assert step.id in before["hinge all"]


_NOT_PUT_IN = {"key"}  # is part of its former, and of the sides


def every_member_is_put_in(build: Build, steps: tuple[Step, ...]) -> None:
    """Glued, screwed or, where it is only threaded through, drawn out again."""
    assert build.fuselage is not None
    named = {
        one
        for step in steps
        for one in (*step.parts, *step.about)
        if step.id not in ("cut", "drill")
    }
    for member in build.fuselage.framed.members:
        assert member.kind in _NOT_PUT_IN or member.id in named, member.id
    # of a half shell each half has its own
    glued = [one for step in steps if step.glue and step.id != "other strips" for one in step.about]
    along = [f"longeron_{one.id}" for one in build.fuselage.longerons]
    for name in (*along, *(member.id for member in build.fuselage.framed.members)):
        assert glued.count(name) <= 1, f"{name} is glued twice"


def every_caution_is_said(build: Build, steps: tuple[Step, ...]) -> None:
    """Each that a material, a glue or a tool brings, and none twice at one step."""
    said = {one for step in steps for one in cautions_of(step)}
    for step in steps:
        told = cautions_of(step)
        assert len(set(told)) == len(told), step.id
        for one in told:
            assert one in HAZARD_WORDS, one
        if step.glue in KINDS:
            assert set(KINDS[step.glue].hazards) <= set(told), step.id
        for tool in tools_of(step):
            assert tool not in TOOL_HAZARDS or TOOL_HAZARDS[tool] in told, step.id
    for surface in build.tail:
        tubes = [tube.material or "carbon-strip" for tube in surface.tubes]
        for material in (surface.material, *(spar.material for spar in surface.spars), *tubes):
            if surface.kind is not None and (material or "").startswith("carbon"):
                assert "carbon" in said
        if surface.kind == "foam":
            assert "foam" in said
    assert build.fuselage is not None
    if any((one.material or "").startswith("carbon") for one in build.fuselage.framed.members):
        assert "carbon" in said


def seats_stand_on_each_other(build: Build, steps: tuple[Step, ...]) -> None:
    """Nothing is glued on what is not glued itself."""
    built = [one for one in build.tail if one.kind is not None or one.le_x is not None]
    for surface in built:
        before = all_before(steps, f"{surface.id} seat")
        for fin in (one for one in built if one.upright and one is not surface):
            if stands_on_fin(surface, fin):
                assert f"{fin.id} seat" in before
            elif not surface.upright:
                assert f"{surface.id} seat" in all_before(steps, f"{fin.id} seat")


@pytest.mark.parametrize("sheeted", [True, False])
@pytest.mark.parametrize("kind", tail_kinds())
@pytest.mark.parametrize("method", METHODS)
def test_no_rule_is_broken_whatever_is_chosen(method: str, kind: Kind, sheeted: bool) -> None:
    for way in WAYS:
        for surveyed in (True, False):
            build = model(method, way, kind, sheeted=sheeted, surveyed=surveyed)
            rules(build, lay_anew(build))


OF_EVERY_KIND: dict[MemberKind, dict[str, object]] = {
    kind: {} for kind in get_args(MemberKind) if kind not in ("crutch", "key")
}
OF_EVERY_KIND["stringer"] = {"material": "carbon-strip"}


def with_members(build: Build) -> Build:
    """One of every kind that is not there yet."""
    assert build.fuselage is not None
    names = [former.id for former in build.fuselage.formers]
    there = {member.kind for member in build.fuselage.framed.members}
    for kind, more in OF_EVERY_KIND.items():
        if kind not in there:
            build = add_member(build, kind, names[1], names[3])
            assert build.fuselage is not None
            made = build.fuselage.framed.members[-1]
            if more:
                build = set_member(build, made.id, **more)
    return build


@pytest.mark.parametrize("feet", [0.0, 18.0])
@pytest.mark.parametrize("sheeted", [True, False])
@pytest.mark.parametrize("when", ["after", "before"])
@pytest.mark.parametrize("method", BUILT)
def test_members_of_every_kind_are_put_in_whatever_the_method(
    method: Method, when: Literal["after", "before"], sheeted: bool, feet: float
) -> None:
    for way in WAYS:
        build = model("sheet-box", way, "ribbed", sheeted=sheeted)
        assert build.fuselage is not None
        sections = tuple(one.but(method=method) for one in build.fuselage.sections)
        bare = build.but(fuselage=build.fuselage.but(sections=sections, framing=None))
        build = with_members(frame_as_usual(bare)).but(covering=Covering(when=when))
        tail = tuple(one.but(feet=feet) for one in build.tail)
        build = build.but(tail=tail)
        steps = lay_anew(build)
        rules(build, steps)
        stands = {step.key for step in steps if step.key.startswith("tail.ribbed.")}
        assert ("tail.ribbed.feet" in stands) == (feet > 0)
        assert {"guides", "openings", "nuts", "bracket", "leads", "rods out", "gussets"} <= {
            step.id for step in steps
        }


@pytest.mark.parametrize("kind", ["ribbed", "foam"])
def test_an_all_moving_tail_is_in_order_too(kind: Kind) -> None:
    build = model("sheet-box", "usual", kind, sheeted=True)
    build = set_figures(build, build.tail[0].id, hinge_at_chord=None, pivot_at_chord=0.25)
    rules(build, lay_anew(build))


@pytest.mark.parametrize("make", [demo_build, *(demo.make for demo in DEMOS)])
def test_every_demo_has_its_order(make: object) -> None:
    assert callable(make)
    build = make()
    rules(build, lay_anew(build))


def test_stages_that_are_laid_one_by_one_wait_for_each_other_all_the_same() -> None:
    build = model("sheet-box", "usual", "stick", sheeted=True)
    for first, then in ((TAIL, FRAME), (FRAME, TAIL)):
        laid = build
        for stage in (first, then):
            made = frame_steps(laid) if stage == FRAME else tail_steps(laid)
            laid = plan_steps(laid, made, stage)
        assert "read" in all_before(laid.steps, "stab seat"), first
        check_steps(laid.steps)


def test_what_was_ticked_and_what_is_ones_own_stays(clock: StepClock) -> None:
    build = withy()
    build = lay_all(build, lay_anew(build))
    build = tick(build, "cut", clock(), anyway=True)
    build = add_step(build, "Weigh the sides", "cut")
    (own,) = [step for step in build.steps if step.stage == OWN]
    steps = {step.id: step for step in lay_anew(build)}
    assert steps["cut"].state == "done"
    assert steps[own.id].title == "Weigh the sides"
    assert steps[own.id].after == ("cut",)


def test_a_member_that_is_taken_out_takes_its_step_along_unless_it_was_done(
    clock: StepClock,
) -> None:
    build = model("sheet-box", "usual", "stick", sheeted=True)
    build = lay_all(build, lay_anew(build))
    assert "doublers" in {step.id for step in build.steps}
    assert build.fuselage is not None
    bare = set_framing(build, members=())
    assert "doublers" not in {step.id for step in lay_anew(bare)}
    done = set_framing(tick(build, "doublers", clock(), anyway=True), members=())
    kept = {step.id: step for step in lay_anew(done)}
    assert kept["doublers"].state == "done"
    check_steps(tuple(kept.values()))


def test_the_command_lays_it_anew_and_plan_plans_it(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "build.json"
    build = demo_build()
    path.write_text(text_of(build.but(steps=())), encoding="utf-8")
    assert run_command(["steps", str(path), "--json"]) == 0
    laid = json.loads(capsys.readouterr().out)["steps"]
    assert len(laid) > 20
    assert all(step["title"] for step in laid)
    seen: set[str] = set()
    for step in laid:
        assert set(step["after"]) <= seen
        seen.add(step["id"])
    assert run_command(["steps", str(path)]) == 0
    table = capsys.readouterr().out
    assert laid[0]["title"] in table
    assert run_command(["plan", str(path), "--json", "--limit", "2"]) == 0
    plan = json.loads(capsys.readouterr().out)
    open_ones = {step["id"] for step in laid if step.get("state", "open") == "open"}
    planned = {step["id"] for step in plan["steps"]} | {one["id"] for one in plan["impossible"]}
    assert planned == open_ones


def test_what_is_set_of_a_step_stays_when_the_order_is_laid_anew() -> None:
    build = model("sheet-box", "usual", "stick", sheeted=True)
    build = lay_all(build, lay_anew(build))
    build = set_step(build, "doublers", glue="contact", hold="both rough sides inward")
    build = set_step(build, "doublers", note="ask for the wide brush")
    build = set_step(build, "cut", hands_minutes=95.0)
    for laid in (lay_anew(build), plan_steps(build, frame_steps(build), FRAME).steps):
        steps = {step.id: step for step in laid}
        mine = steps["doublers"]
        assert (mine.glue, mine.hold) == ("contact", "both rough sides inward")
        assert mine.note == "ask for the wide brush"
        assert "solvent" in mine.hazards
        assert "epoxy" not in mine.hazards, "another glue, other cautions"
        least, most = KINDS["contact"].handle
        assert least <= mine.handle_minutes <= most
        assert steps["cut"].hands_minutes == 95.0
        assert hold_of(mine) == "both rough sides inward"


def test_a_file_can_not_rename_a_step_by_what_is_set_of_it() -> None:
    build = model("sheet-box", "usual", "stick", sheeted=True)
    build = lay_all(build, lay_anew(build))
    odd = tuple(
        step.but(by_hand=("id", "after", "stage", "nonsense")) if step.id == "cut" else step
        for step in build.steps
    )
    again = {step.id: step for step in lay_anew(build.but(steps=odd))}
    assert again["cut"].stage == "frame"


def test_a_step_has_only_figures_that_it_can_have() -> None:
    build = model("sheet-box", "usual", "stick", sheeted=True)
    build = lay_all(build, lay_anew(build))
    with pytest.raises(BadInput, match="no figure"):
        set_step(build, "cut", state="done")
    with pytest.raises(BadInput, match="no step"):
        set_step(build, "paint it", note="blue")
    bare = set_step(build, "doublers", glue=None)
    (step,) = [one for one in bare.steps if one.id == "doublers"]
    assert (step.glue, step.handle_minutes, step.cure_minutes) == (None, 0.0, 0.0)
    assert "epoxy" not in step.hazards
    own = add_step(build, "Weigh the sides", "cut")
    (mine,) = [one for one in own.steps if one.stage == OWN]
    own = set_step(own, mine.id, hands_minutes=5.0, glue="aliphatic", needs=("board",))
    (mine,) = [one for one in own.steps if one.stage == OWN]
    assert (mine.hands_minutes, mine.handle_minutes, mine.needs) == (5.0, 20.0, ("board",))


@pytest.mark.parametrize("school", SCHOOLS, ids=lambda one: one.id)
def test_a_school_changes_all_its_joints_and_no_other(school: School, clock: StepClock) -> None:
    build = model("stick", "usual", "stick", sheeted=True)
    build = lay_all(build, lay_anew(build))
    before = {step.id: step for step in build.steps}
    mine = {step.id for step in in_school(build.steps, school)}
    assert mine
    done = next(iter(sorted(mine)))
    ticked = tick(build, done, clock(), anyway=True)
    for now in (set_school(build, school), set_school(ticked, school) if len(mine) > 1 else ticked):
        for step in now.steps:
            if step.id not in mine:
                assert step.glue == before[step.id].glue
            elif step.state == "open":
                assert step.glue == school.glue
                assert set(KINDS[school.glue].hazards) <= set(step.hazards)
                assert not school.tacked or "cyanoacrylate" in step.hazards
            else:
                assert step.glue == before[step.id].glue, "what was ticked stays"
    laid = {step.id: step for step in lay_anew(set_school(build, school))}
    assert all(laid[one].glue == school.glue for one in mine), "laid anew it stays"


def test_every_sort_of_joint_is_one_that_some_order_has() -> None:
    keys = {
        step.key
        for method in METHODS
        for kind in tail_kinds()
        for step in lay_anew(model(method, "usual", kind, sheeted=True))
        if step.glue
    }
    for sort in ("frame joints", "formers", "wide faces"):
        assert any(sort_of(key) == sort for key in keys)
    bare = model("stick", "usual", "stick", sheeted=True)
    with pytest.raises(BadInput, match="no open step"):
        set_school(bare, SCHOOLS[0])
