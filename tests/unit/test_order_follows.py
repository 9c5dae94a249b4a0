"""Laid steps follow the airframe and the builder: members in and out, covering, waits, repairs, tools, a short board."""

from datetime import UTC, date, datetime

import pytest

from hardkeel.airframe.orders.craft import (
    TOOL_HAZARDS,
    cautions_of,
    jig_of,
    look_again_minutes,
    tools_of,
)
from hardkeel.airframe.orders.following import followed
from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import DEMOS, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.bench import set_tool_place
from hardkeel.edits.framing import add_member, delete_member, set_member
from hardkeel.edits.fuselage import rename_former, set_skins
from hardkeel.edits.glue import break_coupon, new_batch
from hardkeel.edits.ledger import bring_parts_in, weigh_surface
from hardkeel.edits.squaring import set_board_length
from hardkeel.edits.steps import (
    add_repair,
    add_step,
    delete_step,
    set_covering,
    set_step,
    tick,
)
from hardkeel.edits.tail import set_figures
from hardkeel.glue.coupons import by_preparation
from hardkeel.messages import board as board_say
from hardkeel.messages.bench import lay_out_lines
from hardkeel.messages.glue import prepared_words
from hardkeel.messages.order import (
    HAZARD_WORDS,
    REPAIR_WORDS,
    hazard_words,
    then_words,
    tools_words,
)
from hardkeel.messages.steps import STEPS, hold_of, step_title, why_not
from hardkeel.project.model import Build
from hardkeel.schedule.model import BenchTime, Evening, Step
from hardkeel.schedule.ordering import check_steps, standing_of
from hardkeel.schedule.planning import list_evenings, plan_evenings
from hardkeel.schedule.tonight import plan_tonight
from tests.conftest import StepClock


def ids(build: Build) -> list[str]:
    return [step.id for step in build.steps]


def step(build: Build, name: str) -> Step:
    return next(one for one in build.steps if one.id == name)


@pytest.mark.parametrize("make", [demo_build, *(demo.make for demo in DEMOS)])
def test_every_demo_has_its_order_laid_as_it_would_be_laid_now(make: object) -> None:
    assert callable(make)
    build = make()
    assert build.steps
    assert build.steps == lay_anew(build)


def test_a_new_member_brings_its_step_and_takes_it_along_when_it_goes() -> None:
    build = withy()
    assert "guides" not in ids(build)
    more = followed(build, add_member(build, "guide", "F2", "F6"))
    assert "guides" in ids(more)
    check_steps(more.steps)
    assert ids(more).index("guides") < ids(more).index("access")
    assert "guides" in step(more, "access").after
    (name,) = step(more, "guides").about
    assert followed(more, delete_member(more, name)).steps == build.steps


def test_what_is_ticked_cut_added_or_set_by_the_builder_stays_when_the_airframe_changes(
    clock: StepClock,
) -> None:
    build = tick(withy(), "cut", clock(), anyway=True)
    build = delete_step(build, "board")
    build = add_step(build, "Weigh the sides", "cut")
    build = set_step(
        build, "doublers", glue="contact", wait_for="the wide sheet", wait_until="2026-12-12"
    )
    more = followed(build, add_member(build, "guide", "F2", "F6"))
    assert step(more, "cut").state == "done"
    assert "board" not in ids(more), "what the builder cut does not come back"
    assert step(more, "own 1").after == ("cut",)
    assert (step(more, "doublers").glue, step(more, "doublers").wait_for) == (
        "contact",
        "the wide sheet",
    )
    check_steps(more.steps)


def test_what_comes_after_its_step_was_done_is_a_step_of_its_own() -> None:
    """Nobody drilled the formers for a guide that was drawn after they were drilled."""
    build = demo_build()
    assert step(build, "drill").state == "done"
    more = followed(build, add_member(build, "guide", "F4", "F7"))
    (name,) = step(more, "guides").about
    assert step(more, "drill") == step(build, "drill")
    late = step(more, "drill, more")
    assert (late.about, late.state, late.after[-1]) == ((name,), "open", "drill")
    assert "drill, more" in step(more, "access").after or "guides" in step(more, "access").after
    check_steps(more.steps)
    done = tick(more, "drill, more", datetime(2026, 11, 1, tzinfo=UTC), anyway=True)
    assert {one.id: one.state for one in lay_anew(done)}["drill, more"] == "done"
    renamed = followed(done, rename_former(done, "F4", "wing former"))
    assert len(renamed.steps) == len(done.steps), "another name is no new part"
    assert followed(more, delete_member(more, name)).steps == build.steps


def test_a_figure_that_is_dragged_asks_for_nothing_and_skins_do() -> None:
    build = withy()
    moved = set_figures(build, build.tail[0].id, sweep_le=14.0)
    assert followed(build, moved) is moved
    sheeted = followed(build, set_skins(build, top_skin=1.5, bottom_skin=1.5))
    assert {"fair", "panels", "top sheet", "bottom sheet"} <= set(ids(sheeted))
    assert not {"panels", "top sheet"} & set(ids(build))
    done = tick(sheeted, "panels", datetime(2026, 11, 1, tzinfo=UTC), anyway=True)
    bare = followed(done, set_skins(done, top_skin=0.0, bottom_skin=0.0))
    assert "panels" in ids(bare), "what was done stays"
    assert "top sheet" not in ids(bare)
    check_steps(bare.steps)


