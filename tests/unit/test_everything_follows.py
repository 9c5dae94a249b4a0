"""What lies along a span goes with it; struts stay where they were said to be of a wing; whole surfaces move."""

import numpy as np
import pytest

from hardkeel.airframe.arranging import wanting
from hardkeel.airframe.bodies import struts_contacts, struts_of
from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.airframe.flights import build_trim
from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.airframe.strutting import strut_length
from hardkeel.balance.model import Break, risen
from hardkeel.base.errors import BadInput
from hardkeel.edits.seats import set_seat_kind, set_struts
from hardkeel.edits.surfaces import set_tail, set_wing
from hardkeel.edits.tail import set_built, set_figures, surface_of
from hardkeel.messages.advice import step_sentence
from hardkeel.project.soundness import check_build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Survey, contacts_of
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work
from hardkeel.trim.flying import effect_of
from tests.rigged import read_all
from tests.unit.trim.test_trim_by_role import Asked


def test_ribs_tubes_and_tip_go_with_the_span_from_both_pages() -> None:
    ribbed = set_built(build_from(Figures(stab_span=517.0)), "stab", "ribbed")
    for made in (
        set_figures(ribbed, "stab", span=700.0),
        set_tail(ribbed, "stab", span=700.0),
    ):
        was, now = surface_of(ribbed, "stab"), surface_of(made, "stab")
        assert was.ribs[-1] == pytest.approx(258.5)
        assert now.ribs[-1] == pytest.approx(350.0)
        assert len(now.ribs) == len(was.ribs)
    foam = set_built(build_from(Figures()), "stab", "foam")
    longer = set_figures(foam, "stab", span=840.0)
    assert surface_of(longer, "stab").tubes[0].length == pytest.approx(
        2 * surface_of(foam, "stab").tubes[0].length
    )


def test_a_wings_breaks_go_with_its_span_and_its_marks_with_them() -> None:
    build = build_from(proposed("tee"))
    wider = set_wing(build, "wing", span=2 * build.wings[0].span)
    assert wider.wings[0].breaks[0].y == pytest.approx(2 * build.wings[0].breaks[0].y)
    marks = {one.id: one.at for one in wider.surveyed.marks}
    assert marks["wing_break_le_starboard"][1] == pytest.approx(wider.wings[0].breaks[0].y)
    check_build(wider)
    with pytest.raises(BadInput, match="inside the tip"):
        check_build(build.but(wings=(build.wings[0].but(breaks=(Break(y=900.0, dihedral=3.0),)),)))


def test_panels_rise_each_by_its_own_dihedral() -> None:
    breaks = (Break(y=300.0, dihedral=10.0), Break(y=500.0, dihedral=20.0))
    # each stretch by itself: 300 at 2°, 200 at 10°, 100 at 20°
    assert risen(2.0, breaks, 600.0) == pytest.approx(10.4762 + 35.2654 + 36.3970, abs=1e-3)
    assert risen(2.0, breaks, -100.0) == pytest.approx(3.4921, abs=1e-3)


def test_nothing_is_advised_of_struts_before_it_is_said_where_they_stand() -> None:
    build = build_from(proposed("biplane"))
    build = set_seat_kind(set_seat_kind(build, "upper_wing", "saddle"), "upper_wing", "struts")
    poses = {"upper_wing": {"roll": 1.2}, "bench": {"z": 60.0}}

    def steps(survey: Survey) -> tuple[SeatStep, ...]:
        judged = judge_survey(read_all(survey, poses, np.random.default_rng(1), times=3), "dry")
        mine = next(one for one in judged.corrections if one.body == "upper_wing")
        return seat_work(judged, mine, "shims").steps

    before = steps(build.surveyed)
    assert [one.act for one in before] == ["place"]
    assert "where the struts meet" in step_sentence(build.surveyed, "upper_wing", before[0], "mm")
    placed = set_struts(build, "upper_wing", out=300.0)
    after = [one for one in steps(placed.surveyed) if one.act == "strut"]
    assert {one.contacts[0] for one in after} >= {"front_port", "front_starboard"}
    # 1.2° over 300 mm are 6.3 mm up on one side and down on the other
    up = {one.contacts[0]: one.up for one in after}
    assert up["front_port"] == pytest.approx(6.3, abs=1.2)
    assert up["front_starboard"] == pytest.approx(-6.3, abs=1.2)


def test_struts_stay_where_they_were_said_to_be_of_the_wing() -> None:
    build = set_struts(build_from(proposed("biplane")), "upper_wing", out=280.0, front=0.2)
    moved = set_wing(build, "upper_wing", le_x=build.wings[1].le_x + 25.0)
    then, now = (
        {one.id: one.at for one in contacts_of(held)}
        for build_ in (build, moved)
        if (held := build_.surveyed.body("upper_wing")) is not None
    )
    assert now["front_port"][0] - then["front_port"][0] == pytest.approx(25.0)
    assert struts_of(moved, "upper_wing").out == 280.0
    lengths = {one.id: strut_length(one) for one in struts_contacts(moved, "upper_wing")}
    assert lengths["front_port"] == pytest.approx(lengths["front_starboard"])
    with pytest.raises(BadInput, match="outside the wing"):
        set_struts(build, "upper_wing", out=2000.0)
    saddled = set_seat_kind(build, "upper_wing", "saddle")
    held = saddled.surveyed.body("upper_wing")
    assert all(one.foot is None for one in contacts_of(held))  # type: ignore[arg-type]


def test_a_surface_that_moves_as_a_whole_is_its_own_elevator() -> None:
    build = set_built(build_from(Figures()), "stab", "foam")
    whole = set_figures(build, "stab", hinge_at_chord=None, pivot_at_chord=0.25)
    effect = effect_of(build_trim(whole), Asked("decalage", "decalage", "stab"), 0.5, 0.1)
    assert effect is not None
    assert effect.first == pytest.approx(0.5)
    names = [step.id for step in steps_at_hand(whole)]
    assert "stab pivot" in names
    assert "stab hinges" not in names


def test_what_a_tail_lacks_goes_by_what_its_parts_do() -> None:
    assert wanting(build_from(proposed("foreplane")).tail) == ()
    assert wanting(build_from(proposed("vee")).tail) == ()
    assert wanting(build_from(Figures()).tail[:1]) == ("fin",)
    assert wanting(()) == ("stab", "fin")
