"""Where targets are proposed: on the faces, where the fuselage and the surfaces have room, and they follow the airframe."""

from collections.abc import Callable
from datetime import datetime

import numpy as np
import pytest

from hardkeel.airframe.targeting import SIZES_MM, followed, places_of, proposed, without_section
from hardkeel.demo.fleet import DEMOS, OTHER_SHAPES
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.flying import set_wing_section
from hardkeel.edits.sight import lay_targets, take_targets
from hardkeel.edits.surfaces import set_wing
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.messages.targets import place_lines
from hardkeel.practice.hidden import hidden_by_chance
from hardkeel.project.model import Build
from hardkeel.sight.asking import next_picture, to_click, worth_a_pin
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import OWN_TARGET
from hardkeel.survey.network import network_of
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import marks_of
from tests.targeted import Bench, seen

NOW = datetime(2026, 11, 30, 19, 0)  # noqa: DTZ001  the bench's clock has no zone
ALL = (demo_build, *(demo.make for demo in (*DEMOS, *OTHER_SHAPES)))


@pytest.mark.parametrize("make", ALL, ids=lambda make: make.__name__)
def test_each_kind_of_airframe_gets_targets_that_tell_how_it_stands(
    make: Callable[[], Build],
) -> None:
    build = make()
    laid = lay_targets(build)
    survey = laid.surveyed
    codes = [one.code for one in survey.targets]
    assert codes == list(range(len(codes)))
    assert 16 <= len(codes) <= 60
    assert survey.target_size in SIZES_MM
    for one in survey.targets:
        assert np.linalg.norm(one.normal or (0, 0, 1)) == pytest.approx(1.0)
    assert lay_targets(laid).surveyed == survey, "once is enough"
    bare = survey.but(readings=(), photos=(), gluing=None, locked=())
    assert laid.fuselage is not None
    made = Bench(bare, hidden_by_chance(bare, "crooked 3"), laid.fuselage)
    taken = seen(made, 3)
    assert all(len(one.codes) >= 12 for one in taken)
    done = take_targets(laid.but(survey=bare, phase="dry"), taken, NOW)
    judgement = judge_survey(done.surveyed, "dry")
    checks = {one.id: one for one in judgement.checks}
    for rule in judgement.rules:
        truth = float(rule.slope @ (made.hidden.unknowns - judgement.solution.unknowns))
        assert abs(truth) < 4.5 * checks[rule.id].sigma, rule.id


def test_a_label_lies_on_the_face_where_a_section_is_drawn_and_else_only_behind() -> None:
    build = demo_build()
    assert without_section(build) == ("wing",)
    names = {one.id for one in proposed(build).marks}
    assert "target_wing_tip_te_port" in names
    assert not any("wing" in name and "_le_" in name for name in names)
    laid = lay_targets(build)
    known = followed(laid, set_wing_section(laid, "flat-bottomed 12"))
    more = {one.id: one for one in proposed(known).marks}
    assert sorted(more) == [
        f"target_wing_{place}_le_{hand}"
        for place in ("root", "tip")
        for hand in ("port", "starboard")
    ]
    before, after = (one.surveyed.mark("target_wing_tip_te_port") for one in (laid, known))
    assert before is not None
    assert after is not None
    # upwards, out of the chord line, by as much as the section is thick there
    assert 0.5 < after.at[2] - before.at[2] < 8.0


def test_targets_follow_the_airframe_and_go_with_their_surface() -> None:
    build = lay_targets(demo_build())
    was = {one.id: one.at for one in build.surveyed.marks}
    moved = set_wing(build, "wing", le_x=build.wings[0].le_x + 10.0)
    now = {one.id: one.at for one in moved.surveyed.marks}
    assert set(now) == set(was)
    for name, at in now.items():
        if name.startswith(f"{OWN_TARGET}wing"):
            assert at[0] - was[name][0] == pytest.approx(10.0, abs=0.02)
    assert [one.code for one in moved.surveyed.targets] == [
        one.code for one in build.surveyed.targets
    ]


def test_hands_and_clicks_are_not_sent_to_a_mark_that_is_there_for_its_target() -> None:
    laid = lay_targets(demo_build()).surveyed
    for one in candidates_of(laid):
        assert not any(name.startswith(OWN_TARGET) for name in marks_of(one))
    bare = laid.but(readings=(), photos=(), gluing=None)
    judgement = judge_survey(bare, "dry")
    assert not any(one.startswith(OWN_TARGET) for one in to_click(judgement, "none", frozenset()))


def test_the_next_picture_shows_targets_that_are_turned_to_it_and_is_worth_what_they_tell() -> None:
    build = lay_targets(demo_build())
    bare = build.surveyed.but(readings=(), photos=(), gluing=None, locked=())
    judgement = judge_survey(bare, "dry")
    wanted = next_picture(judgement)
    assert wanted is not None
    faces = {one.mark: np.array(bare.normal_of(one)) for one in bare.targets}
    points = judgement.solution.placed.airframe
    assert len(wanted.view.marks) > 8
    for mark in wanted.view.marks:
        to_camera = wanted.view.camera.place - points[judgement.net.index[mark]]
        assert to_camera @ faces[mark] > 0.0, mark
    assert wanted.then < 0.9 * wanted.now
    assert worth_a_pin(judgement, wanted) == ()


def test_the_sheet_says_where_each_label_is_laid() -> None:
    build = lay_targets(set_wing_section(demo_build(), "flat-bottomed 12"))
    codes = {one.mark.removeprefix(OWN_TARGET): one.code for one in build.surveyed.targets}
    said = {code: place_lines(at, "mm") for code, at in places_of(build).items()}
    assert set(said) == set(codes.values())
    # 20 mm and its rim are 26.7 mm across; 2 mm stay free at the edge
    assert said[codes["wing_tip_te_port"]] == (
        "15.3 mm in from the tip",
        "15.3 mm before the trailing edge",
    )
    assert said[codes["wing_tip_le_port"]][1] == "15.3 mm behind the leading edge"
    assert said[codes["stab_tip_te_port"]][1] == "15.3 mm before the hinge line"
    assert said[codes["side_1_port"]][1] == "half way up the side"
    assert (
        place_lines(places_of(build)[codes["wing_tip_te_port"]], "in")[0]
        == "0.604″ in from the tip"
    )
    # measured on the airframe itself: the mark is so far from the tip and from the edge
    wing, mark = build.wings[0], build.surveyed.mark(f"{OWN_TARGET}wing_tip_te_port")
    assert mark is not None
    assert abs(mark.at[1]) == pytest.approx(wing.span / 2 - 15.33, abs=1.0)
    survey = build.surveyed
    off = survey.but(
        marks=tuple(
            one.but(at=(*one.at[:2], 0.0)) if one.id == mark.id else one for one in survey.marks
        )
    )
    assert codes["wing_tip_te_port"] not in places_of(build.but(survey=off)), "it was put elsewhere"
    pdf = targets_pdf(survey, 20.0, where=said)
    assert pdf.startswith(b"%PDF")


def test_a_small_model_gets_small_targets() -> None:
    by_name = {demo.name: demo.make for demo in DEMOS}
    assert proposed(by_name["Withy 820"]()).size < proposed(by_name["Marram 1450"]()).size
    empty = Build(name="nothing yet")
    assert proposed(empty).targets == ()


def test_photographs_without_enough_targets_change_nothing() -> None:
    laid = lay_targets(demo_build())
    assert take_targets(laid, [], NOW) == laid
    assert network_of(laid.surveyed) is not None
