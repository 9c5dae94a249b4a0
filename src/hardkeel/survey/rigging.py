"""The stages of rigging: what is trued after what, how far each is, and where the work stands."""

from collections import Counter
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.survey.alternatives import Alternative
from hardkeel.survey.candidates import available_in, tied_to
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.judging import Asking, Judgement, again_of, next_readings
from hardkeel.survey.lock_watch import LockWatch, Seen, check_of_locked, telling
from hardkeel.survey.model import FUSELAGE, RUDDER, Body, Survey
from hardkeel.survey.proposing import tools_of
from hardkeel.survey.ranking import NextReading, rank
from hardkeel.survey.readings import Reading, counted, place_of
from hardkeel.survey.roles import is_aside, is_panel, role_of, turn_of, with_role
from hardkeel.survey.stories import to_take_again, told_apart

RigState = Literal["moved", "locked", "true", "edge", "out", "open"]

_LEVEL_KNOWN: Final = 0.2  # degrees: 1 sigma of the bench, less than any tolerance of a level
_BY_GRAVITY: Final = frozenset({"level", "height-stand"})  # without them the bench plays no part
_ODD: Final = 2.0  # sigmas: worth a second look where it may tell of a push
_TWICE: Final = 2
_AFTER: Final = 0.5  # of a turn: once the fin stands, before the engine
_TEE_SHARE: Final = 0.5  # of the fin's height: a stabilizer that sits above it stands on the fin


@dataclass(frozen=True, slots=True)
class RigStage:
    """A stage of rigging.

    Attributes
    ----------
    body : str
        What is set; the fuselage's own stage is that it stands level.
    state : str
        ``moved``: it does not stand as it did when it was locked; ``locked``: glued, it moves no more; ``true``: all of its checks are; ``edge``: all is known, and some of it
        lies at the limit; ``out``; ``open``.
    current : bool
        Where the work stands: the first that is neither locked nor known to be within its limits.
    """

    body: str
    state: RigState
    current: bool


def rigging_order(survey: Survey) -> tuple[str, ...]:
    """Bodies in the order in which they are set: the lower wing first, each on what it stands on.

    The fin comes before a stabilizer that stands on it, a wing's middle before the panels that come off it.
    """
    bodies = [body for body in survey.bodies if body.id != FUSELAGE]
    fins = with_role(survey, "fin")
    return tuple(
        body.id
        for body in sorted(
            bodies, key=lambda body: (_turn(survey, body, fins), body.origin[2], body.origin[1])
        )
    )


def _turn(survey: Survey, body: Body, fins: tuple[Body, ...]) -> float:
    if is_aside(survey, body):
        return turn_of("thrust") + _AFTER
    if is_panel(body):
        return turn_of("wing") + _AFTER
    on_fin = role_of(body) == "stabilizer" and any(stands_on(body, fin) for fin in fins)
    return turn_of("fin") + _AFTER if on_fin else float(turn_of(role_of(body)))


def stands_on(body: Body, fin: Body) -> bool:
    """Whether a surface sits on a fin: above the middle of it."""
    return bool(fin.span) and body.origin[2] > fin.origin[2] + _TEE_SHARE * (fin.span or 0.0)


def rig_stages(judgement: Judgement, *, rudder: bool = False) -> tuple[RigStage, ...]:
    """All stages, the fuselage's first and the rudder's last where there is one; none before there is anything to set."""
    survey = judgement.net.survey
    order = rigging_order(survey)
    if not order:
        return ()
    states: list[tuple[str, RigState]] = []
    if _BY_GRAVITY & {tool.kind for tool in tools_of(survey)}:
        states.append((FUSELAGE, _level(judgement)))
    states += [(body, _state(judgement, body)) for body in order]
    if rudder:
        states.append((RUDDER, "locked" if RUDDER in survey.locked else "open"))
    done = ("locked", "true", "edge")
    current = next((body for body, state in states if state not in done), "")
    return tuple(RigStage(body, state, body == current) for body, state in states)


def next_on_stage(judgement: Judgement, body: str) -> tuple[NextReading, ...]:
    """The best readings for the stage in hand; none where all of it is known or lies at the edge.

    They are held from what is on the model by then: the fuselage, the stages before, what is glued.
    """
    taken = counted(judgement.readings)
    if body != FUSELAGE:
        survey = judgement.net.survey
        mine = tuple(check for check in judgement.checks if check.body == body)
        order = rigging_order(survey)
        there = {FUSELAGE, *order[: order.index(body) + 1], *survey.locked}
        return next_readings(
            judgement.pool,
            judgement.solution,
            taken,
            judgement.rules,
            mine,
            Asking(lambda available: tied_to(available, survey, there), again_of(judgement)),
        )
    if _level(judgement) == "true":
        return ()
    available = available_in(judgement.pool, judgement.solution, taken)
    for rule in sorted(_level_rules(judgement), key=lambda one: -_sigma(judgement, one)):
        if _sigma(judgement, rule) > _LEVEL_KNOWN and (
            found := rank(available, judgement.solution, rule)
        ):
            return found
    return ()


