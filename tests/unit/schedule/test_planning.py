"""The plan of evenings: known cases, every rule against a second reading of them, the optimum against another program."""

import json
import random
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.cli.plan import plan_json, plan_table
from hardkeel.schedule.listing import best_list, by_list, finish_no_sooner
from hardkeel.schedule.model import BenchTime, Step
from hardkeel.schedule.planning import EveningPlan, plan_evenings
from hardkeel.schedule.tasks import problem_of
from hardkeel.storage.format import build_from_text
from tests.draws import draws
from tests.plan_independent import broken, later, minute, optimum

Json = dict[str, Any]
QUICK = 4.0


def case(*steps: Json, evenings: tuple[tuple[str, int], ...] = (("2026-10-02T19:00", 120),), **resources: int) -> Json:  # fmt: skip
    return {
        "format": "hardkeel/1",
        "steps": list(steps),
        "bench": {
            "evenings": [{"start": start, "minutes": minutes} for start, minutes in evenings],
            "resources": resources,
        },
    }


def planned(data: Json, limit: float = QUICK) -> EveningPlan:
    build = build_from_text(json.dumps(data))
    return plan_evenings(build.steps, build.bench, limit)


def starts(plan: EveningPlan) -> dict[str, str]:
    return {one.step.id: f"{one.start:%dT%H:%M}" for one in plan.steps}


def step(name: str, hands: int, *after: str, **more: Any) -> Json:
    return {"id": name, "hands_minutes": hands, "after": list(after), **more}


def test_hands_do_one_thing_at_a_time_and_the_next_begins_the_minute_the_last_ends() -> None:
    plan = planned(case(step("a", 30), step("b", 40)))
    assert sorted(starts(plan).values()) in (["02T19:00", "02T19:30"], ["02T19:00", "02T19:40"])
    assert plan.finish == datetime.fromisoformat("2026-10-02T20:10")
    assert (plan.evenings_used, plan.more_evenings, plan.proven) == (1, 0, True)


def test_a_follower_waits_until_it_can_be_handled_or_is_cured_where_it_says_so() -> None:
    glued = step("glue", 20, handle_minutes=30, cure_minutes=600)
    soon = planned(case(glued, step("next", 10, "glue")))
    assert starts(soon)["next"] == "02T19:50"
    late = planned(case(glued, step("next", 10, "glue", needs_cure=True)))
    # through at 05:20; there is no evening before the next day's
    assert starts(late)["next"] == "03T19:00"
    assert late.more_evenings == 1


def test_the_board_is_free_again_the_minute_it_may_be_left() -> None:
    pinned = [step(name, 20, needs=["board"], handle_minutes=30) for name in ("a", "b")]
    assert sorted(starts(planned(case(*pinned))).values()) == ["02T19:00", "02T19:50"]
    two = planned(case(*pinned, board=2))
    assert sorted(starts(two).values()) == ["02T19:00", "02T19:20"]
    through = [one | {"holds_until": "cure", "cure_minutes": 60} for one in pinned]
    assert sorted(starts(planned(case(*through))).values()) == ["02T19:00", "02T20:20"]


def test_a_step_without_hands_lies_beside_others_but_in_an_evening() -> None:
    plan = planned(case(step("a", 120), step("wait", 0, "a")))
    assert starts(plan)["wait"] == "02T21:00"
    assert plan.evenings_used == 1


def test_the_longest_cure_begins_first_where_that_ends_sooner() -> None:
    plan = planned(
        case(step("short", 60), step("long", 30, handle_minutes=60), step("end", 30, "long"))
    )
    assert starts(plan) == {"long": "02T19:00", "short": "02T19:30", "end": "02T20:30"}


def test_what_is_under_way_stands_where_it_was_begun_and_takes_its_hands_and_its_place() -> None:
    doing = step(
        "pin", 30, needs=["board"], handle_minutes=60, state="doing", started="2026-10-02T18:50"
    )
    plan = planned(case(doing, step("next", 10, "pin"), step("other", 20, needs=["board"])))
    assert starts(plan) == {"next": "02T20:20", "other": "02T20:30"} or starts(plan) == {
        "other": "02T20:20",
        "next": "02T20:40",
    }
    assert plan.finish == datetime.fromisoformat("2026-10-02T20:50")
    assert "pin" not in starts(plan)


def test_done_steps_are_done_and_cured() -> None:
    done = step("glue", 20, cure_minutes=9000, state="done")
    assert starts(planned(case(done, step("a", 10, "glue", needs_cure=True)))) == {"a": "02T19:00"}


