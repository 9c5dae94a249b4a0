"""A tail within its build: edits, ledger, balance, files, command, steps, templates."""

import json
import math
import zipfile
from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from shapely import Polygon

from hardkeel.airframe.orders.frame import STAGE as FRAME_STAGE
from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.airframe.orders.tail import STAGE, tail_steps
from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.airframe.tails import (
    clashes_in,
    frame_choices,
    holes_in_sides,
    passing_in,
    slot_of,
    tail_cut_list,
    tail_mass,
    tail_pieces,
    volumes_of,
)
from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.cli.tail import tail_json, tail_table
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing
from hardkeel.edits import tail as edits
from hardkeel.edits.steps import plan_steps, tick
from hardkeel.export.tail import tail_files
from hardkeel.joinery.buying import purchases_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.messages.frame import purchase_sentence
from hardkeel.messages.steps import because_of, title_of
from hardkeel.messages.tail import bevel_answer, hinge_sentence
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.project.model import Build
from hardkeel.schedule.ordering import all_before, check_steps
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.package import load, save
from hardkeel.tail.controls import hinge_stations, thickness_at_hinge
from hardkeel.tail.lofting import rib_places
from hardkeel.tail.lying import laid_out
from hardkeel.tail.model import Controls
from hardkeel.tail.own_sections import own_section
from hardkeel.tail.pieces import cut_list_of_tail
from hardkeel.tail.planform import planform_of
from hardkeel.tail.stick_frame import frame_thickness
from tests.tail_independent import loop_of

FLEET = (demo_build, withy, marram, sallow)
fleet = pytest.mark.parametrize("make", FLEET, ids=lambda make: make.__name__)


def section_text(name: str) -> str:
    section = own_section(name)
    assert section is not None
    return loop_of([tuple(p) for p in section.upper], [tuple(p) for p in section.lower])


def test_saying_how_it_is_built_keeps_what_is_there() -> None:
    build = demo_build()
    for kind in ("stick", "ribbed", "foam"):
        made = edits.surface_of(edits.set_built(build, "stab", kind), "stab")
        was = edits.surface_of(build, "stab")
        assert made.kind == kind
        assert (made.span, made.root_chord, made.le_x) == (was.span, was.root_chord, was.le_x)
        assert made.flatness == was.flatness
    ribbed = edits.surface_of(edits.set_built(build, "stab", "ribbed"), "stab")
    assert ribbed.ribs[0] == 0.0
    assert ribbed.ribs[-1] == pytest.approx(220.0)


def test_an_edit_follows_into_survey_ledger_and_balance() -> None:
    build = demo_build()
    wider = edits.set_figures(build, "stab", span=480.0)
    body = wider.surveyed.body("stab")
    assert body is not None
    assert body.span == 480.0
    tip = next(mark for mark in wider.surveyed.marks if mark.id == "stab_tip_le_port")
    assert tip.at[1] == pytest.approx(-240.0)
    weights = [weights_of(one, parts_of(one))["stab_half"].estimated for one in (build, wider)]
    assert weights[0] is not None
    assert weights[1] is not None
    assert weights[1] > weights[0]
    light = edits.put_surface(build, edits.surface_of(build, "stab").but(material="balsa-light"))
    weight = weights_of(light, parts_of(light))["stab_half"].estimated
    assert weight == pytest.approx(weights[0] * 100 / 150, rel=0.01)
    assert weights[0] == pytest.approx(tail_mass(build, edits.surface_of(build, "stab")), rel=1e-6)


def test_a_tail_from_its_root_rib_in_three_figures() -> None:
    bare = demo_build()
    plain = edits.surface_of(bare, "stab").but(kind=None, bracing=None)
    made = edits.from_root_rib(edits.put_surface(bare, plain), "stab", "lifting", 8.0, 9)
    surface = edits.surface_of(made, "stab")
    assert len(surface.ribs) == 9
    ribs = tail_json(made)["ribs"]
    assert ribs[-1]["max_thickness"] == pytest.approx(8.0)
    assert ribs[0]["max_thickness"] == pytest.approx(0.11 * 120, rel=0.01)
    with pytest.raises(BadInput, match="no section"):
        edits.from_root_rib(bare, "stab", "lost.dat", 8.0, 9)


