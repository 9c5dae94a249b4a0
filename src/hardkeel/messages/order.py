"""What the order of work says."""

from typing import Final

from hardkeel.airframe.orders.craft import Repair, cautions_of, is_wiped, jig_of, tools_of
from hardkeel.base.units import decimal
from hardkeel.messages.counting import number_of
from hardkeel.messages.frame import STEAM_CAUTION
from hardkeel.messages.names import sentence_case
from hardkeel.messages.safety import CARBON_CAUTION, PACK_CAUTION
from hardkeel.messages.steps import (
    awaited,
    because_of,
    hold_of,
    instead_of,
    step_title,
    then_of,
)
from hardkeel.schedule.model import Step

ORDER: Final = "Order"
NOW: Final = "Now"
IN_HAND: Final = "In hand"
NEXT: Final = "Next"
NOT_YET: Final = "Not yet, because"
NOT_YET_SHORT: Final = "Not yet"
AS_A_LIST: Final = "As a list"
AS_IT_HANGS: Final = "What hangs on what"
DONE: Final = "Done (Enter)"
PLAN_IT: Final = "Lay out the order"
PLAN_WHY: Final = "Made from the members as they are drawn: what after what, what to look at first, what can't be undone."
AGAIN: Final = "Make it anew"
ALL_DONE: Final = "Every step is done."
ADD_A_STEP: Final = "Add a step"
NAME_OF_THE_STEP: Final = "what is to be done"
CUT_IT: Final = "Cut it"
UP: Final = "Up"
DOWN: Final = "Down"
OPEN_AGAIN: Final = "Open again"
NO_RETURN: Final = "can't be undone"
ANYWAY: Final = "Tick it again to do it all the same."
HEADS: Final = ("", "step", "hands", "glue", "firm after", "needs")
STATES: Final = {"open": "", "doing": "doing", "done": "done"}
LAY_IT: Final = "lay out the order of work"
HAZARD_WORDS: Final = {
    "blade": "Blade away from the other hand.",
    "dust": "Mask and extraction for the dust.",
    "drill": "Hold the part down; eyes away from the chips.",
    "epoxy": "Epoxy sensitises the skin: gloves and air, and the maker's sheet.",
    "steam": STEAM_CAUTION,
    "pins": "Count the pins in the tray and under the feet.",
    "foam": "Hot wire and cut foam give off fumes: moving air, and the maker's sheet.",
    "iron": "The iron burns skin and film: rest it on its stand.",
    "cyanoacrylate": "Cyanoacrylate: eyes, skin and fumes; the maker's sheet goes before.",
    "carbon": CARBON_CAUTION,
    "saw": "The saw's blade: guard on, push stick, nobody beside it; by its maker's sheet.",
    "laser": "The cutter's laser: never into eyes, lid shut, its smoke led out, never left alone while it burns.",
    "solvent": "Solvent: window open, no flame, gloves; by the maker's sheet.",
    "polyurethane": "Polyurethane: gloves and air; it foams, and sticks to skin.",
    "lithium": PACK_CAUTION,
}
_WIPED_WITH: Final = {
    "aliphatic": "a damp cloth, never a wet one",
    "pva": "a damp cloth, never a wet one",
    "epoxy": "alcohol on a cloth",
    "polyurethane": "nothing while it is wet: pare it off when it is like rubber",
    "cyanoacrylate": "nothing: it smears; a sharp blade when it is hard",
    "contact": "the cleaner of its maker",
}


_GLUES: Final = {
    "aliphatic": "Aliphatic: it leaves time to square the joint, and sands like the wood.",
    "slow epoxy": "Slow epoxy: it fills, holds ply to ply, and leaves time to set it level.",
    "thin cyanoacrylate": "Thin cyanoacrylate: only where the joint is tight and stands as it should.",
}

SCHOOL: Final = "School of gluing…"
_SCHOOLS: Final = {
    "tack and bead": "Tack and bead: thin cyanoacrylate, then a bead",
    "aliphatic": "Aliphatic for frame and formers",
    "slow epoxy": "Slow epoxy for doublers and formers",
    "contact": "Contact for wide faces",
}
WHEN_COVERED: Final = "when the tail is covered"
COVERING: Final = {
    "after": "Cover it once it stands on the model",
    "before": "Cover each surface first, its seat left bare",
}
COVERING_EDIT: Final = "when the tail is covered"
COVERING_ASKS: Final = {
    "after": "Covered on the model: every joint is bare wood, the film is cut beside the wood at the root and laps the "
    "fillet; the iron reaches into the corner badly.",
    "before": "Covered first: film stops at the bare strip, which is its own template; it is cut on card, never on the "
    "wood. The joint holds on the strip alone, and glue that oozes must be wiped off film.",
}
CHANGE_IT: Final = "Change it"
NO_GLUE: Final = "no glue"
HANDS: Final = "hands"
GLUE: Final = "glue"
LOOK_FOR: Final = "look for, before it"
NOTE: Final = "note"
NEEDS: Final = "needs, with commas between"
TOOLS: Final = "tools, with commas between"
CAUTIONS: Final = "cautions beside those of its tools and glue, with commas between"
WAITS_FOR: Final = "waits for"
WAITS_UNTIL: Final = "until"
A_DATE: Final = "a date, such as 2026-12-20"
REPAIR: Final = "A repair…"
REPAIR_WORDS: Final[dict[Repair, str]] = {
    "cracked": "Mend a cracked stick",
    "stripped": "Mend a stripped hole",
    "starved": "Feed a starved joint",
    "crushed": "Raise a dent",
    "ooze": "Cut off glue that hardened",
}
_FIGURES: Final = {
    "hands_minutes": "minutes", "glue": "glue", "handle_minutes": "firm after", "cure_minutes": "cure",
    "hold": "what to look for", "hazards": "cautions", "needs": "needs", "no_return": "no return",
    "needs_cure": "waits for the cure", "tools": "tools", "wait_until": "when it can begin",
    "wait_for": "what it waits for",
}  # fmt: skip
NOTHING_TO_LAY: Final = "Nothing is to do: the build has no fuselage of two stations and no tail that says how it is built."


