"""While the glue sets: what it holds, what has moved, and which way to bring it back."""

import math
from collections.abc import Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, shortest
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import body_name, reading_name, sentence_case
from hardkeel.project.model import Build
from hardkeel.schedule.model import Timer
from hardkeel.schedule.timers import timer
from hardkeel.survey.gluing import Moved
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import BackTo, Body, Survey, bodies_of
from hardkeel.survey.pot_life import TO_REPEAT
from hardkeel.survey.readings import Reading, place_of

GLUED: Final = "What does the glue hold?"
NOTHING: Final = "nothing"
LEANS: Final = "All else stays as the dry readings had it, so that a few readings tell."
NEEDS_DRY: Final = "Take dry readings first: the wet ones lean on them."
MIXED_NOW: Final = "Mixed now"
MINUTES: Final = "pot life, minutes"
POT_LIFE: Final = "pot life"
MIXED_TIP: Final = "By the maker's sheet and this evening's temperature; gloves on, window open"
SHORT_LIST: Final = "While it can be worked:"
CONFIRM: Final = "to confirm:"
BROUGHT_BACK: Final = "Brought back: read again"
BROUGHT_TIP: Final = (
    "What was read of it while the glue is wet is set aside: it stands elsewhere now"
)
WET_SEAT: Final = (
    "The glue is wet: it is moved back now, or left; sanding comes again when it is cured."
)
HOLDS_WHAT: Final = "Say what the glue holds"
BACK_TO: Final = "Bring it back to"
WHERE_TO: Final[tuple[tuple[BackTo, str], ...]] = (("dry", "the dry fit"), ("true", "true"))
# by a check's kind, what of a body's pose it speaks of
_TURNS: Final = {
    "incidence": "pitch",
    "decalage": "pitch",
    "roll": "roll",
    "roll_to_wing": "roll",
    "fin_lean_to_stab": "roll",
    "yaw": "yaw",
    "fin_yaw": "yaw",
    "fins_toe": "yaw",
    "vee_yaw": "yaw",
    "vee_tilt": "roll",
    "vee_angle": "roll",
    "vee_incidence_difference": "pitch",
    "down": "pitch",
    "side": "yaw",
    "offset": "dy",
    "gap": "dz",
    "stagger": "dx",
}
_SEEN: Final = 2.0  # sigmas
_KNOWN_MM: Final = 2.0  # a doubt of more than this is no answer yet
# value > 0, value < 0
_WAYS: Final = {
    "dx": ("aft", "forward"),
    "dy": ("to starboard", "to port"),
    "dz": ("up", "down"),
    "roll": ("starboard tip up", "port tip up"),
    "pitch": ("leading edge up", "leading edge down"),
    "yaw": ("starboard tip forward", "port tip forward"),
}


def pot_timer(build: Build) -> tuple[Timer, ...]:
    """The pot life of what is being glued on *True*, as a timer beside the others; none where nothing is mixed."""
    gluing = build.surveyed.gluing
    if gluing is None or gluing.mixed is None or gluing.pot_life is None or build.phase != "wet":
        return ()
    title = sentence_case(body_name(build.surveyed, gluing.body))
    mixed = datetime.fromisoformat(gluing.mixed)
    return (timer("pot of true", "pot", mixed, gluing.pot_life, title=title).but(told=True),)


def gluing_edit(body: str) -> str:
    """The step's name for undo."""
    return f"glue {body}" if body else "glue nothing"


def mixed_edit(minutes: float | None) -> str:
    """The step's name for undo."""
    return f"glue mixed, {shortest(minutes)} minutes" if minutes is not None else "glue not mixed"


def time_words(left: float | None) -> str:
    """``18 minutes left``; empty before the glue is mixed."""
    if left is None:
        return ""
    if left <= 0:
        return "The pot life is over: touch nothing now, let it cure, read again then."
    minutes = math.ceil(left)
    return f"{minutes} {'minute' if minutes == 1 else 'minutes'} left"


def list_words(survey: Survey, judgement: Judgement) -> str:
    """The short list, what is taken and still counts ticked; empty where there is none, or nothing is wet."""
    if judgement.phase != "wet":
        return ""
    done = {place_of(reading) for reading in that_count(judgement)}
    told = []
    for i, reading in enumerate(judgement.repeats):
        if i == TO_REPEAT:
            told.append(CONFIRM)
        mark = "✓" if place_of(reading) in done else "○"
        told.append(f"{mark} {reading_name(survey, reading)}")
    return "\n".join([SHORT_LIST, *told]) if told else ""


def movement_words(
    survey: Survey, judgement: Judgement, unit: LengthUnit, left: float | None = None
) -> str:
    """What of the glued body has moved since the dry fit, and what to do; empty where nothing leans.

    Parameters
    ----------
    left : float, optional
        Minutes of pot life.
    """
    gluing = survey.gluing
    if gluing is None:
        return ""
    body, moved = survey.body(gluing.body), judgement.movement.get(gluing.body)
    if body is None or moved is None:
        return NEEDS_DRY
    told = _beyond_doubt(moved)
    name = sentence_case(body_name(survey, body.id))
    if nothing_read(survey, judgement):
        return f"{name}: nothing read yet."
    over = judgement.phase == "cured" or (left is not None and left <= 0)
    if gluing.back_to == "true" and not over:
        return _true_words(judgement, body, unit, left)
    if not told:
        most = max(
            (_mm(body, one.name, _SEEN * one.sigma) for one in moved if one.name in _WAYS),
            default=0.0,
        )
        if most > _KNOWN_MM:
            return f"{name}: what is read so far has not moved; take the next readings to be sure of the rest."
        return f"{name}: nothing has moved beyond doubt, {format_length(most, unit)} at most."
    said = moved_words(body, moved, unit)
    told.sort(key=lambda one: -_mm(body, one.name, one.value))
    back = _WAYS[told[0].name][told[0].value > 0]
    if over:
        return f"{name} has moved since the dry fit: {said}. It is set: what that does stands with its checks."
    return f"{name} has moved since the dry fit: {said}. Bring it back to the dry fit, {back}{_time(left)}."


