"""Calibration: known maps are found again, errors stay what the clicks were."""

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.paper.calibrating import PICK_SIGMA_PX, calibrate
from hardkeel.paper.model import KnownLength, KnownPoint, Plan, Trace
from hardkeel.paper.picking import picked_stations
from tests.draws import draws

DPI = 150.0


def scan(turn: float = 0.01, sx: float = 1.012, sy: float = 0.994, g: float = 0.0) -> Array:
    """Pixels to plan mm of a scan that is turned, stretched, and in a photo leaning."""
    pixel = 25.4 / DPI
    flat = (
        np.diag([pixel / sx, pixel / sy])
        @ [
            [math.cos(turn), -math.sin(turn)],
            [math.sin(turn), math.cos(turn)],
        ]
        @ np.diag([1.0, -1.0])
    )
    matrix = np.eye(3)
    matrix[:2, :2] = flat
    matrix[:2, 2] = (-30.0, 200.0)
    matrix[2, :2] = (g, -1.4 * g)
    return matrix


def through(matrix: Any, points: Array) -> Array:
    rows = np.column_stack([points, np.ones(len(points))]) @ matrix.T
    return np.asarray(rows[:, :2] / rows[:, 2:])


def pixels_of(matrix: Array, plan: Array) -> list[tuple[float, float]]:
    return [(float(u), float(v)) for u, v in through(np.linalg.inv(matrix), plan)]


def known(matrix: Array, plan: Array, noise: float = 0.0, seed: int = 0) -> tuple[KnownPoint, ...]:
    shake = np.random.default_rng(seed).normal(size=(len(plan), 2)) * noise
    spots = np.array(pixels_of(matrix, plan)) + shake
    return tuple(
        KnownPoint(pixel=(float(p[0]), float(p[1])), plan=(float(q[0]), float(q[1])))
        for p, q in zip(spots, plan, strict=True)
    )


CORNERS = np.array([[0.0, -90], [900, -80], [880, 110], [20, 100], [450, 0]])


def test_one_length_gives_a_scale_and_a_second_across_gives_one_for_each_axis() -> None:
    matrix = scan()
    a, b, c, d = pixels_of(matrix, np.array([[0.0, 0], [800, 0], [100, -50], [100, 60]]))
    one = Plan(
        id="p", image="plans/i.png", lengths=(KnownLength(a=a, b=b, length=800.0, along="x"),)
    )
    first = calibrate(one)
    assert first.kind == "similar"
    assert first.scale_x == pytest.approx(25.4 / DPI / 1.012, rel=1e-6)
    both = one.but(lengths=(*one.lengths, KnownLength(a=c, b=d, length=110.0, along="y")))
    second = calibrate(both)
    assert second.kind == "axes"
    assert second.scale_y == pytest.approx(25.4 / DPI / 0.994, rel=2e-4)


def test_a_length_drawn_from_right_to_left_does_not_turn_the_sheet_over() -> None:
    a, b = pixels_of(scan(), np.array([[0.0, 0], [800, 0]]))
    plan = Plan(
        id="p", image="plans/i.png", lengths=(KnownLength(a=b, b=a, length=800.0, along="x"),)
    )
    assert abs(calibrate(plan).turn) < 5


def test_four_points_give_the_skew_and_five_leave_something_over() -> None:
    found = calibrate(Plan(id="p", image="plans/i.png", points=known(scan(), CORNERS)))
    assert (found.kind, found.spare) == ("affine", 4)
    assert found.skew == pytest.approx(0.0, abs=1e-6)
    leaning = scan() @ np.array([[1.0, math.tan(math.radians(0.5)), 0], [0, 1, 0], [0, 0, 1]])
    skewed = calibrate(Plan(id="p", image="plans/i.png", points=known(leaning, CORNERS)))
    assert abs(skewed.skew) == pytest.approx(0.5, abs=0.03)
    assert max(abs(r.mm) for r in found.residuals) < 1e-6
    wrong = list(known(scan(), CORNERS))
    wrong[2] = wrong[2].but(plan=(wrong[2].plan[0] + 4.0, wrong[2].plan[1]))
    worst = calibrate(Plan(id="p", image="plans/i.png", points=tuple(wrong))).worst
    assert worst is not None
    assert abs(worst.mm) > 0.7


