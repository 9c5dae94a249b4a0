"""What is cut and bent for a fuselage, in words."""

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length, format_size
from hardkeel.fuselage.bending import Bend
from hardkeel.fuselage.bending_forces import SPRINGS_BACK, BendRemedy, Pull, sprung
from hardkeel.fuselage.chamfers import (
    LeavingLongeron,
    PostChamfer,
    leaving_longerons_of,
    post_chamfer_of,
)
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.planking import is_planked
from hardkeel.joinery.buying import Purchase
from hardkeel.joinery.cut_part import CutPart, is_fitted
from hardkeel.messages.counting import in_words, number_of

if TYPE_CHECKING:
    from hardkeel.fuselage.sheeted import EdgeLengths
    from hardkeel.fuselage.sheeting import Skin
    from hardkeel.joinery.nesting import SheetPurchase

# tabs
STICKS: Final = "Sticks"
FORMERS: Final = "Formers"
MEMBERS: Final = "Members"
BENDS: Final = "Bends"
SHEETS: Final = "Wood and sheets"
# cards and buttons
CUT_IT: Final = "Cut (Enter)"
ENDS_TRUE_SIZE: Final = "Ends true size"
ONE_BACK: Final = "One back"
WOOD_TO_BUY: Final = "Wood to buy"
LOOK_INTO: Final = "Look into"
FRAME_AS_USUAL: Final = "Frame it as usual"
NOTHING_TO_FRAME: Final = "There is no fuselage to frame yet: lay one out first."
NO_STICKS: Final = "No sticks here: this fuselage has no open section with bracing."
BLADE_CAUTION: Final = "Blade away from the other hand; a sharp one needs less push."
NOT_SOAKED: Final = "Do not soak it: hot water opens the glue between its plies."
STEAM_CAUTION: Final = "Steam and hot water scald: gloves, and let it cool in the clamps."
WORKING: Final = "Laying the pieces on sheets…"
STOP_IT: Final = "Stop"
WRITE_THE_SHEETS: Final = "Write all templates"
PRINTED_RIGHT: Final = "Check the bars on the print both ways before you cut."
MEMBER_WORDS: Final[dict[str, str]] = {
    "doubler": "doubler",
    "tail-doubler": "tail doubler",
    "corner-strip": "corner strip",
    "crutch": "crutch",
    "stringer": "stringer",
    "keel": "keel",
    "wire": "alignment wire",
    "rod": "cross rod",
    "bearer": "engine bearer",
    "dowel-plate": "wing dowel plate",
    "undercarriage-plate": "undercarriage plate",
    "servo-tray": "servo tray",
    "battery-tray": "battery tray",
    "hatch-frame": "hatch frame",
    "key": "key in the sides",
    "gusset": "gussets",
    "nose-block": "nose block or ring",
    "canopy": "canopy",
    "guide": "pushrod or cable guide",
    "servo": "servo and its opening",
    "strap": "slots of a pack strap",
    "bolt": "bolt with a blind nut, one on each side",
    "tail-bracket": "bracket of a tail wheel or skid",
}

_MUCH_LESS: Final = 0.7  # of the greatest force: worth telling that it was loose
_GOES: Final = {
    "dry": "bends dry",
    "soaked": "bends when soaked or steamed",
    "too tight": "breaks, soaked or not: laminate it, or cut kerfs",
    None: "of a wood that nothing is known of",
}


def bend_sentence(bend: Bend, unit: LengthUnit) -> str:
    """``side: 812 mm at 640 mm, 0.18 % strain, bends dry``."""
    if bend.radius is None or bend.at_station is None:
        return f"{bend.member}: straight{_joined(bend)}"
    radius, place = format_length(bend.radius, unit, 0), format_length(bend.at_station, unit, 0)
    return (
        f"{bend.member}: radius {radius} at {place}, {decimal(bend.strain, 2)} % strain, "
        f"{_GOES[bend.verdict]}{_joined(bend)}"
    )


def _joined(bend: Bend) -> str:
    """`` and cut and joined at its corner, F3``."""
    if not bend.corners:
        return ""
    word = "corner" if len(bend.corners) == 1 else "corners"
    return f", cut and joined at its {word}, {', '.join(bend.corners)}"


def closed_sentence(station: str, lacking: float, unit: LengthUnit) -> str:
    """``tail post: the longerons leave no room for a stick, 2.0 mm are lacking``."""
    name, more = station.replace("_", " "), format_length(lacking, unit)
    return (
        f"{name}: the longerons leave no room for a stick, {more} are lacking. "
        "Take thinner longerons, end the sticks a stop before, or fill the bay with a block"
    )


