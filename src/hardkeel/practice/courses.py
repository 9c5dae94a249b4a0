"""Courses: exercises that teach one idea each, in the order in which they build on each other."""

from dataclasses import dataclass, field
from typing import Final, Literal, get_args

from hardkeel.survey.priors import Shared

Idea = Literal["both", "bench", "enough", "turn", "difference", "decalage", "doubt"]
IDEAS: Final[tuple[Idea, ...]] = get_args(Idea)

# the practice bench's tools are well kept, its marks well made: less is to be found out about them than in a shop
TOOLS: Final = Shared(mark=0.1, gauge=0.15, level=0.05, tape_zero=0.3)
_OLD_GAUGE: Final = TOOLS.but(gauge=0.5)
_OLD_TAPE: Final = TOOLS.but(tape_zero=2.0)
BEFORE_LAST: Final = 2  # exercises that go well in a row before the last


@dataclass(frozen=True, slots=True)
class Course:
    """One of them.

    Attributes
    ----------
    idea : str
        What it teaches; who lacks it fails the last exercise.
    minutes : float
        That an exercise of it has at most.
    stories : tuple of str
        That it tells, by chance; one may be that nothing is wrong.
    last : str
        The story of its last exercise.
    asks : tuple of str
        Kinds of checks that the last exercise asks.
    tools : Shared
        How well its tools are kept.
    """

    id: str
    idea: Idea
    grade: int
    minutes: float
    stories: tuple[str, ...]
    last: str
    asks: tuple[str, ...]
    tools: Shared = field(default=TOOLS)


COURSES: Final[dict[str, Course]] = {
    one.id: one
    for one in (
        Course("corners", "both", 1, 30.0, ("swung", "wing-swung", "set-back"), "set-back", ("yaw",)),
        Course("bench", "bench", 1, 30.0, ("crooked-bench", "tipped"), "crooked-bench", ("roll", "roll_to_wing")),
        Course("enough", "enough", 1, 30.0, ("all-true", "tipped", "swung"), "all-true", ("yaw", "roll_to_wing", "roll")),
        Course("turned", "turn", 2, 40.0, ("gauge-zero", "tail-incidence", "gauge-off"), "gauge-off", ("incidence",), _OLD_GAUGE),
        Course("hook", "difference", 2, 40.0, ("tape-hook", "swung", "hook-long"), "hook-long", ("yaw",), _OLD_TAPE),
        Course("angles", "decalage", 2, 40.0, ("tail-incidence", "all-true", "gauge-off"), "gauge-off", ("decalage",), _OLD_GAUGE),
        Course("misread", "doubt", 3, 90.0, ("mark-off", "line-catches", "tipped", "swung", "all-true"), "misread", ("yaw", "roll_to_wing")),
    )
}  # fmt: skip


def tools_of(course: str | None) -> Shared:
    """How well the tools of a course are kept; a course that is not known has the usual ones."""
    found = COURSES.get(course) if course is not None else None
    return found.tools if found is not None else TOOLS
