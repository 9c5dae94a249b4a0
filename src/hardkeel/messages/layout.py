"""What stands on the benches of Lay out: headings, buttons, and what is said when something was tried."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_area, format_length
from hardkeel.messages.counting import number_of

# airframe page
MY_MODEL: Final = "My model"

# audit chart
CHART_NAME: Final = "Chart of measured minus plan"

# audit page
PAIRS_TABLE: Final = "Pairs of plan and measured dimensions"
TAKE_IT: Final = "Take it"
IS_THE_PRINT_RIGHT: Final = "Is the print right?"
ANOTHER_DIMENSION: Final = "Another dimension"
HOW_LIKELY: Final = "How likely each cause is"
SHEET: Final = "Sheet"
MEASURE_FIRST: Final = "Measure what the plan says."
SIX_OR_EIGHT_WILL_DO: Final = (
    "Six or eight dimensions will do: some along the paper, some across, outlines and "
    "spacings, long and short, and one along a side that will be bent."
)

# balance drawing
BALANCE_DRAWING: Final = "Balance: masses along the fuselage, the wanted and the present point"

# balance page
MASSES: Final = "Masses"
BALANCE: Final = "Balance"
WANTED: Final = "Wanted"
PACK_AND_HATCH: Final = "Pack and hatch"
COUNT_THE_PARTS_IN: Final = "Count the parts in"
PUT_IT_IN: Final = "Put it in"
NOTHING_HANGS_YET: Final = "Nothing hangs on it yet."
COUNT_OR_PUT_IN: Final = "Count the parts in, or put in what you have weighed."
SAY_WHAT_IT_IS: Final = "Say what it is."
NO_SENSE_HERE: Final = "That figure makes no sense here; nothing was changed."

# board
DRAWING_BOARD: Final = "Drawing board: drag a former's points, or use the arrow keys"

# drawing desk
OUTLINE_FROM_A_DRAWING: Final = "Outline from a drawing"
DXF_FILES: Final = "Drawings (*.dxf)"
WRITE_THE_PARTS_LIST: Final = "Write the parts list"
CSV_FILES: Final = "Lists (*.csv)"
TAKE_A_FORMER_FIRST: Final = "Take a former in hand first."

# empty desk
OPEN_A_SCAN: Final = "Open a scan or photo…"
LAY_THE_SAMPLE: Final = "Lay the made-up page here"
IS_THERE_A_PLAN: Final = "Is there a plan on paper?"
HOW_TO_SCAN: Final = (
    "Scan it flat at 150 dpi or more, or take a photo of it. A known length puts it to "
    "scale, a second across it finds a print that is stretched, four known points find "
    "one that is askew. Then click along its lines, and they become your airframe."
)

# fit card
CARRY: Final = "Its lengths into the print check"
CARRY_TIP: Final = "What each known length measures on the scan, beside what the plan says: is it the print, and along or across?"
CARRY_EDIT: Final = "hold its lengths against the print"
HOW_THE_SHEET_LIES: Final = "How the sheet lies"

# former card
IN_HAND: Final = "In hand"
ADD_ONE_BEHIND: Final = "Add one behind"
TAKE_IT_OUT: Final = "Take it out"
WRITE_ITS_TEMPLATE: Final = "Write its template…"
TAIL_POST: Final = "Tail post"

# marks card
WING_TAIL_AND_MARKS: Final = "Wing, tail and marks"
PUT_WING_AND_TAIL_ON: Final = "Put wing and tail on"
TAKE_THAT_MARK_AWAY: Final = "Take that away"
ONLY_A_FUSELAGE_YET: Final = "Only a fuselage yet"

# page
AIRFRAME: Final = "Airframe"
PAPER_DESK: Final = "Paper desk"
PRINT_CHECK: Final = "Print check"
PARTS: Final = "Parts"
WOODS: Final = "Woods"

# parts page
WHERE_THE_LISTS_DISAGREE: Final = "Where the lists disagree"
IT_IS_THE_PRINTED_LIST: Final = "It is the printed list"
IT_IS_THE_BOX: Final = "It is what lies in the box"
PASTE_A_LIST_HERE: Final = "Paste a list here: name, quantity, wood; one part a line"
WRITE_THE_LIST: Final = "Write the list…"
NO_PARTS_YET: Final = "No parts yet"
WHAT_TO_PASTE: Final = (
    "Paste the printed list, or what you count in the box, and all three are compared."
)
ALL_LISTS_AGREE: Final = "Drawing, printed list and box agree."

# picks card
PICKED: Final = "Picked"
MAKE_THESE_THE_FIGURES: Final = "Make these the airframe's figures"

# plan sheet
SCAN_NAME: Final = "Scan of the plan: click points, arrow keys nudge the last one"

# plans card
ON_THE_DESK: Final = "On the desk"
ANOTHER_SCAN: Final = "Another scan…"

# scan desk
OPEN_WHICH_SCAN: Final = "Open a scan or photo"
DRAWING_THE_PAGE: Final = "Drawing the page …"
WHICH_PAGE: Final = "Which page?"

# skins card
SKINS_AND_LONGERONS: Final = "Skins and longerons"
NO_LONGERONS: Final = "No longerons"
TAKE_LONGERONS_OUT: Final = "take the longerons out"

# smooth card
SMOOTH_LINES: Final = "Smooth lines"
FAIR_IT: Final = "Fair it"
BEYOND_A_CREASE: Final = "Beyond a crease…"
CREASE_TIP: Final = (
    "lay the same sheet here once more: beyond a crease it is known by points of its own"
)
JOIN_TIP: Final = "find what both sheets show, and place this one by it"
LOOKING_FOR_OVERLAP: Final = "Looking for what both sheets show…"
NO_DATUM_THERE: Final = "that sheet must be to scale and have its datum first"


def goes_on_from(sheet: str) -> str:
    """``Goes on from nose half``."""
    return f"Goes on from {sheet}"


def placed_by(count: int, sheet: str, dropped: int) -> str:
    """``placed by 12 points that nose half shows too``, and how many of its own gave way."""
    gone = f"; its own {dropped} known points, of another zero, gave way" if dropped else ""
    return f"placed by {count} points that {sheet} shows too{gone}"


IT_IS_A_CORNER: Final = "It is a corner"
CORNER_TIP: Final = "as a windscreen's foot: the line breaks here, and no curve goes through"
NO_CORNER_TIP: Final = "take it back: the line runs on in a curve"
SHOW_THE_COMB: Final = "Curvature as a comb"
COMB_TIP: Final = "Teeth as long as the line is bent there: an even comb is a fair line, a dent or a spike in it is a bump"
ALL_LINES_FAIR: Final = "All three lines run fair."

# starter picker
LAY_IT_OUT: Final = "Lay it out"
HOW_IS_IT_BUILT: Final = "How is the fuselage built?"
PICK_THE_NEAREST_KIND: Final = (
    "Pick the nearest kind: every figure can be dragged or typed afterwards."
)

# surface card


def girth_words(girth: float, area: float, unit: LengthUnit) -> str:
    """``307 mm round the skin, 74.4 cm² inside it.``."""
    return f"{format_length(girth, unit, 0)} round the skin, {format_area(area, unit)} inside it."


RENUMBER: Final = "Number from the nose"
ITS_SHAPE: Final = "its shape"
SECTION_SHAPES: Final = {
    "box": "a box",
    "round": "round",
    "flat-sides": "flat sides, round deck",
    "drawn": "as drawn",
}
RING_OF: Final = "ring of diameter"
DECK_HIGH: Final = "deck over the sides"
DECK_RADIUS: Final = "radius of the deck"
BELLY_DEEP: Final = "belly under the sides"
BELLY_RADIUS: Final = "radius of the belly"
RING_TIP: Final = "Makes it a round ring of this diameter: of a spinner, of a cowl"
ALL_FORMERS_SO: Final = "All formers so"
WIDEST_AT: Final = "widest at"
FULL_ABOVE: Final = "fullness above"
FULL_BELOW: Final = "fullness below"
FULLNESS_TIP: Final = "1 is a diamond, 2 an oval, 4 nearly a box, 50 a box"
PART_TIP: Final = "A flat part to be measured and set: a step, the deck of a float. Its front edge at x, y, z; long, wide; its angle"
TAKE_IT_OFF: Final = "Take it off"

# template card
MEASURE_ITS_TEMPLATE: Final = (
    "Measure the template of this former, and it is held against the loft."
)
ITS_TEMPLATE_AS_MEASURED: Final = "Its template, as measured"
BRING_AN_OUTLINE: Final = "Outline from a drawing…"

# tools card
NOW: Final = "Now"
SHEET_KEYS: Final = "Wheel or + and − zoom, the right button moves the sheet, arrows nudge."

# woods page
MATERIALS: Final = "Materials"
MAKE_THE_SWAP: Final = "Make the swap"
SWAP_ONE_WOOD: Final = "Swap one wood for another"
LAMINATE: Final = "Laminate"
GRAIN_ALONG: Final = "The grain runs along the length"


def type_a(words: object) -> str:
    """``Type ….``."""
    return f"Type {words}."


def write_which(name: object) -> str:
    """``Write …``."""
    return f"Write {name}"


def written_to(path: object) -> str:
    """``Written to ….``."""
    return f"Written to {path}."


def gap_joined(gap: object, name: object) -> str:
    """``Ends up to … apart were joined in …: look at the outline.``."""
    return f"Ends up to {gap} apart were joined in {name}: look at the outline."


def not_written(fault: object) -> str:
    """``Not written: ….``."""
    return f"Not written: {fault}."


def former(name: object) -> str:
    """``Former …``."""
    return f"Former {name}"


def mark_belongs_to(on: object) -> str:
    """``It belongs to the …. Lengths from the datum: aft, starboard, up.``."""
    return f"It belongs to the {on}. Lengths from the datum: aft, starboard, up."


def it_is(state: object) -> str:
    """``It is …``."""
    return f"It is {state}"


def reading_scan(name: object) -> str:
    """``Reading … …``."""
    return f"Reading {name} …"


def scan_is_gone(name: object) -> str:
    """``The scan … is not in this build's file any more; open it again.``."""
    return f"The scan {name} is not in this build's file any more; open it again."


