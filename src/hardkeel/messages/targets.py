"""Printed targets in words: what stands on their sheet, what photographs told."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from hardkeel.airframe.targeting import places_of
from hardkeel.base.units import LengthUnit, decimal, format_length, shortest
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import body_name, mark_name, surface_name
from hardkeel.messages.square import mark_words as frame_words
from hardkeel.messages.tail import FIN_PLACES, PLACE_WORDS
from hardkeel.survey.model import OWN_TARGET, Survey

if TYPE_CHECKING:
    from hardkeel.airframe.targeting import Place
    from hardkeel.project.model import Build
    from hardkeel.sight.assigning import Assigned
    from hardkeel.sight.moved import MovedPart
    from hardkeel.sight.quality import Quality
    from hardkeel.sight.targets import Sighted, Told
    from hardkeel.survey.model import LaidBy

USUAL_MM: Final = 20.0
TITLE: Final = "Targets"
HOW_TO_LAY_THEM: Final = "Print at full size, cut along the outer line. Middle of the square on the mark, hairlines on its lines, if nothing else is said; flat, edges down."
CARD: Final = "Targets: pictures without clicks"
LAY: Final = "Lay out targets"
PRINT: Final = "Print them…"
TOUCHED: Final = "Touched between the pictures?"
DROP: Final = "Take them away"
DROP_EDIT: Final = "take the targets away"
WATCH: Final = "Watch a folder…"
WATCH_NO_MORE: Final = "Watch it no more"
WATCH_WHICH: Final = "The folder that the telephone puts its pictures in"
FILE: Final = "targets.pdf"
PDF_FILES: Final = "PDF (*.pdf)"
LAY_EDIT: Final = "lay out targets"
TAKE_EDIT: Final = "take photographs of targets"
FOUND: Final = "Targets"
NO_PHOTO: Final = "Take four pictures of the targets and drop them here"
NO_PHOTO_WHY: Final = "From two metres, 40 to 45° over the model, from both rear and both front quarters. Nothing is to be clicked."
HOW: Final = (
    (
        "Labels flat, edges down, their middles on their marks: how near they are stuck is the "
        "doubt that is left."
    ),
    "All of the model in each picture, in daylight or under two lamps; no lamp mirrored in a label.",
    "Nothing is touched between the first picture and the last.",
    "Nothing of where and by what a picture was taken is kept.",
)
NONE_YET: Final = "Coded squares, printed and stuck where they are worth most: then four pictures, dropped here, say what is out."
FRAME_CARD: Final = "By targets"
FRAME_NONE: Final = "Coded labels on the board, and on squares of card at the formers' corners: two pictures say whether it is square, and two more when it has dried what moved."
FRAME_HOW: Final = "Two pictures from starboard, one before the frame and one behind it, 45° over the board, dropped here."
FRAME_HOW_SHEET: Final = "Two photographs, both from starboard, one before the frame and one behind it, 45° over the board. Card under the formers' labels."
FRAME_LAY_EDIT: Final = "lay out the frame's targets"
FRAME_TAKE_EDIT: Final = "take photographs of the frame"
FRAME_DROP_EDIT: Final = "take the frame's targets away"
FLAT_HOW: Final = "Labels whole on the wood at its corners and at its middle, six flat on the board beside it; two pictures from both front quarters, 45° over the board, dropped here, are the heights. Wood of one thickness: the labels lie on top of it."
FLAT_HOW_SHEET: Final = "Two photographs from both front quarters, 45° over the board. Labels whole on the wood; x and y of the board from the root's leading edge."
FLAT_FILE: Final = "flat-targets.pdf"
FRAME_FILE: Final = "frame-targets.pdf"
BARS: Final = "both bars measure 100 mm, or the targets are of another size, too"
BY_MARK: Final = "One more, by a mark of yours"
BY_WHICH: Final = "by the mark"
BY_WAY: Final = "lies with"
BY_WAYS: Final = {
    "corner": "its corner on it",
    "middle": "its middle on it",
    "flag": "a flag beyond its edge",
    "foot": "a foot hanging from its edge",
}
BY_ON_WOOD: Final = ("corner", "middle")
BY_OVER: Final = "its face over the mark"
BY_LAY: Final = "Lay it out"
BY_WHY: Final = "For a place that you can find again by a mark of your own: a corner of the tip, a fin's edge where no label finds room (a flag, read from both sides), a trailing edge that is thin (a foot, read from behind)."
BY_EDIT: Final = "lay out a target by a mark"
BOTH_FACES: Final = {(0.0, -1.0, 0.0): "port face", (0.0, 1.0, 0.0): "starboard face"}
TAB: Final = "glue on the wood"
NO_ORDER: Final = "the pictures do not tell which target sits where: too few are seen, or no five of them lie as the marks do"
TRY_ORDER: Final = "the labels sit in another order than their sheet has: with --any-order each is taken for the mark it sits on"
SAME_ORDER: Final = "Each label that the pictures tell sits where its sheet has it."
OTHER_ORDER: Final = "The labels sit in another order than their sheet has: each is taken for the mark that the pictures show it on."
_ONES: Final = (
    "nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen",
)  # fmt: skip
_TENS: Final = (
    "", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety",
)  # fmt: skip


def title_words(size: float) -> str:
    """``Targets, 20 mm``."""
    return f"{TITLE}, {shortest(size)} mm"


def number_words(code: int) -> str:
    """``27  twenty-seven``: a figure that is read upside down is told by its word."""
    tens, ones = divmod(code, 10)
    spelled = (
        _ONES[code] if code < len(_ONES) else _TENS[tens] + (f"-{_ONES[ones]}" if ones else "")
    )
    return f"{code}  {spelled}"


@dataclass(frozen=True, slots=True)
class TargetWords:
    """How targets are spoken of, by what they are stuck on.

    Attributes
    ----------
    name : callable
        What a mark is called.
    how : str
        How the pictures are taken, in a line of their sheet.
    """

    name: Callable[[str], str]
    how: str


def of_model(survey: Survey, size: float = USUAL_MM) -> TargetWords:
    """Of targets so large on a model, mm."""
    laid = {one.mark: one.by.mark for one in survey.targets if one.by is not None}
    return TargetWords(
        lambda mark: mark_name(survey, laid.get(mark, mark.removeprefix(OWN_TARGET))),
        f"Four photographs. {from_where(size)}",
    )


def of_frame() -> TargetWords:
    """Of those on a frame and its board."""
    return TargetWords(frame_words, FRAME_HOW_SHEET)


def of_surface(*, upright: bool) -> TargetWords:
    """Of those on a tail surface and its board, whose marks are its corners."""
    places = {str(at): said for at, said in (FIN_PLACES if upright else PLACE_WORDS).items()}
    return TargetWords(lambda mark: places.get(mark) or frame_words(mark), FLAT_HOW_SHEET)


def labelled(survey: Survey, words: TargetWords) -> list[tuple[int, str]]:
    """The codes of a survey's targets with their marks in words, in the codes' order."""
    targets = sorted(survey.targets, key=lambda one: one.code)
    return [(one.code, words.name(one.mark)) for one in targets]


def written(name: str, count: int) -> str:
    """``targets.pdf: 32 targets of 20 mm``."""
    return f"{name} is written: {number_of(count, 'target')}. Print it at full size."


def told_lines(
    survey: Survey, told: "Sequence[Told]", words: TargetWords | None = None
) -> list[str]:
    """What is told and not used, a sentence each; without `words` of a model."""
    marks = dict(labelled(survey, words or of_model(survey)))
    lines = []
    for one in told:
        number = f"target {one.code}" if one.code is not None else ""
        at = f" ({marks[one.code]})" if one.code in marks else ""
        lines.append(
            {
                "twice": f"{one.photo}: {number} is seen twice: used in neither place.",
                "no target": f"{one.photo}: {number} is no target of this build.",
                "few": f"{one.photo}: fewer than five targets that can be used: the photo is not used.",
                "wrong": f"{number[:1].upper()}{number[1:]}{at} does not lie where it should in most photos that see it: "
                "swapped with another, or moved? None of its sightings is used.",
            }[one.what]
        )
    return lines


def order_lines(order: "Assigned | None", survey: Survey) -> list[str]:
    """Whether labels sit otherwise than this survey has them, and which of them can't be told."""
    if order is None:
        return []
    there = {one.code: one.mark for one in survey.targets}
    same = all(there.get(code) == mark for code, mark in order.marks.items())
    said = [SAME_ORDER if same else OTHER_ORDER]
    if order.unclear:
        codes = ", ".join(str(code) for code in order.unclear)
        one = len(order.unclear) == 1
        said.append(
            f"Target {codes} {'sits' if one else 'sit'} where two marks are, or none: {'it is' if one else 'they are'} not used."
        )
    return said


