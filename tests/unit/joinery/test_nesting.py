"""Pieces on sheets: none over the edge, none over another, grain kept, every piece there."""

from collections import Counter
from itertools import combinations

import numpy as np
import pytest

from hardkeel.base.errors import GivenUp
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, nested, sheets_to_buy

SHEET = (1000.0, 100.0)


def plank(name: str, along: float, across: float, **figures: object) -> FlatPiece:
    ring = ((0.0, 0.0), (along, 0.0), (along, across), (0.0, across))
    return FlatPiece(name, "plank", name, ring, **figures)  # type: ignore[arg-type]


def check(sheets: tuple[NestedSheet, ...], gap: float) -> None:
    for sheet in sheets:
        shapes = [placed.polygon for placed in sheet.placed]
        for shape in shapes:
            left, low, right, high = shape.bounds
            assert left >= -1e-6
            assert low >= -1e-6
            assert right <= sheet.length + 1e-6
            assert high <= sheet.width + 1e-6
        for one, other in combinations(shapes, 2):
            assert one.distance(other) >= gap - 1e-6


@pytest.mark.property
@pytest.mark.parametrize("seed", range(8))
def test_no_piece_lies_over_an_edge_or_another(seed: int) -> None:
    rng = np.random.default_rng(seed)
    pieces = []
    for i in range(int(rng.integers(3, 16))):
        corners = int(rng.integers(3, 9))
        turns = np.sort(rng.uniform(0, 2 * np.pi, corners))
        size = rng.uniform(8, 45)
        ring = tuple((float(size * 2 * np.cos(t)), float(size * np.sin(t))) for t in turns)
        piece = FlatPiece(f"p{i}", "odd", f"p{i}", ring, grain=str(rng.choice(["u", "v", "any"])))  # type: ignore[arg-type]
        if piece.polygon.is_valid and piece.area > 1:
            pieces.append(piece)
    gap = float(rng.choice([0.0, 2.0, 5.0]))
    sheets = nested(pieces, SHEET, gap)
    check(sheets, gap)
    lying = Counter(placed.piece.name for sheet in sheets for placed in sheet.placed)
    assert lying == Counter(piece.name for piece in pieces)
    for sheet in sheets:
        for placed in sheet.placed:
            assert (
                placed.turn
                in {"u": (0, 180), "v": (90, 270), "any": (0, 90, 180, 270)}[placed.piece.grain]
            )
            assert placed.polygon.area == pytest.approx(placed.piece.area)


def test_pieces_that_fill_a_sheet_take_one() -> None:
    sheets = nested([plank("a", 246.0, 47.0, quantity=8)], SHEET, 1.0)
    assert len(sheets) == 1
    check(sheets, 1.0)
    assert sheets[0].waste == pytest.approx(100 * (1 - 8 * 246 * 47 / 1e5))


def test_grain_across_turns_a_piece() -> None:
    (sheet,) = nested([plank("panel", 80.0, 60.0, grain="v")], SHEET)
    (placed,) = sheet.placed
    left, low, right, high = placed.polygon.bounds
    assert (right - left, high - low) == pytest.approx((60.0, 80.0))


def test_one_of_a_pair_is_turned_over() -> None:
    lame = FlatPiece(
        "side", "side", "side", ((0, 0), (90, 0), (90, 30), (0, 10)), quantity=2, pair=True
    )
    (sheet,) = nested([lame], SHEET)
    one, other = (placed.piece for placed in sheet.placed)
    assert set(one.mirrored().outline) == set(other.outline)
    assert one.outline != other.outline


def test_woods_and_thicknesses_do_not_share_a_sheet() -> None:
    sheets = nested(
        [
            plank("a", 50, 50, material="balsa-medium", thickness=2.0),
            plank("b", 50, 50, material="balsa-medium", thickness=3.0),
            plank("c", 50, 50, material="light-ply", thickness=2.0),
        ],
        SHEET,
    )
    assert [(s.material, s.thickness) for s in sheets] == [
        ("balsa-medium", 2.0), ("balsa-medium", 3.0), ("light-ply", 2.0)
    ]  # fmt: skip


def test_what_is_larger_than_a_sheet_lies_on_joined_ones() -> None:
    sheets = nested([plank("side", 1300.0, 150.0, material="balsa-medium")], SHEET)
    (sheet,) = sheets
    assert (sheet.length, sheet.width, sheet.joined) == (2000.0, 200.0, 4)
    check(sheets, 2.0)
    (bought,) = sheets_to_buy(sheets, SHEET)
    assert bought.sheets == 4
    assert bought.waste == pytest.approx(100 * (1 - 1300 * 150 / 4e5))


def test_a_piece_exactly_as_wide_as_the_sheet_fits_it() -> None:
    for width in (100.0, 99.9999999, 100.0000001):
        sheets = nested([plank("panel", 300.0, width, quantity=2)], SHEET)
        assert len(sheets) == 1
        assert sheets[0].used == pytest.approx(602.0, abs=2.0)


def test_the_work_tells_how_far_it_is_and_can_be_given_up() -> None:
    told: list[tuple[int, int]] = []
    nested(
        [plank("a", 30, 30, quantity=5)], SHEET, step=lambda done, total: told.append((done, total))
    )
    assert told == [(i, 5) for i in range(1, 6)]

    def stop(done: int, total: int) -> None:
        if done == 2:
            raise GivenUp("stopped")

    with pytest.raises(GivenUp):
        nested([plank("a", 30, 30, quantity=5)], SHEET, step=stop)