def test_an_outline_from_a_drawing_whichever_way_it_lies() -> None:
    half = ((0.0, 0.0), (12.0, 150.0), (30.0, 195.0), (60.0, 200.0), (96.0, 180.0), (108.0, 0.0))
    turned = (
        half[3:] + half[:3],
        tuple(reversed(half)),
        tuple((x + 50.0, y + 20.0) for x, y in half),
        tuple((x, -y) for x, y in half),
    )
    wanted = planform_of(edits.surface_of(edits.set_outline(demo_build(), "stab", half), "stab"))
    for ring in turned:
        made = edits.surface_of(edits.set_outline(demo_build(), "stab", ring), "stab")
        assert made.span == pytest.approx(400.0)
        assert planform_of(made).area == pytest.approx(wanted.area)
    back = edits.surface_of(
        edits.forget_outline(edits.set_outline(demo_build(), "stab", half), "stab"), "stab"
    )
    assert back.outline == ()
    with pytest.raises(BadInput, match="no straight root"):
        edits.set_outline(demo_build(), "stab", ((0.0, 0.0), (50.0, 90.0), (90.0, 40.0)))


def tapered(span: float = 420.0, root: float = 110.0, tip: float = 70.0) -> np.ndarray:
    """A whole surface, its middle line along x, leading edge at x = 0 there; rounded at its tips."""
    half = [(0.0, 0.0), (25.0, 0.8 * span / 2), (40.0, span / 2), (40.0 + tip / 2, span / 2)]
    half += [(25.0 + tip, 0.8 * span / 2), (root, 0.0)]
    other = [(x, -y) for x, y in half[::-1][1:-1]]
    return np.array([*half, *other])


@pytest.mark.parametrize("askew", [-4.0, 1.6])
def test_a_half_that_lies_askew_and_wavers_is_straightened_by_its_root(askew: float) -> None:
    """A photographed sheet: turned a little, its followed tip a few hundredths out and in again."""
    rng = np.random.default_rng(3)
    half = tapered()[:6]
    fine = np.concatenate(
        [a + (b - a) * np.linspace(0, 1, 12)[:-1, None] for a, b in pairwise([*half, half[0]])]
    )
    turn = np.radians(askew)
    back = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    ring = (fine + rng.normal(size=fine.shape) * 0.04) @ back + np.array([200.0, 40.0])
    made = edits.surface_of(
        edits.set_outline(demo_build(), "stab", tuple(map(tuple, ring.tolist()))), "stab"
    )
    assert made.span == pytest.approx(420.0, abs=0.5)
    assert made.root_chord == pytest.approx(110.0, abs=0.5)
    hinge = np.array([(60.0, 20.0), (60.0, 100.0)]) @ back + np.array([200.0, 40.0])
    before = edits.surface_of(demo_build(), "stab")
    placed = laid_out(tuple(map(tuple, ring.tolist())), before).carried(hinge)
    assert placed == pytest.approx(np.array([(60.0, 20.0), (60.0, 100.0)]), abs=0.3)


