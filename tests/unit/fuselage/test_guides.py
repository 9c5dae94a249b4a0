"""Guides, servo openings, straps, bolts, a tail bracket: against brute force on points and hand reckoning."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.edits.framing import (
    add_member,
    add_place,
    set_member,
    set_place,
    take_place,
    usual_ends,
)
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.flatwork import plate_pieces
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import Former, Fuselage, Longeron, Member, Section
from hardkeel.fuselage.routing import exits_of, met_by, places_of, way_of
from hardkeel.fuselage.sheeted import Side
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.messages.findings import finding_sentence, finding_title
from hardkeel.messages.guides import way_words
from hardkeel.project.model import Build
from tests.draws import draws


def box(**more: object) -> Fuselage:
    """Straight and square: 60 wide, 80 high, sides 3 thick, formers 3 thick every 100 mm."""
    formers = tuple(
        Former(
            id=f"F{i + 1}",
            station=100.0 * i,
            bottom=-40.0,
            top=40.0,
            half_width=30.0,
            thickness=3.0,
        )
        for i in range(6)
    )
    return Fuselage.model_validate(
        {
            "formers": formers,
            "side_thickness": 3.0,
            "sections": (
                Section.model_validate({"from": "F1", "to": "F6", "method": "sheet-sides"}),
            ),
            **more,
        }
    )


def guide(*route: tuple[float, float, float], **more: object) -> Member:
    return Member.model_validate(
        {"id": "guide", "kind": "guide", "diameter": 3.0, "route": route, **more}
    )


def framed(*members: Member, **more: object) -> Fuselage:
    return box(framing={"members": members}, **more)


def through(fuselage: Fuselage, name: str) -> BaseGeometry:
    """What a former's wood lacks of the whole rectangle, as one shape."""
    former = fuselage.former(name)
    assert former is not None
    rings = shape_of(fuselage, former).pieces
    wood = shapely.union_all([shapely.Polygon(one[0], one[1:]) for one in rings])
    return shapely.box(*wood.bounds).difference(wood)


# -- the way ------------------------------------------------------------------------------------------


@given(
    st.lists(
        st.tuples(st.floats(40, 160), st.floats(-20, 20), st.floats(-30, 30)),
        min_size=2,
        max_size=6,
    )
)
@settings(max_examples=draws(40, 400), deadline=None)
def test_a_way_is_as_long_and_as_bent_as_its_points_say(
    steps: list[tuple[float, float, float]],
) -> None:
    """Length by summing chords, the tightest radius by circles through three points, the turn by summing angles."""
    x = np.cumsum([one[0] for one in steps])
    member = guide(*((float(a), b, c) for a, (_, b, c) in zip(x, steps, strict=True)))
    way = way_of(member)
    points = places_of(member)
    chords = np.diff(points, axis=0)
    lengths = np.linalg.norm(chords, axis=1)
    assert way.length == pytest.approx(lengths.sum(), rel=2e-3)
    units = chords / lengths[:, None]
    cos = np.clip(np.sum(units[1:] * units[:-1], axis=1), -1, 1)
    assert way.turn == pytest.approx(math.degrees(np.arccos(cos).sum()), rel=0.02, abs=0.05)
    a, b, c = points[:-2], points[1:-1], points[2:]
    sides = [np.linalg.norm(p - q, axis=1) for p, q in ((a, b), (b, c), (a, c))]
    area = np.linalg.norm(np.cross(b - a, c - a), axis=1) / 2
    with np.errstate(divide="ignore"):
        radii = sides[0] * sides[1] * sides[2] / (4 * area)
    if math.isfinite(way.radius) and way.radius < 1e4:
        assert way.radius == pytest.approx(float(radii.min()), rel=0.06)
    assert way.pull == pytest.approx(math.exp(0.2 * math.radians(way.turn)))


