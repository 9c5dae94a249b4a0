"""What makes a build an exercise: whose readings are paid in minutes, and whose truth is sealed."""

from typing import Annotated

from pydantic import Field

from hardkeel.base.values import Finite, Positive, Text, Value
from hardkeel.survey.readings import Reading


class Word(Value):
    """What the learner says of one check before any verdict is shown.

    Attributes
    ----------
    out : bool
        Whether it is called out of true.
    off : float, optional
        How far off what is wanted, mm or degrees, with its sign; ``None`` where no figure was named.
    """

    out: bool
    off: Finite | None = None


class PracticeSection(Value):
    """The ``practice`` section of a file.

    Attributes
    ----------
    seed : int
        What it was made by: the same again.
    course : str, optional
        Id of the course that it belongs to.
    last : bool
        The last of its course, which who lacks the course's idea fails.
    grade : int
        1 to 3: how much hides, and how well.
    minutes : float
        That may be spent on readings.
    asked : tuple of str
        Ids of the checks that are to be told.
    sealed : str
        The truth: readable by who looks, but not at a glance (`practice.truth`).
    taken : tuple of Reading
        What the learner read, in order; one that is ``ignored`` is doubted.  They stand here and not in the survey, so
        that nothing judges them before the learner has.
    said : mapping of str to Word
        The learner's word, by check.
    told : bool
        The learner is through: truth and verdicts may be shown, and `taken` stands in the survey too.
    """

    seed: Annotated[int, Field(ge=0)]
    course: Text | None = None
    last: bool = False
    grade: Annotated[int, Field(ge=1, le=3)]
    minutes: Positive
    asked: Annotated[tuple[Text, ...], Field(min_length=1)]
    sealed: Text
    taken: tuple[Reading, ...] = ()
    said: dict[Text, Word] = Field(default_factory=dict)
    told: bool = False
