"""A lock is a claim with a date: whether what was glued still stands as it did when it was locked.

That a locked body moved is a story like that of bad readings, and told against it: all readings since the lock that
touch the body share six causes, its shifts and turns since then (`likelihoods.explained`).
"""

import math
from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.candidates import (
    Available,
    CandidatePool,
    available_again,
    available_in,
    tied_to,
)
from hardkeel.survey.columns import POSE, SHIFTS, Columns
from hardkeel.survey.gluing import Moved
from hardkeel.survey.handiness import handiest
from hardkeel.survey.likelihoods import Told, explained, stories_of
from hardkeel.survey.model import FUSELAGE, Survey, bodies_of, is_since
from hardkeel.survey.network import Network
from hardkeel.survey.readings import Observation, Reading

_MOVES: Final = math.log(0.02 / 0.98)  # one locked body in fifty is pushed
_PUSH: Final = np.array([0.7 if name in SHIFTS else 0.8 for name in POSE])  # mm, degrees: 1 sigma
# a push seldom turns all ways at once, and what it did not turn must not speak against it
_WAYS: Final = (("roll",), ("pitch",), ("yaw",), SHIFTS, POSE)
_NAMED_AT: Final = math.log(20.0)
_FEWEST: Final = 2  # readings since the lock: one alone may itself be bad
_LIKELY: Final = math.log(0.03)  # enough to be told beside a bad reading
_IN_QUESTION: Final = math.log(0.1)
_TELLS: Final = 1.0  # what a push would do to a reading, over what it errs by, squared
_STILL: Final = 0.3  # the same, where one after the other is taken
_HIDES_DEG: Final = 0.2  # 1 sigma of a turn that could still hide


@dataclass(frozen=True, slots=True)
class LockWatch:
    """What is known of a body since it was locked.

    Attributes
    ----------
    since : str
        When it was locked, ISO time.
    read, before : tuple of str
        Ids of the readings in use that touch it, taken since then, and earlier.
    log_odds : float
        That it moved, against the best story of bad readings alone.
    pose : Array
        Shape (6,): how it stands less how it stood; mm and degrees, in the order of `POSE`.
    sigma : Array
        Shape (6,): of that, where it was pushed only the likeliest way.
    spread : Array
        Shape (6, 6): the covariance where it may have been pushed in every way.
    moved : bool
        It does not stand as it did: nothing else tells what was read since.
    rivals : tuple of str
        Readings from before the lock that may be bad instead; none where it certainly moved.
    asks : bool
        Not to be told from a bad reading yet.
    """

    body: str
    since: str
    read: tuple[str, ...]
    before: tuple[str, ...]
    log_odds: float
    pose: Array
    sigma: Array
    spread: Array
    moved: bool = False
    rivals: tuple[str, ...] = ()
    asks: bool = False

    @property
    def parts(self) -> tuple[Moved, ...]:
        """The same, one by one."""
        values = zip(POSE, self.pose.tolist(), self.sigma.tolist(), strict=True)
        return tuple(Moved(name, value, sigma) for name, value, sigma in values)


def watched(
    net: Network, told: Told | None, readings: Sequence[Observation], known: Collection[str] = ()
) -> tuple[LockWatch, ...]:
    """Every body that is locked and says since when, the likeliest to have moved first.

    Parameters
    ----------
    readings : sequence of Reading
        All that are not ignored.
    known : collection of str
        Bodies that are known to have moved: not looked at again.
    """
    dates = net.survey.locked_at or {}
    mine = [body for body in net.survey.locked if body in dates and body in net.columns.start]
    found = [_watch(net, told, readings, one, dates[one]) for one in mine if one not in known]
    found.sort(key=lambda one: -one.log_odds)
    if not found or told is None:
        return tuple(found)
    first, rest = found[0], found[1:]
    others = max((one.log_odds for one in rest), default=-math.inf)
    surely = first.log_odds > _NAMED_AT and first.log_odds > others + _NAMED_AT
    # in all that is likely it moved, or the same readings from before are bad
    rivals = () if surely or others > -_NAMED_AT else _rivals(told, first)
    moved = len(first.read) >= _FEWEST and (surely or bool(rivals))
    named = replace(first, moved=moved, rivals=rivals)
    return tuple(
        replace(one, asks=not one.moved and one.log_odds > _IN_QUESTION) for one in (named, *rest)
    )


def _rivals(told: Told, watch: LockWatch) -> tuple[str, ...]:
    """What was read before the lock and must be bad if the body did not move; none where a later one may be.

    Either way it does not stand as it was thought to when it was locked.
    """
    if watch.log_odds < _LIKELY:
        return ()
    ids = [one.id for one in told.readings]
    best = max(told.stories, key=lambda one: one.score)
    bad = {ids[i] for i in best.bad} & set(watch.before)
    for story in told.stories:
        if story.score > best.score - _NAMED_AT and not {ids[i] for i in story.bad} >= bad:
            return ()
    return tuple(sorted(bad))


