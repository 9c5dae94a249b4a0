"""Notches hold what passes them: a stick followed through both faces of its former, by brute points."""

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import CubicSpline

from hardkeel.fuselage.contours import girth_of
from hardkeel.fuselage.cutting import carve, shape_of
from hardkeel.fuselage.inside import inside_skins, ring_inside
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import (
    Former,
    Framing,
    Fuselage,
    Longeron,
    Member,
    SectionShape,
    TailPost,
)
from hardkeel.fuselage.notching import around_of
from hardkeel.fuselage.running import longeron_corner, seats_along, slanted, slopes_of
from hardkeel.fuselage.stringers import stringer_length
from hardkeel.geometry.polygons import BaseGeometry
from hardkeel.picture.framing import former_picture

FORMERS = (
    (0.0, 28.0, -30.0, 30.0),
    (80.0, 46.0, -45.0, 44.0),
    (260.0, 54.0, -52.0, 58.0),
    (480.0, 40.0, -30.0, 50.0),
    (700.0, 17.0, -4.0, 40.0),
)


def oval(*members: Member, **more: object) -> Fuselage:
    return Fuselage(
        formers=tuple(
            Former(id=f"F{i}", station=x, half_width=half, bottom=low, top=high, thickness=4.0,
                   section=SectionShape(top=2.2, bottom=2.0))
            for i, (x, half, low, high) in enumerate(FORMERS, start=1)
        ),
        tail_post=TailPost(station=820, half_width=3, bottom=8, top=34),
        framing=Framing(members=members),
    ).but(**more)  # fmt: skip


def seat_of(member: Member, inner: BaseGeometry, hand: int = 1) -> tuple[float, float] | None:
    seats = seats_along(ring_inside(inner, hand), (member,), hand)
    return (float(seats.at[0, 0]), float(seats.at[0, 1])) if seats.there[0] else None


slopes = st.floats(-0.5, 0.5)


@given(slopes, slopes, st.floats(0, np.pi), st.floats(1.5, 8), st.floats(1.5, 8), st.floats(1, 8))
def test_a_slanting_sticks_hole_holds_it_and_little_more(
    dy: float, dz: float, turn: float, deep: float, wide: float, thick: float
) -> None:
    out = np.array((np.cos(turn), np.sin(turn)))
    along = np.array((-out[1], out[0]))
    corners = np.array([a * wide / 2 * along - b * deep * out
                        for a, b in ((-1, 1), (1, 1), (1, 0), (-1, 0))])  # fmt: skip
    slope = np.array([(dy, dz)])
    (hole,) = slanted(corners[None], slope, (-thick / 2, thick / 2), np.zeros((1, 2)))
    # the stick itself: its axis, and a section square to it
    way = np.array((1.0, dy, dz)) / np.linalg.norm((1.0, dy, dz))
    middle = np.array((0.0, *corners.mean(axis=0)))
    sides = []
    for edge, size in ((along, wide), (out, deep)):
        side = np.array((0.0, *edge))
        side -= way * (side @ way)
        sides.append(size * side / np.linalg.norm(side))
    shares = np.linspace(-0.5, 0.5, 9)
    reach = np.linspace(-20, 20, 801)
    seen = []
    for a in shares:
        for b in shares:
            line = middle + a * sides[0] + b * sides[1] + reach[:, None] * way
            seen.append(line[np.abs(line[:, 0]) <= thick / 2][:, 1:])
    points = shapely.MultiPoint(np.vstack(seen))
    assert hole.buffer(1e-6).contains(points)
    room = hole.difference(points.convex_hull.buffer(0.05))
    assert room.area < 0.01


def test_sticks_run_through_their_notches_from_former_to_former() -> None:
    stringers = [
        Member(id=f"s{angle}", kind="stringer", section=(3.0, 3.0), angle=angle)
        for angle in (20.0, 60.0, 110.0, 160.0)
    ]
    fuselage = oval(*stringers, longerons=(Longeron(id="upper", section=(5, 5)),))
    for former in fuselage.formers:
        around = around_of(fuselage, former)
        passages = carve(former, around).passages
        inner = inside_skins(fuselage, former)
        assert len(passages) == 2 * len(stringers) + 2
        for passage in passages:
            assert passage.stick is not None
            assert inner.buffer(0.001).contains(passage.stick)  # inside the skin
            assert passage.shape.buffer(0.001).contains(passage.stick)
            inside = passage.shape.intersection(inner)
            room = inside.difference(passage.stick).area / passage.stick.area
            assert room < 0.9  # the slope's, the corner's way in
    assert stringer_length(fuselage, stringers[0]) == pytest.approx(700, rel=0.03)


