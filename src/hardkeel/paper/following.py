"""A sheet's lines followed along their ink: from one click, on from another, or drawn over to where they belong."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.paper.ink import Ink
from hardkeel.paper.ink_between import way_between
from hardkeel.paper.ink_following import Heading, Step, Way, heading_at, never, walk
from hardkeel.paper.ink_middle import sharpened
from hardkeel.paper.model import TraceKind

_WITHIN_DEG: Final = 76.0  # how steep a fuselage's line may be against the datum line
_STRAIGHT_DEG: Final = 15.0
_KEEP_MM: Final = 0.015  # points that lie nearer to the straight are left out
_LEAST_MM: Final = 3.0  # what is shorter is a stroke of lettering
_PULLED_MM: Final = 5.0  # to either side of what is drawn over, at least
_PULLED_TIMES: Final = 1.5  # as far as it is pulled
_SAME_PLACE_MM: Final = 1.0


@dataclass(frozen=True, slots=True)
class Traced:
    """A line along its ink, in pixels of the sheet.

    Attributes
    ----------
    closed : bool
        Whether it goes all round; the last point is not the first one again.
    """

    points: tuple[Point2, ...]
    closed: bool


def follow_straight(ink: Ink, click: Point2, step: Step = never) -> Traced | None:
    """A line that runs on nearly straight, as a hinge line: not round the corner where it meets an outline."""
    heading = heading_at(ink, click, math.radians(_STRAIGHT_DEG))
    return follow(ink, click, heading, step) if heading is not None else None


def heading_for(kind: TraceKind, axis: float) -> Heading | None:
    """Ways a kind of line may run; `axis` is how the datum line lies in the scan, radians (v downwards)."""
    return None if kind in ("outline", "free") else Heading(axis, math.radians(_WITHIN_DEG))


def follow(ink: Ink, click: Point2, heading: Heading | None, step: Step = never) -> Traced | None:
    """The line under a click, as far as its ink goes; ``None`` where there is none."""
    way = walk(ink, click, heading, step)
    if way is None or _length(way.points) < _LEAST_MM * ink.px_per_mm:
        return None
    return _made(ink, way)


def follow_on(
    ink: Ink, traced: Traced, click: Point2, heading: Heading | None = None, step: Step = never
) -> Traced:
    """An open line made longer: from its nearer end along the ink to a click, and on from there."""
    points = np.array(traced.points)
    gaps = [math.dist(points[0], click), math.dist(points[-1], click)]
    if gaps[0] < gaps[1]:
        points = points[::-1]
    between = sharpened(ink, way_between(ink, _spot(points[-1]), click))
    joined = np.concatenate([points, between[1:]])
    gap = _SAME_PLACE_MM * ink.px_per_mm
    if math.dist(joined[0], joined[-1]) < gap:
        return Traced(_spots(joined[:-1]), closed=True)
    further = walk(ink, click, heading, step)
    if further is not None and not further.closed:
        on = _onward(further.points, joined[-1], between)
        if len(on) > 1:
            tail = sharpened(ink, Way(on, (), closed=False))
            home = np.flatnonzero(np.hypot(*(tail - joined[0]).T) < gap)
            if len(home):
                return Traced(_spots(np.concatenate([joined, tail[: home[0]]])), closed=True)
            joined = np.concatenate([joined, tail[1:]])
    return Traced(_spots(_thinned(joined, _KEEP_MM * ink.px_per_mm)), closed=False)


def draw_over(ink: Ink, traced: Traced, grabbed: Point2, to: Point2) -> Traced:
    """A line pulled onto the ink where it belongs: from one side of the pull along the ink by there to the other side."""
    points = np.array(traced.points)
    if traced.closed:
        points = np.concatenate([points, points[:1]])
    step = 0.5 * ink.px_per_mm
    points = _dense(points, step)
    at = int(np.argmin(np.hypot(*(points - np.array(grabbed)).T)))
    if traced.closed:
        shift = len(points) // 2 - at
        points = np.roll(points[:-1], shift, axis=0)
        at = int(np.argmin(np.hypot(*(points - np.array(grabbed)).T)))
    pulled = max(_PULLED_MM * ink.px_per_mm, _PULLED_TIMES * math.dist(grabbed, to))
    reach = round(pulled / step)
    low, high = max(0, at - reach), min(len(points) - 1, at + reach)
    first = sharpened(ink, way_between(ink, _spot(points[low]), to))
    second = sharpened(ink, way_between(ink, to, _spot(points[high])))
    made = np.concatenate([points[:low], first, second[1:], points[high + 1 :]])
    return Traced(_spots(_thinned(made, _KEEP_MM * ink.px_per_mm)), closed=traced.closed)


def cut_at(traced: Traced, click: Point2, one: Point2, other: Point2) -> Traced:
    """The piece of a line that a click lies on, to where it meets a straight line through two points; all of it where it does not.

    Halves that stand on one centre line, those of other formers on its other side, run into each other there.
    """
    points = np.array(traced.points)
    if traced.closed:
        points = np.concatenate([points, points[:1]])
    along = np.array(other) - np.array(one)
    across = np.array([-along[1], along[0]]) / max(float(np.hypot(*along)), 1e-9)
    side = (points - np.array(one)) @ across
    at = int(np.argmin(np.hypot(*(points - np.array(click)).T)))
    mine = math.copysign(1.0, side[at])
    crossed = np.flatnonzero(side * mine < 0)
    if not len(crossed):
        return traced
    if traced.closed:  # begun on the other side, so that the piece is whole
        shift = -int(crossed[0])
        at = (at + shift) % (len(points) - 1)
        points, side = (np.roll(part[:-1], shift, axis=0) for part in (points, side))
        # and ended there again: it comes over the line once more
        points, side = (np.concatenate([part, part[:1]]) for part in (points, side))
    low = high = at
    while low > 0 and side[low - 1] * mine >= 0:
        low -= 1
    while high + 1 < len(points) and side[high + 1] * mine >= 0:
        high += 1
    kept = points[low : high + 1]
    if low > 0:
        kept = np.concatenate([_met(points, side, low - 1), kept])
    if high + 1 < len(points):
        kept = np.concatenate([kept, _met(points, side, high)])
    return Traced(_spots(kept), closed=False)


def _met(points: Array, side: Array, i: int) -> Array:
    """Where the line crosses between two of its points, shape (1, 2)."""
    share = side[i] / (side[i] - side[i + 1])
    return np.asarray((points[i] + share * (points[i + 1] - points[i]))[None])


def on_it(traced: Traced, click: Point2, within: float) -> bool:
    """Whether a click lies on a line, within pixels."""
    points = np.array(traced.points)
    if traced.closed:
        points = np.concatenate([points, points[:1]])
    a, run = points[:-1], np.diff(points, axis=0)
    rel = np.array(click) - a
    share = np.clip((rel * run).sum(axis=1) / np.maximum((run**2).sum(axis=1), 1e-12), 0.0, 1.0)
    return bool(np.min(np.hypot(*(rel - share[:, None] * run).T)) <= within)


def _made(ink: Ink, way: Way) -> Traced:
    points = sharpened(ink, way)
    if way.closed and len(points) > 1 and math.dist(points[0], points[-1]) < ink.px_per_mm / 4:
        points = points[:-1]
    return Traced(_spots(_thinned(points, _KEEP_MM * ink.px_per_mm)), closed=way.closed)


def _onward(points: Array, start: Array, came: Array) -> Array:
    """The part of a walk that goes on from a place, not back where one came from."""
    at = int(np.argmin(np.hypot(*(points - start).T)))
    back = came[max(0, len(came) - 8)]
    parts = (points[at:], points[: at + 1][::-1])
    ahead = [p for p in parts if len(p) > 4]  # noqa: PLR2004
    return max(
        ahead, key=lambda p: math.dist(p[min(7, len(p) - 1)], back), default=points[at : at + 1]
    )


def _length(points: Array) -> float:
    return float(np.hypot(*np.diff(points, axis=0).T).sum())


def _dense(points: Array, step: float) -> Array:
    """A line with points no farther apart than told; its own stay."""
    out = [points[:1]]
    for a, b in pairwise(points):
        count = max(1, math.ceil(math.dist(a, b) / step))
        out.append(a + (b - a) * (np.arange(1, count + 1) / count)[:, None])
    return np.concatenate(out)


def _thinned(points: Array, within: float) -> Array:
    """Points without those that lie on the straight between their neighbours (Douglas and Peucker 1973)."""
    keep = np.zeros(len(points), dtype=bool)
    keep[[0, -1]] = True
    stack = [(0, len(points) - 1)]
    while stack:
        low, high = stack.pop()
        if high - low < 2:  # noqa: PLR2004
            continue
        run = points[high] - points[low]
        rel = points[low + 1 : high] - points[low]
        long = float(run @ run)
        share = np.clip(rel @ run / long, 0.0, 1.0) if long > 0 else np.zeros(len(rel))
        off = np.hypot(*(rel - share[:, None] * run).T)
        far = int(np.argmax(off))
        if off[far] > within:
            keep[low + 1 + far] = True
            stack += [(low, low + 1 + far), (low + 1 + far, high)]
    return points[keep]


def _spot(point: Array) -> Point2:
    return float(point[0]), float(point[1])


def _spots(points: Array) -> tuple[Point2, ...]:
    return tuple((round(float(u), 3), round(float(v), 3)) for u, v in points)
