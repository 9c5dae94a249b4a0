"""Pure edits: each takes a build and gives the next.  The window, the tests and the demo use these.

Every edit raises `BadInput` instead of giving a build that does not hang together.
"""

from collections.abc import Iterable, Mapping
from datetime import datetime

from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.logbook.entries import (
    Entry,
    Figure,
    SeatDone,
    VerdictChange,
    add_entry,
    add_time,
    count_reading,
)
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check
from hardkeel.survey.model import (
    DATUM,
    FUSELAGE,
    BackTo,
    Body,
    Gluing,
    Survey,
    Verdict,
    bodies_of,
)
from hardkeel.survey.reaching import error_at_reach_mm
from hardkeel.survey.readings import Phase, Reading
from hardkeel.survey.roles import main_of, trimming
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.soundness import check_survey

_HOLDS_WHAT = "say first what the glue holds"
LONGEST_POT_LIFE = 24 * 60.0  # minutes: a laminating resin in a cool shed


@edit
def with_survey(build: Build, survey: Survey) -> Build:
    """The build with another survey, checked."""
    check_survey(survey)
    return build.but(survey=survey)  # see Value.but


def free_reading_id(survey: Survey) -> str:
    """The next unused id of the form r12."""
    used = {reading.id for reading in survey.readings}
    number = len(survey.readings) + 1
    while f"r{number}" in used:
        number += 1
    return f"r{number}"


@edit
def take_reading(build: Build, reading: Reading, now: datetime) -> Build:
    """Add a reading with a new id, the time, and a line in the log."""
    survey = build.surveyed
    named = reading.but(id=free_reading_id(survey), taken=now.isoformat(timespec="seconds"))
    taken = with_survey(build, survey.but(readings=(*survey.readings, named)))
    figure = Figure(id=named.id, value=named.value, unit="deg" if named.angular else "mm")
    return taken.but(log=count_reading(build.log, now, named.phase, figure))


@edit
def take_again(
    build: Build, reading_id: str, value: float, now: datetime, *, simulated: bool = False
) -> Build:
    """Take a reading anew: the old one is kept, ignored; the new one stands in its place."""
    survey = build.surveyed
    old = _reading(survey, reading_id)
    kept = build.but(survey=_with_replaced(survey, old.but(ignored=True)))
    return take_reading(kept, marked(old.but(value=value, ignored=False), simulated=simulated), now)


def marked(reading: Reading, *, simulated: bool) -> Reading:
    """A reading that says whether a stand-in gauge made it up."""
    return reading if reading.simulated == simulated else reading.but(simulated=simulated)


@edit
def change_value(build: Build, reading_id: str, value: float) -> Build:
    """Put a slip of the pen right."""
    return replace_reading(build, _reading(build.surveyed, reading_id).but(value=value))


@edit
def set_ignored(build: Build, reading_id: str, *, ignored: bool) -> Build:
    """Keep a reading but do not use it, or use it again."""
    return replace_reading(build, _reading(build.surveyed, reading_id).but(ignored=ignored))


@edit
def replace_reading(build: Build, changed: Reading) -> Build:
    """Put a reading in the place of the one with its id."""
    return with_survey(build, _with_replaced(build.surveyed, changed))


def _with_replaced(survey: Survey, changed: Reading) -> Survey:
    _reading(survey, changed.id)
    readings = tuple(changed if r.id == changed.id else r for r in survey.readings)
    return survey.but(readings=readings)


@edit
def delete_reading(build: Build, reading_id: str) -> Build:
    """Strike a reading out for good."""
    survey = build.surveyed
    _reading(survey, reading_id)
    readings = tuple(r for r in survey.readings if r.id != reading_id)
    return with_survey(build, survey.but(readings=readings))


@edit
def set_aim(build: Build, body: str, aim: str) -> Build:
    """Say what a body is to be true to: another as it stands, or the datum.

    Raises
    ------
    BadInput
        When there is no such body.
    """
    aims = {name: other for name, other in (build.surveyed.aim or {}).items() if name != body}
    if aim != DATUM:
        aims[body] = aim
    return with_survey(build, build.surveyed.but(aim=aims or None))


@edit
def aim_tail(build: Build, *, at_wing: bool) -> Build:
    """Say that what trims the wing is to be true to it as it stands, or to the datum."""
    survey = build.surveyed
    wing = main_of(survey, "wing")
    for one in trimming(survey):
        build = set_aim(build, one.id, wing.id if at_wing and wing is not None else DATUM)
    return build


@edit
def set_locked(
    build: Build, body: str, *, locked: bool, now: datetime, before: Iterable[str] = ()
) -> Build:
    """Say that a body is glued and moves no more since now, or that it may be moved again.

    With the wing glued the stabilizer is to be true to it as it stands.

    Parameters
    ----------
    before : iterable of str
        Ids of readings from before it moved: they are kept, ignored.

    Raises
    ------
    BadInput
        When there is no such body.
    """
    survey = build.surveyed
    others = tuple(one for one in survey.locked if one != body)
    dates = {name: at for name, at in (survey.locked_at or {}).items() if name != body}
    if locked:
        dates[body] = now.isoformat(timespec="seconds")
    gone = set(before)
    readings = tuple(r.but(ignored=True) if r.id in gone else r for r in survey.readings)
    changed = with_survey(
        build,
        survey.but(
            locked=(*others, body) if locked else others,
            locked_at=dates or None,
            readings=readings if gone else survey.readings,
        ),
    )
    wing = main_of(survey, "wing")
    if wing is None or body != wing.id or any(one.id in survey.locked for one in trimming(survey)):
        return changed
    return aim_tail(changed, at_wing=locked)