@settings(max_examples=draws(8, 25))
@given(turn=st.floats(-0.3, 0.3), stretch=st.floats(0.97, 1.03), seed=st.integers(0, 99))
def test_picked_points_of_a_scan_are_within_three_tenths(
    turn: float, stretch: float, seed: int
) -> None:
    matrix = scan(turn, stretch, 1 / stretch)
    grid = np.array([[x, y] for x in (0.0, 450, 900) for y in (-100.0, 100)])
    plan = Plan(id="p", image="plans/i.png", points=known(matrix, grid, noise=0.5, seed=seed))
    rng = np.random.default_rng(seed + 1)
    truth = rng.uniform([0, -100], [900, 100], (200, 2))
    clicks = np.array(pixels_of(matrix, truth)) + rng.normal(size=(200, 2)) * 0.3
    off = calibrate(plan).to_plan(clicks) - truth
    assert np.percentile(np.hypot(*off.T), 95) < 0.3


@settings(max_examples=draws(8, 25))
@given(lean=st.floats(-4e-5, 4e-5), seed=st.integers(0, 99))
def test_a_photo_is_within_eight_tenths(lean: float, seed: int) -> None:
    matrix = scan(0.02, 1.0, 1.0, lean)
    grid = np.array([[x, y] for x in (0.0, 300, 600, 900) for y in (-100.0, 0, 100)])
    plan = Plan(id="p", image="plans/i.png", photo=True, points=known(matrix, grid, 0.7, seed))
    truth = np.random.default_rng(seed).uniform([0, -100], [900, 100], (200, 2))
    found = calibrate(plan)
    assert found.kind == "perspective"
    off = found.to_plan(np.array(pixels_of(matrix, truth))) - truth
    assert np.hypot(*off.T).max() < 0.8
    back = found.to_pixel(found.to_plan(np.array([[100.0, 200.0], [4000.0, 900.0]])))
    assert back == pytest.approx(np.array([[100.0, 200.0], [4000.0, 900.0]]), abs=1e-5)


@pytest.mark.parametrize(
    ("plan", "words"),
    [
        (Plan(id="p", image="plans/i.png"), "two points whose distance"),
        (Plan(id="p", image="plans/i.png", lengths=(KnownLength(a=(1.0, 1.0), b=(1.0, 1.0), length=5.0),)), "the same"),
        (
            Plan(id="p", image="plans/i.png", points=tuple(KnownPoint(pixel=(float(i), 0.0), plan=(float(i), 0.0)) for i in (0, 50, 90, 120))),
            "on one line",
        ),
    ],
)  # fmt: skip
def test_what_does_not_make_a_plan_is_told(plan: Plan, words: str) -> None:
    with pytest.raises(BadInput, match=words):
        calibrate(plan)


@pytest.mark.parametrize("photo", [False, True])
def test_a_sheet_seen_in_a_mirror_is_told_and_a_slip_of_the_pen_is_not(photo: bool) -> None:
    corners = ((0.0, 0.0), (400.0, 0.0), (0.0, 100.0), (400.0, 100.0), (200.0, 60.0))

    def sheet(up: float, last: float = 60.0) -> Plan:
        points = tuple(
            KnownPoint(pixel=(2000 + 10 * x, 1500 - up * 10 * y), plan=(x, y)) for x, y in corners
        )
        slip = points[-1].but(plan=(200.0, last))
        return Plan(id="p", image="plans/i.png", photo=photo, points=(*points[:-1], slip))

    with pytest.raises(BadInput, match="mirror"):
        calibrate(sheet(-1.0))
    assert calibrate(sheet(1.0)).skew == pytest.approx(0, abs=1e-6)
    wrong = calibrate(sheet(1.0, -60.0)).worst
    assert wrong is not None
    assert wrong.what == "point 5 y"


