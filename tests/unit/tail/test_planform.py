"""Outlines: areas, mean chord and aspect ratio by formula and by brute sum; traced ones; tips."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.tail.model import TailSurface, Tip
from hardkeel.tail.planform import planform_of


def surface(**more: object) -> TailSurface:
    return TailSurface.model_validate(
        {
            "id": "stab",
            "span": 400.0,
            "root_chord": 120.0,
            "tip_chord": 80.0,
            "sweep_le": 15.0,
            **more,
        }
    )


@given(st.floats(100, 900), st.floats(40, 200), st.floats(20, 200), st.floats(-40, 80))
def test_a_straight_taper_by_the_textbook(
    span: float, root: float, tip: float, sweep: float
) -> None:
    planform = planform_of(surface(span=span, root_chord=root, tip_chord=tip, sweep_le=sweep))
    taper = tip / root
    mean = 2 / 3 * root * (1 + taper + taper**2) / (1 + taper)
    out = span / 6 * (1 + 2 * taper) / (1 + taper)
    assert planform.area == pytest.approx(span * (root + tip) / 2)
    assert planform.aspect == pytest.approx(span**2 / planform.area)
    got = planform.mean_chord()
    assert got[0] == pytest.approx(mean, rel=1e-6)
    assert got[1] == pytest.approx(out, rel=1e-6)
    assert got[2] == pytest.approx(sweep * out / (span / 2), abs=1e-3)


def test_an_elliptic_tip_is_an_ellipse() -> None:
    made = surface(
        tip_chord=120.0, sweep_le=0.0, tip=Tip(shape="elliptic", length=60.0, form_at=0.5)
    )
    wanted = 2 * (120 * 140 + math.pi / 4 * 60 * 120)
    assert planform_of(made).area == pytest.approx(wanted, rel=2e-4)
    rounded = surface(tip_chord=120.0, sweep_le=0.0, tip=Tip(shape="rounded", length=60.0))
    block = surface(tip_chord=120.0, sweep_le=0.0, tip=Tip(shape="block", length=60.0))
    assert planform_of(made).area < planform_of(rounded).area < planform_of(block).area


def test_a_traced_outline_is_taken_as_it_is() -> None:
    ring = ((0.0, 0.0), (10.0, 120.0), (30.0, 190.0), (60.0, 200.0), (95.0, 180.0), (118.0, 60.0), (120.0, 0.0))  # fmt: skip
    planform = planform_of(surface(outline=ring))
    shoelace = abs(
        sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:] + ring[:1], strict=True))
    )
    assert planform.area == pytest.approx(shoelace, rel=1e-9)
    assert planform.half == 200.0
    for x, y in ring:
        assert min(abs(float(planform.leading(y)) - x), abs(float(planform.trailing(y)) - x)) < 1e-9


def test_a_square_traced_tip_keeps_both_corners() -> None:
    ring = ((0.0, 0.0), (12.0, 200.0), (92.0, 200.0), (110.0, 0.0))
    planform = planform_of(surface(outline=ring))
    assert float(planform.trailing(200.0)) == pytest.approx(92.0)
    assert float(planform.leading(200.0)) == pytest.approx(12.0)
    assert planform.area == pytest.approx(2 * 200 * (110 + 80) / 2)


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"span": None}, "span"),
        ({"root_chord": None}, "root_chord"),
        ({"outline": ((0.0, 0.0), (5.0, 100.0))}, "three points"),
        (
            {"outline": ((0.0, 0.0), (5.0, 90.0), (6.0, 50.0), (9.0, 120.0), (90.0, 0.0))},
            "doubles back",
        ),
        ({"outline": ((0.0, 20.0), (5.0, 90.0), (90.0, 0.0))}, "in the middle"),
    ],
)
def test_what_is_no_outline_is_refused(more: dict[str, object], said: str) -> None:
    with pytest.raises(BadInput) as told:
        planform_of(surface(**more))
    assert said in str(told.value)


def test_mean_chord_against_a_brute_sum() -> None:
    planform = planform_of(surface(tip=Tip(shape="rounded", length=90.0)))
    y = (np.arange(200_000) + 0.5) * planform.half / 200_000
    chord = planform.chord(y)
    assert planform.mean_chord()[0] == pytest.approx(np.sum(chord**2) / np.sum(chord), rel=1e-5)
