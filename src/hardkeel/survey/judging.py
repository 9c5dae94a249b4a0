"""The whole judgement of a survey: adjust, suspect, check, correct, propose."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

import numpy as np

from hardkeel.survey.adjusting import Solution
from hardkeel.survey.alternatives import Alternative, weighed
from hardkeel.survey.attribution import charges_of, culprit_of
from hardkeel.survey.candidates import (
    Available,
    CandidatePool,
    available_again,
    available_in,
    candidate_pool,
)
from hardkeel.survey.checking import Check, CheckRule, judge, rules_of
from hardkeel.survey.correcting import Correction, Together, corrections_of, together_of
from hardkeel.survey.drifting import Drift, drift_of
from hardkeel.survey.gluing import (
    PHASES_WITH_PRIOR,
    Dry,
    Moved,
    dry_of,
    loosened,
    movement_of,
    prior_from,
)
from hardkeel.survey.goodness import Goodness, goodness_of
from hardkeel.survey.likelihoods import Told, told_of
from hardkeel.survey.lock_watch import LockWatch, watched
from hardkeel.survey.model import Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.outliers import (
    NO_STARTS,
    Fit,
    Outlier,
    SightFit,
    Starts,
    fits,
    set_aside,
    sight_fits,
)
from hardkeel.survey.pot_life import still_to_take, worth_repeating
from hardkeel.survey.ranking import NextReading, promised, rank, undecided
from hardkeel.survey.readings import Observation, Phase, Reading, Sight, counted, in_phase
from hardkeel.survey.sharing import keys_in_use
from hardkeel.survey.soundness import check_survey
from hardkeel.survey.stories import asked_again, to_take_again
from hardkeel.survey.toolbox import Why, why_nothing

_BEYOND: Final = 3.0
_LIMITS: Final = 1 / 3  # of a check's variance


Again = Callable[[CheckRule, Check], tuple[NextReading, ...]]


@dataclass(frozen=True)
class Asking:
    """How readings are asked for.

    Attributes
    ----------
    tied : callable
        Leaves of the offers those that can be taken now.
    again : callable
        What decides between the stories of a check that is open only because another is likely.
    """

    tied: Callable[[Available], Available] = lambda available: available
    again: Again = lambda _rule, _check: ()


ANYTHING: Final = Asking()


@dataclass(frozen=True, slots=True)
class SharedFound:
    """What readings share, as it was found: mm or degrees, a share for a stretch; a mark's three shifts.

    Attributes
    ----------
    what, owner : str
        ``gauge`` and its instrument, ``gauge_seat`` and its body, ``mark`` and its id, ``bend_y`` …
    prior : float
        One sigma before anything was read.
    """

    what: str
    owner: str
    value: tuple[float, ...]
    sigma: tuple[float, ...]
    prior: float

    @property
    def found(self) -> bool:
        """Whether it is there beyond doubt: three sigma from nothing."""
        return any(abs(v) > _BEYOND * s for v, s in zip(self.value, self.sigma, strict=True))


@dataclass(frozen=True, slots=True)
class Judgement:
    """Everything the survey says.

    Attributes
    ----------
    phase : Phase or None
        Whose readings were used; ``None`` for all.
    readings : tuple of Reading
        The figures of the phase, used or not, in the order of `fits`.
    sightings : tuple of Sight
        Its marks seen in photos, used or not, in the order of `sight_fits`.
    together : Together or None
        All seats that are out corrected at once.
    repeats : tuple of Reading
        While a body is glued: what to read again within the pot life, in order.
    why : str
        Where nothing is next though checks are open: ``edge``, all that is open is known and lies at the
        limit; else the kind of tool that would help, ``none`` where none would.  Empty otherwise.
    doubts : tuple of Doubt
        Stories of bad readings that turned a verdict, the likeliest first.
    charged : mapping of str to tuple of str
        The bodies that each check is charged to, by the check's id.
    culprit : str
        The body whose correction mends most of what is out; empty where nothing is.
    movement : mapping of str to tuple of Moved
        How each body moved since the dry readings, by its id; empty where this phase leans on none.
    goodness : Goodness
        Whether the readings fit together as well as their tools promise.
    shared : tuple of SharedFound
        What the readings in use have in common, as far as they tell.
    drift : Drift or None
        Where a suspect is one of a gauge's that walks away from its zero.
    locks : tuple of LockWatch
        What is locked since when, and whether it still stands so.
    ended : mapping of tuple of str to Start
        Where each solution on the way ended, by the readings set aside: the next one begins there.
    """

    phase: Phase | None
    net: Network
    solution: Solution
    rules: tuple[CheckRule, ...]
    readings: tuple[Reading, ...]
    fits: tuple[Fit, ...]
    sightings: tuple[Sight, ...]
    sight_fits: tuple[SightFit, ...]
    outliers: tuple[Outlier, ...]
    checks: tuple[Check, ...]
    alternatives: tuple[Alternative, ...]
    corrections: tuple[Correction, ...]
    together: Together | None
    next: tuple[NextReading, ...]
    repeats: tuple[Reading, ...]
    why: Why
    charged: Mapping[str, tuple[str, ...]]
    culprit: str
    ended: Starts
    pool: CandidatePool
    movement: Mapping[str, tuple[Moved, ...]]
    goodness: Goodness
    shared: tuple[SharedFound, ...]
    drift: Drift | None
    locks: tuple[LockWatch, ...]

    @property
    def moved(self) -> tuple[LockWatch, ...]:
        """The bodies that do not stand as they did when they were locked."""
        return tuple(one for one in self.locks if one.moved)

    @property
    def simulated(self) -> bool:
        """Whether all that it rests on was made up by a stand-in gauge."""
        used = counted((*self.readings, *self.sightings))
        return bool(used) and used[0].simulated

    @property
    def measured(self) -> bool:
        """Whether anything was read at all."""
        return bool(self.readings) or any(fit.used for fit in self.sight_fits)

    def limit_of(self, rule: CheckRule) -> tuple[str, str] | None:
        """What of the things that readings share keeps a check from being known better: what, and whose.

        The one that would take most off its variance were it known, (G·C)ₖ² / Cₖₖ; ``None`` where none takes a third.
        """
        covariance = self.solution.covariance
        felt = rule.slope @ covariance
        variance = float(felt @ rule.slope)
        best, most = None, _LIMITS * variance
        for one in self.shared:
            at = self.net.columns.shared[one.what, one.owner]
            span = slice(at, at + len(one.value))
            part = felt[span]
            gain = float(part @ np.linalg.solve(covariance[span, span], part))
            if gain > most:
                best, most = (one.what, one.owner), gain
        return best

    def check(self, check_id: str) -> Check | None:
        """The check with this id."""
        return next((c for c in self.checks if c.id == check_id), None)

    def checks_on(self, body: str) -> tuple[Check, ...]:
        """The checks that speak of a body: its own, and what is out between two and charged to it."""
        return tuple(
            check
            for check in self.checks
            if body in (self.charged[check.id] if check.verdict == "out" else (check.body,))
        )

    def hangs_on(self, body: str) -> str:
        """The body that a check of this one is out by: nothing to mend here, but not true either; empty for none."""
        for check in self.checks:
            charged = self.charged[check.id]
            if check.body == body and check.verdict == "out" and body not in charged:
                return charged[0]
        return ""

    def unknown(self, body: str, name: str) -> float:
        """The estimate of one unknown of a body, mm or degrees; 0 for one it does not have."""
        column = self.net.columns.column(body, name)
        return float(self.solution.unknowns[column]) if column is not None else 0.0


def judge_survey(
    survey: Survey,
    phase: Phase | None = None,
    *,
    near: Judgement | None = None,
    sound: bool = False,
) -> Judgement:
    """Adjust and judge a survey.

    Parameters
    ----------
    near : Judgement, optional
        Of nearly the same survey: what was made ready for it serves again, and the adjustment starts
        from there.  It settles within the same ten-thousandth of a sigma wherever it starts.
    sound : bool
        The survey was checked already.

    Raises
    ------
    BadInput
        When the survey does not hang together or its figures can't be adjusted.
    """
    if not sound:
        check_survey(survey)
    net = network_of(survey, near.net if near is not None else None)
    starts = near.ended if near is not None and near.net.placer is net.placer else NO_STARTS
    pool = near.pool if near is not None and near.pool.serves(net) else candidate_pool(net)
    observed = in_phase(survey.readings, phase)
    dry = _dry(survey, phase, net)
    rules = rules_of(survey, net.columns)
    settled = _settle(net, counted(observed), rules, starts, dry)
    net, solution, outliers = settled.net, settled.solution, settled.outliers
    in_use, held, dry = settled.in_use, settled.held, settled.dry
    taken = tuple(one for one in in_use if not isinstance(one, Sight))
    checks = judge(rules, solution.unknowns, solution.covariance)
    aside = tuple(suspect.reading for suspect in outliers)
    checks, alternatives = weighed(settled.told, checks)
    corrections = corrections_of(net, solution, rules)
    charged = charges_of(
        net.columns, rules, checks, solution.unknowns, solution.covariance, survey.locked
    )
    out = {body for check in checks if check.verdict == "out" for body in charged[check.id]}
    served = _served(survey, dry, checks)
    repeats = _repeats(survey, dry, net)
    next_ = next_readings(
        pool,
        solution,
        taken,
        rules,
        served,
        Asking(again=_again(net, solution, alternatives, aside, in_use)),
    )
    if repeats and (left := still_to_take(repeats, taken)):
        next_ = (*promised(net, solution, left, rules, served), *next_)
    readings = tuple(one for one in observed if not isinstance(one, Sight))
    fitted = fits(net, readings, held, solution)
    sightings = tuple(one for one in observed if isinstance(one, Sight))
    return Judgement(
        phase=phase,
        net=net,
        solution=solution,
        rules=rules,
        readings=readings,
        fits=fitted,
        sightings=sightings,
        sight_fits=sight_fits(net, sightings, held, solution),
        outliers=outliers,
        checks=checks,
        alternatives=alternatives,
        corrections=corrections,
        together=together_of(net, solution, rules, out),
        next=next_,
        repeats=repeats,
        why="" if next_ else why_nothing(net, solution, taken, rules, served),
        charged=charged,
        culprit=culprit_of(checks, charged, corrections, survey.locked),
        ended=settled.ended if dry is None else NO_STARTS,
        pool=pool,
        movement=movement_of(net, dry, solution) if dry is not None else MappingProxyType({}),
        goodness=goodness_of(net, solution, survey.gluing.body if dry and survey.gluing else ""),
        shared=_shared(net, solution, in_use),
        drift=_drift(net, solution, readings, fitted, outliers),
        locks=settled.locks,
    )


@dataclass(frozen=True)
class _Settled:
    """Readings adjusted, with what locked bodies did since they were locked."""

    net: Network
    dry: Dry | None
    in_use: tuple[Observation, ...]
    solution: Solution
    held: tuple[Observation, ...]
    outliers: tuple[Outlier, ...]
    ended: Starts
    told: Told | None
    locks: tuple[LockWatch, ...]


def _settle(
    net: Network,
    in_use: tuple[Observation, ...],
    rules: tuple[CheckRule, ...],
    starts: Starts,
    dry: Dry | None,
) -> _Settled:
    """Adjust; what a locked body showed before it moved is left out, one such body after another."""
    moved: list[LockWatch] = []
    while True:
        if dry is not None:
            dry = loosened(net.columns, dry, [one.body for one in moved])
            net, starts = replace(net, gluing_prior=prior_from(dry)), NO_STARTS
        solution, held, outliers, ended = set_aside(net, in_use, starts)
        aside = tuple(suspect.reading for suspect in outliers)
        asked = rules or net.survey.locked_at
        told = told_of(net, solution, in_use, aside, rules) if asked else None
        locks = watched(net, told, in_use, [one.body for one in moved])
        found = next((one for one in locks if one.moved), None)
        if found is None:
            locks = (*moved, *locks)
            return _Settled(net, dry, in_use, solution, held, outliers, ended, told, locks)
        moved.append(found)
        in_use = tuple(one for one in in_use if one.id not in found.before)


def again_of(judgement: Judgement) -> Again:
    """What decides between the stories of a check of this judgement that is in doubt."""
    aside = [suspect.reading for suspect in judgement.outliers]
    in_use = counted((*judgement.readings, *judgement.sightings))
    return _again(judgement.net, judgement.solution, judgement.alternatives, aside, in_use)


def _again(
    net: Network,
    solution: Solution,
    alternatives: tuple[Alternative, ...],
    aside: Sequence[str],
    readings: Sequence[Observation],
) -> Again:
    """What decides between the stories of a check that is in doubt."""

    def again(rule: CheckRule, check: Check) -> tuple[NextReading, ...]:
        found = to_take_again(check, alternatives, aside, readings)
        return asked_again(net, solution, rule, check, found) if found else ()

    return again


def _drift(
    net: Network,
    solution: Solution,
    readings: tuple[Reading, ...],
    fitted: tuple[Fit, ...],
    outliers: tuple[Outlier, ...],
) -> Drift | None:
    """Looked for only where a reading is to be accused of what its gauge may have done."""
    if not outliers:
        return None
    used = frozenset(fit.id for fit in fitted if fit.used)
    drift = drift_of(net, solution, readings, used)
    accused = {suspect.reading for suspect in outliers}
    return drift if drift is not None and accused & set(drift.readings) else None


def _shared(
    net: Network, solution: Solution, readings: Sequence[Observation]
) -> tuple[SharedFound, ...]:
    prior = {(part.what, part.owner): part for part in net.parts}
    sigma = np.sqrt(np.maximum(np.diag(solution.covariance), 0.0))
    found = []
    for key in keys_in_use(net.columns, readings):
        part = prior[key.what, key.owner]
        at = net.columns.shared[key.what, key.owner]
        span = slice(at, at + part.size)
        values, sigmas = solution.unknowns[span].tolist(), sigma[span].tolist()
        frame = net.columns.frames.get(key.owner) if key.what == "mark" else None
        if frame is not None:  # told along the axes
            values = (frame @ solution.unknowns[span]).tolist()
            turned = frame @ solution.covariance[span, span] @ frame.T
            sigmas = np.sqrt(np.maximum(np.diag(turned), 0.0)).tolist()
        found.append(SharedFound(key.what, key.owner, tuple(values), tuple(sigmas), part.sigma))
    return tuple(found)


def _repeats(survey: Survey, dry: Dry | None, net: Network) -> tuple[Reading, ...]:
    """What to read again while the glue is workable; nothing where nothing leans."""
    if dry is None or survey.gluing is None:
        return ()
    taken = counted(in_phase(survey.figures, "dry"))
    return worth_repeating(net, dry, taken, survey.gluing.body)


def _dry(survey: Survey, phase: Phase | None, net: Network) -> Dry | None:
    """What the dry readings left, where this phase leans on them."""
    if survey.gluing is None or phase not in PHASES_WITH_PRIOR:
        return None
    readings = counted(in_phase(survey.readings, "dry"))
    if not readings:
        return None
    settled = _settle(net, readings, (), NO_STARTS, None)
    return dry_of(net.columns, settled.solution, survey.gluing.body)


def _served(survey: Survey, dry: Dry | None, checks: tuple[Check, ...]) -> tuple[Check, ...]:
    """Checks that readings are asked for: of what can still be moved, and while one body is glued of that."""
    locked = set(survey.locked)
    free = tuple(one for one in checks if not locked.issuperset(_held(one)))
    if dry is None or survey.gluing is None:
        return free
    return tuple(one for one in free if survey.gluing.body in _held(one))


def _held(check: Check) -> tuple[str, ...]:
    """The bodies that a check holds."""
    return check.between or (check.body,)


def next_readings(
    pool: CandidatePool,
    solution: Solution,
    taken: tuple[Reading, ...],
    rules: tuple[CheckRule, ...],
    checks: tuple[Check, ...],
    asking: Asking = ANYTHING,
) -> tuple[NextReading, ...]:
    """The best readings for the worst undecided check that any reading would still help.

    One that was taken is asked for again only where no new place helps more, or where a check hangs on whether
    it is right.

    Parameters
    ----------
    asking : Asking, optional
        What of it can be taken now, and what is to be taken again.
    """
    open_ = undecided(checks)
    if not open_:
        return ()
    new = asking.tied(available_in(pool, solution, taken))
    taken_before = asking.tied(available_again(pool, solution, taken))
    rule_of = {rule.id: rule for rule in rules}
    for check in open_:
        if check.hangs and (decides := asking.again(rule_of[check.id], check)):
            return decides
        best = rank(new, solution, rule_of[check.id])
        more = rank(taken_before, solution, rule_of[check.id])
        if more and (not best or more[0].sigma_after < best[0].sigma_after):
            return more
        if best:
            return best
    return ()
