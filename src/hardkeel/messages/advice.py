"""What to do: corrections in millimetres, doubts about readings, and the one thing that is next."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length, format_small_length
from hardkeel.messages.fitting import fitting_sentence, wedge_sentence
from hardkeel.messages.fitting import ways as _ways
from hardkeel.messages.gluing import HOLDS_WHAT, WET_SEAT, movement_words, that_count, to_bring_back
from hardkeel.messages.locks import lock_step, moved_title
from hardkeel.messages.names import body_name, check_name, contact_name, reading_name, sentence_case
from hardkeel.messages.next_steps import NextKind, NextStep
from hardkeel.messages.safety import GLUE_CAUTION, LASER_CAUTION, SANDING_CAUTION
from hardkeel.messages.sharing import limit_words, settling_reason
from hardkeel.messages.sight import again_title, click_sentence, told_id
from hardkeel.messages.verdicts import format_doubt, format_value
from hardkeel.survey.checking import Check
from hardkeel.survey.correcting import Correction
from hardkeel.survey.drifting import Drift
from hardkeel.survey.instruments import height_of, read_over, was_turned
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import Survey
from hardkeel.survey.outliers import Fit, Outlier
from hardkeel.survey.pot_life import still_to_take
from hardkeel.survey.ranking import NextReading
from hardkeel.survey.readings import ANGULAR, Offset, Reading
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import WayName, seat_work


@dataclass(frozen=True, slots=True)
class SeatAdvice:
    """What to do at one body's seat.

    Attributes
    ----------
    needed : bool
        Whether a check of this body is out; without it nothing should be touched.
    do : tuple of str
        The actions, each with its number.
    then : str
        What the checks will be afterwards.
    caution : str
        What to mind meanwhile; empty where there is nothing.
    ready : bool
        Whether there is anything to do at the seat; not before it is said where it lies.
    chosen : bool
        Whether it could be done with shims or by sanding, as the builder likes.
    """

    body: str
    title: str
    needed: bool
    do: tuple[str, ...]
    then: str
    caution: str
    ready: bool = True
    chosen: bool = True


def seat_advice(
    survey: Survey,
    judgement: Judgement,
    correction: Correction,
    way: WayName,
    unit: LengthUnit,
    *,
    insisted: bool = False,
) -> SeatAdvice:
    """Advice for a body whose seat has contacts."""
    work = seat_work(judgement, correction, way, insisted=insisted)
    title = f"{sentence_case(body_name(survey, work.body))} seat"
    if judgement.phase == "wet":
        return SeatAdvice(work.body, title, needed=False, do=(), then=WET_SEAT, caution="")
    if not work.needed:
        then = _LEAVE_IT if work.known else _MEASURE_MORE
    else:
        told = [
            f"{_without_body(survey, check)} {format_value(check, unit)} {format_doubt(check, unit)}"
            for check in work.after
        ]
        then = f"Then {', '.join(told)}." if told else "Then measure again."
        if not any(check.verdict == "out" for check in judgement.checks_on(work.body)):
            then = f"{AT_THE_LIMIT_OR_LEFT} {then}"
    wedge = wedge_sentence(survey, work.body, work.steps, unit)
    if wedge:
        then = f"{wedge} {then}"
    ready = all(step.act != "place" for step in work.steps)
    if not ready:
        then = ""
    do = tuple(step_sentence(survey, work.body, step, unit) for step in work.steps)
    sanding = any(step.act == "sand" for step in work.steps)
    caution = SANDING_CAUTION if sanding else ""
    chosen = any(step.act in ("pack", "sand", "leave") for step in work.steps)
    return SeatAdvice(work.body, title, work.needed, do, then, caution, ready=ready, chosen=chosen)


DOUBT_IS_LEFT: Final = (
    "Readings that were taken three times still tell two stories: look for what makes them."
)
HANGS_ON_IT: Final = "Once more: a verdict hangs on whether it was right."
KNOWN_AS_FAR: Final = "Known as far as these readings go"
HOW_IT_STANDS: Final = "how the fuselage stands"
AT_THE_EDGE: Final = "At the limit: correct it or accept it"
TOOLS: Final = {
    "tape": "a tape",
    "line": "a line that does not stretch",
    "height-stand": "two height stands",
    "incidence-gauge": "an incidence gauge",
    "level": "a level",
    "square": "a square",
    "laser": "a line laser",
    "trammel": "a stick with a ring",
    "stand-pair": "two equal stands",
    "digital-level": "a digital level",
    "water-level": "a water level",
}
AT_THE_LIMIT_OR_LEFT: Final = "It is at the limit, and may be left so."
_LEAVE_IT: Final = "Leave it: nothing here is out."
_MEASURE_MORE: Final = "Measure more before you touch it."
_PLACE: Final = "Say below where {it}: what to do hangs on that."
_UNTWIST: Final = (
    "Take the twist out of the panel with heat before you touch the seat "
    "(an iron or steam burns: gloves)."
)

_PLAIN: Final = {
    "untwist": _UNTWIST,
    "leave": "What is left is finer than you can sand or shim.",
}


def step_sentence(survey: Survey, body: str, step: SeatStep, unit: LengthUnit) -> str:
    """One step at a seat: ``Sand 0.4 mm off the port front.``."""
    if step.act in _PLAIN:
        return _PLAIN[step.act]
    if step.act == "place":
        held = survey.body(body)
        struts = held is not None and held.seat is not None and held.seat.kind == "struts"
        return _PLACE.format(it="the struts meet it" if struts else "it is held")
    where = " and ".join(contact_name(survey, body, contact) for contact in step.contacts)
    match step.act:
        case "pack":
            return f"Put {format_small_length(step.mm, unit)} under the {where}."
        case "sand":
            return f"Sand {format_small_length(step.mm, unit)} off the {where}."
        case "slide":
            return f"Slide the {where} {', '.join(_ways(step, unit))}."
        case "hold":
            return f"Hold the {where} where it is meanwhile."
        case "again":
            return (
                f"Measure again first: {format_length(step.mm, unit)} is more than any seat is out."
            )
        case _:
            return fitting_sentence(where, step, unit)


def _without_body(survey: Survey, check: Check) -> str:
    name = check_name(survey, check).lower()
    return name.removeprefix(body_name(survey, check.body).lower() + " ")


def suspect_sentence(
    survey: Survey, judgement: Judgement, suspect: Outlier, unit: LengthUnit
) -> str:
    """What to do about a reading that does not fit."""
    reading = survey.reading(suspect.reading)
    if reading is None:
        return click_sentence(survey, judgement, suspect)
    fit = next(f for f in judgement.fits if f.id == suspect.reading)
    off = format_residual(survey, reading, fit, unit)
    drift = judgement.drift
    if drift is not None and suspect.reading in drift.readings:
        return drift_sentence(drift)
    text = f"{suspect.reading} does not fit the rest, by {off}: take it again."
    if suspect.alike:
        others = ", ".join(
            told_id(survey, one) if survey.sighting(one) is not None else one
            for one in suspect.alike
        )
        text = f"Either {suspect.reading} or {others} is wrong: take them again."
    if was_turned(survey, reading):
        text += " Turned end for end a level shows its own error: look under Tools."
    return text


def drift_sentence(drift: Drift) -> str:
    """What to do about a gauge that walks away from its zero."""
    each = format_angle(drift.each, signed=True)
    return (
        f"This gauge drifts since its zero: {each} with each of its last {len(drift.readings)} readings. "
        "Zero it again, then take this again."
    )


def format_reading(survey: Survey, reading: Reading, unit: LengthUnit) -> str:
    """A reading's value with its unit, as its tool shows it."""
    over = read_over(survey, reading)
    if over is not None:
        return format_length(height_of(reading.value, over), unit)
    if reading.kind in ANGULAR:
        return format_angle(reading.value)
    return format_length(reading.value, unit)


