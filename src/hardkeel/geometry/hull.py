"""The convex hull of points in a plane."""

from collections.abc import Iterable

Point2 = tuple[float, float]


def convex_hull(points: Iterable[Point2]) -> tuple[Point2, ...]:
    """Corners of the hull, counter-clockwise, without repeating the first.

    Monotone chain after A. M. Andrew, "Another efficient algorithm for convex hulls in two
    dimensions", Information Processing Letters 9 (1979), 216–219.
    """
    ordered = sorted(set(points))
    if len(ordered) <= 2:  # noqa: PLR2004  nothing to enclose
        return tuple(ordered)
    lower = _chain(ordered)
    upper = _chain(ordered[::-1])
    return tuple(lower[:-1] + upper[:-1])


def _chain(ordered: list[Point2]) -> list[Point2]:
    chain: list[Point2] = []
    for point in ordered:
        while len(chain) > 1 and _turn(chain[-2], chain[-1], point) <= 0:
            chain.pop()
        chain.append(point)
    return chain


def _turn(a: Point2, b: Point2, c: Point2) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
