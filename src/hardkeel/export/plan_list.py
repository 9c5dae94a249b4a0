"""The sticks that are cut, as a table beside the drawings: what stands on the bench needs no screen."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.base.units import LengthUnit, format_length, format_size
from hardkeel.export.plan_drawing import LETTER, SMALL_MM, TEXT_MM, PlanDrawing
from hardkeel.joinery.cut_part import CutPart
from hardkeel.messages import building_plan as say
from hardkeel.messages.frame import end_words

_ROW_MM: Final = 5.0
_GAP_MM: Final = 4.0
_HEAD_MM: Final = 7.0
_LETTER_MM: Final = TEXT_MM * LETTER


@dataclass(frozen=True, slots=True)
class Listed:
    """A stick with the name that it has in the drawings, and its wood in words."""

    part: CutPart
    name: str
    wood: str


def list_plans(
    parts: Sequence[Listed],
    unit: LengthUnit,
    room: tuple[float, float],
    name: str,
) -> tuple[PlanDrawing, ...]:
    """Tables of all sticks, none taller than the room; empty without any.

    Parameters
    ----------
    room : (float, float)
        What a page has to draw on, mm.
    name : str
        Of the drawing; the second is called ``name-2``.
    """
    if not parts:
        return ()
    rows = [_row(part, unit) for part in parts]
    widths = [
        max(len(row[i]) for row in (say.STICK_COLUMNS, *rows)) * _LETTER_MM + _GAP_MM
        for i in range(len(say.STICK_COLUMNS))
    ]
    wide = sum(widths)
    beside = max(1, int((room[0] + _GAP_MM * 2) // (wide + _GAP_MM * 2)))
    deep = max(1, int((room[1] - _HEAD_MM - 4) // _ROW_MM))
    found: list[PlanDrawing] = []
    for start in range(0, len(rows), deep * beside):
        drawing = PlanDrawing(name if not found else f"{name}-{len(found) + 1}")
        here = rows[start : start + deep * beside]
        # as many below each other as give even columns
        tall = min(deep, -(-len(here) // beside))
        for column in range(-(-len(here) // tall)):
            left = column * (wide + 2 * _GAP_MM)
            _table(drawing, here[column * tall : (column + 1) * tall], widths, left)
        found.append(drawing)
    return tuple(found)


def _row(listed: Listed, unit: LengthUnit) -> tuple[str, ...]:
    part = listed.part
    ends = [end_words(end) for end in part.ends]
    first, last = ends if len(ends) == 2 else ("", "")  # noqa: PLR2004  a stick has two
    return (
        listed.name,
        f"{part.quantity}",
        f"{listed.wood} {format_size(part.section, unit)}".strip(),
        format_length(part.length, unit),
        first,
        last,
    )


def _table(
    drawing: PlanDrawing, rows: Sequence[Sequence[str]], widths: Sequence[float], left: float
) -> None:
    wide = sum(widths)
    for number, row in enumerate((say.STICK_COLUMNS, *rows)):
        v = -_ROW_MM * number
        at = left
        for i, (text, width) in enumerate(zip(row, widths, strict=True)):
            size = SMALL_MM if number == 0 else TEXT_MM
            if text and i in say.STICK_WORDS:
                drawing.write((at, v), text, size=size, anchor="start")
            elif text:
                drawing.write((at + width - _GAP_MM, v), text, size=size, anchor="end")
            at += width
        drawing.line(
            "DIMENSIONS", [(left, v - _ROW_MM / 2), (left + wide - _GAP_MM, v - _ROW_MM / 2)]
        )