def test_two_places_make_a_straight_one() -> None:
    way = way_of(guide((0, 0, 0), (300, 0, 40), id="straight"))
    assert way.length == pytest.approx(math.hypot(300, 40))
    assert math.isinf(way.radius)
    assert way.turn == pytest.approx(0.0, abs=1e-9)
    assert "straight" in way_words(way, (), "mm")


def test_a_former_has_its_hole_where_the_guide_passes_drawn_out_by_its_slant() -> None:
    fuselage = framed(guide((50, -10, 0), (450, 10, 20)))
    for name, station in (("F2", 100.0), ("F3", 200.0), ("F5", 400.0)):
        hole = through(fuselage, name)
        assert hole.geom_type == "Polygon"
        share = (station - 50) / 400
        assert hole.centroid.x == pytest.approx(-10 + 20 * share, abs=1e-3)
        assert hole.centroid.y == pytest.approx(20 * share, abs=1e-3)
        # a round tube that comes through 3 mm of wood aslant, sampled at both faces
        for face in (-1.5, 1.5):
            middle = (-10 + 20 * (station + face - 50) / 400, 20 * (station + face - 50) / 400)
            tube = shapely.Point(middle).buffer(1.49)
            assert hole.buffer(1e-3).contains(tube)
    assert through(fuselage, "F1").is_empty, "before it begins"
    assert through(fuselage, "F6").is_empty


def test_it_comes_out_where_it_crosses_the_side_with_a_slot_as_long_as_its_angle_makes_it() -> None:
    fuselage = framed(guide((100, 0, 5), (400, 60, 5)))
    (out,) = exits_of(fuselage, fuselage.framed.members[0])
    assert out.face == "starboard"
    assert out.place[0] == pytest.approx(100 + 300 * 27 / 60, abs=0.5)  # inner half width 27
    assert out.place[1] == pytest.approx(27, abs=0.1)
    angle = math.atan2(60, 300)
    assert out.slot == pytest.approx(3.0 / math.sin(angle), rel=0.01)
    up = framed(guide((100, 0, 0), (300, 0, 70)))
    (top,) = exits_of(up, up.framed.members[0])
    assert top.face == "top"
    assert top.slot == pytest.approx(3.0 / math.sin(math.atan2(70, 200)), rel=0.01)
    inside = framed(guide((100, 0, 0), (300, 5, 5)))
    assert exits_of(inside, inside.framed.members[0]) == ()
    assert "starboard" in way_words(way_of(fuselage.framed.members[0]), (out,), "mm")


def test_what_it_runs_into_is_named_and_what_it_passes_is_not() -> None:
    upper = Longeron(id="upper", section=(6.0, 6.0))
    low = guide((50, 24, 10), (450, 24, 10))
    assert met_by(framed(low, longerons=(upper,)), low) == ()
    rising = guide((50, 24, 0), (450, 24, 40))
    fuselage = framed(rising, longerons=(upper,))
    ((ref, station),) = met_by(fuselage, rising)
    assert ref == "longeron_upper"
    # the longeron's middle lies at (24, 37): met when within 3 + 1.5 of it
    assert station == pytest.approx(50 + (37 - 4.5) * 10, abs=2)
    told = [one for one in findings_of(fuselage) if one.kind == "caught"]
    assert [one.former for one in told] == ["F4"]
    assert "upper longeron" in finding_title(told[0])
    assert "376" in finding_sentence(told[0], "mm", 3.0)


def test_two_guides_and_a_tray_are_met_too() -> None:
    first = guide((50, -10, 0), (450, 10, 0), id="rudder")
    second = guide((50, 10, 0), (450, -10, 0), id="elevator")
    tray = Member.model_validate(
        {"id": "tray", "kind": "servo-tray", "from": "F3", "to": "F5", "thickness": 2.0, "z": 0.0}
    )
    fuselage = framed(first, second, tray)
    met = dict(met_by(fuselage, first))
    assert met["elevator"] == pytest.approx(250 - 3 / 2 / (20 / 400), abs=2)
    assert met["tray"] == pytest.approx(200, abs=2)
    over = guide((50, -10, 4), (450, 10, 4), id="rudder")
    assert met_by(framed(over, tray), over) == ()


