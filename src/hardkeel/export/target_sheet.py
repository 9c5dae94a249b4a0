"""Printed targets to stick on a model: each with its number, its mark in words, hairlines to lay it by."""

import io
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.export.coded_label import draw_code
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts, white
from hardkeel.messages import targets as say
from hardkeel.sight.codes import MODULES
from hardkeel.survey.model import Survey

SMALLEST, LARGEST = 6.0, 80.0  # mm that a page and a picture can do with
USUAL: Final = say.USUAL_MM
UNNAMED: Final = 32  # so many are printed where nobody said yet where they sit
_MARGIN_MM: Final = 14.0
_TOP_MM: Final = 34.0
_FOOT_MM: Final = 24.0
_GAP_MM: Final = 8.0
_WORDS_MM: Final = 9.0
_NARROWEST_MM: Final = 34.0  # of a label with its words
_LINE_MM: Final = 2.9
_BAR_MM: Final = 100.0
_HAIR_MM: Final = 0.15
_CROSS_MM: Final = 0.5
_CROSS_SHARE: Final = 0.4  # of a module to each side: what is read of one lies in its middle third
_RING_MM: Final = 0.5
_TAB_MM: Final = 8.0  # of a flag or a foot, on the wood


def targets_pdf(
    survey: Survey,
    size: float,
    paper: str = "A4",
    correction: tuple[float, float] = (1.0, 1.0),
    *,
    words: say.TargetWords | None = None,
    where: Mapping[int, Sequence[str]] | None = None,
) -> bytes:
    """All targets of a survey, else the first of the dictionary, as the bytes of a PDF.

    Round the black square a rim of a module stays white, with a hairline at the middle of each side; the cutting
    line runs round it.

    Parameters
    ----------
    size : float
        The side of the black square, mm.
    correction : (float, float)
        How many millimetres the printer makes of one, across and along the page.
    words : TargetWords
        What marks are called, and how the pictures are taken; without it of a model.
    where : mapping of int to sequence of str
        By code, where it is laid, a line each.

    Raises
    ------
    BadInput
        When the size is none that a page holds.
    """
    if not SMALLEST <= size <= LARGEST:
        raise BadInput("size", f"{size:g} mm is no size for a target: {SMALLEST:g} to {LARGEST:g}")
    spoken = words or say.of_model(survey, size)
    wanted = say.labelled(survey, spoken) or [(code, "") for code in range(UNNAMED)]
    register_fonts()
    wide, tall = PAPERS[paper]
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1)
    canvas.setTitle(say.TITLE)
    canvas.setAuthor("Hard Keel")
    each = size * (MODULES + 2) / MODULES
    column = max(each, _NARROWEST_MM) + _GAP_MM
    laid = where or {}
    ways = {one.code: one.by.way for one in survey.targets if one.by is not None}
    tab = _TAB_MM if {"flag", "foot"} & set(ways.values()) else 0.0
    row = tab + each + _WORDS_MM + _LINE_MM * max(map(len, laid.values()), default=0) + _GAP_MM
    across = max(1, int((wide - 2 * _MARGIN_MM + _GAP_MM) // column))
    down = max(1, int((tall - _TOP_MM - _FOOT_MM) // row))
    for start in range(0, len(wanted), across * down):
        _page(canvas, (wide, tall), (size, spoken.how), correction)
        for number, (code, said) in enumerate(wanted[start : start + across * down]):
            x = _MARGIN_MM + (number % across) * column
            y = tall - _TOP_MM - tab - each - (number // across) * row
            _label(canvas, (code, (said, *laid.get(code, ()))), (x, y), size)
            if ways.get(code) in ("flag", "foot"):
                _tab(canvas, (x, y + each), each, folds=ways[code] == "foot")
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _page(
    canvas: Canvas,
    paper: tuple[float, float],
    words: tuple[float, str],
    correction: tuple[float, float],
) -> None:
    """What it is, how it is laid, and bars both ways that tell whether the printer kept the size."""
    wide, tall = paper
    size, how = words
    canvas.setPageSize((wide * mm, tall * mm))
    canvas.scale(1 / correction[0], 1 / correction[1])
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setFont(BOLD, 14)
    canvas.drawString(_MARGIN_MM * mm, (tall - 16) * mm, say.title_words(size))
    canvas.setFont(REGULAR, 9)
    for number, line in enumerate((say.HOW_TO_LAY_THEM, how)):
        canvas.drawString(_MARGIN_MM * mm, (tall - 22 - 4.5 * number) * mm, line)
    canvas.setLineWidth(0.6)
    low, right = 14.0, wide - 10.0
    canvas.line(_MARGIN_MM * mm, low * mm, (_MARGIN_MM + _BAR_MM) * mm, low * mm)
    canvas.line(right * mm, low * mm, right * mm, (low + _BAR_MM) * mm)
    canvas.drawString(_MARGIN_MM * mm, (low - 5) * mm, say.BARS)


def _cross(canvas: Canvas, x: float, y: float, size: float) -> None:
    """The middle, to be laid on the mark, with a ring to pin or prick through: where four modules meet, off what is read of each."""
    arm = _CROSS_SHARE * size / MODULES
    for ink, wide in ((white, _CROSS_MM), (INK, _HAIR_MM)):
        canvas.setStrokeColor(ink)
        canvas.setLineWidth(wide * mm)
        canvas.line((x - arm) * mm, y * mm, (x + arm) * mm, y * mm)
        canvas.line(x * mm, (y - arm) * mm, x * mm, (y + arm) * mm)
        canvas.circle(x * mm, y * mm, _RING_MM * mm, stroke=1, fill=0)
    canvas.setStrokeColor(INK)


def _tab(canvas: Canvas, at: tuple[float, float], each: float, *, folds: bool) -> None:
    """What is glued on the wood, above a label; `at` its lower left corner, mm. A foot's is folded, a flag's is not."""
    (x, y), wide = at, each
    canvas.setLineWidth(_HAIR_MM * mm)
    canvas.setStrokeColor(white)  # the cut goes round both
    canvas.line((x + _HAIR_MM) * mm, y * mm, (x + wide - _HAIR_MM) * mm, y * mm)
    canvas.setStrokeColor(INK)
    corners = ((x, y), (x, y + _TAB_MM), (x + wide, y + _TAB_MM), (x + wide, y))
    for (x0, y0), (x1, y1) in pairwise(corners):
        canvas.line(x0 * mm, y0 * mm, x1 * mm, y1 * mm)
    if folds:
        canvas.setDash(1.5, 1.5)
        canvas.line(x * mm, y * mm, (x + wide) * mm, y * mm)
        canvas.setDash()
    canvas.setFont(REGULAR, 5.5)
    canvas.drawCentredString((x + wide / 2) * mm, (y + _TAB_MM / 2 - 0.7) * mm, say.TAB)


def _label(
    canvas: Canvas, what: tuple[int, Sequence[str]], at: tuple[float, float], size: float
) -> None:
    """One target with its cutting line, hairlines and words; `at` its rim's lower left corner, mm."""
    (code, words), (x, y) = what, at
    rim = size / MODULES
    each = size + 2 * rim
    canvas.setLineWidth(_HAIR_MM * mm)
    canvas.rect(x * mm, y * mm, each * mm, each * mm, stroke=1, fill=0)
    draw_code(canvas, code, (x + rim, y + rim), size)
    middle = each / 2
    for a, b in (
        ((middle, 0.0), (middle, 0.6 * rim)),
        ((middle, each), (middle, each - 0.6 * rim)),
    ):
        for swapped in (False, True):
            (u0, v0), (u1, v1) = (a[::-1], b[::-1]) if swapped else (a, b)
            canvas.line((x + u0) * mm, (y + v0) * mm, (x + u1) * mm, (y + v1) * mm)
    _cross(canvas, x + middle, y + middle, size)
    canvas.setFont(BOLD, 8)
    canvas.drawString(x * mm, (y - 4.0) * mm, say.number_words(code))
    canvas.setFont(REGULAR, 6.5)
    for line, said in enumerate(words):
        canvas.drawString(x * mm, (y - 7.2 - _LINE_MM * line) * mm, said)
