"""Glue: choices by thought experiment, mixing against the scales, coupons against the binomial table."""

import math
from datetime import UTC, datetime, timedelta
from typing import get_args

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.edits.glue import break_coupon, new_batch, set_bottle, tie_joint
from hardkeel.edits.steps import tick, untick
from hardkeel.glue.choosing import JOINTS, JointKind, choices
from hardkeel.glue.coupons import at_least, through, verdict_on
from hardkeel.glue.kinds import KINDS, PLANNED, times_of
from hardkeel.glue.mixing import HARDENER_DENSITY, RESIN_DENSITY, mix_for, weight_ratio
from hardkeel.glue.model import Batch, Bottle, Coupon, GlueKind
from hardkeel.messages.glue import (
    JOINT_WORDS,
    against_line,
    choice_under,
    choice_why,
    glue_line,
    mix_words,
    verdict_words,
    wait_words,
)
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.storage.format import build_from_text, text_of

NOW = datetime(2026, 10, 6, 20, tzinfo=UTC)


def best(joint: JointKind, **asked: object) -> list[GlueKind]:
    return [one.glue.kind for one in choices(joint, **asked)][:3]  # type: ignore[arg-type]


def test_every_kind_and_joint_has_its_figures_and_words() -> None:
    assert set(KINDS) == set(get_args(GlueKind))
    assert set(JOINTS) == set(get_args(JointKind)) == set(JOINT_WORDS)
    for glue in KINDS.values():
        for span in (glue.open, glue.handle, glue.cure):
            assert 0 <= span[0] <= span[1]
        assert glue.handle[0] <= glue.cure[1]
        assert glue_line(glue)
    for joint in JOINTS:
        for one in choices(joint):
            assert bool(choice_why(one)) is bool(one.speaks)
            assert choice_under(one).endswith(".")
            assert against_line(one).endswith(".")


@pytest.mark.parametrize(
    ("joint", "asked", "first"),
    [
        ("wide lamination", {}, "slow epoxy"),
        ("strip joint", {"sand": True}, "aliphatic"),
        ("end grain", {}, "aliphatic"),
        ("foam", {"sand": True}, "polyurethane"),
        ("wire to ply", {}, "slow epoxy"),
        ("tail seat", {"move": 20.0}, "slow epoxy"),
        ("gusset", {}, "aliphatic"),
        ("hinge", {}, "thin cyanoacrylate"),
    ],
)
def test_what_a_builder_would_take(joint: JointKind, asked: dict[str, object], first: str) -> None:
    assert best(joint, **asked)[0] == first


def test_no_glue_that_eats_foam_is_offered_for_foam_and_no_water_for_wide_faces() -> None:
    for asked in ({}, {"sand": True}, {"minutes": 5.0}):
        assert all(KINDS[kind].foam for kind in best("foam", **asked))
    assert all(not KINDS[kind].water for kind in best("wide lamination"))


def test_in_five_minutes_nothing_slow_is_first() -> None:
    for joint in ("strip joint", "gusset", "end grain"):
        first = choices(joint, minutes=5.0)[0]
        assert first.times.handle <= 5


@given(st.sampled_from(sorted(KINDS)), st.floats(0, 35))
def test_warmth_hastens_and_never_hinders(kind: GlueKind, celsius: float) -> None:
    now, warmer = times_of(KINDS[kind], None, celsius), times_of(KINDS[kind], None, celsius + 5)
    assert warmer.handle <= now.handle
    assert warmer.open <= now.open


def test_an_epoxy_at_ten_degrees_takes_twice_as_long_and_the_bottle_goes_before() -> None:
    slow = KINDS["slow epoxy"]
    assert times_of(slow, None, 10).cure == pytest.approx(2 * times_of(slow).cure)
    own = Bottle(kind="slow epoxy", open_minutes=60.0)
    assert times_of(slow, own).open == 60
    assert times_of(slow, own).cure == times_of(slow).cure


@given(st.floats(1, 5000), st.floats(10, 200), st.booleans())
def test_what_is_mixed_weighs_what_it_should_in_the_makers_ratio(
    area: float, ratio: float, by_volume: bool
) -> None:
    mix = mix_for(KINDS["slow epoxy"], area, ratio, by_volume=by_volume)
    assert mix.hardener / mix.resin == pytest.approx(ratio / 100)
    grams = (
        mix.resin * RESIN_DENSITY + mix.hardener * HARDENER_DENSITY
        if by_volume
        else mix.resin + mix.hardener
    )
    assert grams == pytest.approx(mix.needed + mix.wasted)
    assert mix.wasted >= 1.0 - 1e-9


