"""What makes a build an exercise: whose readings are paid in minutes, and whose truth is sealed."""

from typing import Annotated

from pydantic import Field

from hardkeel.base.values import Positive, Text, Value


class PracticeSection(Value):
    """The ``practice`` section of a file.

    Attributes
    ----------
    seed : int
        What it was made by: the same again.
    course : str, optional
        Id of the course that it belongs to.
    grade : int
        1 to 3: how much hides, and how well.
    minutes : float
        That may be spent on readings.
    asked : tuple of str
        Ids of the checks that are to be told.
    sealed : str
        The truth: readable by who looks, but not at a glance (`practice.truth`).
    """

    seed: Annotated[int, Field(ge=0)]
    course: Text | None = None
    grade: Annotated[int, Field(ge=1, le=3)]
    minutes: Positive
    asked: Annotated[tuple[Text, ...], Field(min_length=1)]
    sealed: Text
