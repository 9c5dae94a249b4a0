"""What was practised, how it went by skill, and what is worth repeating when.  Never how fast."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated, Final, Literal, Protocol

from pydantic import Field

from hardkeel.base.values import Finite, Text, Value
from hardkeel.practice.courses import BEFORE_LAST, COURSES
from hardkeel.practice.exercise import Exercise
from hardkeel.practice.kit import Kit, Late
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.pieces.knowing import Taken, best_looks, minutes_of
from hardkeel.practice.pieces.task import Marked, Task
from hardkeel.practice.replay import Step
from hardkeel.practice.scoring import Line, Outcome, Scored
from hardkeel.practice.stories.after import AFTER

Skill = Literal["finding", "doubting", "deciding", "order"]
SKILLS: Final[tuple[Skill, ...]] = ("finding", "doubting", "deciding", "order")
Share = Annotated[Finite, Field(ge=0, le=1)]
_GOOD: Final = 0.99
_HALF: Final = 0.5  # what a find with the wrong way or figure counts
_DAYS: Final = (
    1,
    3,
    8,
    21,
)  # until it is worth doing again: longer each time it went well in a row
_LAST: Final = 5  # exercises that a skill is told from
ORDER: Final = "order"  # what a kit goes by in the book
# what is learnt on the board comes before what is learnt on a whole model: it takes minutes
EVERY: Final = (*PIECES, ORDER, *COURSES)
# what these put off looks like a part that is out: who calls one out has not doubted the tool
_OF_TOOLS: Final = frozenset(
    {
        "gauge-zero", "tape-hook", "crooked-bench", "mark-off", "set-back", "hook-long", "gauge-off", "misread",
        "line-catches",
    }
)  # fmt: skip


class Told(Protocol):
    """A question that is over."""

    @property
    def line(self) -> Line:
        """What it really is."""

    @property
    def outcome(self) -> Outcome:
        """How the word stands."""

    @property
    def guessed(self) -> bool:
        """Whether the readings do not decide it."""

    @property
    def is_right(self) -> bool:
        """Told rightly, and known."""


class Done(Value):
    """One exercise that was gone through.

    Attributes
    ----------
    when : datetime
        With its offset.
    model : str
        Its name.
    right, asked : int
        How many were told rightly, of how many.
    minutes, best : float
        What was spent, and what the best use of the minutes takes.
    skills : mapping of str to float
        From 0 to 1, of those that it called for.
    """

    when: datetime
    seed: Annotated[int, Field(ge=0)]
    course: Text | None = None
    last: bool = False
    grade: Annotated[int, Field(ge=1, le=3)]
    model: str
    right: Annotated[int, Field(ge=0)]
    asked: Annotated[int, Field(ge=1)]
    minutes: Annotated[Finite, Field(ge=0)]
    best: Annotated[Finite, Field(ge=0)]
    skills: dict[Skill, Share] = Field(default_factory=dict)

    @property
    def well(self) -> bool:
        """Whether all was told rightly, and nothing of it guessed or blamed on the wrong thing."""
        return self.right == self.asked and all(one >= _GOOD for one in self.skills.values())


class Book(Value):
    """All that were gone through, the oldest first."""

    done: tuple[Done, ...] = ()

    def has_seen(self, exercise: Exercise) -> bool:
        """Whether the learner knows its truth, or has made it what it is: doing it well then tells nothing."""
        section = exercise.section
        mine = (section.seed, section.course, section.last, section.grade, exercise.build.name)
        return exercise.truth.story == AFTER or self._holds(mine)

    def has_told(self, task: Task) -> bool:
        """Whether the learner was shown how a piece is: its number may be typed in again."""
        return self._holds((task.seed, task.piece.kind, task.last, 1, task.piece.kind))

    def _holds(self, mine: tuple[int, str | None, bool, int, str]) -> bool:
        return mine in ((one.seed, one.course, one.last, one.grade, one.model) for one in self.done)


def done_of(
    exercise: Exercise, lines: Sequence[Scored], best: Sequence[Step], when: datetime
) -> Done:
    """What is kept of one."""
    return Done(
        when=when,
        seed=exercise.section.seed,
        course=exercise.section.course,
        last=exercise.section.last,
        grade=exercise.section.grade,
        model=exercise.build.name,
        right=sum(one.is_right for one in lines),
        asked=len(lines),
        minutes=exercise.spent(exercise.section.taken),
        best=best[-1].minutes if best else 0.0,
        skills=skills_of(exercise, lines),
    )


def ordered_of(kit: Kit, seed: int, late: Sequence[Late], when: datetime) -> Done:
    """What is kept of a kit that was put in order; its minutes are those lost."""
    right = len(kit.steps) - len(late)
    return Done(
        when=when,
        seed=seed,
        course=ORDER,
        grade=1,
        model=kit.model,
        right=right,
        asked=len(kit.steps),
        minutes=sum(one.minutes for one in late),
        best=0.0,
        skills={"order": right / len(kit.steps)},
    )


def piece_of(
    task: Task, taken: Sequence[Taken], lines: Sequence[Marked], when: datetime
) -> Done:  # fmt: skip
    """What is kept of a piece on the board."""
    skills = _finding_and_deciding(lines)
    blamed = [one for one in lines if one.outcome == "called"]
    if not any(one.line.is_out for one in lines) and task.piece.stories[task.story]:
        skills["doubting"] = 1 - len(blamed) / len(lines)
    return Done(
        when=when,
        seed=task.seed,
        course=task.piece.kind,
        last=task.last,
        grade=1,
        model=task.piece.kind,
        right=sum(one.is_right for one in lines),
        asked=len(lines),
        minutes=task.spent(taken),
        best=minutes_of(task.piece, best_looks(task.piece)),
        skills=skills,
    )


def skills_of(exercise: Exercise, lines: Sequence[Scored]) -> dict[Skill, float]:
    """How it went, by what it called for."""
    found = _finding_and_deciding(lines)
    doubting = _doubted(exercise, lines)
    if doubting is not None:
        found["doubting"] = doubting
    return found


def _finding_and_deciding(lines: Sequence[Told]) -> dict[Skill, float]:
    found: dict[Skill, float] = {}
    out = [one for one in lines if one.line.is_out]
    if out:
        worth = {"found": 1.0, "half": _HALF}
        found["finding"] = sum(worth.get(one.outcome, 0.0) for one in out) / len(out)
    rash = sum(one.guessed or one.outcome in ("called", "unsaid") for one in lines)
    found["deciding"] = 1.0 - rash / len(lines)
    return found


def _doubted(exercise: Exercise, lines: Sequence[Scored]) -> float | None:
    """Whether the misread readings were doubted and no others, and a tool's fault not laid to the model."""
    slipped = {number for number in exercise.truth.slips if number < len(exercise.section.taken)}
    doubted = {i for i, one in enumerate(exercise.section.taken) if one.ignored}
    by_readings = len(slipped & doubted) / len(slipped | doubted) if slipped | doubted else None
    if exercise.truth.story not in _OF_TOOLS:
        return by_readings
    true = [one for one in lines if not one.line.is_out]
    fair = [one.outcome == "right" and not one.guessed for one in true]
    by_word = sum(fair) / len(fair) if fair else None
    both = [one for one in (by_readings, by_word) if one is not None]
    return min(both) if both else None


