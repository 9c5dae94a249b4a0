"""What the answer to "what next?" is made of."""

from dataclasses import dataclass
from typing import Literal

from hardkeel.survey.readings import Reading

NextKind = Literal[
    "again", "reading", "correct", "glue", "describe", "first", "lock", "on", "sight", "moved"
]


@dataclass(frozen=True, slots=True)
class NextStep:
    """The single answer to "what next?"."""

    kind: NextKind
    title: str
    why: str
    reading: Reading | None = None
    body: str | None = None
