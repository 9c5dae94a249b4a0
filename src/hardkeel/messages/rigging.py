"""The stages of rigging, and what kinds of seat there are."""

from collections.abc import Mapping
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages.locks import locked_when
from hardkeel.messages.names import body_name
from hardkeel.survey.model import FUSELAGE, RUDDER, SeatKind, Survey
from hardkeel.survey.rigging import RigStage

STAGES: Final = "Stages of rigging"
LOCK: Final = "glued: lock it"
UNLOCK: Final = "unlock"
LOCK_TIP: Final = "It is glued and moves no more: later advice leaves it as it stands"
UNLOCK_TIP: Final = "It may be moved again"
SEAT_IS: Final = "What its seat is decides what is told here"
# the words of a choice, in the order of how common they are
SEAT_KINDS: Final[tuple[tuple[SeatKind, str], ...]] = (
    ("saddle", "a saddle"),
    ("bands", "a saddle, under bands"),
    ("bolts", "a saddle, with bolts"),
    ("slot", "a slot through the fuselage"),
    ("tube", "a tube in holes"),
    ("struts", "struts"),
    ("cabane", "a cabane with washers"),
    ("firewall", "a firewall, packed from behind"),
)
PLACES: Final[Mapping[SeatKind, str]] = {
    "struts": "Where the struts meet",
    "bolts": "Where dowels and bolts are",
    "tube": "Where tube and pin are",
    "cabane": "Where the legs meet",
}
WHERE_IT_RESTS: Final = "Where it rests"
CORNERS_TIP: Final = "It does not rest at its corners: say where"
STRUT_FIGURES: Final = {
    "out": "out on the wing",
    "foot_out": "foot out",
    "front": "front, of the chord",
    "foot_z": "foot at height",
    "rear": "rear, of the chord",
    "end": "hole from the end",
}
LAID_FIGURES: Final = {
    "front": "front, of the chord",
    "rear": "rear, of the chord",
    "out": "beside the middle",
}
SHARES: Final = frozenset({"front", "rear"})
THEY_STAND_SO: Final = "They stand so"
CLICK_THEM: Final = "Click on the drawing"
CLICK_LAID: Final = "Click from above where it is held in front, and where behind."
CLICK_STRUTS: Final = "Click from above where the struts meet the wing, front and rear, and from behind where they stand."
_STATES: Final = {
    "moved": "moved",
    "locked": "glued",
    "true": "true",
    "edge": "limit",
    "out": "out",
    "open": "",
}


def stage_name(survey: Survey, stage: RigStage) -> str:
    """``level`` for the fuselage, else the body's name."""
    return "level" if stage.body == FUSELAGE else body_name(survey, stage.body)


def stage_state(stage: RigStage) -> str:
    """A word for how far it is; empty for one that is open."""
    if stage.body == RUDDER and stage.state == "locked":
        return "hung"
    return "done" if stage.body == FUSELAGE and stage.state == "true" else _STATES[stage.state]


def stage_tip(survey: Survey, stage: RigStage) -> str:
    """The whole in a sentence."""
    name = stage_name(survey, stage)
    if stage.body == FUSELAGE:
        return (
            "How the fuselage stands on the board is known."
            if stage.state == "true"
            else "First: how does the fuselage stand? A level along its datum and across it."
        )
    now = "now " if stage.current else ""
    if stage.body == RUDDER:
        state = "hung" if stage.state == "locked" else "still to be hung"
        return f"Rudder: {now}{state}."
    state = {
        "moved": "moved since it was locked",
        "locked": "glued, and left as it stands",
        "true": "all of it is true",
        "edge": "all of it is known, some of it at the limit",
        "out": "out of true",
        "open": "not known yet",
    }[stage.state]
    since = (survey.locked_at or {}).get(stage.body)
    lead = " on" if stage.state == "moved" else ", since"
    dated = f"{lead} {locked_when(since)}" if since is not None else ""
    return f"{name[:1].upper()}{name[1:]}: {now}{state}{dated}."


def laid_words(*, said: bool) -> str:
    """Whether that was said, or is only usual."""
    return (
        ""
        if said
        else "Proposed: where such things usually are. Put it right, or say that they stand so."
    )


def struts_words(
    front: float | None, rear: float | None, end: float, unit: LengthUnit, *, said: bool
) -> str:
    """How long they are from hole to hole, and to cut; before it was said, that these are proposed."""
    if front is None or rear is None:
        return ""
    lengths = f"front {format_length(front, unit)}, rear {format_length(rear, unit)}"
    if not said:
        return (
            f"Proposed; put it right, or say that they stand so. From hole to hole then {lengths}."
        )
    cut = format_length(2 * end, unit)
    drill = format_length(end, unit)
    return (
        f"From hole to hole: {lengths}. Cut each {cut} longer and drill {drill} from its ends. "
        "The bolt's slack turns the wing too: take it up before you read."
    )


def lock_edit(body: str, *, locked: bool) -> str:
    """The step's name for undo."""
    return f"lock the {body}" if locked else f"unlock the {body}"


def seat_edit(kind: SeatKind) -> str:
    """The step's name for undo."""
    return f"it sits on {dict(SEAT_KINDS)[kind]}"