def ends_words(part: CutPart) -> str:
    """The angles of both ends: ``88.9°, 87.5°``; both faces of a pointed one."""
    return ", ".join(
        FIT_IT if is_fitted(end) else " and ".join(format_angle(angle, 1) for angle in end)
        for end in part.ends
    )


def end_words(angles: Sequence[float]) -> str:
    """The angles of one end: ``88.9°``; of a pointed one ``66.2° / 25.9°``; one against a curve is fitted."""
    if is_fitted(angles):
        return FIT_IT
    return " / ".join(format_angle(angle, 1) for angle in angles)


def purchase_sentence(one: Purchase, unit: LengthUnit, wood: str = "") -> str:
    """``4 of 5.0 × 5.0 mm balsa-medium, 915 mm: 6.1 % waste``; `wood` is what it is called."""
    size = (
        f"{format_length(one.section[0], unit)} outside"
        if one.tube
        else format_size(one.section, unit)
    )
    wood = wood or one.material or ""
    wood = f" {wood}" if wood else ""
    if one.triangular:
        wood += ", triangular"
    if one.tube:
        wood = f"{wood.removesuffix(' tube')} tube"
    racked = len(one.own)
    if not one.pieces:
        return f"{size}{wood}: {racked} of your rack will do"
    text = f"{one.pieces} of {size}{wood}, {format_length(one.stock, unit, 0)}: {decimal(one.waste, 1)} % waste"
    if racked:
        text += f", beside {racked} of your rack"
    if one.pieces > one.at_least:
        text += f", {one.at_least} at the very least"
    return text + (f"; {one.joined} to be scarfed" if one.joined else "")


def edge_sentence(one: "EdgeLengths", unit: LengthUnit) -> str:
    """A sheet side whose edges want different lengths."""
    longer, more = ("upper", one.differ) if one.differ > 0 else ("lower", -one.differ)
    return (
        f"{stop_words(one.from_)} to {stop_words(one.to)}: the {longer} edge wants {format_length(more, unit)} "
        "more than the other; a flat sheet cannot follow both. Kerf it, or plank it."
    )


def strained_sentence(one: "Skin") -> str:
    """A sheet over or under that is bent two ways."""
    return (
        f"The {one.face} sheet is bent two ways: its edges are {decimal(one.strain, 1)} % another length on the fuselage "
        "than lying flat. Lay it in narrow strips, or plank it."
    )


def stop_words(name: str) -> str:
    """A stop as it is called: ``tail post`` for the file's ``tail_post``."""
    return name.replace("_", " ")


# -- bends ------------------------------------------------------------------------------------------

_VERDICTS: Final = {
    "dry": "dry, with room",
    "soaked": "soaked or steamed",
    "too tight": "too tight as it is",
    None: "of a wood that nothing is known of",
}


def bend_answer(bend: Bend) -> str:
    """``Side: dry, with room.``."""
    name = bend.member[:1].upper() + bend.member[1:]
    if bend.radius is None:
        return f"{name}: straight{_joined(bend)}."
    return f"{name}: {_VERDICTS[bend.verdict]}{_joined(bend)}."


def easing_lines(one: BendRemedy, unit: LengthUnit, woods: Mapping[str, str]) -> list[str]:
    """The margin, the ways out where there is none, what springs back."""
    bend = one.bend
    if bend.radius is None or one.margin is None:
        return []
    told = []
    if one.margin >= 1:
        told.append(f"It takes {decimal(one.margin, 1)} times as much, dry.")
    else:
        told.append(
            f"Dry it takes {decimal(one.margin, 2)} of this, soaked {decimal(one.soaked_margin or 0, 2)}."
        )
        told += _ways_out(one, unit, woods)
    if one.margin < 1 and (one.soaked_margin or 0) <= one.margin:
        told.append(NOT_SOAKED)
    elif one.margin < 1:
        low, high = SPRINGS_BACK["soaked"]
        to = (format_length(sprung(bend.radius, share), unit, 0) for share in (high, low))
        told.append(
            f"Soaked and clamped overnight it springs back {100 * low:.0f} to {100 * high:.0f} %: "
            f"bend it to a radius of {' to '.join(to)}, and read it in the morning."
        )
    return told


