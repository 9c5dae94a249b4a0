"""The print audit and the plan's calibration in sentences."""

from collections.abc import Sequence
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import MM_PER_INCH, LengthUnit, decimal, format_length
from hardkeel.edits.picks import Taking
from hardkeel.fuselage.model import TAIL_POST, Former
from hardkeel.messages.airframe import LINE_WORDS
from hardkeel.messages.names import sentence_case, surface_name
from hardkeel.paper.audit import Cause, Finding, NextPair
from hardkeel.paper.calibrating import Calibration, calibrate
from hardkeel.paper.carrying import SCANNED
from hardkeel.paper.lens import K1_SIGMA
from hardkeel.paper.model import Pair, Plan, PrintedSheet
from hardkeel.paper.picking import Picked

CAUSE_NAMES: Final[dict[Cause, str]] = {
    "right": "right",
    "scale": "printed at another scale",
    "scale-xy": "along and across differ",
    "constant": "a constant too big",
    "development": "lengths along the bend",
    "one-part": "one part is off",
    "undecided": "undecided",
}
DESK_TOOLS: Final[dict[str, tuple[str, str]]] = {  # what a tool is called, and what to click
    "length": ("known length", "Click its two ends, then type how long it is."),
    "point": (
        "known point",
        "Click a point whose place you know, then type it: 50, 70; or what it is: F5 top.",
    ),
    "origin": ("datum", "Click where the datum line meets the datum station."),
    "stations": (
        "stations",
        "Click each former's line once, the tail post last, anywhere along it.",
    ),
    "side-top": ("top line", "Click along the top line: at least once at each station."),
    "side-bottom": ("bottom line", "Click along the bottom line, at each station too."),
    "plan-side": ("sides", "In the view from above click along one side, or both."),
    "outline": (
        "outline",
        "Click all round a former's section, a surface or a rib, then say whose it is.",
    ),
    "plan-centre": ("centre line", "Click the centre line of the view from above at both ends."),
    "hinge": (
        "hinge line",
        "On a surface whose outline is traced: click its hinge line at both ends.",
    ),
    "ribs": ("rib places", "On a surface whose outline is traced: click each rib once."),
}
WHOSE_OUTLINE: Final = "whose outline it is"
FOLLOW_THE_INK: Final = "follow the ink"
FOLLOWED_TOOLS: Final[dict[str, str]] = {  # what to click where the ink is followed
    "side-top": "Click once on the top line: its ink is followed, and crossed with the stations.",
    "side-bottom": "Click once on the bottom line.",
    "plan-side": "In the view from above click once on one side, or on both.",
    "plan-centre": "Click once on the centre line of the view from above.",
    "hinge": "On a surface whose outline is traced: click once on its hinge line.",
    "outline": "Click once on an outline; with the next former's this one is given.",
}
NO_INK: Final = "no line's ink is to be followed there: click along it, further on too"
FOLLOWING: Final = "Following the ink…"
NOBODY_TO_GET_IT: Final = (
    "no former is there to get it: make the stations the airframe's figures first"
)
HALF_OF_IT: Final = "half of it: mirrored on the centre line"
LINE_GOES_ON: Final = (
    "the ink ends before it is all round: click on the line further along, or pull it over"
)
ASKS: Final = {"length": "How long is it?", "point": "Where is it? x, y; or F5 top"}
_DOUBTED_MM: Final = 0.5  # between an outline and the views of the same former
_GOOD_MM: Final = 0.3  # 1 sigma; a builder's knife is no better
_LENS_KNOWN: Final = 0.5  # of what it was known to before
_SQUARE_DEG: Final = 0.05  # nobody sees less on paper
_DOUBTS: Final[dict[Cause, str]] = {
    "right": "the sheet is right",
    "scale": "it is printed at another scale",
    "scale-xy": "it is scaled differently along and across",
    "constant": "outlines carry a constant too much",
    "development": "only lengths along the bend are longer",
    "one-part": "one part is off",
    "undecided": "",
}
_KIND_WORDS: Final = {
    "outline": "an outside dimension",
    "spacing": "a spacing between two lines",
    "bent-length": "a length along a side that will be bent",
}
_DIRECTION_WORDS: Final = {"x": "along the paper", "y": "across the paper"}


