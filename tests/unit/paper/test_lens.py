"""A photograph's lens, and how well a sheet tells what is picked on it: held against a pinhole camera of our own."""

import math

import numpy as np
import pytest
from scipy.optimize import least_squares

from hardkeel.paper.calibrating import PICK_SIGMA_PX, calibrate
from hardkeel.paper.lens import Lens
from hardkeel.paper.model import KnownLength, KnownPoint, Plan

WIDE, TALL = 4000, 3000
SPREAD = [(x, y) for y in (-120.0, 0.0, 120.0) for x in (0.0, 130.0, 260.0, 390.0)]
FEW = [(0.0, -120.0), (390.0, -120.0), (390.0, 120.0), (0.0, 120.0), (0.0, 0.0), (390.0, 0.0)]


def seen(points: object, k1: float, lean: tuple[float, float] = (6.0, -4.0)) -> np.ndarray:
    """Where a telephone over a sheet sees its points (mm, y up): turned, pushed back, bent."""
    a, b = (math.radians(one) for one in lean)
    turn = np.array([[1, 0, 0], [0, math.cos(a), -math.sin(a)], [0, math.sin(a), math.cos(a)]])
    roll = np.array([[math.cos(b), 0, math.sin(b)], [0, 1, 0], [-math.sin(b), 0, math.cos(b)]])
    rows = (np.array(points) - (195.0, 0.0)) * (1.0, -1.0)
    placed = np.column_stack([rows, np.zeros(len(rows))]) @ (turn @ roll).T + (0.0, 0.0, 420.0)
    flat = placed[:, :2] / placed[:, 2:]
    bent = flat * (1 + k1 * (flat**2).sum(axis=1))[:, None]
    return np.asarray(bent * 0.75 * WIDE + (WIDE / 2, TALL / 2))


def photo(points: list[tuple[float, float]], k1: float, seed: int | None = None) -> Plan:
    spots = seen(points, k1)
    if seed is not None:
        spots = spots + np.random.default_rng(seed).normal(size=spots.shape) * PICK_SIGMA_PX
    known = tuple(
        KnownPoint(pixel=(float(u), float(v)), plan=p)
        for (u, v), p in zip(spots, points, strict=True)
    )
    return Plan(id="p", image="plans/p.jpg", photo=True, size=(WIDE, TALL), points=known)


@pytest.mark.parametrize("k1", [-0.15, -0.03, 0.0, 0.06, 0.12])
def test_a_lens_bends_and_is_straightened_again(k1: float) -> None:
    lens = Lens((2000.0, 1500.0), 3000.0, k1)
    spots = np.random.default_rng(2).uniform((0, 0), (4000, 3000), size=(50, 2))
    assert np.allclose(lens.straightened(lens.bent(spots)), spots, atol=1e-6)


@pytest.mark.parametrize("k1", [-0.06, 0.03, 0.08])
def test_points_all_over_the_sheet_tell_the_lens(k1: float) -> None:
    fit = calibrate(photo(SPREAD, k1))
    assert fit.lens.k1 == pytest.approx(k1, abs=0.003)
    assert fit.lens_sigma < 0.01
    between = [(65.0, 60.0), (200.0, -60.0), (330.0, 90.0)]
    assert np.abs(fit.to_plan(seen(between, k1)) - between).max() < 0.03
    assert np.abs(fit.to_pixel(np.array(between)) - seen(between, k1)).max() < 0.2


def test_the_fit_is_that_of_a_camera_adjusted_by_itself() -> None:
    """The same clicks by another way: pose, focal length held, k1; SciPy's own slopes."""
    plan = photo(SPREAD, 0.05, seed=4)
    spots = np.array([p.pixel for p in plan.points])
    wanted = np.array([p.plan for p in plan.points])

    def off(h: np.ndarray) -> np.ndarray:
        """A homography's eight, from the plan to the picture, and k1; what is off in the picture."""
        matrix = np.append(h[:8], 1.0).reshape(3, 3)
        rows = np.column_stack([wanted / 100.0, np.ones(len(wanted))]) @ matrix.T
        flat = rows[:, :2] / rows[:, 2:]
        bent = flat * (1 + h[8] * (flat**2).sum(axis=1))[:, None]
        return np.append(
            ((bent * 3000 + (2000, 1500) - spots) / PICK_SIGMA_PX).ravel(), h[8] / 0.05
        )

    start = np.array([0.24, 0, -0.46, 0, -0.24, 0, 0, 0, 0.0])
    other = least_squares(off, start, x_scale="jac", xtol=1e-14, ftol=1e-14, gtol=1e-14)
    fit = calibrate(plan)
    assert fit.lens.k1 == pytest.approx(other.x[8], abs=2e-3)
    assert fit.lens_sigma == pytest.approx(
        math.sqrt(np.linalg.inv(other.jac.T @ other.jac)[8, 8]), rel=0.1
    )


@pytest.mark.parametrize("points", [FEW, SPREAD])
def test_figures_lie_within_what_is_told_of_them(points: list[tuple[float, float]]) -> None:
    """Over lenses as lenses are: errors over told sigmas have a spread of about one, and none is beyond four."""
    rng = np.random.default_rng(7)
    places = np.array([(40.0, 10.0), (195.0, 60.0), (250.0, -50.0), (350.0, 20.0)])
    zero = np.array([(0.0, 0.0)])
    ratios = []
    for seed in range(60):
        k1 = float(rng.normal() * 0.05)
        fit = calibrate(photo(points, k1, seed))
        spots, origin = (
            seen(one, k1) + rng.normal(size=(len(one), 2)) * 0.7 for one in (places, zero)
        )
        off = fit.to_plan(spots) - fit.to_plan(origin) - (places - zero)
        ratios.append(off / fit.sigma_between(spots, np.repeat(origin, len(places), axis=0)))
    every = np.array(ratios)
    assert 0.75 < float(np.sqrt((every**2).mean())) < 1.25
    assert np.abs(every).max() < 4.2


def test_six_points_at_the_edges_do_not_vouch_for_the_middle() -> None:
    few, many = (calibrate(photo(points, 0.05, 3)) for points in (FEW, SPREAD))
    middle, corner = seen([(195.0, 40.0)], 0.05), seen([(0.0, 0.0)], 0.05)
    told = [fit.sigma_between(middle, corner, clicked=0.0).max() for fit in (few, many)]
    assert told[0] > 1.5 * told[1]


def test_two_lengths_that_the_map_is_made_from_check_nothing() -> None:
    lengths = (
        KnownLength(a=(100.0, 100.0), b=(2100.0, 101.0), length=200.0, along="x"),
        KnownLength(a=(100.0, 100.0), b=(100.0, 1100.0), length=100.0, along="y"),
    )
    fit = calibrate(Plan(id="p", image="plans/p.png", lengths=lengths))
    assert all("across" in one.what or "square" in one.what for one in fit.checked), fit.checked
    third = KnownLength(a=(300.0, 300.0), b=(2309.0, 301.0), length=200.0, along="x")
    more = calibrate(Plan(id="p", image="plans/p.png", lengths=(*lengths, third)))
    assert more.worst is not None
    assert abs(more.worst.off) == pytest.approx(0.9, abs=0.15)  # nine pixels of a tenth
