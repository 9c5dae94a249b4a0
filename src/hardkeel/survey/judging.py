"""The whole judgement of a survey: adjust, suspect, check, correct, propose."""

from collections.abc import Mapping
from dataclasses import dataclass

from hardkeel.survey.adjusting import Network, Solution, network_of
from hardkeel.survey.blaming import charges_of, culprit_of
from hardkeel.survey.checking import Check, CheckRule, judge, rules_of
from hardkeel.survey.correcting import Correction, corrections_of
from hardkeel.survey.model import Phase, Reading, Survey, counted, in_phase
from hardkeel.survey.pooling import Offers, Pool, offers_of, pool_of
from hardkeel.survey.ranking import NextReading, rank, undecided
from hardkeel.survey.soundness import check_survey
from hardkeel.survey.suspecting import NO_STARTS, Fit, Starts, Suspect, fits, set_aside


@dataclass(frozen=True, slots=True)
class Judgement:
    """Everything the survey says.

    Attributes
    ----------
    phase : Phase or None
        Whose readings were used; ``None`` for all.
    readings : tuple of Reading
        Those of the phase, used or not, in the order of `fits`.
    charged : mapping of str to tuple of str
        The bodies that each check is charged to, by the check's id.
    culprit : str
        The body whose correction mends most of what is out; empty where nothing is.
    ended : mapping of tuple of str to Array
        Where each solution on the way ended, by the readings set aside: the next one begins there.
    """

    phase: Phase | None
    net: Network
    solution: Solution
    rules: tuple[CheckRule, ...]
    readings: tuple[Reading, ...]
    fits: tuple[Fit, ...]
    suspects: tuple[Suspect, ...]
    checks: tuple[Check, ...]
    corrections: tuple[Correction, ...]
    next: tuple[NextReading, ...]
    charged: Mapping[str, tuple[str, ...]]
    culprit: str
    ended: Starts
    pool: Pool

    @property
    def simulated(self) -> bool:
        """Whether all that it rests on was made up by a stand-in gauge."""
        used = counted(self.readings)
        return bool(used) and used[0].simulated

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
    readings = in_phase(survey.readings, phase)
    solution, held, suspects, ended = set_aside(net, counted(readings), starts)
    rules = rules_of(survey, net.columns)
    checks = judge(rules, solution.unknowns, solution.covariance)
    corrections = corrections_of(net, solution, rules)
    charged = charges_of(net.columns, rules, checks, solution.unknowns, solution.covariance)
    return Judgement(
        phase=phase,
        net=net,
        solution=solution,
        rules=rules,
        readings=readings,
        fits=fits(net, readings, held, solution),
        suspects=suspects,
        checks=checks,
        corrections=corrections,
        next=_next_readings(offers_of(pool, solution, held), solution, rules, checks),
        charged=charged,
        culprit=culprit_of(checks, charged, corrections),
        ended=ended,
        pool=pool,
    )


def _next_readings(
    offers: Offers, solution: Solution, rules: tuple[CheckRule, ...], checks: tuple[Check, ...]
) -> tuple[NextReading, ...]:
    """The best readings for the worst undecided check that any reading would still help."""
    rule_of = {rule.id: rule for rule in rules}
    for check in undecided(checks):
        best = rank(offers, solution, rule_of[check.id])
        if best:
            return best
    return ()
