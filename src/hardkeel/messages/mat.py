"""The mat and a part that was checked on it, in words."""

from collections.abc import Collection, Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.names import sentence_case
from hardkeel.sight.part_faults import Fault

TITLE: Final = "Mat"
HEAD: Final = "Mat to check a cut part on"
HOW: Final = (
    "In colour, at full size, on matt paper; glue it flat on a board. The part lies clear of the rim all round.",
    "From straight above or up to 25° aside; edges burnt dark: within 8°, or on a scanner, the mat over them.",
)
BARS: Final = "both bars measure 100 mm: if not, say what they are where the part is checked"


def written(pdf: str, data: str) -> str:
    """What was written."""
    return f"{pdf}, and {data} beside it: keep both."


def verdict(piece: FlatPiece, faults: Sequence[Fault], *, fits: bool, unit: LengthUnit) -> str:
    """The answer in a line."""
    name = sentence_case(piece.name)
    if not fits:
        return f"What lies there is not {piece.name}, or most of it is gone."
    if not faults:
        return f"{name} is as it is drawn."
    first = faults[0]
    return f"{name}: {fault_words(first, unit)}."


def fault_words(fault: Fault, unit: LengthUnit) -> str:
    """``sand 0.8 mm off the starboard edge, 12 to 38 mm up``; what is gone can't be sanded on."""
    by = format_length(abs(fault.by), unit)
    where = f"{fault.edge}, {span_words(fault, unit)}" if fault.span else fault.edge
    if fault.hole:
        return f"{where} is {by} too {'small' if fault.by > 0 else 'large'} there"
    if fault.by > 0:
        return f"sand {by} off {where}"
    return f"{where} is {by} short"


def span_words(fault: Fault, unit: LengthUnit) -> str:
    """Between which two marks: ``from 14 mm below to 9 mm above the datum``."""
    low, high = fault.span or (0.0, 0.0)
    over, under, of = fault.along
    same = (low >= 0) == (high >= 0)
    if same:
        near, far = sorted((abs(low), abs(high)))
        return f"{format_length(near, unit, 0)} to {format_length(far, unit, 0)} {over if high > 0 else under} {of}"
    return (
        f"from {format_length(-low, unit, 0)} {under} to {format_length(high, unit, 0)} {over} {of}"
    )


def hand_words(*, mirrored: bool, doubts: Collection[str]) -> str:
    """Which face is up, and what its shape can't tell."""
    if "face" in doubts and "way" in doubts:
        return "Its shape is alike either face up and both ways round: it is taken to lie drawn face up, its top to the mat's top."
    if "face" in doubts:
        return "Its shape is alike either face up: it is taken to lie drawn face up."
    if "way" in doubts:
        return "Its shape is alike both ways round: its top is taken to lie to the mat's top."
    if mirrored:
        return "It lies with its other face up: turned over, or the other hand."
    return "It lies with its drawn face up."


def how_words(rms: float, sigma: float, unit: LengthUnit, tilt: float | None) -> str:
    """How well it was seen."""
    figures = (
        format_length(rms, unit, 2),
        format_length(sigma, unit, 2),
    )
    by = "scanned" if tilt is None else f"seen {tilt:.0f}° aside"
    return f"Over all of its edges {figures[0]} rms, each ± {figures[1]}; {by}."