def deciding(judgement: Judgement, alternative: Alternative) -> tuple[str, ...]:
    """Readings that the story of the estimate and this one take differently: to be taken again."""
    aside = [suspect.reading for suspect in judgement.outliers]
    return told_apart(alternative, aside, (*judgement.readings, *judgement.sightings))


def decides_on_stage(judgement: Judgement, body: str) -> Reading | None:
    """A reading to take once more, on which a verdict of the stage in hand hangs; the one read least so far.

    ``None`` where no verdict hangs on one, or each was read as often as tells anything.
    """
    aside = [suspect.reading for suspect in judgement.outliers]
    taken = counted(judgement.readings)
    for check in judgement.checks:
        if check.body == body and check.verdict == "unsure":
            found = to_take_again(check, judgement.alternatives, aside, taken)
            if found:
                return found[0]
    return None


def in_question(judgement: Judgement, body: str) -> tuple[LockWatch, Reading] | None:
    """A lock that may not hold, and the reading that tells best whether it does.

    What was read of it and does not fit is read once more beside it, before it is taken to be bad.
    """
    survey = judgement.net.survey
    watch = next((one for one in judgement.locks if one.asks), None)
    if watch is None:
        return _read_once(judgement)
    order = rigging_order(survey)
    upto = order[: order.index(body) + 1] if body in order else order if not body else ()
    there = {FUSELAGE, *upto, *survey.locked}
    found = telling(_seen(judgement), [watch], there)
    return (watch, found) if found is not None else None


def _read_once(judgement: Judgement) -> tuple[LockWatch, Reading] | None:
    """What was read once or not at all since a lock, and does not fit: read beside it, not in its place.

    A reading from before the lock that is taken again is one of how it stands now; both are wanted.
    """
    taken = counted(judgement.readings)
    outliers = {suspect.reading for suspect in judgement.outliers}
    w = {fit.id: fit.w for fit in judgement.fits}
    for watch in judgement.locks:
        times = Counter(place_of(one) for one in taken if one.id in watch.read)
        mine = {*watch.read, *watch.before}
        for one in taken:
            odd = one.id in outliers or (one.id in watch.read and w.get(one.id, 0.0) > _ODD)
            if odd and one.id in mine and times[place_of(one)] < _TWICE:
                return watch, one
    return None


def _seen(judgement: Judgement) -> Seen:
    return Seen(judgement.net, judgement.pool, judgement.solution, counted(judgement.readings))


def ends_stage(judgement: Judgement, body: str) -> Reading | None:
    """A reading of what is locked, before this body is; ``None`` where enough was read since the last was locked."""
    survey = judgement.net.survey
    return check_of_locked(
        _seen(judgement),
        judgement.locks,
        last_stage={one.id for one in survey.bodies} - {FUSELAGE, body} <= set(survey.locked),
    )


def _level_rules(judgement: Judgement) -> tuple[CheckRule, CheckRule]:
    """How the bench stands, as if it were checked: along, and across."""
    columns = judgement.net.columns
    made = []
    for i in range(2):
        slope = np.zeros(columns.size)
        slope[columns.bench + i] = 1.0
        made.append(CheckRule("level", "level", FUSELAGE, "deg", 0.0, 4 * _LEVEL_KNOWN, 0.0, slope))
    return made[0], made[1]


def _sigma(judgement: Judgement, rule: CheckRule) -> float:
    return float(np.sqrt(rule.slope @ judgement.solution.covariance @ rule.slope))


def _level(judgement: Judgement) -> RigState:
    """Whether it is known how the fuselage stands on the board."""
    at = judgement.net.columns.bench
    sigma = np.sqrt(np.diag(judgement.solution.covariance)[at : at + 2])
    return "true" if float(sigma.max()) <= _LEVEL_KNOWN else "open"


def _state(judgement: Judgement, body: str) -> RigState:
    if any(one.body == body for one in judgement.moved):
        return "moved"
    if body in judgement.net.survey.locked:
        return "locked"
    mine = judgement.checks_on(body)
    if any(check.verdict == "out" for check in mine):
        return "out"
    if judgement.hangs_on(body):
        return "open"
    if mine and all(check.verdict == "true" or check.edge for check in mine):
        return "edge" if any(check.edge for check in mine) else "true"
    return "open"
