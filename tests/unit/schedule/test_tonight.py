"""Tonight: the plan's first evening, long cures last, what would help; every rule still kept."""

import json
import random
from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.cli.plan import plan_json
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.glue import set_bottle
from hardkeel.edits.steps import begin, lay_all, tick
from hardkeel.glue.model import Bottle
from hardkeel.messages.bench import tonight_line, tonight_title, what_if_lines
from hardkeel.schedule.listing import NoRoom, by_list, pulled_forward
from hardkeel.schedule.model import BenchTime, Evening, Step
from hardkeel.schedule.planning import list_evenings, plan_evenings, plan_of
from hardkeel.schedule.tasks import problem_of
from hardkeel.schedule.tonight import begun_of, long_cures_last, plan_tonight
from hardkeel.schedule.what_if import what_ifs
from tests.draws import draws
from tests.plan_independent import broken
from tests.unit.schedule.test_planning import graph

SEVEN = datetime.fromisoformat("2026-10-06T19:00")


def test_the_longest_cure_of_the_evening_comes_last() -> None:
    steps = (
        Step(
            id="epoxy",
            hands_minutes=20.0,
            handle_minutes=480.0,
            cure_minutes=1440.0,
            glue="slow epoxy",
        ),
        Step(
            id="quick",
            hands_minutes=20.0,
            handle_minutes=20.0,
            cure_minutes=720.0,
            glue="aliphatic",
        ),
        Step(id="sand", hands_minutes=20.0),
    )
    tonight = plan_tonight(steps, None, SEVEN, 120, 2.0)
    assert [one.step.id for one in tonight.steps] == ["sand", "quick", "epoxy"]
    assert tonight.last_glue is not None
    assert tonight.last_glue.step.id == "epoxy"
    assert tonight_title(SEVEN, 120) == "Tuesday until 21:00, two hours"
    assert tonight_line(tonight).startswith("The last glue at 19:40, by 20:40 at the latest")


@pytest.mark.parametrize("seed", range(draws(8, 20)))
def test_putting_long_cures_last_breaks_no_rule_and_costs_no_minute(seed: int) -> None:
    data = graph(900 + seed, 14)
    bench = BenchTime.model_validate(data["bench"] | {"evenings": tuple(data["bench"]["evenings"])})
    steps = tuple(Step.model_validate_json(json.dumps(one)) for one in data["steps"])
    plan = plan_evenings(steps, bench, 1.0)
    first = bench.evenings[0]
    end = datetime.fromisoformat(first.start) + timedelta(minutes=first.minutes)
    moved = long_cures_last(plan, end, dict(bench.resources), begun_of(steps))
    assert moved.finish == plan.finish
    if not any(one.why == "crowded" for one in plan.impossible):
        assert broken(data, plan_json(moved)) == []


@pytest.mark.parametrize("limit", [0.3, 1.0, 2.0])
@pytest.mark.parametrize("make", [demo_build, teasel, marram, sallow, withy])
def test_every_demo_has_something_to_do_tonight_that_waits_for_nothing(
    make: object, limit: float
) -> None:
    build = make()  # type: ignore[operator]
    steps = steps_at_hand(build)
    tonight = plan_tonight(steps, build.bench, SEVEN, 120, limit)
    done = {step.id for step in steps if step.state == "done"}
    for one in tonight.steps:
        assert set(one.step.after) <= done, one.step.id
        done.add(one.step.id)
        assert one.start >= SEVEN
        assert one.end <= tonight.end
    assert tonight.steps


def test_what_the_ledger_says_is_glued_is_done_with_all_before_it() -> None:
    steps = {step.id: step.state for step in steps_at_hand(demo_build())}
    assert steps["straight part"] == steps["cut"] == steps["nose"] == "done"
    assert steps["tail"] == "open"  # F7 was only tried in
    assert steps["stab seat"] == "open"


