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
_INKED: Final = 0.4  # of the darkest ink, from which on a side is crossed
_ARM_PX: Final = 1  # half the width of an inked line, pixels
_THIN_PX2: Final = 0.5  # spread across a thin line
_LINE_RATIO: Final = 0.15  # of the spreads across and along a thick line
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
        Where it lies from the patch's middle, pixels: a line's centroid, a crossing's middle.
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
    Across a line its place is known, along it nothing is, so that a click must not be moved that way;
    where lines meet both are known.
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
    if _is_meeting(dark, widths):
        return Ink(*_crossing(dark, (right, low)), None)
    return Ink(right, low, (float(axes[0, 0]), float(axes[1, 0])))


def _is_meeting(dark: Array, widths: Array) -> bool:
    """Whether lines meet in a patch, rather than one runs through it.

    One line leaves by two sides.  Three or four sides are a T or a cross; two that share a corner may be
    a corner of lines, which is wider across than any line.
    """
    inked = _INKED * dark.max()
    edges = (dark[0], dark[-1], dark[:, 0], dark[:, -1])
    top, bottom, left, right = (bool(edge.max() > inked) for edge in edges)
    if sum((top, bottom, left, right)) > 2:  # noqa: PLR2004  more than one line's two ends
        return True
    if (top and bottom) or (left and right):
        return False
    return bool(widths[0] > _THIN_PX2 and widths[0] > _LINE_RATIO * widths[1])


def _crossing(dark: Array, centroid: tuple[float, float]) -> tuple[float, float]:
    """Where two lines along the sheet's axes meet, be it as a cross, a T or a corner.

    The centroid of all ink would be drawn along an arm that has no counterpart; each line's place is
    therefore taken where the other one is not.
    """
    reach = (len(dark) - 1) // 2
    steps = np.arange(-reach, reach + 1, dtype=float)
    column, row = int(np.argmax(dark.sum(axis=0))), int(np.argmax(dark.sum(axis=1)))
    places = np.arange(len(dark))
    level = dark[np.ix_(np.abs(places - row) <= _ARM_PX, np.abs(places - column) > _ARM_PX)]
    upright = dark[np.ix_(np.abs(places - row) > _ARM_PX, np.abs(places - column) <= _ARM_PX)]
    if level.sum() < _SPECK or upright.sum() < _SPECK:
        return centroid
    down = level.sum(axis=1) @ steps[np.abs(places - row) <= _ARM_PX] / level.sum()
    right = upright.sum(axis=0) @ steps[np.abs(places - column) <= _ARM_PX] / upright.sum()
    return float(right), float(down)