def test_the_two_ratios_of_one_bottle_belong_together() -> None:
    # by volume 100 to 50: 115 g with 51 g
    assert weight_ratio(50) == pytest.approx(100 * 51 / 115)
    by_weight = mix_for(KINDS["slow epoxy"], 400, weight_ratio(50), by_volume=False)
    by_volume = mix_for(KINDS["slow epoxy"], 400, 50, by_volume=True)
    assert by_volume.resin * RESIN_DENSITY == pytest.approx(by_weight.resin)
    assert mix_words(by_weight).startswith("6.2 g of resin and 2.8 g of hardener")
    for area, ratio in ((0, 50), (100, 0)):
        with pytest.raises(BadInput):
            mix_for(KINDS["slow epoxy"], area, ratio, by_volume=False)


def coupons(*broke: str) -> Batch:
    return Batch(
        id="b", kind="slow epoxy", mixed="2026-10-06T20:00",
        coupons=tuple(Coupon(at="2026-10-08T20:00", broke=one, age_hours=48.0) for one in broke),  # type: ignore[arg-type]
    )  # fmt: skip


@pytest.mark.parametrize("count", range(1, 12))
def test_all_held_is_the_twentieth_part_to_the_power_of_one_over_the_count(count: int) -> None:
    assert at_least(count, count) == pytest.approx(0.05 ** (1 / count), abs=1e-9)


def test_the_bound_covers_nineteen_times_in_twenty() -> None:
    rng = np.random.default_rng(2)
    for share in (0.6, 0.85):
        held = rng.binomial(8, share, 4000)
        covered = np.mean([at_least(int(k), 8) <= share for k in held])
        assert covered >= 0.94


def test_a_batch_is_judged_by_its_coupons() -> None:
    assert verdict_on(coupons()).verdict == "untried"
    assert verdict_on(coupons("wood")).verdict == "doubtful"
    assert verdict_on(coupons(*["wood"] * 5)).verdict == "good"
    bad = verdict_on(coupons("wood", "wood", "joint"))
    assert (bad.verdict, bad.held, bad.soft) == ("bad", 2, False)
    assert "still soft" in verdict_words(verdict_on(coupons("soft")))
    assert "at least 55 %" in verdict_words(verdict_on(coupons(*["wood"] * 5)))
    assert math.isclose(verdict_on(coupons("joint")).at_least, 0.0)


def test_what_is_glued_is_tied_to_the_batch_in_use_and_named_when_its_coupon_fails() -> None:
    steps = (
        Step(id="plates", title="Glue the plates", glue="slow epoxy"),
        Step(id="hatch", title="Glue the hatch", glue="aliphatic"),
        Step(id="seat", title="Glue the seat", glue="slow epoxy"),
    )
    build = new_batch(Build(steps=steps), "slow epoxy", NOW, ratio=44.0, temperature=18.0)
    for one in ("plates", "hatch"):
        build = tick(build, one, NOW)
    build = new_batch(build, "slow epoxy", NOW)
    build = tick(build, "seat", NOW)
    assert build.glue is not None
    assert [one.joints for one in build.glue.batches] == [("plates",), ("seat",)]
    broken = break_coupon(build, "batch 1", "joint", NOW + timedelta(days=3))
    assert broken.glue is not None
    assert verdict_on(broken.glue.batches[0]).verdict == "bad"
    assert verdict_on(broken.glue.batches[1]).verdict == "untried"
    assert build_from_text(text_of(broken)) == broken
    with pytest.raises(BadInput, match="no batch"):
        break_coupon(build, "batch 9", "wood", NOW)


def test_the_builders_bottle_of_a_kind_takes_the_place_of_the_one_before() -> None:
    build = set_bottle(Build(), Bottle(kind="pva", handle_minutes=40.0))
    build = set_bottle(build, Bottle(kind="pva", handle_minutes=50.0))
    assert build.glue is not None
    assert build.glue.bottles == (Bottle(kind="pva", handle_minutes=50.0),)
    first = next(
        one for one in choices("gusset", bottles=build.glue.bottles) if one.glue.kind == "pva"
    )
    assert first.times.handle == 50


