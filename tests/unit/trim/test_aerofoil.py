"""The thin-aerofoil integrals against closed forms, quadrature and published figures."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad

from hardkeel.tail.own_sections import own_section
from hardkeel.trim.aerofoil import thin_aerofoil


def line(z: object, count: int = 4001) -> np.ndarray:
    x = (1 - np.cos(np.linspace(0, np.pi, count))) / 2
    return np.column_stack([x, z(x)])  # type: ignore[operator]


def test_a_parabola_has_its_closed_form() -> None:
    # z = 4h·x(1 − x): α₀ = −2h radians, c_m = −πh
    angle, moment = thin_aerofoil(line(lambda x: 4 * 0.03 * x * (1 - x)))
    assert math.radians(angle) == pytest.approx(-0.06, rel=1e-5)
    assert moment == pytest.approx(-math.pi * 0.03, rel=1e-5)


@given(st.floats(0.01, 0.06), st.floats(0.25, 0.75))
def test_the_four_digit_mean_line_agrees_with_quadrature(camber: float, place: float) -> None:
    def slope(x: float) -> float:
        part = place if x < place else 1 - place
        return 2 * camber / part**2 * (place - x)

    def height(x: np.ndarray) -> np.ndarray:
        ahead = camber / place**2 * (2 * place * x - x**2)
        aft = camber / (1 - place) ** 2 * (1 - 2 * place + 2 * place * x - x**2)
        return np.asarray(np.where(x < place, ahead, aft))

    kink = math.acos(1 - 2 * place)

    def integral(weight: object) -> float:
        return sum(
            quad(lambda t: slope((1 - math.cos(t)) / 2) * weight(t), a, b)[0]  # type: ignore[operator]
            for a, b in ((0, kink), (kink, math.pi))
        )

    angle, moment = thin_aerofoil(line(height))
    assert math.radians(angle) == pytest.approx(
        -integral(lambda t: math.cos(t) - 1) / math.pi, abs=2e-5
    )
    assert moment == pytest.approx(integral(lambda t: math.cos(2 * t) - math.cos(t)) / 2, abs=2e-5)


@pytest.mark.parametrize(
    ("name", "angle", "moment"),
    # I. H. Abbott and A. E. von Doenhoff, "Theory of wing sections": the theoretical figures of their mean lines
    [("2412", -2.08, -0.053), ("4412", -4.15, -0.106), ("0012", 0.0, 0.0)],
)
def test_published_sections(name: str, angle: float, moment: float) -> None:
    section = own_section(name)
    assert section is not None
    got = thin_aerofoil(section.mean_line)
    # half way between the surfaces is not quite the line that the thickness was laid about
    assert got[0] == pytest.approx(angle, abs=0.1)
    assert got[1] == pytest.approx(moment, abs=0.002)


@given(st.floats(-5, 5))
def test_turning_the_axis_turns_the_angle_and_leaves_the_moment(turn: float) -> None:
    section = own_section("4412")
    assert section is not None
    mean = section.mean_line
    turned = mean + np.column_stack(
        [np.zeros(len(mean)), math.tan(math.radians(turn)) * mean[:, 0]]
    )
    angle, moment = thin_aerofoil(mean)
    after, same = thin_aerofoil(turned)
    assert after - angle == pytest.approx(math.degrees(math.tan(math.radians(turn))), abs=1e-9)
    assert same == pytest.approx(moment, abs=1e-12)
