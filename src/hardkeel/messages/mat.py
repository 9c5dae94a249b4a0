"""The mat and a part that was checked on it, in words."""

from collections.abc import Collection, Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.names import sentence_case
from hardkeel.parts.model import CheckedPiece
from hardkeel.sight.part_faults import LIMIT_MM, Fault

TITLE: Final = "Mat"
_SIGMAS: Final = 3.0
HEAD: Final = "Mat to check a cut part on"
HOW: Final = (
    "In colour, at full size, on matt paper; glue it flat on a board. The part lies clear of the rim all round.",
    "From straight above or up to 25° aside; edges burnt dark: within 8°, or on a scanner, the mat over them.",
)
TOP: Final = "top"
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
        side = f" at {fault.along[2]}" if fault.along[2] else ""
        return f"{where} is {by} too {'small' if fault.by > 0 else 'large'}{side}"
    if fault.by > 0:
        return f"sand {by} off {where}"
    return f"{where}{',' if fault.span else ''} is {by} short"


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


# -- on the page -----------------------------------------------------------------------------------

CHECK_A_PART: Final = "Check a part"
WHAT_IT_SAYS: Final = "What the picture says"
NOTHING_YET: Final = "Lay a cut part on the mat, take its picture from above, and drop it here"
NOTHING_WHY: Final = (
    "Its edges are held against the drawing to a tenth of a millimetre: what to sand, and where."
)
THE_PART: Final = "The part"
WHICH: Final = "which part lies on the mat"
OPEN: Final = "Open a picture…"
PRINT: Final = "Print the mat…"
PAPER: Final = "the mat's paper"
BARS_MEASURE: Final = "bar"
ACROSS: Final = "across"
ALONG: Final = "along"
HOW_TO: Final = (
    "Drawn face up, its top to the mat's top, clear of the rim. One picture of the whole mat, from straight above or a "
    "little aside, by a camera that keeps its focal length in the file; or a scan, the mat over the part."
)
CHECKED: Final = "Checked"
NONE_CHECKED: Final = "No part was checked yet."
NO_DRAWING: Final = "A part without a drawing"
TAKE_OUTLINE: Final = "Take its outline"
OUTLINE_WHY: Final = "What lies on the mat becomes a former's outline as it lies, centred, on the former's bottom. From straight above it is truest."
THICK: Final = "its wood is thick"
FORMER: Final = "for former"
READING: Final = "Reading {name} …"
WHICH_PICTURE: Final = "A picture of the part on its mat"
PICTURES: Final = "Photographs and scans (*.jpg *.jpeg *.png)"
WHERE_TO: Final = "Where to write the mat"
FILE: Final = "mat.pdf"
PDF_FILES: Final = "PDF (*.pdf)"
DRAWN: Final = "line: as drawn"
PROUD: Final = "wood left on"
SHORT: Final = "wood gone"
VIEW: Final = "the part on its mat"
NO_PIECES: Final = "Nothing is cut from sheet yet: *Frame* and *Tail* draw the parts."


def check_edit(name: str) -> str:
    """What undo calls it."""
    return f"check {name}"


def outline_edit(former: str) -> str:
    """What undo calls it."""
    return f"outline of {former} from a part"


def checked_line(key: str, kept: CheckedPiece, unit: LengthUnit, *, anew: bool) -> str:
    """``F4: 0.8 mm proud at its worst, 12 March``."""
    name, day = sentence_case(key), day_words(kept.read_at)
    if anew:
        return f"{name}: drawn anew since {day}"
    if not kept.fits:
        return f"{name}: another part lay there, {day}"
    if abs(kept.worst) <= max(LIMIT_MM, _SIGMAS * kept.sigma):
        return f"{name}: as drawn, {day}"
    way = "proud" if kept.worst > 0 else "short"
    return f"{name}: {format_length(abs(kept.worst), unit)} {way} at its worst, {day}"


def hands_line(name: str, faults: Sequence[Fault], unit: LengthUnit) -> str:
    """How the two hands of a pair differ."""
    if not faults:
        return f"Both hands of {name} are alike."
    first = faults[0]
    by = format_length(abs(first.by), unit)
    where = f"{first.edge}, {span_words(first, unit)}" if first.span else first.edge
    way = "more" if first.by > 0 else "less"
    return f"The two hands of {name} differ: the other has {by} {way} wood at {where}."


def day_words(moment: str) -> str:
    """``12 March``."""
    day = datetime.fromisoformat(moment)
    return f"{day.day} {day:%B}"
