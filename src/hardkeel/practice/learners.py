"""Simulated learners: they read and reckon as builders do, each with some of the courses' ideas, without the engine.

A learner knows the drawing, what a reading would show on a true airframe, and how much a tip or an edge goes with an
error; nothing of what readings share.  Where he lacks an idea he does what people do who lack it:

- ``both``: a tape to one tip alone, not to both.
- ``difference``: both tips, but each against the drawing, not against each other.
- ``bench``: a level on the part alone, not against the part that it is set to.
- ``turn``: a gauge one way round, not both.
- ``decalage``: the tail's incidence against the drawing, not wing and tail by one gauge.
- ``doubt``: each place read once, and trusted; else twice, and a third time where the two stand apart.
- ``enough``: the most of what is off is called out, for something must be.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from hardkeel.practice.courses import IDEAS, Idea
from hardkeel.practice.exercise import Exercise
from hardkeel.practice.strategies import Played
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.columns import POSE
from hardkeel.survey.model import FUSELAGE, role_of
from hardkeel.survey.readings import (
    Distance,
    DistanceDifference,
    Incidence,
    Reading,
    Tilt,
    sigma_of,
)

_TWICE: Final = 2
_APART: Final = 4.0  # sigmas of a difference: then a third reading says which of two it was
_TIP: Final = 0.99  # of the farthest mark


@dataclass
class Learner:
    """One at an exercise.

    Attributes
    ----------
    ideas : frozenset of str
        Those that he has.
    """

    exercise: Exercise
    ideas: frozenset[Idea] = frozenset(IDEAS)
    taken: list[Reading] = field(default_factory=list)

    def play(self) -> Played:
        """Read and say of all that is asked."""
        off = {rule.id: self._error(rule) / rule.tolerance for rule in self.exercise.asked}
        said = {check: abs(one) > 1 for check, one in off.items()}
        if "enough" not in self.ideas and not any(said.values()):
            said[max(off, key=lambda one: abs(off[one]))] = True
        return Played(said, tuple(self.taken), self.exercise.spent(self.taken))

    def _error(self, rule: CheckRule) -> float:
        """How far off he has it, mm or degrees; 0 for what he has no way to read."""
        match rule.kind:
            case "yaw":
                return self._swung(rule)
            case "roll" | "roll_to_wing":
                return self._tipped(rule)
            case "incidence":
                return self._nosed(rule.body)
            case "decalage":
                return self._set(rule)
            case _:
                return 0.0

    def _swung(self, rule: CheckRule) -> float:
        """By a tape from a pin on the centre line to the part's tips."""
        if "difference" in self.ideas and "both" in self.ideas:
            lines = [
                one
                for one in self._offered(DistanceDifference)
                if self._is_pin(one.from_) and self._are_tips(rule.body, one.to)
            ]
            return float(np.mean([self._read(one, rule) for one in lines[:2]]))
        tapes = [
            one
            for one in self._offered(Distance)
            if self._is_pin(one.from_) and self._are_tips(rule.body, (one.to,))
        ]
        first = [one for one in tapes if one.from_ == tapes[0].from_]
        sides = {self._mark(one.to)[1] > 0: one for one in reversed(first)}
        if "both" not in self.ideas:
            return self._read(sides[True], rule)
        each = [self._read(one, rule) for one in sides.values()]
        return max(each, key=abs)

    def _tipped(self, rule: CheckRule) -> float:
        """By a level across the part, and across what it is set to."""
        own = self._level(rule.body, rule)
        if "bench" not in self.ideas:
            return own
        other = next((one for one in rule.between if one != rule.body), FUSELAGE)
        return own + self._level(other, rule)

    def _level(self, body: str, rule: CheckRule) -> float:
        """What the part's lean adds to the check: of what it is set to, with a minus."""
        across = [
            one
            for one in self._offered(Tilt)
            if not one.turned and {self._owner(one.from_), self._owner(one.to)} == {body}
        ]
        if not across:
            return 0.0
        shown = float(np.mean([self._plain(one) for one in across[:2]]))
        return shown * (self._sense(across[0]) if body == rule.body else -self._sense(across[0]))

    def _sense(self, level: Tilt) -> float:
        """1 where it shows a starboard tip that is high as more: a part's roll counts so."""
        return 1.0 if self._mark(level.to)[1] > self._mark(level.from_)[1] else -1.0

    def _nosed(self, body: str) -> float:
        """By a gauge on the part, turned round or not."""
        hung = [one for one in self._offered(Incidence) if one.body == body and one.zero == "datum"]
        ahead = [one for one in hung if not one.turned][:2]
        turned = [one for one in hung if one.turned][:2] if "turn" in self.ideas else []
        means = [
            float(np.mean([self._plain(one) for one in group]))
            for group in (ahead, turned)
            if group
        ]
        return float(np.mean(means))

    def _set(self, rule: CheckRule) -> float:
        """Wing against tail by one gauge, or the tail alone."""
        survey = self.exercise.hidden.net.survey
        pair = sorted(
            rule.between,
            key=lambda one: role_of(next(b for b in survey.bodies if b.id == one)) != "wing",
        )
        wing, tail = pair[0], pair[-1]
        if "decalage" not in self.ideas:
            return -self._nosed_one_way(tail)
        return self._nosed_one_way(wing) - self._nosed_one_way(tail)

    def _nosed_one_way(self, body: str) -> float:
        hung = [
            one
            for one in self._offered(Incidence)
            if one.body == body and one.zero == "datum" and not one.turned
        ]
        return float(np.mean([self._plain(one) for one in hung[:4]]))

    # -- how one reads ---------------------------------------------------------------------------

    def _plain(self, place: Reading) -> float:
        """What a place shows, less what a true airframe would show."""
        shown = [self._once(place)]
        if "doubt" in self.ideas:
            shown.append(self._once(place))
            if abs(shown[0] - shown[1]) > _APART * math.sqrt(2) * sigma_of(place):
                shown.append(self._once(place))
        (true,) = self.exercise.if_true([place])
        held = np.median(shown) if len(shown) > _TWICE else np.mean(shown)
        return float(held) - true

    def _once(self, place: Reading) -> float:
        one = self.exercise.read(place, len(self.taken))
        self.taken.append(one)
        return one.value

    def _read(self, place: Reading, rule: CheckRule) -> float:
        """The same as the check's error: how much the place goes with it is drawn."""
        return self._plain(place) / self._sign(place, rule)

    def _sign(self, place: Reading, rule: CheckRule) -> float:
        """What the place shows more for each unit of the check's error."""
        net = self.exercise.hidden.net
        nothing = np.zeros(net.columns.size)
        _, slopes = net.observer([place]).predict(nothing, net.placer.place(nothing))
        mine = [at for name in POSE if (at := net.columns.column(rule.body, name)) is not None]
        at = max(mine, key=lambda one: abs(float(rule.slope[one])))
        return float(slopes[0, at] / rule.slope[at])

    def _offered(self, kind: type[Reading]) -> Sequence:  # type: ignore[type-arg]
        return [one for one in self.exercise.bare.pool.readings if isinstance(one, kind)]

    def _mark(self, name: str) -> tuple[float, float, float]:
        mark = self.exercise.hidden.net.survey.mark(name)
        assert mark is not None  # noqa: S101  the pool reads marks that are there
        return mark.at

    def _owner(self, name: str) -> str:
        mark = self.exercise.hidden.net.survey.mark(name)
        return mark.body if mark is not None else ""

    def _is_pin(self, name: str) -> bool:
        return self._owner(name) == FUSELAGE and self._mark(name)[1] == 0

    def _are_tips(self, body: str, names: Sequence[str]) -> bool:
        mine = [one for one in self.exercise.hidden.net.survey.marks if one.body == body]
        far = max((abs(one.at[1]) for one in mine), default=0.0)
        return far > 0 and all(
            self._owner(one) == body and abs(self._mark(one)[1]) > _TIP * far for one in names
        )