THE_SCANNER_TOO: Final = "A scanner's own scale is in what was scanned: measure one of these by a rule before you reprint."
TAKE_THESE: Final = "Take these figures?"
TAKE_THEM: Final = "Take them"
OLD_AND_NEW: Final = "What is there, and what the sheet says"
TAKING_HEADS: Final = ("Stop", "", "Station", "Half-width", "Bottom", "Top")
TAKING_WORDS: Final = {"added": "new", "changed": "changed", "left": "as it is"}
ENDS_WORDS: Final = {
    "post": "The last station is the tail post",
    "former": "The last station is a former",
}
ENDS_NAME: Final = "what the last station is"


def stop_words(stop: str) -> str:
    """What a stop is called: a former's own name, or ``tail post``."""
    return "tail post" if stop == TAIL_POST else stop


def old_and_new(was: float | None, now: float, unit: LengthUnit) -> str:
    """``150.0 mm → 151.2 mm``; one figure where they are alike or there was none."""
    after = format_length(now, unit)
    before = after if was is None else format_length(was, unit)
    return after if before == after else f"{before} → {after}"


def finding_sentence(finding: Finding, unit: LengthUnit = "mm") -> str:
    """The cause, its figure and how sure."""
    sure = f"{min(finding.probability, 0.999):.0%} sure"
    match finding.cause:
        case "right":
            return f"The sheet is right, {sure}."
        case "scale":
            return (
                f"Everything is {_percent(finding.factor)} {_size(finding.factor)}: "
                f"printed at another scale, {sure}."
            )
        case "scale-xy":
            return (
                f"{_percent(finding.factor_x)} {_size(finding.factor_x)} along the paper and "
                f"{_percent(finding.factor_y)} {_size(finding.factor_y)} across it, {sure}."
            )
        case "constant":
            amount = finding.constant or 0.0
            way = "too big" if amount > 0 else "too small"
            return f"Every outline is {format_length(abs(amount), unit)} {way}, whatever its size, {sure}."
        case "development":
            return (
                f"Only lengths along the bent side are longer, by {_percent(finding.factor)}: "
                f"they are drawn developed, {sure}."
            )
        case "one-part":
            return f"Only {finding.part} is off; the rest of the sheet is right, {sure}."
        case _:
            return _undecided(finding)


def cure_sentence(finding: Finding, unit: LengthUnit = "mm") -> str:
    """What to do about it."""
    match finding.cause:
        case "right":
            return "Cut from it as it is."
        case "scale":
            factor = 1 / (finding.factor or 1.0)
            return f"Reprint it at {decimal(100 * factor, 1)}%, or multiply what you measure by {decimal(factor, 4)}."
        case "scale-xy":
            return (
                f"Reprint it at {decimal(100 * 1 / (finding.factor_x or 1.0), 1)}% along and "
                f"{decimal(100 * 1 / (finding.factor_y or 1.0), 1)}% across, or cut by the plan's own figures."
            )
        case "constant":
            each = format_length(abs(finding.constant or 0.0) / 2, unit)
            if (finding.constant or 0.0) > 0:
                return f"The skin was not taken off: cut {each} inside the line all round."
            return f"The skin was taken off already: leave {each} outside the line all round."
        case "development":
            return "Leave it: a bent side is longer than its drawing. Do not correct these lengths."
        case "one-part":
            return f"Do not cut {finding.part} from this sheet; loft it anew. The rest is sound."
        case _:
            return next_sentence(finding.next) if finding.next else "Measure a few more dimensions."


def next_sentence(further: NextPair) -> str:
    """Which further dimension would decide."""
    of = f" of {further.part}" if further.part else ""
    return f"Measure {_KIND_WORDS[further.kind]}{of}, {_DIRECTION_WORDS[further.direction]}."


def why_sentence(further: NextPair) -> str:
    """Why that one."""
    return f"It tells whether {_DOUBTS[further.cause_a]} or {_DOUBTS[further.cause_b]}."


def doubt_sentence(sheet: PrintedSheet, finding: Finding, unit: LengthUnit = "mm") -> str:
    """Which pair does not go with the rest, and that a scanner has a scale of its own; empty where neither is so."""
    told = [wrong_pair_sentence(sheet, finding, unit)]
    if finding.cause != "right" and any(pair.part == SCANNED for pair in sheet.pairs):
        told.append(THE_SCANNER_TOO)
    return " ".join(one for one in told if one)