def test_a_part_on_order_is_waited_for() -> None:
    build = set_step(withy(), "board", wait_for="the new board", wait_until="2026-12-12")
    waits = step(build, "board")
    assert waits.waits_on(date(2026, 12, 11))
    assert not waits.waits_on(date(2026, 12, 12))
    free = {one.id for one in standing_of(build.steps, date(2026, 12, 12)).now}
    early = standing_of(build.steps, date(2026, 12, 1))
    assert "board" in free
    assert "board" not in {one.id for one in early.now}
    (told,) = [why_not(one, befores) for one, befores in early.blocked if one.id == "board"]
    assert told == "waits for the new board, until 12 December"
    bench = BenchTime(
        evenings=tuple(
            Evening(start=f"2026-12-{day:02d}T19:00", minutes=180) for day in range(1, 27)
        )
    )
    for plan in (list_evenings(build.steps, bench), plan_evenings(build.steps, bench, 3.0)):
        starts = {one.step.id: one.start for one in plan.steps}
        assert starts["board"].date() >= date(2026, 12, 12)
        assert starts["cut"].date() == date(2026, 12, 1), "nothing else waits for it"
        assert all(
            starts[one.step.id] >= starts["board"]
            for one in plan.steps
            if "board" in one.step.after
        )
    with pytest.raises(BadInput, match="wait until must be a date"):
        set_step(build, "board", wait_until="next week")
    assert step(set_step(build, "board", wait_until=""), "board").wait_until is None
    assert (
        lay_anew(build)[[s.id for s in lay_anew(build)].index("board")].wait_until == "2026-12-12"
    )


def test_cautions_come_from_tools_glue_and_what_the_step_says_each_once() -> None:
    build = add_step(withy(), "Rip the strips", "cut")
    own = step(set_step(build, "own 1", tools=("power saw", "push stick")), "own 1")
    assert cautions_of(own) == ("saw",)
    assert "guard" in hazard_words(own)
    glued = step(
        set_step(set_step(build, "own 1", glue="contact"), "own 1", hazards=("noise", "solvent")),
        "own 1",
    )
    assert cautions_of(glued) == ("noise", "solvent")
    assert hazard_words(glued).startswith("Noise. Solvent")
    assert set(TOOL_HAZARDS.values()) <= set(HAZARD_WORDS)
    assert "Lay out: power saw, push stick." in tools_words(own)


def test_wiping_asks_for_what_its_glue_takes() -> None:
    seat = step(withy(), "stab seat")
    assert "alcohol and cloth" in tools_of(seat)
    assert "solvent" in cautions_of(seat)
    assert "alcohol on a cloth" in then_words(seat)
    white = step(set_step(withy(), "stab seat", glue="aliphatic"), "stab seat")
    assert "solvent" not in cautions_of(white)
    assert "damp cloth" in then_words(white)
    assert jig_of(seat) == "props"
    assert "stop blocks" in tools_words(seat)


def test_a_seat_that_is_glued_starts_a_timer_to_look_at_it_again() -> None:
    at = datetime(2026, 12, 1, 20, 0, tzinfo=UTC)
    build = tick(withy(), "stab seat", at, anyway=True)
    assert build.bench is not None
    kinds = {timer.kind: timer for timer in build.bench.timers}
    # slow epoxy stays open for 45 to 90 minutes: half of its middle, √(45·90)/2
    assert (kinds["look"].over - at).total_seconds() / 60 == pytest.approx(
        (45 * 90) ** 0.5 / 2, abs=1
    )
    assert look_again_minutes(step(withy(), "cut")) == 0.0


@pytest.mark.parametrize("what", list(REPAIR_WORDS))
def test_a_repair_is_a_step_with_all_that_a_step_has(what: str) -> None:
    build = add_repair(withy(), what, "upright 4", "cut")  # type: ignore[arg-type]
    made = step(build, "own 1")
    assert "upright 4" in step_title(made)
    assert hold_of(made)
    assert made.after == ("cut",)
    assert cautions_of(made), "a blade, an iron, dust"
    assert then_words(made) or made.key.endswith("ooze")
    bare = step(add_repair(withy(), what, "  ", None), "own 1")  # type: ignore[arg-type]
    assert step_title(bare) == step_title(bare).strip()
    assert lay_anew(build)[1].id in ids(build)


