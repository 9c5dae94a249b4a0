"""The tour of the demo, a sentence or two a step."""

from dataclasses import dataclass
from typing import Final

TOUR: Final = "A tour in five steps"
GO_ON, ENOUGH, TO_MY_MODEL = "Go on", "Enough", "Describe my model"


@dataclass(frozen=True, slots=True)
class Stop:
    """Where one looks, and what one sees there.

    Attributes
    ----------
    stage, place : str
        The page; place is its bench, empty for a page that has none.
    """

    stage: str
    place: str
    words: str


STOPS: Final = (
    Stop(
        "true",
        "rig",
        "The answer stands at the top left: the stabilizer is out of true. Beside it lies the model from the side; red is out, a ring is not known yet.",
    ),
    Stop(
        "true",
        "rig",
        "On the right stands one thing to do now: a tape that does not fit is to be read again. Type what you read, press Enter, and watch the bubbles; what is expected stands beside it.",
    ),
    Stop(
        "true",
        "rig",
        "The seat card says what to do at the wood, in millimetres at each corner. It does so only where a verdict stands behind it.",
    ),
    Stop(
        "bench",
        "tonight",
        "What to do with the evening you have, the long cures last. Enter begins a step and ticks it; F11 shows it large enough for the other side of the bench.",
    ),
    Stop(
        "paper",
        "",
        "What one builds over, at full size. Measure both bars of your print once, and the next pages come out true. Now your own: F1 is the manual.",
    ),
)


def numbered(number: int, stop: Stop) -> str:
    """``2 of 5: On the right…``."""
    return f"{number + 1} of {len(STOPS)}: {stop.words}"
