"""What is said of the pieces on the practice board: what they are, what can be read, what is asked, what it teaches."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_length, shortest
from hardkeel.messages.counting import in_words
from hardkeel.messages.names import sentence_case

if TYPE_CHECKING:
    from collections.abc import Sequence

    from hardkeel.practice.pieces.knowing import Taken
    from hardkeel.practice.pieces.piece import Look
    from hardkeel.practice.pieces.task import Marked, Task

ON_BOARD: Final = "On the board"
WHOLE_MODEL: Final = "On a whole model"
NUMBERS: Final = 100_000  # short enough to be told across a club room
NUMBER: Final = "Number"
NUMBER_TIP: Final = (
    "The same number lays out the same piece: so a club works on one, or two compare notes"
)
ANOTHER: Final = "Another one"
SET_NOW: Final = "It has set: what you know now is what you have."
LOOKS: Final = "What can be read"
LOOK_HEADS: Final = ("", "min")
AS_WAS, AS_DRAWN = "as it was", "as drawn"
BEST_LIST: Final = "The best list, in its order"
TOOLS: Final = {
    "rule": "rule",
    "tape": "tape",
    "thread": "thread",
    "square": "square",
    "feeler": "feeler gauge",
    "calliper": "calliper",
    "shim": "shims",
}


@dataclass(frozen=True, slots=True)
class Words:
    """A kind in words.

    Attributes
    ----------
    name, course : str
        As a choice, and what it teaches.
    is_this : str
        What lies there.
    looks : mapping of str to str
        What is read, by look.
    asked : mapping of str to (str, str, str)
        Of each question its name, and what it is called above and below what is wanted.
    stories : mapping of str to str
        What was wrong.
    along : str
        What is to be taken along.
    """

    name: str
    course: str
    is_this: str
    looks: dict[str, str]
    asked: dict[str, tuple[str, str, str]]
    stories: dict[str, str]
    along: str


_NOTHING: Final = "Nothing was out."
PIECES: Final[dict[str, Words]] = {
    "print": Words(
        "Print",
        "The scale of a print: along is not across",
        "A plan as it came from the printer, before anything is built over it.",
        {
            "bar": "scale bar along the sheet's foot",
            "length": "fuselage, end to end",
            "span": "stabilizer, tip to tip",
            "former": "widest former, across",
            "border": "border, corner to corner",
        },
        {
            "along": ("Along the sheet", "long", "short"),
            "across": ("Across the sheet", "wide", "narrow"),
        },
        {
            "nothing": _NOTHING,
            "along": "The print was off along the sheet only.",
            "across": "The print was off across the sheet only: its bar, which lies along, was right.",
            "both": "The print was off both ways, along by another share than across.",
        },
        "A bar tells the scale the way it lies. Read one written length along and one across, as long as there are.",
    ),
    "sides": Words(
        "Two sides",
        "A pair that is a pair: one outline, two hands",
        "Two fuselage sides with their doublers, nose to the left, the inner face up.",
        {
            "length-port": "port side, end to end",
            "length-starboard": "starboard side, end to end",
            "outlines": "one on the other: what stands out at the tail",
            "edge-port": "nose to the doubler's edge, port",
            "edge-starboard": "nose to the doubler's edge, starboard",
            "step-port": "step at the doubler's edge, inner face, port",
            "step-starboard": "step at the doubler's edge, inner face, starboard",
        },
        {
            "outline": ("Same length", "port longer", "starboard longer"),
            "doublers": ("Doublers opposite each other", "port's aft", "starboard's aft"),
            "hand": (
                "Starboard's doubler",
                "on the outer face",
                "on the inner face",
            ),
        },
        {
            "nothing": _NOTHING,
            "one-longer": "One side was longer than the other.",
            "doublers-off": "One doubler sat aft or ahead of its place.",
            "alike": "Both sides had been made alike: starboard's doubler was on its outer face.",
        },
        "Two sides that lie on each other edge to edge may still both be left ones: lay them as they will stand, inner face to inner face.",
    ),
    "box": Words(
        "Wet box",
        "Squaring a wet box before it sets",
        "Two sides and two formers, the glue still wet. What is read takes minutes that the glue has not.",
        {
            "top-port": "top, port front to starboard rear",
            "top-starboard": "top, starboard front to port rear",
            "port-up": "port side, low front to high rear",
            "port-down": "port side, high front to low rear",
            "starboard-up": "starboard side, low front to high rear",
            "starboard-down": "starboard side, high front to low rear",
            "shim": "rear former's foot off the board, port less starboard",
        },
        {
            "rack": ("Square from above", "starboard ahead", "port ahead"),
            "lean": ("Square from the side", "top ahead", "top aft"),
            "twist": (
                "Rear former's twist",
                "top to starboard",
                "top to port",
            ),
        },
        {
            "nothing": _NOTHING,
            "racked": "The box was racked: one side ahead of the other.",
            "leans": "The formers leaned, fore or aft.",
            "twisted": "The rear former was twisted against the front one.",
            "cut-long": "The sides were cut too long, and the box was square all the same.",
        },
        "One diagonal tells nothing: sides cut long make it longer, too. The two of a face against each other tell whether it is square.",
    ),
    "rear": Words(
        "Rear end",
        "Bent, or only off the line: read between the ends",
        "A rear fuselage that dried away from its board, from the wing to the post, seen from above.",
        {
            "thread-front": "thread from end to end: a quarter of the way",
            "thread-middle": "thread from end to end: the middle",
            "thread-rear": "thread from end to end: three quarters",
            "square-middle": "square up from the board's line: the middle",
            "square-post": "square up from the board's line: the post",
            "tips": "post to the wing's tips, starboard less port",
        },
        {
            "bend": ("Straight from end to end", "bent to starboard", "bent to port"),
            "post": ("Post on the line", "to starboard", "to port"),
        },
        {
            "nothing": _NOTHING,
            "bent": "It had bent while it dried; its post stood on the line all the same.",
            "post-off": "The post was off the line, and the rear end straight.",
            "both": "It had bent while it dried, and its post was off the line.",
        },
        "A post on its line does not make a straight fuselage: read between the ends, too.",
    ),
    "hatch": Words(
        "Hatch",
        "What is to go through, and the narrowest place on its way",
        "A hatch, the doublers under it and a pack (dashed), seen from above. A pack that is forced is a pack that is damaged.",
        {
            "hatch-long": "hatch, long way",
            "hatch-wide": "hatch, across",
            "inside": "between the doublers",
            "pack-long": "pack, long way with its leads",
            "pack-thick": "pack, across",
        },
        {
            "length": ("Spare, long way", "more", "less"),
            "width": ("Spare at the hatch", "more", "less"),
            "inside": ("Spare inside", "more", "less"),
        },
        {
            "nothing": _NOTHING,
            "short": "The hatch was cut too short.",
            "narrow": "It was too narrow between the doublers, under a hatch that was wide enough.",
            "pack-long": "The pack was longer than its label said.",
            "tight": "Too narrow between the doublers, and the pack thicker than its label said.",
        },
        "Measure what goes through, not its label, and the narrowest place on its way, not the one that you see.",
    ),
    "tail": Words(
        "Flat tail",
        "A board lies as well: turn the frame over",
        "A stabilizer's frame on its board, before it is covered. The board may be hollow or wound itself.",
        {
            "middle": "light under the middle",
            "middle-over": "light under the middle, frame turned over",
            "corner": "light under the fourth corner",
            "corner-over": "light under the fourth corner, frame turned over",
            "corner-across": "light under the fourth corner, frame laid across the board",
        },
        {
            "bow": ("Straight along its span", "middle high", "middle low"),
            "twist": ("Without a wind", "corner high", "corner low"),
        },
        {
            "nothing": _NOTHING,
            "bowed": "The frame was bowed along its span.",
            "warped": "The frame was wound from tip to tip.",
            "board-hollow": "The board was hollow along its length, and the frame straight.",
            "board-wound": "The board was wound, and the frame was not.",
        },
        "Turn the frame over: its own bow changes sides, the board's does not. A wind stays the same then; it changes sides when the frame lies across.",
    ),
    "panels": Words(
        "Two panels",
        "One panel long, or the wing swung: two pins tell them apart",
        "A wing of two panels on its fuselage, seen from above.",
        {
            "tail-port": "tail post to port tip",
            "tail-starboard": "tail post to starboard tip",
            "nose-port": "nose pin to port tip",
            "nose-starboard": "nose pin to starboard tip",
            "panel-port": "port panel, centre line to tip",
            "panel-starboard": "starboard panel, centre line to tip",
            "root": "centre line to the fuselage's mark on the wing",
        },
        {
            "swing": ("Square to the fuselage", "port tip aft", "port tip ahead"),
            "longer": ("Panels alike", "port longer", "starboard longer"),
        },
        {
            "nothing": _NOTHING,
            "swung": "The wing was swung.",
            "one-long": "One panel was longer than the other, and the wing square.",
            "both": "The wing was swung, and one panel longer than the other.",
        },
        "A longer panel and a swung wing look alike from one pin. From a pin ahead of the wing they do not.",
    ),
}


def look_name(kind: str, look: "Look") -> str:
    """What is read, as in a list: ``Scale bar along the sheet's foot``."""
    return sentence_case(PIECES[kind].looks[look.id])


