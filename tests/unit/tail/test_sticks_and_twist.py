"""Stick tails: every stick fits its neighbours; stiffness by textbook, by another method and by a finer mesh."""

import math
from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.geometry.polygons import shapely
from hardkeel.tail.grillage import (
    PATTERNS,
    Beam,
    Grillage,
    choices_of,
    frame_mass,
    grillage_of,
    torsion_constant,
    twist_of,
)
from hardkeel.tail.laminating import lamination_of
from hardkeel.tail.model import Controls, Pattern, TailBracing, TailSurface, Tip
from hardkeel.tail.pinning import pins_of
from hardkeel.tail.planform import planform_of
from hardkeel.tail.stick_frame import frame_cut_list, stick_frame_of
from tests.draws import draws

BALSA = (2.8, 0.13)


def flat(pattern: Pattern = "zigzag", **more: object) -> TailSurface:
    return TailSurface.model_validate(
        {
            "id": "stab",
            "kind": "stick",
            "span": 420.0,
            "root_chord": 115.0,
            "tip_chord": 95.0,
            "sweep_le": 12.0,
            "leading_edge": (8.0, 5.0),
            "trailing_edge": (8.0, 5.0),
            "material": "balsa-medium",
            "centre": 40.0,
            "bracing": TailBracing(pattern=pattern, pitch=40.0),
            **more,
        }
    )


surfaces = st.builds(
    lambda pattern, span, root, tip, sweep, hinge, shape, pitch, joint: flat(
        pattern,
        span=span,
        root_chord=root,
        tip_chord=tip,
        sweep_le=sweep,
        hinge_at_chord=hinge,
        controls=Controls(inner=6.0),
        tip=Tip(shape=shape, length=45.0) if shape else None,
        bracing=TailBracing(pattern=pattern, pitch=pitch, joint=joint, gusset=8.0),
    ),
    st.sampled_from(PATTERNS),
    st.floats(260, 700),
    st.floats(90, 160),
    st.floats(80, 150),
    st.floats(-10, 40),
    st.sampled_from([None, 0.6, 0.7]),
    st.sampled_from([None, "elliptic", "rounded", "block"]),
    st.floats(30, 80),
    st.sampled_from(["butt", "half-lap"]),
)


@given(surfaces)
@settings(max_examples=draws(20, 60))
def test_sticks_lie_in_the_outline_and_beside_each_other(surface: TailSurface) -> None:
    frame = stick_frame_of(surface)
    whole = shapely.Polygon(planform_of(surface).ring).buffer(0.02)
    shapes = [(piece, shapely.Polygon(piece.strip.outline)) for piece in frame.pieces]
    for _, shape in shapes:
        assert shape.is_valid
        assert whole.contains(shape)
    for (one, a), (other, b) in combinations(shapes, 2):
        lapped = one.kind == other.kind == "diagonal" and surface.bracing is not None and surface.bracing.joint == "half-lap"  # fmt: skip
        if not lapped:
            assert a.intersection(b).area < 0.05
    for part in frame_cut_list(surface):
        for end in part.ends:
            assert all(0 < angle <= 90 for angle in end)
        assert part.length > 0


@given(surfaces)
@settings(max_examples=draws(8, 25))
def test_pins_stand_beside_the_wood(surface: TailSurface) -> None:
    frame = stick_frame_of(surface)
    wood = shapely.union_all([shapely.Polygon(piece.strip.outline) for piece in frame.pieces])
    pins = pins_of(frame)
    assert len(pins) >= 6
    assert all(0.5 < wood.distance(shapely.Point(pin)) < 2.0 for pin in pins)


def test_lengths_and_angles_by_hand() -> None:
    """A rectangular frame: everything can be reckoned on paper."""
    made = flat("ladder", span=400.0, root_chord=100.0, tip_chord=100.0, sweep_le=0.0, centre=0.0)
    made = made.but(bracing=TailBracing(pattern="ladder", pitch=47.0, width=6.0))
    parts = {part.key: part for part in frame_cut_list(made)}
    assert parts["stab fixed front edge"].length == pytest.approx(200.0)
    assert parts["stab fixed tip"].length == pytest.approx(84.0)
    cross = [part for part in parts.values() if part.kind == "cross-piece"]
    assert len(cross) == 3  # 192 − 3 mm in four bays
    for part in cross:
        assert part.length == pytest.approx(84.0)
        assert part.ends == ((90.0,), (90.0,))
        assert part.quantity == 2
    zig = made.but(bracing=TailBracing(pattern="zigzag", pitch=47.0, width=6.0))
    first = next(part for part in frame_cut_list(zig) if part.kind == "diagonal")
    inner, outer = 3.0, 3.0 + (192 - 3) / 4 - 3
    assert max(a for end in first.ends for a in end) == pytest.approx(
        math.degrees(math.atan2(84, outer - inner)), abs=0.1
    )


