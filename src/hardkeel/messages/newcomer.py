"""What a newcomer asks first, and the answer; each stands where it is asked."""

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, slots=True)
class Question:
    """One question."""

    asked: str
    answer: str


WHERE_FROM: Final = Question(
    "Where is it measured from?",
    "Along the fuselage from the datum station, aft positive: what lies before it, as the nose may, is negative. "
    "Up and down from the datum, a level line of your choosing; your plan has one. To port and starboard from the middle. "
    "Nothing is fixed by this: each figure can be changed on Lay out.",
)
HOW_READ: Final = Question(
    "How is a vial read?",
    "The two lines are what is allowed. The bubble is the estimate, and as wide as its doubt. "
    "Between the lines it is true, beyond one of them out, and that way. A bubble that lies across a line is not known yet; where no reading would narrow it, it lies at the limit.",
)
NO_SUCH_TOOL: Final = Question(
    "I have no such tool",
    "Tick under Tools what you have: only that is asked for. "
    "What your tools can't tell stays open, and its vial says so.",
)
WHO_SEES: Final = Question(
    "Where is it kept, and who sees it?",
    "In a file of yours, where you save it. Until then every step is written down in this machine's own folder, "
    "so that a power cut loses nothing. Nothing is sent anywhere.",
)
