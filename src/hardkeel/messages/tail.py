"""What Tail says: the surface, its frame or ribs, hinges, slot, flatness."""

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.messages.names import sentence_case, surface_name
from hardkeel.messages.tail_kinds import KIND_WORDS
from hardkeel.tail.controls import hinge_places

if TYPE_CHECKING:
    from hardkeel.airframe.tails import Volumes
    from hardkeel.tail.clearance import Clash
    from hardkeel.tail.controls import HingeStation, Throws
    from hardkeel.tail.foam import Core, FoamStrip, SealChannel, SkinPanel, TubeHole
    from hardkeel.tail.grillage import Choice
    from hardkeel.tail.laminating import Lamination
    from hardkeel.tail.lying import Lying
    from hardkeel.tail.model import TailSurface
    from hardkeel.tail.passing import Passing
    from hardkeel.tail.ribs import CutRib
    from hardkeel.tail.stacking import Stack, Trimmed

_NO_BEVEL: Final = 0.5  # degrees: less than that no sanding block shows
SURFACE: Final = "Surface"
CONTROLS: Final = "Controls"
FLAT: Final = "Flat"
TAIL_SHEETS: Final = "Wood and sheets"
NO_TAIL: Final = "There is no tail surface yet."
NO_TAIL_WHY: Final = "Put one on here, or on Lay out."
PUT_ON: Final = "Put on stabilizer and fin"
HOW_BUILT: Final = "How is it built?"
HOW_BUILT_WHY: Final = "Flat sticks, ribs with a section, or foam: what is usual comes with one click and is put right here."
FROM_ABOVE: Final = "one half as it lies on the board, the other its mirror"
FIN_FLAT: Final = "as it lies on the board, its foot to the left"
PINCH: Final = "Pinched with 1 N at the tip"
NO_SECOND_HALF: Final = "A surface that stands upright is one piece: nothing of it is mirrored."
SECOND_HALF: Final = "The other half is its mirror: cut two of each at one setting."
FROM_DXF: Final = "Outline from a DXF…"
FROM_DESK: Final = "Outline from the paper desk"
BACK_TO_FIGURES: Final = "Back to span and chords"
DXF_FILES: Final = "DXF drawings (*.dxf)"
NEXT_CHOICES: Final = "What else it could be"
PATTERN_WORDS: Final = {
    "none": "no bracing",
    "ladder": "ladder",
    "zigzag": "zigzag",
    "crossed": "crossed",
}
TIP_WORDS: Final = {
    "": "straight",
    "elliptic": "elliptic",
    "rounded": "rounded",
    "block": "block",
    "laminated": "laminated strips",
}
BRACING: Final = "Bracing"
JOINTS: Final = "Where diagonals cross"
JOINT_WORDS: Final = {"butt": "second cut in two", "half-lap": "halved"}
STIFF: Final = "Joints reckoned"
STIFF_WORDS: Final = {"stiff": "as glued", "pinned": "as hinges"}
GUSSET_EDGES: Final = "Gussets"
GUSSET_WORDS: Final = {"straight": "straight edge", "curved": "hollow edge"}
ARRANGED: Final = "Arranged"
ARRANGED_WORDS: Final = {
    "usual": "stabilizer low",
    "t": "on top of the fin",
    "v": "as a V",
    "twin": "two fins",
}
JOINER: Final = "Halves joined by"
JOINER_WORDS: Final = {"wire": "wire", "bar": "bar", "none": "nothing"}
HALF_RIBS: Final = "Half ribs ahead of the spar"
YES_NO: Final = {"yes": "between all ribs", "no": "none"}
ADD_TOP: Final = "Spar on top"
ADD_BOTTOM: Final = "Spar below"
ADD_TUBE: Final = "Tube"
EDGES: Final = "Edges"
TIP: Final = "Tip"
OUTLINE: Final = "Outline"
WEIGHS: Final = "It weighs"
WITHOUT_GLUE: Final = "Wood and foam alone, without glue and covering."
PINCH_WHY: Final = "Between thumb and finger at the tip: the front corner up, the rear one down. Drag, and both figures follow."
ROOT_CORE: Final = "core at the root"
RIB_GALLERY: Final = "the ribs from the middle out"
SPARS: Final = "Spars and feet"
FOAM: Final = "Foam and what goes on it"
TIP_CORE: Final = "core at the tip"
NO_SECTION: Final = "A flat frame has no section."
NO_SECTION_WHY: Final = "It is sticks of one thickness. With ribs it gets a section: what is usual comes at once, and an undo takes it back."
BUILD_OF_RIBS: Final = "Build it of ribs"
SHEET_FOAM: Final = "Flat sheet foam: it has no section."
MAKE_RIBS: Final = "Make the ribs"
SECTION_FILES: Final = "Coordinate files (*.dat *.txt *.cor *.csv);;All files (*)"
HINGE_CUT: Final = "across the hinge line, at the throw wanted"
NO_HINGE: Final = "Nothing moves here."
NO_HINGE_WHY: Final = "Say on Surface how it is built and where its hinge line lies."
LINKAGE: Final = "From the servo to the horn"
ON_THE_BOARD: Final = "on the board; click a corner to read it"
CORNER_HEADS: Final = ("corner", "over the board", "off the rest")
FLEX: Final = "Flex"
NOT_READ: Final = "Not read yet."
NEEDS_CORNERS: Final = (
    "Read all corners of both tips: a twist shows only in the difference of all four."
)
GOES_ON_IN_TRUE: Final = "What is left is read again on True, as the twist of this body."
CONTROL_WORDS: Final = {
    "up": "throw up",
    "down": "throw down",
    "gap": "hinge gap",
    "inner": "begins at",
    "edge": "edge",
    "thickness": "its thickness",
    "servo_arm": "servo arm",
    "travel": "servo turns",
    "horn": "horn height",
    "y": "horn at",
}
UPRIGHT_CONTROL_WORDS: Final = {**CONTROL_WORDS, "up": "throw left", "down": "throw right"}
THREE_CLICKS: Final = "Only the root rib is drawn?"
THREE_CLICKS_WHY: Final = "Root section, tip thickness, number of ribs: the rest follows."
SECTION: Final = "Root section"
TIP_THICK: Final = "Thickness at the tip"
HOW_MANY_RIBS: Final = "Ribs in each half"
OPEN_SECTION: Final = "Open a file…"
SECTIONS: Final = "Ribs and sections"
HOW_BUILT_FIRST: Final = "Say first how a surface is built."
SHOW_SURFACE: Final = "Show me the surface"
RIBS: Final = "Ribs"
BY_HAND: Final = "By hand"
SLOT_ASK: Final = "How does a rib's end sit in its slot?"
SLOT_WORDS: Final = {"good": "just right", "loose": "a hair too loose", "tight": "too tight"}
SLOT_CURE: Final = {
    "good": "Then leave it: a joint that slides in by its own weight takes its glue.",
    "loose": "Dampen the rib's end and let it swell before it goes in; glue does not fill a gap.",
    "tight": "Pinch the rib's end between flat jaws until it slides in; the damp of the glue swells it again.",
}
HINGES: Final = "Hinge line"
THROW: Final = "Throw"
MOVES_FREE: Final = "Nothing touches, whatever moves."
TOUCHES: Final = "It touches"
SLOT: Final = "Through the slot"
NO_SLOT: Final = "It lies on the fuselage: there is no slot to pass."
READ_CORNERS: Final = "Read the corners"
READ_CORNERS_WHY: Final = (
    "Lay it on the board without weight and read each corner's height over the board."
)
FLAT_PHASES: Final = {"dry": "before the glue", "wet": "glue wet", "cured": "dried under weight"}
PLACE_WORDS: Final = {
    "port_le": "port tip, leading edge",
    "port_te": "port tip, trailing edge",
    "mid_le": "middle, leading edge",
    "mid_te": "middle, trailing edge",
    "starboard_le": "starboard tip, leading edge",
    "starboard_te": "starboard tip, trailing edge",
}
FIN_PLACES: Final = {
    "mid_le": "foot, leading edge",
    "mid_te": "foot, trailing edge",
    "starboard_le": "top, leading edge",
    "starboard_te": "top, trailing edge",
}
FIGURE_WORDS: Final = {
    "span": "span",
    "height": "height",
    "root_chord": "root chord",
    "tip_chord": "tip chord",
    "sweep_le": "sweep",
    "pitch": "pitch of the bracing",
    "width": "width of a stick",
    "thickness": "thickness",
    "tip_length": "length of the tip",
    "hinge_at_chord": "hinge at %",
    "pivot_at_chord": "pivot at %",
    "rib_count": "ribs in each half",
    "tip_thickness": "tip thickness",
    "skin": "skin",
    "gusset": "gussets",
    "centre": "centre sheet",
    "feet": "feet",
    "leading_edge|0": "leading edge",
    "leading_edge|1": "high",
    "trailing_edge|0": "trailing edge",
    "trailing_edge|1": "high",
    "washout": "washout",
    "rib_thickness": "rib thick",
    "hinge_edge": "hinge faces",
}
FOAM_CAUTION: Final = (
    "Hot wire and cutting foam give off fumes: work in moving air, and follow the maker's sheet."
)
BLADE_CAUTION: Final = "Blade away from the other hand."
_RUNS_OFF: Final = 0.01  # of the chord: less is the pencil's


