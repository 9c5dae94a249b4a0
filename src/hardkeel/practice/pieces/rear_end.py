"""A rear fuselage that dried away from its board: bent, or its post off the line, or both."""

import math
from typing import Final

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Stroke

_FORMERS: Final = (0.25, 0.5, 0.75)
_STATIONS: Final = 24


def rear_end(rng: np.random.Generator) -> Piece:
    """From the wing's trailing edge to the post; unknowns, mm to starboard.

    ``bend``: the middle off the line from end to end; ``post``: the post off the line of the front; ``wing``: the
    wing's starboard tip aft, which is not asked.
    """
    length, half = float(rng.integers(45, 70) * 10), float(rng.integers(50, 75) * 10)
    deep = float(rng.integers(8, 12) * 5)

    def line(off: Array, share: float) -> float:
        return float(off[1]) * share + float(off[0]) * 4 * share * (1 - share)

    def shows(off: Array) -> Array:
        post, aft = float(off[1]), float(off[2])
        thread = [line(off, one) - post * one for one in _FORMERS]
        squared = [line(off, one) for one in (0.5, 1.0)]
        tips = math.hypot(length - aft, half - post) - math.hypot(length + aft, half + post)
        return np.array([*thread, *squared, tips])

    def drawn(off: Array) -> tuple[Stroke, ...]:
        shares = [i / _STATIONS for i in range(_STATIONS + 1)]
        sides = [
            [(one * length, line(off, one) + side * deep * (1 - 0.8 * one)) for one in shares]
            for side in (1, -1)
        ]
        body = (*sides[0], *sides[1][::-1], sides[0][0])
        formers = tuple(
            Stroke(
                "wood",
                tuple(
                    (one * length, line(off, one) + side * deep * (1 - 0.8 * one))
                    for side in (1, -1)
                ),
            )
            for one in _FORMERS
        )
        return (
            Stroke("board", ((-0.05 * length, 0.0), (1.08 * length, 0.0))),
            Stroke("wood", body),
            *formers,
        )

    def at(share: float) -> tuple[Point2, ...]:
        return ((share * length, 0.0), (share * length, deep * 1.6))

    return Piece(
        kind="rear",
        unknowns={"bend": 1.8, "post": 2.2, "wing": 1.0},
        looks=(
            *(
                Look(name, "thread", 1.0, 0.35, at(one))
                for name, one in zip(("thread-front", "thread-middle", "thread-rear"), _FORMERS, strict=True)
            ),
            Look("square-middle", "square", 1.5, 0.5, at(0.5)),
            Look("square-post", "square", 1.5, 0.5, at(1.0)),
            Look("tips", "tape", 2.0, 0.6, ((length, 0.0), (0.0, deep))),
        ),
        asked=(Asked("bend", 1.0), Asked("post", 1.3)),
        shows=shows,
        is_so=lambda off: off[:2].copy(),
        stories={"nothing": (), "bent": ("bend",), "post-off": ("post",), "both": ("bend", "post")},
        last="bent",
        believed=Believed(("square-post", "tips"), ({"post": 1.0},)),
        drawn=drawn,
    )  # fmt: skip
