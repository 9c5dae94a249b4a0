"""Ribbed tails: the loft against a second way, notches on straight lines, what is taken off exactly."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.geometry.polygons import shapely
from hardkeel.tail.lofting import even_ribs, loft_of_tail
from hardkeel.tail.model import Controls, TailSpar, TailSurface, Tip, Tube
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import cut_ribs, rib_pieces
from tests.draws import draws
from tests.tail_independent import Ribbed, distance_to_ring, halves_of, loop_of

sizes = st.floats(60, 220)


def bump(
    high: float, low: float, at: float, points: int
) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
    """A made-up section of few or many points."""
    xs = [(1 - math.cos(math.pi * i / points)) / 2 for i in range(points + 1)]
    shape = [math.sin(math.pi * x ** (math.log(0.5) / math.log(at))) for x in xs]
    return (
        [(x, high * s) for x, s in zip(xs, shape, strict=True)],
        [(x, -low * s) for x, s in zip(xs, shape, strict=True)],
    )


@st.composite
def ribbed(draw: st.DrawFn) -> tuple[TailSurface, dict[str, str], Ribbed]:
    root = bump(draw(st.floats(0.04, 0.12)), draw(st.floats(0.0, 0.06)), draw(st.floats(0.25, 0.45)), draw(st.integers(12, 60)))  # fmt: skip
    tip = bump(draw(st.floats(0.03, 0.1)), draw(st.floats(0.0, 0.05)), draw(st.floats(0.25, 0.45)), draw(st.integers(12, 60)))  # fmt: skip
    span, chords, sweep = (
        draw(st.floats(200, 900)),
        (draw(sizes), draw(sizes)),
        draw(st.floats(-20, 60)),
    )
    ribs = sorted({round(draw(st.floats(0, span / 2)), 2) for _ in range(draw(st.integers(2, 6)))})
    write = draw(st.sampled_from([loop_of, halves_of]))
    surface = TailSurface(
        id="stab",
        kind="ribbed",
        span=span,
        root_chord=chords[0],
        tip_chord=chords[1],
        sweep_le=sweep,
        root_profile="r.dat",
        tip_profile="t.dat",
        ribs=tuple(ribs),
    )
    texts = {"r.dat": write(*root), "t.dat": loop_of(*tip)}
    return surface, texts, Ribbed(span, chords, sweep, root, tip)


@given(ribbed())
@settings(max_examples=draws(20, 60))
def test_the_loft_agrees_with_the_second_way(
    case: tuple[TailSurface, dict[str, str], Ribbed],
) -> None:
    surface, texts, other = case
    for rib in cut_ribs(surface, texts):
        lofted = rib.lofted
        assert lofted.chord == pytest.approx(other.chord(lofted.y), abs=1e-6)
        assert lofted.le_x == pytest.approx(other.lead(lofted.y), abs=1e-6)
        assert lofted.thickness == pytest.approx(other.thickest(lofted.y), abs=0.02)
        for share in np.linspace(0.003, 0.997, 60):
            x = float(share) * lofted.chord
            for z in other.z(lofted.y, x):
                assert distance_to_ring((x, z), lofted.outline) < 0.02
        for x, z in lofted.outline:
            top, low = other.z(lofted.y, min(max(x, 0.0), lofted.chord))
            assert min(abs(z - top), abs(z - low)) < 0.02


@given(ribbed(), st.floats(0.2, 0.5), st.floats(2, 5), st.floats(0, 1.5))
@settings(max_examples=draws(13, 40))
def test_floors_of_a_straight_spar_lie_on_one_line(
    case: tuple[TailSurface, dict[str, str], Ribbed], at: float, deep: float, skin: float
) -> None:
    surface, texts, _ = case
    spars = (
        TailSpar(id="top", at_chord=at, section=(3.0, 1.0), face="top", tip_section=(2.0, 0.5)),
        TailSpar(id="low", at_chord=at, section=(3.0, 1.0), face="bottom"),
    )
    made = surface.but(spars=spars, skin=skin * 0.3)
    found: dict[str, list[tuple[float, float, float]]] = {}
    for rib in cut_ribs(made, texts):
        for notch in rib.notches:
            x = rib.lofted.le_x + sum(notch.x) / 2
            found.setdefault(notch.spar, []).append((x, rib.lofted.y, notch.floor))
            wood = shapely.union_all([shapely.Polygon(ring) for ring in rib.fixed])
            inside = 0.3 * deep / 5 if notch.face == "top" else -0.3 * deep / 5
            middle = sum(notch.x) / 2
            assert not wood.contains(shapely.Point(middle, notch.floor + inside))
            assert notch.depth > 0
    for floors in found.values():
        a, b = np.array(floors[0]), np.array(floors[-1])
        for point in floors[1:-1]:
            run = (b - a) / np.linalg.norm(b - a)
            off = np.array(point) - a
            assert np.linalg.norm(off - run * (off @ run)) < 0.02


def plain(**more: object) -> TailSurface:
    return TailSurface.model_validate(
        {
            "id": "stab",
            "kind": "ribbed",
            "span": 480.0,
            "root_chord": 130.0,
            "tip_chord": 90.0,
            "sweep_le": 12.0,
            "root_profile": "0012",
            "ribs": (0.0, 80.0, 160.0, 240.0),
            **more,
        }
    )


def test_the_contracts_own_figures() -> None:
    rib = cut_ribs(plain(), {})[1]
    assert rib.lofted.chord == pytest.approx(116.667, abs=1e-3)
    assert rib.lofted.le_x == pytest.approx(4.0)
    assert rib.lofted.thickness == pytest.approx(0.12 * 116.667, abs=0.02)


def test_stock_skin_and_hinge_are_taken_off() -> None:
    bare = cut_ribs(plain(), {})[0]
    made = plain(
        leading_edge=(6.0, 8.0),
        trailing_edge=(10.0, 3.0),
        skin=1.0,
        hinge_at_chord=0.65,
        hinge_edge=3.0,
        controls=Controls(gap=1.0),
    )
    rib = cut_ribs(made, {})[0]
    fixed, moving = shapely.Polygon(rib.fixed[0]), shapely.Polygon(rib.moving[0])
    assert fixed.bounds[0] == pytest.approx(6.0)
    assert fixed.bounds[2] == pytest.approx(0.65 * 130 - 0.5 - 3)
    assert moving.bounds[0] == pytest.approx(0.65 * 130 + 0.5 + 3)
    assert moving.bounds[2] == pytest.approx(120.0)
    whole = shapely.Polygon(bare.fixed[0])
    assert whole.exterior.distance(fixed) == pytest.approx(1.0, abs=0.01)


def test_a_curved_tip_shrinks_its_ribs_and_leaves_the_spar_straight() -> None:
    spar = TailSpar(id="top", at_chord=0.4, section=(3.0, 2.0))
    made = plain(
        tip=Tip(shape="elliptic", length=120.0), spars=(spar,), ribs=(0.0, 120.0, 180.0, 220.0)
    )
    ribs = cut_ribs(made, {})
    straight = cut_ribs(plain(ribs=(0.0, 120.0, 180.0, 220.0)), {})
    assert ribs[1].lofted.chord == pytest.approx(straight[1].lofted.chord)
    assert ribs[3].lofted.chord < 0.75 * straight[3].lofted.chord
    share = ribs[3].lofted.thickness / ribs[3].lofted.chord
    assert share == pytest.approx(0.12, abs=1e-3)
    floors = [
        np.array([r.lofted.le_x + sum(n.x) / 2, r.lofted.y, n.floor])
        for r in ribs
        for n in r.notches
    ]
    run = (floors[-1] - floors[0]) / np.linalg.norm(floors[-1] - floors[0])
    for floor in floors:
        off = floor - floors[0]
        assert np.linalg.norm(off - run * (off @ run)) < 0.02


def test_washout_turns_the_tip_nose_down() -> None:
    made = plain(washout=2.0)
    tip = loft_of_tail(made, {}).rib(240.0)
    end = tip.upper[-1]
    assert math.degrees(math.atan2(end[1], end[0])) == pytest.approx(2.0, abs=0.1)
    assert loft_of_tail(made, {}).rib(0.0).upper[-1][1] == pytest.approx(0.00126 * 130, abs=1e-3)


def test_a_tip_thickness_scales_the_tip_section() -> None:
    made = plain(tip_thickness=6.0)
    assert loft_of_tail(made, {}).rib(240.0).thickness == pytest.approx(6.0)
    assert loft_of_tail(made, {}).rib(0.0).thickness == pytest.approx(0.12 * 130, abs=0.01)


def test_pieces_are_counted_feet_reach_the_board_and_tubes_go_through() -> None:
    made = plain(
        feet=14.0,
        half_ribs=True,
        spars=(TailSpar(id="top", at_chord=0.3, section=(3.0, 3.0)),),
        tubes=(Tube(id="tube", at_chord=0.45, diameter=5.0, length=200.0),),
    )
    pieces = rib_pieces(made, {})
    whole = [piece for piece in pieces if "half" not in piece.name]
    assert [piece.quantity for piece in whole] == [1, 2, 2, 2]
    assert len(pieces) == 7  # four ribs, three half ribs between them
    assert [len(piece.holes) for piece in whole] == [1, 1, 0, 0]
    for piece in whole:
        assert piece.bounds[1] == pytest.approx(-14.0, abs=1e-3)
    half = next(piece for piece in pieces if "half" in piece.name)
    assert half.bounds[2] == pytest.approx(0.3 * planform_of(made).chord(40.0) - 1.5, abs=0.02)


def test_even_ribs_end_inside_the_tip() -> None:
    places = even_ribs(plain(tip=Tip(shape="block", length=12.0)), 7)
    assert len(places) == 7
    assert places[0] == 0.0
    assert places[-1] == pytest.approx(228.0)
    gaps = [b - a for a, b in pairwise(places)]
    assert max(gaps) - min(gaps) < 0.02
    with pytest.raises(BadInput):
        even_ribs(plain(), 1)


def test_what_is_missing_is_named() -> None:
    for more, place in (
        ({"root_profile": None}, "root_profile"),
        ({"root_profile": "lost.dat"}, 'no section "lost.dat"'),
        ({"span": None}, "span"),
        ({"leading_edge": (70.0, 8.0), "trailing_edge": (70.0, 3.0)}, "leave no wood"),
    ):
        with pytest.raises(BadInput) as told:
            cut_ribs(plain(**more), {})
        assert place in str(told.value)
