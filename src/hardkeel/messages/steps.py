"""What a step is called, what to look at before it and why it can't be undone: by its key, when it is shown."""

from dataclasses import dataclass
from datetime import date
from typing import Final, Protocol

from hardkeel.airframe.orders.whole import LATE
from hardkeel.messages.names import surface_name
from hardkeel.messages.tail_kinds import KIND_STEPS
from hardkeel.messages.wording import Wording
from hardkeel.schedule.model import Step

_SQUARE_ON_CRUTCH: Final = "square on the crutch, fore and aft and across"
_SQUARE: Final = (
    "square each former at its top and at its foot; both diagonals of every bay; then glue"
)
_CORNERS: Final = "wipe what squeezes out of the corners: dry, it keeps corner stock and gussets from seating, and their corner must be chamfered"
_OOZE: Final = "look again when the timer says so: what has oozed out is wiped while it is soft; a fillet of thickened glue where one is wanted"
_LIFT: Final = "lean the pins outward over the wood, twist them as you draw them, a finger beside"
_END_GRAIN: Final = "coat end grain, let it soak in, coat it again"

# {all}: what the step is about, as a list; {first} and {rest} of it
STEPS: Final[dict[str, Wording]] = {
    "frame.cut": Wording(
        "Cut and clean formers, sides and plates; mark centre lines on both faces"
    ),
    "frame.drill": Wording(
        "Drill and cut the holes for {all} while the parts are flat",
        "formers and trays stacked on their centre lines and clamped: one drill through all, square; "
        "rods and wires snug in their holes, and waxed, so that they come out again",
        "once the sides stand no drill comes square through both of them",
    ),
    "frame.drill.late": Wording(
        "Drill the holes for {all} through the formers as they stand",
        "a long bit or a sharpened tube, led by a block on the centre line; somebody sights along it: it drifts with the grain",
        "a hole that has drifted is plugged and drilled anew",
    ),
    "frame.openings": Wording(
        "Cut the openings of {all} and drill the pilot holes of their screws",
        "a servo drops in without force, its leads pass; the tray lies flat on the bench now and never again",
        "boxed in, no drill comes square to a tray",
        "a drop of thin cyanoacrylate in each pilot hole, then the screw once in and out",
    ),
    "frame.nuts": Wording(
        "Drill the bolt holes ({all}) and pull the blind nuts in from behind",
        "the mount itself as drilling template, its middle on the thrust line that is drawn; every bolt turns in by hand",
        "behind a closed bay no nut is set and none that turns is held",
        "a ring of epoxy round each nut's flange, grease on the bolt's thread: none in the nut's",
    ),
    "frame.board": Wording(
        "Level the board both ways, draw centre line and stations",
        "level across at both ends, then along: no bubble off",
    ),
    "frame.board.short": Wording(
        "Level the board, carry {all} on a straight strip clamped under its end, draw centre line and stations",
        "level across at both ends, then along: no bubble off; a long rule lies on board and strip without light under it",
    ),
    "frame.doublers": Wording(
        "Glue {all} to both sides under weights",
        "both doublers on the inside? Lay the sides face to face: one port, one starboard; "
        "one that has curled: iron its hollow side's other face, until it lies flat by itself",
        "two port sides are two sides to cut again",
        "a sheet of film and a flat board over all of it, weights from the middle outward; wipe the edges",
    ),
    "frame.strips": Wording(
        "Glue {all} along both sides",
        "on the inside, clear of the formers' slots: one port, one starboard; a triangular strip with its wide face down, on the side",
        then=_CORNERS,
    ),
    "frame.port side": Wording(
        "Pin the longerons down and glue the sticks of the port side",
        "pins beside the wood, leaning over it, film under it",
        then=f"{_END_GRAIN}; light pressure, a caul where a pin would dent; {_CORNERS}",
    ),
    "frame.starboard side": Wording(
        "Build the starboard side on top of the port side, film between",
        "every longeron over its twin, from nose to tail",
        then=_END_GRAIN,
    ),
    "frame.part sides": Wording(
        "Free both sides from the board and from each other",
        "the joints are hard: an edge of film that pulls out clean",
        then=f"{_LIFT}; slide a card along under it; look at the reverse of every joint: a starved one gets its glue now",
    ),
    "frame.seats": Wording(
        "Fix the wing seats",
        "both seats at one height over the board, both at one angle",
        "a former that does not go in would push the seats apart afterwards",
    ),
    "frame.seats.standing": Wording(
        "Fix the wing seats",
        "both seats at one height over the board, both at one angle: the sides stand by now, read them first",
        "the wing's angle stands on them from here on",
    ),
    "frame.try in": Wording(
        "Try every former in between the sides, dry",
        "each former home without force; sand it now, not with glue on it",
        then="lay the sides face to face once more: the same stations, the same notches",
    ),
    "frame.soak": Wording(
        "Soak the {first} of the sides, clamp it over the dry formers, leave it overnight",
        "film between wet wood and formers; no water within a hand's breadth of a joint glued with a water-borne glue: it softens it",
        then="battens under the clamps; when they are off, look at the joints beside it and read how far it springs back",
    ),
    "frame.pull in": Wording("Pull the {first} in and glue {rest}", _SQUARE, then=_CORNERS),
    "frame.glue in": Wording("Glue {all} between the sides", _SQUARE, then=_CORNERS),
    "frame.side down": Wording(
        "Pin one side flat on the board, its inside up",
        "film under it; stations in line with the board's, square across",
    ),
    "frame.formers upright": Wording(
        "Glue {all} upright on the side that lies flat",
        "each stands square to it, held by blocks, on its station's line; centre marks in line over the whole length",
    ),
    "frame.second side": Wording(
        "Glue the second side on {all}",
        "station over station, plumb over the first side at nose and tail; weights, nothing pushed aside",
    ),
    "frame.keel down": Wording(
        "Pin the {first} flat over the drawing",
        "film under it; pins beside the wood, its stations on the drawing's",
    ),
    "frame.first half": Wording(
        "Glue the halves of {all} upright over the drawing, cut face down",
        "square to the board, and in line with the keel's slots",
    ),
    "frame.first strips": Wording(
        "Glue {all} of this half",
        "let it cure on the board: what is lifted early curls",
    ),
    "frame.other half": Wording(
        "Lift it; glue the other halves of {all} back to back with the first",
        "edge to edge all round: each pair makes one former",
    ),
    "frame.other strips": Wording(
        "Glue {all} of the other half",
        "sight along the keel after every pair of strips: half a shell is easily bent, a closed one no more",
    ),
    "frame.crutch": Wording(
        "Pin the crutch flat on the board and glue its cross-pieces",
        "both diagonals of the crutch alike, its centre line on the board's",
    ),
    "frame.lower formers": Wording(
        "Square the lower formers on the crutch and glue them", _SQUARE_ON_CRUTCH
    ),
    "frame.lower sides": Wording(
        "Slot the lower sides to the crutch and glue them", _SQUARE_ON_CRUTCH
    ),
    "frame.upper formers": Wording("Turn it over; glue the upper formers", _SQUARE_ON_CRUTCH),
    "frame.upper sides": Wording("Glue the upper sides", _SQUARE_ON_CRUTCH),
    "frame.thread": Wording(
        "Wax the wires and thread the formers on them", "waxed? an unwaxed wire stays for ever"
    ),
    "frame.wires out": Wording(
        "Pull {all} out",
        "the strips hold every former; turn the wire first, then draw it straight",
        "once the last joint is made there is no way out for it",
    ),
    "frame.rods out": Wording(
        "Draw {all} out sideways, where it held the sides in line only",
        "the joints beside it are through; turn it first, then draw it straight",
    ),
    "frame.formers up": Wording(
        "Stand {all} on their spacers and pin them",
        "read both diagonals and the corner heights; move what is off before any glue",
    ),
    "frame.formers tacked": Wording(
        "Tack {all} to their sacrificial blocks",
        "read both diagonals and the corner heights before each drop: it can't be moved after",
    ),
    "frame.stringers": Wording(
        "Glue {all}, port and starboard by turns",
        "one to port, one to starboard: one side alone pulls the frame into a bow",
    ),
    "frame.others": Wording(
        "Glue {all} in",
        "home in its notches, straight and level",
    ),
    "frame.canopy": Wording(
        "Fit {all} over the deck",
        "its edges land on formers; front and rear lie without force before a hole is drilled",
        then="no vapour of cyanoacrylate near it: it clouds",
    ),
    "frame.keel in": Wording(
        "Let the {all} into the formers and glue",
        "home in every slot, straight from nose to tail: sight along it",
    ),
    "frame.close tail": Wording(
        "Close the tail: glue the halves of {all} in the jig",
        "both halves meet on the centre line",
    ),
    "frame.sides": Wording(
        "Sheet the sides, port and starboard by turns",
        "diagonals and heights read once more: the sides make it stiff as it then is",
    ),
    "frame.bearers": Wording(
        "Feed {all} through the formers and glue",
        "level across, and along the thrust line that is drawn",
    ),
    "frame.gussets": Wording(
        "Glue {all} into the corners",
        "the bay's diagonals once more: a gusset holds it as it then stands; each tried dry, its corner clean",
        then="hard glue in a corner: chamfer the gusset's corner, do not force it",
    ),
    "frame.plates": Wording("Glue {all}", "level across, at one height on both sides"),
    "frame.hatch": Wording("Glue {all}; tack its twin to the hatch"),
    "frame.decks": Wording(
        "Glue the decks of {all} onto the box",
        "their crowns in line from nose to tail; a batten over them shows a dip",
    ),
    "frame.nose": Wording(
        "Glue the {all} to the firewall layer by layer, and carve it to its lines",
        "a ring's hole clears what must come out; the front square to the thrust line",
    ),
    "frame.guides": Wording(
        "Thread {all} through the formers and tack them at each",
        "the wire runs in it by its own weight; no bend is tighter than in the bay before, no stringer in its way at the exit",
        "no hand reaches its middle once the bays are closed",
        "leave both ends long; file the exits' slots until the guide lies in them without force",
    ),
    "frame.bracket": Wording(
        "Fit {all} at the post",
        "room to turn, screws that a driver reaches, in line with the keel",
        then="wood in front of it takes the blow of a landing: grain along, both faces wetted with glue",
    ),
    "frame.leads": Wording(
        "Draw leads, or a thread for each, through to every servo, the speed controller and the receiver",
        "plugs pass every hole; nothing rubs on an edge; a thread is tied at both ends",
        then="tape the ends outside, so that none slips back in",
    ),
    "frame.access": Wording(
        "Try pack, servos, tank and a hand through every hatch",
        "the pack goes in as it will at the field, flat, on edge or nose first, and slides to its foremost place; "
        "straps thread through their slots; a finger reaches every screw, a driver every nut",
    ),
    "frame.access.hidden": Wording(
        "Try pack, servos, tank and a hand through every hatch, before it is closed",
        "pull at {all} now: where no hatch lies over it no hand comes again; the pack goes in as it will at the field, flat, on "
        "edge or nose first, and slides to its foremost place; straps thread through their slots; a finger reaches every "
        "screw, a driver every nut",
    ),
    "frame.lift": Wording(
        "Free the frame from the board and look at it from behind",
        "cured, not only firm",
        then=f"{_LIFT}; a card under the frame from one end; the reverse of every joint: a starved one gets its glue now",
    ),
    "frame.fair": Wording(
        "Fair the frame: a long block over formers and longerons until nothing stands proud",
        "lumps of glue cut off first, a block over three stations at the least; a batten shows dips: fill, do not sand down to them",
    ),
    "frame.panels": Wording(
        "Make the panels: edges trued, joined with the grain as drawn, tried dry one after another",
        "each lies on the frame by hand pressure alone and does not pull the sides; wet it outside where it curves, and let it dry round a tube or on the frame under battens",
        then="number them; bevel the edges that meet on the centre line",
    ),
    "frame.read": Wording(
        "Read the whole frame again, cured: heights, diagonals, centre marks",
        "the tail is home and stays home when the clamps are off",
    ),
    "frame.planks": Wording(
        "Lay planks {all} from the keel up, port and starboard turn about",
        "the edge of the last ones lies fair over every former, cleaned of glue",
        "planks close the bays, and hold the frame as it then is",
    ),
    "frame.top sheet": Wording(
        "Sheet the top, panel by panel",
        "the frame is read and true; the rear deck is pulled to the post first, then forward from it; battens under the clamps",
        "it closes the bays, and makes the tail rigid as it then is",
        "wipe inside while a finger still reaches; trim when it is cured",
    ),
    "frame.bottom sheet": Wording(
        "Sheet the bottom, panel by panel",
        "the frame on its board again, sighted from the nose: no twist can be taken out afterwards",
        "no twist can be taken out of a closed box",
        "trim when it is cured, with a block along the side",
    ),
    **{f"tail.{key}": words for key, words in KIND_STEPS.items()},
    "tail.bevel": Wording(
        "Taper the {first}'s edge and bevel its hinge face",
        "the throw that is wanted, up and down, with the gap closed",
    ),
    "tail.pivot": Wording(
        "Fit the {first}'s pivot and horn, both halves at one setting",
        "both halves turn as one without play, and it stays where it is put: lead ahead of the pivot where it drops",
    ),
    "tail.pivot.upright": Wording(
        "Fit the {first}'s pivot and horn",
        "it turns without play, and stays where it is put",
    ),
    "tail.hinges": Wording(
        "Slot for the {first}'s hinges and try them dry",
        "it swings freely by its own weight, all hinges on one line",
    ),
    "tail.bare": Wording(
        "Mark the strip of the {first} that stays bare, on both faces",
        "half the seat to either side of the middle",
    ),
    "tail.props": Wording(
        "Set the props for the {first}: under each half, under nose and tail of the fuselage",
        "heights by their stop blocks; the whole run made once dry, with every prop and weight; weights inboard on the seat, never at the tips",
    ),
    "tail.cover.before": Wording(
        "Cover the {first}",
        "its bare strip as a template under the film's edge: film stops there. Cut film on a strip of film or card, never on the wood: a scored skin breaks there",
        then="slots of hinges opened with the iron's tip, allowance left at the root to lap the fillet; weigh it, and put its weight in the ledger",
    ),
    "tail.cover.after": Wording(
        "Cover the {first} as it stands on the model",
        "fillets first, then outward from the root; film cut beside the wood, never on it",
        then="slots of hinges opened with the iron's tip; the covering's weight into the balance",
    ),
    **{
        f"tail.seat.{way}": Wording(
            f"Glue the {{first}} {how}",
            "it reads level with the wing and square to the keel line, on True",
            "its incidence and squareness can't be changed afterwards",
            _OOZE,
        )
        for way, how in {
            "saddle": "to its seat",
            "slot": "through its slot",
            "fin": "on top of the fin",
            "fin.bare half": "on top of the fin, bare half first",
            "saddle.bare half": "to its seat, bare half first",
            "slot.bare half": "through its slot, bare half first",
        }.items()
    },
    "tail.seat.upright": Wording(
        "Glue the {first} on, square to the stabilizer",
        "square to the stabilizer and in line with the keel line, on True",
        "it can't be moved afterwards",
        _OOZE,
    ),
    "tail.hinge all": Wording(
        "Glue the hinges and set the horns",
        "the joint is bare wood, the hinge line is clean; film opened over every slot",
        "a hinge that is glued comes out only with its slot",
    ),
    "tail.throws": Wording(
        "Set the throws and look that nothing touches",
        "full elevator both ways with full rudder both ways",
    ),
    "true.level": Wording("Level the fuselage on its datum, along and across"),
    "true.set": Wording(
        "Set the {first} dry: read it, correct its seat, read again",
        "the checks of this part are true, or known and accepted",
    ),
    **{
        f"own.repair.{what}": Wording(*words)
        for what, words in {
            "cracked": (
                "Mend the cracked stick {all}",
                "spring the crack open, thin glue into it, closed and straight over a caul",
                "",
                "a splint beside it, tapered at both ends, twelve times as long as the stick is thick",
            ),
            "stripped": (
                "Mend the stripped hole {all}",
                "the loose threads cut out",
                "",
                "plug it with hardwood glued in, grain across the screw; drill anew, harden with thin cyanoacrylate",
            ),
            "starved": (
                "Feed the starved joint {all}",
                "look at the reverse; the joint still stands as it should",
                "",
                "thin glue drawn in along the grain, then a bead; both end grains coated twice",
            ),
            "crushed": (
                "Raise the dent {all}",
                "no break in the grain: water and a warm iron over a cloth swell it out",
                "",
                "no water beside a joint of water-borne glue; fill only what does not rise",
            ),
            "ooze": (
                "Cut the hardened glue off {all}",
                "a sharp chisel along the wood, never levering",
                "",
                "chamfer the corner stock where it can't be reached",
            ),
        }.items()
    },
}
_INSTEAD: Final = {  # what stands in for a second hand, by `orders.craft`'s word
    "faces": "both sides face to face in one press: weights on a board over all of it",
    "nose block": "a block cut to the nose's width, a clamp over both sides on it",
    "blocks": "square blocks clamped beside every second former, before any glue",
    "battens": "a batten along each side under the clamps: four clamps hold the length",
    "tapes": "strips of tape every few centimetres, drawn from the middle outward",
    "clips": "spring clips over pairs of formers, every third one first",
    "rod": "one rod through both halves' tubes, on two blocks of one height",
    "props": "stop blocks as props, cut to the heights of its sheet",
    "cheeks": "a square block clamped to each side of its foot, film between",
    "cradle": "a cradle under the wing and one under the tail, padded",
}
WHY: Final = {
    "bare half": "with both elevators hinged it does not pass its slot",
    "slot opened": "its slot must be opened to the rear first: it does not pass as it is",
    "glued already": "the fin is set square to a stabilizer that is glued already",
}


