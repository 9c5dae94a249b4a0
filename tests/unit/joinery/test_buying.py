"""Strips to buy: every part comes out of one, none is over its length, and small cases are the best there is."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.joinery.buying import packing, purchases_of
from hardkeel.joinery.cut_part import CutPart, Stock
from hardkeel.joinery.patterns import by_patterns
from hardkeel.messages.frame import purchase_sentence
from tests.draws import draws

STOCK = 915.0


def fewest(lengths: list[float], stock: float) -> int:
    """The least number of strips, by trying every way to deal the parts out."""
    for count in range(1, len(lengths) + 1):
        for deal in product(range(count), repeat=len(lengths)):
            loads = [0.0] * count
            for part, strip in zip(lengths, deal, strict=True):
                loads[strip] += part
            if max(loads) <= stock + 1e-6:
                return count
    return len(lengths)


@pytest.mark.parametrize("seed", range(draws(12, 25)))
def test_small_lists_are_cut_from_the_fewest_strips_there_are(seed: int) -> None:
    rng = np.random.default_rng(seed)
    lengths = [round(float(x), 1) for x in rng.uniform(120, 700, int(rng.integers(2, 8)))]
    strips, bound = packing(lengths, STOCK)
    assert len(strips) == fewest(lengths, STOCK)
    assert bound <= len(strips)


@pytest.mark.property
@given(
    st.lists(st.floats(5, STOCK, allow_nan=False), min_size=1, max_size=25),
    st.sampled_from([0.0, 0.4, 1.5]),
)
def test_nothing_is_lost_and_no_strip_is_over_its_length(lengths: list[float], kerf: float) -> None:
    strips, bound = packing(lengths, STOCK, kerf)
    cut = sorted(length for strip in strips for length in strip)
    assert cut == pytest.approx(sorted(lengths), abs=1e-6)
    for strip in strips:
        assert sum(strip) + kerf * (len(strip) - 1) <= STOCK + 1e-3
    assert sum(lengths) / STOCK - 1e-6 <= bound <= len(strips)


def test_patterns_are_found_where_the_longest_first_is_not_the_best() -> None:
    """Longest first wants 3 strips of 100; 47 + 27 + 26 and 36 + 36 + 28 fill two to the last millimetre."""
    strips, bound = packing([47.0, 36.0, 36.0, 28.0, 27.0, 26.0], 100.0)
    assert (len(strips), bound) == (2, 2)
    assert all(sum(strip) == pytest.approx(100.0) for strip in strips)


def test_one_hundred_and_fifty_sticks_of_a_dozen_sizes_are_within_one_of_the_bound() -> None:
    rng = np.random.default_rng(4)
    sizes = rng.uniform(40, 400, 12)
    strips, bound = packing([float(x) for x in rng.choice(sizes, 150)], STOCK)
    assert len(strips) <= bound + 1


def test_a_sliver_thinner_than_the_patterns_are_fine_is_cut_too() -> None:
    lengths = [306.0, 455.0, 306.0, 306.0, 305.0, 0.04, 0.0]
    strips, bound = packing(lengths, STOCK)
    assert sorted(length for strip in strips for length in strip) == sorted(lengths)
    assert len(strips) == bound == fewest(lengths, STOCK)


def test_the_saw_takes_its_part_but_for_the_last_cut() -> None:
    """Three of 304 with two cuts of 1.5 fill 915 to the millimetre; a hair more does not fit."""
    assert len(packing([304.0] * 3, 915.0, 1.5)[0]) == 1
    assert len(packing([304.0] * 3, 915.0, 1.6)[0]) == 2
    [one] = purchases_of(
        [CutPart("p", "upright", 3, (5.0, 5.0), 304.0, (), "balsa-medium")], kerf=1.6
    )
    assert sorted(map(len, one.cuts)) == [1, 2]


def random_list(seed: int, low: float, high: float, count: int = 150) -> list[float]:
    return [float(x) for x in np.random.default_rng(seed).uniform(low, high, count)]


@pytest.mark.parametrize("seed", range(6))
@pytest.mark.parametrize("span", [(30.0, 120.0), (20.0, 300.0), (60.0, 250.0)])
def test_a_frames_one_hundred_and_fifty_sticks_are_proven_fewest(
    seed: int, span: tuple[float, float]
) -> None:
    lengths = random_list(seed, *span)
    strips, bound = packing(lengths, STOCK, 0.6)
    assert len(strips) == bound
    assert sorted(length for strip in strips for length in strip) == pytest.approx(sorted(lengths))


def test_long_parts_are_within_a_strip_of_the_bound() -> None:
    for seed in range(3):
        lengths = random_list(seed, 200.0, 460.0, 60)
        strips, bound = packing(lengths, STOCK)
        assert bound <= len(strips) <= bound + 1
        assert all(sum(strip) <= STOCK + 1e-6 for strip in strips)


@pytest.mark.parametrize("seed", range(10))
def test_the_bound_never_says_more_than_there_is(seed: int) -> None:
    """Against trying everything: what the linear programme proves must be true."""
    rng = np.random.default_rng(100 + seed)
    lengths = [round(float(x), 2) for x in rng.uniform(150, 500, int(rng.integers(4, 8)))]
    _, bound = by_patterns(lengths, STOCK, [[length] for length in lengths], 1)
    assert bound <= fewest(lengths, STOCK)


def test_the_rack_is_used_before_anything_is_bought() -> None:
    parts = [CutPart(f"u{i}", "upright", 2, (5.0, 5.0), 100.0, (), "spruce") for i in range(6)]
    rack = (
        Stock(section=(5.0, 5.0), length=305.0, pieces=2, material="spruce"),
        Stock(section=(6.0, 5.0), length=900.0, material="spruce"),
    )
    (bought,) = purchases_of(parts, 1.0, rack)
    assert bought.own == ((305.0, (100.0,) * 3), (305.0, (100.0,) * 3))
    assert bought.pieces == 1
    assert bought.cuts == ((100.0,) * 6,)
    assert bought.at_least <= bought.pieces
    (without,) = purchases_of(parts, 1.0)
    assert without.own == ()
    assert without.cuts != bought.cuts


def test_a_rack_that_holds_everything_leaves_nothing_to_buy() -> None:
    parts = [CutPart("u", "upright", 2, (5.0, 5.0), 100.0, (), "spruce")]
    (bought,) = purchases_of(
        parts, 0.0, (Stock(section=(5.0, 5.0), length=500.0, material="spruce"),)
    )
    assert (bought.pieces, bought.at_least, bought.cuts) == (0, 0, ())
    assert "rack will do" in purchase_sentence(bought, "mm")


def test_triangular_strips_are_bought_by_themselves() -> None:
    square = CutPart("a", "corner-strip", 2, (6.0, 6.0), 100.0, (), "balsa-medium")
    parts = [square, replace(square, triangular=True)]
    assert [one.triangular for one in purchases_of(parts)] == [False, True]


def test_what_is_left_of_each_strip_is_told() -> None:
    parts = [CutPart("u", "upright", 4, (5.0, 5.0), 200.0, (), "spruce")]
    (bought,) = purchases_of(parts, 1.0)
    assert bought.left(1.0) == pytest.approx((915.0 - 800.0 - 3.0,))
