"""Marks beside their place: what is read from them is off though nothing stands askew."""

from typing import Final

import numpy as np

from hardkeel.practice.stories.story import Bent, Story, body_with, has
from hardkeel.survey.model import OWN_TARGET, Survey


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


STORIES: Final = (Story("mark-off", 3, has("wing"), _mark_off, ("yaw",), puts_out=False),)
