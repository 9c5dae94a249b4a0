"""Revision 3: a step is kept by its key, not by the English that it was once called.

What a builder called a step stays.  The sentences are those of that time, whatever is said today.
"""

import re
from typing import Final

from hardkeel.project.model import Build
from hardkeel.schedule.model import Step

# key, what it was called, what was to be looked at, why it could not be undone
SAID_THEN: Final = (
    (
        "frame.cut",
        "Cut and clean formers, sides and plates; mark centre lines on both faces",
        "",
        "",
    ),
    (
        "frame.drill",
        "Drill and cut the holes for {all} while the parts are flat",
        "",
        "once the sides stand no drill comes square through both of them",
    ),
    (
        "frame.board",
        "Level the board both ways, draw centre line and stations",
        "level across at both ends, then along: no bubble off",
        "",
    ),
    (
        "frame.doublers",
        "Glue {all} to both sides under weights",
        "both doublers on the inside? Lay the sides face to face: one port, one starboard",
        "two port sides are two sides to cut again",
    ),
    (
        "frame.strips",
        "Glue {all} along both sides",
        "on the inside, clear of the formers' slots: one port, one starboard",
        "",
    ),
    (
        "frame.port side",
        "Pin the longerons down and glue the sticks of the port side",
        "pins beside the wood, film under it",
        "",
    ),
    (
        "frame.starboard side",
        "Build the starboard side on top of the port side, film between",
        "every longeron over its twin, from nose to tail",
        "",
    ),
    (
        "frame.seats",
        "Fix the wing seats",
        "both seats at one height over the board, both at one angle",
        "a former that does not go in would push the seats apart afterwards",
    ),
    (
        "frame.try in",
        "Try every former in between the sides, dry",
        "each former home without force; sand it now, not with glue on it",
        "",
    ),
    (
        "frame.soak",
        "Soak the {first} of the sides, clamp it over the dry formers, leave it overnight",
        "film between wet wood and formers; when the clamps are off read how far it springs back",
        "",
    ),
    (
        "frame.pull in",
        "Pull the {first} in and glue {rest}",
        "square each former at its top and at its foot; both diagonals of every bay; then glue",
        "",
    ),
    (
        "frame.glue in",
        "Glue {all} between the sides",
        "square each former at its top and at its foot; both diagonals of every bay; then glue",
        "",
    ),
    (
        "frame.crutch",
        "Pin the crutch flat on the board and glue its cross-pieces",
        "both diagonals of the crutch alike, its centre line on the board's",
        "",
    ),
    (
        "frame.lower formers",
        "Square the lower formers on the crutch and glue them",
        "square on the crutch, fore and aft and across",
        "",
    ),
    (
        "frame.lower sides",
        "Slot the lower sides to the crutch and glue them",
        "square on the crutch, fore and aft and across",
        "",
    ),
    (
        "frame.upper formers",
        "Turn it over; glue the upper formers",
        "square on the crutch, fore and aft and across",
        "",
    ),
    (
        "frame.upper sides",
        "Glue the upper sides",
        "square on the crutch, fore and aft and across",
        "",
    ),
    (
        "frame.thread",
        "Wax the wires and thread the formers on them",
        "waxed? an unwaxed wire stays for ever",
        "",
    ),
    (
        "frame.formers up",
        "Stand {all} on their spacers and pin them",
        "read both diagonals and the corner heights; move what is off before any glue",
        "",
    ),
    (
        "frame.stringers",
        "Glue {all}, port and starboard by turns",
        "one to port, one to starboard: one side alone pulls the frame into a bow",
        "",
    ),
    (
        "frame.close tail",
        "Close the tail: glue the halves of {all} in the jig",
        "both halves meet on the centre line",
        "",
    ),
    (
        "frame.sides",
        "Sheet the sides, port and starboard by turns",
        "diagonals and heights read once more: the sides make it stiff as it then is",
        "",
    ),
    (
        "frame.bearers",
        "Feed {all} through the formers and glue",
        "level across, and along the thrust line that is drawn",
        "",
    ),
    (
        "frame.gussets",
        "Glue {all} into the corners",
        "the bay's diagonals once more: a gusset holds it as it then stands",
        "",
    ),
    ("frame.plates", "Glue {all}", "level across, at one height on both sides", ""),
    ("frame.hatch", "Glue {all}; tack its twin to the hatch", "", ""),
    (
        "frame.access",
        "Try pack, servos, tank and a hand through every hatch",
        "the pack slides to its foremost place; a finger reaches every screw",
        "",
    ),
    (
        "frame.read",
        "Read the whole frame again, cured: heights, diagonals, centre marks",
        "the tail is home and stays home when the clamps are off",
        "",
    ),
    (
        "frame.top sheet",
        "Sheet the top, panel by panel from the nose",
        "",
        "it closes the bays, and makes the tail rigid as it then is",
    ),
    (
        "frame.bottom sheet",
        "Sheet the bottom, panel by panel from the nose",
        "",
        "no twist can be taken out of a closed box",
    ),
    ("tail.stick.cut", "Cut the sticks of the {first}, both halves at one setting", "", ""),
    (
        "tail.stick.pin",
        "Pin the {first} over its drawing, dry; pins beside the wood",
        "look along it: flex it true before any glue",
        "",
    ),
    (
        "tail.stick.glue",
        "Glue the {first}'s joints, one side of the drawing after the other",
        "read the corners while it is dry",
        "",
    ),
    (
        "tail.stick.flat",
        "Read the {first}'s corners, flex what is twisted, dry it flat under weight",
        "",
        "once it is dry it keeps the twist that it has",
    ),
    ("tail.ribbed.cut", "Cut the ribs of the {first}", "", ""),
    (
        "tail.ribbed.slots",
        "Slot the {first}'s edges and try every rib in",
        "a rib slides in by its own weight: dampen it where it is loose, pinch it where it is tight",
        "",
    ),
    ("tail.ribbed.feet", "Stand the {first}'s ribs on their feet, chord lines level", "", ""),
    (
        "tail.ribbed.glue",
        "Glue the {first}'s edges and spars to its ribs",
        "the spar touches the floor of every notch",
        "",
    ),
    ("tail.ribbed.flat", "Read the {first}'s corners, flex what is twisted, let it dry", "", ""),
    (
        "tail.ribbed.skin",
        "Glue the {first}'s skins on",
        "hinge points, horn and tube seats are in place",
        "the skin closes the frame and keeps whatever twist it has then",
    ),
    ("tail.foam.cut", "Cut the {first}'s foam along its templates", "", ""),
    (
        "tail.foam.tubes",
        "Let the {first}'s tubes in, level with each other and square to the fin",
        "a rod through both holes reads level both ways round",
        "a tube that is glued askew turns both halves with it",
    ),
    (
        "tail.foam.skin",
        "Glue the {first}'s skins on, in its own cut-offs as a cradle",
        "only a glue that foam stands; the cradle lies flat",
        "the skin keeps whatever twist the cradle has",
    ),
    (
        "tail.foam.edges",
        "Glue the {first}'s edges and tip blocks on, sand them to the section",
        "",
        "",
    ),
    ("tail.foam.flat", "Read the {first}'s corners on the board", "", ""),
    (
        "tail.bevel",
        "Taper the {first}'s edge and bevel its hinge face",
        "the throw that is wanted, up and down, with the gap closed",
        "",
    ),
    (
        "tail.hinges",
        "Slot for the {first}'s hinges and try them dry",
        "it swings freely by its own weight, all hinges on one line",
        "",
    ),
    (
        "tail.bare",
        "Mark the strip of the {first} that stays bare, on both faces",
        "half the seat to either side of the middle",
        "",
    ),
    (
        "tail.seat.saddle",
        "Glue the {first} to its seat",
        "it reads level with the wing and square to the keel line, on True",
        "its incidence and squareness can't be changed afterwards",
    ),
    (
        "tail.seat.slot",
        "Glue the {first} through its slot",
        "it reads level with the wing and square to the keel line, on True",
        "its incidence and squareness can't be changed afterwards",
    ),
    (
        "tail.seat.saddle.bare half",
        "Glue the {first} to its seat, bare half first",
        "it reads level with the wing and square to the keel line, on True",
        "its incidence and squareness can't be changed afterwards",
    ),
    (
        "tail.seat.slot.bare half",
        "Glue the {first} through its slot, bare half first",
        "it reads level with the wing and square to the keel line, on True",
        "its incidence and squareness can't be changed afterwards",
    ),
    (
        "tail.seat.upright",
        "Glue the {first} on, square to the stabilizer",
        "square to the stabilizer and in line with the keel line, on True",
        "it can't be moved afterwards",
    ),
    (
        "tail.hinge all",
        "Cover, then glue the hinges and set the horns",
        "the joint is bare wood, the hinge line is clean",
        "a hinge that is glued comes out only with its slot",
    ),
    (
        "tail.throws",
        "Set the throws and look that nothing touches",
        "full elevator both ways with full rudder both ways",
        "",
    ),
    ("true.level", "Level the fuselage on its datum, along and across", "", ""),
    (
        "true.set",
        "Set the {first} dry: read it, correct its seat, read again",
        "the checks of this part are true, or known and accepted",
        "",
    ),
)
_WHY: Final = {
    "with both elevators hinged it does not pass its slot": "bare half",
    "its slot must be opened to the rear first: it does not pass as it is": "slot opened",
    "the fin is set square to a stabilizer that is glued already": "glued already",
}
_BODIES: Final = {"stabilizer": "stab"}
_LONGERON: Final = re.compile(r"(\S+) longeron")


