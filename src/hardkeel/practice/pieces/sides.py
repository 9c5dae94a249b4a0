"""Two fuselage sides that should be a pair: of one outline, and one the mirror of the other."""

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Stroke


def sides(rng: np.random.Generator) -> Piece:
    """Both lie side by side, inner faces up, noses to the left; unknowns, mm.

    ``long``: port longer than starboard; ``port``, ``starboard``: each doubler's edge aft of its place; ``alike``: how
    much of the starboard doubler is on the outer face: nothing, or all its thickness; ``size``: both longer alike, which
    is not asked.
    """
    length, high = float(rng.integers(60, 90) * 10), float(rng.integers(9, 13) * 10)
    edge, thick = float(rng.integers(24, 36) * 10), float(rng.choice((1.5, 2.0, 3.0)))
    apart = high * 1.5

    def shows(off: Array) -> Array:
        more, port, starboard, alike, size = (float(one) for one in off)
        return np.array(
            [
                length + size + more,
                length + size,
                more,
                edge + port,
                edge + starboard,
                thick,
                thick - alike,
            ]
        )

    def is_so(off: Array) -> Array:
        return np.array([off[0], off[1] - off[2], off[3]])

    def drawn(off: Array) -> tuple[Stroke, ...]:
        more, port, starboard, alike, size = (float(one) for one in off)
        strokes = []
        for low, longer, doubler, hidden in (
            (apart, more, port, False),
            (0.0, 0.0, starboard, alike > thick / 2),
        ):
            end = length + size + longer
            outline = (
                (0.0, low),
                (end, low + high * 0.4),
                (end, low + high * 0.6),
                (edge, low + high),
                (0.0, low + high * 0.9),
                (0.0, low),
            )
            strokes.append(Stroke("wood", outline))
            at = edge + doubler
            strokes.append(
                Stroke(
                    "line" if hidden else "wood",
                    ((at, low + high * 0.4 * at / length), (at, low + high)),
                )
            )
        return tuple(strokes)

    return Piece(
        kind="sides",
        unknowns={"long": 1.0, "port": 1.2, "starboard": 1.2, "alike": thick, "size": 1.0},
        looks=(
            Look("length-port", "tape", 0.5, 0.4, ((0.0, apart + high / 2), (length, apart + high / 2))),
            Look("length-starboard", "tape", 0.5, 0.4, ((0.0, high / 2), (length, high / 2))),
            Look("outlines", "feeler", 1.0, 0.15, ((length, apart + high * 0.5), (length, high * 0.5))),
            Look("edge-port", "rule", 0.5, 0.25, ((0.0, apart + high * 0.75), (edge, apart + high * 0.75))),
            Look("edge-starboard", "rule", 0.5, 0.25, ((0.0, high * 0.75), (edge, high * 0.75))),
            Look("step-port", "feeler", 0.5, 0.1, ((edge, apart + high * 0.6),)),
            Look("step-starboard", "feeler", 0.5, 0.1, ((edge, high * 0.6),)),
        ),
        asked=(Asked("outline", 0.7), Asked("doublers", 1.0), Asked("hand", thick / 2)),
        shows=shows,
        is_so=is_so,
        stories={"nothing": (), "one-longer": ("long",), "doublers-off": ("port",), "alike": ("alike",)},
        last="alike",
        believed=Believed(
            ("outlines", "edge-port", "edge-starboard"),
            ({"long": 1.0}, {"port": 1.0}, {"starboard": 1.0}),
        ),
        drawn=drawn,
        whole=("alike",),
    )  # fmt: skip