def left_as_they_were(names: object) -> str:
    """``Not picked, and left as they were: ….``."""
    return f"Not picked, and left as they were: {names}."


def came_too_late(name: str) -> str:
    """A scan that was read while another build was opened."""
    return f"{name} came when another build lay on the bench: open it again there."


def not_opened(why: object) -> str:
    """``Not opened: ….``."""
    return f"Not opened: {why}."


def not_drawn(why: object) -> str:
    """``Not drawn: ….``."""
    return f"Not drawn: {why}."


def in_hand(stop: str) -> str:
    """``F4 in hand``."""
    return f"{stop} in hand"


def picked(body: str) -> str:
    """``stabilizer picked``."""
    return f"{body} picked"


DIMENSION_TOO_SMALL: Final = "A dimension must be more than 0."
MASS_TOO_SMALL: Final = "A mass can't be less than 0."
TWO_LINES_NEAR: Final = "two lines are equally near: zoom in and click nearer to one"
LENGTH_TOO_SMALL: Final = "a length must be more than 0"
PAIRS_HERE: Final = "pairs will be drawn here"
AIRFRAME_HERE: Final = "the airframe will lie here"


def too_small(figure: str) -> str:
    """A figure that must be more than nothing."""
    return f"A {figure} must be more than 0."


def balance_facts(grams: float, chord: str, guessed: int) -> str:
    """``908 g all up, mean chord 190.4 mm, 18 masses estimated.``; `chord` may be empty."""
    parts = [f"{grams:.0f} g all up"]
    if chord:
        parts.append(f"mean chord {chord}")
    if guessed:
        parts.append(f"{number_of(guessed, 'mass', 'masses')} estimated")
    return f"{', '.join(parts)}."