@pytest.mark.parametrize("sideways", [False, True])
@pytest.mark.parametrize("whole", [False, True])
def test_halves_and_whole_surfaces_are_taken_whichever_way_their_span_lies(
    whole: bool, sideways: bool
) -> None:
    """The tip of a whole one, or the straight trailing edge of a half that lies along the sheet, was taken for its root."""
    points = tapered()
    if not whole:
        points = points[:6]
    if sideways:  # ahead is up
        points = np.column_stack([points[:, 1], -points[:, 0]])
    points = points + np.array([300.0, 90.0])
    ring = tuple((float(x), float(y)) for x, y in points)
    before = edits.surface_of(demo_build(), "stab")
    lying = laid_out(ring, before)
    assert (lying.whole, lying.sideways) == (whole, sideways)
    made = edits.surface_of(edits.set_outline(demo_build(), "stab", ring), "stab")
    assert made.span == pytest.approx(420.0, abs=0.01)
    assert made.root_chord == pytest.approx(110.0, abs=0.01)
    wanted = float(Polygon(tapered()).area) / 2
    assert planform_of(made).area / 2 == pytest.approx(wanted, rel=1e-3)
    assert made.outline[1][0] > made.outline[0][0]  # swept back: the leading edge is ahead


def test_an_outline_clicked_on_the_paper_desk() -> None:
    """A plan at two pixels a millimetre, the half drawn under its middle line."""
    half = ((0.0, 0.0), (12.0, 150.0), (60.0, 200.0), (108.0, 0.0))
    plan = Plan(
        id="tail plan",
        image="plans/made-up.png",
        lengths=(
            KnownLength(id="k1", a=(100.0, 100.0), b=(300.0, 100.0), length=100.0),
            KnownLength(id="k2", a=(100.0, 100.0), b=(100.0, 300.0), length=100.0),
        ),
        origin=(100.0, 100.0),
        traces=(
            Trace(
                id="t", kind="outline", pixels=tuple((100 + 2 * x, 100 + 2 * y) for x, y in half)
            ),
        ),
    )
    build = demo_build().but(plans=(plan,))
    made = edits.surface_of(edits.outline_from_plan(build, "stab"), "stab")
    assert made.span == pytest.approx(400.0, abs=0.1)
    assert made.root_chord == pytest.approx(108.0, abs=0.1)
    with pytest.raises(BadInput, match="paper desk"):
        edits.outline_from_plan(demo_build(), "stab")


def test_edits_refuse_what_can_not_be() -> None:
    build = demo_build()
    for edit in (
        lambda: edits.set_tip(build, "stab", "elliptic", 500.0),
        lambda: edits.surface_of(build, "wing"),
        lambda: edits.set_spar(build, "stab", "none", at_chord=0.3),
        lambda: edits.set_figures(build, "stab", span=-3.0),
        lambda: edits.bring_in_section(build, "stab", "x.dat", "no figures here"),
    ):
        with pytest.raises(BadInput):
            edit()


def test_the_tail_is_arranged_another_way_and_back() -> None:
    build = sallow()  # nothing is read on its tail yet
    for way, ids in (
        ("t", ["stab", "fin"]),
        ("twin", ["stab", "fin", "fin_starboard"]),
        ("usual", ["stab", "fin"]),
        ("v", ["vee"]),
    ):
        build = edits.arrange(build, way)  # type: ignore[arg-type]
        assert [one.id for one in build.tail] == ids
        assert edits.arrangement_of(build) == way
        bodies = ["vee_port", "vee_starboard"] if way == "v" else ids
        assert {one.id for one in build.surveyed.bodies} == {"fuselage", "wing", *bodies}
        assert tail_table(build, "mm")
    twin = edits.arrange(sallow(), "twin")
    marks = {mark.id: mark.at for mark in twin.surveyed.marks}
    assert marks["fin_top_le"][1] == -marks["fin_starboard_top_le"][1] != 0
    assert [one.id for one in edits.arrange(build, "t").tail] == ["stab", "fin"]  # made anew
    with pytest.raises(BadInput, match="no stabilizer"):
        edits.arrange(build.but(tail=()), "t")
    with pytest.raises(BadInput, match="readings were taken"):
        edits.arrange(demo_build(), "v")


