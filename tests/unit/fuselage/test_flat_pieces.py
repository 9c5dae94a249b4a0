"""Flat pieces: what is straight is exact, arcs are known by hand, hands mirror, joints meet, nothing is broken."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.interpolate import CubicSpline

from hardkeel.airframe.framing import build_pieces, usual_framing
from hardkeel.airframe.parts import parts_of
from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.framing import frame_as_usual
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.flatwork import board_plan_of, flatwork_of, spacers_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import (
    Board,
    Bracing,
    Former,
    Framing,
    Fuselage,
    Longeron,
    Section,
    TailPost,
)
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.fuselage.sheeted import (
    REGISTER_MM,
    Side,
    blanks_of,
    corner_strips_of,
    edge_lengths_of,
)
from hardkeel.fuselage.sheeting import skins_of
from hardkeel.fuselage.standing import faces_of
from hardkeel.fuselage.sticks import free_corners_of, sticks_of
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.spline import arc_length_at
from hardkeel.joinery.flat import FlatPiece, ring_of
from hardkeel.messages.frame import edge_sentence
from hardkeel.project.model import Build
from tests.draws import draws
from tests.frames import SIDE, SKIN, box, member, random_frame

TALL = 90.0 - 2 * SKIN


def by_name(pieces: tuple[FlatPiece, ...], name: str) -> FlatPiece:
    return next(piece for piece in pieces if piece.name == name)


def bowed() -> Fuselage:
    """Sides that bend in fore and aft, of one height."""
    halves = (18.0, 30.0, 34.0, 30.0, 16.0)
    formers = tuple(
        former.but(half_width=half) for former, half in zip(box().formers, halves, strict=True)
    )
    return box().but(formers=formers)


def test_a_straight_side_is_as_long_and_tall_as_it_is_drawn() -> None:
    side = by_name(blanks_of(box()), "side")
    assert side.size == pytest.approx((400.0, TALL))
    assert (side.quantity, side.pair, side.grain) == (2, True, "u")
    assert side.area == pytest.approx(400 * TALL)
    marks = [mark for mark in side.marks if mark.role == "station"]
    assert [mark.points[0][0] for mark in marks] == pytest.approx([0, 100, 200, 300, 400])


def test_a_bent_side_is_the_spline_rolled_out() -> None:
    """Against scipy's spline and quadrature: length, and the stations apart from the drawing's."""
    fuselage = bowed()
    x = [former.station for former in fuselage.formers]
    spline = CubicSpline(x, [f.half_width for f in fuselage.formers], bc_type="natural")
    side = by_name(blanks_of(fuselage), "side")
    marks = [mark.points[0][0] for mark in side.marks if mark.role == "station"]
    wanted = [quad(lambda t: math.hypot(1.0, float(spline(t, 1))), 0, b)[0] for b in x]
    assert marks == pytest.approx(wanted, abs=1e-3)
    assert side.size[0] == pytest.approx(wanted[-1], abs=1e-3)
    assert side.size[0] > 400.0
    assert side.area == pytest.approx(wanted[-1] * TALL, rel=1e-5)


def test_a_circle_is_rolled_out_to_its_arc() -> None:
    """Half-widths on a circle of 500 mm: with close stations the spline is the circle."""
    x = np.linspace(-200, 200, 41)
    half = np.sqrt(500.0**2 - x**2) - 450.0
    formers = tuple(
        Former(id=f"F{i}", station=float(s), half_width=float(h), bottom=-20.0, top=20.0)
        for i, (s, h) in enumerate(zip(x, half, strict=True))
    )
    fuselage = Fuselage(
        side_thickness=1.0,
        formers=formers,
        sections=(Section.model_validate({"from": "F0", "to": "F40", "method": "sheet-sides"}),),
    )
    side = blanks_of(fuselage)[0]
    assert side.size[0] == pytest.approx(2 * 500.0 * math.asin(0.4), abs=0.01)


def test_places_along_the_side_rise_with_the_stations() -> None:
    loft = loft_of(bowed())
    x = np.linspace(0, 400, 173)
    s = arc_length_at((loft.half_width,), loft.stations, x)
    assert np.all(np.diff(s) >= np.diff(x) - 1e-9)
    assert s[[0, -1]] == pytest.approx([0.0, loft.developed()[-1]])


@pytest.mark.parametrize("seed", range(draws(14, 40)))
def test_every_piece_of_any_fuselage_is_closed_and_sound(seed: int) -> None:
    fuselage = random_frame(np.random.default_rng(1000 + seed))
    if fuselage is None or len(fuselage.stations) < 2:
        return
    for piece in pieces_of(fuselage):
        assert piece.polygon.is_valid, piece.name
        assert piece.area > 0
        other = piece.mirrored()
        assert other.polygon.is_valid
        assert other.area == pytest.approx(piece.area)
        assert other.bounds == pytest.approx(piece.bounds)
        again = other.mirrored()
        assert again.area == pytest.approx(piece.area)
        assert again.polygon.symmetric_difference(piece.polygon).area == pytest.approx(0, abs=1e-6)
    parts_of(Build(fuselage=fuselage))
    assert all(part.length > 0 for part in cut_list_of(fuselage))


def test_a_doubler_lies_inside_its_side_and_stops_short() -> None:
    fuselage = box(member("doubler", thickness=1.5, inset=6.0, to="F4", short=50.0))
    doubler = by_name(blanks_of(fuselage), "m")
    assert doubler.size == pytest.approx((250.0, TALL - 12.0))
    drawn = [mark for mark in by_name(blanks_of(fuselage), "side").marks if mark.role == "member"]
    assert len(drawn) == 1
    assert max(s for s, _ in drawn[0].points) == pytest.approx(250.0)


def test_keys_and_rods_go_through_side_and_doubler_at_one_place() -> None:
    fuselage = box(
        member("key", "key", height=20.0, **{"from": "F3"}),
        member("rod", "rod", station=320.0, z=10.0, diameter=6.0),
        member("doubler", "doubler", thickness=1.5, inset=6.0),
    )
    pieces = blanks_of(fuselage)
    for name in ("side", "doubler"):
        holes = by_name(pieces, name).holes
        assert len(holes) == 2
        slot = next(hole for hole in holes if len(hole) == 4)
        us, vs = sorted({round(u, 3) for u, _ in slot}), sorted({round(v, 3) for _, v in slot})
        assert us == [198.0, 202.0]
        assert vs == [-5.0, 15.0]
        ring = next(hole for hole in holes if len(hole) > 4)
        assert np.mean([p[0] for p in ring]) == pytest.approx(320.0, abs=0.01)
    former = fuselage.former("F3")
    assert former is not None
    tab = max(y for y, _ in shape_of(fuselage, former).wood[0])
    assert tab == pytest.approx(30.0)


def test_corner_strips_stop_short_of_formers_by_the_gap() -> None:
    fuselage = box(member("corner-strip", section=(6.0, 6.0), gap=0.5))
    strips = corner_strips_of(fuselage)
    assert len(strips) == 2 * 4
    # formers of 4 mm; the first's front and the last's rear face lie on their stations
    assert [s.length for s in strips if s.edge == "upper"] == pytest.approx(
        [93.0, 95.0, 95.0, 93.0]
    )
    assert faces_of(fuselage, fuselage.formers[0]) == (0.0, 4.0)
    assert faces_of(fuselage, fuselage.formers[-1]) == (396.0, 400.0)


def test_a_crutch_registers_with_its_doubler() -> None:
    fuselage = box(
        member("crutch", "crutch", width=8.0, thickness=6.0, z=5.0),
        member("doubler", "doubler", thickness=2.0, inset=6.0),
        method="crutch",
    )
    crutch = by_name(flatwork_of(fuselage), "crutch")
    half = 30.0 - SIDE - 2.0
    assert crutch.size[1] / 2 == pytest.approx(half + 2.0)  # at the tabs
    tabs = {round(x) for x, y in crutch.outline if y > half + 1}
    doubler = by_name(blanks_of(fuselage), "doubler")
    slots = {round(u) for hole in doubler.holes for u, _ in hole}
    assert tabs == slots == {96, 104, 196, 204, 296, 304}
    assert REGISTER_MM == 104 - 96
    heights = {v for hole in doubler.holes for _, v in hole}
    assert heights == {2.0, 8.0}
    sides = [piece for piece in blanks_of(fuselage) if piece.kind == "side"]
    assert [piece.name for piece in sides] == ["lower side", "upper side"]
    assert sum(piece.size[1] for piece in sides) == pytest.approx(TALL - 6.0)


def test_keel_and_formers_lap_into_each_other() -> None:
    fuselage = box(member("keel", height=12.0, thickness=3.0))
    keel = by_name(flatwork_of(fuselage), "m")
    assert keel.size == pytest.approx((400.0, 12.0))
    # five slots of a former's thickness, half the keel deep
    assert keel.area == pytest.approx(400 * 12 - 5 * 4 * 6)
    former = shape_of(fuselage, fuselage.formers[2])
    notch = max(z for y, z in former.wood[0] if abs(y) <= 1.5)
    slot = min(z for x, z in keel.outline if 198 <= x <= 202)
    assert notch == pytest.approx(slot)


def test_a_plate_lies_between_the_faces_of_its_formers() -> None:
    fuselage = box(member("servo-tray", thickness=2.0, **{"from": "F2", "to": "F3"}))
    tray = by_name(flatwork_of(fuselage), "m")
    assert tray.size == pytest.approx((96.0, 54.0))
    narrow = box(member("servo-tray", thickness=2.0, width=20.0, **{"from": "F2", "to": "F3"}))
    assert by_name(flatwork_of(narrow), "m").size == pytest.approx((96.0, 20.0))


def test_a_hatch_frame_and_its_twin_are_the_former_cut_at_the_sill() -> None:
    fuselage = box(member("hatch-frame", station=150.0, thickness=3.0, z=10.0))
    glued, twin = flatwork_of(fuselage)
    assert (glued.name, twin.name) == ("m, glued", "m, on the hatch")
    assert glued.size == pytest.approx((54.0, 48.5))
    assert twin.size == pytest.approx((54.0, 38.5))


def test_spacers_are_as_high_as_each_former_stands() -> None:
    fuselage = box().but(board=Board(z=-60.0))
    spacers = spacers_of(fuselage)
    assert [piece.name for piece in spacers] == [f"spacer F{i}" for i in range(1, 6)]
    assert all(piece.size[1] == pytest.approx(20.0 + SKIN) for piece in spacers)
    over = box().but(board=Board(z=80.0, inverted=True))
    assert spacers_of(over)[0].size[1] == pytest.approx(80 - 50 + SKIN)


def test_the_boards_plan_shows_stations_and_turns_over_when_inverted() -> None:
    wire = member("wire", "wire", y=10.0, diameter=2.0, to="F3")
    for inverted in (False, True):
        plan = board_plan_of(box(wire).but(board=Board(z=90.0, inverted=inverted)))
        assert plan is not None
        names = [mark.text for mark in plan.marks if mark.role == "station"]
        assert names == ["F1", "F2", "F3", "F4", "F5"]
        wires = [mark.points[0][1] for mark in plan.marks if mark.text == "wire"]
        assert wires == ([10.0, -10.0] if inverted else [-10.0, 10.0])
    assert board_plan_of(box()) is None


@pytest.mark.parametrize("grain", ["across", "along"])
def test_sheeting_panels_lie_edge_to_edge_and_cover_the_skin(grain: str) -> None:
    fuselage = bowed().but(framing=box().framed.but(sheeting=grain))
    for skin in skins_of(fuselage):
        assert sum(panel.area for panel in skin.panels) == pytest.approx(
            quad(lambda t: 2 * float(loft_of(fuselage).half_width.value(t)), 0, 400)[0], rel=1e-4
        )
        long, wide = fuselage.framed.sheet
        limits = (wide, long) if grain == "across" else (long, wide)
        for panel in skin.panels:
            assert panel.size[0] <= limits[0] + 1e-6
            assert panel.size[1] <= limits[1] + 1e-6
            assert panel.grain == ("v" if grain == "across" else "u")
        for i, one in enumerate(skin.panels):
            for other in skin.panels[i + 1 :]:
                assert one.polygon.intersection(other.polygon).area == pytest.approx(0, abs=1e-6)


def test_sheeting_along_a_bent_top_is_longer_than_the_drawing() -> None:
    formers = tuple(
        former.but(top=top) for former, top in zip(box().formers, (20, 45, 50, 40, 15), strict=True)
    )
    top, bottom = skins_of(box().but(formers=formers))
    assert top.length > bottom.length == pytest.approx(400.0)


def test_round_corners_are_sheeted_round() -> None:
    """Sides and sheeting together are the girth of the section."""
    formers = tuple(former.but(corner=12.0) for former in box().formers)
    fuselage = box().but(formers=formers)
    side = by_name(blanks_of(fuselage), "side").size[1]
    top, bottom = skins_of(fuselage)
    girth = 2 * (90 - 24) + 2 * (60 - 24) + 2 * math.pi * 12
    assert 2 * side + top.widest + bottom.widest == pytest.approx(girth, abs=0.01)


def test_edges_of_one_length_say_nothing_and_others_are_named_with_the_millimetres() -> None:
    assert edge_lengths_of(bowed()) == ()
    # narrow at the top in the middle: the lower edge bends more
    narrow = tuple(
        (y * 0.5 if z > 0 else y, z) for y, z in ((-34, -40), (34, -40), (34, 50), (-34, 50))
    )
    formers = list(bowed().formers)
    formers[2] = formers[2].but(outline=narrow)
    found = edge_lengths_of(bowed().but(formers=tuple(formers)))
    assert len(found) == 1
    assert found[0].differ == pytest.approx(found[0].top - found[0].bottom)
    assert abs(found[0].differ) > 0.3
    assert "F1 to F5" in edge_sentence(found[0], "mm")


def test_wings_are_drawn_on_the_side_where_they_sit() -> None:
    build = demo_build()
    side = by_name(build_pieces(build), "side")
    seats = [mark for mark in side.marks if mark.role == "seat"]
    wing = build.wings[0]
    assert build.fuselage is not None
    lie = Side(build.fuselage)
    assert seats == [] or seats[0].points[0][0] == pytest.approx(
        float(lie.along(np.array([wing.le_x]))[0])
    )
    low = build.but(wings=(wing.but(z=0.0, incidence=3.0, root_chord=150.0, le_x=190.0),))
    (seat,) = [m for m in by_name(build_pieces(low), "side").marks if m.role == "seat"]
    (s0, z0), (s1, z1) = seat.points
    assert z0 + z1 == pytest.approx(0.0)  # about the middle of the root
    assert math.degrees(math.atan((z0 - z1) / (s1 - s0))) == pytest.approx(3.0, abs=0.01)


def test_an_outline_that_crosses_itself_leaves_its_largest_part() -> None:
    bow_tie = ring_of([(0, 0), (10, 10), (10, 0), (0, 4)])
    assert len(bow_tie) == 3
    assert ring_of([(0, 0), (1, 0), (0.5, 0)]) == ()


@pytest.mark.parametrize("starter", [one.id for one in STARTERS])
def test_every_starter_is_framed_as_usual_with_one_click(starter: str) -> None:
    build = frame_as_usual(start_from(starter, 1000.0, 1000.0 * 0.8))
    assert build.fuselage is not None
    members = build.fuselage.framed.members
    assert members
    assert {piece.kind for piece in build_pieces(build)} >= {"former"}
    again = frame_as_usual(build)
    assert again == build  # what is there already is left alone
    assert usual_framing(build).members == members


@pytest.mark.parametrize("demo", [one.name for one in DEMOS])
def test_demos_are_of_every_kind_and_sound_but_for_what_they_show(demo: str) -> None:
    build = next(one.make() for one in DEMOS if one.name == demo)
    assert build.name == demo
    assert build.fuselage is not None
    pieces = build_pieces(build)
    assert all(piece.polygon.is_valid for piece in pieces)
    kinds = {piece.kind for piece in pieces}
    assert kinds & {"crutch", "keel", "doubler"}


def test_parts_weigh_what_their_outlines_have() -> None:
    build = Build(fuselage=box(member("doubler", "doubler", thickness=2.0, inset=6.0)))
    part = next(one for one in parts_of(build) if one.id == "doubler")
    assert part.volume_mm3 == pytest.approx(400 * (TALL - 12) * 2.0)
    assert part.pieces == 2
    assert not [one for one in parts_of(build) if one.id == "doubler_F1_F5"]
    bare = Build(fuselage=box())
    assert [
        one for one in parts_of(bare) if one.id == "doubler_F1_F5"
    ]  # guessed where none is drawn


def test_a_tail_post_is_the_last_mark_of_a_side() -> None:
    fuselage = box().but(
        tail_post=TailPost(station=500.0, bottom=-10.0, top=20.0, half_width=5.0),
        sections=(
            Section.model_validate({"from": "F1", "to": "tail_post", "method": "sheet-sides"}),
        ),
    )
    side = blanks_of(fuselage)[0]
    assert [mark.text for mark in side.marks if mark.role == "station"][-1] == "tail_post"
    assert replace(side, marks=()).area == side.area


def framed_of_sticks(pattern: str, *members: object) -> Fuselage:
    """A straight box of sticks that gets lower aft: the lower longeron rises by a tenth."""
    formers = tuple(
        Former(id=f"F{i + 1}", station=100.0 * i, half_width=30.0, bottom=-40.0 + 10 * i, top=50.0)
        for i in range(4)
    )
    return Fuselage(
        side_thickness=0.0,
        formers=formers,
        sections=(Section.model_validate({"from": "F1", "to": "F4", "method": "stick-sides"}),),
        longerons=(
            Longeron(id="upper", section=(5.0, 5.0)),
            Longeron(id="lower", section=(5.0, 5.0)),
        ),
        bracing=Bracing(upright=(5.0, 5.0), diagonal=(5.0, 5.0), pattern=pattern),  # type: ignore[arg-type]
        framing=Framing(members=members),  # type: ignore[arg-type]
    )


@pytest.mark.parametrize(("pattern", "count"), [("none", 12), ("zigzag", 6), ("crossed", 0)])
def test_gussets_lie_in_corners_where_no_diagonal_ends(pattern: str, count: int) -> None:
    gusset = member("gusset", width=12.0, thickness=1.5)
    fuselage = framed_of_sticks(pattern, gusset)
    pieces = [piece for piece in pieces_of(fuselage) if piece.kind == "gusset"]
    assert len(pieces) == count
    corners = free_corners_of(fuselage)
    assert len(corners) == count
    sticks = [shapely.Polygon(one.outline) for one in sticks_of(fuselage) if one.kind == "diagonal"]
    for corner, piece in zip(corners, pieces, strict=True):
        assert (piece.quantity, piece.pair) == (2, True)
        assert all(stick.distance(shapely.Point(corner.at)) > 1 for stick in sticks)
        # the lower longeron rises by a tenth, the upper lies level
        tilt = math.degrees(math.atan(0.1))
        lower = corner.at[1] < 20
        front = corner.at[0] < next(x for x in (100, 200, 300) if x > corner.at[0]) - 50
        wanted = 90.0 if not lower else 90 - tilt if front else 90 + tilt
        assert corner.angle == pytest.approx(wanted)
        half = 12 * 12 * math.sin(math.radians(corner.angle)) / 2
        assert piece.area == pytest.approx(half, rel=1e-4)


def test_a_hollow_gusset_has_less_wood_and_the_same_legs() -> None:
    straight = member("gusset", width=12.0, thickness=1.5)
    hollow = straight.but(curved=True)
    one, other = (
        next(p for p in pieces_of(framed_of_sticks("none", gusset)) if p.kind == "gusset" and p.size[0] == pytest.approx(12.0, abs=0.3))
        for gusset in (straight, hollow)
    )  # fmt: skip
    assert other.area < one.area
    assert other.size == pytest.approx(one.size, abs=0.01)
    # a square corner less the quarter circle: leg² (1 − π/4)
    upper = [p for p in pieces_of(framed_of_sticks("none", hollow)) if p.kind == "gusset"]
    squares = [p.area for p in upper if p.area == pytest.approx(144 * (1 - math.pi / 4), rel=1e-2)]
    assert len(squares) == 6
    part = next(
        p for p in parts_of(Build(fuselage=framed_of_sticks("none", hollow))) if p.id == "m"
    )
    assert part.pieces == 24
    assert part.volume_mm3 * part.pieces == pytest.approx(2 * 1.5 * sum(p.area for p in upper))