def _ways_out(one: BendRemedy, unit: LengthUnit, woods: Mapping[str, str]) -> list[str]:
    told = []
    if one.laminating is not None:
        lam = one.laminating
        told.append(
            f"Laminate it: {lam.layers} layers of {format_length(lam.thickness, unit)}, "
            f"which spring back {100 * lam.springs_back:.0f} %."
        )
    if one.kerfing is not None:
        kerf = one.kerfing
        told.append(
            f"Kerf it inside: {format_length(kerf.depth, unit)} deep, every "
            f"{format_length(kerf.spacing, unit, 0)} at most; {format_length(kerf.left, unit)} stay."
        )
    if one.woods:
        names = [woods.get(wood, wood) for wood in one.woods]
        told.append(f"Or of {', '.join(names[:3])}: dry.")
    return told


def pull_sentence(pulls: tuple[Pull, ...], loose: tuple[Pull, ...] = ()) -> str:
    """What it takes to pull nose and tail home; and how much less where nothing was glued on flat before."""
    if not pulls:
        return ""
    nose, tail = pulls[0], pulls[-1]
    strongest = max(pulls, key=lambda one: abs(one.force))
    said = f"Each side pulls {decimal(abs(nose.force), 1)} N at the nose, {decimal(abs(tail.force), 1)} N at the tail"
    if strongest not in (nose, tail):
        said += f", {decimal(abs(strongest.force), 1)} N at {stop_words(strongest.stop)}"
    said += ": what a clamp or a threaded rod must hold there."
    most = max((abs(one.force) for one in pulls), default=0.0)
    least = max((abs(one.force) for one in loose), default=0.0)
    if 0 < least < _MUCH_LESS * most:
        said += f" What is glued to the side flat bends with it: loose it would pull {most / least:.0f} times less."
    return said


def stations_sentence(shifts: list[tuple[str, float]], unit: LengthUnit) -> str:
    """Where the stations lie on the blank, past where the drawing has them."""
    told = [f"{stop_words(name)} {format_length(shift, unit)}" for name, shift in shifts]
    if not told:
        return ""
    return f"On the blank mark further aft than drawn: {', '.join(told)}."


def chamfer_sentence(one: PostChamfer) -> str:
    """How tail post and rear blocks are chamfered."""
    said = f"Tail post and rear blocks: {format_angle(one.sides, 1)} on each side face"
    ends = [
        f"{format_angle(value, 1)} {where}"
        for value, where in ((one.top, "at the top"), (one.bottom, "at the foot"))
        if abs(value) >= 0.05  # noqa: PLR2004  shown to a tenth
    ]
    return said + (", " + ", ".join(ends) if ends else "") + "."


def leaving_sentence(one: LeavingLongeron, unit: LengthUnit) -> str:
    """How a longeron is let in where it leaves the sheet side."""
    return (
        f"{one.longeron} longeron at {one.stop}: let in {format_length(one.notch, unit)}; "
        f"saw swung {format_angle(abs(one.mitre), 1)}, tilted {format_angle(abs(one.bevel), 1)}."
    )


# -- sticks -----------------------------------------------------------------------------------------


def cut_so_far(cut: int, of: int) -> str:
    """``31 of 94 cut``."""
    return f"{cut} of {of} cut"


def jig_saving(settings: int, plain: int) -> str:
    """What the order saves."""
    return f"jig set {settings} times instead of {plain}"


def still_to_cut(left: int, of: int) -> str:
    """``cut 2 of 2 more``."""
    if left <= 0:
        return "cut"
    return f"port and starboard: cut {left} more" if of == 2 else f"cut {left} of {of}"  # noqa: PLR2004


def jig_words(*settings: float) -> str:
    """How the jig is set for a stick; one setting where the other end is fitted, none where both are."""
    if not settings:
        return "no jig: both ends are fitted"
    first, *rest = (format_angle(setting, 1) for setting in settings)
    if not rest:
        return f"set the jig to {first} for one end; fit the other"
    if settings[0] == settings[1]:
        return f"set the jig to {first} for both ends"
    return f"set the jig to {first}, one end of all, then {rest[0]}"


def other_length(was: float, now: float, unit: LengthUnit) -> str:
    """A stick that was cut before the drawing changed."""
    way = "short" if was < now else "long"
    return f"Cut {format_length(abs(was - now), unit)} too {way}: the drawing has changed since."


# -- sheets -----------------------------------------------------------------------------------------