def surface_title(surface: "TailSurface") -> str:
    """``Stabilizer``, ``Fin``."""
    return sentence_case(surface_name(surface.id))


def kind_words(surface: "TailSurface") -> str:
    """How it is built, in two words."""
    return KIND_WORDS.get(surface.kind or "", "not said yet")


def grams(value: float) -> str:
    """``18.3 g``; from 100 g on without tenths."""
    return f"{value:.0f} g" if value >= 100 else f"{decimal(value, 1)} g"  # noqa: PLR2004


def give_words(mm: float, unit: LengthUnit) -> str:
    """How far two corners part."""
    return format_length(mm, unit)


def pinch_sentence(choice: "Choice", unit: LengthUnit) -> str:
    """What it gives, and what it weighs."""
    return (
        f"{sentence_case(PATTERN_WORDS[choice.pattern])} of {choice.material.replace('-', ' ')} gives {give_words(choice.twist.give, unit)} "
        f"({format_angle(choice.twist.degrees)}) and weighs {grams(choice.mass)}."
    )


def choice_row(choice: "Choice", now: "Choice", unit: LengthUnit) -> tuple[str, str, str, str]:
    """Name, give, mass and what that buys against the frame as it is."""
    words = PATTERN_WORDS[choice.pattern]
    if choice.material != now.material:
        words = choice.material.replace("-", ", ", 1) if "-" in choice.material else choice.material
    times = now.twist.give / choice.twist.give
    if choice is now:
        bought = "as it is"
    elif times >= 1:
        bought = f"{decimal(times, 1)} × stiffer, {decimal(choice.mass - now.mass, 1, signed=True)} g".replace(
            "-", "−"
        )
    else:
        bought = f"{decimal(1 / times, 1)} × softer, {decimal(choice.mass - now.mass, 1, signed=True)} g".replace(
            "-", "−"
        )
    return words, give_words(choice.twist.give, unit), grams(choice.mass), bought


