"""What stands on the page of True: headings, buttons, and what is said when something was tried."""

from typing import Final

# cards
NEXT_READING: Final = "Next reading"
TRUE: Final = "True?"
NOTHING_TO_CHECK_YET: Final = "Nothing to check yet."
SEAT: Final = "Seat"
DONE_MEASURE_AGAIN: Final = "Done: measure again"

# exaggeration
TIMES_SHOWN: Final = "How many times the error is shown"

# gauge dock
ANOTHER_ADDRESS: Final = "Another address, as /dev/ttyUSB0 or socket://host:port"
ADDRESS_TIP: Final = "As /dev/ttyUSB0 or socket://host:port; Enter plugs in there"
ZERO_TIP: Final = "Hold it on the datum first; until then all it shows is off"
GAUGES_PLUG_IN: Final = "Gauges, plug in:"

# hands
SIMULATED: Final = "Simulated: no gauge was held on your model."
GAUGE_OFF: Final = "off"
NOT_ZEROED: Final = "This gauge is not zeroed: hold it on the datum and press zero."
TAKE_OFF: Final = f"{NOT_ZEROED} Once more takes it as it is."
STILL_MOVES: Final = "It still moves: hold it at rest."
SAME_AGAIN: Final = "It has not moved since the last reading. Once more takes the same again."
ENTER_OR_BACK: Final = "Enter takes it, Escape goes back."
TAKE_AGAIN: Final = "Take again"
WORTH_TAKING: Final = "Worth taking"

# readings panel
READINGS: Final = "Readings"
USE_OR_NOT: Final = "Use or do not use this reading"
STRIKE_OUT: Final = "Strike this reading out"

# showing
READING: Final = "Reading"
VALUE: Final = "Value"
OFF: Final = "Off"
PICK_A_PART: Final = "Pick the part where the gauge hangs, or type: wing port 0.5"
FIRST_READING: Final = "First reading"
NEXT: Final = "Next"
START_HERE: Final = "Start here"
ESCAPE_PUTS_DOWN: Final = "Escape puts the tool down."
PICK_THE_FIRST_MARK: Final = "Pick the first mark"
PICK_THE_SECOND_MARK: Final = "Pick the second mark"
DESCRIBE_THE_MODEL: Final = "Describe the model"
GO_ON: Final = "go on"
ENTER_OR_PUT_DOWN: Final = "Enter takes it, Escape puts the tool down."
PICK_THE_PIN: Final = "Pick the pin"
PICK_THE_FIRST_CORNER: Final = "Pick the first corner"
PICK_THE_OTHER_CORNER: Final = "Pick the corner to compare"
PICK_THE_FIRST_END: Final = "Pick the first end"
PICK_THE_CORNER: Final = "Pick the corner"
PICK_THE_OTHER_END: Final = "Pick the other end"


def tool_tip(name: object, i: object) -> str:
    """``Take a reading with the … (Alt+…)``."""
    return f"Take a reading with the {name} (Alt+{i})"


def plug_tip(name: object) -> str:
    """``Plug the … gauge in or out``."""
    return f"Plug the {name} gauge in or out"


def done_tip(body: object) -> str:
    """``Notes it in the log and sets aside the readings on the ….``."""
    return f"Notes it in the log and sets aside the readings on the {body}."


def your_reading(tool: object) -> str:
    """``Your reading · …``."""
    return f"Your reading · {tool}"


def where_is_it_held(tool: object) -> str:
    """``Where is the … held?``."""
    return f"Where is the {tool} held?"


def not_zeroed(why: str) -> str:
    """A gauge that would not be zeroed, and what it said."""
    return f"not zeroed: {why}"


def other_unit(shown: str, wanted: str) -> str:
    """``shows mm, set it to °``."""
    spelled = {"deg": "°", "mm": "mm"}
    return f"shows {spelled.get(shown, shown)}, set it to {spelled.get(wanted, wanted)}"


DOES_NOT_FIT: Final = "does not fit the rest: take it again"
MAY_BE_WRONG: Final = "may be the wrong one: take it again"
SIMULATED_APART: Final = "simulated: not mixed with what was read"
KEPT_NOT_USED: Final = "kept, not used"
NOTHING_CHECKS: Final = "nothing checks this reading"
WORTH_TAKING_NOTE: Final = "worth taking"


def unnoticed(amount: str) -> str:
    """How large an error of a reading nobody would notice."""
    return f"an error under {amount} would go unnoticed"


def too_little_since(phase: object) -> str:
    """Nothing to compare a phase with."""
    return f"too little read to compare with {phase}"


def nothing_moved_since(phase: object) -> str:
    """No part has moved since a phase, as far as is known."""
    return f"no movement beyond doubt since {phase}"


def moved_since(phase: object, what: str) -> str:
    """What moved most since a phase."""
    return f"since {phase}: {what}"


# -- steps as undo names them -----------------------------------------------------------------------


def phase_edit(what: str) -> str:
    """``go to …``."""
    return f"go to {what}"


def strike_out_edit(shown: str) -> str:
    """``strike out …``."""
    return f"strike out {shown}"


def change_edit(reading_id: str) -> str:
    """``change …``."""
    return f"change {reading_id}"


def allow_another_edit(check: str) -> str:
    """``allow another …``."""
    return f"allow another {check}"


def correct_edit(name: str) -> str:
    """``correct the …``."""
    return f"correct the {name}"


def use_edit(reading: str, *, used: bool) -> str:
    """``use r12``, ``do not use r12``."""
    return f"use {reading}" if used else f"do not use {reading}"
