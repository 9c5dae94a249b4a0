"""From what was clicked or followed of an outline to the whole of it: curves through clicks, halves mirrored."""

import math
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import interpolate

_CORNER_DEG: Final = 40.0  # a click where the straight ways turn more is a corner
_BETWEEN: Final = 12  # points from one click to the next
_CURVED_FROM: Final = 3
_STRAIGHT_SHARE: Final = 0.004  # of the height: an upright side bends no more
_STRAIGHT_MM: Final = 0.35
_WHOLE_HEIGHT: Final = 0.96  # of the outline's height that a centre line spans
_MEETS_MM: Final = 0.12
_ENDS_MM: Final = 1.5  # the ends of a half lie so near above each other
_LEAST_SHARE: Final = 0.2  # of its height that an open half stands off the line through its ends


def curve_through(clicks: Array) -> Array:
    """A closed curve through clicks, shape (n, 2) to (m, 2): smooth but where the way turns by more than 40°.

    A cubic by chord length; between two corners that follow each other it is straight.
    """
    n = len(clicks)
    runs = np.roll(clicks, -1, axis=0) - clicks
    ways = np.arctan2(runs[:, 1], runs[:, 0])
    turns = np.abs((ways - np.roll(ways, 1) + np.pi) % (2 * np.pi) - np.pi)
    corners = [int(i) for i in np.flatnonzero(turns > math.radians(_CORNER_DEG))]
    if n <= _CURVED_FROM:
        return clicks
    if not corners:
        round_ = np.concatenate([clicks, clicks[:1]])
        return _cubic(round_, "periodic")[:-1]
    turned = np.roll(clicks, -corners[0], axis=0)
    cuts = [c - corners[0] for c in corners] + [n]
    round_ = np.concatenate([turned, turned[:1]])
    pieces = [round_[a : b + 1] for a, b in pairwise(cuts)]
    return np.concatenate(
        [(_cubic(p, "natural") if len(p) >= _CURVED_FROM else p)[:-1] for p in pieces]
    )


def _cubic(points: Array, ends: str) -> Array:
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    curve = interpolate.CubicSpline(run, points, bc_type=ends)
    at = np.concatenate(
        [np.linspace(a, b, _BETWEEN, endpoint=False) for a, b in pairwise(run)] + [run[-1:]]
    )
    return np.asarray(curve(at))


def is_half(ring: Array, half_width: float | None = None) -> bool:
    """Whether a closed outline (y across, z up) is one half of a section, with the centre line for a side.

    One that has one upright side over all its height is; of two such sides its breadth decides, where the former's
    half width is known.
    """
    sides = [_upright(ring, low) for low in (True, False)]
    if not any(sides):
        return False
    if all(sides):
        wide = float(np.ptp(ring[:, 0]))
        return half_width is not None and abs(wide - half_width) < abs(wide - 2 * half_width)
    return True


def _upright(ring: Array, low: bool) -> bool:  # noqa: FBT001
    """Whether the outline's leftmost (or rightmost) side is straight and as high as all of it."""
    high = float(np.ptp(ring[:, 1]))
    edge = float(ring[:, 0].min() if low else ring[:, 0].max())
    near = max(_STRAIGHT_MM, _STRAIGHT_SHARE * high)
    spanned = 0.0
    for (y0, z0), (y1, z1) in pairwise(np.concatenate([ring, ring[:1]])):
        if abs(y0 - edge) <= near and abs(y1 - edge) <= near:
            spanned += abs(float(z1 - z0))
    return spanned >= _WHOLE_HEIGHT * high


def mirrored_half(ring: Array) -> Array:
    """The whole outline of one whose half, centre line and all, was followed; shape (n, 2) to (m, 2)."""
    left = _upright(ring, low=True)
    if left and _upright(ring, low=False):  # either will do
        left = True
    edge = float(ring[:, 0].min() if left else ring[:, 0].max())
    near = max(_STRAIGHT_MM, _STRAIGHT_SHARE * float(np.ptp(ring[:, 1])))
    on_line = np.abs(ring[:, 0] - edge) <= near
    centre = float(np.median(ring[on_line, 0]))
    off = np.flatnonzero(~on_line)
    # the wood is what follows from the last point on the centre line, round to the first
    start = next((int(i) for i in off if on_line[i - 1]), int(off[0]))
    turned = np.roll(ring, -start, axis=0)
    wood = turned[: int(np.sum(~on_line))]
    before, after = turned[-1], turned[len(wood) % len(turned)]
    wood = np.concatenate([[(centre, before[1])], wood, [(centre, after[1])]])
    return mirrored_at(wood, centre)


def mirrored_at(half: Array, centre: float) -> Array:
    """An open half and its other hand about an upright line, one ring."""
    out = half[:, 0] - centre
    sign = 1.0 if np.median(out) >= 0 else -1.0
    # from its middle to where it first meets the line: a stub along that, or across it, is none of it
    met = np.flatnonzero(out * sign <= _MEETS_MM)
    far = int(np.argmax(out * sign))
    first = int(max(met[met < far], default=0))
    last = int(min(met[met > far], default=len(half) - 1))
    inner = half[first + 1 : last]
    ends = half[[first, last]].copy()
    ends[:, 0] = centre
    half = np.concatenate([ends[:1], inner, ends[1:]])
    other = half[::-1].copy()
    other[:, 0] = 2 * centre - other[:, 0]
    return np.concatenate([half, other[1:-1]])


def open_half(line: Array) -> float | None:
    """Where the centre line of an open half lies (y), as its two ends tell; ``None`` where they lie apart."""
    (y0, z0), (y1, z1) = line[0], line[-1]
    out = float(np.abs(line[:, 0] - (y0 + y1) / 2).max())
    if abs(y1 - y0) > _ENDS_MM or out < _LEAST_SHARE * abs(float(z1 - z0)):
        return None
    sides = np.sign(line[np.abs(line[:, 0] - (y0 + y1) / 2) > _ENDS_MM, 0] - (y0 + y1) / 2)
    return float((y0 + y1) / 2) if len(sides) and (sides == sides[0]).all() else None
