"""A print of the plan: paper and printer stretch along and across each for itself, so one bar does not tell a scale."""

import math
from typing import Final

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Role, Stroke

_BAR: Final = 100.0
_EDGE: Final = 20.0  # of the sheet beyond what is drawn
_ALLOWED: Final = 0.002  # of a length: then a former still meets its side
_MAY: Final = 0.005


def paper_print(rng: np.random.Generator) -> Piece:
    """A sheet with a fuselage along it and a stabilizer across it.

    Unknowns are what its length and its width have too much, mm.
    """
    along, across = float(rng.integers(70, 105) * 10), float(rng.integers(38, 60) * 10)
    former = float(rng.integers(18, 26) * 5)
    half, low = across / 2, -across / 2 - 10
    wide, high = along + 2 * _EDGE, across + 2 * _EDGE

    def stretched(off: Array) -> tuple[float, float]:
        return 1 + float(off[0]) / along, 1 + float(off[1]) / across

    def shows(off: Array) -> Array:
        a, b = stretched(off)
        border = math.hypot(wide * a, high * b)
        return np.array([_BAR * a, along * a, across * b, former * b, border])

    def drawn(off: Array) -> tuple[Stroke, ...]:
        a, b = stretched(off)
        corners = _box(-_EDGE, -half - _EDGE, along + _EDGE, half + _EDGE)
        belly = tuple(
            (x * along, side * former / 2 * wide_here)
            for side, xs in ((1, (0, 0.3, 0.6, 1)), (-1, (1, 0.6, 0.3, 0)))
            for x, wide_here in zip(
                xs, (0.5, 1, 0.8, 0.15) if side > 0 else (0.15, 0.8, 1, 0.5), strict=True
            )
        )
        tail = _box(along * 0.84, -half, along * 0.96, half)
        lines: tuple[tuple[Role, tuple[Point2, ...]], ...] = (
            ("line", corners),
            ("wood", (*belly, belly[0])),
            ("wood", tail),
            ("line", ((0.0, low), (_BAR, low))),
        )
        return tuple(Stroke(role, tuple((x * a, y * b) for x, y in it)) for role, it in lines)

    third = along * 0.3
    return Piece(
        kind="print",
        unknowns={"along": _MAY * along, "across": _MAY * across},
        looks=(
            Look("bar", "rule", 0.5, 0.2, ((0.0, low), (_BAR, low))),
            Look("length", "tape", 1.0, 0.35, ((0.0, 0.0), (along, 0.0))),
            Look("span", "tape", 1.0, 0.25, ((along * 0.9, -half), (along * 0.9, half))),
            Look("former", "rule", 0.5, 0.2, ((third, -former / 2), (third, former / 2))),
            Look("border", "tape", 1.5, 0.5, ((-_EDGE, -half - _EDGE), (along + _EDGE, half + _EDGE))),
        ),
        asked=(Asked("along", _ALLOWED * along), Asked("across", _ALLOWED * across)),
        shows=shows,
        is_so=np.copy,
        stories={"nothing": (), "along": ("along",), "across": ("across",), "both": ("along", "across")},
        last="across",
        believed=Believed(("bar", "length"), ({"along": along, "across": across},)),
        drawn=drawn,
    )  # fmt: skip


def _box(left: float, low: float, right: float, high: float) -> tuple[Point2, ...]:
    return ((left, low), (right, low), (right, high), (left, high), (left, low))
