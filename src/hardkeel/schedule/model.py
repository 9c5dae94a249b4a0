"""A step of work as the file holds it: minutes, ids of parts and of the steps that come before."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import Text, Value

OWN: Final = "own"  # the stage of steps that the builder adds
StepState = Literal["open", "doing", "done"]
Minutes = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


class Step(Value):
    """One step.

    Attributes
    ----------
    after : tuple of str
        May not start before these are done.
    handle_minutes, cure_minutes : float
        After the hands are off: until it can be handled, and until it is through.
    needs : tuple of str
        What it occupies until it may be moved.
    hold : str
        What must be seen or read before the glue.
    no_return : bool
        Can't be undone afterwards; `because` says why.
    needs_cure : bool
        The steps before must be cured, not only firm.
    """

    id: Text
    stage: str = ""
    title: str = ""
    parts: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    hands_minutes: Minutes = 0.0
    glue: str | None = None
    handle_minutes: Minutes = 0.0
    cure_minutes: Minutes = 0.0
    needs: tuple[str, ...] = ()
    hold: str = ""
    no_return: bool = False
    because: str = ""
    hazards: tuple[str, ...] = ()
    state: StepState = "open"
    needs_cure: bool = False
    started: str | None = None