def format_residual(survey: Survey, reading: Reading, fit: Fit, unit: LengthUnit) -> str:
    """A residual with its sign, as the reading's tool would show it."""
    return format_difference(survey, reading, fit.residual, unit)


def format_difference(survey: Survey, reading: Reading, by: float, unit: LengthUnit) -> str:
    """What a reading differs by, mm or degrees, with its sign and as its tool would show it."""
    over = read_over(survey, reading)
    if over is None and reading.kind in ANGULAR:
        return format_angle(by, signed=True)
    text = format_length(by if over is None else height_of(by, over), unit)
    return text if text.startswith("−") else f"+{text}"


def next_step(survey: Survey, judgement: Judgement, unit: LengthUnit) -> NextStep:
    """The one thing to do now: doubts first, then what is unknown, then what is out."""
    if not judgement.checks:
        return NextStep(
            "describe",
            "Describe your model",
            "A dozen figures give the wing, the tail and the marks to measure from.",
        )
    urgent = urgent_step(survey, judgement, "", unit)
    if urgent is not None:
        return urgent
    wet = judgement.phase == "wet"
    listed = still_to_take(judgement.repeats, that_count(judgement))
    if wet and not listed and to_bring_back(survey, judgement):
        return _while_wet(survey, judgement, unit)
    if judgement.next:
        return reading_step(survey, judgement, judgement.next[0], unit)
    if wet:
        return _while_wet(survey, judgement, unit)
    out = [check for check in judgement.checks if check.verdict == "out"]
    if out:
        body = judgement.culprit
        return NextStep(
            "correct",
            f"Correct the {body_name(survey, body)}",
            f"{_known_so_far(survey, judgement)}The seat card says how far.",
            body=body,
        )
    unsure = [check for check in judgement.checks if check.verdict == "unsure"]
    if unsure:
        return _undecided(survey, judgement, unsure)
    return NextStep(
        "glue",
        "All true: glue, then measure again while it is wet",
        f"Mark the joint, dry-run every prop and weight first. {GLUE_CAUTION}",
    )