def _true_words(judgement: Judgement, body: Body, unit: LengthUnit, left: float | None) -> str:
    """What of the glued body is out as it lies, and which way is true."""
    name, out = sentence_case(body_name(judgement.net.survey, body.id)), _out_by(judgement, body.id)
    if not out:
        mine = [check for check in judgement.checks if check.body == body.id]
        if all(check.verdict == "true" for check in mine):
            return f"{name} is true as it lies: leave it."
        return f"{name}: nothing of it is out beyond doubt; what is open is not known yet."
    out.sort(key=lambda one: -_mm(body, one.name, one.value))
    said = " and ".join(_one(body, one, unit) for one in out[:2])
    back = _WAYS[out[0].name][out[0].value > 0]
    return f"{name} is out of true: {said}. Bring it to true, {back}{_time(left)}."


def _out_by(judgement: Judgement, body: str) -> list[Moved]:
    """How the glued body stands off true, by its checks that are out: one for each way it can stand off."""
    found: dict[str, Moved] = {}
    for check in judgement.checks_on(body):
        name = _TURNS.get(check.kind)
        if check.verdict != "out" or name is None:
            continue
        share = _share_of(judgement, check.id, body, name)
        if share:  # how far this body alone would have to turn
            found.setdefault(name, Moved(name, check.error / share, check.doubt / abs(share)))
    return list(found.values())


def _share_of(judgement: Judgement, check_id: str, body: str, name: str) -> float:
    """By how much a check changes with a figure of a body's pose."""
    column = judgement.net.columns.column(body, name)
    rule = next((one for one in judgement.rules if one.id == check_id), None)
    return float(rule.slope[column]) if rule is not None and column is not None else 0.0


def _time(left: float | None) -> str:
    if left is None:
        return " while the glue lets you"
    return f": you have {number_of(math.ceil(left), 'minute')}"


def moved_words(body: Body, moved: Sequence[Moved], unit: LengthUnit) -> str:
    """The two largest ways it moved beyond doubt, as one sees them: ``up by 1.2 mm``; empty where none is."""
    told = sorted(_beyond_doubt(moved), key=lambda one: -_mm(body, one.name, one.value))
    return " and ".join(_one(body, one, unit) for one in told[:2])


def to_bring_back(survey: Survey, judgement: Judgement, left: float | None = None) -> str:
    """The body that has moved beyond doubt while the glue can be worked; empty where none has."""
    gluing = survey.gluing
    over = left is not None and left <= 0
    if gluing is None or judgement.phase != "wet" or not that_count(judgement) or over:
        return ""
    if gluing.back_to == "true":
        return gluing.body if _out_by(judgement, gluing.body) else ""
    return gluing.body if _beyond_doubt(judgement.movement.get(gluing.body, ())) else ""


def back_to_edit(back_to: BackTo) -> str:
    """The step's name for undo."""
    return f"bring back to {dict(WHERE_TO)[back_to]}"


def brought_edit(survey: Survey, body: str) -> str:
    """The step's name for undo."""
    return f"bring the {body_name(survey, body)} back"


def brought_words(survey: Survey, body: str) -> str:
    """What the log says of it."""
    return f"{sentence_case(body_name(survey, body))} moved back while the glue was wet"


def out_question(survey: Survey, body: str, state: str) -> str:
    """Before what is out is glued: ``Stabilizer, dry: to wing out 0.8°. Glue it so? …``."""
    return (
        f"{sentence_case(body_name(survey, body))}, dry: {state}. Glue it so? Once more says yes."
    )


def nothing_read(survey: Survey, judgement: Judgement) -> bool:
    """Whether nothing that counts was read of what the glue holds."""
    held = survey.gluing.body if survey.gluing is not None else ""
    return bool(held) and not any(_is_on(survey, one, held) for one in that_count(judgement))


def that_count(judgement: Judgement) -> tuple[Reading, ...]:
    """The readings of the phase that were not set aside."""
    used = {fit.id for fit in judgement.fits if fit.used}
    return tuple(reading for reading in judgement.readings if reading.id in used)


def _is_on(survey: Survey, reading: Reading, body: str) -> bool:
    """Whether a reading tells anything of a body: it hangs there, or one of its marks is on it."""
    return body in bodies_of(survey, reading)


def _beyond_doubt(moved: Sequence[Moved]) -> list[Moved]:
    return [one for one in moved if one.name in _WAYS and abs(one.value) > _SEEN * one.sigma]


def _one(body: Body, one: Moved, unit: LengthUnit) -> str:
    way = _WAYS[one.name][one.value < 0]
    mm = format_length(_mm(body, one.name, one.value), unit)
    if one.name in ("dx", "dy", "dz"):
        return f"{mm} {way}"
    return f"{way} by {mm} ({format_angle(abs(one.value))} ± {format_angle(2 * one.sigma)})"


def _mm(body: Body, name: str, value: float) -> float:
    """What a shift or turn is at the place where one sees it: at the tip, or over the chord."""
    if name in ("dx", "dy", "dz"):
        return abs(value)
    reach = (body.chord or 0.0) if name == "pitch" else (body.span or 0.0) / 2
    return abs(math.sin(math.radians(value))) * reach
