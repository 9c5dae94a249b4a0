"""Tools that tell all their readings the same thing wrong, and a bench that is not level: nothing of the model is out."""

from collections.abc import Callable
from typing import Final

import numpy as np

from hardkeel.practice.stories.story import Bent, Story, has
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


STORIES: Final = (
    Story("gauge-zero", 2, _shares("gauge"), _zero("gauge", 0.2, 0.35), ("decalage", "incidence"), puts_out=False),
    Story("tape-hook", 2, _shares("tape_zero"), _zero("tape_zero", 0.4, 0.7), ("yaw",), puts_out=False),
    Story("crooked-bench", 1, has("wing"), _askew, ("roll", "roll_to_wing", "incidence"), puts_out=False),
)  # fmt: skip
