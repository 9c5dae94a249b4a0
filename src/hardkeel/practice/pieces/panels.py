"""A wing of two panels on its fuselage, seen from above: swung about its middle, or one panel longer than the other."""

import math

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Stroke


def panels(rng: np.random.Generator) -> Piece:
    """The wing's leading edge at 0, aft to the right, port up; unknowns, mm.

    ``swing``: the port tip aft and the starboard one ahead by so much; ``longer``: port's panel longer than
    starboard's; not asked: ``aside``, the wing set to port, ``back``, set aft, ``size``, both panels longer alike.
    """
    half, chord = float(rng.integers(50, 75) * 10), float(rng.integers(16, 24) * 10)
    tail, nose = float(rng.integers(60, 80) * 10), -float(rng.integers(22, 30) * 10)
    deep = 35.0

    def tips(off: Array) -> tuple[Point2, Point2]:
        swing, longer, aside, back, size = (float(one) for one in off)
        angle = swing / half
        port, starboard = half + size + longer / 2, half + size - longer / 2
        return (
            (back + port * math.sin(angle), aside + port * math.cos(angle)),
            (back - starboard * math.sin(angle), aside - starboard * math.cos(angle)),
        )

    def shows(off: Array) -> Array:
        port, starboard = tips(off)
        lines = [math.dist((x, 0.0), tip) for x in (tail, nose) for tip in (port, starboard)]
        longer, aside, size = float(off[1]), float(off[2]), float(off[4])
        return np.array([*lines, half + size + longer / 2, half + size - longer / 2, deep + aside])

    def drawn(off: Array) -> tuple[Stroke, ...]:
        port, starboard = tips(off)
        ahead = (port[0] - starboard[0]) / (port[1] - starboard[1])
        wing = (port, starboard, (starboard[0] + chord, starboard[1] - ahead * chord),
                (port[0] + chord, port[1] - ahead * chord), port)  # fmt: skip
        body = ((nose, 15.0), (0.0, deep), (tail, 6.0), (tail, -6.0), (0.0, -deep), (nose, -15.0))
        return (Stroke("wood", (*body, body[0])), Stroke("wood", wing))

    straight = tips(np.zeros(5))
    held = [((x, 0.0), tip) for x in (tail, nose) for tip in straight]
    names = ("tail-port", "tail-starboard", "nose-port", "nose-starboard")
    root = chord * 0.5
    return Piece(
        kind="panels",
        unknowns={"swing": 2.5, "longer": 2.5, "aside": 0.8, "back": 1.5, "size": 1.5},
        looks=(
            *(Look(name, "tape", 1.0, 0.4, it) for name, it in zip(names, held, strict=True)),
            Look("panel-port", "tape", 1.0, 0.3, ((root, 0.0), (root, half))),
            Look("panel-starboard", "tape", 1.0, 0.3, ((root, 0.0), (root, -half))),
            Look("root", "rule", 0.5, 0.3, ((chord, 0.0), (chord, deep))),
        ),
        asked=(Asked("swing", 1.5), Asked("longer", 1.5)),
        shows=shows,
        is_so=lambda off: off[:2].copy(),
        stories={"nothing": (), "swung": ("swing",), "one-long": ("longer",), "both": ("swing", "longer")},
        last="one-long",
        believed=Believed(("tail-port", "tail-starboard"), ({"swing": 1.0},)),
        drawn=drawn,
    )  # fmt: skip
