"""Tools that tell all their readings the same thing wrong, and a bench that is not level: nothing of the model is out."""

import math
from collections.abc import Callable
from typing import Final

import numpy as np

from hardkeel.practice.stories.story import COURSE_ONLY, Bent, Story, body_with, either_way, has
from hardkeel.survey.checking import TOLERANCES
from hardkeel.survey.model import Survey
from hardkeel.survey.network import network_of


def _zero(what: str, low: float, high: float) -> Callable[[Survey, np.random.Generator], Bent]:
    """A zero of the first tool that shares this, one way or the other."""

    def bend(survey: Survey, rng: np.random.Generator) -> Bent:
        owner = _owner(survey, what)
        by = float(rng.choice([-1.0, 1.0]) * rng.uniform(low, high))
        return Bent(shared={(what, owner): (by,)})

    return bend


def _owner(survey: Survey, what: str) -> str:
    return next((one for kind, one in network_of(survey).columns.shared if kind == what), "")


def _shares(what: str) -> Callable[[Survey], bool]:
    return lambda survey: bool(_owner(survey, what))


def _askew(_survey: Survey, rng: np.random.Generator) -> Bent:
    way = rng.choice([-1.0, 1.0], 2)
    pitch, roll = way * rng.uniform(1.2, 2.5, 2)
    return Bent(bench={"pitch": float(pitch), "roll": float(roll)})


def _hook_long(survey: Survey, rng: np.random.Generator) -> Bent:
    """A tape off by more than the tail's swing that is allowed makes at its tip."""
    body = body_with(survey, "stabilizer", "foreplane")
    assert body is not None  # noqa: S101  it suits
    a_swing = math.radians(TOLERANCES["yaw"]) * (body.span or 0.0) / 2
    return Bent(shared={("tape_zero", _owner(survey, "tape_zero")): (either_way(rng, a_swing),)})


def _has_tape_and_tail(survey: Survey) -> bool:
    return _shares("tape_zero")(survey) and has("stabilizer", "foreplane")(survey)


STORIES: Final = (
    Story("hook-long", COURSE_ONLY, _has_tape_and_tail, _hook_long, ("yaw",), puts_out=False),
    Story("gauge-off", COURSE_ONLY, _shares("gauge"), _zero("gauge", 0.75, 0.95), ("decalage", "incidence"), puts_out=False),
    Story("misread", COURSE_ONLY, has("wing"), lambda _survey, _rng: Bent(), ("yaw", "roll_to_wing"), puts_out=False, slips=(0,)),
    Story("gauge-zero", 2, _shares("gauge"), _zero("gauge", 0.2, 0.35), ("decalage", "incidence"), puts_out=False),
    Story("tape-hook", 2, _shares("tape_zero"), _zero("tape_zero", 0.4, 0.7), ("yaw",), puts_out=False),
    Story("crooked-bench", 1, has("wing"), _askew, ("roll", "roll_to_wing", "incidence"), puts_out=False),
)  # fmt: skip