def test_slopes_are_those_of_a_batten_through_all_places() -> None:
    member = Member(id="s", kind="stringer", section=(3.0, 3.0), angle=70.0)
    fuselage = oval(member)
    seats = [seat_of(member, inside_skins(fuselage, one)) for one in fuselage.formers]
    x = [one.station for one in fuselage.formers]
    lines = [
        CubicSpline(x, [seat[i] for seat in seats if seat is not None], bc_type="natural")
        for i in (0, 1)
    ]
    for former in fuselage.formers:
        (_, (dy, dz)), = slopes_of(fuselage)[former.id]  # fmt: skip
        wanted = [float(line(former.station, 1)) for line in lines]
        # rounded away from level, so that a notch is never too small
        for found, expected in zip((dy, dz), wanted, strict=True):
            assert 0 <= abs(found) - abs(expected) < 1 / 200


@given(st.floats(3, 177), st.sampled_from((1.2, 2.0, 3.0, 20.0)), st.booleans())
def test_a_stringer_lies_at_its_share_of_the_girth_or_at_its_angle(
    angle: float, full: float, by_girth: bool
) -> None:
    former = Former(id="F1", station=0, half_width=40, bottom=-35, top=50,
                    section=SectionShape(top=full, bottom=2.0))  # fmt: skip
    fuselage = Fuselage(formers=(former,))
    member = Member(id="s", kind="stringer", section=(0.5, 0.4), angle=angle, by_girth=by_girth)
    inner = inside_skins(fuselage, former)
    seat, other = (seat_of(member, inner, hand) for hand in (1, -1))
    assert seat is not None
    assert other is not None
    assert (other[0], other[1]) == pytest.approx((-seat[0], seat[1]))
    if by_girth:
        ring = ring_inside(inner)
        assert ring is not None
        line = shapely.LineString(ring)
        assert line.length == pytest.approx(girth_of(former) / 2, rel=1e-3)
        from_crown = line.length - line.project(shapely.Point(seat))
        assert from_crown / line.length == pytest.approx(angle / 180, abs=0.01)
    else:
        way = np.degrees(np.arctan2(seat[0], seat[1] - 7.5))
        assert way == pytest.approx(angle, abs=0.6)


@given(st.sampled_from((1.0, 1.6, 2.0, 4.0, 50.0)), st.floats(2, 9), st.booleans())
def test_a_longerons_corner_touches_the_edge_of_a_round_section(
    full: float, size: float, lower: bool
) -> None:
    former = Former(id="F1", station=0, half_width=40, bottom=-35, top=50,
                    section=SectionShape(top=full, bottom=full))  # fmt: skip
    inner = inside_skins(Fuselage(formers=(former,)), former)
    corner = longeron_corner(
        Longeron(id="lower" if lower else "upper", section=(size, size)), inner
    )
    assert corner is not None
    assert inner.exterior.distance(shapely.Point(corner)) < 1e-6
    assert (corner[1] < 7.5) is lower


def test_scallops_leave_wood_beside_stringers_and_touch_no_covering_between() -> None:
    stringers = tuple(
        Member(id=f"s{i}", kind="stringer", section=(3.0, 3.0), angle=i * 22.5, by_girth=True)
        for i in range(9)
    )
    plain = oval(*stringers)
    hollow = plain.but(framing=plain.framed.but(scallop=1.5))
    assert [one for one in findings_of(hollow) if not one.ref or not one.other] == [
        one for one in findings_of(plain) if not one.ref or not one.other
    ]
    for one in hollow.formers:
        assert former_picture(hollow, one).shapes
    former = plain.formers[2]
    whole, cut = (shape_of(one, former) for one in (plain, hollow))
    lost = whole.area - cut.area
    girth = girth_of(former)
    # a half sine wave of 1.5 mm over what is free between the stringers
    free = girth - 16 * (3 + 2 * 1.5)
    assert lost == pytest.approx(2 / np.pi * 1.5 * free, rel=0.03)
