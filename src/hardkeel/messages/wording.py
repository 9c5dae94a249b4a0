"""The words of a step, as templates: what it is called, what to look at first, why it can't be undone, what to do after."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Wording:
    """``{all}``, ``{first}`` and ``{rest}`` stand for what the step is about."""

    title: str
    hold: str = ""
    because: str = ""
    then: str = ""