def glue_words(step: Step) -> str:
    """Which glue, and why that one; empty for a glue of the builder's own."""
    return _GLUES.get(step.glue or "", "")


def minutes_words(minutes: float) -> str:
    """``25 min``, ``8 h``."""
    if not minutes:
        return ""
    return f"{minutes:.0f} min" if minutes < 120 else f"{minutes / 60:.0f} h"  # noqa: PLR2004  two hours


def times_words(step: Step) -> str:
    """``20 min; aliphatic, firm after 20 min``."""
    glue = step.glue or ""
    if step.handle_minutes:
        glue = f"{glue}, firm after {minutes_words(step.handle_minutes)}".lstrip(", ")
    return "; ".join(part for part in (minutes_words(step.hands_minutes), glue) if part)


def hazard_words(step: Step) -> str:
    """Cautions of a step."""
    return " ".join(HAZARD_WORDS.get(one, sentence_case(one) + ".") for one in cautions_of(step))


def then_words(step: Step) -> str:
    """What is done while its glue is wet, or right after it, and with what it is wiped; empty where nothing is said."""
    told = then_of(step)
    if not told:
        return ""
    words = f"{'While it is wet' if step.glue and is_wiped(step) else 'Then'}: {told}."
    wiped = next((how for name, how in _WIPED_WITH.items() if name in (step.glue or "")), "")
    return f"{words} Wipe with {wiped}." if wiped and is_wiped(step) else words


def tools_words(step: Step) -> str:
    """What to lay out for it, and what holds in place of a second hand."""
    tools, instead = tools_of(step), instead_of(jig_of(step))
    told = [f"Lay out: {', '.join(tools)}."] if tools else []
    if instead:
        told.append(f"Four hands, or {instead}.")
    return " ".join(told)


def hold_words(step: Step) -> str:
    """What must be seen before the glue, and what can't be undone."""
    told = (
        [f"Before the glue: {hold_of(step)}." if step.glue else f"Look: {hold_of(step)}."]
        if hold_of(step)
        else []
    )
    if step.no_return:
        told.append(f"This {NO_RETURN}: {because_of(step)}.")
    return "\n".join(told)


def ticked(step: Step) -> str:
    """The step's name for undo."""
    return f"tick {step_title(step)}"


def moved(step: Step) -> str:
    """The step's name for undo."""
    return f"move {step_title(step)}"


def cut_words(step: Step) -> str:
    """The step's name for undo."""
    return f"cut {step_title(step)}"


def opened(step: Step) -> str:
    """The step's name for undo."""
    return f"open {step_title(step)} again"


def so_far(done: int, of: int) -> str:
    """``3 of 14 done``."""
    return f"{done} of {of} done"


def line_words(now: Step, following: Step | None, waiting: str) -> tuple[str, str, str]:
    """Where the order of work stands, in three short pieces."""
    return (
        f"{NOW}: {step_title(now)}",
        f"{NEXT}: {step_title(following)}" if following is not None else "",
        f"{NOT_YET_SHORT}: {waiting}" if waiting else "",
    )


def wait_words(step: Step) -> str:
    """What it waits for, as a sentence; empty for nothing."""
    told = awaited(step)
    return f"{sentence_case(told)}." if told else ""


def note_words(step: Step) -> str:
    """What the builder wants to remember of it."""
    return f"Note: {step.note}" if step.note else ""


def changed(step: Step) -> str:
    """Undo's word for what was set of a step."""
    return f"change “{step_title(step)}”"


def by_hand_words(step: Step) -> str:
    """Which of its figures are the builder's own: ``glue, minutes``."""
    told = [
        _FIGURES[name]
        for name in (
            "glue",
            "hands_minutes",
            "hold",
            "needs",
            "tools",
            "hazards",
            "wait_until",
            "wait_for",
        )
        if name in step.by_hand
    ]
    return f"yours: {', '.join(told)}" if told else ""


def school_words(school: str) -> str:
    """A school in a line."""
    return _SCHOOLS[school]


def school_edit(school: str) -> str:
    """Undo's word for it."""
    return f"school of gluing: {school}"


def school_told(steps: int, glue: str, before: float, now: float) -> str:
    """``9 steps are glued with contact now: 0.012 g for each cm² of joint, 0.020 before.``."""
    told = f"{number_of(steps, 'step')} {'is' if steps == 1 else 'are'} glued with {glue} now"
    weighed = (
        f": {decimal(now, 3)} g for each cm² of joint, {decimal(before, 3)} before"
        if before
        else ""
    )
    return f"{told}{weighed}."


def school_evenings(before: int, now: int) -> str:
    """`` To the end 9 evenings, 8 before; Bench looks for a shorter plan.``."""
    if not before or not now:
        return ""
    was = "as before" if before == now else f"{before} before"
    return f" To the end {number_of(now, 'evening')} by a first plan, {was}; Bench looks for a shorter one."
