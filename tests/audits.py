"""Synthetic audits: sheets with a known cause."""

import numpy as np

from hardkeel.paper.audit import CAUSES, Cause, audit
from hardkeel.paper.model import Pair

_PARTS = ("F2", "F3", "F4", "F5", "hatch")


def random_sheet(
    rng: np.random.Generator, cause: Cause, count: int = 8, noise: float = 0.3
) -> tuple[Pair, ...]:
    """`count` dimensions of mixed kind and direction with a cause of believable size."""
    sign = rng.choice([-1.0, 1.0], size=3)
    factor, factor_x, factor_y = 1 + sign * rng.uniform(0.01, 0.04, size=3)
    while abs(factor_x - factor_y) < 0.01:
        factor_y = 1 + rng.choice([-1.0, 1.0]) * rng.uniform(0.01, 0.04)
    constant, stretch = rng.uniform(1.0, 6.0), 1 + rng.uniform(0.006, 0.02)
    rows = []
    for _ in range(count):
        kind = str(rng.choice(["outline", "spacing", "bent-length"], p=[0.5, 0.25, 0.25]))
        direction = str(rng.choice(["x", "y"]))
        bent = kind == "bent-length"
        plan = float(rng.uniform(300, 900) if bent else rng.uniform(30, 300))
        part = "side" if bent else str(rng.choice(_PARTS))
        measured = {
            "scale": plan * factor,
            "scale-xy": plan * (factor_x if direction == "x" else factor_y),
            "constant": plan + (constant if kind == "outline" else 0.0),
            "development": plan * (stretch if bent else 1.0),
        }.get(cause, plan)
        rows.append([part, direction, kind, plan, measured])
    if cause == "one-part":
        bad = rows[rng.integers(count)][0]
        for row in rows:
            if row[0] == bad:
                row[4] += rng.choice([-1.0, 1.0]) * rng.uniform(2.5, 8.0)
    return tuple(
        Pair(part=a, direction=d, kind=k, plan=p, measured=float(m + rng.normal() * noise))
        for a, d, k, p, m in rows
    )


def verdicts(seed: int, count: int) -> tuple[int, int, int]:
    """How often over `count` random sheets the cause was named right, wrong, or not at all."""
    rng = np.random.default_rng(seed)
    right = wrong = 0
    for _ in range(count):
        cause = CAUSES[rng.integers(len(CAUSES))]
        found = audit(random_sheet(rng, cause)).cause
        right += found == cause
        wrong += found not in (cause, "undecided")
    return right, wrong, count - right - wrong
