"""The skin between formers: a second way's contours, girth and area; shapes that meet; edges that stay."""

import json
from pathlib import Path

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.cli.commands import run_command
from hardkeel.fuselage.contours import (
    area_of,
    contour_of,
    girth_of,
    radius_of,
    rise_of,
    shoulder_of,
    widest_of,
)
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.inside import blank_of
from hardkeel.fuselage.loft import former_at, loft_of
from hardkeel.fuselage.model import Former, Fuselage, Section, SectionShape, TailPost
from hardkeel.fuselage.sheeted import blanks_of
from hardkeel.fuselage.sheeting import skins_of, strained_skins_of
from hardkeel.fuselage.surface import half_width_at, moved_in, surface_of
from hardkeel.fuselage.wrapping import wrap_of
from hardkeel.messages.frame import strained_sentence
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of
from tests import sections_independent as sections
from tests import surface_independent as second

OVAL = SectionShape()


def former(
    name: str, station: float, half: float, low: float, high: float, **more: object
) -> Former:
    return Former(id=name, station=station, bottom=low, top=high, half_width=half).but(**more)


ROUNDS = (
    (0.0, 30.0, -30.0, 30.0, 0.0, 2.0, 2.0),
    (90.0, 44.0, -48.0, 46.0, 2.0, 2.4, 2.1),
    (320.0, 52.0, -55.0, 60.0, 4.0, 3.0, 2.5),
    (620.0, 33.0, -25.0, 52.0, 12.0, 2.2, 2.0),
    (900.0, 11.0, 2.0, 38.0, 20.0, 1.6, 2.0),
)


def rounded() -> Fuselage:
    return Fuselage(
        formers=tuple(
            former(
                f"F{i}", x, half, low, high, section=SectionShape(widest=widest, top=n, bottom=m)
            )
            for i, (x, half, low, high, widest, n, m) in enumerate(ROUNDS, start=1)
        )
    )


def test_between_formers_the_skin_is_the_second_ways() -> None:
    halves = [
        second.by_share(
            sections.points(half, low, high, widest, n, m),
            (
                widest - (widest - low) * 0.5 ** (1 / m),
                widest,
                widest + (high - widest) * 0.5 ** (1 / n),
            ),
        )
        for _, half, low, high, widest, n, m in ROUNDS
    ]
    other = second.between(np.array([one[0] for one in ROUNDS]), halves)
    surface = surface_of(rounded())
    for x in (0.0, 41.0, 200.0, 455.5, 760.0, 900.0):
        at, dense = np.array([x]), other(x)
        assert surface.girth(at)[0] == pytest.approx(second.girth(dense), rel=1e-4)
        assert surface.area(at)[0] == pytest.approx(second.area(dense), rel=3e-4)
        walked = shapely.LineString(surface.half(at)[0])
        off = max(walked.distance(shapely.Point(*point)) for point in dense[::25])
        assert off < 0.01


def test_its_keel_crown_and_widest_lines_are_the_lofts() -> None:
    fuselage = rounded()
    loft, x = loft_of(fuselage), np.linspace(0, 900, 37)
    half = surface_of(fuselage).half(x)
    assert np.allclose(half[:, 0, 1], loft.bottom.value(x), atol=1e-9)
    assert np.allclose(half[:, -1, 1], loft.top.value(x), atol=1e-9)
    assert np.allclose(half[..., 0].max(axis=1), loft.half_width.value(x), atol=1e-6)


kinds = st.sampled_from(
    [
        {},
        {"corner": 6.0},
        {"section": OVAL},
        {"section": SectionShape(top=6.0, bottom=1.4)},
        {"section": SectionShape(kind="flat-sides", deck=14.0, belly=0.0)},
        {"section": SectionShape(kind="flat-sides", deck=30.0, belly=8.0)},
        {"outline": ((-20, -20), (20, -20), (26, 5), (0, 30), (-26, 5))},
    ]
)


@given(st.lists(kinds, min_size=2, max_size=6))
def test_whatever_meets_the_skin_passes_through_every_contour(
    shapes: list[dict[str, object]],
) -> None:
    formers = tuple(
        former(f"F{i}", 100.0 * i, 24.0 + 4 * (i % 3), -22.0 - i, 30.0 + i, **shape)
        for i, shape in enumerate(shapes)
    )
    surface = surface_of(Fuselage(formers=formers, tail_post=TailPost(
        station=900, bottom=-5, top=20, half_width=4)))  # fmt: skip
    at = np.array([one.station for one in formers])
    assert surface.girth(at) == pytest.approx([girth_of(one) for one in formers], rel=2e-4)
    assert surface.area(at) == pytest.approx([area_of(one) for one in formers], rel=2e-4)
    assert float(surface.half(np.array([900.0]))[0, :, 0].max()) == pytest.approx(4.0)


