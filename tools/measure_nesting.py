"""How long a strip random sets of pieces want: the grid's, the tightened one, and the engine's own after ten seconds.

``python tools/measure_nesting.py [SETS]``; a minute for two sets.
"""

import sys
import time

import numpy as np
import spyrrow

from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import nested
from hardkeel.joinery.tightening import tightened

_WIDTH, _GAP = 100.0, 2.0
_LONG = 20_000.0  # one sheet holds all
_REFERENCE_SECONDS = 10


def pieces_by_chance(seed: int) -> list[FlatPiece]:
    """Twenty to forty pieces, long and short, with hollows."""
    rng = np.random.default_rng(seed)
    found: list[FlatPiece] = []
    while len(found) < rng.integers(20, 41):
        corners = int(rng.integers(3, 12))
        turns = np.sort(rng.uniform(0, 2 * np.pi, corners))
        reach = rng.uniform(0.45, 1.0, corners) * rng.uniform(10, 46)
        long = rng.uniform(1.0, 3.0)
        ring = tuple(
            (float(r * long * np.cos(t)), float(r * np.sin(t)))
            for r, t in zip(reach, turns, strict=True)
        )
        piece = FlatPiece(f"p{len(found)}", "odd", f"p{len(found)}", ring, grain="u")
        if piece.polygon.is_valid and piece.area > 100:
            found.append(piece)
    return found


def reference(pieces: list[FlatPiece]) -> float:
    """Length of the strip that the engine finds in ten seconds, mm."""
    items = [spyrrow.Item(one.name, list(one.outline), 1, [0.0, 180.0]) for one in pieces]
    strip = spyrrow.StripPackingInstance("reference", _WIDTH + 2 * _GAP, items)
    config = spyrrow.StripPackingConfig(
        min_items_separation=_GAP, total_computation_time=_REFERENCE_SECONDS, num_workers=1, seed=1
    )
    return float(strip.solve(config).width) - 2 * _GAP


def main(sets: int) -> None:
    """Measure and print."""
    sums = np.zeros(3)
    for seed in range(sets):
        pieces = pieces_by_chance(seed)
        start = time.perf_counter()
        grid = nested(pieces, (_LONG, _WIDTH), _GAP)
        middle = time.perf_counter()
        tight = tightened(grid, _GAP)
        end = time.perf_counter()
        lengths = np.array([grid[0].used, tight[0].used, reference(pieces)])
        sums += lengths
        sys.stdout.write(
            f"{len(pieces)} pieces: grid {lengths[0]:.0f} mm in {middle - start:.2f} s, "
            f"tightened {lengths[1]:.0f} in {end - middle:.1f} s, reference {lengths[2]:.0f}: "
            f"{lengths[0] / lengths[2]:.3f} and {lengths[1] / lengths[2]:.3f}\n"
        )
        sys.stdout.flush()
    sys.stdout.write(f"in sum {sums[0] / sums[2]:.3f} and {sums[1] / sums[2]:.3f}\n")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 8)
