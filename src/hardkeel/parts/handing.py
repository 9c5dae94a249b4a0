"""Handed pairs: the question that catches two port sides before the glue sets."""

from dataclasses import dataclass
from typing import Final

from hardkeel.parts.model import STATES, Ledger, Part, State

ASKED_BEFORE: Final[State] = "glued"


@dataclass(frozen=True, slots=True)
class PairQuestion:
    """To be answered before a pair goes further.

    Attributes
    ----------
    part : str
    facing_up : int
        How many of the two must show their outer face for the pair to be mirror images.
    """

    part: str
    facing_up: int = 1


def question_for(part: Part, ledger: Ledger, state: State) -> PairQuestion | None:
    """The question to ask when a part is about to reach a state; ``None`` where none is due."""
    reached = STATES.index(state) >= STATES.index(ASKED_BEFORE)
    if part.hand != "pair" or not reached or ledger.pairs.get(part.id) == "mirrored":
        return None
    return PairQuestion(part.id)


def wrong_pairs(parts: tuple[Part, ...], ledger: Ledger) -> tuple[Part, ...]:
    """Pairs that were found to be two of one hand."""
    return tuple(p for p in parts if p.hand == "pair" and ledger.pairs.get(p.id) == "same")
