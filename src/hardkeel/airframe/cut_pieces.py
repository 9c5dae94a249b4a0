"""Every flat piece of a build by its name: the fuselage's and the tail's."""

from hardkeel.airframe.framing import build_pieces
from hardkeel.airframe.tails import tail_pieces
from hardkeel.base.errors import BadInput
from hardkeel.joinery.flat import FlatPiece
from hardkeel.project.model import Build


def cut_pieces(build: Build) -> tuple[FlatPiece, ...]:
    """What is cut from sheet, as `frame --json` and `tail --json` name it; what can't be drawn yet is left out."""
    found: list[FlatPiece] = []
    for pieces_of in (build_pieces, tail_pieces):
        try:
            found += pieces_of(build)
        except BadInput:  # a figure is missing: what is drawn can be checked all the same
            continue
    return tuple(found)


def piece_named(build: Build, name: str) -> FlatPiece:
    """The piece of that name, large and small letters alike.

    Raises
    ------
    BadInput
        When there is none.
    """
    pieces = cut_pieces(build)
    for piece in pieces:
        if piece.name.casefold() == name.strip().casefold():
            return piece
    some = ", ".join(piece.name for piece in pieces[:_SOME])
    raise BadInput(
        "--piece",
        f'no piece "{name}"; there are {some} …' if some else "nothing is cut from sheet yet",
    )


_SOME = 6
