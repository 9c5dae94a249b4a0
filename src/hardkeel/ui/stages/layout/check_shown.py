"""What the page for checking parts shows: the part with what is off as plain values, and its words."""

import math
from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.messages.names import sentence_case
from hardkeel.picture.wood import tone_of
from hardkeel.sight.part_check import Check
from hardkeel.sight.part_faults import LIMIT_MM, Fault
from hardkeel.ui.stages.layout.checked_view import Call, CheckedShown, EdgePlace

_CALLED: Final = 3  # figures in the drawing: the rest stands beside it
_LINES: Final = 4


def shown_of(
    piece: FlatPiece, check: Check | None, faults: Sequence[Fault], unit: LengthUnit
) -> CheckedShown:
    """A piece, with what was found of it."""
    rings = (piece.outline, *piece.holes)
    tone = tone_of(piece.material)
    if check is None or not check.fits:
        return CheckedShown(rings, tone)
    places = tuple(
        EdgePlace((u, v), (a, b), by if math.isfinite(by) else None, int(ring))
        for (u, v), (a, b), by, ring in zip(
            check.at.tolist(), check.normal.tolist(), check.smooth.tolist(), check.ring, strict=True
        )
    )
    calls = tuple(_call(fault, check, unit) for fault in faults[:_CALLED])
    return CheckedShown(rings, tone, places, calls, LIMIT_MM)


def _call(fault: Fault, check: Check, unit: LengthUnit) -> Call:
    u, v = check.at[fault.place].tolist()
    a, b = check.normal[fault.place].tolist()
    sign = "+" if fault.by > 0 else "−"
    text = f"{sign}{format_length(abs(fault.by), unit)}"
    return Call((u, v), (a, b), text, fault.ends, fault.by > 0)


def answer_of(
    piece: FlatPiece, check: Check, faults: Sequence[Fault], unit: LengthUnit
) -> tuple[str, ...]:
    """The answer, then what else is off."""
    first = say.verdict(piece, check, faults, unit)
    if not check.fits:
        return (first,)
    rest = [f"{sentence_case(say.fault_words(one, unit))}." for one in faults[1:_LINES]]
    return (first, *rest)
