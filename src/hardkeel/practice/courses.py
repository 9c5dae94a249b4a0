"""Courses: exercises that teach one thing each, in the order in which they build on each other."""

from dataclasses import dataclass
from typing import Final


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
    stories: tuple[str, ...]


COURSES: Final[dict[str, Course]] = {
    one.id: one
    for one in (
        Course("corners", 1, 30.0, ("swung", "wing-swung", "all-true")),
        Course("bench", 1, 20.0, ("crooked-bench", "tipped")),
        Course("enough", 1, 20.0, ("all-true", "tipped", "swung")),
        Course("turned", 2, 40.0, ("gauge-zero", "tail-incidence")),
        Course("hook", 2, 40.0, ("tape-hook", "swung", "wing-swung")),
        Course("angles", 2, 40.0, ("tail-incidence", "all-true")),
        Course("misread", 3, 90.0, ("mark-off", "tipped", "swung", "all-true")),
    )
}
