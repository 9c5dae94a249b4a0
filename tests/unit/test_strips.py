"""Long strips by their ordinates: drawn again from the table, they are the piece."""

import numpy as np
import pytest
from shapely import Polygon

from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.export.paper import Page, pages_of
from hardkeel.export.plan_strips import Ordinate, is_strip, ordinates_of, strips_plans
from hardkeel.export.print_set import fuselage_pieces
from hardkeel.joinery.flat import FlatPiece


def drawn_again(rows: tuple[Ordinate, ...]) -> Polygon:
    lower, upper = [], []
    for one in rows:
        for low, high in (one.before, one.behind):
            lower.append((one.along, low))
            upper.append((one.along, high))
    return Polygon([*lower, *reversed(upper)]).buffer(0)


def test_a_bar_with_a_notch_is_told_to_a_tenth() -> None:
    ring = (
        (0.0, 0.0), (200.0, 0.0), (200.0, 6.0), (203.0, 6.0), (203.0, 0.0),
        (600.0, 10.0), (600.0, 30.0), (0.0, 20.0),
    )  # fmt: skip
    piece = FlatPiece("keel", "keel", "keel", ring, thickness=3.0)
    assert is_strip(piece)
    rows = ordinates_of(piece)
    steps = [one for one in rows if one.is_step]
    assert [one.along for one in steps] == pytest.approx([200.0, 203.0])
    assert steps[0].before[0] == pytest.approx(0.0, abs=0.05)
    assert steps[0].behind[0] == pytest.approx(6.0, abs=0.05)
    again = drawn_again(rows)
    moved = Polygon(ring)
    assert again.symmetric_difference(moved).area < 0.2 / 100 * moved.area


@pytest.mark.parametrize("make", [sallow, marram])
def test_strips_of_the_demos_are_their_pieces_again(make: object) -> None:
    assert callable(make)
    strips = [piece for piece in fuselage_pieces(make()) if is_strip(piece)]
    assert strips
    for piece in strips:
        left, low, _, _ = piece.bounds
        outline = Polygon(np.array(piece.outline) - (left, low))
        again = drawn_again(ordinates_of(piece))
        # a fair curve between marks 50 mm apart: a batten bent through them lies as near as the straight lines here
        assert again.symmetric_difference(outline).area < 0.25 * outline.length, piece.name


def test_tables_take_fewer_pages_than_what_is_stuck_together() -> None:
    pieces = fuselage_pieces(sallow())
    drawings = strips_plans(pieces, "mm", Page("A4").room)
    assert len(pages_of(drawings, Page("A4"))) == len(drawings) <= 3
    assert strips_plans(fuselage_pieces(withy()), "mm", Page("A4").room) == ()
