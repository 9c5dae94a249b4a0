"""What hangs on what: rows and ties against brute force, and the demo's own order."""

from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.schedule.hanging import hanging_of
from hardkeel.schedule.model import Step


def _reached(ties: set[tuple[str, str]], first: str) -> set[str]:
    """All that follow from one, by walking."""
    found: set[str] = set()
    queue = [first]
    while queue:
        now = queue.pop()
        for a, b in ties:
            if a == now and b not in found:
                found.add(b)
                queue.append(b)
    return found


@st.composite
def _orders(draw: st.DrawFn) -> tuple[Step, ...]:
    count = draw(st.integers(0, 9))
    names = draw(st.permutations([f"s{i}" for i in range(count)]))
    steps = []
    for i, name in enumerate(names):
        after = draw(st.lists(st.sampled_from(names[:i]), max_size=4)) if i else []
        steps.append(Step(id=name, after=tuple(after)))
    return tuple(draw(st.permutations(steps)))


@given(_orders())
@settings(max_examples=150)
def test_every_step_hangs_once_below_all_it_waits_for(steps: tuple[Step, ...]) -> None:
    hanging = hanging_of(steps)
    row_of = {one: i for i, row in enumerate(hanging.rows) for one in row}
    assert sorted(one for row in hanging.rows for one in row) == sorted(one.id for one in steps)
    assert all(hanging.rows)
    assert all(row_of[before] < row_of[step.id] for step in steps for before in step.after)


@given(_orders())
@settings(max_examples=150)
def test_ties_say_the_same_as_the_steps_and_none_can_be_left_out(steps: tuple[Step, ...]) -> None:
    ties = set(hanging_of(steps).ties)
    said = {(before, step.id) for step in steps for before in step.after}
    for step in steps:
        assert _reached(ties, step.id) == _reached(said, step.id)
    for tie in ties:
        assert tie[1] not in _reached(ties - {tie}, tie[0])


def test_a_row_is_put_in_the_order_of_what_it_hangs_on() -> None:
    steps = (
        Step(id="a"),
        Step(id="b"),
        Step(id="under b", after=("b",)),
        Step(id="under a", after=("a",)),
    )
    assert hanging_of(steps).rows == (("a", "b"), ("under a", "under b"))


def test_what_waits_for_nothing_hangs_just_above_what_waits_for_it() -> None:
    steps = (
        Step(id="one"), Step(id="two", after=("one",)), Step(id="late"), Step(id="three", after=("two", "late")),
    )  # fmt: skip
    assert [set(row) for row in hanging_of(steps).rows] == [{"one"}, {"two", "late"}, {"three"}]


def test_steps_of_another_stage_are_not_waited_for() -> None:
    assert hanging_of((Step(id="mine", after=("not here",)),)).rows == (("mine",),)


def test_steps_that_wait_for_each_other_are_named() -> None:
    with pytest.raises(BadInput, match="wait for each other"):
        hanging_of((Step(id="a", after=("b",)), Step(id="b", after=("a",))))


def test_the_demo_hangs_with_few_crossings() -> None:
    steps = [one for one in demo_build().steps if one.stage == "frame"]
    hanging = hanging_of(steps)
    at = {one: (i, j / len(row)) for i, row in enumerate(hanging.rows) for j, one in enumerate(row)}
    in_file_order = [sorted(row, key=[s.id for s in steps].index) for row in hanging.rows]
    as_listed = {
        one: (i, j / len(row)) for i, row in enumerate(in_file_order) for j, one in enumerate(row)
    }
    assert len(hanging.ties) < sum(len(one.after) for one in steps)
    assert _crossings(hanging.ties, at) <= _crossings(hanging.ties, as_listed)


def _crossings(ties: tuple[tuple[str, str], ...], at: dict[str, tuple[int, float]]) -> int:
    """Pairs of ties between the same two rows that cross."""
    count = 0
    for (a, b), (c, d) in combinations(ties, 2):
        if at[a][0] == at[c][0] and at[b][0] == at[d][0]:
            count += (at[a][1] - at[c][1]) * (at[b][1] - at[d][1]) < 0
    return count
