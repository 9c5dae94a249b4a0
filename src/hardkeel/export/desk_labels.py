"""Coded labels to lay on a plan before it is photographed: one page, to print at full size and cut apart."""

import io
from typing import Final

from hardkeel.export.coded_label import draw_code
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts
from hardkeel.messages import desk_labels as say
from hardkeel.sight.codes import MODULES

SIDE_MM: Final = 25.0
CODES: Final = (
    90,
    91,
    92,
    93,
    94,
    95,
)  # the last of the dictionary: an airframe's own marks begin with the first
_RIM_MM: Final = 2 * SIDE_MM / MODULES
_GAP_MM: Final = 14.0
_TOP_MM: Final = 52.0
_IN_A_ROW: Final = 3
_BAR_MM: Final = 100.0


def desk_labels_pdf(paper: str = "A4", correction: tuple[float, float] = (1.0, 1.0)) -> bytes:
    """Six labels of 25 mm with cutting lines, how to lay them, and a bar that tells whether the printer kept the size.

    Parameters
    ----------
    correction : (float, float)
        How many millimetres the printer makes of one, across and along the page.
    """
    register_fonts()
    wide, tall = PAPERS[paper]
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1)
    canvas.setTitle(say.TITLE)
    canvas.setAuthor("Hard Keel")
    canvas.setPageSize((wide * mm, tall * mm))
    canvas.scale(1 / correction[0], 1 / correction[1])
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setFont(BOLD, 15)
    canvas.drawString(18 * mm, (tall - 22) * mm, say.TITLE)
    canvas.setFont(REGULAR, 10)
    for row, line in enumerate(say.HOW_TO_LAY_THEM):
        canvas.drawString(18 * mm, (tall - 30 - 5 * row) * mm, line)
    each = SIDE_MM + 2 * _RIM_MM
    left = (wide - _IN_A_ROW * each - (_IN_A_ROW - 1) * _GAP_MM) / 2
    for number, code in enumerate(CODES):
        column, row = number % _IN_A_ROW, number // _IN_A_ROW
        x = left + column * (each + _GAP_MM)
        y = tall - _TOP_MM - (row + 1) * each - row * (_GAP_MM + 6)
        _draw_label(canvas, code, x, y, each)
    low = tall - _TOP_MM - 2 * each - 2 * _GAP_MM - 30
    canvas.setLineWidth(0.6)
    canvas.line(18 * mm, low * mm, (18 + _BAR_MM) * mm, low * mm)
    for end in (0.0, _BAR_MM):
        canvas.line((18 + end) * mm, (low - 2.5) * mm, (18 + end) * mm, (low + 2.5) * mm)
    canvas.drawString(18 * mm, (low - 8) * mm, say.BAR)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def _draw_label(canvas: Canvas, code: int, x: float, y: float, each: float) -> None:
    """One label, its cutting lines round it and its number under it; mm from the page's lower left corner."""
    canvas.setLineWidth(0.2)
    canvas.rect(x * mm, y * mm, each * mm, each * mm, stroke=1, fill=0)
    draw_code(canvas, code, (x + _RIM_MM, y + _RIM_MM), SIDE_MM)
    canvas.setFont(REGULAR, 8)
    canvas.drawCentredString((x + each / 2) * mm, (y - 4.5) * mm, say.label_words(code, SIDE_MM))
