"""Tags that hold a piece in its sheet while it is cut: gaps in its outline, on straight wood, well apart."""

import math
from itertools import pairwise
from typing import Final

from hardkeel.joinery.flat import Ring

_FROM_CORNER: Final = 1.5  # of a tag's width
_EVERY_MM: Final = 160.0
_MOST: Final = 6


def tagged(ring: Ring, width: float) -> tuple[Ring, ...]:
    """A closed outline as open lines with gaps of `width` mm between them; the whole ring where none fits.

    Two tags at the least, on a small piece one; on the longest straight edges, each as far from the others as may be.
    """
    closed = (*ring, ring[0])
    edges = [math.dist(a, b) for a, b in pairwise(closed)]
    around = sum(edges)
    starts = [sum(edges[:i]) for i in range(len(edges))]
    room = width * (1 + 2 * _FROM_CORNER)
    wanted = max(1 if around < 20 * width else 2, min(_MOST, round(around / _EVERY_MM)))
    middles: list[float] = []
    for i in sorted(range(len(edges)), key=lambda i: -edges[i]):
        places = max(1, int(edges[i] // _EVERY_MM)) if edges[i] >= room else 0
        for number in range(places):
            at = starts[i] + edges[i] * (number + 0.5) / places
            apart = min(
                (min(abs(at - one), around - abs(at - one)) for one in middles), default=around
            )
            if len(middles) < wanted and apart > max(around / (2 * wanted), room):
                middles.append(at)
    if not middles:
        return (ring,)
    gaps = sorted((at - width / 2, at + width / 2) for at in middles)
    lines = []
    for (_, begin), (end, _) in zip(gaps, [*gaps[1:], (gaps[0][0] + around, 0.0)], strict=True):
        lines.append(_between(closed, starts, edges, (begin, end)))
    return tuple(lines)


def _between(
    closed: Ring, starts: list[float], edges: list[float], ends: tuple[float, float]
) -> Ring:
    """The stretch of an outline between two distances along it, the second past the first."""
    around = sum(edges)

    def place(along: float) -> tuple[float, float]:
        along %= around
        i = max(j for j, start in enumerate(starts) if start <= along + 1e-12)
        share = (along - starts[i]) / edges[i] if edges[i] else 0.0
        (u0, v0), (u1, v1) = closed[i], closed[i + 1]
        return u0 + share * (u1 - u0), v0 + share * (v1 - v0)

    begin, end = ends
    corners = sorted(
        (start + turn * around, closed[i])
        for i, start in enumerate(starts)
        for turn in (0, 1)
        if begin < start + turn * around < end
    )
    return (place(begin), *(corner for _, corner in corners), place(end))