def test_tubes_spars_and_stock_are_added_and_set() -> None:
    build = edits.set_built(sallow(), "stab", "ribbed")
    build = edits.add_tube(edits.add_spar(build, "stab", "bottom"), "stab")
    build = edits.set_tube(build, "stab", "tube", diameter=8.0)
    build = edits.set_stock(build, "stab", "leading_edge", 0, 9.0)
    stab = edits.surface_of(build, "stab")
    assert [tube.diameter for tube in stab.tubes if tube.id == "tube"] == [8.0]
    assert stab.leading_edge is not None
    assert stab.leading_edge[0] == 9.0
    gone = edits.set_tube(build, "stab", "tube", length=0)
    assert "tube" not in {tube.id for tube in edits.surface_of(gone, "stab").tubes}
    spar = stab.spars[0].id
    less = edits.delete_spar(build, "stab", spar)
    assert spar not in {one.id for one in edits.surface_of(less, "stab").spars}


# -- files -----------------------------------------------------------------------------------------------


def with_section() -> Build:
    return edits.bring_in_section(edits.set_built(demo_build(), "stab", "ribbed"), "stab", "mine.dat", section_text("2412"))  # fmt: skip


def test_a_coordinate_file_lies_in_the_keel_and_comes_back(tmp_path: Path) -> None:
    build = with_section()
    save(build, tmp_path / "one.keel")
    with zipfile.ZipFile(tmp_path / "one.keel") as archive:
        assert archive.read("profiles/mine.dat").decode() == section_text("2412")
        assert "profiles" not in json.loads(archive.read("build.json"))
    loaded = load(tmp_path / "one.keel")
    assert loaded.build.profiles == build.profiles
    assert tail_json(loaded.build)["ribs"] == tail_json(build)["ribs"]
    save(loaded.build, tmp_path / "two.keel", others=loaded.others)
    assert load(tmp_path / "two.keel").build.profiles == build.profiles


def test_beside_a_bare_build_and_in_the_journal(tmp_path: Path) -> None:
    build = with_section()
    save(build, tmp_path / "build.json")
    assert (tmp_path / "mine.dat").read_text() == section_text("2412")
    assert load(tmp_path / "build.json").build.profiles == build.profiles
    assert build_from_text(text_of(build)).profiles == build.profiles  # one text holds all of it
    (tmp_path / "mine.dat").unlink()
    lost = load(tmp_path / "build.json").build
    assert lost.profiles == {}
    with pytest.raises(BadInput, match=r'tail\[0\]\.root_profile: no section "mine.dat"'):
        tail_json(lost)


def test_a_section_is_looked_for_beside_the_build_and_nowhere_else(tmp_path: Path) -> None:
    (tmp_path / "out.dat").write_text(section_text("0009"))
    inner = tmp_path / "inner"
    inner.mkdir()
    build = edits.set_built(demo_build(), "stab", "ribbed")
    surface = edits.surface_of(build, "stab").but(root_profile="../out.dat")
    save(edits.put_surface(build, surface), inner / "build.json")
    assert load(inner / "build.json").build.profiles == {}


# -- the command -----------------------------------------------------------------------------------------


CONTRACT: dict[str, Any] = {
    "id": "stab", "kind": "ribbed", "span": 480, "root_chord": 130, "tip_chord": 90, "sweep_le": 12,
    "root_profile": "s.dat", "tip_profile": None, "ribs": [0, 40, 80, 120, 160, 200, 240],
    "spars": [{"id": "top", "at_chord": 0.3, "section": [3, 3], "face": "top"}],
    "leading_edge": [6, 8], "trailing_edge": [10, 3], "skin": 0, "hinge_at_chord": 0.65,
}  # fmt: skip


def written(tmp_path: Path, **more: object) -> Path:
    path = tmp_path / "build.json"
    path.write_text(json.dumps({"format": "hardkeel/1", "tail": [{**CONTRACT, **more}]}))
    (tmp_path / "s.dat").write_text(section_text("0012"))
    return path


