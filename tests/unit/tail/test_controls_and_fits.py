"""Hinges, linkage, slot, parts that touch, flatness, stacks, foam: against hand reckoning and brute force."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.geometry.polygons import affinity, shapely
from hardkeel.tail.clearance import Plate, clashes_of
from hardkeel.tail.controls import (
    bevel_for,
    hinge_cut,
    hinge_places,
    hinge_stations,
    horn_throw,
    mismatch_of,
    throws_of,
    travel_needed,
)
from hardkeel.tail.flatness import PLACES, corner_places, flatness_of
from hardkeel.tail.foam import core_of, core_volume, seal_channel, skin_pieces, skins_of, tube_holes
from hardkeel.tail.model import Controls, FlatReading, Linkage, TailSpar, TailSurface, Tip, Tube
from hardkeel.tail.passing import Slot, passing_of
from hardkeel.tail.stacking import even_in_stack, stack_of, trimmed_of
from tests.draws import draws


def stab(**more: object) -> TailSurface:
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
            "hinge_at_chord": 0.65,
            **more,
        }
    )


# -- hinges and linkage -------------------------------------------------------------------------------


@pytest.mark.parametrize("throw", [8, 25, 40])
def test_a_hinge_as_it_is_drawn_swings_free(throw: float) -> None:
    """What is drawn is turned by its throws, both ways: it may touch the fixed part, never enter it."""
    controls = Controls(up=throw, down=throw / 2, gap=0.6)
    for station in hinge_stations(stab(controls=controls), {}):
        ahead, flap = hinge_cut(station, controls.gap, controls.edge, 30.0)
        fixed, moving = shapely.Polygon(ahead), shapely.Polygon(flap)
        assert fixed.is_valid
        assert moving.is_valid
        assert moving.bounds[3] - moving.bounds[1] == pytest.approx(station.thickness[1])
        for turn in (throw, -throw / 2, 0.0):
            turned = affinity.rotate(moving, turn, origin=(0.0, 0.0))
            assert turned.intersection(fixed).area < 1e-3


@given(st.floats(0.2, 3), st.floats(2, 20), st.floats(1, 60))
def test_a_bevel_just_clears(gap: float, thick: float, throw: float) -> None:
    """The moving part is turned as a polygon and held against the fixed part's face."""
    bevel = math.radians(bevel_for(throw, gap, thick))
    moving = [(gap / 2, 0.0), (gap / 2 + thick / 2 * math.tan(bevel), -thick / 2), (60.0, -thick / 2), (60.0, 0.0)]  # fmt: skip
    turn = math.radians(throw)
    turned = [(x * math.cos(turn) + z * math.sin(turn), z * math.cos(turn) - x * math.sin(turn)) for x, z in moving]  # fmt: skip
    ahead = min(x for x, _ in turned)
    assert ahead >= -gap / 2 - 1e-9
    if bevel > 0:
        assert ahead == pytest.approx(-gap / 2, abs=1e-9)
    free = math.degrees(2 * math.atan2(gap, thick))  # the edges just meet
    assert (bevel_for(throw, gap, thick) == 0) == (throw <= free + 1e-9)


@given(st.floats(5, 25), st.floats(5, 30), st.floats(5, 60))
def test_the_linkage_is_the_four_bar_with_a_long_rod(
    arm: float, horn: float, travel: float
) -> None:
    link = Linkage(servo_arm=arm, horn=horn, travel=60.0)
    if arm * math.sin(math.radians(travel)) > horn:
        with pytest.raises(BadInput):
            horn_throw(link, travel)
        return
    got = horn_throw(link, travel)
    assert travel_needed(link, got) == pytest.approx(travel, abs=1e-6)
    # a rod of ten metres between both arms, solved by halving
    rod, a = 10_000.0, math.radians(travel)
    pin = (arm * math.sin(a), arm * math.cos(a))
    low, high = 0.0, math.pi / 2
    straight = math.hypot(rod, arm - horn)
    for _ in range(80):
        middle = (low + high) / 2
        end = (rod + horn * math.sin(middle), horn * math.cos(middle))
        low, high = (middle, high) if math.dist(pin, end) < straight else (low, middle)
    assert math.degrees(low) == pytest.approx(got, abs=0.6)


