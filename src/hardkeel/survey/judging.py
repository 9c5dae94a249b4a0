"""The whole judgement of a survey: adjust, suspect, check, correct, propose."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

from hardkeel.survey.adjusting import Solution
from hardkeel.survey.blaming import charges_of, culprit_of
from hardkeel.survey.checking import Check, CheckRule, judge, rules_of
from hardkeel.survey.correcting import Correction, Together, corrections_of, together_of
from hardkeel.survey.doubting import Doubt, doubted
from hardkeel.survey.gluing import LEANING, Dry, Moved, dry_of, lean_on, movement_of
from hardkeel.survey.model import Phase, Reading, Sight, Survey, counted, in_phase
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.pooling import Offers, Pool, offers_again, offers_of, pool_of
from hardkeel.survey.pot_life import still_to_take, worth_repeating
from hardkeel.survey.ranking import NextReading, promised, rank, undecided
from hardkeel.survey.soundness import check_survey
from hardkeel.survey.suspecting import (
    NO_STARTS,
    Fit,
    SightFit,
    Starts,
    Suspect,
    fits,
    set_aside,
    sight_fits,
)
from hardkeel.survey.toolbox import Why, why_nothing

_BETWEEN: Final[dict[str, tuple[str, ...]]] = {
    "decalage": ("wing", "stab"),
    "stab_roll_to_wing": ("wing", "stab"),
    "fin_lean_to_stab": ("fin", "stab"),
}


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
    suspects: tuple[Suspect, ...]
    checks: tuple[Check, ...]
    doubts: tuple[Doubt, ...]
    corrections: tuple[Correction, ...]
    together: Together | None
    next: tuple[NextReading, ...]
    repeats: tuple[Reading, ...]
    why: Why
    charged: Mapping[str, tuple[str, ...]]
    culprit: str
    ended: Starts
    pool: Pool
    movement: Mapping[str, tuple[Moved, ...]]

    @property
    def simulated(self) -> bool:
        """Whether all that it rests on was made up by a stand-in gauge."""
        used = counted((*self.readings, *self.sightings))
        return bool(used) and used[0].simulated

    @property
    def measured(self) -> bool:
        """Whether anything was read at all."""
        return bool(self.readings) or any(fit.used for fit in self.sight_fits)

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
    pool = near.pool if near is not None and near.pool.serves(net) else pool_of(net)
    observed = in_phase(survey.readings, phase)
    in_use = counted(observed)
    taken = tuple(one for one in in_use if not isinstance(one, Sight))
    dry = _dry(survey, phase, net)
    if dry is not None:
        net, starts = replace(net, lean=lean_on(dry)), NO_STARTS
    solution, held, suspects, ended = set_aside(net, in_use, starts)
    rules = rules_of(survey, net.columns)
    checks = judge(rules, solution.unknowns, solution.covariance)
    aside = tuple(suspect.reading for suspect in suspects)
    checks, doubts = doubted(net, solution, in_use, aside, rules, checks)
    corrections = corrections_of(net, solution, rules)
    charged = charges_of(
        net.columns, rules, checks, solution.unknowns, solution.covariance, survey.locked
    )
    out = {body for check in checks if check.verdict == "out" for body in charged[check.id]}
    served = _served(survey, dry, checks)
    repeats = _repeats(survey, dry, net)
    next_ = next_readings(pool, solution, taken, rules, served)
    if repeats and (left := still_to_take(repeats, taken)):
        next_ = (*promised(net, solution, left, rules, served), *next_)
    readings = tuple(one for one in observed if not isinstance(one, Sight))
    sightings = tuple(one for one in observed if isinstance(one, Sight))
    return Judgement(
        phase=phase,
        net=net,
        solution=solution,
        rules=rules,
        readings=readings,
        fits=fits(net, readings, held, solution),
        sightings=sightings,
        sight_fits=sight_fits(net, sightings, held, solution),
        suspects=suspects,
        checks=checks,
        doubts=doubts,
        corrections=corrections,
        together=together_of(net, solution, rules, out),
        next=next_,
        repeats=repeats,
        why="" if next_ else why_nothing(net, solution, taken, rules, served),
        charged=charged,
        culprit=culprit_of(checks, charged, corrections, survey.locked),
        ended=ended if dry is None else NO_STARTS,
        pool=pool,
        movement=movement_of(net, dry, solution) if dry is not None else MappingProxyType({}),
    )


def _repeats(survey: Survey, dry: Dry | None, net: Network) -> tuple[Reading, ...]:
    """What to read again while the glue is workable; nothing where nothing leans."""
    if dry is None or survey.gluing is None:
        return ()
    taken = counted(in_phase(survey.figures, "dry"))
    return worth_repeating(net, dry, taken, survey.gluing.body)


def _dry(survey: Survey, phase: Phase | None, net: Network) -> Dry | None:
    """What the dry readings left, where this phase leans on them."""
    if survey.gluing is None or phase not in LEANING:
        return None
    readings = counted(in_phase(survey.readings, "dry"))
    if not readings:
        return None
    solution, _, _, _ = set_aside(net, readings)
    return dry_of(net.columns, solution, survey.gluing.body)


def _served(survey: Survey, dry: Dry | None, checks: tuple[Check, ...]) -> tuple[Check, ...]:
    """Checks that readings are asked for: of what can still be moved, and while one body is glued of that."""
    locked = set(survey.locked)
    free = tuple(one for one in checks if not locked.issuperset(_held(one)))
    if dry is None or survey.gluing is None:
        return free
    return tuple(one for one in free if survey.gluing.body in _held(one))


def _held(check: Check) -> tuple[str, ...]:
    """The bodies that a check holds."""
    return _BETWEEN.get(check.id, (check.body,))


def next_readings(
    pool: Pool,
    solution: Solution,
    taken: tuple[Reading, ...],
    rules: tuple[CheckRule, ...],
    checks: tuple[Check, ...],
    tied: Callable[[Offers], Offers] = lambda offers: offers,
) -> tuple[NextReading, ...]:
    """The best readings for the worst undecided check that any reading would still help.

    One that was taken is asked for again only where no new place helps more.

    Parameters
    ----------
    tied : callable, optional
        Leaves of the offers those that can be taken now.
    """
    open_ = undecided(checks)
    if not open_:
        return ()
    new = tied(offers_of(pool, solution, taken))
    again = tied(offers_again(pool, solution, taken))
    rule_of = {rule.id: rule for rule in rules}
    for check in open_:
        best = rank(new, solution, rule_of[check.id])
        more = rank(again, solution, rule_of[check.id])
        if more and (not best or more[0].sigma_after < best[0].sigma_after):
            return more
        if best:
            return best
    return ()
