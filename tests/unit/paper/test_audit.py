"""The print audit: known sheets, statistics, and what it says when it can't tell."""

import numpy as np
import pytest
from hypothesis import given, settings

from hardkeel.messages.paper import (
    cure_sentence,
    finding_sentence,
    next_sentence,
    why_sentence,
    wrong_pair_sentence,
)
from hardkeel.paper.audit import CAUSES, Cause, audit
from hardkeel.paper.model import Pair, PrintedSheet
from tests.audits import random_sheet, verdicts
from tests.draws import draws
from tests.strategies import seeds


def test_the_right_cause_is_named_and_hardly_ever_a_wrong_one() -> None:
    right, wrong, undecided = verdicts(seed=11, count=(count := draws(200, 600)))
    assert right >= 0.82 * count
    assert wrong <= 0.02 * count
    assert undecided > 0  # some sheets can't be decided, and are not


def test_a_scaled_sheet_gives_its_factor_within_its_sigma() -> None:
    pairs = [
        Pair(part=f"F{i}", direction=d, plan=p, measured=p * 1.016)  # type: ignore[arg-type]
        for i, (p, d) in enumerate(((62, "x"), (118, "y"), (300, "x"), (240, "y")))
    ]
    found = audit(pairs)
    assert found.cause == "scale"
    assert found.factor == pytest.approx(1.016, abs=3e-4)
    assert found.factor_sigma is not None
    assert 0 < found.factor_sigma < 0.001
    assert "1.6" in finding_sentence(found)
    assert "98.4%" in cure_sentence(found)


def test_a_skin_not_taken_off_is_told_from_scale() -> None:
    sizes = (40, 62, 90, 130, 260)
    pairs = [Pair(part=f"F{i}", plan=p, measured=p + 3.0) for i, p in enumerate(sizes)]
    pairs += [Pair(part="sheet", kind="spacing", plan=p, measured=p) for p in (150, 300)]
    found = audit(pairs)
    assert found.cause == "constant"
    assert found.constant == pytest.approx(3.0, abs=0.1)
    assert "1.5 mm inside the line" in cure_sentence(found)


def test_developed_lengths_are_left_alone() -> None:
    pairs = [
        Pair(part="side", kind="bent-length", plan=905, measured=911.4),
        Pair(part="side", kind="bent-length", plan=420, measured=423.0),
        Pair(part="F3", plan=62, measured=62.1),
        Pair(part="sheet", kind="spacing", plan=300, measured=299.9),
        Pair(part="F4", direction="y", plan=80, measured=80.0),
    ]
    found = audit(pairs)
    assert found.cause == "development"
    assert "Do not correct" in cure_sentence(found)


def test_one_bad_part_is_named_and_a_single_wrong_pair_does_not_hide_the_scale() -> None:
    pairs = [
        Pair(part=f"F{i}", direction="xy"[i % 2], plan=50.0 * i, measured=50.0 * i)  # type: ignore[arg-type]
        for i in range(1, 6)
    ]
    pairs.append(Pair(part="side", kind="bent-length", plan=800, measured=800))
    bad = audit([*pairs, Pair(part="hatch", plan=120, measured=124.5)])
    assert (bad.cause, bad.part) == ("one-part", "hatch")
    scaled = [pair.but(measured=pair.plan * 1.02) for pair in pairs]
    slip = Pair(part="F2", kind="spacing", plan=200, measured=194.0)
    found = audit([*scaled, slip])
    assert found.cause == "scale"
    assert found.wrong == 6
    assert "200.0 mm again: it is 10." in wrong_pair_sentence(
        PrintedSheet(id="s", pairs=(*scaled, slip)), found
    )


def test_what_can_not_be_told_is_undecided_with_the_dimension_that_would_decide() -> None:
    # scale and development make the same of bent lengths: only something else can tell
    pairs = [Pair(part="side", kind="bent-length", plan=p, measured=p * 1.012) for p in (900, 450)]
    found = audit(pairs)
    assert found.cause == "undecided"
    assert {found.next.cause_a, found.next.cause_b} == {"scale", "development"}  # type: ignore[union-attr]
    assert found.next is not None
    assert found.next.kind != "bent-length"
    assert next_sentence(found.next).startswith("Measure an outside") or "spacing" in next_sentence(
        found.next
    )
    assert "whether" in why_sentence(found.next)
    for _ in range(4):  # whoever does what it says gets an answer
        if found.next is not None:
            told = Pair(
                part=found.next.part,
                kind=found.next.kind,
                direction=found.next.direction,
                plan=400,
                measured=404.8,
            )
            pairs.append(told)
            found = audit(pairs)
    assert found.cause == "scale"


def test_no_pairs_are_undecided() -> None:
    found = audit([])
    assert found.cause == "undecided"
    assert found.fitted == ()


@settings(max_examples=draws(10, 30))
@given(seed=seeds)
def test_the_order_of_pairs_does_not_matter(seed: int) -> None:
    rng = np.random.default_rng(seed)
    cause: Cause = CAUSES[rng.integers(len(CAUSES))]
    pairs = random_sheet(rng, cause)
    a, b = audit(pairs), audit(tuple(pairs[i] for i in rng.permutation(len(pairs))))
    assert a.cause == b.cause
    assert a.probability == pytest.approx(b.probability, rel=1e-6)
    assert sum(a.probabilities.values()) == pytest.approx(1.0)
