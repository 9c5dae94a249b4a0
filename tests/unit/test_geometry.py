import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.geometry.hull import convex_hull
from hardkeel.geometry.rotation import turns
from tests.strategies import small_angles


def test_positive_angles_turn_as_the_contract_says() -> None:
    matrices, _ = turns([(90, 0, 0), (0, 90, 0), (0, 0, 90)])
    starboard, forward = np.array([0.0, 1, 0]), np.array([-1.0, 0, 0])
    assert matrices[0] @ starboard == pytest.approx([0, 0, 1])  # starboard tip up
    assert matrices[1] @ forward == pytest.approx([0, 0, 1])  # leading edge up
    assert matrices[2] @ starboard == pytest.approx([-1, 0, 0])  # starboard tip forward


def test_yaw_turns_last_and_roll_first() -> None:
    matrices, _ = turns([(90, 0, 90)])
    assert matrices[0] @ np.array([0.0, 1, 0]) == pytest.approx([0, 0, 1])


@given(small_angles, small_angles, small_angles)
def test_a_turn_keeps_lengths_and_handedness(roll: float, pitch: float, yaw: float) -> None:
    matrices, _ = turns([(roll, pitch, yaw)])
    assert matrices[0] @ matrices[0].T == pytest.approx(np.eye(3), abs=1e-12)
    assert np.linalg.det(matrices[0]) == pytest.approx(1.0)


@given(small_angles, small_angles, small_angles)
def test_slopes_are_derivatives(roll: float, pitch: float, yaw: float) -> None:
    angles, step = np.array([roll, pitch, yaw]), 1e-5
    _, slopes = turns([(roll, pitch, yaw)])
    for k in range(3):
        up, down = angles.copy(), angles.copy()
        up[k] += step
        down[k] -= step
        both, _ = turns([(up[0], up[1], up[2]), (down[0], down[1], down[2])])
        assert slopes[0, k] == pytest.approx((both[0] - both[1]) / (2 * step), abs=1e-8)


@given(st.lists(st.tuples(st.integers(-50, 50), st.integers(-50, 50)), min_size=3, max_size=40))
def test_the_hull_holds_every_point(points: list[tuple[int, int]]) -> None:
    hull = convex_hull([(float(x), float(y)) for x, y in points])
    if len(hull) < 3:
        return
    for x, y in points:
        for i, (ax, ay) in enumerate(hull):
            bx, by = hull[(i + 1) % len(hull)]
            assert (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= -1e-9
