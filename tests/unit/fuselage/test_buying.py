"""Strips to buy: every part comes out of one, none is over its length, and small cases are the best there is."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.fuselage.buying import packing, purchases_of
from hardkeel.fuselage.cut_list import CutPart

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


@pytest.mark.parametrize("seed", range(25))
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
