"""Parts that stand askew."""

import math
from typing import Final

import numpy as np

from hardkeel.practice.stories.story import Bend, Bent, Story, body_with, either_way, has
from hardkeel.survey.checking import TOLERANCES
from hardkeel.survey.model import Role, Survey

_TAIL: Final[tuple[Role, ...]] = ("stabilizer", "foreplane")


def _turned(name: str, tolerance: str, *roles: Role) -> Bend:
    """Turned about one axis, clearly beyond a check's tolerance."""

    def bend(survey: Survey, rng: np.random.Generator) -> Bent:
        body = body_with(survey, *roles)
        assert body is not None  # noqa: S101  it suits
        return Bent({body.id: {name: either_way(rng, TOLERANCES[tolerance])}})

    return bend


def _set_back(survey: Survey, rng: np.random.Generator) -> Bent:
    """Set fore or aft by more than a tape to one tip tells from a swing; square all the same."""
    body = body_with(survey, *_TAIL)
    assert body is not None  # noqa: S101  it suits
    a_swing = math.radians(TOLERANCES["yaw"]) * (body.span or 0.0) / 2
    return Bent({body.id: {"dx": either_way(rng, a_swing)}})


def _nothing(_survey: Survey, _rng: np.random.Generator) -> Bent:
    return Bent()


STORIES: Final = (
    Story("all-true", 1, has("wing"), _nothing, ("yaw", "incidence", "roll_to_wing"), puts_out=False),
    Story("tipped", 1, has(*_TAIL), _turned("roll", "roll_to_wing", *_TAIL), ("roll_to_wing", "yaw")),
    Story("swung", 1, has(*_TAIL), _turned("yaw", "yaw", *_TAIL), ("yaw", "roll_to_wing")),
    Story("set-back", 1, has(*_TAIL), _set_back, ("yaw",), puts_out=False),
    Story("wing-swung", 1, has("wing"), _turned("yaw", "yaw", "wing"), ("yaw", "roll")),
    Story("tail-incidence", 2, has(*_TAIL), _turned("pitch", "decalage", *_TAIL), ("decalage", "incidence")),
    Story("fin-leans", 2, has("fin"), _turned("roll", "fin_lean_to_stab", "fin"), ("fin_lean_to_stab", "fin_yaw")),
    Story("fin-off", 2, has("fin"), _turned("yaw", "fin_yaw", "fin"), ("fin_yaw",)),
)  # fmt: skip