def seen_lines(sighted: "Sighted") -> list[str]:
    """How many targets each photograph shows, and how many of them are used."""
    return [
        f"{name}: {number_of(len(found), 'target')} seen, {sum(one.reading is not None for one in found)} used."
        + quality_words(sighted.qualities.get(name))
        for name, found in sighted.found.items()
    ]


def quality_words(quality: "Quality | None") -> str:
    """What is wrong with a photograph as such; nothing where nothing is."""
    if quality is None:
        return ""
    said = ""
    if quality.is_blurred:
        said += f" Blurred, its edges {quality.edge_px:.0f} pixels wide: hold still, tap on the model to focus."
    if quality.glared:
        codes = ", ".join(str(code) for code in quality.glared)
        said += f" A lamp is mirrored in {codes}: turn it away."
    return said


def place_lines(place: "Place", unit: LengthUnit) -> tuple[str, str]:
    """Where the middle of its square lies on the face: across, then along."""
    across, along = (format_length(one, unit) for one in (place.across, place.along))
    return (
        {
            "tip": f"{across} in from the tip",
            "middle": f"{across} out from the middle",
            "top": f"{across} under the top",
            "station": f"at {across} from the datum",
        }[place.from_],
        {
            "leading edge": f"{along} behind the leading edge",
            "trailing edge": f"{along} before the trailing edge",
            "hinge line": f"{along} before the hinge line",
            "centre line": "on the centre line",
            "half way up": "half way up the side",
        }[place.to],
    )