@pytest.mark.parametrize(
    ("route", "told"),
    [
        (((0, 0, 0),), "needs two places"),
        (((100, 0, 0), (100, 5, 0)), "does not lie behind"),
        (((100, 0, 0), (300, 5, 0), (200, 0, 0)), r"route\[2\]: does not lie behind"),
    ],
)
def test_a_way_that_is_none_is_refused_with_its_place(
    route: tuple[tuple[float, float, float], ...], told: str
) -> None:
    with pytest.raises(BadInput, match=told):
        check_fuselage(framed(guide(*route)))


def test_places_come_and_go_and_a_new_one_bends_nothing() -> None:
    build = add_member(Build(fuselage=box()), "guide", "F2", "F5")
    assert build.fuselage is not None
    (made,) = build.fuselage.framed.members
    assert len(exits_of(build.fuselage, made)) == 1, "a new one comes out at its end"
    more = add_place(build, made.id)
    assert more.fuselage is not None
    (bent,) = more.fuselage.framed.members
    assert len(bent.route) == 3
    assert way_of(bent).length == pytest.approx(way_of(made).length, rel=1e-6)
    moved = set_place(more, made.id, 1, 2, 15.0)
    assert moved.fuselage is not None
    assert moved.fuselage.framed.members[0].route[1][2] == 15.0
    fewer = take_place(moved, made.id)
    assert fewer.fuselage is not None
    assert fewer.fuselage.framed.members[0].route == made.route
    with pytest.raises(BadInput, match="nothing but its ends"):
        take_place(fewer, made.id)
    with pytest.raises(BadInput, match="behind"):
        set_place(more, made.id, 1, 0, 5000.0)


# -- openings, bolts, a bracket -----------------------------------------------------------------------


def tray(**more: object) -> Member:
    return Member.model_validate(
        {"id": "tray", "kind": "servo-tray", "from": "F2", "to": "F4", "thickness": 2.0, **more}
    )


def servo(**more: object) -> Member:
    figures = {
        "id": "servo",
        "kind": "servo",
        "station": 200.0,
        "width": 12.0,
        "height": 23.0,
        "diameter": 1.2,
    }
    return Member.model_validate({**figures, **more})


def test_a_servo_is_cut_in_its_tray_with_its_pilot_holes() -> None:
    fuselage = framed(tray(), servo(y=8.0))
    (piece,) = plate_pieces(Side(fuselage), fuselage.framed.members[0])
    opening, *pilots = (shapely.Polygon(ring) for ring in piece.holes)
    assert opening.bounds == pytest.approx((188.5, 2.0, 211.5, 14.0))
    assert [one.centroid.coords[0] for one in pilots] == [
        pytest.approx((186.0, 8.0)),
        pytest.approx((214.0, 8.0)),
    ]
    assert pilots[0].area == pytest.approx(math.pi * 0.36, rel=0.02)
    wide = framed(tray(), servo(width=20.0, height=40.0))
    (piece,) = plate_pieces(Side(wide), wide.framed.members[0])
    assert len(piece.holes) == 5, "a standard servo has four screws"


def test_one_without_a_tray_or_over_its_edge_is_told() -> None:
    assert not [one for one in findings_of(framed(tray(), servo())) if one.kind == "unseated"]
    for members, other in (
        ((servo(),), ""),
        ((tray(), servo(y=24.0)), "tray"),
        ((tray(), servo(station=104.0)), "tray"),
        ((tray(), servo(station=450.0)), ""),
    ):
        (one,) = [one for one in findings_of(framed(*members)) if one.kind == "unseated"]
        assert one.other == other
        assert "servo" in finding_title(one)
        assert finding_sentence(one, "in", 3.0)