def test_the_command_prints_the_contracts_keys(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = written(tmp_path)
    assert run_command(["tail", str(path), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert set(told) >= {"ribs", "sticks", "hinges"}
    assert [rib["y"] for rib in told["ribs"]] == [0, 40, 80, 120, 160, 200, 240]
    rib = told["ribs"][2]
    assert (rib["surface"], round(rib["chord"], 1), rib["le_x"]) == ("stab", 116.7, 4.0)
    assert rib["outline"][0][0] == pytest.approx(rib["chord"])
    assert min(x for x, _ in rib["outline"]) == pytest.approx(0.0, abs=1e-6)
    assert min(x for x, _ in rib["template"]) == pytest.approx(6.0)
    assert run_command(["tail", str(path), "--inches"]) == 0
    assert "Stabilizer, of ribs" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"span": None}, "tail[0].span"),
        ({"root_profile": "t.dat"}, "tail[0].root_profile"),
        ({"root_profile": None}, "tail[0].root_profile"),
        ({"kind": "paper"}, "tail[0].kind"),
        ({"hinge_at_chord": 1.2}, "tail[0].hinge_at_chord"),
        ({"spars": [{"id": "a", "at_chord": 0.3, "section": [3]}]}, "tail[0].spars[0].section"),
        ({"ribs": [0, -5]}, "tail[0].ribs[1]"),
        ({"leading_edge": [90, 8], "trailing_edge": [90, 3]}, "tail[0].ribs"),
    ],
)
def test_a_spoiled_tail_is_one_sentence(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], more: dict[str, object], place: str
) -> None:
    assert run_command(["tail", str(written(tmp_path, **more)), "--json"]) == 2
    told = capsys.readouterr()
    assert told.out == ""
    assert place in told.err
    assert told.err.count("\n") == 1


