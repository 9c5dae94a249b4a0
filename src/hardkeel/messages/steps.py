"""What a step is called, what to look at before it and why it can't be undone: by its key, when it is shown."""

from dataclasses import dataclass
from typing import Final, Protocol

from hardkeel.messages.names import surface_name
from hardkeel.messages.tail_kinds import KIND_STEPS
from hardkeel.messages.wording import Wording
from hardkeel.schedule.model import Step

_SQUARE_ON_CRUTCH: Final = "square on the crutch, fore and aft and across"
_SQUARE: Final = (
    "square each former at its top and at its foot; both diagonals of every bay; then glue"
)

# {all}: what the step is about, as a list; {first} and {rest} of it
STEPS: Final[dict[str, Wording]] = {
    "frame.cut": Wording(
        "Cut and clean formers, sides and plates; mark centre lines on both faces"
    ),
    "frame.drill": Wording(
        "Drill and cut the holes for {all} while the parts are flat",
        because="once the sides stand no drill comes square through both of them",
    ),
    "frame.board": Wording(
        "Level the board both ways, draw centre line and stations",
        "level across at both ends, then along: no bubble off",
    ),
    "frame.doublers": Wording(
        "Glue {all} to both sides under weights",
        "both doublers on the inside? Lay the sides face to face: one port, one starboard",
        "two port sides are two sides to cut again",
    ),
    "frame.strips": Wording(
        "Glue {all} along both sides",
        "on the inside, clear of the formers' slots: one port, one starboard",
    ),
    "frame.port side": Wording(
        "Pin the longerons down and glue the sticks of the port side",
        "pins beside the wood, film under it",
    ),
    "frame.starboard side": Wording(
        "Build the starboard side on top of the port side, film between",
        "every longeron over its twin, from nose to tail",
    ),
    "frame.seats": Wording(
        "Fix the wing seats",
        "both seats at one height over the board, both at one angle",
        "a former that does not go in would push the seats apart afterwards",
    ),
    "frame.try in": Wording(
        "Try every former in between the sides, dry",
        "each former home without force; sand it now, not with glue on it",
    ),
    "frame.soak": Wording(
        "Soak the {first} of the sides, clamp it over the dry formers, leave it overnight",
        "film between wet wood and formers; when the clamps are off read how far it springs back",
    ),
    "frame.pull in": Wording("Pull the {first} in and glue {rest}", _SQUARE),
    "frame.glue in": Wording("Glue {all} between the sides", _SQUARE),
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
        "the bay's diagonals once more: a gusset holds it as it then stands",
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
    "frame.access": Wording(
        "Try pack, servos, tank and a hand through every hatch",
        "the pack slides to its foremost place; a finger reaches every screw",
    ),
    "frame.read": Wording(
        "Read the whole frame again, cured: heights, diagonals, centre marks",
        "the tail is home and stays home when the clamps are off",
    ),
    "frame.planks": Wording(
        "Lay planks {all} from the keel up, port and starboard turn about",
        "the edge of the last ones lies fair over every former",
        because="planks close the bays, and hold the frame as it then is",
    ),
    "frame.top sheet": Wording(
        "Sheet the top, panel by panel from the nose",
        because="it closes the bays, and makes the tail rigid as it then is",
    ),
    "frame.bottom sheet": Wording(
        "Sheet the bottom, panel by panel from the nose",
        because="no twist can be taken out of a closed box",
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
    "tail.hinges": Wording(
        "Slot for the {first}'s hinges and try them dry",
        "it swings freely by its own weight, all hinges on one line",
    ),
    "tail.bare": Wording(
        "Mark the strip of the {first} that stays bare, on both faces",
        "half the seat to either side of the middle",
    ),
    **{
        f"tail.seat.{way}": Wording(
            f"Glue the {{first}} {how}",
            "it reads level with the wing and square to the keel line, on True",
            "its incidence and squareness can't be changed afterwards",
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
    ),
    "tail.hinge all": Wording(
        "Cover, then glue the hinges and set the horns",
        "the joint is bare wood, the hinge line is clean",
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


def title_of(one: Worded) -> str:
    """What a step or a timer is called; empty where nothing is said."""
    words = STEPS.get(one.key)
    return one.title or (_Ids(one.about).filled(words.title) if words is not None else "")


def step_title(step: Step) -> str:
    """What a step is called, its id where nothing is said."""
    return title_of(step) or step.id


def hold_of(step: Step) -> str:
    """What must be seen or read before it; empty for nothing."""
    words = STEPS.get(step.key)
    return step.hold or (words.hold if words is not None else "")


def because_of(step: Step) -> str:
    """Why it can't be undone, or why it comes where it does; empty where nothing is said."""
    words = STEPS.get(step.key)
    return step.because or WHY.get(step.why, "") or (words.because if words is not None else "")


def reasons(waits: tuple[Step, ...]) -> str:
    """Why a step can't be done yet."""
    title, why = step_title(waits[0]), because_of(waits[0])
    more = f", and {len(waits) - 1} more" if len(waits) > 1 else ""
    because = f" ({why})" if why else ""
    return f"first {title[:1].lower()}{title[1:]}{because}{more}"


def out_of_order(step: Step, waits: tuple[Step, ...]) -> str:
    """Why a step can't be moved or done yet, as a sentence."""
    return f"{step_title(step)}: {reasons(waits)}"