def test_nothing_is_done_to_a_tail_that_dries_under_weight_and_its_board_is_taken() -> None:
    build = demo_build()
    steps = steps_at_hand(build)
    plan = plan_tonight(steps, build.bench, SEVEN, 240, 2.0).plan
    at = {one.step.id: one for one in plan.steps}
    assert at["stab bevel"].start >= at["stab flat"].cure
    dry = at["stab flat"]
    assert dry.handle == dry.cure
    others = [one for one in plan.steps if "board" in one.step.needs and one is not dry]
    assert all(one.start >= dry.handle or one.handle <= dry.start for one in others)


def test_the_builders_bottle_sets_the_times_of_what_is_still_to_be_glued() -> None:
    build = set_bottle(demo_build(), Bottle(kind="slow epoxy", handle_minutes=300.0))
    steps = {step.id: step for step in steps_at_hand(build)}
    assert steps["plates"].handle_minutes == 300
    assert steps["plates"].cure_minutes == 1440
    assert steps["hatch"].handle_minutes == 20
    assert steps["doublers"].handle_minutes == 480  # done before


def test_the_tail_is_glued_only_after_it_was_set() -> None:
    steps = {step.id: step for step in steps_at_hand(demo_build())}
    assert "true stab" in steps["stab seat"].after
    assert "true fin" in steps["fin seat"].after


def test_a_step_that_is_being_done_comes_first_and_what_cures_is_waited_for() -> None:
    build = demo_build()
    build = lay_all(build, steps_at_hand(build))
    seven = SEVEN.astimezone()
    begun = begin(build, "stab glue", seven)
    tonight = plan_tonight(begun.steps, begun.bench, SEVEN, 120, 1.0)
    assert tonight.steps[0].step.id == "stab glue"
    done = tick(begun, "stab glue", datetime.fromisoformat("2026-10-06T19:25").astimezone())
    again = plan_tonight(
        done.steps, done.bench, datetime.fromisoformat("2026-10-06T19:25"), 95, 1.0
    )
    flat = next((one for one in again.plan.steps if one.step.id == "stab flat"), None)
    assert flat is not None
    assert flat.start >= datetime.fromisoformat("2026-10-06T19:45")


def test_what_would_help_is_told_by_what_it_saves() -> None:
    pinned = tuple(
        Step(id=f"s{i}", hands_minutes=20.0, handle_minutes=90.0, needs=("board",))
        for i in range(4)
    )
    bench = BenchTime(
        evenings=tuple(Evening(start=f"2026-10-{d:02d}T19:00", minutes=120) for d in (6, 8, 10, 12))
    )
    tonight = plan_tonight(pinned, bench, SEVEN, 120, 1.0)
    found = what_ifs(pinned, bench, SEVEN, 120)
    assert {one.kind for one in found} == {"resource", "evening"}
    lines = what_if_lines(tonight.plan, found)
    assert any(line.startswith("Another board would save") for line in lines)


@pytest.mark.parametrize("seed", range(draws(3, 6)))
def test_planned_again_what_need_not_move_stays_on_its_day(seed: int) -> None:
    data = graph(1200 + seed, 16)
    bench = BenchTime.model_validate(data["bench"] | {"evenings": tuple(data["bench"]["evenings"])})
    steps = tuple(Step.model_validate_json(json.dumps(one)) for one in data["steps"])
    first = plan_evenings(steps, bench, 2.0)
    # an equally good plan that another search might have found: everything as late as it was early
    kept = {one.step.id: one.start for one in first.steps}
    again = plan_evenings(steps, bench, 2.0, kept=kept)
    plain = plan_evenings(steps, bench, 2.0)
    assert again.finish == plain.finish
    assert again.evenings_used == plain.evenings_used
    if not any(one.why == "crowded" for one in again.impossible):
        assert broken(data, plan_json(again)) == []
    days = {name: start.date() for name, start in kept.items()}
    assert all(one.start.date() == days[one.step.id] for one in again.steps)


