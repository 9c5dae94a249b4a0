"""A check in words: what it is, which way it is off, and what that does in the air."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.messages.names import body_name, check_name
from hardkeel.survey.checking import Check
from hardkeel.survey.model import Survey
from hardkeel.survey.moving import Movement
from hardkeel.survey.reaching import error_at_reach_mm
from hardkeel.survey.roles import is_panel

if TYPE_CHECKING:
    from hardkeel.survey.judging import Judgement

# error > 0, error < 0; {mm} is the reach at the tip or over the chord
_WAYS: Final = {
    "incidence": ("leading edge {mm} high", "leading edge {mm} low"),
    "yaw": ("starboard tip {mm} forward", "starboard tip {mm} aft"),
    "roll": ("starboard tip {mm} high", "port tip {mm} high"),
    "roll_to_wing": (
        "starboard tip {mm} high against the wing",
        "port tip {mm} high against the wing",
    ),
    "offset": ("{mm} to starboard", "{mm} to port"),
    "twist_difference": ("starboard tip {mm} more nose-up", "port tip {mm} more nose-up"),
    "decalage": ("{deg} too much between wing and tail", "{deg} too little between wing and tail"),
    "fin_yaw": ("leading edge {mm} to port", "leading edge {mm} to starboard"),
    "fin_lean_to_stab": ("top {mm} to port", "top {mm} to starboard"),
    "fins_toe": ("{deg} too much toe-in", "{deg} too much toe-out"),
    "vee_yaw": ("leading edge {mm} to port", "leading edge {mm} to starboard"),
    "vee_tilt": (
        "starboard half {mm} high against the wing",
        "port half {mm} high against the wing",
    ),
    "vee_angle": ("{deg} too steep between the halves", "{deg} too flat between the halves"),
    "vee_incidence_difference": (
        "starboard half {mm} more nose-up",
        "port half {mm} more nose-up",
    ),
    "down": ("{deg} too much down", "{deg} too little down"),
    "side": ("{deg} too far to starboard", "{deg} too far to port"),
    "gap": ("{mm} too far over the wing beneath", "{mm} too close to the wing beneath"),
    "stagger": ("{mm} too far ahead of the wing beneath", "{mm} too far behind the wing beneath"),
}
_ANY_WAY: Final = ("{deg} too much", "{deg} too little")
# of a panel on one side, as its own tip goes: starboard; what turns about it is the other way round on port
_OF_PANELS: Final = {
    "roll": ("tip {mm} high", "tip {mm} low"),
    "yaw": ("tip {mm} forward", "tip {mm} aft"),
    "offset": ("{mm} too far out", "{mm} too far in"),
}
_SHORT: Final = {
    "roll": "level",
    "yaw": "square",
    "roll_to_wing": "to wing",
    "twist_difference": "twist",
    "fin_yaw": "straight",
    "fin_lean_to_stab": "upright",
    "fins_toe": "toe",
    "vee_yaw": "square",
    "vee_tilt": "level to wing",
    "vee_angle": "spread",
    "vee_incidence_difference": "halves alike",
    "down": "down thrust",
    "side": "side thrust",
    "offset": "centred",
    "gap": "gap",
    "stagger": "stagger",
}
_IN_THE_AIR: Final = {
    "incidence": "Flies at another trim than drawn; elevator trim takes it up at the cost of drag.",
    "yaw": "Turns on its own, and the turn changes with speed.",
    "roll": "Lift points sideways: a steady pull off the heading.",
    "roll_to_wing": "The tail works against the wing in every pull-up: it will corkscrew out of loops.",
    "offset": "A small steady turn; mostly it shows on the bench.",
    "twist_difference": "Rolls to the side with less incidence, the more the faster it flies.",
    "decalage": "Too much and it balloons with power; too little and it will not pick up its nose.",
    "fin_yaw": "A built-in rudder: it yaws, and rolls with the yaw.",
    "fin_lean_to_stab": "Rudder then pitches it as well as yawing it.",
    "fins_toe": "Both fins brake against each other; one that stalls first swings the tail.",
    "vee_yaw": "A built-in rudder on one side: it yaws, and pitches with the yaw.",
    "vee_tilt": "The tail works against the wing in every pull-up: it will corkscrew out of loops.",
    "vee_angle": "Pitch and yaw share the halves otherwise than drawn.",
    "vee_incidence_difference": "A built-in rudder: it yaws, and rolls with the yaw.",
    "down": "The nose rises or drops with the throttle.",
    "side": "It swings with the throttle, most at low speed.",
    "gap": "Nothing that is felt; struts and wires that were cut to the drawing will not fit.",
    "stagger": "The lift stands further forward or aft: the balance point is reckoned from where the wings are drawn.",
}
VERDICT_WORDS: Final = {"true": "true", "out": "out", "unsure": "not known yet"}


AT_THE_LIMIT: Final = "at the limit"
IN_DOUBT: Final = "in doubt"


def format_value(check: Check, unit: LengthUnit) -> str:
    """A check's value with its unit: ``1.90°`` or ``0.4 mm``."""
    if check.unit == "mm":
        return format_length(check.value, unit)
    return format_angle(check.value)


def format_doubt(check: Check, unit: LengthUnit) -> str:
    """How far it may be otherwise: ``±0.06°``."""
    if check.unit == "mm":
        return "±" + format_length(check.doubt, unit)
    return "±" + format_angle(check.doubt)


