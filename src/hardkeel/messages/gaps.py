"""Gaps at the roots: what to push, swing, cover, pack and fill."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_small_length
from hardkeel.messages.names import sentence_case
from hardkeel.survey.model import GapPlace, PanelSide, SeatKind
from hardkeel.survey.rootgaps import COVERED_MM, STRIP_MM, RootGaps

GAPS: Final = "Gaps at the root"
PLACES: Final[dict[GapPlace, str]] = {"le": "LE", "spar": "spar", "te": "TE"}
WITH_GAPS: Final[frozenset[SeatKind]] = frozenset({"tube", "slot"})  # where panels come to the side
HOW: Final = (
    "A feeler or a drill's shank between root and fuselage side, panel pushed home by hand."
)
_WHERE: Final[dict[GapPlace, str]] = {
    "le": "leading edge",
    "spar": "spar",
    "te": "trailing edge",
}


def field_name(side: PanelSide, at: GapPlace) -> str:
    """``port gap at the spar``."""
    return f"{side} gap at the {_WHERE[at]}"


def gap_edit(side: PanelSide, at: GapPlace) -> str:
    """The step's name for undo."""
    return f"read the {field_name(side, at)}"


def gaps_words(gaps: RootGaps, unit: LengthUnit) -> str:
    """One side in a sentence or two."""
    side = sentence_case(gaps.side)
    push = f"push it in {format_small_length(gaps.push, unit)}"
    match gaps.cure:
        case "none":
            return f"{side}: closed, the covering will do."
        case "push":
            return f"{side}: {push}, and it is closed."
        case "swing":
            way = "aft" if gaps.wedge > 0 else "forward"
            return f"{side}: swing the tip {way} by {format_angle(abs(gaps.wedge), 1)}; that closes the wedge and squares it. Then {push}."
        case "ask":
            return f"{side}: a wedge of {format_angle(abs(gaps.wedge), 1)}. Measure how square it stands before you close it or fill it."
        case "fill":
            start = f"{push}, then " if gaps.push else ""
            return f"{side}: do not swing it, it would leave square. {sentence_case(start)}{_filling(gaps, unit)}."


def _filling(gaps: RootGaps, unit: LengthUnit) -> str:
    told = []
    for place, left in gaps.left.items():
        if place == "spar" and gaps.packing:
            told.append(f"hard wood at the spar, {format_small_length(left, unit)}")
        elif left > STRIP_MM:
            told.append(
                f"a wedge of sheet at the {_WHERE[place]}, {format_small_length(left, unit)}"
            )
        elif left > COVERED_MM:
            told.append(
                f"a strip or filler at the {_WHERE[place]}, {format_small_length(left, unit)}"
            )
    return "; ".join(told) or "let the covering bridge what is left"