def test_gussets_are_alike_in_pairs_and_a_crossed_bay_has_none() -> None:
    braced = TailBracing(pattern="ladder", pitch=40.0, gusset=10.0, curved_gussets=True)
    gussets = stick_frame_of(flat(bracing=braced)).gussets
    assert gussets
    assert all(one.pair and one.quantity == 2 for one in gussets)
    assert stick_frame_of(flat(bracing=braced.but(pattern="crossed"))).gussets == ()
    fin = flat(bracing=braced, upright=True)
    assert all(one.quantity == 1 for one in stick_frame_of(fin).gussets)


def test_a_laminated_tip_by_the_radius_of_a_circle() -> None:
    made = flat(
        root_chord=100.0, tip_chord=100.0, sweep_le=0.0,
        tip=Tip(shape="laminated", length=50.0, layers=3, strip=1.0, form_at=0.5),
    )  # fmt: skip
    bent = lamination_of(made)
    assert bent is not None
    assert bent.radius == pytest.approx(50 - 3, abs=0.3)
    assert bent.strain == pytest.approx(100 * 1.0 / (2 * 47 + 1), rel=0.02)
    assert bent.length == pytest.approx(math.pi * 50 + 80, rel=2e-3)
    with pytest.raises(BadInput):
        lamination_of(made.but(tip=Tip(shape="laminated", length=50.0, layers=20, strip=3.0)))


def test_edges_that_leave_nothing_are_refused() -> None:
    with pytest.raises(BadInput):
        stick_frame_of(flat(leading_edge=(70.0, 5.0), trailing_edge=(70.0, 5.0)))


# -- stiffness ---------------------------------------------------------------------------------------


def test_the_torsion_constant_by_its_table() -> None:
    """J / (a·b³) of the textbook for a/b of 1, 2, 5 and 10."""
    for ratio, wanted in ((1, 0.1406), (2, 0.229), (5, 0.291), (10, 0.312)):
        assert torsion_constant(ratio * 3.0, 3.0) / (ratio * 3.0 * 27.0) == pytest.approx(wanted, abs=6e-4)  # fmt: skip


def test_a_cantilever_and_a_shaft_by_the_textbook() -> None:
    young, shear, wide, thick, length = 10.0, 0.7, 8.0, 5.0, 300.0
    for turn in (0.0, 0.6, 2.1):
        end = (length * math.cos(turn), length * math.sin(turn))
        one = Grillage(
            np.array([(0.0, 0.0), end]), (Beam(0, 1, (wide, thick), (young, shear)),), (0,)
        )
        bend = young * 1000 * wide * thick**3 / 12
        assert one.solved({1: 2.0})[1, 0] == pytest.approx(2.0 * length**3 / (3 * bend), rel=1e-9)
        # a cross-arm at the end, its load at the arm's end: bending, twist and the arm's own bending
        out = (-math.sin(turn) * 60, math.cos(turn) * 60)
        arm = (end[0] + out[0], end[1] + out[1])
        two = Grillage(
            np.array([(0.0, 0.0), end, arm]),
            (Beam(0, 1, (wide, thick), (young, shear)), Beam(1, 2, (wide, thick), (young, shear))),
            (0,),
        )
        twist = 60 * length / (shear * 1000 * torsion_constant(wide, thick))
        wanted = length**3 / (3 * bend) + twist * 60 + 60**3 / (3 * bend)
        assert two.solved({2: 1.0})[2, 0] == pytest.approx(wanted, rel=1e-9)


