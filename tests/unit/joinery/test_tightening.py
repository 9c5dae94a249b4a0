"""Pieces laid tighter: all still there, gap and grain kept, on no more length; small ones in large cut-outs."""

from collections import Counter
from itertools import combinations

import numpy as np
import pytest

from hardkeel.base.errors import GivenUp
from hardkeel.joinery.cut_part import Stock
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, nested, sheets_to_buy, turns_of
from hardkeel.joinery.tightening import density_of, tightened
from tests.unit.joinery.test_nesting import SHEET, plank

GAP = 2.0


def odd(seed: int, count: int, **figures: object) -> list[FlatPiece]:
    rng = np.random.default_rng(seed)
    found: list[FlatPiece] = []
    while len(found) < count:
        corners = int(rng.integers(3, 9))
        turns = np.sort(rng.uniform(0, 2 * np.pi, corners))
        reach = rng.uniform(0.5, 1.0, corners) * rng.uniform(12, 40)
        ring = tuple(
            (float(1.6 * r * np.cos(t)), float(r * np.sin(t)))
            for r, t in zip(reach, turns, strict=True)
        )
        piece = FlatPiece(f"p{len(found)}", "odd", "odd", ring, grain=str(rng.choice(["u", "v", "any"])), **figures)  # type: ignore[arg-type]  # fmt: skip
        if piece.polygon.is_valid and piece.area > 50:
            found.append(piece)
    return found


def names(sheets: tuple[NestedSheet, ...]) -> Counter[str]:
    return Counter(placed.piece.name for sheet in sheets for placed in sheet.placed)


def check(sheets: tuple[NestedSheet, ...], gap: float) -> None:
    for sheet in sheets:
        shapes = [placed.polygon for placed in sheet.placed]
        for shape, placed in zip(shapes, sheet.placed, strict=True):
            left, low, right, high = shape.bounds
            assert min(left, low) >= -1e-6
            assert right <= sheet.length + 0.05
            assert high <= sheet.width + 1e-6
            assert placed.turn in turns_of(placed.piece)
        for one, other in combinations(shapes, 2):
            assert one.distance(other) >= gap - 0.01


@pytest.mark.parametrize("seed", range(3))
def test_nothing_is_lost_or_turned_against_its_grain_and_no_length_is_added(seed: int) -> None:
    before = nested(odd(seed, 14), SHEET, GAP)
    steps: list[int] = []
    after = tightened(before, GAP, 0.4, step=lambda done, _total: steps.append(done))
    check(after, GAP)
    assert names(after) == names(before)
    assert sum(one.used for one in after) < sum(one.used for one in before)
    assert density_of(after) > density_of(before)
    assert len(steps) > 2


def test_small_pieces_go_into_a_large_cut_out_and_keep_their_grain() -> None:
    ring = FlatPiece(
        "ring",
        "former",
        "ring",
        ((0, 0), (90, 0), (90, 90), (0, 90)),
        holes=(((8, 8), (82, 8), (82, 82), (8, 82)),),
        grain="u",
    )
    small = [plank(f"s{i}", 30.0, 12.0, grain="u") for i in range(3)]
    across = plank("across", 14.0, 30.0, grain="v")
    before = nested([ring, *small, across], SHEET, GAP)
    (after,) = tightened(before, GAP, 0.3)
    check((after,), GAP)
    assert after.used == pytest.approx(90.0, abs=0.2)


def test_a_piece_as_wide_as_the_sheet_and_one_longer_than_it_are_laid_all_the_same() -> None:
    pieces = [
        plank("wide", 60.0, 100.0, grain="u"),
        plank("long", 1300.0, 40.0, grain="u"),
        *odd(5, 5),
    ]
    before = nested(pieces, SHEET, GAP)
    after = tightened(before, GAP, 0.3)
    assert names(after) == names(before)
    check(after, GAP)


def test_pieces_that_want_two_sheets_are_on_two_and_none_lies_over_an_end() -> None:
    pieces = [plank("a", 180.0, 60.0, quantity=12, grain="u")]
    after = tightened(nested(pieces, SHEET, GAP), GAP, 0.3)
    assert len(after) == 3  # five in a row, and none beside another
    check(after, GAP)


def test_better_sheets_are_shown_as_they_come_and_it_leaves_off_at_once() -> None:
    shown: list[float] = []
    before = nested([*odd(1, 8, thickness=2.0), *odd(2, 8, thickness=3.0)], SHEET, GAP)
    tightened(before, GAP, 0.3, seen=lambda sheets: shown.append(density_of(sheets)))
    assert shown == sorted(shown)
    assert shown

    def stop(done: int, _total: int) -> None:
        raise GivenUp("stopped")

    with pytest.raises(GivenUp):
        tightened(before, GAP, 30.0, step=stop)


def test_off_cuts_are_used_up_before_a_sheet_is_bought() -> None:
    pieces = [
        plank("a", 120.0, 40.0, quantity=4, thickness=2.0, material="balsa-medium", grain="u")
    ]
    rack = (
        Stock(section=(2.0, 50.0), length=300.0, material="balsa-medium"),
        Stock(section=(3.0, 90.0), length=900.0, material="balsa-medium"),  # too thick
    )
    sheets = nested(pieces, SHEET, GAP, offcuts=rack)
    own = [one for one in sheets if one.own]
    assert [len(one.placed) for one in own] == [2]
    (bought,) = sheets_to_buy(sheets, SHEET)
    assert bought.sheets == 1
    assert sum(len(one.placed) for one in sheets) == 4
    assert tightened(sheets, GAP, 0.2)[0].own