def volume_sentence(surface: "TailSurface", volumes: "Volumes") -> str:
    """Area, aspect ratio and tail volume."""
    area = f"{decimal(volumes.area / 1e4, 2)} dm²"
    told = f"{area}, aspect ratio {decimal(volumes.aspect, 1)}"
    if volumes.volume is None:
        return f"{told}."
    usual = (0.02, 0.06) if surface.upright else (0.35, 0.8)
    low, high = usual
    judged = (
        "small for a sport model"
        if volumes.volume < low
        else "large"
        if volumes.volume > high
        else "as sport models have it"
    )
    figures = decimal(volumes.volume, 3) if surface.upright else decimal(volumes.volume, 2)
    return f"{told}, tail volume {figures}, {judged}."


def lamination_sentence(
    made: "Lamination", limits: tuple[float, float] | None, unit: LengthUnit
) -> str:
    """How a tip is bent, by the strain in percent that its wood takes dry and soaked; ``None``: it is not bent at all."""
    strain = made.strain
    if limits is None:
        way = "but of this nothing is bent round a form: another wood"
    else:
        dry, soaked = limits
        way = (
            "bent dry"
            if strain <= dry
            else "bent soaked"
            if strain <= soaked
            else "too tight: thinner strips"
        )
    return (
        f"{made.layers} strips of {format_length(made.strip, unit)}, {format_length(made.length, unit)} long, "
        f"around a form: {decimal(strain, 1)} % at {format_length(made.radius, unit)}, {way}."
    )


