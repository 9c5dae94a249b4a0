"""Everything that was clicked on a sheet, as it is drawn over the scan."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.model import Plan
from hardkeel.paper.picking import picked_stations, zero_of

_SHOWN_MM: Final = 0.05  # a residual under this is the click's own


@dataclass(frozen=True, slots=True)
class ScanMark:
    """Points clicked on the scan, pixels; `kind` decides how they are drawn.

    Attributes
    ----------
    followed : {"open", "round"}, optional
        The points are a line along its ink.
    """

    kind: str
    points: tuple[tuple[float, float], ...]
    words: str = ""
    active: bool = False
    followed: Literal["open", "round"] | None = None


def scan_marks(
    plan: Plan, tool: str, clicks: list[tuple[float, float]], unit: LengthUnit
) -> tuple[ScanMark, ...]:
    """Everything clicked on a plan, and the clicks not yet entered."""
    left = _left_over(plan, unit)
    marks = [
        ScanMark("length", (one.a, one.b), format_length(one.length, unit) + left(f"length {i}"))
        for i, one in enumerate(plan.lengths, start=1)
    ]
    marks += [
        ScanMark("point", (one.pixel,), (one.of or _place(one.plan, unit)) + left(f"point {i}"))
        for i, one in enumerate(plan.points, start=1)
    ]
    marks += [ScanMark("label", one.corners, f"no. {one.code}") for one in plan.labels]
    if plan.origin is not None:
        marks.append(ScanMark("origin", (plan.origin,), "datum"))
    marks += [
        ScanMark(t.kind, t.pixels, active=t.kind == tool, followed=t.followed) for t in plan.traces
    ]
    marks += _met(plan)
    if clicks:
        marks.append(ScanMark(tool, tuple(clicks), active=True))
    return tuple(marks)


def _met(plan: Plan) -> list[ScanMark]:
    """Where the stations cross the lines that were followed."""
    if not any(trace.followed for trace in plan.traces):
        return []
    try:
        fit = calibrate(plan)
        rows = picked_stations(plan, fit)
    except BadInput:
        return []
    x0, y0 = zero_of(plan, fit)
    places = [(x0 + r.station, y0 + h) for r in rows for h in (r.top, r.bottom) if h is not None]
    if not places:
        return []
    spots = fit.to_pixel(np.array(places))
    return [ScanMark("met", tuple((float(u), float(v)) for u, v in spots))]


def _left_over(plan: Plan, unit: LengthUnit) -> Callable[[str], str]:
    """What the fit leaves of a known thing, to be written beside it; nothing where nothing checks it."""
    try:
        fit = calibrate(plan)
    except BadInput:
        return lambda _what: ""
    if fit.spare <= 0:
        return lambda _what: ""

    def told(what: str) -> str:
        off = math.hypot(
            *(r.off for r in fit.checked if r.what.startswith(what + " ") or r.what == what)
        )
        return f"  {format_length(off, unit, 2)} off" if off >= _SHOWN_MM else ""

    return told


def _place(plan: tuple[float, float], unit: LengthUnit) -> str:
    """As it is typed: ``50, 70``, or in inches ``1.969″, 2.756″``."""
    return ", ".join(f"{one:g}" if unit == "mm" else format_length(one, unit) for one in plan)