def test_the_edge_travels_as_far_as_its_chord_turns() -> None:
    made = stab(controls=Controls(up=20.0, down=15.0, gap=1.0, edge=2.0, linkage=Linkage(y=0.0)))
    root = hinge_stations(made, {})[0]
    assert root.chord == pytest.approx(0.35 * 130)
    assert root.edge_up == pytest.approx(0.35 * 130 * math.sin(math.radians(20)))
    assert root.edge_down == pytest.approx(0.35 * 130 * math.sin(math.radians(15)))
    assert root.taper == pytest.approx(math.degrees(2 * math.atan((root.thickness[1] - 2) / 2 / root.chord)))  # fmt: skip
    throws = throws_of(made)
    assert throws.degrees == pytest.approx(horn_throw(Linkage(), 45.0))
    assert throws.at_horn == pytest.approx(0.35 * 130 * math.sin(math.radians(throws.degrees)))


def test_hinges_go_near_both_ends_and_a_thick_rudder_is_told() -> None:
    places = hinge_places(stab(controls=Controls(inner=10.0)))
    assert len(places) >= 3
    assert places[0] == pytest.approx(30.0)
    assert places[-1] == pytest.approx(220.0)
    fin = stab(
        id="fin", kind="stick", upright=True, thickness=5.0, controls=Controls(thickness=8.0)
    )
    assert mismatch_of(fin, {}) == pytest.approx(3.0)
    assert mismatch_of(fin.but(controls=Controls(thickness=5.3)), {}) == 0.0


# -- the slot ------------------------------------------------------------------------------------------


@given(st.floats(60, 120), st.floats(0, 30), st.floats(60, 140), st.floats(20, 60), st.booleans())
@settings(max_examples=draws(20, 60))
def test_passing_against_brute_pushing(
    tip: float, sweep: float, long: float, wide: float, has_hinge: bool
) -> None:
    """Every place that it is pushed to, every shift to a quarter of a millimetre, both sides looked at."""
    made = stab(
        span=300.0, root_chord=100.0, tip_chord=tip, sweep_le=sweep,
        hinge_at_chord=0.7 if has_hinge else None, controls=Controls(inner=wide / 2 + 1, gap=1.0),
    )  # fmt: skip
    slot = Slot(-0.5, -0.5 + long, 20.0, wide)
    for one in passing_of(made, slot, lambda _y: 12.0):
        best = math.inf
        for inner in np.linspace(wide / 2, 150 + wide, 60):
            at = [abs(y) for y in (inner, inner - wide) if y <= 150]
            if not at:
                continue
            shift = np.arange(-120, 120, 0.25)
            inside = np.ones(len(shift), dtype=bool)
            for y in at:
                front = sweep * y / 150
                chord = 100 + (tip - 100) * y / 150
                rear = front + chord
                if has_hinge and not (one.hinged == "both" and y >= wide / 2 + 1):
                    rear = front + 0.7 * chord - 0.5
                inside &= (slot.front <= front + shift) & (rear + shift <= slot.rear)
            best = min(best, inside.sum() * 0.25)
        if abs(one.play) > 0.6:
            assert one.passes == (best > 0)
        if best > 0.6:
            assert one.play == pytest.approx(best, abs=0.8)


def test_a_slot_open_behind_lets_all_through_and_a_low_one_nothing() -> None:
    made = stab(controls=Controls(inner=20.0))
    open_ = Slot(-0.5, math.inf, 17.0, 30.0)
    assert all(one.passes for one in passing_of(made, open_, lambda _y: 15.6))
    low = Slot(-0.5, math.inf, 15.0, 30.0)
    ways = passing_of(made, low, lambda _y: 15.6)
    assert not any(one.passes for one in ways)
    assert ways[0].over == pytest.approx(-0.6)


# -- parts that touch ----------------------------------------------------------------------------------


def plate(
    name: str, size: tuple[float, float], origin: tuple[float, float, float], **more: object
) -> Plate:
    ring = ((0.0, 0.0), (size[0], 0.0), (size[0], size[1]), (0.0, size[1]))
    return Plate(name, ring, origin, (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), 4.0, **more)  # type: ignore[arg-type]


