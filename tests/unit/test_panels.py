"""Panels of a wing: each with its own dihedral and sweep, and set for itself where it comes off."""

import math
from typing import Any

import numpy as np
import pytest

from hardkeel.airframe.bodies import surface_of_body, surfaces_of
from hardkeel.airframe.figures import Figures, build_from
from hardkeel.balance.balancing import mean_chord
from hardkeel.balance.model import Break, Wing
from hardkeel.base.errors import BadInput
from hardkeel.edits.surfaces import add_break, delete_break, set_break, set_wing
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.rigging import rigging_order


def broken(**more: Any) -> Build:
    return build_from(Figures(wing_span=2000, breaks=((0.55, 7.0),), **more))


def test_a_panel_runs_aft_by_its_own_sweep_and_the_mean_chord_goes_with_it() -> None:
    breaks = (Break(y=300.0, dihedral=4.0, sweep=10.0), Break(y=500.0, dihedral=9.0, sweep=60.0))
    wing = Wing(id="wing", le_x=200, span=1400, root_chord=220, tip_chord=120, sweep_le=35, breaks=breaks)  # fmt: skip
    places = [wing.aft(y) for y in (0.0, 300.0, 400.0, -500.0, 600.0, 700.0)]
    assert places == pytest.approx([0.0, 15.0, 20.0, 25.0, 55.0, 85.0])
    # a brute sum over ten thousand strips
    y = (np.arange(10_000) + 0.5) * 700 / 10_000
    chord = 220 + (120 - 220) * y / 700
    front = 200 + np.array([wing.aft(float(one)) for one in y])
    mean = mean_chord(wing)
    assert mean.length == pytest.approx(float(np.sum(chord**2) / np.sum(chord)), rel=1e-4)
    assert mean.le_x == pytest.approx(float(np.sum(front * chord) / np.sum(chord)), abs=1e-3)


def test_without_a_sweep_of_its_own_a_panel_goes_on_straight() -> None:
    plain = Wing(id="wing", le_x=200, span=1400, root_chord=220, tip_chord=120, sweep_le=35)
    kinked = plain.but(breaks=(Break(y=400.0, dihedral=6.0),))
    assert [kinked.aft(y) for y in (100.0, 650.0)] == [plain.aft(y) for y in (100.0, 650.0)]
    assert mean_chord(kinked) == mean_chord(plain)
    said = plain.but(breaks=(Break(y=350.0, dihedral=6.0, sweep=17.5),))
    assert mean_chord(said).le_x == pytest.approx(mean_chord(plain).le_x)


def test_what_comes_off_is_a_body_of_its_own_and_its_marks_go_with_it() -> None:
    build = broken(comes_off=True)
    survey = build.surveyed
    port = survey.body("wing_outer_port")
    assert port is not None
    assert port.origin[1] == -550.0
    # it stands over the middle by the inner dihedral
    assert port.origin[2] == pytest.approx(
        build.wings[0].z + 550 * math.tan(math.radians(3.0)), abs=0.01
    )
    owner = {mark.id: mark.body for mark in survey.marks}
    assert owner["wing_tip_le_port"] == owner["wing_root_te_port"] == "wing_outer_port"
    assert owner["wing_break_le_port"] == "wing"
    kinds = {check.kind for check in judge_survey(survey, "dry").checks if check.body == port.id}
    assert kinds == {"incidence", "yaw", "roll", "offset"}
    order = rigging_order(survey)
    assert order.index("wing") < order.index("wing_outer_port") < order.index("stab")
    assert surface_of_body(build, "wing_outer_starboard") == "wing"
    again = build_from_text(text_of(build))
    assert again.wings == build.wings
    assert again.survey == build.survey


def test_letting_panels_off_keeps_every_mark_where_it_is() -> None:
    before = broken()
    after = set_break(before, "wing", 0, comes_off=True)
    drawn = {one.id: one for one in broken(comes_off=True).surveyed.bodies}
    assert {one.id: one for one in after.surveyed.bodies} == drawn
    was = {mark.id: mark.at for mark in before.surveyed.marks}
    now = {mark.id: mark.at for mark in after.surveyed.marks}
    assert {name: now[name] for name in was} == was
    on = set_break(after, "wing", 0, comes_off=False)
    assert {one.id for one in on.surveyed.bodies} == {one.id for one in before.surveyed.bodies}
    assert {mark.id: mark.body for mark in on.surveyed.marks} == {
        mark.id: mark.body for mark in before.surveyed.marks
    }


def test_a_break_is_put_in_moved_and_taken_out_and_follows_the_span() -> None:
    build = add_break(build_from(Figures(wing_span=1200)), "wing")
    assert [one.y for one in build.wings[0].breaks] == [300.0]
    build = add_break(build, "wing")
    assert [one.y for one in build.wings[0].breaks] == [300.0, 450.0]
    build = set_break(build, "wing", 1, dihedral=12.0, sweep=25.0)
    wide = set_wing(build, "wing", span=2400.0).wings[0]
    assert [one.y for one in wide.breaks] == [600.0, 900.0]
    assert wide.breaks[1].dihedral == 12.0
    with pytest.raises(BadInput, match="outside the one before"):
        set_break(build, "wing", 1, y=200.0)
    with pytest.raises(BadInput, match="no break 3"):
        set_break(build, "wing", 2, y=500.0)
    one = delete_break(build, "wing", 0)
    assert [each.dihedral for each in one.wings[0].breaks] == [12.0]


def test_the_tips_height_is_the_sum_of_its_panels() -> None:
    build = broken()
    wing = next(one for one in surfaces_of(build) if one.id == "wing")
    tip = wing.corner(1000.0, trailing=False)  # type: ignore[union-attr]
    root = wing.corner(0.0, trailing=False)  # type: ignore[union-attr]
    rises = 550 * math.tan(math.radians(3)) + 450 * math.tan(math.radians(7))
    lower = build.wings[0].aft(1000) * math.sin(math.radians(1.5))  # it leans nose up
    assert tip[2] - root[2] == pytest.approx(rises - lower, abs=0.01)