@edit
def set_gluing(build: Build, body: str) -> Build:
    """Say which body the glue holds; nothing with an empty name.

    Raises
    ------
    BadInput
        When there is none of that id.
    """
    survey = build.surveyed
    if body and (survey.body(body) is None or body == FUSELAGE):
        raise BadInput("", f"there is no “{body}” to glue")
    return build.but(survey=survey.but(gluing=Gluing(body=body) if body else None))


@edit
def set_back_to(build: Build, back_to: BackTo) -> Build:
    """Say whether what moves while the glue is wet is brought back to how it stood dry, or to true.

    Raises
    ------
    BadInput
        When nothing is being glued.
    """
    gluing = build.surveyed.gluing
    if gluing is None:
        raise BadInput("", _HOLDS_WHAT)
    return build.but(survey=build.surveyed.but(gluing=gluing.but(back_to=back_to)))


@edit
def set_mixed(build: Build, minutes: float | None, now: datetime) -> Build:
    """The glue is mixed now and can be worked for so many minutes; without minutes it is not mixed after all.

    Raises
    ------
    BadInput
        When nothing is being glued, or the minutes are no time to glue in.
    """
    gluing = build.surveyed.gluing
    if gluing is None:
        raise BadInput("", _HOLDS_WHAT)
    if minutes is not None and not 1 <= minutes <= LONGEST_POT_LIFE:
        raise BadInput("pot life", f"{minutes:g} minutes is no pot life")
    mixed = now.isoformat(timespec="seconds") if minutes is not None else None
    changed = gluing.but(mixed=mixed, pot_life=minutes)
    return build.but(survey=build.surveyed.but(gluing=changed))


@edit
def set_phase(build: Build, phase: Phase) -> Build:
    """Go on to another phase."""
    return build.but(phase=phase)


@edit
def rename(build: Build, name: str) -> Build:
    """Give the build another name."""
    return build.but(name=name.strip())


@edit
def set_tolerance(build: Build, check_id: str, tolerance: float | None) -> Build:
    """Set the builder's own tolerance for a check (degrees or mm), or go back to the default."""
    survey = build.surveyed
    own = dict(survey.tolerances or {})
    own.pop(check_id, None)
    if tolerance is not None:
        if not tolerance > 0:
            raise BadInput(f"survey.tolerances.{check_id}", "a tolerance must be more than 0")
        own[check_id] = tolerance
    return with_survey(build, survey.but(tolerances=own))


@edit
def correction_done(
    build: Build, body: str, phase: Phase | None, steps: Iterable[SeatStep], now: datetime
) -> Build:
    """Note that a seat was corrected: readings that the body's place entered no longer hold.

    They are kept, ignored, so that the next ones are not mixed with how it stood before.  The gaps at its root are
    others now.
    """
    survey = build.surveyed
    readings = tuple(
        r.but(ignored=True) if phase in (None, r.phase) and body in bodies_of(survey, r) else r
        for r in survey.readings
    )
    entry = Entry(
        at=now.isoformat(timespec="seconds"),
        by="app",
        kind="correction",
        phase=phase,
        seat=SeatDone(body=body, steps=tuple(steps)),
    )
    bodies = tuple(_without_gaps(one) if one.id == body else one for one in survey.bodies)
    changed = with_survey(build, survey.but(readings=readings, bodies=bodies))
    return changed.but(log=add_entry(build.log, entry))


def _without_gaps(body: Body) -> Body:
    if body.seat is None or not body.seat.gaps:
        return body
    return body.but(seat=body.seat.but(gaps=()))


@edit
def add_note(build: Build, text: str, now: datetime, photos: Iterable[str] = ()) -> Build:
    """Write a line in the log, with photos where there are any."""
    shown = tuple(photos)
    if not text.strip() and not shown:
        raise BadInput("log", "an empty note says nothing")
    entry = Entry(
        at=now.isoformat(timespec="seconds"),
        by="builder",
        kind="note",
        text=text.strip(),
        phase=build.phase,
        photos=shown,
    )
    return build.but(log=add_entry(build.log, entry))


@edit
def log_hours(build: Build, day: str, hours: float, note: str | None = None) -> Build:
    """Add time at the bench to a day."""
    return build.but(sessions=add_time(build.sessions, day, hours, note))


@edit
def log_verdicts(
    build: Build, was: Mapping[str, Verdict], checks: Iterable[Check], now: datetime
) -> Build:
    """Write in the log which checks came to another verdict than they had.

    Parameters
    ----------
    was : mapping of str to Verdict
        By check id; a check that is not in it is new, and no change.
    """
    log, survey = build.log, build.surveyed
    for check in checks:
        before = was.get(check.id, check.verdict)
        if before == check.verdict:
            continue
        change = VerdictChange(
            check=check.id,
            kind=check.kind,
            body=check.body,
            was=before,
            now=check.verdict,
            error=check.error,
            reach=error_at_reach_mm(survey, check),
        )
        entry = Entry(
            at=now.isoformat(timespec="seconds"),
            by="app",
            kind="verdict",
            phase=build.phase,
            verdict=change,
        )
        log = add_entry(log, entry)
    return build if log == build.log else build.but(log=log)


def _reading(survey: Survey, reading_id: str) -> Reading:
    found = survey.reading(reading_id)
    if found is None:
        raise BadInput("survey.readings", f'no reading "{reading_id}"')
    return found
