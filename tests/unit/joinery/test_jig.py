"""The jig is set as seldom as can be: against every order there is, for small lists."""

from itertools import permutations

import numpy as np
import pytest

from hardkeel.demo.fleet import withy
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.jig import ALIKE_DEGREES, jig_order, settings_needed
from tests.draws import draws


def stick(name: str, a: float, b: float, section: tuple[float, float] = (5.0, 5.0)) -> CutPart:
    return CutPart(name, "diagonal", 2, section, 50.0, ((a,), (b,)), None, key=name)


CURVE = (42.0, 43.0, 44.0, 45.0)  # an end against a curve: it is fitted, not set


def against_a_curve(name: str, *angles: float) -> CutPart:
    """A stick with one straight end, or none."""
    ends = (*((a,) for a in angles), CURVE, CURVE)[:2]
    return CutPart(name, "diagonal", 2, (5.0, 5.0), 50.0, ends, None, key=name)


def fewest(ways: set[tuple[float, float]]) -> int:
    """Settings of the best order of all, each batch cut either end first."""
    best = 10**9
    for order in permutations(ways):
        now: dict[float | None, int] = {None: 0}
        for a, b in order:
            after: dict[float | None, int] = {}
            for setting, count in now.items():
                for first, last in ((a, b), (b, a)):
                    sets = count + (first != setting) + (last != first)
                    after[last] = min(after.get(last, 10**9), sets)
            now = after
        best = min(best, *now.values())
    return best


@pytest.mark.parametrize("seed", range(draws(25, 60)))
def test_no_order_sets_the_jig_less_often(seed: int) -> None:
    rng = np.random.default_rng(seed)
    angles = 20.0 + 5 * np.arange(int(rng.integers(2, 6)))
    parts = [
        stick(f"d{i}", float(rng.choice(angles)), float(rng.choice(angles)))
        for i in range(int(rng.integers(1, 7)))
    ]
    ways = {(min(p.ends[0][0], p.ends[1][0]), max(p.ends[0][0], p.ends[1][0])) for p in parts}
    fitted = [
        against_a_curve(f"f{i}", *rng.choice(angles, int(rng.integers(0, 2))).tolist())
        for i in range(int(rng.integers(0, 3)))
    ]
    steps = jig_order([*parts, *fitted])
    assert sorted(s.part.name for s in steps) == sorted(p.name for p in (*parts, *fitted))
    ways |= {
        (p.ends[0][0],) * 2 for p in fitted if p.ends[0] != CURVE
    }  # one setting, as ends alike
    assert settings_needed(steps) == fewest(ways)


def test_settings_said_are_those_that_are_made() -> None:
    """Walking through the steps with a jig in hand needs as many settings as are counted."""
    rng = np.random.default_rng(3)
    parts = [
        stick(f"d{i}", float(rng.uniform(20, 90)), float(rng.uniform(20, 90))) for i in range(40)
    ]
    parts += [against_a_curve(f"f{i}", float(rng.uniform(20, 90))) for i in range(6)]
    now, made = None, 0
    for step in jig_order(parts):
        if not step.sets:
            assert now in step.settings
            continue
        for setting in step.settings:
            made += setting != now
            now = setting
    assert made == settings_needed(jig_order(parts))


def test_an_end_against_a_curve_takes_no_setting() -> None:
    one, none = against_a_curve("one", 62.0), against_a_curve("none")
    by_name = {step.part.name: step for step in jig_order([none, one])}
    assert (by_name["one"].settings, by_name["one"].sets) == ((62.0,), 1)
    assert by_name["one"].by_end == (62.0, None)
    assert (by_name["none"].settings, by_name["none"].sets) == ((), 0)
    assert by_name["none"].by_end == (None, None)
    assert settings_needed(jig_order([none])) == 0


def test_angles_within_half_a_degree_share_a_setting_and_others_do_not() -> None:
    steps = jig_order([stick("a", 50.0, 50.4), stick("b", 50.2, 50.0), stick("c", 51.2, 51.2)])
    assert settings_needed(steps) == 2
    for step in steps:
        for end, setting in zip(step.part.ends, sorted(step.settings), strict=True):
            assert abs(end[0] - setting) <= ALIKE_DEGREES / 2 + 1e-9


def test_each_size_of_wood_is_cut_by_itself() -> None:
    steps = jig_order([
        stick("a", 40, 60), stick("b", 40, 60, (3.0, 8.0)), stick("c", 40, 60), stick("d", 60, 70),
    ])  # fmt: skip
    sections = [step.part.section for step in steps]
    assert sections == [(5.0, 5.0)] * 3 + [(3.0, 8.0)]


def test_a_pointed_end_is_set_by_its_first_face() -> None:
    part = CutPart("d", "diagonal", 2, (5.0, 5.0), 50.0, ((62.0, 25.0), (62.0,)), None)
    (step,) = jig_order([part])
    assert step.settings == (62.0, 62.0)
    assert step.sets == 1


def test_the_stick_demo_saves_more_than_half() -> None:
    fuselage = withy().fuselage
    assert fuselage is not None
    steps = jig_order(cut_list_of(fuselage))
    assert settings_needed(steps) < 0.5 * 2 * len(steps)
