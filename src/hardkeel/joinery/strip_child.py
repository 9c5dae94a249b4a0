"""One strip laid by the engine, in a process of its own: it can be stopped at once, and what it panics over ends with it.

``python -m hardkeel.joinery.strip_child`` reads what to lay as JSON and writes where each item lies, or nothing.
"""

import json
import sys
from datetime import timedelta
from typing import Any

import spyrrow


def main() -> int:
    """Lay it; the value is the exit code."""
    asked: dict[str, Any] = json.load(sys.stdin)
    items = [
        spyrrow.Item(str(i), [tuple(point) for point in one["rim"]], 1, one["turns"])
        for i, one in enumerate(asked["items"])
    ]
    strip = spyrrow.StripPackingInstance("strip", asked["width"], items)
    config = spyrrow.StripPackingConfig(
        min_items_separation=asked["gap"] or None,
        total_computation_time=1,
        num_workers=1,
        seed=asked["seed"],
    )
    config.exploration_time = timedelta(seconds=asked["exploring"])
    config.compression_time = timedelta(seconds=asked["pressing"])
    found = strip.solve(config)
    placed = [[int(one.id), one.rotation, *one.translation] for one in found.placed_items]
    json.dump(placed, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main())
