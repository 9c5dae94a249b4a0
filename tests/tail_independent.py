"""A second way to a ribbed tail's figures: by the contract's words alone, sharing no code with the room.

Heights by walking the file's own polylines, rib by rib; no shapely, no shared planform.
"""

import math
from collections.abc import Sequence
from itertools import pairwise

Pair = tuple[float, float]


def loop_of(upper: Sequence[Pair], lower: Sequence[Pair]) -> str:
    """A coordinate file: one loop from the trailing edge over the top."""
    rows = [*reversed(upper), *list(lower)[1:]]
    return "made up\n" + "\n".join(f"{x:.9f} {z:.9f}" for x, z in rows) + "\n"


def halves_of(upper: Sequence[Pair], lower: Sequence[Pair]) -> str:
    """A coordinate file: counts, then upper and lower surface from the nose."""
    rows = [f"{len(upper)}. {len(lower)}."]
    for half in (upper, lower):
        rows += ["", *(f"{x:.9f}\t{z:.9f}" for x, z in half)]
    return "made up\n" + "\n".join(rows) + "\n"


def height(line: Sequence[Pair], f: float) -> float:
    """z of a polyline at f, found by walking it."""
    for (x0, z0), (x1, z1) in pairwise(line):
        if x0 <= f <= x1 and x1 > x0:
            return z0 + (z1 - z0) * (f - x0) / (x1 - x0)
    return line[0][1] if f < line[0][0] else line[-1][1]


class Ribbed:
    """A straight-tapered surface by the contract."""

    def __init__(
        self,
        span: float,
        chords: Pair,
        sweep: float,
        root: tuple[Sequence[Pair], Sequence[Pair]],
        tip: tuple[Sequence[Pair], Sequence[Pair]],
    ) -> None:
        self.half, self.chords, self.sweep, self.root, self.tip = span / 2, chords, sweep, root, tip

    def chord(self, y: float) -> float:
        return self.chords[0] * (1 - y / self.half) + self.chords[1] * y / self.half

    def lead(self, y: float) -> float:
        return self.sweep * y / self.half

    def z(self, y: float, x: float) -> Pair:
        """Upper and lower surface at x behind the rib's leading edge, mm."""
        eta, f = y / self.half, x / self.chord(y)
        both = []
        for side in (0, 1):
            a = self.chords[0] * height(self.root[side], f)
            b = self.chords[1] * height(self.tip[side], f)
            both.append(a + eta * (b - a))
        return both[0], both[1]

    def thickest(self, y: float) -> float:
        c = self.chord(y)
        places = sorted({p[0] for half in (*self.root, *self.tip) for p in half})
        return max(self.z(y, f * c)[0] - self.z(y, f * c)[1] for f in places)


def distance_to_ring(point: Pair, ring: Sequence[Pair]) -> float:
    """From a point to the nearest side of a ring."""
    best = math.inf
    for (ax, az), (bx, bz) in zip(ring, [*ring[1:], ring[0]], strict=True):
        dx, dz = bx - ax, bz - az
        size = dx * dx + dz * dz
        t = (
            max(0.0, min(1.0, ((point[0] - ax) * dx + (point[1] - az) * dz) / size))
            if size
            else 0.0
        )
        best = min(best, math.hypot(point[0] - ax - t * dx, point[1] - az - t * dz))
    return best