def test_a_step_ticked_moves_no_other_to_another_day() -> None:
    build = demo_build()
    build = lay_all(build, steps_at_hand(build))
    first = plan_tonight(build.steps, build.bench, SEVEN, 120, 4.0)
    days = {one.step.id: one.start.date() for one in first.plan.steps}
    begun = begin(build, first.steps[0].step.id, SEVEN.astimezone())
    ends = first.steps[0].end
    done = tick(begun, first.steps[0].step.id, ends.astimezone())
    left = round((first.end - ends).total_seconds() / 60)
    kept = {one.step.id: one.start for one in first.plan.steps}
    again = plan_tonight(done.steps, done.bench, ends, left, 4.0, kept=kept)
    assert again.plan.finish is not None
    assert first.plan.finish is not None
    assert again.plan.finish <= first.plan.finish
    if again.plan.finish == first.plan.finish:
        assert {one.step.id: one.start.date() for one in again.plan.steps} == {
            name: day for name, day in days.items() if name != first.steps[0].step.id
        }


@pytest.mark.parametrize("seed", [2391, 2744, 3039, 3437, 3497])
def test_what_three_hold_together_or_waits_for_two_is_not_put_elsewhere(seed: int) -> None:
    """Plans of which one step was put before what it waits for, or where three held what there was two of."""
    data = graph(seed, 14)
    bench = BenchTime.model_validate(data["bench"] | {"evenings": tuple(data["bench"]["evenings"])})
    steps = tuple(Step.model_validate_json(json.dumps(one)) for one in data["steps"])
    plan = list_evenings(steps, bench)
    assert broken(data, plan_json(plan)) == []
    first = bench.evenings[0]
    end = datetime.fromisoformat(first.start) + timedelta(minutes=first.minutes)
    moved = long_cures_last(plan, end, dict(bench.resources), begun_of(steps))
    assert broken(data, plan_json(moved)) == []


@pytest.mark.parametrize("seed", range(draws(12, 60)))
def test_pulling_a_plan_forward_breaks_no_rule_and_starts_nothing_later(seed: int) -> None:
    data = graph(1700 + seed, 16)
    bench = BenchTime.model_validate(data["bench"] | {"evenings": tuple(data["bench"]["evenings"])})
    steps = tuple(Step.model_validate_json(json.dumps(one)) for one in data["steps"])
    problem = problem_of(steps, bench)
    # a sound plan that dawdles: each task as late after the ones before it as a lottery has it
    rng = random.Random(seed)
    lazy = replace(
        problem,
        tasks=tuple(
            replace(task, ready=task.ready + rng.choice((0, 1440, 4320))) for task in problem.tasks
        ),
    )
    try:
        dawdled = by_list(lazy, [rng.random() for _ in lazy.tasks])
    except NoRoom:
        return
    pulled = pulled_forward(problem, dawdled)
    assert pulled.worth(problem) <= dawdled.worth(problem)
    if set(pulled.evenings) <= set(dawdled.evenings):
        assert all(a <= b for a, b in zip(pulled.starts, dawdled.starts, strict=True))
    assert broken(data, plan_json(plan_of(problem, pulled, 0, proven=False))) == []


def test_tonight_is_not_saved_for_it_is_spent_at_the_bench_anyway() -> None:
    steps = (
        Step(id="long", hands_minutes=60.0, cure_minutes=1440.0, glue="slow epoxy"),
        Step(id="last", hands_minutes=60.0, after=("long",), needs_cure=True),
        Step(id="short", hands_minutes=25.0),
    )
    bench = BenchTime(
        evenings=tuple(
            Evening(start=f"2026-10-{day:02}T19:00", minutes=120) for day in range(7, 12)
        )
    )
    # two evenings would hold it all, and an evening of half an hour would stand empty
    tonight = plan_tonight(steps, bench, SEVEN, 30, 1.0)
    assert [one.step.id for one in tonight.steps] == ["short"]
    assert tonight.plan.finish == plan_evenings(steps, bench, 1.0).finish