def test_a_ladder_of_two_beams_by_energy() -> None:
    """Two long edges joined by a stiff bar at the tip, pinched: each bends and twists alike, the bar turns.

    By statics alone: the edges carry ±V and share the couple with their twist; the bar does not let their
    slopes differ, and by symmetry they would be opposite: both ends are guided, 12·E·I / L³.
    """
    young, shear, wide, thick, length, apart = 3.0, 0.15, 8.0, 5.0, 250.0, 60.0
    edge = ((wide, thick), (young, shear))
    stiff = ((80.0, 80.0), (5000.0, 5000.0))
    frame = Grillage(
        np.array([(0.0, 0.0), (apart, 0.0), (0.0, length), (apart, length)]),
        (Beam(0, 2, *edge), Beam(1, 3, *edge), Beam(2, 3, *stiff)),
        (0, 1),
    )
    w = frame.solved({2: 1.0, 3: -1.0})[:, 0]
    bend = young * 1000 * wide * thick**3 / 12
    turn = shear * 1000 * torsion_constant(wide, thick)
    # P·a = 2·(G·J / L)·φ + V·a, with V = 12·E·I / L³ · φ·a/2
    guided = 12 * bend / length**3
    phi = 1.0 * apart / (2 * turn / length + guided * apart**2 / 2)
    assert w[2] - w[3] == pytest.approx(phi * apart, rel=2e-3)


@given(surfaces)
@settings(max_examples=draws(8, 20))
def test_a_refined_mesh_says_the_same(surface: TailSurface) -> None:
    grillage, front, rear = grillage_of(stick_frame_of(surface), BALSA)
    gives = [
        g.solved({front: 1.0, rear: -1.0})[:, 0]
        for g in (grillage, grillage.refined(2), grillage.refined(4))
    ]
    wanted = gives[0][front] - gives[0][rear]
    assert wanted > 0
    for w in gives[1:]:
        assert w[front] - w[rear] == pytest.approx(wanted, rel=1e-5)


@given(surfaces)
@settings(max_examples=draws(8, 15))
def test_the_work_done_is_the_energy_in_the_sticks(surface: TailSurface) -> None:
    """Another way to the number: load times travel is twice the energy of bending and twist, summed by hand."""
    grillage, front, rear = grillage_of(stick_frame_of(surface), BALSA)
    fine = grillage.refined(16)
    u = fine.solved({front: 1.0, rear: -1.0})
    energy = 0.0
    for beam in fine.beams:
        if beam.pinned:
            continue
        run = fine.joints[beam.b] - fine.joints[beam.a]
        length = float(np.hypot(*run))
        c, s = run / length
        turn = [c * u[j, 1] + s * u[j, 2] for j in (beam.a, beam.b)]
        slope = [-(-s * u[j, 1] + c * u[j, 2]) for j in (beam.a, beam.b)]
        bend = beam.moduli[0] * 1000 * beam.size[0] * beam.size[1] ** 3 / 12
        twist = beam.moduli[1] * 1000 * torsion_constant(*beam.size)
        energy += (
            bend * (slope[1] - slope[0]) ** 2 / length + twist * (turn[1] - turn[0]) ** 2 / length
        )
    give = float(u[front, 0] - u[rear, 0])
    assert energy == pytest.approx(give, rel=0.02)


def test_what_diagonals_buy_and_what_wood_buys() -> None:
    gives = [twist_of(flat(pattern), BALSA).give for pattern in PATTERNS]
    assert gives == sorted(gives, reverse=True)
    assert gives[2] < gives[1] / 2
    woods = [("balsa-light", 100.0, 1.9, 0.086), ("balsa-medium", 150.0, *BALSA), ("balsa-hard", 220.0, 4.2, 0.19)]  # fmt: skip
    choices = choices_of(flat(), woods)
    assert [(one.pattern, one.material) for one in choices] == [
        ("zigzag", "balsa-medium"),
        ("ladder", "balsa-medium"),
        ("crossed", "balsa-medium"),
        ("zigzag", "balsa-light"),
        ("zigzag", "balsa-hard"),
    ]
    assert choices[0].mass == pytest.approx(frame_mass(flat(), 150.0))
    pinned = flat(bracing=TailBracing(pattern="zigzag", pitch=40.0, stiff=False))
    assert twist_of(pinned, BALSA).give > twist_of(flat(), BALSA).give


def test_the_mass_is_that_of_the_sticks() -> None:
    made = flat("ladder", centre=0.0)
    volume = sum(
        shapely.Polygon(part.outline).area
        * part.section[0]
        * (part.quantity if part.kind != "root" else 2)
        for part in frame_cut_list(made)
    )
    assert frame_mass(made, 150.0) == pytest.approx(volume * 150e-6, rel=1e-6)
