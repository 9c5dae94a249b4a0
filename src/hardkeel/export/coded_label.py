"""One coded label on a page: its black square in its rim, in as few rectangles as there are runs of white."""

from hardkeel.export.stationery import INK, Canvas, mm, white
from hardkeel.sight.codes import MODULES, bits_of


def draw_code(canvas: Canvas, code: int, at: tuple[float, float], side: float) -> None:
    """The black square of a label.

    Parameters
    ----------
    at : (float, float)
        Its lower left corner on the page, mm.
    side : float
        mm.
    """
    x, y = at
    module = side / MODULES
    # black as one square, so that its edges are one line each, and what is white over it
    canvas.setFillColor(INK)
    canvas.rect(x * mm, y * mm, side * mm, side * mm, stroke=0, fill=1)
    bits = bits_of(code)
    canvas.setFillColor(white)
    for row in range(MODULES):
        start = 0
        while start < MODULES:
            end = start + 1
            while end < MODULES and bits[row, end] == bits[row, start]:
                end += 1
            if not bits[row, start]:
                low = y + (MODULES - 1 - row) * module
                left = x + start * module
                canvas.rect(
                    left * mm, low * mm, (end - start) * module * mm, module * mm, stroke=0, fill=1
                )
            start = end
    canvas.setFillColor(INK)