def sheet_sentence(one: "SheetPurchase", wood: str, unit: LengthUnit) -> str:
    """``2 of balsa, medium 3.0 mm: 11 % left over``."""
    sized = format_length(one.thickness, unit)
    return f"{one.sheets} of {wood or 'wood'} {sized}: {one.waste:.0f} % left over"


def sheets_head(size: tuple[float, float], unit: LengthUnit) -> str:
    """What size they are sold in."""
    along, across = (format_length(side, unit, 0) for side in size)
    return f"Sheets of {along} by {across}:"


def wood_answer(strips: int, sheets: int) -> str:
    """``Seven strips and two sheets.``."""
    told = [
        f"{in_words(count)} {word}{'' if count == 1 else 's'}"
        for count, word in ((strips, "strip"), (sheets, "sheet"))
        if count
    ]
    if not told:
        return "No wood to buy."
    said = " and ".join(told)
    return f"{said[:1].upper()}{said[1:]}."


# -- the benches ------------------------------------------------------------------------------------


def next_at_this(names: str) -> str:
    """What else is cut at a setting that stands."""
    return f"at this setting too: {names}"


def laid_flat_note(developed: str, more: str) -> str:
    """How long a side is laid flat."""
    return f"developed {developed}, {more} longer than the drawing"


PORT_SIDE: Final = "port side, as it is pinned down"
FROM_PORT: Final = "from port"
FROM_ABOVE: Final = "from above"
SECTION: Final = "section"
SECOND_SIDE: Final = "The starboard side is the mirror of this: build it on top, film between."


def cut_now(step_words: str, count: int, angle: str) -> str:
    """``Cut the 4 sticks at 52.4°.``."""
    many = f"the {count} {step_words}s" if count > 1 else f"the {step_words}"
    return f"Cut {many} at {angle}."


def fit_now(step_words: str) -> str:
    """What is cut to no angle."""
    return f"Fit the {step_words} to the curve at both ends."


def cut_edit(name: str) -> str:
    """The step's name for undo."""
    return f"cut {name}"


def not_cut_edit(name: str) -> str:
    """The step's name for undo."""
    return f"take back {name}"


FRAME_IT_NOW: Final = "Give it its members."
PRINT_NOW: Final = "Print the formers and cut them."
SHOW_ME: Final = "Show me"
MORE_BELOW: Final = "Under Wood and sheets they lie nested on their sheets."
USUAL_MEMBERS: Final = "Doublers, keys, crutch, keel, stringers, plates: what such a fuselage usually has; change each as you like."


def more_findings(count: int) -> str:
    """How many more there are."""
    return f"{count} more like this; the formers show them." if count else ""


ALL_SOUND: Final = "Every former is sound."
ALL_SOUND_WHY: Final = "Nothing parts, and every notch and hole has its web of wood."


def former_words(thickness: str, wood: str, bevel: str, spacer: str) -> str:
    """What is known of a former as it goes in."""
    told = [f"{thickness} {wood}".strip(), f"edges bevelled {bevel}"]
    if spacer:
        told.append(f"on a spacer of {spacer}")
    return "; ".join(told) + "."


WEB: Final = "least wood"
KERF: Final = "saw kerf"
SHEET_LENGTH: Final = "sheet length"
SHEET_WIDTH: Final = "sheet width"
SHEET_GAP: Final = "between pieces"
CUTTER_KERF: Final = "cutter's kerf"
FIT_IT: Final = "fit to the curve"
TRIM: Final = "trim on templates"
CUTTER_TAG: Final = "tags left"
AS_PRINTED: Final = "The printer is true"
DECK_APART: Final = "deck apart"
DECK_APART_TIP: Final = (
    "What stands over the sides' edge is a piece of its own, glued on when the box stands"
)
SPLIT_IT: Final = "split on the centre line"
IN_HAND: Final = "In hand"
BRACING: Final = "Bracing of open sections"
ADD_A_MEMBER: Final = "Add"
TAKE_IT_OUT: Final = "Take it out"
BENDS_HEAD: Final = "Bend along the fuselage"
ENDS_AND_CHAMFERS: Final = "Ends and chamfers"
WAYS_OUT: Final = "Ways out"
PULLING_IN: Final = "Pulling in"
DRY_LIMIT: Final = "dry"
SOAKED_LIMIT: Final = "soaked"
STRAIN: Final = "outer fibre, percent"
SAW_AND_SHEETS: Final = "Saw and sheets"
YOUR_RACK: Final = "Your rack"
YOUR_OFFCUTS: Final = "Your off-cuts of sheet"
YOUR_OFFCUT: Final = "your off-cut"
OFFCUTS_HINT: Final = "1 of 2 x 80 x 300 balsa-medium: thick, wide, long"
RACK_HINT: Final = "2 of 5 x 5 x 610 balsa-medium; 1 of 6 x 6 x 900 spruce"
TEMPLATES: Final = "Templates"
ACROSS_GRAIN: Final = "sheeting across"
ALONG_GRAIN: Final = "sheeting along"
WHICH_FOLDER: Final = "Where shall the templates go?"
PAPER_SIZES: Final = ("A4", "Letter", "A3", "Tabloid")
NOT_LAID_YET: Final = "The pieces are not laid on sheets yet."


