"""What is written on a building plan."""

from typing import Final

from hardkeel.messages.names import surface_name

FRONT_AND_FACE: Final = "front; inside up; the second side over the first, its inside down"

FROM_ABOVE: Final = "front; from above, starboard up"
ON_THE_BOARD: Final = "front; on the board, right side up; blocks under the formers are so high"
UPSIDE_DOWN: Final = "front; on the board, upside down; blocks under the formers are so high"

MEASURE_THE_BARS: Final = "full size: both bars measure 100 mm"
_SHEETS: Final = {"side": "Sides", "top": "From above", "board": "On the board"}


def sheet_name(name: str) -> str:
    """What a drawing is called: ``Sides``, ``Stabilizer``."""
    words = _SHEETS.get(name) or surface_name(name)
    return words[:1].upper() + words[1:]


def spacer_words(height: str) -> str:
    """How high the blocks under a former are."""
    return f"block {height}"


def short_name(part: str) -> str:
    """``upright 4`` is ``U4``."""
    word, _, number = part.partition(" ")
    return f"{word[:1].upper()}{number}"


def numbered(kind: str, number: int) -> str:
    """``cross-stick`` as the third piece is ``C3``."""
    return f"{kind[:1].upper()}{number}"


def plan_of(surface: str) -> str:
    """Under a surface."""
    return f"{surface[:1].upper()}{surface[1:]}, seen from above; ahead is up"