def test_what_can_not_be_is_told_with_all_that_follows_it_and_the_rest_is_planned() -> None:
    plan = planned(
        case(
            step("big", 130),
            step("then", 10, "big"),
            step("jigs", 5, needs=["jig", "jig"]),
            step("a", 10),
        )
    )
    told = {one["id"]: one["why"] for one in plan_json(plan)["impossible"]}
    assert told == {
        "big": "its hands want 2 h 10, the longest evening has 2 h",
        "then": "it follows big",
        "jigs": "it wants 2 of jig, there is 1",
    }
    assert starts(plan) == {"a": "02T19:00"}


def test_what_only_a_long_evening_holds_is_given_up_once_those_are_taken() -> None:
    long_then_short = (("2026-10-02T19:00", 120), ("2026-10-03T19:00", 60))
    plan = planned(case(step("a", 100), step("b", 100), step("c", 50), evenings=long_then_short))
    assert [(one.step.id, one.why) for one in plan.impossible] in (
        [("a", "crowded")],
        [("b", "crowded")],
    )
    assert len(plan.steps) == 2


def test_nothing_to_do_is_a_plan_too() -> None:
    told = plan_json(planned(case(step("a", 10, state="done"))))
    assert (told["finish"], told["steps"], told["proven"]) == (None, [], True)
    assert plan_table(planned(case())).startswith("Nothing is to do.")


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (case(step("a", 10), evenings=()), "no evening"),
        (case(step("a", 10, "b"), step("b", 10, "a")), '"a" and "b" wait for each other'),
        (case(step("a", 10, "x")), 'no step "x"'),
        (case(evenings=(("2026-10-03T19:00", 60), ("2026-10-02T19:00", 60))), "begins before"),
        (case(evenings=(("2026-10-02T19:00", 60), ("2026-10-02T19:30", 60))), "begins before"),
        (case(evenings=(("2026-10-02T19:00+02:00", 60),)), "local time"),
        (case(step("a", 10, state="doing")), "since when"),
    ],
)
def test_bad_input_is_told_in_a_sentence(
    data: Json, words: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "build.json").write_text(json.dumps(data))
    assert run_command(["plan", str(tmp_path / "build.json"), "--json"]) == 2
    told = capsys.readouterr().err
    assert words in told
    assert told.count("\n") == 1


