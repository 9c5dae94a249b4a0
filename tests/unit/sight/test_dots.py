"""Dots, heads and rings of every colour on every ground, from clicks beside them: found, or left where it was clicked."""

import math
from collections import Counter

import numpy as np
import pytest

from hardkeel.sight.snapping import snap
from tests.draws import draws
from tests.painted import COLOURS, GROUNDS, SIZE, apart, painted

_FAINT = 30.0  # grey levels: nobody sees white on paper


def tried(shape: str, count: int, smallest: float = 3.0) -> tuple[Counter[str], list[float]]:
    """What became of clicks up to 4 pixels off, by far or near; and how far off it was in sigmas."""
    became, pulls = Counter[str](), []
    for c, colour in enumerate(COLOURS):
        for g, ground in enumerate(GROUNDS):
            for k in range(count):
                rng = np.random.default_rng([c, g, k, len(shape)])
                radius = float(rng.uniform(smallest, 12))
                at = tuple((SIZE / 2 + rng.uniform(-1, 1, 2)).tolist())
                pixels = painted(colour, ground, at, radius, rng, shape=shape)
                way, off = rng.uniform(0, 2 * math.pi), rng.uniform(0, 4)
                found = snap(pixels, (at[0] + off * math.cos(way), at[1] + off * math.sin(way)))
                if found is None or found.kind == "crowd":
                    became["faint" if apart(colour, ground) < _FAINT else "left"] += 1
                    continue
                error = math.dist(found.at, at)
                became["found" if error <= 0.5 else "wrong"] += 1
                if error <= 0.5:
                    pulls.append(error / (math.sqrt(2) * found.sigma))
    return became, pulls


@pytest.mark.parametrize(("shape", "smallest"), [("dot", 3.0), ("head", 3.0), ("ring", 4.0)])
def test_a_round_mark_of_any_colour_on_any_ground_is_found_to_half_a_pixel(
    shape: str, smallest: float
) -> None:
    became, pulls = tried(shape, draws(1, 3), smallest)
    seen = became.total() - became["faint"]
    assert became["found"] >= 0.95 * seen, became
    assert became["wrong"] <= 0.02 * seen, became
    assert np.sqrt(np.mean(np.square(pulls))) < 1.1  # its own sigma is no smaller than its error


def test_a_cross_is_found_where_its_lines_meet() -> None:
    became, _ = tried("cross", draws(1, 2), 4.0)
    assert became["found"] >= 0.85 * (became.total() - became["faint"]), became
    assert became["wrong"] <= 0.05 * became.total(), became


def test_what_does_not_help_is_left_where_it_was_clicked() -> None:
    rng = np.random.default_rng(4)
    pixels = painted("red", "balsa", (36.0, 36.0), 5.0, rng)
    assert snap(pixels, (36.0 + 12.0, 36.0)) is None  # further than a hand is off
    plain = painted("balsa" if "balsa" in COLOURS else "white", "paper", (36.0, 36.0), 0.1, rng)
    assert snap(plain, (30.0, 40.0)) is None


def test_two_marks_side_by_side_are_told_apart_by_coming_nearer() -> None:
    rng = np.random.default_rng(6)
    left, right = (31.0, 36.0), (41.0, 36.0)
    pixels = np.minimum(
        painted("black", "paper", left, 3.2, rng), painted("black", "paper", right, 3.2, rng)
    )
    far = snap(pixels, (36.4, 36.2), reach=11.0)
    assert far is not None
    assert far.kind == "crowd"  # which of the two is not clear
    for one in (left, right):
        near = snap(pixels, (one[0] + 1.5, one[1] - 1.0), reach=4.0)
        assert near is not None
        assert near.kind == "pin"
        assert math.dist(near.at, one) < 0.5


def test_grain_is_no_mark_and_a_mark_on_an_edge_is_one() -> None:
    rng = np.random.default_rng(8)
    found = 0
    for _ in range(40):
        plain = painted("white", "ply", (-40.0, -40.0), 3.0, rng)
        found += snap(plain, tuple(rng.uniform(20, 50, 2).tolist())) is not None
    assert found <= 2
    # wood on one side, wall on the other, a head on the edge
    for colour in ("red", "black", "blue"):
        wood, wall = (
            painted(colour, ground, (36.0, 36.0), 4.5, rng) for ground in ("balsa", "mat")
        )
        edge = np.where(np.arange(SIZE)[None, :, None] < 36, wood, wall)
        head = snap(edge, (37.5, 34.8))
        assert head is not None
        assert math.dist(head.at, (36.0, 36.0)) < 0.7, colour