def urgent_step(
    survey: Survey, judgement: Judgement, stage: str, unit: LengthUnit
) -> NextStep | None:
    """What comes before anything else: a lock that does not hold, a reading that does not fit."""
    of_locks = lock_step(survey, judgement, stage, unit)
    if of_locks is None and judgement.outliers:
        return _take_again(survey, judgement, unit)
    return of_locks


def _take_again(survey: Survey, judgement: Judgement, unit: LengthUnit) -> NextStep:
    """The first reading or click that does not fit."""
    first = judgement.outliers[0]
    reading, said = survey.reading(first.reading), suspect_sentence(survey, judgement, first, unit)
    if reading is None:
        return NextStep("sight", again_title(survey, first.reading), said)
    return NextStep("again", sentence_case(reading_name(survey, reading)), said, reading)


def _while_wet(survey: Survey, judgement: Judgement, unit: LengthUnit) -> NextStep:
    """Nothing is sanded while glue is wet: what it holds is moved back, or left."""
    if survey.gluing is None:
        return NextStep("correct", HOLDS_WHAT, WET_SEAT)
    body = survey.gluing.body
    name, said = body_name(survey, body), movement_words(survey, judgement, unit)
    if to_bring_back(survey, judgement):
        return NextStep("correct", f"Bring the {name} back", said, body=body)
    return NextStep("correct", f"Leave the {name} to set", said, body=body)


def _known_so_far(survey: Survey, judgement: Judgement) -> str:
    """That all is known, or what stays open though it is."""
    left = [one for one in judgement.checks if one.verdict == "unsure" and not one.edge]
    if not left:
        return "All that was asked is known. "
    names = ", ".join(check_name(survey, check).lower() for check in left)
    return f"Out beyond doubt; {names} {'stays' if len(left) == 1 else 'stay'} open. "


