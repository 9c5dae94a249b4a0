"""What the True page shows, as plain values made from the build and its judgement.  No widgets here."""

from typing import Final

from hardkeel.airframe.bodies import rests_at_corners
from hardkeel.airframe.flights import build_trim
from hardkeel.airframe.tails import rudder_of
from hardkeel.base.units import LengthUnit, format_angle, format_length, marked
from hardkeel.logbook.entries import measured_again
from hardkeel.messages import true as say
from hardkeel.messages.advice import format_reading, format_residual, seat_advice
from hardkeel.messages.air import edge_sentence, effect_line, effect_sentence
from hardkeel.messages.alternatives import check_sentence
from hardkeel.messages.gaps import WITH_GAPS
from hardkeel.messages.gluing import nothing_read
from hardkeel.messages.locks import BEFORE_IT_MOVED
from hardkeel.messages.names import (
    INSTRUMENT_NAMES,
    TOOLS,
    body_name,
    called,
    mark_name,
    reading_name,
    sentence_case,
    short_check_name,
    tool_name,
)
from hardkeel.messages.next_steps import NextStep
from hardkeel.messages.rigging import LOCK, UNLOCK, stage_name, stage_state, stage_tip
from hardkeel.messages.sight import LOOK_AGAIN
from hardkeel.messages.verdicts import (
    format_doubt,
    format_value,
    in_the_air,
    movement_sentence,
    standing_words,
    way_off,
)
from hardkeel.picture.truing import body_verdict, view_of_check
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check
from hardkeel.survey.drafts import Draft, own_tool, with_own_tool
from hardkeel.survey.instruments import as_shown, in_degrees
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, GapRead, SeatKind, Survey, bodies_of
from hardkeel.survey.moving import movements
from hardkeel.survey.outliers import Fit
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading, marks_of, sigma_of
from hardkeel.survey.rigging import rig_stages
from hardkeel.survey.roles import role_of, turn_of
from hardkeel.survey.rootgaps import RootGaps, root_gaps
from hardkeel.survey.seatwork import WayName
from hardkeel.trim.flying import Trim, effect_of
from hardkeel.ui.stages.true.cards import NextShown, SeatShown
from hardkeel.ui.stages.true.rig_strip import RigShown
from hardkeel.ui.widgets.reading_rows import ReadingRow
from hardkeel.ui.widgets.three_view import Callout
from hardkeel.ui.widgets.vial import VialGroup, VialValue

# parts of a build, as a change names them: the survey and what it says, and the airframe drawn with it
SHOWN_ON_TRUE: Final = frozenset({"survey", "phase", "judgement", "fuselage", "wings", "tail"})


_WORST_FIRST = ("out", "unsure", "true")
_MOST_WANTED = 8
WANTED: Final = "wanted "  # begins the id of a row that is not a reading yet
_WEAK = 10  # sigmas: an error this large going unnoticed is worth a word
_VIAL_WORDS = {"true": "true", "out": "out", "unsure": "open"}


def vial_groups(
    build: Build, judgement: Judgement, unit: LengthUnit, first: str = ""
) -> tuple[VialGroup, ...]:
    """All checks as vials, by the part that they speak of: the one in hand, then what is out."""
    survey = build.surveyed
    values = {value.id: value for value in _vial_values(build, judgement, unit)}
    groups = []
    for body in sorted(survey.bodies, key=lambda body: turn_of(role_of(body))):
        mine = [check for check in judgement.checks if judgement.charged[check.id][0] == body.id]
        if not mine:
            continue
        words = standing_words(survey, judgement, body.id, unit)
        name = sentence_case(body_name(survey, body.id))
        verdict = body_verdict(judgement, body.id)
        vials = tuple(values[check.id] for check in mine)
        groups.append(VialGroup(body.id, name, verdict, words, vials))
    order = {verdict: i for i, verdict in enumerate(_WORST_FIRST)}
    return tuple(sorted(groups, key=lambda one: (one.body != first, order[one.verdict or "true"])))


