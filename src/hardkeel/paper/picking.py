"""What was clicked along the lines of a plan, turned into figures at stations."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic
from hardkeel.paper.calibrating import Calibration
from hardkeel.paper.model import Direction, Plan, TraceKind
from hardkeel.paper.outline_shapes import (
    curve_through,
    is_half,
    mirrored_at,
    mirrored_half,
    open_half,
)

FuselageLine = Literal["half_width", "top", "bottom"]
_SAME_MM: Final = 0.8  # clicks nearer than this along the line are one place
_SMOOTH_FROM: Final = 3
_ABREAST_MM: Final = 12.0
_ABREAST_SHARE: Final = 0.03  # of the length along which was clicked
_CORNER: Final = math.radians(9.0)
_AT_MM, _BESIDE_MM = (
    1.0,
    10.0,
)  # of a line beside a station, that tells whether it has a corner there
_SUDDEN: Final = 0.6  # of what it turns further off
_NO_WIDTH_MM: Final = 1e-9
_BEYOND_MM: Final = 1.2  # a line's end is its station's, so near to it
_PAIRED: Final = 0.6
_ALONG_SHARE: Final = 0.36  # tangent of how far a length may lean and still be along an axis


@dataclass(frozen=True, slots=True)
class Sigmas:
    """1 sigma of what was picked at one station, mm: of the sheet's calibration and of both clicks."""

    station: float
    half_width: float
    height: float


@dataclass(frozen=True, slots=True)
class Picked:
    """What was picked at one station, mm; ``None`` where no line was clicked there.

    Attributes
    ----------
    corners : tuple of {"half_width", "top", "bottom"}
        Lines that, followed, turn sharply there.
    """

    station: float
    half_width: float | None
    bottom: float | None
    top: float | None
    sigmas: Sigmas | None = None
    corners: tuple[FuselageLine, ...] = ()


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
    zero = zero_of(plan, calibration)
    lines = {kind: _line(plan, calibration, kind, zero) for kind in _KINDS}
    stations = sorted(float(x) for x in lines["stations"].clicks[:, 0])
    if not stations:
        raise BadInput("stations", "click the formers' stations first")
    kept = [x for i, x in enumerate(stations) if i == 0 or x - stations[i - 1] > _SAME_MM]
    return tuple(
        Picked(
            x,
            _half_width(lines, x),
            _height(lines["side-bottom"], x, outward=-1),
            _height(lines["side-top"], x),
            sigmas,
            _corners(lines, x),
        )
        for x, sigmas in zip(kept, _sigmas(calibration, lines, zero, kept), strict=True)
    )


def zero_of(plan: Plan, calibration: Calibration) -> Array:
    """Where the datum lies on a plan, shape (2,), mm: as it was clicked, or as its known points of elsewhere count.

    Raises
    ------
    BadInput
        When neither is there.
    """
    if plan.origin is not None:
        return np.asarray(calibration.to_plan(np.array([plan.origin]))[0])
    if any(point.of is not None for point in plan.points):
        return np.zeros(2)
    raise BadInput("origin", "click where the datum line meets the datum station first")


def _corners(lines: "dict[TraceKind, _Line]", x: float) -> tuple[FuselageLine, ...]:
    """Which of the lines that were followed have a corner at a station."""
    kinds: tuple[tuple[FuselageLine, TraceKind], ...] = (
        ("half_width", "plan-side"),
        ("top", "side-top"),
        ("bottom", "side-bottom"),
    )
    return tuple(
        line for line, kind in kinds if any(_bends_at(run, x) for run in lines[kind].followed)
    )


