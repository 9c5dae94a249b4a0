"""What was clicked along the lines of a plan, turned into figures at stations."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic
from hardkeel.paper.calibrating import Calibration
from hardkeel.paper.model import Direction, Plan, TraceKind

_SAME_MM: Final = 0.8  # clicks nearer than this along the line are one place
_SMOOTH_FROM: Final = 3
_ABREAST_MM: Final = 12.0
_ABREAST_SHARE: Final = 0.03  # of the length along which was clicked
_PAIRED: Final = 0.6
_ALONG_SHARE: Final = 0.36  # tangent of how far a length may lean and still be along an axis


@dataclass(frozen=True, slots=True)
class Picked:
    """What was picked at one station, mm; ``None`` where no line was clicked there."""

    station: float
    half_width: float | None
    bottom: float | None
    top: float | None


def direction_between(a: Point2, b: Point2) -> Direction | None:
    """The paper's direction that a length between two clicks has; ``None`` for one across corners."""
    du, dv = abs(b[0] - a[0]), abs(b[1] - a[1])
    if min(du, dv) > _ALONG_SHARE * max(du, dv):
        return None
    return "x" if du > dv else "y"


def picked_stations(plan: Plan, calibration: Calibration) -> tuple[Picked, ...]:
    """Figures at every picked station, from nose to tail.

    Stations are the places clicked as such.  The side view's lines give top and bottom over the
    datum line through the plan's origin; the line of the view from above gives half-widths, from its
    own centre line where that was clicked, else half of what lies between its two sides; none where
    only one side was clicked.

    Raises
    ------
    BadInput
        When the origin or the stations are not picked yet.
    """
    if plan.origin is None:
        raise BadInput("origin", "click where the datum line meets the datum station first")
    zero = calibration.to_plan(np.array([plan.origin]))[0]
    lines = {kind: _points(plan, calibration, kind) - zero for kind in _KINDS}
    stations = sorted(float(x) for x in lines["stations"][:, 0])
    if not stations:
        raise BadInput("stations", "click the formers' stations first")
    kept = [x for i, x in enumerate(stations) if i == 0 or x - stations[i - 1] > _SAME_MM]
    return tuple(
        Picked(
            x,
            _half_width(lines, x),
            _height(lines["side-bottom"], x),
            _height(lines["side-top"], x),
        )
        for x in kept
    )


_KINDS: Final[tuple[TraceKind, ...]] = (
    "side-top",
    "side-bottom",
    "plan-side",
    "plan-centre",
    "stations",
)


def _points(plan: Plan, calibration: Calibration, kind: TraceKind) -> Array:
    pixels = [p for trace in plan.traces if trace.kind == kind for p in trace.pixels]
    return calibration.to_plan(np.array(pixels, dtype=float).reshape(-1, 2))


def _half_width(lines: dict[TraceKind, Array], x: float) -> float | None:
    side, centre = lines["plan-side"], lines["plan-centre"]
    if not len(side):
        return None
    if len(centre):
        middle = np.polyval(np.polyfit(centre[:, 0], centre[:, 1], min(1, len(centre) - 1)), x)
        offsets = side[:, 1] - np.polyval(
            np.polyfit(centre[:, 0], centre[:, 1], min(1, len(centre) - 1)), side[:, 0]
        )
        found = []
        for sign in (-1, 1):
            one = side[np.sign(offsets) == sign]
            height = _height(one, x)
            if height is not None:
                found.append(abs(height - float(middle)))
        return float(np.mean(found)) if found else None
    sides = _both_sides(side)
    if sides is None:
        return None  # one side alone: only its centre line would say how far away it is
    low, high = (_height(one, x) for one in sides)
    return (high - low) / 2 if low is not None and high is not None else None


def _both_sides(clicks: Array) -> tuple[Array, Array] | None:
    """The two sides that were clicked, shapes (n, 2); ``None`` where it is one side alone.

    Of two sides most clicks have one of the other side about abreast; along a single one, however much
    it bends, the other half of its clicks lies further fore and aft.
    """
    split = (clicks[:, 1].max() + clicks[:, 1].min()) / 2
    upper = clicks[:, 1] >= split
    low, high = clicks[~upper], clicks[upper]
    if not len(low) or not len(high):
        return None
    length = float(np.ptp(clicks[:, 0]))
    abreast = max(_ABREAST_MM, _ABREAST_SHARE * length)
    apart = np.abs(low[:, None, 0] - high[None, :, 0])
    paired = int((apart.min(axis=1) <= abreast).sum() + (apart.min(axis=0) <= abreast).sum())
    return (low, high) if paired >= _PAIRED * len(clicks) else None


def _height(points: Array, x: float) -> float | None:
    """The line's height at x: the click there, else a batten through the clicks."""
    if not len(points):
        return None
    near = int(np.argmin(np.abs(points[:, 0] - x)))
    if abs(points[near, 0] - x) <= _SAME_MM:
        return float(points[near, 1])
    ordered = points[np.argsort(points[:, 0])]
    keep = np.concatenate([[True], np.diff(ordered[:, 0]) > _SAME_MM])
    ordered = ordered[keep]
    if not ordered[0, 0] - _SAME_MM <= x <= ordered[-1, 0] + _SAME_MM:
        return None
    if len(ordered) < _SMOOTH_FROM:
        return float(np.interp(x, ordered[:, 0], ordered[:, 1]))
    return float(NaturalCubic(ordered[:, 0], ordered[:, 1]).value(x))


def picked_outline(plan: Plan, calibration: Calibration) -> tuple[tuple[float, float], ...]:
    """The former's outline that was clicked all round, plan mm with y up.

    Raises
    ------
    BadInput
        When there are too few clicks to enclose anything.
    """
    points = _points(plan, calibration, "outline")
    if len(points) < 3:  # noqa: PLR2004  a triangle
        raise BadInput("outline", "click all round the former first")
    return tuple((float(x), float(y)) for x, y in points)
