"""What is said of two halves: what the heights tell, and no more."""

from dataclasses import dataclass
from typing import cast

import pytest

from hardkeel.messages.flat import alike_sentence
from hardkeel.tail.flatness import Flatness


@dataclass
class Known:
    value: float
    sigma: float = 0.2


@dataclass
class Halves:
    port: Known
    starboard: Known


@pytest.mark.parametrize(
    ("port", "starboard", "said"),
    [
        (1.0, 1.1, "Port and starboard: no difference beyond ± 0.6 mm."),
        (1.0, 3.0, "The starboard tip stands 2.0 mm ± 0.6 mm higher than the other."),
        (3.0, 1.0, "The port tip stands 2.0 mm ± 0.6 mm higher than the other."),
    ],
)
def test_halves_are_called_alike_only_as_far_as_was_read(
    port: float, starboard: float, said: str
) -> None:
    flat = cast("Flatness", Halves(Known(port), Known(starboard)))
    assert alike_sentence(flat, "mm") == said