def stack_sentences(stack: "Stack", unit: LengthUnit) -> list[str]:
    """For those who stack and sand."""
    long, tall = stack.size
    told = [
        f"Stack {stack.blanks} blanks of {format_length(long, unit)} by {format_length(tall, unit)} between root and tip template."
    ]
    worst = stack.worst
    if worst.excess < 0.05:  # noqa: PLR2004  mm: nobody can sand to it
        told.append("The sanded stack is the true loft.")
    else:
        told.append(
            f"The sanded stack stands up to {format_length(worst.excess, unit)} proud of the true loft, "
            f"most at the rib {format_length(worst.y, unit)} out."
        )
    return told


def trimmed_sentence(ribs: Sequence["Trimmed"], unit: LengthUnit) -> str:
    """For those who cut all to the root section."""
    last = ribs[-1]
    sanding = max(rib.sanding for rib in ribs)
    lacking = max(rib.lacking for rib in ribs)
    told = (
        f"All cut to the root section: the tip rib loses {format_length(last.trim, unit)} at its nose, "
        f"and up to {format_length(sanding, unit)} is left to sand"
    )
    if lacking > 0.2:  # noqa: PLR2004  mm
        return f"{told}; {format_length(lacking, unit)} would be lacking, so this school does not serve here."
    return f"{told}."


def hinge_sentence(one: "HingeStation", unit: LengthUnit, *, upright: bool = False) -> str:
    """Bevels and what the edge travels; an upright surface's goes left and right."""
    bevel = max(one.bevel_up, one.bevel_down)
    upper, lower, up, down = (
        ("left", "right", "left", "right") if upright else ("upper", "lower", "up", "down")
    )
    cut = (
        f"bevel the {upper} face {_up(one.bevel_up)}, the {lower} {_up(one.bevel_down)}"
        if bevel >= _NO_BEVEL
        else "square faces clear it"
    )
    return (
        f"For the throw wanted {cut}; the edge travels {format_length(one.edge_up, unit)} {up}, "
        f"{format_length(one.edge_down, unit)} {down} at the {'foot' if upright else 'root'}."
    )


def throw_sentence(throws: "Throws", wanted: float, unit: LengthUnit) -> str:
    """What the linkage gives."""
    gives = f"The linkage gives {format_angle(throws.degrees)}, {format_length(throws.at_horn, unit)} at the edge"
    if throws.needed == float("inf") or throws.degrees + 1e-6 < wanted:
        return f"{gives}; {format_angle(wanted)} are wanted: a shorter horn, or a longer arm."
    return f"{gives}; for the throw wanted the servo turns {format_angle(throws.needed)}."


def mismatch_sentence(mm: float, unit: LengthUnit) -> str:
    """A fin that is thinner than its rudder, or the other way round; empty where none shows."""
    if not mm:
        return ""
    thicker = "moving part is thicker" if mm > 0 else "fixed part is thicker"
    return f"The {thicker} by {format_length(abs(mm), unit)} at the hinge line: sand it down, or let it show."


def part_that_moves(part: str) -> str:
    """``stab starboard elevator`` as ``starboard elevator``, ``fin rudder`` as ``rudder``."""
    surface, _, rest = part.partition(" ")
    if rest.endswith(("elevator", "joiner")):
        return rest.replace("joiner", "elevator joiner")
    if rest == "rudder":
        return rest if surface == "fin" else f"rudder of the {surface_name(surface)}"
    if surface == "fuselage":
        return f"fuselage's {rest}"
    return f"{surface_name(surface)} {rest}".strip()


def clash_sentences(clashes: Sequence["Clash"], unit: LengthUnit) -> list[str]:
    """What touches what, when, and what to cut away; what is the same on both hands is said once."""
    said: dict[str, str] = {}
    for clash in clashes:
        words = clash_sentence(clash, unit)
        both = words
        for hand in ("port ", "starboard "):
            both = both.replace(hand, "").replace(hand.capitalize(), "")
        said.setdefault(
            both[:1].lower() + both[1:],
            words if both == words else f"On both hands: {both[:1].lower()}{both[1:]}",
        )
    return list(said.values())


