"""What was clicked along the lines of a plan, turned into figures at stations."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic
from hardkeel.paper.calibrating import Calibration
from hardkeel.paper.model import Plan, TraceKind

_SAME_MM: Final = 0.8  # clicks nearer than this along the line are one place
_PALE: Final = 200.0  # grey from which on it is paper
_SPECK: Final = 100.0  # less darkness than this is dust
_LINE_RATIO: Final = 0.3  # of the spreads across and along, under which ink is one line
_SMOOTH_FROM: Final = 3


@dataclass(frozen=True, slots=True)
class Picked:
    """What was picked at one station, mm; ``None`` where no line was clicked there."""

    station: float
    half_width: float | None
    bottom: float | None
    top: float | None


def picked_stations(plan: Plan, calibration: Calibration) -> tuple[Picked, ...]:
    """Figures at every picked station, from nose to tail.

    Stations are the places clicked as such.  The side view's lines give top and bottom over the
    datum line through the plan's origin; the line of the view from above gives half-widths, from its
    own centre line where that was clicked, else half of what lies between its two sides.

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
            round(x, 2),
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
        return round(float(np.mean(found)), 2) if found else None
    split = (side[:, 1].max() + side[:, 1].min()) / 2
    low, high = _height(side[side[:, 1] < split], x), _height(side[side[:, 1] >= split], x)
    return round((high - low) / 2, 2) if low is not None and high is not None else None


def _height(points: Array, x: float) -> float | None:
    """The line's height at x: the click there, else a batten through the clicks."""
    if not len(points):
        return None
    near = int(np.argmin(np.abs(points[:, 0] - x)))
    if abs(points[near, 0] - x) <= _SAME_MM:
        return round(float(points[near, 1]), 2)
    ordered = points[np.argsort(points[:, 0])]
    keep = np.concatenate([[True], np.diff(ordered[:, 0]) > _SAME_MM])
    ordered = ordered[keep]
    if not ordered[0, 0] - _SAME_MM <= x <= ordered[-1, 0] + _SAME_MM:
        return None
    if len(ordered) < _SMOOTH_FROM:
        return round(float(np.interp(x, ordered[:, 0], ordered[:, 1])), 2)
    return round(float(NaturalCubic(ordered[:, 0], ordered[:, 1]).value(x)), 2)


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


@dataclass(frozen=True, slots=True)
class Ink:
    """The ink in a patch of a scan.

    Attributes
    ----------
    right, down : float
        Its centroid from the patch's middle, pixels.
    normal : tuple of float or None
        Unit vector across it where it is one line; ``None`` at a crossing or a blot.
    """

    right: float
    down: float
    normal: tuple[float, float] | None


def ink_in(patch: NDArray[Any]) -> Ink | None:
    """What ink lies in a square patch; ``None`` where there is hardly any.

    Parameters
    ----------
    patch : Array
        Shape (n, n), n odd, grey from 0 (ink) to 255 (paper).

    Notes
    -----
    A line is told from a crossing by the spread of its darkness: along a line it is wide, across it
    narrow.  Across a line its place is known, along it nothing is, so that a click must not be moved
    that way.
    """
    dark = np.clip(_PALE - patch.astype(float), 0.0, None)
    total = float(dark.sum())
    if total < _SPECK:
        return None
    reach = (len(patch) - 1) // 2
    steps = np.arange(-reach, reach + 1, dtype=float)
    across, down = dark.sum(axis=0), dark.sum(axis=1)
    right, low = float(across @ steps) / total, float(down @ steps) / total
    u, v = steps - right, steps - low
    spread = np.array([[across @ u**2, v @ dark @ u], [v @ dark @ u, down @ v**2]]) / total
    widths, axes = np.linalg.eigh(spread)
    if widths[0] > _LINE_RATIO * widths[1]:
        return Ink(right, low, None)
    return Ink(right, low, (float(axes[0, 0]), float(axes[1, 0])))