def by_lines(by: "LaidBy", face: str, unit: LengthUnit) -> tuple[str, ...]:
    """How a label is laid by a mark, for its sheet; `face` where it has one of two."""
    said = {
        "middle": ("its middle on the mark",),
        "corner": ("its corner on the mark,", "the label on the wood"),
        "flag": ("its edge along the wood's,", "in its plane, tab glued on"),
        "foot": ("folded, tab glued on top,", "hangs at the edge"),
    }[by.way]
    raised = by.over and by.way in BY_ON_WOOD
    over = f"{format_length(by.over, unit)} over the mark" if raised else ""
    return tuple(one for one in (*said, over, face) if one)


def from_where(size: float) -> str:
    """How the pictures are taken, for targets of a size, mm: a telephone reads them from a hundred times as far."""
    far = size / 10.0
    return f"From {shortest(far)} m ({decimal(far / 0.3048, 1)} ft) or nearer, 40 to 45° over the model, from both rear and both front quarters."


def laid_lines(survey: Survey, unknown: Sequence[str]) -> list[str]:
    """How many there are, how to take them, and of which surfaces they do not tell the incidence.

    Parameters
    ----------
    unknown : sequence of str
        Surfaces of which no section is drawn.
    """
    if not survey.targets:
        return [NONE_YET]
    size = f"{shortest(survey.target_size or 20)} mm"
    lines = [
        f"{number_of(len(survey.targets), 'target')} of {size}: print them at full size, stick them on, drop the pictures here."
    ]
    if unknown:
        names = " and ".join(f"the {surface_name(one)}" for one in unknown)
        its = "its" if len(unknown) == 1 else "their"
        lines.append(
            f"No section is drawn of {names}: targets lie along {its} trailing edge alone and hardly tell {its} incidence. "
            "Read that with a gauge, or say what the section is and lay out more."
        )
    return lines


def frame_lines(count: int, size: float, photos: int) -> list[str]:
    """Of a frame on its board: how many targets, how the pictures are taken, how many there are."""
    if not count:
        return [FRAME_NONE]
    lines = [
        f"{number_of(count, 'target')} of {shortest(size)} mm: those of the board flat on it, those of the formers on squares of card glued on, the middle over the corner. {FRAME_HOW}"
    ]
    if photos:
        lines.append(f"{number_of(photos, 'picture')} taken.")
    return lines


def flat_edit(name: str) -> str:
    """What undo calls it."""
    return f"heights of the {name} by photographs"


def where_lines(build: "Build", unit: LengthUnit) -> dict[int, tuple[str, ...]]:
    """By code, where each label lies that the airframe or a mark says so of."""
    found: dict[int, tuple[str, ...]] = {
        code: place_lines(at, unit) for code, at in places_of(build).items()
    }
    for one in build.surveyed.targets:
        if one.by is not None:
            face = BOTH_FACES.get(build.surveyed.normal_of(one), "")
            found[one.code] = by_lines(one.by, face, unit)
    return found


def lay_more(count: int) -> str:
    """What the button says where the airframe has grown."""
    return f"Lay out {count} more"


def already(name: str) -> str:
    """A photograph that is here: taken twice it would count twice."""
    return f"{name} is laid down already: it is not taken twice."


def too_few(name: str, seen: int) -> str:
    """A photograph with some targets in it."""
    found = number_of(seen, "target") if seen else "no target"
    return f"{name}: {found} seen, five are wanted to know where it was taken from: its marks are to be clicked."


def watching(folder: str) -> str:
    """``Watching Pictures: what comes in is taken.``."""
    return f"Watching {folder}: pictures that come in are taken."


def moved_words(
    survey: Survey, moved: "MovedPart", unit: LengthUnit, names: Mapping[str, str] | None = None
) -> tuple[str, str]:
    """What stood otherwise in which pictures, and what to do; `names` are the pictures' files, by id."""
    files = names or {}
    photos = [files.get(one, one) for one in moved.photos]
    told = " and ".join((", ".join(photos[:-1]), photos[-1])) if len(photos) > 1 else photos[0]
    part = body_name(survey, moved.body)
    return (
        f"The {part} stood otherwise in {told}: by up to {format_length(moved.by, unit)}.",
        f"What the pictures say of the {part} mixes both. Take away those that show it as it stands no more, or take all again.",
    )


def not_watched(why: object) -> str:
    """A folder that can't be looked into."""
    return f"can't be watched: {why}"
