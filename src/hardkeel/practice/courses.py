"""Courses: exercises that teach one thing each, in the order in which they build on each other."""

from dataclasses import dataclass
from typing import Final

from hardkeel.practice.stories.story import Skill


@dataclass(frozen=True, slots=True)
class Course:
    """One of them.

    Attributes
    ----------
    minutes : float
        That an exercise of it has at most.
    stories : tuple of str
        That it tells, by chance; one may be that nothing is wrong.
    """

    id: str
    grade: int
    minutes: float
    skill: Skill
    stories: tuple[str, ...]


COURSES: Final[dict[str, Course]] = {
    one.id: one
    for one in (
        Course("corners", 1, 30.0, "finding", ("swung", "wing-swung", "all-true")),
        Course("bench", 1, 20.0, "doubting", ("crooked-bench", "tipped")),
        Course("enough", 1, 20.0, "deciding", ("all-true", "tipped", "swung")),
        Course("turned", 2, 40.0, "doubting", ("gauge-zero", "tail-incidence")),
        Course("hook", 2, 40.0, "doubting", ("tape-hook", "swung", "wing-swung")),
        Course("angles", 2, 40.0, "deciding", ("tail-incidence", "all-true")),
        Course("misread", 3, 90.0, "doubting", ("mark-off", "tipped", "swung", "all-true")),
    )
}
