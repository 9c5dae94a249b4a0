"""Station lines through a drawing: names over them, one chain of distances under them, so that no dimension crosses another."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.plan_drawing import SMALL_MM, PlanDrawing
from hardkeel.messages.frame import stop_words

_BELOW_MM: Final = 12.0
_ABOVE_MM: Final = 5.0
_LETTER: Final = 0.62  # of its height, how wide


def draw_stations(
    drawing: PlanDrawing, stops: Sequence[tuple[str, float]], unit: LengthUnit
) -> float:
    """Draw stations at their places along u; how low the drawing reaches then, mm."""
    low = min(v for line in drawing.lines for _, v in line.points) - _BELOW_MM
    high = max(v for line in drawing.lines for _, v in line.points) + _ABOVE_MM
    for name, at in stops:
        drawing.line("STATIONS", [(at, low), (at, high)])
        drawing.label([((at, high + 2.5 + 3.4 * row), 0.0) for row in range(4)], stop_words(name))
    drawing.line("DIMENSIONS", [(stops[0][1], low + 2), (stops[-1][1], low + 2)])
    lowest = low - 4
    for (_, a), (_, b) in pairwise(stops):
        text = format_length(b - a, unit)
        long = len(text) * SMALL_MM * _LETTER
        turn = 0.0 if b - a > long + 2 else 90.0
        v = low - 1.5 - (long / 2 if turn else 0.0)
        drawing.write(((a + b) / 2, v), text, size=SMALL_MM, turn=turn)
        lowest = min(lowest, v - long / 2 if turn else v)
    return lowest
