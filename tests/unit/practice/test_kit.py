"""The order of work as an exercise: what turns up late, against the plain rule that what comes before comes first."""

import itertools
from datetime import UTC, datetime

import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.bench import practice_models
from hardkeel.messages import practising as say
from hardkeel.practice.kit import Kit, all_late, found_late, kit_of
from hardkeel.practice.making import Models
from hardkeel.practice.progress import ordered_of
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step

BOX = Kit(
    "a box",
    (
        Step(id="proof", title="Proof the bay", hands_minutes=10),
        Step(id="tank", title="Fit the tank", after=("proof",), hands_minutes=5),
        Step(id="sheet", title="Sheet over it", after=("proof", "tank"), hands_minutes=30, no_return=True),
    ),
    ("sheet", "proof", "tank"),
)  # fmt: skip


def test_a_closed_bay_turns_up_when_what_it_closed_is_wanted() -> None:
    assert all_late(BOX, ("proof", "tank", "sheet")) == ()
    assert found_late(BOX, ("proof",), "sheet") is None  # nobody notices yet
    late = found_late(BOX, ("proof", "sheet"), "tank")
    assert late is not None
    assert late.step.id == "tank"
    assert [one.id for one in late.closed_by] == ["sheet"]
    assert late.minutes == 60  # cut open and done again
    assert "Sheet over it".lower() in say.late_title(late)
    assert "cut it open" in say.late_why(late)
    soft = found_late(BOX, ("tank",), "proof")
    assert soft is not None
    assert soft.minutes == 5
    assert "cut it open" not in say.late_why(soft)


def test_every_order_is_late_as_often_as_a_later_step_stands_before_an_earlier() -> None:
    """Brute over all orders of three."""
    for order in itertools.permutations(("proof", "tank", "sheet")):
        place = {one: i for i, one in enumerate(order)}
        wanted = sum(
            any(place[other.id] < place[one.id] for other in BOX.steps if one.id in other.after)
            for one in BOX.steps
        )
        assert len(all_late(BOX, order)) == wanted


@pytest.mark.parametrize("seed", range(6))
def test_a_kit_can_be_worked_as_it_is_given(seed: int) -> None:
    kit = kit_of(practice_models(), seed)
    assert kit == kit_of(practice_models(), seed)
    ids = tuple(one.id for one in kit.steps)
    assert sorted(ids) == sorted(kit.offered)
    assert all_late(kit, ids) == ()
    assert any(one.no_return for one in kit.steps)
    assert any(one.after for one in kit.steps)
    backwards = ids[::-1]
    late = all_late(kit, backwards)
    assert late
    kept = ordered_of(kit, seed, late, datetime(2026, 3, 2, tzinfo=UTC))
    assert kept.skills["order"] == (len(ids) - len(late)) / len(ids)
    assert kept.well is False
    assert say.kit_answer(kit, late, 0) != say.kit_answer(kit, (), 0)


def test_models_without_an_order_are_told() -> None:
    with pytest.raises(BadInput, match="no order of work"):
        kit_of(Models([lambda: Build(name="bare")]), 1)
