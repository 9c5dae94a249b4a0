"""A tail surface on the board before it is covered: warped, or on a board that is not flat itself."""

from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Stroke

_STATIONS: Final = 20
_FEELER: Final = 0.2


def flat_tail(rng: np.random.Generator) -> Piece:
    """A frame with its long side along the board, then turned over, then along the board's other way; unknowns, mm.

    ``bow``: its middle above its ends; ``twist``: a corner above the plane of the other three; ``hollow``: the board's
    middle below its ends; ``winding``: the board's own twist, as it lifts that corner.  A bow turned over is a hollow;
    a twist stays a twist, however the frame is turned over: only laid across the board it winds the other way.
    """
    span, chord = float(rng.integers(35, 60) * 10), float(rng.integers(9, 16) * 10)

    def shows(off: Array) -> Array:
        bow, twist, hollow, winding = (float(one) for one in off)
        return np.array(
            [bow + hollow, hollow - bow, twist + winding, twist + winding, twist - winding]
        )

    def drawn(off: Array) -> tuple[Stroke, ...]:
        bow, twist, hollow = float(off[0]), float(off[1]), float(off[2])
        shares = [i / _STATIONS for i in range(_STATIONS + 1)]
        board = tuple((one * span, -8 - hollow * 4 * one * (1 - one)) for one in shares)
        front = tuple((one * span, bow * 4 * one * (1 - one)) for one in shares)
        lift = chord * 0.7
        rear = tuple((x + lift, y + lift + twist * x / span) for x, y in front)
        ribs = tuple(Stroke("wood", (front[i], rear[i])) for i in range(0, _STATIONS + 1, 4))
        return (Stroke("board", board), Stroke("wood", front), Stroke("wood", rear), *ribs)

    lift = chord * 0.7
    middle = ((span / 2, -8.0), (span / 2, 0.0))
    corner = ((span + lift, lift - 8.0), (span + lift, lift))
    return Piece(
        kind="tail",
        unknowns={"bow": 1.2, "twist": 1.2, "hollow": 1.0, "winding": 1.0},
        looks=(
            Look("middle", "feeler", 0.5, _FEELER, middle),
            Look("middle-over", "feeler", 1.0, _FEELER, middle),
            Look("corner", "feeler", 0.5, _FEELER, corner),
            Look("corner-over", "feeler", 1.0, _FEELER, corner),
            Look("corner-across", "feeler", 1.5, _FEELER, corner),
        ),
        asked=(Asked("bow", 0.8), Asked("twist", 0.8)),
        shows=shows,
        is_so=lambda off: off[:2].copy(),
        stories={
            "nothing": (),
            "bowed": ("bow",),
            "warped": ("twist",),
            "board-hollow": ("hollow",),
            "board-wound": ("winding",),
        },
        last="board-hollow",
        believed=Believed(("middle", "corner"), ({"bow": 1.0}, {"twist": 1.0})),
        drawn=drawn,
    )