def written(folder: object) -> str:
    """Where the templates went."""
    return f"The templates are in {folder}."


def not_written(fault: object) -> str:
    """Why not."""
    return f"No templates were written. {fault}."


def members_count(count: int) -> str:
    """How many there are."""
    return number_of(count, "member")


MEMBER_FIGURES: Final[dict[str, str]] = {
    "thickness": "thickness",
    "across": "across",
    "deep": "deep",
    "width": "width",
    "height": "height",
    "diameter": "diameter",
    "station": "station",
    "y": "off the middle",
    "z": "over datum",
    "angle": "angle",
    "gap": "gap",
    "inset": "inset",
    "short": "stops short",
    "servo.height": "opening, along",
    "servo.width": "opening, across",
    "servo.diameter": "pilot holes",
    "strap.width": "strap",
    "strap.thickness": "slot",
    "strap.y": "slot off the middle",
    "tail-bracket.height": "along",
    "tail-bracket.width": "across",
    "x": "station",
}


def member_figure(kind: str, key: str) -> str:
    """What a figure of a kind of member is called."""
    return MEMBER_FIGURES.get(f"{kind}.{key}", MEMBER_FIGURES[key])


THIS_ONE_IS_SOUND: Final = "This one is sound."


def set_edit(what: str) -> str:
    """The step's name for undo."""
    return f"set {what}"


def side_taken_off(fuselage: Fuselage, former: Former, unit: LengthUnit) -> str:
    """Whether the sheet of the sides is taken off a former's width."""
    planking = fuselage.framed.planking
    if planking is not None and is_planked(fuselage, former):
        thick = format_length(planking.thickness, unit)
        return f"It sits under planks: {thick} are taken off all round, square to its edge."
    sheet = side_at(fuselage, former.station)
    if sheet > 0:
        return f"It sits between sheet sides: {format_length(sheet, unit)} are taken off its drawn width on each side."
    return "It sits between sides of sticks: nothing is taken off its drawn width but notches."


def end_lines(fuselage: Fuselage, former: Former, unit: LengthUnit) -> list[str]:
    """Chamfers of the tail post, and longerons that leave the sheet side at this former."""
    told = [side_taken_off(fuselage, former, unit)]
    told += [
        leaving_sentence(one, unit)
        for one in leaving_longerons_of(fuselage)
        if one.stop == former.id
    ]
    post = post_chamfer_of(fuselage)
    if post is not None and former.id == fuselage.formers[-1].id:
        told.append(chamfer_sentence(post))
    return told


def goes(bend: Bend) -> str:
    """How it goes, in two words for a row."""
    return "straight" if bend.radius is None else _VERDICTS[bend.verdict]


def joined_sheets(count: int) -> str:
    """A piece larger than one sheet."""
    return f"{count} sheets joined edge to edge"


def looking_for_room(density: float) -> str:
    """While pieces are laid tighter: how much of what is used is wood of pieces."""
    return f"Looking for room: {density:.0f} % of what is used is pieces"


def sheet_note(pieces: int, used: float, waste: float, unit: LengthUnit) -> str:
    """``12 pieces on 640 mm, 11 % left over``."""
    word = "piece" if pieces == 1 else "pieces"
    return f"{pieces} {word} on {format_length(used, unit, 0)}, {waste:.0f} % left over"


def corrected_by(sheet: str) -> str:
    """A printer that is made up for, by a sheet of the print check."""
    return f"Corrected as {sheet} measured"


def elsewhere(count: int) -> str:
    """How much is wrong with other formers."""
    if not count:
        return ALL_SOUND
    return f"{number_of(count, 'thing')} to look into on others, where a triangle stands."


def member_title(member_id: str) -> str:
    """A member as it is called, where its name was made by the application."""
    return member_id.replace("_", " ")
