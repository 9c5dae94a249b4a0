"""What the paper desk shows of a plan: its tools, its marks, and what is still wanted."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.paper.model import Plan
from hardkeel.paper.picking import Picked
from hardkeel.ui.widgets.plan_sheet import SheetMark

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
        if where:
            return f"The {words} wanted at {format_length(where[0], unit, 0)}."
    return "All figures are there; the last station becomes the tail post."


def sheet_marks(
    plan: Plan, tool: str, clicks: list[tuple[float, float]], unit: LengthUnit
) -> tuple[SheetMark, ...]:
    """Everything clicked on a plan, and the clicks not yet entered."""
    marks = [
        SheetMark("length", (one.a, one.b), format_length(one.length, unit)) for one in plan.lengths
    ]
    marks += [
        SheetMark("point", (one.pixel,), f"{one.plan[0]:g}, {one.plan[1]:g}") for one in plan.points
    ]
    if plan.origin is not None:
        marks.append(SheetMark("origin", (plan.origin,), "datum"))
    marks += [SheetMark(t.kind, t.pixels, active=t.kind == tool) for t in plan.traces]
    if clicks:
        marks.append(SheetMark(tool, tuple(clicks), active=True))
    return tuple(marks)
