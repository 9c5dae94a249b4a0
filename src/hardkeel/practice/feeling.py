"""A bench to play at: turn a part of a true airframe, and see what checks, tools and the air make of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from hardkeel.airframe.flights import build_trim
from hardkeel.geometry.rotation import Array
from hardkeel.practice.exercise import minutes_of
from hardkeel.practice.making import bare
from hardkeel.practice.worth import with_reading
from hardkeel.project.model import Build
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.columns import BENCH, POSE, TWIST
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.planning import plan
from hardkeel.survey.ranking import KNOWN
from hardkeel.survey.readings import Reading, sigma_of
from hardkeel.trim.flying import Trim

ON_BENCH: Final = "bench"
_FELT_SIGMAS: Final = 2.0  # what a tool shows beyond its own noise

Turns = Mapping[tuple[str, str], float]


@dataclass(frozen=True, slots=True)
class Shows:
    """What a tool would show.

    Attributes
    ----------
    true, shown : float
        On a true airframe and on this one, mm or degrees; nothing of noise in it.
    """

    reading: Reading
    true: float
    shown: float


@dataclass(frozen=True, slots=True)
class Listed:
    """What to read for a check.

    Attributes
    ----------
    minutes : float
        Of all of it.
    decides : bool
        Whether the check counts as known with it.
    """

    readings: tuple[Reading, ...]
    minutes: float
    decides: bool


@dataclass(frozen=True)
class Feel:
    """A model to play with.

    Attributes
    ----------
    build : Build
        Bare: the airframe as drawn.
    judgement : Judgement
        As nobody has read anything.
    trim : Trim
        Of the whole build, with what it weighs.
    """

    build: Build
    judgement: Judgement
    trim: Trim

    @cached_property
    def _true(self) -> Array:
        return self._predicted(np.zeros(self.judgement.net.columns.size))

    @property
    def turns(self) -> dict[str, tuple[str, ...]]:
        """By body, and for the bench, what can be turned or shifted."""
        columns = self.judgement.net.columns
        found = {
            body.id: tuple(
                name for name in (*POSE, *TWIST) if columns.column(body.id, name) is not None
            )
            for body in self.judgement.net.survey.bodies
            if body.id != FUSELAGE
        }
        return {**found, ON_BENCH: ("roll", "pitch")}

    def unknowns(self, turns: Turns) -> Array:
        """The airframe turned so, shape (n,); mm and degrees."""
        columns = self.judgement.net.columns
        unknowns = np.zeros(columns.size)
        for (body, name), amount in turns.items():
            at = (
                columns.bench + BENCH.index(name)
                if body == ON_BENCH
                else columns.column(body, name)
            )
            if at is not None:
                unknowns[at] = amount
        return unknowns

    def checks(self, unknowns: Array) -> tuple[Check, ...]:
        """What each check then is; known, for nobody had to measure it."""
        found = []
        for rule in self.judgement.rules:
            value = rule.design + float(rule.slope @ unknowns)
            out = abs(value - rule.target) > rule.tolerance
            found.append(
                Check(
                    rule.id,
                    rule.kind,
                    rule.body,
                    rule.unit,
                    value,
                    0.0,
                    rule.target,
                    rule.tolerance,
                    "out" if out else "true",
                    role=rule.role,
                    between=rule.between,
                )
            )
        return tuple(found)

    def tools(self, unknowns: Array) -> tuple[Shows, ...]:
        """What tools would show otherwise than on a true airframe: what stands out most first, one place of a kind each."""
        pool = self.judgement.pool.readings
        shown, true = self._predicted(unknowns), self._true
        noise = np.array([sigma_of(one) for one in pool])
        apart = np.abs(shown - true) / noise
        found: dict[tuple[str, object], Shows] = {}
        for at in np.argsort(-apart, kind="stable").tolist():
            one = pool[at]
            if apart[at] < _FELT_SIGMAS or getattr(one, "turned", False):
                continue
            key = (one.kind, getattr(one, "body", None) or getattr(one, "to", None))
            if key not in found:
                found[key] = Shows(one, float(true[at]), float(shown[at]))
        return tuple(found.values())

    def list_for(self, rule: CheckRule) -> Listed:
        """What to read for a check, and whether that decides it."""
        judgement = self.judgement
        net, solution = judgement.net, judgement.solution
        listed = plan(net, solution, (rule,), pool=judgement.pool)
        covariance = solution.covariance
        if listed:
            placed = net.placer.place(solution.unknowns)
            _, rows = net.observer(listed).predict(solution.unknowns, placed)
            for one, row in zip(listed, rows, strict=True):
                covariance = with_reading(covariance, row / sigma_of(one))
        sharp = float(np.sqrt(max(float(rule.slope @ covariance @ rule.slope), 0.0)))
        return Listed(listed, minutes_of(net.survey, listed), sharp <= KNOWN * rule.tolerance)

    def _predicted(self, unknowns: Array) -> Array:
        pool, net = self.judgement.pool, self.judgement.net
        values, _ = pool.observer.predict(unknowns, net.placer.place(unknowns))
        return values


def feel_of(build: Build) -> Feel:
    """Make a model ready to play with."""
    plain = bare(build)
    return Feel(plain, judge_survey(plain.surveyed), build_trim(build))