def wrong_pair_sentence(sheet: PrintedSheet, finding: Finding, unit: LengthUnit = "mm") -> str:
    """Which pair does not go with the rest; empty where all do."""
    if finding.wrong is None or finding.cause == "undecided":
        return ""
    pair: Pair = sheet.pairs[finding.wrong]
    off = pair.measured - finding.fitted[finding.wrong]
    name = f"{pair.part} " if pair.part else ""
    return (
        f"Measure {name}{format_length(pair.plan, unit)} again: it is "
        f"{format_length(abs(off), unit)} {'more' if off > 0 else 'less'} than the rest says."
    )


def calibration_sentence(fit: Calibration, dpi: float | None, unit: LengthUnit = "mm") -> str:
    """Both scales and the skew of a scan, in words."""
    ratio = fit.scale_x / fit.scale_y - 1
    parts = []
    if dpi:
        for scale, where in ((fit.scale_x, "along"), (fit.scale_y, "across")):
            if where == "along" or fit.kind != "similar":
                parts.append(f"{decimal(100 * MM_PER_INCH / dpi / scale, 2)}% of true size {where}")
    elif unit == "in":
        along, across = MM_PER_INCH / fit.scale_x, MM_PER_INCH / fit.scale_y
        parts.append(f"{decimal(along, 1)} pixels an inch along, {decimal(across, 1)} across")
    else:
        parts.append(
            f"{decimal(fit.scale_x, 4)} mm a pixel along, {decimal(fit.scale_y, 4)} across"
        )
    if fit.kind in ("axes", "affine") and abs(ratio) > 5e-4:  # noqa: PLR2004  half a mm in a metre
        way = "shorter" if ratio > 0 else "longer"
        parts.append(f"along {decimal(100 * abs(ratio), 2)}% {way} than across")
    if fit.kind == "affine" and abs(fit.skew) >= _SQUARE_DEG:
        parts.append(f"{decimal(abs(fit.skew), 2)}° out of square")
    if fit.kind == "perspective":
        parts = ["perspective taken out", _lens_words(fit)]
    return ", ".join(parts) + "."


def _lens_words(fit: Calibration) -> str:
    """Whether the points tell how the lens bends."""
    if fit.lens_sigma > _LENS_KNOWN * K1_SIGMA:
        return "the lens's bend is not seen"
    return "the lens straightened"


def _undecided(finding: Finding) -> str:
    first, second = sorted(finding.probabilities, key=lambda c: -finding.probabilities[c])[:2]
    chance = finding.probabilities
    return (
        f"Not decided yet: either {_DOUBTS[first]} ({chance[first]:.0%}) "
        f"or {_DOUBTS[second]} ({chance[second]:.0%})."
    )


def _percent(factor: float | None) -> str:
    return f"{decimal(100 * abs((factor or 1.0) - 1), 2)}%"


def _size(factor: float | None) -> str:
    return "too large" if (factor or 1.0) > 1 else "too small"


def fit_words(plan: Plan, dpi: float | None, unit: LengthUnit = "mm") -> tuple[str, str]:
    """How the sheet lies, and what checks it; `dpi` as the scan says."""
    try:
        fit = calibrate(plan)
    except BadInput as fault:
        return "Not to scale yet.", f"{sentence_case(fault.fault)}."
    answer = sentence_case(calibration_sentence(fit, None if plan.photo else dpi, unit))
    worst = fit.worst
    if fit.spare <= 0 or worst is None:
        return answer, "Nothing checks it yet: one more known length or point would."
    off = format_length(abs(worst.off), unit, 2)
    checked = "One figure is" if len(fit.checked) == 1 else f"{len(fit.checked)} figures are"
    return (
        answer,
        f"{checked} checked by the others: {worst.what} lies furthest off, {off} from where they put it.",
    )


def picks_words(plan: Plan, rows: tuple[Picked, ...], unit: LengthUnit) -> str:
    """What was picked off a plan, and what is still wanted."""
    placed = plan.origin is not None or any(point.of for point in plan.points)
    if not placed and any(t.kind == "stations" and t.pixels for t in plan.traces):
        return "The datum is not clicked yet."
    if not rows:
        return "Nothing yet. First the datum, then the stations, then along the lines."
    return f"{len(rows)} stations. {_lacking_words(rows, unit)} {sigma_words(rows, unit)}".strip()


