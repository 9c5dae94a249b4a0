"""Edits of the airframe: pure, refused where they make no sense, and the survey follows."""

from collections.abc import Callable

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from hardkeel.airframe.bodies import bodies_of, marks_from, redrawn
from hardkeel.airframe.parts import balance_wanted, parts_of, weights_of
from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits import paper, surfaces
from hardkeel.edits import picks as pick_edits
from hardkeel.edits.renumbering import renumber_formers
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.naming import free_former_id
from hardkeel.messages.airframe import read_mark
from hardkeel.paper.model import Pair
from hardkeel.paper.picking import Picked
from hardkeel.picture.board import bodies_on_board, lines_of
from hardkeel.project.model import Build, empty_build
from hardkeel.project.soundness import check_build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import FUSELAGE, Mark
from hardkeel.survey.readings import Distance
from tests.draws import draws

DEMO = demo_build()


def fuselage(build: Build) -> Fuselage:
    assert build.fuselage is not None
    return build.fuselage


@pytest.mark.parametrize("kind", [one.id for one in STARTERS])
@pytest.mark.parametrize(("span", "length"), [(600.0, 480.0), (1400.0, 1100.0), (2600.0, 2000.0)])
def test_every_starter_is_a_sound_airframe_of_the_wanted_size(
    kind: str, span: float, length: float
) -> None:
    build = start_from(kind, span, length)
    check_build(build)
    assert build_from_text(text_of(build)) == build
    stations = fuselage(build).stations
    assert stations[0][1].station == pytest.approx(0, abs=0.2)
    assert stations[-1][1].station == pytest.approx(length, abs=0.3)
    drawn = {b.id: b for b in bodies_of(build)}
    assert drawn.keys() == {b.id for b in build.surveyed.bodies}
    # an upper wing on struts is the only one that sits otherwise
    for body in build.surveyed.bodies:
        now, then = body.model_dump(), drawn[body.id].model_dump()
        if body.id == "upper_wing":
            assert now.pop("seat")["kind"] == "struts"
            then.pop("seat")
        assert now == then
    judged = judge_survey(build.surveyed)
    assert judged.next  # it can be trued on the first day
    methods = {section.method for section in fuselage(build).sections}
    assert methods
    assert parts_of(build)
    board = lines_of(fuselage(build), stations[2][0])
    assert {curve.view for curve in board.curves} == {"side", "above", "section"}
    assert len(bodies_on_board(build)) == 2 * (len(build.surveyed.bodies) - 1)


def test_a_biplane_has_two_wings_with_checks_of_their_own() -> None:
    build = start_from("biplane", 1000.0, 860.0)
    ids = {check.id for check in judge_survey(build.surveyed).checks}
    assert {"wing_incidence", "upper_wing_incidence"} <= ids


@pytest.mark.parametrize(("span", "length"), [(0, 100), (1000, 300), (1000, 2000)])
def test_sizes_that_make_no_model_are_refused(span: float, length: float) -> None:
    with pytest.raises(BadInput):
        start_from("stick", span, length)


def test_the_survey_follows_the_drawing_but_not_what_was_set_by_hand() -> None:
    build = start_from("sheet-box", 1200.0, 920.0)
    survey = build.surveyed
    own = Mark(id="hatch_corner", body=FUSELAGE, at=(100.0, 10.0, 40.0))
    moved = tuple(
        mark.but(at=(15.0, 0.0, 33.0)) if mark.id == "nose_pin" else mark for mark in survey.marks
    )
    build = build.but(survey=survey.but(marks=(*moved, own)))
    changed = surfaces.set_wing(build, "wing", span=1300.0)
    marks = {mark.id: mark for mark in changed.surveyed.marks}
    assert marks["wing_tip_le_starboard"].at[1] == 650.0
    assert marks["nose_pin"].at == (15.0, 0.0, 33.0)
    assert marks["hatch_corner"] == own
    back = surfaces.set_wing(changed, "wing", span=1200.0)
    assert back.surveyed == build.surveyed


def test_a_part_with_readings_can_not_be_lost() -> None:
    build = start_from("stick", 1200.0, 950.0)
    reading = Distance(id="r1", from_="nose_pin", to="fin_top_le", value=800.0)
    build = build.but(survey=build.surveyed.but(readings=(reading,)))
    gone = build.but(tail=tuple(t for t in build.tail if t.id != "fin"))
    with pytest.raises(BadInput, match="strike them out"):
        redrawn(build, gone)