def test_a_flap_touches_what_stands_in_its_way() -> None:
    hinge = ((0.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    flap = plate("flap", (50.0, 80.0), (1.0, 0.0, 0.0), hinge=hinge, throws=(-30.0, 0.0, 30.0))
    post = plate("post", (20.0, 20.0), (25.0, 30.0, -20.0))
    hit = clashes_of([flap, post])
    assert len(hit) == 1
    assert hit[0].throws[0] == 30.0  # about +y by the right hand its edge goes down
    assert clashes_of([flap, plate("far", (20.0, 20.0), (25.0, 30.0, -60.0))]) == ()
    assert clashes_of([post, plate("beside", (20.0, 20.0), (30.0, 30.0, -20.0))]) == ()


@given(st.floats(5, 40), st.floats(2, 30))
@settings(max_examples=draws(10, 30))
def test_touching_agrees_with_the_corner_reckoned_by_hand(throw: float, height: float) -> None:
    """The lower rear corner of a flap that turns down, over a floor."""
    hinge = ((0.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    flap = plate("flap", (50.0, 40.0), (0.0, 0.0, 0.0), hinge=hinge, throws=(throw,))
    floor = Plate("floor", ((-20.0, -20.0), (80.0, -20.0), (80.0, 60.0), (-20.0, 60.0)), (0.0, 0.0, -height - 5), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), 10.0)  # fmt: skip
    turn = math.radians(throw)
    lowest = -50 * math.sin(turn) - 2 * math.cos(turn)
    if abs(lowest + height) > 0.3:
        assert bool(clashes_of([flap, floor])) == (lowest < -height)


# -- flatness ------------------------------------------------------------------------------------------


def read_corners(surface: TailSurface, twist: float, bow: float, roll: float, phase: str = "dry") -> tuple[FlatReading, ...]:  # fmt: skip
    """Heights of a frame that is so crooked, by hand: the starboard tip is turned, both tips stand up."""
    places = corner_places(surface)
    middle = (places["mid_le"][0] + places["mid_te"][0]) / 2
    found = []
    for place in PLACES:
        if place not in places:
            continue
        x, y = places[place]
        share = y / places["starboard_le"][1]
        z = 20.0 + bow * abs(share) + math.tan(math.radians(roll)) * y
        z -= (x - middle) * math.tan(math.radians(twist / 2)) * share
        found.append(FlatReading(at=place, value=z, phase=phase))  # type: ignore[arg-type]
    return tuple(found)


@given(st.floats(-3, 3), st.floats(-3, 3), st.floats(-0.5, 0.5))
@settings(max_examples=draws(13, 40))
def test_a_crooked_frame_is_read_as_it_is(twist: float, bow: float, roll: float) -> None:
    made = stab(kind="stick", root_profile=None)
    flat = flatness_of(made.but(flatness=read_corners(made, twist, bow, roll)), "dry")
    assert flat is not None
    assert flat.known
    assert flat.twist.value == pytest.approx(twist, abs=0.06)
    assert flat.bow.value == pytest.approx(bow, abs=0.1)
    heights: dict[str, float] = {one.at: one.value for one in read_corners(made, twist, bow, roll)}
    apart = sum(heights[f"starboard_{end}"] - heights[f"port_{end}"] for end in ("le", "te")) / 2
    assert flat.starboard.value - flat.port.value == pytest.approx(apart, abs=0.02)
    assert 0 < flat.twist.sigma < 0.5


def test_sigma_of_the_twist_is_what_repeating_scatters() -> None:
    made = stab(kind="stick", root_profile=None)
    true = read_corners(made, 1.0, 0.5, 0.0)
    rng = np.random.default_rng(5)
    found = []
    for _ in range(300):
        noisy = tuple(one.but(value=one.value + float(rng.normal(0, 0.3))) for one in true)
        flat = flatness_of(made.but(flatness=noisy), "dry")
        assert flat is not None
        found.append((flat.twist.value, flat.twist.sigma))
    values, sigmas = np.array(found).T
    assert float(np.std(values)) == pytest.approx(float(np.mean(sigmas)), rel=0.15)


def test_the_corner_to_flex_goes_beyond_true() -> None:
    made = stab(kind="stick", root_profile=None)
    flat = flatness_of(made.but(flatness=read_corners(made, 2.0, 0.0, 0.0)), "dry")
    assert flat is not None
    assert flat.lift is not None
    corner, mm = flat.lift
    places = corner_places(made)
    chord = places["starboard_te"][0] - places["starboard_le"][0]
    assert corner == "starboard_te"
    assert mm == pytest.approx(math.radians(2.0) * chord / 0.65, rel=0.05)
    level = flatness_of(made.but(flatness=read_corners(made, 0.0, 0.0, 0.0)), "dry")
    assert level is not None
    assert level.lift is None
    assert flatness_of(made, "dry") is None


def test_a_fin_is_read_against_its_foot() -> None:
    fin = stab(id="fin", kind="stick", root_profile=None, upright=True)
    places = corner_places(fin)
    assert "port_le" not in places
    middle = (places["mid_le"][0] + places["mid_te"][0]) / 2
    top = places["starboard_le"][1]
    readings = tuple(
        FlatReading(at=place, value=10.0 - (x - middle) * math.tan(math.radians(1.5)) * y / top)
        for place, (x, y) in places.items()
    )
    flat = flatness_of(fin.but(flatness=readings), "dry")
    assert flat is not None
    assert flat.twist.value == pytest.approx(1.5, abs=0.08)


# -- ribs by hand --------------------------------------------------------------------------------------


def test_one_section_sanded_evenly_is_the_true_loft() -> None:
    stack = stack_of(stab(), {})
    assert stack.worst.excess < 0.01
    assert stack.blanks == 7
    assert even_in_stack(stab()) == pytest.approx(0.0)
    assert even_in_stack(stab(ribs=(0.0, 60.0, 160.0, 240.0))) == pytest.approx(20.0)


def test_two_sections_leave_the_stack_proud_as_a_brute_block_does() -> None:
    made = stab(root_profile="4412", tip_profile="0009", hinge_at_chord=None)
    stack = stack_of(made, {})
    assert stack.worst.excess > 0.05
    rib = next(one for one in stack.ribs if one.y == 160.0)
    # the mix at equal slopes as a polygon: every corner of one outline with every corner of the other
    root, tip = (np.array(ring) for ring in (stack.root, stack.tip))
    share = 2 / 3
    sums = ((1 - share) * root[:, None, :] + share * tip[None, :, :]).reshape(-1, 2)
    block = shapely.MultiPoint(sums).convex_hull
    from hardkeel.tail.lofting import loft_of_tail  # noqa: PLC0415  only here

    true = shapely.Polygon(loft_of_tail(made, {}).rib(160.0).outline).convex_hull
    proud = max(true.exterior.distance(shapely.Point(p)) for p in block.exterior.coords)
    assert rib.excess <= proud + 0.02
    assert block.buffer(1e-6).contains(true)


def test_trimming_in_place_by_hand() -> None:
    spar = TailSpar(id="top", at_chord=0.3, section=(3.0, 3.0))
    ribs = trimmed_of(stab(spars=(spar,)), {})
    assert [rib.trim for rib in ribs] == pytest.approx(
        [0.0, 130 / 9 - 1.111, 26.667, 40.0], abs=0.01
    )
    assert dict(ribs[0].notches)["top"] == pytest.approx(3.0, abs=1e-6)
    assert dict(ribs[-1].notches)["top"] > 3.0  # the root section is taller there than the tip's
    assert ribs[-1].sanding > 1.0
    assert ribs[0].sanding == pytest.approx(0.0, abs=1e-9)


# -- foam ----------------------------------------------------------------------------------------------


def test_a_foam_core_its_skins_and_its_channel() -> None:
    made = stab(
        kind="foam", skin=1.5, tip=Tip(shape="block", length=15.0), hinge_at_chord=0.7,
        tubes=(Tube(id="main", at_chord=0.3, diameter=8.0, length=300.0),),
    )  # fmt: skip
    core = core_of(made, {})
    assert core is not None
    assert core.length == pytest.approx(225.0)
    tall = max(z for _, z in core.root) - min(z for _, z in core.root)
    assert tall == pytest.approx(0.12 * 130 - 3.0, abs=0.02)
    top, bottom = skins_of(made, {})
    assert top.root == pytest.approx(bottom.root)
    assert 130 < top.root < 140
    assert top.seams == (95.0,)
    assert [piece.quantity for piece in skin_pieces(made, {})] == [2, 2]
    hole = tube_holes(made, {}, 20.0)[0]
    assert hole.x == pytest.approx(0.3 * 130)  # straight through, square to the keel line
    assert hole.inside == pytest.approx(260.0)
    channel = seal_channel(made)
    assert channel is not None
    assert (channel.width, channel.depth) == pytest.approx((0.4, 2.7))
    flat = stab(kind="foam", root_profile=None, thickness=6.0)
    assert core_volume(flat, {}) == pytest.approx(480 * 110 * 6)
    assert core_of(flat, {}) is None


def test_the_volume_of_a_core_against_many_slices() -> None:
    made = stab(kind="foam", skin=0.0)
    from hardkeel.tail.lofting import loft_of_tail  # noqa: PLC0415  only here

    loft = loft_of_tail(made, {})
    ys = (np.arange(200) + 0.5) * 240 / 200
    brute = 2 * sum(shapely.Polygon(loft.rib(float(y)).outline).area for y in ys) * 240 / 200
    assert core_volume(made, {}) == pytest.approx(brute, rel=0.01)