def holes_words(count: int) -> str:
    """``, 2 lightening holes``; nothing where there are none."""
    return f", {number_of(count, 'lightening hole')}" if count else ""


# -- steps as undo names them -----------------------------------------------------------------------

PUT_WING_AND_TAIL_ON_EDIT: Final = "put wing and tail on"
PUT_WING_ABOVE: Final = "put a wing above"
SET_LONGERONS: Final = "set longerons"
TAKE_DIMENSION: Final = "take a dimension"
CHANGE_DIMENSION: Final = "change a dimension"
STRIKE_DIMENSION_OUT: Final = "strike a dimension out"
COUNT_PARTS_IN: Final = "count the parts in"
CLICK_DATUM: Final = "click the datum"
NUDGE_CLICK: Final = "nudge a click"
NUDGE_DATUM: Final = "nudge the datum"
TAKE_CLICK_BACK: Final = "take a click back"
NOTE_KNOWN_LENGTH: Final = "note a known length"
NOTE_KNOWN_POINT: Final = "note a known point"
TREAT_IT_AS_PHOTO: Final = "treat it as a photo"
TREAT_IT_AS_SCAN: Final = "treat it as a scan"
TAKE_PLANS_FIGURES: Final = "take the plan's figures"
TWO_OF_ONE_HAND: Final = "two of one hand"