def test_picks_become_figures_at_the_stations() -> None:
    matrix = scan()
    top = np.array([[x, 40 + 10 * math.sin(x / 300)] for x in (0.0, 150, 300, 450, 600, 900)])
    low = np.array([[0.0, -30], [300, -40], [900, 5]])
    half = [[x, side * (25 - x / 60) - 150] for x in (0.0, 300, 600, 900) for side in (-1, 1)]
    views = {
        "side-top": top,
        "side-bottom": low,
        "plan-side": np.array(half),
        "plan-centre": np.array([[0.0, -150], [900, -150]]),
        "stations": np.array([[0.0, 3], [300, 8], [450, 1], [900, 2]]),
    }
    traces = tuple(
        Trace(id=kind, kind=kind, pixels=tuple(pixels_of(matrix, spots)))  # type: ignore[arg-type]
        for kind, spots in views.items()
    )
    plan = Plan(
        id="p", image="plans/i.png", points=known(matrix, CORNERS), traces=traces,
        origin=pixels_of(matrix, np.array([[0.0, 0.0]]))[0],
    )  # fmt: skip
    found = picked_stations(plan, calibrate(plan))
    assert [round(p.station) for p in found] == [0, 300, 450, 900]
    third = found[2]
    assert third.top == pytest.approx(40 + 10 * math.sin(1.5), abs=0.05)
    assert third.half_width == pytest.approx(25 - 7.5, abs=0.05)
    assert found[1].bottom == pytest.approx(-40, abs=0.05)
    with pytest.raises(BadInput, match="datum"):
        picked_stations(plan.but(origin=None), calibrate(plan))


def _unit_residuals(rng: np.random.Generator) -> tuple[list[float], int]:
    """Residuals of a scan clicked with the spread that the fit believes in, in that spread."""
    matrix = scan(rng.uniform(-0.2, 0.2), rng.uniform(0.97, 1.03), rng.uniform(0.97, 1.03))
    spots = rng.uniform([0, -100], [900, 100], (9, 2))
    made = known(matrix, spots, noise=PICK_SIGMA_PX, seed=int(rng.integers(1 << 30)))
    fit = calibrate(Plan(id="p", image="plans/p.png", points=made))
    size = PICK_SIGMA_PX * math.sqrt(fit.scale_x * fit.scale_y)
    return [one.mm / size for one in fit.residuals], fit.spare


def test_residuals_have_the_spread_of_the_clicks_that_made_them() -> None:
    """Sum of squares over degrees of freedom is one on the average: the fit takes no more than it may."""
    rng = np.random.default_rng(12)
    total, spare = 0.0, 0
    for _ in range(60):
        residuals, free = _unit_residuals(rng)
        total += sum(one**2 for one in residuals)
        spare += free
    assert total / spare == pytest.approx(1.0, abs=0.12)


@settings(max_examples=draws(8, 20))
@given(shift=st.tuples(st.floats(-500, 500), st.floats(-500, 500)), turn=st.floats(-3, 3))
def test_a_sheet_moved_or_turned_on_the_glass_gives_the_same_lengths(
    shift: tuple[float, float], turn: float
) -> None:
    """Only the known points say what is along: how the sheet lay in the scanner does not matter."""
    plan_spots = np.array([[100.0, 20], [700, -40], [350, 80]])
    lengths = []
    for angle in (0.0, turn):
        matrix = scan(angle)
        move = np.array(
            [[1.0, 0, -shift[0] * (angle != 0)], [0, 1, -shift[1] * (angle != 0)], [0, 0, 1]]
        )
        laid = matrix @ move
        fit = calibrate(Plan(id="p", image="plans/p.png", points=known(laid, CORNERS)))
        at = fit.to_plan(np.array(pixels_of(laid, plan_spots)))
        lengths.append([math.dist(at[i], at[j]) for i, j in ((0, 1), (1, 2), (0, 2))])
    assert lengths[0] == pytest.approx(lengths[1], abs=1e-4)