def test_what_steps_are_planned_with_lies_within_the_ranges_of_its_kind() -> None:
    kinds = {str(kind): glue for kind, glue in KINDS.items()}
    for name, (handle, cure) in PLANNED.items():
        glue = kinds[name]
        assert glue.handle[0] <= handle <= glue.handle[1]
        assert glue.cure[0] <= cure <= glue.cure[1]


def test_water_glue_in_the_cold_is_a_warning_and_no_slower_clock() -> None:
    glue = KINDS["aliphatic"]
    assert times_of(glue, celsius=4.0) == times_of(glue, celsius=10.0)
    assert times_of(glue, celsius=15.0).handle > times_of(glue, celsius=20.0).handle
    cold = {one.glue.kind: one for one in choices("strip joint", celsius=6.0)}
    assert "chalks" in cold["aliphatic"].against
    assert "chalks" in cold["pva"].against
    assert "chalks" not in cold["slow epoxy"].against
    assert cold["aliphatic"].score < 0
    assert "it chalks and does not hold" in choice_under(cold["aliphatic"])


def test_thirty_minute_epoxy_bears_nothing_before_six_hours() -> None:
    found = {one.glue.kind: one for one in choices("tail seat", minutes=240)}
    assert found["30-minute epoxy"].times.loaded == 360
    assert "too slow" in found["30-minute epoxy"].against
    assert "no load before 6 h" in choice_under(found["30-minute epoxy"])
    gusset = {one.glue.kind: one for one in choices("gusset", minutes=240)}
    assert "too slow" not in gusset["30-minute epoxy"].against


def test_coupons_wait_for_the_glue_and_what_is_broken_too_early_counts_for_nothing() -> None:
    made = new_batch(Build(), "slow epoxy", NOW, temperature=20.0)
    assert made.glue is not None
    batch = made.glue.batches[0]
    # between 24 and 48 h: the geometric middle, and half as long ten degrees warmer
    hours = math.sqrt(24 * 48)
    assert through(batch) == NOW + timedelta(hours=math.ceil(hours))
    warm = batch.but(temperature=30.0)
    assert through(warm) == NOW + timedelta(hours=math.ceil(hours / 2))
    own = Bottle(kind="slow epoxy", cure_minutes=600.0)
    assert through(batch, own) == NOW + timedelta(hours=10)
    early = break_coupon(made, "batch 1", "joint", NOW + timedelta(hours=12))
    assert early.glue is not None
    said = verdict_on(early.glue.batches[0])
    assert (said.verdict, said.early) == ("untried", 1)
    assert verdict_words(said) == "1 coupon broken too early: not counted."
    assert verdict_on(early.glue.batches[0], own).verdict == "bad"
    assert wait_words(through(batch), NOW).startswith("Judge them from Thu 8 Oct ")
    assert wait_words(through(batch), NOW + timedelta(days=2)) == ""


def test_a_joint_that_let_go_counts_though_another_was_soft() -> None:
    said = verdict_on(coupons("joint", "soft", "wood"))
    assert (said.verdict, said.let_go, said.soft) == ("bad", 1, True)
    told = verdict_words(said)
    assert "the joint let go" in told
    assert "still soft" in told


def test_a_joint_is_written_to_the_batch_it_was_glued_with_and_to_no_other() -> None:
    build = Build(steps=(Step(id="seat", glue="slow epoxy"), Step(id="plates", glue="slow epoxy")))
    build = new_batch(build, "slow epoxy", NOW)
    # two days later it has long set in its cup
    late = tick(build, "seat", NOW + timedelta(days=2))
    assert late.glue is not None
    assert late.glue.batches[0].joints == ()
    tied = tie_joint(new_batch(late, "slow epoxy", NOW + timedelta(days=2)), "batch 1", "seat")
    other = tie_joint(tied, "batch 2", "seat")
    assert other.glue is not None
    assert [one.joints for one in other.glue.batches] == [(), ("seat",)]
    opened = untick(other, "seat")
    assert opened.glue is not None
    assert [one.joints for one in opened.glue.batches] == [(), ()]
    # a bottle that is poured from lasts
    pva = new_batch(Build(steps=(Step(id="rib", glue="pva"),)), "pva", NOW)
    rib = tick(pva, "rib", NOW + timedelta(days=9))
    assert rib.glue is not None
    assert rib.glue.batches[0].joints == ("rib",)
