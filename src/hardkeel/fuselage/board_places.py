"""Places of the building board that marks name by their figures."""

import re
from typing import Final

_PLACE: Final = re.compile(r"board\.(-?\d+(?:\.\d+)?)\.(-?\d+(?:\.\d+)?)")


def place_of_board(mark: str) -> tuple[float, float] | None:
    """X and y of a place of the board that a mark names by its figures, ``board.120.-35``; ``None`` of any other mark."""
    found = _PLACE.fullmatch(mark)
    return (float(found[1]), float(found[2])) if found is not None else None