class Worded(Protocol):
    """What has words of its own, or a key and ids: a step, a timer, a step that was done."""

    @property
    def title(self) -> str:
        """The builder's own words."""

    @property
    def key(self) -> str:
        """Which of ours."""

    @property
    def about(self) -> tuple[str, ...]:
        """Ids that they name."""


@dataclass(frozen=True, slots=True)
class _Ids:
    """Ids as they are spoken, for a template."""

    about: tuple[str, ...]

    def filled(self, template: str) -> str:
        spoken = tuple(_spoken(one) for one in self.about)
        return template.format(
            all=named(spoken), first=spoken[0] if spoken else "", rest=named(spoken[1:])
        )


def named(words: tuple[str, ...]) -> str:
    """``F1, F2 and F3``."""
    if len(words) < 2:  # noqa: PLR2004  one needs no list
        return "".join(words)
    return f"{', '.join(words[:-1])} and {words[-1]}"


def _spoken(one: str) -> str:
    """``longeron_upper`` is the upper longeron, ``tail_post`` the tail post, ``stab`` the stabilizer."""
    kind, _, which = one.partition("_")
    return f"{which} longeron" if kind == "longeron" else surface_name(one)


def words_of(key: str) -> Wording | None:
    """The words of a key; of one that goes on later with what was done those of the first, where it has none itself."""
    return STEPS.get(key) or STEPS.get(key.removesuffix(LATE))


