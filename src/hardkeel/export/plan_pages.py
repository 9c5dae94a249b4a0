"""A drawing to build over on paper: its lines by their weight, and one page of its own size for a copy shop."""

import io
from collections.abc import Callable, Sequence
from typing import Final

from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import DASHED, WEIGHTS, WOOD, PlanDrawing
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts
from hardkeel.messages import building_plan as say

_MARGIN_MM: Final = 15.0
_BLOCK_MM: Final = 26.0  # under the drawing: what it is, and a bar each way
_BAR_MM: Final = 100.0
_BAR_THICK_MM: Final = 0.8
_POINTS_A_MM: Final = 72 / 25.4
_TYPE: Final = 1.35  # of a capital's height, the size of its type
_FOOT: Final = 0.45  # of a capital's height, from its middle to its foot
_CHAIN: Final = [8 * mm, 2 * mm, 1.5 * mm, 2 * mm]
_HIDDEN: Final = [2 * mm, 1.2 * mm]

At = Callable[[float, float], tuple[float, float]]
Bounds = tuple[float, float, float, float]


def draw_plan(canvas: Canvas, drawing: PlanDrawing, at: At, within: Bounds | None = None) -> None:
    """All lines and words; `at` takes a place in mm to the page.

    Parameters
    ----------
    within : (float, float, float, float), optional
        What of the drawing is seen there, least u and v, greatest u and v: all else is left out.
    """
    canvas.setFillColor(WOOD)
    for line in drawing.lines:
        if within is not None and not _meets(line.points, within):
            continue
        canvas.setLineWidth(WEIGHTS[line.layer] * _POINTS_A_MM)
        canvas.setDash(
            _HIDDEN
            if line.hidden or line.layer == "MARKS"
            else _CHAIN
            if line.layer in DASHED
            else []
        )
        path = canvas.beginPath()
        path.moveTo(*at(*line.points[0]))
        for point in line.points[1:]:
            path.lineTo(*at(*point))
        if line.closed:
            path.close()
        canvas.drawPath(path, fill=int(line.wood))
    canvas.setDash([])
    canvas.setFillColor(INK)
    for words in (row for block in drawing.words for row in block.rows):
        if within is not None and not _meets(words.corners, within):
            continue
        canvas.saveState()
        canvas.translate(*at(*words.at))
        canvas.rotate(words.turn)
        canvas.setFont(REGULAR, words.size * _POINTS_A_MM * _TYPE)
        foot = -words.size * _POINTS_A_MM * _FOOT
        if words.anchor == "middle":
            canvas.drawCentredString(0, foot, words.text)
        elif words.anchor == "end":
            canvas.drawRightString(0, foot, words.text)
        else:
            canvas.drawString(0, foot, words.text)
        canvas.restoreState()


def _meets(points: Sequence[Point2], within: Bounds) -> bool:
    """Whether the box of some points reaches into another."""
    us, vs = [p[0] for p in points], [p[1] for p in points]
    left, low, right, high = within
    return min(us) <= right and max(us) >= left and min(vs) <= high and max(vs) >= low


def whole_pages_pdf(drawings: Sequence[PlanDrawing], title: str) -> bytes:
    """Each drawing on one page of its own size, its title and a bar each way under it."""
    register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1, pageCompression=1)
    canvas.setTitle(title)
    canvas.setAuthor("Hard Keel")
    for drawing in drawings:
        left, low, _, _ = drawing.bounds
        size = drawing.size
        wide = max(size[0], _BAR_MM * 2.2) + 2 * _MARGIN_MM
        tall = max(size[1] + _BLOCK_MM, _BAR_MM) + 2 * _MARGIN_MM
        canvas.setPageSize((wide * mm, tall * mm))
        canvas.setFillColor(INK)
        canvas.setStrokeColor(INK)
        foot = _MARGIN_MM + _BLOCK_MM

        def at(
            u: float, v: float, left: float = left, low: float = low, foot: float = foot
        ) -> tuple[float, float]:
            return (_MARGIN_MM + u - left) * mm, (foot + v - low) * mm

        draw_plan(canvas, drawing, at)
        canvas.setFont(BOLD, 16)
        canvas.drawString(_MARGIN_MM * mm, (_MARGIN_MM + 10) * mm, say.sheet_name(drawing.name))
        canvas.setFont(REGULAR, 9)
        canvas.drawString(
            _MARGIN_MM * mm, (_MARGIN_MM + 4) * mm, f"{title}    {say.MEASURE_THE_BARS}"
        )
        canvas.rect(
            (wide - _MARGIN_MM - _BAR_MM) * mm,
            _MARGIN_MM * mm,
            _BAR_MM * mm,
            _BAR_THICK_MM * mm,
            stroke=0,
            fill=1,
        )
        canvas.rect(
            (wide - _MARGIN_MM + 6) * mm,
            _MARGIN_MM * mm,
            _BAR_THICK_MM * mm,
            _BAR_MM * mm,
            stroke=0,
            fill=1,
        )
        canvas.showPage()
    canvas.save()
    return out.getvalue()
