"""The mat on paper: cyan within a white rim of labels, words and bars at its foot."""

import io
from typing import Final

from hardkeel.export.coded_label import draw_code
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts
from hardkeel.messages import mat as say
from hardkeel.sight.mat import CODE_MM, EDGE_MM, RIM_MM, Mat, mat_for

_BAR_MM: Final = 100.0
_TEXT_MM: Final = 3.2
_TICK_MM: Final = 4.0


def mat_files(
    paper: str,
    correction: tuple[float, float] = (1.0, 1.0),
    pages: tuple[int, int] = (1, 1),
) -> tuple[bytes, bytes]:
    """The mat for a paper as the bytes of a PDF, and of the JSON that belongs beside it.

    Parameters
    ----------
    correction : (float, float)
        How many millimetres the printer makes of one, across and along the page.
    pages : (int, int)
        Sheets across and up that it is put together of.

    Raises
    ------
    BadInput
        When they are too many.
    """
    mat = mat_for(paper, PAPERS[paper], pages)
    data = mat.model_dump_json(indent=1, exclude=None if mat.pages else {"pages"}) + "\n"
    return mat_pdf(mat, correction), data.encode("utf-8")


def mat_pdf(mat: Mat, correction: tuple[float, float] = (1.0, 1.0)) -> bytes:
    """A mat as the bytes of a PDF, a page for each of its sheets, `correction` as in `mat_files`."""
    register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1)
    canvas.setTitle(say.TITLE)
    canvas.setAuthor("Hard Keel")
    wide, tall = PAPERS[mat.paper] if mat.pages else mat.size
    for number, box in enumerate(mat.pages or ((0.0, 0.0, *mat.size),)):
        canvas.setPageSize((wide * mm, tall * mm))
        canvas.scale(1 / correction[0], 1 / correction[1])
        # what is cut off at a joint lies before it
        x0, y0 = (
            (wide - (box[2] - box[0]) if box[0] else 0.0),
            (tall - (box[3] - box[1]) if box[1] else 0.0),
        )
        if mat.pages:
            _joints(canvas, mat, number, (x0, y0))
        canvas.saveState()
        canvas.translate((x0 - box[0]) * mm, (y0 - box[1]) * mm)
        path = canvas.beginPath()
        path.rect(box[0] * mm, box[1] * mm, (box[2] - box[0]) * mm, (box[3] - box[1]) * mm)
        canvas.clipPath(path, stroke=0, fill=0)
        _whole(canvas, mat)
        canvas.restoreState()
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _whole(canvas: Canvas, mat: Mat) -> None:
    x0, y0, x1, y1 = mat.inside
    canvas.setFillColorRGB(*(one / 255 for one in mat.ground))
    canvas.rect(x0 * mm, y0 * mm, (x1 - x0) * mm, (y1 - y0) * mm, stroke=0, fill=1)
    for one in mat.codes:
        left, low, _, _ = one.box
        draw_code(canvas, one.code, (left, low), CODE_MM)
    _foot(canvas, mat)
    _top(canvas, mat)


def _joints(canvas: Canvas, mat: Mat, number: int, at: tuple[float, float]) -> None:
    """Where a sheet is cut so that the next lies against it: ticks in what is cut off, and a word."""
    box = mat.pages[number]
    wide, tall = box[2] - box[0], box[3] - box[1]
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.3)
    canvas.setFont(REGULAR, 6.2)
    (left, low), words = at, say.sheet_words(number, len(mat.pages))
    right, high = left + wide, low + tall
    across = left if left > 0 else right if any(one[0] > box[0] for one in mat.pages) else None
    up = low if low > 0 else high if any(one[1] > box[1] for one in mat.pages) else None
    if across is not None:
        out = -_TICK_MM if across == left else _TICK_MM
        for y in (low, high):
            canvas.line(across * mm, y * mm, (across + out) * mm, y * mm)
        canvas.saveState()
        canvas.translate((across + out * 0.7) * mm, (low + tall / 2) * mm)
        canvas.rotate(90)
        canvas.drawCentredString(0, 0, words)
        canvas.restoreState()
    if up is not None:
        out = -_TICK_MM if up == low else _TICK_MM
        for x in (left, right):
            canvas.line(x * mm, up * mm, x * mm, (up + out) * mm)
        canvas.drawCentredString((left + wide / 2) * mm, (up + out * 0.7) * mm, words)


def _top(canvas: Canvas, mat: Mat) -> None:
    """Which way a part that is alike both ways is laid: in the rim, clear of two labels' white."""
    _, _, _, y1 = mat.inside
    upper = sorted(one.box for one in mat.codes if one.box[1] > y1)
    middle = len(upper) // 2 if not mat.pages else 1  # no joint goes through the word
    x = (upper[middle - 1][2] + upper[middle][0]) / 2
    canvas.setFillColor(INK)
    canvas.setFont(BOLD, 9)
    canvas.drawCentredString(x * mm, (upper[middle][1] + CODE_MM / 2 - 1.2) * mm, say.TOP)


def _foot(canvas: Canvas, mat: Mat) -> None:
    """What it is, how it is used, and bars both ways that tell whether the printer kept the size."""
    wide, tall = mat.size
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setFont(BOLD, 8)
    left, low = EDGE_MM + RIM_MM, EDGE_MM
    canvas.drawString(left * mm, (low + 2 * _TEXT_MM) * mm, f"{say.HEAD}, {mat.paper}")
    canvas.setFont(REGULAR, 6.2)
    for number, line in enumerate(say.HOW):
        canvas.drawString(left * mm, (low + (1 - number) * _TEXT_MM) * mm, line)
    canvas.setLineWidth(0.6)
    # across under the words, along at the right of the rim: clear of labels and their white
    bar = low - 1.6
    canvas.line(left * mm, bar * mm, (left + _BAR_MM) * mm, bar * mm)
    canvas.drawString((left + _BAR_MM + 2) * mm, (bar - 0.8) * mm, say.BARS)
    right = wide - EDGE_MM / 2 - 1.0
    middle = (mat.pages[0][3] if mat.pages else tall) / 2
    canvas.line(right * mm, (middle - _BAR_MM / 2) * mm, right * mm, (middle + _BAR_MM / 2) * mm)