@settings(max_examples=draws(20, 60))
@given(
    i=st.integers(0, 7),
    figures=st.dictionaries(
        st.sampled_from(["station", "half_width", "top", "bottom"]),
        st.floats(-2000, 2000),
        min_size=1,
    ),
)
@example(i=5, figures={"station": 0.0, "top": 453.0})
@example(i=2, figures={"station": 0.0, "half_width": 740.0})
def test_whatever_a_hand_drags_the_airframe_stays_sound(i: int, figures: dict[str, float]) -> None:
    name = fuselage(DEMO).stations[i][0]
    moved = dragged(fuselage(DEMO), name, **figures)
    try:
        build = drawing.with_fuselage(DEMO, moved)
    except BadInput as fault:
        if "too close" not in str(fault):
            raise
        return
    assert [stop for stop, _ in fuselage(build).stations] == [s for s, _ in fuselage(DEMO).stations]
    assert marks_from(build)


def test_formers_come_go_and_are_renamed_with_their_sections() -> None:
    build = drawing.add_former(DEMO, 300.0)
    assert fuselage(build).former("F3a") is not None
    build = drawing.set_method(build, "F3a", "F5", "crutch")
    stretches = [(s.from_, s.to, s.method) for s in fuselage(build).sections]
    assert ("F3a", "F5", "crutch") in stretches
    assert stretches[0] == ("F1", "F3a", "sheet-sides")
    named = drawing.rename_former(build, "F3a", "bay frame")
    assert any(s.from_ == "bay frame" for s in fuselage(named).sections)
    gone = drawing.delete_former(named, "bay frame")
    assert fuselage(gone).former("bay frame") is None
    check_build(gone)
    refused: tuple[Callable[[], Build], ...] = (
        lambda: drawing.rename_former(build, "F3a", "F1"),
        lambda: drawing.rename_former(build, "F3a", "  "),
        lambda: drawing.delete_former(build, "nobody"),
        lambda: drawing.set_method(build, "F5", "F2", "crutch"),
        lambda: drawing.set_station(build, "F2", half_width=-1),
        lambda: drawing.set_station(build, "F2", nonsense=1),
        lambda: surfaces.set_wing(build, "wing", span=0),
        lambda: surfaces.set_tail(build, "nobody", span=10),
        lambda: drawing.set_skins(build, top_skin=-1),
        lambda: drawing.set_wood(build, "F2", thickness=0),
        lambda: drawing.set_longeron(build, "upper", (0.0, 5.0)),
    )
    for edit in refused:
        with pytest.raises(BadInput):
            edit()


def test_picks_keep_the_names_of_formers_that_are_there() -> None:
    rows = [
        Picked(stop.station + 0.4, stop.half_width, stop.bottom, stop.top)
        for _, stop in fuselage(DEMO).stations
    ]
    build = pick_edits.take_picks(DEMO, rows)
    assert [f.id for f in fuselage(build).formers] == [f.id for f in fuselage(DEMO).formers]
    assert fuselage(build).former("F3").lightened  # type: ignore[union-attr]  # what was drawn in stays
    fresh = pick_edits.take_picks(empty_build(), rows)
    assert fuselage(fresh).tail_post is not None
    with pytest.raises(BadInput, match="no top yet"):
        pick_edits.take_picks(DEMO, [rows[0], Picked(500.0, 10.0, -5.0, None)])


def test_edits_of_the_paper_and_the_ledger_are_refused_where_they_make_no_sense() -> None:
    with pytest.raises(BadInput, match="no part"):
        ledger_edits.set_state(DEMO, "propeller blade", "cut")
    with pytest.raises(ledger_edits.AskFirst):
        ledger_edits.set_state(DEMO, "doubler", "glued")
    held = ledger_edits.answer_pair(DEMO, "doubler", "mirrored")
    assert ledger_edits.set_state(held, "doubler", "glued").listed.states["doubler"] == "glued"
    with pytest.raises(BadInput):
        ledger_edits.weigh(DEMO, "F2", 0.0)
    with pytest.raises(BadInput, match="no sheet"):
        paper.delete_pair(DEMO, "nothing", 0)
    made = paper.add_pair(DEMO, "new sheet", Pair(plan=100.0, measured=101.0))
    assert made.audit[-1].id == "new sheet"


def test_the_weights_of_parts_are_the_masses_that_balance() -> None:
    parts = parts_of(DEMO)
    weights = weights_of(DEMO, parts)
    masses = {mass.id: mass for mass in DEMO.masses}
    for part in parts:
        best = weights[part.id].best
        if part.x is not None and best:
            assert masses[part.id].mass == pytest.approx(best, abs=0.01)
    heavier = ledger_edits.weigh(DEMO, "F7", 5.0)
    assert next(m for m in heavier.masses if m.id == "F7").mass == 5.0
    assert balance_wanted(empty_build()).target_percent == 30.0


