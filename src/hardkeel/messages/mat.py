"""The mat and a part that was checked on it, in words."""

from collections.abc import Collection, Sequence
from typing import Final

from hardkeel.airframe.checked_parts import Checked
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.base.values import Point2
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import sentence_case
from hardkeel.messages.prints import day_words
from hardkeel.sight.part_check import Check
from hardkeel.sight.part_faults import Fault, noticed_from

TITLE: Final = "Mat"
_ALL_SEEN: Final = 0.97  # of an edge: a corner or two are not
HEAD: Final = "Mat to check a cut part on"
HOW: Final = (
    "In colour, at full size, on matt paper; glue it flat on a board. The part lies clear of the rim all round.",
    "From straight above or up to 25° aside; edges burnt dark: within 8°, or on a scanner, the mat over them.",
)
TOP: Final = "top"
BARS: Final = "both bars measure 100 mm: if not, say what they are where the part is checked"


TAKEN_OUTLINE: Final = "outline taken from a part, mm"


A_TEMPLATE: Final = "a template in a file"
NOT_KEPT: Final = "It is not kept: --save FILE writes the build with it."
OUTLINE_FILE: Final = "outline.dxf"
OUTLINE_FILES: Final = "DXF (*.dxf);;SVG (*.svg)"


def outline_written(name: str) -> str:
    """Where a template went."""
    return f"{name} has it."


def paper_words(paper: str, pages: tuple[int, int]) -> str:
    """``A4, 2 sheets``: of what a mat is put together."""
    count = pages[0] * pages[1]
    return paper if count == 1 else f"{paper}, {count} sheets"


def taken_words(rings: Sequence[Sequence[Point2]], unit: LengthUnit) -> str:
    """``An outline of 56.1 by 84.3 mm with 2 holes.``: what was taken."""
    across, along = (max(one) - min(one) for one in zip(*rings[0], strict=True))
    size = f"{format_length(across, unit)} by {format_length(along, unit)}"
    holes = f" with {number_of(len(rings) - 1, 'hole')}" if len(rings) > 1 else ""
    return f"An outline of {size}{holes}."


def sheet_words(number: int, count: int) -> str:
    """On what is cut off of a sheet."""
    return f"Sheet {number + 1} of {count}: cut at the ticks, butt it against the next on one flat board, no gap. The rest is waste."


def written(pdf: str, data: str) -> str:
    """What was written."""
    return f"{pdf}, and {data} beside it: keep both."


def verdict(piece: FlatPiece, check: Check, faults: Sequence[Fault], unit: LengthUnit) -> str:
    """The answer in a line: what is off most, else how far it is known to be as drawn."""
    name = sentence_case(piece.name)
    if not check.fits:
        return f"What lies there is not {piece.name}, or most of it is gone."
    if faults:
        return f"{name}: {fault_words(faults[0], unit)}."
    within = format_length(noticed_from(check), unit, 2)
    seen = _seen_words(check)
    return f"{name} is as it is drawn{seen}, to within {within}."


def _seen_words(check: Check) -> str:
    """How much of its edge that is said of; empty where that is all but corners."""
    if check.seen_share >= _ALL_SEEN:
        return ""
    return f" where it is seen, {100 * check.seen_share:.0f} % of its edge"


def fault_words(fault: Fault, unit: LengthUnit) -> str:
    """``sand 0.8 mm off the starboard edge, 12 mm to 38 mm above the datum``; what is gone can't be sanded on."""
    by = format_length(abs(fault.by), unit) + (" or more" if fault.at_least else "")
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


def how_lines(check: Check, tilt: float | None, unit: LengthUnit) -> tuple[str, ...]:
    """Which face is up, and how well it was seen; of another part nothing."""
    if not check.fits:
        return ()
    rms, sigma = (format_length(one, unit, 2) for one in (check.rms, check.sigma))
    by = SCANNED if tilt is None else f"Seen {tilt:.0f}° aside."
    return (
        hand_words(mirrored=check.mirrored, doubts=check.doubts),
        f"Over all of its edge that is seen {rms} rms, each place ± {sigma}. {by}",
    )


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
BARS_WORDS: Final = ("bar across", "bar along")
HOW_TO: Final = (
    "Drawn face up, its top to the mat's top, clear of the rim. One picture of the whole mat, from straight above or a "
    "little aside, by a camera that keeps its focal length in the file; or a scan, the mat over the part."
)
CHECKED: Final = "Checked"
NONE_CHECKED: Final = "No part was checked yet."
NO_DRAWING: Final = "A part without a drawing"
TAKE_OUTLINE: Final = "Take its outline…"
OUTLINE_WHY: Final = "From a picture of it on the mat. A former: as it lies, its top to the mat's, without its holes. A tail surface: a half or the whole, its leading edge to the mat's top, the half's root along a side. From straight above it is truest."
THICK: Final = "thickness"
BECOMES: Final = "it becomes"
READING: Final = "Reading {name} …"
WHICH_PICTURE: Final = "A picture of the part on its mat"
PICTURES: Final = "Photographs and scans (*.jpg *.jpeg *.png)"
WHERE_TO: Final = "Where to write the mat"
FILE: Final = "mat.pdf"
PDF_FILES: Final = "PDF (*.pdf)"
DRAWN: Final = "line: as drawn"
PROUD: Final = "wood left on"
SHORT: Final = "wood gone"
SCANNED: Final = "Taken for a scan: it shows no perspective, and no camera's focal length."
VIEW: Final = "the part on its mat"
NO_PIECES: Final = "Nothing is cut from sheet yet: Frame and Tail draw the parts."


def check_edit(name: str) -> str:
    """What undo calls it."""
    return f"check {name}"


def outline_edit(former: str) -> str:
    """What undo calls it."""
    return f"outline of {former} from a part"


def checked_line(one: Checked, unit: LengthUnit) -> str:
    """``F4: 0.8 mm proud at its worst, 12 Mar 2026``."""
    name, day = sentence_case(one.key), day_words(one.kept.read_at)
    if one.check is None:
        return f"{name}: drawn anew since {day}"
    if not one.check.fits:
        return f"{name}: another part lay there, {day}"
    if not one.faults:
        return f"{name}: as drawn{_seen_words(one.check)}, {day}"
    worst = one.faults[0]
    more = " or more" if worst.at_least else ""
    way = "proud" if worst.by > 0 else "short"
    return f"{name}: {format_length(abs(worst.by), unit)}{more} {way} at its worst, {day}"


def hands_line(name: str, apart: Sequence[Fault], unit: LengthUnit) -> str:
    """How the two hands of a pair differ."""
    if not apart:
        return f"No difference is seen between both hands of {name}."
    first = apart[0]
    by = format_length(abs(first.by), unit)
    where = f"{first.edge}, {span_words(first, unit)}" if first.span else first.edge
    way = "more" if first.by > 0 else "less"
    return f"The two hands of {name} differ: the other has {by} {way} wood at {where}."