def shape_like_edit(stop: str) -> str:
    """``shape all formers like …``."""
    return f"shape all formers like {stop}"


def drag_edit(what: str, name: str) -> str:
    """``drag … of …``."""
    return f"drag {what} of {name}"


def nudge_edit(what: str, name: str) -> str:
    """``nudge … of …``."""
    return f"nudge {what} of {name}"


def ring_edit(name: str) -> str:
    """``make … a ring``."""
    return f"make {name} a ring"


def set_figure_edit(what: str, name: str) -> str:
    """``set … of …``."""
    return f"set {what} of {name}"


def template_edit(former: str) -> str:
    """``measure template of …``."""
    return f"measure template of {former}"


def set_edit(words: str) -> str:
    """``set …``."""
    return f"set {words}"


def take_off_edit(name: str) -> str:
    """``take … off``."""
    return f"take {name} off"


def add_mark_edit(name: str) -> str:
    """``add mark …``."""
    return f"add mark {name}"


def add_part_edit(name: str) -> str:
    """``add part …``."""
    return f"add part {name}"


def take_mark_away_edit(words: str) -> str:
    """``take mark … away``."""
    return f"take mark {words} away"


def take_part_away_edit(words: str) -> str:
    """``take part … away``."""
    return f"take part {words} away"


def rename_edit(old: str, new: str) -> str:
    """``call … …``."""
    return f"call {old} {new}"


def fair_edit(former: str) -> str:
    """``fair …``."""
    return f"fair {former}"


def corner_at_edit(former: str) -> str:
    """``corner at …``."""
    return f"corner at {former}"


def no_corner_at_edit(stop: str) -> str:
    """``no corner at …``."""
    return f"no corner at {stop}"


def add_former_edit(made: str) -> str:
    """``add former …``."""
    return f"add former {made}"


def take_out_edit(name: str) -> str:
    """``take … out``."""
    return f"take {name} out"


def cut_out_edit(name: str) -> str:
    """``cut out …``."""
    return f"cut out {name}"


def shape_edit(name: str, what: str) -> str:
    """``make … …``."""
    return f"make {name} {what}"


def method_edit(start: str, what: str) -> str:
    """``build aft of … with …``."""
    return f"build aft of {start} with {what}"


def starter_edit(what: str) -> str:
    """``lay out: …``."""
    return f"lay out: {what}"


def put_in_edit(name: str) -> str:
    """``put … in``."""
    return f"put {name} in"


def change_edit(key: str) -> str:
    """``change …``."""
    return f"change {key}"


def place_edit(plan: str) -> str:
    """``place …``."""
    return f"place {plan}"


def click_edit(what: str) -> str:
    """``click …``."""
    return f"click {what}"


def beyond_crease_edit(plan: str) -> str:
    """``… beyond a crease``."""
    return f"{plan} beyond a crease"


def pair_held_edit(what: str) -> str:
    """``pair held, …``."""
    return f"pair held, {what}"


def weigh_edit(name: str) -> str:
    """``weigh …``."""
    return f"weigh {name}"


def take_list_edit(words: str) -> str:
    """``take the …``."""
    return f"take the {words}"


def lay_on_desk_edit(name: str) -> str:
    """``lay … on the desk``."""
    return f"lay {name} on the desk"


def make_of_edit(name: str, what: str) -> str:
    """``make … of …``."""
    return f"make {name} of {what}"


def state_edit(part: str, state: str) -> str:
    """``F3: glued``."""
    return f"{part}: {state}"
