"""Marks beside their place: what is read from them is off though nothing stands askew."""

import math
from typing import Final

import numpy as np

from hardkeel.practice.stories.story import Bent, Story, body_with, either_way, has
from hardkeel.survey.checking import TOLERANCES
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Survey


def _mark_off(survey: Survey, rng: np.random.Generator) -> Bent:
    """A tip's mark a little fore or aft of where the drawing has it."""
    wing = body_with(survey, "wing")
    assert wing is not None  # noqa: S101  it suits
    mine = [
        one for one in survey.marks if one.body == wing.id and not one.id.startswith(OWN_TARGET)
    ]
    far = max(abs(one.at[1]) for one in mine)
    tips = [one.id for one in mine if abs(one.at[1]) > 0.99 * far]
    by = float(rng.choice([-1.0, 1.0]) * rng.uniform(0.6, 0.9))
    return Bent(shared={("mark", str(rng.choice(tips))): (by, 0.0, 0.0)})


def _catches(survey: Survey, rng: np.random.Generator) -> Bent:
    """A line from one pin touches something on its way to one side: by more than the swing that is allowed makes."""
    tail = body_with(survey, "stabilizer", "foreplane")
    assert tail is not None  # noqa: S101  it suits
    pin = str(rng.choice(_pins(survey)))
    a_swing = math.radians(TOLERANCES["yaw"]) * (tail.span or 0.0) / 2
    return Bent(caught={pin: either_way(rng, a_swing)})


def _pins(survey: Survey) -> list[str]:
    """Marks on the fuselage's centre line, from which lines are swung."""
    return [
        one.id
        for one in survey.marks
        if one.body == FUSELAGE and one.at[1] == 0 and not one.id.startswith(OWN_TARGET)
    ]


def _has_pins(survey: Survey) -> bool:
    return len(_pins(survey)) > 1 and has("stabilizer", "foreplane")(survey)


STORIES: Final = (Story("mark-off", 3, has("wing"), _mark_off, ("yaw",), puts_out=False),
    Story("line-catches", 3, _has_pins, _catches, ("yaw",), puts_out=False),
)  # fmt: skip