def _undecided(survey: Survey, judgement: Judgement, unsure: Sequence[Check]) -> NextStep:
    """What is left where no reading is asked for any more."""
    names = ", ".join(check_name(survey, check).lower() for check in unsure)
    if all(check.edge for check in unsure):
        return NextStep("correct", AT_THE_EDGE, f"No reading decides it, only a hand: {names}.")
    limits, tool = _limits(survey, judgement, unsure), TOOLS.get(judgement.why)
    title = f"Add {tool}" if tool else KNOWN_AS_FAR if limits else "Add a finer tool"
    return NextStep("correct", title, limits or f"Your tools can't decide: {names}.")


def _limits(survey: Survey, judgement: Judgement, unsure: Sequence[Check]) -> str:
    """What keeps the open checks from being known better: what limits most of them, and which."""
    open_ = {check.id for check in unsure if not check.edge}
    found: dict[str, list[str]] = {}
    for rule, check in zip(judgement.rules, judgement.checks, strict=True):
        words = limit_words(survey, judgement, rule) if check.id in open_ else ""
        if words:
            found.setdefault(words, []).append(check_name(survey, check).lower())
    told = sorted(found.items(), key=lambda one: -len(one[1]))
    return " ".join(f"{sentence_case(', '.join(names))}: {words}." for words, names in told)


def reading_step(
    survey: Survey, judgement: Judgement, best: NextReading, unit: LengthUnit
) -> NextStep:
    """Take this reading: what it settles, and how far."""
    check = judgement.check(best.helps)
    name = check_name(survey, check) if check is not None else HOW_IT_STANDS
    if check is not None and check.unit == "mm":
        now, after = format_length(best.sigma_now, unit), format_length(best.sigma_after, unit)
    else:
        now, after = format_angle(best.sigma_now), format_angle(best.sigma_after)
    laser = isinstance(best.reading, Offset) and best.reading.along is None
    caution = f" Laser: {LASER_CAUTION.lower()}" if laser else ""
    kind: NextKind = "reading" if judgement.measured else "first"
    if check is not None and check.hangs and judgement.net.survey.reading(best.reading.id):
        return NextStep(
            kind,
            sentence_case(reading_name(survey, best.reading)),
            f"Once more: {name.lower()} hangs on whether it was right.{caution}",
            best.reading,
        )
    reason = settling_reason(best.reading)
    caution = f" {reason}{caution}" if reason else caution
    return NextStep(
        kind,
        sentence_case(reading_name(survey, best.reading)),
        f"Settles {name.lower()}: ±{now} becomes ±{after}.{caution}",
        best.reading,
    )


def headline(survey: Survey, judgement: Judgement) -> str:
    """The answer of the whole page in a line."""
    answer = _answer(survey, judgement)
    return f"Simulated: {answer[:1].lower()}{answer[1:]}" if judgement.simulated else answer


def open_words(survey: Survey, judgement: Judgement, unsure: Sequence[Check]) -> str:
    """What is open where nothing is out: what may be out, what is not known, what lies at the limit."""
    may_be = [one for one in unsure if one.hangs and abs(one.error) > one.tolerance]
    left = len([one for one in unsure if not one.edge])
    if may_be:
        hanging = {body for one in may_be for body in judgement.charged[one.id]}
        bodies = [body_name(survey, body.id) for body in survey.bodies if body.id in hanging]
        return f"{sentence_case(' and '.join(bodies))} may be out; {left} not known yet"
    if left:
        return f"Nothing out so far; {left} not known yet"
    return f"All known; {len(unsure)} at the limit"


def _answer(survey: Survey, judgement: Judgement) -> str:
    out = [check for check in judgement.checks if check.verdict == "out"]
    unsure = [check for check in judgement.checks if check.verdict == "unsure"]
    if judgement.checks and not judgement.measured:
        return "Nothing measured yet"
    if judgement.moved:
        return moved_title(survey, judgement.moved[0])
    if out:
        blamed = {body for check in out for body in judgement.charged[check.id]}
        bodies = [body_name(survey, body.id) for body in survey.bodies if body.id in blamed]
        return f"{sentence_case(' and '.join(bodies))} out of true"
    if unsure:
        return open_words(survey, judgement, unsure)
    return "All true" if judgement.checks else "Nothing to check yet"
