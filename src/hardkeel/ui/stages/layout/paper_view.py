"""What the paper desk shows of a plan: its tools, its marks, and what is still wanted."""

import math
from collections.abc import Callable
from typing import Final

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, parse_length
from hardkeel.base.values import Point2
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.model import Direction, Plan
from hardkeel.paper.picking import Picked
from hardkeel.ui.kit.card import label
from hardkeel.ui.stages.layout.plan_sheet import SheetMark
from hardkeel.voice.names import sentence_case
from hardkeel.voice.paper import calibration_sentence

_SHOWN_MM: Final = 0.05  # a residual under this is the click's own
_ALONG_SHARE: Final = 0.36  # tangent of how far a length may lean and still be along an axis
TOOLS: Final = (
    ("length", "known length", "Click its two ends, then type how long it is."),
    ("point", "known point", "Click a point whose place is printed, then type it: 50, 70."),
    ("origin", "datum", "Click where the datum line meets the datum station."),
    (
        "stations",
        "stations",
        "Click each former's line once, the tail post last, anywhere along it.",
    ),
    ("side-top", "top line", "Click along the top line: at least once at each station."),
    ("side-bottom", "bottom line", "Click along the bottom line, at each station too."),
    ("plan-side", "sides", "In the view from above click along one side, or both."),
    ("outline", "former outline", "Click all round a former's section, then give it to a former."),
    ("plan-centre", "centre line", "Click the centre line of the view from above at both ends."),
)


def lacking_words(rows: tuple[Picked, ...], unit: LengthUnit) -> str:
    """Which line must still be clicked, and where."""
    for field, words in (
        ("top", "top line is"),
        ("bottom", "bottom line is"),
        ("half_width", "sides are"),
    ):
        where = [row.station for row in rows if getattr(row, field) is None]
        if where and field == "half_width" and len(where) == len(rows):
            return "The sides are wanted: both of them, or one with its centre line."
        if where:
            return f"The {words} wanted at {format_length(where[0], unit, 0)}."
    return "All figures are there; the last station becomes the tail post."


def sheet_marks(
    plan: Plan, tool: str, clicks: list[tuple[float, float]], unit: LengthUnit
) -> tuple[SheetMark, ...]:
    """Everything clicked on a plan, and the clicks not yet entered."""
    left = _left_over(plan)
    marks = [
        SheetMark("length", (one.a, one.b), format_length(one.length, unit) + left(f"length {i}"))
        for i, one in enumerate(plan.lengths, start=1)
    ]
    marks += [
        SheetMark("point", (one.pixel,), f"{one.plan[0]:g}, {one.plan[1]:g}" + left(f"point {i}"))
        for i, one in enumerate(plan.points, start=1)
    ]
    if plan.origin is not None:
        marks.append(SheetMark("origin", (plan.origin,), "datum"))
    marks += [SheetMark(t.kind, t.pixels, active=t.kind == tool) for t in plan.traces]
    if clicks:
        marks.append(SheetMark(tool, tuple(clicks), active=True))
    return tuple(marks)


def empty_desk(open_: QPushButton, sample: QPushButton) -> QWidget:
    """The desk with nothing on it: what to do first."""
    page = QWidget()
    page.setObjectName("paper")
    column = QVBoxLayout(page)
    column.setContentsMargins(34, 26, 34, 20)
    column.setSpacing(12)
    column.addWidget(label("big", "Is there a plan on paper?"))
    column.addWidget(
        label(
            "soft",
            "Scan it flat at 150 dpi or more, or take a photo of it. A known length puts it to "
            "scale, a second across it finds a print that is stretched, four known points find "
            "one that is askew. Then click along its lines, and they become your airframe.",
        )
    )
    row = QHBoxLayout()
    open_.setObjectName("primary")
    row.addWidget(open_)
    row.addWidget(sample)
    row.addStretch(1)
    column.addLayout(row)
    column.addStretch(1)
    return page


def direction_of(a: Point2, b: Point2) -> Direction | None:
    """The paper's direction that a length between two clicks has; ``None`` for one across corners."""
    du, dv = abs(b[0] - a[0]), abs(b[1] - a[1])
    if min(du, dv) > _ALONG_SHARE * max(du, dv):
        return None
    return "x" if du > dv else "y"


def read_place(text: str, unit: LengthUnit) -> Point2:
    """A place on the plan as it is typed: ``50, 70``.

    Raises
    ------
    BadInput
        When it is not two lengths.
    """
    parts = text.replace(";", ",").split(",")
    if len(parts) != 2:  # noqa: PLR2004  x and y
        raise BadInput("", f"“{text.strip()}”: write its place like 50, 70")
    x, y = (parse_length(part, unit).mm for part in parts)
    return x, y


def fit_words(plan: Plan, dpi: float | None) -> tuple[str, str]:
    """How the sheet lies, and what checks it; `dpi` as the scan says."""
    try:
        fit = calibrate(plan)
    except BadInput as fault:
        return "Not to scale yet.", f"{sentence_case(fault.fault)}."
    answer = sentence_case(calibration_sentence(fit, None if plan.photo else dpi))
    worst = fit.worst
    if fit.spare <= 0 or worst is None:
        return answer, "Nothing checks it yet: one more known length or point would."
    count = len(fit.residuals)
    return answer, f"{count} checks, the worst ({worst.what}) {abs(worst.mm):.2f} mm off."


def _left_over(plan: Plan) -> Callable[[str], str]:
    """What the fit leaves of a known thing, to be written beside it; nothing where nothing checks it."""
    try:
        fit = calibrate(plan)
    except BadInput:
        return lambda _what: ""
    if fit.spare <= 0:
        return lambda _what: ""

    def told(what: str) -> str:
        off = math.hypot(
            *(r.mm for r in fit.residuals if r.what.startswith(what + " ") or r.what == what)
        )
        return f"  {off:.2f} off" if off >= _SHOWN_MM else ""

    return told