def test_more_is_never_less_a_second_length_along_sharpens_the_same_scale() -> None:
    matrix = scan()
    ends = pixels_of(matrix, np.array([[0.0, 0], [800, 0], [0, 40], [500, 40]]))
    one = KnownLength(a=ends[0], b=ends[1], length=800.0, along="x")
    two = KnownLength(a=ends[2], b=ends[3], length=500.4, along="x")
    single = calibrate(Plan(id="p", image="plans/p.png", lengths=(one,)))
    both = calibrate(Plan(id="p", image="plans/p.png", lengths=(one, two)))
    assert (single.kind, both.kind) == ("similar", "similar")
    assert both.spare > single.spare
    assert single.scale_x < both.scale_x < 500.4 / 500 * single.scale_x
    worst = both.worst
    assert worst is not None
    assert worst.what.startswith("length")


def test_photo_points_of_which_three_lie_in_line_are_refused() -> None:
    """They let the fit put a known 100 mm anywhere; well spread ones measure it."""
    matrix = scan(0.1)
    good = np.array([[0.0, 0], [300, 0], [300, 200], [0, 200]])
    for spots in (
        np.array([[0.0, 0], [150, 100], [300, 200], [0, 200]]),
        np.array([[0.0, 0], [150, 0.6], [300, 0], [0, 200]]),
    ):
        plan = Plan(
            id="p", image="plans/p.png", photo=True, points=known(matrix, spots, noise=0.7, seed=3)
        )
        with pytest.raises(BadInput, match="in line"):
            calibrate(plan)
    fit = calibrate(
        Plan(id="p", image="plans/p.png", photo=True, points=known(matrix, good, noise=0.7, seed=3))
    )
    a, b = fit.to_plan(np.array(pixels_of(matrix, np.array([[100.0, 50], [200, 50]]))))
    assert math.dist(a, b) == pytest.approx(100, abs=1.0)
    five = np.array(
        [[0.0, 0], [150, 0], [300, 0], [300, 200], [0, 200]]
    )  # three in line, and enough
    calibrate(Plan(id="p", image="plans/p.png", photo=True, points=known(matrix, five)))


def test_one_side_alone_gives_no_half_width_and_two_do() -> None:
    """Straight, tapering and bulging sides, clicked at their own places or abreast."""
    matrix = scan()
    stations = np.array([[x, 3.0] for x in (0.0, 300, 600, 900)])
    shapes: list[Callable[[float], float]] = [
        lambda x: 40 - x / 25,
        lambda x: 20 + 20 * math.sin(math.pi * x / 900),
        lambda _x: 30.0,
    ]
    for shape in shapes:
        for xs in (np.linspace(0, 900, 4), np.linspace(0, 900, 9)):
            one = np.array([[x, shape(x) - 150] for x in xs])
            two = np.array([[x, side * shape(x) - 150] for x in xs for side in (-1, 1)])
            for clicks, known_there in ((one, False), (two, True)):
                traces = tuple(
                    Trace(id=k, kind=k, pixels=tuple(pixels_of(matrix, spots)))  # type: ignore[arg-type]
                    for k, spots in (("plan-side", clicks), ("stations", stations))
                )
                plan = Plan(
                    id="p", image="plans/i.png", points=known(matrix, CORNERS), traces=traces,
                    origin=pixels_of(matrix, np.array([[0.0, 0.0]]))[0],
                )  # fmt: skip
                for row in picked_stations(plan, calibrate(plan)):
                    if known_there:
                        assert row.half_width == pytest.approx(shape(row.station), abs=0.7)
                    else:
                        assert row.half_width is None