def test_wing_and_tail_go_on_a_bare_fuselage_and_come_off_again() -> None:
    bare = Build(format="hardkeel/1", fuselage=DEMO.fuselage)
    whole = surfaces.put_on_wing_and_tail(bare)
    assert {body.id for body in whole.surveyed.bodies} == {"fuselage", "wing", "stab", "fin"}
    assert judge_survey(whole.surveyed).next
    two = surfaces.add_wing_above(whole)
    assert two.wings[1].z > two.wings[0].z
    assert surfaces.take_off(two, "upper_wing") == whole
    with pytest.raises(BadInput, match="on already"):
        surfaces.put_on_wing_and_tail(whole)
    with pytest.raises(BadInput, match="strike them out"):
        surfaces.take_off(DEMO, "stab")
    with pytest.raises(BadInput, match="no fuselage"):
        surfaces.put_on_wing_and_tail(empty_build())


def test_marks_are_added_by_hand_and_taken_away_unless_read() -> None:
    name, at = read_mark("Hatch corner, 120, 10 mm, 1-3/4", "mm")
    build = surfaces.add_mark(DEMO, name, FUSELAGE, at)
    assert build.surveyed.mark("hatch_corner").at == pytest.approx((120.0, 10.0, 44.45))  # type: ignore[union-attr]
    assert surfaces.delete_mark(build, "hatch_corner") == DEMO
    for refused in (
        lambda: surfaces.add_mark(build, "hatch corner", FUSELAGE, at),
        lambda: surfaces.add_mark(build, "?!", FUSELAGE, at),
        lambda: surfaces.add_mark(build, "x", "no such body", at),
        lambda: surfaces.delete_mark(DEMO, "nose_pin"),
        lambda: read_mark("hatch, 1, 2", "mm"),
    ):
        with pytest.raises(BadInput):
            refused()


def test_a_swap_of_wood_drops_the_old_weight_and_keeps_to_what_is_drawn() -> None:
    assert "F4" in DEMO.listed.weighed
    swapped = ledger_edits.swap_wood(DEMO, "F4", "balsa-hard", 5.0)
    assert "F4" not in swapped.listed.weighed
    mass = next(m for m in swapped.masses if m.id == "F4")
    assert not mass.weighed
    assert mass.mass == pytest.approx(
        weights_of(swapped, parts_of(swapped))["F4"].estimated, abs=0.01
    )
    sides = ledger_edits.swap_wood(DEMO, "side_F1_F4", "light-ply", 2.0)
    assert fuselage(sides).side_thickness == 2.0
    for part, thickness in (("wing_half", 3.0), ("nobody", 3.0), ("F4", 0.0)):
        with pytest.raises(BadInput):
            ledger_edits.swap_wood(DEMO, part, "spruce", thickness)


def test_a_formers_state_weight_and_mass_go_with_its_name_and_its_mass_goes_with_it() -> None:
    renamed = drawing.rename_former(DEMO, "F4", "bay")
    assert renamed.listed.states["bay"] == DEMO.listed.states["F4"]
    assert renamed.listed.weighed["bay"] == DEMO.listed.weighed["F4"]
    assert "F4" not in renamed.listed.states
    names = {
        "F4": "bay",
        "side_F1_F4": "side_F1_bay",
        "sticks_F4_tail_post": "sticks_bay_tail_post",
    }
    assert [m.id for m in renamed.masses] == [names.get(m.id, m.id) for m in DEMO.masses]
    assert drawing.rename_former(renamed, "bay", "F4") == DEMO
    gone = drawing.delete_former(DEMO, "F4")
    assert all(mass.id != "F4" for mass in gone.masses)


def test_a_name_tells_the_place_and_numbers_may_begin_anew_from_the_nose() -> None:
    build = drawing.add_former(drawing.add_former(DEMO, 300.0), 340.0)
    names = [former.id for former in sorted(fuselage(build).formers, key=lambda one: one.station)]
    assert names[:5] == ["F1", "F2", "F3", "F3a", "F3b"]
    assert free_former_id(fuselage(build), 10_000.0) == "F10"
    anew = renumber_formers(build)
    ordered = sorted(fuselage(anew).formers, key=lambda one: one.station)
    assert [former.id for former in ordered] == [f"F{i}" for i in range(1, len(ordered) + 1)]
    assert [former.station for former in ordered] == [
        former.station for former in sorted(fuselage(build).formers, key=lambda one: one.station)
    ]
    # what names a former goes along: a stretch from F4 begins at F6 now
    was = {former.id: former.station for former in fuselage(build).formers}
    now = {former.id: former.station for former in fuselage(anew).formers}
    before = [(was[s.from_], was.get(s.to)) for s in fuselage(build).sections]
    after = [(now[s.from_], now.get(s.to)) for s in fuselage(anew).sections]
    assert before == after
    check_build(anew)
    with pytest.raises(BadInput, match="already"):
        renumber_formers(anew)