def test_sticks_are_printed_as_frame_prints_them(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    stick = {"kind": "stick", "root_profile": None, "bracing": {"pattern": "zigzag", "pitch": 40}}
    assert run_command(["tail", str(written(tmp_path, **stick)), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["ribs"] == []
    diagonal = next(one for one in told["sticks"] if one["kind"] == "diagonal")
    assert set(diagonal) >= {"part", "kind", "quantity", "section", "length", "angle_a", "angle_b", "material"}  # fmt: skip
    assert diagonal["quantity"] == 2
    assert isinstance(diagonal["angle_a"], list)
    assert len(told["surfaces"][0]["bracing"]) == 5


@fleet
def test_every_demo_prints_cuts_and_weighs(make: Callable[[], Build]) -> None:
    build = make()
    assert len(tail_table(build, "in").splitlines()) > 20
    assert tail_cut_list(build)
    for surface in build.tail:
        assert 1 < tail_mass(build, surface) < 80
        volumes = volumes_of(build, surface)
        assert volumes.volume is not None
        assert (0.01 if surface.upright else 0.3) < volumes.volume < 1.2
    for piece in tail_pieces(build):
        assert piece.polygon.is_valid
        assert piece.area > 1


def test_tail_volume_by_hand() -> None:
    build = demo_build()
    stab, wing = edits.surface_of(build, "stab"), build.wings[0]
    taper = wing.tip_chord / wing.root_chord
    chord = 2 / 3 * wing.root_chord * (1 + taper + taper**2) / (1 + taper)
    out = wing.span / 6 * (1 + 2 * taper) / (1 + taper)
    quarter = wing.le_x + wing.sweep_le * out / (wing.span / 2) + chord / 4
    t = (stab.tip_chord or 0) / (stab.root_chord or 1)
    mean = 2 / 3 * (stab.root_chord or 0) * (1 + t + t * t) / (1 + t)
    y = (stab.span or 0) / 6 * (1 + 2 * t) / (1 + t)
    arm = (stab.le_x or 0) + stab.sweep_le * y / stab.half + mean / 4 - quarter
    area = (stab.span or 0) * ((stab.root_chord or 0) + (stab.tip_chord or 0)) / 2
    wanted = area * arm / (wing.span * (wing.root_chord + wing.tip_chord) / 2 * chord)
    assert volumes_of(build, stab).volume == pytest.approx(wanted, rel=1e-5)


# -- with the fuselage ---------------------------------------------------------------------------------


def in_a_slot() -> Build:
    """A stabilizer through the fuselage of a demo, its elevators a third of the chord."""
    build = demo_build()
    stab = edits.surface_of(build, "stab")
    return edits.put_surface(
        build, stab.but(le_x=(stab.le_x or 0) - 150.0, z=15.0, hinge_at_chord=0.6)
    )


def test_a_slot_becomes_an_order_rule_with_its_reason() -> None:
    build = in_a_slot().but(survey=None)
    slot = slot_of(build, edits.surface_of(build, "stab"))
    assert slot is not None
    assert not math.isinf(slot.rear)
    ways = {one.hinged: one.passes for one in passing_in(build, edits.surface_of(build, "stab"))}
    assert ways == {"none": True, "one": True, "both": False}
    seat = next(step for step in tail_steps(build) if step.id == "stab seat")
    assert "bare half first" in title_of(seat)
    assert "does not pass its slot" in because_of(seat)
    assert seat.no_return


def test_what_touches_and_what_is_cut_away() -> None:
    build = demo_build()
    hits = {frozenset(clash.parts) for clash in clashes_in(build)}
    assert frozenset({"stab starboard elevator", "fin rudder"}) in hits
    free = edits.set_controls(build, "stab", inner=30.0)
    hits = {frozenset(clash.parts) for clash in clashes_in(free)}
    assert frozenset({"stab starboard elevator", "fin rudder"}) not in hits


def test_tube_holes_are_level_and_follow_the_incidence() -> None:
    build = sallow()
    stab = edits.surface_of(build, "stab")
    hole = holes_in_sides(build, stab)[0]
    up = edits.put_surface(build.but(survey=None), stab.but(incidence=3.0))
    turned = holes_in_sides(up, edits.surface_of(up, "stab"))[0]
    aft = hole.x - (stab.le_x or 0) - (stab.root_chord or 0) / 2
    assert turned.z - hole.z == pytest.approx(-aft * math.sin(math.radians(3.0)), abs=0.05)


def test_choices_start_with_the_frame_as_it_is() -> None:
    build = demo_build()
    stab = edits.surface_of(build, "stab")
    choices = frame_choices(build, stab)
    assert (choices[0].pattern, choices[0].material) == ("zigzag", "balsa-medium")
    assert {one.pattern for one in choices[1:3]} == {"ladder", "crossed"}


# -- steps and templates -------------------------------------------------------------------------------


@fleet
def test_the_order_breaks_none_of_its_own_rules(make: Callable[[], Build]) -> None:
    build = make()
    build = plan_steps(build, frame_steps(build), FRAME_STAGE)
    build = plan_steps(build, tail_steps(build), STAGE)
    check_steps(build.steps)
    order = [step.id for step in build.steps]
    for step in build.steps:
        assert all(order.index(one) < order.index(step.id) for one in step.after if one in order)
        assert not step.no_return or because_of(step)
    assert "read" in all_before(
        build.steps, "stab seat"
    )  # the frame is read before anything is seated
    assert "stab seat" in all_before(build.steps, "fin seat")
    known = {part.id for part in parts_of(build)}
    assert {part for step in build.steps if step.stage == STAGE for part in step.parts} <= known


def test_ticks_move_the_panel_on() -> None:
    from datetime import datetime  # noqa: PLC0415  only here

    at = datetime.fromisoformat("2026-11-25T20:00:00")
    build = plan_steps(demo_build(), tail_steps(demo_build()), STAGE)
    build = build.but(ledger=build.listed.but(states={}))
    for step, state in (("stab cut", "cleaned"), ("stab pin", "dry-fitted")):
        build = tick(build, step, at)
        assert build.listed.states["stab_half"] == state


@fleet
def test_templates_hold_every_piece_and_the_outline(make: Callable[[], Build]) -> None:
    build = make()
    files = tail_files(build, "A4", "mm")
    names = set(files)
    if tail_pieces(build):
        assert files["tail-templates-A4.pdf"].startswith(b"%PDF")
        assert "tail-dxf/sheet-1" in " ".join(sorted(names))
    rows = files["tail-cut-list.csv"].decode().splitlines()
    assert len(rows) > len(tail_cut_list(build))
    assert sum(name.endswith(".svg") for name in names) == sum(
        name.endswith(".dxf") for name in names
    )


def test_nothing_to_cut_is_said() -> None:
    build = demo_build()
    bare = build.but(tail=tuple(one.but(kind=None) for one in build.tail))
    with pytest.raises(BadInput, match="nothing to cut"):
        tail_files(bare, "A4", "mm")
    assert drawing.checked(build, bare).tail == bare.tail


def test_hinge_edges_are_as_high_as_the_highest_rib_there() -> None:
    """Against the loft itself, not the leading edge's stock."""
    build = marram()
    surface = next(
        one for one in build.tail if one.hinge_at_chord is not None and one.kind == "ribbed"
    )
    surface = surface.but(hinge_edge=4.0)
    high = max(thickness_at_hinge(surface, build.profiles, y) for y in rib_places(surface))
    parts = [one for one in cut_list_of_tail(surface, build.profiles) if "hinge edge" in one.name]
    assert len(parts) == 2
    assert {one.section for one in parts} == {(high, 4.0)}
    assert high != pytest.approx(frame_thickness(surface))


def test_a_bevel_is_never_told_smaller_than_it_must_be() -> None:
    build = demo_build()
    surface = next(one for one in build.tail if one.id == "stab")
    surface = surface.but(hinge_at_chord=0.7, controls=Controls(up=17.0, down=17.0, gap=0.6))
    station = hinge_stations(surface, build.profiles)[0]
    assert station.bevel_up % 1 not in (0.0, 1.0)
    said = bevel_answer(station)
    told = int("".join(ch for ch in said if ch.isdigit()))
    assert told == math.ceil(station.bevel_up)
    assert f"{told}°" in hinge_sentence(station, "mm")


def test_a_tube_is_bought_as_a_tube() -> None:
    tube = CutPart("spar", "tube", 1, (6.0, 6.0), 300.0, ((90.0,), (90.0,)), "carbon-strip")
    strip = CutPart("strip", "spar", 1, (6.0, 6.0), 300.0, ((90.0,), (90.0,)), "carbon-strip")
    bought = purchases_of((tube, strip))
    assert len(bought) == 2
    told = [purchase_sentence(one, "mm", "carbon") for one in bought]
    assert any("6.0 mm outside carbon tube" in one for one in told)
    assert any("6.0 × 6.0 mm carbon," in one for one in told)


def test_the_biplanes_struts_stand_on_a_wing_that_rises_outwards() -> None:
    build = teasel()
    lower = build.wings[0]
    upper = build.surveyed.body("upper_wing")
    assert upper is not None
    assert upper.seat is not None
    for contact in upper.seat.contacts:
        assert contact.foot is not None
        rise = abs(contact.foot[1]) * math.tan(math.radians(lower.dihedral))
        assert contact.foot[2] == pytest.approx(lower.z + rise, abs=0.2)


def test_a_fins_rudder_goes_left_and_right_and_nothing_of_it_is_mirrored() -> None:
    fin = next(one for one in demo_build().tail if one.upright)
    station = hinge_stations(fin, {})[0]
    told = hinge_sentence(station, "mm", upright=True)
    assert "the edge travels" in told
    assert " left," in told
    assert " right at the foot." in told
    assert not {"up", "down", "upper", "lower"} & set(told.replace(",", "").split())
    askew = replace(station, bevel_up=10.0, bevel_down=20.0)
    assert bevel_answer(askew, upright=True) == "Bevel 10° on the left, 20° on the right."
    assert bevel_answer(askew) == "Bevel 10° above, 20° below."