def test_the_command_prints_the_contracts_json_and_a_table(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    data = case(
        step("a", 20, handle_minutes=20, cure_minutes=700, title="Glue it"), step("b", 10, "a")
    )
    (tmp_path / "build.json").write_text(json.dumps(data))
    assert run_command(["plan", str(tmp_path / "build.json"), "--json", "--limit", "3"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["steps"][0] == {
        "id": "a", "evening": 0, "start": "2026-10-02T19:00", "end": "2026-10-02T19:20",
        "handle": "2026-10-02T19:40", "cure": "2026-10-03T07:00",
    }  # fmt: skip
    assert told["finish"] == "2026-10-02T19:50"
    assert run_command(["plan", str(tmp_path / "build.json")]) == 0
    table = capsys.readouterr().out
    assert "Done Fri 2 Oct at 19:50, in 1 evening." in table
    assert "19:00 to 19:20  Glue it; firm 19:40, through Sat 3 Oct 07:00" in table


# -- any graph ------------------------------------------------------------------------------------------


def graph(seed: int, count: int) -> Json:
    """Steps on a grid of ten minutes that wait, cure, hold and are under way, over a few evenings."""
    rng = random.Random(seed)
    steps = []
    for i in range(count):
        before = [f"s{j}" for j in rng.sample(range(i), k=min(i, rng.choice([0, 1, 1, 2])))]
        made = step(
            f"s{i}",
            rng.choice([0, 10, 20, 30, 40, 60]),
            *before,
            handle_minutes=rng.choice([0, 0, 20, 60, 480]),
            cure_minutes=rng.choice([0, 0, 120, 720]),
            needs=rng.choice(
                [[], [], ["board"], ["clamps"], ["clamps", "clamps"], ["board", "clamps"]]
            ),
        )
        if rng.random() < 0.25:
            made["needs_cure"] = True
        if rng.random() < 0.25:
            made["holds_until"] = "cure"
        state = rng.random()
        if state < 0.08:
            made["state"] = "done"
        elif state < 0.16:
            start = datetime.fromisoformat("2026-10-02T18:00") + timedelta(
                minutes=10 * rng.randrange(0, 9)
            )
            made |= {"state": "doing", "started": start.isoformat(timespec="minutes")}
        steps.append(made)
    rng.shuffle(steps)
    days = sorted(rng.sample(range(2, 8), k=rng.choice([1, 2, 3])))
    evenings = tuple((f"2026-10-{day:02d}T19:00", rng.choice([60, 90, 120])) for day in days)
    return case(*steps, evenings=evenings, board=1, clamps=rng.choice([1, 2, 3]))


@settings(max_examples=draws(8, 25))
@given(st.integers(0, 10_000), st.integers(1, 30))
def test_no_plan_breaks_a_rule_whatever_the_graph(seed: int, count: int) -> None:
    data = graph(seed, count)
    plan = planned(data, 1.0)
    crowded = {one.step.id for one in plan.impossible if one.why == "crowded"}
    if not crowded:  # the contract is silent there
        assert broken(data, plan_json(plan)) == []


@pytest.mark.parametrize("seed", range(draws(6, 14)))
def test_finish_and_evenings_equal_an_independent_optimum(seed: int) -> None:
    data = graph(300 + seed, 4 + seed % 4)
    plan = planned(data, 20.0)
    assert plan.proven
    if plan.finish is None or any(one.why == "crowded" for one in plan.impossible):
        return
    zero = datetime.fromisoformat(data["bench"]["evenings"][0]["start"])
    finish = minute(plan.finish.isoformat(), zero)
    assert optimum(data, finish + 120) == (finish, plan.evenings_used)


@settings(max_examples=draws(8, 20))
@given(st.integers(0, 10_000), st.integers(2, 25))
def test_the_bound_never_lies_past_a_plan_and_shaking_never_worsens_a_list(
    seed: int, count: int
) -> None:
    build = build_from_text(json.dumps(graph(seed, count)))
    problem = problem_of(build.steps, build.bench)
    if not problem.tasks or planned(graph(seed, count), 0.2).impossible != problem.impossible:
        return
    few, many = best_list(problem, rounds=1), best_list(problem, rounds=40)
    assert many.worth(problem) <= few.worth(problem)
    assert finish_no_sooner(problem, many.finish(problem)) <= many.finish(problem)
    flat = by_list(problem, [0.0] * len(problem.tasks))
    assert finish_no_sooner(problem, flat.finish(problem)) <= many.finish(problem)


def test_the_best_so_far_is_told_and_kept_when_it_is_stopped() -> None:
    build = build_from_text(json.dumps(graph(7, 30)))
    heard: list[EveningPlan] = []
    plan = plan_evenings(build.steps, build.bench, 30.0, heard.append, lambda: bool(heard))
    assert heard
    assert not plan.proven
    assert plan.finish is not None
    assert broken(graph(7, 30), plan_json(plan)) == []


def test_evenings_go_on_a_day_apart_with_ones_like_the_last() -> None:
    steps = tuple(Step(id=f"s{i}", hands_minutes=60.0) for i in range(4))
    data = case(evenings=(("2026-10-02T19:00", 60), ("2026-10-04T20:00", 60)))
    bench = BenchTime.model_validate(data["bench"] | {"evenings": tuple(data["bench"]["evenings"])})
    plan = plan_evenings(steps, bench, QUICK)
    assert [f"{one.start:%d %H:%M}" for one in plan.steps] == [
        "02 19:00",
        "04 20:00",
        "05 20:00",
        "06 20:00",
    ]
    assert plan.more_evenings == 2
    assert later(data, 60) == "2026-10-02T20:00"


def test_a_plan_needs_its_limit_to_be_a_time(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "build.json").write_text(json.dumps(case(step("a", 10))))
    assert run_command(["plan", str(tmp_path / "build.json"), "--limit", "0"]) == 2
    assert "--limit" in capsys.readouterr().err
    with pytest.raises(BadInput):
        planned(case(step("a", 10), evenings=()))


def test_the_second_reading_of_the_rules_sees_them_broken() -> None:
    data = case(
        step("a", 30, needs=["board"], handle_minutes=60), step("b", 30, "a", needs=["board"])
    )
    told = plan_json(planned(data))
    assert broken(data, told) == []
    early = json.loads(json.dumps(told))
    early["steps"][1] |= {"start": "2026-10-02T19:20", "end": "2026-10-02T19:50"}
    said = broken(data, early)
    assert "b before a" in said
    assert "two in one pair of hands" in said
    assert "too much board" in said