def title_of(one: Worded) -> str:
    """What a step or a timer is called; empty where nothing is said."""
    words = words_of(one.key)
    return one.title or (_Ids(one.about).filled(words.title).strip() if words is not None else "")


def step_title(step: Step) -> str:
    """What a step is called, its id where nothing is said."""
    return title_of(step) or step.id


def hold_of(step: Step) -> str:
    """What must be seen or read before it; empty for nothing."""
    words = words_of(step.key)
    return step.hold or (_Ids(step.about).filled(words.hold) if words is not None else "")


def because_of(step: Step) -> str:
    """Why it can't be undone, or why it comes where it does; empty where nothing is said."""
    words = words_of(step.key)
    return step.because or WHY.get(step.why, "") or (words.because if words is not None else "")


def then_of(step: Step) -> str:
    """What is done while its glue is wet, or right after it; empty where nothing is said."""
    words = words_of(step.key)
    return words.then if words is not None else ""


def instead_of(jig: str) -> str:
    """What stands in for a second hand; empty where two hands do."""
    return _INSTEAD.get(jig, "")


def why_not(step: Step, waits: tuple[Step, ...]) -> str:
    """Why a step can't be begun: what comes first, or what it waits for."""
    return reasons(waits) if waits else awaited(step)


def awaited(step: Step) -> str:
    """``waits for the hinges, until 12 December``; empty where it waits for nothing."""
    if step.wait_until is None:
        return ""
    day = date.fromisoformat(step.wait_until)
    until = f"until {day.day} {day:%B}"
    return f"waits for {step.wait_for}, {until}" if step.wait_for else f"waits {until}"


def reasons(waits: tuple[Step, ...]) -> str:
    """Why a step can't be done yet."""
    title, why = step_title(waits[0]), because_of(waits[0])
    more = f", and {len(waits) - 1} more" if len(waits) > 1 else ""
    because = f" ({why})" if why else ""
    return f"first {title[:1].lower()}{title[1:]}{because}{more}"


def out_of_order(step: Step, waits: tuple[Step, ...]) -> str:
    """Why a step can't be moved or done yet, as a sentence."""
    return f"{step_title(step)}: {why_not(step, waits)}"