@given(kinds, kinds, st.floats(110, 190))
def test_a_former_put_between_others_lies_on_the_skin_where_its_figures_can(
    one: dict[str, object], other: dict[str, object], station: float
) -> None:
    a = former("F1", 100.0, 30.0, -30.0, 40.0, **one)
    b = former("F2", 200.0, 26.0, -24.0, 34.0, **other)
    fuselage = Fuselage(formers=(former("F0", 0, 20, -20, 30), a, b, former("F3", 300, 12, -8, 24)))
    made = former_at(fuselage, station, "new")
    figures = loft_of(fuselage).figures(station)
    ring = np.array(contour_of(made))
    assert np.ptp(ring[:, 1]) == pytest.approx(figures["top"] - figures["bottom"], abs=0.01)
    if made.outline:  # taken from the skin itself
        surface = surface_of(fuselage)
        assert area_of(made) == pytest.approx(surface.area(np.array([station]))[0], rel=2e-3)
    if set(one) == set(other) == {"section"} and one["section"] == other["section"]:
        assert made.section is not None


@given(st.floats(10, 80), st.floats(1, 80), st.floats(0, 60), st.floats(0.5, 4))
def test_flat_sides_carry_an_arc_of_their_own_radius(
    half: float, deck: float, belly: float, skin: float
) -> None:
    one = former("F1", 0, half, -60, 60, section=SectionShape(
        kind="flat-sides", deck=min(deck, 119 - belly), belly=belly))  # fmt: skip
    shape = shapely.Polygon(contour_of(one))
    assert shape.bounds == pytest.approx((-half, -60, half, 60))
    edge = shoulder_of(one, above=True)
    rise = 60 - edge[1]
    radius = radius_of(half, rise)
    if radius is not None:
        assert rise_of(half, radius) == pytest.approx(rise, abs=1e-6)
        centre = 60 - radius
        ring = [p for p in contour_of(one) if p[1] > edge[1] + 0.01]
        assert [np.hypot(y, z - centre) for y, z in ring] == pytest.approx([radius] * len(ring))
    fuselage = Fuselage(formers=(one,), side_thickness=skin, top_skin=skin, bottom_skin=skin)
    inner, expected = shapely.Polygon(blank_of(fuselage, one)), shape.buffer(-skin, quad_segs=32)
    assert inner.symmetric_difference(expected).area < 0.004 * shape.length + 0.5 * skin**2


def test_a_hand_moves_the_edge_of_a_deck() -> None:
    one = former("F1", 0, 30, -40, 50, section=SectionShape(kind="flat-sides", deck=10))
    moved = dragged(Fuselage(formers=(one,)), "F1", full_y=30.0, full_z=28.0).formers[0]
    assert moved.section is not None
    assert moved.section.deck == pytest.approx(22.0)
    assert widest_of(moved) == pytest.approx((-40 + 28) / 2)


def test_a_width_inside_the_skin_is_that_of_the_polygon_moved_in() -> None:
    x = np.array([41.0, 320.0, 700.0])
    half = surface_of(rounded()).half(x)
    skin = np.full(3, 2.5)
    inside = moved_in(half, skin, skin, skin)
    for row, moved in zip(half, inside, strict=True):
        shape = shapely.Polygon([*row, *(row[::-1] * (-1.0, 1.0))]).buffer(-2.5, quad_segs=32)
        for z in (-10.0, 3.0, 20.0):
            cut = shape.intersection(shapely.LineString([(0, z), (200, z)]))
            found = half_width_at(moved[None], np.array([z]))[0]
            assert found == pytest.approx(cut.length, abs=0.02)


ROUND_BUILDS = st.lists(
    st.tuples(
        st.floats(15, 60), st.floats(20, 60), st.floats(0.3, 0.7), st.floats(1.5, 8), st.floats(1.5, 8)
    ),
    min_size=3,
    max_size=6,
)  # fmt: skip


