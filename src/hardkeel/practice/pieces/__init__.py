"""Pieces of work on the board, each with one thing to learn about reading it: a table of kinds."""

from collections.abc import Callable
from typing import Final

from numpy.random import Generator

from hardkeel.practice.pieces.flat_tail import flat_tail
from hardkeel.practice.pieces.hatch import hatch
from hardkeel.practice.pieces.panels import panels
from hardkeel.practice.pieces.paper_print import paper_print
from hardkeel.practice.pieces.piece import Piece
from hardkeel.practice.pieces.rear_end import rear_end
from hardkeel.practice.pieces.sides import sides
from hardkeel.practice.pieces.wet_box import wet_box

# in the order in which a build comes to them
PIECES: Final[dict[str, Callable[[Generator], Piece]]] = {
    "print": paper_print,
    "sides": sides,
    "box": wet_box,
    "rear": rear_end,
    "hatch": hatch,
    "tail": flat_tail,
    "panels": panels,
}

__all__ = ["PIECES", "Piece"]