def clash_sentence(clash: "Clash", unit: LengthUnit) -> str:
    """What touches what, when, and what to cut away."""
    one, other = (part_that_moves(part) for part in clash.parts)
    ways = " and ".join(
        f"{part} {format_angle(abs(throw), 0)} over"
        for part, throw in zip((one, other), clash.throws, strict=True)
        if throw
    )
    when = f" ({ways})" if ways else ""
    return f"{sentence_case(one)} touches the {other}{when}: take {format_length(clash.depth, unit)} away there."


def passing_sentence(ways: Sequence["Passing"], unit: LengthUnit) -> str:
    """In which order stabilizer and elevators go on."""
    if not ways:
        return NO_SLOT
    by = {one.hinged: one for one in ways}
    bare, both = by["none"], by["both"]
    if both.passes:
        return f"It passes its slot with both elevators hinged, {format_length(max(both.play, 0.0), unit)} to spare: hinge them when you like."
    if bare.passes:
        return (
            f"With both elevators hinged it does not pass ({format_length(-min(both.play, both.over), unit)} too much); "
            f"bare half first, with the other elevator hinged, it does, {format_length(bare.play, unit)} to spare."
        )
    short = -min(bare.play, bare.over)
    return f"It does not pass its slot at all: {format_length(short, unit)} too much. Open the slot to the rear, or build it in two halves."


def skin_sentence(panel: "SkinPanel", unit: LengthUnit) -> str:
    """A skin with its seams."""
    seams = (
        f", seams {' and '.join(format_length(at, unit) for at in panel.seams)} ahead of the trailing edge"
        if panel.seams
        else ", in one sheet"
    )
    return (
        f"{sentence_case(panel.face)} skin: {format_length(panel.root, unit)} at the root, "
        f"{format_length(panel.tip, unit)} at the tip, {format_length(panel.length, unit)} long{seams}."
    )


def tube_sentence(hole: "TubeHole", unit: LengthUnit) -> str:
    """Where a tube passes the sides."""
    return (
        f"{sentence_case(hole.id)}: drill {format_length(hole.diameter, unit)} at station {format_length(hole.x, unit)}, "
        f"{format_length(hole.z, unit)} over the datum, both sides; the tube is {format_length(hole.length, unit)}."
    )


def strip_sentence(strip: "FoamStrip", unit: LengthUnit) -> str:
    """An edge of wood on foam."""
    a, b = strip.section
    return f"{sentence_case(strip.name)}: {format_length(strip.length, unit)} of {format_length(a, unit)} by {format_length(b, unit)}."


def seal_sentence(channel: "SealChannel", unit: LengthUnit) -> str:
    """The channel that a gap seal lies in."""
    return (
        f"Gap seal: saw a channel {format_length(channel.width, unit)} wide and {format_length(channel.depth, unit)} "
        "deep into both hinge faces."
    )


LEVEL_HOLES: Final = "Both holes must be level with each other: lay a straight rod through them and read it against the wing, both ways round."


def braced_edit(surface: "TailSurface") -> str:
    """The step's name for undo."""
    return f"bracing of the {surface_name(surface.id)}"


def built_edit(surface: "TailSurface", kind: str) -> str:
    """The step's name for undo."""
    return f"{surface_name(surface.id)} of {KIND_WORDS[kind]}"


def tip_edit(surface: "TailSurface") -> str:
    """The step's name for undo."""
    return f"tip of the {surface_name(surface.id)}"


def section_edit(name: str) -> str:
    """The step's name for undo."""
    return f"bring in {name}"


def read_edit(place: str) -> str:
    """The step's name for undo."""
    return f"read {PLACE_WORDS[place]}"


def struck_corner(place: str) -> str:
    """The step's name for undo."""
    return f"strike out {PLACE_WORDS[place]}"


def rib_title(number: int, y: float, unit: LengthUnit) -> str:
    """``rib 3, 80.0 mm from the middle``."""
    return f"rib {number}, {format_length(y, unit)} from the middle"