def skill_now(book: Book, skill: Skill) -> float | None:
    """How it goes lately, from 0 to 1; ``None`` where nothing called for it yet."""
    lately = [one.skills[skill] for one in book.done if skill in one.skills][-_LAST:]
    return sum(lately) / len(lately) if lately else None


@dataclass(frozen=True, slots=True)
class Due:
    """A course and when it is worth doing next.

    Attributes
    ----------
    times : int
        How often it was done.
    well : int
        How often in a row it went well lately.
    on : datetime or None
        From when on; ``None`` where it was never done.
    passed : bool
        Its last exercise went well once.
    """

    course: str
    times: int
    well: int
    on: datetime | None
    passed: bool = False

    @property
    def is_last(self) -> bool:
        """Whether the next exercise is the last of the course; kits have none."""
        return self.well >= BEFORE_LAST and self.course != ORDER

    def is_due(self, now: datetime) -> bool:
        """Whether it is worth doing now."""
        return self.on is None or self.on <= now


def due_of(book: Book) -> tuple[Due, ...]:
    """All courses, in their order; what went wrong comes back tomorrow, what went well later each time."""
    found = []
    for course in EVERY:
        mine = [one for one in book.done if one.course == course]
        row = 0
        for one in reversed(mine):
            if not one.well:
                break
            row += 1
        days = _DAYS[min(row, len(_DAYS) - 1)]
        on = mine[-1].when + timedelta(days=days) if mine else None
        passed = any(one.last and one.well for one in mine)
        found.append(Due(course, len(mine), row, on, passed))
    return tuple(found)


def next_course(book: Book, now: datetime) -> str:
    """The course to do next: the first that went wrong or was never done and is due, else the one longest due."""
    due = due_of(book)
    for one in due:
        if one.is_due(now) and one.well == 0:
            return one.course
    waiting = [one for one in due if one.on is not None]
    return min(waiting, key=lambda one: one.on or now).course
