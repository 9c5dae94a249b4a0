"""What each asked check of an exercise really is, and how the learner's word about it stands."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.practice.exercise import Exercise
from hardkeel.project.practice import Word
from hardkeel.survey.checking import Check

Outcome = Literal["found", "half", "missed", "right", "called", "unsaid"]
_NEAR: Final = 0.5  # of how far it is off: a word that is nearer has found it whole


@dataclass(frozen=True, slots=True)
class Line:
    """One asked check.

    Attributes
    ----------
    value : float
        What it really is, mm or degrees.
    error : float
        The same less what is wanted.
    is_out : bool
        Whether it is beyond its tolerance.
    """

    check: str
    value: float
    error: float
    is_out: bool


@dataclass(frozen=True, slots=True)
class Scored:
    """One asked check with what was said of it.

    Attributes
    ----------
    word : Word or None
        The learner's.
    read : Check
        What the learner's readings say, by the engine.
    outcome : str
        ``found`` out and said so, the way and near the figure where one was named; ``half`` the other way or far from
        the figure; ``missed`` out and called true; ``right`` true and said so; ``called`` true and called out;
        ``unsaid``.
    guessed : bool
        The readings do not decide it: right or not, the word was a guess.
    left : float or None
        How far off it would stand, mm or degrees, corrected by the learner's figure; ``None`` without one.
    """

    line: Line
    word: Word | None
    read: Check
    outcome: Outcome
    guessed: bool
    left: float | None

    @property
    def is_right(self) -> bool:
        """Whether it was told rightly, and known."""
        return self.outcome in ("found", "right") and not self.guessed


def asked_truly(exercise: Exercise) -> tuple[Line, ...]:
    """All that was asked, in the checks' order."""
    return tuple(
        Line(
            rule.id,
            exercise.value_of(rule.id),
            exercise.value_of(rule.id) - rule.target,
            exercise.is_out(rule.id),
        )
        for rule in exercise.asked
    )


def scored(exercise: Exercise, checks: Mapping[str, Check]) -> tuple[Scored, ...]:
    """The learner's word against what is so.

    Parameters
    ----------
    checks : mapping of str to Check
        What the learner's readings say, by id.
    """
    said = exercise.section.said
    return tuple(
        Scored(
            line,
            word := said.get(line.check),
            checks[line.check],
            outcome_of(line, word),
            word is not None and checks[line.check].verdict == "unsure",
            line.error - word.off if word is not None and word.out and word.off else None,
        )
        for line in asked_truly(exercise)
    )


def outcome_of(line: Line, word: Word | None) -> Outcome:
    """How a word stands."""
    if word is None:
        return "unsaid"
    if not line.is_out:
        return "called" if word.out else "right"
    if not word.out:
        return "missed"
    near = word.off is None or abs(word.off - line.error) <= _NEAR * abs(line.error)
    return "found" if near else "half"