def _watch(
    net: Network, told: Told | None, readings: Sequence[Observation], body: str, since: str
) -> LockWatch:
    touching = [one for one in readings if body in bodies_of(net.survey, one)]
    read = {one.id for one in touching if is_since(since, one.taken)}
    before = tuple(one.id for one in touching if one.id not in read)
    odds, pose, sigma = -math.inf, np.zeros(len(POSE)), np.zeros(len(POSE))
    spread = np.diag(np.square(_PUSH))
    if told is not None and read:
        by = np.zeros((len(told.linear.e), len(POSE)))
        for number, one in enumerate(told.readings):
            if one.id in read:
                rows = list(told.linear.rows[number])
                by[rows] = told.linear.a[rows][:, _pose_of(net.columns, body)]
        odds, pose, sigma, spread = _told(told, by)
    mine = tuple(one.id for one in touching if one.id in read)
    return LockWatch(body, since, mine, before, odds, pose, sigma, spread)


def _told(told: Told, by: Array) -> tuple[float, Array, Array, Array]:
    """The log odds of a push, the likeliest one with its sigma, and the covariance of one in every way."""
    scores, best = [], -math.inf
    pose, sigma, spread = np.zeros(len(POSE)), np.zeros(len(POSE)), np.zeros((len(POSE),) * 2)
    for names in _WAYS:
        free = [POSE.index(name) for name in names]
        prior = np.diag(np.square(_PUSH[free]))
        left, score, causes, covariance = explained(told.linear, by[:, free], prior)
        score += max(story.score for story in stories_of(left, ()))
        scores.append(score)
        if score > best:
            best, pose, sigma = score, np.zeros(len(POSE)), np.zeros(len(POSE))
            pose[free], sigma[free] = causes, np.sqrt(np.diag(covariance))
        if len(names) == len(POSE):
            spread = covariance
    together = float(np.logaddexp.reduce(scores)) - math.log(len(scores))
    return _MOVES + together - told.best, pose, sigma, spread


def _pose_of(columns: Columns, body: str) -> slice:
    start = columns.start[body]
    return slice(start, start + len(POSE))


@dataclass(frozen=True, slots=True)
class Seen:
    """An estimate, and what can still be read to better it."""

    net: Network
    pool: CandidatePool
    solution: Solution
    taken: tuple[Reading, ...]


def telling(
    seen: Seen,
    watches: Sequence[LockWatch],
    there: Collection[str],
    least: float = _TELLS,
) -> Reading | None:
    """The reading that tells best whether bodies stand as they did when they were locked; ``None`` where none does.

    Its value is what the estimate expects.  Of a lock in question it is one that the move would show in, else one
    that sees what has not been looked at yet.

    Parameters
    ----------
    there : collection of str
        Bodies that it may touch.
    least : float
        What it must tell: the square of what a move would do to it, over what it errs by.
    """
    available = [
        tied_to(offered, seen.net.survey, there)
        for offered in (
            available_in(seen.pool, seen.solution, seen.taken),
            available_again(seen.pool, seen.solution, seen.taken),
        )
    ]
    best: tuple[float, Reading] | None = None
    for one in available:
        tells = _tells(one, seen, watches)
        if not len(tells):
            continue
        at = handiest(1.0 / np.sqrt(1.0 + tells), one.efforts, one.nearly)[0]
        if tells[at] >= least and (best is None or tells[at] > best[0]):
            reading = one.readings[at].but(value=float(one.expected[at]))
            best = (float(tells[at]), reading)
    return best[1] if best is not None else None


def _tells(available: Available, seen: Seen, watches: Sequence[LockWatch]) -> Array:
    """What a move would do to each, squared, over what it would err by; shape (c,)."""
    rows = available.rows
    felt = np.zeros(len(rows))
    noise = available.noise + np.sum((rows @ seen.solution.covariance) * rows, axis=1)
    for one in watches:
        pose = rows[:, _pose_of(seen.net.columns, one.body)]
        unseen = np.sum((pose @ one.spread) * pose, axis=1)
        if one.asks:
            felt += (pose @ one.pose) ** 2
            noise += unseen
        else:
            felt += unseen
    tells: Array = felt / noise
    return tells


def check_of_locked(
    seen: Seen, watches: Sequence[LockWatch], *, last_stage: bool
) -> Reading | None:
    """A reading of what is locked, which ends a stage; ``None`` where that was taken, or none would tell.

    One ends each stage: it touches nothing but the fuselage and what is locked, and is taken since anything was
    locked last.  The last stage ends with all that a push would still not have been seen in.
    """
    if not watches:
        return None
    survey = seen.net.survey
    there = {FUSELAGE, *(one.body for one in watches)}
    last = max((one.since for one in watches), key=datetime.fromisoformat)
    for one in seen.taken:
        if is_since(last, one.taken) and _tied(survey, one, there):
            hides = [one for one in watches if _hides(one)] if last_stage else []
            return telling(seen, hides, there, _STILL) if hides else None
    return telling(seen, watches, there)


def _hides(watch: LockWatch) -> bool:
    """Whether a push that matters would not have been seen yet."""
    turns = np.sqrt(np.diag(watch.spread))[len(SHIFTS) :]
    return bool(turns.max() > _HIDES_DEG)


def _tied(survey: Survey, reading: Reading, there: Collection[str]) -> bool:
    """Whether a reading is one of a locked body and of nothing that may still be moved."""
    touched = bodies_of(survey, reading)
    return touched <= set(there) and bool(touched - {FUSELAGE})