def test_covering_before_or_after_changes_the_order_and_nothing_that_was_done() -> None:
    build = sallow()
    assert step(build, "stab cover").key == "tail.cover.after"
    first = set_covering(build, "before")
    assert step(first, "stab cover").key == "tail.cover.before"
    assert (
        ids(first).index("stab cover")
        < ids(first).index("stab seat")
        < ids(build).index("stab cover")
    )
    check_steps(first.steps)
    assert {one.id for one in set_covering(first, "after").steps} == set(ids(build))
    again = followed(first, add_member(first, "guide", "F2", "F6"))
    assert step(again, "stab cover").key == "tail.cover.before"


def test_a_covered_tails_weight_takes_the_place_of_its_parts_in_the_balance() -> None:
    build = demo_build()
    before = {mass.id: mass for mass in build.masses}
    own = [name for name in before if name in ("stab_half", "stab_tip") or name.startswith("stab ")]
    assert own
    heavy = weigh_surface(build, "stab", 61.5)
    now = {mass.id: mass for mass in heavy.masses}
    assert now["stab"].mass == 61.5
    assert now["stab"].weighed
    assert not set(own) & set(now)
    assert "stab_seat" in now or "stab_seat" not in before
    xs = [before[name].x for name in own]
    assert min(xs) - 1 <= now["stab"].x <= max(xs) + 1
    counted = {mass.id for mass in bring_parts_in(heavy).masses}
    assert "stab" in counted
    assert not set(own) & counted, "nothing is counted twice"
    with pytest.raises(BadInput, match="more than 0"):
        weigh_surface(build, "stab", 0.0)
    with pytest.raises(BadInput, match="no place"):
        weigh_surface(build, "canard", 5.0)


def test_a_board_that_is_too_short_is_lengthened_in_words_and_as_a_step() -> None:
    build = sallow()
    assert build.fuselage is not None
    assert build.fuselage.board is not None
    stood = build
    short = followed(stood, set_board_length(stood, 600.0))
    assert short.fuselage is not None
    assert step(short, "board").key == "frame.board.short"
    over = step(short, "board").about
    first = short.fuselage.formers[0].station
    assert over == tuple(f.id for f in short.fuselage.formers if f.station > first + 600)
    assert any("clamp a straight strip" in line for line in board_say.setting_up(short.fuselage))
    numbers = [int(line.split(".")[0]) for line in board_say.setting_up(short.fuselage)]
    assert numbers == list(range(1, len(numbers) + 1))
    long = followed(short, set_board_length(short, 3000.0))
    assert step(long, "board").key == "frame.board"


def test_where_tools_lie_is_said_when_they_are_laid_out() -> None:
    build = set_tool_place(withy(), "square", " left drawer ")
    assert build.bench is not None
    now = datetime(2026, 12, 1, 19, 0)  # noqa: DTZ001  the wall of the shed
    tonight = plan_tonight(
        build.steps,
        BenchTime(evenings=(Evening(start="2026-12-01T19:00", minutes=240),)),
        now,
        240,
        1.0,
    )
    lines = lay_out_lines(tonight, build.steps, now, build.bench.places | {"knife": "box"})
    assert lines[0].startswith("Tools: ")
    assert "knife (box)" in lines[0]
    gone = set_tool_place(build, "square", "")
    assert gone.bench is not None
    assert gone.bench.places == {}


def test_coupons_are_told_apart_by_how_their_faces_were_prepared() -> None:
    at = datetime(2026, 10, 1, 20, 0, tzinfo=UTC)
    build = new_batch(Build(), "aliphatic", at)
    late = datetime(2026, 10, 4, 20, 0, tzinfo=UTC)
    for broke, way in (("wood", "sanded"), ("wood", "sanded"), ("joint", "glossy"), ("wood", None)):
        build = break_coupon(build, "batch 1", broke, late, prepared=way)  # type: ignore[arg-type]
    assert build.glue is not None
    found = by_preparation(build.glue.batches[0])
    assert [(way, one.held, one.tried) for way, one in found] == [
        ("sanded", 2, 2),
        ("glossy", 0, 1),
    ]
    assert (
        prepared_words(found)
        == "Sanded: 2 of 2 broke in the wood; glossy: 0 of 1 broke in the wood."
    )
    assert prepared_words(()) == ""


def test_a_hold_names_what_no_hand_reaches_later() -> None:
    build = set_skins(sallow(), top_skin=1.5, bottom_skin=1.5)
    build = add_member(build, "guide", "F2", "F6")
    access = next(one for one in lay_anew(build) if one.id == "access")
    assert "no hand comes again" in hold_of(access)
    assert "guide" in hold_of(access)
    assert all("{" not in words.then for words in STEPS.values())


def test_carbon_is_warned_of_where_it_is_cut() -> None:
    build = add_member(withy(), "rod", "F2", "F4")
    name = build.fuselage.framed.members[-1].id  # type: ignore[union-attr]
    carbon = set_member(build, name, material="carbon-strip")
    laid = {one.id: one for one in lay_anew(carbon)}
    assert "carbon" in cautions_of(laid["cut"])
    assert "carbon" in cautions_of(laid["drill"])
    assert "carbon" not in cautions_of({one.id: one for one in lay_anew(build)}["cut"])