def with_step_keys(build: Build) -> Build:
    """The build with its steps by their keys, as far as they are ours."""
    steps = tuple(_keyed(step) for step in build.steps)
    return build if steps == build.steps else build.but(steps=steps)


def _keyed(step: Step) -> Step:
    if step.key or not step.title:
        return step
    for key, title, hold, because in _LONGEST_FIRST:
        found = _matching(title).fullmatch(step.title) if key.startswith(f"{step.stage}.") else None
        if found is None:
            continue
        kept: dict[str, object] = {
            "key": key,
            "about": _about(found.groupdict()),
            "looks": bool(hold),
            "why": _WHY.get(step.because, ""),
        }
        left = {"title"}
        left |= {"hold"} if step.hold == hold else set()
        left |= {"because"} if step.because == because or step.because in _WHY else set()
        rest = {name: value for name, value in step if name not in left and name not in kept}
        return Step.model_validate(rest | (step.model_extra or {}) | kept)
    return step


_LONGEST_FIRST: Final = sorted(SAID_THEN, key=lambda row: -len(row[1]))


def _matching(title: str) -> "re.Pattern[str]":
    pattern = re.escape(title)
    for name in ("all", "first", "rest"):
        pattern = pattern.replace(re.escape(f"{{{name}}}"), f"(?P<{name}>.+?)")
    return re.compile(pattern)


def _about(spoken: dict[str, str]) -> tuple[str, ...]:
    names: list[str] = []
    for part in ("first", "all", "rest"):
        if spoken.get(part):
            names += re.split(r", | and ", spoken[part])
    return tuple(_id(one) for one in names)


def _id(spoken: str) -> str:
    longeron = _LONGERON.fullmatch(spoken)
    if longeron is not None:
        return f"longeron_{longeron[1]}"
    return _BODIES.get(spoken, spoken.replace(" ", "_") if spoken == "tail post" else spoken)