def _bends_at(run: Array, x: float) -> bool:
    """Whether a followed line turns by a corner's angle at a station, and all of it there."""
    at = run[np.argsort(run[:, 0], kind="stable")]
    if not at[0, 0] + _BESIDE_MM < x < at[-1, 0] - _BESIDE_MM:
        return False

    def turn(near: float, far: float) -> float:
        ways = []
        for a, b in ((x - far, x - near), (x + near, x + far)):
            ends = np.interp([a, b], at[:, 0], at[:, 1])
            ways.append(math.atan2(float(ends[1] - ends[0]), b - a))
        return abs(ways[1] - ways[0])

    close = turn(_AT_MM, _BESIDE_MM / 2)
    return close > _CORNER and close > _SUDDEN * turn(_BESIDE_MM / 2, _BESIDE_MM)


def _sigmas(
    calibration: Calibration, lines: "dict[TraceKind, _Line]", zero: Array, stations: list[float]
) -> list[Sigmas]:
    """How well a sheet tells what was picked on it, station by station."""
    side = lines["plan-side"].points
    far = float(np.abs(side[:, 1]).max()) if len(side) else 0.0
    centre = float(np.median(side[:, 1])) if len(side) else 0.0
    heights = np.concatenate([lines["side-top"].points, lines["side-bottom"].points])
    high = float(np.abs(heights[:, 1]).max()) if len(heights) else 0.0
    at = np.array(stations)[:, None] * (1.0, 0.0) + zero

    def between(one: Array, other: Array) -> Array:
        return calibration.sigma_between(calibration.to_pixel(one), calibration.to_pixel(other))

    datum = np.tile(zero, (len(stations), 1))
    along = between(at, datum)[:, 0]
    up = between(at + np.array([0.0, high]), datum)[:, 1]
    # the half width is half of what lies between two sides, or what lies between one and its centre line
    middle = at + np.array([0.0, centre])
    out = between(middle, middle + np.array([0.0, max(far - abs(centre), 1.0)]))[:, 1]
    return [Sigmas(float(a), float(b), float(c)) for a, b, c in zip(along, out, up, strict=True)]


_KINDS: Final[tuple[TraceKind, ...]] = (
    "side-top",
    "side-bottom",
    "plan-side",
    "plan-centre",
    "stations",
)


@dataclass(frozen=True, slots=True)
class _Line:
    """One line of the plan: its clicks, shape (n, 2), and what was followed along its ink; mm from the datum."""

    clicks: Array
    followed: tuple[Array, ...]

    @property
    def points(self) -> Array:
        """All of it, shape (n, 2)."""
        return np.concatenate([self.clicks, *self.followed])


def _line(plan: Plan, calibration: Calibration, kind: TraceKind, zero: Array) -> _Line:
    mine = [trace for trace in plan.traces if trace.kind == kind]
    clicks = [p for trace in mine if trace.followed is None for p in trace.pixels]
    return _Line(
        _placed(calibration, clicks) - zero,
        tuple(_placed(calibration, t.pixels) - zero for t in mine if t.followed is not None),
    )


def _placed(calibration: Calibration, pixels: Sequence[Point2]) -> Array:
    return calibration.to_plan(np.array(pixels, dtype=float).reshape(-1, 2))


def _half_width(lines: dict[TraceKind, _Line], x: float) -> float | None:
    side, centre = lines["plan-side"], lines["plan-centre"].points
    if not len(side.points):
        return None
    if len(centre):
        along = np.polyfit(centre[:, 0], centre[:, 1], min(1, len(centre) - 1))
        middle = float(np.polyval(along, x))
        found = []
        for sign in (-1, 1):
            clicks = side.clicks[
                np.sign(side.clicks[:, 1] - np.polyval(along, side.clicks[:, 0])) == sign
            ]
            runs = tuple(
                run
                for run in side.followed
                if np.sign(np.median(run[:, 1] - np.polyval(along, run[:, 0]))) == sign
            )
            height = _height(_Line(clicks, runs), x, outward=sign)
            if height is not None:
                found.append(abs(height - middle))
        return float(np.mean(found)) if found else None
    sides = _sides_of(side)
    if sides is None:
        return None  # one side alone: only its centre line would say how far away it is
    low, high = _height(sides[0], x, outward=-1), _height(sides[1], x, outward=1)
    return (high - low) / 2 if low is not None and high is not None else None