def rig_shown(build: Build, judgement: Judgement) -> tuple[RigShown, ...]:
    """The stages of rigging."""
    survey = build.surveyed
    return tuple(
        RigShown(
            stage.body,
            stage_name(survey, stage),
            stage_state(stage),
            stage_tip(survey, stage),
            stage.state,
            stage.current,
            stage.body != FUSELAGE,
        )
        for stage in rig_stages(judgement, rudder=rudder_of(build) is not None)
    )


def _vial_values(build: Build, judgement: Judgement, unit: LengthUnit) -> tuple[VialValue, ...]:
    survey, trim = build.surveyed, trim_now(build, judgement)
    return tuple(
        VialValue(
            id=check.id,
            name=short_check_name(survey, check),
            error=check.error / check.tolerance,
            sigma=check.doubt / check.tolerance,
            verdict=check.verdict,
            text=_known(check, unit),
            word=_vial_word(check),
            sentence=check_sentence(survey, judgement, check, unit),
            below=_air_line(trim, check, unit),
        )
        for check in judgement.checks
    )


def _vial_word(check: Check) -> str:
    """A word beside the vial; the sentence says the rest."""
    return "limit" if check.edge else "doubt" if check.hangs else _VIAL_WORDS[check.verdict]


def trim_now(build: Build, judgement: Judgement) -> Trim:
    """What follows in the air, with the decalage as it was read."""
    decalage = judgement.check("decalage")
    return build_trim(build, decalage.value if decalage is not None else None)


def _air_line(trim: Trim, check: Check, unit: LengthUnit) -> str:
    """What its error does; nothing while it is not known."""
    effect = effect_of(trim, check, check.error, check.doubt)
    return effect_line(effect, unit) if effect and check.doubt <= check.tolerance else ""


def air_words(build: Build, judgement: Judgement, check: Check, unit: LengthUnit) -> str:
    """What the error does in the air, and what one at the edge of the tolerance would: why it is allowed.

    Where this model has no figures for it, in words alone.
    """
    trim = trim_now(build, judgement)
    effect = effect_of(trim, check, check.error, check.doubt)
    edge = effect_of(trim, check, check.tolerance, 0.0)
    if effect is None or edge is None:
        return in_the_air(check)
    told = "" if check.doubt > check.tolerance else f"{effect_sentence(effect, unit)} "
    return f"{told}{edge_sentence(edge, unit)}"


def _known(check: Check, unit: LengthUnit) -> str:
    """The value, or how far off it may be where that is all there is to say."""
    return format_doubt(check, unit) if check.doubt > check.tolerance else format_value(check, unit)


def reading_rows(
    build: Build,
    judgement: Judgement,
    wanted: tuple[Reading, ...],
    unit: LengthUnit,
    first: str = "",
) -> tuple[ReadingRow, ...]:
    """Readings taken, in their order, and after them a few worth taking; those on the part in hand in front."""
    outliers = {suspect.reading for suspect in judgement.outliers}
    gone = {reading for lock in judgement.moved for reading in lock.before}
    alike = {other for suspect in judgement.outliers for other in suspect.alike}
    rows = [
        ReadingRow(
            id=reading.id,
            what=reading_name(build.surveyed, reading),
            value=format_reading(build.surveyed, reading, unit),
            residual=format_residual(build.surveyed, reading, fit, unit),
            note=BEFORE_IT_MOVED
            if reading.id in gone
            else _note(build.surveyed, reading, fit, outliers, alike, unit),
            state="doubtful"
            if reading.id in outliers
            else "ignored"
            if reading.ignored or reading.id in gone
            else "fits",
        )
        for reading, fit in zip(judgement.readings, judgement.fits, strict=True)
    ]
    if first:
        mine = {one.id for one in judgement.readings if first in bodies_of(build.surveyed, one)}
        rows.sort(key=lambda row: row.id not in mine)
    for i, reading in enumerate(wanted):
        what = reading_name(build.surveyed, reading)
        rows.append(ReadingRow(f"{WANTED}{i}", what, "", "", say.WORTH_TAKING_NOTE, "wanted"))
    return tuple(rows)


def wanted_readings(judgement: Judgement) -> tuple[Reading, ...]:
    """A few readings that together would settle what is not yet known."""
    held = tuple(r for r, fit in zip(judgement.readings, judgement.fits, strict=True) if fit.used)
    return plan(
        judgement.net, judgement.solution, judgement.rules, held, _MOST_WANTED, judgement.pool
    )