def rib_lines(rib: "CutRib", trimmed: "Trimmed | None", unit: LengthUnit) -> tuple[str, list[str]]:
    """A rib's chord and thickness, its notches, what the hand schools need of it."""
    lofted = rib.lofted
    lines = [
        f"{sentence_case(notch.spar)}: notch {format_length(notch.depth, unit)} deep, "
        f"{format_length(notch.x[0], unit)} to {format_length(notch.x[1], unit)} behind the nose."
        for notch in rib.notches
    ]
    if trimmed is not None and trimmed.trim > 0.05:  # noqa: PLR2004  mm
        notches = ", ".join(f"{name} {format_length(deep, unit)}" for name, deep in trimmed.notches)
        lines.append(
            f"Trimmed in place: {format_length(trimmed.trim, unit)} off the nose; notches {notches}."
        )
    head = (
        f"{format_length(lofted.chord, unit)} long, {format_length(lofted.thickness, unit)} thick."
    )
    return head, lines


def spar_words(spar: str, what: str) -> str:
    """A figure of a spar."""
    words = {
        "at_chord": "at %",
        "width": "wide",
        "depth": "deep",
        "diameter": "across",
        "length": "long",
    }[what]
    return f"{spar} {words}"


def uneven_sentence(mm: float, unit: LengthUnit) -> str:
    """A stack stands at even distances; these ribs do not."""
    return (
        f"The ribs stand up to {format_length(mm, unit)} away from even distances: put blanks of that much "
        "more or less between, or sand each to its own outline."
    )


def core_note(core: "Core", unit: LengthUnit) -> str:
    """Between which templates a core is cut."""
    return f"{format_length(core.length, unit)} to the template at the tip"


def bevel_answer(one: "HingeStation", *, upright: bool = False) -> str:
    """The bevels in a few words."""
    if max(one.bevel_up, one.bevel_down) < _NO_BEVEL:
        return "No bevel needed."
    if abs(one.bevel_up - one.bevel_down) < _NO_BEVEL:
        return f"Bevel both faces {_up(max(one.bevel_up, one.bevel_down))}."
    above, below = ("on the left", "on the right") if upright else ("above", "below")
    return f"Bevel {_up(one.bevel_up)} {above}, {_up(one.bevel_down)} {below}."


def _up(bevel: float) -> str:
    """Whole degrees, never fewer than are needed."""
    return f"{math.ceil(bevel - 1e-6)}°"


def hinges_sentence(surface: "TailSurface", unit: LengthUnit) -> str:
    """Where the hinges go."""
    places = hinge_places(surface)
    told = ", ".join(format_length(y, unit) for y in places)
    where = "above its foot" if surface.upright else "from the middle, each half"
    return f"Hinges at {told} {where}."


def the_surface(surface: "TailSurface") -> str:
    """``the stabilizer``."""
    return f"the {surface_name(surface.id)}"


def names_of(surface: "TailSurface") -> tuple[str, str]:
    """What a drawing may call it."""
    return surface.id, surface_name(surface.id)


def lying_words(lying: "Lying") -> str:
    """How a drawn surface was taken, where that is not said by its half alone; else nothing."""
    parts = []
    if lying.whole:
        parts.append("both halves are drawn: it is cut at their middle")
    if lying.sideways:
        parts.append("its span lies along the sheet: its leading edge was taken to be up")
    return "; ".join(parts)


def surface_read_words(lying: "Lying", hinge: tuple[float, float] | None) -> str:
    """How a surface was taken off a sheet, as far as it was not simply copied."""
    parts = [lying_words(lying)]
    if hinge is not None and hinge[1] > _RUNS_OFF:
        low, high = hinge[0] - hinge[1], hinge[0] + hinge[1]
        parts.append(
            f"its hinge line runs between {low:.0%} and {high:.0%} of the chord: {hinge[0]:.0%} was taken all along"
        )
    return "; ".join(part for part in parts if part)


def outline_edit(surface: "TailSurface") -> str:
    """The step's name for undo."""
    return f"outline of the {surface_name(surface.id)}"


COVERED: Final = "Covered"
WEIGHS_COVERED: Final = "weighs, covered and hinged; it takes the place of its parts in the balance"


def not_read(name: str, why: object) -> str:
    """A file that could not be read."""
    return f"{name} can't be read: {why}"


# -- steps as undo names them -----------------------------------------------------------------------

FEET: Final = "feet"