def _sides_of(side: _Line) -> tuple[_Line, _Line] | None:
    """Both sides of the view from above; ``None`` where one alone was clicked."""
    if not side.followed:
        both = _both_sides(side.clicks)
        return None if both is None else (_Line(both[0], ()), _Line(both[1], ()))
    heights = [float(np.median(run[:, 1])) for run in side.followed]
    split = (max(heights) + min(heights)) / 2
    low = [run for run, h in zip(side.followed, heights, strict=True) if h < split]
    high = [run for run, h in zip(side.followed, heights, strict=True) if h >= split]
    if not low or not high:
        return None
    below = side.clicks[:, 1] < split
    return _Line(side.clicks[below], tuple(low)), _Line(side.clicks[~below], tuple(high))


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


def _height(line: _Line, x: float, outward: int = 1) -> float | None:
    """The line's height at x: where its ink was followed across, the click there, else a batten through the clicks.

    Parameters
    ----------
    outward : {-1, 1}
        Which of several is the outside, where a line stands upright.
    """
    met = [height for run in line.followed for height in _crossings(run, x)]
    if met:
        return max(met) if outward > 0 else min(met)
    points = line.clicks
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


def _crossings(run: Array, x: float) -> list[float]:
    """Heights at which a followed line crosses a station; just beyond its ends, those ends'."""
    x0, x1 = run[:-1, 0], run[1:, 0]
    low, high = np.minimum(x0, x1), np.maximum(x0, x1)
    found = []
    for i in np.flatnonzero((low <= x) & (x <= high)):
        wide = float(x1[i] - x0[i])
        share = (x - float(x0[i])) / wide if abs(wide) > _NO_WIDTH_MM else 0.5
        found.append(float(run[i, 1] + share * (run[i + 1, 1] - run[i, 1])))
    if not found:  # the outermost stations lie where the line ends
        ends = run[[0, -1]]
        off = np.abs(ends[:, 0] - x)
        if off.min() <= _BEYOND_MM:
            found.append(float(ends[int(off.argmin()), 1]))
    return found


def picked_outline(
    plan: Plan,
    calibration: Calibration,
    *,
    half: bool | None = None,
    half_width: float | None = None,
) -> tuple[tuple[float, float], ...]:
    """The former's outline that was clicked or followed all round, plan mm with y up.

    Parameters
    ----------
    half : bool, optional
        Whether one half was picked, which is mirrored on the centre line; where it is not said, as it looks.
    half_width : float, optional
        Of the former, mm, where it is known: it tells half a box from a whole one.

    Raises
    ------
    BadInput
        When there are too few clicks to enclose anything, or what was followed neither closes nor ends on one centre
        line.
    """
    trace = next((t for t in plan.traces if t.kind == "outline" and t.pixels), None)
    points = _placed(calibration, trace.pixels if trace is not None else ())
    if trace is None or len(points) < 3:  # noqa: PLR2004  a triangle
        raise BadInput("outline", "click all round the former first")
    if trace.followed == "open":
        centre = open_half(points)
        if centre is None or half is False:
            raise BadInput(
                "outline", "its line is not followed all round yet: click on it further along"
            )
        points = mirrored_at(points, centre)
    else:
        points = curve_through(points) if trace.followed is None else points
        if half if half is not None else is_half(points, half_width):
            points = mirrored_half(points)
    return tuple((float(x), float(y)) for x, y in points)


def looks_half(plan: Plan, calibration: Calibration, half_width: float | None = None) -> bool:
    """Whether the outline that was picked is one half, as it looks."""
    trace = next((t for t in plan.traces if t.kind == "outline" and t.pixels), None)
    if trace is None or len(trace.pixels) < 3:  # noqa: PLR2004
        return False
    points = _placed(calibration, trace.pixels)
    return trace.followed == "open" or is_half(points, half_width)
