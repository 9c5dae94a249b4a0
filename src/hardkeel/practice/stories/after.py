"""What is left after a correction: never drawn, made by who corrects an exercise and reads it again."""

from typing import Final

from hardkeel.practice.stories.story import Bent, Story

AFTER: Final = "corrected"
_NEVER: Final = 4  # there are three grades
STORIES: Final = (Story(AFTER, _NEVER, lambda _survey: False, lambda _survey, _rng: Bent(), ()),)