def format_wanted(check: Check, unit: LengthUnit) -> str:
    """What a check should be, and what is allowed: ``2.00° ±0.50°``."""
    if check.unit == "mm":
        return f"{format_length(check.target, unit, 2)} ±{format_length(check.tolerance, unit, 2)}"
    return f"{format_angle(check.target)} ±{format_angle(check.tolerance)}"


def way_off(survey: Survey, check: Check, unit: LengthUnit) -> str:
    """Which way and how far, at the place where one sees it: ``starboard tip 2.3 mm high``."""
    return _said(_ways_of(survey, check), check.error, error_at_reach_mm(survey, check), unit)


def ways_alone(survey: Survey, check: Check) -> tuple[str, str]:
    """The same without a figure: above what is wanted, below it; ``starboard tip high``, ``port tip high``."""
    plus, minus = (" ".join(one.format(mm="", deg="").split()) for one in _ways_of(survey, check))
    return plus, minus


def is_told_in_mm(survey: Survey, check: Check) -> bool:
    """Whether one says in millimetres how far it is off; else in degrees."""
    return "{mm}" in _ways_of(survey, check)[0] and error_at_reach_mm(survey, check) is not None


def _ways_of(survey: Survey, check: Check) -> tuple[str, str]:
    """What is said of an error above nothing, and below it."""
    plus, minus = _WAYS.get(check.kind, _ANY_WAY)
    turned = check.kind == "fins_toe" and not _second_is_starboard(survey, check)
    body = survey.body(check.body)
    if check.kind in _OF_PANELS and body is not None and is_panel(body):
        plus, minus = _OF_PANELS[check.kind]
        turned = body.origin[1] <= 0
    return (minus, plus) if turned else (plus, minus)


def _second_is_starboard(survey: Survey, check: Check) -> bool:
    """Toe-in is a turn to port of what stands to starboard: which of the two fins that is says the drawing."""
    places = {name: body.origin[1] for name in check.between if (body := survey.body(name))}
    return all(y <= places.get(check.body, 0.0) for y in places.values())


def way_words(kind: str, error: float, reach: float | None, unit: LengthUnit) -> str:
    """The same from a check's kind, its error and what that is at its reach, mm."""
    return _said(_WAYS.get(kind, _ANY_WAY), error, reach, unit)


def _said(ways: tuple[str, str], error: float, reach: float | None, unit: LengthUnit) -> str:
    plus, minus = ways
    text = plus if error > 0 else minus
    amount = format_length(abs(reach), unit) if reach is not None else format_angle(abs(error))
    return text.format(mm=amount, deg=format_angle(abs(error)))


def verdict_sentence(survey: Survey, check: Check, unit: LengthUnit) -> str:
    """One line for a check, saying the same as its vial."""
    name = check_name(survey, check)
    if check.verdict == "true":
        return f"{name} is true: {format_value(check, unit)} {format_doubt(check, unit)}."
    if check.verdict == "out":
        return f"{name} is out: {way_off(survey, check, unit)}."
    allowed = (
        format_length(check.tolerance, unit)
        if check.unit == "mm"
        else format_angle(check.tolerance)
    )
    return f"{name} is not known yet: {format_doubt(check, unit)} where ±{allowed} is allowed."


def state_words(checks: tuple[Check, ...], unit: LengthUnit) -> str:
    """A part's worst check in a few words: what is out, else how many are not known yet."""
    out = [check for check in checks if check.verdict == "out"]
    if out:
        worst = max(out, key=lambda c: abs(c.error) / c.tolerance)
        return f"{_SHORT.get(worst.kind, worst.kind)} out {_way(worst, unit)}"
    unsure = [check for check in checks if check.verdict == "unsure"]
    left = [check for check in unsure if not check.edge]
    if left:
        return f"{len(left)} not known yet"
    if unsure:
        return f"{len(unsure)} {AT_THE_LIMIT}"
    return VERDICT_WORDS["true"] if checks else ""


def standing_words(survey: Survey, judgement: "Judgement", body: str, unit: LengthUnit) -> str:
    """A part in a few words: its worst check, or the part that it hangs on."""
    mine = judgement.checks_on(body)
    other = judgement.hangs_on(body)
    if other and not any(check.verdict == "out" for check in mine):
        return f"hangs on the {body_name(survey, other)}"
    return state_words(mine, unit)


def verdict_word(check: Check) -> str:
    """A check's verdict, in the same words on vial, card, record and command."""
    if check.verdict != "unsure":
        return VERDICT_WORDS[check.verdict]
    return AT_THE_LIMIT if check.edge else IN_DOUBT if check.hangs else VERDICT_WORDS["unsure"]


def _way(check: Check, unit: LengthUnit) -> str:
    error = abs(check.error)
    return format_length(error, unit) if check.unit == "mm" else format_angle(error, 1)


def in_the_air(check: Check) -> str:
    """What the error does to the way the model flies."""
    return _IN_THE_AIR.get(check.kind, "")


def movement_sentence(survey: Survey, movement: Movement, check: Check, unit: LengthUnit) -> str:
    """``Stabilizer level +0.35° ±0.12``."""
    if movement.unit == "mm":
        sign = "+" if movement.moved > 0 else ""
        moved = sign + format_length(movement.moved, unit)
        doubt = format_length(movement.sigma, unit)
    else:
        moved, doubt = format_angle(movement.moved, signed=True), format_angle(movement.sigma)
    return f"{check_name(survey, check)} {moved} ±{doubt}"
