"""What ``--sheets`` adds to a command: flat pieces on sheets, and what to buy of them."""

import argparse
from collections.abc import Sequence
from typing import Any

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.model import Framing
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, nested, sheets_to_buy
from hardkeel.joinery.tightening import LOOKED_SECONDS, tightened
from hardkeel.messages.frame import sheet_sentence


def looked_seconds(parsed: argparse.Namespace) -> float | None:
    """For how long to look for room on each strip; ``None`` where sheets were not asked for."""
    if not parsed.sheets:
        return None
    return LOOKED_SECONDS if parsed.seconds is None else max(parsed.seconds, 0.0)


def sheets_json(
    pieces: Sequence[FlatPiece], framed: Framing, seconds: float
) -> list[dict[str, Any]]:
    """What to buy of each wood and thickness, and where each piece lies, mm on the sheet."""
    sheets = _laid(pieces, framed, seconds)
    told = [
        {
            "material": one.material,
            "thickness": one.thickness,
            "size": list(one.size),
            "sheets": one.sheets,
            "waste_percent": one.waste,
            "placed": _placed(
                s
                for s in sheets
                if not s.own and (s.material, s.thickness) == (one.material, one.thickness)
            ),
        }
        for one in sheets_to_buy(sheets, framed.sheet)
    ]
    told += [
        {
            "material": one.material,
            "thickness": one.thickness,
            "size": [one.length, one.width],
            "sheets": 0,
            "own": True,
            "waste_percent": one.waste,
            "placed": _placed([one]),
        }
        for one in sheets
        if one.own
    ]
    return told


def sheet_lines(
    pieces: Sequence[FlatPiece], framed: Framing, seconds: float, unit: LengthUnit
) -> list[str]:
    """How many sheets to buy, a line each."""
    sheets = _laid(pieces, framed, seconds)
    return [
        f"  {sheet_sentence(one, one.material or '', unit)}"
        for one in sheets_to_buy(sheets, framed.sheet)
    ]


def _laid(pieces: Sequence[FlatPiece], framed: Framing, seconds: float) -> tuple[NestedSheet, ...]:
    sheets = nested(pieces, framed.sheet, framed.sheet_gap, offcuts=framed.offcuts)
    return tightened(sheets, framed.sheet_gap, seconds) if seconds > 0 else sheets


def _placed(sheets: Sequence[NestedSheet] | Any) -> list[dict[str, Any]]:
    return [
        {
            "piece": placed.piece.name,
            "sheet": number,
            "outline": [list(point) for point in placed.moved(placed.piece.outline)],
        }
        for number, sheet in enumerate(sheets, 1)
        for placed in sheet.placed
    ]