@given(ROUND_BUILDS, st.sampled_from(("superellipse", "flat-sides")))
def test_sheet_goes_all_round_whatever_the_shape(
    rows: list[tuple[float, float, float, float, float]], kind: str
) -> None:
    formers = []
    for i, (half, tall, share, n, m) in enumerate(rows):
        shape = (
            SectionShape(kind="flat-sides", deck=0.5 * share * tall, belly=0.2 * tall)
            if kind == "flat-sides"
            else SectionShape(widest=(2 * share - 1) * tall, top=n, bottom=m)
        )
        formers.append(former(f"F{i}", 130.0 * i, half, -tall, tall, section=shape))
    last = formers[-1].id
    fuselage = Fuselage(
        formers=tuple(formers),
        side_thickness=1.0,
        top_skin=1.0,
        bottom_skin=1.0,
        sections=(Section.model_validate({"from": "F0", "to": last, "method": "sheet-sides"}),),
    )
    wrap = wrap_of(fuselage)
    assert wrap is not None
    x = np.linspace(0, formers[-1].station, 23)
    at = wrap.at(x)
    round_about = 2 * (at.belly + at.beneath + at.above + at.deck)
    assert round_about == pytest.approx(surface_of(fuselage).girth(x), rel=1e-3)
    side = shapely.union_all([one.polygon for one in blanks_of(fuselage)])
    assert side.area > 0
    # what lies on the crutch's height is inside the skin
    flat = wrap.half_width(x, 0.0, 4.0)
    for row, half in zip(wrap.inside(x), flat, strict=True):
        inner = shapely.Polygon([*row, *(row[::-1] * (-1.0, 1.0))]).buffer(0.02)
        assert half == 0 or inner.contains(shapely.box(-half, -2.0, half, 2.0))


def test_a_deck_bent_one_way_lies_flat_and_one_bent_two_ways_tells_its_strain() -> None:
    def build(*shapes: tuple[float, float, float]) -> Fuselage:
        return Fuselage(
            formers=tuple(
                former(f"F{i}", 100.0 * i, half, -30.0, 30.0 + deck, section=SectionShape(
                    kind="flat-sides", deck=deck))
                for i, (half, deck, _) in enumerate(shapes)
            ),
            top_skin=1.0,
        )  # fmt: skip

    cylinder = build((30, 12, 0), (30, 12, 0), (30, 12, 0))
    barrel = build((20, 6, 0), (34, 20, 0), (20, 6, 0))
    assert skins_of(cylinder)[0].strain == pytest.approx(0.0, abs=1e-6)
    assert skins_of(barrel)[0].strain > 0.5
    assert strained_skins_of(cylinder) == ()
    (told,) = strained_skins_of(barrel)
    assert "plank it" in strained_sentence(told)


def test_the_command_tells_the_section_anywhere(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "round.json"
    path.write_text(text_of(Build(fuselage=rounded())), encoding="utf-8")
    assert run_command(["frame", str(path), "--json", "--at", "455.5"]) == 0
    told = json.loads(capsys.readouterr().out)["at"]
    ring = shapely.Polygon(told["contour"])
    assert told["girth"] == pytest.approx(ring.length, rel=1e-9)
    assert told["area"] == pytest.approx(ring.area, rel=1e-9)
    at = np.array([455.5])
    assert told["area"] == pytest.approx(surface_of(rounded()).area(at)[0])
    assert run_command(["frame", str(path), "--at", "455.5", "--inches"]) == 0
    assert "round the skin" in capsys.readouterr().out
    assert run_command(["frame", str(path), "--at", "4000"]) == 2
    assert "lies outside the fuselage" in capsys.readouterr().err


def test_outlines_of_very_many_points_are_lofted_all_the_same() -> None:
    rng = np.random.default_rng(1)
    formers = []
    for i in range(4):
        turn = np.sort(rng.uniform(0, 2 * np.pi, 3000))
        ring = tuple(zip((40 * np.cos(turn)).tolist(), (50 * np.sin(turn)).tolist(), strict=True))
        wavy = tuple((y * (1 + 0.01 * np.sin(40 * i + 9 * z)), z) for y, z in ring)
        formers.append(former(f"F{i}", 100.0 * i, 40.0, -50.0, 50.0, outline=wavy))
    surface = surface_of(Fuselage(formers=tuple(formers)))
    assert len(surface.shares) <= 2049
    at = np.array([100.0, 200.0])
    assert surface.area(at) == pytest.approx([area_of(one) for one in formers[1:3]], rel=5e-3)
