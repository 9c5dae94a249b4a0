"""The loft, the smooth-line check, and formers that are not on the plan."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.interpolate import CubicSpline

from hardkeel.airframe.kinds import CRUTCH, ON_BOARD, SHEET_BOX, STICK, fuselage_from
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.bending import tightest
from hardkeel.fuselage.fairing import bumps_of, stiffness
from hardkeel.fuselage.loft import former_at, loft_of
from hardkeel.fuselage.model import Former, Fuselage, TailPost
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.geometry.spline import NaturalCubic, arc_lengths
from tests.draws import draws
from tests.strategies import seeds


def fair(count: int = 9) -> Fuselage:
    """A fuselage whose three lines are sines: nothing on it is a bump."""

    def figures(x: float) -> dict[str, float]:
        return {
            "station": x,
            "half_width": 20 + 15 * math.sin(math.pi * x / 1000),
            "top": 30 + 20 * math.sin(math.pi * x / 900),
            "bottom": -30 - 8 * math.sin(math.pi * x / 800),
        }

    formers = tuple(
        Former.model_validate({"id": f"F{i}", **figures(float(x))})
        for i, x in enumerate(np.linspace(0, 800, count))
    )
    return Fuselage(formers=formers, tail_post=TailPost.model_validate(figures(900.0)))


def with_bump(fuselage: Fuselage, i: int, **off: float) -> Fuselage:
    former = fuselage.formers[i]
    changed = former.but(**{key: getattr(former, key) + mm for key, mm in off.items()})
    return fuselage.but(formers=(*fuselage.formers[:i], changed, *fuselage.formers[i + 1 :]))


@settings(max_examples=draws(13, 40))
@given(seed=seeds, count=st.integers(3, 12))
def test_the_spline_is_scipys_natural_cubic(seed: int, count: int) -> None:
    rng = np.random.default_rng(seed)
    x = np.cumsum(rng.uniform(20, 200, count))
    y = rng.uniform(-50, 50, count)
    ours, theirs = NaturalCubic(x, y), CubicSpline(x, y, bc_type="natural")
    at = np.linspace(x[0], x[-1], 50)
    assert ours.value(at) == pytest.approx(theirs(at), abs=1e-9)
    assert ours.slope(at) == pytest.approx(theirs(at, 1), abs=1e-10)
    assert ours.bend(at) == pytest.approx(theirs(at, 2), abs=1e-10)
    energy = sum(quad(lambda t: float(theirs(t, 2)) ** 2, a, b)[0] for a, b in pairwise(x))
    assert ours.energy == pytest.approx(energy, rel=1e-6)


def test_beyond_its_ends_it_goes_on_straight() -> None:
    curve = NaturalCubic(np.array([0.0, 1.0, 3.0]), np.array([0.0, 1.0, 0.0]))
    ends = curve.value(np.array([3.0, 4.0, 5.0]))
    assert ends[2] - ends[1] == pytest.approx(ends[1] - ends[0])
    assert float(NaturalCubic(np.array([2.0]), np.array([7.0])).value(9.0)) == 7.0


def test_developed_length_is_the_arc_length() -> None:
    curve = NaturalCubic(np.array([0.0, 300.0, 900.0]), np.array([0.0, 40.0, 5.0]))
    exact = quad(lambda t: math.hypot(1, float(curve.slope(t))), 0, 900, points=[300])[0]
    assert arc_lengths((curve,), np.array([0.0, 300.0, 900.0]))[-1] == pytest.approx(
        exact, abs=1e-7
    )


def test_a_fair_fuselage_has_no_bump() -> None:
    assert bumps_of(fair()) == ()
    for frame in (STICK, SHEET_BOX, CRUTCH, ON_BOARD):  # a drawn corner is no bump
        assert bumps_of(fuselage_from(frame, 0.0, 900.0, 85.0)) == ()


@pytest.mark.parametrize("line", ["half_width", "top", "bottom"])
@pytest.mark.parametrize("i", [1, 3, 6])
def test_a_bump_is_named_where_it_is_and_by_how_much(line: str, i: int) -> None:
    found = bumps_of(with_bump(fair(), i, **{line: 2.5}))
    assert (found[0].line, found[0].former) == (line, f"F{i}")
    assert found[0].off == pytest.approx(2.5, abs=0.4)
    assert len(found) == 1


def test_a_missing_former_comes_back_from_the_loft() -> None:
    whole = fair()
    without = whole.but(formers=tuple(f for f in whole.formers if f.id != "F4"))
    lost = whole.formers[4]
    made = former_at(without, lost.station, "F4")
    for figure in ("half_width", "top", "bottom"):
        assert getattr(made, figure) == pytest.approx(getattr(lost, figure), abs=0.15)
    check_fuselage(without.but(formers=(*without.formers, made)))


@pytest.mark.parametrize("station", [-5.0, 901.0, 100.2])
def test_a_former_is_refused_outside_and_where_one_stands(station: float) -> None:
    with pytest.raises(BadInput):
        former_at(fair(), station, "new")


def test_one_station_makes_no_loft() -> None:
    with pytest.raises(BadInput, match="two stations"):
        loft_of(Fuselage(formers=fair().formers[:1]))


@settings(max_examples=draws(13, 40))
@given(seed=seeds, count=st.integers(5, 14))
def test_a_pin_is_off_by_what_the_batten_without_it_says(seed: int, count: int) -> None:
    rng = np.random.default_rng(seed)
    x = np.cumsum(rng.uniform(20, 200, count))
    y = rng.uniform(-40, 40, count)
    stiff = stiffness(x)
    assert float(y @ stiff @ y) == pytest.approx(NaturalCubic(x, y).energy, rel=1e-8)
    for i in range(count):
        without = NaturalCubic(np.delete(x, i), np.delete(y, i))
        assert (stiff @ y)[i] / stiff[i, i] == pytest.approx(
            y[i] - float(without.value(x[i])), abs=1e-7
        )


def test_a_bump_on_any_starter_is_blamed_on_the_right_station() -> None:
    """Drawn corners and uneven gaps and all: over nine in ten, for two and three millimetres."""
    right = total = 0
    for frame in (STICK, SHEET_BOX, CRUTCH, ON_BOARD):
        fuselage = fuselage_from(frame, 0.0, 946.0, 87.0)
        for i in range(1, len(fuselage.formers)):
            for line in ("half_width", "top", "bottom"):
                for off in (-3.0, -2.0, 2.0, 3.0):
                    found = bumps_of(with_bump(fuselage, i, **{line: off}))
                    named = [bump for bump in found if bump.line == line]
                    total += 1
                    right += bool(named) and named[0].former == fuselage.formers[i].id
    assert right / total > 0.9


@pytest.mark.parametrize("seed", range(12))
def test_the_tightest_place_is_that_of_a_fine_walk_along_the_line(seed: int) -> None:
    rng = np.random.default_rng(seed)
    x = np.cumsum(rng.uniform(20, 150, int(rng.integers(2, 10))))
    y = rng.normal(0, (5.0, 60.0, 300.0)[seed % 3], len(x))
    if seed == 5:
        y = 1e-4 * (x - x.mean()) ** 2
    line = NaturalCubic(x, y)
    a, b = (x[0], x[-1]) if seed % 2 else (x[0] + 7.0, x[-1] - 11.0)
    curvature, at = tightest(line, a, b)
    walked = np.linspace(a, b, 400_001)
    found = np.abs(line.bend(walked)) / (1 + line.slope(walked) ** 2) ** 1.5
    assert curvature >= found.max() * (1 - 1e-9)
    assert curvature == pytest.approx(found.max(), rel=1e-3, abs=1e-12)
    assert a <= at <= b
