"""Station lines through a drawing, and under them its figures in columns, so that no dimension crosses another."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.plan_drawing import LETTER, SMALL_MM, PlanDrawing
from hardkeel.messages import building_plan as say
from hardkeel.messages.frame import stop_words

_BELOW_MM: Final = 12.0
_ABOVE_MM: Final = 5.0
_ROW_MM: Final = 3.6
_ASIDE_MM: Final = 8.0  # from the first station to the words of a row

Rows = Sequence[tuple[str, Sequence[str]]]


def draw_stations(
    drawing: PlanDrawing, stops: Sequence[tuple[str, float]], unit: LengthUnit, rows: Rows = ()
) -> float:
    """Draw stations at their places along u; how low the drawing reaches then, mm.

    Under them a chain of distances from each to the next, their places from the first, and `rows` with a figure for
    each.
    """
    low = min(v for line in drawing.lines for _, v in line.points) - _BELOW_MM
    high = max(v for line in drawing.lines for _, v in line.points) + _ABOVE_MM
    for name, at in stops:
        drawing.line("STATIONS", [(at, low), (at, high)])
        drawing.label([((at, high + 2.5 + 3.4 * row), 0.0) for row in range(6)], stop_words(name))
    places = [at for _, at in stops]
    middles = [(a + b) / 2 for a, b in pairwise(places)]
    between = [format_length(b - a, unit) for a, b in pairwise(places)]
    drawing.line("DIMENSIONS", [(places[0], low + 2), (places[-1], low + 2)])
    for at in places:
        drawing.line("DIMENSIONS", [(at - 0.9, low + 1.1), (at + 0.9, low + 2.9)])
    v = _row(drawing, (say.BETWEEN, between), middles, places, low - 0.5)
    first = [format_length(at - places[0], unit) for at in places]
    for told in ((say.from_first(stop_words(stops[0][0])), first), *rows):
        v = _row(drawing, told, places, places, v - 1.0)
    return v


def _row(
    drawing: PlanDrawing,
    row: tuple[str, Sequence[str]],
    middles: Sequence[float],
    places: Sequence[float],
    top: float,
) -> float:
    """Figures in their columns, upright where they have no room beside each other; how low they reach."""
    name, figures = row
    widths = [len(text) * SMALL_MM * LETTER for text in figures]
    apart = all(
        v - u > (a + b) / 2 + 1.0 for (u, a), (v, b) in pairwise(zip(middles, widths, strict=True))
    )
    tall = _ROW_MM if apart else max(widths, default=0.0) + 1.0
    v = top - tall / 2
    for text, at in zip(figures, middles, strict=True):
        drawing.write((at, v), text, size=SMALL_MM, turn=0.0 if apart else 90.0)
    drawing.line("DIMENSIONS", [(places[0], top - tall), (places[-1], top - tall)])
    drawing.write((places[0] - _ASIDE_MM, v), name, size=SMALL_MM, anchor="end")
    return top - tall
