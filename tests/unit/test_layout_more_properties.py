"""More properties of the core of Lay out: battens, developed lengths, lists, weights."""

import csv
import io

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.spline import NaturalCubic, arc_lengths
from hardkeel.parts.lists import compare, name_key, read_list
from hardkeel.parts.model import Listed, Part
from hardkeel.parts.swapping import Choice, Ply, figures_of, laminate_of
from hardkeel.parts.woods import WOODS, woods_with
from tests.builds import fuselages
from tests.draws import draws
from tests.strategies import seeds

BY_ID = woods_with({})
materials = st.sampled_from([wood.id for wood in WOODS])
part_names = st.text(alphabet="abcdefgh XYZ0123456789-", min_size=1, max_size=12).filter(
    lambda text: bool(text.strip(" -"))
)


@settings(max_examples=draws(13, 40))
@given(seed=seeds)
def test_a_batten_bends_as_little_as_it_can(seed: int) -> None:
    """Of all curves through the pins the natural cubic has the least bending energy."""
    rng = np.random.default_rng(seed)
    x = np.cumsum(rng.uniform(30, 150, 7))
    curve = NaturalCubic(x, rng.uniform(-30, 30, 7))
    fine = np.linspace(x[0], x[-1], 4001)
    # a bump that is zero at every pin
    wave = np.prod([np.sin((fine - pin) / 200) for pin in x], axis=0)
    step = fine[1] - fine[0]

    def energy(heights: np.ndarray) -> float:
        bends = np.diff(heights, 2) / step**2
        return float(np.sum(bends**2) * step)

    least = energy(curve.value(fine))
    assert least == pytest.approx(curve.energy, rel=0.02)
    for amount in (-3.0, 0.5, 4.0):
        assert energy(curve.value(fine) + amount * wave) >= least * (1 - 1e-6)


@settings(max_examples=draws(16, 50))
@given(fuselage=fuselages())
def test_a_bent_side_is_never_shorter_than_its_drawing(fuselage: Fuselage) -> None:
    loft = loft_of(fuselage)
    developed, flat = loft.developed(), loft.stations - loft.stations[0]
    assert developed[0] == 0
    assert np.all(np.diff(developed) >= np.diff(flat) - 1e-9)
    longeron = arc_lengths((loft.half_width, loft.top), loft.stations)
    assert np.all(longeron >= developed - 1e-9)


rows = st.lists(st.tuples(part_names, st.integers(0, 99)), min_size=1, max_size=12)


@given(rows=rows, sign=st.sampled_from([",", ";", "\t"]), headed=st.booleans())
def test_a_list_written_by_any_program_is_read_back(
    rows: list[tuple[str, int]], sign: str, headed: bool
) -> None:
    out = io.StringIO()
    writer = csv.writer(out, delimiter=sign, lineterminator="\r\n")
    writer.writerow(["Part", "Qty"] if headed else ["first part", "3"])
    writer.writerows(rows)
    found = read_list(out.getvalue())
    got = [(one.name, one.quantity) for one in found]
    wanted = [(name.strip(), count) for name, count in rows]
    assert got == (wanted if headed else [("first part", 3), *wanted])


@given(names=st.lists(part_names, min_size=1, max_size=8, unique_by=name_key))
def test_lists_that_agree_have_no_difference_in_any_order(names: list[str]) -> None:
    parts = tuple(Part(id=f"p{i}", name=name, kind="x") for i, name in enumerate(names))
    listed = [Listed(name=name.upper(), quantity=1) for name in reversed(names)]
    assert compare(parts, listed, listed) == ()
    short = compare(parts, listed[1:], ())
    assert [(one.drawing, one.printed, one.box) for one in short] == [(1, 0, None)] * bool(
        listed[1:]
    )


@given(
    a=materials,
    b=materials,
    thick=st.floats(0.2, 8),
    width=st.floats(5, 80),
    times=st.floats(1.1, 3),
)
def test_stiffness_goes_with_the_cube_and_mass_with_the_first_power(
    a: str, b: str, thick: float, width: float, times: float
) -> None:
    one = figures_of(Choice(a, 100.0, width, thick), BY_ID)
    more = figures_of(Choice(a, 100.0, width, thick * times), BY_ID)
    assert more.flat / one.flat == pytest.approx(times**3)
    assert more.mass / one.mass == pytest.approx(times)
    assert more.breaks_flat / one.breaks_flat == pytest.approx(times**2)
    # a sandwich is at least as stiff as its plies lying loose on each other
    loose = 2 * figures_of(Choice(b, 100.0, width, thick), BY_ID).flat + one.flat
    sandwich = laminate_of([Ply(b, thick), Ply(a, thick), Ply(b, thick)], width, 100.0, BY_ID)
    assert sandwich.flat >= loose * (1 - 1e-9)
    assert sandwich.neutral == pytest.approx(1.5 * thick)