def piece_answer(task: "Task", said: int, spent: float) -> str:
    """What is to be done, large."""
    asked = len(task.piece.asked)
    if said == asked:
        return f"{sentence_case(in_words(asked))} said. Show how it was?"
    if task.piece.pot_life is not None and spent >= task.minutes:
        return SET_NOW
    return f"What of these {in_words(asked)} is out?"


def minutes_line(task: "Task", spent: float) -> str:
    """``3 of 10 minutes``; of what is wet, until it sets."""
    wet = " until it sets" if task.piece.pot_life is not None else ""
    return f"{shortest(spent)} of {shortest(task.minutes)} minutes{wet}"


def told_answer(lines: "Sequence[Marked]") -> str:
    """``Two of three right.``."""
    right = sum(one.is_right for one in lines)
    return f"{sentence_case(in_words(right)) if right else 'None'} of {in_words(len(lines))} right."


def way_words(kind: str, asked: str, off: float, unit: LengthUnit) -> str:
    """``1.8 mm starboard ahead``."""
    _, above, below = PIECES[kind].asked[asked]
    return f"{format_length(abs(off), unit)} {above if off > 0 else below}"


def set_words(task: "Task", lines: "Sequence[Marked]", unit: LengthUnit) -> str:
    """How it stands, pushed back by the learner's figures; empty where none was named."""
    said = []
    for one, asked in zip(lines, task.piece.asked, strict=True):
        if one.left is None:
            continue
        name = PIECES[task.piece.kind].asked[asked.id][0]
        if abs(one.left) <= asked.tolerance:
            said.append(f"{name}: put right by your figure it would be as drawn.")
        else:
            way = way_words(task.piece.kind, asked.id, one.left, unit)
            said.append(f"{name}: put right by your figure it would still be {way}.")
    return "\n".join(said)


def times_words(times: int) -> str:
    """How much larger what is off is drawn."""
    return f"what is off drawn {times} times" if times > 1 else "drawn as it is"


def number_line(task: "Task") -> str:
    """Which one it is, so that a club can work the same."""
    return f"number {task.seed}{', the last of its course' if task.last else ''}"


def differs(off: float, unit: LengthUnit) -> str:
    """``+0.3 mm``; what rounds to nothing has no sign."""
    told = format_length(off, unit)
    return f"+{told}" if off > 0 and told != format_length(0.0, unit) else told


def taken_cells(
    task: "Task", number: int, taken: "Taken", unit: LengthUnit
) -> tuple[str, str, str, str]:
    """A row of what was read: its number, what it is, if as drawn, what it shows."""
    piece = task.piece
    name = look_name(piece.kind, piece.looks[taken.look])
    drawn = format_length(float(piece.if_true[taken.look]), unit)
    return str(number), name, drawn, format_length(taken.value, unit)