def still_there(survey: Survey, wanted: tuple[Reading, ...]) -> tuple[Reading, ...]:
    """Of a list made for another state of the build, what can still be taken."""
    marks, bodies = {mark.id for mark in survey.marks}, {body.id for body in survey.bodies}
    return tuple(
        reading
        for reading in wanted
        if set(marks_of(reading)) <= marks
        and (reading.kind != "incidence" or reading.body in bodies)
    )


def _note(
    survey: Survey,
    reading: Reading,
    fit: Fit,
    outliers: set[str],
    alike: set[str],
    unit: LengthUnit,
) -> str:
    if reading.id in outliers:
        return say.DOES_NOT_FIT
    if reading.simulated:
        return "simulated" if fit.used else say.SIMULATED_APART
    if reading.ignored:
        return say.KEPT_NOT_USED
    if reading.id in alike:
        return say.MAY_BE_WRONG
    if fit.noticed_from == float("inf"):
        return say.NOTHING_CHECKS
    if fit.noticed_from > _WEAK * sigma_of(reading):
        angular = in_degrees(survey, reading)
        least = as_shown(survey, reading, fit.noticed_from)
        amount = format_angle(least, 1) if angular else format_length(least, unit)
        return say.unnoticed(amount)
    return ""


def callouts(build: Build, judgement: Judgement, unit: LengthUnit) -> tuple[Callout, ...]:
    """Words beside what is out, in the view where it is seen."""
    seen: set[tuple[str, str]] = set()
    found = []
    for check in judgement.checks:
        view, body = view_of_check(check.kind), judgement.charged[check.id][0]
        if check.verdict == "out" and (view, body) not in seen:
            seen.add((view, body))
            found.append(Callout(view, body, way_off(build.surveyed, check, unit)))
    return tuple(found)


def seat_shown(
    build: Build, judgement: Judgement, body: str, way: WayName, unit: LengthUnit
) -> SeatShown | None:
    """What to do at one body's seat; ``None`` for a body without contacts."""
    correction = next((c for c in judgement.corrections if c.body == body), None)
    if correction is None:
        return None
    again = measured_again(build.log, body)
    advice = seat_advice(build.surveyed, judgement, correction, way, unit, insisted=again)
    return SeatShown(
        title=advice.title,
        do=advice.do or (advice.then,),
        then=advice.then if advice.needed else "",
        caution=advice.caution,
        way=way,
        needed=advice.needed,
        fitted=correction.fitted is not None or not advice.chosen,
        kind=_seat_kind(build.surveyed, body),
        done=say.done_tip(body_name(build.surveyed, body)),
        at_corners=rests_at_corners(build, body),
        ready=advice.ready,
        at_limit=not any(check.verdict == "out" for check in judgement.checks_on(body)),
    )


def gaps_shown(
    survey: Survey, judgement: Judgement, body: str
) -> tuple[tuple[GapRead, ...], tuple[RootGaps, ...]] | None:
    """The gaps at one body's roots and their cure; ``None`` where no panel comes to the fuselage side."""
    found = survey.body(body)
    if found is None or found.seat is None:
        return None
    if found.seat.kind not in WITH_GAPS and not found.seat.gaps:
        return None
    return found.seat.gaps, root_gaps(found, judgement.check(f"{body}_yaw"))


def _seat_kind(survey: Survey, body: str) -> SeatKind:
    found = survey.body(body)
    return found.seat.kind if found is not None and found.seat is not None else "saddle"


def body_to_correct(judgement: Judgement, chosen: str, stage: str = "") -> str:
    """The body whose seat is shown: the one of the stage in hand, or the picked one, else the worst.

    At a stage no other is shown: what to do there never stands over what to do elsewhere.
    """
    bodies = [c.body for c in judgement.corrections]
    if stage:
        return stage if stage in bodies else ""
    if chosen in bodies:
        return chosen
    if judgement.culprit in bodies:
        return judgement.culprit
    for verdict in _WORST_FIRST:
        for check in judgement.checks:
            if check.verdict == verdict and check.body in bodies:
                return check.body
    return ""


