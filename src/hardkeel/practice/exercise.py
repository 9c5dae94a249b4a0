"""An exercise: a model that is not the learner's, crooked by a story, with minutes to find it out in."""

import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.practice.courses import TOOLS, tools_of
from hardkeel.practice.hidden import Hidden
from hardkeel.practice.sealing import check_seal
from hardkeel.practice.truth import Truth
from hardkeel.project.model import Build
from hardkeel.project.practice import PracticeSection
from hardkeel.survey.checking import Check, CheckRule, rules_of
from hardkeel.survey.handiness import efforts_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import DistanceDifference, Reading, sigma_of


@dataclass(frozen=True)
class Exercise:
    """One, opened: the build that the learner sees, and what is hidden from him.

    Attributes
    ----------
    hidden : Hidden
        The airframe as it really stands.
    """

    build: Build
    section: PracticeSection
    truth: Truth
    hidden: Hidden

    def value_of(self, check: str) -> float:
        """What a check really is, mm or degrees."""
        rule = self._rule(check)
        return rule.design + float(rule.slope @ self.hidden.unknowns)

    def is_out(self, check: str) -> bool:
        """Whether it is beyond its tolerance."""
        rule = self._rule(check)
        return abs(self.value_of(check) - rule.target) > rule.tolerance

    def _rule(self, check: str) -> CheckRule:
        return next(one for one in self.rules if one.id == check)

    @cached_property
    def bare(self) -> Judgement:
        """What is said of the model before anything was read."""
        return judge_survey(untouched(self.build.surveyed, tools_of(self.section.course)))

    @cached_property
    def rules(self) -> tuple[CheckRule, ...]:
        """The model's checks, on the hidden airframe's unknowns."""
        net = self.hidden.net
        return rules_of(net.survey, net.columns)

    @property
    def checks(self) -> tuple[Check, ...]:
        """The same as nobody has read them yet."""
        return self.bare.checks

    @property
    def asked(self) -> tuple[CheckRule, ...]:
        """What is to be said of, in the checks' order."""
        return tuple(one for one in self.rules if one.id in self.section.asked)

    def spent(self, readings: Sequence[Reading]) -> float:
        """Minutes that readings took."""
        return minutes_of(self.hidden.net.survey, readings)

    def if_true(self, readings: Sequence[Reading]) -> tuple[float, ...]:
        """What readings would show on a true airframe by perfect tools, mm or degrees."""
        net = self.hidden.net
        nothing = np.zeros(net.columns.size)
        values, _ = net.observer(readings).predict(nothing, net.placer.place(nothing))
        return tuple(float(one) for one in values)

    def with_minutes(self, minutes: float) -> "Exercise":
        """The same with so many minutes."""
        section = self.section.but(minutes=minutes)
        return Exercise(self.build.but(practice=section), section, self.truth, self.hidden)

    def read(self, reading: Reading, number: int) -> Reading:
        """What the learner's tool shows at his `number`th reading, from 0: with its noise, and misread where it is.

        The same reading taken at the same turn shows the same.
        """
        own = zlib.crc32(
            self.section.sealed.encode()
        )  # else one seed's noise would spoil every model tried
        rng = np.random.default_rng((self.section.seed, own, number))
        slip = self.truth.slips.get(number, 0.0)
        noise = float(rng.normal()) + slip
        return reading.but(
            id=f"r{number + 1}",
            value=self.hidden.show(reading) + self._caught(reading) + noise * sigma_of(reading),
            simulated=True,
        )

    def _caught(self, reading: Reading) -> float:
        """What a line shows too much, mm, because it catches."""
        if not isinstance(reading, DistanceDifference):
            return 0.0
        return self.truth.caught.get(reading.from_, 0.0)


def untouched(survey: Survey, tools: Shared = TOOLS) -> Survey:
    """A survey before anything was read, on the exercise's own tools, whatever the shop's are set to."""
    return survey.but(
        readings=(), photos=(), gluing=None, locked=(), locked_at=None, shared=tools
    )  # fmt: skip


def opened(build: Build) -> Exercise:
    """An exercise from its file.

    Raises
    ------
    BadInput
        When the build is none, or its truth does not belong to it.
    """
    section = build.practice
    if section is None:
        raise BadInput("practice", "is missing: this build is no exercise")
    truth = check_seal(section)
    bare = untouched(build.surveyed, tools_of(section.course))
    exercise = Exercise(build, section, truth, truth.hidden(bare))
    known = {one.id for one in exercise.rules}
    strange = next((one for one in section.asked if one not in known), None)
    if strange is not None:
        raise BadInput("practice.asked", f'no check "{strange}"')
    return exercise


def minutes_of(survey: Survey, readings: Sequence[Reading]) -> float:
    """What readings cost, minutes."""
    return float(efforts_of(survey, readings).sum())
