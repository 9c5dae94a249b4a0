"""What is left after a correction: never drawn, made by who corrects an exercise and reads it again."""

from typing import Final

from hardkeel.practice.stories.story import COURSE_ONLY, Bent, Story

AFTER: Final = "corrected"
STORIES: Final = (
    Story(AFTER, COURSE_ONLY, lambda _survey: False, lambda _survey, _rng: Bent(), ()),
)