_ACTIONS: Final = {
    "describe": say.DESCRIBE_THE_MODEL,
    "lock": LOCK,
    "moved": UNLOCK,
    "on": say.GO_ON,
    "sight": LOOK_AGAIN,
}


def next_shown(survey: Survey, step: NextStep, unit: LengthUnit) -> NextShown:
    """The next step as the card shows it."""
    reading = step.reading
    eyebrow = {
        "again": say.TAKE_AGAIN,
        "reading": say.NEXT_READING,
        "first": say.FIRST_READING,
        "correct": say.NEXT,
        "glue": say.NEXT,
        "describe": say.START_HERE,
        "lock": say.NEXT,
        "on": say.NEXT,
        "sight": say.TAKE_AGAIN,
        "moved": say.NEXT,
    }[step.kind]
    if reading is not None:
        eyebrow += f" · {tool_name(survey, reading)}"
    return NextShown(
        eyebrow=eyebrow,
        title=step.title,
        why=step.why,
        edge="out" if step.kind in ("again", "sight", "moved") else "act",
        takes=reading is not None,
        angular=reading is not None and in_degrees(survey, reading),
        unit=unit,
        tool=reading.kind if reading is not None else "",
        action=_ACTIONS.get(step.kind, ""),
    )


def draft_shown(survey: Survey, draft: Draft, unit: LengthUnit) -> NextShown:
    """A reading in the making as the card shows it."""
    reading = with_own_tool(survey, draft)
    if reading is not None:
        return NextShown(
            eyebrow=say.your_reading(tool_name(survey, reading)),
            title=sentence_case(reading_name(survey, reading)),
            why=say.ENTER_OR_PUT_DOWN,
            takes=True,
            angular=in_degrees(survey, reading),
            unit=unit,
            tool=draft.kind,
        )
    tool = own_tool(survey, draft)
    held = TOOLS[draft.kind] if tool is None else tool.label or INSTRUMENT_NAMES[tool.kind]
    picked = ", ".join(mark_name(survey, mark) for mark in draft.marks)
    return NextShown(
        eyebrow=say.your_reading(held),
        title=sentence_case(picked) + " to …" if picked else say.where_is_it_held(held),
        why=say.ESCAPE_PUTS_DOWN,
        unit=unit,
        draft_hint=_pick_hint(draft),
        tool=draft.kind,
    )


def _pick_hint(draft: Draft) -> str:
    if draft.wants == "body":
        return marked(say.PICK_A_PART)
    count = len(draft.marks)
    words = {
        "distance-difference": (
            say.PICK_THE_PIN,
            say.PICK_THE_FIRST_CORNER,
            say.PICK_THE_OTHER_CORNER,
        ),
        "angle": (say.PICK_THE_FIRST_END, say.PICK_THE_CORNER, say.PICK_THE_OTHER_END),
    }.get(draft.kind, (say.PICK_THE_FIRST_MARK, say.PICK_THE_SECOND_MARK))
    return f"{words[min(count, len(words) - 1)]}."


def moved_words(build: Build, before: Judgement | None, now: Judgement, unit: LengthUnit) -> str:
    """What moved most since the phase before, of what both phases know."""
    if before is None or not now.measured or nothing_read(build.surveyed, now):
        return ""
    tolerance = {check.id: check.tolerance for check in now.checks}
    known = [m for m in movements(before, now) if m.sigma < tolerance[m.check]]
    checks = {check.id: check for check in now.checks}
    moved = [m for m in known if m.noticeable]
    if not known:
        return say.too_little_since(before.phase)
    if not moved:
        return say.nothing_moved_since(before.phase)
    worst = max(moved, key=lambda m: abs(m.moved) / tolerance[m.check])
    what = movement_sentence(build.surveyed, worst, checks[worst.check], unit)
    return say.moved_since(before.phase, what)


def place_names(build: Build, draft: Draft | None) -> list[str]:
    """Names to offer while a place is typed."""
    survey = build.surveyed
    if draft is not None and draft.kind == "incidence":
        bodies = [b.id for b in survey.bodies if b.id != FUSELAGE]
        return [f"{body} {side} 0.5" for body in bodies for side in ("port", "starboard")]
    return [called(mark) for mark in survey.marks if not mark.id.startswith(OWN_TARGET)]
