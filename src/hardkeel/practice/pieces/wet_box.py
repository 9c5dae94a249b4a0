"""A box of sides and formers while its glue is wet: racked, leaning or twisted, until it sets."""

import math
from typing import Final

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Stroke

_POT_LIFE: Final = 10.0
_NOISE: Final = 0.35  # of a tape from corner to corner
_SLANT: Final = 0.45  # of what lies across, in the sketch
Corner = tuple[float, float, float]


def wet_box(rng: np.random.Generator) -> Piece:
    """A box seen from above and port; unknowns, mm.

    ``rack``: starboard side ahead of port; ``lean``: top ahead of the bottom; ``twist``: the rear former's top to
    starboard of the front one's; ``long``, ``wide``, ``tall``: cut too long, which is not asked.
    """
    length, wide, high = (
        float(rng.integers(26, 42) * 10),
        float(rng.integers(10, 16) * 10),
        float(rng.integers(9, 14) * 10),
    )

    def corner(off: Array, *, aft: bool, starboard: bool, top: bool) -> Corner:
        rack, lean, twist, more, wider, taller = (float(one) for one in off)
        y = (wide + wider) / 2 * (1 if starboard else -1)
        z = (high + taller) / 2 * (1 if top else -1)
        x = (length + more if aft else 0.0) - (rack / 2 if starboard else -rack / 2)
        x -= lean / 2 if top else -lean / 2
        if aft:
            angle = math.atan2(twist, high / 2)
            y, z = (
                y * math.cos(angle) + z * math.sin(angle),
                z * math.cos(angle) - y * math.sin(angle),
            )
        return x, y, z

    def across(off: Array, one: tuple[bool, bool, bool], other: tuple[bool, bool, bool]) -> float:
        first, second = (corner(off, aft=it[0], starboard=it[1], top=it[2]) for it in (one, other))
        return math.dist(first, second)

    ends = (
        ((False, False, True), (True, True, True)),
        ((False, True, True), (True, False, True)),
        ((False, False, False), (True, False, True)),
        ((False, False, True), (True, False, False)),
        ((False, True, False), (True, True, True)),
        ((False, True, True), (True, True, False)),
    )

    def shows(off: Array) -> Array:
        port, starboard = (
            corner(off, aft=True, starboard=side, top=False)[2] for side in (False, True)
        )
        return np.array([*(across(off, *it) for it in ends), port - starboard])

    def seen(at: Corner) -> Point2:
        return at[0] + at[1] * _SLANT, at[2] + at[1] * _SLANT

    def drawn(off: Array) -> tuple[Stroke, ...]:
        def ring(corners: tuple[tuple[bool, bool, bool], ...]) -> Stroke:
            points = tuple(seen(corner(off, aft=a, starboard=s, top=t)) for a, s, t in corners)
            return Stroke("wood", (*points, points[0]))

        formers = tuple(
            ring(((a, False, False), (a, True, False), (a, True, True), (a, False, True)))
            for a in (False, True)
        )
        sides = tuple(
            ring(((False, s, False), (True, s, False), (True, s, True), (False, s, True)))
            for s in (True, False)
        )
        return (*formers, *sides)

    straight = np.zeros(6)

    def held(one: tuple[bool, bool, bool], other: tuple[bool, bool, bool]) -> tuple[Point2, ...]:
        return tuple(
            seen(corner(straight, aft=it[0], starboard=it[1], top=it[2])) for it in (one, other)
        )

    names = ("top-port", "top-starboard", "port-up", "port-down", "starboard-up", "starboard-down")
    low = ((True, False, False), (True, True, False))
    return Piece(
        kind="box",
        unknowns={"rack": 2.0, "lean": 2.0, "twist": 2.0, "long": 1.2, "wide": 0.6, "tall": 0.6},
        looks=(
            *(
                Look(name, "tape", 0.75, _NOISE, held(*it))
                for name, it in zip(names, ends, strict=True)
            ),
            Look("shim", "shim", 1.0, 0.3, held(*low)),
        ),
        asked=(Asked("rack", 1.0), Asked("lean", 1.0), Asked("twist", 1.0)),
        shows=shows,
        is_so=lambda off: off[:3].copy(),
        stories={
            "nothing": (),
            "racked": ("rack",),
            "leans": ("lean",),
            "twisted": ("twist",),
            "cut-long": ("long",),
        },
        last="cut-long",
        believed=Believed(
            ("top-port", "port-up", "shim"), ({"rack": 1.0}, {"lean": 1.0}, {"twist": 1.0})
        ),
        drawn=drawn,
        pot_life=_POT_LIFE,
    )