def takers_of(formers: Sequence[str], surfaces: Sequence[str], *, winged: bool) -> dict[str, str]:
    """Who may get an outline off a sheet: keys, and what they are called."""
    found = {f"former {name}": name for name in formers}
    for surface in surfaces:
        found[f"surface {surface}"] = surface_name(surface)
        found[f"section {surface}"] = f"{surface_name(surface)}: root rib"
    if winged:
        found["wing section"] = "wing section"
    return found


def taking_words(taking: Taking) -> str:
    """``changed``, ``new, corner: top line``."""
    words = TAKING_WORDS[taking.kind]
    if not taking.corners:
        return words
    return f"{words}, corner: {', '.join(LINE_WORDS[one].lower() for one in taking.corners)}"


GOT_ITS_OUTLINE: Final = "It got its outline"
FOOT_AT: Final = "its foot stands at, over the datum"
FOOT_WHY: Final = (
    "A former that is drawn by itself does not say how high it stands. Dashed: as it was."
)


def outline_change(before: Former, after: Former, unit: LengthUnit) -> str:
    """``F3: 86.0 mm wide, was 86.2; 55.8 mm high, was 55.0``."""
    told = []
    for words, was, now in (
        ("wide", 2 * before.half_width, 2 * after.half_width),
        ("high", before.top - before.bottom, after.top - after.bottom),
    ):
        told.append(f"{format_length(now, unit)} {words}, was {format_length(was, unit)}")
    return f"{after.id}: {'; '.join(told)}."


def outline_doubt(before: Former, after: Former, unit: LengthUnit) -> str:
    """That an outline does not measure what the views say of its former; empty where it does."""
    parts = []
    for words, was, now in (
        ("wide", 2 * before.half_width, 2 * after.half_width),
        ("high", before.top - before.bottom, after.top - after.bottom),
    ):
        if abs(was - now) > _DOUBTED_MM:
            figures = (
                f"{format_length(now, unit)} {words}, the views say {format_length(was, unit)}"
            )
            parts.append(figures)
    if not parts:
        return ""
    return f"{after.id}: its outline is {' and '.join(parts)}. Is it another former's?"


def stood_edit(former: str) -> str:
    """The step's name for undo."""
    return f"foot of {former}"


def gets_edit(words: str) -> str:
    """The step's name for undo."""
    return f"outline of {words} from the plan"


def sheet_name(sheet: str) -> str:
    """What a model is called after its sheet: ``old_cabin-600dpi`` is ``Old cabin 600dpi``."""
    words = " ".join(sheet.replace("_", " ").replace("-", " ").split())
    return words[:1].upper() + words[1:]


def sigma_words(rows: Sequence[Picked], unit: LengthUnit) -> str:
    """How well the sheet tells what was picked, and where a known point would help most."""
    known = [(row.station, row.sigmas) for row in rows if row.sigmas is not None]
    if not known:
        return ""
    worst = [max(s.station, s.half_width, s.height) for _, s in known]
    far = max(worst)
    says = f"Good to ±{format_length(far, unit, 2)}"
    if far <= _GOOD_MM:
        return f"{says}."
    where = format_length(known[worst.index(far)][0], unit, 0)
    return f"{says} at {where}, where it is known least: a known point there would tell more."


def _lacking_words(rows: tuple[Picked, ...], unit: LengthUnit) -> str:
    """Which line must still be clicked, and where."""
    for field, words in (
        ("top", "top line is"),
        ("bottom", "bottom line is"),
        ("half_width", "sides are"),
    ):
        where = [row.station for row in rows if getattr(row, field) is None]
        if where and field == "half_width" and len(where) == len(rows):
            return "The sides are wanted: both of them, or one with its centre line."
        if where:
            return f"The {words} wanted at {format_length(where[0], unit, 0)}."
    return "All figures are there."


# -- steps as undo names them -----------------------------------------------------------------------


def follow_edit(what: str) -> str:
    """``follow the …``."""
    return f"follow the {what}"