def test_a_strap_has_a_slot_on_each_side_in_the_tray_nearest_in_height() -> None:
    strap = Member.model_validate(
        {
            "id": "strap",
            "kind": "strap",
            "station": 250.0,
            "width": 20.0,
            "thickness": 3.0,
            "y": 22.0,
            "z": -19.0,
        }
    )
    pack = tray(id="pack tray", kind="battery-tray", z=-20.0)
    fuselage = framed(tray(z=10.0), pack, strap)
    high, low = (
        next(iter(plate_pieces(Side(fuselage), one))) for one in fuselage.framed.members[:2]
    )
    assert high.holes == ()
    assert [shapely.Polygon(ring).bounds for ring in low.holes] == [
        pytest.approx((240.0, -23.5, 260.0, -20.5)),
        pytest.approx((240.0, 20.5, 260.0, 23.5)),
    ]


def test_bolts_are_holes_of_their_former_on_both_sides() -> None:
    bolts = Member.model_validate(
        {"id": "mount", "kind": "bolt", "from": "F1", "diameter": 4.0, "y": 20.0, "z": 15.0}
    )
    fuselage = framed(bolts)
    holes = through(fuselage, "F1")
    centres = sorted(one.centroid.coords[0] for one in holes.geoms)
    assert centres == [pytest.approx((-20.0, 15.0)), pytest.approx((20.0, 15.0))]
    assert through(fuselage, "F2").is_empty
    far = framed(set_member(Build(fuselage=fuselage), "mount", y=26.0).fuselage.framed.members[0])  # type: ignore[union-attr]
    assert any(one.kind in ("thin", "opened") and one.former == "F1" for one in findings_of(far))


def test_holes_of_a_guide_too_near_an_edge_are_told_like_any_other() -> None:
    near = framed(guide((50, 24, 0), (450, 24, 0)))
    told = [one for one in findings_of(near) if one.kind == "thin"]
    assert [one.former for one in told] == ["F2", "F3", "F4", "F5"]
    assert all(b.former >= a.former for a, b in pairwise(told))


@pytest.mark.parametrize(
    ("figures", "lacking"),
    [
        ({"station": 450.0, "width": 14.0, "height": 30.0}, None),
        ({"station": 450.0, "width": 60.0, "height": 30.0}, 6.0),  # 54 between the sides
        ({"station": 490.0, "width": 14.0, "height": 30.0}, 5.0),  # 5 past the last former
    ],
)
def test_a_bracket_wants_room_at_the_post(figures: dict[str, float], lacking: float | None) -> None:
    bracket = Member.model_validate(
        {"id": "skid", "kind": "tail-bracket", "thickness": 3.0, **figures}
    )
    told = [one for one in findings_of(framed(bracket)) if one.kind == "wide"]
    assert [one.figure for one in told] == ([] if lacking is None else [pytest.approx(lacking)])
    for one in told:
        assert "room" in finding_title(one)
        assert "lacking" in finding_sentence(one, "mm", 3.0)


def test_new_ones_go_where_they_are_likely_to() -> None:
    build = add_member(Build(fuselage=box()), "servo-tray", "F3", "F5")
    build = set_member(build, "servo tray", z=-12.0)
    assert build.fuselage is not None
    assert usual_ends(build.fuselage, "servo") == ("F3", "F5")
    build = add_member(build, "servo", *usual_ends(build.fuselage, "servo"))
    assert build.fuselage is not None
    made = build.fuselage.framed.members[-1]
    assert made.z == -12.0, "in its tray"
    assert not [one for one in findings_of(build.fuselage) if one.kind == "unseated"]
    assert usual_ends(build.fuselage, "guide") == ("F3", "F5")
    assert usual_ends(build.fuselage, "tail-bracket") == ("F5", "F6")
    assert usual_ends(build.fuselage, "keel") == ("F1", "F3")
