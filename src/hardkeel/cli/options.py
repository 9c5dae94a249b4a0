"""What may stand behind a command; help, parser and the papers' test are fed from here."""

import argparse
import json
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, Final

from hardkeel.base.units import LengthUnit
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.survey.readings import PHASES


@dataclass(frozen=True, slots=True)
class Option:
    """One option: how it is written, how it stands in the line of help, what it does."""

    flag: str
    usage: str
    says: str
    how: dict[str, Any] = field(default_factory=dict)


_SWITCH: Final = {"action": "store_true"}
JSON: Final = Option("--json", "[--json]", "print unrounded numbers as JSON", _SWITCH)
INCHES: Final = Option("--inches", "[--inches]", "lengths in inches", _SWITCH)
PHASE: Final = Option(
    "--phase", "[--phase PHASE]", "the readings of this phase alone", {"choices": PHASES}
)
TO: Final = Option(
    "--to", "--to DIR", "made where missing", {"type": Path, "required": True, "metavar": "DIR"}
)
LIMIT: Final = Option(
    "--limit",
    "[--limit SECONDS]",
    "how long to look for a better plan, 10 without it",
    {"type": float, "metavar": "SECONDS"},
)
SHEETS: Final = Option(
    "--sheets", "[--sheets]", "nest the flat pieces on sheets, too: that takes a while", _SWITCH
)
AT: Final = Option(
    "--at",
    "[--at STATION]",
    "the section there, mm: girth, area and contour as the loft has it",
    {"type": float, "metavar": "STATION"},
)
SECONDS: Final = Option(
    "--seconds",
    "[--seconds SECONDS]",
    "with --sheets, for how long to look for room on each strip: 5 without it, 0 for the quick way",
    {"type": float, "metavar": "SECONDS"},
)
PAPER: Final = Option(
    "--paper",
    "[--paper A4|Letter|A3]",
    "what the printer holds, A4 without it",
    {"choices": tuple(PAPERS), "default": "A4"},
)
TO_PDF: Final = Option(
    "--to",
    "--to FILE.pdf",
    "where it is written",
    {"type": Path, "required": True, "metavar": "FILE.pdf"},
)
TO_PNG: Final = Option(
    "--to",
    "--to FILE.png",
    "where it is written",
    {"type": Path, "required": True, "metavar": "FILE.png"},
)
PIXELS: Final = Option(
    "--size",
    "[--size PIXELS]",
    "of its side, 256 without it",
    {"type": int, "metavar": "PIXELS"},
)
SIZE: Final = Option(
    "--size",
    "[--size MM]",
    "side of the black square, 20 without it",
    {"type": float, "metavar": "MM"},
)
PHOTOS: Final = Option(
    "photos",
    "PHOTO…",
    "JPEG or PNG as the camera wrote them",
    {"type": Path, "nargs": "+", "metavar": "PHOTO"},
)
PHOTO: Final = Option(
    "photo",
    "PHOTO",
    "a photograph or a scan of the piece on its mat, JPEG or PNG",
    {"type": Path, "metavar": "PHOTO"},
)
MAT: Final = Option(
    "--mat",
    "--mat FILE.json",
    "what was written beside the mat's print",
    {"type": Path, "required": True, "metavar": "FILE.json"},
)
PIECE: Final = Option(
    "--piece", "--piece NAME", "which piece, as frame and tail name it", {"metavar": "NAME"}
)
OUTLINE: Final = Option(
    "--outline",
    "[--outline NAME]",
    "in place of a piece: take the outline of what lies there for this former or tail surface, or write it to a .dxf or .svg",
    {"metavar": "NAME"},
)
THICKNESS: Final = Option(
    "--thickness",
    "[--thickness MM]",
    "of the wood whose outline is taken, 3 without it",
    {"type": float, "metavar": "MM", "default": 3.0},
)
PAGES: Final = Option(
    "--pages",
    "[--pages N N]",
    "put together of so many pages across and up, one or two each way",
    {"type": int, "nargs": 2, "metavar": "N"},
)
ANY_ORDER: Final = Option(
    "--any-order",
    "[--any-order]",
    "the targets were stuck on in another order than their sheet's: find which is where",
    _SWITCH,
)
BARS: Final = Option(
    "--bars",
    "[--bars MM MM]",
    "what the mat's bars measure, across and along, 100 each without it",
    {"type": float, "nargs": 2, "metavar": "MM"},
)
OF_FRAME: Final = Option(
    "--frame",
    "[--frame]",
    "of the frame on its board, in place of the airframe: prints its squaring",
    _SWITCH,
)
LIST: Final = Option("--list", "[--list]", "the courses", _SWITCH)
SEED: Final = Option(
    "--seed", "[--seed N]", "which exercise: the same again", {"type": int, "metavar": "N"}
)
COURSE: Final = Option("--course", "[--course ID]", "of this course", {"metavar": "ID"})
LAST: Final = Option("--last", "[--last]", "the last exercise of the course", _SWITCH)
HIDDEN_IN: Final = Option(
    "--in",
    "[--in FILE.keel]",
    "an error hidden in this model, in a copy of it",
    {"type": Path, "metavar": "FILE", "dest": "hidden_in"},
)
GRADE: Final = Option(
    "--grade",
    "[--grade 1|2|3]",
    "without a course: how much hides, 1 without it",
    {"type": int, "choices": (1, 2, 3), "default": 1},
)
TO_KEEL: Final = Option(
    "--to", "[--to FILE]", "where the exercise is written", {"type": Path, "metavar": "FILE"}
)
SHEET: Final = Option(
    "--sheet",
    "[--sheet FILE.pdf]",
    "the exercise on paper, its solution on another sheet",
    {"type": Path, "metavar": "FILE.pdf"},
)
REVEAL: Final = Option(
    "--reveal",
    "[--reveal FILE]",
    "what was wrong in an exercise",
    {"type": Path, "metavar": "FILE"},
)
SAVE: Final = Option(
    "--save",
    "[--save FILE]",
    "write the build with the photos and sightings there",
    {"type": Path, "metavar": "FILE"},
)
OVERWRITE: Final = Option(
    "--overwrite", "[--overwrite]", "write over files that are not this build's, too", _SWITCH
)


def unit_of(parsed: argparse.Namespace) -> LengthUnit:
    """The unit asked for."""
    return "in" if parsed.inches else "mm"


def as_text(data: object) -> str:
    """JSON for a terminal or a pipe."""
    return json.dumps(data, indent=1, allow_nan=False) + "\n"
